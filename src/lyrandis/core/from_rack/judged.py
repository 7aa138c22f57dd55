"""What fits and what does not: a bow for an archer, a string on a bow, a set of arrows from it.

The sentences are the stations' own wherever these speak of it; what only a rack asks stands here.
"""

from __future__ import annotations

from collections.abc import Callable

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import (
    LEVELS,
    Finding,
    Grounds,
    Level,
    by_seriousness,
    fine,
    mind,
    say,
    stop,
    verbatim,
)
from lyrandis.core.fit.hold import SAME_WEIGHT, Strength
from lyrandis.core.from_rack.built import Asking
from lyrandis.core.parts import ArcherPart, ArrowSet, BowPart, Part, RiserPart
from lyrandis.core.stations import arrow, bow_length, draw, limbs, string, weight
from lyrandis.core.stations.holding import heavy_for_a_child
from lyrandis.core.string.twists import ANOTHER_STRING_IN

NEAR_LENGTH_IN = 1.25  # of string: turns, and twice what tape and model differ by
FAR_LENGTH_IN = 2.5  # of string: also where only the bow it was on last tells it
_FEW_SHAFTS = 3


def level_of(findings: list[Finding]) -> Level:
    """The most serious level there is."""
    return min((f.level for f in findings), key=LEVELS.index, default="fine")


def told(*asked: Callable[[], list[Finding]]) -> list[Finding]:
    """Findings, most serious first; what cannot be computed is a stop with its reason."""
    found: list[Finding] = []
    for ask in asked:
        try:
            found += ask()
        except RefusedError as error:
            refusal = stop(
                said=error.said or verbatim(error.reason),
                why=say("The models refuse values they do not cover."),
                told="model",
            )
            if refusal not in found:
                found.append(refusal)
    return by_seriousness([f.model_copy(update={"action": None}) for f in found])


def of_bow(b: Bench, asking: Asking, bow: Part) -> list[Finding]:
    """A bow for an archer: length, weight and hand."""
    return told(
        lambda: [f for f in weight.end(b) if f.level == "stop" or f.told == "maker"],
        lambda: _hand(asking, bow),
        lambda: bow_length.reserve(b),
        lambda: bow_length.angle(b),
        lambda: heavy_for_a_child(b),
        lambda: _strength(b),
        lambda: _wished(b, asking),
        lambda: limbs.pair(b) if b.rig.bow.is_takedown_recurve else [],
    )


def of_string(b: Bench, long_in: float | None = None) -> list[Finding]:
    """A string on a bow; `long_in`: its length [in] where only the bow it was on tells it."""
    return told(lambda: string.material(b), lambda: string.strands(b), lambda: _braces(b, long_in))


def of_set(b: Bench, arrows: Part) -> list[Finding]:
    """A set of arrows from a bow."""
    return told(
        lambda: [draw.arrow_margin(b)],
        lambda: [arrow.floor(b), *arrow.both(b)],
        lambda: [arrow.spine(b)],
        lambda: _whole(arrows),
    )


def _hand(asking: Asking, bow: Part) -> list[Finding]:
    """Whether the shelf is on the archer's side."""
    who, of = asking.archer.of, bow.of
    if not isinstance(who, ArcherPart) or not isinstance(of, BowPart | RiserPart):
        return []
    made, thumb = of.cut_for, who.release == "thumb"
    wanted = {"right": "left", "left": "right"}[who.hand] if thumb else who.hand
    why = say(
        "A finger archer's arrow lies on the side of the bow hand's knuckles; a thumb archer's "
        "lies on the other."
    )
    if made == "unknown":
        return [
            mind(
                said=say(
                    "Nobody has said for which hand it is made: look at the shelf or the rest."
                ),
                why=why,
                told="practice",
            )
        ]
    if made not in ("both", wanted):
        side = "a thumb wants the other" if thumb else "its shelf is on the other side"
        return [
            stop(said=say(f"It is made for the {made} hand: {side}."), why=why, told="practice")
        ]
    return []


def _strength(b: Bench) -> list[Finding]:
    """The weight against all that the archer held."""
    held: Strength = b.archer.strength
    pulls, at = b.bow.weight.value, ("weight", b.bow.weight)
    why = say(
        "Too heavy a bow ruins form and hurts shoulders. Go up in small steps, weeks between; hold "
        "the new weight three times before you take it for good."
    )
    too_much, lasting = held.too_much_lbf, held.lasting_lbf
    if too_much is not None and pulls >= too_much * (1 - SAME_WEIGHT):
        return [
            stop(
                said=say(
                    "{weight} at the draw: {held} could not be held, or not without pain.",
                    weight=at,
                    held=("weight", too_much),
                ),
                why=why,
                told="measured",
            )
        ]
    if lasting is None:
        return []
    if pulls > lasting * (1 + SAME_WEIGHT):
        return [
            mind(
                said=say(
                    "{weight} at the draw is more than the {held} that was held: time holds with "
                    "it first.",
                    weight=at,
                    held=("weight", lasting),
                ),
                why=why,
                told="measured",
            )
        ]
    return [
        fine(
            said=say("{weight} at the draw: {held} was held.", weight=at, held=("weight", lasting)),
            why=why,
            told="measured",
        )
    ]


def _wished(b: Bench, asking: Asking) -> list[Finding]:
    """The weight against what was wished for."""
    most, pulls = asking.most_lbf, b.bow.weight
    if most is None or pulls.value <= most:
        return []
    return [
        mind(
            said=say(
                "{weight} at the draw is over the {most} you asked for.",
                weight=("weight", pulls),
                most=("weight", most),
            ),
            why=say("Choose by what can be held steady."),
            told="rule",
        )
    ]


def too_long_in(b: Bench, long_in: float | None = None) -> float | None:
    """How much longer [in] a string is than the bow needs; None where it is near, or not known."""
    length = b.rig.string.length_in or long_in
    if length is None:
        return None
    off = length - b.string.fit.needed_length_in
    return off if abs(off) > NEAR_LENGTH_IN else None


def _braces(b: Bench, long_in: float | None) -> list[Finding]:
    """Whether the string braces the bow within its range, or a few turns away from it."""
    height, gives, needed = b.brace.height, b.string.expected, b.string.fit.needed_length_in
    off = too_long_in(b, long_in)
    why = say(
        f"The range is {'the maker’s' if height.range_from == 'maker' else 'the usual one'}. A few "
        "turns take up {turns}; for more, take another string.",
        turns=("brace", ANOTHER_STRING_IN),
    )
    needs = {"needed": ("bow_length", needed, string.NEEDED_SD_IN)}
    if off is not None and (gives is None or gives.learnt is None):
        way = "long" if off > 0 else "short"
        known = b.rig.string.length_in is not None
        text = f"It is {'' if known else 'about '}{{off}} too {way}: this bow needs {{needed}}"
        said = say(
            text + ("." if known else "; told by the bow it was on last. Measure it."),
            off=("bow_length", abs(off)),
            **needs,
        )
        never = known or abs(off) > FAR_LENGTH_IN
        return [(stop if never else mind)(said=said, why=why, told="model")]
    if gives is None:
        said = say(
            "Its length is not set: this bow needs {needed}. Measure it, or brace the bow with a "
            "stringer and look.",
            **needs,
        )
        return [mind(said=said, why=why, told="model")]
    outside = max(height.low_in - gives.brace_in, gives.brace_in - height.high_in, 0.0)
    learnt = gives.learnt is not None
    said = say(
        f"It braces at {{brace}} by {'what it gave on this bow' if learnt else 'its length'}; the "
        "bow wants {low} to {high}.",
        brace=("brace", gives.brace_in, gives.sd_in),
        low=("brace", height.low_in),
        high=("brace", height.high_in),
    )
    grounds: Grounds = "measured" if learnt else "model"
    if outside <= ANOTHER_STRING_IN:
        return [fine(said=said, why=why, told=grounds)]
    if not learnt:
        return [mind(said=said + say("Measure it before you rely on it."), why=why, told=grounds)]
    return [stop(said=said, why=why, told=grounds)]


def _whole(arrows: Part) -> list[Finding]:
    """How many shafts are whole."""
    of = arrows.of
    if not isinstance(of, ArrowSet) or not of.shafts:
        return []
    whole = sum(shaft.state == "whole" for shaft in of.shafts)
    why = say("Look over and flex carbon after each hit; throw away cracked shafts and nocks.")
    if whole == 0:
        return [stop(said=say("No shaft of it is whole."), why=why, told="practice")]
    if whole < _FEW_SHAFTS:
        return [mind(said=say(f"Only {whole} of it left whole."), why=why, told="practice")]
    return []


def stops(
    b: Bench, asking: Asking, bow: Part, arrows: Part | None, long_in: float | None = None
) -> list[Finding]:
    """What forbids a bow with what is put on it; `long_in` as in `of_string`."""
    found = of_bow(b, asking, bow)
    if b.rig.on.string:
        found += of_string(b, long_in)
    if arrows is not None:
        found += of_set(b, arrows)
    return [f for f in found if f.level == "stop"]
