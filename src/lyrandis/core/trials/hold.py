"""A trial of strength: how long a bow was held at full draw."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

Steadiness = Literal["steady", "shaking", "pain"]
_ENDED = {"steady": "steady to the end", "shaking": "until it shook", "pain": "until it hurt"}


class HoldTrial(TrialBase):
    """How long a bow was held at full draw, and how it ended."""

    title: ClassVar[str] = "Holds"
    station: ClassVar[StationId] = "weight"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = {"archer": 0}

    kind: Literal["hold"] = "hold"
    weight_lbf: float = measure(..., "weight", 4, 150, "Weight held")
    seconds: float = measure(
        ..., "seconds", 0, 120, "Held for", "", "Nobody holds a drawn bow longer."
    )
    ended: Steadiness = "steady"

    def said(self) -> Said:
        return say(
            f"held {{weight}} for {{seconds}}, {_ENDED[self.ended]}",
            weight=("weight", self.weight_lbf),
            seconds=("seconds", self.seconds),
        )

    def columns(self) -> dict[str, Cell]:
        return {"weight (lb)": self.weight_lbf, "held (s)": self.seconds, "ended": self.ended}
