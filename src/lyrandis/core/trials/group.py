"""A group on the butt: where each arrow of one end landed, fletched or bare."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.flight.group_read import Landed, group_readings
from lyrandis.core.flight.read_filter import Reading
from lyrandis.core.parts import Frozen, choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.flight_read import FlightReadTrial


class Impact(Frozen):
    """An arrow's place on the butt, from the mark."""

    right_cm: float = measure(..., "spot", -300, 300, "Right of the mark", "Negative is left.")
    up_cm: float = measure(..., "spot", -300, 300, "Above the mark", "Negative is below.")
    shaft: Literal["fletched", "bare"] = choice("fletched", "Arrow")

    @property
    def landed(self) -> Landed:
        """The same for the reading."""
        return Landed(self.right_cm, self.up_cm, self.shaft == "bare")


class GroupTrial(TrialBase):
    """One end at a mark: each arrow at its place, tapped, typed or read off a photo."""

    title: ClassVar[str] = "Groups"
    station: ClassVar[StationId] = "flight"
    grounds: ClassVar[Mapping[str, float]] = FlightReadTrial.grounds

    kind: Literal["group"] = "group"
    distance_m: float = measure(..., "distance", 3, 90, "Distance")
    impacts: Annotated[
        tuple[Impact, ...],
        Field(min_length=2, max_length=36, fail_fast=True, title="Where each landed"),
    ]
    by: Literal["tapped", "photo", "simulated"] = choice("tapped", "Put down")

    def readings(self, arrow_left: bool) -> list[Reading]:
        """What it says, as the filter takes it; nothing of a practice photo or an odd distance."""
        if self.by == "simulated":
            return []
        landed = [i.landed for i in self.impacts]
        return list(group_readings(landed, self.distance_m, arrow_left))

    def said(self) -> Said:
        bare = sum(i.shaft == "bare" for i in self.impacts)
        n = len(self.impacts) - bare
        parts = [f"{count} {what}" for count, what in ((n, "fletched"), (bare, "bare")) if count]
        how = {"tapped": "", "photo": ", off a photo", "simulated": ", practice only"}[self.by]
        return say(f"{' and '.join(parts)} from {{at}}{how}", at=("distance", self.distance_m))

    def columns(self) -> dict[str, Cell]:
        return {
            "distance (m)": self.distance_m,
            "right of the mark (cm)": " ".join(f"{i.right_cm:g}" for i in self.impacts),
            "above the mark (cm)": " ".join(f"{i.up_cm:g}" for i in self.impacts),
            "shaft": " ".join(i.shaft for i in self.impacts),
            "by": self.by,
        }
