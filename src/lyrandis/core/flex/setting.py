"""What the shaft passes: the bow's stroke, its string, its side plate, and what lets go of it.

Constants marked * in docs/mechanics are tuned to one case: see there.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.arrays import Array

PlateKind = Literal["plunger", "leather", "felt", "hard"]


@dataclass(frozen=True)
class SidePlate:
    """A one-sided plate: stiffness k [N/m], damping c [s/m], and a plunger's preload and travel.

    preload_n, over_m : a preload reached over this much; travel_m, stop_n_m : where it ends
    direction_ref_deg : where a clean shaft leaves to; None where none is known
    """

    k_n_m: float
    c_s_m: float
    preload_n: float = 0.0
    over_m: float = 1.0
    travel_m: float = 1.0
    stop_n_m: float = 0.0
    direction_ref_deg: float | None = None


PLATES: dict[PlateKind, SidePlate] = {
    "plunger": SidePlate(1000.0, 0.0, 4.0, 0.25e-3, 4e-3, 6e4, 0.70),
    "leather": SidePlate(1.5e4, 0.6, direction_ref_deg=1.20),
    "felt": SidePlate(5e3, 1.0),
    "hard": SidePlate(6e4, 0.25),
}


@dataclass(frozen=True)
class LettingGo:
    """How the nock is pushed sideways: y = kick sin²(πx/2 over) while within `over`.

    held_share : of the force there is at the first moment
    """

    kick_m: float
    over_m: float
    held_share: float
    k_n_m: float = 4000.0


FINGERS = LettingGo(7e-3, 15e-3, 0.45)
THUMB = LettingGo(4.5e-3, 12e-3, 0.55)
# By form: mass that moves with the string at 45 lb [kg].
LIMB_KG = {"recurve": 5.3e-3, "hybrid": 5.3e-3, "longbow": 6.5e-3, "static_tip": 5.3e-3}
LIMB_AT_LBF = 45.0
HALF_STRING_M, HALF_STRING_AT_IN = 0.80, 68.0  # of the tuned case; by the bow's length
FRICTION_SHARE = 0.93
SKEW = 0.7
TIP_N_M = 1e4
STRING_DRAWN, STRING_BRACED, STRING_POWER = 0.95, 3.6, 1.1
DAMPING = {"carbon": 0.010, "aluminium": 0.010, "wood": 0.015, "cane": 0.015}


@dataclass(frozen=True)
class Setting:
    """A bow as a shaft passes it. SI; distances of the nock from brace along the stroke.

    force_n : static force over the way back from brace to full draw, shape (n,)
    way_m : where those forces are, rising from 0 to the stroke, shape (n,)
    plate_at_m : from the braced nock forward to the plate
    offset_m : the plate's surface from the string's plane, + outward
    moving_kg : what moves with the string along it
    string_kg : what of the string moves sideways with the nock
    half_string_m : one side of the string
    string_times : how much stiffer the string holds the nock than it does sideways
    """

    way_m: tuple[float, ...]
    force_n: tuple[float, ...]
    plate_at_m: float
    offset_m: float
    plate: SidePlate
    moving_kg: float
    string_kg: float
    half_string_m: float
    go: LettingGo = FINGERS
    string_times: float = 1.0

    @property
    def stroke_m(self) -> float:
        """From brace to full draw."""
        return self.way_m[-1]

    @property
    def drawn_n(self) -> float:
        """The force at full draw."""
        return self.force_n[-1]

    def pushes_n(self) -> Array:
        """The force on arrow and limbs over the way, but for the fingers' opening: F η skewed.

        The skew takes force early and gives it back late, and keeps the energy.
        """
        u, force = np.array(self.way_m) / self.stroke_m, np.array(self.force_n)
        mean = np.trapezoid(force * u, u) / np.trapezoid(force, u)
        return np.asarray(FRICTION_SHARE * force * (1 + SKEW * (mean - u)))
