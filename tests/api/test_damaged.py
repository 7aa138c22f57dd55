"""One damaged or newer rig hides no other, and still opens far enough to be mended or taken away."""

import json
import sqlite3

import pytest

from lyrandis.store.database import FILE_NAME


@pytest.fixture
def app(demo_app):
    return demo_app


@pytest.fixture
def spoil(app):
    """The demo's rigs; a function that writes behind the application's back."""

    def write(*statements):
        raw = sqlite3.connect(app.state.folder / FILE_NAME)
        raw.execute("PRAGMA ignore_check_constraints=ON")
        for statement in statements:
            raw.execute(*statement) if isinstance(statement, tuple) else raw.execute(statement)
        raw.execute("DELETE FROM snapshots")  # as a version finds it that derives otherwise
        raw.commit()
        raw.close()

    return write


LATEST = "(SELECT max(seq) FROM entries WHERE rig_id = 1)"
IN_AN_ENTRY = [
    f'UPDATE entries SET trial = \'{{"kind": "dream"}}\' WHERE rig_id = 1 AND seq = {LATEST}',
    f"UPDATE entries SET changes = '[{{' WHERE rig_id = 1 AND seq = {LATEST}",
    f'UPDATE entries SET changes = \'[{{"path": "bow.colour", "after": 1}}]\' WHERE rig_id = 1 AND seq = {LATEST}',
    f'UPDATE entries SET changes = \'[{{"path": "bow.length_in", "after": NaN}}]\' WHERE rig_id = 1 AND seq = {LATEST}',
    f"UPDATE entries SET changes = '7' WHERE rig_id = 1 AND seq = {LATEST}",
    f"UPDATE entries SET station = 'kitchen' WHERE rig_id = 1 AND seq = {LATEST}",
    f"UPDATE entries SET at = 'yesterday' WHERE rig_id = 1 AND seq = {LATEST}",
    f"UPDATE entries SET kind = 'dream' WHERE rig_id = 1 AND seq = {LATEST}",
    f"UPDATE entries SET about = 999 WHERE rig_id = 1 AND seq = {LATEST}",
]
IN_THE_BASE = [
    "UPDATE rigs SET base = json_set(base, '$.bow.colour', 'red') WHERE id = 1",
    "UPDATE rigs SET base = json_set(base, '$.bow.length_in', 900) WHERE id = 1",
    "UPDATE rigs SET base = '{\"name\": ' WHERE id = 1",
    "UPDATE rigs SET base = '[]' WHERE id = 1",
    "UPDATE rigs SET base = '5' WHERE id = 1",
]


@pytest.mark.parametrize("statement", IN_AN_ENTRY + IN_THE_BASE)
def test_it_hides_no_other_and_is_refused_with_why(spoil, client, statement):
    spoil(statement)
    notes = client.get("/api/rigs").json()
    assert [n["id"] for n in notes] == [1, 2, 3]
    assert [n["unreadable"] is None for n in notes] == [False, True, True]
    assert len(notes[0]["unreadable"]) > 15
    assert notes[0]["name"]
    for id in (2, 3):
        assert client.get(f"/api/rigs/{id}").status_code == 200
    for page in ("", "/history", "/schedule", "/schedule.ics", "/sheet", "/recording"):
        answer = client.get(f"/api/rigs/1{page}")
        assert answer.status_code == 409
        assert answer.headers["content-type"] == "application/problem+json"
        assert "cannot read" in answer.json()["detail"]
    kept = client.post("/api/rigs/1/keep", json={"seq": notes[0]["seq"], "changes": {}})
    assert kept.status_code == 409
    assert client.post("/api/jobs/pull", json={"rig": 1}).status_code == 409
    assert client.post("/api/rigs/1/preview", json={"changes": {}}).status_code == 409


@pytest.mark.parametrize("statement", IN_AN_ENTRY + IN_THE_BASE)
def test_its_file_goes_out_as_it_is_and_it_can_be_put_away(spoil, client, statement):
    spoil(statement)
    answer = client.get("/api/rigs/1/file")
    assert answer.status_code == 200
    document = json.loads(answer.text)
    assert document["format"] == "lyrandis-rig"
    assert len(document["entries"]) == client.get("/api/rigs").json()[0]["seq"]
    # What this version cannot read it does not take in either, and says where the fault lies.
    refused = client.post("/api/rigs/import", files={"file": answer.content})
    assert refused.status_code == 422
    away = client.post("/api/rigs/1/archive", json={"away": True}).json()
    assert away["archived"]
    assert not client.post("/api/rigs/1/archive", json={"away": False}).json()["archived"]


@pytest.mark.parametrize("statement", IN_AN_ENTRY)
def test_taking_back_the_entry_opens_it_again(spoil, client, statement):
    spoil(statement)
    note = client.get("/api/rigs").json()[0]
    assert note["undoable"]
    late = client.post("/api/rigs/1/undo", json={"seq": note["seq"] - 1})
    assert late.status_code == 409
    answer = client.post("/api/rigs/1/undo", json={"seq": note["seq"]})
    assert answer.status_code == 200, answer.text
    assert client.get("/api/rigs").json()[0]["unreadable"] is None
    lines = client.get("/api/rigs/1/history").json()
    assert lines[0]["kind"] == "undo"
    for page in ("", "/schedule", "/sheet", "/file"):
        assert client.get(f"/api/rigs/1{page}").status_code == 200
    kept = client.post(
        "/api/rigs/1/keep",
        json={"seq": note["seq"] + 1, "station": "string", "changes": {"string.strands": 12}},
    )
    assert kept.status_code == 200


def test_what_an_earlier_version_let_in_still_opens(spoil, client):
    """Times without a zone, from files made by hand; distances that no flight model covers."""
    changes = json.dumps([{"path": "aim.distances_m", "before": [10], "after": [1, 500]}])
    spoil(
        "UPDATE entries SET at = '2026-04-11' WHERE rig_id = 1 AND seq = 2",
        "UPDATE entries SET at = '2026-04-11T10:00:00' WHERE rig_id = 1 AND seq = 3",
        (f"UPDATE entries SET changes = ? WHERE rig_id = 1 AND seq = {LATEST}", (changes,)),
        "UPDATE entries SET form = 2 WHERE rig_id = 1",
    )
    for page in ("", "/history", "/schedule", "/sheet", "/file"):
        assert client.get(f"/api/rigs/1{page}").status_code == 200
    assert client.get("/api/rigs/1").json()["rig"]["aim"]["distances_m"] == [1, 500]


def test_an_entry_that_went_missing_is_said_when_the_data_is_looked_over(spoil, client):
    spoil("DELETE FROM entries WHERE rig_id = 1 AND seq = 3")
    told = client.get("/api/data").json()
    assert not told["whole"]
    assert [u["name"] for u in told["unreadable"]] == ["Field recurve, crawls"]
    assert "missing" in told["unreadable"][0]["reason"]
    assert client.get("/api/rigs").status_code == 200


def test_a_damaged_preference_is_no_lockout(spoil, client):
    spoil("INSERT OR REPLACE INTO preferences VALUES ('preferences', '{\"units\": 5}')")
    assert client.get("/api/preferences").json() == {"units": {}, "theme": "system"}
    assert client.get("/api/rigs/1/sheet").status_code == 200
    spoil("UPDATE preferences SET value = 'no json'")
    assert client.get("/api/preferences").status_code == 200
