"""A newcomer's first rig: the ordinary starts of each form, and refusals by their path."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, value_at
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM, RELEASE, first_rig, form_start
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views

FORMS = ["recurve", "hybrid", "longbow", "static_tip"]


def make(form="recurve", **more):
    typed = {
        "length_in": form_start(form)["bow.length_in"],
        "marked_weight_lbf": 36,
        "draw_length_in": 27.5,
        "hand": "left",
        "release": RELEASE[form],
        "name": "First",
    }
    return first_rig(form, **(typed | more))


@pytest.mark.parametrize("form", FORMS)
def test_each_form_begins_as_a_rig_that_can_be_computed(form):
    rig = make(form)
    assert [v.station for v in views(Bench(rig)) if v.problem] == []
    for path, value in form_start(form).items():
        assert value_at(rig, path) == value
    assert rig.archer.hand == "left"


@pytest.mark.parametrize("form", FORMS)
def test_a_form_can_be_taken_on_any_rig(form):
    """The Bow length station puts these on the rig as it stands."""
    rig = changed(make("recurve", length_in=70), form_start(form))
    assert rig.bow.form == form
    assert rig.bow.riser_in is None
    assert Bench(rig).fit.schools


@pytest.mark.parametrize(
    ("release", "anchor"), [("three_under", "cheek"), ("split", "cheek"), ("thumb", "cheek")]
)
def test_without_a_sight_one_anchors_at_the_cheek(release, anchor):
    archer = make(release=release).archer
    assert archer.anchor == anchor
    assert archer.eye_above_nock_mm == EYE_ABOVE_NOCK_MM[anchor]


@pytest.mark.parametrize(
    ("draw", "shaft"), [(27.5, 29.0), (27.51, 29.5), (28.0, 29.5), (30.2, 32.0)]
)
def test_the_arrow_is_safely_longer_than_the_draw(draw, shaft):
    assert make(draw_length_in=draw).arrow.shaft_length_in == shaft


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"length_in": 3}, "bow.length_in"),
        ({"marked_weight_lbf": 900}, "bow.marked_weight_lbf"),
        ({"draw_length_in": 0}, "archer.draw_length_in"),
        ({"name": ""}, "name"),
        ({"archer": "x" * 300}, "archer.name"),
    ],
)
def test_refusals_are_named_by_their_path(more, field):
    with pytest.raises(RefusedError) as caught:
        make(**more)
    assert caught.value.field == field


def test_over_http(client):
    body = {"form": "hybrid", "length_in": 62, "marked_weight_lbf": 40, "draw_length_in": 27.5,
            "release": "split", "name": "Over HTTP"}  # fmt: skip
    made = client.post("/api/rigs/first", json=body)
    assert made.status_code == 201
    rig = made.json()["rig"]
    assert set(rig.pop("on")["bow"]) <= set("0123456789abcdef")  # made beside it
    assert rig == make("hybrid", marked_weight_lbf=40, hand="right", name="Over HTTP").model_dump(
        mode="json", exclude={"on"}
    )
    bad = client.post("/api/rigs/first", json=body | {"length_in": 3})
    assert bad.status_code == 422
    assert bad.json()["errors"][0]["field"] == "bow.length_in"
    assert len(client.get("/api/rigs").json()) == 1


def test_the_catalog_carries_the_starts(client):
    told = client.get("/api/catalog").json()
    for form in FORMS:
        assert told["forms"][form]["start"] == form_start(form)
        assert told["forms"][form]["release"] == RELEASE[form]
    assert told["eye_above_nock_mm"] == EYE_ABOVE_NOCK_MM
    assert changed(Rig(), told["forms"]["longbow"]["start"]).bow.side_plate == "leather"
