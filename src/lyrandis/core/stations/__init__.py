"""The stations of the route, each told by one file."""

from __future__ import annotations

from collections.abc import Collection

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding
from lyrandis.core.route import route_of
from lyrandis.core.stations import (
    arrow,
    assembly,
    bow_length,
    brace,
    centre_shot,
    crawls,
    draw,
    flight,
    in_line,
    nock_point,
    quiet,
    string,
    tiller,
    weight,
    weights,
)
from lyrandis.core.stations.base import Problem, RailNote, StationView, Teller, note, view
from lyrandis.core.stations.parts_stop import part_stops
from lyrandis.core.stations.tried import Proof
from lyrandis.core.stops import StationId

TELLERS: dict[StationId, Teller] = {
    "draw": Teller(draw.note, draw.tell),
    "bow-length": Teller(bow_length.note, bow_length.tell),
    "weight": Teller(weight.note, weight.tell),
    "assembly": Teller(assembly.note, assembly.tell),
    "string": Teller(string.note, string.tell),
    "tiller": Teller(tiller.note, tiller.tell),
    "in-line": Teller(in_line.note, in_line.tell),
    "centre-shot": Teller(centre_shot.note, centre_shot.tell),
    "weights": Teller(weights.note, weights.tell),
    "final-tiller": Teller(tiller.note_final, tiller.tell_final),
    "brace": Teller(brace.note, brace.tell),
    "nock-point": Teller(nock_point.note, nock_point.tell),
    "arrow": Teller(arrow.note, arrow.tell),
    "flight": Teller(flight.note, flight.tell),
    "quiet": Teller(quiet.note, quiet.tell),
    "crawls": Teller(crawls.note, crawls.tell),
}


def notes(bench: Bench) -> list[RailNote]:
    """The line of every station of the route on the rail, in working order."""
    return [note(id, TELLERS[id], bench) for id in route_of(bench.rig).stops]


def views(bench: Bench, of: Collection[StationId] | None = None) -> list[StationView]:
    """Stations of the route as they are shown, in working order; every one if `of` is None."""
    shown = [id for id in route_of(bench.rig).stops if of is None or id in of]
    proof = Proof(bench)
    stops = part_stops(bench)
    told = (view(id, TELLERS[id], bench) for id in shown)
    return [_tried(proof, _stopped(station, stops)) for station in told]


def _stopped(told: StationView, stops: list[Finding]) -> StationView:
    """A station with what stops a part of the rig before everything else."""
    return told.model_copy(update={"findings": [*stops, *told.findings]}) if stops else told


def _tried(proof: Proof, told: StationView) -> StationView:
    """A station with those actions only that hold when they are tried."""
    findings = [proof.tried(told.station, f) for f in told.findings]
    return told.model_copy(update={"findings": findings})


__all__ = ["TELLERS", "Problem", "RailNote", "StationView", "notes", "views"]
