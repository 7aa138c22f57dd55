"""A trial of the draw: readings by one method, and what they came to."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.fit.draw_length import Convention
from lyrandis.core.parts import DrawMethod, Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

_BY = {"tape": "by tape", "arm_span": "by arm span", "marked_arrow": "with a marked arrow"}


class DrawTrial(TrialBase):
    """Readings of the draw by one method, and what they came to."""

    title: ClassVar[str] = "Draws"
    station: ClassVar[StationId] = "draw"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = {"archer": 0, "release": 0}

    kind: Literal["draw"] = "draw"
    method: DrawMethod
    convention: Convention = "trade"
    back_offset_in: float | None = measure(None, "draw", -2, 6, "Back in front of the pivot")
    readings_in: tuple[Annotated[float, Field(ge=1, le=120, allow_inf_nan=False)], ...] = Field(
        min_length=1, max_length=100, fail_fast=True
    )
    draw_length_in: float = measure(..., "draw", 14, 38, "Draw length")
    plus_minus_in: float = measure(..., "draw", 0, 4, "Draw uncertainty")

    def said(self) -> Said:
        n = len(self.readings_in)
        return say(
            f"{n} draw{'s' if n > 1 else ''} {_BY[self.method]}: {{draw}}",
            draw=("draw", self.draw_length_in, self.plus_minus_in),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "method": self.method,
            "read to": self.convention,
            "readings (in)": listed(self.readings_in),
            "draw length (in)": self.draw_length_in,
            "plus minus (in)": self.plus_minus_in,
        }
