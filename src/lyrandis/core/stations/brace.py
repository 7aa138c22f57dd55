"""Brace height: its range, and what moving it does."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.tune.sweep import CLOSE_MM
from lyrandis.core.units import MM_PER_IN

_STEP_IN = 0.25  # of brace, for what a step does
_READ_IN = 1 / 16  # a bow square is read so
_TO = {
    "grip": "the deepest part of the grip",
    "back": "the back of the bow",
    "plunger": "the plunger",
}


def note(b: Bench) -> Said:
    """The brace height."""
    f = b.brace.height
    return say("{brace}" + (" assumed" if f.assumed else ""), brace=("brace", f.brace_in))


def tell(b: Bench) -> Answer:
    """Where the string stands."""
    f = b.brace.height
    start = "an ordinary start until you measure" if f.assumed else "as you measured it"
    answer = say(
        f"The string stands {{brace}} from {_TO[b.rig.bow.brace_reference]}, {start}; "
        f"{'the maker allows' if f.range_from == 'maker' else 'usual is'} {{low}} to {{high}}.",
        brace=("brace", f.brace_in),
        low=("brace", f.low_in),
        high=("brace", f.high_in),
    )
    return Answer(answer, [*reach(b), *_session(b), _effect(b), _listen()])


def reach(b: Bench) -> list[Finding]:
    """Whether the brace height lies in the maker's range, or the form's."""
    f = b.brace.height
    maker = f.range_from == "maker"
    why = say(
        "Too low slaps the wrist and works the limbs harder; too high loads them at rest. "
        + (
            "The maker's range wins."
            if maker
            else "The range is practice's for this form; the maker's wins."
        )
    )
    if f.low_in <= f.brace_in <= f.high_in:
        return [
            fine(
                said=say(
                    "It lies within " + ("the maker's range." if maker else "the usual range.")
                ),
                why=why,
                told="maker" if maker else "practice",
            )
        ]
    low = f.brace_in < f.low_in
    bound = f.low_in if low else f.high_in
    return [
        Finding(
            level="stop" if maker else "mind",
            said=say(
                f"It is {{off}} {'below' if low else 'above'} "
                + ("the maker's range." if maker else "what is usual for this form."),
                off=("brace", abs(f.brace_in - bound)),
            ),
            why=why,
            told="maker" if maker else "practice",
            action=Action(
                label=say("Try {bound}", bound=("brace", bound)),
                changes={"bow.brace_height_in": bound},
            ),
        )
    ]


def _effect(b: Bench) -> Finding:
    f = b.brace.effect
    quarter = abs(f.energy_per_in_pct) * _STEP_IN
    return fine(
        said=say(
            "{step} more brace stores {loss} less and needs the string {shorter} shorter.",
            step=("brace", _STEP_IN),
            loss=("percent_1", quarter),
            shorter=("small", abs(f.string_per_in) * _STEP_IN * MM_PER_IN),
        ),
        why=say(
            "Higher is a touch slower, often quieter, with less string slap; lower is a touch "
            "faster, often louder. Weight at your draw hardly changes. On whether a higher brace "
            "makes the arrow look weaker reports differ: try it and read."
        ),
        told="model",
    )


def _listen() -> Finding:
    return fine(
        said=say("Before each session measure it again, then listen and feel the hand."),
        why=say(
            "The quietest, smoothest height in the range is usually the right one; the group is checked after."
        ),
        told="practice",
    )


def _session(b: Bench) -> list[Finding]:
    """What the latest session of listening says."""
    heard, f = b.brace.listening, b.brace.height
    told = heard.curve
    if told is None:
        return []
    best, (low, high) = told.best_in, told.interval_in
    why = say(
        "Loudness over brace as a curve with its own doubt, from this session's trials only: "
        "without a calibration tone other days do not compare. {close} within {span}.",
        close=("percent", told.sure * 100),
        span=("brace", CLOSE_MM / MM_PER_IN),
    )
    try_it = Action(
        label=say("Set {best}", best=("brace", best)),
        changes={"bow.brace_height_in": round(best / _READ_IN) * _READ_IN},
    )
    found = []
    if told.done:
        found.append(
            fine(said=say(
                    "Quietest between {low} and {high}, likeliest {best}. Nothing audible is left "
                    "to gain.",
                    low=("brace", low), high=("brace", high), best=("brace", best),
                ),
                why=why,
                told="measured",
                action=None if abs(best - f.brace_in) < _READ_IN else try_it,
            )
        )  # fmt: skip
    elif told.next_in is not None:
        found.append(
            mind(
                said=say("Next listen at {there}.", there=("brace", told.next_in)),
                why=say(told.why),
                told="measured",
            )
        )
    if told.done and abs(best - f.low_in) > _STEP_IN:
        cost = (best - f.low_in) * abs(b.brace.effect.energy_per_in_pct) / 2
        word = "quiet" if b.rig.use in ("close_cover", "woodland") else "speed"
        found.append(
            fine(
                said=say(
                    "Sound and speed pull apart: the lowest brace is about {cost} faster. For your "
                    f"use {word} counts more; you decide.",
                    cost=("percent_1", cost),
                ),
                why=say(
                    "A lower brace stores more and drives longer. Close-range hunters and woodland "
                    "courses want quiet; indoor target shooters do not care."
                ),
                told="model",
            )
        )
    if heard.wide_groups:
        worst = heard.wide_groups[0]
        found.append(
            mind(
                said=say(
                    "The group at {worst} is wider than chance: leave that brace.",
                    worst=("brace", worst),
                ),
                why=say(
                    "With three arrows a group must be 2.5 times another to mean anything, with "
                    "four 2.1, with six 1.7. Smaller differences say nothing."
                ),
                told="measured",
            )
        )
    return found
