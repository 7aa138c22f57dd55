"""A coach's or doctor's word that an archer may draw a bow of this weight."""

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
    """A coach saw a child draw this weight, or a coach or doctor gives it free after pain."""

    title: ClassVar[str] = "Coach's and doctor's words"
    station: ClassVar[StationId] = "weight"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = {"archer": 0}  # the weight stands in the trial itself

    kind: Literal["coach"] = "coach"
    weight_lbf: float = measure(..., "weight", 4, 150, "Weight it holds for")
    word: Who = Field(title="Whose word")

    def said(self) -> Said:
        return say(
            "{word} gives {weight} free to draw",
            word=self.word,
            weight=("weight", self.weight_lbf),
        )

    def columns(self) -> dict[str, Cell]:
        return {"weight (lb)": self.weight_lbf, "word of": self.word}
