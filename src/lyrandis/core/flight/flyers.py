"""Which shaft of a numbered set flies out, and how often chance alone would make one look so.

Each end is taken about its own middle, so that the archer's aim of the day counts for nothing. A
shaft's mean over its shots is weighed by how often it flew; the farthest one is named. Under chance
the marks of the arrows in each end are a lottery: they are drawn anew some thousand times, and the
share of draws in which *some* shaft lies out as far is the odds that it is chance (a permutation
test; looking for the worst of twelve is counted in).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array

DRAWS = 4000
LIKELY_CHANCE = 0.1  # odds above which nothing is named
LEAST_SHOTS, LEAST_SHAFTS = 3, 4  # each shaft's, and how many of them: fewer tell nothing
AT_M = 30.0  # where shots from several distances are compared


@dataclass(frozen=True)
class NumberedShot:
    """Where a numbered shaft landed [cm, + right and + up] in one end, and from how far [m]."""

    end: int
    number: int
    right_cm: float
    up_cm: float
    distance_m: float


@dataclass(frozen=True)
class ShaftSeen:
    """A shaft's mean place about its ends' middles, in cm at 30 m, and how often it was shot."""

    number: int
    right_cm: float
    up_cm: float
    shots: int


@dataclass(frozen=True)
class Flyers:
    """Every shaft's place; the one farthest out, and the odds that it is chance.

    spread_cm : standard deviation of one shot about its shaft's own place, each way, at 30 m
    worst, chance : None while too few were shot
    """

    shafts: tuple[ShaftSeen, ...]
    spread_cm: float | None
    worst: int | None
    chance: float | None

    @property
    def flies_out(self) -> bool:
        """Whether chance hardly explains the worst."""
        return self.chance is not None and self.chance <= LIKELY_CHANCE


def flyers(shots: Sequence[NumberedShot], rng: np.random.Generator) -> Flyers:
    """What numbered groups say of each shaft.

    Parameters
    ----------
    shots : all of them, any distances
    rng : for the lottery; a fixed seed gives the same odds each time

    Source: permutation within ends of the largest weighed mean, own derivation.
    """
    if not shots:
        return Flyers((), None, None, None)
    scale = np.array([AT_M / s.distance_m for s in shots])
    place = np.array([[s.right_cm, s.up_cm] for s in shots]) * scale[:, None]
    ends, end_of = np.unique([s.end for s in shots], return_inverse=True)
    sizes = np.bincount(end_of, minlength=len(ends))
    middle = np.stack([np.bincount(end_of, w) for w in place.T], 1) / sizes[:, None]
    about = place - middle[end_of]
    numbers, who = np.unique([s.number for s in shots], return_inverse=True)
    count: Array = np.bincount(who).astype(np.float64)
    mean = np.stack([np.bincount(who, w) for w in about.T], 1) / count[:, None]
    seen = tuple(
        ShaftSeen(int(n), float(m[0]), float(m[1]), int(c))
        for n, m, c in zip(numbers, mean, count, strict=True)
    )
    free = len(shots) - len(numbers)
    spread = None
    if free > 0:
        spread = float(np.sqrt(((about - mean[who]) ** 2).sum() / 2 / free))
    judged = count >= LEAST_SHOTS
    if judged.sum() < LEAST_SHAFTS or free < 1:
        return Flyers(seen, spread, None, None)
    out = np.where(judged, _out(mean, count), -1.0)
    worst = int(np.argmax(out))
    # The shots of each end stand together; a lottery shuffles the places among them.
    together = np.argsort(end_of, kind="stable")
    mixed = np.argsort(end_of + rng.random((DRAWS, len(shots))), axis=1)
    belongs = (who[together][:, None] == np.arange(len(numbers))) / count
    means = np.einsum("dsx,sk->dkx", about[mixed], belongs)
    drawn = np.where(judged, _out(means, count), -1.0).max(axis=1)
    chance = (1 + int((drawn >= out[worst] - 1e-12).sum())) / (DRAWS + 1)
    return Flyers(seen, spread, int(numbers[worst]), chance)


def _out(mean: Array, count: Array) -> Array:
    """How far out, weighed by how often: squared distance times shots."""
    return np.asarray((mean**2).sum(axis=-1) * count)
