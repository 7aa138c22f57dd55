"""A trial of the quiet list: levels before and after one change."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.findings import Said, say
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed
from lyrandis.core.trials.brace import Level
from lyrandis.core.tune.quiet import CheckId

Levels = Annotated[tuple[Level, ...], Field(max_length=60, fail_fast=True)]


class QuietTrial(TrialBase):
    """One check of the quiet list: levels before and after one change, and the strongest tone.

    Levels are of one source, or they do not compare. Both empty: looked, and found nothing.
    """

    title: ClassVar[str] = "Quiet checks"
    station: ClassVar[StationId] = "quiet"
    grounds: ClassVar[Mapping[str, float]] = {
        "string": 0, "set": 0, "fibre": 0, "strands": 0, "brace": 0, "arrow_mass": 0,
    }  # fmt: skip

    kind: Literal["quiet"] = "quiet"
    check: CheckId
    before_db: Levels = ()
    after_db: Levels = ()
    heard_by: Literal["meter", "recording", "simulated", "unknown"] = "meter"
    tone_before_hz: float | None = Field(None, ge=20, le=20_000)
    tone_before_db: float | None = Field(None, ge=-200, le=200)
    tone_after_hz: float | None = Field(None, ge=20, le=20_000)
    tone_after_db: float | None = Field(None, ge=-200, le=200)

    @model_validator(mode="after")
    def _both_or_neither(self) -> Self:
        if bool(self.before_db) != bool(self.after_db):
            raise ValueError("Levels before and after go together: give both, or neither.")
        return self

    def said(self) -> Said:
        if not self.before_db:
            return say(f"quiet check, {self.check}: looked, found nothing")
        return say(
            f"quiet check, {self.check}: {{before}} before, {{after}} after",
            before=("level", sum(self.before_db) / len(self.before_db)),
            after=("level", sum(self.after_db) / len(self.after_db)),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "check": self.check,
            "before (dB)": listed(self.before_db),
            "after (dB)": listed(self.after_db),
            "heard by": self.heard_by,
            "tone before (Hz)": self.tone_before_hz,
            "tone before (dB)": self.tone_before_db,
            "tone after (Hz)": self.tone_after_hz,
            "tone after (dB)": self.tone_after_db,
        }
