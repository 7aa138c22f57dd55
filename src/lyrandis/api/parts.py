"""Parts over HTTP: the rack, a part with its story, look ahead, keep, take back, files."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import File, Path, Query, Response, UploadFile
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.context import AtDesk, RigId, now
from lyrandis.api.problems import answers
from lyrandis.api.rigs import Digest, Seen, seen, shown
from lyrandis.api.routers import router_of
from lyrandis.core.dates import day_of
from lyrandis.core.history import MOST_ENTRIES
from lyrandis.core.parts import Part, Slot
from lyrandis.desk.papers import lent_calendar
from lyrandis.desk.rack import (
    PartLine,
    PartView,
    Reached,
    part_view,
    rack_lines,
    reached_by_part,
)
from lyrandis.desk.views import RigView
from lyrandis.files.part_json import MOST_BYTES, StoryEntry, part_text, read_part

router = router_of("parts")
Mark = Annotated[str, Path(pattern="^[0-9a-f]{32}$", description="Mark of a part.")]


class Body(BaseModel):
    """Base of the requests: unknown names are refused."""

    model_config = ConfigDict(extra="forbid")


@router.get("/parts")
def list_parts(desk: AtDesk) -> list[PartLine]:
    """Every part on the rack, the oldest first."""
    return rack_lines(desk, day_of(now()))


@router.post("/parts", status_code=201)
def create_part(body: Part, desk: AtDesk) -> PartView:
    """Put a new part on the rack."""
    return part_view(desk, desk.rack.make(body).mark, day_of(now()))


@router.get("/parts/lent.ics", response_class=Response, responses=answers("text/calendar"))
def lent(
    desk: AtDesk,
    mark: Annotated[list[str] | None, Query(max_length=200, description="Only these.")] = None,
) -> Response:
    """The days on which lent parts are due back, as iCalendar."""
    parts = [kept for kept in desk.rack.all() if mark is None or kept.mark in mark]
    headers = {"Content-Disposition": 'attachment; filename="lent.ics"'}
    return Response(lent_calendar(parts, now()), media_type="text/calendar", headers=headers)


@router.get("/parts/{mark}")
def get_part(mark: Mark, desk: AtDesk) -> PartView:
    """A part with its story."""
    return part_view(desk, mark, day_of(now()))


class PartChanges(Body):
    """Settings of a part by dotted path: `name`, `notes`, `keeping.*`, `of.*`."""

    changes: dict[str, Any] = Field(default={}, max_length=200)


@router.post("/parts/{mark}/preview")
def preview_part(mark: Mark, body: PartChanges, desk: AtDesk) -> list[Reached]:
    """The rigs that a change would reach, and what it makes due there. Nothing is written."""
    return reached_by_part(desk, mark, body.changes)


class PartKeepIn(PartChanges):
    """Settings to keep, seen from line `seq` of the story, with a reason that may be empty."""

    seq: int = Field(ge=0, le=MOST_ENTRIES)
    digest: Digest | None = None
    why: str = Field("", max_length=500)


@router.post("/parts/{mark}/keep")
def keep_part(mark: Mark, body: PartKeepIn, desk: AtDesk) -> PartView:
    """Change a part, on every rig it is on, as one act."""
    desk.rack.change(mark, body.seq, body.changes, body.why, digest=body.digest)
    return part_view(desk, mark, day_of(now()))


class PartSeqIn(Body):
    """The latest line of the story that the caller has seen."""

    seq: int = Field(ge=0, le=MOST_ENTRIES)
    digest: Digest | None = None


@router.post("/parts/{mark}/undo")
def undo_part(mark: Mark, body: PartSeqIn, desk: AtDesk) -> PartView:
    """Take back the latest change of a part, on every rig it is on."""
    desk.rack.undo(mark, body.seq, body.digest)
    return part_view(desk, mark, day_of(now()))


@router.post("/parts/{mark}/redo")
def redo_part(mark: Mark, body: PartSeqIn, desk: AtDesk) -> PartView:
    """Do again what was taken back of a part last."""
    desk.rack.redo(mark, body.seq, body.digest)
    return part_view(desk, mark, day_of(now()))


@router.get("/parts/{mark}/file", response_class=Response, responses=answers("application/json"))
def part_file(mark: Mark, desk: AtDesk) -> Response:
    """A part with its story as one JSON file."""
    kept, base, story = desk.rack.whole(mark)
    headers = {"Content-Disposition": f'attachment; filename="part-{mark[:8]}.json"'}
    lines = [
        StoryEntry(seq=e.seq, kind=e.kind, at=e.at, why=e.why, changes=e.changes) for e in story
    ]
    text = part_text(mark, kept.created_at, base, lines)
    return Response(text, media_type="application/json", headers=headers)


@router.post("/parts/import", status_code=201)
def import_part(file: Annotated[UploadFile, File()], desk: AtDesk) -> PartView:
    """Take in a part's file. A part that is here already is left as it is here."""
    read = read_part(file.file.read(MOST_BYTES + 1))
    desk.rack.take_in(read.mark, read.created_at, read.base, read.story)
    desk.arrived()
    return part_view(desk, read.mark, day_of(now()))


class PutOnIn(Seen):
    """Which part goes where: one of the rack by its mark, or a new one."""

    slot: Slot
    mark: str | None = Field(None, pattern="^[0-9a-f]{32}$")
    new: Part | None = None
    why: str = Field("", max_length=500)


@router.post("/rigs/{id}/put-on")
def put_on(id: RigId, body: PutOnIn, desk: AtDesk) -> RigView:
    """Put another part on a rig: what rested on the former one is due."""
    along = seen(desk, id, body)
    return shown(
        desk, desk.put_on(id, body.seq, body.slot, body.mark, body.new, body.why, along=along)
    )
