"""The arrow's leaves on the real interface, by keyboard: build, what if, marks, cutting, wood."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect
from printed import printed


@pytest.fixture
def arrow(page, demo):
    page.goto(f"{demo}/rig/2/arrow")
    page.get_by_role("heading", name="Which arrow?").wait_for()
    return page


def leaf(page, name):
    page.get_by_role("tab", name=name, exact=True).focus()
    page.keyboard.press("Enter")


def findings(page):
    return page.get_by_role("complementary", name="Findings")


def test_build_by_keyboard_and_by_hand(arrow):
    spine = arrow.get_by_label("Static spine", exact=True)
    spine.focus()
    spine.press_sequentially("45#")
    spine.press("Control+a")
    spine.press_sequentially("45#")
    expect(arrow.get_by_text("understood: 700 by the 28-inch standard")).to_be_visible()
    arrow.keyboard.press("Escape")
    length = arrow.get_by_label("Shaft length", exact=True)
    length.fill("27")
    expect(arrow.get_by_text("shorter than the draw").first).to_be_visible()
    arrow.keyboard.press("Escape")
    expect(length).to_have_value("29 1/2")
    handle = arrow.get_by_text("Cut the shaft").locator("xpath=..")
    box = handle.bounding_box()
    arrow.mouse.move(box["x"] + 9, box["y"] + 9)
    arrow.mouse.down()
    arrow.mouse.move(box["x"] - 15, box["y"] + 9, steps=6)
    arrow.mouse.up()
    expect(length).not_to_have_value("29 1/2")
    expect(arrow.get_by_text(re.compile(r"^kept: 29 1/2"))).to_be_visible()
    arrow.keyboard.press("Escape")
    expect(length).to_have_value("29 1/2")


def test_what_if_by_keyboard_and_onto_the_bench(arrow):
    leaf(arrow, "What if")
    table = arrow.get_by_role("table", name="What each changes on this bow")
    expect(table).to_contain_text("Momentum")
    expect(table).to_contain_text("Drop from")
    arrow.get_by_role("button", name="a longer shaft").press("Enter")
    expect(table.get_by_role("columnheader", name="A longer shaft")).to_be_visible()
    point = arrow.get_by_label("point of a lighter shaft")
    point.fill("heavy")
    point.press("Tab")
    expect(arrow.get_by_role("alert")).to_contain_text("heavy")
    point.fill("175")
    point.press("Tab")
    expect(arrow.get_by_role("alert")).to_have_count(0)
    expect(table.get_by_role("row", name="Weighs")).to_contain_text("480 gr")
    shaft = arrow.get_by_label("shaft of a longer shaft")
    shaft.fill("25")
    shaft.press("Tab")
    expect(
        arrow.get_by_text(re.compile("A longer shaft: A shaft of 25 in is shorter"))
    ).to_be_visible()
    arrow.get_by_role("button", name="Put it on the bench").first.press("Enter")
    expect(arrow.get_by_text(re.compile("not kept"))).to_be_visible()
    arrow.keyboard.press("Escape")


def test_a_speed_by_where_arrows_landed(arrow):
    leaf(arrow, "Speed")
    arrow.get_by_label("by where arrows landed").press(" ")
    for name, text in (
        ("Distance 1", "10"), ("Crawl at distance 1", "20"), ("Distance 2", "11"),
        ("Crawl at distance 2", "20"), ("Above the mark at distance 2", "-2"),
    ):  # fmt: skip
        arrow.get_by_label(name, exact=True).fill(text)
    arrow.keyboard.press("Enter")
    expect(findings(arrow)).to_contain_text("A speed wants two distances")
    arrow.get_by_role("button", name="Put right").first.press("Enter")
    arrow.get_by_label("Distance 2", exact=True).fill("30")
    arrow.get_by_label("Above the mark at distance 2").fill("-95")
    arrow.keyboard.press("Enter")
    expect(findings(arrow)).to_contain_text(
        re.compile("By where the arrows landed|No speed explains")
    )
    arrow.get_by_role("button", name="Strike out").first.press("Enter")
    expect(findings(arrow)).not_to_contain_text("where the arrows landed")


def test_speeds_from_a_file_and_its_faults_by_line(arrow, tmp_path):
    leaf(arrow, "Speed")
    bad = tmp_path / "bad.csv"
    bad.write_text("arrow (gr),speed (ft/s)\n458,160\n458,fast\n")
    picker = arrow.get_by_label("CSV file of speeds")
    picker.set_input_files(bad)
    expect(arrow.get_by_text("Line 3: “fast” is no speed in ft/s")).to_be_visible()
    good = tmp_path / "good.csv"
    good.write_text("arrow (gr);speed (ft/s)\n458;160\n458;161,5\n590;143\n")
    picker.set_input_files(good)
    expect(arrow.get_by_text("2 shots of 458 gr, 1 shots of 590 gr")).to_be_visible()
    arrow.get_by_role("button", name="Log them").press("Enter")
    expect(findings(arrow)).to_contain_text("By the chronograph the arrow shares")


def test_cut_by_reads_and_never_where_the_model_calls_it_stiff(arrow, demo):
    with urllib.request.urlopen(f"{demo}/api/rigs/2") as answer:
        seq = json.load(answer)["seq"]
    body = {"seq": seq, "changes": {"arrow.static_spine": 400.0}, "station": "arrow"}
    asked = urllib.request.Request(
        f"{demo}/api/rigs/2/keep", json.dumps(body).encode(), {"content-type": "application/json"}
    )
    urllib.request.urlopen(asked).close()
    arrow.reload()
    leaf(arrow, "Spine")
    arrow.get_by_role("button", name="Flew weak").press("Enter")
    expect(findings(arrow)).to_contain_text("bounces off the side plate")
    arrow.get_by_role("button", name="Strike out").first.press("Enter")
    expect(findings(arrow)).not_to_contain_text("bounces off")


def test_the_over_stiff_school(arrow):
    leaf(arrow, "Spine")
    arrow.get_by_label("Spine by", exact=True).select_option("over_stiff")
    expect(findings(arrow)).to_contain_text("too weak: 4")
    expect(findings(arrow)).to_contain_text("Shoot six arrows on the")
    arrow.get_by_label("Widest apart").fill("21")
    arrow.get_by_label("Distance of this group").fill("25")
    expect(arrow.get_by_label("End of the bow")).to_have_value("as_made")
    arrow.keyboard.press("Escape")


def test_wood_by_keyboard_to_the_cutting_marks(arrow):
    leaf(arrow, "Wood")
    expect(arrow.get_by_role("link", name="Cutting marks at true size")).to_be_visible()
    taper = arrow.get_by_label("Rear taper", exact=True).first
    taper.fill("9")
    taper.press("Tab")
    expect(arrow.get_by_text("Keep the shaft first")).to_be_visible()
    expect(findings(arrow)).to_contain_text("Rear taper 9 in is not read yet")
    arrow.get_by_role("button", name="Flew stiff").focus()
    arrow.keyboard.press("6")
    expect(arrow.get_by_role("list", name="Trials")).to_contain_text("Rear taper 9 in: stiff")
    made = arrow.get_by_role("button", name="I made it 10 in")
    made.press("Enter")
    expect(taper).to_have_value("10")
    arrow.keyboard.press("Escape")
    expect(taper).to_have_value("9")
    assert printed(arrow, "Cutting marks at true size").endswith("/cutting")


def test_an_end_of_numbered_shafts(arrow):
    leaf(arrow, "Shaft by shaft")
    expect(findings(arrow)).to_contain_text("Shaft 6 flies out")
    shafts = arrow.get_by_label("Shafts shot, in the order they are put")
    shafts.fill("1 2")
    arrow.get_by_label("Distance of this end").fill("25")
    arrow.get_by_label("How far right shaft 1 landed").fill("-4")
    arrow.keyboard.press("Enter")
    expect(arrow.get_by_label("How far right shaft 2 landed")).to_be_visible()
    arrow.get_by_label("This end: tap where each shaft landed").first.locator("rect").first.click()
    expect(arrow.get_by_text("all are in")).to_be_visible()
    arrow.get_by_role("button", name="Log this end").press("Enter")
    expect(arrow.get_by_role("list", name="Trials")).to_contain_text("Shafts 1, 2 at 25")


def test_a_simulated_scale_and_chronograph_never_count(arrow):
    arrow.get_by_role("button", name="Try it without a grain scale").press("Enter")
    expect(arrow.get_by_text("Simulated:")).to_be_visible(timeout=8000)
    expect(arrow.get_by_text("never counts as measured")).to_be_visible()
    arrow.get_by_role("button", name="Clear it").press("Enter")
    leaf(arrow, "Speed")
    arrow.get_by_role("button", name="Try it without a chronograph").press("Enter")
    arrow.get_by_role("button", name="Stop shooting").press("Enter")
    expect(arrow.get_by_role("button", name="Try it without a chronograph")).to_be_visible()
