"""What moves a shaft towards stiff or weak on this rig, and how far the model is to be believed.

Each share is of random bows: how often the model moved a bare shaft to the side that archers
report, with a plunger and with leather; the lower of the table of docs/mechanics B3 and of 60 fresh
bows a plate. Where the two seldom agree no side is stated.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from lyrandis.core.arrow.window import GROUP_LN, GROUP_SHARE
from lyrandis.core.bench.bench import Bench
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.flex.match import SHAFTS
from lyrandis.core.flex.of_rig import layout_of, matched, setting_of
from lyrandis.core.flex.setting import DAMPING, PlateKind
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
        "bow.brace_reference": "plunger",
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
    Mover("overdraw", "A draw longer by", 1, "draw", "weak", _shares(0.93, 0.93)),
    Mover("short_draw", "A draw shorter by", -1, "draw", "stiff", _shares(0.9, 1.0)),
    Mover(
        "silencers", "A string that carries silencers of", 30, "mass", "stiff", _shares(0.7, 0.78)
    ),
    Mover("plate", "The side plate farther out by", 1, "small", "stiff", _shares(0.82, 0.83)),
    Mover("spring", "A plunger firmer by", FIRMER, "share", "stiff", _shares(0.9)),
    Mover("brace", "A brace higher by", 0.5, "brace", "weak", _shares(0.08, 0.0)),
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
        if groups is not None and (groups > 0) != (mover.expected == "stiff"):
            groups = None  # on this rig it goes the other way: then no side is stated
        told.append(Moved(mover.id, _told(mover, groups, share), mover.expected, groups, share))
    return told


def _effect(bench: Bench, mover: Mover) -> float | None:
    """By how many groups it reads stiffer then; None where the model finds no match, or none any
    more.

    Both are sought among the very same spines, so that their place between these does not count.
    """
    first = bench.arrow.first_window.spine_28in
    if first is None:
        return None
    was = _match(bench, first.value)
    then, acts = None, bench.arrow.build.acts_spine
    try:
        if mover.id == "spring":
            then = _match(bench, first.value, FIRMER)
        else:
            bench = bench.with_changes(_SETS_IN[mover.id](bench.rig, mover.by))
            if bench.spine_error_groups is not None:
                then = _match(bench, first.value)
    except RefusedError:
        return None
    if was is None or then is None:
        return None
    return math.log(then / was * acts / bench.arrow.build.acts_spine) / GROUP_LN


def _match(bench: Bench, guess: float, firmer: float = 0.0) -> float | None:
    """The spine that leaves this bow cleanly, with a plunger firmer by a share."""
    setting, arrow = setting_of(bench.rig, bench.bow.drawn, bench.arrow.string), bench.rig.arrow
    p = setting.plate
    firm = replace(p, k_n_m=p.k_n_m * (1 + firmer), preload_n=p.preload_n * (1 + firmer))
    return matched(
        replace(setting, plate=firm), layout_of(arrow), arrow.diameter_mm / 2000,
        DAMPING[arrow.material], guess, SHAFTS,
    ).match  # fmt: skip


def _told(mover: Mover, groups: float | None, share: float) -> Said:
    by = abs(mover.by)
    change = ("percent", 100 * by) if mover.quantity == "share" else (mover.quantity, by)
    if groups is not None and abs(groups) < HARDLY:
        return say(f"{mover.title} {{by}} hardly moves the read on this rig.", by=change)
    if groups is not None:
        way = "stiffer" if groups > 0 else "weaker"
        return say(
            f"{mover.title} {{by}} reads {way}, by about {{groups}} of spine.",
            by=change, groups=("groups", abs(groups), MOVED_SD),
        )  # fmt: skip
    if share >= AGREES_FROM:
        return say(
            f"{mover.title} {{by}} reads {'stiffer' if mover.expected == 'stiff' else 'weaker'} to "
            "archers; on this rig the model says nothing of it. Try it and read.",
            by=change,
        )  # fmt: skip
    return say(
        f"{mover.title} {{by}}: reports differ. Archers find it "
        f"{'stiffer' if mover.expected == 'stiff' else 'weaker'}, the model agrees in {{share}} of "
        "bows only. Try it and read.",
        by=change, share=("percent", 100 * share),
    )  # fmt: skip
