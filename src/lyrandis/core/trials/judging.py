"""Practice at judging distance: guess, then walk it."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, choice
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

Metres = Annotated[float, Field(ge=2, le=120, allow_inf_nan=False)]


def _metres(title: str) -> tuple[Metres, ...]:
    found: tuple[Metres, ...] = Field(
        min_length=1,
        max_length=40,
        fail_fast=True,
        title=title,
        json_schema_extra={"quantity": "distance"},
    )
    return found


class JudgingTrial(TrialBase):
    """Distances guessed, and what each was when it was walked or taped, in the same order."""

    title: ClassVar[str] = "Distances judged"
    station: ClassVar[StationId] = "crawls"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = {"archer": 0}

    kind: Literal["judging"] = "judging"
    guessed_m: tuple[Metres, ...] = _metres("Guessed")
    walked_m: tuple[Metres, ...] = _metres("Walked")
    ground: Literal["open", "wood", "slope", "mixed"] = choice("mixed", "Ground")

    @model_validator(mode="after")
    def _pairs(self) -> Self:
        if len(self.guessed_m) != len(self.walked_m):
            raise RefusedError(
                "walked_m",
                f"Guessed {len(self.guessed_m)}, walked {len(self.walked_m)}: each guess needs its "
                "own distance.",
                len(self.guessed_m),
                "distances",
            )
        return self

    @property
    def pairs(self) -> list[tuple[float, float]]:
        """Guess and true distance [m] of each."""
        return list(zip(self.guessed_m, self.walked_m, strict=True))

    def said(self) -> Said:
        n = len(self.guessed_m)
        off = sum(math.log(g / w) for g, w in self.pairs) / n
        way = "too far" if off >= 0 else "too near"
        return say(
            f"{n} distance{'s' if n > 1 else ''} judged: on average {{off}} {way}",
            off=("percent", 100 * abs(math.expm1(off))),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "guessed (m)": listed(self.guessed_m),
            "walked (m)": listed(self.walked_m),
            "ground": self.ground,
        }
