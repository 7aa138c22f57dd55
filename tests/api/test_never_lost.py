"""Nothing kept can lock an archer out: what is accepted can be shown, what is refused wrote nothing."""

import json
import string

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from claims import share
from lyrandis.core.fields import field_notes

PAGES = ("", "/history", "/schedule", "/schedule.ics", "/sheet", "/file")
HOLD = {"kind": "hold", "weight_lbf": 36, "seconds": 9}


@pytest.fixture
def app(demo_app):
    return demo_app


@pytest.fixture
def rigs(client):
    """The demo's rigs behind the real API."""
    return client


def send(client, path, body):
    """A body as it is, NaN and all."""
    headers = {"content-type": "application/json"}
    return client.post(path, content=json.dumps(body), headers=headers)


def every_page_answers(client, id):
    assert client.get("/api/rigs").status_code == 200
    note = next(n for n in client.get("/api/rigs").json() if n["id"] == id)
    assert note["unreadable"] is None
    for page in PAGES:
        answer = client.get(f"/api/rigs/{id}{page}")
        assert answer.status_code == 200, (page, answer.text)
    assert send(client, f"/api/rigs/{id}/preview", {"changes": {}}).status_code == 200
    taken = client.post(
        "/api/rigs/import", files={"file": client.get(f"/api/rigs/{id}/file").content}
    )
    assert taken.status_code == 201, taken.text
    client.post(f"/api/rigs/{taken.json()['id']}/archive", json={"away": True})


def seq_of(client, id):
    return next(n["seq"] for n in client.get("/api/rigs").json() if n["id"] == id)


NAN, HUGE = float("nan"), float("inf")  # 1e400 in a body is read as the latter
LOCKED_OUT = [
    ({"changes": {"bow.brace_reference": "plunger"}}, "bow.brace_offset_in"),
    ({"changes": {"aim.distances_m": [10, NAN, 20]}}, "aim.distances_m.1"),
    ({"changes": {"aim.distances_m": [10, HUGE]}}, "aim.distances_m.1"),
    ({"changes": {"bow.measured": [[20, 18], [28, 1e6]]}}, "bow.measured.1.1"),
    ({"changes": {"step_up.starts": "9999-12-31"}}, "step_up.starts"),
    ({"changes": {"step_up.starts": "2026-02-30"}}, "step_up.starts"),
    ({"trial": HOLD | {"day": "9999-12-31"}}, "trial.day"),
    ({"trial": HOLD | {"seconds": NAN}}, "trial.seconds"),
    ({"changes": {"name": "half a sign \ud800"}}, "name"),
    ({"changes": {"taste": int("9" * 400)}}, "taste"),
    ({"changes": {"notes": [[[[[[[[]]]]]]]]}}, "notes"),
]


@pytest.mark.parametrize(("body", "field"), LOCKED_OUT)
def test_what_cannot_be_shown_is_refused_with_its_field_and_nothing_is_written(rigs, body, field):
    before = rigs.get("/api/rigs/1").json()
    answer = send(rigs, "/api/rigs/1/keep", {"seq": before["seq"], "station": "brace"} | body)
    assert answer.status_code == 422, answer.text
    assert answer.json()["errors"][0]["field"] == field
    assert len(answer.json()["detail"]) > 15
    assert rigs.get("/api/rigs/1").json() == before
    every_page_answers(rigs, 1)


@pytest.mark.parametrize(
    "words",
    [
        "because {x} said",
        "{",
        "}{",
        "{v0}",
        "{{w0}}",
        "%s {0!r:>{1}}",
        "a\r\nb",
        "<b>&amp;",
        "\x00",
    ],
)
def test_the_archers_words_are_taken_as_they_are(rigs, words):
    seq = seq_of(rigs, 1)
    body = {
        "seq": seq, "station": "weight", "changes": {"notes": words, "archer.name": words},
        "why": words, "trial": HOLD | {"notes": words},
    }  # fmt: skip
    assert send(rigs, "/api/rigs/1/keep", body).status_code == 200
    every_page_answers(rigs, 1)
    told = rigs.get("/api/rigs/1/history").json()[0]["said"]
    assert words.strip().rstrip(".") in told["words"].values()
    assert "{x}" not in told["text"]


def test_a_plunger_is_kept_with_how_far_it_lies_in_front(rigs):
    changes = {"bow.brace_reference": "plunger", "bow.brace_offset_in": 0.5}
    body = {"seq": seq_of(rigs, 1), "station": "brace", "changes": changes}
    assert send(rigs, "/api/rigs/1/keep", body).status_code == 200
    every_page_answers(rigs, 1)


def test_a_look_ahead_says_what_is_missing_at_its_station(rigs):
    body = {"changes": {"bow.brace_reference": "plunger"}}
    seen = send(rigs, "/api/rigs/1/preview", body)
    assert seen.status_code == 200
    brace = next(s for s in seen.json()["bench"]["stations"] if s["station"] == "brace")
    assert brace["problem"]["field"] == "bow.brace_offset_in"


def test_a_rig_whose_brace_cannot_be_told_still_answers_everywhere(client):
    """A script may keep a rig as it is; its stations then say what they cannot tell."""
    for bow in ({"brace_reference": "plunger", "brace_height_in": 8}, {"brace_height_in": 14}):
        made = client.post("/api/rigs", json={"name": "As it is", "bow": bow})
        assert made.status_code == 201
        every_page_answers(client, made.json()["id"])
        body = {"seq": 0, "station": "weight", "changes": {"string.strands": 16}}
        assert send(client, f"/api/rigs/{made.json()['id']}/keep", body).status_code == 200
        every_page_answers(client, made.json()["id"])


def test_a_page_that_breaks_keeps_the_change_out(rigs, monkeypatch):
    """Whatever goes wrong while a page is computed, the write did not happen."""

    def broken(*_):
        raise ZeroDivisionError("secret path")

    monkeypatch.setattr("lyrandis.desk.showing.papers.sheet_of", broken)
    seq = seq_of(rigs, 1)
    body = {"seq": seq, "station": "string", "changes": {"string.strands": 12}}
    answer = send(rigs, "/api/rigs/1/keep", body)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "string.strands"
    assert "Fault" in answer.json()["detail"]
    assert "secret" not in answer.text
    assert seq_of(rigs, 1) == seq
    # What cannot be shown can still be taken back.
    assert send(rigs, "/api/rigs/1/undo", {"seq": seq}).status_code == 200


@pytest.mark.parametrize(
    "before", [True, "x", 1e300, -1e-300, [1, "x"], {"a": 1}, [[]], "{v0}", [None]]
)
@pytest.mark.parametrize("path", ["bow.length_in", "name", "bow.measured", "bow.takedown"])
def test_a_file_whose_past_is_odd_is_shown_or_refused_whole(rigs, before, path):
    document = json.loads(rigs.get("/api/rigs/1/file").text)
    after = {"bow.length_in": 66, "name": "N", "bow.measured": [], "bow.takedown": True}[path]
    document["entries"][0]["changes"].append({"path": path, "before": before, "after": after})
    answer = rigs.post("/api/rigs/import", files={"file": json.dumps(document).encode()})
    assert answer.status_code in (201, 422), answer.text
    if answer.status_code == 201:
        every_page_answers(rigs, answer.json()["id"])
        told = rigs.get(f"/api/rigs/{answer.json()['id']}/history").json()
        assert len(told) == len(document["entries"])


WORDS = st.text(string.printable + "{}äß\u2028", max_size=12)
ODD = st.one_of(
    st.none(), st.booleans(), WORDS, st.floats(), st.integers(-(10**20), 10**20),
    st.lists(st.floats() | WORDS, max_size=3),
)  # fmt: skip


def value_of(note):
    """Values for a setting: mostly such as could be kept, some that could not."""
    if note.choices:
        good = st.sampled_from(note.choices)
    elif note.low is not None:
        good = st.floats(note.low, note.high)
    elif note.path == "aim.distances_m":
        good = st.lists(st.integers(5, 60), min_size=1, max_size=5)
    elif note.path == "bow.measured":
        good = st.lists(st.tuples(st.floats(12, 30), st.floats(5, 60)).map(list), max_size=4).map(
            sorted
        )
    elif note.path == "step_up.starts":
        good = st.sampled_from(["", "2026-05-31", "1950-01-01", "2100-12-31", "9999-12-31"])
    else:
        good = WORDS
    return st.one_of(good, good, good, ODD)


NOTES = field_notes()
CHANGES = st.lists(st.sampled_from(sorted(NOTES)), max_size=4, unique=True).flatmap(
    lambda paths: st.fixed_dictionaries({path: value_of(NOTES[path]) for path in paths})
)
DAYS = st.sampled_from(["", "2025-01-01", "2099-12-31", "0001-01-01", "soon"])
BRACE = st.floats(5, 10)
LEVELS = st.lists(st.floats(-80, 0), min_size=1, max_size=3)
TRIALS = st.one_of(
    st.none(),
    st.fixed_dictionaries(
        {"kind": st.just("hold"), "weight_lbf": st.floats(0, 160), "seconds": st.floats(0, 130),
         "ended": st.sampled_from(["steady", "shaking", "pain"]), "day": DAYS, "notes": WORDS}
    ),
    st.fixed_dictionaries(
        {"kind": st.just("brace"), "brace_height_in": BRACE, "levels_db": LEVELS, "day": DAYS,
         "reference": st.sampled_from(["grip", "back", "plunger"]), "twists": st.floats(0, 90)}
    ),
    st.fixed_dictionaries(
        {"kind": st.just("settling"), "hours": st.floats(0, 90), "brace_height_in": BRACE,
         "reference": st.sampled_from(["grip", "back", "plunger"]), "day": DAYS}
    ),
    st.fixed_dictionaries(
        {"kind": st.just("draw"), "method": st.sampled_from(["tape", "marked_arrow"]), "day": DAYS,
         "readings_in": st.lists(st.floats(20, 32), min_size=1, max_size=3),
         "draw_length_in": st.floats(20, 33), "plus_minus_in": st.floats(0, 2)}
    ),
    st.fixed_dictionaries(
        {"kind": st.just("weighing"),
         "readings": st.lists(st.tuples(st.floats(0, 40), st.floats(0, 90)), min_size=1, max_size=3)}
    ),
    st.fixed_dictionaries(
        {"kind": st.just("quiet"), "check": st.sampled_from(["brace", "strand", "tune"]),
         "before_db": LEVELS, "after_db": LEVELS, "notes": WORDS}
    ),
)  # fmt: skip
KEEP = st.fixed_dictionaries(
    {
        "changes": CHANGES,
        "why": WORDS,
        "trial": TRIALS,
        "station": st.sampled_from(["draw", "weight", "string", "brace", "crawls", None]),
        "standing": st.sampled_from(["provisional", "settled"]),
        "about": st.sampled_from([None, None, None, 1, 2]),
    }
).map(lambda body: ("keep", body))
ACTS = st.one_of(
    KEEP,
    KEEP,
    KEEP,
    st.sampled_from([("undo", {}), ("redo", {})]),
    st.sampled_from(
        [("strike", {"about": n, "out": out}) for n in (1, 2) for out in (True, False)]
    ),
    st.just(("check", {"station": "brace", "standing": "settled"})),
    st.just(("import", {})),
)


@settings(
    max_examples=share(20, 6),
    deadline=None,
    suppress_health_check=list(HealthCheck),
    print_blob=False,
)
@given(st.integers(1, 3), st.lists(ACTS, min_size=1, max_size=6))
def test_after_any_accepted_write_every_page_answers(rigs, copied, acts):
    id = rigs.post(f"/api/rigs/{copied}/copy", json={"name": "Tried"}).json()["id"]
    for act, body in acts:
        if act == "import":
            file = rigs.get(f"/api/rigs/{id}/file").content
            id = rigs.post("/api/rigs/import", files={"file": file}).json()["id"]
            continue
        seq = seq_of(rigs, id)
        answer = send(rigs, f"/api/rigs/{id}/{act}", {"seq": seq} | body)
        assert answer.status_code in (200, 409, 422), answer.text
        assert seq_of(rigs, id) == seq + (answer.status_code == 200)
        if answer.status_code == 200:
            every_page_answers(rigs, id)
        elif answer.status_code == 422:
            assert answer.json()["errors"][0]["field"]
    rigs.post(f"/api/rigs/{id}/archive", json={"away": True})
