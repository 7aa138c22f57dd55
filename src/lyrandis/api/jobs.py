"""Jobs over HTTP: begun with a file or a rig, followed by server-sent events, stopped."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from dataclasses import asdict
from typing import Annotated, Any

from fastapi import File, Path, Query, Request, UploadFile
from fastapi.sse import EventSourceResponse, ServerSentEvent
from pydantic import TypeAdapter

from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.data import putting_back
from lyrandis.api.flight import PassingIn, changed, mapping
from lyrandis.api.listening import Marks, Second, listening
from lyrandis.api.long import AllJobs, JobView, job_view
from lyrandis.api.problems import problem_of
from lyrandis.api.rigs import taking_in
from lyrandis.api.routers import router_of

router = router_of("jobs", "/api/jobs")
JobId = Annotated[int, Path(ge=1, le=2**53 - 1, description="Number of a job.")]
_LOOK_EVERY_S = 0.03


@router.post("/import", status_code=202)
def begin_import(file: Annotated[UploadFile, File()], desk: AtDesk, jobs: AllJobs) -> JobView:
    """Begin to take in a rig file; its result is the rig."""
    return job_view(taking_in(jobs, desk, file))


@router.post("/sound", status_code=202)
def begin_listening(
    file: Annotated[UploadFile, File()],
    jobs: AllJobs,
    mine_s: Marks,
    added_s: Annotated[list[Second], Query(max_length=60)] = [],  # noqa: B006 (never changed)
) -> JobView:
    """Begin to listen to a recording; the same recording is listened to once."""
    return job_view(listening(jobs, file, added_s, mine_s))


@router.post("/spine-map/{id}", status_code=202)
def begin_mapping(id: RigId, body: PassingIn, desk: AtDesk, jobs: AllJobs) -> JobView:
    """Begin to draw a rig's spine map; its result is the map."""
    return job_view(mapping(jobs, changed(id, body, desk)))


@router.post("/restore", status_code=202)
def begin_restore(
    request: Request, file: Annotated[UploadFile, File()], desk: AtDesk, jobs: AllJobs
) -> JobView:
    """Begin to put a backup in the place of the data; its result is a look over it."""
    return job_view(putting_back(jobs, request.app.state.folder, desk, file))


@router.get("/{id}")
def look(id: JobId, jobs: AllJobs) -> JobView:
    """How a job stands."""
    return job_view(jobs.get(id))


@router.delete("/{id}")
def stop(id: JobId, jobs: AllJobs) -> JobView:
    """Leave a job; where nobody else asked for the same it stops, and does no more."""
    job = jobs.get(id)
    job.leave()
    return job_view(job)


def _text(result: Any) -> str:
    """A result as JSON: of whatever type the core or the API gives it."""
    return TypeAdapter(type(result)).dump_json(result).decode()


@router.get("/{id}/events", response_class=EventSourceResponse)
async def follow(id: JobId, request: Request, jobs: AllJobs) -> AsyncIterator[ServerSentEvent]:
    """All that a job tells, from its beginning; the last event is done, failed or stopped.

    `message` carries a share of the whole and what there is to show at once, `done` the result,
    `failed` problem details. Not following it any more does not stop it.
    """
    try:
        job = jobs.get(id)
    except LookupError as error:  # the stream has begun: it is told here
        yield ServerSentEvent(event="failed", data=await problem_of(request, error))
        return
    seen = 0
    while True:
        over = job.over  # looked at first, so that nothing told before it is missed
        while seen < len(job.told):
            told = job.told[seen]
            seen += 1
            yield ServerSentEvent(data=asdict(told))
        if over:
            break
        await asyncio.sleep(_LOOK_EVERY_S)
    if job.state == "done":
        yield ServerSentEvent(event="done", raw_data=_text(job.result))
    elif job.error is not None:
        yield ServerSentEvent(event="failed", data=await problem_of(request, job.error))
    else:
        yield ServerSentEvent(event="stopped", data=None)
