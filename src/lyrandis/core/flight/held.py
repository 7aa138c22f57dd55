"""How verdicts stood the reads after them, and how far an archer's predictions were off.

That verdicts stood does not show that the predictions did: a verdict leans on its prediction, and
later reads lean on the verdict. So the width comes from the reads alone: for each of some widths,
how likely the reads of every rig are, if its prediction is off by that much.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flight.read_filter import Reading, believed, prior
from lyrandis.core.flight.read_tests import truths

ENOUGH = 10  # verdicts tried, from which the width follows from what was read
PREDICTED_SD = 1.5  # groups, of the model's word before
LEAST_SD = 1.0  # groups: closer no prediction is trusted
_WIDTHS = np.array([0.75, 1.0, 1.25, 1.5, 2.0, 2.5, 3.0, 4.0])  # groups
_USUAL_LN = 0.5  # sd of ln width about PREDICTED_SD, before any read
_CAREFUL = 0.8  # quantile of the width that is taken: rather too wide than too narrow


@dataclass(frozen=True)
class Held:
    """Verdicts that later reads of the same state tried, and how many of them stood.

    off : ln of how likely the reads are, by how far the predictions are off, up to a constant
    """

    checked: int = 0
    held: int = 0
    off: tuple[float, ...] = (0.0,) * len(_WIDTHS)

    def __add__(self, other: Held) -> Held:
        off = tuple(a + b for a, b in zip(self.off, other.off, strict=True))
        return Held(self.checked + other.checked, self.held + other.held, off)


NONE_TRIED = Held()


def off_by(predicted: float, readings: list[Reading]) -> tuple[float, ...]:
    """`Held.off` of one rig, its spine error predicted [groups], by its first reads."""
    flat = np.full(len(truths().s), 1 / len(truths().s))
    shown = believed(readings, flat)
    return tuple(float(np.log(prior((predicted, sd)) @ shown)) for sd in _WIDTHS)


def predicted_sd(held: Held) -> float:
    """What a prediction is off by on an archer's rigs [groups, one sd].

    Source: own derivation, docs/mechanics D; simulated archers in its test.
    """
    if held.checked < ENOUGH:
        return PREDICTED_SD
    usual = -0.5 * (np.log(_WIDTHS / PREDICTED_SD) / _USUAL_LN) ** 2
    weight: Array = usual + np.array(held.off)
    chance = np.exp(weight - weight.max())
    chance /= chance.sum()
    careful = np.interp(_CAREFUL, np.cumsum(chance) - chance / 2, _WIDTHS)
    return max(float(careful), LEAST_SD)
