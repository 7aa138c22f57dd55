"""A dozen on the real interface: the tightest few of a set, as it is typed."""

import re

from playwright.sync_api import expect


def test_the_tightest_few_are_named_and_follow_what_is_borne(page, demo):
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Indoor set").click()
    expect(page.get_by_role("heading", name="What goes together")).to_be_visible()
    expect(page.get_by_text("the tightest")).to_contain_text("of 7")  # one of eight is broken
    expect(page.get_by_text(re.compile(r"^Shoot (\d+, ){5}\d+"))).to_be_visible()
    count = page.get_by_label("How many shafts go together")
    count.fill("3")
    named = page.get_by_text(re.compile(r"^Shoot (\d+, ){2}\d+: "))
    expect(named).to_be_visible()
    expect(page.get_by_text(re.compile(r"^Next \d+, "))).to_be_visible()
    expect(page.get_by_text(re.compile(r"^For practice: \d+\."))).to_be_visible()
    page.get_by_label("Weight that may differ").fill("0.1")
    expect(named).to_contain_text("more than you would bear")
    count.fill("9")
    expect(
        page.get_by_text("There are 7 shafts: a set of 9 cannot be made of them.")
    ).to_be_visible()


def test_a_dozen_pasted_with_faults_by_line_then_matched_and_labelled(page, demo):
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Spruce set").click()
    expect(page.get_by_text(re.compile(r"^At .* their weights put .* of height"))).to_be_visible()
    page.get_by_role("button", name="Paste lines").press("Enter")
    lines = page.get_by_label("Lines of shafts")
    lines.fill("number,weight (gr),spine (lb)\n11,459,52\n12,heavy,52")
    page.get_by_role("button", name="Take them in").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Line 3: “heavy” is no weight in gr")
    expect(lines).to_have_value(re.compile("heavy"))  # what was typed stays
    lines.fill("number,weight (gr),spine (lb)\n11,459,52\n12,458,53")
    page.get_by_role("button", name="Take them in").press("Enter")
    expect(page.get_by_label("Weight of shaft 12")).to_have_value("458")
    expect(page.get_by_label("Spine of shaft 11")).to_have_value(re.compile("^60"))
    expect(page.get_by_text("the tightest")).to_contain_text("of 11")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Labels").press("Enter")
    sheet = page.get_by_role("combobox", name=re.compile("^Sheet"))
    sheet.select_option("letter_30")
    link = page.get_by_role("link", name="Labels as PDF")
    expect(link).to_have_attribute("href", re.compile("sheet=letter_30&skip=0"))
    page.get_by_role("button", name="See it done").press("Enter")
    expect(page.get_by_text("What would go together of these")).to_be_visible(timeout=12000)
