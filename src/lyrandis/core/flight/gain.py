"""What one kind of change does on this rig, learnt from the reads about it (mechanics F1).

A change moves the shaft by k times what the window says, k ~ N(1, .4) until a change was read, or
on one bow in seven anything. Each
one that was read weighs every k by how likely the reads after it were, the belief before it carried
by so much: a k below nought turns the model's word round.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flight.belief import MOVED_SD, Change, moved
from lyrandis.core.flight.read_filter import Reading, evidence

GAIN_SD = 0.4  # of the model's effect, until a change was read
ODD = 0.15  # the chance that on this bow such a change does something else altogether
_GAINS = np.array([k / 5 for k in range(-5, 16)])
LEAST_GAIN = 0.2  # of it: under this such changes were seen to do nothing
LEAST_GROUPS = 0.25  # a change that the model moves by less teaches nothing


@dataclass(frozen=True)
class Gain:
    """Chances of each k of _GAINS, shape (21,); `changes`: how many were read."""

    chances: Array
    changes: int = 0

    @property
    def mean(self) -> float:
        """How many times the model's effect."""
        return float(self.chances @ _GAINS)

    @property
    def sd(self) -> float:
        """Its ±."""
        return float(np.sqrt(max(self.chances @ _GAINS**2 - self.mean**2, 0.0)))


def untaught() -> Gain:
    """What is known before any change was read."""
    z = (_GAINS - 1.0) / GAIN_SD
    usual = np.exp(-0.5 * z * z)
    odd = np.full(len(_GAINS), 1 / len(_GAINS))
    return Gain((1 - ODD) * usual / usual.sum() + ODD * odd)


def taught(gain: Gain, before: Array, change: Change, readings: list[Reading]) -> Gain:
    """The gain after a change was read.

    Parameters
    ----------
    before : the belief before the change, shape (2916,)
    change : what the model says of it
    readings : the reads after it

    Source: docs/mechanics D, F1.
    """
    if abs(change.groups) < LEAST_GROUPS or not readings:
        return gain
    likely = np.array(
        [
            evidence(readings, moved(before, Change(k * change.groups, MOVED_SD, change.nock_mm)))
            for k in _GAINS
        ]
    )
    p = gain.chances * likely
    return Gain(np.asarray(p / p.sum()), gain.changes + 1)
