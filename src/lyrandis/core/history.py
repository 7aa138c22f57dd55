"""A rig's history: append-only entries from which its present, its undo and its states follow.

Nothing is ever taken out. An undo is an entry too; replaying the list gives the rig as it stands.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core.dates import EPOCH, Moment
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, value_at
from lyrandis.core.parts import Rig, Slot
from lyrandis.core.parts.base import PartName
from lyrandis.core.parts.on import Mark as PartMark
from lyrandis.core.route import Mark
from lyrandis.core.stops import Standing, StationId
from lyrandis.core.trials import MEASURED, KeptTrial, Trial, implied_number, trials_in

Kind = Literal["adjust", "check", "trial", "strike", "restore", "undo", "redo"]
ABOUT_ONE: tuple[Kind, ...] = ("strike", "restore")

MOST_ENTRIES = 100_000  # of one rig: ten a day for 27 years


class Change(BaseModel):
    """One setting changed: its dotted path, what it was and what it became."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    path: str = Field(max_length=80)
    before: Any = None
    after: Any = None


class PutOn(BaseModel):
    """A part that came on: where, its mark and what it was called then."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    slot: Slot
    mark: PartMark
    name: PartName


class Entry(BaseModel):
    """One line of the history. `at` is an ISO 8601 time with its offset from UTC.

    A trial may bring changes along, as a draw brings the draw length. `about` is the entry of the
    trial that this one puts right, strikes out or takes in again. `parts` names those that came
    on with its changes. `implied`: a version that logged no trial with a measured setting wrote
    it, and its changes say what was measured.
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
    about: int | None = Field(default=None, ge=-4 * (MOST_ENTRIES + 1), le=MOST_ENTRIES)
    parts: tuple[PutOn, ...] = Field(default=(), max_length=20, fail_fast=True)
    implied: bool = False


class State(NamedTuple):
    """A rig after some entry, and how its stations were last kept or checked."""

    rig: Rig
    marks: tuple[Mark, ...] = ()


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


# What became of an entry: it stands; it was taken back and can be done again; it was taken back
# and something else was done since; or it is itself a taking back or a doing again.
Fate = Literal["stands", "taken_back", "gone", "act"]


@dataclass(frozen=True)
class Fates:
    """What became of each entry, and which entry each undo and redo acted on, by place.

    The entries that stand are in the order of their numbers; so are those taken back, of which
    the first is the next to be done again.
    """

    fate: tuple[Fate, ...]
    acts_on: dict[int, int]

    def places(self, fate: Fate) -> list[int]:
        """The places of the entries of a fate, in order."""
        return [i for i, f in enumerate(self.fate) if f == fate]


def fates(kinds: Iterable[str]) -> Fates:
    """Follow undo and redo through the kinds of entries, in order.

    place    0 adjust   1 adjust   2 undo    3 undo    4 redo    5 adjust
    stands   0          0 1        0         –         0         0 5
    back                           1         0 1       1         – (1 is gone)
    """
    fate: list[Fate] = []
    acts_on: dict[int, int] = {}
    done: list[int] = []
    undone: list[int] = []
    for place, kind in enumerate(kinds):
        if kind == "undo":
            fate.append("act")
            if done:
                acts_on[place] = done.pop()
                undone.append(acts_on[place])
                fate[acts_on[place]] = "taken_back"
        elif kind == "redo":
            fate.append("act")
            if undone:
                acts_on[place] = undone.pop()
                done.append(acts_on[place])
                fate[acts_on[place]] = "stands"
        else:
            fate.append("stands")
            done.append(place)
            for gone in undone:
                fate[gone] = "gone"
            undone.clear()
    return Fates(tuple(fate), acts_on)


def after(state: State, entry: Entry) -> State:
    """A rig and its marks after one more entry that stands.

    Raises
    ------
    RefusedError : an entry that no rig can take, named by its place.
    """
    if isinstance(entry, UnreadEntry):
        raise RefusedError(f"entries.{entry.seq - 1}", entry.reason)
    rig, marks = state
    if entry.changes:
        try:
            rig = changed(rig, {c.path: c.after for c in entry.changes})
        except RefusedError as error:
            raise error.at(f"entries.{entry.seq - 1}.{error.field}") from None
    if entry.station is None or entry.standing is None:
        return State(rig, marks)
    # What is no longer measured was not looked at by keeping what ended it.
    ended = any(c.path in MEASURED and not c.after for c in entry.changes)
    mark = Mark(entry.station, entry.standing, state.rig if ended else rig)
    others = tuple(m for m in marks if not _same_place(m, mark))
    return State(rig, (*others, mark))


def _same_place(one: Mark, other: Mark) -> bool:
    """Whether two marks are of one station with the same string and arrows."""
    a, b = one.rig.on, other.rig.on
    return one.station == other.station and (a.string, a.arrows) == (b.string, b.arrows)


def log_trial(trials: dict[int, KeptTrial], entry: Entry, rig: Rig) -> None:
    """Take an entry's trial in, or what it says of an earlier one.

    Parameters
    ----------
    trials : by the number of the entry that logged them; changed in place
    rig : as it stands right after the entry

    Raises
    ------
    RefusedError : it is about a trial that is not there.
    """
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
    if entry.implied:
        set_then = {change.path: change.after for change in entry.changes}
        trials |= implied_trials(entry.seq, set_then, entry.at, rig)


def implied_trials(seq: int, values: Mapping[str, Any], at: str, rig: Rig) -> dict[int, KeptTrial]:
    """The trials that measured settings amount to where none was logged, by their numbers.

    Parameters
    ----------
    seq : the entry that set them, 0 for what the rig began with
    """
    told = {}
    for path, trial in trials_in(values):
        number = implied_number(seq, path)
        told[number] = KeptTrial(number, at, trial, rig)
    return told


def given(base: Rig, at: str) -> dict[int, KeptTrial]:
    """What was measured on a rig as it began, as trials of the time `at` it was made."""
    return implied_trials(0, {path: value_at(base, path) for path in MEASURED}, at, base)


def replay(base: Rig, entries: Sequence[Entry], made_at: str = EPOCH) -> Replay:
    """Replay entries in order on the rig they began with.

    Parameters
    ----------
    made_at : when the rig was made; what it began with was measured by then

    Raises
    ------
    RefusedError : an entry that no rig can take, named by its place.
    """
    found = fates(e.kind for e in entries)
    done, undone = found.places("stands"), found.places("taken_back")
    state = State(base)
    trials = given(base, made_at)
    for place in done:
        state = after(state, entries[place])
        log_trial(trials, entries[place], state.rig)
    return Replay(
        state.rig,
        state.marks,
        entries[done[-1]] if done else None,
        entries[undone[0]] if undone else None,
        tuple(trials.values()),
    )


def changes_between(rig: Rig, wanted: dict[str, Any]) -> tuple[Change, ...]:
    """The changes that are real: settings whose new value differs from the present one.

    Raises
    ------
    RefusedError : an unknown setting or a value out of range.
    """
    after = changed(rig, wanted)
    values = ((path, value_at(rig, path), value_at(after, path)) for path in wanted)
    return tuple(
        Change(path=path, before=plain_value(was), after=plain_value(now))
        for path, was, now in values
        if was != now
    )


def plain_value(value: Any) -> Any:
    """A value as plain JSON has it."""
    if isinstance(value, BaseModel):
        return value.model_dump(mode="json")
    return [plain_value(v) for v in value] if isinstance(value, tuple) else value
