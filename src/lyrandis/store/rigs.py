"""Rigs kept and read back. Every change is one new entry, in one transaction."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Connection, Engine, delete, func, insert, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from lyrandis.core.errors import RefusedError
from lyrandis.core.history import MOST_ENTRIES, Change, Entry, Kind, UnreadEntry, changes_between
from lyrandis.core.parts import Rig
from lyrandis.core.route import STATIONS
from lyrandis.core.stops import Standing
from lyrandis.core.trials import KeptTrial
from lyrandis.store import pages
from lyrandis.store.database import writing
from lyrandis.store.derived import Derived, derive, follow, make_anew, write
from lyrandis.store.kept import Kept, Listed, Unreadable
from lyrandis.store.loose import Broken
from lyrandis.store.present import Stale, listed, present
from lyrandis.store.tables import EntryRow, PreferenceRow, RigRow

ROWS_AT_ONCE = 500


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


# Asked before a change is final, with the rig as it would be kept, as it is (None: a new one), and
# the entries that lead from one to the other; it raises RefusedError where the rig could not be
# shown.
Check = Callable[[Kept, Kept | None, Sequence[Entry]], None]


def _unchecked(_: Kept, __: Kept | None, ___: Sequence[Entry]) -> None:
    """Keep whatever replays."""


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _meanwhile() -> ConflictError:
    return ConflictError(
        "Someone kept a change to this rig meanwhile. Nothing was overwritten: "
        "look at what changed, then keep yours on top, or take theirs."
    )


def _undo_of(rig: Unreadable, seq: int, at: str) -> Entry:
    """The entry that takes back the latest one of a rig that cannot be read."""
    if rig.seq != seq:
        raise _meanwhile()
    if not rig.undoable:
        raise NothingError("There is nothing to take back.")
    return Entry(seq=seq + 1, kind="undo", at=at)


class RigStore:
    """The rigs of one data folder.

    Parameters
    ----------
    check : asked before every write is final; by default whatever replays is kept
    """

    def __init__(self, engine: Engine, check: Check = _unchecked) -> None:
        self.engine = engine
        self.may_keep = check

    def lines(self, of: int | None = None) -> list[Listed | Unreadable]:
        """The line of every rig (or of one), the oldest first, without opening it.

        Some say why they cannot be opened.
        """
        with self.engine.connect() as connection:
            lines, stale = listed(connection, of)
        for id in stale:
            self._derive_again(id)
        if stale:
            with self.engine.connect() as connection:
                lines, _ = listed(connection, of)
        return lines

    def all(self) -> list[Kept | Unreadable]:
        """Every rig, the oldest first; those that cannot be read say so."""
        with self.engine.connect() as connection:
            ids = connection.execute(select(RigRow.id).order_by(RigRow.id)).scalars().all()
        return [self.either(id) for id in ids]

    def either(self, id: int) -> Kept | Unreadable:
        """One rig, readable or not; raises MissingError."""
        try:
            with self.engine.connect() as connection:
                found = present(connection, id)
        except Stale:
            self._derive_again(id)
            with self.engine.connect() as connection:
                found = present(connection, id)
        if found is None:
            raise MissingError(f"There is no rig {id}.")
        return found

    def _derive_again(self, id: int) -> None:
        with writing(self.engine) as connection:
            make_anew(connection, id)

    def get(self, id: int) -> Kept:
        """One rig; raises MissingError or UnreadableError."""
        kept = self.either(id)
        if isinstance(kept, Unreadable):
            raise UnreadableError(kept)
        return kept

    def _refuse_unreadable(self, id: int) -> None:
        """Raises MissingError or UnreadableError, without opening the rig."""
        found = self.lines(id)
        if not found:
            raise MissingError(f"There is no rig {id}.")
        if isinstance(found[0], Unreadable):
            raise UnreadableError(found[0])

    def page(self, id: int, before: int | None, since: int, most: int) -> pages.Page:
        """A page of a rig's history, the latest first; see pages.history."""
        self._refuse_unreadable(id)
        with self.engine.connect() as connection:
            return pages.history(connection, id, before, since, most)

    def trials(self, id: int, kind: str, after: int | None, most: int | None) -> list[KeptTrial]:
        """Trials of a kind as they stand, the latest day first; see pages.trials."""
        self._refuse_unreadable(id)
        with self.engine.connect() as connection:
            return pages.trials(connection, id, kind, after, most)

    def entries(self, id: int) -> Iterator[Entry]:
        """A rig's whole history, a few rows at a time."""
        with self.engine.connect() as connection:
            yield from pages.entries(connection, id)

    def create(
        self, rig: Rig, entries: Sequence[Entry] = (), created_at: str | None = None
    ) -> Kept:
        """Keep a new rig, with the history it may bring."""
        at = created_at or _now()
        derived = derive(rig, [(e.seq, e.kind) for e in entries], entries)
        if isinstance(derived.read, RefusedError):
            raise derived.read
        with writing(self.engine) as connection:
            id = self._insert(connection, rig.model_dump(mode="json"), at, entries, derived)
            made = present(connection, id)
            assert isinstance(made, Kept)
            self.may_keep(made, None, entries)
            return made

    def _insert(
        self,
        connection: Connection,
        base: dict[str, Any],
        created_at: str,
        entries: Iterable[Entry],
        derived: Derived | None,
    ) -> int:
        made = connection.execute(
            insert(RigRow).values(base=base, created_at=created_at).returning(RigRow.id)
        )
        id = int(made.scalar_one())
        rows: list[dict[str, Any]] = []
        latest = created_at
        for entry in entries:
            rows.append(entry.model_dump(mode="json") | {"rig_id": id})
            latest = entry.at
            if len(rows) == ROWS_AT_ONCE:
                connection.execute(insert(EntryRow), rows)
                rows.clear()
        if rows:
            connection.execute(insert(EntryRow), rows)
        if derived is not None:
            write(connection, id, derived, latest)
        return id

    def add(self, base: dict[str, Any], created_at: str, entries: Iterable[Entry]) -> int:
        """Write a rig that was checked, in one transaction; its number.

        What follows from its history is made when it is first looked at.
        """
        with writing(self.engine) as connection:
            return self._insert(connection, base, created_at, entries, None)

    def documents(self, id: int) -> tuple[str, pages.Documents]:
        """A rig's rows as they are, also of a rig that cannot be read, and its name for the file.

        The entries come a few at a time, up to the latest at the time of asking.
        """
        kept = self.either(id)
        name = kept.name if isinstance(kept, Unreadable) else kept.present.rig.name
        return name, pages.documents(self.engine, id)

    def _write(
        self, kept: Kept | Unreadable, entry: Entry, check: Callable[[Connection], None]
    ) -> None:
        """Write one entry and what follows from it, if it is still the next one."""
        latest = select(func.max(EntryRow.seq)).where(EntryRow.rig_id == kept.id)
        try:
            with writing(self.engine) as connection:
                if (connection.execute(latest).scalar() or 0) != entry.seq - 1:
                    raise _meanwhile()
                if isinstance(kept, Unreadable) or isinstance(kept.present.undoable, UnreadEntry):
                    row = entry.model_dump(mode="json") | {"rig_id": kept.id}
                    connection.execute(insert(EntryRow), row)
                    make_anew(connection, kept.id)
                else:
                    follow(connection, kept, entry)
                check(connection)
        except IntegrityError:
            raise _meanwhile() from None

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
            raise _meanwhile()
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
        made: list[Kept] = []

        def check(connection: Connection) -> None:
            now = present(connection, id)
            if isinstance(now, Unreadable):  # taken back, and what lies under it is damaged too
                raise UnreadableError(now)
            assert now is not None
            self.may_keep(now, kept, (entry,))  # refused before it is final
            made.append(now)

        self._write(kept, entry, check)
        return made[0]

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
        with self.engine.connect() as connection:
            station = pages.station_of(connection, id, about)
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
            self._write(kept, _undo_of(kept, seq, _now()), lambda _: None)
            return self.get(id)
        return self._append(id, seq, "undo")

    def redo(self, id: int, seq: int) -> Kept:
        """Do again what was taken back last; raises NothingError."""
        return self._append(id, seq, "redo")

    def copy(self, id: int, name: str) -> Kept:
        """A new rig that begins as this one stands, without its history."""
        present = self.get(id).present.rig
        return self.create(Rig.model_validate(present.model_dump() | {"name": name}))

    def archive(self, id: int, away: bool) -> Listed | Unreadable:
        """Put a rig away, or take it out again, readable or not; its line in the list."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(RigRow, id)
            if row is None:
                raise MissingError(f"There is no rig {id}.")
            row.archived_at = _now() if away else None
        return self.lines(id)[0]

    def clear(self) -> None:
        """Remove every rig and preference (the demo's reset)."""
        with writing(self.engine) as connection:
            for table in (RigRow, PreferenceRow):  # the rest goes with its rig
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

    def change(self, key: str, to: Callable[[Any], Any]) -> Any:
        """Set a preference to what `to` makes of its present value, nobody else between."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(PreferenceRow, key)
            value = to(None if row is None or isinstance(row.value, Broken) else row.value)
            session.merge(PreferenceRow(key=key, value=value))
        return value

    def put(self, key: str, value: Any) -> None:
        """Set a preference."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            session.merge(PreferenceRow(key=key, value=value))
