"""Draw length and the schools of bow length."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.bow.curve import force_draw, stack_onset_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.bow_length import limb_class, of_length, schools
from lyrandis.core.fit.candidates import candidates
from lyrandis.core.fit.draw_length import (
    draw_length,
    from_trade_in,
    thumb_offset_mm,
    to_trade_in,
    true_draw_in,
)
from lyrandis.core.fit.length_map import length_map
from lyrandis.core.parts import Archer, Bow, SchoolNumbers, String
from lyrandis.core.string.measures import string_fit
from lyrandis.core.tune.brace import brace_effect, brace_height, by_reference_in, start_in

NUMBERS = SchoolNumbers()


@given(st.floats(20, 34), st.sampled_from(["trade", "pivot", "back"]), st.none() | st.floats(0, 4))
def test_conventions_round_trip(draw, convention, offset):
    there = to_trade_in(draw, convention, offset)
    assert from_trade_in(there, convention, offset) == pytest.approx(draw)


def test_conventions():
    assert to_trade_in(26.25, "pivot", None) == 28
    assert to_trade_in(28, "back", None) == 28
    assert to_trade_in(28, "back", 2.0) == 27.75


def test_marked_arrow_mean_and_spread():
    told = draw_length("marked_arrow", [28, 28.5, 28.25])
    assert told.draw_length_in.value == pytest.approx(28.25)
    assert told.spread_in == pytest.approx(0.25)
    assert told.draw_length_in.source == "measured"
    # Spread .25 of two free, one reading's worth of .2 beside it; Student's t of 3, the mean's own.
    next_sd = np.sqrt((0.2**2 + 2 * 0.25**2) / 3) * 1.1969 * np.sqrt(4 / 3)
    assert told.draw_length_in.plus_minus == pytest.approx(np.hypot(next_sd, 1 / 16), rel=1e-3)


def test_the_next_draw_is_covered_by_few_readings_too():
    """Archers of many spreads: the ± covers the next draw two times in three, from two readings on."""
    rng = np.random.default_rng(8)
    for n in (2, 3, 5):
        inside = []
        for _ in range(600):
            spread = 0.2 * np.exp(rng.normal(0, 0.5))
            draws = rng.normal(28, spread, n + 1)
            told = draw_length("marked_arrow", list(draws[:n])).draw_length_in
            inside.append(abs(draws[n] - told.value) <= told.plus_minus)
        assert 0.66 <= np.mean(inside) <= 0.85
    assert draw_length("marked_arrow", [28, 28]).draw_length_in.plus_minus > 0.15


def test_arm_span_and_tape_are_first_guesses():
    span = draw_length("arm_span", [70])
    assert span.draw_length_in.value == pytest.approx(28)
    assert span.draw_length_in.plus_minus >= 1
    assert draw_length("tape", [27]).draw_length_in.source == "rule"


@pytest.mark.parametrize(("method", "readings"), [("tape", []), ("tape", [8]), ("arm_span", [120]), ("marked_arrow", [28, 60])])  # fmt: skip
def test_no_or_absurd_readings_are_refused(method, readings):
    with pytest.raises(RefusedError) as caught:
        draw_length(method, readings)
    assert caught.value.field.startswith("readings_in")
    assert caught.value.limit is not None


def test_a_thumb_draw_is_longer_than_its_mark():
    told = draw_length("marked_arrow", [29, 29], release="thumb", thumb_offset_mm=15)
    assert told.true_draw_in.value == pytest.approx(29 + 15 / 25.4)
    assert draw_length("tape", [28]).true_draw_in.value == pytest.approx(28)


def test_thumb_offset_is_within_practice_and_more_on_short_bows():
    assert 10 < thumb_offset_mm(128) < thumb_offset_mm(103) < 25
    archer = Archer(release="thumb", draw_length_in=28)
    short, long = (
        true_draw_in(archer, Bow(form="static_tip", length_in=n, takedown=False)).value
        for n in (48, 60)
    )
    assert short > long > 28


def say(bow, draw=28.0, use="range", release="three_under"):
    archer = Archer(draw_length_in=draw, release=release)
    return {s.school: s for s in schools(archer, bow, draw, use, NUMBERS)}


@pytest.mark.parametrize(
    ("draw", "length"),
    [(24, 64), (25, 64), (25.1, 66), (27, 66), (28, 68), (29, 68), (31, 70), (33, 72), (34, 72)],
)
def test_the_ladder(draw, length):
    told = say(Bow(length_in=70), draw)["ladder"]
    assert (told.low_in, told.high_in) == (length, length)


@pytest.mark.parametrize(("draw", "name"), [(26.5, "short"), (26.6, "medium"), (29.5, "medium"), (30, "long")])  # fmt: skip
def test_limb_first(draw, name):
    assert limb_class(draw, NUMBERS) == name


def test_ratio_band_and_verdicts():
    told = say(Bow(form="hybrid", length_in=66, takedown=False))["ratio_band"]
    assert told.low_in == pytest.approx(57.4)
    assert told.high_in == pytest.approx(64.4)
    assert told.verdict == "too_long"


def test_schools_are_silent_where_they_were_not_made_for_the_bow():
    hybrid = say(Bow(form="hybrid", length_in=62, takedown=False))
    assert hybrid["limb_first"].verdict == hybrid["ladder"].verdict == "silent"
    assert hybrid["ratio_band"].verdict != "silent"
    static = say(Bow(form="static_tip", length_in=54, takedown=False), release="thumb")
    assert {s.verdict for s in static.values()} == {"silent"}  # the maker's word ends them
    fingers = say(Bow(form="static_tip", length_in=58, takedown=False), release="split")
    assert fingers["stack_reserve"].low_in is not None
    assert say(Bow(length_in=68))["ratio_band"].verdict == "silent"  # of one-piece bows only


def test_reserve_and_angle_hold_at_the_length_they_name():
    bow = Bow(length_in=68, marked_weight_lbf=40)
    told = say(bow)
    reserve = told["stack_reserve"].low_in
    assert stack_onset_in(of_length(bow, reserve)) - 28 >= 1.5
    assert stack_onset_in(of_length(bow, reserve - 0.5)) - 28 < 1.5
    angle = told["string_angle"].low_in
    assert force_draw(of_length(bow, angle)).angle(28) >= 127
    assert force_draw(of_length(bow, angle - 0.5)).angle(28) < 127


def test_close_cover_accepts_a_shorter_bow_and_thumbs_have_no_angle():
    bow = Bow(length_in=66)
    assert say(bow, use="close_cover")["stack_reserve"].low_in < say(bow)["stack_reserve"].low_in
    assert say(bow, release="thumb")["string_angle"].verdict == "silent"
    assert say(bow, release="split")["string_angle"].low_in < say(bow)["string_angle"].low_in


def test_edited_numbers_count():
    archer = Archer(draw_length_in=28)
    edited = SchoolNumbers(ratio_low=2.2, ratio_high=2.5)
    told = {
        s.school: s for s in schools(archer, Bow(length_in=68, takedown=False), 28, "range", edited)
    }
    assert told["ratio_band"].low_in == pytest.approx(61.6)


def test_candidates_are_ranked_and_can_be_had():
    archer = Archer(draw_length_in=28)
    ranked = candidates(archer, Bow(), 28, "range", 0, NUMBERS)
    assert ranked == tuple(sorted(ranked, key=lambda c: (c.objects, -c.score)))
    assert not ranked[0].objects
    assert all(c.length_in == c.riser_in + {"short": 41, "medium": 43, "long": 45}[c.limb_class] for c in ranked)  # fmt: skip
    smooth = candidates(archer, Bow(), 28, "range", 1, NUMBERS)[0]
    lively = candidates(archer, Bow(), 28, "range", -1, NUMBERS)[0]
    assert smooth.length_in > lively.length_in
    one_piece = candidates(archer, Bow(form="hybrid", takedown=False), 28, "woodland", 0, NUMBERS)
    assert one_piece[0].riser_in is None


def test_sharing_solved_bows_moves_angle_and_onset_little():
    """Candidates are solved at the weight rounded to 20 lb: at most 10 lb off."""
    for form, length in (("recurve", 66), ("longbow", 66), ("hybrid", 60), ("static_tip", 54)):
        pairs = [(29.9, 20), (30.1, 40), (49.9, 40), (50.1, 60)]
        for weight, shared in pairs:
            a, b = (Bow(form=form, length_in=length, marked_weight_lbf=w) for w in (weight, shared))
            assert force_draw(a).angle(28) == pytest.approx(force_draw(b).angle(28), abs=0.2)
            assert stack_onset_in(a) == pytest.approx(stack_onset_in(b), abs=0.1)


class TestStringAndBrace:
    def test_string_fit(self):
        bow = Bow(length_in=68)
        fit = string_fit(
            bow,
            String(),
            force_draw(bow).statics,
            Estimate(value=40, plus_minus=1.6, source="model"),
        )
        assert fit.usual_length_in == 64
        assert fit.needed_length_in == pytest.approx(64.6, abs=0.2)
        assert fit.usual_strands == 14

    def test_the_three_references_of_one_string(self):
        assert by_reference_in(Bow(brace_height_in=8.5)) == {"grip": 8.5, "back": 10.25, "plunger": None}  # fmt: skip
        plunger = Bow(brace_height_in=9.0, brace_reference="plunger", brace_offset_in=0.25)
        told = by_reference_in(plunger)
        assert told == {"grip": 8.75, "back": 10.5, "plunger": 9.0}
        back = Bow(brace_height_in=10.0, brace_reference="back", brace_offset_in=2.0)
        assert by_reference_in(back) == {"grip": 8.0, "back": 10.0, "plunger": None}

    def test_brace_starts_in_the_range(self):
        assert start_in(Bow(length_in=68)) == pytest.approx(8.5)
        maker = Bow(length_in=68, maker_brace_low_in=8.75, maker_brace_high_in=9.25)
        assert start_in(maker) == 8.75
        assert start_in(Bow(length_in=68, brace_reference="back")) == pytest.approx(10.25)

    def test_more_brace_stores_less_and_shortens_the_string(self):
        bow = Bow(length_in=68)
        fit = brace_effect(bow, String(), force_draw(bow), 28)
        assert -8 < fit.energy_per_in_pct < -5
        assert fit.string_per_in == pytest.approx(-1 / 1.126, rel=0.01)

    def test_a_maker_range_upside_down_is_refused(self):
        bow = Bow(maker_brace_low_in=9, maker_brace_high_in=8)
        with pytest.raises(RefusedError, match="above the lowest"):
            brace_height(bow)


class TestLengthMap:
    bow = Bow(marked_weight_lbf=40)

    def test_borders_are_in_order_and_rise_with_length(self):
        for form in ("recurve", "hybrid", "longbow", "static_tip"):
            told = length_map(self.bow.model_copy(update={"form": form, "takedown": False}), 1.5)
            borders = np.array(
                [
                    told.under_used_in,
                    told.comfortable_to_in,
                    told.stacks_from_in,
                    told.overdrawn_from_in,
                ]
            )
            assert len(told.length_in) > 5
            assert (np.diff(borders[1:], axis=0) > 0).all()
            assert (np.diff(borders, axis=1) > -1e-9).all()

    def test_it_agrees_with_the_bow_itself(self):
        told = length_map(self.bow, 1.5)
        at = told.length_in.index(66.0)
        onset = stack_onset_in(of_length(self.bow, 66.0))
        assert told.stacks_from_in[at] == pytest.approx(onset)
        assert told.comfortable_to_in[at] == pytest.approx(onset - 1.5)
        assert told.overdrawn_from_in[at] <= onset + 2

    def test_overdrawing_ends_where_the_geometry_does(self):
        told = length_map(self.bow, 1.5)
        end = force_draw(of_length(self.bow, told.length_in[0])).end_in
        assert told.overdrawn_from_in[0] <= end
