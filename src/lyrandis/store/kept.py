"""A rig as it is kept, read from its rows; or what is left to say of one that cannot be read."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any, cast

from pydantic import ValidationError
from sqlalchemy import RowMapping

from lyrandis.core.dates import with_zone
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.history import Entry, Kind, Replay, UnreadEntry, replay, resolve
from lyrandis.core.rig import Rig
from lyrandis.store.loose import Broken

ENTRY_COLUMNS = (
    "seq", "kind", "at", "station", "standing", "why", "changes", "trial", "about",
)  # fmt: skip


@dataclass(frozen=True)
class Kept:
    """A rig as it is kept: its beginning, its history, and what both come to."""

    id: int
    created_at: str
    archived_at: str | None
    base: Rig
    entries: tuple[Entry, ...]
    present: Replay

    @property
    def seq(self) -> int:
        """Number of the latest entry; 0 for a rig nothing was changed on."""
        return self.entries[-1].seq if self.entries else 0


@dataclass(frozen=True)
class Unreadable:
    """A rig that this version cannot read: what is known of it, and why.

    undoable : whether an entry stands that can be taken back
    """

    id: int
    created_at: str
    archived_at: str | None
    name: str
    field: str
    reason: str
    seq: int
    undoable: bool

    @property
    def why(self) -> str:
        """Where it cannot be read, as people count, and why."""
        head, _, rest = self.field.partition(".")
        number = rest.partition(".")[0]
        if head == "entries" and number.isdigit():
            return f"entry {int(number) + 1}: {self.reason}"
        return f"its beginning: {self.reason}" if head == "base" else self.reason


def entry_of(document: Mapping[str, Any]) -> Entry:
    """An entry of its row's columns, or an UnreadEntry where the row cannot be read."""
    broken = next((v for v in document.values() if isinstance(v, Broken)), None)
    try:
        if broken is None:
            return Entry.model_validate(document)
        reason = broken.reason
    except ValidationError as error:
        first = error.errors()[0]
        mended = with_zone(str(document["at"])) if first["loc"] == ("at",) else None
        if mended is not None and mended != document["at"]:
            return entry_of({**document, "at": mended})
        reason = refused(first).reason
    seq = int(document["seq"])
    return UnreadEntry.model_construct(
        seq=seq,
        kind=cast(Kind, document["kind"]),
        at=str(document["at"]),
        station=None,
        standing=None,
        why="",
        changes=(),
        trial=None,
        about=None,
        reason=f"Entry {seq} cannot be read: {reason}",
    )


def _base(value: Any) -> Rig:
    if isinstance(value, Broken):
        raise RefusedError("base", f"What the rig began as cannot be read: {value.reason}.")
    try:
        return Rig.model_validate(value)
    except ValidationError as error:
        first = refused(error.errors()[0])
        raise RefusedError(f"base.{first.field}", first.reason, first.limit, first.unit) from None


def kept_of(row: Any, documents: Iterable[RowMapping]) -> Kept | Unreadable:
    """The rig of its rows; never raises for what stands in them.

    Parameters
    ----------
    row : id, created_at, archived_at and base: what the rig began as
    documents : the columns of its entries, in order
    """
    id, created_at, archived_at, value = row
    entries = tuple(entry_of(dict(d)) for d in documents)
    try:
        base = _base(value)
        present = replay(base, entries)
    except RefusedError as error:
        name = value.get("name") if isinstance(value, dict) else None
        return Unreadable(
            id=id,
            created_at=created_at,
            archived_at=archived_at,
            name=name[:80] if isinstance(name, str) and name.strip() else f"Rig {id}",
            field=error.field,
            reason=error.reason,
            seq=entries[-1].seq if entries else 0,
            undoable=bool(resolve(entries)[0]),
        )
    return Kept(id, created_at, archived_at, base, entries, present)
