"""Trials, a file a kind. Adding a kind adds its file and its line here."""

from __future__ import annotations

from typing import Annotated, Literal, get_args

from pydantic import Field

from lyrandis.core.trials.base import KeptTrial, TrialBase, standing
from lyrandis.core.trials.brace import BraceTrial, Level
from lyrandis.core.trials.draw import DrawTrial
from lyrandis.core.trials.hold import HoldTrial
from lyrandis.core.trials.inspection import InspectionTrial
from lyrandis.core.trials.quiet import QuietTrial
from lyrandis.core.trials.settling import SettlingTrial
from lyrandis.core.trials.weighing import WeighingTrial

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
TrialKind = Literal["draw", "weighing", "hold", "inspection", "brace", "settling", "quiet"]
KINDS: dict[str, type[TrialBase]] = {
    kind.model_fields["kind"].default: kind for kind in get_args(get_args(Trial)[0])
}

__all__ = [
    "KINDS", "BraceTrial", "DrawTrial", "HoldTrial", "InspectionTrial", "KeptTrial", "Level",
    "QuietTrial", "SettlingTrial", "Trial", "TrialBase", "TrialKind", "WeighingTrial", "standing",
]  # fmt: skip
