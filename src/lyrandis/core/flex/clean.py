"""How a shaft leaves: where it goes, and how clean, from its rigid motion behind the plate.

    direction = (v_y + I ω / (m l_f)) / v      where fletching turns it to, l_f = balance − 50 mm
    J = angle of attack + yaw rate · 5 m / v + 11 · (direction − direction_ref)      [degrees]

J > 0 reads stiff, J < 0 weak; a second zero lies far on the stiff side, where the shaft bounces.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flex.modes import Layout
from lyrandis.core.flex.passing import Passed
from lyrandis.core.flex.setting import SidePlate

FLETCHING_M = 0.05  # from the nock to where the fletching turns the arrow
YAW_OVER_M = 5.0
DIRECTION_WEIGHS = 11.0


@dataclass(frozen=True)
class Leaving:
    """How shafts leave, shape (k,) each.

    direction_deg : where each goes, + away from the plate
    clean_deg : J, + stiff; None for plates of which no clean direction is known
    """

    direction_deg: Array
    clean_deg: Array | None


def clean_deg(
    shift_mps: Array,
    angle_rad: Array,
    turn_rad_s: Array,
    speed_mps: Array | float,
    layout: Layout,
    plate: SidePlate,
) -> Array:
    """J [°] of the rigid motion when the tail passes the plate, shapes as they broadcast.

    Raises
    ------
    ValueError : a side plate of which no clean direction is known.

    Source: docs/mechanics B3.
    """
    if plate.direction_ref_deg is None:
        raise ValueError("no clean direction is known for this side plate")
    attack = np.degrees(angle_rad - shift_mps / speed_mps)
    yaw = np.degrees(turn_rad_s * YAW_OVER_M / speed_mps)
    direction = direction_deg(shift_mps, turn_rad_s, speed_mps, layout)
    return np.asarray(attack + yaw + DIRECTION_WEIGHS * (direction - plate.direction_ref_deg))


def direction_deg(
    shift_mps: Array, turn_rad_s: Array, speed_mps: Array | float, layout: Layout
) -> Array:
    """Where the fletching turns a shaft to [°], + away from the plate."""
    arm = layout.balance_m - FLETCHING_M
    turned = layout.inertia_kg_m2 * turn_rad_s / (layout.mass_kg * arm)
    return np.asarray(np.degrees((shift_mps + turned) / speed_mps))


def leaving(told: Passed, layout: Layout, plate: SidePlate) -> Leaving:
    """Direction and cleanness of shafts that have passed the bow.

    Source: docs/mechanics B3.
    """
    direction = direction_deg(told.shift_mps, told.turn_rad_s, told.speed_mps, layout)
    if plate.direction_ref_deg is None:
        return Leaving(direction, None)
    moved = (told.shift_mps, told.angle_rad, told.turn_rad_s, told.speed_mps)
    return Leaving(direction, clean_deg(*moved, layout, plate))
