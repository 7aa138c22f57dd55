"""The over-stiff school of natural bows: which way of shooting a stiff shaft groups best.

The arrow is put on the side that the string favours, so that it barely has to bend; then the bow
is flipped end for end, then the arrow turned half round, and the better way is kept. Groups of a
few arrows say little: only a ratio that chance rarely makes counts (docs/mechanics E2).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from lyrandis.core.flight.flyers import AT_M

Side = Literal["left", "right"]
BowEnd = Literal["as_made", "flipped"]
ArrowTurn = Literal["as_made", "half_turned"]
# How many times wider a group must be to mean anything, by how many arrows each has.
RATIO_BY_ARROWS = ((3, 2.5), (4, 2.1), (6, 1.7))

_LEAST_CM = 1.0  # there: a tighter group is no better for it


@dataclass(frozen=True)
class Way:
    """One way to shoot: the side of the arrow, the end of the bow that is up, the arrow's turn."""

    side: Side
    bow: BowEnd
    arrow: ArrowTurn


@dataclass(frozen=True)
class GroupShot:
    """A group: its way, its widest spread [cm], arrows, and the distance [m]."""

    way: Way
    size_cm: float
    arrows: int
    distance_m: float


@dataclass(frozen=True)
class WayTold:
    """A way with what its groups come to: spread in cm at 30 m, and arrows in all."""

    way: Way
    size_cm_30m: float
    arrows: int


@dataclass(frozen=True)
class Ways:
    """All ways shot, best first; the best if chance hardly explains it; the next to try."""

    told: tuple[WayTold, ...]
    best: Way | None
    next: Way | None


def ratio_needed(arrows: int) -> float | None:
    """How many times wider the worse group must be; None where too few arrows were shot."""
    return next((r for n, r in reversed(RATIO_BY_ARROWS) if arrows >= n), None)


def _order(side: Side) -> list[Way]:
    """The ways in the order in which practice tries them."""
    return [
        Way(side, "as_made", "as_made"),
        Way(side, "flipped", "as_made"),
        Way(side, "as_made", "half_turned"),
        Way(side, "flipped", "half_turned"),
    ]


def ways(groups: Sequence[GroupShot], favoured: Side) -> Ways:
    """What the groups say of the ways shot.

    Parameters
    ----------
    groups : all of them
    favoured : the side that the string favours

    Spreads of one way are averaged by arrows, in proportion to the distance.
    """
    by_way: dict[Way, list[GroupShot]] = {}
    for group in groups:
        by_way.setdefault(group.way, []).append(group)
    told = []
    for way, shot in by_way.items():
        arrows = sum(g.arrows for g in shot)
        size = sum(g.arrows * g.size_cm * AT_M / g.distance_m for g in shot) / arrows
        told.append(WayTold(way, max(size, _LEAST_CM), arrows))
    told.sort(key=lambda t: t.size_cm_30m)
    untried = [way for way in _order(favoured)[:3] if way not in by_way]
    best = None
    if len(told) > 1:
        needed = ratio_needed(min(told[0].arrows, told[1].arrows))
        if needed is not None and told[1].size_cm_30m / told[0].size_cm_30m >= needed:
            best = told[0].way
    return Ways(tuple(told), best, untried[0] if untried else None)
