"""Many scale readings made into few: one for each inch of draw, rising as a bow's must."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.optimize import isotonic_regression

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say

_LEAST_RISE_LBF = 0.05


def thinned(readings: Sequence[tuple[float, float]], step_in: float = 1.0) -> list[list[float]]:
    """The mean of the readings around each step of draw, made to rise.

    Within half a step the force is brought to the step's draw along the readings' own slope. A
    dip by noise is evened out by isotonic regression (least squares, weighted by number).

    Parameters
    ----------
    readings : pairs of draw [in, trade] and force [lb], in any order
    step_in : distance between the kept draws [in]

    Returns
    -------
    Pairs [draw, force], draws rising by steps, forces rising by at least 0.05 lb.

    Raises
    ------
    RefusedError : fewer than four readings, or readings over less than two steps.

    >>> thinned([(20, 20.0), (20.5, 21.0), (21, 22.0), (21.5, 23.0), (22, 24.0)])
    [[20.0, 20.0], [21.0, 22.0], [22.0, 24.0]]
    """
    if len(readings) < 4:
        raise RefusedError("readings", "A pull needs at least four readings.", 4, "readings")
    draw, force = np.array(sorted(readings), dtype=float).T
    if draw[-1] - draw[0] < 2 * step_in:
        raise RefusedError(
            "readings",
            say("The readings cover less than {least} of draw.", least=("draw", 2 * step_in)),
            2 * step_in,
            "in",
        )
    slope = np.polyfit(draw, force, min(3, len(draw) - 1))
    rate = np.polyval(np.polyder(slope), draw)
    at = np.round(draw / step_in) * step_in
    levelled = force + rate * (at - draw)
    steps, place, count = np.unique(at, return_inverse=True, return_counts=True)
    mean = np.bincount(place, levelled) / count
    even = isotonic_regression(mean, weights=count.astype(float)).x
    rising = even + _LEAST_RISE_LBF * np.arange(len(even)) * (np.diff(even, prepend=-1e9) <= 0)
    inside = (steps >= draw[0]) & (steps <= draw[-1]) & (rising > 0)
    return [
        [round(float(d), 3), round(float(f), 2)]
        for d, f in zip(steps[inside], rising[inside], strict=True)
    ]
