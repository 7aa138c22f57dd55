"""Trials: one thing tried and what it showed, each station with kinds of its own.

A trial is logged as an entry of the history and hangs on the rig as it stood then. It may be
put right or struck out later; nothing is ever lost.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field

from lyrandis.core.dates import Day
from lyrandis.core.findings import Said, say
from lyrandis.core.fit.draw_length import Convention
from lyrandis.core.inspection import PLACES, PlaceId
from lyrandis.core.rig import BraceReference, DrawMethod, Frozen, Reading, Rig, Short, measure
from lyrandis.core.route import StationId

Steadiness = Literal["steady", "shaking", "pain"]
Level = Annotated[float, Field(ge=-200, le=200, allow_inf_nan=False)]  # dB of one shot


class TrialBase(Frozen):
    """What every trial may say: the day it was made (empty: when it was logged) and notes."""

    day: Day = ""
    notes: Short = ""


class DrawTrial(TrialBase):
    """Readings of the draw by one method, and what they came to."""

    kind: Literal["draw"] = "draw"
    method: DrawMethod
    convention: Convention = "trade"
    back_offset_in: float | None = measure(None, "draw", -2, 6, "Back in front of the pivot")
    readings_in: tuple[Annotated[float, Field(ge=1, le=120, allow_inf_nan=False)], ...] = Field(
        min_length=1, max_length=100, fail_fast=True
    )
    draw_length_in: float = measure(..., "draw", 14, 38, "Draw length")
    plus_minus_in: float = measure(..., "draw", 0, 4, "Draw uncertainty")


class WeighingTrial(TrialBase):
    """One pull of a bow scale: pairs of draw [in, trade] and force [lb]."""

    kind: Literal["weighing"] = "weighing"
    readings: tuple[Reading, ...] = Field(min_length=1, max_length=200, fail_fast=True)
    scale: Literal["simulated", "typed", "file"] = "typed"


class HoldTrial(TrialBase):
    """How long a bow was held at full draw, and how it ended."""

    kind: Literal["hold"] = "hold"
    weight_lbf: float = measure(..., "weight", 4, 150, "Weight held")
    seconds: float = measure(
        ..., "seconds", 0, 120, "Held for", "", "Nobody holds a drawn bow longer."
    )
    ended: Steadiness = "steady"


class InspectionTrial(TrialBase):
    """What was looked at on the bow, and where something was found."""

    kind: Literal["inspection"] = "inspection"
    looked: tuple[PlaceId, ...] = Field(min_length=1, max_length=20, fail_fast=True)
    found: tuple[PlaceId, ...] = Field(default=(), max_length=20, fail_fast=True)


class BraceTrial(TrialBase):
    """One brace height listened to: some shots, how loud each was, how the hand felt it."""

    kind: Literal["brace"] = "brace"
    brace_height_in: float = measure(..., "brace", 3, 14, "Brace height")
    reference: BraceReference = "grip"
    twists: float | None = measure(None, "turns", 0, 200, "Turns in the string")
    arrows: int = measure(3, "count", 1, 60, "Arrows shot")
    levels_db: tuple[Level, ...] = Field(default=(), max_length=60, fail_fast=True)
    heard_by: Literal["ear", "meter", "recording", "simulated"] = "ear"
    feel: int | None = measure(None, "count", 1, 5, "Feel", "1 harsh to 5 smooth.")
    group_cm: float | None = measure(None, "spot", 0.5, 300, "Group, across")


CheckId = Literal["brace", "strand", "strands", "loose", "dampers", "tune"]
Levels = Annotated[tuple[Level, ...], Field(min_length=1, max_length=60, fail_fast=True)]


class QuietTrial(TrialBase):
    """One check of the quiet list: levels before and after one change, and the strongest tone."""

    kind: Literal["quiet"] = "quiet"
    check: CheckId
    before_db: Levels
    after_db: Levels
    tone_before_hz: float | None = Field(None, ge=20, le=20_000)
    tone_before_db: float | None = Field(None, ge=-200, le=200)
    tone_after_hz: float | None = Field(None, ge=20, le=20_000)
    tone_after_db: float | None = Field(None, ge=-200, le=200)


class SettlingTrial(TrialBase):
    """The brace height of a new string after some hours braced; none when it was just put on."""

    kind: Literal["settling"] = "settling"
    hours: float = measure(..., "hours", 0, 2000, "Hours braced")
    brace_height_in: float = measure(..., "brace", 3, 14, "Brace height")
    reference: BraceReference = "grip"


Trial = Annotated[
    DrawTrial
    | WeighingTrial
    | HoldTrial
    | InspectionTrial
    | BraceTrial
    | SettlingTrial
    | QuietTrial,
    Field(discriminator="kind"),
]
STATION_OF: dict[str, StationId] = {
    "draw": "draw",
    "weighing": "weight",
    "hold": "weight",
    "inspection": "bow-length",
    "brace": "brace",
    "settling": "string",
    "quiet": "quiet",
}


@dataclass(frozen=True)
class KeptTrial:
    """A trial in the history: the entry that logged it, when, on which rig, and if struck out."""

    seq: int
    at: str
    trial: Any  # one of Trial
    rig: Rig
    struck: bool = False

    @property
    def day(self) -> str:
        """The day it was made: the archer's word, else the day it was logged."""
        return self.trial.day or self.at[:10]


_METHODS = {"tape": "by tape", "arm_span": "by arm span", "marked_arrow": "with a marked arrow"}
_ENDED = {"steady": "steady to the end", "shaking": "until it shook", "pain": "until it hurt"}


def trial_said(trial: Any) -> Said:
    """A trial as one sentence without its full stop."""
    match trial:
        case DrawTrial():
            n = len(trial.readings_in)
            return say(
                f"{n} draw{'s' if n > 1 else ''} {_METHODS[trial.method]}: {{draw}}",
                draw=("draw", trial.draw_length_in, trial.plus_minus_in),
            )
        case WeighingTrial():
            d, f = max(trial.readings)
            by = {"simulated": "the simulated scale", "typed": "a scale", "file": "a file"}
            return say(
                f"weighed by {by[trial.scale]}, {{weight}} at {{draw}}",
                weight=("weight", f),
                draw=("draw", d),
            )
        case HoldTrial():
            return say(
                f"held {{weight}} for {{seconds}}, {_ENDED[trial.ended]}",
                weight=("weight", trial.weight_lbf),
                seconds=("seconds", trial.seconds),
            )
        case InspectionTrial():
            if trial.found:
                names = ", ".join(PLACES[id].title.lower() for id in trial.found)
                return say(f"looked the bow over and found: {names}")
            return say(f"looked the bow over in {len(trial.looked)} places, nothing found")
        case BraceTrial():
            parts = [f"{trial.arrows} arrow{'s' if trial.arrows > 1 else ''}"]
            values: dict[str, tuple[str, float]] = {}
            if trial.levels_db:
                mean = sum(trial.levels_db) / len(trial.levels_db)
                parts.append("{level}")
                values["level"] = ("level", mean)
            if trial.feel is not None:
                parts.append(f"feel {trial.feel} of 5")
            if trial.group_cm is not None:
                parts.append("group {group}")
                values["group"] = ("spot", trial.group_cm)
            if trial.twists is not None:
                parts.append("{twists}")
                values["twists"] = ("turns", trial.twists)
            return say(
                f"brace {{brace}} to the {trial.reference}: {', '.join(parts)}",
                brace=("brace", trial.brace_height_in),
                **values,
            )
        case SettlingTrial():
            if trial.hours == 0:
                return say(
                    "new string put on, brace {brace}", brace=("brace", trial.brace_height_in)
                )
            return say(
                "new string after {hours} braced: {brace}",
                hours=("hours", trial.hours),
                brace=("brace", trial.brace_height_in),
            )
        case QuietTrial():
            return say(
                f"quiet check, {trial.check}: {{before}} before, {{after}} after",
                before=("level", sum(trial.before_db) / len(trial.before_db)),
                after=("level", sum(trial.after_db) / len(trial.after_db)),
            )
    raise TypeError(f"{type(trial).__name__} is no trial")


def standing(trials: tuple[KeptTrial, ...], kind: str) -> list[KeptTrial]:
    """The trials of a kind that are not struck out, by the day they were made."""
    kept = [t for t in trials if t.trial.kind == kind and not t.struck]
    return sorted(kept, key=lambda t: (t.day, t.seq))
