"""Tuning's formulas by hand: twists, settling, sweep, brace, string, nock point and crawls."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from lyrandis.core.aim.crawls import (
    Unshot,
    crawl_chart,
    crawl_plus_minus_mm,
    danger_space_m,
    impact_plus_minus_cm,
)
from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import brace_to_pivot_in, own_brace_in, reference_offset_in
from lyrandis.core.bow.statics import rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m, point_on_m
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String
from lyrandis.core.string.measures import string_fit, string_mass_gr
from lyrandis.core.string.twists import (
    brace_per_string_slack,
    bundle_radius_mm,
    shortening_mm,
    turns_for,
    twist,
)
from lyrandis.core.trials import BraceTrial, KeptTrial
from lyrandis.core.tune.brace import brace_effect, brace_height, start_in
from lyrandis.core.tune.groups import widest_by_chance
from lyrandis.core.tune.loudness import OWN, VISIT_SD_DB, Visit, loudness
from lyrandis.core.tune.nock_point import nock_start
from lyrandis.core.tune.sweep import _knowledge_gradient, sweep

MM = 25.4
FORTY = Estimate(value=40.0, plus_minus=1.6, source="model")


def listen(trials, bow):
    """What the latest day's trials say of a bow."""
    return Bench(Rig(bow=bow), tuple(trials)).brace.listening


class TestTwists:
    bow = solve(Bow(brace_height_in=8.5), "polyester")
    string = String(strands=14, strand_diameter_mm=0.5)

    def test_a_bundle_packed_to_four_fifths(self):
        # Its section is 0.8 of a circle: n (d/2)² = 0.8 R².
        assert bundle_radius_mm(20, 0.4) == pytest.approx(math.sqrt(20 * 0.04 / 0.8))

    def test_a_strand_on_a_helix(self):
        """Strands lie at a mean square radius R²/2: their length is a helix' hypotenuse."""
        whole, radius, turns = 1500.0, 1.2, 25.0
        short = shortening_mm(whole, radius, turns)
        around = 2 * math.pi * turns * radius / math.sqrt(2)
        assert math.hypot(whole - short, around) == pytest.approx(whole)
        assert turns_for(whole, radius, short) == pytest.approx(turns)

    def test_gain_is_the_bow_braced_by_a_shorter_string(self):
        for toward in (0.0, 0.005, -0.005):
            gain, by = brace_per_string_slack(self.bow, toward), toward or 0.0005
            shorter = rebraced(self.bow, self.bow.braced.half_slack - by / gain / 2)
            assert shorter.brace_x - self.bow.brace_x == pytest.approx(by, rel=1e-5)

    def told(self, wanted, now=12.0, brace=8.5, observed=(), string=None):
        return twist(self.bow, string or self.string, 64.0, now, brace, wanted, observed)

    def test_its_numbers_by_hand(self):
        told = self.told(8.6)
        radius = bundle_radius_mm(14, 0.5)
        untwisted = math.hypot(64 * MM, 2 * math.pi * 12 * radius / math.sqrt(2))
        gain = brace_per_string_slack(self.bow, 0.1 * 0.0254)
        here = shortening_mm(untwisted, radius, 12)
        assert here == pytest.approx(untwisted - 64 * MM)
        wanted = turns_for(untwisted, radius, here + 0.1 * MM / gain) - 12
        assert told.turns == pytest.approx(wanted)
        # The brace was read to half a millimetre, the effect is known to a quarter.
        sd = math.hypot(0.5, 0.25 * 0.1 * MM) / gain
        low, high = (turns_for(untwisted, radius, here + 0.1 * MM / gain + d) for d in (-sd, sd))
        assert told.turns_plus_minus == pytest.approx((high - low) / 2)
        assert told.string_change_mm == pytest.approx(-0.1 * MM / gain)
        step = shortening_mm(untwisted, radius, 12.5) - shortening_mm(untwisted, radius, 11.5)
        assert told.brace_per_turn_mm == pytest.approx(gain * step)
        assert (told.factor, told.factor_plus_minus) == pytest.approx((1, 0.25))
        assert told.order_length_in is None

    def test_a_measured_change_weighs_by_its_reading(self):
        """brace = b0 + factor·gain, factor N(1, ¼²), each reading ± ½ mm: the normal equations."""
        radius = bundle_radius_mm(14, 0.5)
        untwisted = math.hypot(64 * MM, 2 * math.pi * 12 * radius / math.sqrt(2))
        gain = brace_per_string_slack(self.bow, 0.05 * 0.0254)
        g = np.array([gain * shortening_mm(untwisted, radius, t) for t in (30.0, 20.0, 12.0)])
        b = np.array([8.75, 8.6, 8.5]) * MM
        rows = np.column_stack([np.ones(3), g]) / 0.5
        a = np.vstack([rows, [0, 1 / 0.25]])
        y = np.append(b / 0.5, 1 / 0.25)
        (b0, factor), *_ = np.linalg.lstsq(a, y, rcond=None)
        cov = np.linalg.inv(a.T @ a)
        told = self.told(8.55, observed=[(30.0, 8.75), (20.0, 8.6)])
        assert (told.factor, told.factor_plus_minus) == pytest.approx(
            (factor, math.sqrt(cov[1, 1]))
        )
        # Turns by the line through all readings, their ± by its whole covariance.
        needed = (8.55 * MM - b0) / factor
        toward = np.array([1.0, needed])
        sd = math.sqrt(toward @ cov @ toward) / factor / gain
        at, low, high = (turns_for(untwisted, radius, needed / gain + d) for d in (0, -sd, sd))
        assert told.turns == pytest.approx(at - 12)
        assert told.turns_plus_minus == pytest.approx((high - low) / 2)

    def test_another_string_from_three_eighths_on(self):
        levels = {w: self.told(w) for w in (8.5 + 0.375, 8.5 + 0.376)}
        near, far = levels.values()
        assert near.order_length_in is None
        gain = brace_per_string_slack(self.bow, 0.376 * 0.0254)
        assert far.order_length_in == pytest.approx(64 - 0.376 / gain)

    @pytest.mark.parametrize(
        ("wanted", "now", "level"), [(8.48, 10.0, "stop"), (8.8, 52.0, "mind")]
    )
    def test_too_few_and_too_many_turns(self, wanted, now, level):
        """0.15 and 0.80 turns an inch: 9.6 and 51.2 on 64 in."""
        told = self.told(wanted, now=now)
        after = now + told.turns
        assert (after < 9.6) if level == "stop" else (after > 51.2)
        assert told.findings[0].level == level
        assert told.order_length_in is not None
        inside = self.told(8.55, now=30.0)
        assert [f.level for f in inside.findings] == ["fine"]

    def test_odd_effects_and_impossible_ones(self):
        assert not any("count" in f.said.plain() for f in self.told(8.55).findings)
        for brace in (9.4, 8.62):  # 20 turns more: far more and far less than the model's
            told = self.told(8.55, observed=[(32.0, brace)])
            odd = not 0.4 <= told.factor <= 1.8
            assert odd == any("count the turns" in f.said.plain() for f in told.findings)
        with pytest.raises(RefusedError, match="do not raise"):
            self.told(8.55, observed=[(32.0, 8.5)])

    def test_what_no_turn_reaches(self):
        with pytest.raises(RefusedError) as caught:
            self.told(8.0)
        radius = bundle_radius_mm(14, 0.5)
        untwisted = math.hypot(64 * MM, 2 * math.pi * 12 * radius / math.sqrt(2))
        gain = brace_per_string_slack(self.bow, -0.5 * 0.0254)
        left = shortening_mm(untwisted, radius, 12) * gain / MM
        assert caught.value.limit == pytest.approx(8.5 - left)


class TestSweep:
    middle, grid = 215.0, np.arange(205.0, 226.0)

    def exact(self, visits, start, shot=1.0):
        """The same posterior from its parts: a0, a1, a2 and a process, by brute conditioning."""
        at = np.array([v.brace_mm for v in visits])
        both = np.concatenate([self.grid, at])
        x = (both - self.middle) / 10
        basis = np.column_stack([np.ones_like(x), x, x**2])
        cov = basis @ np.diag([25.0, 9.0, 1.44]) @ basis.T
        cov += 0.25 * np.exp(-0.5 * ((both[:, None] - both) / 7) ** 2)
        mean = start + 1.6 * x**2
        n = len(self.grid)
        noise = np.diag([shot * 1.21 / len(v.levels_db) + 0.35**2 for v in visits])
        gain = cov[:n, n:] @ np.linalg.inv(cov[n:, n:] + noise)
        y = np.array([np.mean(v.levels_db) for v in visits])
        return mean[:n] + gain @ (y - mean[n:]), cov[:n, :n] - gain @ cov[n:, :n]

    def test_each_regression_of_the_mixture_is_exact(self):
        """The one of 7 mm and .5 dB, at a visit spread of .35 dB, among the twenty-five."""
        visits = [Visit(206, (61.0, 62.0, 60.5)), Visit(224, (60.0,)), Visit(214, (58.9, 59.3))]
        told = loudness(visits, self.grid, self.middle)
        one = VISIT_SD_DB.index(0.35) * len(OWN)
        shot = told.shot_sd_db**2 / 1.21
        wanted_mean, wanted_cov = self.exact(visits, np.mean(visits[0].levels_db), shot)
        assert told.means[one] == pytest.approx(wanted_mean, abs=1e-8)
        assert told.covs[one] == pytest.approx(wanted_cov, abs=1e-8)
        assert told.weights.sum() == pytest.approx(1)
        assert told.mean == pytest.approx(told.weights @ told.means)

    def test_their_weights_are_their_likelihoods(self):
        """Of two visits at one place the difference alone tells how much visits differ."""
        near = loudness([Visit(214, (60.0,) * 3), Visit(214, (60.1,) * 3)], self.grid, self.middle)
        far = loudness([Visit(214, (60.0,) * 3), Visit(214, (64.0,) * 3)], self.grid, self.middle)
        shot = near.shot_sd_db**2 / 3

        def ratio(told, gap):
            v = np.array(VISIT_SD_DB)
            w = told.weights.reshape(len(v), len(OWN)).sum(axis=1)
            likely = np.exp(-(gap**2) / 4 / (shot + v**2)) / np.sqrt(shot + v**2)
            prior = np.exp(-0.5 * (np.log(v / 0.35) / math.log(2)) ** 2)
            return w / w.sum(), prior * likely / (prior * likely).sum()

        for told, gap in ((near, 0.1), (far, 4.0)):
            got, wanted = ratio(told, gap)
            assert got == pytest.approx(wanted, abs=0.01)
        assert far.visit_variance > 4 * near.visit_variance

    def test_feel_is_a_decibel_and_a_half_a_point_with_an_offset_nobody_knows(self):
        def mean(visits):
            return loudness(visits, self.grid, self.middle).mean

        loud = [Visit(206, (60.0,)), Visit(224, (60.0,))]
        plain = mean(loud)
        better = mean([*loud, Visit(210, (), 2), Visit(220, (), 4)])
        # Two points smoother at 220 than at 210 tilts the curve that way, against 3 dB of noise.
        assert (better - plain)[-1] < (better - plain)[0] - 0.3
        same = mean([*loud, Visit(210, (), 3), Visit(220, (), 3)])
        more = mean([*loud, Visit(210, (), 4), Visit(220, (), 4)])
        assert more == pytest.approx(same, abs=0.02)

    def test_the_knowledge_gradient_against_plain_sampling(self):
        rng = np.random.default_rng(5)
        visits = [Visit(206, (61.0, 62.0, 60.5)), Visit(224, (60.0,)), Visit(214, (58.9, 59.3))]
        told = loudness(visits, self.grid, self.middle)
        got = _knowledge_gradient(told, 3)
        for j in (3, 10, 18):
            noise = told.shot_sd_db**2 / 3 + told.visit_variance
            z = rng.standard_normal(40_000)
            step = told.cov[:, [j]] / math.sqrt(told.cov[j, j] + noise)
            moved = told.mean[:, None] + step * z
            assert got[j] == pytest.approx(told.mean.min() - moved.min(axis=0).mean(), abs=0.01)

    def test_the_interval_and_what_is_left_are_the_draws(self):
        visits = [Visit(b, (60 + 0.03 * (b - 214) ** 2,) * 3) for b in (206, 224, 214, 218)]
        told = sweep(205, 225, visits, np.random.default_rng(1))
        mixed = loudness(visits, told.brace_mm, 215.0)
        draws = mixed.draws(20_000, np.random.default_rng(2))
        assert draws.mean(axis=0) == pytest.approx(mixed.mean, abs=0.05)
        assert np.cov(draws.T) == pytest.approx(mixed.cov, abs=0.15)
        best = told.brace_mm[np.argmin(mixed.mean)]
        assert told.best_mm == best
        lowest = told.brace_mm[np.argmin(draws, axis=1)]
        assert told.sure == pytest.approx(np.mean(np.abs(lowest - best) <= 2), abs=0.08)
        at_best = draws[:, told.brace_mm == best][:, 0]
        assert told.left == pytest.approx(np.mean(at_best - draws.min(axis=1) > 1), abs=0.05)
        alike = draws <= draws.min(axis=1)[:, None] + 0.2
        low = np.quantile(told.brace_mm[np.argmax(alike, axis=1)], 0.1)
        below = max(v.brace_mm for v in visits if v.brace_mm < low)
        assert told.interval_mm[0] == pytest.approx(low - 0.7 * (low - below), abs=1)
        assert told.sd_db == pytest.approx(np.sqrt(np.diag(mixed.cov)))

    @pytest.mark.parametrize(("low", "high"), [(205, 206.9), (205, 325.1)])
    def test_a_range_to_sweep_is_two_to_a_hundred_and_twenty_millimetres(self, low, high):
        with pytest.raises(RefusedError):
            sweep(low, high, [Visit(206, (60.0,))], np.random.default_rng(1))
        for width in (2, 120):
            sweep(205, 205 + width, [Visit(206, (60.0,))], np.random.default_rng(1))

    @pytest.mark.parametrize(("first", "to"), [(205, 225), (225, 205), (211.9, 225), (218.1, 205)])
    def test_the_second_visit_is_the_farthest(self, first, to):
        told = sweep(205, 225, [Visit(first, (60.0,))], np.random.default_rng(1))
        assert told.next_mm == to
        assert "gains the most" in told.why.plain()


class TestListening:
    def trial(self, seq, brace, group, arrows):
        return KeptTrial(
            seq, "2026-03-01T10:00:00+00:00",
            BraceTrial(brace_height_in=brace, levels_db=(60.0,), group_cm=group, arrows=arrows), Rig(),
        )  # fmt: skip

    @pytest.mark.parametrize(("times", "wide"), [(0.99, ()), (1.01, (8.75,))])
    def test_a_group_is_wide_beyond_chance_against_the_mean_of_the_others(self, times, wide):
        size = times * widest_by_chance((6, 6, 6)) * 10.0
        groups = ((1, 8.25, 10.0, 6), (2, 8.5, 10.0, 6), (3, 8.75, size, 6))
        assert listen([self.trial(*g) for g in groups], Bow()).wide_groups == wide

    def test_all_braces_stand_to_the_bows_own_reference(self):
        bow = Bow(brace_reference="back")
        told = listen((self.trial(1, 8.5, 10.0, 6),), bow)
        assert told.heard[0].brace_in == pytest.approx(8.5 + 1.75)
        assert (told.low_in, told.high_in) == pytest.approx((8.25 + 1.75, 9.5 + 1.75))
        assert told.curve.brace_in[0] * MM == pytest.approx(math.ceil(8.25 * MM) + 1.75 * MM)


class TestBraceAndString:
    def test_what_an_inch_of_brace_does(self):
        bow = Bow(brace_height_in=8.5)
        told = brace_effect(bow, String(), force_draw(bow), 28)
        lower = bow.model_copy(update={"brace_height_in": 8.0})
        here, there = (force_draw(b).energy_ftlb(28) for b in (bow, lower))
        assert told.energy_per_in_pct == pytest.approx((here - there) / 0.5 / here * 100)
        assert told.string_per_in == pytest.approx(1 / force_draw(bow).statics.brace_per_string())

    def test_references(self):
        back = Bow(brace_height_in=10.25, brace_reference="back")
        assert brace_to_pivot_in(back) == pytest.approx(8.5)
        thick = back.model_copy(update={"brace_offset_in": 2.0})
        assert brace_to_pivot_in(thick) == pytest.approx(8.25)
        assert reference_offset_in(thick, "grip") == 0
        assert own_brace_in(back, 8.5, "grip") == pytest.approx(10.25)
        assert own_brace_in(Bow(), 10.25, "back") == pytest.approx(8.5)
        told = brace_height(back)
        assert told.by_reference_in == {"grip": pytest.approx(8.5), "back": pytest.approx(10.25), "plunger": None}  # fmt: skip
        assert (told.low_in, told.high_in) == pytest.approx((10.0, 11.25))
        assert start_in(back) == pytest.approx(10.25)
        # Held in the maker's range, to the bow's own reference.
        low = Bow(maker_brace_low_in=7, maker_brace_high_in=8)
        assert start_in(low) == 8

    def test_tension_and_length_are_the_solved_bows(self):
        bow = Bow()
        solved = solve(bow)
        told = string_fit(bow, String(), solved, FORTY)
        assert told.needed_length_in == pytest.approx(2 * solved.braced.half_string / 0.0254)
        tension = solved.braced.tension / 4.4482216152605
        assert told.tension_lbf.value == pytest.approx(tension)
        assert told.tension_lbf.plus_minus == pytest.approx(tension * math.hypot(0.15, 0.04))
        assert told.usual_strands == 14
        assert told.usual_length_in == 64
        assert string_fit(bow, String(worked_in=63.5), solved, FORTY).usual_length_in == 63.5
        assert string_mass_gr(bow, String(mass_gr=101)) == 101
        # Without a length its own is the usual one for the bow.
        grams = 14 * 64 * 0.0254 * 0.28 + 1.8
        assert string_mass_gr(bow, String(strands=14)) == pytest.approx(grams * 1e-3 / 64.79891e-6)

    @pytest.mark.parametrize(
        ("release", "low", "high"),
        [
            ("split", 3 / 8 * MM, 5 / 8 * MM),
            ("three_under", MM / 2, 3 / 4 * MM + 6),
            ("thumb", 0, 2),
        ],
    )
    def test_nock_point_starts(self, release, low, high):
        rig = Rig(archer=Archer(release=release), arrow=Arrow(diameter_mm=6))
        told = nock_start(rig)
        assert (told.low_mm, told.high_mm, told.start_mm) == pytest.approx(
            (low, high, (low + high) / 2)
        )
        assert told.assumed
        assert told.height_mm == told.start_mm


class TestCrawls:
    sight = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)

    def flown(self, sight, crawl, distance):
        """Height over the sight line by Runge–Kutta, on any slope."""
        alpha = math.atan((sight.eye_mm - sight.q * crawl) / 1000 / sight.nock_to_tip_m)
        speed = sight.speed_mps * (1 - sight.speed_loss_per_mm * max(crawl, 0))
        beta, k = math.radians(sight.slope_deg), sight.drag_per_m
        g = 9.80665 * np.array([-math.sin(beta), -math.cos(beta)])

        def rate(_, y):
            v = math.hypot(y[2], y[3])
            return [y[2], y[3], g[0] - k * v * y[2], g[1] - k * v * y[3]]

        def there(_, y):
            return y[0] - (distance - sight.nock_to_tip_m)

        there.terminal = True
        c, s = math.cos(alpha), math.sin(alpha)
        begin = [sight.stroke_m * c, sight.stroke_m * s, speed * c, speed * s]
        return solve_ivp(rate, (0, 9), begin, events=there, rtol=1e-9, atol=1e-9).y[1, -1]

    @pytest.mark.parametrize("slope", [-30.0, 0.0, 25.0])
    @pytest.mark.parametrize(("crawl", "distance"), [(0.0, 50.0), (40.0, 30.0), (90.0, 12.0)])
    def test_each_parameter_moves_it_as_the_integration_does(self, slope, crawl, distance):
        for more in (
            {}, {"speed_mps": 42.0}, {"drag_per_m": 0.004}, {"drag_per_m": 0.0}, {"stroke_m": 0.35},
            {"q": 0.8}, {"speed_loss_per_mm": 0.002}, {"nock_to_tip_m": 0.7}, {"eye_mm": 80.0},
        ):  # fmt: skip
            sight = replace(self.sight, slope_deg=slope, **more)
            got = float(impact_m(sight, crawl, distance))
            assert got == pytest.approx(self.flown(sight, crawl, distance), abs=0.03), more

    def test_without_drag_the_series_and_the_formula_meet(self):
        a, b = (replace(self.sight, drag_per_m=k) for k in (0.99e-6, 1.01e-6))
        assert impact_m(a, 0.0, 60.0) == pytest.approx(impact_m(b, 0.0, 60.0), abs=1e-5)

    def test_point_on_is_where_no_crawl_hits(self):
        at = point_on_m(self.sight)
        assert float(impact_m(self.sight, 0.0, at)) == pytest.approx(0, abs=1e-5)
        assert (
            float(impact_m(self.sight, 0.0, at - 5)) > 0 > float(impact_m(self.sight, 0.0, at + 5))
        )
        assert point_on_m(replace(self.sight, speed_mps=150.0, eye_mm=200.0)) is None
        assert point_on_m(replace(self.sight, eye_mm=30.0, speed_mps=20.0)) is not None

    def test_a_chart_by_hand(self):
        d = np.array([10.0, 20.0, 40.0, 80.0])
        chart = crawl_chart(self.sight, d, 5.0, 3.0, 18.0)
        crawls = crawl_for_mm(self.sight, d)
        for row, c in zip(chart.rows[:3], crawls[:3], strict=True):
            assert row.crawl_mm == pytest.approx(c)
            assert (row.stitches, row.fingers) == pytest.approx((c / 3, c / 18))
            assert row.hold_over_cm is None
            assert row.level_distance_m == pytest.approx(row.distance_m)
            assert row.impact_cm_if_5m_nearer == pytest.approx(100 * float(impact_m(self.sight, c, row.distance_m - 5)))  # fmt: skip
            assert row.impact_cm_if_5m_farther == pytest.approx(100 * float(impact_m(self.sight, c, row.distance_m + 5)))  # fmt: skip
        far = chart.rows[3]
        assert far.crawl_mm is None
        lifted = math.atan((110 - 0.92 * crawls[3]) / 760) - math.atan(110 / 760)
        assert far.hold_over_cm == pytest.approx(100 * 80 * lifted)
        assert far.hold_over_cm > 0

    def test_on_a_slope_the_level_distance_is_the_pages_rule(self):
        sight = replace(self.sight, slope_deg=20)
        row = crawl_chart(sight, np.array([30.0])).rows[0]
        beta = math.radians(20)
        alpha = math.atan((110 - 0.92 * row.crawl_mm) / 760)
        assert row.level_distance_m == pytest.approx(30 * math.cos(beta) * (1 + alpha * math.tan(beta)))  # fmt: skip

    def test_the_finger_rule_is_the_line_through_twenty_metres(self):
        d = np.array([10.0, 20.0, 35.0])
        rule = crawl_chart(self.sight, d, finger_width_mm=18).finger_rule
        at = np.linspace(10, 50, 9)
        c = crawl_for_mm(self.sight, at)
        c20 = float(crawl_for_mm(self.sight, np.array([20.0]))[0])
        slope = np.sum((c - c20) * (at - 20)) / np.sum((at - 20) ** 2)
        assert rule.at_20m_fingers == pytest.approx(c20 / 18)
        assert rule.per_10m_fingers == pytest.approx(10 * slope / 18)
        for e, x in zip(rule.errors_cm, d, strict=True):
            ruled = c20 + slope * (x - 20)
            assert e == pytest.approx(100 * float(impact_m(self.sight, ruled, x)))
        near = replace(self.sight, eye_mm=45, speed_mps=40)
        assert 20 < point_on_m(near) < 25
        assert crawl_chart(near, d, finger_width_mm=18).finger_rule is None

    def test_edges_of_danger(self):
        d = np.array([15.0, 30.0])
        c = crawl_for_mm(self.sight, d)
        near, far = danger_space_m(self.sight, c, d, 0.05)
        for i in (0, 1):
            for edge in (near[i], far[i]):
                assert abs(float(impact_m(self.sight, c[i], edge))) == pytest.approx(0.05, abs=1e-4)
        # A spot as large as the barn: the bounds themselves.
        near, far = danger_space_m(self.sight, c, d, 99.0)
        assert near == pytest.approx([1, 1])
        assert far == pytest.approx(d + 60)

    def test_the_charts_doubt(self):
        d = np.array([20.0, 45.0])
        got = crawl_plus_minus_mm(self.sight, d, Unshot(2.0, eye_mm=10.0))

        def half(**more):
            up, down = (crawl_for_mm(replace(self.sight, **{k: v + s * e for k, (v, e) in more.items()}), d) for s in (1, -1))  # fmt: skip
            return (up - down) / 2

        # Speed and eye as given; q, what a crawl costs and its kick by their priors (C2).
        halves = [half(speed_mps=(50, 2.0)), half(eye_mm=(110, 10.0)), half(q=(0.92, 0.05)),
                  half(speed_loss_per_mm=(0.001, 0.0006)), half(kick_mrad=(0.0, 1.0))]  # fmt: skip
        assert got == pytest.approx(np.sqrt(np.square(halves).sum(axis=0)))
        off = impact_plus_minus_cm(self.sight, crawl_for_mm(self.sight, d), d, Unshot(2.0, 0, 0, 0, 0))  # fmt: skip
        flown = [impact_m(replace(self.sight, speed_mps=v), crawl_for_mm(self.sight, d), d) for v in (52, 48)]  # fmt: skip
        assert off == pytest.approx(50 * np.abs(flown[0] - flown[1]))

    @pytest.mark.parametrize(
        ("distance", "good"), [(1.9, False), (2.0, True), (120.0, True), (120.1, False)]
    )
    def test_what_the_flight_covers(self, distance, good):
        sight = replace(self.sight, speed_mps=70)
        if good:
            assert crawl_chart(sight, np.array([distance])).rows
        else:
            with pytest.raises(RefusedError) as caught:
                crawl_chart(sight, np.array([distance]))
            assert caught.value.limit == (2.0 if distance < 2 else 120.0)
        long = replace(self.sight, nock_to_tip_m=1.3, stroke_m=0.6)
        with pytest.raises(RefusedError):
            crawl_chart(long, np.array([2.3]))
        assert crawl_chart(long, np.array([2.41])).rows
