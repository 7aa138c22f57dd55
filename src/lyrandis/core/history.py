"""A rig's history: append-only entries from which its present, its undo and its states follow.

Nothing is ever taken out. An undo is an entry too; replaying the list gives the rig as it stands.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, field_notes, known_quantity, value_at
from lyrandis.core.findings import Said, Value
from lyrandis.core.rig import Rig
from lyrandis.core.route import STATIONS, Mark, Standing

Kind = Literal["adjust", "check", "undo", "redo"]


class Change(BaseModel):
    """One setting changed: its dotted path, what it was and what it became."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    path: str = Field(max_length=80)
    before: Any = None
    after: Any = None


class Entry(BaseModel):
    """One line of the history. `at` is an ISO 8601 time in UTC."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    seq: int = Field(ge=1)
    kind: Kind
    at: str = Field(max_length=40)
    station: str | None = None
    standing: Standing | None = None
    why: str = Field(default="", max_length=500)
    changes: tuple[Change, ...] = Field(default=(), max_length=200)


@dataclass(frozen=True)
class Replay:
    """What a history comes to: the rig, the marks of its stations, and what can be undone."""

    rig: Rig
    marks: tuple[Mark, ...]
    undoable: Entry | None
    redoable: Entry | None


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
        elif entry.kind in ("adjust", "check"):
            done.append(entry)
            undone.clear()
    rig, marks = base, []
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
    return Replay(rig, tuple(marks), done[-1] if done else None, undone[-1] if undone else None)


def _shown(value: Any) -> str:
    if value is None or value == "" or value == []:
        return "not set"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return f"{len(value)} {'entry' if len(value) == 1 else 'entries'}"
    return str(value).replace("_", " ")


def _change_said(change: Change, n: int, values: dict[str, Value]) -> str:
    note = field_notes().get(change.path)
    title = note.title if note else change.path
    title = title[0].lower() + title[1:]
    quantity = known_quantity(change.path)
    parts = []
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


def _adjusted(entry: Entry, values: dict[str, Value], offset: int = 0) -> str:
    said = [_change_said(c, i + offset, values) for i, c in enumerate(entry.changes)]
    return "; ".join(said)


def sentences(entries: Sequence[Entry]) -> list[Said]:
    """Each entry as a sentence, in the order given."""
    told: list[Said] = []
    done: list[Entry] = []
    undone: list[Entry] = []
    for entry in entries:
        values: dict[str, Value] = {}
        place = STATIONS[entry.station].title if entry.station in STATIONS else None
        if entry.kind == "undo" and done:
            undone.append(done.pop())
            text = f"Took back: {_adjusted(undone[-1], values) or 'a check'}"
        elif entry.kind == "redo" and undone:
            done.append(undone.pop())
            text = f"Did again: {_adjusted(done[-1], values) or 'a check'}"
        elif entry.kind == "check":
            done.append(entry)
            undone.clear()
            held = "is settled" if entry.standing == "settled" else "holds for now"
            text = f"Checked {place}: it {held}"
        else:
            done.append(entry)
            undone.clear()
            made = _adjusted(entry, values)
            text = f"Set {made}" if made else f"Kept {place} as it was"
        reason = entry.why.replace("{", "(").replace("}", ")").strip().rstrip(".")
        told.append(Said(text=f"{text}{f', because: {reason}' if reason else ''}.", values=values))
    return told
