"""Since when what is drawn now is drawn: the day on which it last went up."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bow.curve import force_draw
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.fit.hold import UNDER
from lyrandis.core.parts import Rig
from lyrandis.core.parts.base import at

# The settings that the weight at the draw follows from.
WEIGHT_PATHS = (
    "archer.draw_length_in", "archer.release", "archer.thumb_offset_mm",
    "bow.form", "bow.length_in", "bow.riser_in", "bow.marked_weight_lbf", "bow.marked_draw_in",
    "bow.measured", "bow.brace_height_in", "bow.brace_reference", "bow.brace_offset_in",
    "string.material", "limbs.upper_turns", "limbs.lower_turns",
    "on.bow", "on.riser", "on.upper_limb", "on.lower_limb",
)  # fmt: skip
# What makes it another bow, or one otherwise screwed together.
_BOW = tuple(path for path in WEIGHT_PATHS if path.startswith(("bow.", "limbs.", "on.")))
_SAME_BOW = tuple(path for path in _BOW if path != "bow.measured" and "brace" not in path)


@dataclass(frozen=True)
class Drawn:
    """A rig as it stood from a time on (ISO 8601), as far as its weight goes."""

    at: str
    rig: Rig


def taken_on(rig: Rig, drawn: tuple[Drawn, ...], now: str, slack_lbf: float) -> str:
    """The day from which the archer draws no less than a rig's weight; "" where it was never less.

    Parameters
    ----------
    drawn : how the rig stood before, the oldest first, up to the present
    slack_lbf : what is so little lighter is no other weight [lb]

    A scale's readings speak of the same bow before they were taken too: weighing it is no step up.
    A state that cannot be computed counts as a lighter one.
    """
    weight = _weight_lbf(rig)
    if weight is None:
        return day_of(now)
    ends = [*(later.at for later in drawn[1:]), now]
    least = weight - min(slack_lbf, UNDER * weight)
    for was, ended in zip(reversed(drawn), reversed(ends), strict=False):
        before = _weight_lbf(_weighed_as(was.rig, rig))
        if before is None or before < least:
            return day_of(ended)
    return ""


def _weighed_as(was: Rig, now: Rig) -> Rig:
    if any(at(was, path) != at(now, path) for path in _SAME_BOW):
        return was
    return was.model_copy(update={"bow": was.bow.model_copy(update={"measured": now.bow.measured})})


def _weight_lbf(rig: Rig) -> float | None:
    try:
        curve = force_draw(rig.bow, rig.string.material)
        draw = true_draw_in(rig.archer, rig.bow, rig.string.material).value
    except RefusedError:
        return None
    return curve.force(draw) if draw <= curve.draw_in[-1] else None
