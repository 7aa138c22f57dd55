"""A rig's history: append-only entries from which its present, its undo and its states follow.

Nothing is ever taken out. An undo is an entry too; replaying the list gives the rig as it stands.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core.dates import Moment
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, value_at
from lyrandis.core.rig import Rig
from lyrandis.core.route import Mark
from lyrandis.core.stops import Standing, StationId
from lyrandis.core.trials import KeptTrial, Trial

Kind = Literal["adjust", "check", "trial", "strike", "restore", "undo", "redo"]
ABOUT_ONE: tuple[Kind, ...] = ("strike", "restore")

MOST_ENTRIES = 100_000  # of one rig: ten a day for 27 years


class Change(BaseModel):
    """One setting changed: its dotted path, what it was and what it became."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    path: str = Field(max_length=80)
    before: Any = None
    after: Any = None


class Entry(BaseModel):
    """One line of the history. `at` is an ISO 8601 time with its offset from UTC.

    A trial may bring changes along, as a draw brings the draw length. `about` is the entry of the
    trial that this one puts right, strikes out or takes in again.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    seq: int = Field(ge=1, le=MOST_ENTRIES)
    kind: Kind
    at: Moment
    station: StationId | None = None
    standing: Standing | None = None
    why: str = Field(default="", max_length=500)
    changes: tuple[Change, ...] = Field(default=(), max_length=200, fail_fast=True)
    trial: Trial | None = None
    about: int | None = Field(default=None, ge=1, le=MOST_ENTRIES)


@dataclass(frozen=True)
class Replay:
    """What a history comes to: the rig, its stations' marks, its trials, what can be undone.

    marks : the latest of each station
    """

    rig: Rig
    marks: tuple[Mark, ...]
    undoable: Entry | None
    redoable: Entry | None
    trials: tuple[KeptTrial, ...] = ()


class UnreadEntry(Entry):
    """An entry that this version cannot read: its number, kind and time, and why not the rest."""

    reason: str


def resolve(entries: Sequence[Entry]) -> tuple[list[Entry], list[Entry]]:
    """The entries that stand, and those taken back that can be done again (the next one last)."""
    done: list[Entry] = []
    undone: list[Entry] = []
    for entry in entries:
        if entry.kind == "undo" and done:
            undone.append(done.pop())
        elif entry.kind == "redo" and undone:
            done.append(undone.pop())
        elif entry.kind not in ("undo", "redo"):
            done.append(entry)
            undone.clear()
    return done, undone


def replay(base: Rig, entries: Sequence[Entry]) -> Replay:
    """Replay entries in order on the rig they began with.

    Raises
    ------
    RefusedError : an entry that no rig can take, named by its place.
    """
    done, undone = resolve(entries)
    rig = base
    marks: dict[str, Mark] = {}
    trials: dict[int, KeptTrial] = {}
    for entry in done:
        if isinstance(entry, UnreadEntry):
            raise RefusedError(f"entries.{entry.seq - 1}", entry.reason)
        if entry.changes:
            try:
                rig = changed(rig, {c.path: c.after for c in entry.changes})
            except RefusedError as error:
                raise RefusedError(
                    f"entries.{entry.seq - 1}.{error.field}", error.reason, error.limit, error.unit
                ) from None
        if entry.station is not None and entry.standing is not None:
            marks[entry.station] = Mark(entry.station, entry.standing, rig)
        _log(trials, entry, rig)
    last, taken = done[-1] if done else None, undone[-1] if undone else None
    return Replay(rig, tuple(marks.values()), last, taken, tuple(trials.values()))


def changes_between(rig: Rig, wanted: dict[str, Any]) -> tuple[Change, ...]:
    """The changes that are real: settings whose new value differs from the present one.

    Raises
    ------
    RefusedError : an unknown setting or a value out of range.
    """
    after = changed(rig, wanted)
    return tuple(
        Change(path=path, before=_plain(value_at(rig, path)), after=_plain(value_at(after, path)))
        for path in wanted
        if value_at(rig, path) != value_at(after, path)
    )


def _plain(value: Any) -> Any:
    return [_plain(v) for v in value] if isinstance(value, tuple) else value


def _log(trials: dict[int, KeptTrial], entry: Entry, rig: Rig) -> None:
    """Take an entry's trial in; raises RefusedError where it is about a trial that is not there."""
    if entry.about is not None and entry.about not in trials:
        raise RefusedError(
            f"entries.{entry.seq - 1}.about", f"Entry {entry.about} holds no trial to change."
        )
    if entry.kind in ABOUT_ONE and entry.about is None:
        raise RefusedError(f"entries.{entry.seq - 1}.about", "It does not say which trial.")
    if entry.about is not None:
        old = trials[entry.about]
        trial = old.trial if entry.trial is None else entry.trial
        struck = entry.kind == "strike" if entry.kind in ABOUT_ONE else old.struck
        trials[entry.about] = replace(old, trial=trial, struck=struck)
    elif entry.trial is not None:
        trials[entry.seq] = KeptTrial(entry.seq, entry.at, entry.trial, rig)
