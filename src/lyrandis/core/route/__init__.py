"""The routes: stations in working order, what each rests on, and the state each is in."""

from lyrandis.core.route.reads import READS, Read, moved_since
from lyrandis.core.route.routes import ROUTES, Route, by_bow, route_of
from lyrandis.core.route.states import Mark, State, StationState, states
from lyrandis.core.route.stations import STATION_OF_SLOT, STATIONS, Station, station_of
from lyrandis.core.route.watches import NO_CONSEQUENCE, WATCHES, Watch, due_after

__all__ = [
    "NO_CONSEQUENCE",
    "READS",
    "ROUTES",
    "STATIONS",
    "STATION_OF_SLOT",
    "WATCHES",
    "Mark",
    "Read",
    "Route",
    "State",
    "Station",
    "StationState",
    "Watch",
    "by_bow",
    "due_after",
    "moved_since",
    "route_of",
    "states",
    "station_of",
]  # fmt: skip
