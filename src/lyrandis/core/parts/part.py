"""A part as it is kept once: what it is, what it is called, and where it is.

The fields of what it is are those of a rig's own sections; a riser and a limb share out a bow's.
"""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.dates import Day
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts.archer import Drawing
from lyrandis.core.parts.arrow import ArrowBuilt
from lyrandis.core.parts.base import Frozen, PartName, Short, choice, measure
from lyrandis.core.parts.bow import (
    BraceReference,
    Built,
    Form,
    LimbClass,
    LimbMaterial,
    PlungerSpring,
    Rated,
    SidePlate,
    Tips,
)
from lyrandis.core.parts.on import PartKind
from lyrandis.core.parts.string import Stringed

KeepingState = Literal["in_use", "lent", "put_away", "condemned"]
Which = Literal["upper", "lower", "unknown"]
CutFor = Literal["right", "left", "both", "unknown"]
ShaftState = Literal["whole", "put_by", "broken", "lost"]
USUAL_RISER_IN = 25  # limbs of the common fitting are marked on it


class Keeping(Frozen):
    """Where a part is: in use, lent (to whom, since when, due back), put away or condemned."""

    state: KeepingState = choice("in_use", "Kept")
    to: Short = choice("", "Lent to")
    since: Day = choice("", "Since")
    due_back: Day = choice("", "Due back")
    why: Short = choice("", "Why")
    word: Short = choice("", "By whose word")

    @model_validator(mode="after")
    def _told_enough(self) -> Self:
        if self.state == "lent" and not (self.to and self.since):
            raise RefusedError("to", "A lent part says to whom, and since when.")
        if self.state == "lent" and self.due_back and self.due_back < self.since:
            raise RefusedError("due_back", "It is due back before it was lent.")
        if self.state == "condemned" and not (self.why and self.word):
            raise RefusedError("word", "A condemned part says why, and by whose word.")
        return self


class ArcherPart(Drawing):
    """Somebody who draws."""

    kind: Literal["archer"] = "archer"


class ForAHand(Frozen):
    """What has a side for the arrow, and so a hand that it is made for."""

    cut_for: CutFor = choice(
        "unknown",
        "Made for",
        "Whose finger archers' hand its shelf or rest is for: right means that the arrow lies on "
        "the left. A thumb archer wants the other.",
    )


class BowPart(Built, ForAHand):
    """A bow in one piece."""

    kind: Literal["bow"] = "bow"
    takedown: Literal[False] = False


class RiserPart(ForAHand):
    """A takedown's riser."""

    kind: Literal["riser"] = "riser"
    riser_in: float | None = measure(None, "bow_length", 4, 32, "Riser length")
    centre_cut_mm: float = measure(
        1,
        "small",
        -15,
        8,
        "Cut past centre",
        "How far the window is cut past the string's plane; negative is short of it.",
    )
    side_plate: SidePlate = choice("plunger", "Side plate")
    side_plate_mm: float = measure(0, "small", 0, 15, "Plate stands out")
    plunger_spring: PlungerSpring = choice("unknown", "Plunger's spring")
    brace_reference: BraceReference = choice("grip", "Brace measured to")
    brace_offset_in: float | None = measure(None, "brace", -2, 4, "Reference in front of the grip")
    degrees_per_turn: float = measure(0.8, "angle_1", 0.1, 3, "Tilt per turn of a limb bolt")


class LimbPart(Frozen):
    """One limb of a takedown: which it is, its class, its marking and the maker's limits."""

    kind: Literal["limb"] = "limb"
    which: Which = choice("unknown", "Top or bottom")
    form: Form = choice("recurve", "Form")
    limb_class: LimbClass | None = choice(None, "Length")
    marked_weight_lbf: float | None = measure(None, "weight", 8, 150, "Marked weight")
    marked_draw_in: float = measure(28, "draw", 20, 34, "Marked at")
    marked_riser_in: float = measure(
        USUAL_RISER_IN,
        "bow_length",
        4,
        32,
        "Marked on a riser of",
        "The same limbs pull heavier on a shorter riser.",
    )
    limb_material: LimbMaterial = choice("laminated", "Limb material")
    tips: Tips = choice("working", "Tips")
    low_stretch_rated: Rated = choice("unknown", "Built for low-stretch string")
    maker_brace_low_in: float | None = measure(None, "brace", 3, 14, "Maker's lowest brace height")
    maker_brace_high_in: float | None = measure(
        None, "brace", 3, 14, "Maker's highest brace height"
    )
    maker_min_gpp: float | None = measure(None, "gpp", 4, 20, "Maker's least grains per pound")
    maker_max_draw_in: float | None = measure(None, "draw", 20, 36, "Maker's greatest draw")


class StringPart(Stringed):
    """A string."""

    kind: Literal["string"] = "string"


class Shaft(Frozen):
    """One numbered arrow of a set, what it weighed and read, and what happened to it."""

    number: int = measure(..., "count", 1, 999, "Number")
    mass_gr: float | None = measure(None, "mass", 50, 2500, "Weighed")
    static_spine: float | None = measure(None, "spine", 150, 2000, "Spine read")
    runout_mm: float | None = measure(
        None, "small", 0, 10, "Out of straight", "Between the highest and lowest as it is rolled."
    )
    state: ShaftState = choice("whole", "State")
    notes: Short = ""


class ArrowSet(ArrowBuilt):
    """A set of arrows built alike, and its shafts one by one."""

    kind: Literal["arrows"] = "arrows"
    shafts: tuple[Shaft, ...] = Field(
        default=(), max_length=200, fail_fast=True, title="Shafts, numbered"
    )

    @model_validator(mode="after")
    def _numbered_once(self) -> Self:
        numbers = [shaft.number for shaft in self.shafts]
        twice = next((n for n in numbers if numbers.count(n) > 1), None)
        if twice is not None:
            raise RefusedError("shafts", f"Two shafts have the number {twice}.")
        return self


PartBody = Annotated[
    ArcherPart | BowPart | RiserPart | LimbPart | StringPart | ArrowSet,
    Field(discriminator="kind"),
]


class Part(Frozen):
    """A part: its name, notes, where it is, and what it is."""

    name: PartName
    notes: Short = ""
    keeping: Keeping = Keeping()
    of: PartBody

    @property
    def kind(self) -> PartKind:
        """What it is, in a word."""
        return self.of.kind


BODIES: dict[PartKind, type[Frozen]] = {
    "archer": ArcherPart,
    "bow": BowPart,
    "riser": RiserPart,
    "limb": LimbPart,
    "string": StringPart,
    "arrows": ArrowSet,
}
