"""Sent twice with one key, a request is done once, however the answer was lost."""

import threading

import pytest
from sqlalchemy import delete, select, update

from lyrandis.store import answers
from lyrandis.store.tables import AnswerRow

KEY = "0123456789abcdef"
RIG = {"name": "Own"}
FIRST = {
    "form": "recurve",
    "length_in": 68,
    "marked_weight_lbf": 34,
    "draw_length_in": 28,
    "hand": "right",
    "release": "split",
    "name": "First",
}
PART = {"name": "Bo", "of": {"kind": "archer"}}


def post(client, path, body, key=KEY):
    return client.post(path, json=body, headers={"idempotency-key": key})


def count(client, path):
    return len(client.get(path).json())


@pytest.mark.parametrize(
    ("path", "body", "listed", "each"),
    [("/api/rigs", RIG, "/api/rigs", 1), ("/api/rigs/first", FIRST, "/api/rigs", 1),
     ("/api/parts", PART, "/api/parts", 1)],
)  # fmt: skip
def test_a_second_press_makes_no_second_one(client, path, body, listed, each):
    first, second = (post(client, path, body) for _ in range(2))
    assert (first.status_code, second.status_code) == (201, 201), first.text
    assert second.json() == first.json()
    assert second.headers["idempotent-replayed"] == "true"
    assert "idempotent-replayed" not in first.headers
    assert count(client, listed) == each
    assert post(client, path, body, "another-key").json() != first.json()
    assert count(client, listed) == 2 * each


def test_each_writing_call_of_a_rig_is_done_once(client):
    id = client.post("/api/rigs", json=RIG).json()["id"]
    calls = [
        ("keep", {"seq": 0, "changes": {"notes": "windy"}}),
        ("check", {"seq": 1, "station": "brace", "standing": "settled"}),
        ("undo", {"seq": 2}),
        ("redo", {"seq": 3}),
        ("copy", {"name": "Two"}),
        ("archive", {"away": True}),
    ]
    for n, (deed, body) in enumerate(calls):
        one, two = (post(client, f"/api/rigs/{id}/{deed}", body, f"key-of-{deed}") for _ in "ab")
        assert one.status_code in (200, 201), one.text
        assert two.text == one.text
        assert client.get(f"/api/rigs/{id}").json()["seq"] == min(n + 1, 4)
    assert count(client, "/api/rigs") == 2


def test_both_at_once_from_four_threads_make_one(client):
    told = []
    threads = [
        threading.Thread(target=lambda: told.append(post(client, "/api/rigs", RIG)))
        for _ in range(4)
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert {answer.json()["id"] for answer in told} == {1}
    assert count(client, "/api/rigs") == 1


def test_a_key_belongs_to_one_request(client):
    post(client, "/api/rigs", RIG)
    for path, body in (("/api/rigs", {"name": "Other"}), ("/api/parts", PART)):
        answer = post(client, path, body)
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "Idempotency-Key"
    assert count(client, "/api/rigs") == 1


@pytest.mark.parametrize("key", ["short", "a b c d e f g h", "x" * 101])
def test_what_is_no_key_is_refused(client, key):
    assert post(client, "/api/rigs", RIG, key).status_code == 422
    assert count(client, "/api/rigs") == 0


def test_what_was_refused_may_be_put_right_with_the_same_key(client):
    assert post(client, "/api/rigs", {"name": ""}).status_code == 422
    assert post(client, "/api/rigs", RIG).status_code == 201


def test_where_the_server_ended_before_the_answer_nothing_is_done_twice(client, app):
    post(client, "/api/rigs", RIG)
    lost = update(AnswerRow).values(status=None, kind=None, body=None)
    with app.state.desk.engine.begin() as connection:
        connection.execute(lost)
    answer = post(client, "/api/rigs", RIG)
    assert answer.status_code == 409
    assert answer.json()["type"] == "urn:x-lyrandis:answer-lost"
    assert count(client, "/api/rigs") == 1


def test_the_key_is_noted_in_the_transaction_of_what_is_written(client, monkeypatch):
    """Killed between the two, the answer is lost and the act is not doubled."""

    def killed(*_):
        raise SystemError("the server ends here")

    monkeypatch.setattr(answers, "keep", killed)
    assert post(client, "/api/rigs", RIG).status_code == 500
    monkeypatch.undo()
    assert post(client, "/api/rigs", RIG).json()["type"] == "urn:x-lyrandis:answer-lost"
    assert count(client, "/api/rigs") == 1


def test_after_a_month_a_key_is_forgotten(client, app):
    post(client, "/api/rigs", RIG)
    engine = app.state.desk.engine
    with engine.begin() as connection:
        connection.execute(update(AnswerRow).values(at="2020-01-01T00:00:00+00:00"))
    post(client, "/api/rigs", RIG, "another-key")
    with engine.connect() as connection:
        assert connection.execute(select(AnswerRow.key)).scalars().all() == ["another-key"]
    with engine.begin() as connection:
        connection.execute(delete(AnswerRow))


def test_work_that_was_begun_is_begun_once_and_what_asks_only_is_kept_nowhere(client, app):
    made = client.post("/api/parts", json=PART).json()["line"]["mark"]
    one, two = (post(client, "/api/jobs/fit", {"archer": made}) for _ in range(2))
    assert one.status_code == two.status_code == 202
    assert one.json()["id"] == two.json()["id"]
    asked = post(client, "/api/units/parse", {"text": "28", "quantity": "draw"}, "asks-only")
    assert asked.status_code == 200
    with app.state.desk.engine.connect() as connection:
        assert connection.execute(select(AnswerRow.key)).scalars().all() == [KEY]
