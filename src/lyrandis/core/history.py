"""A rig's history: append-only entries from which its present, its undo and its states follow.

Nothing is ever taken out. An undo is an entry too; replaying the list gives the rig as it stands.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, field_notes, known_quantity, value_at
from lyrandis.core.findings import Said, Value
from lyrandis.core.rig import Rig
from lyrandis.core.route import STATIONS, Mark, Standing
from lyrandis.core.trials import KeptTrial, Trial, trial_said

Kind = Literal["adjust", "check", "trial", "strike", "restore", "undo", "redo"]
_ABOUT_ONE: tuple[Kind, ...] = ("strike", "restore")


class Change(BaseModel):
    """One setting changed: its dotted path, what it was and what it became."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    path: str = Field(max_length=80)
    before: Any = None
    after: Any = None


class Entry(BaseModel):
    """One line of the history. `at` is an ISO 8601 time in UTC.

    A trial may bring changes along, as a draw brings the draw length. `about` is the entry of the
    trial that this one puts right, strikes out or takes in again.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    seq: int = Field(ge=1)
    kind: Kind
    at: str = Field(max_length=40)
    station: str | None = None
    standing: Standing | None = None
    why: str = Field(default="", max_length=500)
    changes: tuple[Change, ...] = Field(default=(), max_length=200)
    trial: Trial | None = None
    about: int | None = Field(default=None, ge=1)


@dataclass(frozen=True)
class Replay:
    """What a history comes to: the rig, its stations' marks, its trials, what can be undone."""

    rig: Rig
    marks: tuple[Mark, ...]
    undoable: Entry | None
    redoable: Entry | None
    trials: tuple[KeptTrial, ...] = ()


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


def replay(base: Rig, entries: Sequence[Entry]) -> Replay:
    """Replay entries in order on the rig they began with.

    Raises
    ------
    RefusedError : an entry that no rig can take, named by its place.
    """
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
    rig, marks = base, []
    trials: dict[int, KeptTrial] = {}
    for entry in done:
        if entry.changes:
            try:
                rig = changed(rig, {c.path: c.after for c in entry.changes})
            except RefusedError as error:
                raise RefusedError(
                    f"entries.{entry.seq - 1}.{error.field}", error.reason, error.limit, error.unit
                ) from None
        if entry.station is not None and entry.standing is not None:
            marks.append(Mark(entry.station, entry.standing, rig))
        _log(trials, entry, rig)
    last, taken = done[-1] if done else None, undone[-1] if undone else None
    return Replay(rig, tuple(marks), last, taken, tuple(trials.values()))


def _log(trials: dict[int, KeptTrial], entry: Entry, rig: Rig) -> None:
    """Take an entry's trial in; raises RefusedError where it is about a trial that is not there."""
    if entry.about is not None and entry.about not in trials:
        raise RefusedError(
            f"entries.{entry.seq - 1}.about", f"Entry {entry.about} holds no trial to change."
        )
    if entry.kind in _ABOUT_ONE and entry.about is None:
        raise RefusedError(f"entries.{entry.seq - 1}.about", "It does not say which trial.")
    if entry.about is not None:
        old = trials[entry.about]
        trial = old.trial if entry.trial is None else entry.trial
        struck = entry.kind == "strike" if entry.kind in _ABOUT_ONE else old.struck
        trials[entry.about] = replace(old, trial=trial, struck=struck)
    elif entry.trial is not None:
        trials[entry.seq] = KeptTrial(entry.seq, entry.at, entry.trial, rig)


def _shown(value: Any) -> str:
    if value is None or value == "" or value == []:
        return "not set"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return f"{len(value)} {'entry' if len(value) == 1 else 'entries'}"
    return str(value).replace("_", " ")


def _list_change(before: list[Any], after: list[Any]) -> str:
    """What came to a list of words and what went from it; empty for any other list."""
    if not all(isinstance(v, str) for v in [*before, *after]):
        return ""
    came = [v.replace("_", " ") for v in after if v not in before]
    went = [v.replace("_", " ") for v in before if v not in after]
    parts = ["added " + ", ".join(came)] if came else []
    return "; ".join([*parts, "took out " + ", ".join(went)] if went else parts)


def _change_said(change: Change, n: int, values: dict[str, Value]) -> str:
    note = field_notes().get(change.path)
    title = note.title if note else change.path
    title = title[0].lower() + title[1:]
    quantity = known_quantity(change.path)
    parts: list[str] = []
    if isinstance(change.before, list | None) and isinstance(change.after, list | None):
        named = _list_change(change.before or [], change.after or [])
        if named:
            return f"{title}: {named}"
    for name, value in (("before", change.before), ("after", change.after)):
        if quantity and isinstance(value, int | float) and not isinstance(value, bool):
            values[f"{name}{n}"] = Value(value=float(value), quantity=quantity)
            parts.append(f"{{{name}{n}}}")
        else:
            parts.append(_shown(value))
    if change.before in (None, "", []):
        return f"{title} to {parts[1]}"
    if change.after in (None, "", []):
        return f"{title} back to not set (it was {parts[0]})"
    return f"{title} from {parts[0]} to {parts[1]}"


def _adjusted(entry: Entry, values: dict[str, Value]) -> str:
    return "; ".join(_change_said(c, i, values) for i, c in enumerate(entry.changes))


def _made(entry: Entry, values: dict[str, Value], about: dict[int, Entry]) -> str:
    """What an entry did, as it would be taken back or done again."""
    parts = []
    trial = entry.trial
    if trial is None and entry.about in about:
        trial = about[entry.about].trial
    if trial is not None:
        said = trial_said(trial)
        values |= said.values
        word = {"strike": "struck out ", "restore": "took in again "}.get(entry.kind, "")
        put = "put right: " if entry.kind == "trial" and entry.about is not None else ""
        parts.append(f"{put}{word}{said.text}")
    made = _adjusted(entry, values)
    if made:
        parts.append(made)
    return "; ".join(parts)


def sentences(entries: Sequence[Entry]) -> list[Said]:
    """Each entry as a sentence, in the order given."""
    told: list[Said] = []
    done: list[Entry] = []
    undone: list[Entry] = []
    logged = {e.seq: e for e in entries if e.trial is not None}
    for entry in entries:
        values: dict[str, Value] = {}
        place = STATIONS[entry.station].title if entry.station in STATIONS else None
        if entry.kind == "undo" and done:
            undone.append(done.pop())
            text = f"Took back: {_made(undone[-1], values, logged) or 'a check'}"
        elif entry.kind == "redo" and undone:
            done.append(undone.pop())
            text = f"Did again: {_made(done[-1], values, logged) or 'a check'}"
        elif entry.kind == "check":
            done.append(entry)
            undone.clear()
            held = "is settled" if entry.standing == "settled" else "holds for now"
            text = f"Checked {place}: it {held}"
        elif entry.kind in ("trial", *_ABOUT_ONE):
            done.append(entry)
            undone.clear()
            made = _made(entry, values, logged)
            text = made[:1].upper() + made[1:]
        else:
            done.append(entry)
            undone.clear()
            made = _adjusted(entry, values)
            text = f"Set {made}" if made else f"Kept {place} as it was"
        reason = entry.why.replace("{", "(").replace("}", ")").strip().rstrip(".")
        told.append(Said(text=f"{text}{f', because: {reason}' if reason else ''}.", values=values))
    return told
