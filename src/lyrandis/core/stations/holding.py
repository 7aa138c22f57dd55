"""What the archer can hold, at the Weight station: timed holds and the plan to go up."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, fine, mind, say, stop, verbatim
from lyrandis.core.fit.hold import HELD_S, SHORT_S, WANTED
from lyrandis.core.trials import standing

_HEAVY_LBF = 55.0
CHILD_LBF = 20.0  # over this a coach decides
_WORD_ROOM_LBF = 1.5  # a coach's word is of a marking, good to a pound or two
_WHY = say(
    "Draw, anchor and hold until it shakes, then let down; rest two minutes between. "
    "{held} three times is held, under {short} is too heavy: an own rule. Too heavy a bow ruins "
    "form and hurts shoulders; too light a one punishes a poor release.",
    held=("seconds", HELD_S),
    short=("seconds", SHORT_S),
)


def holding_findings(b: Bench, weight: float) -> list[Finding]:
    """What the holds, the weight and the plan mean."""
    found = _hold(b, weight)
    if b.rig.archer.grown == "child":
        found += heavy_for_a_child(b)
        found.append(
            mind(
                said=say("A child's weight is chosen with a coach; no plan is made here."),
                why=say("Growing shoulders: light bows, under supervision, stop at pain."),
                told="practice",
            )
        )
    return [*found, *_plan(b)]


def heavy_for_a_child(b: Bench) -> list[Finding]:
    """A bow that is heavy for a child: a stop, and a coach's word the only way past."""
    if b.rig.archer.grown != "child":
        return []
    heavy = b.bow.heaviest_lbf
    words = [k.trial for k in standing(b.known, "coach") if k.rig.on.archer == b.rig.on.archer]
    allowed = max((trial.weight_lbf for trial in words), default=CHILD_LBF)
    if heavy <= max(allowed, CHILD_LBF) + _WORD_ROOM_LBF * bool(words):
        return []
    return [
        stop(
            said=say(
                "{heavy} is heavy for a child. Only a coach's word goes past this: log it with the "
                "coach's name, or take a lighter bow.",
                heavy=("weight", heavy),
            ),
            why=say(
                "Growing shoulders are hurt by what a grown archer holds easily. Judged at the "
                "longest draw and on the heavy side; over {limit} a coach decides: an own rule.",
                limit=("weight", CHILD_LBF),
            ),
            told="practice",
        )
    ]


def _hold(b: Bench, weight: float) -> list[Finding]:
    h = b.bow.hold
    if h.verdict == "untried":
        if weight < _HEAVY_LBF:
            return []
        return [
            mind(
                said=say(
                    "{weight} is a heavy bow, and no hold was timed yet. Choose what you can hold "
                    "steady.",
                    weight=("weight", weight),
                ),
                why=_WHY,
                told="practice",
            )
        ]
    if h.verdict == "pain":
        return [
            stop(
                said=say(
                    "The last hold ended in pain. Stop with this bow, and ask a coach or doctor."
                ),
                why=_WHY,
                told="practice",
            )
        ]
    median = ("seconds", h.median_s or 0.0)
    if h.verdict == "too_heavy":
        lasting = h.lasting_lbf
        return [
            stop(
                said=say(
                    "You hold {weight} for only {median}: you are overbowed.",
                    weight=("weight", weight),
                    median=median,
                )
                if lasting is None
                else say(
                    "You hold {weight} for only {median}: overbowed. You held {lasting} well.",
                    weight=("weight", weight),
                    median=median,
                    lasting=("weight", lasting),
                ),
                why=_WHY,
                told="measured",
            )
        ]
    if h.verdict == "few":
        return [
            fine(
                said=say(
                    f"{h.count} of {WANTED} holds timed, {{median}} so far. Time another.",
                    median=median,
                ),
                why=_WHY,
                told="measured",
            )
        ]
    held = h.verdict == "held"
    return [
        Finding(
            level="fine" if held else "mind",
            said=say("You hold it steady for {median}.", median=median)
            if held
            else say(
                "You hold it for {median}: enough for a shot, short for a long day.", median=median
            ),
            why=_WHY,
            told="measured",
        )
    ]


def _plan(b: Bench) -> list[Finding]:
    if b.rig.step_up.goal_lbf is None:
        return []
    try:
        steps = b.bow.steps
    except RefusedError as error:
        return [
            mind(
                said=error.said or verbatim(error.reason),
                why=_WHY,
                told="practice",
                action=Action(label=say("Drop the plan"), changes={"step_up.goal_lbf": None}),
            )
        ]
    first, last = steps[0], steps[-1]
    today = day_of(b.now)
    if days_between(first.day, today) > 0:
        return [
            mind(
                said=say(
                    f"The plan's first step, to {{next}}, was due on {first.day}. Time three holds "
                    "of what you draw now; if they do not hold yet, begin the plan anew.",
                    next=("weight", first.weight_lbf),
                ),
                why=say(
                    "A step waits until the present weight was held steady three times, whatever "
                    "the day. When you have gone up, set the bow you draw now, and the plan goes on "
                    "from it."
                ),
                told="practice",
                action=Action(label=say("Begin the plan today"), changes={"step_up.starts": today}),
            )
        ]
    return [
        fine(
            said=say(
                f"The plan goes to {{next}} on {first.day} at the earliest, and to {{goal}} by "
                f"{last.day}.",
                next=("weight", first.weight_lbf),
                goal=("weight", last.weight_lbf),
            ),
            why=say(
                "A step waits until the present weight was held steady three times, whatever the "
                "day. Weeks between, because sinews take longer than muscles."
            ),
            told="practice",
        )
    ]
