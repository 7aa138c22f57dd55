"""An end shot with numbered shafts: where each landed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Frozen, Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class Landing(Frozen):
    """A numbered shaft's place on the butt, from the mark."""

    number: int = measure(..., "count", 1, 999, "Number")
    right_cm: float = measure(..., "spot", -300, 300, "Right of the mark", "Negative is left.")
    up_cm: float = measure(..., "spot", -300, 300, "Above the mark", "Negative is below.")


class NumberedTrial(TrialBase):
    """One end of numbered shafts, each at its place."""

    title: ClassVar[str] = "Ends of numbered shafts"
    station: ClassVar[StationId] = "arrow"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("arrows",)
    grounds: ClassVar[Mapping[str, float]] = {"set": 0, "hand": 0}

    kind: Literal["numbered"] = "numbered"
    distance_m: float = measure(..., "distance", 3, 90, "Distance")
    landings: Annotated[
        tuple[Landing, ...],
        Field(min_length=2, max_length=24, fail_fast=True, title="Where each landed"),
    ]

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        numbers = [one.number for one in self.landings]
        twice = next((n for n in numbers if numbers.count(n) > 1), None)
        if twice is not None:
            raise RefusedError("landings", f"Shaft {twice} stands twice in one end.")
        return self

    def said(self) -> Said:
        numbers = ", ".join(str(n) for n in sorted(one.number for one in self.landings))
        return say(f"shafts {numbers} at {{at}}", at=("distance", self.distance_m))

    def columns(self) -> dict[str, Cell]:
        return {
            "distance (m)": self.distance_m,
            "shafts": " ".join(str(one.number) for one in self.landings),
            "right of the mark (cm)": " ".join(f"{one.right_cm:g}" for one in self.landings),
            "above the mark (cm)": " ".join(f"{one.up_cm:g}" for one in self.landings),
        }
