"""All of the data in one file: taken out while it is in use, looked over, put back."""

from __future__ import annotations

import shutil
import tempfile
from pathlib import Path
from typing import Annotated

from fastapi import File, Request, UploadFile
from fastapi.responses import FileResponse
from fastapi.routing import APIRoute
from pydantic import BaseModel
from starlette.background import BackgroundTask

from lyrandis.api.context import AtDesk
from lyrandis.api.long import AllJobs, own, waited
from lyrandis.api.problems import answers
from lyrandis.api.routers import router_of
from lyrandis.core.errors import RefusedError
from lyrandis.desk.rigs import Desk
from lyrandis.jobs import Job, Jobs, Tell
from lyrandis.store.database import FILE_NAME, backup, stamp
from lyrandis.store.restore import Looked, NoBackupError, look_over, restore_running

router = router_of("data", "/api/data", route_class=APIRoute)


class Unread(BaseModel):
    """A rig that this version cannot read, and why."""

    name: str
    reason: str


class DataView(BaseModel):
    """What a look over the data found; `replaced` names the file that holds what was there."""

    rigs: int
    bytes: int
    whole: bool
    faults: list[str]
    unreadable: list[Unread]
    replaced: str | None


def _folder(request: Request) -> Path:
    folder: Path = request.app.state.folder
    return folder


def _view(folder: Path, found: Looked, aside: Path | None = None) -> DataView:
    return DataView(
        rigs=found.rigs,
        bytes=(folder / FILE_NAME).stat().st_size,
        whole=found.whole,
        faults=list(found.faults),
        unreadable=[Unread(name=name, reason=why) for name, why in found.unreadable],
        replaced=None if aside is None else aside.name,
    )


@router.get("")
def look(request: Request) -> DataView:
    """Integrity, tables, and whether every rig can be read."""
    folder = _folder(request)
    return _view(folder, look_over(folder / FILE_NAME))


@router.get(
    "/backup",
    response_class=FileResponse,
    responses=answers("application/vnd.sqlite3", "The data, one SQLite file"),
)
def take_out(request: Request) -> FileResponse:
    """All of the data as one SQLite file, consistent even while it is written to."""
    place = tempfile.mkdtemp()
    copy = Path(place) / FILE_NAME
    backup(_folder(request), copy)
    return FileResponse(
        copy,
        media_type="application/vnd.sqlite3",
        filename=f"lyrandis-{stamp()}.db",
        background=BackgroundTask(shutil.rmtree, place, ignore_errors=True),
    )


def putting_back(jobs: Jobs, folder: Path, desk: Desk, upload: UploadFile) -> Job:
    """Begin to put a backup in the place of the data; the result is a look over it."""
    file = own(upload)

    def work(tell: Tell) -> DataView:
        with tempfile.TemporaryDirectory() as place:
            source = Path(place) / "backup.db"
            with file, source.open("wb") as target:
                shutil.copyfileobj(file, target)
            try:
                aside, found = restore_running(desk.engine, folder, source, tell)
                desk.arrived(raised=True)
            except NoBackupError as error:
                said = str(error).replace("backup.db", "The file", 1)
                raise RefusedError("file", said) from None
        return _view(folder, found, aside)

    return jobs.start("restore", work)


@router.post("/restore")
async def put_back(
    request: Request, file: Annotated[UploadFile, File()], desk: AtDesk, jobs: AllJobs
) -> DataView:
    """Put a backup in the place of the data, in one transaction; what was there is kept beside.

    A file that is no whole backup, or a newer version's, is refused and changes nothing. Ends
    without a change when the connection is closed before the backup was looked over.
    """
    folder = _folder(request)
    view: DataView = await waited(request, lambda: putting_back(jobs, folder, desk, file))
    return view
