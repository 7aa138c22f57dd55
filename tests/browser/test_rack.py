"""The rack on the real interface: looking, changing, lending, and putting another string on."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def rack(page, demo):
    page.goto(f"{demo}/")
    page.get_by_role("link", name="Rack", exact=True).click()
    page.get_by_role("heading", name="What lies on the rack?").wait_for()
    return page


def test_the_rack_says_what_is_free_and_lends_it_for_some_weeks(rack):
    expect(rack.get_by_text("lent to Mina Corvin")).to_be_visible()
    rack.get_by_role("button", name=re.compile("^Free")).click()
    rack.get_by_role("link", name="Club bow, reflex–deflex").click()
    rack.get_by_role("button", name="Lend", exact=True).click()
    rack.get_by_role("textbox", name="To", exact=True).fill("Jonas Reedy")
    rack.get_by_label("Due back").fill("2099-06-01")
    rack.get_by_role("button", name="Lend it").click()
    expect(rack.get_by_text("lent to Jonas Reedy, back by 2099-06-01")).to_be_visible()
    rack.get_by_role("button", name="Take back").click()
    expect(rack.get_by_role("button", name="Lend", exact=True)).to_be_visible()


def test_a_parts_change_says_whom_it_reaches_and_is_taken_back(rack):
    rack.get_by_role("link", name="Ilse Varga").click()
    draw = rack.get_by_label("Draw length", exact=True)
    draw.fill("29 1/2")
    draw.press("Tab")
    expect(rack.get_by_text("reaches Field recurve, crawls")).to_be_visible()
    expect(rack.get_by_text("Arrow")).not_to_have_count(0)
    rack.get_by_label("Name", exact=True).press("Escape")
    expect(rack.get_by_text("not kept")).to_have_count(0)
    draw.fill("29")
    draw.press("Tab")
    rack.get_by_role("button", name="Keep this").click()
    expect(rack.get_by_text("Kept, on every rig.")).to_be_visible()
    rack.get_by_role("link", name="Field recurve, crawls").first.click()
    expect(rack.locator("main")).to_contain_text("29")


def test_another_string_is_put_on_and_taken_off_again(page, demo):
    page.goto(f"{demo}/rig/1/string")
    page.get_by_role("tab", name="Another string").click()
    page.get_by_role("button", name="A new string").click()
    page.get_by_label("Name", exact=True).fill("Spare of sixteen")
    strands = page.get_by_label("Strands", exact=True)
    strands.fill("16")
    strands.press("Tab")
    page.get_by_role("button", name="Put the new string on").click()
    expect(page.get_by_text("Spare of sixteen is on.")).to_be_visible()
    expect(page.get_by_label("Rig and route").get_by_text("recheck: string").first).to_be_visible()
    page.get_by_role("heading", name="Which string?").click()
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Took back")).to_be_visible()
    # It lies on the rack now, and can be put on from there.
    page.get_by_role("button", name="Put on Spare of sixteen").click()
    expect(page.get_by_text("On now: Spare of sixteen")).to_be_visible()


def test_a_measured_number_leads_to_its_trial_in_one_step(page, demo):
    page.goto(f"{demo}/rig/1/arrow")
    page.get_by_role("link", name=re.compile("measured")).first.click()
    page.wait_for_url(re.compile(r"keep#entry-\d+"))
    entry = page.locator(f"#{page.url.rsplit('#')[-1]}")
    expect(entry).to_contain_text("Arrow weighed by a grain scale")


def test_what_was_found_says_stop_everywhere_until_a_word_is_logged(page, demo):
    page.goto(f"{demo}/rig/2/bow-length")
    page.get_by_role("tab", name="The bow you have").click()
    page.locator("input[name=place-cracks]").nth(1).check()
    page.get_by_role("button", name="Log this look").click()
    expect(page.get_by_role("status").get_by_text("was found")).to_be_visible()
    page.goto(f"{demo}/rig/2/crawls")
    expect(page.get_by_role("status").get_by_text("was found")).to_be_visible()
    page.goto(f"{demo}/")
    expect(page.get_by_text("Stop.")).to_be_visible()
    page.goto(f"{demo}/rig/2/bow-length")
    page.get_by_role("tab", name="The bow you have").click()
    page.get_by_label("Whose word gives it free").fill("Bowyer Ruta")
    page.get_by_role("button", name="Log the release").click()
    expect(page.get_by_role("status").get_by_text("was found")).to_have_count(0)


def test_nonsense_on_a_parts_page_is_said_kept_as_typed_and_not_kept(rack):
    rack.get_by_role("link", name="Club polyester, 61 in", exact=True).click()
    length = rack.get_by_label("String length", exact=True)
    length.fill("about so long")
    length.press("Tab")
    expect(rack.get_by_text("about so long", exact=False).first).to_be_visible()
    expect(length).to_have_value("about so long")
    strands = rack.get_by_label("Strands", exact=True)
    strands.fill("14")
    strands.press("Tab")
    expect(rack.get_by_role("button", name="Keep this")).to_be_disabled()
    rack.get_by_role("heading", name="Where it is").click()
    rack.keyboard.press("k")
    expect(rack.get_by_text("Kept, on every rig.")).to_have_count(0)
    rack.keyboard.press("Escape")
    expect(length).to_have_value("61")
    expect(strands).to_have_value("12")
