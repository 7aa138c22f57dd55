"""What is shown of the archer: the steps up in weight."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, verbatim
from lyrandis.core.fit.step_up import WeightStep


@dataclass(frozen=True)
class PlanView:
    """The steps up in weight, or why there are none."""

    steps: list[WeightStep]
    problem: Said | None


def plan_view(b: Bench) -> PlanView:
    """The plan to go up in weight."""
    try:
        return PlanView(b.bow.steps, None)
    except RefusedError as error:
        return PlanView([], error.said or verbatim(error.reason))
