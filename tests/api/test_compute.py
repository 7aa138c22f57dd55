"""The compute API: names that scripts rely on, and clear refusals."""

import pytest

ARCHER = {"draw_length_in": 28, "release": "three_under"}
BOW = {"form": "recurve", "length_in": 68, "riser_in": 25, "marked_weight_lbf": 40}
STRING = {"material": "polyester", "strands": 14}
ARROW = {"shaft_length_in": 30, "grains_per_inch": 7.8, "static_spine": 600, "point_gr": 110}
RIG = {"archer": ARCHER, "bow": BOW, "string": STRING, "arrow": ARROW}
CRAWLS = {
    "speed_mps": 50,
    "eye_above_nock_mm": 110,
    "nock_to_tip_m": 0.76,
    "distances_m": [10, 20, 60, 80],
}
SHAFT = {"id": "1", "mass_gr": 400, "spine_28in": 600}
CHRONOGRAPH = {
    "archer": ARCHER,
    "bow": BOW,
    "readings": [{"mass_gr": 400, "speed_fps": [176, 178, 177]}],
}


def ask(client, call, body):
    answer = client.post(f"/api/compute/{call}", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def is_estimate(value):
    return set(value) == {"value", "plus_minus", "source"}


def test_draw_length(client):
    body = {
        "method": "marked_arrow",
        "readings_in": [28, 28.5],
        "convention": "pivot",
        "release": "thumb",
        "bow_length_in": 54,
    }
    told = ask(client, "draw-length", body)
    assert told["draw_length_in"]["value"] == pytest.approx(30)
    assert is_estimate(told["true_draw_in"])
    assert 30.3 < told["true_draw_in"]["value"] < 31
    assert told["spread_in"] == pytest.approx(0.3536, abs=1e-3)


def test_matched_set(client):
    shafts = [
        SHAFT | {"id": str(i), "mass_gr": 400 + m, "spine_28in": 600 + s}
        for i, (m, s) in enumerate([(0, 0), (9, 2), (1, 5), (8, 0), (30, 90)])
    ]
    told = ask(client, "matched-set", {"shafts": shafts, "count": 2})
    assert told["ids"] == ["1", "3"]
    assert (told["mass_range_gr"], told["spine_range"]) == (1, 2)
    assert told["size"] == pytest.approx(1 / 5)
    assert [one["ids"] for one in told["next_sets"]] == [["0", "2"]]
    assert told["leftovers"] == ["4"]
    assert (told["mass_scale_gr"], told["spine_scale"]) == (5, 12)
    odd = [SHAFT | {"id": "{a}"}, SHAFT | {"id": "b {"}]
    named = ask(client, "matched-set", {"shafts": odd, "count": 2})
    assert named["said"]["words"]["ids"] == "{a}, b {"
    spine_only = ask(client, "matched-set", {"shafts": shafts, "count": 2, "mass_scale_gr": 999})
    assert spine_only["spine_range"] == 0


def test_chronograph(client):
    body = CHRONOGRAPH | {"masses_gr": [350, 400, 600]}
    one = ask(client, "chronograph", body)
    assert is_estimate(one["stored_energy_ftlb"])
    assert one["virtual_mass_gr"]["source"] == "model"
    assert not one["line"]
    speeds = [s["value"] for s in one["speeds_fps"]]
    assert speeds == sorted(speeds, reverse=True)
    assert speeds[1] == pytest.approx(177, rel=0.01)
    heavy = {"mass_gr": 600, "speed_fps": [150.1, 151.0, 149.6]}
    two = ask(client, "chronograph", body | {"readings": [*body["readings"], heavy]})
    assert two["line"]
    assert two["virtual_mass_gr"]["source"] == "measured"
    assert two["virtual_mass_gr"]["plus_minus"] < one["virtual_mass_gr"]["plus_minus"]
    assert two["speeds_fps"][2]["value"] == pytest.approx(150.2, rel=0.01)
    odd = {"mass_gr": 400, "speed_fps": [176, 178, 177, 177.5, 120]}
    assert ask(client, "chronograph", body | {"readings": [odd]})["outliers"] == [[4]]


def test_bow_length(client):
    told = ask(
        client, "bow-length", {"archer": ARCHER, "use": "range", "taste": 0, "takedown": True}
    )
    assert [s["school"] for s in told["schools"]] == [
        "limb_first", "ladder", "ratio_band", "stack_reserve", "string_angle",
    ]  # fmt: skip
    assert {"low_in", "high_in", "verdict", "why"} <= set(told["schools"][0])
    best = told["candidates"][0]
    assert {
        "length_in",
        "riser_in",
        "limb_class",
        "string_angle_deg",
        "stack_reserve_in",
        "score",
    } <= set(best)
    edited = ask(
        client,
        "bow-length",
        {"archer": ARCHER, "use": "range", "takedown": False, "schools": {"ratio_low": 2.2}},
    )
    assert edited["schools"][2]["low_in"] == pytest.approx(61.6)
    assert edited["candidates"][0]["riser_in"] is None


def test_force_draw(client):
    told = ask(client, "force-draw", {"bow": BOW, "draw_length_in": 28, "draws_in": [20, 28]})
    assert told["curve"]["force_lbf"][1] == pytest.approx(40, abs=1e-3)
    assert is_estimate(told["weight_at_draw_lbf"])
    assert told["string_angle_deg"] == pytest.approx(133, abs=1)
    assert set(told["drawing"]) == {"brace", "full_draw", "riser_in"}
    measured = ask(
        client, "force-draw", {"bow": BOW, "draw_length_in": 28, "measured": [[20, 24], [28, 43]]}
    )
    assert measured["weight_at_draw_lbf"]["value"] == pytest.approx(43)
    assert measured["weight_at_draw_lbf"]["source"] == "measured"


def test_arrow(client):
    told = ask(client, "arrow", {"arrow": ARROW | {"static_spine": 500}})
    assert told["mass_gr"] == pytest.approx(374)
    assert told["spine_26in_lbf"] == pytest.approx(63.0, abs=0.05)
    assert told["stiffness_n_m2"] == pytest.approx(5.09, abs=0.01)
    assert told["front_of_centre_pct"] > 10


def test_shot(client):
    told = ask(client, "shot", RIG)
    assert told["grains_per_pound"] == pytest.approx(374 / 40, rel=1e-3)
    assert told["speed_fps"]["plus_minus"] > 0.05 * told["speed_fps"]["value"]
    assert told["arrow_energy_ftlb"] + told["residual_energy_ftlb"] == pytest.approx(
        told["stored_energy_ftlb"]
    )
    assert set(told["floor"]) == {"energy_gpp", "form_gpp", "maker_gpp", "floor_gpp", "verdict"}
    assert len(told["curve"]["gpp"]) == len(told["curve"]["speed_fps"])
    assert told["ceiling_speed_fps"] > told["speed_fps"]["value"]


def test_spine_window(client):
    told = ask(client, "spine-window", RIG)
    assert told["low"] < told["spine_28in"]["value"] < told["high"]
    assert told["outside"] == []
    thumb = {**RIG, "archer": {**RIG["archer"], "release": "thumb"}}
    told = ask(client, "spine-window", thumb)
    assert (told["spine_28in"], told["low"], told["high"]) == (None, None, None)
    assert told["outside"] == ["no thumb release is in the fit"]
    assert told["start"]["spine"] == pytest.approx(500 * 45 / 40, rel=0.15)
    assert "stiff enough" in told["start"]["words"]


def test_crawls(client):
    told = ask(client, "crawls", CRAWLS | {"stitch_pitch_mm": 3, "finger_width_mm": 18})
    assert told["point_on_m"] == pytest.approx(68.3, abs=0.1)
    first, last = told["rows"][0], told["rows"][-1]
    assert first["stitches"] == pytest.approx(first["crawl_mm"] / 3)
    assert last["crawl_mm"] is None
    assert last["hold_over_cm"] > 0
    assert first["near_m"] < 10 < first["far_m"]


def test_whole_rig(client):
    told = ask(client, "rig", RIG)
    assert {s["station"] for s in told["stations"]} >= {"draw", "crawls"}
    assert told["crawls"]["rows"]
    assert told["force_draw"]["drawing"]["brace"]["string"]


ABSURD = [
    ("force-draw", {"bow": BOW | {"length_in": 3}}, "bow.length_in", "in"),
    ("force-draw", {"bow": BOW, "draw_length_in": 39}, "draw_length_in", "in"),
    ("force-draw", {"bow": BOW, "draws_in": [2]}, "draws_in", "in"),
    ("force-draw", {"bow": BOW | {"brace_height_in": 30}}, "bow.brace_height_in", "in"),
    ("force-draw", {"bow": BOW | {"riser_in": 31, "length_in": 46}}, "bow.riser_in", "in"),
    ("force-draw", {"bow": {"form": "recurve", "length_in": 48, "marked_draw_in": 30}}, "bow.marked_draw_in", "in"),
    ("force-draw", {"bow": BOW, "measured": [[20, 30], [24, 20]]}, "bow.measured", "lb"),
    ("force-draw", {"bow": BOW | {"form": "catapult"}}, "bow.form", None),
    ("force-draw", {"bow": BOW | {"brace_height_in": 14}, "draw_length_in": 18}, "bow.brace_height_in", "in"),
    ("force-draw", {}, "bow", None),
    ("shot", RIG | {"arrow": ARROW | {"shaft_length_in": 26}}, "arrow.shaft_length_in", "in"),
    ("shot", RIG | {"archer": ARCHER | {"draw_length_in": 99}}, "archer.draw_length_in", "in"),
    ("shot", RIG | {"arrow": ARROW | {"point_gr": "heavy"}}, "arrow.point_gr", "gr"),
    ("shot", RIG | {"bow": BOW | {"maker_max_draw_in": 27}}, "archer.draw_length_in", "in"),
    ("spine-window", RIG | {"arrow": ARROW | {"static_spine": 0}}, "arrow.static_spine", None),
    ("crawls", CRAWLS | {"distances_m": [20.0] * 100_000}, "distances_m", "distances"),
    ("crawls", CRAWLS | {"distances_m": []}, "distances_m", "distances"),
    ("crawls", CRAWLS | {"distances_m": [-5]}, "distances_m", "m"),
    ("crawls", CRAWLS | {"speed_mps": -1}, "speed_mps", "m/s"),
    ("crawls", CRAWLS | {"sped": 3}, "sped", None),
    ("arrow", {"arrow": ARROW | {"fletching_count": 3.5}}, "arrow.fletching_count", None),
    ("draw-length", {"method": "tape", "readings_in": []}, "readings_in", "entries"),
    ("draw-length", {"method": "tape", "readings_in": [3]}, "readings_in.0", "in"),
    ("draw-length", {"method": "guess", "readings_in": [28]}, "method", None),
    ("bow-length", {"archer": ARCHER, "taste": 7}, "taste", None),
    ("rig", RIG | {"colour": "red"}, "colour", None),
    ("matched-set", {"shafts": [SHAFT], "count": 2}, "count", "shafts"),
    ("matched-set", {"shafts": [SHAFT, SHAFT], "count": 1}, "shafts", None),
    ("matched-set", {"shafts": [SHAFT | {"mass_gr": -4}], "count": 1}, "shafts.0.mass_gr", "gr"),
    ("chronograph", CHRONOGRAPH | {"readings": []}, "readings", "entries"),
    ("chronograph", CHRONOGRAPH | {"readings": [{"mass_gr": 350, "speed_fps": [170]},
                                                {"mass_gr": 500, "speed_fps": [180]}]}, "readings", None),
    ("chronograph", CHRONOGRAPH | {"archer": ARCHER | {"draw_length_in": 50}},
     "archer.draw_length_in", "in"),
]  # fmt: skip


@pytest.mark.parametrize(("call", "body", "field", "unit"), ABSURD)
def test_the_absurd_is_refused_with_field_limit_unit_and_reason(client, call, body, field, unit):
    answer = client.post(f"/api/compute/{call}", json=body)
    assert answer.status_code == 422, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    told = answer.json()
    error = told["errors"][0]
    assert error["field"] == field
    assert error["unit"] == unit
    assert len(told["detail"]) > 20
    assert told["detail"].rstrip()[-1] in ".:"


def test_what_is_no_json_is_a_400(client):
    answer = client.post(
        "/api/compute/shot", content="{", headers={"content-type": "application/json"}
    )
    assert answer.status_code == 400
    assert answer.json()["title"] == "The request is not JSON"


def test_not_a_number_is_refused(client):
    body = '{"arrow": {"shaft_length_in": NaN}}'
    answer = client.post(
        "/api/compute/arrow", content=body, headers={"content-type": "application/json"}
    )
    assert answer.status_code in (400, 422)
