"""The bow scale: a live pull of the simulated stand-in, and readings as CSV in and out."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import APIRouter, File, Query, Response, UploadFile
from fastapi.responses import StreamingResponse
from pydantic import BaseModel

from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.problems import PROBLEM_RESPONSES, answers
from lyrandis.core.bench import Bench
from lyrandis.core.bow.readings import thinned
from lyrandis.core.errors import RefusedError
from lyrandis.files.readings_csv import MOST_BYTES, read_readings, write_readings
from lyrandis.instruments.scale import READINGS, SimulatedScale

router = APIRouter(prefix="/api", tags=["scale"], responses=PROBLEM_RESPONSES)


class Readings(BaseModel):
    """Pairs of draw [in, trade standard] and force [lb]."""

    readings: list[list[float]]


@router.get(
    "/rigs/{id}/scale", response_class=StreamingResponse, responses=answers("text/event-stream")
)
def pull(
    id: RigId,
    desk: AtDesk,
    seed: Annotated[int, Query(ge=0, le=2**31)] = 1,
    again: Annotated[int, Query(ge=0, le=2**31)] = 0,
    pace: Annotated[float, Query(ge=0, le=10, allow_inf_nan=False)] = 1.0,
) -> StreamingResponse:
    """One pull of the simulated scale to the archer's true draw, as server-sent events.

    `seed` chooses the bow that hides behind the marking, `again` counts the pulls of it.

    Each event carries `draw_in`, `force_lbf` and `share` of the pull done; the last one, `done`,
    the readings thinned to one an inch. Closing the connection ends the pull; nothing is kept.
    """
    rig = desk.get(id).present.rig
    draw = Bench(rig).archer.true_draw.value
    scale = SimulatedScale(rig.bow, rig.string.material, draw, seed, again)
    taken = list(scale.readings())  # refused before anything is sent, if at all

    async def events() -> AsyncIterator[str]:
        for i, reading in enumerate(taken):
            await asyncio.sleep(scale.every_s * pace)
            told = reading._asdict() | {"share": (i + 1) / READINGS}
            yield f"data: {json.dumps(told)}\n\n"
        yield f"event: done\ndata: {json.dumps({'readings': thinned(taken)})}\n\n"

    return StreamingResponse(events(), media_type="text/event-stream")


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
