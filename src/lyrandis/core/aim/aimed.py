"""What an archer looks along with an arrow, from the rig."""

from __future__ import annotations

from lyrandis.core.flight.trajectory import AimedArrow, drag_per_m
from lyrandis.core.parts import Rig
from lyrandis.core.units import M_PER_IN

POINT_LENGTH_M = 0.025  # the tip stands this far ahead of the back of the point


def aimed_arrow(rig: Rig, speed_mps: float, stroke_in: float, mass_gr: float) -> AimedArrow:
    """How the rig's arrow flies and is looked along.

    Parameters
    ----------
    speed_mps : without a crawl
    stroke_in : from brace to the true draw [in]
    mass_gr : of the finished arrow
    """
    return AimedArrow(
        speed_mps=speed_mps,
        eye_mm=rig.archer.eye_above_nock_mm,
        nock_to_tip_m=rig.arrow.shaft_length_in * M_PER_IN + POINT_LENGTH_M,
        stroke_m=stroke_in * M_PER_IN,
        drag_per_m=drag_per_m(rig.arrow.diameter_mm, mass_gr),
        slope_deg=rig.aim.slope_deg,
    )
