"""Arrows of one weight shot over a chronograph."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

Speed = Annotated[float, Field(ge=30, le=450, allow_inf_nan=False)]  # ft/s of one shot


class ChronographTrial(TrialBase):
    """Speeds of some shots with arrows of one weight."""

    title: ClassVar[str] = "Chronograph"
    station: ClassVar[StationId] = "arrow"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "draw": 0.25, "marking": 0.25,
        "brace": 0.25, "silencers": 10, "upper_turns": 0.25, "lower_turns": 0.25, "release": 0,
    }  # fmt: skip

    kind: Literal["chronograph"] = "chronograph"
    mass_gr: float = measure(
        ...,
        "mass",
        50,
        2000,
        "Arrow weighed",
        "The finished arrow that was shot, on a grain scale.",
    )
    speeds_fps: tuple[Speed, ...] = Field(
        min_length=1, max_length=60, fail_fast=True, title="Speeds",
        json_schema_extra={"quantity": "speed"},
    )  # fmt: skip

    def said(self) -> Said:
        n = len(self.speeds_fps)
        return say(
            f"{{mass}} at {{speed}}, {n} shot{'s' if n > 1 else ''}",
            mass=("mass", self.mass_gr),
            speed=("speed", float(np.mean(self.speeds_fps))),
        )

    def columns(self) -> dict[str, Cell]:
        n = len(self.speeds_fps)
        return {
            "arrow (gr)": self.mass_gr,
            "mean speed (ft/s)": round(float(np.mean(self.speeds_fps)), 2),
            "scatter (ft/s)": f"{np.std(self.speeds_fps, ddof=1):.2f}" if n > 1 else None,
            "speeds (ft/s)": listed(self.speeds_fps),
        }
