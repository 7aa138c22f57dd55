"""Long work over HTTP: waited for by the request that asked, or begun and followed.

A request that waits ends its work when the connection is closed. One that begins a job is
answered at once; the job is followed by server-sent events and stopped by a request of its own.
"""

from __future__ import annotations

import asyncio
import shutil
import tempfile
from collections.abc import Callable
from typing import IO, Annotated, Any

from fastapi import Depends, Request, UploadFile
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lyrandis.jobs import Job, Jobs, State

_LOOK_EVERY_S = 0.2


class ClientGoneError(Exception):
    """Whoever asked has closed the connection, or the work was stopped."""


def _jobs(request: Request) -> Jobs:
    jobs: Jobs = request.app.state.jobs
    return jobs


AllJobs = Annotated[Jobs, Depends(_jobs)]


class JobView(BaseModel):
    """A job: its number, what it is, and how it stands."""

    id: int
    kind: str
    state: State


def job_view(job: Job) -> JobView:
    """A job as it is told."""
    return JobView(id=job.id, kind=job.kind, state=job.state)


def own(file: UploadFile) -> IO[bytes]:
    """A copy of a file that was sent, to be read after the request is over; closed when read."""
    kept = tempfile.TemporaryFile()  # noqa: SIM115 (closed by the work that reads it)
    shutil.copyfileobj(file.file, kept)
    kept.seek(0)
    return kept


async def waited(request: Request, begin: Callable[[], Job]) -> Any:
    """The result of a job, while the client waits for it.

    Parameters
    ----------
    begin : begins it; called in a thread, since it may copy a file first

    Raises
    ------
    ClientGoneError : nobody is there to answer.
    Exception : whatever the work raised.
    """

    async def watch() -> None:
        while not await request.is_disconnected():
            await asyncio.sleep(_LOOK_EVERY_S)
        job.leave()

    job = await run_in_threadpool(begin)
    assert job.future is not None
    watcher = asyncio.create_task(watch())
    try:
        await asyncio.wrap_future(job.future)
    except asyncio.CancelledError:
        if not job.over:
            job.leave()
            raise
    finally:
        watcher.cancel()
    if job.error is not None:
        raise job.error
    if job.state == "stopped":
        raise ClientGoneError
    return job.result
