"""How far one arrow of an archer scatters: from what landed, and from what is ordinary."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

# One arrow of an ordinary archer each way at 30 m, and how many arrows that counts for.
ARROW_SD_CM_30M, ARROW_WEIGHS = 5.5, 6.0
AT_M = 30.0


def squares_cm2(offsets_cm: Sequence[float], distance_m: float) -> float:
    """The scatter of some offsets about their own mean, squared and summed, as at 30 m [cm²]."""
    off = np.asarray(offsets_cm, dtype=float)
    return float(((off - off.mean()) ** 2).sum()) * (AT_M / distance_m) ** 2


def one_arrow_cm(squares: float, free: int) -> float:
    """One arrow's standard deviation each way at 30 m [cm].

    Parameters
    ----------
    squares : summed, as at 30 m [cm²]
    free : how many offsets these are, less one for each mean
    """
    return math.sqrt((ARROW_WEIGHS * ARROW_SD_CM_30M**2 + squares) / (ARROW_WEIGHS + free))
