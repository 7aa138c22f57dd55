"""Rigs over HTTP: kept, looked ahead, undone, copied, put away, as files, and who is answered."""

import io
import json

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from lyrandis.api.app import create_app
from lyrandis.core.parts import Rig

NEW = Rig(name="Test rig").model_dump(mode="json")


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json=NEW).json()


def keep(client, rig, changes, station="brace", **more):
    body = {"seq": rig["seq"], "changes": changes, "station": station} | more
    return client.post(f"/api/rigs/{rig['id']}/keep", json=body)


def states(view):
    return {s["station"]: s["state"] for s in view["states"]}


def test_a_new_rig_is_open_everywhere(rig):
    assert set(states(rig).values()) == {"open"}
    assert rig["rig"]["name"] == "Test rig"
    assert rig["undoable"] is None


def test_keep_undo_redo_and_history(client, rig):
    kept = keep(client, rig, {"bow.brace_height_in": 8.25}, why="quieter").json()
    assert kept["seq"] == 1
    assert states(kept)["brace"] == "provisional"
    undone = client.post(f"/api/rigs/{rig['id']}/undo", json={"seq": 1}).json()
    assert undone["rig"]["bow"]["brace_height_in"] is None
    assert states(undone)["brace"] == "open"
    redone = client.post(f"/api/rigs/{rig['id']}/redo", json={"seq": 2}).json()
    assert redone["rig"]["bow"]["brace_height_in"] == 8.25
    lines = client.get(f"/api/rigs/{rig['id']}/history").json()
    assert [line["kind"] for line in lines] == ["redo", "undo", "adjust"]
    assert lines[2]["said"]["text"] == "Set brace height to {v0}, because: {w0}."
    assert lines[2]["said"]["words"] == {"w0": "quieter"}
    nothing = client.post(f"/api/rigs/{rig['id']}/redo", json={"seq": 3})
    assert nothing.status_code == 409
    assert "nothing to do again" in nothing.json()["detail"]


def test_a_change_upstream_makes_downstream_due_and_a_check_clears_it(client, rig):
    kept = keep(client, rig, {"aim.spot_half_height_cm": 6}, "crawls", standing="settled").json()
    assert states(kept)["crawls"] == "settled"
    ahead = client.post(
        f"/api/rigs/{rig['id']}/preview", json={"changes": {"bow.brace_height_in": 8}}
    )
    due = next(s for s in ahead.json()["states"] if s["station"] == "crawls")
    assert due["state"] == "due"
    assert due["moved"] == ["brace height"]
    kept = keep(client, kept, {"bow.brace_height_in": 8}).json()
    assert states(kept)["crawls"] == "due"
    body = {"seq": kept["seq"], "station": "crawls", "standing": "settled"}
    checked = client.post(f"/api/rigs/{rig['id']}/check", json=body).json()
    assert states(checked)["crawls"] == "settled"


def test_a_preview_writes_nothing(client, rig):
    answer = client.post(f"/api/rigs/{rig['id']}/preview", json={"changes": {"bow.length_in": 66}})
    assert answer.json()["bench"]["rig"]["bow"]["length_in"] == 66
    assert client.get(f"/api/rigs/{rig['id']}").json() == rig


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"bow.length_in": 3}, "bow.length_in"),
        ({"arrow.shaft_length_in": 20}, "arrow.shaft_length_in"),
        ({"bow.brace_height_in": 30}, "bow.brace_height_in"),
        ({"archer.draw_length_in": 33.9, "bow.length_in": 54}, "archer.draw_length_in"),
        ({"bow.measured": [[20, 30], [25, 20]]}, "bow.measured"),
        ({"bow.measured": [["a", 30]]}, "bow.measured.0.0"),
        ({"engine": 3}, "engine"),
        ({"bow": {}}, "bow"),
    ],
)
def test_what_cannot_be_is_not_kept(client, rig, changes, field):
    answer = keep(client, rig, changes)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == field
    assert client.get(f"/api/rigs/{rig['id']}").json() == rig


def test_a_change_that_only_strains_what_lies_downstream_is_kept(client, rig):
    """A longer draw is kept though the arrow is now too short: that station then says stop."""
    kept = keep(client, rig, {"archer.draw_length_in": 30.5}, "draw")
    assert kept.status_code == 200
    bench = client.post(f"/api/rigs/{rig['id']}/preview", json={}).json()["bench"]
    arrow = next(s for s in bench["stations"] if s["station"] == "arrow")
    assert arrow["problem"]["field"] == "arrow.shaft_length_in"
    assert bench["shot"] is None
    assert bench["force_draw"] is not None


def test_two_at_once_conflict_and_nothing_is_lost(client, rig):
    assert keep(client, rig, {"bow.brace_height_in": 8.25}).status_code == 200
    late = keep(client, rig, {"bow.brace_height_in": 9})
    assert late.status_code == 409
    assert "Nothing was overwritten" in late.json()["detail"]
    assert client.get(f"/api/rigs/{rig['id']}").json()["rig"]["bow"]["brace_height_in"] == 8.25


def test_rename_copy_put_away(client, rig):
    renamed = keep(client, rig, {"name": "Better name"}, None).json()
    assert renamed["rig"]["name"] == "Better name"
    copy = client.post(f"/api/rigs/{rig['id']}/copy", json={"name": "Twin"}).json()
    assert copy["rig"]["name"] == "Twin"
    assert copy["seq"] == 0
    client.post(f"/api/rigs/{copy['id']}/archive", json={"away": True})
    notes = {n["name"]: n["archived"] for n in client.get("/api/rigs").json()}
    assert notes == {"Better name": False, "Twin": True}
    back = client.post(f"/api/rigs/{copy['id']}/archive", json={"away": False}).json()
    assert back["archived"] is False
    assert client.post(f"/api/rigs/{rig['id']}/copy", json={"name": "  "}).status_code == 422


def test_a_file_out_and_in_is_the_same_rig(client, rig):
    keep(
        client,
        rig,
        {"bow.brace_height_in": 8.25, "aim.distances_m": [10, 20.5]},
        why="ü – “quoted”",
    )
    text = client.get(f"/api/rigs/{rig['id']}/file")
    assert 'filename="test-rig.json"' in text.headers["content-disposition"]
    taken = client.post("/api/rigs/import", files={"file": ("rig.json", text.content)}).json()
    again = client.get(f"/api/rigs/{taken['id']}/file")
    assert again.text == text.text.replace(rig["uid"], taken["uid"])  # two of a folder are two
    assert (
        client.get(f"/api/rigs/{taken['id']}/history").json()
        == client.get(f"/api/rigs/{rig['id']}/history").json()
    )


def test_a_damaged_file_is_refused_whole(client, rig):
    text = client.get(f"/api/rigs/{rig['id']}/file").text
    document = json.loads(text)
    document["base"]["bow"]["length_in"] = 3
    for content, field in (
        (text[:-40], "file"),
        (json.dumps(document), "base.bow.length_in"),
        ("[]", "format"),
    ):
        answer = client.post("/api/rigs/import", files={"file": ("rig.json", content)})
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == field
    assert len(client.get("/api/rigs").json()) == 1


def test_the_sheet_is_a_pdf_in_the_archers_units(client, rig):
    client.put("/api/preferences", json={"units": {"draw": "mm"}, "theme": "light"})
    answer = client.get(f"/api/rigs/{rig['id']}/sheet")
    assert answer.headers["content-type"] == "application/pdf"
    text = PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()
    assert "Test rig" in text
    assert "711 ± 25 mm" in text or "711 mm" in text


def test_missing_things_are_404(client):
    for path in ("/api/rigs/99", "/api/rigs/99/history", "/api/rigs/99/sheet", "/api/nothing"):
        answer = client.get(path)
        assert answer.status_code == 404
        assert answer.headers["content-type"] == "application/problem+json"
    assert client.post("/api/rigs/99/undo", json={"seq": 0}).status_code == 404


class TestReference:
    def test_health(self, client):
        assert client.get("/api/health").json()["status"] == "ok"

    def test_catalog_has_all_the_browser_needs(self, client):
        told = client.get("/api/catalog").json()
        assert told["quantities"]["draw"]["choices"][0] == "in_8"
        assert told["fields"]["bow.length_in"]["high"] == 76
        assert told["stations"][0]["id"] == "draw"
        assert told["forms"]["static_tip"]["length_in"] == 54
        for note in told["fields"].values():
            assert note["quantity"] is None or note["quantity"] in told["quantities"]

    def test_parse(self, client):
        body = {"text": "2' 4 3/4\"", "quantity": "draw"}
        assert client.post("/api/units/parse", json=body).json()["value"] == pytest.approx(28.75)
        for bad in (
            {"text": "x", "quantity": "draw"},
            {"text": "3", "quantity": "mood"},
            {"text": "3", "quantity": "draw", "unit": "ell"},
        ):
            assert client.post("/api/units/parse", json=bad).status_code == 422

    def test_preferences_are_kept_and_checked(self, client):
        assert client.get("/api/preferences").json() == {"units": {}, "theme": "system"}
        body = {"units": {"distance": "yd"}, "theme": "dark"}
        assert client.put("/api/preferences", json=body).json() == body
        assert client.get("/api/preferences").json() == body
        for units in ({"distance": "lb"}, {"mood": "m"}):
            assert client.put("/api/preferences", json={"units": units}).status_code == 422


class TestWhoIsAnswered:
    def test_foreign_hosts_and_origins_are_refused(self, client):
        assert client.get("/api/health", headers={"host": "evil.example"}).status_code == 400
        foreign = client.post("/api/rigs", json=NEW, headers={"origin": "http://evil.example"})
        assert foreign.status_code == 403
        own = client.post("/api/rigs", json=NEW, headers={"origin": "http://127.0.0.1"})
        assert own.status_code == 201

    def test_too_much_at_once_is_refused(self, client):
        answer = client.post(
            "/api/rigs", content=b"x" * 4_100_000, headers={"content-type": "application/json"}
        )
        assert answer.status_code == 413

    def test_off_this_machine_a_token_is_wanted(self, tmp_path):
        token = "a-token-of-some-length"
        site = tmp_path / "index.html"
        site.write_text("<!doctype html>pages")
        app = create_app(tmp_path / "data", tmp_path, token=token)
        with TestClient(app, base_url="http://127.0.0.1", follow_redirects=False) as client:
            assert client.get("/api/health").status_code == 401
            assert client.get("/api/health?token=wrong").status_code == 401
            assert client.get(f"/api/health?token={token}").status_code == 200
            assert client.get("/api/health").status_code == 401
            bearer = {"authorization": f"Bearer {token}"}
            assert client.get("/api/health", headers=bearer).status_code == 200
            first = client.get(f"/rig/1/draw?token={token}&x=1")
            assert first.status_code == 303  # the token leaves the address
            assert first.headers["location"] == "/rig/1/draw?x=1"
            assert client.get("/api/health").status_code == 200  # by its cookie now

    def test_pages_and_their_headers(self, client):
        page = client.get("/rig/1/draw")
        assert "pages" in page.text
        assert page.headers["x-content-type-options"] == "nosniff"
        assert page.headers["cache-control"] == "no-cache"
        assert client.get("/mark.svg").status_code == 200
        assert client.get("/missing.js").status_code == 404
        assert client.get("/..%2f..%2fetc%2fpasswd").status_code in (200, 404)
        assert "root:" not in client.get("/..%2f..%2fetc%2fpasswd").text

    @pytest.mark.parametrize(
        ("accepted", "packing", "sent"),
        [
            ("gzip, br;q=0.9", "br", b"by brotli"),
            ("gzip", "gzip", b"by gzip"),
            ("identity", None, b"<svg/>"),
        ],
    )
    def test_a_built_file_goes_out_as_it_was_packed(
        self, client, tmp_path, accepted, packing, sent
    ):
        for suffix, content in ((".br", b"by brotli"), (".gz", b"by gzip")):
            (tmp_path / "site" / f"mark.svg{suffix}").write_bytes(content)
        with client.stream("GET", "/mark.svg", headers={"accept-encoding": accepted}) as answer:
            assert b"".join(answer.iter_raw()) == sent
        assert answer.headers.get("content-encoding") == packing
        assert answer.headers["content-type"] == "image/svg+xml"
        assert "Accept-Encoding" in answer.headers["vary"]

    def test_a_fault_has_a_mark_and_tells_no_more(self, client, monkeypatch):
        def broken(*_):
            raise ZeroDivisionError("secret path")

        client.post("/api/rigs", json=NEW)
        monkeypatch.setattr("lyrandis.api.rigs.history_of", broken)
        answer = client.get("/api/rigs/1/history")
        assert answer.status_code == 500
        assert "Fault" in answer.json()["detail"]
        assert answer.headers["x-frame-options"] == "DENY"
        assert "secret" not in answer.text
