"""The domain types: archer, bow, string, arrow, aim and the rig they make together.

Each field is defined here once, with its unit in its name, its range, its title and its help.
The API document, the browser's types, the form limits and the help texts all come from here.
All models are frozen; a change is a new rig.
"""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

from lyrandis.core.dates import Day

Hand = Literal["right", "left"]
Release = Literal["split", "three_under", "thumb"]
Anchor = Literal["under_chin", "cheek"]
Form = Literal["longbow", "hybrid", "recurve", "static_tip"]
BraceReference = Literal["grip", "back", "plunger"]
LimbMaterial = Literal["laminated", "solid_glass", "natural"]
Tips = Literal["working", "short", "long", "heavy"]
SidePlate = Literal["plunger", "leather", "felt", "hard"]
StringBuild = Literal["two_bundle", "endless", "unknown"]
StringMaterial = Literal["low_stretch", "polyester", "natural"]
ShaftMaterial = Literal["carbon", "aluminium", "wood", "cane"]
Use = Literal["close_cover", "woodland", "range", "backyard"]
DrawMethod = Literal["tape", "arm_span", "marked_arrow"]
Rated = Literal["yes", "no", "unknown"]
Grown = Literal["adult", "child"]
LimbClass = Literal["short", "medium", "long"]
LimbPair = Literal["pair", "two_upper", "two_lower", "two_makers", "unknown"]


def _one_line(value: Any) -> Any:
    """Text of one line: line ends and other control signs become spaces."""
    return _CONTROL.sub(" ", value) if isinstance(value, str) else value


_CONTROL = re.compile(r"[\x00-\x1f\x7f-\x9f\u2028\u2029]+")
Name = Annotated[
    str,
    StringConstraints(strip_whitespace=True, min_length=1, max_length=80),
    BeforeValidator(_one_line),
]
Short = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=200), BeforeValidator(_one_line)
]
# One pair of a bow scale: draw [in, trade standard] and force [lb].
Reading = tuple[
    Annotated[float, Field(ge=0, le=40, allow_inf_nan=False)],
    Annotated[float, Field(ge=0, le=300, allow_inf_nan=False)],
]
# Wider than the flight model covers: earlier versions kept such, and Crawls says why not.
Distance = Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]


def measure(
    default: Any,
    quantity: str,
    low: float,
    high: float,
    title: str,
    help: str = "",
    why: str = "Outside this range the models do not hold.",
) -> Any:
    """A numeric field: quantity [key of units.QUANTITIES], range, title, help, why the range."""
    return Field(
        default=default,
        ge=low,
        le=high,
        title=title,
        description=help,
        allow_inf_nan=False,
        json_schema_extra={"quantity": quantity, "why": why},
    )


def choice(default: Any, title: str, help: str = "") -> Any:
    """A field with a fixed set of values."""
    return Field(default=default, title=title, description=help)


class Frozen(BaseModel):
    """Base of the domain types: immutable, and refusing what it does not know."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", json_schema_serialization_defaults_required=True
    )


class Archer(Frozen):
    """Who draws: length of draw, hand, release and how the eye stands over the arrow."""

    name: Short = ""
    draw_length_in: float = measure(
        28.0,
        "draw",
        18,
        34,
        "Draw length",
        "Trade standard: from the arrow nock's groove to the pivot of the grip, and a set "
        "stretch beyond it.",
        "Nobody's draw lies outside this.",
    )
    draw_method: DrawMethod | None = choice(None, "Way of measuring")
    draw_plus_minus_in: float | None = measure(
        None, "draw", 0, 4, "Draw uncertainty", "One standard deviation of the draw length."
    )
    grown: Grown = choice(
        "adult", "Archer", "A child's bow is chosen with a coach; no plan is made here."
    )
    hand: Hand = choice("right", "Hand", "The hand that draws the string.")
    release: Release = choice("three_under", "Release")
    anchor: Anchor = choice("under_chin", "Anchor")
    eye_above_nock_mm: float = measure(
        112,
        "crawl",
        30,
        200,
        "Eye above arrow nock",
        "Eye to arrow nock at full draw, square to the shaft; the anchor's usual height stands "
        "here until it is measured.",
    )
    thumb_offset_mm: float | None = measure(
        None,
        "small",
        0,
        40,
        "Thumb offset",
        "Thumb draw: how far the string sits behind the mark on the arrow. "
        "Estimated from the string's angle if left empty.",
    )
    finger_width_mm: float = measure(
        18, "small", 10, 30, "Finger width", "Width of one string finger over the tab."
    )
    stitch_pitch_mm: float = measure(
        3, "small", 1, 15, "Tab mark pitch", "Distance between two marks on the tab."
    )


class Bow(Frozen):
    """The bow as it is built and marked, and how high its string stands."""

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
    measured: tuple[Reading, ...] = Field(
        default=(),
        max_length=200,
        fail_fast=True,
        title="Scale readings",
        description="Pairs of draw [in, trade standard] and force [lb] read off a bow scale.",
    )
    brace_height_in: float | None = measure(
        None,
        "brace",
        3,
        14,
        "Brace height",
        "From the string to the reference; the form's usual height if left empty.",
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
        "How far the side plate stands past the string's plane; negative is short of it.",
    )
    side_plate: SidePlate = choice("plunger", "Side plate")
    maker_min_gpp: float | None = measure(None, "gpp", 4, 20, "Maker's least grains per pound")
    maker_max_draw_in: float | None = measure(None, "draw", 20, 36, "Maker's greatest draw")

    @property
    def is_takedown_recurve(self) -> bool:
        """Whether it has two limbs of the common fitting, in pockets with bolts."""
        return self.takedown and self.form == "recurve"


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
        0, "turns", -6, 6, "Upper bolt, turns out", "From where the marked weight holds."
    )
    lower_turns: float = measure(
        0, "turns", -6, 6, "Lower bolt, turns out", "From where the marked weight holds."
    )
    degrees_per_turn: float = measure(
        0.8,
        "angle_1",
        0.1,
        3,
        "Tilt per turn",
        "How far one turn of the bolt tilts the limb; about 0.8° until you measured it.",
    )


class StepUp(Frozen):
    """A plan to go up in weight: where to, in which steps, how far apart, from which day."""

    from_lbf: float | None = measure(None, "weight", 8, 120, "Now, at your draw")
    goal_lbf: float | None = measure(None, "weight", 8, 120, "Goal, at your draw")
    step_lbf: float = measure(2, "weight", 0.5, 6, "Step", "", "Small steps keep the form.")
    weeks: float = measure(
        6, "weeks", 2, 52, "Weeks between steps", "", "The body needs weeks for a step."
    )
    starts: Day = choice("", "Starts")


class String(Frozen):
    """The string: material, strands, length, and what hangs on it."""

    material: StringMaterial = choice("polyester", "Material")
    build: StringBuild = choice(
        "unknown", "Loops", "Two-bundle twisted loops adjust both ways, an endless loop hardly."
    )
    worked_in: float | None = measure(
        None,
        "bow_length",
        30,
        76,
        "A string that worked",
        "Its length on this bow, loop to loop under tension: a better guide than any rule.",
    )
    strands: int = measure(14, "count", 4, 40, "Strands")
    strand_diameter_mm: float | None = measure(None, "small", 0.1, 1.5, "Strand diameter")
    length_in: float | None = measure(
        None, "bow_length", 30, 76, "String length", "Loop to loop, under tension."
    )
    mass_gr: float | None = measure(None, "mass", 20, 400, "String weight", "On a grain scale.")
    silencers_gr: float = measure(0, "mass", 0, 200, "Silencers", "Weight of all of them.")
    silencer_position: float = measure(
        0.7, "share", 0, 1, "Silencer position", "0 at the arrow nock, 1 at the limb nock."
    )
    twists: int | None = measure(None, "count", 0, 120, "Twists")


class Arrow(Frozen):
    """One arrow of the set and its parts."""

    shaft_length_in: float = measure(
        30, "draw", 18, 36, "Shaft length", "Throat of the arrow nock to the back of the point."
    )
    grains_per_inch: float = measure(7.8, "gpi", 3, 25, "Shaft grains per inch")
    static_spine: float = measure(
        600,
        "spine",
        150,
        2000,
        "Static spine",
        "What is printed on the shaft: a larger number is a weaker shaft.",
    )
    diameter_mm: float = measure(6, "small", 3, 12, "Shaft diameter")
    material: ShaftMaterial = choice("carbon", "Shaft material")
    point_gr: float = measure(110, "mass", 10, 600, "Point")
    insert_gr: float = measure(12, "mass", 0, 300, "Insert")
    nock_gr: float = measure(9, "mass", 0, 60, "Arrow nock")
    fletching_gr: float = measure(9, "mass", 0, 100, "Fletching, all of it")
    fletching_count: int = measure(3, "count", 0, 6, "Feathers or vanes")
    weighed_gr: float | None = measure(
        None, "mass", 50, 2500, "Weighed arrow", "The finished arrow on a grain scale."
    )


class Aim(Frozen):
    """What the crawl chart is drawn for."""

    distances_m: tuple[Distance, ...] = Field(
        default=(5, 10, 15, 20, 25, 30, 35, 40, 45, 50),
        min_length=1,
        max_length=60,
        fail_fast=True,
        title="Distances",
        json_schema_extra={"quantity": "distance"},
    )
    slope_deg: float = measure(0, "angle", -45, 45, "Slope", "Uphill is positive.")
    spot_half_height_cm: float = measure(
        5, "spot", 0.5, 60, "Half height of the spot", "The arrow may land this far off."
    )


class Assembly(Frozen):
    """What was done to put the bow together: the ids of core.assembly's steps."""

    done: tuple[Annotated[str, StringConstraints(max_length=20)], ...] = Field(
        default=(), max_length=40, title="Assembly steps done", fail_fast=True
    )


class SchoolNumbers(Frozen):
    """The numbers of the schools of bow length: the usual ones, or the archer's own rules."""

    short_limb_to_in: float = measure(26.5, "draw", 20, 34, "Short limbs up to")
    medium_limb_to_in: float = measure(29.75, "draw", 20, 34, "Medium limbs up to")
    ladder_start_in: float = measure(64, "bow_length", 40, 76, "Ladder's lowest rung")
    ladder_start_draw_in: float = measure(25, "draw", 18, 34, "Lowest rung serves to")
    ladder_rung_draw_in: float = measure(2, "draw", 0.5, 6, "Draw per rung")
    ratio_low: float = measure(2.05, "share", 1.5, 3, "Ratio band from")
    ratio_high: float = measure(2.30, "share", 1.5, 3, "Ratio band to")
    reserve_in: float = measure(1.5, "draw", -3, 6, "Reserve before stack")
    reserve_close_cover_in: float = measure(-0.5, "draw", -3, 6, "Reserve in close cover")
    angle_three_under_deg: float = measure(127, "angle", 90, 150, "Angle, three under")
    angle_split_deg: float = measure(121, "angle", 90, 150, "Angle, split finger")


class Rig(Frozen):
    """One archer with one bow, string and arrow."""

    name: Name = "New rig"
    notes: Short = ""
    use: Use = choice("woodland", "Used for")
    taste: float = measure(
        0,
        "share",
        -1,
        1,
        "Rather short or long",
        "Which length you lean to: −1 short and lively, 0 neither, +1 long and smooth.",
    )
    archer: Archer = Archer()
    bow: Bow = Bow()
    string: String = String()
    arrow: Arrow = Arrow()
    nock_height_mm: float | None = measure(
        None,
        "nock_height",
        -10,
        40,
        "Nock point height",
        "From square at the rest to the underside of the arrow nock.",
    )
    aim: Aim = Aim()
    schools: SchoolNumbers = SchoolNumbers()
    assembly: Assembly = Assembly()
    limbs: Limbs = Limbs()
    step_up: StepUp = StepUp()
