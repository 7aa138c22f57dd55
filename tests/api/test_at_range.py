"""At the range over HTTP: what is taken there, and handing over what was made there, once."""

import threading

import pytest

MARKS = [f"{n:032x}" for n in range(9)]
VISIT = {
    "kind": "crawl_visit",
    "distance_m": 20,
    "crawl_mm": 24,
    "heights_cm": [3, -1, 4],
    "by": "tapped",
    "day": "2026-05-31",
}


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json={"name": "Own"}).json()["id"]


def taken(client, rig):
    answer = client.get(f"/api/rigs/{rig}/range")
    assert answer.status_code == 200, answer.text
    return answer.json()


def hand(client, rig, seq, mark, **body):
    body = {"station": "crawls", "seq": seq, "mark": mark, **body}
    return client.post(f"/api/rigs/{rig}/hand-over", json=body)


def test_the_card_has_every_whole_metre_between_the_archers_distances(client, rig):
    told = taken(client, rig)
    lines = told["lines"]
    assert [line["distance_m"] for line in lines] == pytest.approx(list(range(5, 51)))
    own = [line for line in lines if line["own"]]
    chart = told["bench"]["crawls"]
    assert [line["set_to"] for line in own] == [row["crawl_mm"] for row in chart["rows"]]
    at_27 = lines[22]
    other = client.post(
        f"/api/rigs/{rig}/preview", json={"changes": {"aim.distances_m": [27]}, "parts": ["crawls"]}
    ).json()["bench"]["crawls"]
    assert at_27["set_to"] == pytest.approx(other["rows"][0]["crawl_mm"])
    assert at_27["plus_minus"] == pytest.approx(other["plus_minus_mm"][0])
    assert at_27["counted"]["marks"] == other["counted"][0]["marks"]


def test_a_long_card_has_every_metre_too(client):
    long = {"name": "Long", "aim": {"distances_m": [5, 85]}}
    made = client.post("/api/rigs", json=long).json()
    lines = taken(client, made["id"])["lines"]
    assert [line["distance_m"] for line in lines] == pytest.approx(list(range(5, 86)))


def test_how_a_rig_is_aimed_is_told_where_no_card_can_be(client):
    """And the limits of an end are those of its trial."""
    bow = {"brace_reference": "plunger", "brace_height_in": 8}  # nobody knows where that is
    made = client.post("/api/rigs", json={"name": "As it is", "bow": bow}).json()
    told = taken(client, made["id"])
    assert told["lines"] == []
    assert told["way"] == "crawls"
    assert told["limits"]["distance_m"] == {"low": 2, "high": 90}
    assert told["limits"]["crawl_mm"] == {"low": 0, "high": 160}


def test_in_yards_the_card_has_whole_yards(client, rig):
    client.patch("/api/preferences", json={"units": {"distance": "yd"}})
    between = [line["distance_m"] for line in taken(client, rig)["lines"] if not line["own"]]
    assert between[0] == pytest.approx(6 * 0.9144)
    assert all(round(d / 0.9144) * 0.9144 == pytest.approx(d) for d in between)


def test_beyond_point_on_the_card_holds_over_and_who_holds_gaps_has_gaps(client):
    far = client.post("/api/rigs", json={"name": "Far", "aim": {"distances_m": [20, 90]}}).json()
    last = taken(client, far["id"])["lines"][-1]
    assert last["set_to"] is None
    assert last["counted"] is None
    assert last["hold_over_cm"] > 0
    split = {"name": "Split", "archer": {"release": "split"}}
    told = taken(client, client.post("/api/rigs", json=split).json()["id"])
    own = [line["set_to"] for line in told["lines"] if line["own"]]
    assert own == [row["gap_cm"] for row in told["bench"]["crawls"]["gaps"]]


def test_a_rig_that_must_not_be_shot_says_so_at_the_range(client):
    drawn_past = {"name": "Short", "bow": {"maker_max_draw_in": 26}, "archer": {}}
    stopped = client.post("/api/rigs", json=drawn_past).json()
    assert taken(client, stopped["id"])["stops"] != []


def test_what_is_sent_twice_is_kept_once(client, rig):
    first = hand(client, rig, 0, MARKS[0], trial=VISIT)
    assert first.json()["seq"] == 1
    # The answer was lost: it is sent again, though somebody kept something since.
    client.post(f"/api/rigs/{rig}/keep", json={"seq": 1, "changes": {"notes": "windy"}})
    assert hand(client, rig, 0, MARKS[0], trial=VISIT).json()["seq"] == 1
    kept = client.get(f"/api/rigs/{rig}").json()
    assert kept["seq"] == 2
    assert [t["trial"]["distance_m"] for t in kept["trials"]] == [20]
    assert kept["trials"][0]["day"] == "2026-05-31"


def test_sent_twice_at_once_it_is_kept_once(client, rig):
    answers = []
    sends = [
        threading.Thread(
            target=lambda: answers.append(hand(client, rig, 0, MARKS[0], trial=VISIT).json())
        )
        for _ in range(4)
    ]
    for send in sends:
        send.start()
    for send in sends:
        send.join()
    assert [answer["seq"] for answer in answers] == [1] * 4
    assert client.get(f"/api/rigs/{rig}").json()["seq"] == 1


def test_what_was_kept_meanwhile_is_told_and_nothing_written(client, rig):
    client.post(f"/api/rigs/{rig}/keep", json={"seq": 0, "changes": {"notes": "windy"}})
    answer = hand(client, rig, 0, MARKS[0], trial=VISIT)
    assert answer.status_code == 409
    assert client.get(f"/api/rigs/{rig}").json()["trials"] == []
    assert hand(client, rig, 1, MARKS[0], trial=VISIT).json()["seq"] == 2


def test_a_brace_is_kept_or_found_to_hold_and_a_trial_struck_out(client, rig):
    brace = {"bow.brace_height_in": 7.75}
    moved = hand(client, rig, 0, MARKS[0], station="brace", changes=brace, why="at the range")
    assert moved.json()["seq"] == 1
    assert client.get(f"/api/rigs/{rig}").json()["rig"]["bow"]["brace_height_in"] == 7.75
    assert hand(client, rig, 1, MARKS[1], station="brace", standing="settled").json()["seq"] == 2
    (state,) = (
        s for s in client.get(f"/api/rigs/{rig}").json()["states"] if s["station"] == "brace"
    )
    assert state["state"] == "settled"
    assert hand(client, rig, 2, MARKS[2], trial=VISIT).json()["seq"] == 3
    assert hand(client, rig, 3, MARKS[3], strikes=3).json()["seq"] == 4
    assert client.get(f"/api/rigs/{rig}").json()["trials"][0]["struck"] is True


def test_what_was_made_on_another_rig_is_refused(client, rig):
    other = client.post("/api/rigs", json={"name": "Other"}).json()["id"]
    made_at = taken(client, rig)["made_at"]
    assert hand(client, rig, 0, MARKS[0], trial=VISIT, made_at=made_at).status_code == 200
    answer = hand(client, other, 0, MARKS[0], trial=VISIT)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "mark"
    answer = hand(client, rig, 1, MARKS[1], trial=VISIT, made_at="2020-01-01T00:00:00+00:00")
    assert answer.json()["errors"][0]["field"] == "made_at"


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"mark": "short"}, "mark"),
        ({"changes": {"arrow.weighed_gr": 400}}, "arrow.weighed_gr"),
        ({"trial": VISIT | {"distance_m": 200}}, "trial.distance_m"),
        ({"station": "nowhere", "trial": VISIT}, "station"),
        ({"about": 1, "trial": VISIT}, "about"),
    ],
)
def test_what_cannot_be_kept_is_refused_by_its_field_and_its_mark_stays_free(
    client, rig, body, field
):
    answer = hand(client, rig, 0, **({"mark": MARKS[0]} | body))
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == field
    assert hand(client, rig, 0, MARKS[0], trial=VISIT).json()["seq"] == 1


def test_what_a_crawl_is_known_to_is_told_on_the_butt_too(client, rig):
    told = taken(client, rig)
    own = [line["off_cm"] for line in told["lines"] if line["own"]]
    assert own == told["bench"]["crawls"]["off_cm"]
    answer = next(s for s in told["bench"]["stations"] if s["station"] == "crawls")["answer"]
    assert answer["values"]["off"]["value"] == own[0]


def test_two_kinds_of_act_in_one_are_refused_and_neither_is_done(client, rig):
    first = hand(client, rig, 0, MARKS[0], trial=VISIT).json()["seq"]
    for more in ({"trial": VISIT}, {"changes": {"notes": "windy"}}):
        answer = hand(client, rig, first, MARKS[1], strikes=first, **more)
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "strikes"
    assert client.get(f"/api/rigs/{rig}").json()["seq"] == first
