"""A trial of the bow's weight: one pull of a scale."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Reading, Slot
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

Scale = Literal["simulated", "typed", "file"]
SCALES: dict[Scale, str] = {
    "simulated": "the simulated scale",
    "typed": "a scale",
    "file": "a file",
}
BRACE_WITHIN_IN = 0.5  # moves the weight at the draw by under a hundredth (docs/mechanics A2)
TURN = 0.124  # an eighth of a turn is what a hand can set


class WeighingTrial(TrialBase):
    """One pull of a bow scale: pairs of draw [in, trade] and force [lb]."""

    title: ClassVar[str] = "Weighings"
    station: ClassVar[StationId] = "weight"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("bow", "riser", "upper_limb", "lower_limb")
    grounds: ClassVar[Mapping[str, float]] = {
        "bow": 0, "riser": 0, "limbs": 0, "upper_turns": TURN, "lower_turns": TURN, "form": 0,
        "length": 0.24, "riser_length": 0.24, "fibre": 0, "brace": BRACE_WITHIN_IN,
    }  # fmt: skip

    kind: Literal["weighing"] = "weighing"
    readings: tuple[Reading, ...] = Field(min_length=1, max_length=200, fail_fast=True)
    scale: Scale = "typed"

    def said(self) -> Said:
        draw, force = max(self.readings)
        return say(
            f"weighed by {SCALES[self.scale]}, {{weight}} at {{draw}}",
            weight=("weight", force),
            draw=("draw", draw),
        )

    def columns(self) -> dict[str, Cell]:
        draw, force = max(self.readings)
        return {
            "longest draw (in)": draw,
            "weight there (lb)": force,
            "readings (in lb)": "; ".join(f"{d:g} {f:g}" for d, f in self.readings),
            "scale": self.scale,
        }
