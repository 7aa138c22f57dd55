"""Devices let in by invitations: once, for good, signed out one by one; and what is no guess."""

import re

import pytest
from fastapi.testclient import TestClient

from lyrandis.api.app import create_app
from lyrandis.api.doors import COOKIE, COOKIE_DAYS
from lyrandis.api.invitations import LASTS_S, Invitations
from lyrandis.store.database import backup

TOKEN = "a-token-nobody-guesses"
PHONE = {"user-agent": "A phone, Mobile", "accept": "text/html"}


@pytest.fixture
def away(tmp_path):
    """The application as other machines reach it."""
    site = tmp_path / "site"
    site.mkdir()
    (site / "index.html").write_text("<!doctype html>pages")
    at = ["http://127.0.0.1:8730", "http://bench.local:8730"]
    made = create_app(tmp_path / "data", site, token=TOKEN, addresses=at)
    guesses = made.state.doors.guesses
    # A slow machine must not sit a wait out; how long it lasts is told in test_serving.
    guesses.wait_s = lambda one: float(guesses._wrong.get(one, (0, 0))[0] >= guesses.FREE)
    return made


@pytest.fixture
def device(away):
    """Makes devices, each with a cookie jar of its own."""
    opened = []

    def make(**headers):
        client = TestClient(
            away, base_url="http://127.0.0.1", follow_redirects=False, headers=headers
        )
        opened.append(client)
        return client

    with TestClient(away, base_url="http://127.0.0.1"):
        yield make
    for client in opened:
        client.close()


@pytest.fixture
def script(device):
    return device(authorization=f"Bearer {TOKEN}")


def invite(script):
    made = script.post("/api/devices/invitations")
    assert made.status_code == 201
    return made.json()


def let_in(device, script):
    one = device(**PHONE)
    answer = one.get(f"/rig/1/range?home=1&invitation={invite(script)['code']}")
    assert (answer.status_code, answer.headers["location"]) == (303, "/rig/1/range?home=1")
    return one


def test_an_invitation_lets_one_device_in_for_good(device, script):
    code = invite(script)["code"]
    one, two = device(**PHONE), device(**PHONE)
    first = one.get(f"/?invitation={code.lower()[:5]}-{code[5:]}")
    said = first.headers.get_list("set-cookie")[0].lower()
    assert f"max-age={COOKIE_DAYS * 86_400}" in said
    assert "httponly" in said
    assert "samesite=lax" in said
    assert "secure" not in said
    assert len(one.cookies[COOKIE]) >= 43  # 32 random bytes
    assert one.get("/api/rigs").status_code == 200
    late = two.get(f"/?invitation={code}")
    assert late.status_code == 401
    assert "used already" in late.text
    assert two.get("/api/rigs").status_code == 401


def test_on_https_the_cookie_is_secure(device, script):
    answer = device().get(f"https://127.0.0.1/?invitation={invite(script)['code']}")
    assert "; secure" in answer.headers.get_list("set-cookie")[0].lower()


def test_an_invitation_ends_after_ten_minutes(monkeypatch):
    now = [0.0]
    monkeypatch.setattr("lyrandis.api.invitations.time.monotonic", lambda: now[0])
    invitations = Invitations()
    code, other = invitations.make().code, invitations.make().code
    now[0] = LASTS_S - 1
    assert invitations.take(f" {code} ")
    assert not invitations.take(code)
    now[0] = LASTS_S
    assert not invitations.take(other)
    assert not invitations.take("ü")


def test_the_invitation_is_told_with_each_address_as_text_and_as_a_code(script):
    made = invite(script)
    assert [a["address"] for a in made["addresses"]] == [
        f"http://127.0.0.1:8730/?invitation={made['code']}",
        f"http://bench.local:8730/?invitation={made['code']}",
    ]
    rows = made["addresses"][0]["rows"]
    assert {len(row) for row in rows} == {len(rows)}
    assert set("".join(rows)) == {"0", "1"}
    finder = ["1111111", "1000001", "1011101"]  # at its corner, inside the border of two
    assert [row[2:9] for row in rows[2:5]] == finder


def test_devices_are_listed_named_and_signed_out_one_by_one(device, script):
    one, two = let_in(device, script), let_in(device, script)
    told = one.get("/api/devices").json()
    assert told["open"] is True
    assert [d["name"] for d in told["devices"]] == ["Phone", "Phone"]
    assert [d["mine"] for d in told["devices"]].count(True) == 1
    mine = next(d for d in told["devices"] if d["mine"])
    named = one.patch(f"/api/devices/{mine['id']}", json={"name": " Mina's "}).json()
    assert {d["name"] for d in named["devices"]} == {"Phone", "Mina's"}
    assert one.patch(f"/api/devices/{mine['id']}", json={"name": " "}).status_code == 422
    left = two.delete(f"/api/devices/{mine['id']}").json()
    assert [d["mine"] for d in left["devices"]] == [True]
    assert one.get("/api/rigs").status_code == 401
    assert two.get("/api/rigs").status_code == 200
    assert two.delete(f"/api/devices/{mine['id']}").status_code == 404
    # Oneself too, and the cookie goes.
    (own,) = two.get("/api/devices").json()["devices"]
    assert 'lyrandis-device=""' in two.delete(f"/api/devices/{own['id']}").headers["set-cookie"]


def test_a_cookie_once_given_is_no_guess_and_any_other_wrong_value_is(device, script):
    one = let_in(device, script)
    (own,) = one.get("/api/devices").json()["devices"]
    script.delete(f"/api/devices/{own['id']}")
    for _ in range(8):
        answer = one.get("/api/rigs")
        assert answer.status_code == 401
        assert "signed out" in answer.json()["detail"]
    strange = device(cookie=f"{COOKIE}=not-one-of-ours")
    codes = [strange.get("/api/rigs").status_code for _ in range(5)]
    assert codes == [401, 401, 401, 429, 429]
    invited = [device().get("/?invitation=WRONGWRONG").status_code for _ in range(2)]
    assert invited == [429, 429]


def test_who_is_in_is_answered_while_others_guess(device, script):
    one = let_in(device, script)
    for i in range(5):
        device().get(f"/api/rigs?token=guess{i}")
    assert device().get("/api/rigs").status_code == 429
    assert one.get("/api/rigs").status_code == 200


def test_a_stale_invitation_in_a_bookmark_leads_a_known_device_to_its_page(device, script):
    one = let_in(device, script)
    answer = one.get("/range?invitation=USEDUPLONG")
    assert (answer.status_code, answer.headers["location"]) == (303, "/range")


def test_the_token_opened_on_a_page_lets_the_device_in(device):
    one = device(**PHONE)
    assert one.get(f"/?token={TOKEN}").status_code == 303
    assert COOKIE in one.cookies
    assert one.get("/api/rigs").status_code == 200
    # An earlier version's cookie holds the token itself.
    assert device(cookie=f"lyrandis-token={TOKEN}").get("/api/rigs").status_code == 200


def test_what_lets_in_outlives_the_server_and_a_restore(device, script, tmp_path):
    old = tmp_path / "old.db"
    backup(tmp_path / "data", old)
    one = let_in(device, script)
    put = one.post("/api/data/restore", files={"file": ("old.db", old.read_bytes())})
    assert put.status_code == 200
    assert one.get("/api/rigs").status_code == 200
    again = create_app(tmp_path / "data", tmp_path / "site", token="another-token-of-this-start")
    with TestClient(again, base_url="http://127.0.0.1", cookies=dict(one.cookies)) as later:
        assert later.get("/api/rigs").status_code == 200


@pytest.mark.parametrize(
    ("path", "led"),
    [("/", "/"), ("/rig/1/range?home=1", "/rig/1/range"), ("//evil.example/x", "/evil.example/x")],
)
def test_who_is_not_in_sees_a_page_in_words_and_is_led_to_what_was_asked_for(device, path, led):
    answer = device(**PHONE).get(f"http://127.0.0.1{path}")
    assert f'action="{led}"' in answer.text
    assert answer.status_code == 401
    assert answer.headers["content-type"].startswith("text/html")
    assert "default-src 'none'" in answer.headers["content-security-policy"]
    assert 'name="invitation"' in answer.text
    assert re.search("not let in. Open an invitation", answer.text)


def test_a_brake_and_a_fault_are_pages_too(device, away, monkeypatch):
    for i in range(4):
        device().get(f"/api/rigs?token=guess{i}")
    braked = device(**PHONE).get("/")
    assert (braked.status_code, "<h1>" in braked.text) == (429, True)
    assert int(braked.headers["retry-after"]) >= 1
    monkeypatch.setattr("lyrandis.api.pages._file", lambda *_: 1 / 0)
    fault = device(accept="text/html", cookie=f"lyrandis-token={TOKEN}")
    away.state.doors.guesses.right("testclient")
    answer = fault.get("/x")
    assert (answer.status_code, "<h1>" in answer.text) == (500, True)
    assert "/x" in answer.text


def test_on_this_machine_alone_nobody_is_invited(client):
    told = client.get("/api/devices").json()
    assert (told["open"], told["addresses"], told["devices"]) == (False, [], [])
    answer = client.post("/api/devices/invitations")
    assert answer.status_code == 404
    assert "--host" in answer.json()["detail"]
    assert client.get("/api/devices/authority").status_code == 404


def test_every_answer_says_the_folder_and_its_generation(client):
    first = client.get("/api/rigs").headers["x-lyrandis-folder"]
    assert re.fullmatch(r"[0-9a-f]{32}\.1", first)
    saved = client.get("/api/data/backup").content
    client.post("/api/data/restore", files={"file": ("b.db", saved)})
    assert client.get("/api/rigs").headers["x-lyrandis-folder"] == f"{first[:-1]}2"
    rig = client.post("/api/rigs", json={"name": "Own"}).json()["id"]
    file = client.get(f"/api/rigs/{rig}/file").content
    client.post("/api/rigs/import", files={"file": ("rig.json", file)})
    assert client.get("/api/rigs").headers["x-lyrandis-folder"] == f"{first[:-1]}3"
