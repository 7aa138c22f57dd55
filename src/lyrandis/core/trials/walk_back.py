"""A visit of a walk-back: arrows at one vertical line from one distance."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed
from lyrandis.core.tune.walk_back import LineVisit

Offset = Annotated[float, Field(ge=-300, le=300, allow_inf_nan=False)]


class WalkBackTrial(TrialBase):
    """Some arrows from one distance, aimed at the line: how far right of it each landed."""

    title: ClassVar[str] = "Walk-back"
    station: ClassVar[StationId] = "flight"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "set": 0, "release": 0,
        "hand": 0, "side": 0, "plate": 0, "cut": 0.1, "spring": 0, "spine": 5, "shaft": 0.1,
        "point": 2, "brace": 0.125, "draw": 0.25, "weight": 1,
    }  # fmt: skip

    kind: Literal["walk_back"] = "walk_back"
    distance_m: float = measure(..., "distance", 2, 90, "Distance")
    offsets_cm: tuple[Offset, ...] = Field(
        min_length=1,
        max_length=24,
        fail_fast=True,
        title="Right of the line",
        description="Of each arrow; negative is left.",
        json_schema_extra={"quantity": "spot"},
    )

    @property
    def visit(self) -> LineVisit:
        """The same for the walk-back."""
        return LineVisit(self.distance_m, self.offsets_cm)

    def said(self) -> Said:
        n, mean = len(self.offsets_cm), sum(self.offsets_cm) / len(self.offsets_cm)
        side = "right" if mean >= 0 else "left"
        return say(
            f"{n} arrow{'s' if n > 1 else ''} at {{at}}: on average {{off}} {side} of the line",
            at=("distance", self.distance_m),
            off=("spot", abs(mean)),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "distance (m)": self.distance_m,
            "right of the line (cm)": listed(self.offsets_cm),
        }
