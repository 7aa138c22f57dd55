"""Groups by tap and off a photo, the spine map, a clip stepped and marked: on the real interface."""

import json
import urllib.request

import numpy as np
import pytest
from playwright.sync_api import expect

from lyrandis.instruments.camera import group_photo


def ask(address, path):
    with urllib.request.urlopen(f"{address}{path}") as answer:
        return json.load(answer)


def leaf(page, demo, name, rig=1):
    page.goto(f"{demo}/rig/{rig}/flight")
    page.get_by_role("tab", name=name, exact=True).click()


def test_the_map_is_drawn_by_a_job_and_a_change_is_seen_on_it(page, demo):
    leaf(page, demo, "Length, point", rig=2)
    plate = page.get_by_role("img", name="Which spine leaves clean")
    expect(plate).to_be_visible(timeout=30_000)
    expect(page.get_by_role("progressbar", name="Drawing the map")).to_have_count(0)
    own = plate.locator("circle").first
    before = own.get_attribute("cy")
    page.get_by_role("button", name="See it with a point of").click()
    expect(own).not_to_have_attribute("cy", before)
    expect(page.get_by_text("One change not kept")).to_be_visible()
    expect(page.get_by_text("The rig was changed since")).to_have_count(0)
    page.keyboard.press("Escape")
    expect(own).to_have_attribute("cy", before)


def test_the_drawing_of_a_map_can_be_stopped(page, demo):
    leaf(page, demo, "Length, point")
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.get_by_role("alert").filter(has_text="Stopped")).to_be_visible()
    page.get_by_role("button", name="Draw it again").click()
    expect(page.get_by_role("img", name="Which spine leaves clean")).to_be_visible(timeout=30_000)


def test_a_group_by_touch_on_a_phone_is_read(browser, browser_context_args, demo):
    """Three fletched in the middle, three bare far to the right: a right-handed shaft looks weak."""
    wide = {"viewport": {"width": 390, "height": 844}, "has_touch": True}
    page = browser.new_context(**{**browser_context_args, **wide}).new_page()
    leaf(page, demo, "Groups")
    butt = page.get_by_role("img", name="This group").locator("rect").first
    box = butt.bounding_box()

    def tap(across, up):
        butt.tap(position={"x": across * box["width"], "y": (1 - up) * box["height"]})

    for place in ((0.48, 0.5), (0.5, 0.52), (0.52, 0.5)):
        tap(*place)
    page.get_by_label("The next arrow is").select_option("bare")
    for place in ((0.63, 0.5), (0.65, 0.52), (0.62, 0.48)):
        tap(*place)
    page.get_by_label("Distance of this group").fill("15")
    page.get_by_role("button", name="Log 6").tap()
    expect(page.get_by_text("3 fletched and 3 bare from 15.0 m.")).to_be_visible()
    expect(page.get_by_text("After 1 read it leans to weak")).to_be_visible()
    kept = ask(demo, "/api/rigs/1")["trials"][0]["trial"]
    assert [i["shaft"] for i in kept["impacts"]] == ["fletched"] * 3 + ["bare"] * 3
    page.context.close()


def test_a_group_is_typed_by_keyboard_and_put_right(page, demo):
    leaf(page, demo, "Groups")
    for right, up in (("2", "1"), ("-3", "0")):
        page.get_by_label("How far right the next arrow landed").fill(right)
        page.get_by_label("How far up the next arrow landed").fill(up)
        page.keyboard.press("Enter")
    page.get_by_label("Distance of this group").fill("far")
    page.get_by_role("button", name="Log 2").click()
    expect(page.get_by_text("“far”", exact=False)).to_be_visible()
    page.get_by_label("Distance of this group").fill("20")
    page.keyboard.press("Enter")
    expect(page.get_by_text("2 fletched from 20.0 m.")).to_be_visible()
    page.get_by_role("button", name="Put right").first.click()
    page.get_by_label("Distance of this group").fill("22")
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_text("2 fletched from 22.0 m.")).to_be_visible()


def test_a_group_off_a_photo(page, demo, tmp_path):
    """The corners are marked once, then the mark, then the arrows; the photo is nowhere kept."""
    photo = group_photo(4)
    file = tmp_path / "butt.jpg"
    file.write_bytes(photo.jpeg)
    leaf(page, demo, "Groups")
    page.get_by_label("Photo of the butt").set_input_files(file)
    field = page.get_by_role("application")
    expect(field).to_be_visible()
    page.get_by_label("Width of the butt").fill("80")
    page.get_by_label("Height of the butt").fill("80")
    page.get_by_role("button", name="× 2").click()

    def mark(x, y):
        box = field.bounding_box()
        field.click(position={"x": x * box["width"] / 1600, "y": y * box["height"] / 1200})

    for corner in photo.corners_px:
        mark(*corner)
    expect(page.get_by_text("the mark you aimed at", exact=True)).to_be_visible()
    middle = photo.corners_px.mean(axis=0)  # roughly: no place is told from the true middle
    mark(*middle)
    for place, bare in zip(photo.marks_px, photo.bare, strict=True):
        page.get_by_label("The next arrow is").select_option("bare" if bare else "fletched")
        mark(*place)
    page.get_by_label("Distance of this group").fill("15")
    page.get_by_role("button", name="Log 7").click()
    expect(page.get_by_text("4 fletched and 3 bare from 15.0 m, off a photo.")).to_be_visible()
    kept = ask(demo, "/api/rigs/1")["trials"][0]["trial"]["impacts"]
    told = np.array([(i["right_cm"], i["up_cm"]) for i in kept])
    off = told - photo.places_cm
    assert np.abs(off - off.mean(axis=0)).max() <= 0.5


def test_a_photo_that_is_none_says_so(page, demo, tmp_path):
    file = tmp_path / "notes.jpg"
    file.write_text("no photo")
    leaf(page, demo, "Groups")
    page.get_by_label("Photo of the butt").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("no photo that can be read")


def slow(page, demo):
    leaf(page, demo, "Reads")
    page.get_by_label("Test", exact=True).select_option("slow_motion")


def test_practice_with_the_simulated_camera_by_keyboard_counts_for_nothing(page, demo):
    slow(page, demo)
    page.get_by_role("button", name="Simulated camera").click()
    field = page.get_by_role("application")
    expect(field).to_be_visible(timeout=20_000)
    field.focus()
    page.keyboard.press("ArrowRight")
    for _ in range(2):  # nock and point of one frame, then the next one comes
        page.keyboard.press("Enter")
        page.keyboard.press("ArrowRight")
    expect(page.get_by_text("Frame 1 of", exact=False)).to_be_visible()
    page.keyboard.press(",")
    expect(page.get_by_text("both ends are marked", exact=False)).to_be_visible()
    page.keyboard.press("Backspace")
    expect(page.get_by_text("Frame 0 of", exact=False)).to_contain_text("the nock")
    page.get_by_label("What the tail did").select_option("bounce")
    page.get_by_role("button", name="Log this look").click()
    expect(page.get_by_text("0 frames marked, practice only.", exact=False)).to_be_visible()
    expect(page.get_by_text("Not read yet", exact=False).first).to_be_visible()


@pytest.fixture
def webm(page):
    """A clip that the browser itself films off a canvas: a dot that goes across."""
    return page.evaluate(
        """async () => {
            const canvas = document.createElement('canvas');
            [canvas.width, canvas.height] = [640, 240];
            const draw = canvas.getContext('2d');
            const recorder = new MediaRecorder(canvas.captureStream(30), { mimeType: 'video/webm' });
            const parts = [];
            recorder.ondataavailable = (e) => parts.push(e.data);
            recorder.start();
            for (let i = 0; i < 30; i++) {
                draw.fillStyle = '#586c52';
                draw.fillRect(0, 0, 640, 240);
                draw.fillStyle = '#eee';
                draw.fillRect(20 * i, 110, 12, 12);
                await new Promise((r) => setTimeout(r, 34));
            }
            await new Promise((r) => ((recorder.onstop = r), recorder.stop()));
            return Array.from(new Uint8Array(await new Blob(parts).arrayBuffer()));
        }"""
    )


def test_an_own_clip_is_stepped_and_marked_and_only_its_marks_kept(page, demo, webm, tmp_path):
    file = tmp_path / "shot.webm"
    file.write_bytes(bytes(webm))
    slow(page, demo)
    page.get_by_label("Slow-motion clip").set_input_files(file)
    frames = page.get_by_role("slider", name="Frame")
    expect(frames).not_to_have_attribute("max", "0", timeout=15_000)
    field = page.get_by_role("application")
    for frame in range(3):
        expect(page.get_by_text(f"Frame {frame} of", exact=False)).to_be_visible()
        field.click(position={"x": 30 + 20 * frame, "y": 100})
        field.click(position={"x": 330 + 20 * frame, "y": 102})
    page.get_by_role("button", name="The string lets go here").click()
    expect(page.get_by_text("3 marked, the string lets go on frame 3", exact=False)).to_be_visible()
    expect(page.get_by_text("Mark 7 frames at least", exact=False)).to_be_visible()
    page.get_by_label("What the tail did").select_option("bounce")
    page.get_by_role("button", name="Log this look").click()
    expect(page.get_by_text("3 frames marked.", exact=False)).to_be_visible()
    kept = ask(demo, "/api/rigs/1")["trials"][0]["trial"]
    assert (kept["by"], kept["let_go"], len(kept["marks"])) == ("telephone", 3, 3)
    expect(page.get_by_text("After 1 read", exact=False).first).to_be_visible()


def test_a_clip_that_cannot_be_played_says_so(page, demo, tmp_path):
    file = tmp_path / "shot.mp4"
    file.write_text("no clip")
    slow(page, demo)
    page.get_by_label("Slow-motion clip").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("cannot play this clip")


def test_a_clatter_is_heard_by_itself(page, demo, tmp_path):
    """A true recording is logged by what was heard; the simulated recorder's is not."""
    with urllib.request.urlopen(f"{demo}/api/rigs/1/recording?clatter=yes&shots=4") as answer:
        file = tmp_path / "shots.wav"
        file.write_bytes(answer.read())
    leaf(page, demo, "Reads")
    page.get_by_text("Tests that you make").click()
    page.get_by_role("checkbox", name="a recording of the shot").check()
    page.get_by_label("Test", exact=True).select_option("clatter")
    page.get_by_role("button", name="Simulated recorder").click()
    expect(page.get_by_text("nothing of it is logged")).to_be_visible(timeout=20_000)
    expect(page.get_by_role("button", name="Log a clatter")).to_have_count(0)
    page.get_by_label("Recording of some shots").set_input_files(file)
    expect(page.get_by_text("4 of 4")).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="Log a clatter").click()
    expect(page.get_by_text("A recording of the shot: a clatter.")).to_be_visible()
    assert ask(demo, "/api/rigs/1")["trials"][0]["trial"]["outcome"] == "heard"


@pytest.mark.parametrize(
    ("trial", "where"),
    [
        (
            {"kind": "group", "distance_m": 25, "by": "simulated",
             "impacts": [{"right_cm": -20 + x, "up_cm": 0} for x in range(6)]},
            "Groups",
        ),
        ({"kind": "clip", "frames_a_second": 960, "tail": "bounce", "by": "simulated"}, "Reads"),
    ],
)  # fmt: skip
def test_practice_that_is_put_right_stays_practice(page, demo, trial, where):
    seq = ask(demo, "/api/rigs/1")["seq"]
    body = {"seq": seq, "changes": {}, "station": "flight", "trial": trial}
    urllib.request.urlopen(
        urllib.request.Request(
            f"{demo}/api/rigs/1/keep", json.dumps(body).encode(),
            {"content-type": "application/json"},
        )
    ).close()  # fmt: skip
    leaf(page, demo, where)
    if where == "Reads":
        page.get_by_label("Test", exact=True).select_option("slow_motion")
    page.get_by_role("button", name="Put right").first.click()
    page.get_by_label("Notes on this").first.fill("again")
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_text("again", exact=False).first).to_be_visible()
    assert ask(demo, "/api/rigs/1")["trials"][0]["trial"]["by"] == "simulated"
    expect(page.get_by_text("Not read yet", exact=False).first).to_be_visible()
