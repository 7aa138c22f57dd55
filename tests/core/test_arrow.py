"""The arrow: build, static spine, the first window (docs/mechanics B1, B2, B4, B6)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.arrow.build import build
from lyrandis.core.arrow.spine import pounds_26in, spine_28in, spine_from_pounds, stiffness_n_m2
from lyrandis.core.arrow.window import spine_window
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.errors import RefusedError
from lyrandis.core.rig import Archer, Arrow, Bow, String
from lyrandis.core.units import KG_PER_GRAIN

STRING_65 = String(mass_gr=6.5 / 1000 / KG_PER_GRAIN)
CASE = Arrow(shaft_length_in=29.5, point_gr=100, insert_gr=12)


def window(bow=None, arrow=CASE, string=STRING_65, **archer):
    bow = bow or Bow(marked_weight_lbf=45, brace_height_in=7.5, centre_cut_mm=1)
    return spine_window(Archer(**archer), bow, string, arrow, force_draw(bow))


def test_the_two_standards_meet_at_500():
    assert stiffness_n_m2(500) == pytest.approx(5.09, abs=0.005)
    assert pounds_26in(500) == pytest.approx(63.0, abs=0.05)


@given(st.floats(150, 2000))
def test_standards_round_trip(spine):
    assert spine_28in(stiffness_n_m2(spine)) == pytest.approx(spine, rel=1e-12)
    assert spine_from_pounds(pounds_26in(spine)) == pytest.approx(spine, rel=1e-12)


def test_mass_and_balance_of_a_plain_shaft():
    bare = Arrow(point_gr=10, insert_gr=0, nock_gr=10, fletching_gr=0, grains_per_inch=8)
    made = build(bare)
    assert made.mass_gr == pytest.approx(260)
    assert made.balance_in == pytest.approx(15)
    assert made.front_of_centre_pct == pytest.approx(0)
    ends = 2 * 10 * 15**2
    assert made.inertia_kg_m2 == pytest.approx((240 * 30**2 / 12 + ends) * KG_PER_GRAIN * 0.0254**2)


def test_balance_by_moments():
    made = build(Arrow())
    total = 7.8 * 30 + 110 + 12 + 9 + 9
    moments = 7.8 * 30 * 15 + 122 * 30 + 9 * 2.75
    assert made.mass_gr == pytest.approx(total)
    assert made.balance_in == pytest.approx(moments / total)


@given(st.floats(20, 300), st.floats(1, 100))
def test_more_point_moves_the_balance_forward(point, more):
    light, heavy = build(Arrow(point_gr=point)), build(Arrow(point_gr=point + more))
    assert heavy.front_of_centre_pct > light.front_of_centre_pct


def test_a_weighed_arrow_counts_as_weighed():
    made = build(Arrow(weighed_gr=381))
    assert (made.mass_gr, made.measured) == (381, True)
    assert made.parts_gr == pytest.approx(374)


def test_calibration_case_of_the_plunger():
    told = window()
    assert told.spine_28in.value == pytest.approx(521, rel=1e-3)
    assert told.low == pytest.approx(521 * 0.92, rel=1e-3)
    assert told.widened == ()


def test_calibration_case_of_the_leather_shelf():
    bow = Bow(marked_weight_lbf=45, brace_height_in=7.5, centre_cut_mm=0, side_plate="leather")
    assert window(bow).spine_28in.value == pytest.approx(597, rel=1e-3)


BASE = {"marked_weight_lbf": 45, "brace_height_in": 7.5, "centre_cut_mm": 1}


@pytest.mark.parametrize(
    ("bow", "arrow", "archer", "weaker"),
    [
        ({"marked_weight_lbf": 49}, {}, {}, False),
        ({}, {"shaft_length_in": 30.5}, {}, False),
        ({}, {"point_gr": 150}, {}, False),
        ({}, {}, {"draw_length_in": 29}, False),
        ({"centre_cut_mm": -2}, {}, {}, True),
    ],
)
def test_window_moves_the_way_practice_says(bow, arrow, archer, weaker):
    """What makes an arrow act weak asks for a stiffer shaft: a smaller number."""
    before = window(Bow(**BASE)).spine_28in.value
    after = window(Bow(**(BASE | bow)), CASE.model_copy(update=arrow), **archer).spine_28in.value
    assert (after > before) == weaker


def test_heavier_string_asks_for_a_weaker_shaft():
    heavier = String(mass_gr=STRING_65.mass_gr + 20)
    assert window(string=heavier).spine_28in.value > window().spine_28in.value


@pytest.mark.parametrize(
    ("change", "word"),
    [
        ({"form": "longbow", "length_in": 66}, "longbow"),
        ({"brace_height_in": 8.5}, "brace"),
        ({"marked_weight_lbf": 22}, "weight"),
        ({"side_plate": "hard"}, "hard side plate"),
        ({"form": "static_tip", "length_in": 54, "brace_height_in": 6.5}, "static"),
    ],
)
def test_far_from_the_calibration_the_band_is_wider_and_says_why(change, word):
    told = window(Bow(**(BASE | change)))
    assert told.share > 0.085
    assert any(word in reason.plain() for reason in told.widened)


def test_an_arrow_shorter_than_the_draw_is_refused():
    with pytest.raises(RefusedError) as caught:
        window(arrow=Arrow(shaft_length_in=27), draw_length_in=28)
    assert caught.value.field == "arrow.shaft_length_in"
    assert caught.value.limit == 28
