"""Whatever names an entry carries its digest: data that was put back is not taken for the same."""

import pytest

VISIT = {
    "kind": "crawl_visit",
    "distance_m": 20,
    "crawl_mm": 24,
    "heights_cm": [3, -1, 4],
    "by": "tapped",
    "day": "2026-05-31",
}
OTHERS = VISIT | {"distance_m": 30, "crawl_mm": 9}
OTHER_DATA = "urn:x-lyrandis:other-data"


def keep(client, rig, seq, **body):
    answer = client.post(f"/api/rigs/{rig}/keep", json={"seq": seq, **body})
    assert answer.status_code == 200, answer.text
    return answer.json()


def backed_up(client):
    return client.get("/api/data/backup").content


def put_back(client, data):
    answer = client.post("/api/data/restore", files={"file": ("backup.db", data)})
    assert answer.status_code == 200, answer.text


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json={"name": "Own"}).json()


@pytest.fixture
def regrown(client, rig):
    """A rig whose data was put back since, on which somebody else logged as many entries again."""
    before = backed_up(client)
    first = keep(client, rig["id"], 0, station="crawls", trial=VISIT)
    put_back(client, before)
    second = keep(client, rig["id"], 0, station="crawls", trial=OTHERS)
    assert second["seq"] == first["seq"]
    return first


def refused(answer, client, rig):
    assert answer.status_code == 409
    assert answer.json()["type"] == OTHER_DATA
    assert "Nothing was written" in answer.json()["detail"]
    now = client.get(f"/api/rigs/{rig['id']}").json()
    assert now["seq"] == 1
    assert [t["struck"] for t in now["trials"]] == [False]


def test_a_waiting_take_back_strikes_nobody_elses_trial(client, rig, regrown):
    trial = regrown["trials"][0]
    body = {
        "station": "crawls",
        "seq": 1,
        "mark": "0" * 32,
        "made_at": rig["rig"].get("made_at", ""),
    }
    struck = {"strikes": trial["seq"], "strikes_digest": trial["digest"]}
    refused(client.post(f"/api/rigs/{rig['id']}/hand-over", json=body | struck), client, rig)
    seen = {"digest": regrown["digest"], "trial": VISIT}
    refused(client.post(f"/api/rigs/{rig['id']}/hand-over", json=body | seen), client, rig)


@pytest.mark.parametrize(
    ("deed", "body"),
    [
        ("keep", {"changes": {"notes": "mine"}}),
        ("strike", {"about": 1}),
        ("check", {"station": "brace", "standing": "settled"}),
        ("undo", {}),
        ("redo", {}),
        ("put-on", {"slot": "string", "mark": "0" * 32}),
    ],
)
def test_nothing_is_written_by_who_saw_other_data(client, rig, regrown, deed, body):
    path = f"/api/rigs/{rig['id']}/{deed}"
    refused(client.post(path, json=body | {"seq": 1, "digest": regrown["digest"]}), client, rig)
    # And so where the data was put back to before what was seen.
    refused(client.post(path, json=body | {"seq": 2, "digest": regrown["digest"]}), client, rig)


def test_the_trial_that_is_put_right_or_struck_out_is_named_with_its_digest(client, rig, regrown):
    trial = regrown["trials"][0]
    now = client.get(f"/api/rigs/{rig['id']}").json()
    about = {"seq": 1, "digest": now["digest"], "about": 1, "about_digest": trial["digest"]}
    refused(client.post(f"/api/rigs/{rig['id']}/strike", json=about), client, rig)
    right = {"station": "crawls", "trial": VISIT}
    refused(client.post(f"/api/rigs/{rig['id']}/keep", json=about | right), client, rig)
    about["about_digest"] = now["trials"][0]["digest"]
    assert client.post(f"/api/rigs/{rig['id']}/strike", json=about).status_code == 200


def test_a_digest_is_told_wherever_an_entry_is(client, rig):
    """Of the latest entry and of each trial: one and the same."""
    id = rig["id"]
    assert client.get(f"/api/rigs/{id}").json()["digest"] == rig["digest"]  # of the beginning
    kept = keep(client, id, 0, digest=rig["digest"], station="crawls", trial=VISIT)
    (trial,) = kept["trials"]
    (listed,) = client.get(f"/api/rigs/{id}/trials?kind=crawl_visit").json()
    at_range = client.get(f"/api/rigs/{id}/range").json()
    told = {kept["digest"], trial["digest"], listed["digest"], at_range["digest"]}
    assert told == {kept["digest"]}
    assert kept["digest"] != rig["digest"]
    assert at_range["uid"] == kept["uid"] == rig["uid"]


def test_what_no_entry_logged_goes_by_the_entry_that_it_follows_from(client):
    weighed = {"name": "Weighed", "arrow": {"weighed_gr": 402}}
    made = client.post("/api/rigs", json=weighed).json()
    (trial,) = made["trials"]
    assert trial["seq"] < 0
    assert trial["digest"] == made["digest"]


def test_a_conflict_stays_a_conflict_where_the_data_is_the_same(client, rig):
    keep(client, rig["id"], 0, changes={"notes": "theirs"})
    mine = {"seq": 0, "digest": rig["digest"], "changes": {"notes": "mine"}}
    answer = client.post(f"/api/rigs/{rig['id']}/keep", json=mine)
    assert answer.json()["type"] == "urn:x-lyrandis:conflict"


def test_a_rig_keeps_its_uid_in_its_file_and_its_copy_has_another(client, rig):
    id = rig["id"]
    keep(client, id, 0, station="crawls", trial=VISIT)
    file = client.get(f"/api/rigs/{id}/file").content
    second = client.post("/api/rigs/import", files={"file": ("rig.json", file)}).json()
    assert second["uid"] != rig["uid"]  # two rigs of one folder are two
    assert client.post(f"/api/rigs/{id}/copy", json={"name": "Copy"}).json()["uid"] != rig["uid"]


def test_a_part_is_named_by_its_digest_too(client, rig):
    mark = rig["parts"][0]["mark"]
    part = client.get(f"/api/parts/{mark}").json()
    mine = {"seq": 0, "digest": part["line"]["digest"], "changes": {"notes": "worn"}}
    wrong = mine | {"digest": "0" * 32}
    for path in ("keep", "undo", "redo"):
        body = wrong if path == "keep" else {k: wrong[k] for k in ("seq", "digest")}
        assert client.post(f"/api/parts/{mark}/{path}", json=body).json()["type"] == OTHER_DATA
    after = client.post(f"/api/parts/{mark}/keep", json=mine).json()
    assert after["line"]["digest"] != part["line"]["digest"]
    back = {"seq": 1, "digest": after["line"]["digest"]}
    assert client.post(f"/api/parts/{mark}/undo", json=back).status_code == 200
