"""A new string settles: the brace height sinks as the fibre creeps, fast at first, then hardly.

brace(h) = b0 − gain · length · creep · (1 − exp(−h/τ)) after h hours braced (docs/mechanics A5):
1 % of length with a time constant of 6 h for polyester until it was measured twice, each within a
factor of about 1.6; low-stretch a tenth of it (own assumption). Natural fibre moves with the
weather and is not predicted.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import least_squares

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.rig import StringMaterial
from lyrandis.core.units import MM_PER_IN

CREEP_SHARE: dict[StringMaterial, float] = {"polyester": 0.01, "low_stretch": 0.001}
TAU_H = 6.0
_LOG_SD = 0.5
_READING_SD_IN = 0.5 / MM_PER_IN
SETTLED_IN = 1 / 16
_SHOWN_H = 48.0


@dataclass(frozen=True)
class Settling:
    """Where the brace comes to rest, and when it is within 1/16 in of it.

    settles_at_in : brace height it comes to [in]; sinks_in : still to sink after the last reading
    settled_after_h : hours braced from which it stays within 1/16 in
    hours and brace_in : the curve, shape (n,)
    """

    settles_at_in: Estimate
    sinks_in: float
    settled_after_h: float
    settled: bool
    hours: Array
    brace_in: Array


def settle(
    material: StringMaterial,
    length_in: float,
    gain: float,
    readings: Sequence[tuple[float, float]],
) -> Settling:
    """Fit the settling of a new string.

    Parameters
    ----------
    length_in : the string's length [in]
    gain : brace gained for each length the slack string is shortened by [-]
    readings : pairs of hours braced since it was new and brace height [in]

    Raises
    ------
    RefusedError : natural fibre, or no reading.

    Source: exponential creep, docs/mechanics A5; priors on creep and time as there.

    >>> told = settle("polyester", length_in=64.0, gain=1.36, readings=[(0.0, 8.5)])
    >>> round(told.settles_at_in.value, 2), round(told.settled_after_h)  # 1 % of 64 in, times 1.36
    (7.63, 16)
    """
    if material == "natural":
        raise RefusedError(
            "string.material", "Natural fibre moves with the weather: measure it each time."
        )
    if not readings:
        raise RefusedError("readings", "Measure the brace height of the new string once.")
    h, b = np.array(sorted(readings), dtype=float).T
    drop = gain * length_in * CREEP_SHARE[material]

    def brace(p: Array, hours: Array) -> Array:
        out: Array = p[0] - drop * np.exp(p[1]) * (1 - np.exp(-hours / (TAU_H * np.exp(p[2]))))
        return out

    def off(p: Array) -> Array:
        return np.concatenate([(brace(p, h) - b) / _READING_SD_IN, p[1:] / _LOG_SD])

    fit = least_squares(off, np.array([b[0], 0.0, 0.0]))
    p = fit.x
    # The end's ± by the fit's own curvature.
    jacobian = np.asarray(fit.jac, dtype=float)
    cov = np.linalg.inv(jacobian.T @ jacobian)
    grad = np.array([1.0, -drop * np.exp(p[1]), 0.0])
    end = float(p[0] - drop * np.exp(p[1]))
    sd = float(np.sqrt(grad @ cov @ grad))
    tau, total = TAU_H * float(np.exp(p[2])), drop * float(np.exp(p[1]))
    after = tau * float(np.log(max(total / SETTLED_IN, 1.0)))
    hours = np.linspace(0, max(_SHOWN_H, float(h[-1]) * 1.1), 80)
    return Settling(
        settles_at_in=Estimate(
            value=end, plus_minus=sd, source="measured" if len(h) > 1 else "model"
        ),
        sinks_in=float(brace(p, h[-1:])[0]) - end,
        settled_after_h=after,
        settled=len(h) > 1 and float(h[-1]) >= after,
        hours=hours,
        brace_in=brace(p, hours),
    )
