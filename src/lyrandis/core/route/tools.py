"""What to have at hand at each station, and what does where it is missing.

Source: practice section 0.
"""

from __future__ import annotations

from typing import NamedTuple

from lyrandis.core.stops import StationId


class Tool(NamedTuple):
    """A tool, and what to do without it."""

    name: str
    without: str


_TAPE = Tool("tape", "a batten and a pencil, measured later")
_SQUARE = Tool("bow square", "a set square or a card's corner, and a rule in millimetres")
_SCALE = Tool("bow scale", "a luggage scale and a marked arrow; else the model's ±")
_STRINGER = Tool("stringer", "nothing: stepping through twists limbs and hurts people")
_HEX = Tool("hex keys", "the maker's own key; never pliers")
_WALL = Tool("a wall to lean the bow on", "somebody who holds it, belly toward you")

TOOLS: dict[StationId, tuple[Tool, ...]] = {
    "draw": (
        Tool("marked arrow, longer than your draw", "arm span divided by 2.5, as a first guess"),
        Tool("somebody who reads it", "a clothes peg on the shaft that the bow pushes along"),
    ),
    "bow-length": (_TAPE, Tool("good light to look limbs over", "a window, at a slant")),
    "weight": (_SCALE, Tool("clock, for holds", "count aloud")),
    "assembly": (_STRINGER, _HEX),
    "string": (
        Tool("grain scale, for the string", "strands, fibre and length: good to a tenth"),
        Tool("a night with the bow braced", "two readings some hours apart"),
    ),
    "tiller": (_SQUARE, _HEX, _STRINGER),
    "in-line": (
        Tool("two blocks with a centre mark", "a rule across the limb and a pencil mark"),
        _WALL,
        _HEX,
    ),
    "centre-shot": (
        _WALL,
        Tool("straight arrow", "any arrow that spins true on two finger nails"),
        Tool("rule in millimetres", "the shaft itself: half of it is a measure"),
    ),
    "weights": (
        Tool("scale for a few hundred grams", "the maker's figure"),
        Tool("screw lock", "look after a dozen shots whether they sit tight"),
    ),
    "final-tiller": (_SQUARE, _HEX, _STRINGER),
    "brace": (
        _SQUARE,
        Tool("ears, a meter or a recorder", "your hand: how it feels from 1 to 5"),
        Tool("felt or a bow vise to twist the string on", "the bow unstrung over two chairs"),
    ),
    "nock-point": (
        _SQUARE,
        Tool("twine or brass for the nock point", "tape, until it is found"),
        Tool("soft butt at chest height", "shoot level: downhill shortens the draw"),
    ),
    "arrow": (
        Tool("grain scale", "a kitchen scale with ten arrows on it"),
        Tool("chronograph, a club's will do", "the model, good to a twentieth"),
        Tool("spine jig", "two nails, a weight of 1.94 lb and a rule"),
    ),
    "flight": (
        Tool("butt at chest height", "a soft bank: the nock must stay as it hit"),
        Tool("two or three bare shafts", "fletched ones alone: nocks, marks and groups"),
        Tool("powder or chalk", "a damp finger's mark on the side plate"),
        Tool("telephone that films slowly", "a friend who watches the side plate"),
    ),
    "quiet": (
        Tool("recorder or meter", "somebody who listens from the side"),
        Tool("wool or felt, and wax", "a strip of cloth, knotted into the string"),
    ),
    "crawls": (
        Tool("tab with marks", "finger widths"),
        Tool("range marked in fives of metres", "paces, once you know yours"),
    ),
}
