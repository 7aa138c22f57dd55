"""A matched set: the tightest n of N shafts by weight and spine, exactly (docs/mechanics F3).

Size of a set = the larger of (range of weight)/(weight scale) and (range of spine)/(spine scale).

sorted by weight   ●──●───●●──●────●●─●──●     windows [i … j], no wider than the best so far
within a window    spines kept sorted; the n next to one another with the least range
"""

from __future__ import annotations

from bisect import insort
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say

MASS_SCALE_GR, SPINE_SCALE = 5.0, 12.0  # plain tolerances that cost alike: own choice
MOST_SHAFTS = 500


@dataclass(frozen=True)
class ShaftSeen:
    """A shaft as it was measured: its mark, mass [gr] and static spine [0.001 in, 28 in]."""

    id: str
    mass_gr: float
    spine_28in: float


@dataclass(frozen=True)
class MatchedSet:
    """Shafts that go together.

    ids : in the order they were given
    size : 1 where the set just fills the scales
    """

    ids: tuple[str, ...]
    mass_range_gr: float
    spine_range: float
    size: float

    def said(self) -> Said:
        """Which shafts they are, how far apart, and whether that is within both scales."""
        return say(
            "{ids}: {mass} and {spine} of spine apart, "
            + ("within both." if self.size <= 1 else "more than you would bear."),
            ids=", ".join(self.ids),
            mass=("mass", self.mass_range_gr),
            spine=("spine", self.spine_range),
        )


def matched_set(
    shafts: Sequence[ShaftSeen],
    count: int,
    mass_scale_gr: float = MASS_SCALE_GR,
    spine_scale: float = SPINE_SCALE,
) -> MatchedSet:
    """The tightest `count` of the shafts; of sets as tight, the one whose other range is less.

    Parameters
    ----------
    mass_scale_gr, spine_scale : what range of each costs alike [gr], [0.001 in]

    Raises
    ------
    RefusedError : fewer shafts than are wanted.

    Source: docs/mechanics F3; every window of the weights, its spines by a sliding window.

    >>> told = matched_set([ShaftSeen("a", 400, 500), ShaftSeen("b", 402, 506),
    ...                     ShaftSeen("c", 430, 501)], 2)
    >>> told.ids, told.mass_range_gr, told.spine_range, told.size
    (('a', 'b'), 2, 6, 0.5)
    """
    if len(shafts) < count:
        raise _too_few(len(shafts), count)
    by_mass = sorted(range(len(shafts)), key=lambda i: (shafts[i].mass_gr, i))
    best, found = (float("inf"), float("inf")), tuple(by_mass[:count])  # size, then the other range
    for start in range(len(by_mass) - count + 1):
        lightest = shafts[by_mass[start]].mass_gr
        inside: list[tuple[float, int]] = []  # spine and place, sorted
        for place in by_mass[start:]:
            mass_share = (shafts[place].mass_gr - lightest) / mass_scale_gr
            if mass_share > best[0]:
                break
            insort(inside, (shafts[place].spine_28in, place))
            if len(inside) < count:
                continue
            spans = [
                (inside[k + count - 1][0] - inside[k][0], k) for k in range(len(inside) - count + 1)
            ]
            span, k = min(spans)
            chosen = tuple(p for _, p in inside[k : k + count])
            mass = _range(shafts[p].mass_gr for p in chosen) / mass_scale_gr
            sizes = sorted((mass, span / spine_scale), reverse=True)
            if (sizes[0], sizes[1]) < best:
                best, found = (sizes[0], sizes[1]), chosen
    return _told([shafts[i] for i in sorted(found)], mass_scale_gr, spine_scale)


def _range(values: Iterable[float]) -> float:
    told = tuple(values)
    return max(told) - min(told)


def _too_few(there: int, count: int) -> RefusedError:
    return RefusedError(
        "count",
        say(f"There are {there} shafts: a set of {count} cannot be made of them."),
        float(there),
        "shafts",
    )


def _told(chosen: Sequence[ShaftSeen], mass_scale_gr: float, spine_scale: float) -> MatchedSet:
    mass, spine = _range(s.mass_gr for s in chosen), _range(s.spine_28in for s in chosen)
    return MatchedSet(
        ids=tuple(s.id for s in chosen),
        mass_range_gr=mass,
        spine_range=spine,
        size=max(mass / mass_scale_gr, spine / spine_scale),
    )


def sets_of(
    shafts: Sequence[ShaftSeen],
    count: int,
    mass_scale_gr: float = MASS_SCALE_GR,
    spine_scale: float = SPINE_SCALE,
) -> list[MatchedSet]:
    """The tightest set, then the tightest of what it leaves, and so on while there are enough.

    Raises
    ------
    RefusedError : fewer shafts than are wanted, or two of one mark.
    """
    marks = [s.id for s in shafts]
    twice = next((mark for mark in marks if marks.count(mark) > 1), None)
    if twice is not None:
        raise RefusedError("shafts", say("Two shafts are called {mark}.", mark=twice))
    if len(shafts) < count:
        raise _too_few(len(shafts), count)
    left, found = list(shafts), []
    while len(left) >= count:
        found.append(matched_set(left, count, mass_scale_gr, spine_scale))
        taken = set(found[-1].ids)
        left = [s for s in left if s.id not in taken]
    return found
