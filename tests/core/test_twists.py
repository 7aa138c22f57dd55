"""Twists: the closed form, its inverse, learning from measured changes, and the limits."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.bow.statics import rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Bow, String
from lyrandis.core.string.twists import (
    FACTOR_SD,
    brace_per_string_slack,
    bundle_radius_mm,
    shortening_mm,
    turns_for,
    twist,
)

RADIUS = bundle_radius_mm(18, 0.42)


def bow_at(brace, form="recurve", length=68):
    return solve(Bow(form=form, length_in=length, brace_height_in=brace), "polyester")


def ask(now, brace, wanted, observed=(), string=None):
    given_string = string or String(strands=14)
    return twist(bow_at(brace), given_string, 64.5, now, brace, wanted, observed)


def said(told):
    return " ".join(f.said.plain() for f in told.findings)


def test_the_reference_string():
    """18 × 0.42 mm, 1372 mm, 30 turns: 6.44 mm (docs/mechanics E1)."""
    assert shortening_mm(1372, RADIUS, 30) == pytest.approx(6.44, abs=0.01)
    rough = math.pi**2 * RADIUS**2 * 30**2 / 1372
    assert shortening_mm(1372, RADIUS, 30) == pytest.approx(rough, rel=0.01)


@given(st.floats(900, 1800), st.floats(0.6, 2.0), st.floats(0, 60))
def test_turns_and_shortening_round_trip(length, radius, turns):
    there = shortening_mm(length, radius, turns)
    assert turns_for(length, radius, there) == pytest.approx(turns, abs=1e-5)


def test_more_turns_than_length():
    with pytest.raises(RefusedError, match="use up"):
        shortening_mm(500, 5, 200)


def test_each_turn_does_more_than_the_one_before():
    first, later = (shortening_mm(1600, RADIUS, t + 1) - shortening_mm(1600, RADIUS, t) for t in (5, 30))  # fmt: skip
    assert later > 5 * first


def test_the_turns_it_asks_for_give_the_brace_that_was_wanted():
    """Twisting the slack string of the solved bow by as many turns raises it so."""
    told = ask(24, 8.25, 8.5)
    bow = bow_at(8.25)
    shorter = -told.string_change_mm / 1000
    moved = rebraced(bow, bow.braced.half_slack - shorter / 2)
    assert (moved.brace_x - bow.brace_x) / 0.0254 == pytest.approx(0.25, abs=0.005)
    assert told.turns > 0
    assert ask(24, 8.25, 8.15).turns < 0
    assert ask(24, 8.25, 8.25).turns == pytest.approx(0, abs=1e-9)
    assert told.brace_per_turn_mm < 0.25 * 25.4 / told.turns  # each turn does more than the last


def test_the_gain_is_the_analytic_one_near_a_stiff_string():
    bow = solve(Bow(length_in=68), "low_stretch")
    assert brace_per_string_slack(bow) == pytest.approx(-bow.brace_per_string(), rel=0.07)


def test_one_measured_change_makes_the_next_step_sure():
    """Fresh strings whose effect differs by a quarter from the model's: the error in the brace."""
    rng = np.random.default_rng(41)
    before, after = [], []
    base = ask(20, 8.25, 8.5)
    per = {t: shortening_mm(64.5 * 25.4, bundle_radius_mm(14, 0.48), t) for t in range(10, 60)}
    gain = brace_per_string_slack(bow_at(8.25))
    for _ in range(200):
        truth = rng.normal(1, FACTOR_SD)

        def brace(t, truth=truth):
            return 8.25 + truth * gain * (per[t] - per[20]) / 25.4

        def read(t, brace=brace):
            return brace(t) + rng.normal(0, 0.5) / 25.4

        if truth < 0.4:
            continue
        first = round(20 + base.turns)
        before.append(abs(brace(first) - 8.5) * 25.4)
        told = twist(bow_at(8.25), String(strands=14), 64.5, 30, read(30), 8.5, [(20, read(20))])
        t = min(max(round(30 + told.turns), 10), 59)
        after.append(abs(brace(t) - 8.5) * 25.4)
    print(f"\nbrace missed by {np.mean(before):.2f} mm before, {np.mean(after):.2f} mm after a measured change")  # fmt: skip
    assert np.mean(after) < 0.6 * np.mean(before)
    assert np.mean(after) < 0.8


@pytest.mark.parametrize("earlier", [0, 1, 2])
def test_the_turns_lie_within_their_doubt(earlier):
    """Fresh strings, each brace read to half a millimetre: the ± covers what .68 must."""
    rng = np.random.default_rng([43, earlier])
    radius = bundle_radius_mm(14, 0.48)
    untwisted = math.hypot(64.5 * 25.4, 2 * math.pi * 24 * radius / math.sqrt(2))
    gain = brace_per_string_slack(bow_at(8.25))
    inside = []
    for _ in range(400):
        factor = rng.normal(1, FACTOR_SD)
        if factor < 0.45:
            continue
        b0 = 8.25 * 25.4 - factor * gain * shortening_mm(untwisted, radius, 24)

        def read(t, b0=b0, factor=factor):
            at = b0 + factor * gain * shortening_mm(untwisted, radius, t)
            return (at + rng.normal(0, 0.5)) / 25.4

        seen = [(t, read(t)) for t in (30, 18)[:earlier]]
        wanted = 8.25 + rng.uniform(0.05, 0.3)
        told = twist(bow_at(8.25), String(strands=14), 64.5, 24, read(24), wanted, seen)
        truth = turns_for(untwisted, radius, (wanted * 25.4 - b0) / factor / gain) - 24
        inside.append(abs(told.turns - truth) <= told.turns_plus_minus)
    assert 0.62 <= np.mean(inside) <= 0.82


def test_learning_narrows_and_finds_the_truth():
    one, two = ask(20, 8.25, 8.5), ask(30, 8.61, 8.75, [(20, 8.25)])
    assert one.factor == 1
    assert one.factor_plus_minus == pytest.approx(FACTOR_SD, rel=1e-6)
    assert two.factor_plus_minus < 0.15
    assert two.factor > 1


def test_limits_and_the_string_to_order():
    many = ask(50, 8.25, 8.6)
    assert "more than" in said(many)
    assert many.order_length_in is not None
    far = ask(24, 8.0, 8.75)
    assert "take a string of" in said(far)
    assert far.order_length_in < 64.5
    few = ask(18, 8.5, 8.42)
    assert any(f.level == "stop" for f in few.findings)
    with pytest.raises(RefusedError, match="no turn left") as caught:
        ask(6, 8.5, 7.5)
    assert 8.0 < caught.value.limit < 8.5


def test_measurements_against_each_other_are_refused():
    with pytest.raises(RefusedError, match="do not raise"):
        ask(40, 8.0, 8.25, [(20, 8.5), (30, 8.25)])


def test_an_effect_that_cannot_be_is_told():
    odd = ask(26, 8.25, 8.3, [(19, 7.75), (29, 8.5)])
    assert "count the turns" in said(odd)
    assert "count the turns" not in said(ask(30, 8.61, 8.75, [(20, 8.4)]))


def test_an_endless_loop_is_hardly_lengthened():
    endless = String(strands=14, build="endless")
    assert "endless loop" in said(ask(30, 8.25, 8.15, string=endless))
    assert "endless loop" not in said(ask(30, 8.25, 8.35, string=endless))
    assert "endless loop" not in said(ask(30, 8.25, 8.15))
