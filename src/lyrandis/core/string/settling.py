"""A new string settles: the brace height sinks as the fibre creeps, fast at first, then hardly.

brace(h) = b0 − a · s(h) after h hours braced (docs/mechanics E2a), b0 free, `a` positive, the shape
s drawn from `creep.py`. For each shape b0 and `a` are told exactly by the readings; the shapes are
weighed by how well they explain them. Natural fibre moves with the weather and is not predicted.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import log_ndtr, ndtr, ndtri

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate, Source
from lyrandis.core.parts import StringMaterial
from lyrandis.core.string.creep import FALL_MM, FORTNIGHT_H, SHAPES, shapes
from lyrandis.core.units import MM_PER_IN

READING_SD_MM = 0.5
SETTLED_IN = 1 / 32  # what a day may still bring
DAY_H = 24.0
SURE = 0.97  # by the draws: then it holds in nine of ten, with creep of other kinds too
_LIKELY = 0.9
_BAND = 0.9
_LOOKS_H = np.array([1.0, 2.0, 3.0, 4.0, 6.0, 8.0, 12.0, 18.0, 24.0])  # after the last reading
_MOST_OF = 0.8  # of what the best look within a day narrows: an earlier one is worth that
_MISFIT = 3.0
_SHOWN_H = 48.0
_STEPS = 40
_SEED = 12


@dataclass(frozen=True)
class Settling:
    """Where a new string's brace stands after a fortnight, and whether it still moves.

    final_brace_in : brace height after a fortnight braced [in]; band_in : its central 90 %
    sinks_in : still to sink after the last reading [in]
    explained : some creep comes to the readings within thrice a reading's error; else no number
        here is to be shown
    settled : the next day moves it by less than 1/32 in; sure : how sure that is
    settled_after_h : hours braced from which that is likely; None if not within a fortnight
    next_look_h : hours braced at which the next reading is worth most (`_Draws.best_look`)
    hours, brace_in, low_in, high_in : the curve and its central 90 %, shape (n,)
    """

    final_brace_in: Estimate
    band_in: tuple[float, float]
    sinks_in: Estimate
    explained: bool
    settled: bool
    sure: float
    settled_after_h: float | None
    next_look_h: float
    hours: Array
    brace_in: Array
    low_in: Array
    high_in: Array


class _Draws:
    """Joint draws of start, fall and shape, given readings [h, mm]."""

    def __init__(self, material: StringMaterial, hours: Array, brace_mm: Array):
        mean, sd = FALL_MM[material]
        self.shapes = shapes()
        rng = np.random.default_rng(_SEED)
        s = self.shapes.at(hours)
        # b = b0 − a s: with b0 free only the differences from the mean speak.
        s0, b0 = s.mean(axis=1), brace_mm.mean()
        away, off = s - s0[:, None], brace_mm - b0
        precision = 1 / sd**2 + (away**2).sum(axis=1) / READING_SD_MM**2
        pull = mean / sd**2 - (away @ off) / READING_SD_MM**2
        centre, spread = pull / precision, precision**-0.5
        log_weight = 0.5 * (pull**2 / precision - np.log(precision)) + log_ndtr(centre / spread)
        weight = np.exp(log_weight - log_weight.max())
        self.weight = weight / weight.sum()
        u = rng.uniform(ndtr(-centre / spread), 1.0)
        self.fall_mm = np.maximum(centre + spread * ndtri(np.minimum(u, 1 - 1e-12)), 0.0)
        noise = rng.standard_normal(SHAPES) * READING_SD_MM / np.sqrt(len(hours))
        self.start_mm = b0 + self.fall_mm * s0 + noise
        least = off + np.maximum(centre, 0.0)[:, None] * away
        self.misfit_mm = float(np.sqrt((least**2).mean(axis=1).min()))

    def brace_mm(self, hours: Array) -> Array:
        """Brace heights [mm] of each draw, shape (draws, hours)."""
        brace: Array = self.start_mm[:, None] - self.fall_mm[:, None] * self.shapes.at(hours)
        return brace

    def falls_mm(self, start_h: float, end_h: float) -> Array:
        """What each draw sinks by between two times [mm], shape (draws,)."""
        then = self.shapes.at(np.array([start_h, end_h]))
        falls: Array = self.fall_mm * (then[:, 1] - then[:, 0])
        return falls

    def estimate_in(self, values_mm: Array, source: Source) -> Estimate:
        """Mean and sd of values [mm], in inches."""
        mean = float(self.weight @ values_mm)
        sd = float(np.sqrt(self.weight @ (values_mm - mean) ** 2))
        return Estimate(value=mean / MM_PER_IN, plus_minus=sd / MM_PER_IN, source=source)

    def band_in(self, values_mm: Array) -> tuple[Array, Array]:
        """The shortest 90 % [in] of values [mm] of shape (draws, n): low and high, shape (n,).

        Shortest, since what is still to come is often next to nothing: a middle 90 % leaves
        just that out.
        """
        order = np.argsort(values_mm, axis=0)
        values = np.take_along_axis(values_mm, order, axis=0)
        reached = np.cumsum(self.weight[order], axis=0)
        low, high = np.empty(values.shape[1]), np.empty(values.shape[1])
        for j in range(values.shape[1]):
            before = np.concatenate([[0.0], reached[:-1, j]])
            end = np.searchsorted(reached[:, j], before + _BAND)
            fits = end < SHAPES
            width = np.where(fits, values[np.minimum(end, SHAPES - 1), j] - values[:, j], np.inf)
            i = int(np.argmin(width))
            low[j], high[j] = values[i, j], values[end[i], j]
        return low / MM_PER_IN, high / MM_PER_IN

    def sure(self, hours: float) -> float:
        """P(the day after `hours` moves the brace by less than 1/32 in)."""
        moved = self.falls_mm(hours, hours + DAY_H)
        return float(self.weight @ (moved < SETTLED_IN * MM_PER_IN))

    def best_look(self, last_h: float) -> float:
        """Hours braced of the earliest look that narrows the end nearly as much as any will."""
        seen = self.brace_mm(last_h + _LOOKS_H)
        final = self.brace_mm(np.array([FORTNIGHT_H]))[:, 0]
        seen = seen - self.weight @ seen
        final = final - self.weight @ final
        told = (self.weight @ (seen * final[:, None])) ** 2 / (
            self.weight @ seen**2 + READING_SD_MM**2
        )
        before = self.weight @ final**2
        narrowed = np.sqrt(before) - np.sqrt(np.maximum(before - told, 0.0))
        return float(last_h + _LOOKS_H[np.argmax(narrowed >= _MOST_OF * narrowed.max())])


def settle(material: StringMaterial, readings: Sequence[tuple[float, float]]) -> Settling:
    """Tell the settling of a new string.

    Parameters
    ----------
    readings : pairs of hours braced since it was new and brace height [in]

    Raises
    ------
    RefusedError : natural fibre, or no reading.

    Source: docs/mechanics E2a; each reading is good to half a millimetre.

    >>> told = settle("polyester", readings=[(0.0, 8.5), (2.0, 8.25), (6.0, 8.125), (24.0, 8.0)])
    >>> round(told.final_brace_in.value, 1), told.settled
    (7.8, False)
    """
    if material == "natural":
        raise RefusedError(
            "string.material", "Natural fibre moves with the weather: measure it each time."
        )
    if not readings:
        raise RefusedError("readings", "Measure the brace height of the new string once.")
    return _settled(material, tuple(sorted(readings)))


@lru_cache(maxsize=64)
def _settled(material: StringMaterial, readings: tuple[tuple[float, float], ...]) -> Settling:
    """The same readings come with each move of a slider: they are told once."""
    h, b = np.array(readings, dtype=float).T
    draws = _Draws(material, h, b * MM_PER_IN)
    source: Source = "measured" if len(h) > 1 else "model"
    last = float(h[-1])
    final = draws.brace_mm(np.array([max(FORTNIGHT_H, last)]))
    (end_low,), (end_high,) = draws.band_in(final)
    hours = np.linspace(0, max(_SHOWN_H, last * 1.1), _STEPS)
    curve = draws.brace_mm(hours)
    low, high = draws.band_in(curve)
    sure = draws.sure(last)
    explained = draws.misfit_mm <= _MISFIT * READING_SD_MM
    return Settling(
        final_brace_in=draws.estimate_in(final[:, 0], source),
        band_in=(float(end_low), float(end_high)),
        sinks_in=draws.estimate_in(draws.falls_mm(last, max(FORTNIGHT_H, last)), source),
        explained=explained,
        settled=explained and len(h) > 1 and sure >= SURE,
        sure=sure,
        settled_after_h=_settled_after(draws, last),
        next_look_h=draws.best_look(last),
        hours=hours,
        brace_in=draws.weight @ curve / MM_PER_IN,
        low_in=low,
        high_in=high,
    )


def _settled_after(draws: _Draws, last_h: float) -> float | None:
    """Hours braced from which the day after moves it by less than 1/32 in in nine of ten draws."""
    days = np.arange(0.0, FORTNIGHT_H + 1, DAY_H / 2)
    days = np.concatenate([[last_h], days[days > last_h]])
    brace = draws.brace_mm(np.concatenate([days, days + DAY_H]))
    moved = brace[:, : len(days)] - brace[:, len(days) :]
    likely = draws.weight @ (moved < SETTLED_IN * MM_PER_IN) >= _LIKELY
    return float(days[np.argmax(likely)]) if likely.any() else None
