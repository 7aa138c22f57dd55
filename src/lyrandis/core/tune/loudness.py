"""Loudness over brace as what was heard tells it: a mixture of exact regressions.

f = a0 + a1 x + a2 x² + GP, x = (brace − middle)/10 mm (docs/mechanics E2). How much visits differ
and how narrow a quiet place may be nobody knows beforehand: five visit spreads times five kinds of
GP, each one exact Gaussian regression, weighed by how well it explains the visits.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import product

import numpy as np
from numpy.typing import NDArray

from lyrandis.core.arrays import Array
from lyrandis.core.tune.shots import SHOT_SD_DB, Shots

LEVEL_SD, SLOPE_SD, CURVE_MEAN, CURVE_SD = 5.0, 3.0, 1.6, 1.2  # dB, per 10 mm, per (10 mm)²
VISIT_SD_DB = (0.2, 0.35, 0.6, 1.0, 1.5)
_VISIT_MEDIAN_DB, _VISIT_FACTOR = 0.35, 2.0
# What a bow adds of its own: length [mm], spread [dB], whether a curved line lies under it, weight.
OWN = (
    (7.0, 0.5, True, 0.35),
    (7.0, 1.5, True, 0.15),
    (2.5, 0.8, True, 0.1),
    (2.5, 2.0, True, 0.2),
    (5.0, 2.5, False, 0.2),
)
FEEL_DB, FEEL_SD_DB = -1.5, 1.5
OFFSET_SD_DB = 20.0  # between two sources or days, or levels and feel: as good as unknown
_X_MM = 10.0  # the unit of x
_JITTER = 1e-8


@dataclass(frozen=True)
class Visit:
    """One brace height [mm] listened to: a level [dB] for each shot, feel 1 to 5 or None.

    source : levels of one source and day share a number; those of another are off by an offset
        that nobody knows
    """

    brace_mm: float
    levels_db: tuple[float, ...] = ()
    feel: float | None = None
    source: int = 0


@dataclass(frozen=True)
class Loudness:
    """What the visits tell on a grid of n braces, by each of k regressions.

    weights : (k,); means : (k, n) [dB]; covs : (k, n, n) [dB²]
    visit_variance : [dB²] that a visit adds beyond its shots; shot_sd_db : of one shot [dB]
    offsets_db : what each source lies above the first one heard [dB]
    """

    weights: Array
    means: Array
    covs: Array
    visit_variance: float
    shot_sd_db: float
    offsets_db: dict[int, float]

    @cached_property
    def mean(self) -> Array:
        """Mean loudness [dB], shape (n,)."""
        out: Array = self.weights @ self.means
        return out

    @cached_property
    def cov(self) -> Array:
        """Covariance of the mixture [dB²], shape (n, n)."""
        off = self.means - self.mean
        within = np.tensordot(self.weights, self.covs, axes=1)
        out: Array = within + (self.weights[:, None] * off).T @ off
        return out

    def draws(self, count: int, rng: np.random.Generator) -> Array:
        """Joint draws [dB], shape (about count, n): each regression as often as it weighs."""
        edge = np.cumsum(self.weights) * count
        counts = np.diff(np.concatenate([[0], np.rint(edge)])).astype(int)
        n = self.means.shape[1]
        drawn = []
        for mean, cov, c in zip(self.means, self.covs, counts, strict=True):
            if c:
                root = np.linalg.cholesky(cov + _JITTER * np.eye(n))
                drawn.append(mean + rng.standard_normal((c, n)) @ root.T)
        return np.concatenate(drawn)


def _visit_weights() -> Array:
    """Of a log-normal about .35 dB with a factor of 2, at each of the spreads."""
    off = np.log(np.array(VISIT_SD_DB) / _VISIT_MEDIAN_DB) / math.log(_VISIT_FACTOR)
    density = np.exp(-0.5 * off**2)
    return np.asarray(density / density.sum())


def _line(a: Array, b: Array, middle: float) -> Array:
    """Prior covariance of the curved line beyond its level [dB²], shape (a, b)."""
    x, y = (a[:, None] - middle) / _X_MM, (b[None, :] - middle) / _X_MM
    return np.asarray(SLOPE_SD**2 * x * y + CURVE_SD**2 * (x * y) ** 2)


_FEEL = -1  # feel's own number among the sources


def _rows(visits: Sequence[Visit], shots: Shots) -> tuple[Array, Array, Array, NDArray[np.int_]]:
    """Places [mm], values [dB], variances of the reading and the source of each."""
    rows = []
    for i, v in enumerate(visits):
        if v.levels_db:
            rows.append((v.brace_mm, shots.means_db[i], shots.variances[i], v.source))
        if v.feel is not None:
            rows.append((v.brace_mm, FEEL_DB * v.feel, FEEL_SD_DB**2, _FEEL))
    at, value, noise, source = np.array(rows, dtype=float).T
    return at, value, noise, source.astype(int)


def loudness(visits: Sequence[Visit], grid_mm: Array, middle_mm: float) -> Loudness:
    """What the visits tell of the loudness on a grid.

    Feel speaks as a rougher reading, and each further source with an offset of its own that nobody
    knows: it is told where sources share a brace.

    Parameters
    ----------
    visits : braces [mm] with levels [dB] or feel
    grid_mm : braces to tell of, shape (n,) [mm]
    middle_mm : of the range [mm]; x counts from there

    Source: docs/mechanics E2, honest ends.
    """
    shots = Shots.of([v.levels_db for v in visits])
    at, value, noise, source = _rows(visits, shots)
    heard = source != _FEEL
    first = source[heard][0] if heard.any() else _FEEL
    others = [g for g in dict.fromkeys(source.tolist()) if g != first or g == _FEEL]
    start = value[heard][0] if heard.any() else 0.0

    def curve(a: Array) -> Array:
        return np.asarray(CURVE_MEAN * ((a - middle_mm) / _X_MM) ** 2)

    pairs = (at, at), (grid_mm, at), (grid_mm, grid_mm)
    lines = [_line(a, b, middle_mm) for a, b in pairs]
    own_offset = np.array([source == g for g in others], dtype=float).reshape(-1, len(at))
    same = OFFSET_SD_DB**2 * own_offset.T @ own_offset + np.diag(noise)
    told, offsets, log_weight = [], [], []
    for (visit_sd, vw), (length, spread, lined, ow) in product(
        zip(VISIT_SD_DB, _visit_weights(), strict=True), OWN
    ):
        expected, there = start + lined * curve(at), start + lined * curve(grid_mm)
        shift = own_offset @ (value - expected) / np.maximum(own_offset.sum(axis=1), 1)
        expected = expected + shift @ own_offset
        prior = [
            LEVEL_SD**2
            + lined * line
            + spread**2 * np.exp(-0.5 * ((a[:, None] - b[None, :]) / length) ** 2)
            for line, (a, b) in zip(lines, pairs, strict=True)
        ]
        root = np.linalg.cholesky(prior[0] + same + visit_sd**2 * np.diag(heard.astype(float)))
        solved = np.linalg.solve(root, np.column_stack([value - expected, prior[1].T]))
        off, moved = solved[:, 0], solved[:, 1:]
        cov = prior[2] - moved.T @ moved
        told.append((there + moved.T @ off, (cov + cov.T) / 2))
        offsets.append(shift + OFFSET_SD_DB**2 * own_offset @ np.linalg.solve(root.T, off))
        log_weight.append(math.log(vw * ow) - 0.5 * off @ off - np.log(np.diag(root)).sum())
    w = np.exp(np.array(log_weight) - max(log_weight))
    w = w / w.sum()
    spreads = np.repeat(np.array(VISIT_SD_DB) ** 2, len(OWN))
    return Loudness(
        weights=w,
        means=np.array([m for m, _ in told]),
        covs=np.array([c for _, c in told]),
        visit_variance=float(w @ spreads),
        shot_sd_db=shots.sd_db if heard.any() else SHOT_SD_DB,
        offsets_db={int(first): 0.0}
        | {g: float(w @ o) for g, o in zip(others, np.array(offsets).T, strict=True)},
    )
