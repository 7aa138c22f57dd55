"""The arrow: build, static spine, the first window (docs/mechanics B1, B2, B4, B6)."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.arrow.build import build
from lyrandis.core.arrow.spine import pounds_26in, spine_28in, spine_from_pounds, stiffness_n_m2
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.flex.match import Averaged, match, searched
from lyrandis.core.flex.window import spine_window, stiff_enough_spine
from lyrandis.core.parts import Archer, Arrow, Bow, String
from lyrandis.core.units import KG_PER_GRAIN

STRING_65 = String(mass_gr=6.5 / 1000 / KG_PER_GRAIN)
CASE = Arrow(shaft_length_in=29.5, point_gr=100, insert_gr=12)


def told_by_model(times=1.0, spread_ln=0.12):
    """A model whose averaged match lies so many times as high as it is asked about; None: none."""

    def past(guess):
        spine = searched(guess)
        fall = np.log(spine / guess / (times or 1.0))
        found = match(spine, 2.0 + 0 * fall if times is None else -40 * fall, guess)
        return Averaged(found, spread_ln)

    return past


BOTH = math.sqrt(
    1 / (1 / 0.08**2 + 1 / 0.12**2) + 0.12**2 / 2 + 0.12**2
)  # what fit and match leave


def window(bow=None, arrow=CASE, string=STRING_65, past=None, **archer):
    bow = bow or Bow(marked_weight_lbf=45, brace_height_in=7.5, centre_cut_mm=1)
    at_28in = Estimate(value=force_draw(bow).force(28), plus_minus=0, source="measured")
    return spine_window(
        Archer(**archer), bow, string, arrow, at_28in, at_28in, 0.0, past or told_by_model()
    )


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
    assert told.spine_28in.value == pytest.approx(517, rel=1e-3)
    assert told.share == pytest.approx(BOTH)
    assert told.low == pytest.approx(517 * (1 - BOTH), rel=1e-3)
    assert told.widened == ()


def test_the_model_corrects_the_fit_by_its_share():
    """1/.08² against 1/.12²: of what the match lies off, four of thirteen parts."""
    plain, off = window(), window(past=told_by_model(1.3))
    moved = math.log(off.spine_28in.value / plain.spine_28in.value)
    assert moved == pytest.approx(4 / 13 * math.log(1.3), rel=1e-6)
    assert off.first == plain.first
    assert off.clean.match == off.spine_28in.value
    assert off.share == pytest.approx(plain.share)
    assert window(past=told_by_model(spread_ln=0.3)).share == pytest.approx(
        math.sqrt(BOTH**2 + (0.3**2 - 0.12**2) / 2)
    )


def test_without_a_match_the_fit_stands_alone_and_is_less_sure():
    alone = window(past=told_by_model(None))
    assert alone.spine_28in.value == pytest.approx(alone.first)
    assert alone.share == pytest.approx(math.hypot(0.08, 0.12, 0.12))
    assert alone.clean.match is None


def test_calibration_case_of_the_leather_shelf():
    bow = Bow(marked_weight_lbf=45, brace_height_in=7.5, centre_cut_mm=0, side_plate="leather")
    assert window(bow).spine_28in.value == pytest.approx(552, rel=1e-3)
    assert window(bow).start.spine is None


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
    share = window(string=heavier).spine_28in.value / window().spine_28in.value
    assert share == pytest.approx(math.exp(0.033 * 20 * KG_PER_GRAIN * 1000), rel=1e-3)
    near, far = (
        window(string=STRING_65.model_copy(update={"silencers_gr": 30, "silencer_position": at}))
        for at in (0.2, 0.9)
    )
    assert near.spine_28in.value > far.spine_28in.value > window().spine_28in.value


@pytest.mark.parametrize(
    ("bow", "arrow", "archer", "word"),
    [
        ({"marked_weight_lbf": 22}, {}, {}, "the weight of 22.0 lb"),
        ({"marked_weight_lbf": 64}, {}, {}, "the weight of 64.0 lb"),
        ({}, {"shaft_length_in": 26.5}, {"draw_length_in": 26.2}, "the shaft's length"),
        ({}, {"shaft_length_in": 32.5}, {}, "the shaft's length"),
        ({}, {}, {"draw_length_in": 25.5}, "the draw"),
        ({"centre_cut_mm": -3.5}, {}, {}, "the side plate's place of 3.5 mm"),
        ({"side_plate": "leather", "centre_cut_mm": -10}, {}, {}, "the side plate's place"),
        ({"side_plate": "felt"}, {}, {}, "felt side plate"),
        ({"side_plate": "hard"}, {}, {}, "hard side plate"),
        ({}, {}, {"release": "thumb"}, "thumb release"),
        ({"form": "static_tip", "length_in": 54, "brace_height_in": 6.5}, {}, {}, "static tips"),
        ({}, {"point_gr": 48, "insert_gr": 10}, {}, "the weight of point and insert"),
        ({}, {"point_gr": 212, "insert_gr": 10}, {}, "the weight of point and insert"),
        (
            {"marked_weight_lbf": 27.5, "centre_cut_mm": -2.5},
            {"point_gr": 52, "insert_gr": 10, "shaft_length_in": 28.2},
            {"draw_length_in": 26.2},
            "the resulting spine",
        ),
    ],
)
def test_outside_the_fit_there_is_no_number_and_practice_has_the_word(bow, arrow, archer, word):
    told = window(Bow(**(BASE | bow)), CASE.model_copy(update=arrow), **archer)
    assert (told.spine_28in, told.low, told.high, told.share) == (None,) * 4
    assert any(word in reason.plain() for reason in told.outside), told.outside
    assert told.start.said.plain()


def test_a_string_beyond_the_fit_leaves_no_window():
    heavy = String(mass_gr=9.1 / 1000 / KG_PER_GRAIN)
    assert window(string=heavy).spine_28in is None
    assert "string" in window(string=heavy).outside[0].plain()
    assert window(string=String(mass_gr=8.9 / 1000 / KG_PER_GRAIN)).spine_28in is not None


def test_practice_begins_stiff_for_a_thumb_and_a_group_weaker_for_a_bow_cut_short():
    thumb = window(release="thumb").start
    assert thumb.spine == pytest.approx(500, rel=1e-3)
    short = window(Bow(**(BASE | {"side_plate": "leather", "centre_cut_mm": -8}))).start
    assert short.spine == pytest.approx(600, rel=1e-3)
    assert stiff_enough_spine(90) == 250


def test_the_band_grows_smoothly_towards_the_ends_of_the_fit():
    shares = [
        window(Bow(**(BASE | {"marked_weight_lbf": w}))).share for w in (45, 31, 30, 29, 28, 27.2)
    ]
    assert shares[0] == pytest.approx(BOTH)
    assert shares == sorted(shares)
    assert max(b - a for a, b in pairwise(shares)) < 0.05
    assert shares[-1] == pytest.approx(math.hypot(BOTH, 0.12), rel=0.12)


def test_the_band_takes_up_what_weight_and_draw_are_doubted_by():
    bow = Bow(marked_weight_lbf=45, brace_height_in=7.5, centre_cut_mm=1)
    at = Estimate(value=45.0, plus_minus=3.0, source="model")
    told = spine_window(Archer(), bow, STRING_65, CASE, at, at, 0.5, told_by_model())
    wanted = math.hypot(BOTH, 1.037 * 3 / 45, 2.01 * 0.5 / 28)
    assert told.share == pytest.approx(wanted)
    assert told.spine_28in.plus_minus == pytest.approx(wanted * told.spine_28in.value)


def test_a_longbows_band_lies_mostly_on_the_stiff_side_and_its_middle_is_the_fits():
    """What a longbow's own brace and string do is in the fit: nothing is counted twice."""
    more = BASE | {"side_plate": "leather", "centre_cut_mm": 0}
    recurve = window(Bow(**more))
    long = window(Bow(**(more | {"form": "longbow", "length_in": 66})))
    assert long.spine_28in.value == pytest.approx(recurve.spine_28in.value, rel=0.01)
    value = long.spine_28in.value
    assert (1 - long.low / value, long.high / value - 1) == pytest.approx((0.30, 0.10))


def test_an_arrow_shorter_than_the_draw_is_refused():
    with pytest.raises(RefusedError) as caught:
        window(arrow=Arrow(shaft_length_in=27), draw_length_in=28)
    assert caught.value.field == "arrow.shaft_length_in"
    assert caught.value.limit == 28
