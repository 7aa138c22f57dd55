"""A coach's word that a child may draw a bow of this weight."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.release import Who


class CoachTrial(TrialBase):
    """A coach saw a child draw this weight, and says that it may."""

    title: ClassVar[str] = "Coach's words"
    station: ClassVar[StationId] = "weight"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = {"archer": 0}  # the weight stands in the trial itself

    kind: Literal["coach"] = "coach"
    weight_lbf: float = measure(..., "weight", 4, 150, "Weight it holds for")
    word: Who = Field(title="Whose word")

    def said(self) -> Said:
        return say(
            "{word} lets the child draw {weight}",
            word=self.word,
            weight=("weight", self.weight_lbf),
        )

    def columns(self) -> dict[str, Cell]:
        return {"weight (lb)": self.weight_lbf, "word of": self.word}
