"""Tiller: sign and size against two limbs in balance with their string, and fresh bows."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import minimize

from lyrandis.core.bow.geometry import contact
from lyrandis.core.bow.statics import solve
from lyrandis.core.parts import Bow, Limbs
from lyrandis.core.tune.tiller import Measured, ordinary_mm, per_turn_mm, tiller

TILT = math.radians(0.8)
EA_N = 40e3


def two_limbs(form, length_in, riser_in, upper_turns, lower_turns):
    """Both distances [mm] by the least energy of two limbs and one string, bolts turned out."""
    bow = solve(Bow(form=form, length_in=length_in, riser_in=riser_in), "low_stretch")
    limbs = [replace(bow.limb, tilt=bow.limb.tilt + TILT * t) for t in (upper_turns, lower_turns)]
    slack = 2 * bow.braced.half_slack

    def energy(v):
        parts = [
            contact(limb, np.array(phi), np.array(v[2]))
            for limb, phi in zip(limbs, v, strict=False)
        ]
        stretch = max(sum(float(p.length) for p in parts) - slack, 0)
        bent = sum((phi - bow.limb.rest) ** 2 for phi in v[:2])
        return bow.stiffness * bent / 2 + EA_N / slack * stretch**2 / 2

    start = np.array([bow.braced.phi, bow.braced.phi, bow.brace_x])
    simplex = np.vstack([start, start + np.diag([1e-2, 1e-2, 2e-3])])
    options = {"xatol": 1e-10, "fatol": 1e-13, "maxiter": 20000, "maxfev": 20000,
               "initial_simplex": simplex}  # fmt: skip
    *bends, x = minimize(energy, start, method="Nelder-Mead", options=options).x
    told = []
    for limb, phi in zip(limbs, bends, strict=True):
        ux, uy = contact(limb, np.array(phi), np.array(x)).direction
        told.append(abs((limb.root_x - x) * uy - limb.root_y * ux) * 1000)
    return told


def upper_less_lower(*bow):
    upper, lower = two_limbs(*bow)
    return upper - lower


BOWS = [("longbow", 66, 13.0), ("hybrid", 62, 15.5), ("recurve", 68, 25.0)]


class TestTwoLimbs:
    @pytest.mark.parametrize("bow", BOWS, ids=lambda b: b[0])
    def test_the_upper_bolt_out_raises_the_tiller_the_lower_lowers_it(self, bow):
        assert upper_less_lower(*bow, 0, 0) == pytest.approx(0, abs=0.05)
        assert upper_less_lower(*bow, 0.5, 0) > 0.5
        assert upper_less_lower(*bow, 0, 0.5) < -0.5

    @pytest.mark.parametrize("bow", BOWS, ids=lambda b: b[0])
    def test_both_out_by_the_same_keeps_it(self, bow):
        assert upper_less_lower(*bow, 1, 1) == pytest.approx(0, abs=0.1)

    def test_the_turn_that_is_expected_lies_between_lever_and_balance(self):
        lever = math.tan(TILT) * 3 * 25.4
        balance = max(upper_less_lower(*bow, 1, 0) for bow in BOWS)
        assert lever < per_turn_mm(0.8) < balance

    @pytest.mark.parametrize(("bow", "unlike"), [(b, u) for b in BOWS[:2] for u in (-1.0, 1.5)])
    def test_a_bow_of_two_limbs_is_brought_home(self, bow, unlike):
        """Not the learner's world: what a turn does is neither its prior nor quite a line."""
        upper, lower, looks = 0.0, 0.0, []
        for _ in range(5):
            both = two_limbs(*bow, upper + unlike, lower)
            looks.append(Measured(*(round(v * 2) / 2 for v in both), upper, lower))
            told = tiller("three_under", Limbs(), looks)
            if told.good:
                break
            upper, lower = upper + told.step_turns[0], lower + told.step_turns[1]
        assert -1.5 <= upper_less_lower(*bow, upper + unlike, lower) <= 2.5
        assert len(looks) <= 4


class TestFreshBows:
    def test_home_after_three_changes_and_hardly_ever_past_the_first_offset(self):
        rng = np.random.default_rng(17)
        home = past = 0
        for _ in range(1000):
            gain = per_turn_mm(0.8) * rng.uniform(0.4, 2.5)
            start = rng.choice([-1, 1]) * rng.uniform(2, 8) + 0.5  # outside what is left alone
            upper = lower = 0.0
            looks, worst = [], 0.0
            for _ in range(4):
                real = start + gain * (upper - lower)
                worst = min(worst, np.sign(start - 0.5) * (real - 0.5))
                seen = real + rng.normal(0, 0.5)
                looks.append(Measured(190 + seen, 190.0, upper, lower))
                told = tiller("three_under", Limbs(), looks)
                if len(looks) < 4:
                    upper, lower = upper + told.step_turns[0], lower + told.step_turns[1]
            real = start + gain * (upper - lower)
            home += -1 - 1.2 <= real <= 2 + 1.2
            past += -worst > abs(start - 0.5)
        print(f"\ntiller: home {home / 1000:.3f}, past the first offset {past}")
        assert home >= 950
        assert past <= 5


class TestWhatIsUsual:
    def test_by_release_and_by_the_archers_wish(self):
        low, high = ordinary_mm("split", Limbs())
        assert 0 < low < high
        assert ordinary_mm("three_under", Limbs())[0] < 0 < ordinary_mm("three_under", Limbs())[1]
        assert ordinary_mm("thumb", Limbs(tiller_wanted_mm=5.0)) == (4.0, 6.0)

    def test_left_alone_where_it_is_usual_and_nothing_before_a_look(self):
        assert tiller("split", Limbs(), []) is None
        told = tiller("split", Limbs(), [Measured(190, 186)])
        assert told.good
        assert told.step_turns == (0.0, 0.0)
        assert told.tiller_mm == pytest.approx(4.0)

    def test_the_first_step_goes_half_of_the_way_and_is_shared_by_both_bolts(self):
        told = tiller("three_under", Limbs(), [Measured(197, 187)])
        upper, lower = told.step_turns
        assert upper < 0 < lower
        assert abs(upper + lower) <= 0.125
        assert told.expected_mm == pytest.approx(5.25, abs=0.8)
