"""A rig as it is kept, read from its rows; or what is left to say of one that cannot be read."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

from pydantic import ValidationError

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.history import Entry, Kind, Replay, UnreadEntry, replay, resolve
from lyrandis.core.rig import Rig
from lyrandis.store.loose import Broken, plain
from lyrandis.store.tables import EntryRow, RigRow

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


def entry_of(row: EntryRow) -> Entry:
    """An entry, or an UnreadEntry where its row cannot be read."""
    document = {name: getattr(row, name) for name in ENTRY_COLUMNS}
    broken = next((v for v in document.values() if isinstance(v, Broken)), None)
    try:
        if broken is None:
            return Entry.model_validate(document)
        reason = broken.reason
    except ValidationError as error:
        reason = refused(error.errors()[0]).reason
    raw = {name: plain(value) for name, value in document.items()}
    return UnreadEntry.model_construct(
        seq=row.seq,
        kind=cast(Kind, row.kind),
        at=str(row.at),
        station=None,
        standing=None,
        why="",
        changes=(),
        trial=None,
        about=None,
        raw=raw,
        reason=f"Entry {row.seq} cannot be read: {reason}",
    )


def _base(row: RigRow) -> Rig:
    if isinstance(row.base, Broken):
        raise RefusedError("base", f"What the rig began as cannot be read: {row.base.reason}.")
    try:
        return Rig.model_validate(row.base)
    except ValidationError as error:
        first = refused(error.errors()[0])
        raise RefusedError(f"base.{first.field}", first.reason, first.limit, first.unit) from None


def kept_of(row: RigRow) -> Kept | Unreadable:
    """The rig of a row; never raises for what stands in it."""
    entries = [entry_of(e) for e in row.entries]
    try:
        base = _base(row)
        present = replay(base, entries)
    except RefusedError as error:
        return _unreadable(row, entries, error)
    return Kept(row.id, row.created_at, row.archived_at, base, tuple(entries), present)


def _unreadable(row: RigRow, entries: Sequence[Entry], error: RefusedError) -> Unreadable:
    name = row.base.get("name") if isinstance(row.base, dict) else None
    return Unreadable(
        id=row.id,
        created_at=row.created_at,
        archived_at=row.archived_at,
        name=name[:80] if isinstance(name, str) and name.strip() else f"Rig {row.id}",
        field=error.field,
        reason=error.reason,
        seq=row.entries[-1].seq if row.entries else 0,
        undoable=bool(resolve(entries)[0]),
    )
