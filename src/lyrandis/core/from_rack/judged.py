"""What fits and what does not: a bow for an archer, a string on a bow, a set of arrows from it.

The sentences are the stations' own wherever these speak of it; what only a rack asks stands here.
"""

from __future__ import annotations

from collections.abc import Callable

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
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
from lyrandis.core.fit.hold import HELD_S, WANTED, step_lbf
from lyrandis.core.from_rack.built import Asking, side_for
from lyrandis.core.parts import ArcherPart, ArrowSet, BowPart, Part, RiserPart
from lyrandis.core.stations import arrow, bow_length, draw, limbs, string, weight
from lyrandis.core.stations.holding import WHY_HELD, heavy_for_a_child, pain
from lyrandis.core.string.twists import ANOTHER_STRING_IN
from lyrandis.core.tune.in_line import shelf_decides

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
        lambda: _hand(b, asking, bow),
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


def _hand(b: Bench, asking: Asking, bow: Part) -> list[Finding]:
    """Whether the arrow has a place on the archer's side, or on the one that the string favours."""
    who, of = asking.archer.of, bow.of
    if not isinstance(who, ArcherPart) or not isinstance(of, BowPart | RiserPart):
        return []
    why = say(
        "A finger archer's arrow lies on the side of the bow hand's knuckles; a thumb archer's "
        "lies on the other. Where no shelf decides, the side that the string favours does."
    )
    if of.cut_for == "unknown":
        return [
            mind(
                said=say(
                    "Nobody has said for which hand it is made: look at the shelf or the rest."
                ),
                why=why,
                told="practice",
            )
        ]
    side = side_for(who, of)
    if side == "by_hand":
        return []
    if b.in_line.told.favoured == side and not shelf_decides(b.rig.bow):
        said = say(f"The arrow lies {side} on it: its string favours that side.")
        return [fine(said=said, why=why, told="measured")]
    thumb = who.release == "thumb"
    wrong = "a thumb wants the other" if thumb else "its shelf is on the other side"
    said = say(f"It is made for the {of.cut_for} hand: {wrong}.")
    return [stop(said=said, why=why, told="practice")]


def heavy_side_lbf(weight: Estimate) -> float:
    """A weight [lb] on the heavy side of its ±: by it a bow that nobody drew yet is judged."""
    return weight.value + weight.plus_minus


def _strength(b: Bench) -> list[Finding]:
    """The weight, by the heavy side of its ±, against all that the archer held."""
    held, weight = b.archer.strength, b.bow.weight
    heavy = heavy_side_lbf(weight)
    hurts = pain(b, heavy)
    at = ("weight", weight)
    against = held.against(weight.value, heavy)
    lasting, much = held.lasting_lbf or 0.0, held.too_much_lbf or 0.0
    if against == "pain":
        return hurts
    if against == "failed":
        said = say("{weight} at the draw: {much} could not be held.", weight=at,
                   much=("weight", much))  # fmt: skip
        return [*hurts, stop(said=said, why=WHY_HELD, told="measured")]
    if against == "beyond":
        said = say(
            "{weight} at the draw may be more than a step over the {held} that was held: no more "
            "than {most} before that is held too.",
            weight=at,
            held=("weight", lasting),
            most=("weight", held.most_lbf or 0.0),
        )
        return [*hurts, stop(said=said, why=WHY_HELD, told="measured")]
    if against == "held":
        if heavy_for_a_child(b):
            return hurts  # held, but not to be drawn
        said = say("{weight} at the draw: {held} was held.", weight=at, held=("weight", lasting))
        return [*hurts, fine(said=said, why=WHY_HELD, told="measured")]
    known = "{weight} at the draw is a step over the {held} that was held: "
    values = {"held": ("weight", lasting)}
    if against == "untimed":
        known, values = "{weight} at the draw, and nobody timed a hold that tells: ", {}
    said = say(
        known + f"before it is taken for good, time {WANTED} holds of {{asked}} with it.",
        weight=at,
        asked=("seconds", HELD_S),
        **values,
    )
    return [*hurts, mind(said=said, why=WHY_HELD, told="practice")]


def _wished(b: Bench, asking: Asking) -> list[Finding]:
    """The weight against what was wished for: over it by more than a step it has to be held."""
    most, pulls = asking.most_lbf, b.bow.weight
    if most is None or pulls.value <= most:
        return []
    held = b.archer.strength.against(pulls.value, heavy_side_lbf(pulls)) == "held"
    far = pulls.value > most + step_lbf(most) and not held
    return [
        (stop if far else mind)(
            said=say(
                "{weight} at the draw is over the {most} you asked for"
                + (", by more than a step." if far else "."),
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
