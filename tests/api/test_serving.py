"""Serving others: own names answered, a token wanted and guarded; the data out and in by page."""

import socket
import sqlite3

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from lyrandis.api.app import create_app
from lyrandis.api.doors import Guesses
from lyrandis.api.names import is_any, own_names
from lyrandis.api.security import LEAST_TOKEN, LOCAL_HOSTS
from lyrandis.cli import app as command_line
from lyrandis.core.parts import Rig
from lyrandis.settings import new_token

NEW = Rig(name="Test rig").model_dump(mode="json")
TOKEN = "a-token-nobody-guesses"


@pytest.fixture
def served(tmp_path):
    site = tmp_path / "site"
    site.mkdir()
    (site / "index.html").write_text("<!doctype html>pages")
    made = create_app(tmp_path / "data", site, hosts=LOCAL_HOSTS | {"bench.local"}, token=TOKEN)
    with TestClient(made, base_url="http://127.0.0.1", follow_redirects=False) as client:
        yield client


class TestNames:
    def test_the_machines_own_names_and_addresses(self):
        names = own_names()
        assert socket.gethostname().lower() in names
        assert "127.0.0.1" in names
        assert all(name == name.lower() for name in names)

    def test_those_given_are_answered_and_others_are_not(self, served):
        headers = {"authorization": f"Bearer {TOKEN}"}
        for host in ("bench.local", "BENCH.local:8730", "127.0.0.1", "[::1]:8730", "localhost"):
            answer = served.get("/api/health", headers=headers | {"host": host})
            assert answer.status_code == 200
        for host in ("testserver", "evil.example", "bench.local.evil", "0.0.0.0"):
            answer = served.get("/api/health", headers=headers | {"host": host})
            assert answer.status_code == 400

    @pytest.mark.parametrize(("host", "any_one"), [("0.0.0.0", True), ("::", True), ("10.0.0.5", False), ("bench", False)])  # fmt: skip
    def test_a_host_for_every_address(self, host, any_one):
        assert is_any(host) is any_one


class TestToken:
    @pytest.mark.parametrize("shown", ["ü" * 20, "\udcff", "x" * 5000, "", TOKEN[:-1], TOKEN + " "])
    def test_another_one_is_refused_whatever_its_signs(self, served, shown):
        answer = served.get("/api/health", params={"token": shown.encode("utf-8", "replace")})
        assert answer.status_code == 401
        assert answer.headers["www-authenticate"] == "Bearer"
        assert answer.headers["x-content-type-options"] == "nosniff"
        cookie = {"cookie": b"lyrandis-token=\xff\xfe; ]["}
        assert served.get("/api/health", headers=cookie).status_code == 401

    def test_guesses_are_slowed_and_the_right_one_waits_too(self, served):
        codes = [served.get(f"/api/health?token=guess{i}").status_code for i in range(6)]
        assert codes[:3] == [401, 401, 401]
        assert codes[-1] == 429
        late = served.get(f"/api/health?token={TOKEN}")
        assert late.status_code == 429
        assert int(late.headers["retry-after"]) >= 1

    def test_each_wrong_one_more_makes_a_longer_wait(self, monkeypatch):
        now = [0.0]
        monkeypatch.setattr("lyrandis.api.doors.time.monotonic", lambda: now[0])
        guesses, waits = Guesses(), []
        for _ in range(12):
            guesses.wrong("1.2.3.4")
            waits.append(guesses.wait_s("1.2.3.4"))
            now[0] += waits[-1]
            assert guesses.wait_s("1.2.3.4") == 0
        assert waits[:5] == [0, 0, 1, 2, 4]
        assert max(waits) == 60
        assert guesses.wait_s("5.6.7.8") == 0
        guesses.right("1.2.3.4")
        guesses.wrong("1.2.3.4")
        assert guesses.wait_s("1.2.3.4") == 0

    def test_the_table_of_guesses_stays_small(self):
        guesses = Guesses()
        for i in range(guesses.MOST_ADDRESSES + 50):
            guesses.wrong(str(i))
        assert len(guesses._wrong) <= guesses.MOST_ADDRESSES

    def test_it_leaves_the_address_after_first_use(self, served):
        first = served.get(f"/rig/2/crawls?units=mm&token={TOKEN}")
        assert (first.status_code, first.headers["location"]) == (303, "/rig/2/crawls?units=mm")
        assert "HttpOnly" in first.headers["set-cookie"]
        assert "samesite=lax" in first.headers["set-cookie"].lower()
        assert "secure" not in first.headers["set-cookie"].lower()
        assert served.get("/rig/2/crawls").status_code == 200
        # Nobody is led to another server by it.
        away = served.get(f"//evil.example/x?token={TOKEN}")
        assert away.headers.get("location", "/").startswith("/")
        assert not away.headers.get("location", "/").startswith("//")
        served.cookies.clear()
        by_https = served.get(f"https://127.0.0.1/?token={TOKEN}")
        assert "; secure" in by_https.headers["set-cookie"].lower()

    def test_short_ones_are_refused(self, tmp_path, monkeypatch):
        with pytest.raises(ValueError, match="20 signs"):
            create_app(tmp_path, token="short")
        assert len(new_token()) >= LEAST_TOKEN
        monkeypatch.setenv("LYRANDIS_TOKEN", "short")
        told = CliRunner().invoke(
            command_line, ["serve", "--host", "0.0.0.0", "--data", str(tmp_path)]
        )
        assert told.exit_code == 1
        assert "at least 20" in " ".join(told.output.split())


class TestData:
    def test_out_and_in_by_the_page(self, client):
        client.post("/api/rigs", json=NEW)
        saved = client.get("/api/data/backup")
        assert saved.status_code == 200
        assert saved.headers["content-type"] == "application/vnd.sqlite3"
        assert saved.content.startswith(b"SQLite format 3\x00")
        client.post("/api/rigs", json=NEW | {"name": "Later"})
        put = client.post("/api/data/restore", files={"file": ("b.db", saved.content)})
        assert put.status_code == 200, put.text
        assert put.json()["rigs"] == 1
        assert put.json()["whole"]
        assert put.json()["replaced"].startswith("replaced-")
        assert [n["name"] for n in client.get("/api/rigs").json()] == ["Test rig"]
        # The server goes on with what was put back.
        kept = {"seq": 0, "station": "string", "changes": {"string.strands": 12}}
        assert client.post("/api/rigs/1/keep", json=kept).status_code == 200
        assert client.get("/api/data").json() | {"bytes": 0} == {
            "rigs": 1, "bytes": 0, "whole": True, "faults": [], "unreadable": [], "replaced": None,
        }  # fmt: skip

    def test_what_was_there_lies_beside_it_whole(self, client, tmp_path):
        client.post("/api/rigs", json=NEW)
        saved = client.get("/api/data/backup").content
        client.post("/api/rigs", json=NEW | {"name": "Later"})
        told = client.post("/api/data/restore", files={"file": saved}).json()
        raw = sqlite3.connect(tmp_path / "data" / told["replaced"])
        assert raw.execute("SELECT count(*) FROM rigs").fetchone() == (2,)
        raw.close()

    @pytest.mark.parametrize("content", [b"", b"{}", b"SQLite format 3\x00" + b"x" * 5000])
    def test_what_is_no_backup_changes_nothing(self, client, content):
        client.post("/api/rigs", json=NEW)
        answer = client.post("/api/data/restore", files={"file": ("b.db", content)})
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "file"
        assert "Nothing was changed" in answer.json()["detail"]
        assert len(client.get("/api/rigs").json()) == 1

    def test_a_rig_that_cannot_be_read_is_named(self, client, tmp_path):
        client.post("/api/rigs", json=NEW)
        raw = sqlite3.connect(tmp_path / "data" / "lyrandis.db")
        raw.execute("UPDATE rigs SET base = '{}}'")
        raw.commit()
        raw.close()
        told = client.get("/api/data").json()
        assert not told["whole"]
        assert told["unreadable"][0]["name"] == "Rig 1"

    def test_a_disk_that_takes_nothing_more_is_said(self, client, app):
        client.post("/api/rigs", json=NEW)
        with app.state.desk.engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA query_only=ON")
        body = {"seq": 0, "station": "string", "changes": {"string.strands": 12}}
        answer = client.post("/api/rigs/1/keep", json=body)
        assert answer.status_code == 503
        assert answer.headers["content-type"] == "application/problem+json"
        assert "Nothing kept was lost" in answer.json()["detail"]
