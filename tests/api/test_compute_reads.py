"""The compute calls of flights: a shaft past the bow, reads, walk-back, and their refusals."""

import pytest

BODY = {
    "archer": {"draw_length_in": 28},
    "bow": {"form": "recurve", "length_in": 68, "marked_weight_lbf": 42, "brace_height_in": 8.5},
    "arrow": {"shaft_length_in": 30, "static_spine": 600},
}


def post(client, call, body, status=200):
    answer = client.post(f"/api/compute/{call}", json=body)
    assert answer.status_code == status, answer.text
    return answer.json()


def test_flex_shows_the_shaft_frame_by_frame(client):
    told = post(client, "flex", BODY | {"frames": 30})
    assert abs(told["clean"]["j_deg"]) < 15
    assert told["outside"] == []
    assert 25 <= len(told["frames"]) <= 40
    frame = told["frames"][0]
    assert len(frame["along_mm"]) == len(frame["aside_mm"])
    assert frame["nock_mm"] > 300
    assert [a["distance_m"] for a in told["nock_angle_deg"]][:2] == [2.0, 2.5]
    assert told["contacts"]["peak_n"] > 1


def test_flex_of_a_thumb_bow_is_shapes_alone(client):
    told = post(client, "flex", BODY | {"archer": {"draw_length_in": 28, "release": "thumb"}})
    assert told["clean"] is None
    assert told["nock_angle_deg"] == []
    assert told["outside"]
    assert told["frames"]


def test_flex_refuses_an_arrow_shorter_than_the_draw(client):
    body = BODY | {"arrow": {"shaft_length_in": 26}}
    error = post(client, "flex", body, 422)["errors"][0]
    assert error["field"] == "arrow.shaft_length_in"
    assert error["limit"] == 28


def test_reads_by_word_and_by_side_and_height(client):
    body = {
        "readings": [
            {"test": "kick_7_paces", "outcome": "weak"},
            {"test": "bare_shaft_15m", "outcome": {"side": "weak2", "height": "level"}},
            {"test": "wear_marks", "outcome": "no"},
        ],
        "spine_prior": {"value": -0.5, "sd": 1.5},
        "want_nock": True,
    }
    told = post(client, "reads", body)
    assert max(told["classes"], key=told["classes"].get) == "weak"
    assert sum(told["nock"].values()) == pytest.approx(1)
    assert {r["test"] for r in told["reasons"]} == {r["test"] for r in body["readings"]}
    best = told["next"][0]
    assert sum(o["chance"] for o in best["outcomes"]) == pytest.approx(1)
    pair = post(client, "reads", body | {"spine_prior": [-0.5, 1.5]})
    assert pair["classes"] == pytest.approx(told["classes"])


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"readings": [{"test": "kick_7_paces", "outcome": "odd"}]}, "readings.0.outcome"),
        ({"spine_prior": [99, 1]}, "spine_prior"),
    ],
)
def test_reads_refuse_what_is_none(client, change, field):
    assert post(client, "reads", change, 422)["errors"][0]["field"] == field


def test_walk_back(client):
    visits = [{"distance_m": d, "offsets_cm": [0.4 * d - 4] * 12} for d in (10, 20, 30, 40)]
    told = post(client, "walk-back", {"visits": visits})
    assert told["slant_cm_per_10m"]["value"] == pytest.approx(4.0)
    assert told["verdict"] == "slant"
    assert told["why"]["text"]
    near = post(client, "walk-back", {"visits": visits[:2]}, 422)
    assert near["errors"][0]["field"] == "visits"
