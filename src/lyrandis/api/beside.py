"""Side by side over HTTP: two rigs, two parts, one rig at two dates; the days to choose from."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict

from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.routers import router_of
from lyrandis.core.stops import StationId
from lyrandis.desk.beside import BesideView, SideIn, compare

router = router_of("beside")


class BesideIn(BaseModel):
    """The two sides; what differs can be set on the first, where that is a rig as it stands."""

    model_config = ConfigDict(extra="forbid")

    mine: SideIn
    other: SideIn


@router.post("/beside")
def side_by_side(body: BesideIn, desk: AtDesk) -> BesideView:
    """Two rigs, two parts of a kind, or one rig at two dates, side by side."""
    return compare(desk, body.mine, body.other)


class DayNote(BaseModel):
    """A day on which something was entered: its last entry, how many, and at which stations."""

    day: str
    seq: int
    entries: int
    stations: list[StationId]


@router.get("/rigs/{id}/days")
def days(id: RigId, desk: AtDesk) -> list[DayNote]:
    """The days of a rig's history, the latest first."""
    return [DayNote(**vars(day)) for day in desk.days(id)]
