"""Fit from the rack over HTTP: asked, taken out as one act or not at all, and brought back."""

import json

import pytest

BOW = {"kind": "bow", "form": "hybrid", "length_in": 64, "marked_weight_lbf": 32,
       "side_plate": "leather", "centre_cut_mm": -1, "cut_for": "both"}  # fmt: skip
STRING = {"kind": "string", "length_in": 61.25, "strands": 12}
SET = {"kind": "arrows", "shaft_length_in": 29, "static_spine": 1000, "grains_per_inch": 12}


@pytest.fixture
def rack(client):
    """An archer, a bow, a string and a set, by their kinds: each one's line."""
    wanted = {"archer": {"kind": "archer", "draw_length_in": 27, "release": "split"},
              "bow": BOW, "string": STRING, "arrows": SET}  # fmt: skip
    return {
        slot: client.post("/api/parts", json={"name": f"The {slot}", "of": of}).json()["line"]
        for slot, of in wanted.items()
    }


def taken(rack, *slots):
    return {slot: {"mark": rack[slot]["mark"], "seq": rack[slot]["seq"]} for slot in slots}


def take(client, rack, *slots, **more):
    body = {"archer": rack["archer"]["mark"], "parts": taken(rack, *slots), **more}
    return client.post("/api/parts/take-out", json=body)


def line(client, mark):
    return client.get(f"/api/parts/{mark}").json()["line"]


def events(client, id):
    with client.stream("GET", f"/api/jobs/{id}/events") as stream:
        return [row for row in stream.iter_lines() if row]


def test_it_is_asked_in_one_request_or_as_a_job(client, rack):
    body = {"archer": rack["archer"]["mark"], "use": "range"}
    fit = client.post("/api/parts/fit", json=body).json()
    (build,) = fit["builds"]
    assert (build["level"], build["free"], build["lacks"]) == ("mind", True, [])
    assert [p["seq"] for p in build["parts"]] == [0]
    job = client.post("/api/jobs/fit", json=body)
    assert job.status_code == 202
    told = events(client, job.json()["id"])
    done = told.index("event: done")
    result = next(row for row in told[done:] if row.startswith("data:"))
    assert json.loads(result.removeprefix("data:")) == fit


def test_who_asks_must_be_an_archer_that_is_there(client, rack):
    nobody = client.post("/api/parts/fit", json={"archer": "0" * 32})
    assert nobody.status_code == 404
    bow = client.post("/api/parts/fit", json={"archer": rack["bow"]["mark"]})
    assert (bow.status_code, bow.json()["errors"][0]["field"]) == (422, "archer")
    heavy = client.post("/api/parts/fit", json={"archer": rack["archer"]["mark"], "most_lbf": 900})
    assert "120" in heavy.json()["detail"]


def test_lent_and_written_up_as_a_rig_in_one_step(client, rack):
    made = take(client, rack, "bow", "string", "arrows", rig="Ada's first", due_back="2031-05-01")
    assert made.status_code == 201
    got = made.json()
    rig = client.get(f"/api/rigs/{got['rig_id']}").json()
    assert rig["rig"]["name"] == "Ada's first"
    on = {p["slot"]: p["mark"] for p in rig["parts"]}
    assert on == {slot: one["mark"] for slot, one in rack.items()}
    assert [(p["state"], p["kept"]["words"]["to"]) for p in got["lines"]] == [
        ("lent", "The archer")] * 3  # fmt: skip
    days = client.get("/api/parts/lent.ics", params={"mark": rack["bow"]["mark"]}).text
    assert days.count("BEGIN:VEVENT") == 1
    assert "20310501" in days
    assert client.get("/api/parts/lent.ics").text.count("BEGIN:VEVENT") == 3
    again = client.post("/api/parts/fit", json={"archer": rack["archer"]["mark"]}).json()
    assert again["builds"][0]["parts"][0]["where"]["words"]["to"] == "The archer"


def test_what_was_lent_is_back_in_one_step(client, rack):
    got = take(client, rack, "bow", due_back="").json()
    assert got["rig_id"] is None
    marks = [{"mark": p["mark"], "seq": p["seq"]} for p in got["lines"]]
    back = client.post("/api/parts/take-back", json={"parts": marks}).json()
    assert [p["state"] for p in back] == ["in_use"]
    assert line(client, rack["bow"]["mark"])["kept"] is None
    stale = client.post("/api/parts/take-back", json={"parts": marks})
    assert stale.status_code == 409


@pytest.mark.parametrize(
    ("slots", "more", "field"),
    [
        (("string",), {"due_back": ""}, "parts"),
        (("bow",), {"rig": "Only a bow"}, "rig"),
        (("bow", "string", "arrows"), {}, "due_back"),
    ],
)
def test_too_little_is_refused_and_nothing_is_written(client, rack, slots, more, field):
    refused = take(client, rack, *slots, **more)
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, field)
    assert client.get("/api/rigs").json() == []


def test_what_stops_this_bow_for_this_archer_is_refused(client, rack):
    bow = rack["bow"]["mark"]
    client.post(f"/api/parts/{bow}/keep",
                json={"seq": 0, "changes": {"of.cut_for": "left"}, "why": ""})  # fmt: skip
    rack["bow"]["seq"] = 1
    refused = take(client, rack, "bow", "string", "arrows", rig="Wrong", due_back="")
    assert refused.status_code == 422
    assert "left hand" in refused.json()["detail"]
    assert line(client, bow)["state"] == "in_use"
    assert client.get("/api/rigs").json() == []


def test_what_is_lent_already_is_refused(client, rack):
    assert take(client, rack, "bow", due_back="").status_code == 201
    rack["bow"]["seq"] = 1
    refused = take(client, rack, "bow", due_back="")
    assert "take it back first" in refused.json()["detail"]


def test_a_part_that_changed_meanwhile_leaves_all_as_it_was(client, rack):
    string = rack["string"]["mark"]
    client.post(f"/api/parts/{string}/keep",
                json={"seq": 0, "changes": {"of.strands": 13}, "why": ""})  # fmt: skip
    conflict = take(client, rack, "bow", "string", "arrows", rig="Half", due_back="2031-05-01")
    assert conflict.status_code == 409
    assert "The string" in conflict.json()["detail"]
    assert client.get("/api/rigs").json() == []
    assert {line(client, one["mark"])["state"] for one in rack.values()} == {"in_use"}


def test_what_lies_on_another_archers_rig_or_was_stopped_is_said(client, rack):
    other = {"name": "Other", "archer": {"name": "Bo"}, "bow": {"takedown": False}}
    rig = client.post("/api/rigs", json=other).json()
    bow = next(p["mark"] for p in rig["parts"] if p["slot"] == "bow")
    ask = {"archer": rack["archer"]["mark"]}
    builds = client.post("/api/parts/fit", json=ask).json()["builds"]
    there = next(b for b in builds if b["parts"][0]["mark"] == bow)
    assert there["parts"][0]["where"]["words"] == {"rigs": "Other"}
    assert not there["free"]
    found = {"kind": "inspection", "looked": ["cracks"], "found": ["cracks"]}
    kept = client.post(f"/api/rigs/{rig['id']}/keep", json={
        "seq": rig["seq"], "changes": {}, "station": "bow-length", "trial": found})  # fmt: skip
    assert kept.status_code == 200
    after = client.post("/api/parts/fit", json=ask).json()
    assert bow not in [b["parts"][0]["mark"] for b in after["builds"]]
    assert bow in [one["mark"] for one in after["left"]]
    rack["bow"] = {"mark": bow, "seq": 0}
    assert take(client, rack, "bow", due_back="").status_code == 422


def test_a_riser_with_one_limb_is_no_bow(client, rack):
    for slot, of in (("riser", {"kind": "riser", "riser_in": 25}),
                     ("upper_limb", {"kind": "limb", "limb_class": "medium",
                                     "marked_weight_lbf": 30})):  # fmt: skip
        made = client.post("/api/parts", json={"name": slot, "of": of}).json()
        rack[slot] = made["line"]
    refused = take(client, rack, "riser", "upper_limb", due_back="")
    assert "riser and two limbs" in refused.json()["detail"]


def test_a_string_far_too_long_for_the_bow_is_refused_though_nobody_measured_it(client, rack):
    """The page says it does not fit, by the bow it is on; so does what takes it out."""
    longer = {"name": "Long", "archer": {"name": "Bo"},
              "bow": {"takedown": False, "form": "longbow", "length_in": 72}}  # fmt: skip
    rig = client.post("/api/rigs", json=longer).json()
    mark = next(p["mark"] for p in rig["parts"] if p["slot"] == "string")
    ask = {"archer": rack["archer"]["mark"]}
    builds = client.post("/api/parts/fit", json=ask).json()["builds"]
    mine = next(b for b in builds if b["parts"][0]["mark"] == rack["bow"]["mark"])
    assert next(o for o in mine["strings"] if o["part"]["mark"] == mark)["level"] == "stop"
    rack["string"] = {"mark": mark, "seq": 0}
    refused = take(client, rack, "bow", "string", due_back="")
    assert "too long" in refused.json()["detail"]
