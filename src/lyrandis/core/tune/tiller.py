"""Tiller: upper distance less the lower, what is usual for a release, and which bolt to turn.

Turned out, a bolt tilts its limb toward the archer; that limb bends farther and stands farther from
the string: the upper bolt out raises the tiller, the lower one out lowers it. How far follows from
geometry only roughly, so that the first change teaches it (one_change).

The lever of a turn is an own choice between two that disagree: tilt times the few inches between
bolt and mark gives about 1 mm a turn, two limbs in balance with the string 11 mm on a recurve and
2.4 mm on a longbow (docs/mechanics F1 and A4).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from lyrandis.core.parts import Limbs, Release
from lyrandis.core.tune.one_change import Look, learn
from lyrandis.core.units import MM_PER_IN

# Ordinary tillers [mm]: own numbers for practice's "some millimetres", "about even", "near even".
ORDINARY_MM: dict[Release, tuple[float, float]] = {
    "split": (2.0, 6.0),
    "three_under": (-1.0, 2.0),
    "thumb": (-2.0, 2.0),
}
LEVER_IN = 7.0  # a turn moves the tiller by its tilt times this
WISH_MM = 1.0  # nearer than this to a tiller of the archer's own it is as wanted


@dataclass(frozen=True)
class Measured:
    """Both distances, limb by its pocket to string [mm], and how far the bolts were out [turns]."""

    upper_mm: float
    lower_mm: float
    upper_turns: float = 0.0
    lower_turns: float = 0.0


@dataclass(frozen=True)
class Tiller:
    """What the measurements come to.

    upper_mm, lower_mm : the latest distances
    tiller_mm, sd_mm : upper less lower, by all that agree
    aim_mm : what is gone for; low_mm, high_mm : where it is left alone
    step_turns : next turn out of the upper and of the lower bolt
    expected_mm, expected_sd_mm : what it should then read
    per_turn_mm, per_turn_sd_mm : what a turn out of the upper bolt, and of the lower, does to it
    taught : whether a bolt was turned between two measurements
    odd : the latest is not what the turns should have done, and waits for another
    """

    upper_mm: float
    lower_mm: float
    tiller_mm: float
    sd_mm: float
    aim_mm: float
    low_mm: float
    high_mm: float
    good: bool
    step_turns: tuple[float, float]
    expected_mm: float
    expected_sd_mm: float
    per_turn_mm: tuple[float, float]
    per_turn_sd_mm: tuple[float, float]
    taught: bool
    surprise: bool
    odd: bool
    looks: int


def ordinary_mm(release: Release, limbs: Limbs) -> tuple[float, float]:
    """Between which tillers it is left alone [mm]: the archer's own wish, or what is usual."""
    wish = limbs.tiller_wanted_mm
    return ORDINARY_MM[release] if wish is None else (wish - WISH_MM, wish + WISH_MM)


def per_turn_mm(degrees_per_turn: float) -> float:
    """What a turn of one bolt does to the tiller by geometry [mm]; good to some 40 %.

    >>> round(per_turn_mm(0.8), 2)
    2.48
    """
    return math.tan(math.radians(degrees_per_turn)) * LEVER_IN * MM_PER_IN


def tiller(release: Release, limbs: Limbs, looks: Sequence[Measured]) -> Tiller | None:
    """What measurements of both distances come to, in the order they were made.

    Returns
    -------
    None before the first.
    """
    low, high = ordinary_mm(release, limbs)
    aim = (low + high) / 2
    turn = per_turn_mm(limbs.degrees_per_turn)
    learnt = learn(
        [Look((m.upper_turns, m.lower_turns), (m.upper_mm - m.lower_mm - aim,)) for m in looks],
        [[turn, -turn]],
    )
    if learnt is None:
        return None
    one = learnt.told[0]
    here = one.offset_mm + aim
    good = not one.odd and low <= here <= high
    return Tiller(
        upper_mm=looks[-1].upper_mm,
        lower_mm=looks[-1].lower_mm,
        tiller_mm=here,
        sd_mm=one.offset_sd_mm,
        aim_mm=aim,
        low_mm=low,
        high_mm=high,
        good=good,
        step_turns=(0.0, 0.0) if good else _pair(learnt.step_turns),
        expected_mm=one.expected_mm + aim,
        expected_sd_mm=one.expected_sd_mm,
        per_turn_mm=_pair(one.per_turn_mm),
        per_turn_sd_mm=_pair(one.per_turn_sd_mm),
        taught=len({(m.upper_turns, m.lower_turns) for m in looks}) > 1,
        surprise=one.surprise,
        odd=one.odd,
        looks=len(looks),
    )


def _pair(values: tuple[float, ...]) -> tuple[float, float]:
    upper, lower = values
    return upper, lower
