"""A trial of the string's weight, on a grain scale."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.weighing import SCALES, Scale


class StringWeighingTrial(TrialBase):
    """The string on a grain scale, without silencers."""

    title: ClassVar[str] = "Strings weighed"
    station: ClassVar[StationId] = "string"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("string",)
    grounds: ClassVar[Mapping[str, float]] = {
        "string": 0, "fibre": 0, "strands": 0, "string_length": 0.03,
    }  # fmt: skip

    kind: Literal["string_weighing"] = "string_weighing"
    mass_gr: float = measure(..., "mass", 20, 400, "String weight")
    scale: Scale = "typed"

    def said(self) -> Said:
        by = SCALES[self.scale].replace("scale", "grain scale")
        return say(f"string weighed by {by}, {{mass}}", mass=("mass", self.mass_gr))

    def columns(self) -> dict[str, Cell]:
        return {"string (gr)": self.mass_gr, "scale": self.scale}
