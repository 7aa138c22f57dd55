"""The quiet sweep: which brace height is quietest, how sure that is, and where to listen next.

What was heard is told by a mixture of regressions (`loudness.py`, docs/mechanics E2); a knowledge
gradient chooses the next brace. The sweep ends in one of three ways, each with its own sentence,
and only one of them says that nothing audible is left. All levels are differences within one
session.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.tune.loudness import Loudness, Visit, loudness

Verdict = Literal["found", "as_good_as_told", "out_of_patience"]
LEAST_VISITS, MOST_VISITS = 5, 14  # the first of them spread over the range
CLOSE_MM = 2.0
AUDIBLE_DB = 1.0
LEFT = 0.07  # by the draws: then the sentence holds in nine of ten, on bows of other kinds too
ALIKE_DB = 0.2  # braces that differ by less are as quiet as one another
WORTH_DB = 0.07  # a visit that is expected to gain less is not worth its arrows
MOVE_DB_PER_MM = 0.005  # what moving the string costs: of two like places the nearer is next
DRAWS = 400
_FARTHEST_MM = 0.6  # places that far from what was heard, within this, are as far
_UNHEARD = 0.7  # of the way from the interval to the brace heard beside it
_NODES = 24
SHOTS_NEXT = 3
LEAST_RANGE_MM, MOST_RANGE_MM = 2.0, 120.0
_INTERVAL = (0.1, 0.9)  # quantiles
_SURE_Z = 1.2816  # nine of ten, one-sided
ANYWHERE_MM = (-math.inf, math.inf)


@dataclass(frozen=True)
class Sweep:
    """What the visits come to; arrays of shape (n,) over a grid of 1 mm.

    interval_mm : central 80 % of where the quietest brace may lie
    next_mm : where to listen next; None when done
    verdict : how it ended; None while it goes on
    left : P(more than 1 dB is left to gain); sure : P(the quietest lies within 2 mm of best_mm)
    arrows_to_tell : about how many more would tell a decibel between two braces
    offsets_db : what each source lies above the first one heard [dB]
    """

    brace_mm: Array
    mean_db: Array
    sd_db: Array
    best_mm: float
    interval_mm: tuple[float, float]
    next_mm: float | None
    verdict: Verdict | None
    why: Said
    left: float
    sure: float
    arrows_to_tell: int
    offsets_db: dict[int, float]

    @property
    def done(self) -> bool:
        """Whether it ended."""
        return self.verdict is not None


def _knowledge_gradient(told: Loudness, shots: int) -> Array:
    """Expected fall [dB] of the posterior mean's minimum by one more visit, shape (n,)."""
    mean, cov = told.mean, told.cov
    noise = told.shot_sd_db**2 / shots + told.visit_variance
    moved = cov / np.sqrt(np.diag(cov) + noise)  # column j: what a visit at j moves
    z, w = np.polynomial.hermite_e.hermegauss(_NODES)
    after = (mean[:, None, None] + moved[:, :, None] * z).min(axis=0)
    gain: Array = mean.min() - after @ (w / w.sum())
    return gain


@dataclass(frozen=True)
class Hearing:
    """All that the visits tell, wherever the string reaches; arrays of shape (n,) over a grid.

    gain_db : expected fall of the quietest by one more visit there; best : its place on the grid
    """

    visits: tuple[Visit, ...]
    grid_mm: Array
    told: Loudness
    gain_db: Array
    best: int
    interval_mm: tuple[float, float]
    left: float
    sure: float


def hearing(
    low_mm: float, high_mm: float, visits: Sequence[Visit], rng: np.random.Generator
) -> Hearing:
    """What the visits tell; parameters and errors as of `sweep`."""
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
    told = loudness(visits, grid, (low_mm + high_mm) / 2)
    best = int(np.argmin(told.mean))
    draws = told.draws(DRAWS, rng)
    least = draws.min(axis=1)
    alike = draws <= least[:, None] + ALIKE_DB
    low = np.quantile(grid[np.argmax(alike, axis=1)], _INTERVAL[0])
    high = np.quantile(grid[::-1][np.argmax(alike[:, ::-1], axis=1)], _INTERVAL[1])
    low, high = _between(float(low), float(high), [v.brace_mm for v in visits])
    return Hearing(
        visits=tuple(visits),
        grid_mm=grid,
        told=told,
        gain_db=_knowledge_gradient(told, SHOTS_NEXT),
        best=best,
        interval_mm=(max(low, float(grid[0])), min(high, float(grid[-1]))),
        left=float(np.mean(draws[:, best] - least > AUDIBLE_DB)),
        sure=float(np.mean(np.abs(grid[np.argmin(draws, axis=1)] - grid[best]) <= CLOSE_MM)),
    )


def toward(heard: Hearing, reach_mm: tuple[float, float] = ANYWHERE_MM) -> Sweep:
    """Where to listen next of what the string reaches [mm], or how it ended."""
    told = heard.told
    next_mm, gain = _next(heard, reach_mm)
    verdict = _verdict(len(heard.visits), heard.left, gain)
    arrows = _arrows_to_tell(told)
    return Sweep(
        brace_mm=heard.grid_mm,
        mean_db=told.mean,
        sd_db=np.sqrt(np.maximum(np.diag(told.cov), 0)),
        best_mm=float(heard.grid_mm[heard.best]),
        interval_mm=heard.interval_mm,
        next_mm=None if verdict else next_mm,
        verdict=verdict,
        why=_why(verdict, heard.left, gain, arrows),
        left=heard.left,
        sure=heard.sure,
        arrows_to_tell=arrows,
        offsets_db=told.offsets_db,
    )


def sweep(
    low_mm: float,
    high_mm: float,
    visits: Sequence[Visit],
    rng: np.random.Generator,
    reach_mm: tuple[float, float] = ANYWHERE_MM,
) -> Sweep:
    """Where the bow is quietest, and where to listen next.

    Parameters
    ----------
    low_mm, high_mm : the maker's or typical range [mm]; nothing outside it is ever suggested
    visits : in the order they were made; at least one, each heard or felt
    rng : for the joint draws
    reach_mm : what the string reaches by turning [mm]; nothing beyond is suggested next

    Raises
    ------
    RefusedError : an empty or too wide range, no visit, a visit without level and feel.
    """
    return toward(hearing(low_mm, high_mm, visits, rng), reach_mm)


def _between(low_mm: float, high_mm: float, at_mm: Sequence[float]) -> tuple[float, float]:
    """An interval with part of the way to the braces heard beside it: nobody listened there."""
    below = max((a for a in at_mm if a < low_mm), default=low_mm)
    above = min((a for a in at_mm if a > high_mm), default=high_mm)
    return low_mm - _UNHEARD * (low_mm - below), high_mm + _UNHEARD * (above - high_mm)


def _verdict(visits: int, left: float, gain: float) -> Verdict | None:
    if visits >= LEAST_VISITS and left <= LEFT:
        return "found"
    if visits >= LEAST_VISITS and gain < WORTH_DB:
        return "as_good_as_told"
    return "out_of_patience" if visits >= MOST_VISITS else None


def _arrows_to_tell(told: Loudness) -> int:
    """Arrows at two braces, three a visit, that tell 1 dB between them in nine of ten sessions."""
    visit = told.shot_sd_db**2 / SHOTS_NEXT + told.visit_variance
    return SHOTS_NEXT * 2 * math.ceil(2 * visit * (_SURE_Z / AUDIBLE_DB) ** 2)


def _why(verdict: Verdict | None, left: float, gain: float, arrows: int) -> Said:
    """What ended the sweep, or why it goes on."""
    chance = ("percent", left * 100)
    if verdict == "found":
        return say(
            "Nothing audible is left to gain: that more than {audible} is left has a chance of "
            "{chance}. "
            "Only a quiet place narrower than the gaps between what was heard would not show.",
            audible=("level", AUDIBLE_DB),
            chance=chance,
        )
    if verdict == "as_good_as_told":
        return say(
            "As good as can be told: the next visit would gain next to nothing, yet more than "
            "{audible} may be left with a chance of {chance}. "
            + f"About {arrows} more arrows at two braces would tell a decibel between them.",
            audible=("level", AUDIBLE_DB),
            chance=chance,
        )
    if verdict == "out_of_patience":
        return say(
            f"{MOST_VISITS} visits are enough for one day: the best so far, with a chance of "
            "{chance} that more than {audible} is left. Another day may tell.",
            audible=("level", AUDIBLE_DB),
            chance=chance,
        )
    return say(
        "Listening there gains the most: {gain} are expected, and more than {audible} is left to "
        "gain with a chance of {chance}.",
        gain=("level", gain),
        audible=("level", AUDIBLE_DB),
        chance=chance,
    )


def _next(heard: Hearing, reach_mm: tuple[float, float]) -> tuple[float | None, float]:
    """Where to listen next [mm], and what a visit is expected to gain [dB].

    The first visits spread over the range, each as far as can be from what was heard: a second
    valley or a step shows only where somebody listened.
    """
    grid, visits = heard.grid_mm, heard.visits
    open_ = (grid >= reach_mm[0]) & (grid <= reach_mm[1])
    if not open_.any():
        return None, 0.0
    gain = np.where(open_, heard.gain_db, -np.inf)
    worth = gain - MOVE_DB_PER_MM * np.abs(grid - visits[-1].brace_mm)
    if len(visits) < LEAST_VISITS:
        at = np.array([v.brace_mm for v in visits])
        far = np.where(open_, np.abs(grid[:, None] - at).min(axis=1), -np.inf)
        worth = np.where(far >= far.max() - _FARTHEST_MM, worth, -np.inf)
    return float(grid[np.argmax(worth)]), float(gain.max())
