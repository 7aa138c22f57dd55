"""Terms, what is typed, and pages: over HTTP."""

import pytest


def test_the_terms_come_with_their_drawings(client):
    told = client.get("/api/terms").json()
    assert {t["id"] for t in told["terms"]} >= {"nock-point", "brace-height", "static-spine"}
    drawn = {s["term"] for d in told["drawings"] for s in d["shapes"]}
    assert {"riser", "arrow-nock", "tab-mark", "thumb-draw"} <= drawn
    assert next(c["title"] for c in told["confusions"]) == "Four things are called nock"


def typed(client, text, quantity, unit=None, path="parse"):
    body = {"text": text, "quantity": quantity, "unit": unit}
    return client.post(f"/api/units/{path}", json=body)


def test_a_spine_may_be_typed_in_pounds(client):
    assert typed(client, "600", "spine").json()["value"] == 600
    assert typed(client, "45#", "spine").json()["value"] == pytest.approx(700, abs=1)
    assert typed(client, "45 kg", "spine").status_code == 422


def test_a_list_is_read_at_once(client):
    told = typed(client, "10,20, 30", "distance", "yd", "parse-list")
    assert told.json()["values"] == pytest.approx([9.144, 18.288, 27.432])
    for text in ("10 loud", "1 " * 999, "x" * 3000):
        assert typed(client, text, "distance", "m", "parse-list").status_code == 422
    assert typed(client, "10", "distance", "ell", "parse-list").status_code == 422


def test_examples_are_of_the_thing_asked_for(client):
    told = [typed(client, "?", q).json()["detail"] for q in ("brace", "draw", "turns", "weight")]
    examples = [text.partition("write “")[2].rstrip("”.") for text in told]
    assert examples == ["8 1/4 in", "28 3/4 in", "7 1/2 turns", "38.0 lb"]


def test_a_refusal_says_it_in_words_and_in_values(client):
    sent = client.post("/api/rigs/first", json={
        "form": "recurve", "length_in": 300, "marked_weight_lbf": 40, "draw_length_in": 28,
        "release": "split", "name": "X",
    })  # fmt: skip
    (error,) = sent.json()["errors"]
    assert error["reason"].startswith("Bow length must be at most 76 in; 300 in was given.")
    assert {v["quantity"] for v in error["said"]["values"].values()} == {"bow_length"}
    assert (error["limit"], error["unit"]) == (76, "in")


@pytest.mark.parametrize(
    ("path", "status"),
    [
        ("/", 200), ("/new", 200), ("/terms", 200), ("/rig/3", 200), ("/rig/3/crawls", 200),
        ("/rig/3/keep", 200), ("/nothing", 404), ("/rig/abc", 404), ("/rig/3/quiver", 404),
        ("/rig/0/draw", 404), ("/terms/more", 404),
    ],
)  # fmt: skip
def test_pages_that_are_not_there_say_so_by_their_status(client, path, status):
    assert client.get(path).status_code in (status, 503 if status == 200 else status)
