"""The quiet sweep: which brace height is quietest, how sure that is, and where to listen next.

Loudness over brace is a curved line plus a little of its own (docs/mechanics E2):
f = a0 + a1 x + a2 x² + GP, x = (brace − middle)/10 mm. A knowledge gradient chooses the next
brace; the sweep ends when nothing audible is left to gain. All levels are differences within
one session.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say

LEVEL_SD, SLOPE_SD, CURVE_MEAN, CURVE_SD = 5.0, 3.0, 1.6, 1.2  # dB, per 10 mm, per (10 mm)²
OWN_SD_DB, OWN_LENGTH_MM = 0.5, 7.0
SHOT_SD_DB, VISIT_SD_DB = 1.1, 0.35
FEEL_DB, FEEL_SD_DB, FEEL_OFFSET_SD = -1.5, 1.5, 20.0
LEAST_VISITS, MOST_VISITS = 4, 12
CLOSE_MM, SURE = 2.0, 0.8
AUDIBLE_DB, LEFT = 1.0, 0.1
DRAWS = 400
_OFF_CENTRE = 0.15  # of the range: a first visit further out sends the second to the far end
_NODES = 24
_SHOTS_NEXT = 3
_X_MM = 10.0  # the unit of x
LEAST_RANGE_MM, MOST_RANGE_MM = 2.0, 120.0
_INTERVAL = (0.1, 0.9)  # quantiles


@dataclass(frozen=True)
class Visit:
    """One brace height [mm] listened to: a level [dB] for each shot, feel 1 to 5 or None."""

    brace_mm: float
    levels_db: tuple[float, ...] = ()
    feel: float | None = None


@dataclass(frozen=True)
class Sweep:
    """What the visits come to; arrays of shape (n,) over a grid of 1 mm.

    interval_mm : central 80 % of where the quietest brace may lie
    next_mm : where to listen next; None when done
    """

    brace_mm: Array
    mean_db: Array
    sd_db: Array
    best_mm: float
    interval_mm: tuple[float, float]
    next_mm: float | None
    done: bool
    why: str
    sure: float = field(default=0.0)  # P(the quietest lies within 2 mm of best_mm)


def _prior(a: Array, b: Array, middle: float) -> Array:
    x, y = (a[:, None] - middle) / _X_MM, (b[None, :] - middle) / _X_MM
    own = OWN_SD_DB**2 * np.exp(-0.5 * ((a[:, None] - b[None, :]) / OWN_LENGTH_MM) ** 2)
    return LEVEL_SD**2 + SLOPE_SD**2 * x * y + CURVE_SD**2 * (x * y) ** 2 + own


def _observed(visits: Sequence[Visit]) -> tuple[Array, Array, Array, Array]:
    """Places [mm], values [dB], noise variances and which of them are feel."""
    rows = []
    for v in visits:
        if v.levels_db:
            n = len(v.levels_db)
            rows.append(
                (v.brace_mm, float(np.mean(v.levels_db)), SHOT_SD_DB**2 / n + VISIT_SD_DB**2, 0.0)
            )
        if v.feel is not None:
            rows.append((v.brace_mm, FEEL_DB * v.feel, FEEL_SD_DB**2, 1.0))
    at, value, noise, feel = np.array(rows, dtype=float).T
    return at, value, noise, feel


def posterior(visits: Sequence[Visit], grid_mm: Array, middle_mm: float) -> tuple[Array, Array]:
    """Mean [dB], shape (n,), and covariance, shape (n, n), of the loudness on a grid [mm].

    Feel speaks as a rougher reading with an offset of its own that nobody knows.

    Parameters
    ----------
    visits : braces [mm] with levels [dB] or feel
    grid_mm : braces to tell of, shape (n,) [mm]
    middle_mm : of the range [mm]; x counts from there

    Source: docs/mechanics E2; exact Gaussian regression.
    """
    at, value, noise, feel = _observed(visits)
    heard = feel == 0
    level = value[heard].mean() if heard.any() else 0.0
    start = value[heard][0] if heard.any() else 0.0

    def curve(a: Array) -> Array:
        out: Array = start + CURVE_MEAN * ((a - middle_mm) / _X_MM) ** 2
        return out

    expected = curve(at)
    if (~heard).any():
        expected = expected + np.where(heard, 0.0, (value[~heard] - expected[~heard]).mean())
    cov = _prior(at, at, middle_mm) + np.diag(noise)
    cov += FEEL_OFFSET_SD**2 * np.outer(feel, feel)
    cross = _prior(grid_mm, at, middle_mm)
    solved = np.linalg.solve(cov, np.column_stack([value - expected, cross.T]))
    mean = curve(grid_mm) + cross @ solved[:, 0]
    spread = _prior(grid_mm, grid_mm, middle_mm) - cross @ solved[:, 1:]
    if not heard.any():
        mean = mean - mean.min() + level
    return mean, (spread + spread.T) / 2


def _knowledge_gradient(mean: Array, cov: Array, shots: int) -> Array:
    """Expected fall [dB] of the posterior mean's minimum by one more visit, shape (n,)."""
    noise = SHOT_SD_DB**2 / shots + VISIT_SD_DB**2
    moved = cov / np.sqrt(np.diag(cov) + noise)  # column j: what a visit at j moves
    z, w = np.polynomial.hermite_e.hermegauss(_NODES)
    after = (mean[:, None, None] + moved[:, :, None] * z).min(axis=0)
    gain: Array = mean.min() - after @ (w / w.sum())
    return gain


def sweep(
    low_mm: float, high_mm: float, visits: Sequence[Visit], rng: np.random.Generator
) -> Sweep:
    """Where the bow is quietest, and where to listen next.

    Parameters
    ----------
    low_mm, high_mm : the maker's or typical range [mm]; nothing outside it is ever suggested
    visits : in the order they were made; at least one, each heard or felt
    rng : for the joint draws

    Raises
    ------
    RefusedError : an empty or too wide range, no visit, a visit without level and feel.
    """
    if not LEAST_RANGE_MM <= high_mm - low_mm <= MOST_RANGE_MM:
        raise RefusedError(
            "bow.maker_brace_high_in",
            say(
                "The range of brace heights must be {least} to {most} wide.",
                least=("small", LEAST_RANGE_MM),
                most=("small", MOST_RANGE_MM),
            ),
            low_mm + LEAST_RANGE_MM,
            "mm",
        )
    if not visits:
        raise RefusedError("visits", "Listen to one brace height first.", 1, "visits")
    for i, v in enumerate(visits):
        if not v.levels_db and v.feel is None:
            raise RefusedError(f"visits.{i}.levels_db", "A visit needs a level or a feel.")
    grid = np.arange(np.ceil(low_mm), np.floor(high_mm) + 0.5, 1.0)
    middle = (low_mm + high_mm) / 2
    mean, cov = posterior(visits, grid, middle)
    best = int(np.argmin(mean))
    root = np.linalg.cholesky(cov + 1e-8 * np.eye(len(grid)))
    draws = mean + rng.standard_normal((DRAWS, len(grid))) @ root.T
    lowest = grid[np.argmin(draws, axis=1)]
    sure = float(np.mean(np.abs(lowest - grid[best]) <= CLOSE_MM))
    left = float(np.mean(draws[:, best] - draws.min(axis=1) > AUDIBLE_DB))
    low, high = np.quantile(lowest, _INTERVAL)
    n = len(visits)
    done = n >= MOST_VISITS or (n >= LEAST_VISITS and (sure >= SURE or left <= LEFT))
    if done:
        next_mm = None
        why = (
            "Nothing audible is left to gain: listening on would rarely find a decibel more."
            if left <= LEFT
            else "The quietest brace is known as closely as it can be set."
            if sure >= SURE
            else f"{MOST_VISITS} visits are enough: what differs now is the day, not the brace."
        )
    else:
        next_mm, why = _next(grid, mean, cov, visits, middle, left)
    return Sweep(
        brace_mm=grid,
        mean_db=mean,
        sd_db=np.sqrt(np.maximum(np.diag(cov), 0)),
        best_mm=float(grid[best]),
        interval_mm=(float(low), float(high)),
        next_mm=next_mm,
        done=done,
        why=why,
        sure=sure,
    )


def _next(
    grid: Array, mean: Array, cov: Array, visits: Sequence[Visit], middle: float, left: float
) -> tuple[float, str]:
    first, width = visits[0].brace_mm, grid[-1] - grid[0]
    if len(visits) == 1 and abs(first - middle) > _OFF_CENTRE * width:
        far = float(grid[0] if first > middle else grid[-1])
        return far, "One end of the range was heard; the other end tells the most."
    gain = _knowledge_gradient(mean, cov, _SHOTS_NEXT)
    i = int(np.argmax(gain))
    return float(grid[i]), (
        f"Listening there gains the most: {gain[i]:.1f} dB are expected, and more than "
        f"{AUDIBLE_DB:g} dB is left to gain with a chance of {left:.0%}."
    )
