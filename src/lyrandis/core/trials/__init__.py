"""Trials, a file a kind. Adding a kind adds its file and its line here."""

from __future__ import annotations

from typing import Annotated, Literal, get_args

from pydantic import Field

from lyrandis.core.trials.aim_known import AimKnownTrial
from lyrandis.core.trials.arrow_weighing import ArrowWeighingTrial
from lyrandis.core.trials.arrows_shot import ArrowsShotTrial
from lyrandis.core.trials.base import KeptTrial, TrialBase, standing
from lyrandis.core.trials.brace import BraceTrial, Level
from lyrandis.core.trials.centre_shot import CentreShotTrial
from lyrandis.core.trials.chronograph import ChronographTrial
from lyrandis.core.trials.clip import ClipTrial
from lyrandis.core.trials.coach import CoachTrial
from lyrandis.core.trials.crawl_visit import CrawlVisitTrial
from lyrandis.core.trials.draw import DrawTrial
from lyrandis.core.trials.flight_read import FlightReadTrial
from lyrandis.core.trials.group import GroupTrial
from lyrandis.core.trials.hold import HoldTrial
from lyrandis.core.trials.in_line import InLineTrial
from lyrandis.core.trials.inspection import InspectionTrial
from lyrandis.core.trials.judging import JudgingTrial
from lyrandis.core.trials.marks import MarksTrial
from lyrandis.core.trials.measuring import (
    MEASURED,
    MEASURES,
    Measure,
    implied_by,
    implied_number,
    trials_in,
)
from lyrandis.core.trials.nock_read import NockReadTrial
from lyrandis.core.trials.numbered import NumberedTrial
from lyrandis.core.trials.quiet import QuietTrial
from lyrandis.core.trials.release import ReleaseTrial
from lyrandis.core.trials.settling import SettlingTrial
from lyrandis.core.trials.shaft_read import ShaftReadTrial
from lyrandis.core.trials.string_weighing import StringWeighingTrial
from lyrandis.core.trials.tiller import TillerTrial
from lyrandis.core.trials.walk_back import WalkBackTrial
from lyrandis.core.trials.way import WayTrial
from lyrandis.core.trials.weighing import WeighingTrial

Trial = Annotated[
    DrawTrial
    | WeighingTrial
    | HoldTrial
    | InspectionTrial
    | BraceTrial
    | SettlingTrial
    | QuietTrial
    | ArrowWeighingTrial
    | StringWeighingTrial
    | ReleaseTrial
    | CoachTrial
    | InLineTrial
    | TillerTrial
    | CentreShotTrial
    | NockReadTrial
    | ChronographTrial
    | MarksTrial
    | NumberedTrial
    | ShaftReadTrial
    | WayTrial
    | FlightReadTrial
    | WalkBackTrial
    | GroupTrial
    | ClipTrial
    | CrawlVisitTrial
    | AimKnownTrial
    | JudgingTrial
    | ArrowsShotTrial,
    Field(discriminator="kind"),
]
TrialKind = Literal[
    "draw", "weighing", "hold", "inspection", "brace", "settling", "quiet", "arrow_weighing",
    "string_weighing", "release", "coach", "in_line", "tiller", "centre_shot",
    "nock_read", "chronograph", "marks", "way", "shaft_read", "numbered", "flight_read",
    "walk_back", "group", "clip",
    "crawl_visit", "aim_known", "judging", "arrows_shot",
]  # fmt: skip
KINDS: dict[str, type[TrialBase]] = {
    kind.model_fields["kind"].default: kind for kind in get_args(get_args(Trial)[0])
}
# Of these every one counts, however old: pain or a crack is not forgotten because much was logged
# since.
OF_SAFETY = ("inspection", "release", "hold", "coach")

__all__ = [
    "KINDS",
    "MEASURED",
    "MEASURES",
    "OF_SAFETY",
    "AimKnownTrial",
    "ArrowWeighingTrial",
    "ArrowsShotTrial",
    "BraceTrial",
    "CentreShotTrial",
    "ChronographTrial",
    "ClipTrial",
    "CoachTrial",
    "CrawlVisitTrial",
    "DrawTrial",
    "FlightReadTrial",
    "GroupTrial",
    "HoldTrial",
    "InLineTrial",
    "InspectionTrial",
    "JudgingTrial",
    "KeptTrial",
    "Level",
    "MarksTrial",
    "Measure",
    "NockReadTrial",
    "NumberedTrial",
    "QuietTrial",
    "ReleaseTrial",
    "SettlingTrial",
    "ShaftReadTrial",
    "StringWeighingTrial",
    "TillerTrial",
    "Trial",
    "TrialBase",
    "TrialKind",
    "WalkBackTrial",
    "WayTrial",
    "WeighingTrial",
    "implied_by",
    "implied_number",
    "standing",
    "trials_in",
]  # fmt: skip
