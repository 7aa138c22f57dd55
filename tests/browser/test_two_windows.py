"""Two windows on one rig: what becomes of a change is chosen on screen; nothing is lost."""

import json
import shutil
import urllib.request

import pytest
from playwright.sync_api import expect

from lyrandis.core.trials.hold import HoldTrial
from lyrandis.store.database import closed_after, open_database
from lyrandis.store.rigs import RigStore

POINT = "Point"


def ask(address, path, body=None, method=None):
    data = None if body is None else json.dumps(body).encode()
    headers = {"content-type": "application/json"}
    request = urllib.request.Request(f"{address}{path}", data, headers, method=method)
    with urllib.request.urlopen(request) as answer:
        return json.loads(answer.read())


def keep(address, changes, **more):
    """What the other window keeps."""
    seq = ask(address, "/api/rigs/1")["seq"]
    body = {"seq": seq, "station": "arrow", "changes": changes} | more
    return ask(address, "/api/rigs/1/keep", body)


@pytest.fixture
def mine(page, demo):
    """A window in which the point was changed and not kept, while another kept a change."""
    page.goto(f"{demo}/rig/1/arrow")
    page.get_by_label(POINT, exact=True).fill("125")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    keep(demo, {"arrow.insert_gr": 20.0}, why="heavier inserts came")
    page.get_by_role("button", name="Keep this").click()
    sheet = page.get_by_role("dialog", name="Changed meanwhile")
    expect(sheet).to_contain_text("insert from 12 gr to 20 gr")
    expect(sheet).to_contain_text("because: heavier inserts came")
    expect(sheet).to_contain_text("Point: 125 gr")
    return sheet


def rig(address):
    return ask(address, "/api/rigs/1")


def test_mine_goes_on_top(mine, page, demo):
    mine.get_by_role("button", name="Keep mine on top").click()
    expect(page.get_by_text("Kept one change.")).to_be_visible()
    arrow = rig(demo)["rig"]["arrow"]
    assert (arrow["point_gr"], arrow["insert_gr"]) == (125, 20)
    expect(page.get_by_label("Insert", exact=True)).to_have_value("20")
    expect(page.get_by_text("not kept.")).to_have_count(0)


def test_theirs_is_taken(mine, page, demo):
    mine.get_by_role("button", name="Take theirs").click()
    expect(page.get_by_label("Insert", exact=True)).to_have_value("20")
    expect(page.get_by_label(POINT, exact=True)).not_to_have_value("125")
    expect(page.get_by_text("not kept.")).to_have_count(0)
    assert rig(demo)["rig"]["arrow"]["point_gr"] != 125
    page.get_by_label(POINT, exact=True).fill("130")
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_text("Kept one change.")).to_be_visible()


@pytest.mark.usefixtures("mine")
def test_looking_first_leaves_mine_as_it_is(page, demo):
    page.keyboard.press("Escape")
    expect(page.get_by_label("Insert", exact=True)).to_have_value("20")
    expect(page.get_by_label(POINT, exact=True)).to_have_value("125")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    assert rig(demo)["rig"]["arrow"]["point_gr"] != 125
    page.get_by_role("button", name="Keep this").click()
    expect(page.get_by_text("Kept one change.")).to_be_visible()
    assert rig(demo)["rig"]["arrow"]["point_gr"] == 125


def test_the_same_setting_changed_in_both_is_said_with_all_its_values(page, demo):
    page.goto(f"{demo}/rig/1/arrow")
    page.get_by_label(POINT, exact=True).fill("125")
    expect(page.get_by_text("One change not kept.")).to_be_visible()
    keep(demo, {"arrow.point_gr": 140.0})
    page.keyboard.press("Escape")
    page.get_by_label(POINT, exact=True).fill("126")
    page.get_by_role("button", name="Keep this").click()
    sheet = page.get_by_role("dialog", name="Changed meanwhile")
    expect(sheet).to_contain_text("Point: 126 gr there set to 140 gr")
    sheet.get_by_role("button", name="Keep mine on top").click()
    expect(page.get_by_text("Kept one change.")).to_be_visible()
    assert rig(demo)["rig"]["arrow"]["point_gr"] == 126


def test_a_trial_goes_on_top_and_taking_back_is_looked_at_first(page, demo):
    page.goto(f"{demo}/rig/1/weight")
    before = len(rig(demo)["trials"])
    page.get_by_role("tab", name="What you can hold").press("Enter")
    page.get_by_label("Seconds held").fill("11")
    keep(demo, {"arrow.insert_gr": 21.0})
    page.get_by_role("button", name="Log this hold").click()
    sheet = page.get_by_role("dialog", name="Changed meanwhile")
    expect(sheet).to_contain_text("A trial")
    sheet.get_by_role("button", name="Keep mine on top").click()
    expect(page.locator("ol[aria-label=Trials]")).to_contain_text("11.0 s")
    assert len(rig(demo)["trials"]) == before + 1
    # Undo and redo never reach over what another window kept.
    keep(demo, {"arrow.insert_gr": 22.0})
    page.keyboard.press("Control+z")
    expect(sheet).to_contain_text("the latest entry is another one now")
    expect(sheet.get_by_role("button", name="Keep mine on top")).to_have_count(0)
    sheet.get_by_role("button", name="Take theirs").click()
    assert rig(demo)["rig"]["arrow"]["insert_gr"] == 22
    page.keyboard.press("Control+z")
    expect(page.get_by_text("Took back: ")).to_be_visible()
    assert rig(demo)["rig"]["arrow"]["insert_gr"] == 21


def test_preferences_of_two_windows_both_stay(page, demo):
    page.goto(f"{demo}/rig/1/arrow")
    expect(page.get_by_label(POINT, exact=True)).to_be_visible()
    ask(demo, "/api/preferences", {"units": {"distance": "yd"}}, "PATCH")
    page.keyboard.press("u")
    sheet = page.get_by_role("dialog", name="Units and light")
    sheet.get_by_label("Brace height").select_option("mm")
    expect(page.locator("ul[aria-label=Tally]")).to_contain_text("mm")
    expect(page.locator("ul[aria-label=Tally]")).to_contain_text("yd")
    told = ask(demo, "/api/preferences")
    assert (told["units"]["distance"], told["units"]["brace"]) == ("yd", "mm")


def test_the_logbook_and_the_trials_are_drawn_as_far_as_one_looks(page, tmp_path, demo_rigs, serve):
    folder = tmp_path / "demo"
    shutil.copytree(demo_rigs, folder)
    with closed_after(open_database(folder)) as engine:
        store = RigStore(engine)
        for n in range(90):
            held = HoldTrial(weight_lbf=36, seconds=3 + n % 9)
            changes = {"arrow.point_gr": 100.0 + n % 7} if n % 2 else {}
            store.keep(1, store.get(1).seq, changes, "weight", trial=held)
    demo = serve(folder, "demo").at
    page.goto(f"{demo}/rig/1/keep")
    count = rig(demo)["seq"]
    expect(page.locator("p.answer")).to_contain_text(f"{count} entries")
    lines = page.locator("main ol li:not(.day)")
    expect(lines).to_have_count(50)
    lines.last.scroll_into_view_if_needed()
    expect(lines).to_have_count(100)
    lines.last.scroll_into_view_if_needed()
    expect(lines).to_have_count(count)
    expect(page.get_by_role("button", name="Earlier entries")).to_have_count(0)
    page.goto(f"{demo}/rig/1/weight")
    page.get_by_role("tab", name="What you can hold").press("Enter")
    holds = page.locator("ol[aria-label=Trials] > li")
    earlier = page.get_by_role("button", name="Earlier ones")
    expect(earlier).to_be_visible()
    shown = holds.count()
    earlier.click()
    expect(holds).to_have_count(shown + 12)
