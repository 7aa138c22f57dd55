"""Judging distance by eye: how far an archer is off as a rule and by chance, and what it costs.

guess, then walk:  ln(guess / walked)  →  bias and spread
a shot:  the guess sets crawl or gap, the arrow flies the true distance, and scatters besides
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import t as student

from lyrandis.core.aim.one_crawl import in_spot
from lyrandis.core.arrays import Array
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m

LEAST = 6  # guesses: fewer say nothing of a spread
_GUESSES = 9  # nodes of Gauss and Hermite, over which a spread is summed
LOST = 0.1  # of the hits: so much is told as a loss
_MOST_SPREAD, _SPREAD_STEPS = 0.3, 31
_NEAREST_M = 2.0
_INTERVAL = 0.9


@dataclass(frozen=True)
class Judged:
    """How an archer judges distance.

    bias, spread : shares of the distance; bias + guesses too far; each with its ±, one sd
    real : whether the bias is more than chance in nine cases of ten
    """

    guesses: int
    bias: Estimate
    spread: Estimate
    real: bool


def judged(guesses: Sequence[tuple[float, float]]) -> Judged | None:
    """How an archer judges, by pairs of guess and true distance; None from fewer than LEAST.

    >>> judged([(20.0, 20.0)] * 5) is None
    True
    """
    n = len(guesses)
    if n < LEAST:
        return None
    off = np.log([g / d for g, d in guesses])
    sd = max(float(off.std(ddof=1)), 1e-3)
    of_mean = sd / math.sqrt(n)
    real = abs(off.mean()) > float(student.ppf((1 + _INTERVAL) / 2, n - 1)) * of_mean
    return Judged(
        n,
        Estimate(value=math.expm1(float(off.mean())), plus_minus=of_mean, source="measured"),
        Estimate(value=sd, plus_minus=sd / math.sqrt(2 * (n - 1)), source="measured"),
        bool(real),
    )


Missed = Callable[[Array, Array], Array]  # guess [m], true distance [m] → height off the spot [m]


def missed_by_crawl(aimed: AimedArrow) -> Missed:
    """Where the arrow lands off when the crawl is that of the guess; beyond point-on the tip is
    held over as the guess asks."""

    def missed(guess_m: Array, true_m: Array) -> Array:
        crawl = crawl_for_mm(aimed, guess_m)
        held = np.where(crawl < 0, impact_m(aimed, 0.0, guess_m), 0.0)
        return np.asarray(impact_m(aimed, np.maximum(crawl, 0.0), true_m) - held)

    return missed


def missed_by_gap(aimed: AimedArrow, crawl_mm: float = 0.0) -> Missed:
    """Where the arrow lands off when the gap on the butt is that of the guess."""

    def missed(guess_m: Array, true_m: Array) -> Array:
        return np.asarray(impact_m(aimed, crawl_mm, true_m) - impact_m(aimed, crawl_mm, guess_m))

    return missed


def hits(
    missed: Missed,
    distance_m: Array,
    spot_half_height_cm: float,
    sd_cm: Array,
    bias: float = 0.0,
    spread: float = 0.0,
) -> Array:
    """The share of arrows in the spot, up and down, at distances [m] judged by eye; shape (n,).

    Parameters
    ----------
    sd_cm : one arrow's scatter at each distance, with the chart's own doubt; shape (n,)
    bias, spread : of the judging, shares of the distance

    Source: own derivation; the guess scatters log-normally.
    """
    d = np.asarray(distance_m, dtype=float)
    nodes, weights = np.polynomial.hermite_e.hermegauss(_GUESSES)
    guess = np.maximum(d * (1 + bias) * np.exp(spread * nodes[:, None]), _NEAREST_M)
    off = 100 * missed(guess.ravel(), np.tile(d, _GUESSES)).reshape(guess.shape)
    return np.asarray(weights / weights.sum() @ in_spot(off, spot_half_height_cm, sd_cm))


def judged_within(
    missed: Missed, distance_m: Array, spot_half_height_cm: float, sd_cm: Array
) -> Array:
    """How well distance must be judged [m, one sd] for a tenth of the hits to be lost; shape (n,).

    Not more than 0.3 of the distance is looked at; where that costs less, it is 0.3.
    """
    d = np.asarray(distance_m, dtype=float)
    spreads = np.linspace(0.0, _MOST_SPREAD, _SPREAD_STEPS)
    share = np.array([hits(missed, d, spot_half_height_cm, sd_cm, 0.0, s) for s in spreads])
    share = np.minimum.accumulate(share / share[0], axis=0)
    return np.array(
        [x * np.interp(-(1 - LOST), -column, spreads) for x, column in zip(d, share.T, strict=True)]
    )
