"""The route: stations in working order, what each rests on, and the state each is in."""

from lyrandis.core.route.reads import READS, Read, moved_since
from lyrandis.core.route.states import Mark, State, StationState, states
from lyrandis.core.route.stations import ROUTE, STATION_OF_SLOT, STATIONS, Station, station_of
from lyrandis.core.route.watches import NO_CONSEQUENCE, WATCHES, Watch, due_after

__all__ = [
    "NO_CONSEQUENCE",
    "READS",
    "ROUTE",
    "STATIONS",
    "STATION_OF_SLOT",
    "WATCHES",
    "Mark",
    "Read",
    "State",
    "Station",
    "StationState",
    "Watch",
    "due_after",
    "moved_since",
    "states",
    "station_of",
]  # fmt: skip
