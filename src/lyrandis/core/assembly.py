"""Putting the bow together: the steps for each kind of bow, the tool for each, and where it is.

Source: practice section 0 and its cautions. The maker's own instructions win.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lyrandis.core.parts import Bow

Kind = Literal["takedown", "one_piece", "static_tip"]
Place = Literal[
    "upper_tip", "lower_tip", "upper_limb", "lower_limb", "upper_pocket", "lower_pocket", "rest",
    "grip", "string", "nock", "archer",
]  # fmt: skip
_ALL: tuple[Kind, ...] = ("takedown", "one_piece", "static_tip")
_ONE_PIECE: tuple[Kind, ...] = ("one_piece", "static_tip")


@dataclass(frozen=True)
class AssemblyStep:
    """One step: what to do, with which tool (None: bare hands and eyes), why, and where."""

    id: str
    text: str
    why: str
    tool: str | None
    place: Place
    kinds: tuple[Kind, ...]


STEPS: tuple[AssemblyStep, ...] = (
    AssemblyStep(
        "look",
        "Look along both limbs for fine cracks, lifting layers and twist.",
        "A cracked limb lets go at full draw, next to the face.",
        None,
        "upper_limb",
        _ALL,
    ),
    AssemblyStep(
        "limbs",
        "Limbs in their pockets: top limb up, both of one length, weight and make.",
        "The two are made different because the hand sits below the arrow. Two bottom limbs or a "
        "mixed pair shoot, but no longer come home together: a stopgap at most.",
        None,
        "upper_pocket",
        ("takedown",),
    ),
    AssemblyStep(
        "bolts",
        "Limb bolts as the maker says, or both clicked home.",
        "Bolts change weight and tiller; turned out too far they let go.",
        "hex key",
        "lower_pocket",
        ("takedown",),
    ),
    AssemblyStep(
        "serving",
        "Run the string through the fingers: no worn serving, no loose strand.",
        "A loose strand makes noise and cannot be felt in the shot; a worn one breaks.",
        None,
        "string",
        _ALL,
    ),
    AssemblyStep(
        "loops",
        "Larger loop over the upper limb, smaller one in the lower limb nock.",
        "Loops that sit askew slip off.",
        None,
        "upper_tip",
        _ALL,
    ),
    AssemblyStep(
        "stringer",
        "String it with a stringer, both pockets seated, and look at both loops again.",
        "Step-through stringing twists limbs and hurts people.",
        "stringer",
        "lower_tip",
        _ALL,
    ),
    AssemblyStep(
        "levers",
        "The string lies true in both string bridges and on both levers.",
        "On a static tip a string beside its bridge turns the bow inside out.",
        None,
        "upper_tip",
        ("static_tip",),
    ),
    AssemblyStep(
        "rest",
        "Rest over the plunger's hole, plunger screwed in and locked.",
        "A rest above or below the hole lets the shaft ride off the button.",
        "hex key",
        "rest",
        ("takedown",),
    ),
    AssemblyStep(
        "shelf",
        "Shelf and side plate clean, felt or leather firm.",
        "A lifted edge throws each arrow somewhere else.",
        None,
        "rest",
        _ONE_PIECE,
    ),
    AssemblyStep(
        "tight",
        "Everything screwed on is tight: weights, sight window fittings, quiver.",
        "What is loose rattles, and the rattle hides a crack's.",
        "hex key",
        "grip",
        ("takedown",),
    ),
    AssemblyStep(
        "pluck",
        "Pluck the string and listen for a rattle.",
        "The same sound each time is a bow that was put together the same.",
        None,
        "nock",
        _ALL,
    ),
    AssemblyStep(
        "archer",
        "Arm guard, tab, glove or ring on; arrow nock seated, index feather away from the side "
        "plate; elbow not over-extended.",
        "The string finds a bare or over-extended arm.",
        None,
        "archer",
        _ALL,
    ),
)


def kind_of(bow: Bow) -> Kind:
    """Which list a bow follows."""
    if bow.form == "static_tip":
        return "static_tip"
    return "takedown" if bow.takedown else "one_piece"


def steps_for(bow: Bow) -> tuple[AssemblyStep, ...]:
    """The steps for a bow, in working order."""
    kind = kind_of(bow)
    return tuple(step for step in STEPS if kind in step.kinds)
