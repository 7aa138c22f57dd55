"""Rigs kept and read back. Every change is one new entry, in one transaction."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import Engine, delete, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from lyrandis.core.errors import RefusedError
from lyrandis.core.history import Change, Entry, Kind, Replay, changes_between, replay
from lyrandis.core.rig import Rig
from lyrandis.core.route import STATIONS, Standing
from lyrandis.store.tables import EntryRow, PreferenceRow, RigRow


class MissingError(LookupError):
    """No rig has that number."""


class ConflictError(RuntimeError):
    """Someone else kept a change meanwhile."""


class NothingError(RuntimeError):
    """There is nothing to undo or to do again."""


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


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")


def _entry(row: EntryRow) -> Entry:
    return Entry.model_validate(
        {
            "seq": row.seq,
            "kind": row.kind,
            "at": row.at,
            "station": row.station,
            "standing": row.standing,
            "why": row.why,
            "changes": row.changes,
            "trial": row.trial,
            "about": row.about,
        }
    )


def _kept(row: RigRow) -> Kept:
    base = Rig.model_validate(row.base)
    entries = tuple(_entry(e) for e in row.entries)
    return Kept(row.id, row.created_at, row.archived_at, base, entries, replay(base, entries))


class RigStore:
    """The rigs of one data folder."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def all(self) -> list[Kept]:
        """Every rig, the oldest first."""
        with Session(self.engine) as session:
            return [_kept(row) for row in session.scalars(select(RigRow).order_by(RigRow.id))]

    def get(self, id: int) -> Kept:
        """One rig; raises MissingError."""
        with Session(self.engine) as session:
            return _kept(self._row(session, id))

    def _row(self, session: Session, id: int) -> RigRow:
        row = session.get(RigRow, id)
        if row is None:
            raise MissingError(f"There is no rig {id}.")
        return row

    def create(
        self, rig: Rig, entries: Sequence[Entry] = (), created_at: str | None = None
    ) -> Kept:
        """Keep a new rig, with the history it may bring."""
        replay(rig, entries)
        with Session(self.engine) as session, session.begin():
            row = RigRow(base=rig.model_dump(mode="json"), created_at=created_at or _now())
            row.entries = [self._entry_row(e) for e in entries]
            session.add(row)
            session.flush()
            return _kept(row)

    @staticmethod
    def _entry_row(entry: Entry) -> EntryRow:
        document = entry.model_dump(mode="json")
        return EntryRow(**document)

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
        with Session(self.engine) as session:
            row = self._row(session, id)
            kept = _kept(row)
            if kept.seq != seq:
                raise ConflictError(
                    "Someone kept a change to this rig meanwhile. Nothing was overwritten: "
                    "look at what changed, then keep yours again."
                )
            if kind == "undo" and kept.present.undoable is None:
                raise NothingError("There is nothing to take back.")
            if kind == "redo" and kept.present.redoable is None:
                raise NothingError("There is nothing to do again.")
            changes: tuple[Change, ...] = ()
            if wanted:
                changes = changes_between(kept.present.rig, wanted)
            entry = Entry(
                seq=seq + 1,
                kind=kind,
                at=at or _now(),
                station=station,
                standing=standing,
                why=why,
                changes=changes,
                trial=trial,
                about=about,
            )
            replay(kept.base, [*kept.entries, entry])  # refused before it is written
            row.entries.append(self._entry_row(entry))
            try:
                session.commit()
            except IntegrityError:
                session.rollback()
                raise ConflictError("Someone kept a change to this rig meanwhile.") from None
            return _kept(self._row(session, id))

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
        """Take back the latest entry that stands; raises NothingError."""
        return self._append(id, seq, "undo")

    def redo(self, id: int, seq: int) -> Kept:
        """Do again what was taken back last; raises NothingError."""
        return self._append(id, seq, "redo")

    def copy(self, id: int, name: str) -> Kept:
        """A new rig that begins as this one stands, without its history."""
        present = self.get(id).present.rig
        return self.create(Rig.model_validate(present.model_dump() | {"name": name}))

    def archive(self, id: int, away: bool) -> Kept:
        """Put a rig away, or take it out again."""
        with Session(self.engine) as session, session.begin():
            row = self._row(session, id)
            row.archived_at = _now() if away else None
            session.flush()
            return _kept(row)

    def clear(self) -> None:
        """Remove every rig and preference (the demo's reset)."""
        with Session(self.engine) as session, session.begin():
            for table in (EntryRow, RigRow, PreferenceRow):
                session.execute(delete(table))


class PreferenceStore:
    """Preferences by key, as JSON."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine

    def get(self, key: str) -> Any:
        """The value of a preference, or None."""
        with Session(self.engine) as session:
            row = session.get(PreferenceRow, key)
            return None if row is None else row.value

    def put(self, key: str, value: Any) -> None:
        """Set a preference."""
        with Session(self.engine) as session, session.begin():
            session.merge(PreferenceRow(key=key, value=value))
