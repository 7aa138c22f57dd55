"""Fit from the rack over HTTP: what can be built for an archer, taken out, brought back."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated

from fastapi import Request
from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from lyrandis.api.context import AtDesk
from lyrandis.api.long import AllJobs, JobView, job_view, waited
from lyrandis.api.rigs import Digest
from lyrandis.api.routers import router_of
from lyrandis.core.dates import Day
from lyrandis.core.from_rack import RackFit, rack_fit
from lyrandis.core.history import MOST_ENTRIES
from lyrandis.core.parts import Name, Slot, Use
from lyrandis.desk.from_rack import Lent, asking_for, lying_for, take_back, take_out
from lyrandis.desk.rack import PartLine
from lyrandis.desk.rigs import Desk
from lyrandis.jobs import Job, Jobs, Tell
from lyrandis.store.digests import named_line

router = router_of("parts")
PartMark = Annotated[str, StringConstraints(pattern="^[0-9a-f]{32}$")]


class AskIn(BaseModel):
    """For whom, what the bow is used for, and the weight at the draw wished for at most [lb]."""

    model_config = ConfigDict(extra="forbid")

    archer: PartMark
    use: Use = "woodland"
    most_lbf: float | None = Field(None, ge=5, le=120, allow_inf_nan=False)


def fitting(jobs: Jobs, desk: Desk, body: AskIn) -> Job:
    """Begin to look through the rack for an archer; refused before it is begun."""
    asking = asking_for(desk, body.archer, body.use, body.most_lbf)
    lying = lying_for(desk, asking)

    def work(tell: Tell) -> RackFit:
        return rack_fit(asking, lying, tell)

    return jobs.start("fit", work)


@router.post("/parts/fit")
async def fit_from_rack(body: AskIn, request: Request, desk: AtDesk, jobs: AllJobs) -> RackFit:
    """What the rack has for an archer, the best first."""
    found: RackFit = await waited(request, lambda: fitting(jobs, desk, body))
    return found


@router.post("/jobs/fit", status_code=202)
def begin_fit(body: AskIn, desk: AtDesk, jobs: AllJobs) -> JobView:
    """Begin the same; its result is what the rack has."""
    return job_view(fitting(jobs, desk, body))


class Taken(BaseModel):
    """A part as the caller has seen it: its mark, and the latest line of its story."""

    model_config = ConfigDict(extra="forbid")

    mark: PartMark
    seq: int = Field(ge=0, le=MOST_ENTRIES)
    digest: Digest | None = None


def _seen(desk: Desk, parts: Iterable[Taken]) -> None:
    """Raises OtherDataError where a part's story is another one than was seen."""
    with desk.engine.connect() as connection:
        for one in parts:
            named_line(one.mark, one.seq, one.digest)(connection)


class TakeOutIn(AskIn):
    """What is taken: parts by slot; a name to write them up as a rig; the day they are due back.

    rig : None: no rig is written
    due_back : "": lent without a day; None: not lent
    """

    parts: dict[Slot, Taken]
    rig: Name | None = None
    due_back: Day | None = None


@router.post("/parts/take-out", status_code=201)
def take(body: TakeOutIn, desk: AtDesk) -> Lent:
    """Lend a bow that was fitted from the rack, write it up as a rig, or both, as one act."""
    _seen(desk, body.parts.values())
    asking = asking_for(desk, body.archer, body.use, body.most_lbf)
    parts = {slot: (one.mark, one.seq) for slot, one in body.parts.items()}
    return take_out(desk, asking, parts, body.rig, body.due_back)


class TakeBackIn(BaseModel):
    """What is back."""

    model_config = ConfigDict(extra="forbid")

    parts: list[Taken] = Field(min_length=1, max_length=20)


@router.post("/parts/take-back")
def bring_back(body: TakeBackIn, desk: AtDesk) -> list[PartLine]:
    """Parts that were lent are back, as one act."""
    _seen(desk, body.parts)
    return take_back(desk, {one.mark: one.seq for one in body.parts})
