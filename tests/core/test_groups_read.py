"""Groups: what they read as, on both hands and on fresh worlds; steps of a setting compared."""

import math

import numpy as np
import pytest
from test_flight import RIG

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.flight.group_read import Landed, bare_cm_per_group, group_readings
from lyrandis.core.flight.scatter import AT_M, one_arrow_cm, squares_cm2
from lyrandis.core.stations import views
from lyrandis.core.trials import KeptTrial
from lyrandis.core.trials.group import GroupTrial, Impact
from lyrandis.core.tune.group_tuning import compare, wider_by_chance


def shot(rng, middle, sd, n, bare=False):
    return [Landed(*(middle + rng.normal(0, sd, 2)), bare) for _ in range(n)]


class TestRead:
    def test_a_bare_group_to_the_left_is_stiff_for_the_right_hand(self):
        landed = [Landed(x, 0, False) for x in (-1, 0, 1)] + [Landed(x, 0, True) for x in (-5, -4)]
        (told,) = group_readings(landed, 15, plate_left=True)
        assert (told.test, told.outcome) == ("bare_shaft_15m", "stiff/level")

    @pytest.mark.parametrize("mirrored", [False, True])
    def test_both_hands_are_the_same_mirrored(self, mirrored):
        way = -1 if mirrored else 1
        landed = [Landed(way * x, y, b) for x, y, b in
                  ((0, 0, False), (2, 1, False), (9, -8, True), (8, -6, True))]  # fmt: skip
        (told,) = group_readings(landed, 15, plate_left=not mirrored)
        assert told.outcome == "weak2/low"

    @pytest.mark.parametrize(("distance", "bares", "n"), [(10, 2, 0), (25, 2, 0), (15, 1, 0)])
    def test_from_where_it_says_nothing_it_reads_nothing(self, distance, bares, n):
        landed = [Landed(0, 0, False)] * 3 + [Landed(9, 0, True)] * bares
        assert len(group_readings(landed, distance, plate_left=True)) == n

    def test_a_far_group_reads_by_the_archers_own_spread(self):
        tight = [Landed(-9 + x, 0, False) for x in (-1, 0, 1, 0, 1, -1)]
        (told,) = group_readings(tight, 25, plate_left=True)
        assert (told.test, told.outcome, told.counts) == ("group_25m", "stiff", 1.0)
        wide = [Landed(-4 + x, 0, False) for x in (-20, 0, 20, 11, -11, 5)]
        assert group_readings(wide, 25, plate_left=True)[0].outcome == "straight"
        assert group_readings(tight[:4], 25, plate_left=True)[0].counts == pytest.approx(4 / 6)

    def test_a_wide_archer_counts_less(self):
        rng = np.random.default_rng(1)
        counts = [
            group_readings(
                shot(rng, [0, 0], sd, 3) + shot(rng, [0, 0], sd, 3, True), 15, plate_left=True
            )[0].counts
            for sd in (1.0, 12.0)
        ]
        assert counts[0] == 1
        assert counts[1] < 0.6

    @pytest.mark.parametrize("sd_30m", [3.0, 5.5, 9.0])
    def test_the_side_is_seldom_the_wrong_one(self, sd_30m):
        """Three and three at 15 m, a shaft two groups off, with flyers: the other side is told in
        one of twenty at most."""
        rng, wrong = np.random.default_rng(4), 0
        sd = sd_30m / 2
        for _ in range(300):
            off = -2 * bare_cm_per_group(15) * rng.uniform(0.7, 1.3)
            fletched = [Landed(*(sd * rng.standard_t(6, 2)), False) for _ in range(3)]
            bare = [Landed(off + sd * rng.standard_t(6), 0, True) for _ in range(3)]
            wrong += group_readings(fletched + bare, 15, plate_left=True)[0].outcome[0] == "w"
        assert wrong / 300 <= 0.05

    def test_a_straight_shaft_is_mostly_read_so(self):
        rng = np.random.default_rng(6)
        told = [
            group_readings(
                shot(rng, [2, 1], 2.0, 3) + shot(rng, [2, 1], 2.0, 3, True), 15, plate_left=True
            )[0].outcome
            for _ in range(300)
        ]
        assert np.mean([o.endswith("level") for o in told]) >= 0.8
        assert np.mean([o.startswith(("weak2", "stiff2")) for o in told]) <= 0.05

    def test_spread_about_the_own_mean_in_proportion(self):
        assert squares_cm2([1, 3], 15) == pytest.approx(2 * 4)
        assert one_arrow_cm(0, 0) == pytest.approx(5.5)
        assert one_arrow_cm(100 * 8**2, 100) == pytest.approx(np.sqrt((6 * 5.5**2 + 6400) / 106))


def group(*impacts, distance=18.0, by="tapped"):
    return GroupTrial(
        distance_m=distance,
        impacts=tuple(Impact(right_cm=x, up_cm=y, shaft=s) for x, y, s in impacts),
        by=by,
    )


def kept(*trials, rigs=None):
    rigs = rigs or [RIG] * len(trials)
    return tuple(
        KeptTrial(i + 1, f"2026-04-{i + 1:02}T10:00:00+00:00", t, r)
        for i, (t, r) in enumerate(zip(trials, rigs, strict=True))
    )


BESIDE = [(0, 0, "fletched"), (1, 1, "fletched"), (-1, 0, "fletched"),
          (9, 1, "bare"), (10, 0, "bare"), (11, 1, "bare")]  # fmt: skip


class TestOnTheRig:
    def test_a_group_enters_the_belief(self):
        before, after = Bench(RIG), Bench(RIG, kept(group(*BESIDE)))
        assert after.reading.error_groups[0] < before.reading.error_groups[0] - 0.3
        said = " ".join(f.said.plain() for f in views(after, ["flight"])[0].findings)
        assert "Bare" in said or "bare" in said

    def test_practice_counts_for_nothing(self):
        b = Bench(RIG, kept(group(*BESIDE, by="simulated")))
        assert not b.reading.kept
        assert not b.groups.kept

    def test_a_near_group_is_listed_and_reads_nothing(self):
        b = Bench(RIG, kept(group(*BESIDE, distance=8)))
        assert b.groups.kept
        assert not b.reading.kept


def end(rng, sd, n=6, distance=30.0, flyers=False):
    draw = (lambda: sd * rng.standard_t(6, n) * np.sqrt(2 / 3)) if flyers else (
        lambda: rng.normal(0, sd, n))  # fmt: skip
    return distance, draw().tolist(), draw().tolist()


class TestSteps:
    @pytest.mark.parametrize("flyers", [False, True])
    @pytest.mark.parametrize("steps", [2, 3, 4])
    def test_steps_that_are_alike_are_seldom_told_apart(self, steps, flyers):
        rng = np.random.default_rng(11)
        called = [
            compare({i: [end(rng, 6, flyers=flyers)] for i in range(steps)}).best is not None
            for _ in range(400)
        ]
        assert np.mean(called) <= 0.08

    def test_what_is_called_best_is_best(self):
        """Three steps, one of them truly tighter by half: named rarely with six arrows, and then
        rightly; with thirty mostly."""
        rng = np.random.default_rng(12)
        for ends, least in ((1, 0.1), (5, 0.7)):
            told = [
                compare(
                    {v: [end(rng, 4 if v == 2 else 8) for _ in range(ends)] for v in (1, 2, 3)}
                ).best
                for _ in range(200)
            ]
            named = [t for t in told if t is not None]
            assert len(named) / 200 >= least
            assert np.mean([t == 2 for t in named]) >= 0.95

    def test_the_band_of_a_spread_covers(self):
        rng = np.random.default_rng(13)
        told = [compare({0: [end(rng, 5)], 1: [end(rng, 5)]}).steps[0] for _ in range(400)]
        assert 0.75 <= np.mean([s.low_cm <= 5 <= s.high_cm for s in told]) <= 0.85

    def test_more_arrows_need_a_smaller_ratio(self):
        assert wider_by_chance((10, 10)) > wider_by_chance((40, 40)) > 1
        assert wider_by_chance((10,) * 3) < 2.2

    def test_one_step_or_too_few_arrows_tell_nothing(self):
        rng = np.random.default_rng(1)
        assert compare({1: [end(rng, 5)]}) is None
        assert compare({1: [end(rng, 5)], 2: [end(rng, 5, n=2)]}) is None

    def test_the_stepped_setting_is_found_and_the_best_offered(self):
        rng, trials, rigs = np.random.default_rng(3), [], []
        for height, sd in ((8.0, 9), (9.0, 2.5), (10.0, 9)):
            rig = changed(RIG, {"nock_height_mm": height})
            for _ in range(3):
                _, rights, ups = end(rng, sd)
                trials.append(group(*((x, y, "fletched") for x, y in zip(rights, ups, strict=True)),
                                    distance=30))  # fmt: skip
                rigs.append(rig)
        b = Bench(RIG, kept(*trials, rigs=rigs))
        assert b.groups.tuned.key == "nock"
        assert b.groups.tuned.told.best == 9.0
        finding = next(f for f in views(b, ["flight"])[0].findings if "By groups" in f.said.plain())
        assert finding.action.changes == {"nock_height_mm": 9.0}
        alike = [group(*((x, y, "fletched") for x, y in zip(*end(rng, 6)[1:], strict=True)),
                       distance=30) for _ in rigs]  # fmt: skip
        told = views(Bench(RIG, kept(*alike, rigs=rigs)), ["flight"])[0].findings
        assert any("cannot be told apart" in f.said.plain() for f in told)


class TestByHand:
    def test_how_much_three_and_two_count(self):
        """Six arrows' means taken off in two directions leave 2·(3 + 2 − 2) free differences."""
        near, far = [Landed(x, 0, False) for x in (-6, 0, 6)], [Landed(x, 0, True) for x in (-6, 6)]
        (told,) = group_readings(near + far, 15, plate_left=True)
        squares = squares_cm2([-6, 0, 6], 15) + squares_cm2([-6, 6], 15)
        error = one_arrow_cm(squares, 6) * 15 / AT_M * math.sqrt(1 / 2 + 1 / 3)
        assert told.counts == pytest.approx((0.72 * bare_cm_per_group(15) / error) ** 2)
        assert 0.2 < told.counts < 1
