"""Gaps, one crawl for all, counting, anchors: closed forms and independent integrations."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.stats import norm
from test_flight import RIG

from lyrandis.core.aim.anchors import anchored
from lyrandis.core.aim.counting import counted, in_words
from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.aim.gaps import crawled, gap_chart
from lyrandis.core.aim.judging import (
    hits,
    judged,
    judged_within,
    missed_by_crawl,
    missed_by_gap,
)
from lyrandis.core.aim.one_crawl import in_spot, one_crawls
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m, point_on_m

AIMED = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)
D = np.array([10.0, 20.0, 35.0, 50.0])


class TestGaps:
    def test_a_gap_is_what_brings_the_arrow_onto_the_spot(self):
        for row in gap_chart(AIMED, D, 6.0):
            assert row.gap_cm == pytest.approx(100 * float(impact_m(AIMED, 0.0, row.distance_m)))
            edge = float(impact_m(AIMED, 0.0, row.near_m)) * 100 - row.gap_cm
            assert abs(edge) == pytest.approx(5.0, abs=0.02) or row.near_m == 1.0

    def test_it_is_nought_at_point_on_and_over_the_spot_beyond(self):
        on = point_on_m(AIMED)
        near, there, far = gap_chart(AIMED, np.array([on - 10, on, on + 10]), 6.0)
        assert near.gap_cm > 0 > far.gap_cm
        assert there.gap_cm == pytest.approx(0, abs=0.01)
        assert there.tip_widths == pytest.approx(0, abs=0.01)

    def test_without_drag_it_is_the_parabolas(self):
        """y = (s + X) sin a - g X^2 / 2 v^2 on the level."""
        bare = replace(AIMED, drag_per_m=0.0)
        (row,) = gap_chart(bare, np.array([30.0]), 6.0)
        a = np.arctan(0.110 / 0.76)
        flown = (30 - 0.76) / np.cos(a) - 0.5
        y = (0.5 + flown) * np.sin(a) - 9.80665 * flown**2 / 2 / 50**2
        assert row.gap_cm == pytest.approx(100 * y, abs=0.01)

    def test_beside_the_tip_it_is_seen_at_the_same_angle(self):
        (row,) = gap_chart(AIMED, np.array([20.0]), 6.0)
        assert row.tip_widths * 6.0 / 760 == pytest.approx(row.gap_cm / 2000)

    def test_one_crawl_for_all_is_an_archer_with_another_eye(self):
        with_it = gap_chart(replace(AIMED, kick_mrad=1.0), D, 6.0, crawl_mm=40.0)
        as_one = gap_chart(crawled(replace(AIMED, kick_mrad=1.0), 40.0), D, 6.0)
        for a, b in zip(with_it, as_one, strict=True):
            assert a.gap_cm == pytest.approx(b.gap_cm)
            assert (a.near_m, a.far_m) == pytest.approx((b.near_m, b.far_m))

    def test_a_distance_that_is_not_reached_is_refused(self):
        with pytest.raises(RefusedError, match="does not reach"):
            gap_chart(
                AimedArrow(speed_mps=18, eye_mm=60, nock_to_tip_m=0.76), np.array([50.0]), 6.0
            )

    def test_on_a_slope_it_shoots_like_its_level_distance(self):
        (row,) = gap_chart(replace(AIMED, slope_deg=25.0), np.array([40.0]), 6.0)
        (like,) = gap_chart(AIMED, np.array([row.level_distance_m]), 6.0)
        assert row.gap_cm / 40 == pytest.approx(like.gap_cm / row.level_distance_m, abs=0.12)


class TestOneCrawl:
    def test_it_is_the_best_of_all_by_a_search(self):
        most, least = one_crawls(AIMED, D, 10.0, 5.5)
        every = np.arange(0, 160.1, 0.25)
        over = 100 * impact_m(AIMED, every[:, None], D[None, :])
        largest = np.abs(over).max(axis=1)
        assert least.largest_gap_cm == pytest.approx(largest.min(), rel=0.02)
        assert least.crawl_mm == pytest.approx(every[largest.argmin()], abs=0.5)
        assert most.hits >= least.hits
        assert most.largest_gap_cm >= least.largest_gap_cm

    def test_shares_in_the_spot_by_the_normal(self):
        got = in_spot(np.array([0.0, 7.0]), 5.0, np.array([4.0, 4.0]))
        by = [norm.cdf(5, m, 4) - norm.cdf(-5, m, 4) for m in (0, 7)]
        assert got == pytest.approx(by)


class TestCounting:
    def test_rounding_costs_what_the_rounded_crawl_misses_by(self):
        crawl = crawl_for_mm(AIMED, D)
        for parts in (1, 2, 4):
            told = counted(AIMED, D, crawl, 3.0, parts, 18.0)
            for d, c, of in zip(D, crawl, told, strict=True):
                assert of.marks * parts == pytest.approx(round(of.marks * parts))
                assert abs(of.marks * 3.0 - c) <= 1.5 / parts + 1e-9
                assert of.marks_cost_cm == pytest.approx(
                    100 * float(impact_m(AIMED, of.marks * 3.0, d))
                )
                assert of.fingers_cost_cm == pytest.approx(
                    100 * float(impact_m(AIMED, of.fingers * 18.0, d))
                )

    def test_own_words(self):
        assert in_words(3.25, ("a", "b", "seam")) == "seam + 1/4"
        assert in_words(1, ("a",)) == "a"
        assert in_words(2, ("a",)) == in_words(1.5, ("", "b")) == in_words(0, ()) == ""


class TestJudging:
    def test_bias_and_spread_of_made_up_judges(self):
        rng, held, false = np.random.default_rng(4), [], []
        for _ in range(300):
            true = rng.uniform(8, 50, 15)
            for bias, into in ((0.12, held), (0.0, false)):
                told = judged(
                    list(zip(true * (1 + bias) * np.exp(rng.normal(0, 0.1, 15)), true, strict=True))
                )
                if bias:
                    held.append(abs(told.bias.value - 0.12) < 1.645 * told.bias.plus_minus * 1.12)
                else:
                    into.append(told.real)
        assert np.mean(held) > 0.85
        assert np.mean(false) <= 0.14
        assert judged([(20.0, 20.0)] * 6).spread.value < 0.01

    @pytest.mark.parametrize("missed", [missed_by_crawl(AIMED), missed_by_gap(AIMED, 20.0)])
    def test_hits_by_a_hundred_thousand_shots(self, missed):
        rng = np.random.default_rng(6)
        for d in (15.0, 30.0):
            guess = d * 1.05 * np.exp(rng.normal(0, 0.06, 100_000))
            off = 100 * missed(guess, np.full_like(guess, d)) + rng.normal(0, 4.0, 100_000)
            told = float(hits(missed, np.array([d]), 10.0, np.array([4.0]), 0.05, 0.06)[0])
            assert told == pytest.approx(np.mean(np.abs(off) <= 10.0), abs=0.02)

    def test_how_well_it_must_be_judged_loses_a_tenth(self):
        missed, sd = missed_by_crawl(AIMED), np.array([4.0])
        within = float(judged_within(missed, np.array([30.0]), 10.0, sd)[0])
        known = float(hits(missed, np.array([30.0]), 10.0, sd)[0])
        so = float(hits(missed, np.array([30.0]), 10.0, sd, 0.0, within / 30)[0])
        assert so == pytest.approx(0.9 * known, abs=0.01)
        wide = float(judged_within(missed, np.array([30.0]), 20.0, sd)[0])
        assert wide > within


class TestAnchors:
    def test_a_lower_eye_brings_point_on_nearer_and_needs_less_crawl(self):
        chin, cheek = (anchored(AIMED, eye, Unshot(3.0)) for eye in (112, 72))
        assert cheek.point_on_m.value < chin.point_on_m.value
        assert cheek.largest_crawl_mm < chin.largest_crawl_mm
        assert cheek.gap_20m_cm < chin.gap_20m_cm
        on = brentq(lambda d: float(impact_m(replace(AIMED, eye_mm=72), 0.0, d)), 20, 100)
        assert cheek.point_on_m.value == pytest.approx(on, abs=1e-3)

    def test_a_longer_shaft_brings_point_on_nearer(self):
        a = Bench(changed(RIG, {"archer.release": "three_under"})).aiming
        own = next(r for r in a.anchors if r.own)
        assert a.longer.point_on_m.value < own.told.point_on_m.value
        assert 0.02 < a.largest_share < 0.12

    def test_thumb_archers_are_told_heights_and_no_fingers_anchor(self):
        a = Bench(changed(RIG, {"archer.release": "thumb"})).aiming
        assert [r.anchor for r in a.anchors] == ["", "", ""]
        assert a.largest_share is None
