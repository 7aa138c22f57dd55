"""The draw over time: a growing archer, or a changing form."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.dates import days_between
from lyrandis.core.trials import DrawTrial, KeptTrial, standing

LEAST_DAYS = 14
_DAYS_PER_MONTH = 30.44


@dataclass(frozen=True)
class DrawPoint:
    """One measuring of the draw [in, trade] with its ± and by what."""

    seq: int
    day: str
    draw_in: float
    plus_minus_in: float
    method: str


@dataclass(frozen=True)
class DrawHistory:
    """The draws in order of their days, and how fast they change.

    per_month_in : slope [in a month] and its ±; None under two measurings or within a fortnight
    """

    points: tuple[DrawPoint, ...]
    per_month_in: float | None
    per_month_sd_in: float | None

    @property
    def is_change(self) -> bool:
        """Whether the change is more than twice its ±."""
        return (
            self.per_month_in is not None
            and self.per_month_sd_in is not None
            and abs(self.per_month_in) > 2 * self.per_month_sd_in
        )


def draw_history(trials: tuple[KeptTrial, ...]) -> DrawHistory:
    """Draws over time with the slope of a weighted straight line (weights 1/±²).

    The slope's ± is that of the line through values known to their own ±: first guesses by tape
    or arm span weigh little.
    """
    kept = standing(trials, "draw")
    points = []
    for k in kept:
        trial: DrawTrial = k.trial
        points.append(
            DrawPoint(k.seq, k.day, trial.draw_length_in, trial.plus_minus_in, trial.method)
        )
    if len(points) < 2 or days_between(points[0].day, points[-1].day) < LEAST_DAYS:
        return DrawHistory(tuple(points), None, None)
    months = np.array([days_between(points[0].day, p.day) / _DAYS_PER_MONTH for p in points])
    draws = np.array([p.draw_in for p in points])
    weight = 1 / np.maximum([p.plus_minus_in for p in points], 1 / 16) ** 2
    middle = np.average(months, weights=weight)
    spread = float(np.sum(weight * (months - middle) ** 2))
    slope = float(np.sum(weight * (months - middle) * draws)) / spread
    return DrawHistory(tuple(points), slope, spread**-0.5)
