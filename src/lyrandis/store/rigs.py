"""Rigs kept and read back. Every change is one new entry, in one transaction."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Connection, Engine, RowMapping, Text, delete, func, insert, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from lyrandis.core.errors import RefusedError
from lyrandis.core.history import MOST_ENTRIES, Change, Entry, Kind, changes_between, replay
from lyrandis.core.rig import Rig
from lyrandis.core.route import STATIONS
from lyrandis.core.stops import Standing
from lyrandis.store.database import writing
from lyrandis.store.kept import ENTRY_COLUMNS, Kept, Unreadable, kept_of
from lyrandis.store.loose import Broken, plain
from lyrandis.store.tables import EntryRow, PreferenceRow, RigRow

ROWS_AT_ONCE = 500
_RIG = select(RigRow.id, RigRow.created_at, RigRow.archived_at, RigRow.base)
_ENTRY = select(*(getattr(EntryRow, name) for name in ENTRY_COLUMNS))


class MissingError(LookupError):
    """No rig has that number."""


class UnreadableError(LookupError):
    """The rig is there, and this version cannot read it."""

    def __init__(self, rig: Unreadable) -> None:
        super().__init__(rig.reason)
        self.rig = rig


class ConflictError(RuntimeError):
    """Someone else kept a change meanwhile."""


class NothingError(RuntimeError):
    """There is nothing to undo or to do again."""


# Asked before a change is written, with the rig as it would be kept and as it is (None: a new
# one); it raises RefusedError where the rig could not be shown.
Check = Callable[[Kept, Kept | None], None]


def _unchecked(_: Kept, __: Kept | None) -> None:
    """Keep whatever replays."""


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _undo_of(rig: Unreadable, seq: int, at: str) -> Entry:
    """The entry that takes back the latest one of a rig that cannot be read."""
    if rig.seq != seq:
        raise ConflictError("Someone kept a change to this rig meanwhile.")
    if not rig.undoable:
        raise NothingError("There is nothing to take back.")
    return Entry(seq=seq + 1, kind="undo", at=at)


class RigStore:
    """The rigs of one data folder.

    Parameters
    ----------
    check : asked before every write; by default whatever replays is kept
    """

    def __init__(self, engine: Engine, check: Check = _unchecked) -> None:
        self.engine = engine
        self.may_keep = check

    def all(self) -> list[Kept | Unreadable]:
        """Every rig, the oldest first; those that cannot be read say so."""
        with self.engine.connect() as connection:
            rows = connection.execute(_RIG.order_by(RigRow.id)).all()
            return [kept_of(row, self._entries(connection, row.id)) for row in rows]

    def either(self, id: int) -> Kept | Unreadable:
        """One rig, readable or not; raises MissingError."""
        with self.engine.connect() as connection:
            row = self._row(connection, id)
            return kept_of(row, self._entries(connection, id))

    @staticmethod
    def _row(connection: Connection, id: int) -> Any:
        row = connection.execute(_RIG.where(RigRow.id == id)).one_or_none()
        if row is None:
            raise MissingError(f"There is no rig {id}.")
        return row

    @staticmethod
    def _entries(connection: Connection, id: int) -> Iterator[RowMapping]:
        """A rig's entries as they are, without holding all their rows at once."""
        ordered = _ENTRY.where(EntryRow.rig_id == id).order_by(EntryRow.seq)
        yield from connection.execute(ordered).mappings().yield_per(ROWS_AT_ONCE)

    def get(self, id: int) -> Kept:
        """One rig; raises MissingError or UnreadableError."""
        kept = self.either(id)
        if isinstance(kept, Unreadable):
            raise UnreadableError(kept)
        return kept

    def create(
        self, rig: Rig, entries: Sequence[Entry] = (), created_at: str | None = None
    ) -> Kept:
        """Keep a new rig, with the history it may bring."""
        at = created_at or _now()
        made = Kept(0, at, None, rig, tuple(entries), replay(rig, entries))
        self.may_keep(made, None)
        return replace(made, id=self.add(rig.model_dump(mode="json"), at, entries))

    def add(self, base: dict[str, Any], created_at: str, entries: Iterable[Entry]) -> int:
        """Write a rig that was checked, in one transaction; its number."""
        with writing(self.engine) as connection:
            made = connection.execute(
                insert(RigRow).values(base=base, created_at=created_at).returning(RigRow.id)
            )
            id = int(made.scalar_one())
            rows: list[dict[str, Any]] = []
            for entry in entries:
                rows.append(entry.model_dump(mode="json") | {"rig_id": id})
                if len(rows) == ROWS_AT_ONCE:
                    connection.execute(insert(EntryRow), rows)
                    rows.clear()
            if rows:
                connection.execute(insert(EntryRow), rows)
            return id

    def documents(self, id: int) -> tuple[str, str, Any, Iterator[dict[str, Any]]]:
        """A rig's rows as they are, also of a rig that cannot be read.

        Returns
        -------
        Its name (as last set, for the file's), when it was made, its beginning, and its entries,
        a few at a time, up to the latest at the time of asking.
        """
        mine = EntryRow.rig_id == id
        named = EntryRow.changes.cast(Text).contains('"path": "name"')
        with self.engine.connect() as connection:
            row = self._row(connection, id)
            newest = connection.execute(select(func.max(EntryRow.seq)).where(mine)).scalar() or 0
            latest = select(EntryRow.changes).where(mine, named).order_by(EntryRow.seq.desc())
            changes = connection.execute(latest.limit(1)).scalar()
        names = [row.base.get("name")] if isinstance(row.base, dict) else []
        if isinstance(changes, list):
            names += [c.get("after") for c in changes if c.get("path") == "name"]
        name = str(names[-1]) if names else f"Rig {id}"
        return name, row.created_at, plain(row.base), self._documents(id, newest)

    def _documents(self, id: int, newest: int) -> Iterator[dict[str, Any]]:
        mine = _ENTRY.where(EntryRow.rig_id == id, EntryRow.seq <= newest).order_by(EntryRow.seq)
        last = 0
        while last < newest:
            with self.engine.connect() as connection:
                some = mine.where(EntryRow.seq > last).limit(ROWS_AT_ONCE)
                rows = connection.execute(some).mappings().all()
            if not rows:
                return
            for row in rows:
                yield {name: plain(value) for name, value in row.items()}
            last = rows[-1]["seq"]

    def _write(self, id: int, entry: Entry) -> None:
        """Write one entry, if it is still the next one."""
        latest = select(func.max(EntryRow.seq)).where(EntryRow.rig_id == id)
        meanwhile = ConflictError(
            "Someone kept a change to this rig meanwhile. Nothing was overwritten: "
            "look at what changed, then keep yours again."
        )
        try:
            with writing(self.engine) as connection:
                if (connection.execute(latest).scalar() or 0) != entry.seq - 1:
                    raise meanwhile
                row = entry.model_dump(mode="json") | {"rig_id": id}
                connection.execute(insert(EntryRow), row)
        except IntegrityError:
            raise meanwhile from None

    def _append(
        self,
        id: int,
        seq: int,
        kind: Kind,
        station: str | None = None,
        standing: Standing | None = None,
        why: str = "",
        wanted: dict[str, Any] | None = None,
        at: str | None = None,
        trial: Any = None,
        about: int | None = None,
    ) -> Kept:
        kept = self.get(id)
        if kept.seq != seq:
            raise ConflictError(
                "Someone kept a change to this rig meanwhile. Nothing was overwritten: "
                "look at what changed, then keep yours again."
            )
        if seq >= MOST_ENTRIES:
            raise RefusedError(
                "seq",
                "This rig's history is full. Copy the rig: the copy begins as this one stands.",
                MOST_ENTRIES,
                "entries",
            )
        if kind == "undo" and kept.present.undoable is None:
            raise NothingError("There is nothing to take back.")
        if kind == "redo" and kept.present.redoable is None:
            raise NothingError("There is nothing to do again.")
        changes: tuple[Change, ...] = ()
        if wanted:
            changes = changes_between(kept.present.rig, wanted)
        entry = Entry.model_validate(
            {
                "seq": seq + 1,
                "kind": kind,
                "at": at or _now(),
                "station": station,
                "standing": standing,
                "why": why,
                "changes": changes,
                "trial": trial,
                "about": about,
            }
        )
        entries = (*kept.entries, entry)
        made = Kept(
            id, kept.created_at, kept.archived_at, kept.base, entries, replay(kept.base, entries)
        )
        self.may_keep(made, kept)  # refused before it is written
        self._write(id, entry)
        return made

    def keep(
        self,
        id: int,
        seq: int,
        wanted: dict[str, Any],
        station: str | None = None,
        standing: Standing = "provisional",
        why: str = "",
        at: str | None = None,
        trial: Any = None,
        about: int | None = None,
    ) -> Kept:
        """Keep settings at a station, log a trial there, or both at once.

        Parameters
        ----------
        seq : the latest entry the caller has seen
        wanted : dotted path to new value
        station : where it was kept; None for what belongs to no station (name, notes)
        trial : one of core.trials.Trial, or None
        about : the entry whose trial this one puts right

        Raises
        ------
        MissingError, ConflictError, RefusedError
        """
        if station is not None and station not in STATIONS:
            raise RefusedError("station", f"“{station}” is not a station.")
        # A trial alone says nothing of how the station stands.
        stands = station is not None and (trial is None or bool(wanted))
        kind: Kind = "adjust" if trial is None else "trial"
        return self._append(
            id, seq, kind, station, standing if stands else None, why, wanted, at, trial, about
        )

    def strike(self, id: int, seq: int, about: int, out: bool, why: str = "") -> Kept:
        """Strike a trial out, or take it in again; it stays in the history either way."""
        station = next((e.station for e in self.get(id).entries if e.seq == about), None)
        kind: Kind = "strike" if out else "restore"
        return self._append(id, seq, kind, station, None, why, about=about)

    def check(
        self,
        id: int,
        seq: int,
        station: str,
        standing: Standing,
        why: str = "",
        at: str | None = None,
    ) -> Kept:
        """Say of a station that it still holds, or is settled, without changing anything."""
        if station not in STATIONS:
            raise RefusedError("station", f"“{station}” is not a station.")
        return self._append(id, seq, "check", station, standing, why, None, at)

    def undo(self, id: int, seq: int) -> Kept:
        """Take back the latest entry that stands; raises NothingError.

        A rig that cannot be read is taken back too: what cannot be read may be what goes.
        """
        kept = self.either(id)
        if isinstance(kept, Unreadable):
            self._write(id, _undo_of(kept, seq, _now()))
            return self.get(id)
        return self._append(id, seq, "undo")

    def redo(self, id: int, seq: int) -> Kept:
        """Do again what was taken back last; raises NothingError."""
        return self._append(id, seq, "redo")

    def copy(self, id: int, name: str) -> Kept:
        """A new rig that begins as this one stands, without its history."""
        present = self.get(id).present.rig
        return self.create(Rig.model_validate(present.model_dump() | {"name": name}))

    def archive(self, id: int, away: bool) -> Kept | Unreadable:
        """Put a rig away, or take it out again; readable or not."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(RigRow, id)
            if row is None:
                raise MissingError(f"There is no rig {id}.")
            row.archived_at = _now() if away else None
        return self.either(id)

    def clear(self) -> None:
        """Remove every rig and preference (the demo's reset)."""
        with writing(self.engine) as connection:
            for table in (EntryRow, RigRow, PreferenceRow):
                connection.execute(delete(table))


class PreferenceStore:
    """Preferences by key, as JSON."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def get(self, key: str) -> Any:
        """The value of a preference, or None."""
        with Session(self.engine) as session:
            row = session.get(PreferenceRow, key)
            return None if row is None or isinstance(row.value, Broken) else row.value

    def put(self, key: str, value: Any) -> None:
        """Set a preference."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            session.merge(PreferenceRow(key=key, value=value))
