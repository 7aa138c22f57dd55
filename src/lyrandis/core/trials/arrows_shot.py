"""How many arrows a session took: the tally of string, limbs, arrows and shoulders."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class ArrowsShotTrial(TrialBase):
    """A session's arrows, all of them, practice as well."""

    title: ClassVar[str] = "Arrows shot"
    station: ClassVar[StationId] = "crawls"
    grounds: ClassVar[Mapping[str, float]] = {}
    speaks_of: ClassVar[tuple[Slot, ...]] = (
        "archer", "bow", "riser", "upper_limb", "lower_limb", "string", "arrows",
    )  # fmt: skip

    kind: Literal["arrows_shot"] = "arrows_shot"
    arrows: int = measure(..., "count", 1, 1000, "Arrows", "Of the whole session.")

    def said(self) -> Said:
        many = "s" if self.arrows > 1 else ""
        return say(f"{{n}} arrow{many} shot", n=("count", self.arrows))

    def columns(self) -> dict[str, Cell]:
        return {"arrows": self.arrows}
