"""A chart learnt from shots: what is known of the archer and the arrow, visit by visit.

    visit: distance, crawl, heights of some arrows  →  θ = (speed, eye, loss, q, kick), with its ±
    chart: the crawl for each distance, how sure it is, and how far that is on the butt

Speed and eye are told apart only by the chart's bend: never read a speed off it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.arrays import Array
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.scatter import AT_M, one_arrow_cm, squares_cm2
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m, point_on_m

NAMES = ("speed_mps", "eye_mm", "speed_loss_per_mm", "q", "kick_mrad")
SPEED_MPS = (52.0, 7.0)  # of an unknown bow: mean and sd
READ_SD_CM = 0.5
VISIT_SD_CM_30M = 1.5  # a visit's own bias, which no number of arrows takes away
MODEL_SD_MRAD = 0.35  # of the model itself, added to what the chart says
SLOWEST_MPS, FASTEST_MPS = 20.0, 120.0
_STEPS = np.array([1e-3, 1e-2, 1e-6, 1e-4, 1e-3])
_CRAWL_STEP_MM, _FALL_M = 0.01, 0.1
_MOST_TURNS, _CLOSE = 40, 1e-7
_DAMPED, _HARDER, _SOFTER = 1e-3, 8.0, 0.2


@dataclass(frozen=True)
class CrawlVisit:
    """Arrows shot with one crawl from one distance: how far above the mark each landed.

    doubt_cm : of something told and not shot, how far off its height may be, one sd; None: as shot
    """

    distance_m: float
    crawl_mm: float
    heights_cm: tuple[float, ...]
    doubt_cm: float | None = None


@dataclass(frozen=True)
class Prior:
    """What is presumed, by NAMES: mean, shape (5,), and covariance, shape (5, 5)."""

    mean: Array
    covariance: Array

    @property
    def sd(self) -> Array:
        """One standard deviation of each, shape (5,)."""
        return np.asarray(np.sqrt(np.diag(self.covariance)))


@dataclass(frozen=True)
class Learned:
    """What the visits say.

    aimed : the likeliest archer and arrow
    covariance : of NAMES, shape (5, 5)
    spread_cm_30m : of one arrow of this archer
    """

    aimed: AimedArrow
    covariance: Array
    spread_cm_30m: float

    def slopes(self, crawl_mm: Array, distance_m: Array) -> tuple[Array, Array]:
        """How the height [m] goes with each of NAMES, shape (n, 5), and with the crawl, (n,)."""
        here = np.array([getattr(self.aimed, n) for n in NAMES])
        height = _heights(self.aimed, _beside(here), crawl_mm, distance_m)
        by = ((height[1:] - height[0]) / _STEPS[:, None]).T
        more = impact_m(self.aimed, crawl_mm + _CRAWL_STEP_MM, distance_m)
        return by, (more - height[0]) / _CRAWL_STEP_MM


@dataclass(frozen=True)
class ChartRow:
    """One distance of a learnt chart.

    crawl_mm : negative beyond point-on, a virtual one
    crawl_sd_mm, impact_sd_cm : how sure it is, in crawl and on the butt
    """

    distance_m: float
    crawl_mm: float
    crawl_sd_mm: float
    impact_sd_cm: float


def prior_of(aimed: AimedArrow, unshot: Unshot) -> Prior:
    """What is presumed of an archer and arrow before any shot: as aimed, with those doubts.

    Source: docs/mechanics C2.
    """
    mean, sd = (np.array([getattr(of, n) for n in NAMES], dtype=float) for of in (aimed, unshot))
    return Prior(mean, np.diag(sd**2))


def _beside(theta: Array) -> Array:
    """The point itself and a small step along each of NAMES, shape (6, 5)."""
    return np.vstack([theta, theta + np.diag(_STEPS)])


def _heights(aimed: AimedArrow, thetas: Array, crawl_mm: Array, distance_m: Array) -> Array:
    """Heights [m] of several archers at once, shape (p, n)."""
    columns: dict[str, Any] = {n: thetas[:, i : i + 1] for i, n in enumerate(NAMES)}
    return impact_m(replace(aimed, **columns), crawl_mm[None, :], distance_m[None, :])


def visit_sd_cm(distance_m: Array, arrows: Array, spread_cm_30m: float) -> Array:
    """How far a visit's mean height is off for reasons of its own [cm], shape (n,)."""
    d = distance_m / AT_M
    own = ((spread_cm_30m * d) ** 2 + READ_SD_CM**2) / arrows
    return np.asarray(np.sqrt(own + (VISIT_SD_CM_30M * d) ** 2))


def learn(visits: Sequence[CrawlVisit], aimed: AimedArrow, prior: Prior) -> Learned:
    """The archer and arrow by their visits.

    Parameters
    ----------
    visits : in any order; none leaves the prior
    aimed : what is not learnt: nock to tip, stroke, drag, slope

    Source: docs/mechanics C2; Levenberg's steps to the likeliest, Laplace's covariance.
    """
    shot = [v for v in visits if v.doubt_cm is None]
    squares = sum(squares_cm2(v.heights_cm, v.distance_m) for v in shot)
    spread = one_arrow_cm(squares, sum(len(v.heights_cm) - 1 for v in shot))
    if not visits:
        return Learned(_at(aimed, prior.mean), prior.covariance, spread)
    weight = np.asarray(np.linalg.inv(prior.covariance), dtype=float)
    d = np.array([v.distance_m for v in visits])
    c = np.array([v.crawl_mm for v in visits])
    y = np.array([np.mean(v.heights_cm) for v in visits]) / 100
    sd = visit_sd_cm(d, np.array([len(v.heights_cm) for v in visits]), spread) / 100
    sd = np.array(
        [s if v.doubt_cm is None else v.doubt_cm / 100 for s, v in zip(sd, visits, strict=True)]
    )
    theta, damped = prior.mean.copy(), _DAMPED
    square, cost = weight, np.inf
    for _ in range(_MOST_TURNS):
        height = _heights(aimed, _beside(theta), c, d)
        by = ((height[1:] - height[0]) / _STEPS[:, None]).T / sd[:, None]
        off = (y - height[0]) / sd
        square = by.T @ by + weight
        pull = by.T @ off + weight @ (prior.mean - theta)
        cost = _cost(off, theta - prior.mean, weight)
        while True:
            step = np.linalg.solve(square + damped * np.diag(np.diag(square)), pull)
            tried = theta + step
            tried[0] = np.clip(tried[0], SLOWEST_MPS, FASTEST_MPS)
            left = (y - _heights(aimed, tried[None], c, d)[0]) / sd
            if _cost(left, tried - prior.mean, weight) <= cost or damped > 1e6:
                break
            damped *= _HARDER
        theta, damped = tried, max(damped * _SOFTER, 1e-9)
        if float(np.abs(step / prior.sd).max()) < _CLOSE:
            break
    return Learned(_at(aimed, theta), np.asarray(np.linalg.inv(square), dtype=float), spread)


def _cost(off: Array, away: Array, weight: Array) -> float:
    return float(off @ off + away @ weight @ away)


def _at(aimed: AimedArrow, theta: Array) -> AimedArrow:
    return replace(aimed, **dict(zip(NAMES, theta.tolist(), strict=True)))


def chart(told: Learned, distance_m: Array) -> list[ChartRow]:
    """The learnt chart for distances [m], shape (n,); a distance that is not reached is left out.

    Source: docs/mechanics C2; the model's own allowance is in both ±.
    """
    d = np.asarray(distance_m, dtype=float)
    crawl = crawl_for_mm(told.aimed, d)
    d, crawl = d[np.isfinite(crawl)], crawl[np.isfinite(crawl)]
    by, by_crawl = told.slopes(crawl, d)
    variance = np.einsum("ni,ij,nj->n", by, told.covariance, by)
    impact = np.sqrt(variance + (MODEL_SD_MRAD / 1000 * d) ** 2)
    return [
        ChartRow(float(x), float(c), float(abs(s / slope)), float(100 * s))
        for x, c, s, slope in zip(d, crawl, impact, by_crawl, strict=True)
    ]


def point_on(told: Learned) -> Estimate | None:
    """Where the learnt archer shoots without a crawl [m]; None beyond what is looked at."""
    on = point_on_m(told.aimed)
    return None if on is None else point_on_with(told, 0.0, on)


def point_on_with(told: Learned, crawl_mm: float, on_m: float) -> Estimate:
    """A distance [m] at which a crawl's arrow is on the mark, with its ±.

    Its ± is that of the height there over how fast the arrow falls through the sight line.
    """
    by, _ = told.slopes(np.array([crawl_mm]), np.array([on_m]))
    below, above = impact_m(told.aimed, crawl_mm, np.array([on_m + _FALL_M, on_m]))
    variance = float((by @ told.covariance @ by.T)[0, 0]) + (MODEL_SD_MRAD / 1000 * on_m) ** 2
    falls = abs(float(below - above)) / _FALL_M
    return Estimate(value=on_m, plus_minus=float(np.sqrt(variance)) / falls, source="measured")
