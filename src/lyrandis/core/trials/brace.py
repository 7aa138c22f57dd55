"""A trial of a brace height: some shots, how loud each was, how the hand felt it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import BraceReference, Slot, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

Level = Annotated[float, Field(ge=-200, le=200, allow_inf_nan=False)]  # dB of one shot


class BraceTrial(TrialBase):
    """One brace height listened to: some shots, how loud each was, how the hand felt it."""

    title: ClassVar[str] = "Brace trials"
    station: ClassVar[StationId] = "brace"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("string",)
    grounds: ClassVar[Mapping[str, float]] = {
        "bow": 0, "riser": 0, "limbs": 0, "string": 0, "set": 0, "fibre": 0, "strands": 0,
        "string_length": 0, "arrow_mass": 0,
    }  # fmt: skip

    kind: Literal["brace"] = "brace"
    brace_height_in: float = measure(..., "brace", 3, 14, "Brace height")
    reference: BraceReference = "grip"
    twists: float | None = measure(None, "turns", 0, 200, "Turns in the string")
    arrows: int = measure(3, "count", 1, 60, "Arrows shot")
    levels_db: tuple[Level, ...] = Field(default=(), max_length=60, fail_fast=True)
    heard_by: Literal["ear", "meter", "recording", "simulated"] = "ear"
    feel: int | None = measure(None, "count", 1, 5, "Feel", "1 harsh to 5 smooth.")
    group_cm: float | None = measure(None, "spot", 0.5, 300, "Group, across")

    def said(self) -> Said:
        parts = [f"{self.arrows} arrow{'s' if self.arrows > 1 else ''}"]
        values: dict[str, tuple[str, float]] = {}
        if self.levels_db:
            parts.append("{level}")
            values["level"] = ("level", sum(self.levels_db) / len(self.levels_db))
        if self.feel is not None:
            parts.append(f"feel {self.feel} of 5")
        if self.group_cm is not None:
            parts.append("group {group}")
            values["group"] = ("spot", self.group_cm)
        if self.twists is not None:
            parts.append("{twists}")
            values["twists"] = ("turns", self.twists)
        return say(
            f"brace {{brace}} to the {self.reference}: {', '.join(parts)}",
            brace=("brace", self.brace_height_in),
            **values,
        )

    def columns(self) -> dict[str, Cell]:
        n = len(self.levels_db)
        return {
            "brace height (in)": self.brace_height_in,
            "measured to": self.reference,
            "turns": self.twists,
            "arrows": self.arrows,
            "mean level (dB)": f"{np.mean(self.levels_db):.2f}" if n else None,
            "scatter (dB)": f"{np.std(self.levels_db, ddof=1):.2f}" if n > 1 else None,
            "levels (dB)": listed(self.levels_db),
            "heard by": self.heard_by,
            "feel (1-5)": self.feel,
            "group (cm)": self.group_cm,
        }
