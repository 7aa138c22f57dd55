"""The routes by kind of bow: which stations are walked, and in which order.

Source: practice, "The order". Stations of a route that are not built yet do not stand in it.
"""

from __future__ import annotations

from typing import NamedTuple

from lyrandis.core.parts import Rig
from lyrandis.core.stops import RouteId, StationId


class Route(NamedTuple):
    """An order of work, the kind of bow it is for, and its stations in that order."""

    id: RouteId
    bows: str
    stops: tuple[StationId, ...]


ROUTES: dict[RouteId, Route] = {
    route.id: route
    for route in (
        Route(
            "shelf",
            "bows shot off the shelf or the hand",
            (
                "draw", "bow-length", "weight", "assembly", "string", "tiller", "in-line", "brace",
                "nock-point", "centre-shot", "arrow", "flight", "quiet", "crawls",
            ),
        ),
        Route(
            "takedown",
            "takedowns with plunger and rest",
            (
                "draw", "bow-length", "weight", "assembly", "string", "tiller", "in-line",
                "centre-shot", "weights", "final-tiller", "brace", "nock-point", "arrow", "flight",
                "quiet", "crawls",
            ),
        ),
        Route(
            "thumb",
            "bows drawn with the thumb",
            (
                "draw", "bow-length", "weight", "assembly", "string", "in-line", "brace",
                "nock-point", "centre-shot", "arrow", "flight", "quiet", "crawls",
            ),
        ),
    )
}  # fmt: skip


def by_bow(rig: Rig) -> Route:
    """The route that follows from a rig's bow and release."""
    if rig.archer.release == "thumb":
        return ROUTES["thumb"]
    if rig.bow.takedown and rig.bow.side_plate == "plunger":
        return ROUTES["takedown"]
    return ROUTES["shelf"]


def route_of(rig: Rig) -> Route:
    """The route that a rig is on: the archer's choice, or what its bow asks for."""
    return by_bow(rig) if rig.route == "by_bow" else ROUTES[rig.route]
