"""The plan to go up in weight, at the Weight station."""

from __future__ import annotations

import math

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, fine, mind, say, verbatim
from lyrandis.core.fit.hold import HELD_S, STEP_SHARE, WANTED
from lyrandis.core.fit.step_up import LEAST_WEEKS, WeightPlan, too_fast

_FINEST_LBF = 0.5  # of a step
_USUAL_WEEKS = 6.0
_WHY_PLAN = say(
    "A step's weeks begin when the weight before it was taken and held three times, whatever the "
    "day that was planned; a step that came late moves all after it. Weeks between, because sinews "
    "take longer than muscles. When you have gone up, set the bow you draw, and the plan goes on "
    "from it."
)


def plan_findings(b: Bench) -> list[Finding]:
    """How the plan stands, and what is wrong with it; nothing without a goal."""
    if b.rig.step_up.goal_lbf is None:
        return []
    try:
        plan = b.bow.plan
    except RefusedError as error:
        return [
            mind(
                said=error.said or verbatim(error.reason),
                why=_WHY_PLAN,
                told="practice",
                action=Action(label=say("Drop the plan"), changes={"step_up.goal_lbf": None}),
            )
        ]
    return [*_hasty(b, plan), *_next_step(b, plan)]


def _next_step(b: Bench, plan: WeightPlan) -> list[Finding]:
    first, last = plan.steps[0], plan.steps[-1]
    now, then = ("weight", plan.from_lbf), ("weight", first.weight_lbf)
    if plan.held_on is None:
        return [
            mind(
                said=say(
                    f"The plan to {{next}} waits: time {WANTED} holds of {{held}} at the {{now}} "
                    "that you draw now, without pain. The weeks begin then.",
                    next=then,
                    now=now,
                    held=("seconds", HELD_S),
                ),
                why=_WHY_PLAN,
                told="practice",
            )
        ]
    if plan.due(day_of(b.now)):
        return [
            fine(
                said=say(
                    f"{{now}} is held since {plan.held_on}: the plan's step to {{next}} may be "
                    "taken. Stop at pain.",
                    now=now,
                    next=then,
                ),
                why=_WHY_PLAN,
                told="practice",
            )
        ]
    return [
        fine(
            said=say(
                f"The plan goes to {{next}} on {first.day} at the earliest, and to {{goal}} by "
                f"{last.day} at the earliest.",
                next=then,
                goal=("weight", last.weight_lbf),
            ),
            why=_WHY_PLAN,
            told="practice",
        )
    ]


def _hasty(b: Bench, plan: WeightPlan) -> list[Finding]:
    """A plan whose steps are large or soon, and one that begins at what is not drawn."""
    of, found = b.rig.step_up, []
    large, soon = too_fast(of, plan.from_lbf)
    if large or soon:
        ease: dict[str, object] = {}
        if large:
            steps = math.floor(STEP_SHARE * plan.from_lbf / _FINEST_LBF) * _FINEST_LBF
            ease["step_up.step_lbf"] = max(steps, _FINEST_LBF)
        if soon:
            ease["step_up.weeks"] = _USUAL_WEEKS
        found.append(
            mind(
                said=say(
                    "Steps of {step}, {share} of what you draw, every {weeks}: that is fast. No "
                    f"more than a tenth at once, and {LEAST_WEEKS:g} weeks between at the least.",
                    step=("weight", of.step_lbf),
                    share=("percent", 100 * of.step_lbf / plan.from_lbf),
                    weeks=("weeks", of.weeks),
                ),
                why=say(
                    "Muscles follow in weeks, sinews and shoulders in months; what is hurt in haste "
                    "heals for a season. An own rule; a coach's word wins."
                ),
                told="rule",
                action=Action(label=say("Go up slower"), changes=ease),
            )
        )
    if of.from_lbf is not None and of.from_lbf > plan.from_lbf + _FINEST_LBF:
        found.append(
            mind(
                said=say(
                    "A plan begins at what you draw now, {now}; the {start} set as its beginning "
                    "counts for nothing.",
                    now=("weight", plan.from_lbf),
                    start=("weight", of.from_lbf),
                ),
                why=_WHY_PLAN,
                told="rule",
                action=Action(label=say("Take it out"), changes={"step_up.from_lbf": None}),
            )
        )
    return found
