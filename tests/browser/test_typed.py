"""What is typed and not logged is there again: another leaf, station, Back, a reload, a new window."""

import re

import pytest
from playwright.sync_api import expect

WAITS = re.compile("and waiting here")
WALKED = "Distance from the line"


def tab(page, name):
    page.get_by_role("tab", name=name, exact=True).click()


def test_it_outlives_leaf_station_back_and_a_reload_until_it_is_dropped(page, demo):
    page.goto(f"{demo}/rig/1/weight")
    tab(page, "What you can hold")
    seconds = page.get_by_label("Seconds held", exact=True)
    seconds.fill("11.5")
    tab(page, "As it is")
    tab(page, "What you can hold")
    expect(seconds).to_have_value("11.5")
    expect(page.get_by_text(WAITS)).to_be_visible()
    page.get_by_label("Rig and route").get_by_role("link", name="Brace").first.click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Where does the string sit?")
    page.go_back()
    expect(seconds).to_have_value("11.5")
    page.reload()
    expect(seconds).to_have_value("11.5")
    page.get_by_role("button", name="Drop it").click()
    expect(seconds).to_have_value("")
    page.reload()
    expect(page.get_by_role("button", name="Log this hold")).to_be_visible()
    expect(page.get_by_text(WAITS)).to_have_count(0)


@pytest.mark.parametrize(
    ("path", "leaf", "field", "typed"),
    [
        ("brace", "Listen", "Brace listened to", "7 3/4"),
        ("crawls", "From shots", "Distance of this visit", "31"),
        ("flight", "Walk-back", WALKED, "22"),
        ("draw", "Measure it", "A reading", "28 5/8"),
        ("arrow", "Speed", "Weight of the arrows shot", "412"),
    ],
)
def test_on_every_station_it_waits_for_its_archer(page, demo, path, leaf, field, typed):
    page.goto(f"{demo}/rig/1/{path}")
    tab(page, leaf)
    asked = page.get_by_label(field, exact=True)
    asked.fill(typed)
    page.get_by_role("link", name="Schedule", exact=True).first.click()
    page.wait_for_url("**/schedule")
    page.go_back()
    expect(asked).to_have_value(typed)
    expect(page.get_by_text(WAITS)).to_be_visible()


def test_a_new_rig_waits_too_and_is_gone_once_it_is_set_up(page, empty):
    page.goto(f"{empty}/new")
    page.get_by_label("Bow length", exact=True).fill("66")
    page.get_by_label("Rig", exact=True).fill("The old one")
    page.goto(f"{empty}/terms")
    page.goto(f"{empty}/new")
    expect(page.get_by_label("Bow length", exact=True)).to_have_value("66")
    expect(page.get_by_label("Rig", exact=True)).to_have_value("The old one")
    page.get_by_role("button", name="Set it up").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("How far do you draw?")
    page.goto(f"{empty}/new")
    expect(page.get_by_label("Bow length", exact=True)).not_to_have_value("66")
    expect(page.get_by_text(WAITS)).to_have_count(0)


def test_two_windows_keep_each_its_own(context, demo):
    one, two = context.new_page(), context.new_page()
    for page, typed in ((one, "22"), (two, "33")):
        page.goto(f"{demo}/rig/1/flight")
        tab(page, "Walk-back")
        page.get_by_label(WALKED, exact=True).fill(typed)
    one.reload()
    expect(one.get_by_label(WALKED, exact=True)).to_have_value("22")
    two.close()
    tab(one, "Groups")
    tab(one, "Walk-back")
    expect(one.get_by_label(WALKED, exact=True)).to_have_value("22")
    one.get_by_role("button", name="Drop it").click()
    one.reload()
    expect(one.get_by_label(WALKED, exact=True)).to_have_value("33")


def test_changes_not_kept_are_there_after_the_browser_ended(context, demo):
    page = context.new_page()
    page.goto(f"{demo}/rig/1/string")
    page.get_by_label("Strands", exact=True).fill("16")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.close()  # nobody is asked
    page = context.new_page()
    page.goto(f"{demo}/rig/1/string")
    expect(page.get_by_label("Strands", exact=True)).to_have_value("16")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.get_by_role("button", name="Back").click()
    page.close()
    page = context.new_page()
    page.goto(f"{demo}/rig/1/string")
    expect(page.get_by_label("Strands", exact=True)).not_to_have_value("16")
    expect(page.get_by_text("One change not kept.")).to_have_count(0)


def test_a_parts_changes_not_kept_are_there_too(context, demo):
    page = context.new_page()
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Club polyester, 61 in", exact=True).click()
    page.get_by_label("Strands", exact=True).fill("14")
    expect(page.get_by_role("button", name="Keep this")).to_be_enabled()
    part = page.url
    page.close()  # nobody is asked
    page = context.new_page()
    page.goto(part)
    expect(page.get_by_label("Strands", exact=True)).to_have_value("14")
    expect(page.get_by_text(WAITS)).to_be_visible()
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_text("Kept, on every rig.")).to_be_visible()
    expect(page.get_by_text(WAITS)).to_have_count(0)
