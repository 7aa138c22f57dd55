"""Listening on the real interface: trials by keyboard, the simulated recorder, twists that learn."""

import json
import re
import urllib.request

from playwright.sync_api import expect
from sessions import on_a_range

from lyrandis.files.wav import write_wav
from lyrandis.instruments.recorder import SimulatedRecorder


def trials(address, id):
    with urllib.request.urlopen(f"{address}/api/rigs/{id}") as answer:
        return [t["trial"] for t in json.load(answer)["trials"]]


def leaf(page, name):
    """Turn to one side of a station's work."""
    page.get_by_role("tab", name=name).press("Enter")
    expect(page.get_by_role("tab", name=name)).to_have_attribute("aria-selected", "true")


def test_a_sweep_with_the_simulated_recorder_ends_inside_the_range(page, demo):
    """As it is suggested, brace after brace, until it ends in one of its three ways."""
    page.goto(f"{demo}/rig/1/brace")
    expect(page.get_by_label("Brace height", exact=True)).to_be_visible()
    page.locator("body").press("t")
    expect(page.get_by_label("Brace listened to")).to_be_focused()
    expect(page.get_by_text("Shoot a few at one brace height")).to_be_visible()
    page.keyboard.type("8 1/4")
    for turn in range(14):
        if turn:
            page.get_by_role("button", name="next: ").press("Enter")
        page.get_by_role("button", name="Simulated recorder").press("Enter")
        expect(page.get_by_text("3 shots heard, simulated")).to_be_visible()
        page.get_by_label("Feel 4 of 5").check()
        page.get_by_role("button", name="Log this trial").press("Enter")
        expect(page.get_by_role("list", name="Trials").get_by_role("listitem")).to_have_count(
            turn + 1
        )
        if page.get_by_role("button", name="next: ").count() == 0:
            break
    assert 4 <= turn <= 13
    ends = re.compile("Nothing audible is left to gain|As good as can be told|Best so far")
    expect(page.get_by_text(ends).first).to_be_visible()
    heard = [t for t in trials(demo, 1) if t["kind"] == "brace"]
    assert all(8.2 <= t["brace_height_in"] <= 9.55 for t in heard)
    assert all(len(t["levels_db"]) == 3 and t["heard_by"] == "simulated" for t in heard)


def test_a_recording_is_heard_and_a_shot_taken_out(page, demo, tmp_path):
    samples, _ = SimulatedRecorder(seed=3, shots=4, seconds=18).record()
    wav = tmp_path / "shots.wav"
    wav.write_bytes(write_wav(samples, 48_000))
    page.goto(f"{demo}/rig/2/brace")
    before = len(trials(demo, 2))
    leaf(page, "Listen")
    page.get_by_label("WAV file of shots").set_input_files(wav)
    expect(page.get_by_text("4 shots heard, recorded")).to_be_visible()
    page.get_by_role("button", name="Shot at").nth(1).press("Enter")
    expect(page.get_by_text("3 shots heard, recorded")).to_be_visible()
    page.get_by_label("Time of a missed shot").fill("9.5 s")
    page.get_by_role("button", name="Add it").press("Enter")
    expect(page.get_by_text("4 shots heard, recorded")).to_be_visible()
    page.get_by_role("button", name="Shot at 9.50 s").press("Enter")
    expect(page.get_by_text("3 shots heard, recorded")).to_be_visible()
    page.get_by_role("button", name="Log this trial").click()
    expect(page.get_by_text("shots heard", exact=False)).to_have_count(0)
    assert len(trials(demo, 2)) == before + 1
    assert len(trials(demo, 2)[0]["levels_db"]) == 3
    with urllib.request.urlopen(f"{demo}/api/rigs/2/trials/brace") as answer:
        assert len(answer.read().decode().strip().splitlines()) == 5
    broken = tmp_path / "broken.wav"
    broken.write_bytes(wav.read_bytes()[:30])
    page.get_by_label("WAV file of shots").set_input_files(broken)
    expect(page.get_by_text("not a WAV", exact=False)).to_be_visible()


def test_twists_are_counted_and_learn_from_the_trials(page, demo):
    page.goto(f"{demo}/rig/2/string")
    leaf(page, "Twists")
    page.get_by_label("Brace height wanted").fill("7 3/8")
    expect(page.get_by_text("Learnt from 3 measured brace heights", exact=False)).to_be_visible()
    expect(page.get_by_text("Add", exact=False).first).to_be_visible()
    page.get_by_label("Brace height wanted").fill("5")
    expect(page.get_by_text("no turn left", exact=False)).to_be_visible()
    page.goto(f"{demo}/rig/3/string")
    leaf(page, "Twists")
    expect(page.get_by_text("Count the turns in the string", exact=False)).to_be_visible()


def test_a_quiet_check_is_heard_before_and_after(page, demo):
    page.goto(f"{demo}/rig/1/quiet")
    expect(page.get_by_text("Levels before and after each change stand here.")).to_be_visible()
    page.locator("body").press("t")
    expect(page.get_by_label("Before, levels in dB")).to_be_focused()
    page.keyboard.type("62 61 62.5")
    page.get_by_label("After, levels in dB").fill("57 58 57.5")
    page.get_by_label("What was changed").fill("six twists more")
    expect(page.get_by_role("button", name="Log this check")).to_be_enabled()
    page.get_by_role("button", name="Log this check").press("Enter")
    expect(page.get_by_text("Quieter by", exact=False)).to_be_visible()
    expect(page.get_by_label("Before, levels in dB")).to_be_focused()  # ready for the next
    expect(page.get_by_text("Next, a loose strand", exact=False)).to_be_visible()
    page.locator("form select").select_option("loose")
    for i in (0, 1):
        page.get_by_role("button", name="Simulated recorder").nth(i).press("Enter")
        expect(page.get_by_role("progress")).to_have_count(0)
    expect(page.get_by_role("button", name="Log this check")).to_be_enabled()
    page.get_by_role("button", name="Log this check").press("Enter")
    expect(page.get_by_text("2 of 6 checks made", exact=False)).to_be_visible()
    kinds = [t["kind"] for t in trials(demo, 1)][:2]
    assert kinds == ["quiet", "quiet"]
    assert trials(demo, 1)[0]["tone_before_hz"] is not None


def test_where_a_wall_echoes_one_shot_is_marked_by_keyboard(page, demo, tmp_path):
    made = on_a_range(4, echo=True)
    wav = tmp_path / "wall.wav"
    wav.write_bytes(write_wav(made.samples, made.rate_hz))
    page.goto(f"{demo}/rig/1/brace")
    leaf(page, "Listen")
    page.get_by_label("WAV file of shots").set_input_files(wav)
    expect(page.get_by_text("may be an echo")).to_be_visible()
    expect(page.get_by_role("button", name="Log this trial")).to_be_disabled()
    # One stop for the Tab key; the arrows go from sound to sound.
    sounds = page.get_by_role("button", name="Sound at")
    sounds.nth(0).press("ArrowRight")
    expect(sounds.nth(1)).to_be_focused()
    sounds.nth(1).press("ArrowLeft")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="It is my shot").press("Enter")
    expect(page.get_by_text("6 shots heard, recorded")).to_be_visible()
    expect(page.get_by_role("button", name="Shot at").first).to_be_focused()
    page.get_by_role("button", name="Log this trial").press("Enter")
    expect(page.get_by_label("Brace listened to")).to_be_focused()
    assert len(trials(demo, 1)[0]["levels_db"]) == 6


def test_the_browsers_microphone_records_a_wav(page, demo):
    """Chromium's stand-in microphone beeps: what comes back is listened to like any recording."""
    page.goto(f"{demo}/rig/1/brace")
    leaf(page, "Listen")
    page.get_by_role("button", name="Microphone").click()
    recording = page.get_by_role("button", name=re.compile("Stop recording, [3-9]"))
    expect(recording).to_be_visible()
    with page.expect_response("**/api/jobs/sound") as answer:
        page.get_by_role("button", name="Stop recording", exact=False).click()
    assert answer.value.status == 202
    events = f"{demo}/api/jobs/{answer.value.json()['id']}/events"
    with urllib.request.urlopen(events) as followed:
        told = followed.read().decode().partition("event: done")[2]
    sound = json.loads(told.partition("data: ")[2].splitlines()[0])
    assert sound["duration_s"] > 1.5


def test_nonsense_in_a_trial_is_refused_and_stays(page, demo):
    """By keyboard: words, then a brace no bow has, then what was meant."""
    page.goto(f"{demo}/rig/1/brace")
    before = len(trials(demo, 1))
    expect(page.get_by_label("Brace height", exact=True)).to_be_visible()
    page.locator("body").press("t")
    expect(page.get_by_label("Brace listened to")).to_be_focused()
    page.keyboard.type("eight")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“eight” is not a measurement", exact=False)).to_be_visible()
    expect(page.get_by_label("Brace listened to")).to_have_value("eight")
    page.keyboard.press("Control+a")
    page.keyboard.type("99")
    page.keyboard.press("Enter")
    expect(page.get_by_text("at most 14 in", exact=False).first).to_be_visible()
    expect(page.get_by_label("Brace listened to")).to_have_value("99")
    assert len(trials(demo, 1)) == before
    page.keyboard.press("Control+a")
    page.keyboard.type("8 3/8")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Brace listened to")).to_have_value("")
    assert trials(demo, 1)[0]["brace_height_in"] == 8.375


def test_hours_that_no_string_stood_braced_are_refused_and_stay(page, demo):
    page.goto(f"{demo}/rig/1/string")
    page.get_by_role("tab", name="Settling").press("Enter")
    page.get_by_label("Brace of the new string").fill("8 1/2")
    page.get_by_role("button", name="Braced just now").press("Enter")
    hours = page.get_by_label("Hours braced")
    expect(hours).to_be_visible()
    before = len(trials(demo, 1))
    page.get_by_label("Brace of the new string").fill("8 1/4")
    hours.fill("-5")
    page.keyboard.press("Enter")
    expect(page.get_by_text("must be at least 0", exact=False).first).to_be_visible()
    expect(hours).to_have_value("-5")
    assert len(trials(demo, 1)) == before
    hours.fill("3")
    page.keyboard.press("Enter")
    expect(hours).to_have_value("")
    assert trials(demo, 1)[0]["hours"] == 3
