"""Limbs in line: which pocket to turn and by how much; of a bow in one piece, its favoured side.

Seen from behind the string should run over a mark on each limb by its pocket, and over the riser's
middle. A pocket swings its own limb sideways; the string is straight from tip to tip, so the other
mark is left by a part of it too:

tip x ──────────────── tip      own mark   d (1 + s) / 2     d = tilt of a turn × limb
        mark · riser · mark     the other  d (1 − s) / 2     s = mark's place over the tip's

Source: docs/mechanics F1 for learning; the lever of the string is an own derivation.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.bow.form import riser_in
from lyrandis.core.parts import Bow
from lyrandis.core.tune.one_change import Learnt, Look, learn
from lyrandis.core.units import MM_PER_IN

Side = Literal["left", "right", "middle"]
MARK_BEYOND_RISER_IN = 1.5  # where a block lies on the limb
FAVOURED_MM = 1.0  # nearer to the middle than this no side is favoured
SHELF_MM = 3.0  # with its plate less far than this short of centre, the shelf decides the side


@dataclass(frozen=True)
class Seen:
    """One look: offsets [mm, right positive] at the marks and the riser; turns since the last."""

    upper_mm: float | None
    lower_mm: float | None
    riser_mm: float | None
    upper_turns: float
    lower_turns: float


@dataclass(frozen=True)
class InLine:
    """What the looks come to.

    learnt : offsets at the upper and the lower mark and the next turns, in this order; None before
        both marks were looked at
    favoured : the side of the riser's middle on which the string runs; None where not looked at
    looks : how many there were
    """

    learnt: Learnt | None
    riser_mm: float | None
    favoured: Side | None
    looks: int


def shelf_decides(bow: Bow) -> bool:
    """Whether a bow's shelf leaves the arrow no choice of its side."""
    return bow.plate_offset_mm < SHELF_MM


def side_gains_mm(bow: Bow, degrees_per_turn: float) -> list[list[float]]:
    """What a turn of the upper and the lower pocket does at the upper and the lower mark [mm].

    >>> [[round(v, 1) for v in row] for row in side_gains_mm(Bow(length_in=68, riser_in=25), 0.8)]
    [[5.4, 2.2], [2.2, 5.4]]
    """
    riser = riser_in(bow)
    limb = (bow.length_in - riser) / 2 * MM_PER_IN
    tip = math.tan(math.radians(degrees_per_turn)) * limb
    place = (riser / 2 + MARK_BEYOND_RISER_IN) / (bow.length_in / 2)
    own, other = tip * (1 + place) / 2, tip * (1 - place) / 2
    return [[own, other], [other, own]]


def in_line(bow: Bow, degrees_per_turn: float, looks: Sequence[Seen]) -> InLine:
    """What looks from behind come to, in the order they were made."""
    turned, both = [0.0, 0.0], []
    for seen in looks:
        turned = [turned[0] + seen.upper_turns, turned[1] + seen.lower_turns]
        if seen.upper_mm is not None and seen.lower_mm is not None:
            both.append(Look((turned[0], turned[1]), (seen.upper_mm, seen.lower_mm)))
    riser = next((s.riser_mm for s in reversed(looks) if s.riser_mm is not None), None)
    return InLine(
        learnt=learn(both, side_gains_mm(bow, degrees_per_turn)),
        riser_mm=riser,
        favoured=None if riser is None else _side(riser),
        looks=len(looks),
    )


def _side(offset_mm: float) -> Side:
    if abs(offset_mm) < FAVOURED_MM:
        return "middle"
    return "right" if offset_mm > 0 else "left"
