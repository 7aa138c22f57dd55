"""A trial of the arrow's weight: the finished arrow on a grain scale."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.weighing import SCALES, Scale


class ArrowWeighingTrial(TrialBase):
    """The finished arrow on a grain scale."""

    title: ClassVar[str] = "Arrows weighed"
    station: ClassVar[StationId] = "arrow"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("arrows",)
    grounds: ClassVar[Mapping[str, float]] = {
        "set": 0, "shaft": 0.03, "gpi": 0.01, "shaft_material": 0, "point": 0.1, "insert": 0.1,
        "arrow_nock": 0.1, "fletching": 0.1, "rear_taper": 0.1, "rear_end": 0.05,
        "front_taper": 0.1, "front_end": 0.05,
    }  # fmt: skip

    kind: Literal["arrow_weighing"] = "arrow_weighing"
    mass_gr: float = measure(..., "mass", 50, 2500, "Weighed arrow")
    scale: Scale = "typed"

    def said(self) -> Said:
        by = SCALES[self.scale].replace("scale", "grain scale")
        return say(f"arrow weighed by {by}, {{mass}}", mass=("mass", self.mass_gr))

    def columns(self) -> dict[str, Cell]:
        return {"arrow (gr)": self.mass_gr, "scale": self.scale}
