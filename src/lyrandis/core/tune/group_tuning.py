"""Group tuning: small steps of one setting, a group or more at each; honest about six arrows.

One arrow's spread at each step comes from all its groups, each about its own middle. The tightest
is only called best where chance would hardly make the next one so much wider: how often it does is
simulated for just these numbers of arrows, with flyers.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.stats import chi2

from lyrandis.core.flight.scatter import squares_cm2

Group = tuple[float, Sequence[float], Sequence[float]]  # distance [m], rights and ups [cm]
CHANCE = 0.05  # of steps that are all alike, in which one is called best
LEAST_ARROWS = 3
_DRAWS, _FLYERS, _SEED = 3000, 6.0, 77
_BAND = 0.8
_TRIED_ARROWS = (4, 6, 9, 12, 18, 24, 36, 48, 72, 96)


@dataclass(frozen=True)
class TuningStep:
    """One value of the setting: one arrow's spread each way at 30 m [cm], its 80 % band, arrows."""

    value: float
    spread_cm: float
    low_cm: float
    high_cm: float
    arrows: int


@dataclass(frozen=True)
class GroupsTold:
    """The steps in order of their values.

    best : the value whose arrows stand closest together, where chance hardly explains it
    wider : how many times wider the next one is; needed : from which it would count
    arrows_needed : at each step, to tell a difference as large as was seen; None: more than is shot
    """

    steps: tuple[TuningStep, ...]
    best: float | None
    wider: float
    needed: float
    arrows_needed: int | None


def _free(groups: Sequence[Group]) -> int:
    return sum(2 * (len(rights) - 1) for _, rights, _ in groups)


def compare(steps: Mapping[float, Sequence[Group]]) -> GroupsTold | None:
    """What the groups say of the steps; None under two steps of three arrows.

    Parameters
    ----------
    steps : by the setting's value, its groups

    Source: docs/mechanics E2 and F, own simulation; spreads by the chi-squared distribution.
    """
    told = []
    for value, groups in sorted(steps.items()):
        if sum(len(rights) for _, rights, _ in groups) < LEAST_ARROWS:
            continue
        free = _free(groups)
        squares = sum(squares_cm2(offsets, d) for d, *both in groups for offsets in both)
        tail = (1 - _BAND) / 2
        low, high = (float(np.sqrt(squares / chi2.ppf(p, free))) for p in (1 - tail, tail))
        arrows = sum(len(rights) for _, rights, _ in groups)
        told.append((TuningStep(value, float(np.sqrt(squares / free)), low, high, arrows), free))
    if len(told) < 2:
        return None
    by_spread = sorted(told, key=lambda t: t[0].spread_cm)
    wider = by_spread[1][0].spread_cm / max(by_spread[0][0].spread_cm, 1e-9)
    needed = wider_by_chance(tuple(sorted(free for _, free in told)))
    return GroupsTold(
        tuple(step for step, _ in told),
        by_spread[0][0].value if wider >= needed else None,
        wider,
        needed,
        _arrows_needed(wider, len(told)),
    )


@lru_cache(maxsize=256)
def wider_by_chance(free: tuple[int, ...]) -> float:
    """How many times the tightest's spread the next one is at most by chance, in 19 of 20.

    Parameters
    ----------
    free : degrees of freedom of each step
    """
    rng = np.random.default_rng(_SEED)
    squares = [(rng.standard_t(_FLYERS, (_DRAWS, n)) ** 2).sum(axis=1) / n for n in free]
    spreads = np.sqrt(np.sort(squares, axis=0))
    return float(np.quantile(spreads[1] / spreads[0], 1 - CHANCE))


def _arrows_needed(wider: float, steps: int) -> int | None:
    """Arrows at each step from which such a difference would count."""
    for arrows in _TRIED_ARROWS:
        if wider_by_chance((2 * (arrows - 1),) * steps) <= wider:
            return arrows
    return None
