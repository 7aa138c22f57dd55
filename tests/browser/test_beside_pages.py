"""Side by side on the real interface: a day picked, a setting put back with its reason, parts."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def beside(page, demo):
    page.goto(f"{demo}/rig/2/draw")
    page.get_by_role("link", name="Side by side").click()
    page.get_by_role("heading", name="What is different?").wait_for()
    return page


def test_a_day_is_picked_and_its_setting_put_back_with_the_day_as_reason(beside):
    day = beside.get_by_label("As it stood on")
    day.select_option(label="as it began")
    expect(beside.locator(".answer")).to_contain_text("things differ")
    row = beside.get_by_role("listitem").filter(
        has=beside.get_by_role("heading", name="Brace height", exact=True)
    )
    expect(row).to_contain_text("not set")
    row.get_by_role("button", name="Set it so here").click()
    why = beside.get_by_label("Reason for keeping this")
    expect(why).to_have_value("as it began")
    expect(beside.get_by_text("Keep or take back your changes first")).to_be_visible()
    beside.get_by_role("heading", name="What is different?").click()
    beside.keyboard.press("Escape")
    expect(why).to_have_count(0)
    row.get_by_role("button", name="Set it so here").click()
    beside.get_by_role("heading", name="What is different?").click()
    beside.keyboard.press("k")
    expect(beside.get_by_text("Kept one change.")).to_be_visible()
    expect(row).to_have_count(0)  # it differs no more
    beside.keyboard.press("Control+z")
    expect(beside.get_by_text("Took back")).to_be_visible()
    expect(row).to_have_count(1)


def test_days_are_walked_by_keyboard_and_every_leaf_shows_both_sides(beside):
    day = beside.get_by_label("As it stood on")
    first = day.input_value()
    earlier = beside.get_by_role("button", name="A day earlier")
    earlier.focus()
    beside.keyboard.press("Enter")
    expect(day).not_to_have_value(first)
    beside.get_by_role("button", name="A day later").press("Enter")
    expect(day).to_have_value(first)
    expect(beside).to_have_url(re.compile(r"beside\?seq=\d+"))
    beside.get_by_role("tab", name="Numbers").click()
    expect(beside.get_by_role("row", name=re.compile("^Speed"))).to_contain_text("ft/s")
    for tab, figure in (
        ("Force–draw", "Force–draw curve"),
        ("Speed", "The arrow to scale"),
        ("Aim", "Where the tip is held over distance"),
    ):
        beside.get_by_role("tab", name=tab, exact=True).click()
        expect(beside.get_by_role("figure", name=re.compile(figure))).to_be_visible()
    beside.get_by_role("tab", name="Findings").click()
    expect(beside.get_by_role("heading", name="Only now")).to_be_visible()


def test_another_rig_stands_beside_and_what_cannot_come_over_says_why(beside):
    beside.get_by_label("Beside", exact=True).select_option(label="Field recurve, crawls")
    expect(beside.locator(".answer")).to_contain_text("things differ")
    row = beside.get_by_role("listitem").filter(
        has=beside.get_by_role("heading", name="Another build of bow")
    )
    expect(row).to_contain_text("put its parts on at Assembly")
    expect(row.get_by_role("button")).to_have_count(0)


def test_a_day_of_the_logbook_leads_there(page, demo):
    page.goto(f"{demo}/rig/1/keep")
    page.get_by_role("link", name=re.compile("beside now.* 24 April 2026")).click()
    expect(page.locator(".answer")).to_contain_text("set of arrows")
    page.get_by_role("button", name="Put it on here").click()
    expect(page.get_by_text("Indoor set is on.")).to_be_visible()
    page.get_by_role("heading", name="What is different?").click()
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Took back")).to_be_visible()


def test_two_parts_stand_side_by_side(page, demo):
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Field set", exact=True).click()
    page.get_by_role("link", name="Side by side").click()
    expect(page.get_by_text("Looked at on Field recurve, crawls.")).to_be_visible()
    page.get_by_label("Field set beside").select_option(label="Spruce set")
    expect(page.locator("main")).to_contain_text("wood")


def test_what_was_changed_on_a_part_is_not_lost_by_leaving(page, demo):
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Club polyester, 61 in", exact=True).click()
    strands = page.get_by_label("Strands", exact=True)
    strands.fill("16")
    strands.press("Tab")
    page.get_by_role("link", name="Rack", exact=True).click()
    page.get_by_role("button", name="Stay").click()
    expect(strands).to_have_value("16")
    page.get_by_role("link", name="Rack", exact=True).click()
    page.get_by_role("button", name="Keep and go on").click()
    page.get_by_role("heading", name="What lies on the rack?").wait_for()
    page.get_by_role("link", name="Club polyester, 61 in", exact=True).click()
    expect(strands).to_have_value("16")
    page.get_by_role("heading", name="Where it is").click()
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Taken back, on every rig.")).to_be_visible()
    expect(strands).to_have_value("12")


def test_two_rigs_of_one_name_stand_side_by_side(page, demo):
    name = "Horn-tip thumb bow"
    copied = page.request.post(f"{demo}/api/rigs/3/copy", data={"name": name}).json()
    page.goto(f"{demo}/rig/3/beside?rig={copied['id']}")
    page.get_by_role("tab", name="Findings").click()
    expect(page.get_by_role("heading", name=f"Only {name}")).to_have_count(2)
    page.request.post(f"{demo}/api/rigs/{copied['id']}/archive", data={"away": True})
