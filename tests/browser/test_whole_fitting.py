"""A whole fitting on the real interface, by keyboard: draw, length, weight, limbs, looking over."""

import json
import re
import urllib.request

from playwright.sync_api import expect


def get(address, path):
    with urllib.request.urlopen(f"{address}{path}") as answer:
        return json.load(answer)


def keep(page):
    page.get_by_role("button", name="Keep this").press("Enter")
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()


def leaf(page, name):
    page.get_by_role("tab", name=name).press("Enter")
    expect(page.get_by_role("tab", name=name)).to_have_attribute("aria-selected", "true")


def test_a_whole_fitting_by_keyboard(page, empty):
    """From no rig to a bow chosen, weighed, held, planned and looked over; no mouse."""
    page.goto(f"{empty}/new")
    page.get_by_label("Draw length", exact=True).fill("28")
    page.get_by_label("Rig", exact=True).fill("Fitting")
    page.get_by_role("button", name="Set it up").press("Enter")
    expect(page.get_by_role("heading", name="How far do you draw?")).to_be_visible()

    # Draw: the key goes to the trial; arm span first, then a marked arrow.
    page.locator("body").press("t")
    expect(page.get_by_label("A reading")).to_be_focused()
    page.get_by_label("Method").select_option("arm_span")
    expect(
        page.get_by_role("img", name="Tape: fingertip to fingertip", exact=False)
    ).to_be_visible()
    page.get_by_label("Method").select_option("marked_arrow")
    page.get_by_label("Read to").select_option("pivot")
    for reading in ("26 3/8", "26.5", "26-5/8", "26.5"):
        page.get_by_label("A reading").fill(reading)
        page.get_by_label("A reading").press("Enter")
        expect(page.get_by_label("A reading")).to_have_value("")
    page.get_by_role("button", name="Take it").press("Enter")
    leaf(page, "As it is")
    expect(page.get_by_label("Draw length", exact=True)).to_have_value("28 1/4")
    keep(page)
    leaf(page, "Over time")
    expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(1)

    # Bow length: three on the plate, the second one tried and kept.
    page.locator("body").press("]")
    expect(page.get_by_role("heading", name="How long a bow?")).to_be_visible()
    leaf(page, "Bows you could take")
    boxes = page.get_by_role("checkbox", name="on the plate")
    expect(boxes.nth(1)).to_be_checked()
    boxes.nth(2).press("Space")
    plate = page.get_by_role("figure", name="Bows side by side", exact=False)
    expect(plate.get_by_text("at the string")).to_have_count(3)
    boxes.nth(3).press("Space")  # a fourth takes the first one's place
    expect(boxes.nth(0)).not_to_be_checked()
    expect(plate.get_by_text("at the string")).to_have_count(3)
    row = page.get_by_role("row").filter(has=page.get_by_role("checkbox")).nth(1)
    length = row.get_by_role("cell").nth(1).inner_text()
    row.get_by_role("button", name="Try").press("Enter")
    keep(page)
    leaf(page, "As it is")
    expect(page.get_by_label("Bow length", exact=True)).to_have_value(length.split()[0])
    leaf(page, "The bow you have")
    expect(page.get_by_role("cell", name="28 1/4 in, yours")).to_be_visible()
    page.get_by_role("button", name="Nothing found in the rest").press("Enter")
    page.get_by_label("Notes on the bow").fill("by the window")
    page.get_by_role("button", name="Log this look").press("Enter")
    expect(page.get_by_text("nothing found.", exact=False).first).to_be_visible()

    # Weight: the scale, three holds, the plan, the limbs.
    page.locator("body").press("]")
    expect(page.get_by_role("heading", name="What does it pull at your draw?")).to_be_visible()
    for draw, weight in (("20", "20.2"), ("24", "28.4"), ("26", "32.2"), ("28 1/4", "37")):
        page.get_by_label("Draw of the reading").fill(draw)
        page.get_by_label("Weight of the reading").fill(weight)
        page.get_by_label("Weight of the reading").press("Enter")
        expect(page.get_by_label("Weight of the reading")).to_have_value("")
    expect(page.get_by_role("button", name="Keep this")).to_be_visible()
    keep(page)
    expect(page.get_by_text("by the scale", exact=False).first).to_be_visible()
    leaf(page, "What you can hold")
    for seconds in ("11", "12.5", "10.5"):
        page.get_by_label("Seconds held").fill(seconds)
        page.get_by_label("Seconds held").press("Enter")
        expect(page.get_by_label("Seconds held")).to_have_value("")
    expect(page.get_by_text("You hold it steady for 11.0 s.")).to_be_visible()
    trials = page.get_by_role("list", name="Trials").get_by_role("listitem")
    expect(trials).to_have_count(4)
    trials.first.get_by_role("button", name="Strike out").press("Enter")
    expect(page.get_by_text("2 of 3 holds timed", exact=False)).to_be_visible()
    page.locator("body").press("Control+z")
    expect(page.get_by_text("You hold it steady for 11.0 s.")).to_be_visible()
    leaf(page, "Going up")
    page.get_by_label("Goal, at your draw", exact=True).fill("44")
    expect(page.get_by_text("after 3 steady holds", exact=False).first).to_be_visible()
    keep(page)
    assert get_calendar(empty).startswith("BEGIN:VCALENDAR")
    leaf(page, "Limbs and bolts")
    page.get_by_label("Upper limb marked", exact=True).fill("36")
    page.get_by_label("Lower limb marked", exact=True).fill("37")
    expect(page.get_by_text("take it up at the nock point", exact=False)).to_be_visible()
    keep(page)

    rig = get(empty, "/api/rigs/1")
    assert rig["rig"]["archer"]["draw_length_in"] == 28.25
    assert [t["trial"]["kind"] for t in rig["trials"]] == ["hold"] * 3 + ["weighing", "inspection", "draw"]  # fmt: skip
    assert rig["trials"][-1]["trial"]["convention"] == "pivot"
    assert len(rig["rig"]["bow"]["measured"]) == 4


def get_calendar(address):
    with urllib.request.urlopen(f"{address}/api/rigs/1/step-up.ics") as answer:
        return answer.read().decode()


def test_a_hold_is_timed_by_the_clock_and_put_right(page, demo):
    page.goto(f"{demo}/rig/1/weight")
    before = len(get(demo, "/api/rigs/1")["trials"])
    leaf(page, "What you can hold")
    page.get_by_role("button", name="Start the clock").click()
    page.get_by_role("button", name=re.compile(r"^Stop at (0[.,][6-9]|[1-9])")).click()
    shown = float(page.get_by_label("Seconds held").input_value())
    assert 0.5 < shown < 120
    page.get_by_label("How it ended").select_option("pain")
    page.get_by_role("button", name="Log this hold").click()
    expect(page.get_by_text("lb ended in pain on").first).to_be_visible()
    first = page.get_by_role("list", name="Trials").get_by_role("listitem").first
    first.get_by_role("button", name="Put right").click()
    page.get_by_label("How it ended").select_option("shaking")
    page.get_by_label("Seconds held").fill("12")
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_text("lb ended in pain on")).to_have_count(0)
    assert len(get(demo, "/api/rigs/1")["trials"]) == before + 1


def test_a_crack_found_stops_the_bow(page, demo):
    page.goto(f"{demo}/rig/2/bow-length")
    page.get_by_role("tab", name="The bow you have").click()
    page.get_by_label("found").first.check()
    page.get_by_role("button", name="Log this look").click()
    expect(page.get_by_text("Do not shoot it until a bowyer", exact=False).first).to_be_visible()


def test_nonsense_in_one_field_keeps_the_others_waiting(page, demo):
    page.goto(f"{demo}/rig/1/weight")
    page.get_by_label("Marked weight", exact=True).fill("heavy")
    expect(page.get_by_text("“heavy” is not a measurement", exact=False)).to_be_visible()
    page.get_by_label("Marked at", exact=True).fill("27 1/2")
    expect(page.get_by_text("One change not kept.", exact=False)).to_be_visible()
    expect(page.get_by_role("button", name="Keep this")).to_be_disabled()
    expect(page.get_by_text("cannot be read yet", exact=False)).to_be_visible()
    expect(page.get_by_label("Marked weight", exact=True)).to_have_value("heavy")
    page.get_by_label("Marked weight", exact=True).fill("35")
    expect(page.get_by_role("button", name="Keep this")).to_be_enabled()
