"""What is shown of the archer: the steps up in weight."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, verbatim
from lyrandis.core.fit.step_up import WeightStep


@dataclass(frozen=True)
class StepUpPlanView:
    """The steps up in weight, or why there are none.

    held_on : the day from which what is drawn now is held, since it was taken; None where it is not
    due : whether the first step may be taken
    """

    steps: list[WeightStep]
    held_on: str | None
    due: bool
    problem: Said | None


def plan_view(b: Bench) -> StepUpPlanView:
    """The plan to go up in weight."""
    try:
        plan = b.bow.plan
        return StepUpPlanView(list(plan.steps), plan.held_on, plan.due(day_of(b.now)), None)
    except RefusedError as error:
        return StepUpPlanView([], None, False, error.said or verbatim(error.reason))
