"""What the shots of a session come to: their scatter, and a visit's mean that one odd shot spares.

Source: docs/mechanics E2: one shot scatters by 1.1 dB; a shot beyond three scaled median
deviations of the session counts half.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array

SHOT_SD_DB = 1.1
_PRIOR_SHOTS = 10.0  # what the usual scatter weighs against the session's own
_OUTLYING, _HALF = 3.0, 0.5
_MAD = 1.4826  # of a normal's sd


@dataclass(frozen=True)
class Shots:
    """Each visit's mean level [dB] and its variance by its shots [dB²]; nan where none was heard.

    sd_db : scatter of one shot [dB]
    """

    means_db: Array
    variances: Array
    sd_db: float

    @classmethod
    def of(cls, visits: Sequence[Sequence[float]]) -> Shots:
        """From the levels [dB] of each visit's shots."""
        off = np.concatenate(
            [
                (np.array(v) - np.median(v)) * math.sqrt(len(v) / (len(v) - 1))
                for v in visits
                if len(v) > 1
            ]
            or [np.zeros(0)]
        )
        scale = max(_MAD * float(np.median(np.abs(off))) if len(off) else 0.0, SHOT_SD_DB)
        means, shares, squares, free = [], [], 0.0, 0.0
        for v in visits:
            levels = np.array(v)
            if not len(levels):
                means.append(math.nan)
                shares.append(math.nan)
                continue
            weight = np.where(np.abs(levels - np.median(levels)) > _OUTLYING * scale, _HALF, 1.0)
            mean = float(weight @ levels / weight.sum())
            means.append(mean)
            shares.append(float((weight**2).sum() / weight.sum() ** 2))
            squares += float(weight @ (levels - mean) ** 2)
            free += len(levels) - 1
        variance = (_PRIOR_SHOTS * SHOT_SD_DB**2 + squares) / (_PRIOR_SHOTS + free)
        return cls(np.array(means), variance * np.array(shares), math.sqrt(variance))
