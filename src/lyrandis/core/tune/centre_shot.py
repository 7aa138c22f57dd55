"""Centre shot: where the arrow's point stands beside the string, seen from behind.

The arrow leans on the plate with its surface, its nock on the string; seen from behind, the braced
string in line with the middle of the bow, the shaft runs outward in proportion:

string ●───────── plate ──────────────── point      at the plate  offset + r
        brace                                       at the point  (offset + r) · L / brace

Source: plane geometry; the ordinary place of the point is practice's ("just outside the string, up
to half a shaft"), read as its near edge standing none to half a shaft outside the string's.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in
from lyrandis.core.parts import Rig
from lyrandis.core.string.twists import string_radius_mm
from lyrandis.core.units import MM_PER_IN

HALF_SHAFT = 0.5  # the most that the point stands outside the string, in shafts
LOOK_SD_MM = 1.5  # of one look at the point, the string's line over the bow included
FINEST_MM = 0.25  # a plunger is not set finer
KNOWN_SD_MM = 0.5  # of a plate's place as it is typed


@dataclass(frozen=True)
class CentreShot:
    """Where the point stands, outward from the string's plane positive [mm].

    axis_mm : the shaft's middle at the plate
    point_mm, full_mm : the point's middle, arrow on the string at brace, and at full draw
    gap_mm, gap_sd_mm : its near edge beside the string's edge at brace
    low_mm, high_mm : the ordinary gap
    per_mm : how far the point moves at brace for a millimetre at the plate
    move_mm : how far the plate would come outward for an ordinary gap; 0 where it is
    string_mm : half the string's width
    brace_mm, stroke_mm : string to plate at brace, and at full draw
    """

    axis_mm: float
    point_mm: float
    full_mm: float
    gap_mm: float
    gap_sd_mm: float
    low_mm: float
    high_mm: float
    per_mm: float
    move_mm: float
    string_mm: float
    brace_mm: float
    stroke_mm: float


def centre_shot(rig: Rig) -> CentreShot:
    """Where a rig's point stands by its settings.

    Raises
    ------
    RefusedError : a brace height to a plunger of which nobody said where it is.
    """
    radius = rig.arrow.diameter_mm / 2
    string = string_radius_mm(rig.string)
    brace = brace_to_pivot_in(rig.bow) * MM_PER_IN
    stroke = (rig.archer.draw_length_in - TRADE_OFFSET_IN) * MM_PER_IN
    length = rig.arrow.shaft_length_in * MM_PER_IN
    axis = rig.bow.plate_offset_mm + radius
    per = length / brace
    gap = axis * per - radius - string
    low, high = 0.0, HALF_SHAFT * rig.arrow.diameter_mm
    wanted = min(max(gap, low), high)
    move = round((wanted - gap) / per / FINEST_MM) * FINEST_MM
    return CentreShot(
        axis_mm=axis,
        point_mm=axis * per,
        full_mm=axis * length / stroke,
        gap_mm=gap,
        gap_sd_mm=KNOWN_SD_MM * per,
        low_mm=low,
        high_mm=high,
        per_mm=per,
        move_mm=move,
        string_mm=string,
        brace_mm=brace,
        stroke_mm=stroke,
    )


def plate_by_looks_mm(at: CentreShot, rig: Rig, gaps_mm: Sequence[float]) -> tuple[float, float]:
    """Where the plate stands by looks at the point: outward from the string's plane, and its sd.

    Parameters
    ----------
    gaps_mm : each look's gap between the point's near edge and the string's edge [mm]
    """
    radius = rig.arrow.diameter_mm / 2
    point = float(np.mean(gaps_mm)) + radius + at.string_mm
    return point / at.per_mm - radius, LOOK_SD_MM / at.per_mm / len(gaps_mm) ** 0.5
