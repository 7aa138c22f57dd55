"""What a group on the butt reads as: bare shafts beside fletched ones, or a far group's side.

     o o        x fletched, o bare, right-handed with fingers: the bare ones land left
x x x           and high: looks stiff, nock point low
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.flight.read_filter import Reading
from lyrandis.core.flight.read_tests import TESTS
from lyrandis.core.flight.scatter import AT_M, one_arrow_cm, squares_cm2

BARE_FROM_M, BARE_TO_M = 13.0, 20.0  # where bare shafts are told from fletched ones
FAR_FROM_M, FAR_TO_M = 20.0, 40.0  # where a group tells its side
LEAST_BARE, LEAST_FAR = 2, 4  # arrows
# How far a bare shaft lands beside the fletched ones for each group of spine: nothing at 10 m, 3.5
# ± 1.1 cm at 15 m, on 24 random bows of the model of the shaft passing the bow.
BARE_AT_M, BARE_CM_PER_M = 10.0, 0.7
_BARE_CUTS = (0.5, 1.5)  # groups: looks weak or stiff; clearly so
_BARE_SD = 0.72  # groups, of three and three arrows as the filter takes them
_HEIGHT_SD = 1.3  # of the means' distance, from which it counts
_HEIGHT_CM_15M = 3.0  # less is not told as a height
_FAR_SHARE = 0.7  # of one arrow's spread, from which a far group lies aside
_LEAST_COUNTS = 0.2


@dataclass(frozen=True)
class Landed:
    """Where an arrow landed from the mark [cm], + right and + up; bare or fletched."""

    right_cm: float
    up_cm: float
    bare: bool


def bare_cm_per_group(distance_m: float) -> float:
    """How far a bare shaft lands beside fletched ones for a group of spine [cm].

    Source: docs/mechanics B5, measured on the model.
    """
    return BARE_CM_PER_M * (distance_m - BARE_AT_M)


def group_readings(
    landed: Sequence[Landed], distance_m: float, plate_left: bool
) -> tuple[Reading, ...]:
    """What a group says, as the filter takes it: at most one reading.

    Parameters
    ----------
    landed : arrows of one end or several at one mark
    plate_left : whether the arrow stands to the left of the bow as the archer sees it
    """
    bare = [a for a in landed if a.bare]
    fletched = [a for a in landed if not a.bare]
    beside = BARE_FROM_M <= distance_m <= BARE_TO_M
    if beside and min(len(bare), len(fletched)) >= LEAST_BARE:
        return (_bare(bare, fletched, distance_m, plate_left),)
    if not bare and len(fletched) >= LEAST_FAR and FAR_FROM_M <= distance_m <= FAR_TO_M:
        return (_far(fletched, distance_m, plate_left),)
    return ()


def _stiff_way(plate_left: bool) -> float:
    """+1 where right looks stiff."""
    return -1.0 if plate_left else 1.0


def _bare(
    bare: Sequence[Landed], fletched: Sequence[Landed], distance_m: float, plate_left: bool
) -> Reading:
    groups = (bare, fletched)
    sides = [[a.right_cm for a in g] for g in groups]
    ups = [[a.up_cm for a in g] for g in groups]
    free = 2 * (len(bare) + len(fletched) - 2)
    squares = sum(squares_cm2(offsets, distance_m) for offsets in (*sides, *ups))
    one = one_arrow_cm(squares, free) * distance_m / AT_M
    error = one * math.sqrt(1 / len(bare) + 1 / len(fletched))
    aside, above = (float(np.mean(a) - np.mean(b)) for a, b in (sides, ups))
    per_group = bare_cm_per_group(distance_m)
    z = _stiff_way(plate_left) * aside / per_group
    far = sum(abs(z) > cut for cut in _BARE_CUTS)
    look = ("straight", "stiff", "stiff2")[far] if z > 0 else ("straight", "weak", "weak2")[far]
    counts_up = max(_HEIGHT_SD * error, _HEIGHT_CM_15M * distance_m / 15.0)
    height = "high" if above > counts_up else "low" if above < -counts_up else "level"
    return Reading("bare_shaft_15m", f"{look}/{height}", _counts(_BARE_SD * per_group, error))


def _counts(usual_cm: float, error_cm: float) -> float:
    """How much a reading counts whose error is larger than the filter takes it to be."""
    return max(_LEAST_COUNTS, min(1.0, (usual_cm / error_cm) ** 2))


def _far(fletched: Sequence[Landed], distance_m: float, plate_left: bool) -> Reading:
    sides = [a.right_cm for a in fletched]
    one = one_arrow_cm(squares_cm2(sides, distance_m), len(sides) - 1) * distance_m / AT_M
    aside = _stiff_way(plate_left) * float(np.mean(sides))
    look = "straight" if abs(aside) < _FAR_SHARE * one else "stiff" if aside > 0 else "weak"
    asked = TESTS["group_25m"].arrows
    return Reading("group_25m", look, max(_LEAST_COUNTS, min(1.0, len(sides) / asked)))
