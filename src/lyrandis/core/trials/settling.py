"""A trial of a new string: its brace height after some hours braced."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import BraceReference, Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class SettlingTrial(TrialBase):
    """The brace height of a new string after some hours braced; none when it was just put on."""

    title: ClassVar[str] = "New strings"
    station: ClassVar[StationId] = "string"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("string",)
    grounds: ClassVar[Mapping[str, float]] = {
        "string": 0,
        "fibre": 0,
        "strands": 0,
        "string_length": 0,
    }

    kind: Literal["settling"] = "settling"
    hours: float = measure(..., "hours", 0, 2000, "Hours braced")
    brace_height_in: float = measure(..., "brace", 3, 14, "Brace height")
    reference: BraceReference = "grip"

    def said(self) -> Said:
        brace = ("brace", self.brace_height_in)
        if self.hours == 0:
            return say("new string put on, brace {brace}", brace=brace)
        return say(
            "new string after {hours} braced: {brace}", hours=("hours", self.hours), brace=brace
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "braced (h)": self.hours,
            "brace height (in)": self.brace_height_in,
            "measured to": self.reference,
        }
