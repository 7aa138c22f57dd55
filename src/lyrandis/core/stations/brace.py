"""Brace height: its range, and what moving it does."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.recalling import question_brace
from lyrandis.core.tune.brace import QUARTER_IN
from lyrandis.core.tune.listening import SIMULATED, Curve
from lyrandis.core.tune.sweep import CLOSE_MM
from lyrandis.core.units import MM_PER_IN

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
    return Answer(answer, [*reach(b), *question_brace(b), *_session(b), _effect(b), _listen()])


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
    quarter = ("percent_1", abs(f.energy_per_in_pct) * QUARTER_IN)
    step = ("brace", QUARTER_IN)
    up, down = (
        ("small", abs(v if v is not None else f.string_per_in * QUARTER_IN) * MM_PER_IN)
        for v in (f.string_up_in, f.string_down_in)
    )
    text = "{step} more brace stores {loss} less and needs the string {shorter} shorter"
    if f.two_valued:
        text += "; as much less lets it be {longer} longer"
    return fine(
        said=say(text + ".", step=step, loss=quarter, shorter=up, longer=down)
        if f.two_valued
        else say(text + ".", step=step, loss=quarter, shorter=up),
        why=say(
            "Higher is a touch slower, often quieter, with less string slap; lower is a touch "
            "faster, often louder. Weight at your draw hardly changes. On whether a higher brace "
            "makes the arrow look weaker reports differ: try it and read."
            + (
                " The string just lifts off the levers' corner here, so that up and down differ."
                if f.two_valued
                else ""
            )
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
    heard = b.brace.listening
    told = heard.curve
    found = [*_before(b), *_apart(b)]
    if told is not None and not heard.stale:
        found = [_ended(b, told) if told.verdict else _onward(told), *_pull(b, told), *found]
    if heard.wide_groups:
        found.append(
            mind(
                said=say(
                    "The group at {worst} is wider than chance: leave that brace.",
                    worst=("brace", heard.wide_groups[0]),
                ),
                why=say(
                    "All groups of the session are judged together, by what so many arrows scatter "
                    "by chance: one session in twenty of groups truly alike would say this. With "
                    "three arrows a group a smaller difference says nothing."
                ),
                told="measured",
            )
        )
    if SIMULATED in {h.by for h in heard.heard}:
        found = [_only_simulated(finding) for finding in found]
    return found


def _only_simulated(finding: Finding) -> Finding:
    """What a session of the simulated recorder says, marked so: it measures nothing."""
    if finding.told != "measured":
        return finding
    said = finding.said.around("Simulated: ", "")
    return finding.model_copy(update={"said": said, "told": "model"})


def _why(told: Curve) -> Said:
    return told.why + say(
        "Loudness over brace as a curve with its own doubt, from this session's trials; {close} "
        "within {span}.",
        close=("percent", told.sure * 100),
        span=("brace", CLOSE_MM / MM_PER_IN),
    )


def _onward(told: Curve) -> Finding:
    if told.next_in is None:
        return mind(
            said=say("This string reaches no brace height of the range by turning: take another."),
            why=told.why,
            told="model",
        )
    return mind(
        said=say("Next listen at {there}.", there=("brace", told.next_in)),
        why=told.why,
        told="measured",
    )


def _ended(b: Bench, told: Curve) -> Finding:
    """How the sweep ended: each end has its own sentence, and only one says nothing is left."""
    best, (low, high) = told.best_in, told.interval_in
    ends = {
        "found": "Quietest between {low} and {high}, likeliest {best}. Nothing audible is left to "
        "gain.",
        "as_good_as_told": "As good as can be told: between {low} and {high}, likeliest {best}.",
        "out_of_patience": "Best so far {best}, between {low} and {high}; this day tells no more.",
    }
    text = ends[told.verdict or "found"]
    reach = b.brace.reach_in
    if reach is not None and not reach[0] <= best <= reach[1]:
        return mind(
            said=say(
                text + " By its turns this string reaches {least} to {most} only: take another.",
                low=("brace", low),
                high=("brace", high),
                best=("brace", best),
                least=("brace", reach[0]),
                most=("brace", reach[1]),
            ),
            why=_why(told),
            told="measured",
        )
    there = round(best / _READ_IN) * _READ_IN
    return fine(
        said=say(text, low=("brace", low), high=("brace", high), best=("brace", best)),
        why=_why(told),
        told="measured",
        action=None
        if abs(best - b.brace.height.brace_in) < _READ_IN
        else Action(
            label=say("Set {best}", best=("brace", there)),
            changes={"bow.brace_height_in": there},
        ),
    )


def _pull(b: Bench, told: Curve) -> list[Finding]:
    """Where sound and speed pull apart."""
    best, f = told.best_in, b.brace.height
    if told.verdict is None or abs(best - f.low_in) <= QUARTER_IN:
        return []
    cost = (best - f.low_in) * abs(b.brace.effect.energy_per_in_pct) / 2
    word = "quiet" if b.rig.use in ("close_cover", "woodland") else "speed"
    return [
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
    ]


def _before(b: Bench) -> list[Finding]:
    """What of an older session still informs this one."""
    heard = b.brace.listening
    if heard.stale and heard.day is not None:
        anew = say(f"You listened last on {heard.day}: begin anew.")
        if heard.curve is not None:
            anew += say(
                "It was quietest about {best}: begin there.", best=("brace", heard.curve.best_in)
            )
        return [
            mind(
                said=anew,
                why=say(
                    "After two months the string has crept and the place and the microphone are "
                    "others: levels of then and now do not compare. Where it was quietest is "
                    "still a place to begin, as long as string and arrow are the same."
                ),
                told="practice",
            )
        ]
    old = heard.earlier
    if old is None:
        return []
    low, high = old.interval_in
    return [
        fine(
            said=say(
                f"On {old.day} it was quietest between {{low}} and {{high}}"
                + (
                    "."
                    if old.stands
                    else "; string or arrow have changed since, so it says little of today."
                ),
                low=("brace", low),
                high=("brace", high),
            ),
            why=say(
                "Its levels are not on today's axis: they share no brace with today's trials, lie "
                "months back, or were made with another string or arrow. Only the place informs."
            ),
            told="measured",
        )
    ]


def _apart(b: Bench) -> list[Finding]:
    """Levels of this day that could not be put on one axis."""
    heard = b.brace.listening
    today = {h.by for h in heard.apart if h.day == heard.day}
    if not today:
        return []
    if SIMULATED in {h.by for h in (*heard.heard, *heard.apart) if h.day == heard.day}:
        return [
            fine(
                said=say("A stand-in's levels are kept apart from what was really heard."),
                why=say("The simulated recorder shows how listening goes; it measures nothing."),
                told="practice",
            )
        ]
    return [
        mind(
            said=say(
                "Levels of two sources stand apart: listen at one brace with both, and they join."
            ),
            why=say(
                "A meter and a recording number the same sound differently, and by how much "
                "nobody knows until both have heard one brace."
            ),
            told="measured",
        )
    ]
