"""What can lock nobody out, on the real interface: refusals, unreadable rigs, the data in one file."""

import json
import re
import sqlite3
import urllib.request

from playwright.sync_api import expect


def rigs(address):
    with urllib.request.urlopen(f"{address}/api/rigs") as answer:
        return json.load(answer)


def test_a_brace_to_the_plunger_asks_how_far_it_lies_in_front(page, demo):
    before = rigs(demo)
    page.goto(f"{demo}/rig/1/brace")
    page.get_by_text("plunger", exact=True).click()
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    page.get_by_role("button", name="Keep this").click()
    ahead = page.get_by_label("Reference ahead by", exact=True)
    note = page.locator(f"#{ahead.get_attribute('aria-describedby')}")
    expect(note).to_contain_text("how far")
    assert rigs(demo) == before
    ahead.fill("1/2")
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_role("button", name="Keep this")).to_have_count(0)
    assert rigs(demo)[0]["seq"] == before[0]["seq"] + 1
    page.goto(demo)
    expect(page.get_by_role("listitem")).to_have_count(3)


def test_the_archers_words_stand_as_they_were_typed(page, demo):
    page.goto(f"{demo}/rig/1/string")
    page.get_by_label("Strands", exact=True).fill("16")
    page.get_by_label("Reason for keeping this").fill("as {x} said <b>&")
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_role("button", name="Keep this")).to_have_count(0)
    page.goto(f"{demo}/rig/1/keep")
    expect(page.get_by_text("because: as {x} said <b>&")).to_be_visible()


def test_a_rig_that_cannot_be_read_hides_no_other_and_is_taken_back(page, demo, tmp_path):
    raw = sqlite3.connect(tmp_path / "demo" / "lyrandis.db")
    raw.execute(
        'UPDATE entries SET changes = \'[{"path": "bow.colour", "after": "red"}]\' '
        "WHERE rig_id = 2 AND seq = (SELECT max(seq) FROM entries WHERE rig_id = 2)"
    )
    raw.execute("DELETE FROM snapshots")
    raw.commit()
    raw.close()
    page.goto(demo)
    expect(page.get_by_role("listitem")).to_have_count(3)
    shut = page.get_by_role("listitem").nth(1)
    expect(shut).to_contain_text("Cannot be read here")
    expect(shut).to_contain_text(re.compile("entry \\d+: “bow.colour” is not a setting"))
    with page.expect_download() as got:
        shut.get_by_role("link", name="File").click()
    assert json.loads(got.value.path().read_text())["format"] == "lyrandis-rig"
    shut.get_by_role("link", name="Woodland").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("cannot be opened")
    page.get_by_role("button", name="Put away").click()
    expect(page.get_by_text("It is put away; nothing is lost.")).to_be_visible()
    page.get_by_role("button", name="Take back the latest entry").click()
    expect(page.get_by_role("heading", name="How far do you draw?")).to_be_visible()
    assert rigs(demo)[1]["unreadable"] is None


def test_all_of_the_data_goes_out_is_looked_over_and_comes_back(page, demo, tmp_path):
    page.goto(demo)
    page.get_by_role("button", name="All data").click()
    sheet = page.get_by_role("dialog")
    with page.expect_download() as got:
        sheet.get_by_role("link", name="Back up").click()
    saved = tmp_path / "saved.db"
    got.value.save_as(saved)
    sheet.get_by_role("button", name="Look it over").click()
    expect(sheet.get_by_role("status")).to_contain_text("3 rigs")
    expect(sheet.get_by_role("status")).to_contain_text("All of it is whole")
    body = json.dumps({"name": "Later"}).encode()
    urllib.request.urlopen(
        urllib.request.Request(
            f"{demo}/api/rigs", body, {"content-type": "application/json"}, method="POST"
        )
    ).close()
    bad = tmp_path / "letter.db"
    bad.write_text("Dear Ilse")
    sheet.locator("input[type=file]").set_input_files(bad)
    sheet.get_by_role("button", name="Put it back").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Nothing was changed. Choose a file")
    expect(sheet.get_by_role("button", name="Put it back")).to_have_count(0)
    assert len(rigs(demo)) == 4
    sheet.locator("input[type=file]").set_input_files(saved)
    expect(sheet).to_contain_text("takes the place of everything")
    sheet.get_by_role("button", name="Put it back").click()
    expect(sheet.get_by_role("status")).to_contain_text(re.compile("replaced-.*\\.db"))
    assert len(rigs(demo)) == 3
    sheet.get_by_role("button", name="Close").click()
    expect(page.get_by_role("listitem")).to_have_count(3)


def test_a_backup_is_put_back_by_keyboard_alone(page, demo, tmp_path):
    """The keyboard's place is never lost, though the button it stood on goes."""
    saved = tmp_path / "saved.db"
    with urllib.request.urlopen(f"{demo}/api/data/backup") as answer:
        saved.write_bytes(answer.read())
    bad = tmp_path / "letter.db"
    bad.write_text("Dear Ilse")
    page.goto(demo)
    page.get_by_role("button", name="All data").press("Enter")
    sheet = page.get_by_role("dialog")
    pick = sheet.get_by_role("button", name="Put a backup back")
    for file, words in ((bad, "Nothing was changed"), (saved, "All of it is whole")):
        with page.expect_file_chooser() as chooser:
            pick.press("Enter")
        chooser.value.set_files(file)
        expect(sheet.get_by_role("button", name="Put it back")).to_be_visible()
        page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(sheet).to_contain_text(words)
        expect(pick).to_be_focused()
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    expect(page.get_by_role("button", name="All data")).to_be_focused()
