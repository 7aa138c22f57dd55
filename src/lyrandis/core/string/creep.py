"""How a new string may creep: shapes drawn from a prior, so that a ± covers creep of many kinds.

The brace height falls by c(h) = a · s(h) after h hours braced; s is one of two families
(docs/mechanics E2a): two exponentials, w(1 − e^(−h/t1)) + (1 − w)(1 − e^(−h/t2)), or a logarithm,
ln(1 + h/t) / ln(1 + 336/t). `a` is what it falls by in a fortnight.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from lyrandis.core.arrays import Array
from lyrandis.core.parts import StringMaterial

FORTNIGHT_H = 336.0
# What the brace falls by in a fortnight [mm]: mean and sd of a normal kept positive.
FALL_MM: dict[StringMaterial, tuple[float, float]] = {
    "polyester": (12.0, 8.0),
    "low_stretch": (2.0, 1.5),
}
LOG_SHARE = 0.35
_FAST = (2.0, 1.0)  # w ~ Beta
_T1 = (math.log(3.0), 0.9)  # ln h
_T2_OVER_T1 = (math.log(8.0), 0.9)  # ln
_T_LOG = (0.0, 1.0)  # ln h
SHAPES = 4_000
_SEED = 11


@dataclass(frozen=True)
class Shapes:
    """Shapes of creep, each array of shape (n,); `log` where it is the logarithm's."""

    w: Array
    t1_h: Array
    t2_h: Array
    log: NDArray[np.bool_]

    def at(self, hours: Array) -> Array:
        """What share of a fortnight's fall has come after hours, shape (n, hours)."""
        h = np.asarray(hours, dtype=float)[None, :]
        t1, t2, w = self.t1_h[:, None], self.t2_h[:, None], self.w[:, None]
        two = 1 - w * np.exp(-h / t1) - (1 - w) * np.exp(-h / t2)
        end = 1 - w * np.exp(-FORTNIGHT_H / t1) - (1 - w) * np.exp(-FORTNIGHT_H / t2)
        slow = np.log1p(h / t1) / np.log1p(FORTNIGHT_H / t1)
        return np.where(self.log[:, None], slow, two / end)


@cache
def shapes() -> Shapes:
    """The prior's shapes, the same each time (fixed seed)."""
    rng = np.random.default_rng(_SEED)
    log = rng.random(SHAPES) < LOG_SHARE
    t1 = np.exp(rng.normal(*_T1, SHAPES))
    return Shapes(
        w=rng.beta(*_FAST, SHAPES),
        t1_h=np.where(log, np.exp(rng.normal(*_T_LOG, SHAPES)), t1),
        t2_h=t1 * np.exp(rng.normal(*_T2_OVER_T1, SHAPES)),
        log=log,
    )
