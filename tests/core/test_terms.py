"""The terms: each word once, every school drawn where it measures otherwise, all to scale."""

import pytest

from lyrandis.core.arrow.build import build
from lyrandis.core.bow.form import FORMS
from lyrandis.core.fields import field_notes
from lyrandis.core.parts import Rig
from lyrandis.core.route import STATIONS
from lyrandis.core.terms import CONFUSIONS, TERMS, drawings
from lyrandis.core.units import QUANTITIES

WORDS = {t.id: t for t in TERMS}
SHAPES = [(d, s) for d in drawings() for s in d.shapes]


def spans(drawing, term):
    """Each dimension of a word in a drawing: its part, its length and what it says."""
    return {
        s.part: (
            abs(s.points[1][0] - s.points[0][0]) + abs(s.points[1][1] - s.points[0][1]),
            None if s.value is None else s.value.value,
        )
        for d, s in SHAPES
        if d.id == drawing and s.term == term and s.kind == "span"
    }


def test_each_word_and_each_setting_stands_once():
    assert len(WORDS) == len(TERMS)
    assert len({t.word for t in TERMS}) == len(TERMS)
    fields = [f for t in TERMS for f in t.fields]
    assert len(set(fields)) == len(fields)
    assert set(fields) <= set(field_notes())
    assert {t.quantity for t in TERMS} - {None} <= set(QUANTITIES)


def test_every_setting_of_a_station_says_what_it_is():
    told = {f for t in TERMS for f in t.fields}
    notes = field_notes()
    silent = {
        p for s in STATIONS.values() for p in s.settings if not notes[p].help and p not in told
    }
    # Their words say all there is to say, or they are a plan's own numbers.
    assert silent <= {
        "use", "bow.form", "limbs.upper_class", "limbs.lower_class", "bow.maker_max_draw_in",
        "step_up.step_lbf", "step_up.weeks", "step_up.starts", "assembly.done",
        *(f"schools.{n}" for n in (
            "short_limb_to_in", "medium_limb_to_in", "ladder_start_in", "ladder_start_draw_in",
            "ladder_rung_draw_in", "ratio_low", "ratio_high",
        )),
    }  # fmt: skip


def test_words_that_mislead_stand_together():
    titles = {c.title: c.terms for c in CONFUSIONS}
    assert len(titles["Four things are called nock"]) == 4
    assert len(titles) == 5
    assert {t for c in CONFUSIONS for t in c.terms} <= set(WORDS)


def test_every_part_has_its_word_and_every_school_its_dimension():
    assert {s.term for _, s in SHAPES} - {None} <= set(WORDS)
    drawn = {s.part for _, s in SHAPES}
    measured = {s.part for t in TERMS for s in t.schools} - {None}
    assert measured <= drawn
    for word in ("draw-length", "brace-height"):
        assert len({s.part for s in WORDS[word].schools}) == 3


@pytest.mark.parametrize("form", FORMS)
def test_each_form_of_bow_is_drawn_braced_as_it_is_usual(form):
    ((part, (long, says)),) = spans(f"bow-{form}", "brace-height").items()
    assert (part, says) == ("brace-grip", pytest.approx(FORMS[form].brace_in))
    assert long == pytest.approx(says, abs=1e-3)
    string = next(s for d, s in SHAPES if d.id == f"bow-{form}" and s.term == "string")
    limbs = [s for d, s in SHAPES if d.id == f"bow-{form}" and s.term == "limb"]
    assert len(limbs) == 2
    assert max(y for _, y in string.points) == pytest.approx(says, abs=0.6)


def test_the_three_draws_and_braces_differ_as_the_schools_say():
    draws = spans("full-draw", "draw-length")
    assert draws["draw-trade"][0] - draws["draw-pivot"][0] == pytest.approx(1.75)
    assert draws["draw-back"][0] == pytest.approx(draws["draw-trade"][0])
    braces = spans("grip", "brace-height")
    assert braces["brace-back"][0] - braces["brace-grip"][0] == pytest.approx(1.75)
    for long, says in (*draws.values(), *braces.values()):
        assert says is None or long == pytest.approx(says, abs=1e-3)


def test_the_arrow_balances_where_it_is_built_to():
    made, length = build(Rig().arrow), Rig().arrow.shaft_length_in
    assert spans("arrow", "shaft")["shaft-length"] == (length, length)
    long, says = spans("arrow", "front-of-centre")[None]
    assert long / length * 100 == pytest.approx(says)
    assert says == pytest.approx(made.front_of_centre_pct)


def test_everything_lies_in_its_window():
    for drawing, shape in SHAPES:
        inside = [
            drawing.left <= x <= drawing.right and drawing.bottom <= y <= drawing.top
            for x, y in shape.points
        ]
        # Only the string, and what it runs along, may leave a detail at both ends.
        assert any(inside) or shape.term == "string", (drawing.id, shape.term)
        if shape.kind == "span":
            assert all(inside), (drawing.id, shape.term)
