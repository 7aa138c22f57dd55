"""A trial of the bow's soundness: where it was looked at, and what was found."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.inspection import PLACES, PlaceId
from lyrandis.core.parts import Slot
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class InspectionTrial(TrialBase):
    """What was looked at on the bow, and where something was found."""

    title: ClassVar[str] = "Look-overs"
    station: ClassVar[StationId] = "bow-length"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("bow", "riser", "upper_limb", "lower_limb", "string")
    grounds: ClassVar[Mapping[str, float]] = {
        "bow": 0, "riser": 0, "limbs": 0, "form": 0, "length": 0,
    }  # fmt: skip

    kind: Literal["inspection"] = "inspection"
    looked: tuple[PlaceId, ...] = Field(min_length=1, max_length=20, fail_fast=True)
    found: tuple[PlaceId, ...] = Field(default=(), max_length=20, fail_fast=True)

    def said(self) -> Said:
        if self.found:
            names = ", ".join(PLACES[id].title.lower() for id in self.found)
            return say(f"looked the bow over and found: {names}")
        n = len(self.looked)
        return say(f"looked the bow over in {n} place{'' if n == 1 else 's'}, nothing found")

    def columns(self) -> dict[str, Cell]:
        return {"looked at": " ".join(self.looked), "found": " ".join(self.found)}
