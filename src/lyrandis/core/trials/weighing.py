"""A trial of the bow's weight: one pull of a scale."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Reading
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

_BY = {"simulated": "the simulated scale", "typed": "a scale", "file": "a file"}


class WeighingTrial(TrialBase):
    """One pull of a bow scale: pairs of draw [in, trade] and force [lb]."""

    title: ClassVar[str] = "Weighings"
    station: ClassVar[StationId] = "weight"
    rests_on: ClassVar[tuple[str, ...]] = ("form", "length", "fibre", "brace")

    kind: Literal["weighing"] = "weighing"
    readings: tuple[Reading, ...] = Field(min_length=1, max_length=200, fail_fast=True)
    scale: Literal["simulated", "typed", "file"] = "typed"

    def said(self) -> Said:
        draw, force = max(self.readings)
        return say(
            f"weighed by {_BY[self.scale]}, {{weight}} at {{draw}}",
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
