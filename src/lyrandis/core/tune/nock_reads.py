"""Nock height from reads: where the arrow's tail stood in the butt, read after a few arrows.

The unknown is the height h* at which the arrow leaves level. n = height − h* is the nock point's
error at a read; a read says low, level or high:

n < −2 mm      bounces off the rest, and reads high so often: the false high
|n| small      level
n > 0          high; a read is blurred by the release (r = 1, 1.4, 2), and now and then misread

The belief is a table over h* and r. The next height is the one that is told to teach most; after
three reads, the one after which a height within 2 mm is likeliest found.

Source: docs/mechanics D, its vertical part, over the height itself instead of the present error.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

Tail = Literal["low", "level", "high"]
TAILS: tuple[Tail, ...] = ("low", "level", "high")

NEAR_MM = 2.0  # a height found is this near
PRIOR_SD_MM = 5.0  # of h* about the ordinary start
REACH_MM, STEP_MM = 14.0, 0.5  # of the table, about the ordinary start
TRY_REACH_MM, TRY_STEP_MM = 12.0, 1.0  # of the heights that are suggested
RELEASES, RELEASE_SHARES = (1.0, 1.4, 2.0), (0.5, 0.35, 0.15)
READ_SD_MM = 1.1
READ_FIXED, READ_RELEASE = 0.6, 0.4  # shares of its variance; the second falls with the arrows
REFERENCE_ARROWS = 3  # of the read that the spread is given for
TRY_ARROWS = 2  # a height: more heights tell more than more arrows at one
LEVEL_MM = 1.2  # of error, that still reads level
MISREAD = 0.07
BOUNCE_BELOW_MM, BOUNCE_SHARE = -2.0, 0.35
AGAIN = (1.0, 0.6, 0.4)  # how much the first, second and later reads in one place count
SAME_MM, SAME_M = 0.5, 2.0  # nearer in height and distance is one place
FOUND = 0.97  # how likely a height within 2 mm must be for it to be called found
LEARN_FIRST = 3  # reads that are made to learn; then to end
MOST_ARROWS = 15  # more of the same will not do
Array = NDArray[np.float64]


@dataclass(frozen=True)
class NockRead:
    """One read: the nock point's height [mm above square], the tail, arrows, and distance [m]."""

    height_mm: float
    tail: Tail
    arrows: int = TRY_ARROWS
    distance_m: float | None = None


@dataclass(frozen=True)
class NockFound:
    """What the reads come to.

    best_mm : the height within 2 mm of which h* lies likeliest; near: how likely
    low_mm, high_mm : a 90 % band of h*
    next_mm : the height to try next; None once found or out of patience
    false_high : how likely it is, after a latest read of high, that the nock is too low
    end : found, or out_of_patience
    """

    best_mm: float
    near: float
    low_mm: float
    high_mm: float
    next_mm: float | None
    false_high: float
    end: Literal["found", "out_of_patience"] | None
    reads: int


def outcome_chances(error_mm: Array, release: float, arrows: int = REFERENCE_ARROWS) -> Array:
    """Chances of low, level and high at nock-point errors; shape (..., 3), summing to 1.

    Parameters
    ----------
    error_mm : height less h* [mm], any shape
    release : how much the release blurs [-], 1 for a clean one
    """
    spread = READ_RELEASE * release**2 * REFERENCE_ARROWS / arrows
    sd = READ_SD_MM * math.sqrt(READ_FIXED + spread)
    low, high = ndtr((-LEVEL_MM - error_mm) / sd), ndtr((error_mm - LEVEL_MM) / sd)
    bounce = np.where(error_mm < BOUNCE_BELOW_MM, BOUNCE_SHARE, 0.0)
    told = np.stack(
        [low * (1 - bounce), (1 - low - high) * (1 - bounce), high * (1 - bounce) + bounce], -1
    )
    return np.asarray((1 - MISREAD) * told + MISREAD / len(TAILS))


def _offsets() -> Array:
    return np.arange(-REACH_MM, REACH_MM + STEP_MM / 2, STEP_MM)


@lru_cache(maxsize=512)
def _table(height_mm: float, arrows: int) -> Array:
    """Chances of each tail by h* and release, the height counted from the start: (h, r, 3)."""
    error = height_mm - _offsets()
    return np.stack([outcome_chances(error, r, arrows) for r in RELEASES], 1)


def _prior() -> Array:
    h = np.exp(-0.5 * (_offsets() / PRIOR_SD_MM) ** 2)
    return np.asarray(np.outer(h / h.sum(), RELEASE_SHARES))


def _times_before(reads: Sequence[NockRead], height_mm: float, distance_m: float | None) -> int:
    """How often it was read in one place already."""

    def same(read: NockRead) -> bool:
        far = None not in (read.distance_m, distance_m) and (
            abs((read.distance_m or 0) - (distance_m or 0)) >= SAME_M
        )
        return abs(read.height_mm - height_mm) < SAME_MM and not far

    return sum(map(same, reads))


def _chances(table: Array, times_before: int) -> Array:
    """A table whose further readings count less, for they share what misled the first."""
    power = AGAIN[min(times_before, len(AGAIN) - 1)]
    if power == 1.0:
        return table
    weaker = table**power
    return np.asarray(weaker / weaker.sum(-1, keepdims=True))


def belief(start_mm: float, reads: Sequence[NockRead]) -> Array:
    """How likely each h* (from 14 mm below the start to 14 above, by .5) and release is."""
    p = _prior()
    for i, read in enumerate(reads):
        before = _times_before(reads[:i], read.height_mm, read.distance_m)
        table = _chances(_table(round(read.height_mm - start_mm, 3), read.arrows), before)
        p = p * table[:, :, TAILS.index(read.tail)]
        p = p / p.sum()
    return p


def _near() -> tuple[Array, Array]:
    """Heights that may be named, and for each which h* lie within reach of it."""
    heights = np.arange(-TRY_REACH_MM, TRY_REACH_MM + STEP_MM / 2, STEP_MM)
    return heights, (np.abs(heights[:, None] - _offsets()[None]) <= NEAR_MM).astype(float)


def _next(
    start_mm: float, reads: Sequence[NockRead], p: Array, low_mm: float, high_mm: float
) -> float:
    _, within = _near()
    here = reads[-1].height_mm - start_mm
    best, chosen = -math.inf, here
    for h in np.arange(-TRY_REACH_MM, TRY_REACH_MM + TRY_STEP_MM / 2, TRY_STEP_MM):
        if not low_mm <= start_mm + h <= high_mm:
            continue
        before = _times_before(reads, start_mm + h, reads[-1].distance_m)
        joint = p[:, :, None] * _chances(_table(float(h), TRY_ARROWS), before)
        weight = joint.sum((0, 1))
        after = joint.sum(1) / weight
        if len(reads) < LEARN_FIRST:
            score = float((weight * (after * np.log(after + 1e-12)).sum(0)).sum())
        else:
            score = float((weight * (within @ after).max(0)).sum())
        score -= 1e-4 * abs(float(h) - here)
        if score > best:
            best, chosen = score, float(h)
    return start_mm + chosen


@lru_cache(maxsize=64)  # asked for by the rail of every page, and moved only by a read
def nock_found(
    start_mm: float, reads: tuple[NockRead, ...], low_mm: float = -10, high_mm: float = 40
) -> NockFound | None:
    """What reads come to, and the next height to try.

    Parameters
    ----------
    start_mm : the ordinary start [mm above square]
    reads : in the order they were made
    low_mm, high_mm : the heights that may be suggested lie between

    Returns
    -------
    None before the first read.
    """
    if not reads:
        return None
    p = belief(start_mm, reads)
    over = p.sum(1)
    heights, within = _near()
    chance = within @ over
    best = int(np.argmax(chance))
    cumulated = np.cumsum(over)
    offsets = _offsets()
    band = [float(offsets[np.searchsorted(cumulated, q)]) for q in (0.05, 0.95)]
    latest = reads[-1]
    false_high = 0.0
    if latest.tail == "high":
        false_high = float(over[latest.height_mm - start_mm - offsets < BOUNCE_BELOW_MM].sum())
    end: Literal["found", "out_of_patience"] | None = None
    if chance[best] >= FOUND:
        end = "found"
    elif sum(read.arrows for read in reads) + TRY_ARROWS > MOST_ARROWS:
        end = "out_of_patience"
    return NockFound(
        best_mm=start_mm + float(heights[best]),
        near=float(chance[best]),
        low_mm=start_mm + band[0],
        high_mm=start_mm + band[1],
        next_mm=None if end else _next(start_mm, reads, p, low_mm, high_mm),
        false_high=false_high,
        end=end,
        reads=len(reads),
    )
