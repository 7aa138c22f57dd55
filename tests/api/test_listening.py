"""Twists, brace-sweep and sound over HTTP, and the simulated recorder."""

import json

import pytest
from sessions import on_a_range

from lyrandis.core.parts import Rig
from lyrandis.files.wav import write_wav

BOW = {"form": "recurve", "length_in": 68, "marked_weight_lbf": 36}


def test_twists(client):
    body = {"bow": BOW, "string": {"strands": 14, "length_in": 64.5}, "twists_now": 24,
            "brace_now_in": 8.25, "brace_wanted_in": 8.5}  # fmt: skip
    told = client.post("/api/compute/twists", json=body).json()
    assert told["turns"] > 0
    assert told["string_change_mm"] < 0 < told["brace_per_turn_mm"]
    seen = [{"twists": 14, "brace_in": 8.1}]
    learnt = client.post("/api/compute/twists", json=body | {"observed": seen}).json()
    assert learnt["factor_plus_minus"] < told["factor_plus_minus"]
    refused = client.post("/api/compute/twists", json=body | {"brace_wanted_in": 6})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "brace_wanted_in"


def test_brace_sweep(client):
    visits = [{"brace_mm": mm, "levels_db": [db, db + 0.5]} for mm, db in ((210, 61), (235, 60))]
    body = {"low_mm": 210, "high_mm": 241, "visits": visits}
    told = client.post("/api/compute/brace-sweep", json=body).json()
    assert not told["done"]
    assert 210 <= told["next_mm"] <= 241
    assert len(told["curve"]["brace_mm"]) == len(told["curve"]["sd_db"]) == 32
    assert told == client.post("/api/compute/brace-sweep", json=body).json()
    assert told["verdict"] is None
    assert client.post("/api/compute/brace-sweep", json=body | {"visits": []}).status_code == 422
    more = [{"brace_mm": mm, "levels_db": [60 + (mm - 225) ** 2 / 40] * 3}
            for mm in (210, 241, 225, 217, 233, 229)]  # fmt: skip
    ended = client.post("/api/compute/brace-sweep", json=body | {"visits": more}).json()
    assert ended["verdict"] == "found"
    assert "Nothing audible is left to gain" in ended["why"]
    assert ended["interval_mm"][0] <= 225 <= ended["interval_mm"][1]


def test_settling(client):
    looks = [{"hours": h, "brace_in": b} for h, b in ((0, 8.5), (2, 8.3), (6, 8.2), (24, 8.12))]
    body = {"bow": BOW, "string": {"material": "polyester"}, "readings": looks}
    told = client.post("/api/compute/settling", json=body).json()
    assert 7.8 < told["final_brace_in"]["value"] < 8.12
    assert told["final_brace_in"]["source"] == "measured"
    assert not told["settled"]
    assert 24 < told["next_look_h"] <= 48
    rising = [{"hours": h, "brace_in": b} for h, b in ((0, 8.0), (24, 8.6), (30, 8.7))]
    odd = client.post("/api/compute/settling", json=body | {"readings": rising}).json()
    assert (odd["explained"], odd["final_brace_in"], odd["settled"]) == (False, None, False)
    natural = body | {"string": {"material": "natural"}}
    assert client.post("/api/compute/settling", json=natural).status_code == 422
    assert client.post("/api/compute/settling", json=body | {"readings": []}).status_code == 422


def test_the_recorders_shots_are_found(client):
    rig = client.post("/api/rigs", json=Rig(name="Heard").model_dump(mode="json")).json()
    wav = client.get(f"/api/rigs/{rig['id']}/recording?shots=4&clicker=yes")
    assert wav.headers["content-type"] == "audio/wav"
    files = {"file": ("shots.wav", wav.content, "audio/wav")}
    told = client.post("/api/compute/sound", files=files).json()
    assert [e["kind"] for e in told["events"]].count("shot") == 4
    assert told["lag_s"] == pytest.approx(0.45, abs=0.02)
    assert len(told["outline_db"]) > 500


def test_marked_shots_decide_where_it_asks(client):
    """Sessions made for the core's tests: a wall's echo is asked about, one marked shot tells."""
    made = on_a_range(4, echo=True)
    files = {"file": ("shots.wav", write_wav(made.samples, made.rate_hz), "audio/wav")}
    asked = client.post("/api/compute/sound", files=files).json()
    assert asked["ask"]
    assert not any(e["kind"] == "shot" for e in asked["events"])
    mine = {"mine_at_s": json.dumps([made.shots[0], made.shots[3]])}
    told = client.post("/api/compute/sound", files=files, data=mine).json()
    assert told["ask"] is None
    shots = [e for e in told["events"] if e["kind"] == "shot"]
    assert len(shots) == len(made.shots)
    assert all(e["usable"] for e in shots)
    for bad in ("[", '["x"]', "[-3]", "{}", "[1e9]"):
        refused = client.post("/api/compute/sound", files=files, data={"mine_at_s": bad})
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"] == "mine_at_s"


def test_what_is_no_recording_or_too_large(client):
    files = {"file": ("a.wav", b"RIFFxxxx" + b"0" * 90, "audio/wav")}
    refused = client.post("/api/compute/sound", files=files)
    assert refused.status_code == 422
    assert "broken" in refused.json()["detail"]
    # Refused by its length alone: nothing of it is sent.
    huge = client.post("/api/compute/sound", headers={"content-length": "200000000"}, content=b"")
    assert huge.status_code == 413
    assert "181 MB" in huge.json()["detail"]
    other = client.post("/api/readings", headers={"content-length": "9000000"}, content=b"")
    assert other.status_code == 413
