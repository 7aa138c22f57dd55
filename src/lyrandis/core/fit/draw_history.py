"""The draw over time: a growing archer, or a changing form."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.dates import days_between
from lyrandis.core.parts import DrawMethod

LEAST_DAYS = 14
MEASURE_EVERY_DAYS = 56  # of a child: it grows by some eighths of an inch in two months
LEAST_SD_IN = 1 / 16  # a tape is read no finer
DAYS_PER_MONTH = 30.44


@dataclass(frozen=True)
class DrawPoint:
    """One measuring of the draw [in, trade]: the spread of a draw, the ± of their mean, by what."""

    seq: int
    day: str
    draw_in: float
    plus_minus_in: float
    mean_sd_in: float
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
    def change_in(self) -> tuple[float, float] | None:
        """Change [in] from the first to the last measuring along the line, and its ±."""
        if self.per_month_in is None or self.per_month_sd_in is None:
            return None
        months = days_between(self.points[0].day, self.points[-1].day) / DAYS_PER_MONTH
        return self.per_month_in * months, self.per_month_sd_in * months

    @property
    def is_change(self) -> bool:
        """Whether the change is more than twice its ±."""
        return (
            self.per_month_in is not None
            and self.per_month_sd_in is not None
            and abs(self.per_month_in) > 2 * self.per_month_sd_in
        )


def draw_point(
    seq: int, day: str, method: DrawMethod, draw_in: float, sd_in: float, readings: int
) -> DrawPoint:
    """One measuring: a marked arrow's doubt shrinks with the number of its readings."""
    mean_sd = sd_in / readings**0.5 if method == "marked_arrow" else sd_in
    return DrawPoint(seq, day, draw_in, sd_in, max(mean_sd, LEAST_SD_IN), method)


def draw_history(points: Sequence[DrawPoint]) -> DrawHistory:
    """Draws over time with the slope of a weighted straight line (weights 1/±² of each mean).

    The slope's ± is that of the line through means known to their own ±. The doubt of a first
    guess by tape or arm span does not shrink with the number of readings, so it weighs little.
    """
    if len(points) < 2 or days_between(points[0].day, points[-1].day) < LEAST_DAYS:
        return DrawHistory(tuple(points), None, None)
    months = np.array([days_between(points[0].day, p.day) / DAYS_PER_MONTH for p in points])
    draws = np.array([p.draw_in for p in points])
    weight = 1 / np.array([p.mean_sd_in for p in points]) ** 2
    middle = np.average(months, weights=weight)
    spread = float(np.sum(weight * (months - middle) ** 2))
    slope = float(np.sum(weight * (months - middle) * draws)) / spread
    return DrawHistory(tuple(points), slope, spread**-0.5)
