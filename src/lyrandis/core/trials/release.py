"""Somebody's word that a part that was stopped may be shot again."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

from pydantic import Field, StringConstraints

from lyrandis.core.findings import Said, say
from lyrandis.core.inspection import PLACES, PlaceId
from lyrandis.core.parts import Slot
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

Who = Annotated[str, StringConstraints(strip_whitespace=True, min_length=2, max_length=80)]


class ReleaseTrial(TrialBase):
    """A bowyer or a coach saw what was found and gave the bow free: where, and whose word it is."""

    title: ClassVar[str] = "Releases"
    station: ClassVar[StationId] = "bow-length"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("bow", "riser", "upper_limb", "lower_limb", "string")
    grounds: ClassVar[Mapping[str, float]] = {"bow": 0, "riser": 0, "limbs": 0, "string": 0}

    kind: Literal["release"] = "release"
    places: tuple[PlaceId, ...] = Field(min_length=1, max_length=20, fail_fast=True)
    word: Who = Field(title="Whose word")

    def said(self) -> Said:
        names = ", ".join(PLACES[id].title.lower() for id in self.places)
        return say(f"released by {{word}}: {names}", word=self.word)

    def columns(self) -> dict[str, Cell]:
        return {"places": " ".join(self.places), "word of": self.word}
