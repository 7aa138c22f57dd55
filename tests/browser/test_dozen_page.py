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
