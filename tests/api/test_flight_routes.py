"""Flight over HTTP: the shaft passing a rig's bow, and reads that are kept."""

import pytest


def passing(client, id, **changes):
    return client.post(f"/api/rigs/{id}/passing", json={"changes": changes})


@pytest.fixture
def rig(client):
    bow = {"form": "recurve", "length_in": 68, "marked_weight_lbf": 42, "takedown": True,
           "side_plate": "plunger", "centre_cut_mm": 5, "side_plate_mm": 4}  # fmt: skip
    made = client.post("/api/rigs", json={"name": "Field", "bow": bow, "string": {"mass_gr": 105}})
    return made.json()["id"]


class TestPassing:
    def test_three_shafts_and_their_frames(self, client, rig):
        told = passing(client, rig).json()
        stiffer, present, weaker = told["shots"]
        assert stiffer["spine"] < present["spine"] < weaker["spine"]
        assert len(told["time_ms"]) == len(told["nock_mm"]) == len(present["aside_mm"])
        assert all(len(row) == len(told["along_mm"]) for row in present["aside_mm"])
        assert told["time_ms"] == sorted(told["time_ms"])
        assert told["nock_mm"] == sorted(told["nock_mm"], reverse=True)
        assert stiffer["clean_deg"] > weaker["clean_deg"]
        assert told["outside"] == []
        assert told["low"] < told["curve"]["match"] < told["high"]

    def test_what_is_changed_on_the_bench_is_shot(self, client, rig):
        told = passing(client, rig, **{"arrow.static_spine": 480.0}).json()
        assert told["shots"][1]["spine"] == 480.0

    def test_a_thumb_bow_has_shapes_and_no_number(self, client, rig):
        told = passing(client, rig, **{"archer.release": "thumb"}).json()
        assert told["outside"]
        assert told["curve"] is None
        more = client.post(
            f"/api/rigs/{rig}/passing/changes", json={"changes": {"archer.release": "thumb"}}
        )
        assert more.json() == {"movers": [], "side": None}
        assert all(s["clean_deg"] is None and not s["nock_deg"] for s in told["shots"])
        assert told["shots"][1]["aside_mm"]

    def test_a_shaft_shorter_than_the_draw_is_refused(self, client, rig):
        answer = passing(client, rig, **{"arrow.shaft_length_in": 24.0})
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "arrow.shaft_length_in"

    def test_what_moves_it_and_the_nock_point_are_asked_apart(self, client, rig):
        told = client.post(f"/api/rigs/{rig}/passing/changes", json={"changes": {}}).json()
        assert {m["id"] for m in told["movers"]} >= {"spine", "point", "brace"}
        ups = dict(zip(told["side"]["error_mm"], told["side"]["nock_up_deg"], strict=True))
        assert ups[-4.0] > ups[4.0] > 0  # the false high

    def test_an_unknown_setting_is_refused(self, client, rig):
        assert passing(client, rig, **{"arrow.colour": "red"}).status_code == 422


class TestReads:
    def log(self, client, id, trial, changes=None):
        seq = client.get(f"/api/rigs/{id}").json()["seq"]
        body = {"seq": seq, "changes": changes or {}, "station": "flight", "trial": trial}
        return client.post(f"/api/rigs/{id}/keep", json=body)

    def reading(self, client, id):
        told = client.post(f"/api/rigs/{id}/preview", json={"changes": {}, "parts": ["flight"]})
        return told.json()["bench"]["reading"]

    def test_a_read_moves_the_chances_and_stands_in_the_log(self, client, rig):
        before = {c["id"]: c["chance"] for c in self.reading(client, rig)["classes"]}
        read = {"kind": "flight_read", "test": "kick_7_paces", "nocks": [4, 4, 7]}
        assert self.log(client, rig, read).status_code in (200, 201)
        told = self.reading(client, rig)
        after = {c["id"]: c["chance"] for c in told["classes"]}
        assert after["weak"] > before["weak"]
        assert sum(after.values()) == pytest.approx(1.0)

    def test_an_outcome_that_is_none_is_refused_and_nothing_kept(self, client, rig):
        before = client.get(f"/api/rigs/{rig}").json()["seq"]
        answer = self.log(
            client, rig, {"kind": "flight_read", "test": "felt_plate", "outcome": "weak"}
        )
        assert answer.status_code == 422
        assert client.get(f"/api/rigs/{rig}").json()["seq"] == before

    def test_a_lean_from_far_is_refused_with_the_limit(self, client, rig):
        read = {"kind": "flight_read", "test": "kick_7_paces", "nocks": [4], "distance_m": 12}
        answer = self.log(client, rig, read)
        assert answer.status_code == 422
        assert "Beyond 8.0 m" in answer.json()["detail"]

    def test_a_test_left_out_is_not_offered(self, client, rig):
        read = {"kind": "flight_read", "test": "kick_7_paces", "nocks": [4]}
        self.log(client, rig, read, {"reading.left_out": ["wear_marks"]})
        told = {t["id"]: t for t in self.reading(client, rig)["tests"]}
        assert told["wear_marks"]["left_out"]
        assert told["wear_marks"]["worth"] is None
        assert told["felt_plate"]["worth"] is not None


def test_the_spine_map_is_a_job_kept_by_its_inputs(client, rig):
    path = f"/api/jobs/spine-map/{rig}"
    begun = client.post(path, json={"changes": {}}).json()
    assert begun["kind"] == "spine-map"
    told = client.post(f"/api/rigs/{rig}/passing/map", json={"changes": {}}).json()
    own = [line for line in told["lines"] if line["own"]]
    assert all(line["spine"] == told["acts"] for line in own)
    again = client.post(path, json={"changes": {}}).json()
    assert again["id"] == begun["id"]
    other = client.post(path, json={"changes": {"bow.brace_height_in": 8.5}}).json()
    assert other["id"] != begun["id"]
    stopped = client.delete(f"/api/jobs/{other['id']}").json()
    assert stopped["state"] != "failed"  # it may have been done before it could be stopped
    thumb = client.post(path, json={"changes": {"archer.release": "thumb"}}).json()
    events = client.get(f"/api/jobs/{thumb['id']}/events").text
    assert "event: failed" in events
    assert "No map is drawn" in events


def test_lines_of_the_map_lie_where_their_spine_is_clean(client, rig):
    """Read against the table of the same answer, at a place between its rows."""
    told = client.post(f"/api/rigs/{rig}/passing/map", json={"changes": {}}).json()
    at = {(length, point): spine for length, point, spine in told["rows"]}
    lengths = sorted({length for length, _ in at})
    checked = 0
    for line in told["lines"]:
        for length, point in line["points"]:
            if length not in lengths:
                continue
            column = [(p, s) for (one, p), s in at.items() if one == length and s is not None]
            below = max((c for c in column if c[0] <= point), default=None)
            above = min((c for c in column if c[0] >= point), default=None)
            if below and above and above[0] - below[0] <= 20:
                low, high = sorted((below[1], above[1]))
                assert low - 0.5 <= line["spine"] <= high + 0.5
                checked += 1
    assert checked > 5
