"""A plan to go up in weight: small steps, weeks between them, each earned by a steady hold.

    30 lb held     ── weeks ──     32 taken  32 held     ── weeks ──     34 taken  …
    the clock starts                         the clock starts

The clock of a step starts when the weight before it was taken and held, whatever the plan's own
days were; a step that was late moves all after it. Nothing goes up while what is drawn now is not
held, and nothing after pain until it is over (`hold`).

Source: practice section 3; own rules.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from lyrandis.core.dates import days_between, later
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.fit.hold import HELD_S, REST_DAYS, STEP_SHARE, UNDER, WANTED, Strength
from lyrandis.core.parts import Archer, StepUp

MOST_STEPS = 20
LEAST_WEEKS = 4.0  # between two steps: sinews take longer than muscles
_SLACK_SHARE = 0.25  # of a step: holds so little under a weight are holds of it
_LATER = 1e-9


@dataclass(frozen=True)
class WeightStep:
    """One step: the earliest day (YYYY-MM-DD), the weight at the draw [lb], what must hold.

    earned : whether that was held
    """

    number: int
    day: str
    weight_lbf: float
    earned_by: str
    earned: bool = False


@dataclass(frozen=True)
class WeightPlan:
    """The steps from what is drawn now to the goal, by days.

    from_lbf : what is drawn now [lb]
    held_on : the day from which that is held, since it was taken; None where it is not
    """

    steps: tuple[WeightStep, ...]
    from_lbf: float
    held_on: str | None

    def due(self, today: str) -> bool:
        """Whether the first step may be taken."""
        earned = bool(self.steps) and self.held_on is not None
        return earned and days_between(self.steps[0].day, today) >= 0


def begun(changes: Mapping[str, Any], plan: StepUp, today: str) -> dict[str, Any]:
    """Changes with the plan's first day set, where they set a goal and no day was named.

    Without it the plan's days would move on with every new day.
    """
    goal = changes.get("step_up.goal_lbf")
    if goal is None or changes.get("step_up.starts", plan.starts):
        return dict(changes)
    return dict(changes) | {"step_up.starts": today}


def too_fast(plan: StepUp, weight_lbf: float) -> tuple[bool, bool]:
    """Whether the steps from a weight [lb] are larger than a tenth of it; whether they come
    sooner than four weeks."""
    large = plan.step_lbf > STEP_SHARE * weight_lbf + _LATER
    return large, plan.weeks < LEAST_WEEKS


def weight_plan(
    plan: StepUp,
    archer: Archer,
    weight_lbf: float,
    today: str,
    strength: Strength,
    taken: str = "",
) -> WeightPlan:
    """The steps from the present weight to the goal, the last one no larger than the others.

    Parameters
    ----------
    weight_lbf : what the archer draws now [lb]
    today : the plan's first day where it names none
    taken : the day on which the archer went up to that weight; "" where that is not known

    Raises
    ------
    RefusedError : a child's plan, a goal not above the present weight, too many steps, or a plan
        that stands still: after pain, or because the present weight is too heavy.

    >>> plan = StepUp(goal_lbf=33, step_lbf=2, weeks=6, starts="2026-01-01")
    >>> from lyrandis.core.fit.hold import Held
    >>> three = Strength((Held(30, 11, False, "2026-01-03"),) * 3)
    >>> told = weight_plan(plan, Archer(), 30.0, "2026-01-20", three)
    >>> [(s.day, s.weight_lbf) for s in told.steps]
    [('2026-02-14', 32.0), ('2026-03-28', 33.0)]
    """
    goal = plan.goal_lbf
    if goal is None:
        return WeightPlan((), weight_lbf, None)
    if archer.grown == "child":
        raise RefusedError(
            "step_up.goal_lbf", "No plan is made for a child: go up only with a coach."
        )
    if goal <= weight_lbf:
        raise RefusedError(
            "step_up.goal_lbf",
            say(
                "The goal must lie above the {now} drawn now; going down needs no plan.",
                now=("weight", weight_lbf),
            ),
            round(weight_lbf, 1),
            "lb",
        )
    still = stands_still(strength, weight_lbf)
    if still is not None:
        raise RefusedError("step_up.goal_lbf", still)
    under = min(UNDER, _SLACK_SHARE * plan.step_lbf / weight_lbf)
    held_on = strength.held_on(weight_lbf, taken, under)
    base = weight_lbf
    if held_on is not None:
        base = strength.least_held_lbf(weight_lbf, taken, under)
    count = math.ceil((goal - base) / plan.step_lbf - _LATER)
    if count > MOST_STEPS:
        raise RefusedError(
            "step_up.step_lbf",
            f"That makes {count} steps; a plan takes {MOST_STEPS} at most: plan a nearer goal.",
            MOST_STEPS,
            "steps",
        )
    clock = max(plan.starts or today, taken, held_on or today)
    first = later(clock, weeks=plan.weeks)
    steps = []
    for n in range(1, count + 1):
        before = base + (n - 1) * plan.step_lbf
        steps.append(
            WeightStep(
                n,
                later(max(first, today), weeks=plan.weeks * (n - 1)) if n > 1 else first,
                min(base + n * plan.step_lbf, goal),
                f"{WANTED} steady holds of {HELD_S:g} s at {before:.1f} lb, without pain",
                n == 1 and held_on is not None,
            )
        )
    return WeightPlan(tuple(steps), weight_lbf, held_on)


def stands_still(strength: Strength, weight_lbf: float | None) -> Said | None:
    """Why nobody goes up from a weight [lb] now: pain, or too heavy a bow; None where one may.

    Of a weight that is not known (None) only pain is told.
    """
    hurt = strength.pain
    if hurt is not None:
        on = f" on {hurt.day}" if hurt.day else ""
        return say(
            f"Nothing goes up since a hold at {{hurt}} ended in pain{on}: not before a coach's "
            f"or doctor's word is logged for it, or {WANTED} holds of {{held}} at that weight "
            f"without pain, {REST_DAYS} days later at the least.",
            hurt=("weight", hurt.weight_lbf),
            held=("seconds", HELD_S),
        )
    if weight_lbf is None:
        return None
    hold = strength.of(weight_lbf)
    if hold.verdict == "too_heavy":
        return say(
            "Nothing goes up while {now} is held for only {median}: go down, or hold it "
            f"{WANTED} times for {{held}} first.",
            now=("weight", weight_lbf),
            median=("seconds", hold.median_s or 0.0),
            held=("seconds", HELD_S),
        )
    return None
