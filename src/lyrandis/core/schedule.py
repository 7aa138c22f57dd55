"""What is due when: derived from the rig, its stations' states and its trials, and from the day.

Nothing is ticked off by hand: an item is done by the measurement it asks for.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import reduce
from operator import add
from typing import Literal

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between, hours_between, later
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.fit.step_up import stands_still
from lyrandis.core.inspection import INSPECT_EVERY_DAYS
from lyrandis.core.route import STATIONS, StationState
from lyrandis.core.stops import StationId
from lyrandis.core.trials import KeptTrial, standing

When = Literal["now", "coming", "each_time"]


@dataclass(frozen=True)
class Due:
    """One thing to do: where, when, why, and the measurement that last did it.

    day : earliest day (YYYY-MM-DD); None for what is done each time out
    """

    id: str
    title: Said
    why: Said
    station: StationId
    when: When
    day: str | None
    last: Said | None


def _last(trials: Sequence[KeptTrial]) -> Said | None:
    if not trials:
        return None
    said: Said = trials[-1].trial.said()
    return said.around(f"{trials[-1].day}: ", ".")


def _when(day: str, today: str) -> When:
    return "now" if days_between(day, today) >= 0 else "coming"


def _rechecks(states: Sequence[StationState], today: str) -> list[Due]:
    return [
        Due(
            f"recheck-{s.station}",
            say(f"Recheck {STATIONS[s.station].title.lower()}"),
            reduce(add, s.reasons),
            s.station,
            "now",
            today,
            None,
        )
        for s in states
        if s.state == "due"
    ]


def _string(b: Bench, today: str) -> list[Due]:
    try:
        settling = b.string.settling
    except RefusedError:  # natural fibre is not predicted, and some rigs cannot be solved
        return []
    if settling is None or settling.settled:
        return []
    day = later(day_of(b.string.settling_run[-1].at), days=1)
    return [
        Due(
            "string-settling",
            say("Measure the new string's brace height again"),
            say(
                "It was new and still sinks, by {sinks} in a fortnight. Set the brace height once "
                "it has settled, not before a night braced.",
                sinks=("brace", settling.sinks_in),
            ),
            "string",
            _when(day, today),
            day,
            _last(b.string.settling_run),
        )
    ]


def _stopped(b: Bench, today: str) -> list[Due]:
    """A part that must not be shot, before everything else."""
    return [
        Due(
            f"stopped-{slot}",
            say(f"Do not shoot: the {slot.replace('_', ' ')} is stopped"),
            say("{why}.", why=stopped.why or f"Found on {stopped.day}: {stopped.places}"),
            "bow-length",
            "now",
            today,
            None,
        )
        for slot, stopped in b.stopped.items()
    ]


def _measure_again(b: Bench, today: str) -> list[Due]:
    day = b.archer.measure_again
    if day is None:
        return []
    return [
        Due(
            "draw-again",
            say("Measure the child's draw again"),
            say("A growing draw asks for longer arrows first, then for another bow."),
            "draw",
            _when(day, today),
            day,
            _last(b.archer.measured_on),
        )
    ]


def _inspection(b: Bench, today: str) -> Due:
    looks = standing(b.trials, "inspection")
    day = later(looks[-1].day, days=INSPECT_EVERY_DAYS) if looks else today
    return Due(
        "inspection",
        say("Look the bow over"),
        say("Limbs, string and arrows every few weeks of shooting, and after any knock."),
        "bow-length",
        _when(day, today),
        day,
        _last(looks),
    )


def _not_held(b: Bench, today: str) -> list[Due]:
    """What must be seen to before anybody goes up, or shoots on: pain, or too heavy a bow."""
    try:
        still = stands_still(b.archer.strength, b.bow.force_lbf)
    except RefusedError:  # the bow cannot be computed: only pain can be told
        still = stands_still(b.archer.strength, None)
    if still is None:
        return []
    title = "Stop at pain" if b.archer.strength.pain else "Go down in weight, or hold it first"
    return [
        Due("stopped-weight", say(title), still, "weight", "now", today, _last(b.archer.held)),
    ]


def _steps(b: Bench, today: str) -> list[Due]:
    try:
        plan = b.bow.plan
    except RefusedError:
        return []
    last = _last(b.archer.held)
    told = []
    if plan.steps and plan.held_on is None:
        told.append(
            Due(
                "hold-now",
                say("Time three holds of {now}", now=("weight", plan.from_lbf)),
                say("The plan to go up waits for them; its weeks begin then."),
                "weight",
                "now",
                today,
                last,
            )
        )
    for step in plan.steps:
        told.append(
            Due(
                f"step-{step.number}",
                say("Go up to {weight}, at the earliest", weight=("weight", step.weight_lbf)),
                say(f"It was earned by {step.earned_by}. Set the bow you draw when you have.")
                if step.earned
                else say(f"Only after {step.earned_by}."),
                "weight",
                "now" if step.number == 1 and plan.due(today) else "coming",
                step.day,
                last if step.number == 1 else None,
            )
        )
    return told


def schedule(b: Bench, states: Sequence[StationState]) -> list[Due]:
    """Everything that is due or coming, the nearest first; what is done each time out last.

    Parameters
    ----------
    states : the stations' states on this rig
    """
    today = day_of(b.now)
    dated = [
        *_stopped(b, today),
        *_not_held(b, today),
        *_rechecks(states, today),
        *_string(b, today),
        _inspection(b, today),
        *_steps(b, today),
    ]
    dated += _measure_again(b, today)
    braces = standing(b.trials, "brace")
    each = Due(
        "brace-each-time",
        say("Measure the brace height, then listen"),
        say("Before each session: a string that crept or a bow strung otherwise shows here first."),
        "brace",
        "each_time",
        None,
        _last(braces),
    )
    dated.sort(key=lambda d: d.day or "")
    first = ("stopped", "recheck")
    dated.sort(key=lambda d: (d.when != "now", not d.id.startswith(first)))
    return [*dated, each]


MOST_HOURS_BRACED = 14 * 24.0  # after a fortnight nobody knows how long it stood braced


def hours_braced(run: Sequence[KeptTrial], now: str) -> float | None:
    """Hours since the latest new string was first braced, if it stayed so; None if unknown."""
    hours = hours_between(run[0].at, now) if run else None
    return None if hours is None or hours > MOST_HOURS_BRACED else hours
