"""Rigs over HTTP: list, make, look ahead, keep, check, take back, copy, put away, files."""

from __future__ import annotations

import io
from typing import Annotated, Any

from fastapi import File, Query, Request, Response, UploadFile
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.attached import file_name
from lyrandis.api.context import AtDesk, Preferences, RigId, now
from lyrandis.api.long import AllJobs, own, waited
from lyrandis.api.problems import answers
from lyrandis.api.reference import get_preferences
from lyrandis.api.routers import router_of
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.first_rig import first_rig
from lyrandis.core.fit.line_up import Lined, line_up
from lyrandis.core.history import MOST_ENTRIES
from lyrandis.core.parts import Form, Hand, Name, Release, Rig, Short
from lyrandis.core.route import StationState, states
from lyrandis.core.schedule import Due
from lyrandis.core.stops import Standing, StationId
from lyrandis.core.trials import Trial, TrialKind, standing
from lyrandis.desk import papers
from lyrandis.desk.rack import Reached, reached_by_rig, stopped_rigs
from lyrandis.desk.rigs import Desk
from lyrandis.desk.shown import BenchView
from lyrandis.desk.views import (
    HistoryLine,
    RigNote,
    RigView,
    TrialLine,
    history_of,
    note_of,
    trial_lines,
    view_of,
)
from lyrandis.files.trials_csv import write_trials
from lyrandis.jobs import Job, Jobs, Tell
from lyrandis.store.digests import named
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import Along

router = router_of("rigs", "/api/rigs")


Digest = Annotated[str, Field(pattern="^[0-9a-f]{32}$")]


class Body(BaseModel):
    """Base of the requests: unknown names are refused."""

    model_config = ConfigDict(extra="forbid")


def as_it_is(view: BaseModel) -> Response:
    """An answer asked for often, written without being judged again: it is of its own type."""
    return Response(view.model_dump_json(), media_type="application/json")


def shown(desk: Desk, kept: Kept) -> RigView:
    """A rig as it stands, to be answered."""
    return view_of(kept, desk.digests)


class Seen(Body):
    """The latest entry that the sender has seen: its number, and its digest as it was told."""

    seq: int = Field(ge=0, le=MOST_ENTRIES)
    digest: Digest | None = None

    def named(self) -> list[tuple[int, str | None]]:
        """Every entry that the request names, with its digest."""
        return [(self.seq, self.digest)]


class About(Seen):
    """A request that names the entry of a trial too."""

    about_digest: Digest | None = None
    about: int | None = None

    def named(self) -> list[tuple[int, str | None]]:
        """Every entry that the request names, with its digest."""
        about = [] if self.about is None else [(self.about, self.about_digest)]
        return about + super().named()


def seen(desk: Desk, id: int, body: Seen) -> Along:
    """Refuse a request made on other data now, and once more where it is written.

    Raises
    ------
    OtherDataError
    """
    refuse_others = named(id, body.named())
    with desk.engine.connect() as connection:
        refuse_others(connection)
    return refuse_others


class PreviewView(BaseModel):
    """What a change would make of a rig: all its numbers and the states of its stations.

    reaches : other rigs with the same parts that it reaches, and what it makes due there
    """

    bench: BenchView
    states: list[StationState]
    reaches: list[Reached]


@router.get("")
def list_rigs(desk: AtDesk) -> list[RigNote]:
    """Every rig, the oldest first; one that cannot be shown says so and hides no other."""
    lines = desk.lines()
    stops = stopped_rigs(desk)
    return [note_of(line, stops.get(line.id)) for line in lines]


@router.post("", status_code=201)
def create_rig(body: Rig, desk: AtDesk) -> RigView:
    """Make a new rig."""
    return shown(desk, desk.create(body))


class FirstRigIn(Body):
    """The little a newcomer knows; everything else starts as is ordinary."""

    form: Form
    length_in: float = Field(allow_inf_nan=False)
    marked_weight_lbf: float = Field(allow_inf_nan=False)
    draw_length_in: float = Field(allow_inf_nan=False)
    hand: Hand = "right"
    release: Release
    name: Name
    archer: Short = ""


@router.post("/first", status_code=201)
def create_first_rig(body: FirstRigIn, desk: AtDesk) -> RigView:
    """Make a rig from a form of bow, its length and weight, and a draw."""
    return shown(desk, desk.create(first_rig(**body.model_dump())))


@router.get("/{id}", response_model=RigView)
def get_rig(id: RigId, desk: AtDesk) -> Response:
    """A rig as it stands."""
    return as_it_is(shown(desk, desk.get(id)))


class Changes(Body):
    """Settings by dotted path."""

    changes: dict[str, Any] = Field(default={}, max_length=200)


class PreviewIn(Changes):
    """Settings by dotted path, and the stations whose numbers are asked for; all if none named."""

    parts: list[StationId] | None = Field(None, max_length=20, fail_fast=True)


@router.post("/{id}/preview", response_model=PreviewView)
def preview(id: RigId, body: PreviewIn, desk: AtDesk) -> Response:
    """What changes would do, before they are kept. Nothing is written."""
    kept, bench = desk.look(id, body.changes, body.parts)
    view = PreviewView(
        bench=bench,
        states=states(kept.present.marks, bench.rig),
        reaches=reached_by_rig(desk, kept, body.changes),
    )
    return as_it_is(view)


class KeepIn(Changes, About):
    """Settings to keep at a station, seen from entry `seq`, with a reason that may be empty.

    A `trial` is logged with them, or alone; `about` says which earlier trial it puts right.
    """

    station: str | None = Field(None, max_length=40)
    standing: Standing = "provisional"
    why: str = Field("", max_length=500)
    trial: Trial | None = None
    about: int | None = Field(None, ge=-4 * (MOST_ENTRIES + 1), le=MOST_ENTRIES)


@router.post("/{id}/keep")
def keep(id: RigId, body: KeepIn, desk: AtDesk) -> RigView:
    """Keep settings. Refused where a changed setting itself makes the rig impossible."""
    return shown(
        desk,
        desk.keep(
            id,
            body.seq,
            body.changes,
            body.station,
            body.standing,
            body.why,
            trial=body.trial,
            about=body.about,
            along=seen(desk, id, body),
        ),
    )


class StrikeIn(About):
    """Which trial is struck out, or taken in again."""

    about: int = Field(ge=-4 * (MOST_ENTRIES + 1), le=MOST_ENTRIES)
    out: bool = True
    why: str = Field("", max_length=500)


@router.post("/{id}/strike")
def strike(id: RigId, body: StrikeIn, desk: AtDesk) -> RigView:
    """Strike a trial out, or take it in again; it stays in the history."""
    return shown(
        desk, desk.strike(id, body.seq, body.about, body.out, body.why, seen(desk, id, body))
    )


class Pick(Body):
    """A bow to line up: its length and riser [in]."""

    length_in: float = Field(ge=40, le=76, allow_inf_nan=False)
    riser_in: float | None = Field(None, ge=4, le=32)


class LineUpIn(Changes):
    """Up to three bows to draw side by side."""

    picks: list[Pick] = Field(max_length=3, fail_fast=True)


@router.post("/{id}/line-up")
def lined_up(id: RigId, body: LineUpIn, desk: AtDesk) -> list[Lined]:
    """Bows side by side at the rig's draw, pulled to the same weight."""
    b = Bench(changed(desk.get(id).present.rig, body.changes))
    picks = [(p.length_in, p.riser_in) for p in body.picks]
    return line_up(b.rig.bow, picks, b.archer.true_draw.value, b.fit.equal)


class CheckIn(Seen):
    """A station looked at again and found to hold."""

    station: str = Field(max_length=40)
    standing: Standing
    why: str = Field("", max_length=500)


@router.post("/{id}/check")
def check(id: RigId, body: CheckIn, desk: AtDesk) -> RigView:
    """Say that a station holds or is settled."""
    along = seen(desk, id, body)
    return shown(desk, desk.check(id, body.seq, body.station, body.standing, body.why, along=along))


class SeqIn(Seen):
    """The latest entry the caller has seen."""


@router.post("/{id}/undo")
def undo(id: RigId, body: SeqIn, desk: AtDesk) -> RigView:
    """Take back the latest change that stands."""
    return shown(desk, desk.undo(id, body.seq, seen(desk, id, body)))


@router.post("/{id}/redo")
def redo(id: RigId, body: SeqIn, desk: AtDesk) -> RigView:
    """Do again what was taken back last."""
    return shown(desk, desk.redo(id, body.seq, seen(desk, id, body)))


@router.get("/{id}/history")
def history(
    id: RigId,
    desk: AtDesk,
    before: Annotated[int | None, Query(ge=1, le=MOST_ENTRIES + 1)] = None,
    since: Annotated[int, Query(ge=0, le=MOST_ENTRIES)] = 0,
    most: Annotated[int, Query(ge=1, le=500)] = 50,
) -> list[HistoryLine]:
    """The history, the latest first, a page at a time.

    Entries are numbered without gaps from 1: below the last line's number the next page begins.
    """
    return history_of(desk.page(id, before, since, most))


class CopyIn(Body):
    """The copy's name."""

    name: Name


@router.post("/{id}/copy", status_code=201)
def copy(id: RigId, body: CopyIn, desk: AtDesk) -> RigView:
    """A new rig that begins as this one stands."""
    return shown(desk, desk.copy(id, body.name))


class ArchiveIn(Body):
    """Whether the rig is put away."""

    away: bool


@router.post("/{id}/archive")
def archive(id: RigId, body: ArchiveIn, desk: AtDesk) -> RigNote:
    """Put a rig away or take it out again; nothing is deleted."""
    return note_of(desk.archive(id, body.away))


@router.get("/{id}/file", response_class=StreamingResponse, responses=answers("application/json"))
def export(id: RigId, desk: AtDesk) -> StreamingResponse:
    """The rig with its history as one JSON file, as it is kept; works for an unreadable rig too."""
    name, pieces = desk.file(id)
    headers = {"Content-Disposition": file_name(name, "json")}
    return StreamingResponse(pieces, media_type="application/json", headers=headers)


def taking_in(jobs: Jobs, desk: Desk, upload: UploadFile) -> Job:
    """Begin to take in a rig file; the result is the rig."""
    file = own(upload)
    size = max(file.seek(0, io.SEEK_END), 1)

    def work(tell: Tell) -> RigView:
        with file:
            return shown(desk, desk.take_in(file, lambda: tell(min(file.tell() / size, 1.0))))

    return jobs.start("import", work)


@router.post("/import", status_code=201)
async def import_rig(
    request: Request, file: Annotated[UploadFile, File()], desk: AtDesk, jobs: AllJobs
) -> RigView:
    """Take in a rig file whole, as a new rig; a damaged or foreign file is refused whole.

    Ends without a rig when the connection is closed on the way.
    """
    view: RigView = await waited(request, lambda: taking_in(jobs, desk, file))
    return view


@router.get("/{id}/trials")
def trials(
    id: RigId,
    desk: AtDesk,
    kind: TrialKind,
    after: Annotated[int | None, Query(ge=-4 * (MOST_ENTRIES + 1), le=MOST_ENTRIES)] = None,
    most: Annotated[int, Query(ge=1, le=500)] = 12,
) -> list[TrialLine]:
    """Trials of one kind, the latest day first, a page at a time.

    The next page is asked for by the entry number of the last trial seen; a page with fewer than
    `most` is the last.
    """
    found = desk.trials(id, kind, after, most)
    digests = desk.digests(id, [t.seq for t in found])
    return trial_lines(found, desk.get(id).present.rig, digests)


@router.get("/{id}/trials/{kind}", response_class=Response, responses=answers("text/csv"))
def trials_csv(id: RigId, kind: TrialKind, desk: AtDesk) -> Response:
    """The rig's trials of one kind as CSV, units in the header; struck ones are left out."""
    kept = desk.get(id)
    found = standing(tuple(desk.trials(id, kind, None, None)), kind)
    if not found:
        raise RefusedError("kind", f"No trial of the kind “{kind}” stands on this rig yet.")
    headers = {"Content-Disposition": file_name(f"{kept.present.rig.name} {kind}", "csv")}
    text = write_trials([(t.day, t.trial) for t in found])
    return Response(text, media_type="text/csv", headers=headers)


@router.get("/{id}/schedule")
def get_schedule(id: RigId, desk: AtDesk) -> list[Due]:
    """What is due when on this rig, the nearest first."""
    kept = desk.get(id)
    return papers.schedule_of(kept, papers.bench_of(kept, now()))


@router.get("/{id}/schedule.ics", response_class=Response, responses=answers("text/calendar"))
def schedule_calendar(id: RigId, desk: AtDesk) -> Response:
    """The dated part of the schedule as iCalendar."""
    kept = desk.get(id)
    headers = {"Content-Disposition": file_name(f"{kept.present.rig.name} schedule", "ics")}
    text = papers.schedule_calendar(kept, papers.bench_of(kept, now()))
    return Response(text, media_type="text/calendar", headers=headers)


@router.get("/{id}/step-up.ics", response_class=Response, responses=answers("text/calendar"))
def step_up_calendar(id: RigId, desk: AtDesk) -> Response:
    """The plan to go up in weight as iCalendar."""
    kept = desk.get(id)
    text = papers.step_up_calendar(kept, papers.bench_of(kept, now()))
    headers = {"Content-Disposition": file_name(f"{kept.present.rig.name} step up", "ics")}
    return Response(text, media_type="text/calendar", headers=headers)


@router.get("/{id}/sheet", response_class=Response, responses=answers("application/pdf"))
def sheet(id: RigId, desk: AtDesk, preferences: Preferences) -> Response:
    """The printed rig sheet as PDF, in the archer's units."""
    kept = desk.get(id)
    pdf = papers.sheet_of(kept, papers.bench_of(kept, now()), get_preferences(preferences).units)
    name = file_name(kept.present.rig.name, "pdf").replace("attachment", "inline")
    return Response(pdf, media_type="application/pdf", headers={"Content-Disposition": name})
