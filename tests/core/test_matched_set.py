"""The tightest set of a dozen: against brute force, at size, and in every tie."""

from itertools import combinations

import numpy as np
import pytest

from lyrandis.core.arrow.matched_set import MatchedSet, ShaftSeen, matched_set, sets_of
from lyrandis.core.errors import RefusedError


def shafts(rng, n, mass_sd=6.0, spine_sd=12.0, step=None):
    mass, spine = rng.normal(400, mass_sd, n), rng.normal(500, spine_sd, n)
    if step:
        mass, spine = np.round(mass / step) * step, np.round(spine / step) * step
    return [
        ShaftSeen(f"s{i}", float(m), float(s))
        for i, (m, s) in enumerate(zip(mass, spine, strict=True))
    ]


def brute(seen, count, mass_scale, spine_scale):
    def size(some):
        masses, spines = [s.mass_gr for s in some], [s.spine_28in for s in some]
        both = (max(masses) - min(masses)) / mass_scale, (max(spines) - min(spines)) / spine_scale
        return max(both), min(both)

    return min(size(some) for some in combinations(seen, count))


class TestAgainstBruteForce:
    @pytest.mark.parametrize("step", [None, 2.0, 10.0])
    def test_every_size_of_set_out_of_up_to_14(self, step):
        rng = np.random.default_rng(3)
        for n in (2, 5, 9, 12, 14):
            seen = shafts(rng, n, step=step)
            for count in range(1, n + 1):
                scales = float(rng.uniform(1, 20)), float(rng.uniform(1, 40))
                told = matched_set(seen, count, *scales)
                both = told.mass_range_gr / scales[0], told.spine_range / scales[1]
                assert (max(both), min(both)) == pytest.approx(
                    brute(seen, count, *scales), abs=1e-12
                )
                assert told.size == pytest.approx(max(both))
                assert len(set(told.ids)) == count

    def test_ranges_are_those_of_the_shafts_named(self):
        seen = shafts(np.random.default_rng(4), 30)
        told = matched_set(seen, 8)
        chosen = [s for s in seen if s.id in told.ids]
        assert [s.id for s in chosen] == list(told.ids)  # in the order they were given
        masses = [s.mass_gr for s in chosen]
        assert told.mass_range_gr == pytest.approx(max(masses) - min(masses))


class TestAtSize:
    def test_200_shafts_exactly(self):
        """Exact: no other set is tighter, by a search that asks every box of this size."""
        seen = shafts(np.random.default_rng(5), 200)
        told = matched_set(seen, 12)
        mass = np.array([s.mass_gr for s in seen])
        spine = np.array([s.spine_28in for s in seen])
        just_less = told.size * (1 - 1e-9)
        for m in mass:  # every box has its lowest weight and its lowest spine at some shaft
            inside = (mass >= m) & (mass <= m + just_less * 5.0)
            for s in spine[inside]:
                assert np.sum(inside & (spine >= s) & (spine <= s + just_less * 12.0)) < 12

    def test_next_best_sets_are_disjoint_and_leave_too_few(self):
        seen = shafts(np.random.default_rng(6), 40)
        sets = sets_of(seen, 12)
        ids = [id for one in sets for id in one.ids]
        assert len(sets) == 3
        assert len(set(ids)) == len(ids) == 36
        assert [one.size for one in sets] == sorted(one.size for one in sets)


class TestScales:
    def test_a_wide_mass_scale_asks_for_spine_alone(self):
        seen = shafts(np.random.default_rng(7), 25)
        told = matched_set(seen, 6, mass_scale_gr=1e9)
        spines = sorted(s.spine_28in for s in seen)
        least = min(b - a for a, b in zip(spines, spines[5:], strict=False))
        assert told.spine_range == pytest.approx(least)

    def test_alike_shafts_cost_nothing_and_too_few_are_refused(self):
        same = [ShaftSeen(str(i), 400.0, 500.0) for i in range(4)]
        assert matched_set(same, 3).size == 0
        for of in (matched_set, sets_of):
            with pytest.raises(RefusedError, match="There are 4 shafts"):
                of(same, 5)
        with pytest.raises(RefusedError, match="Two shafts are called 0"):
            sets_of([*same, same[0]], 2)


class TestWords:
    @pytest.mark.parametrize(
        ("size", "said"), [(1.0, "within both."), (1.01, "more than you would bear.")]
    )
    def test_it_says_whether_it_keeps_within_the_scales(self, size, said):
        told = MatchedSet(("3", "7"), 4.0, 10.0, size).said().plain()
        assert told.startswith("3, 7: 4 gr and ")
        assert told.endswith(said)
