"""Candidates, the bow at hand, limbs and bolts, and the plan to go up in weight."""

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import force_draw, stack_onset_in
from lyrandis.core.bow.form import own_brace_in, reference_offset_in
from lyrandis.core.bow.statics import rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.bow_length import of_length
from lyrandis.core.fit.candidates import Equal, candidates
from lyrandis.core.fit.hold import Strength
from lyrandis.core.fit.limbs import bolts, limb_pair
from lyrandis.core.fit.line_up import line_up
from lyrandis.core.fit.reach import reach
from lyrandis.core.fit.step_up import weight_plan
from lyrandis.core.parts import Archer, Bow, Limbs, Rig, SchoolNumbers, StepUp
from lyrandis.core.stations import TELLERS

NUMBERS = SchoolNumbers()
EQUAL = Equal(36.0, 330.0)


class TestCandidates:
    def ranked(self, use="woodland", form="hybrid", draw=28.0, weight=36.0):
        bow = Bow(form=form, takedown=False, marked_weight_lbf=weight)
        return candidates(Archer(), bow, draw, use, 0, NUMBERS, EQUAL)

    def test_all_are_compared_at_one_weight(self):
        """The marked weight of the bow asked about moves neither speed nor the last inch."""
        light, heavy = (
            {c.length_in: c for c in self.ranked(weight=w)} for w in (32.0, 48.0)
        )  # both round to 40 lb
        for length, c in light.items():
            assert c.speed_fps == pytest.approx(heavy[length].speed_fps, rel=1e-9)
            assert c.last_inch_lbf == pytest.approx(heavy[length].last_inch_lbf, rel=1e-9)

    @pytest.mark.parametrize("form", ["longbow", "hybrid", "static_tip"])
    def test_longer_is_smoother_more_open_and_taller(self, form):
        by_length = sorted(self.ranked(form=form), key=lambda c: c.length_in)
        for a, b in pairwise(by_length):
            assert b.last_inch_lbf < a.last_inch_lbf
            assert b.string_angle_deg > a.string_angle_deg
            assert b.strung_in > a.strung_in
            if a.stack_reserve_in is not None and b.stack_reserve_in is not None:
                assert b.stack_reserve_in > a.stack_reserve_in

    def test_speed_is_the_virtual_mass_formula(self):
        c = self.ranked()[0]
        curve = force_draw(of_length(Bow(form="hybrid", takedown=False), c.length_in))
        energy = curve.energy_ftlb(28) * 36.0 / curve.force(28) * 1.3558179
        mass = (330.0 + 3.3 * 36.0) * 6.479891e-5
        assert c.speed_fps == pytest.approx(math.sqrt(2 * energy / mass) / 0.3048, rel=1e-6)

    def test_close_cover_ranks_shorter_bows_higher(self):
        near, far = (self.ranked(use=use)[0].length_in for use in ("close_cover", "range"))
        assert near < far
        assert any("handy" in " ".join(c.reasons) for c in self.ranked(use="close_cover"))

    def test_line_up_pulls_all_to_the_same_weight_at_the_draw(self):
        bows = line_up(Bow(), [(66, 25), (70, 25), (62, 19)], 28.0, EQUAL)
        for bow in bows:
            assert np.interp(28, bow.draw_in, bow.force_lbf) == pytest.approx(36, abs=0.05)
        assert bows[0].stack_onset_in < bows[1].stack_onset_in
        assert bows[0].string_angle_deg < bows[1].string_angle_deg
        with pytest.raises(RefusedError, match="At most 3"):
            line_up(Bow(), [(66, None)] * 4, 28.0, EQUAL)


class TestReach:
    def rows(self, bow, draw, wanted=1.5):
        return reach(bow, force_draw(bow), stack_onset_in(bow), wanted, draw)

    def test_an_inch_more_is_the_curves_own_difference(self):
        bow = Bow(length_in=68)
        rows = self.rows(bow, 28.0)
        assert [r.draw_in for r in rows] == [27, 28, 29, 30]
        curve = force_draw(bow)
        assert rows[1].more_lbf == 0
        assert rows[2].more_lbf == pytest.approx(curve.force(29) - curve.force(28))

    def test_regions_follow_one_another(self):
        order = ["hardly_worked", "comfortable", "near_stack", "stacks", "overdrawn", "past_end"]
        bow = Bow(form="longbow", takedown=False, length_in=66)
        seen = [self.rows(bow, d)[1].region for d in np.arange(24, 33, 0.25)]
        places = [order.index(r) for r in seen]
        assert places == sorted(places)
        assert {"comfortable", "near_stack", "stacks", "overdrawn"} <= set(seen)

    def test_the_makers_limit_ends_it(self):
        bow = Bow(length_in=68, maker_max_draw_in=28.5)
        assert [r.region for r in self.rows(bow, 28.0)][2:] == ["past_end", "past_end"]

    def test_past_the_curve_there_is_no_number(self):
        bow = Bow(form="hybrid", takedown=False, length_in=50)
        last = self.rows(bow, 30.0)[-1]
        assert (last.region, last.weight_lbf, last.angle_deg) == ("past_end", None, None)


class TestRebraced:
    """docs/mechanics A5: brace per whole slack string length, solved again at 50 lb."""

    @pytest.mark.parametrize(
        ("form", "length", "material", "gain"),
        [
            ("longbow", 66, "low_stretch", -1.20),
            ("hybrid", 62, "low_stretch", -1.34),
            ("recurve", 68, "low_stretch", -1.20),
            ("static_tip", 54, "low_stretch", -1.4),
            ("longbow", 66, "polyester", -1.24),
            ("hybrid", 62, "polyester", -1.50),
            ("recurve", 68, "polyester", -1.36),
        ],
    )
    def test_a_shorter_string_raises_the_brace(self, form, length, material, gain):
        bow = solve(Bow(form=form, length_in=length, marked_weight_lbf=50), material)
        step = 0.0005
        moved = rebraced(bow, bow.braced.half_slack - step)
        assert (moved.brace_x - bow.brace_x) / (-2 * step) == pytest.approx(gain, rel=0.015)

    def test_the_same_string_gives_the_same_brace(self):
        bow = solve(Bow(length_in=68))
        assert rebraced(bow).brace_x == pytest.approx(bow.brace_x, abs=1e-8)

    def test_a_string_that_cannot_hold_is_refused(self):
        bow = solve(Bow(length_in=68))
        with pytest.raises(RefusedError, match="No brace height"):
            rebraced(bow, bow.braced.half_slack * 1.2)

    def test_force_is_the_gradient_of_energy_after_a_change(self):
        bow = solve(Bow(length_in=68))
        moved = rebraced(bow, limb=replace(bow.limb, tilt=bow.limb.tilt + 0.01))
        x = np.linspace(0.45, 0.66, 400)
        drawn = moved.draw(x)
        assert np.gradient(drawn.energy, x)[5:-5] == pytest.approx(drawn.force[5:-5], rel=2e-3)


class TestLimbs:
    def test_out_is_lighter_and_higher_in_is_heavier_and_lower(self):
        out = bolts(Bow(), "polyester", Limbs(upper_turns=1, lower_turns=1), 28)
        in_ = bolts(Bow(), "polyester", Limbs(upper_turns=-1, lower_turns=-1), 28)
        assert out.weight_pct < 0 < in_.weight_pct
        assert out.brace_mm > 0 > in_.brace_mm
        assert abs(out.weight_pct) == pytest.approx(in_.weight_pct, rel=0.05)
        assert out.uneven_turns == 0

    def test_no_turn_is_no_change_and_one_bolt_counts_half(self):
        assert bolts(Bow(), "polyester", Limbs(), 28).weight_pct == 0
        one = bolts(Bow(), "polyester", Limbs(upper_turns=2), 28)
        both = bolts(Bow(), "polyester", Limbs(upper_turns=1, lower_turns=1), 28)
        assert one.weight_pct == pytest.approx(both.weight_pct)
        assert one.uneven_turns == 2

    def test_five_percent_moves_the_nock_point_as_the_model_says(self):
        told = limb_pair(Limbs(upper_lbf=40, lower_lbf=42), 18.5, 180)
        assert told.nock_mm == pytest.approx((-3.81, -2.032))
        assert told.verdict == "small"
        mirrored = limb_pair(Limbs(upper_lbf=42, lower_lbf=40), 18.5, 180)
        assert mirrored.nock_mm[0] > 0

    @given(st.floats(20, 60), st.floats(-0.049, 0.049))
    def test_the_lateness_grows_with_the_difference(self, weight, share):
        lower = weight * (1 + share)
        told = limb_pair(Limbs(upper_lbf=weight, lower_lbf=lower), 18, 180)
        exact = abs(told.share) / 2 * 2 * 18 / 12 / 180 * 1000
        assert told.late_ms == pytest.approx(exact)

    @pytest.mark.parametrize(
        ("limbs", "verdict"),
        [
            (Limbs(), "unknown"),
            (Limbs(pair="pair"), "pair"),
            (Limbs(upper_lbf=36, lower_lbf=36), "pair"),
            (Limbs(pair="two_lower"), "stopgap"),
            (Limbs(pair="two_makers", upper_lbf=36, lower_lbf=36), "stopgap"),
            (Limbs(upper_class="short", lower_class="medium"), "stopgap"),
            (Limbs(upper_lbf=34, lower_lbf=40), "stopgap"),
        ],
    )
    def test_verdicts(self, limbs, verdict):
        assert limb_pair(limbs, 18, 180).verdict == verdict

    def findings(self, **limbs):
        rig = changed(Rig(), {f"limbs.{k}": v for k, v in limbs.items()})
        return TELLERS["weight"].tell(Bench(rig)).findings

    def test_findings_name_stopgap_and_offer_the_marking(self):
        mixed = self.findings(upper_class="short", lower_class="long")
        assert mixed[0].level != "stop" or "stopgap" in mixed[0].said.plain()
        assert any("stopgap" in f.said.plain() for f in mixed)
        turned = next(
            f
            for f in self.findings(upper_turns=2.0, lower_turns=2.0)
            if "bolts as they stand" in f.said.plain()
        )
        taken = changed(Rig(), turned.action.changes | {})
        assert taken.bow.marked_weight_lbf == pytest.approx(36 * 0.97, rel=0.01)
        assert taken.limbs.upper_turns == 0
        uneven = self.findings(upper_turns=1.0)
        assert any("tiller goes up" in f.said.plain() for f in uneven)

    def test_a_one_piece_bow_has_no_limbs_to_change(self):
        rig = changed(Rig(), {"bow.takedown": False, "limbs.pair": "two_lower"})
        assert not any(
            "limb" in f.said.plain().lower() for f in TELLERS["weight"].tell(Bench(rig)).findings
        )


def steps_of(plan, now, today="2026-01-05", archer=None):
    return weight_plan(plan, archer or Archer(), now, today, Strength()).steps


class TestStepUp:
    def test_steps_are_even_the_last_no_larger_and_days_weeks_apart(self):
        plan = StepUp(goal_lbf=41, step_lbf=2, weeks=6, starts="2026-01-05")
        steps = steps_of(plan, 36.0)
        assert [s.weight_lbf for s in steps] == [38, 40, 41]
        assert [s.day for s in steps] == ["2026-02-16", "2026-03-30", "2026-05-11"]
        assert "36.0 lb" in steps[0].earned_by
        assert "40.0 lb" in steps[2].earned_by

    @settings(max_examples=50)
    @given(st.floats(10, 50), st.floats(1, 30), st.floats(0.5, 6))
    def test_any_plan_ends_at_its_goal_in_small_steps(self, now, more, step):
        plan = StepUp(goal_lbf=now + more, step_lbf=step)
        if more / step > 20:
            with pytest.raises(RefusedError) as caught:
                steps_of(plan, now)
            assert caught.value.limit == 20
            return
        steps = steps_of(plan, now)
        weights = [now, *(s.weight_lbf for s in steps)]
        assert weights[-1] == pytest.approx(now + more)
        assert all(0 < b - a <= step + 1e-6 for a, b in pairwise(weights))

    def test_no_goal_no_plan_and_what_is_refused(self):
        assert steps_of(StepUp(), 36) == ()
        with pytest.raises(RefusedError, match="coach"):
            steps_of(StepUp(goal_lbf=40), 36, archer=Archer(grown="child"))
        with pytest.raises(RefusedError, match="above"):
            steps_of(StepUp(goal_lbf=30), 36)

    def test_a_child_is_sent_to_a_coach(self):
        rig = changed(Rig(), {"archer.grown": "child", "step_up.goal_lbf": 40})
        told = [f.said.plain() for f in TELLERS["weight"].tell(Bench(rig)).findings]
        assert sum("coach" in said for said in told) == 3  # the bow is heavy, the weight, the plan


class TestReferences:
    @given(st.sampled_from(["grip", "back", "plunger"]), st.floats(5, 12), st.floats(-1, 3))
    def test_any_brace_comes_back_from_any_reference(self, own, brace, offset):
        bow = Bow(brace_reference=own, brace_offset_in=offset)
        assert own_brace_in(bow, brace, own) == pytest.approx(brace)
        for reference in ("grip", "back"):
            there = brace - reference_offset_in(bow, own) + reference_offset_in(bow, reference)
            assert own_brace_in(bow, there, reference) == pytest.approx(brace)

    def test_a_plunger_nobody_placed_is_refused(self):
        with pytest.raises(RefusedError) as caught:
            reference_offset_in(Bow(brace_reference="back", brace_offset_in=2.0), "plunger")
        assert caught.value.field == "bow.brace_offset_in"


class TestRebracedProperties:
    @settings(max_examples=25, deadline=None)
    @given(
        st.sampled_from([("longbow", 66), ("hybrid", 62), ("recurve", 68)]),
        st.floats(25, 60),
        st.floats(0.2, 4.0),
    )
    def test_there_and_back_is_where_it_was(self, kind, weight, millimetres):
        """A string shortened and lengthened again gives the brace it had; shorter is higher."""
        form, length = kind
        bow = solve(Bow(form=form, length_in=length, marked_weight_lbf=weight), "polyester")
        moved = rebraced(bow, bow.braced.half_slack - millimetres / 2000)
        assert moved.brace_x > bow.brace_x
        back = rebraced(moved, bow.braced.half_slack)
        assert back.brace_x == pytest.approx(bow.brace_x, abs=1e-6)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(-3, 3), st.floats(25, 60))
    def test_bolts_out_never_pull_more(self, turns, weight):
        bow = Bow(marked_weight_lbf=weight)
        told = bolts(bow, "polyester", Limbs(upper_turns=turns, lower_turns=turns), 28)
        assert told.weight_pct * turns <= 0
        assert told.brace_mm * turns >= 0
