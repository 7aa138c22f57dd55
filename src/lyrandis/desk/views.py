"""What the pages show of a kept rig apart from its numbers: list, states, trials, history."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from pydantic import BaseModel

from lyrandis.core.findings import Said
from lyrandis.core.history import Entry
from lyrandis.core.logbook import entry_said
from lyrandis.core.measured import sources
from lyrandis.core.part_story import described
from lyrandis.core.parts import Rig, Slot
from lyrandis.core.route import StationState, moved_since, states
from lyrandis.core.trials import KeptTrial, Trial, TrialKind
from lyrandis.store.kept import Kept, Listed, Unreadable
from lyrandis.store.pages import Page

TRIALS_SHOWN = 8  # of each kind before one asks for earlier ones


class RigNote(BaseModel):
    """A rig in the list.

    unreadable : why this version cannot show it, where it cannot
    stop : why a part of it must not be shot
    """

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
    stop: Said | None


class PartOn(BaseModel):
    """A part on the rig."""

    slot: Slot
    mark: str
    name: str
    what: Said


class MeasuredBy(BaseModel):
    """The trial that a measured setting comes from; `rig_id`: another rig that holds it."""

    path: str
    seq: int
    day: str
    rig_id: int | None
    rig: str | None


class TrialLine(BaseModel):
    """One trial of a rig: when it was logged, the day it was made, what it showed.

    `moved` names what it was made with that is otherwise now: it may no longer hold; `digest` is
    of its entry, to be named with its number.
    """

    seq: int
    digest: str
    at: str
    day: str
    station: str
    said: Said
    trial: Trial
    struck: bool
    moved: list[str]


class RigView(BaseModel):
    """A rig as it stands, with the state of each station and its trials, the latest first.

    uid : its own for good; digest : of its latest entry, to be named with its number
    earlier : the kinds of trial of which more were logged than are listed here
    """

    id: int
    uid: str
    seq: int
    digest: str
    rig: Rig
    archived: bool
    states: list[StationState]
    undoable: Said | None
    redoable: Said | None
    trials: list[TrialLine]
    earlier: list[TrialKind]
    parts: list[PartOn]
    measured: list[MeasuredBy]


class HistoryLine(BaseModel):
    """One entry as a sentence."""

    seq: int
    at: str
    kind: str
    station: str | None
    standing: str | None
    said: Said


def note_of(line: Listed | Unreadable, stop: Said | None = None) -> RigNote:
    """A rig's line in the list; `stop` says why a part of it must not be shot."""
    told: dict[str, Any]
    if isinstance(line, Unreadable):
        told = {
            "name": line.name, "form": "", "hand": "", "release": "", "archer": "", "due": 0,
            "changed_at": line.created_at, "unreadable": line.why,
        }  # fmt: skip
    else:
        told = line.summary.model_dump() | {"changed_at": line.changed_at, "unreadable": None}
    return RigNote(
        id=line.id,
        seq=line.seq,
        created_at=line.created_at,
        archived=line.archived_at is not None,
        undoable=line.undoable,
        stop=stop,
        **told,
    )


def _moved(present: Rig) -> Callable[[KeptTrial], list[str]]:
    # Many trials hang on one and the same rig: what moved since is told once for each.
    found: dict[tuple[int, str], list[str]] = {}

    def since(trial: KeptTrial) -> list[str]:
        key = (id(trial.rig), trial.trial.kind)
        if key not in found:
            found[key] = moved_since(trial.trial.grounds, trial.rig, present)
        return found[key]

    return since


# Digests of a rig's entries by their numbers.
Digests = Callable[[int, Iterable[int]], Mapping[int, str]]


def view_of(kept: Kept, digests: Digests) -> RigView:
    """A rig as it stands."""
    present = kept.present

    def told(entry: Entry | None) -> Said | None:
        return None if entry is None else entry_said(entry, kept.spoken_of)

    of_kind: dict[str, list[KeptTrial]] = {}
    for trial in sorted(present.trials, key=lambda t: (t.day, t.seq), reverse=True):
        of_kind.setdefault(trial.trial.kind, []).append(trial)
    shown = [t for trials in of_kind.values() for t in trials[:TRIALS_SHOWN]]
    listed = sorted(shown, key=lambda t: (t.day, t.seq), reverse=True)
    known = digests(kept.id, [kept.seq, *(t.seq for t in listed)])
    return RigView(
        id=kept.id,
        uid=kept.uid,
        seq=kept.seq,
        digest=known[kept.seq],
        rig=present.rig,
        archived=kept.archived_at is not None,
        states=states(present.marks, present.rig),
        undoable=told(present.undoable),
        redoable=told(present.redoable),
        trials=trial_lines(listed, present.rig, known),
        earlier=[kind for kind, trials in of_kind.items() if len(trials) > TRIALS_SHOWN],
        parts=[
            PartOn(slot=slot, mark=p.mark, name=p.part.name, what=described(p.part))
            for slot, p in kept.parts.items()
        ],
        measured=[
            MeasuredBy(
                path=path,
                seq=t.seq,
                day=t.day,
                rig_id=t.rig_id,
                rig=None if t.rig_id is None else t.rig.name,
            )
            for path, t in sources(present.rig, kept.known).items()
        ],
    )


def trial_lines(
    trials: Iterable[KeptTrial], present: Rig, digests: Mapping[int, str]
) -> list[TrialLine]:
    """Trials as they are listed beside a rig as it stands."""
    since = _moved(present)
    return [
        TrialLine(
            seq=t.seq,
            digest=digests[t.seq],
            at=t.at,
            day=t.day,
            station=t.trial.station,
            said=t.trial.said().sentence(),
            trial=t.trial,
            struck=t.struck,
            moved=since(t),
        )
        for t in trials
    ]


def history_of(page: Page) -> list[HistoryLine]:
    """A page of the history, the latest first."""
    return [
        HistoryLine(
            seq=e.seq,
            at=e.at,
            kind=e.kind,
            station=e.station,
            standing=e.standing,
            said=entry_said(e, page.others, page.others.get(page.acts_on.get(e.seq, 0))),
        )
        for e in page.entries
    ]
