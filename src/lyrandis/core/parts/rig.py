"""The rig: one archer with one bow, string and arrow, and what belongs to the combination."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from lyrandis.core.parts.archer import Archer, StepUp, usually_left
from lyrandis.core.parts.arrow import Arrow
from lyrandis.core.parts.base import Frozen, Name, Short, choice, measure
from lyrandis.core.parts.bow import Bow, Limbs
from lyrandis.core.parts.course import Course
from lyrandis.core.parts.on import On
from lyrandis.core.parts.reading import ReadingShafts
from lyrandis.core.parts.routine import Routine
from lyrandis.core.parts.string import String

SizeTerm = Literal["usual", "always", "never"]
SpineSchool = Literal["window", "over_stiff"]
RouteChoice = Literal["by_bow", "shelf", "takedown", "thumb"]
NockSchool = Literal["square", "by_eye"]
NockFit = Literal["not_tried", "snug", "loose", "tight"]
GripLine = Literal["none", "line"]
CrawlsAllowed = Literal["crawls", "one", "none"]
CountedBy = Literal["mm", "marks", "fingers"]
MarkParts = Literal["whole", "half", "quarter"]
ArrowSide = Literal["by_hand", "left", "right"]
AimsBy = Literal["crawls", "one", "gaps"]
Use = Literal["close_cover", "woodland", "range", "backyard"]
# Wider than the flight model covers: earlier versions kept such, and Crawls says why not.
Distance = Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]


# How many hands' breadths of marks a tab carries at most.
_MOST_MARKS = 40


class Aim(Frozen):
    """How the archer aims, and what the chart is drawn for."""

    allowed: CrawlsAllowed = choice(
        "crawls", "Your class allows", "Its rules are yours to check: any crawl, one, or none."
    )
    one_crawl_mm: float = measure(
        0, "crawl", 0, 160, "The one crawl", "Where a class allows one crawl for all distances."
    )
    counted_by: CountedBy = choice(
        "mm", "Crawls counted by", "Millimetres, marks on the tab, or widths of a finger."
    )
    mark_parts: MarkParts = choice(
        "half", "Tab marks counted to", "How finely you can set a nail between two marks."
    )
    mark_words: tuple[Short, ...] = Field(
        default=(),
        max_length=_MOST_MARKS,
        fail_fast=True,
        title="Your words for the marks",
        description="For the first mark below the arrow nock, the second, and on.",
    )

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


class Nocking(Frozen):
    """How the nock point is found, how the arrow nock holds, and whether the hand has its line."""

    school: NockSchool = choice(
        "square", "Found by", "From square with a bow square, or by eye from a level arrow."
    )
    fit: NockFit = choice(
        "not_tried", "Arrow nock on the string", "Snug holds its own weight and leaves with a tap."
    )
    grip_line: GripLine = choice(
        "none", "Line on the grip", "A line that the web of the bow hand is set to each time."
    )


_TOO_HEAVY = "So much is not hung on a bow that is held in one hand."


class Weights(Frozen):
    """What hangs on the riser [g], by place."""

    middle_g: float = measure(
        0, "hung", 0, 1500, "By the grip", "In or beside the stiff middle of the riser.", _TOO_HEAVY
    )
    front_g: float = measure(
        0, "hung", 0, 1500, "In front", "On a rod that points at the target.", _TOO_HEAVY
    )
    upper_pocket_g: float = measure(
        0, "hung", 0, 1500, "Upper pocket", "At the upper limb's root.", _TOO_HEAVY
    )
    lower_pocket_g: float = measure(
        0, "hung", 0, 1500, "Lower pocket", "At the lower limb's root.", _TOO_HEAVY
    )
    bar_g: float = measure(
        0, "hung", 0, 1500, "Bar, pocket to grip", "A bar that joins a pocket and the grip.",
        _TOO_HEAVY,
    )  # fmt: skip

    @property
    def hung(self) -> dict[str, float]:
        """Only what hangs [g], by the field's name."""
        return {name: grams for name, grams in self if grams}


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
    route: RouteChoice = choice(
        "by_bow", "Route", "The order of work: what bow and release ask for, or another one."
    )
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
    size_term: SizeTerm = choice(
        "usual",
        "Size in the floor",
        "Whether the school by form asks more grains of a longer bow. Usually not of a recurve "
        "with working tips.",
    )
    spine_school: SpineSchool = choice(
        "window",
        "Spine by",
        "A shaft that just bends past the bow, or, for natural bows, one clearly over-stiff and "
        "heavy on the side that the string favours.",
    )
    arrow_side: ArrowSide = choice(
        "by_hand",
        "Arrow lies",
        "On which side of the bow, as you see it from behind. By hand and release it is left for a "
        "right-handed finger archer, right for a right-handed thumb archer.",
    )
    nocking: Nocking = Nocking()
    reading: ReadingShafts = ReadingShafts()
    aim: Aim = Aim()
    courses: tuple[Course, ...] = Field(
        default=(),
        max_length=12,
        fail_fast=True,
        title="Courses",
        description="Courses of your own: each target with distance, slope and spot.",
    )
    routine: Routine = Routine()
    schools: SchoolNumbers = SchoolNumbers()
    assembly: Assembly = Assembly()
    limbs: Limbs = Limbs()
    weights: Weights = Weights()
    step_up: StepUp = StepUp()
    on: On = On()

    @property
    def arrow_left(self) -> bool:
        """Whether the arrow lies to the left of the bow as the archer sees it."""
        if self.arrow_side == "by_hand":
            return usually_left(self.archer.hand, self.archer.release)
        return self.arrow_side == "left"

    @property
    def arrow_as_usual(self) -> bool:
        """Whether it lies on the side that hand and release ask for."""
        return self.arrow_left == usually_left(self.archer.hand, self.archer.release)

    @property
    def aims_by(self) -> AimsBy:
        """Crawls where the string is walked; else gaps, beside one crawl or none."""
        if self.archer.release != "three_under" or self.aim.allowed == "none":
            return "gaps"
        return self.aim.allowed

    @property
    def steady_crawl_mm(self) -> float:
        """The crawl with which gaps are held [mm]: the one that a class allows, else none."""
        return self.aim.one_crawl_mm if self.aims_by == "one" else 0.0
