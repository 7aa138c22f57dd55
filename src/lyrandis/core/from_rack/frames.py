"""Which bows can be built of what lies there: a bow in one piece, or a riser and two limbs.

Limbs of the common fitting only (short, medium and long add so much to a riser): what any other
limbs make with a riser nobody knows before they were on one. The two must be alike; unlike limbs
are a stopgap (practice section 3), and a stopgap is not lent to anybody.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from lyrandis.core.findings import Said, say
from lyrandis.core.fit.limbs import SMALL_SHARE
from lyrandis.core.from_rack.lying import Lying, usable
from lyrandis.core.parts import LimbPart, RiserPart, Slot

# What two limbs of one bow have in common.
_ALIKE = (
    "form", "limb_class", "marked_draw_in", "marked_riser_in", "limb_material", "tips",
    "low_stretch_rated", "maker_brace_low_in", "maker_brace_high_in", "maker_min_gpp",
    "maker_max_draw_in",
)  # fmt: skip
Frame = dict[Slot, Lying]


@dataclass(frozen=True)
class LeftOut:
    """A part of which no bow can be built, and why."""

    lying: Lying
    why: Said


def _unset(one: Lying) -> Said | None:
    """What must be set on a part before anything can be said of it."""
    of = one.part.of
    if isinstance(of, RiserPart) and of.riser_in is None:
        return say("its length is not set")
    if isinstance(of, LimbPart):
        if of.form != "recurve":
            return say("only limbs of the common recurve fitting are built up here")
        if of.limb_class is None:
            return say("short, medium or long is not set")
        if of.marked_weight_lbf is None:
            return say("its marked weight is not set")
    return None


def _limb(one: Lying) -> LimbPart:
    assert isinstance(one.part.of, LimbPart)
    return one.part.of


def _belong(a: LimbPart, b: LimbPart) -> bool:
    """Whether two limbs are one pair, the first above: alike, and marked nearly the same."""
    if a.which == "lower" or b.which == "upper":
        return False
    share = abs((b.marked_weight_lbf or 0.0) / (a.marked_weight_lbf or 1.0) - 1)
    alike = all(getattr(a, name) == getattr(b, name) for name in _ALIKE)
    return alike and share <= SMALL_SHARE + 1e-9


def _pairs(limbs: list[Lying]) -> Iterator[tuple[Lying, Lying]]:
    """Every two limbs that belong together, the upper one first."""
    for upper in limbs:
        for lower in limbs:
            nameless = _limb(upper).which == _limb(lower).which == "unknown"
            if upper is lower or (nameless and upper.mark > lower.mark):
                continue  # the same two the other way round
            if _belong(_limb(upper), _limb(lower)):
                yield upper, lower


def frames(lying: Iterable[Lying]) -> tuple[list[Frame], list[LeftOut]]:
    """The bows that can be built, and the bows, risers and limbs that none can be built of."""
    parts = list(lying)
    made: list[Frame] = [{"bow": bow} for bow in usable(parts, "bow")]
    apart = [*usable(parts, "riser"), *usable(parts, "limb")]
    ready = [one for one in apart if _unset(one) is None]
    risers = [one for one in ready if one.part.kind == "riser"]
    for upper, lower in _pairs([one for one in ready if one.part.kind == "limb"]):
        made += [{"riser": riser, "upper_limb": upper, "lower_limb": lower} for riser in risers]
    used = {one.mark for frame in made for one in frame.values()}
    alone = {
        "riser": say("no two limbs lie there that belong together"),
        "limb": say("no riser and no limb lies there that belongs to it"),
    }
    left = [
        LeftOut(one, _unset(one) or alone[one.part.kind]) for one in apart if one.mark not in used
    ]
    return made, left + _stopped(parts)


def _stopped(parts: Iterable[Lying]) -> list[LeftOut]:
    return [
        LeftOut(one, one.stopped)
        for one in parts
        if one.stopped is not None and one.part.kind != "archer"
    ]
