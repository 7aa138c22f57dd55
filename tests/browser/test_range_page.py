"""At the range: a session by keyboard, one by touch without the server, what was kept between."""

import re

import pytest
from playwright.sync_api import expect

RANGE = "/rig/1/range"
PHONE = {"width": 390, "height": 844}


def rig(page, at):
    return page.request.get(f"{at}/api/rigs/1").json()


def since(kept, seq):
    """The trials logged after an entry, by kind."""
    return {t["trial"]["kind"]: t["trial"] for t in kept["trials"] if t["seq"] > seq}


def press(page, *keys):
    for key in keys:
        page.keyboard.press(key)


def test_a_session_by_keyboard(page, demo):
    page.goto(f"{demo}{RANGE}")
    before = rig(page, demo)["seq"]
    expect(page.get_by_text("in reach", exact=True)).to_be_visible()
    # The card stands beside the log on a wide screen: its distances are walked by arrow keys.
    card = page.get_by_role("region", name="The card")
    card.get_by_role("button", name=re.compile("^20 ")).focus()
    press(page, "ArrowDown")
    expect(card.get_by_role("button", name=re.compile("^25 "))).to_be_focused()
    expect(page.get_by_label("From", exact=True)).to_have_value("25")
    main = page.locator("#main")
    # An end, two keys an arrow: high by one step, low by two, and one on the spot.
    press(page, "e", "8", "1", "2", "2", "5", "8", "Backspace")
    expect(page.get_by_text("+5.0 −10.0 0.0 cm")).to_be_visible()
    main.focus()
    press(page, "Enter")
    # Where the card has no line nothing is logged before it is said how it is shot.
    page.get_by_label("From", exact=True).fill("52.5")
    main.focus()
    press(page, "5")
    expect(page.get_by_role("button", name="Log 1")).to_be_disabled()
    press(page, "Enter")
    page.get_by_role("textbox", name="Crawl, to be set").fill("30")
    expect(page.get_by_role("button", name="Log 1")).to_be_enabled()
    main.focus()
    press(page, "Backspace")
    # The brace holds, then stands an eighth higher.
    press(page, "b", "Enter")
    brace = page.get_by_role("textbox", name="Brace height, to the")
    brace.press("ArrowUp")
    expect(page.get_by_text("higher than it is kept")).to_be_visible()
    page.get_by_role("button", name="The bow stands at").press("Enter")
    # A read of the tails, then nocks on the block.
    press(page, "r", "8")
    page.get_by_role("combobox", name="Read").select_option("kick_7_paces")
    main.focus()
    press(page, "6", "6", "9", "Backspace", "4", "Enter", "l")
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    kept = rig(page, demo)
    logged = since(kept, before)
    assert kept["seq"] == before + 5
    assert logged["flight_read"]["nocks"] == [6, 6, 4]
    assert logged["nock_read"]["tail"] == "high"
    assert logged["crawl_visit"]["distance_m"] == 25
    assert logged["crawl_visit"]["heights_cm"] == pytest.approx([5, -10, 0])
    # The last of them is taken back, and that too is in the logbook.
    page.get_by_role("button", name="Take back").first.press("Enter")
    expect(page.get_by_text("Taken back:", exact=False)).to_be_visible()
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    after = rig(page, demo)
    assert after["seq"] == before + 6
    assert next(t for t in after["trials"] if t["trial"]["kind"] == "flight_read")["struck"]


@pytest.fixture
def phone(browser, browser_context_args):
    """A phone's context."""
    context = browser.new_context(**browser_context_args | {"viewport": PHONE, "has_touch": True})
    yield context
    context.close()


def tap_arrows(page, *places):
    butt = page.locator("figure[aria-label^='This end'] rect").first
    box = butt.bounding_box()
    for x, y in places:
        page.touchscreen.tap(box["x"] + x * box["width"], box["y"] + y * box["height"])


def log_an_end(page, *places):
    page.get_by_role("tab", name="End", exact=True).tap()
    tap_arrows(page, *places)
    page.get_by_role("button", name=f"Log {len(places)}").tap()


def test_a_session_by_touch_with_the_server_stopped_in_the_middle(phone, demo_server):
    page, at = phone.new_page(), demo_server.at
    page.goto(f"{at}{RANGE}")
    before = rig(page, at)["seq"]
    page.get_by_role("button", name=re.compile("^25 ")).tap()
    log_an_end(page, (0.5, 0.25), (0.45, 0.3))
    page.get_by_role("tab", name="Log", exact=True).tap()
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    expect(page.get_by_text("It opens here without the server", exact=False)).to_be_visible()

    demo_server.stop()
    log_an_end(page, (0.5, 0.75), (0.5, 0.7), (0.5, 0.8))
    expect(page.get_by_text("out of reach", exact=False)).to_be_visible()
    expect(page.get_by_text("1 waiting")).to_be_visible()
    # The browser is closed and opened again: page, card, what waits and what was tapped are there.
    tap_arrows(page, (0.5, 0.6))
    expect(page.get_by_role("button", name="Log 1")).to_be_visible()
    page.close()
    page = phone.new_page()
    page.goto(f"{at}/range")
    expect(page.get_by_text("1 waiting to be handed over")).to_be_visible()
    page.get_by_role("link", name="Field recurve").tap()
    expect(page.get_by_text("out of reach", exact=False)).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^25 "))).to_be_visible()
    page.get_by_role("tab", name="End", exact=True).tap()
    expect(page.get_by_role("button", name="Log 1")).to_be_visible()
    page.get_by_role("button", name="Take one back").tap()
    page.get_by_role("tab", name="Brace", exact=True).tap()
    page.get_by_role("button", name="Brace height, to the grip: more").tap()
    page.get_by_role("tab", name="Card", exact=True).tap()
    page.get_by_role("tab", name="Brace", exact=True).tap()
    page.get_by_role("button", name="The bow stands at").tap()
    page.get_by_role("tab", name="Read", exact=True).tap()
    page.get_by_role("button", name=re.compile("^Tail low")).tap()
    expect(page.get_by_text("3 waiting")).to_be_visible()

    demo_server.start()
    page.get_by_role("tab", name=re.compile("^Log")).tap()
    page.get_by_role("button", name="Hand over now").tap()
    expect(page.get_by_text("in reach", exact=True)).to_be_visible()
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    kept = rig(page, at)
    assert kept["seq"] == before + 4
    ends = [
        t["trial"]["heights_cm"]
        for t in kept["trials"]
        if t["trial"]["kind"] == "crawl_visit" and t["seq"] > before
    ]
    assert ends[0] == pytest.approx([-30, -24, -36], abs=2)
    assert ends[1] == pytest.approx([30, 24], abs=2)
    assert since(kept, before)["nock_read"]["tail"] == "low"


def test_what_was_kept_meanwhile_is_shown_and_nothing_is_lost(phone, demo_server):
    page, at = phone.new_page(), demo_server.at
    page.goto(f"{at}{RANGE}")
    page.get_by_role("tab", name="Log", exact=True).tap()
    expect(page.get_by_text("It opens here without the server", exact=False)).to_be_visible()
    before = rig(page, at)["seq"]
    demo_server.stop()
    log_an_end(page, (0.5, 0.5))
    log_an_end(page, (0.5, 0.25))
    demo_server.start()
    # Somebody at home keeps a change before the archer is back.
    body = {"seq": before, "changes": {"notes": "windy"}}
    assert page.request.post(f"{at}/api/rigs/1/keep", data=body).ok
    page.get_by_role("tab", name=re.compile("^Log")).tap()
    page.get_by_role("button", name="Hand over now").tap()
    between = page.get_by_role("region", name="Kept meanwhile")
    expect(between.get_by_text("windy", exact=False)).to_be_visible()
    assert rig(page, at)["seq"] == before + 1
    page.get_by_role("button", name="Leave out").first.tap()
    between.get_by_role("button", name="Log mine on top").tap()
    expect(page.get_by_text("left out", exact=True)).to_be_visible()
    expect(page.get_by_text("In the logbook")).to_be_visible()
    assert rig(page, at)["seq"] == before + 2
    # What was left out is still there, and is taken in again.
    page.get_by_role("button", name="Take in again").tap()
    expect(page.get_by_text("Nothing waits", exact=False)).to_be_visible()
    kept = rig(page, at)
    assert kept["seq"] == before + 3
    assert kept["rig"]["notes"] == "windy"


def test_it_can_be_put_on_the_home_screen(browser_type, browser_type_launch_args, tmp_path, demo):
    """In a browser of its own: one without a memory never offers it."""
    profile = str(tmp_path / "profile")
    with browser_type.launch_persistent_context(profile, **browser_type_launch_args) as context:
        page = context.new_page()
        page.goto(f"{demo}/range")
        expect(page.get_by_text("No rig was taken to the range", exact=False)).to_be_visible()
        told = page.request.get(f"{demo}/manifest.json").json()
        for icon in told["icons"]:
            answer = page.request.get(f"{demo}{icon['src']}")
            assert answer.headers["content-type"] == icon["type"]
        asked = context.new_cdp_session(page)
        assert asked.send("Page.getAppManifest")["errors"] == []
        assert asked.send("Page.getInstallabilityErrors")["installabilityErrors"] == []


def test_nonsense_is_refused_with_its_limits_and_nothing_is_logged_with_what_stood_there(
    page, demo
):
    page.goto(f"{demo}{RANGE}")
    before = rig(page, demo)["seq"]
    distance = page.get_by_label("From", exact=True)
    main = page.locator("#main")
    main.focus()
    press(page, "5")
    for typed, told in (("500", "From is from 2 m to 90 m."), ("far", "is not a measurement")):
        distance.fill(typed)
        expect(page.get_by_role("alert")).to_contain_text(told)
        expect(distance).to_have_value(typed)
        expect(page.get_by_role("button", name="Log 1")).to_be_disabled()
        main.focus()
        press(page, "Enter")
    distance.fill("30")
    expect(page.get_by_role("button", name="Log 1")).to_be_enabled()
    press(page, "Tab")
    main.focus()
    press(page, "b")
    brace = page.get_by_role("textbox", name="Brace height, to the")
    brace.fill("20")
    expect(page.get_by_role("alert")).to_contain_text("is from 3 in to 14 in.")
    expect(page.get_by_role("button", name="It holds")).to_be_disabled()
    expect(page.get_by_role("button", name="3", exact=True)).to_be_disabled()
    assert rig(page, demo)["seq"] == before
