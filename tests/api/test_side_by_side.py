"""Side by side over HTTP: rigs, days and parts; what differs is set back as a change like any."""

import pytest

RIG = {"name": "One", "archer": {"name": "Ilse"}, "bow": {"brace_height_in": 8.5},
       "arrow": {"shaft_length_in": 30}}  # fmt: skip


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json=RIG).json()


def keep(client, rig, changes):
    body = {"seq": rig["seq"], "changes": changes, "station": "brace"}
    return client.post(f"/api/rigs/{rig['id']}/keep", json=body).json()


def ask(client, mine, other):
    return client.post("/api/beside", json={"mine": mine, "other": other})


def test_one_rig_at_two_dates_and_its_brace_put_back_with_a_reason(client, rig):
    id = rig["id"]
    after = keep(client, rig, {"bow.brace_height_in": 8.0})
    days = client.get(f"/api/rigs/{id}/days").json()
    assert [(d["seq"], d["entries"], d["stations"]) for d in days] == [(1, 1, ["brace"])]
    found = ask(client, {"rig": id}, {"rig": id, "seq": 0}).json()
    assert found["mine"]["day"] is None
    assert found["other"]["day"] is not None
    assert found["other"]["bench"]["rig"]["bow"]["brace_height_in"] == 8.5
    assert found["mine"]["bench"]["force_draw"]["curve"]["draw_in"]
    (brace,) = found["told"]["differences"]
    assert brace["back"]["changes"] == {"bow.brace_height_in": 8.5}
    kept = client.post(f"/api/rigs/{id}/keep", json={
        "seq": after["seq"], "changes": brace["back"]["changes"],
        "station": brace["back"]["station"], "why": "it shot better then"}).json()  # fmt: skip
    assert kept["rig"]["bow"]["brace_height_in"] == 8.5
    again = ask(client, {"rig": id}, {"rig": id, "seq": 0}).json()
    assert again["told"]["differences"] == []


def test_another_set_of_that_day_is_put_on_again(client, rig):
    id = rig["id"]
    new = {"name": "Indoor", "of": {"kind": "arrows", "shaft_length_in": 31, "static_spine": 600}}
    put = client.post(f"/api/rigs/{id}/put-on",
                      json={"seq": rig["seq"], "slot": "arrows", "new": new}).json()  # fmt: skip
    (arrows,) = ask(client, {"rig": id}, {"rig": id, "seq": 0}).json()["told"]["differences"]
    assert arrows["title"] == "Another set of arrows"
    back = arrows["back"]
    kept = client.post(f"/api/rigs/{id}/put-on", json={
        "seq": put["seq"], "slot": back["slot"], "mark": back["mark"]}).json()  # fmt: skip
    assert kept["rig"]["arrow"]["shaft_length_in"] == 30


def test_two_parts_stand_on_the_rig_that_has_one_of_them(client, rig):
    mine = next(p["mark"] for p in rig["parts"] if p["slot"] == "string")
    of = {"kind": "string", "strands": 18, "material": "low_stretch"}
    made = client.post("/api/parts", json={"name": "Spare", "of": of}).json()
    other = made["line"]["mark"]
    found = ask(client, {"part": mine}, {"part": other}).json()
    assert (found["mine"]["on"], found["other"]["on"], found["other"]["title"]) == (
        "One", "One", "Spare")  # fmt: skip
    (string,) = found["told"]["differences"]
    assert {r["path"] for r in string["rows"]} >= {"string.strands", "string.material"}
    assert string["back"] is None


def test_parts_that_are_on_no_rig_stand_on_an_ordinary_one(client):
    bows = [
        client.post("/api/parts", json={"name": n, "of": {"kind": "bow", "form": "longbow",
                    "length_in": length}}).json()["line"]["mark"]
        for n, length in (("A", 66), ("B", 68))
    ]  # fmt: skip
    found = ask(client, {"part": bows[0]}, {"part": bows[1]}).json()
    assert (found["mine"]["title"], found["mine"]["on"]) == ("A", None)
    angle = next(n for n in found["told"]["numbers"] if n["id"] == "angle")
    assert angle["other"]["value"] > angle["mine"]["value"]


@pytest.mark.parametrize(
    ("mine", "other", "status"),
    [
        ({"rig": 1}, {"rig": 999}, 404),
        ({"rig": 1}, {"rig": 1, "seq": 99}, 404),
        ({"rig": 1}, {"part": "0" * 32}, 422),
        ({"part": "0" * 32}, {"part": "1" * 32}, 404),
        ({}, {"rig": 1}, 422),
        ({"rig": 1, "part": "0" * 32}, {"rig": 1}, 422),
    ],
)
def test_what_cannot_stand_side_by_side_is_refused(client, rig, mine, other, status):  # noqa: ARG001
    assert ask(client, mine, other).status_code == status


def test_parts_of_two_kinds_are_refused_in_words(client, rig):
    marks = {p["slot"]: p["mark"] for p in rig["parts"]}
    refused = ask(client, {"part": marks["string"]}, {"part": marks["arrows"]})
    assert refused.status_code == 422
    assert "two kinds" in refused.json()["detail"]


def test_the_two_limbs_of_one_rig_stand_side_by_side_too(client, rig):
    marks = {p["slot"]: p["mark"] for p in rig["parts"]}
    found = ask(client, {"part": marks["upper_limb"]}, {"part": marks["lower_limb"]})
    assert found.status_code == 200
    assert found.json()["mine"]["on"] is None
