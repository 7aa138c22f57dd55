"""Aim on the real interface: tapped visits, what is known, gaps, counting, courses, judging."""

import re

import pytest
from playwright.sync_api import expect

WALKS, SPLIT = "/rig/1/crawls", "/rig/2/crawls"


def leaf(page, name):
    page.get_by_role("tab", name=name, exact=True).click()
    expect(page.locator("[aria-busy=true]")).to_have_count(0)


def rig(page, demo, id):
    return page.request.get(f"{demo}/api/rigs/{id}").json()


@pytest.fixture
def walks(page, demo):
    page.goto(f"{demo}{WALKS}")
    expect(page.get_by_role("tab", name="From shots")).to_be_visible()
    return page


def test_a_visit_is_taken_from_the_suggestion_tapped_and_logged(walks, demo):
    page = walks
    leaf(page, "From shots")
    page.locator("ul.next button").first.click()
    distance = page.get_by_label("Distance of this visit")
    expect(distance).not_to_have_value("")
    page.get_by_role("button", name="Tap them on the butt").click()
    butt = page.locator("figure[aria-label^='This visit'] rect").first
    box = butt.bounding_box()
    for x, y in ((0.5, 0.25), (0.45, 0.3), (0.55, 0.2)):
        page.mouse.click(box["x"] + x * box["width"], box["y"] + y * box["height"])
    page.get_by_role("button", name="Log 3").click()
    expect(page.get_by_text("Learnt from 3 arrows", exact=False)).to_be_visible()
    trial = rig(page, demo, 1)["trials"][0]["trial"]
    assert trial["by"] == "tapped"
    assert trial["heights_cm"] == pytest.approx([30, 24, 36], abs=1)


def test_a_crawl_is_counted_in_marks_by_keyboard(walks, demo):
    page = walks
    page.keyboard.press("t")
    expect(page.get_by_label("Distance of this visit")).to_be_focused()
    page.keyboard.type("20")
    page.get_by_label("Crawl of this visit").fill("28 1/2")
    page.get_by_label("The crawl is counted by").select_option("marks")
    page.get_by_label("How far above the mark each arrow landed").fill("4 2 6")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Learnt from 3 arrows", exact=False)).to_be_visible()
    trial = rig(page, demo, 1)["trials"][0]["trial"]
    assert trial["counted"] == 28.5
    assert trial["crawl_mm"] == pytest.approx(28.5 * 3)


def test_two_numbers_that_contradict_the_eye_are_said_and_trusted_on_request(walks):
    page = walks
    leaf(page, "Known")
    page.get_by_label("What is known", exact=True).select_option("two_numbers")
    page.get_by_label("Finger widths at 20 m").fill("2")
    page.get_by_label("Finger widths less for each 10 m").fill("0.9")
    page.get_by_role("button", name="Log what is known").click()
    expect(page.get_by_text("measure it, or trust the shots", exact=False)).to_be_visible()
    page.get_by_role("button", name="Trust the shots").click()
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    expect(page.get_by_text("measure it, or trust the shots", exact=False)).to_have_count(0)


def test_the_sight_picture_is_dragged_by_keys_and_by_hand(walks):
    page = walks
    sight = page.get_by_role("slider", name="Another crawl at this distance")
    before = sight.get_attribute("aria-valuetext")
    assert before.startswith("tip on the mark")
    sight.focus()
    page.keyboard.press("ArrowDown")
    expect(sight).to_have_attribute("aria-valuetext", re.compile("^hand .* lands .* (high|low)$"))
    page.keyboard.press("Escape")
    expect(sight).to_have_attribute("aria-valuetext", before)
    box = sight.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.1, steps=4)
    page.mouse.up()
    expect(sight).to_have_attribute("aria-valuetext", re.compile("high$"))


def test_own_words_for_the_marks_are_on_the_chart(walks):
    page = walks
    leaf(page, "Counting")
    words = ", ".join(f"m{i}" for i in range(1, 40))
    page.get_by_label("Your words for the marks").fill(words)
    row = page.get_by_role("row", name=re.compile("^in your words"))
    expect(row).to_contain_text("m37")


def test_a_course_is_made_kept_and_printed(walks, demo):
    page = walks
    leaf(page, "Courses")
    page.get_by_role("button", name="Add a target").click()
    page.get_by_label("Distance of target 5").fill("nonsense")
    page.get_by_label("Distance of target 5").press("Tab")
    expect(page.get_by_role("alert")).to_contain_text("Target 5")
    page.get_by_label("Distance of target 5").fill("45")
    page.get_by_label("Distance of target 5").press("Tab")
    page.get_by_label("Slope of target 5").fill("-20")
    page.get_by_label("Slope of target 5").press("Tab")
    page.get_by_label("Target 5 one up").click()
    expect(page.get_by_label("Slope of target 4")).to_have_value(re.compile("20"))
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_role("link", name="Round card, PDF")).to_be_visible()
    kept = rig(page, demo, 1)["rig"]["courses"][0]["targets"]
    assert [t["slope_deg"] for t in kept] == [0, -14, 3, -20, 18]
    with page.expect_download() as sent:
        page.get_by_role("link", name="Round card, PDF").click()
    assert sent.value.path().read_bytes().startswith(b"%PDF")
    page.get_by_label("Course as CSV").set_input_files(
        {"name": "Oak round.csv", "mimeType": "text/csv",
         "buffer": b"distance (yd),slope (deg)\n30,5\n44,-3\n"}
    )  # fmt: skip
    expect(page.get_by_label("Course", exact=True)).to_have_value("Oak round")
    expect(page.get_by_label("Distance of target 2")).to_have_value("40.2")


def test_a_class_with_one_crawl_gets_gaps_with_it(walks):
    page = walks
    leaf(page, "Anchors")
    page.get_by_label("Your class allows", exact=True).select_option("one")
    expect(page.get_by_text("under the spot.", exact=False).first).to_be_visible()
    page.get_by_role("button", name=re.compile("^Try ")).click()
    leaf(page, "The chart")
    expect(page.get_by_role("row", name=re.compile("^Tip under the spot"))).to_be_visible()
    expect(page.get_by_text("leaves about the smallest gaps", exact=False)).to_be_visible()


def test_without_crawls_visits_are_gaps(page, demo):
    page.goto(f"{demo}{SPLIT}")
    expect(page.get_by_role("slider", name="Another place for the tip")).to_be_visible()
    leaf(page, "From shots")
    page.get_by_label("Distance of this visit").fill("20")
    page.get_by_label("How far under the spot the tip was held").fill("110")
    page.get_by_label("How far above the mark each arrow landed").fill("8 12 10")
    page.get_by_role("button", name="Log this distance").click()
    expect(page.get_by_text("tip 110.0 cm under the spot", exact=False)).to_be_visible()
    expect(page.get_by_text("Learnt from 3 arrows", exact=False)).to_be_visible()


def test_distances_are_judged_one_by_one(page, demo):
    page.goto(f"{demo}/rig/1/crawls")
    leaf(page, "Judging")
    expect(page.get_by_text("6 more guesses")).to_be_visible()
    for guess, walked in (("20", "18"), ("31 24 40 16 28", "27 22 35 15 24.5")):
        page.get_by_label("Distance guessed").fill(guess)
        page.get_by_label("Distance walked").fill(walked)
        page.get_by_role("button", name="Log", exact=True).click()
        expect(page.get_by_label("Distance guessed")).to_have_value("")
    expect(page.get_by_text("Of 6 guesses:", exact=False)).to_be_visible()
    page.get_by_label("Distance guessed").fill("20 30")
    page.get_by_label("Distance walked").fill("18")
    page.get_by_role("button", name="Log", exact=True).click()
    expect(
        page.get_by_role("tabpanel").get_by_text("each guess needs its", exact=False)
    ).to_be_visible()
    expect(page.get_by_label("Distance guessed")).to_have_value("20 30")


def test_the_routine_is_timed_silently_and_arrows_are_counted(walks, demo):
    page = walks
    leaf(page, "Routine")
    expect(page.get_by_label("Sound of the timer")).to_have_value("silent")
    page.get_by_label("Seconds of step 1").fill("1")
    page.get_by_label("Seconds of step 1").press("Tab")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.get_by_role("button", name="Start the timer").click()
    expect(page.locator("p.now")).to_have_text("Feet, and the crawl")
    expect(page.locator("p.now")).to_have_text("Hook, grip")
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.locator("p.now")).to_contain_text("Feet, and the crawl · Hook, grip")
    for _ in range(2):
        page.get_by_role("button", name="+ 6").click()
    page.get_by_role("button", name="+ 1").click()
    expect(page.get_by_label("Arrows of this session")).to_have_value("13")
    page.get_by_role("button", name="Log the session").click()
    expect(page.get_by_role("row", name="this string")).to_contain_text("13")
    assert rig(page, demo, 1)["trials"][0]["trial"] == {
        "kind": "arrows_shot", "arrows": 13, "day": "", "notes": "",
    }  # fmt: skip


def test_a_table_of_crawls_is_looked_over_and_logged(walks, demo):
    page = walks
    leaf(page, "Known")
    before = rig(page, demo, 1)["seq"]
    table = "distance (m),crawl (mm)\n15,90\n35,61\n"
    picker = page.get_by_label("Table of what is known or was shot")
    wrong = {"name": "t.csv", "mimeType": "text/csv", "buffer": table.replace("61", "far").encode()}
    picker.set_input_files(wrong)
    expect(page.get_by_text("Line 3: “far” is no crawl in mm.")).to_be_visible()
    picker.set_input_files(wrong | {"buffer": table.encode()})
    expect(page.get_by_text("known: at 35.0 m a crawl of 61 mm", exact=False)).to_be_visible()
    page.get_by_role("button", name="Log these 2").click()
    expect(page.get_by_role("button", name="From a table or JSON")).to_be_visible()
    kept = rig(page, demo, 1)
    assert kept["seq"] == before + 2
    assert {t["trial"]["crawl_mm"] for t in kept["trials"] if t["seq"] > before} == {90, 61}
