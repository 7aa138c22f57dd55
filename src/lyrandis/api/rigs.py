"""Rigs over HTTP: list, make, look ahead, keep, check, take back, copy, put away, files."""

from __future__ import annotations

import re
from typing import Annotated, Any

from fastapi import APIRouter, File, Response, UploadFile
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bench_view import BenchView, bench_view
from lyrandis.api.context import Preferences, Rigs, now
from lyrandis.api.problems import PROBLEM_RESPONSES
from lyrandis.api.reference import get_preferences
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.findings import Said
from lyrandis.core.fit.first_rig import first_rig
from lyrandis.core.fit.line_up import Lined, line_up
from lyrandis.core.fit.step_up import begun
from lyrandis.core.history import sentences
from lyrandis.core.rig import Form, Hand, Name, Release, Rig, Short
from lyrandis.core.route import Standing, StationState, states
from lyrandis.core.schedule import Due, schedule
from lyrandis.core.trials import STATION_OF, KeptTrial, Trial, trial_said
from lyrandis.core.units import write
from lyrandis.core.workbench import Workbench
from lyrandis.files.calendar import DayNote, write_calendar
from lyrandis.files.rig_json import MOST_BYTES, read_rig, write_rig
from lyrandis.files.sheet import rig_sheet
from lyrandis.store.rigs import Kept

router = APIRouter(prefix="/api/rigs", tags=["rigs"], responses=PROBLEM_RESPONSES)


class Body(BaseModel):
    """Base of the requests: unknown names are refused."""

    model_config = ConfigDict(extra="forbid")


class RigNote(BaseModel):
    """A rig in the list."""

    id: int
    name: str
    form: str
    hand: str
    release: str
    archer: str
    created_at: str
    changed_at: str
    archived: bool
    due: int


class TrialLine(BaseModel):
    """One trial of a rig: when it was logged, the day it was made, what it showed."""

    seq: int
    at: str
    day: str
    station: str
    said: Said
    trial: Trial
    struck: bool


class RigView(BaseModel):
    """A rig as it stands, with the state of each station and its trials, the latest first."""

    id: int
    seq: int
    rig: Rig
    archived: bool
    states: list[StationState]
    undoable: Said | None
    redoable: Said | None
    trials: list[TrialLine]


class PreviewView(BaseModel):
    """What a change would make of a rig: all its numbers and the states of its stations."""

    bench: BenchView
    states: list[StationState]


def _note(kept: Kept) -> RigNote:
    rig = kept.present.rig
    return RigNote(
        id=kept.id,
        name=rig.name,
        form=rig.bow.form,
        hand=rig.archer.hand,
        release=rig.archer.release,
        archer=rig.archer.name,
        created_at=kept.created_at,
        changed_at=kept.entries[-1].at if kept.entries else kept.created_at,
        archived=kept.archived_at is not None,
        due=sum(s.state == "due" for s in states(kept.present.marks, rig)),
    )


def _view(kept: Kept) -> RigView:
    present = kept.present
    told = dict(zip([e.seq for e in kept.entries], sentences(kept.entries), strict=True))
    return RigView(
        id=kept.id,
        seq=kept.seq,
        rig=present.rig,
        archived=kept.archived_at is not None,
        states=states(present.marks, present.rig),
        undoable=None if present.undoable is None else told[present.undoable.seq],
        redoable=None if present.redoable is None else told[present.redoable.seq],
        trials=[
            _trial_line(t)
            for t in sorted(present.trials, key=lambda t: (t.day, t.seq), reverse=True)
        ],
    )


def _trial_line(kept: KeptTrial) -> TrialLine:
    said = trial_said(kept.trial)
    return TrialLine(
        seq=kept.seq,
        at=kept.at,
        day=kept.day,
        station=STATION_OF[kept.trial.kind],
        said=said.model_copy(update={"text": said.text[:1].upper() + said.text[1:] + "."}),
        trial=kept.trial,
        struck=kept.struck,
    )


@router.get("")
def list_rigs(store: Rigs) -> list[RigNote]:
    """Every rig, the oldest first."""
    return [_note(kept) for kept in store.all()]


@router.post("", status_code=201)
def create_rig(body: Rig, store: Rigs) -> RigView:
    """Make a new rig."""
    return _view(store.create(body))


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
def create_first_rig(body: FirstRigIn, store: Rigs) -> RigView:
    """Make a rig from a form of bow, its length and weight, and a draw."""
    return _view(store.create(first_rig(**body.model_dump())))


@router.get("/{id}")
def get_rig(id: int, store: Rigs) -> RigView:
    """A rig as it stands."""
    return _view(store.get(id))


class Changes(Body):
    """Settings by dotted path."""

    changes: dict[str, Any] = Field(default={}, max_length=200)


@router.post("/{id}/preview")
def preview(id: int, body: Changes, store: Rigs) -> PreviewView:
    """What changes would do, before they are kept. Nothing is written."""
    present = store.get(id).present
    rig = changed(present.rig, body.changes)
    bench = bench_view(rig, present.trials, now())
    return PreviewView(bench=bench, states=states(present.marks, rig))


class KeepIn(Changes):
    """Settings to keep at a station, seen from entry `seq`, with a reason that may be empty.

    A `trial` is logged with them, or alone; `about` says which earlier trial it puts right.
    """

    seq: int = Field(ge=0)
    station: str | None = Field(None, max_length=40)
    standing: Standing = "provisional"
    why: str = Field("", max_length=500)
    trial: Trial | None = None
    about: int | None = Field(None, ge=1)


@router.post("/{id}/keep")
def keep(id: int, body: KeepIn, store: Rigs) -> RigView:
    """Keep settings. Refused where a changed setting itself makes the rig impossible."""
    present = store.get(id).present
    made = now()
    changes = begun(body.changes, present.rig.step_up, day_of(made))
    rig = changed(present.rig, changes)
    for station in bench_view(rig, present.trials, made).stations:
        p = station.problem
        if p is not None and p.field in changes:
            raise RefusedError(p.field, p.reason, p.limit, p.unit)
    if body.trial is not None and body.trial.day:
        day_of(body.trial.day, "trial.day")
    return _view(
        store.keep(
            id,
            body.seq,
            changes,
            body.station,
            body.standing,
            body.why,
            trial=body.trial,
            about=body.about,
        )
    )


class StrikeIn(Body):
    """Which trial is struck out, or taken in again."""

    seq: int = Field(ge=0)
    about: int = Field(ge=1)
    out: bool = True
    why: str = Field("", max_length=500)


@router.post("/{id}/strike")
def strike(id: int, body: StrikeIn, store: Rigs) -> RigView:
    """Strike a trial out, or take it in again; it stays in the history."""
    return _view(store.strike(id, body.seq, body.about, body.out, body.why))


class Pick(Body):
    """A bow to line up: its length and riser [in]."""

    length_in: float = Field(ge=40, le=76, allow_inf_nan=False)
    riser_in: float | None = Field(None, ge=4, le=32)


class LineUpIn(Changes):
    """Up to three bows to draw side by side."""

    picks: list[Pick] = Field(max_length=3)


@router.post("/{id}/line-up")
def lined_up(id: int, body: LineUpIn, store: Rigs) -> list[Lined]:
    """Bows side by side at the rig's draw, pulled to the same weight."""
    b = Workbench(changed(store.get(id).present.rig, body.changes))
    picks = [(p.length_in, p.riser_in) for p in body.picks]
    return line_up(b.rig.bow, picks, b.true_draw.value, b.equal)


class CheckIn(Body):
    """A station looked at again and found to hold."""

    seq: int = Field(ge=0)
    station: str = Field(max_length=40)
    standing: Standing
    why: str = Field("", max_length=500)


@router.post("/{id}/check")
def check(id: int, body: CheckIn, store: Rigs) -> RigView:
    """Say that a station holds or is settled."""
    return _view(store.check(id, body.seq, body.station, body.standing, body.why))


class SeqIn(Body):
    """The latest entry the caller has seen."""

    seq: int = Field(ge=0)


@router.post("/{id}/undo")
def undo(id: int, body: SeqIn, store: Rigs) -> RigView:
    """Take back the latest change that stands."""
    return _view(store.undo(id, body.seq))


@router.post("/{id}/redo")
def redo(id: int, body: SeqIn, store: Rigs) -> RigView:
    """Do again what was taken back last."""
    return _view(store.redo(id, body.seq))


class HistoryLine(BaseModel):
    """One entry as a sentence."""

    seq: int
    at: str
    kind: str
    station: str | None
    standing: str | None
    said: Said


@router.get("/{id}/history")
def history(id: int, store: Rigs) -> list[HistoryLine]:
    """The whole history, the latest first."""
    entries = store.get(id).entries
    lines = [
        HistoryLine(
            seq=e.seq, at=e.at, kind=e.kind, station=e.station, standing=e.standing, said=said
        )
        for e, said in zip(entries, sentences(entries), strict=True)
    ]
    return lines[::-1]


class CopyIn(Body):
    """The copy's name."""

    name: Name


@router.post("/{id}/copy", status_code=201)
def copy(id: int, body: CopyIn, store: Rigs) -> RigView:
    """A new rig that begins as this one stands."""
    return _view(store.copy(id, body.name))


class ArchiveIn(Body):
    """Whether the rig is put away."""

    away: bool


@router.post("/{id}/archive")
def archive(id: int, body: ArchiveIn, store: Rigs) -> RigView:
    """Put a rig away or take it out again; nothing is deleted."""
    return _view(store.archive(id, body.away))


def _file_name(name: str, ending: str) -> str:
    plain = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "rig"
    return f'attachment; filename="{plain}.{ending}"'


@router.get("/{id}/file", response_class=Response)
def export(id: int, store: Rigs) -> Response:
    """The rig with its history as one JSON file."""
    kept = store.get(id)
    text = write_rig(kept.base, kept.entries, kept.created_at)
    headers = {"Content-Disposition": _file_name(kept.present.rig.name, "json")}
    return Response(text, media_type="application/json", headers=headers)


@router.post("/import", status_code=201)
def import_rig(file: Annotated[UploadFile, File()], store: Rigs) -> RigView:
    """Take in a rig file whole, as a new rig; a damaged or foreign file is refused whole."""
    read = read_rig(file.file.read(MOST_BYTES + 1))
    return _view(store.create(read.base, read.entries, read.created_at))


def _schedule(kept: Kept, made: str) -> list[Due]:
    present = kept.present
    b = Workbench(present.rig, present.trials, made)
    return schedule(b, states(present.marks, present.rig))


@router.get("/{id}/schedule")
def get_schedule(id: int, store: Rigs) -> list[Due]:
    """What is due when on this rig, the nearest first."""
    return _schedule(store.get(id), now())


@router.get("/{id}/schedule.ics", response_class=Response)
def schedule_calendar(id: int, store: Rigs) -> Response:
    """The dated part of the schedule as iCalendar."""
    kept, made = store.get(id), now()
    name = kept.present.rig.name
    notes = [
        DayNote(f"{due.id}-rig-{id}", due.day, f"{name}: {due.title.plain()}", due.why.plain())
        for due in _schedule(kept, made)
        if due.day is not None
    ]
    headers = {"Content-Disposition": _file_name(f"{name} schedule", "ics")}
    return Response(write_calendar(name, notes, made), media_type="text/calendar", headers=headers)


@router.get("/{id}/step-up.ics", response_class=Response)
def step_up_calendar(id: int, store: Rigs) -> Response:
    """The plan to go up in weight as iCalendar."""
    kept = store.get(id)
    rig, made = kept.present.rig, now()
    steps = Workbench(rig, kept.present.trials, made).weight_steps
    if not steps:
        raise RefusedError("step_up.goal_lbf", "There is no plan yet: set a goal first.")
    notes = [
        DayNote(
            f"step-{step.number}-rig-{id}",
            step.day,
            f"{rig.name}: up to {write(step.weight_lbf, 'weight')} at the earliest",
            f"Only after {step.earned_by}. Stop at pain.",
        )
        for step in steps
    ]
    headers = {"Content-Disposition": _file_name(f"{rig.name} step up", "ics")}
    text = write_calendar(f"{rig.name}: weight", notes, made)
    return Response(text, media_type="text/calendar", headers=headers)


@router.get("/{id}/sheet", response_class=Response)
def sheet(id: int, store: Rigs, preferences: Preferences) -> Response:
    """The printed rig sheet as PDF, in the archer's units."""
    present = store.get(id).present
    rig, made = present.rig, now()
    pdf = rig_sheet(rig, get_preferences(preferences).units, made, present.trials)
    name = _file_name(rig.name, "pdf").replace("attachment", "inline")
    return Response(pdf, media_type="application/pdf", headers={"Content-Disposition": name})
