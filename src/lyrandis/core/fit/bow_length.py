"""Bow length: five schools side by side.

Limb first, ladder and ratio band are rules from practice; stack reserve and string angle come
from the bow model. Every number of theirs is in `SchoolNumbers` and can be edited.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lyrandis.core.bow.curve import force_draw, refuse_past_end, stack_onset_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Archer, Bow, Form, Release, SchoolNumbers, StringMaterial, Use

SchoolId = Literal["limb_first", "ladder", "ratio_band", "stack_reserve", "string_angle"]
SchoolVerdict = Literal["fits", "too_short", "too_long", "silent"]
SCHOOL_TITLES: dict[SchoolId, str] = {
    "limb_first": "Limb first",
    "ladder": "Ladder",
    "ratio_band": "Ratio band",
    "stack_reserve": "Stack reserve",
    "string_angle": "String angle",
}
VERDICT_WORDS: dict[SchoolVerdict, str] = {
    "fits": "fits",
    "too_short": "too short",
    "too_long": "too long",
    "silent": "silent",
}
LIMB_CLASS_ADDS_IN = {"short": 41.0, "medium": 43.0, "long": 45.0}
RISERS_BY_USE: dict[Use, tuple[float, float]] = {
    "close_cover": (17.0, 19.0),
    "woodland": (19.0, 23.0),
    "range": (23.0, 27.0),
    "backyard": (21.0, 25.0),
}
LENGTHS_IN: dict[Form, tuple[float, float]] = {
    "longbow": (58.0, 74.0),
    "hybrid": (54.0, 68.0),
    "recurve": (50.0, 72.0),
    "static_tip": (44.0, 66.0),
}
# Length over draw that is neither lively nor sluggish, and how far past it limbs idle: own rule.
IDEAL_RATIO: dict[Form, float] = {
    "longbow": 2.36,
    "hybrid": 2.26,
    "recurve": 2.34,
    "static_tip": 2.05,
}
_TOO_LONG_PAST = 0.13
_LONGEST_IN, _SHORTER_THAN_OFFERED_IN = 76.0, 4.0  # where the shortest good length is looked for
_NEAR_IN = 0.5
SHOWN_IN = 1 / 16  # reserves are shown to an eighth: what reads the same falls short of nothing
_LIKE_LBF = 20.0  # bows are sized at multiples of this weight
_RUNG_IN, _MOST_RUNGS = 2.0, 4


@dataclass(frozen=True)
class SchoolRange:
    """What one school says: a range of lengths [in] (None: open), a verdict and its reason."""

    school: SchoolId
    low_in: float | None
    high_in: float | None
    verdict: SchoolVerdict
    why: Said


def angle_limit_deg(release: Release, numbers: SchoolNumbers) -> float | None:
    """Least string angle [deg, this model's] for a release; None where there is no limit."""
    if release == "thumb":
        return None
    return numbers.angle_three_under_deg if release == "three_under" else numbers.angle_split_deg


def reserve_wanted_in(use: Use, numbers: SchoolNumbers) -> float:
    """Least distance [in] wanted between the draw and the onset of stack."""
    return numbers.reserve_close_cover_in if use == "close_cover" else numbers.reserve_in


def ends_at_makers_word(bow: Bow, release: Release) -> bool:
    """Whether a bow is drawn past its stack by design: static tips and a thumb draw.

    Practice judges those by their maker's greatest draw alone.
    """
    return bow.form == "static_tip" and release == "thumb"


def limb_class(draw_in: float, numbers: SchoolNumbers) -> str:
    """Limb class by draw length [in, trade]."""
    if draw_in <= numbers.short_limb_to_in:
        return "short"
    return "medium" if draw_in <= numbers.medium_limb_to_in else "long"


def of_length(bow: Bow, length_in: float, riser: float | None = None) -> Bow:
    """The same kind of bow in another length.

    Its weight is rounded to 20 lb so that solved bows serve again: that moves the angle by less
    than 0.2° and the onset by less than 0.1 in, which a test holds.
    """
    return bow.model_copy(
        update={
            "length_in": length_in,
            "riser_in": riser,
            "brace_height_in": None,
            "brace_reference": "grip",
            "measured": (),
            "marked_weight_lbf": max(
                _LIKE_LBF * round(bow.marked_weight_lbf / _LIKE_LBF), _LIKE_LBF
            ),
        }
    )


def angle_and_reserve(
    bow: Bow, draw_in: float, material: StringMaterial = "polyester"
) -> tuple[float, float | None]:
    """String angle [deg] at a draw and inches from it to the onset of stack (None: never).

    Raises
    ------
    RefusedError : the bow has no braced shape or its geometry ends before the draw.
    """
    curve = force_draw(bow, material)
    refuse_past_end(curve, draw_in, bow.length_in)
    onset = stack_onset_in(bow, material)
    return curve.angle(min(draw_in, float(curve.draw_in[-1]))), (
        None if onset is None else onset - draw_in
    )


def _shortest(
    bow: Bow,
    draw_in: float,
    material: StringMaterial,
    least_angle: float | None,
    reserve: float,
) -> float | None:
    """Shortest length [in, to ½] of this form that keeps angle and reserve; None if none does."""
    low, high = LENGTHS_IN[bow.form][0] - _SHORTER_THAN_OFFERED_IN, _LONGEST_IN

    def good(length: float) -> bool:
        try:
            angle, left = angle_and_reserve(of_length(bow, length), draw_in, material)
        except RefusedError:
            return False
        return (least_angle is None or angle >= least_angle) and (left is None or left >= reserve)

    if not good(high):
        return None
    while high - low > _NEAR_IN:  # a longer bow never stacks sooner and never has a sharper angle
        middle = round(low + high) / 2
        if middle in (low, high):
            break
        low, high = (low, middle) if good(middle) else (middle, high)
    return high


def verdict(length: float, low: float | None, high: float | None) -> SchoolVerdict:
    if low is not None and length < low - 1e-9:
        return "too_short"
    if high is not None and length > high + 1e-9:
        return "too_long"
    return "fits"


def schools(
    archer: Archer,
    bow: Bow,
    draw_in: float,
    use: Use,
    numbers: SchoolNumbers,
    material: StringMaterial = "polyester",
) -> tuple[SchoolRange, ...]:
    """What each of the five schools says of this archer's draw [in, trade] and this bow.

    Source: practice section 2; the angle and reserve from docs/mechanics A2 at the form's
    default riser and brace height.
    """
    told = []

    def add(id: SchoolId, low: float | None, high: float | None, why: Said) -> None:
        told.append(SchoolRange(id, low, high, verdict(bow.length_in, low, high), why))

    def silent(id: SchoolId, why: str) -> None:
        told.append(SchoolRange(id, None, None, "silent", say(why)))

    adds = LIMB_CLASS_ADDS_IN[limb_class(draw_in, numbers)]
    small, large = RISERS_BY_USE[use]
    if bow.is_takedown_recurve:
        add(
            "limb_first",
            small + adds,
            large + adds,
            say(
                f"A {limb_class(draw_in, numbers)} limb for the draw, on a riser of {{small}} to "
                "{large} for the use.",
                small=("bow_length", small),
                large=("bow_length", large),
            ),
        )
    else:
        silent("limb_first", "It speaks of takedown recurves only.")
    rungs = 0
    while draw_in > numbers.ladder_start_draw_in + rungs * numbers.ladder_rung_draw_in:
        rungs += 1
    rung = numbers.ladder_start_in + _RUNG_IN * min(rungs, _MOST_RUNGS)
    if bow.form == "recurve":
        step = ("draw", numbers.ladder_rung_draw_in)
        rule = say("One bow length for each {step} of draw; the target archers' rule.", step=step)
        add("ladder", rung, rung, rule)
    else:
        silent("ladder", "It is the target recurve archers' rule.")
    if bow.form == "static_tip":
        silent("ratio_band", "It was not made for bows with static tips, which are shorter.")
    elif bow.takedown:
        silent("ratio_band", "It speaks of one-piece bows only.")
    else:
        add(
            "ratio_band",
            numbers.ratio_low * draw_in,
            numbers.ratio_high * draw_in,
            say(
                "Between {low} and {high} times the draw; low for close "
                "cover, high for smoothness.",
                low=("share", numbers.ratio_low),
                high=("share", numbers.ratio_high),
            ),
        )
    reserve = reserve_wanted_in(use, numbers)
    by_maker = ends_at_makers_word(bow, archer.release)
    stack = None if by_maker else _shortest(bow, draw_in, material, None, reserve)
    if by_maker:
        silent("stack_reserve", "Such bows are drawn past their stack; the maker's word ends them.")
    elif stack is None:
        silent("stack_reserve", "No length computed reaches it.")
    else:
        where = "{reserve} beyond" if reserve >= 0 else "at most {reserve} inside"
        why = say(f"The bow starts to stack {where} the draw.", reserve=("draw", abs(reserve)))
        add("stack_reserve", stack, None, why)
    limit = angle_limit_deg(archer.release, numbers)
    if limit is None:
        silent("string_angle", "A thumb draw has no limit of its own.")
    else:
        open_enough = _shortest(bow, draw_in, material, limit, -99)
        if open_enough is None:
            silent("string_angle", "No length computed reaches it.")
        else:
            add(
                "string_angle",
                open_enough,
                None,
                say("At least {limit} between string and string.", limit=("angle", limit)),
            )
    return tuple(told)


def idle_ratio(form: Form) -> float:
    """Length over draw [-] beyond which the limbs are hardly worked. Source: own rule."""
    return IDEAL_RATIO[form] + _TOO_LONG_PAST
