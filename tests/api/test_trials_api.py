"""Trials over HTTP: logged alone or with what they bring, put right, struck out; the plan's file."""

from datetime import date, timedelta

import pytest
from icalendar import Calendar

from lyrandis.core.parts import Rig

HOLD = {"kind": "hold", "weight_lbf": 36.4, "seconds": 11.0, "ended": "shaking"}
DRAW = {
    "kind": "draw",
    "method": "marked_arrow",
    "readings_in": [28.25, 28.5, 28.75],
    "draw_length_in": 28.5,
    "plus_minus_in": 0.25,
}


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json=Rig(name="Test rig").model_dump(mode="json")).json()


def post(client, rig, path, **body):
    answer = client.post(f"/api/rigs/{rig['id']}/{path}", json=body)
    return answer.json() | {"status": answer.status_code} if answer.status_code != 200 else answer.json()  # fmt: skip


def test_log_put_right_strike_and_take_back(client, rig):
    one = post(client, rig, "keep", seq=0, station="weight", trial=HOLD)
    assert one["trials"][0]["said"]["text"] == "Held {weight} for {seconds}, until it shook."
    assert one["trials"][0]["station"] == "weight"
    assert {s["state"] for s in one["states"]} == {"open"}
    two = post(client, rig, "keep", seq=1, station="weight", trial=HOLD | {"seconds": 9}, about=1)
    assert [t["trial"]["seconds"] for t in two["trials"]] == [9]
    three = post(client, rig, "strike", seq=2, about=1)
    assert three["trials"][0]["struck"]
    assert three["undoable"]["text"].startswith("Struck out held")
    four = post(client, rig, "undo", seq=3)
    assert not four["trials"][0]["struck"]
    kinds = [line["kind"] for line in client.get(f"/api/rigs/{rig['id']}/history").json()]
    assert kinds == ["undo", "strike", "trial", "trial"]


def test_a_draw_comes_with_its_setting_in_one_entry(client, rig):
    kept = post(client, rig, "keep", seq=0, station="draw", standing="settled", trial=DRAW,
                changes={"archer.draw_length_in": 28.5})  # fmt: skip
    assert kept["rig"]["archer"]["draw_length_in"] == 28.5
    assert next(s for s in kept["states"] if s["station"] == "draw")["state"] == "settled"
    ahead = post(client, rig, "preview", changes={})
    assert ahead["bench"]["draws"]["points"][0]["draw_in"] == 28.5
    assert post(client, rig, "undo", seq=1)["trials"] == []


@pytest.mark.parametrize(
    ("trial", "field", "words"),
    [
        (HOLD | {"seconds": 900}, "seconds", "at most 120"),
        (HOLD | {"seconds": -1}, "seconds", "at least 0"),
        (HOLD | {"day": "2026-02-30"}, "trial.day", "calendar"),
        (HOLD | {"mood": "good"}, "mood", "not known"),
        (DRAW | {"readings_in": []}, "readings_in", "at least 1"),
        ({"kind": "inspection", "looked": ["cellar"]}, "looked", "cracks"),
        ({"kind": "dream"}, "trial", "dream"),
    ],
)
def test_a_trial_out_of_range_is_refused_with_its_field(client, rig, trial, field, words):
    told = post(client, rig, "keep", seq=0, station="weight", trial=trial)
    assert told["status"] == 422
    assert any(field in e["field"] and words in e["reason"] for e in told["errors"]), told
    assert client.get(f"/api/rigs/{rig['id']}").json()["seq"] == 0


def test_what_is_about_nothing_is_refused(client, rig):
    assert post(client, rig, "strike", seq=0, about=3)["status"] == 422
    assert post(client, rig, "keep", seq=0, trial=HOLD, about=3)["status"] == 422
    assert post(client, rig, "strike", seq=4, about=1)["status"] == 409


def test_holds_speak_at_the_weight_station(client, rig):
    weight = post(client, rig, "preview", changes={})["bench"]["force_draw"]["weight_at_draw_lbf"]["value"]  # fmt: skip
    for seq in range(3):
        post(client, rig, "keep", seq=seq, station="weight", trial=HOLD | {"weight_lbf": weight, "seconds": 3})  # fmt: skip
    bench = post(client, rig, "preview", changes={})["bench"]
    assert bench["hold"]["verdict"] == "too_heavy"
    station = next(s for s in bench["stations"] if s["station"] == "weight")
    assert station["findings"][0]["level"] == "stop"
    # A lighter bow is another matter: the same holds say nothing of it.
    lighter = post(client, rig, "preview", changes={"bow.marked_weight_lbf": 26})["bench"]
    assert lighter["hold"]["verdict"] == "untried"


def test_the_plan_as_a_calendar(client, rig):
    def days():
        answer = client.get(f"/api/rigs/{rig['id']}/step-up.ics")
        assert answer.headers["content-type"].startswith("text/calendar")
        events = Calendar.from_ical(answer.content).walk("VEVENT")
        return [(e.decoded("dtstart") - today).days for e in events], str(events[0]["summary"])

    assert client.get(f"/api/rigs/{rig['id']}/step-up.ics").status_code == 422
    today = date.today()
    begun = (today - timedelta(weeks=7)).isoformat()
    plan = {"step_up.goal_lbf": 41, "step_up.starts": begun}
    kept = post(client, rig, "keep", seq=0, station="weight", changes=plan)
    # Nothing was held yet: the weeks have not begun.
    assert days()[0] == [42, 84, 126]
    held = {"kind": "hold", "weight_lbf": 36, "seconds": 12, "day": begun}
    for _ in range(3):
        kept = post(client, rig, "keep", seq=kept["seq"], trial=held)
    # The first step's day has passed a week ago: it may be taken, and the others wait for it.
    assert days() == ([0, 42, 84], "Test rig: up to 38.0 lb at the earliest")
    child = post(client, rig, "keep", seq=kept["seq"], changes={"archer.grown": "child"})
    assert child["rig"]["archer"]["grown"] == "child"
    assert "coach" in client.get(f"/api/rigs/{rig['id']}/step-up.ics").json()["detail"]


def test_bows_line_up(client, rig):
    picks = [{"length_in": 66, "riser_in": 25}, {"length_in": 70, "riser_in": 25}]
    bows = post(client, rig, "line-up", picks=picks)
    assert [b["length_in"] for b in bows] == [66, 70]
    assert bows[0]["full_draw"]["arrow_nock"][0] == pytest.approx(26.25)
    longer = post(client, rig, "line-up", picks=picks, changes={"archer.draw_length_in": 29})
    assert longer[0]["full_draw"]["arrow_nock"][0] == pytest.approx(27.25)
    many = post(client, rig, "line-up", picks=[picks[0]] * 4)
    assert many["status"] == 422
    far = post(client, rig, "line-up", picks=[{"length_in": 50}], changes={"archer.draw_length_in": 33})  # fmt: skip
    assert far["status"] == 422


def test_the_schedule_and_its_calendar(client, rig):
    settling = {"kind": "settling", "hours": 0, "brace_height_in": 8.5}
    post(client, rig, "keep", seq=0, station="string", trial=settling)
    items = client.get(f"/api/rigs/{rig['id']}/schedule").json()
    assert {i["id"] for i in items} == {"string-settling", "inspection", "brace-each-time"}
    bench = post(client, rig, "preview", changes={})["bench"]
    assert bench["settling"]["readings"] == [[0, 8.5]]
    assert bench["settling"]["hours_now"] == pytest.approx(0, abs=0.1)
    made = client.get(f"/api/rigs/{rig['id']}/schedule.ics").content
    titles = [str(e["summary"]) for e in Calendar.from_ical(made).walk("VEVENT")]
    assert len(titles) == 2
    assert any("brace height again" in t for t in titles)


def test_trials_of_a_kind_as_csv(client, rig):
    answer = client.get(f"/api/rigs/{rig['id']}/trials/hold")
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "kind"
    post(client, rig, "keep", seq=0, trial={"kind": "hold", "weight_lbf": 38, "seconds": 9})
    answer = client.get(f"/api/rigs/{rig['id']}/trials/hold")
    assert answer.headers["content-type"].startswith("text/csv")
    assert answer.text.splitlines()[0] == "day,weight (lb),held (s),ended,notes"
    assert client.get(f"/api/rigs/{rig['id']}/trials/nothing").status_code == 422


def test_a_trial_says_what_it_was_made_with_that_is_otherwise_now(client, rig):
    trial = {"kind": "brace", "brace_height_in": 8.5, "levels_db": [60]}
    kept = post(client, rig, "keep", seq=0, trial=trial)
    assert kept["trials"][0]["moved"] == []
    kept = post(client, rig, "keep", seq=1, changes={"string.strands": 16})
    assert kept["trials"][0]["moved"] == ["number of strands"]
