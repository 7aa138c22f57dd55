"""What the pages show of a kept rig apart from its numbers: list, states, trials, history."""

from __future__ import annotations

import logging
import uuid

from pydantic import BaseModel

from lyrandis.core.findings import Said
from lyrandis.core.history import Entry
from lyrandis.core.logbook import entry_said, sentences
from lyrandis.core.rig import Rig
from lyrandis.core.route import StationState, moved_since, states
from lyrandis.core.trials import KeptTrial, Trial
from lyrandis.store.kept import Kept, Unreadable

log = logging.getLogger("lyrandis")


class RigNote(BaseModel):
    """A rig in the list; `unreadable` says why this version cannot show it, where it cannot."""

    id: int
    seq: int
    name: str
    form: str
    hand: str
    release: str
    archer: str
    created_at: str
    changed_at: str
    archived: bool
    due: int
    unreadable: str | None
    undoable: bool


class TrialLine(BaseModel):
    """One trial of a rig: when it was logged, the day it was made, what it showed.

    `moved` names what it was made with that is otherwise now: it may no longer hold.
    """

    seq: int
    at: str
    day: str
    station: str
    said: Said
    trial: Trial
    struck: bool
    moved: list[str]


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


class HistoryLine(BaseModel):
    """One entry as a sentence."""

    seq: int
    at: str
    kind: str
    station: str | None
    standing: str | None
    said: Said


def note_of(kept: Kept | Unreadable) -> RigNote:
    """A rig's line in the list."""
    archived = kept.archived_at is not None
    if isinstance(kept, Unreadable):
        return RigNote(
            id=kept.id, seq=kept.seq, name=kept.name, form="", hand="", release="", archer="",
            created_at=kept.created_at, changed_at=kept.created_at, archived=archived, due=0,
            unreadable=kept.why, undoable=kept.undoable,
        )  # fmt: skip
    rig, present = kept.present.rig, kept.present
    return RigNote(
        id=kept.id,
        seq=kept.seq,
        name=rig.name,
        form=rig.bow.form,
        hand=rig.archer.hand,
        release=rig.archer.release,
        archer=rig.archer.name,
        created_at=kept.created_at,
        changed_at=kept.entries[-1].at if kept.entries else kept.created_at,
        archived=archived,
        due=sum(s.state == "due" for s in states(present.marks, rig)),
        unreadable=None,
        undoable=present.undoable is not None,
    )


def view_of(kept: Kept) -> RigView:
    """A rig as it stands."""
    present = kept.present
    logged = {e.seq: e for e in kept.entries if e.trial is not None}

    def told(entry: Entry | None) -> Said | None:
        return None if entry is None else entry_said(entry, logged)

    # Many trials hang on one and the same rig: what moved since is told once for each.
    moved: dict[tuple[int, tuple[str, ...]], list[str]] = {}

    def since(trial: KeptTrial) -> list[str]:
        rests_on = trial.trial.rests_on
        key = (id(trial.rig), rests_on)
        if key not in moved:
            moved[key] = moved_since(rests_on, trial.rig, present.rig)
        return moved[key]

    return RigView(
        id=kept.id,
        seq=kept.seq,
        rig=present.rig,
        archived=kept.archived_at is not None,
        states=states(present.marks, present.rig),
        undoable=told(present.undoable),
        redoable=told(present.redoable),
        trials=[
            _trial_line(t, since(t))
            for t in sorted(present.trials, key=lambda t: (t.day, t.seq), reverse=True)
        ],
    )


def _trial_line(kept: KeptTrial, moved: list[str]) -> TrialLine:
    return TrialLine(
        seq=kept.seq,
        at=kept.at,
        day=kept.day,
        station=kept.trial.station,
        said=kept.trial.said().sentence(),
        trial=kept.trial,
        struck=kept.struck,
        moved=moved,
    )


def history_of(kept: Kept) -> list[HistoryLine]:
    """The whole history, the latest first."""
    return [
        HistoryLine(
            seq=e.seq, at=e.at, kind=e.kind, station=e.station, standing=e.standing, said=said
        )
        for e, said in zip(kept.entries, sentences(kept.entries), strict=True)
    ][::-1]


def safe_note(kept: Kept | Unreadable) -> RigNote:
    """A rig's line in the list, whatever goes wrong with it: one rig never hides another."""
    try:
        return note_of(kept)
    except Exception as error:
        mark = uuid.uuid4().hex[:8]
        log.exception("a rig that could not be listed %s", mark, exc_info=error)
        present = kept.present if isinstance(kept, Kept) else None
        return note_of(
            Unreadable(
                id=kept.id,
                created_at=kept.created_at,
                archived_at=kept.archived_at,
                name=present.rig.name if present else f"Rig {kept.id}",
                field="rig",
                reason=f"it cannot be shown; fault {mark} is in the server's log.",
                seq=kept.seq,
                undoable=present is not None and present.undoable is not None,
            )
        )
