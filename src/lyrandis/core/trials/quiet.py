"""A trial of the quiet list: levels before and after one change."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lyrandis.core.findings import Said, say
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed
from lyrandis.core.trials.brace import Level
from lyrandis.core.tune.quiet import CheckId

Levels = Annotated[tuple[Level, ...], Field(min_length=1, max_length=60, fail_fast=True)]


class QuietTrial(TrialBase):
    """One check of the quiet list: levels before and after one change, and the strongest tone."""

    title: ClassVar[str] = "Quiet checks"
    station: ClassVar[StationId] = "quiet"
    rests_on: ClassVar[tuple[str, ...]] = ("fibre", "strands", "brace", "arrow_mass")

    kind: Literal["quiet"] = "quiet"
    check: CheckId
    before_db: Levels
    after_db: Levels
    tone_before_hz: float | None = Field(None, ge=20, le=20_000)
    tone_before_db: float | None = Field(None, ge=-200, le=200)
    tone_after_hz: float | None = Field(None, ge=20, le=20_000)
    tone_after_db: float | None = Field(None, ge=-200, le=200)

    def said(self) -> Said:
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
            "tone before (Hz)": self.tone_before_hz,
            "tone before (dB)": self.tone_before_db,
            "tone after (Hz)": self.tone_after_hz,
            "tone after (dB)": self.tone_after_db,
        }
