"""The bow as it is built, marked and strung, and the limbs of a takedown."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from lyrandis.core.parts.base import Frozen, Reading, choice, measure

Form = Literal["longbow", "hybrid", "recurve", "static_tip"]
BraceReference = Literal["grip", "back", "plunger"]
LimbMaterial = Literal["laminated", "solid_glass", "natural"]
Tips = Literal["working", "short", "long", "heavy"]
SidePlate = Literal["plunger", "leather", "felt", "hard"]
Rated = Literal["yes", "no", "unknown"]
LimbClass = Literal["short", "medium", "long"]
PlungerSpring = Literal["unknown", "soft", "medium", "firm"]
LimbPair = Literal["pair", "two_upper", "two_lower", "two_makers", "unknown"]


class Built(Frozen):
    """The bow as it is built and marked."""

    form: Form = choice("recurve", "Form")
    takedown: bool = choice(True, "Construction", "A takedown has a riser with separate limbs.")
    length_in: float = measure(
        68,
        "bow_length",
        40,
        76,
        "Bow length",
        "Along the back, nock to nock, unstrung.",
        "Bows of these four forms are not built shorter or longer.",
    )
    riser_in: float | None = measure(
        None,
        "bow_length",
        4,
        32,
        "Riser length",
        "The part that does not bend. The form's usual share of the length if left empty.",
    )
    marked_weight_lbf: float = measure(
        36, "weight", 8, 150, "Marked weight", "The number on the bow; good to a pound or two."
    )
    marked_draw_in: float = measure(
        28, "draw", 20, 34, "Marked at", "The draw at which the marked weight holds."
    )
    brace_reference: BraceReference = choice(
        "grip", "Brace measured to", "Deepest part of the grip, back of the bow, or plunger."
    )
    brace_offset_in: float | None = measure(
        None,
        "brace",
        -2,
        4,
        "Reference in front of the grip",
        "How far the back or plunger lies in front of the deepest part of the grip.",
    )
    maker_brace_low_in: float | None = measure(None, "brace", 3, 14, "Maker's lowest brace height")
    maker_brace_high_in: float | None = measure(
        None, "brace", 3, 14, "Maker's highest brace height"
    )
    limb_material: LimbMaterial = choice("laminated", "Limb material")
    tips: Tips = choice("working", "Tips", "How much of the tip does not bend.")
    low_stretch_rated: Rated = choice(
        "unknown", "Built for low-stretch string", "Ask the maker; never guess."
    )
    centre_cut_mm: float = measure(
        1,
        "small",
        -15,
        8,
        "Cut past centre",
        "How far the window is cut past the string's plane; negative is short of it.",
    )
    side_plate: SidePlate = choice("plunger", "Side plate")
    side_plate_mm: float = measure(
        0,
        "small",
        0,
        15,
        "Plate stands out",
        "How thick the plate is, or how far the plunger stands out of the cut; 0 where the cut "
        "was measured to it.",
    )
    plunger_spring: PlungerSpring = choice(
        "unknown", "Plunger's spring", "How firm the plunger's spring is set."
    )
    maker_min_gpp: float | None = measure(None, "gpp", 4, 20, "Maker's least grains per pound")
    maker_max_draw_in: float | None = measure(None, "draw", 20, 36, "Maker's greatest draw")

    @property
    def plate_offset_mm(self) -> float:
        """How far the side plate stands outward from the string's plane [mm]; past it negative."""
        return self.side_plate_mm - self.centre_cut_mm

    @property
    def is_takedown_recurve(self) -> bool:
        """Whether it has two limbs of the common fitting, in pockets with bolts."""
        return self.takedown and self.form == "recurve"


class Bow(Built):
    """A bow, how high its string stands and what a scale read on it."""

    brace_height_in: float | None = measure(
        None,
        "brace",
        3,
        14,
        "Brace height",
        "From the string to the reference; the form's usual height if left empty.",
    )
    measured: tuple[Reading, ...] = Field(
        default=(),
        max_length=200,
        fail_fast=True,
        title="Scale readings",
        description="Pairs of draw [in, trade standard] and force [lb] read off a bow scale.",
    )


class Limbs(Frozen):
    """A takedown's two limbs as they are marked, and how far their bolts are turned."""

    pair: LimbPair = choice(
        "unknown", "The two limbs", "Top and bottom of one pair, or what they are instead."
    )
    upper_lbf: float | None = measure(None, "weight", 8, 150, "Upper limb marked")
    lower_lbf: float | None = measure(None, "weight", 8, 150, "Lower limb marked")
    upper_class: LimbClass | None = choice(None, "Upper limb's length")
    lower_class: LimbClass | None = choice(None, "Lower limb's length")
    upper_turns: float = measure(
        0, "bolt", -6, 6, "Upper bolt, turns out", "From where the marked weight holds."
    )
    lower_turns: float = measure(
        0, "bolt", -6, 6, "Lower bolt, turns out", "From where the marked weight holds."
    )
    degrees_per_turn: float = measure(
        0.8,
        "angle_1",
        0.1,
        3,
        "Tilt per turn",
        "How far one turn of the bolt tilts the limb; about 0.8° until you measured it.",
    )
    tiller_wanted_mm: float | None = measure(
        None,
        "small",
        -15,
        15,
        "Tiller wanted",
        "Upper distance less the lower; the usual one for your release if left empty.",
    )
