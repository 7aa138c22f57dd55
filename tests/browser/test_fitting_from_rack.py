"""Fit from the rack on the real interface: somebody new, a bow chosen, lent and written up."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def fit(page, demo):
    page.goto(f"{demo}/rack")
    page.get_by_role("link", name="Fit from the rack").click()
    page.get_by_role("heading", name="What on the rack fits?").wait_for()
    return page


def ask(page, name):
    page.get_by_label("For", exact=True).select_option(label=name)
    expect(page.locator(".answer")).to_contain_text(name)
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def test_somebody_new_takes_a_bow_home_and_brings_it_back(fit):
    fit.get_by_role("button", name="Somebody new").click()
    form = fit.get_by_role("form", name="Somebody new")
    form.get_by_label("Name").fill("Ruben Thorne")
    draw = form.get_by_label("Draw length", exact=True)
    draw.fill("a good pull")
    draw.press("Tab")
    expect(form).to_contain_text("a good pull")  # said why, and what was typed stays
    expect(draw).to_have_value("a good pull")
    expect(form.get_by_role("button", name="Put on the rack")).to_be_disabled()
    draw.fill("26 3/4")
    draw.press("Tab")
    form.get_by_role("button", name="Put on the rack").click()
    expect(fit.locator(".answer")).to_contain_text("could be Ruben Thorne's")
    expect(fit.locator("[aria-busy=true]")).to_have_count(0)
    first = fit.locator(
        "button.row"
    ).first  # the lightest that the schools are for: no hold is known
    expect(first).to_contain_text("free")
    chosen = fit.get_by_role("complementary", name="The bow chosen")
    chosen.get_by_label("Due back").fill("2099-05-01")
    chosen.get_by_label("Write it up as a rig").check()
    chosen.get_by_role("button", name=re.compile("^Take out")).click()
    expect(chosen.get_by_text("due back on 2099-05-01")).to_be_visible()
    expect(chosen.get_by_role("link", name="Day it is due back")).to_be_visible()
    lent = fit.locator("button.row[aria-expanded=true]")
    expect(lent).to_contain_text("lent to Ruben Thorne")
    chosen.get_by_role("button", name="Take it back").click()
    expect(fit.get_by_text("All of it is back on the rack.")).to_be_visible()
    expect(lent).not_to_contain_text("lent to Ruben")


def test_what_does_not_fit_says_why_and_is_not_taken_out(fit):
    ask(fit, "Jonas Reedy")  # left-handed
    fit.locator("button.row", has_text="Club bow, reflex–deflex").click()
    chosen = fit.get_by_role("complementary", name="The bow chosen")
    expect(chosen).to_contain_text("made for the right hand")
    expect(chosen.get_by_role("button", name=re.compile("^Take out"))).to_have_count(0)
    expect(chosen).to_contain_text("Something stops this bow")


def test_it_is_done_by_keyboard_and_a_wish_is_read_as_it_is_typed(fit):
    ask(fit, "Ada Lindgren")
    wish = fit.get_by_label("At most, at the draw", exact=True)
    wish.fill("heavy")
    wish.press("Tab")
    expect(wish).to_have_value("heavy")
    wish.fill("12 kg")
    wish.press("Tab")
    expect(fit.locator("[aria-busy=true]")).to_have_count(0)
    row = fit.locator("button.row", has_text="Club bow, reflex–deflex")
    row.focus()
    fit.keyboard.press("Enter")
    chosen = fit.get_by_role("complementary", name="The bow chosen")
    expect(chosen).to_contain_text("you asked for")
    string = chosen.get_by_role("group", name="String").get_by_role("radio")
    string.first.focus()
    fit.keyboard.press("ArrowDown")
    expect(string.nth(1)).to_be_checked()
    expect(chosen).to_contain_text("it is not taken out so")


def test_on_a_phone_the_bow_unfolds_in_its_place(fit):
    fit.set_viewport_size({"width": 390, "height": 844})
    ask(fit, "Ada Lindgren")
    row = fit.locator("button.row", has_text="Club bow, reflex–deflex")
    expect(row).to_have_attribute("aria-expanded", "false")
    row.click()
    expect(fit.get_by_role("heading", name="Take it out")).to_be_visible()
    row.click()
    expect(fit.get_by_role("heading", name="Take it out")).to_have_count(0)
