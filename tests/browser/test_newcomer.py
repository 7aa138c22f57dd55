"""A newcomer's way on the real interface: from an empty database to a kept rig and its sheet."""

import json
import urllib.request

import pytest
from playwright.sync_api import expect
from printed import printed

QUICK = ["Bow length", "Weight", "Assembly", "String", "Tiller", "In line"]


def keep(page):
    """What was typed is read before it can be kept."""
    button = page.get_by_role("button", name="Keep this")
    expect(button).to_be_enabled()
    button.press("Enter")


def get(address, path):
    with urllib.request.urlopen(f"{address}{path}") as answer:
        return json.load(answer)


def test_from_an_empty_database_to_a_printed_sheet_by_keyboard(page, empty):
    """Not once is the mouse used."""
    page.goto(empty)
    expect(page.get_by_role("heading", name="No rig yet")).to_be_visible()
    page.get_by_role("link", name="Set up the first rig").press("Enter")

    page.get_by_role("radio", name="Reflex–deflex").press("Space")
    length = page.get_by_label("Bow length", exact=True)
    expect(length).to_have_value("62")
    length.fill("5' 2 in")
    page.get_by_label("Marked weight", exact=True).fill("18.5 kg")
    page.get_by_label("Draw length", exact=True).fill("27 1/2")
    expect(page.get_by_label("Marked weight", exact=True)).to_have_value("40.8")
    page.get_by_label("Rig", exact=True).fill("First bow")
    page.get_by_role("button", name="Set it up").press("Enter")

    expect(page.get_by_role("heading", name="How far do you draw?")).to_be_visible()
    page.get_by_role("tab", name="Measure it").press("Enter")
    for reading in ("27 3/8", "27.5", "27-5/8", "698 mm"):
        page.get_by_label("A reading").fill(reading)
        page.get_by_label("A reading").press("Enter")
        expect(page.get_by_label("A reading")).to_have_value("")
    page.get_by_role("button", name="Take it").press("Enter")
    page.get_by_label("Reason for keeping this").fill("four draws with a marked arrow")
    page.get_by_label("Reason for keeping this").press("Enter")
    expect(page.get_by_text("Kept 3 changes.", exact=False)).to_be_visible()

    for title in QUICK:
        page.locator("body").press("]")
        expect(page.get_by_role("navigation").get_by_role("link", name=title)).to_have_attribute(
            "aria-current", "page"
        )
        if title == "Assembly":
            page.get_by_role("button", name="All done").press("Enter")
            page.get_by_label("settled").press("Space")
            keep(page)
            expect(page.get_by_role("button", name="Keep this")).to_be_hidden()
            continue
        page.get_by_role("button", name="Settled as it is").press("Enter")
        expect(page.get_by_role("button", name="Settled as it is")).to_be_hidden()

    page.locator("body").press("]")
    brace = page.get_by_label("Brace height", exact=True)
    brace.fill("7 3/8")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    brace.press("Tab")
    page.get_by_role("button", name="Keep this").focus()
    page.keyboard.press("k")
    expect(page.get_by_text("One change not kept.")).to_be_hidden()

    page.keyboard.press("]")
    page.get_by_role("button", name="Start at").press("Enter")
    expect(page.get_by_text("It lies within the ordinary starts.")).to_be_visible()
    page.keyboard.press("k")
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="Level")).to_be_focused()
    page.keyboard.press("5")  # tails level
    expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(1)
    expect(page.get_by_text("the reads put the height", exact=False)).to_be_visible()

    page.locator("body").press("]")
    expect(page.get_by_role("heading", name="Where does the point stand?")).to_be_visible()
    page.get_by_label("Plate, thick", exact=True).fill("1.5")
    page.get_by_label("Plate, thick", exact=True).press("Enter")
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()
    expect(page.get_by_text("A shelf bow is as it is cut", exact=False)).to_be_visible()

    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("]")
    page.get_by_label("Point", exact=True).fill("145")
    keep(page)
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()
    page.keyboard.press("]")
    expect(page.get_by_role("heading", name="Does the arrow leave straight?")).to_be_visible()
    page.get_by_role("tab", name="Reads").click()
    page.get_by_label("Nock straight").click()
    page.get_by_role("button", name="Log 1").click()
    expect(page.get_by_text("Nocks at seven paces: straight.")).to_be_visible()
    page.get_by_role("button", name="Settled as it is").press("Enter")
    expect(page.get_by_role("button", name="Settled as it is")).to_be_hidden()
    page.locator("body").press("]")
    expect(page.get_by_role("heading", name="What still makes noise?")).to_be_visible()
    page.get_by_role("button", name="Settled as it is").press("Enter")
    expect(page.get_by_role("button", name="Settled as it is")).to_be_hidden()
    page.locator("body").press("]")
    expect(page.get_by_role("heading", name="Where do you aim?")).to_be_visible()
    page.get_by_label("Distances, m").fill("10 15 20 25 yd")
    expect(page.get_by_role("row", name="Tip under the spot ")).to_be_visible()
    keep(page)
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()

    rig = get(empty, "/api/rigs/1")
    assert rig["rig"]["name"] == "First bow"
    assert rig["rig"]["bow"]["length_in"] == pytest.approx(62)
    assert rig["rig"]["archer"]["draw_method"] == "marked_arrow"
    assert rig["rig"]["bow"]["brace_height_in"] == pytest.approx(7.375)
    assert rig["rig"]["nock_height_mm"] is not None
    assert rig["rig"]["aim"]["distances_m"] == pytest.approx([10, 15, 20, 22.86])
    assert {s["state"] for s in rig["states"]} <= {"provisional", "settled", "due"}

    sheet = printed(page, "Print sheet")
    assert sheet.endswith("/api/rigs/1/sheet")
    with urllib.request.urlopen(sheet) as answer:
        assert answer.read(5) == b"%PDF-"


def test_what_was_kept_survives_reloading_and_is_in_the_logbook(page, demo):
    page.goto(f"{demo}/rig/2/brace")
    page.get_by_label("Brace height", exact=True).fill("7 1/2")
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_role("button", name="Keep this")).to_be_hidden()
    page.reload()
    expect(page.get_by_label("Brace height", exact=True)).to_have_value("7 1/2")
    page.goto(f"{demo}/rig/2/keep")
    first = page.locator("ol li").nth(1)
    expect(page.get_by_text("Set brace height from", exact=False).first).to_be_visible()
    page.get_by_role("button", name="Take back the last").click()
    expect(page.get_by_text("Took back: brace height", exact=False)).to_be_visible()
    expect(first).to_be_visible()
    assert get(demo, "/api/rigs/2")["rig"]["bow"]["brace_height_in"] == 7.25


def test_nonsense_on_the_first_page_makes_no_rig(page, empty):
    page.goto(f"{empty}/new")
    weight = page.get_by_label("Marked weight", exact=True)
    weight.fill("heavy")
    expect(page.get_by_text("“heavy” is not a measurement", exact=False)).to_be_visible()
    page.get_by_role("button", name="Set it up").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("could not be read")
    expect(weight).to_be_focused()
    expect(weight).to_have_value("heavy")
    weight.fill("38#")
    page.get_by_label("Bow length", exact=True).fill("3")
    expect(page.get_by_label("Bow length, slider")).to_have_value("40")
    page.get_by_role("button", name="Set it up").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("at least 40 in")
    assert get(empty, "/api/rigs") == []
    page.get_by_label("Bow length", exact=True).fill("68")
    expect(page.get_by_label("Bow length, slider")).to_have_value("68")
    page.get_by_role("button", name="Set it up").press("Enter")
    expect(page.get_by_role("heading", name="How far do you draw?")).to_be_visible()
    assert get(empty, "/api/rigs/1")["rig"]["bow"]["marked_weight_lbf"] == 38
