"""The shaft passing this bow: where the model is fitted, and which way shafts then leave."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.build import FLETCHING_CENTRE_IN
from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.flex.clean import Leaving, leaving
from lyrandis.core.flex.modes import Layout, modes
from lyrandis.core.flex.of_rig import layout_of, setting_of
from lyrandis.core.flex.passing import PREVIEW_STEP_S, Passed, pass_bow
from lyrandis.core.flex.setting import DAMPING, Setting
from lyrandis.core.flex.vertical import from_the_side
from lyrandis.core.flight.yaw import Swinging, swing
from lyrandis.core.parts import Rig
from lyrandis.core.units import M_PER_IN

READ_AT_M = np.arange(2.0, 8.01, 0.5)  # where a nock kick is read


@dataclass(frozen=True)
class FlexBench:
    """This rig's bow as a bare shaft passes it."""

    rig: Rig
    bow: BowBench
    arrow: ArrowBench

    @property
    def fitted(self) -> bool:
        """Whether the bow and the arrow are of those that the model was tuned to: B4's domain."""
        return self.arrow.window.spine_28in is not None

    @cached_property
    def setting(self) -> Setting:
        """The bow in SI."""
        return setting_of(self.rig, self.bow.drawn, self.arrow.string)

    @property
    def layout(self) -> Layout:
        """The bare shaft's masses."""
        return layout_of(self.rig.arrow)

    def passed(self, spines: Array, frames: int = 0) -> Passed:
        """Bare shafts of these spines [0.001 in] past the bow, all else as it is; shape (k,)."""
        stiff = np.array([stiffness_n_m2(float(s)) for s in spines])
        a = self.rig.arrow
        radius = a.diameter_mm / 2000
        return pass_bow(
            self.setting, self.layout, stiff, radius, DAMPING[a.material], frames=frames
        )

    def leaving_of(self, told: Passed) -> Leaving:
        """How those shafts leave."""
        return leaving(told, self.layout, self.setting.plate)

    def leaving(self, spines: Array) -> Leaving:
        """How bare shafts of these spines [0.001 in] leave; shape (k,)."""
        return self.leaving_of(self.passed(spines))

    def nock_angles(self, told: Passed, distance_m: Array) -> dict[str, Array]:
        """How the nock stands [°] when the point has come so far [m], + away from the plate, of the
        bare shaft and of the fletched one; shape (k, len(distance_m)) each.

        The fletched one leaves as the bare one does: feathers weigh little against the rest.
        """
        lay, a = self.layout, self.rig.arrow
        start = np.stack([told.shift_mps, told.angle_rad, told.turn_rad_s], 1)
        feathers = {"bare": 0, "fletched": a.fletching_count}
        return {
            name: -np.degrees(
                swing(
                    Swinging(
                        lay.length_m, a.diameter_mm / 2000, lay.mass_kg, lay.balance_m,
                        lay.inertia_kg_m2, FLETCHING_CENTRE_IN * M_PER_IN, count,
                    ),
                    told.speed_mps,
                    start,
                    distance_m,
                )
            )
            for name, count in feathers.items()
        }  # fmt: skip

    def along_mm(self) -> Array:
        """Places along the shaft from its nock of its nodes, shape (n,)."""
        return np.asarray(1000 * modes(self.layout).at_m)

    def asides_mm(self, told: Passed) -> Array:
        """How far aside those places are by frame and shaft, shape (frames, k, n)."""
        heights = modes(self.layout).height
        return np.asarray(1000 * told.shape @ heights.T)

    def nock_up_deg(self, error_mm: float, at_m: float) -> float:
        """How far up the nock stands at a distance, bare, for a nock point so much too high.

        Source: docs/mechanics B3, the vertical plane.
        """
        a = self.rig.arrow
        stiff = np.array([stiffness_n_m2(self.arrow.build.acts_spine)])
        told = pass_bow(
            from_the_side(self.setting, error_mm), self.layout, stiff, 0.0, DAMPING[a.material],
            PREVIEW_STEP_S,
        )  # fmt: skip
        return float(self.nock_angles(told, np.array([at_m]))["bare"][0, 0])
