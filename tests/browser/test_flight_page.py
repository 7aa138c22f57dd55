"""Flight on the real interface: a session by keyboard with either hand, one by touch, slow motion."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect

BOUNCES = re.compile("the shaft is so stiff that it bounces")


def call(address, path, body):
    asked = urllib.request.Request(
        f"{address}{path}", json.dumps(body).encode(), {"content-type": "application/json"}
    )
    with urllib.request.urlopen(asked) as answer:
        return json.load(answer)


def left_handed(address):
    with urllib.request.urlopen(f"{address}/api/rigs/1") as answer:
        seq = json.load(answer)["seq"]
    body = {"seq": seq, "changes": {"archer.hand": "left"}, "station": "draw"}
    call(address, "/api/rigs/1/keep", body)


def ask_for(page, title):
    """Choose a test by its name, at the keyboard."""
    page.get_by_label("Test", exact=True).focus()
    page.keyboard.type(title)
    expect(page.get_by_label("Test", exact=True).locator("option:checked")).to_have_text(title)


@pytest.mark.parametrize(("hand", "nock"), [("right", "4"), ("left", "6")])
def test_from_the_first_kick_to_a_verdict_by_keyboard(page, demo, hand, nock):
    """The nocks lean to the plate, there is a scuff, the tail is seen to strike, and pushes move it
    the wrong way: a bounce."""
    if hand == "left":
        left_handed(demo)
    page.goto(f"{demo}/rig/1/flight")
    answer = page.get_by_role("heading", name="Does the arrow leave straight?").locator("xpath=..")
    expect(answer).to_contain_text("Not read yet")
    page.keyboard.press("t")
    expect(page.get_by_label("Nock straight")).to_be_focused()
    for key in (nock, "5", "Backspace", nock, nock):
        page.keyboard.press(key)
    side = "left" if hand == "right" else "right"
    expect(page.get_by_text(f"3 arrows: {side}, {side}, {side}")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_text(f"Nocks at seven paces: {side}, {side}, {side}.")).to_be_visible()
    expect(answer).to_contain_text("After 1 read it leans to weak")
    for test, outcome in (("powder on the side plate", "a scuff"),
                          ("a look in slow motion", "the tail strikes the side plate"),
                          ("soft felt on the side plate", "the read swings to stiff"),
                          ("drawn an inch short", "it goes towards weak")):  # fmt: skip
        ask_for(page, test)
        page.keyboard.press("Tab")
        shown = page.get_by_role("button", name=outcome, exact=True)
        while not shown.evaluate("e => e === document.activeElement"):
            page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"{test}: {outcome}.", exact=False).first).to_be_visible()
    expect(answer).to_contain_text(BOUNCES)
    expect(page.get_by_text("do not go stiffer still")).to_be_visible()


def test_a_session_by_touch_on_a_phone(browser, browser_context_args, demo):
    context = browser.new_context(
        **browser_context_args | {"viewport": {"width": 390, "height": 844}, "has_touch": True}
    )
    page = context.new_page()
    page.goto(f"{demo}/rig/1/flight")
    page.get_by_role("tab", name="Reads").tap()
    for where in ("left", "left", "high left"):
        cell = page.get_by_label(f"Nock {where},")
        assert cell.bounding_box()["height"] >= 44
        cell.tap()
    page.get_by_role("button", name="Log 3").tap()
    expect(page.get_by_text("Nocks at seven paces: left, left, high left.")).to_be_visible()
    page.get_by_label("Test", exact=True).select_option("wear_marks")
    page.get_by_role("button", name="a scuff", exact=True).tap()
    page.get_by_label("Test", exact=True).select_option("slow_motion")
    page.get_by_role("button", name="the tail strikes the side plate").tap()
    for push, shown in (
        ("felt_plate", "the read swings to stiff"),
        ("short_draw", "it goes towards weak"),
    ):
        page.get_by_label("Test", exact=True).select_option(push)
        page.get_by_role("button", name=shown).tap()
    expect(page.get_by_text(BOUNCES).first).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()


def test_nonsense_is_refused_at_the_distance_and_nothing_is_lost(page, demo):
    page.goto(f"{demo}/rig/1/flight")
    expect(page.get_by_text("Not read yet; by the model")).to_be_visible()
    page.keyboard.press("t")
    expect(page.get_by_label("Nock straight")).to_be_focused()
    for key in "0ab44":
        page.keyboard.press(key)
    distance = page.get_by_label("Distance", exact=True)
    for typed, why in (("sixpence", "is not a measurement"), ("12", "Beyond 8.0 m")):
        distance.fill(typed)
        distance.press("Enter")
        expect(page.get_by_role("alert").filter(has_text=why).first).to_be_visible()
        expect(distance).to_have_value(typed)
        expect(page.get_by_text("2 arrows: left, left")).to_be_visible()
    distance.fill("6")
    distance.press("Enter")
    expect(page.get_by_text("Nocks at seven paces: left, left at 6.0 m.")).to_be_visible()


def test_what_was_read_is_put_right_and_struck_out(page, demo):
    page.goto(f"{demo}/rig/2/flight")
    page.get_by_role("tab", name="Reads").click()
    line = page.get_by_role("listitem").filter(has_text="Nocks at three paces")
    line.get_by_role("button", name="Put right").click()
    expect(page.get_by_text("Put right: say what it was.")).to_be_visible()
    page.get_by_label("Nock left,").click()
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_text("Nocks at three paces: straight, left, left, left")).to_be_visible()
    page.get_by_role("listitem").filter(has_text="Powder").get_by_role(
        "button", name="Strike out"
    ).click()
    expect(page.get_by_text(re.compile("2 reads")).first).to_be_visible()


def test_a_shot_in_slow_motion_is_stepped_and_a_stiffer_one_drawn_beside(page, demo):
    page.goto(f"{demo}/rig/1/flight")
    moment = page.get_by_label("Moment of the shot")
    expect(moment).to_be_visible()
    before = moment.get_attribute("aria-valuetext")
    moment.focus()
    page.keyboard.press("ArrowRight")
    expect(moment).not_to_have_attribute("aria-valuetext", before)
    page.get_by_label("One step back").click()
    expect(moment).to_have_attribute("aria-valuetext", before)
    plate = page.get_by_label("The shaft passing the bow, seen from above").first
    lines = plate.locator("path[stroke-dasharray='7 4']")
    expect(lines).to_have_count(1)
    page.get_by_label("a stiffer (– –)", exact=False).uncheck()
    expect(lines).to_have_count(0)


def test_a_test_that_is_not_made_is_left_out_and_kept_so(page, demo):
    page.goto(f"{demo}/rig/1/flight")
    page.get_by_role("tab", name="Reads").click()
    page.get_by_text("Tests that you make").click()
    page.get_by_label("bare shafts among fletched ones", exact=False).uncheck()
    expect(
        page.get_by_label("Test", exact=True).locator("option", has_text="bare shafts")
    ).to_have_count(0)
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_role("button", name="Keep this")).to_have_count(0)
    page.reload()
    page.get_by_role("tab", name="Reads").click()
    expect(
        page.get_by_label("Test", exact=True).locator("option", has_text="bare shafts")
    ).to_have_count(0)


def test_a_thumb_bow_shows_shapes_and_no_number(page, demo):
    page.goto(f"{demo}/rig/3/flight")
    expect(page.get_by_text("Shapes only: no number is told here", exact=False)).to_be_visible()
    page.get_by_role("tab", name="Which spine").click()
    expect(page.get_by_text("No match is told for this bow", exact=False)).to_be_visible()


def test_a_walk_back_is_shot_distance_by_distance(page, demo):
    page.goto(f"{demo}/rig/1/flight")
    page.get_by_role("tab", name="Walk-back").click()
    for distance, offsets in (("8", "1 2 1.5"), ("18", "9; 10; 11"), ("28", "19 20 18")):
        page.get_by_label("Distance from the line").fill(distance)
        page.get_by_label("How far right of the line each arrow landed").fill(offsets)
        page.get_by_role("button", name="Log this distance").click()
        expect(page.get_by_label("How far right of the line each arrow landed")).to_have_value("")
    expect(page.get_by_text("The arrows run right by", exact=False)).to_be_visible()
    expect(
        page.get_by_label("The walk-back: arrows beside the line, by distance").first
    ).to_be_visible()
    page.get_by_text("To Centre shot").click()
    expect(page.get_by_role("heading", name="Where does the point stand?")).to_be_visible()
