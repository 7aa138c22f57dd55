"""Out of reach with two devices: let in, shut out, the data put back between, and nothing misplaced."""

import re
import ssl
from time import monotonic, sleep

import httpx
import pytest
from playwright.sync_api import expect

from lyrandis import certificates

RANGE = "/rig/1/range"
PHONE = {"width": 390, "height": 844}


@pytest.fixture
def new_phone(browser, browser_context_args):
    """Makes phones, each with a memory of its own."""
    opened = []

    def make():
        more = {"viewport": PHONE, "has_touch": True, "service_workers": "allow"}
        opened.append(browser.new_context(**browser_context_args | more))
        return opened[-1].new_page()

    yield make
    for context in opened:
        context.close()


def address(server):
    return f"https://127.0.0.1:{server.port}"


def invitation(server):
    """The code that the start prints, soon after the address answers."""
    end = monotonic() + 30
    while monotonic() < end:
        if told := re.findall(r"invitation=(\w+)", server.told.read_text()):
            return told[-1]
        sleep(0.05)
    raise AssertionError("no invitation was printed")


def let_in(page, server, code):
    page.goto(f"{address(server)}/")
    page.get_by_label("Invitation").fill(code)
    page.get_by_role("button", name="Let this device in").tap()
    expect(page.get_by_role("link", name="Field recurve, crawls")).to_be_visible()


def ask(page, server, method, path, **more):
    """The API as a device asks it, by the authority it trusts."""
    trusted = ssl.create_default_context(cafile=certificates.of(server.folder).authority)
    answer = httpx.request(
        method,
        f"{address(server)}{path}",
        verify=trusted,
        headers={"origin": address(server)},
        cookies={cookie["name"]: cookie["value"] for cookie in page.context.cookies()},
        timeout=30,
        **more,
    )
    assert answer.is_success, answer.text
    return answer


def invite(page, server):
    return ask(page, server, "POST", "/api/devices/invitations").json()["code"]


def to_the_range(page, server):
    page.goto(f"{address(server)}{RANGE}")
    page.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(page.get_by_text("It opens here without the server", exact=False)).to_be_visible()


def log_an_end(page, *places):
    page.get_by_role("tab", name="End", exact=True).tap()
    box = page.locator("figure[aria-label^='This end'] rect").first.bounding_box()
    for x, y in places:
        page.touchscreen.tap(box["x"] + x * box["width"], box["y"] + y * box["height"])
    page.get_by_role("button", name=f"Log {len(places)}").tap()


def rig(page, server):
    return ask(page, server, "GET", "/api/rigs/1").json()


def test_a_restore_between_strikes_nobody_elses_trial_and_loses_nothing(new_phone, away_server):
    one, two = new_phone(), new_phone()
    let_in(one, away_server, invitation(away_server))
    let_in(two, away_server, invite(one, away_server))
    saved = ask(one, away_server, "GET", "/api/data/backup").content
    to_the_range(one, away_server)
    to_the_range(two, away_server)
    before = rig(one, away_server)["seq"]
    log_an_end(one, (0.5, 0.25))
    one.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(one.get_by_text("Nothing waits", exact=False)).to_be_visible()

    # Out of reach the first takes its end back, and logs another.
    away_server.stop()
    one.get_by_role("button", name="Take back").tap()
    log_an_end(one, (0.5, 0.75), (0.5, 0.7))
    expect(one.get_by_text("2 waiting")).to_be_visible()

    # Meanwhile the data is put back to before, and the second device logs an end of its own.
    away_server.start()
    ask(two, away_server, "POST", "/api/data/restore", files={"file": ("b.db", saved)})
    two.reload()
    log_an_end(two, (0.4, 0.5))
    two.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(two.get_by_text("Nothing waits", exact=False)).to_be_visible()
    assert rig(two, away_server)["seq"] == before + 1

    one.get_by_role("tab", name=re.compile("^Log")).tap()
    one.get_by_role("button", name="Hand over now").tap()
    expect(one.get_by_text(re.compile("Refused: The data here is not"))).to_have_count(2)
    kept = rig(two, away_server)
    assert kept["seq"] == before + 1
    assert not next(t for t in kept["trials"] if t["seq"] == before + 1)["struck"]
    # The end is still true: it is logged on what is served now. What it took back is not there.
    expect(one.get_by_role("button", name="Log it here")).to_have_count(1)
    one.get_by_role("button", name="Log it here").tap()
    expect(one.get_by_role("button", name="Log it here")).to_have_count(0)
    expect(one.get_by_role("button", name="Take back")).to_have_count(1)
    kept = rig(two, away_server)
    assert kept["seq"] == before + 2
    assert [t["struck"] for t in kept["trials"] if t["seq"] > before] == [False, False]


def test_a_device_that_is_signed_out_works_on_from_what_it_keeps(new_phone, away_server):
    one, two = new_phone(), new_phone()
    let_in(one, away_server, invitation(away_server))
    let_in(two, away_server, invite(one, away_server))
    to_the_range(two, away_server)
    log_an_end(two, (0.5, 0.5))
    expect(two.get_by_text("in reach", exact=True)).to_be_visible()
    before = rig(one, away_server)["seq"]

    # Signed out from the first, by the page.
    one.goto(f"{address(away_server)}/")
    one.get_by_role("button", name="All data").tap()
    others = one.get_by_role("listitem").filter(has_not_text="this one")
    others.get_by_role("button", name=re.compile("^Sign out")).tap()
    expect(one.get_by_role("button", name=re.compile("^Sign out"))).to_have_count(1)
    one.get_by_role("button", name="Close").tap()

    # Its page opens from what it keeps; what is logged waits, and says why.
    two.reload()
    log_an_end(two, (0.5, 0.3))
    expect(two.get_by_text("1 waiting")).to_be_visible()
    two.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(two.get_by_text("was signed out", exact=False)).to_be_visible()
    assert rig(one, away_server)["seq"] == before
    # Invited again, it hands over.
    two.goto(f"{address(away_server)}/?invitation={invite(one, away_server)}")
    two.goto(f"{address(away_server)}{RANGE}")
    two.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(two.get_by_text("Nothing waits", exact=False)).to_be_visible()
    assert rig(one, away_server)["seq"] == before + 1


def test_it_stays_let_in_over_a_new_start(new_phone, away_server):
    one = new_phone()
    let_in(one, away_server, invitation(away_server))
    away_server.stop()
    away_server.start()
    one.goto(f"{address(away_server)}/rig/1/draw")
    expect(one.get_by_role("heading", name="How far do you draw?")).to_be_visible()


def test_what_waits_at_another_address_is_told(new_phone, away_server, demo_server):
    """The same machine by another scheme and port is another place to the browser."""
    one = new_phone()
    one.goto(f"{demo_server.at}{RANGE}")
    one.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(one.get_by_text("It opens here without the server", exact=False)).to_be_visible()
    demo_server.stop()
    log_an_end(one, (0.5, 0.5))
    log_an_end(one, (0.5, 0.4))
    expect(one.get_by_text("2 waiting")).to_be_visible()
    let_in(one, away_server, invitation(away_server))
    one.goto(f"{address(away_server)}/range")
    expect(one.get_by_text("2 acts wait at another address")).to_be_visible()
    expect(one.get_by_role("link", name=demo_server.at)).to_be_visible()
    # There they are handed over, and nothing is said any more.
    demo_server.start()
    one.goto(f"{demo_server.at}{RANGE}")
    one.get_by_role("tab", name=re.compile("^Log")).tap()
    expect(one.get_by_text("Nothing waits", exact=False)).to_be_visible()
    one.goto(f"{address(away_server)}/range")
    expect(one.get_by_role("heading", name="At the range")).to_be_visible()
    expect(one.get_by_text("at another address")).to_have_count(0)


def test_a_shut_database_is_said_where_one_logs(new_phone, demo_server):
    """No room anywhere: the act stays in sight, and the page says so beside the butt."""
    one = new_phone()
    one.add_init_script(
        "IDBObjectStore.prototype.put = () => { throw new DOMException('full', 'QuotaExceededError') };"
    )
    one.goto(f"{demo_server.at}{RANGE}")
    expect(one.get_by_text("in reach", exact=True)).to_be_visible()
    demo_server.stop()
    log_an_end(one, (0.5, 0.5))
    expect(one.get_by_role("alert").get_by_text("keeps nothing more")).to_be_visible()
    expect(one.get_by_text("1 waiting")).to_be_visible()
    demo_server.start()
    one.get_by_role("tab", name=re.compile("^Log")).tap()
    one.get_by_role("button", name="Hand over now").tap()
    expect(one.get_by_text("Nothing waits", exact=False)).to_be_visible()
    expect(one.get_by_text("keeps nothing more")).to_have_count(0)
