"""A plan to go up in weight: small steps, weeks between them, each earned by a steady hold.

Source: practice section 3. The days are the earliest; a step waits for the hold before it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from lyrandis.core.dates import later
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.fit.hold import HELD_S, WANTED
from lyrandis.core.parts import Archer, StepUp

MOST_STEPS = 20


@dataclass(frozen=True)
class WeightStep:
    """One step: the earliest day (YYYY-MM-DD), the weight at the draw [lb], what must hold."""

    number: int
    day: str
    weight_lbf: float
    earned_by: str


def begun(changes: Mapping[str, Any], plan: StepUp, today: str) -> dict[str, Any]:
    """Changes with the plan's first day set, where they set a goal and no day was named.

    Without it the plan's days would move on with every new day.
    """
    goal = changes.get("step_up.goal_lbf")
    if goal is None or changes.get("step_up.starts", plan.starts):
        return dict(changes)
    return dict(changes) | {"step_up.starts": today}


def weight_steps(plan: StepUp, archer: Archer, weight_lbf: float, today: str) -> list[WeightStep]:
    """The steps from the present weight to the goal, the last one no larger than the others.

    Parameters
    ----------
    weight_lbf : what the archer draws now [lb]; `plan.from_lbf` overrides it
    today : the plan's first day where it names none

    Returns
    -------
    Steps in order; none where there is no goal.

    Raises
    ------
    RefusedError : a child's plan, a goal not above the present weight, or too many steps.

    >>> plan = StepUp(from_lbf=30, goal_lbf=33, step_lbf=2, weeks=6, starts="2026-01-01")
    >>> [(s.day, s.weight_lbf) for s in weight_steps(plan, Archer(), 30.0, "2026-01-01")]
    [('2026-02-12', 32.0), ('2026-03-26', 33.0)]
    """
    if plan.goal_lbf is None:
        return []
    if archer.grown == "child":
        raise RefusedError(
            "step_up.goal_lbf", "No plan is made for a child: go up only with a coach."
        )
    now = weight_lbf if plan.from_lbf is None else plan.from_lbf
    if plan.goal_lbf <= now:
        raise RefusedError(
            "step_up.goal_lbf",
            say(
                "The goal must lie above the {now} drawn now; going down needs no plan.",
                now=("weight", now),
            ),
            round(now, 1),
            "lb",
        )
    count = math.ceil((plan.goal_lbf - now) / plan.step_lbf - 1e-9)
    if count > MOST_STEPS:
        raise RefusedError(
            "step_up.step_lbf",
            f"That makes {count} steps; a plan takes {MOST_STEPS} at most: plan a nearer goal.",
            MOST_STEPS,
            "steps",
        )
    day = plan.starts or today
    steps = []
    for n in range(1, count + 1):
        weight = min(now + n * plan.step_lbf, plan.goal_lbf)
        before = now + (n - 1) * plan.step_lbf
        steps.append(
            WeightStep(
                n,
                later(day, weeks=plan.weeks * n),
                weight,
                f"{WANTED} steady holds of {HELD_S:g} s at {before:.1f} lb, without pain",
            )
        )
    return steps
