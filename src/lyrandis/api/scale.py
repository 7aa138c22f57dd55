"""The bow scale: a pull of the simulated stand-in as a job, and readings as CSV in and out."""

from __future__ import annotations

from typing import Annotated

from fastapi import File, Response, UploadFile
from fastapi.routing import APIRoute
from pydantic import BaseModel

from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.problems import answers
from lyrandis.api.routers import router_of
from lyrandis.api.streams import taken_off
from lyrandis.core.bench import Bench
from lyrandis.core.bow.readings import thinned
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Rig
from lyrandis.files.readings_csv import MOST_BYTES, read_readings, write_readings
from lyrandis.instruments.scale import SimulatedScale
from lyrandis.jobs import Job, Jobs

router = router_of("scale", route_class=APIRoute)


class Readings(BaseModel):
    """Pairs of draw [in, trade standard] and force [lb]."""

    readings: list[list[float]]


def pulling(jobs: Jobs, rig: Rig, seed: int, again: int, pace: float) -> Job:
    """Begin one pull of the simulated scale to the archer's true draw; refused before it is begun.

    It tells each reading as the scale shows it, at the scale's own pace times `pace`; its result
    are the readings thinned to one an inch.

    Parameters
    ----------
    seed : chooses the bow that hides behind the marking
    again : counts the pulls of it
    """
    draw = Bench(rig).archer.true_draw.value
    scale = SimulatedScale(rig.bow, rig.string.material, draw, seed, again)
    return taken_off(
        jobs,
        "pull",
        scale,
        pace,
        lambda taken: Readings(readings=[list(r) for r in thinned(taken)]),
    )


@router.get("/rigs/{id}/readings", response_class=Response, responses=answers("text/csv"))
def readings_out(id: RigId, desk: AtDesk, metric: bool = False) -> Response:
    """The rig's scale readings as CSV, units in the header."""
    readings = desk.get(id).present.rig.bow.measured
    if not readings:
        raise RefusedError("bow.measured", "This rig has no scale readings yet.")
    headers = {"Content-Disposition": 'attachment; filename="readings.csv"'}
    return Response(write_readings(readings, metric), media_type="text/csv", headers=headers)


@router.post("/readings")
def readings_in(file: Annotated[UploadFile, File()]) -> Readings:
    """Read a CSV of readings; nothing is kept until the archer keeps it."""
    return Readings(readings=read_readings(file.file.read(MOST_BYTES + 1)))
