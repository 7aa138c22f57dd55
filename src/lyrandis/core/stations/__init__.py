"""The stations of the route, each told by one file."""

from __future__ import annotations

from collections.abc import Callable

from lyrandis.core.route import ROUTE, StationId
from lyrandis.core.stations import (
    arrow,
    assembly,
    bow_length,
    brace,
    crawls,
    draw,
    nock_point,
    quiet,
    string,
    weight,
)
from lyrandis.core.stations.base import Problem, StationView, Told, view
from lyrandis.core.workbench import Workbench

TELLERS: dict[StationId, Callable[[Workbench], Told]] = {
    "draw": draw.tell,
    "bow-length": bow_length.tell,
    "weight": weight.tell,
    "assembly": assembly.tell,
    "string": string.tell,
    "brace": brace.tell,
    "nock-point": nock_point.tell,
    "arrow": arrow.tell,
    "quiet": quiet.tell,
    "crawls": crawls.tell,
}


def views(bench: Workbench) -> list[StationView]:
    """Every station of the route, in working order."""
    return [view(station.id, TELLERS[station.id], bench) for station in ROUTE]


__all__ = ["TELLERS", "Problem", "StationView", "views"]
