"""The rack over HTTP: parts made, changed, lent, put on, taken out and in again."""

import json

import pytest

RIG = {"name": "One", "archer": {"name": "Ilse"}, "bow": {"takedown": False}}


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json=RIG).json()


def part_of(rig, slot):
    return next(p["mark"] for p in rig["parts"] if p["slot"] == slot)


def keep(client, mark, seq, changes, why=""):
    return client.post(f"/api/parts/{mark}/keep", json={"seq": seq, "changes": changes, "why": why})


def test_the_rack_lists_each_part_with_where_it_is(client, rig):  # noqa: ARG001
    lines = client.get("/api/parts").json()
    assert [(p["kind"], p["name"]) for p in lines if p["kind"] == "archer"] == [("archer", "Ilse")]
    bow = next(p for p in lines if p["kind"] == "bow")
    assert (bow["size_in"], bow["rigs"][0]["rig"], bow["rigs"][0]["is_on"]) == (68, "One", True)
    assert bow["due"][0]["text"] == "never looked over"
    kinds = client.get("/api/catalog").json()["parts"]
    assert set(kinds) == {"archer", "bow", "riser", "limb", "string", "arrows"}
    assert "of.weighed_gr" not in kinds["arrows"]["fields"]  # measured on a rig, by a trial


def test_a_new_part_and_a_bad_one(client):
    made = client.post(
        "/api/parts", json={"name": "Spare", "of": {"kind": "string", "strands": 16}}
    )
    assert made.status_code == 201
    view = made.json()
    assert view["part"]["of"]["strands"] == 16
    assert view["story"][-1]["said"]["text"] == "Came to the rack."
    bad = client.post(
        "/api/parts", json={"name": "Spare", "of": {"kind": "string", "strands": 160}}
    )
    assert bad.status_code == 422
    assert "at most 40" in bad.json()["detail"]
    assert client.post("/api/parts", json={"name": "X", "of": {"kind": "sword"}}).status_code == 422
    assert client.get("/api/parts/" + "0" * 32).status_code == 404


def test_whom_a_change_reaches_is_said_before_it_is_kept(client, rig):
    copy = client.post(f"/api/rigs/{rig['id']}/copy", json={"name": "Two"}).json()
    client.post(f"/api/rigs/{copy['id']}/check", json={
        "seq": copy["seq"], "station": "crawls", "standing": "settled"})  # fmt: skip
    mark = part_of(rig, "archer")
    reached = client.post(f"/api/parts/{mark}/preview",
                          json={"changes": {"of.draw_length_in": 29.0}}).json()  # fmt: skip
    assert [(r["rig"], r["due"]) for r in reached] == [("One", []), ("Two", ["Aim"])]
    seen = client.post(f"/api/rigs/{rig['id']}/preview",
                       json={"changes": {"archer.draw_length_in": 29.0}, "parts": []}).json()  # fmt: skip
    assert [(r["rig"], r["part"], r["due"]) for r in seen["reaches"]] == [("Two", "Ilse", ["Aim"])]
    nothing = client.post(f"/api/rigs/{rig['id']}/preview",
                          json={"changes": {"bow.brace_height_in": 8.0}, "parts": []}).json()  # fmt: skip
    assert nothing["reaches"] == []
    kept = keep(client, mark, 0, {"of.draw_length_in": 29.0}, "grew").json()
    assert kept["line"]["seq"] == 1
    for id in (rig["id"], copy["id"]):
        assert client.get(f"/api/rigs/{id}").json()["rig"]["archer"]["draw_length_in"] == 29
    assert keep(client, mark, 0, {"of.draw_length_in": 28.0}).status_code == 409
    back = client.post(f"/api/parts/{mark}/undo", json={"seq": 1}).json()
    assert back["part"]["of"]["draw_length_in"] == 28
    assert back["redoable"]["text"]
    assert client.post(f"/api/parts/{mark}/redo", json={"seq": 2}).json()["line"]["seq"] == 3


def test_a_lent_part_has_a_day_in_the_calendar_and_goes_on_nothing(client, rig):
    assert client.get("/api/parts/lent.ics").status_code == 422
    spare = client.post("/api/parts", json={"name": "Spare", "of": {"kind": "string"}}).json()[
        "line"
    ]
    lend = {"keeping.state": "lent", "keeping.to": "Mina", "keeping.since": "2026-05-01",
            "keeping.due_back": "2026-06-01"}  # fmt: skip
    unsaid = keep(client, spare["mark"], 0, {"keeping.state": "lent"})
    assert unsaid.status_code == 422
    assert "to whom" in unsaid.json()["detail"]
    line = keep(client, spare["mark"], 0, lend).json()["line"]
    assert line["kept"]["words"]["to"] == "Mina"
    assert [d["text"] for d in line["due"]] == ["overdue"]
    text = client.get("/api/parts/lent.ics").text
    assert "SUMMARY:Spare is due back" in text
    assert "DTSTART;VALUE=DATE:20260601" in text
    body = {"seq": rig["seq"], "slot": "string", "mark": spare["mark"]}
    refused = client.post(f"/api/rigs/{rig['id']}/put-on", json=body)
    assert refused.status_code == 422
    assert "lent to Mina" in refused.json()["detail"]


def test_a_new_string_is_an_event_that_makes_what_rests_on_it_due(client, rig):
    id, seq = rig["id"], rig["seq"]
    for station in ("assembly", "string", "brace", "nock-point", "arrow", "quiet", "crawls"):
        body = {"seq": seq, "station": station, "standing": "settled"}
        seq = client.post(f"/api/rigs/{id}/check", json=body).json()["seq"]
    new = {"name": "Twelve strands", "of": {"kind": "string", "strands": 14, "twists": 20}}
    put = client.post(f"/api/rigs/{id}/put-on", json={"seq": seq, "slot": "string", "new": new})
    assert put.status_code == 200
    due = {s["station"] for s in put.json()["states"] if s["state"] == "due"}
    assert due == {"assembly", "brace", "nock-point", "quiet", "crawls"}
    said = client.get(f"/api/rigs/{id}/history").json()[0]["said"]
    assert said["text"].startswith("Put on the string “")
    undone = client.post(f"/api/rigs/{id}/undo", json={"seq": put.json()["seq"]}).json()
    assert not [s for s in undone["states"] if s["state"] == "due"]
    both = client.post(
        f"/api/rigs/{id}/put-on", json={"seq": undone["seq"], "slot": "arrows", "new": new}
    )
    assert both.status_code == 422


def test_parts_are_not_typed_as_settings(client, rig):
    body = {"seq": rig["seq"], "changes": {"on.string": "a" * 32}}
    refused = client.post(f"/api/rigs/{rig['id']}/keep", json=body)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "on.string"


def test_what_is_found_on_a_bow_stops_every_rig_with_it_until_a_word(client, rig):
    copy = client.post(f"/api/rigs/{rig['id']}/copy", json={"name": "Two"}).json()
    found = {"kind": "inspection", "looked": ["cracks"], "found": ["cracks"]}
    body = {"seq": rig["seq"], "station": "bow-length", "trial": found}
    seq = client.post(f"/api/rigs/{rig['id']}/keep", json=body).json()["seq"]
    assert all(note["stop"] for note in client.get("/api/rigs").json())
    seen = client.post(f"/api/rigs/{copy['id']}/preview", json={"changes": {}}).json()["bench"]
    assert seen["stop"]["text"].startswith("On the bow was found")
    assert all(s["findings"][0]["level"] == "stop" for s in seen["stations"])
    line = next(p for p in client.get("/api/parts").json() if p["kind"] == "bow")
    assert "cracks across a limb" in line["stop"]["text"]
    word = {"kind": "release", "places": ["cracks"], "word": "Bowyer Ruta"}
    body = {"seq": seq, "station": "bow-length", "trial": word}
    client.post(f"/api/rigs/{rig['id']}/keep", json=body)
    assert not any(note["stop"] for note in client.get("/api/rigs").json())


def test_a_parts_file_goes_out_and_comes_in_whole(client, rig):
    mark = part_of(rig, "arrows")
    keep(client, mark, 0, {"name": "Field set", "of.point_gr": 125.0}, "heavier")
    text = client.get(f"/api/parts/{mark}/file").content
    document = json.loads(text)
    assert (document["format"], document["mark"]) == ("lyrandis-part", mark)

    def take(content):
        return client.post("/api/parts/import", files={"file": ("p.json", content)})

    assert take(text).json()["line"]["seq"] == 1  # known here: left as it is
    other = text.replace(mark.encode(), b"f" * 32)
    taken = take(other).json()
    assert (taken["part"], taken["line"]["seq"]) == (
        client.get(f"/api/parts/{mark}").json()["part"], 1)  # fmt: skip
    assert client.get(f"/api/parts/{'f' * 32}/file").content == other
    for spoil, says in (
        (lambda t: t[:-20], "damaged"),
        (lambda t: t.replace(b"lyrandis-part", b"lyrandis-rig"), "not a part"),
        (lambda t: t.replace(b'"after": 125.0', b'"after": 9000'), "at most 600"),
        (lambda t: t.replace(b'"seq": 1', b'"seq": 3'), "numbered 3"),
    ):
        refused = take(spoil(other.replace(b"f" * 32, b"e" * 32)))
        assert refused.status_code == 422, says
        assert says in refused.json()["detail"]


def test_a_rigs_file_carries_its_parts_and_knows_them_again(client, rig):
    text = client.get(f"/api/rigs/{rig['id']}/file").content
    document = json.loads(text)
    assert set(document["parts"]) == {p["mark"] for p in rig["parts"]}
    taken = client.post("/api/rigs/import", files={"file": ("r.json", text)}).json()
    assert {p["mark"] for p in taken["parts"]} == set(document["parts"])
    assert taken["rig"] == rig["rig"]
    # Changed here meanwhile: the parts are as they are here, and the history says so.
    keep(client, part_of(rig, "string"), 0, {"of.strands": 18})
    again = client.post("/api/rigs/import", files={"file": ("r.json", text)}).json()
    assert again["rig"]["string"]["strands"] == 18
    said = client.get(f"/api/rigs/{again['id']}/history").json()[0]["said"]
    assert "as it is known here" in said["words"].values()
    # Elsewhere they are not known: they come along.
    for one, two in zip(sorted(document["parts"]), "abcdef", strict=False):
        text = text.replace(one.encode(), (two * 32).encode())
    fresh = client.post("/api/rigs/import", files={"file": ("r.json", text)}).json()
    assert fresh["rig"]["string"]["strands"] == 14
    without = json.loads(text)
    without["parts"] = {}
    refused = client.post("/api/rigs/import", files={"file": ("r.json", json.dumps(without))})
    assert refused.status_code == 422
    assert "does not bring" in refused.json()["detail"]
