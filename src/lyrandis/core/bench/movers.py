"""What moves a shaft towards stiff or weak on this rig, and how far the model is to be believed.

Each share is of 60 random bows of the fit's domain a plate: how often the window moves to the side
that archers report (docs/mechanics B4a). Where the two seldom agree no side is stated.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from lyrandis.core.bench.bench import Bench
from lyrandis.core.bench.cures import moved_groups
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.findings import Said, say
from lyrandis.core.flex.of_rig import averaged_of
from lyrandis.core.flex.setting import PlateKind
from lyrandis.core.flex.window import GROUP_LN, GROUP_SHARE
from lyrandis.core.flight.belief import MOVED_SD
from lyrandis.core.parts import Rig

Way = Literal["stiff", "weak"]
AGREES_FROM = 0.7  # of bows; below, no side is stated
HARDLY = 0.25  # groups: less is not told as a side
FIRMER = 0.3  # of the plunger's spring
_SETS_IN: dict[str, Callable[[Rig, float], Mapping[str, Any]]] = {
    "spine": lambda r, by: {"arrow.static_spine": r.arrow.static_spine * (1 + by)},
    "length": lambda r, by: {"arrow.shaft_length_in": r.arrow.shaft_length_in + by},
    "point": lambda r, by: {"arrow.point_gr": r.arrow.point_gr + by},
    "overdraw": lambda r, by: {"archer.draw_length_in": r.archer.draw_length_in + by},
    "short_draw": lambda r, by: {"archer.draw_length_in": r.archer.draw_length_in + by},
    "silencers": lambda r, by: {"string.silencers_gr": r.string.silencers_gr + by},
    "plate": lambda r, by: {"bow.centre_cut_mm": r.bow.centre_cut_mm - by},
    "brace": lambda r, by: {
        "bow.brace_height_in": brace_to_pivot_in(r.bow) + by,
        "bow.brace_reference": "grip",
        "bow.brace_offset_in": None,
    },
}


def _heavier(rig: Rig, by: float) -> Mapping[str, Any]:
    share = 1 + by / rig.bow.marked_weight_lbf
    return {
        "bow.marked_weight_lbf": rig.bow.marked_weight_lbf + by,
        "bow.measured": [(draw, force * share) for draw, force in rig.bow.measured],
    }


_SETS_IN["weight"] = _heavier


@dataclass(frozen=True)
class Mover:
    """A change, where archers say it moves the read, and how often the model says so by plate.

    by, quantity : how much is changed, in the quantity's stored unit
    shares : the lowest of what was found; none where the plate has no such thing
    """

    id: str
    title: str
    by: float
    quantity: str
    expected: Way
    shares: Mapping[PlateKind, float]


def _shares(plunger: float, leather: float | None = None) -> dict[PlateKind, float]:
    told: dict[PlateKind, float | None] = {"plunger": plunger, "leather": leather}
    return {plate: share for plate, share in told.items() if share is not None}


MOVERS: tuple[Mover, ...] = (
    Mover("spine", "A shaft stiffer by", -GROUP_SHARE, "share", "stiff", _shares(1.0, 1.0)),
    Mover("length", "A shaft longer by", 1, "draw", "weak", _shares(1.0, 1.0)),
    Mover("point", "A point heavier by", 50, "mass", "weak", _shares(1.0, 1.0)),
    Mover("weight", "A bow heavier by", 4, "weight", "weak", _shares(1.0, 1.0)),
    Mover("overdraw", "A draw longer by", 1, "draw", "weak", _shares(1.0, 1.0)),
    Mover("short_draw", "A draw shorter by", -1, "draw", "stiff", _shares(1.0, 1.0)),
    Mover(
        "silencers", "A string that carries silencers of", 30, "mass", "stiff", _shares(1.0, 1.0)
    ),
    Mover("plate", "The side plate farther out by", 1, "small", "stiff", _shares(1.0, 1.0)),
    Mover("spring", "A plunger firmer by", FIRMER, "share", "stiff", _shares(1.0)),
    Mover("brace", "A brace higher by", 0.5, "brace", "weak", _shares(0.0, 0.92)),
)


@dataclass(frozen=True)
class Moved:
    """What a change does on this rig.

    groups : by how many spine groups the shaft then is stiffer for the bow, − weaker; None where
        the model is not to be believed or finds no match
    share : how often the model agrees with archers, on bows like the ones it was tried on
    said : the whole in words
    """

    id: str
    said: Said
    expected: Way
    groups: float | None
    share: float


def what_moves(bench: Bench) -> list[Moved]:
    """Every change that this plate knows, with its effect on this rig; none outside the fit."""
    if bench.spine_error_groups is None:
        return []
    plate, told = bench.rig.bow.side_plate, []
    for mover in MOVERS:
        if plate not in mover.shares:
            continue
        share = mover.shares[plate]
        groups = _effect(bench, mover) if share >= AGREES_FROM else None
        said = _told(mover, groups, share)
        if groups is not None and (groups > 0) != (mover.expected == "stiff"):
            groups = None  # on this rig it goes the other way: then no side is stated
        told.append(Moved(mover.id, said, mover.expected, groups, share))
    return told


def _effect(bench: Bench, mover: Mover) -> float | None:
    """By how many groups it reads stiffer then; None where no window covers it any more."""
    if mover.id == "spring":
        return _by_spring(bench)
    return moved_groups(bench, _SETS_IN[mover.id](bench.rig, mover.by))


def _by_spring(bench: Bench) -> float | None:
    """The fit knows no spring: by the model's match alone."""
    first = bench.arrow.window.first
    if first is None:
        return None
    was, then = (
        averaged_of(bench.rig, bench.bow.drawn, bench.rig.arrow, first, firmer).match.match
        for firmer in (0.0, FIRMER)
    )
    return None if was is None or then is None else math.log(then / was) / GROUP_LN


def _told(mover: Mover, groups: float | None, share: float) -> Said:
    by = abs(mover.by)
    change = ("percent", 100 * by) if mover.quantity == "share" else (mover.quantity, by)
    reported = "stiffer" if mover.expected == "stiff" else "weaker"
    if share < AGREES_FROM:
        return say(
            f"{mover.title} {{by}}: reports differ. Archers find it {reported}, the model agrees "
            "in {share} of bows. Try it and read.",
            by=change, share=("percent", 100 * share),
        )  # fmt: skip
    if groups is None:
        return say(
            f"{mover.title} {{by}} reads {reported} to archers; the model does not reach so far. "
            "Try it and read.",
            by=change,
        )  # fmt: skip
    if abs(groups) < HARDLY:
        return say(f"{mover.title} {{by}} hardly moves the read on this rig.", by=change)
    way, size = "stiffer" if groups > 0 else "weaker", ("groups", abs(groups), MOVED_SD)
    if way != reported:
        return say(
            f"{mover.title} {{by}} reads {reported} to archers; the model says the other way on "
            "this rig, by about {groups} of spine. Try it and read.",
            by=change, groups=size,
        )  # fmt: skip
    return say(
        f"{mover.title} {{by}} reads {way}, by about {{groups}} of spine.", by=change, groups=size
    )
