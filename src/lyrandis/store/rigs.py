"""Rigs kept and read back. Every change is one new entry, in one transaction."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from typing import Any

from sqlalchemy import Connection, Engine, delete, func, insert, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, is_on
from lyrandis.core.fit.put_on import fitted
from lyrandis.core.history import (
    MOST_ENTRIES,
    Change,
    Entry,
    Kind,
    PutOn,
    UnreadEntry,
    changes_between,
    plain_value,
)
from lyrandis.core.measured import untrue
from lyrandis.core.parts import Part, Rig, Slot
from lyrandis.core.route import STATION_OF_SLOT, STATIONS, states
from lyrandis.core.stops import Standing
from lyrandis.core.trials import MEASURED, KeptTrial
from lyrandis.store import digests, pages, past, rack, together
from lyrandis.store.database import writing
from lyrandis.store.derived import Derived, derive, follow, make_anew, write
from lyrandis.store.errors import ConflictError, MissingError, NothingError, UnreadableError
from lyrandis.store.kept import Kept, Listed, Unreadable
from lyrandis.store.measuring import as_measured, asked_of, trial_shown
from lyrandis.store.part_store import PartStore, now_utc
from lyrandis.store.present import Stale, listed, present
from lyrandis.store.tables import EntryRow, PartRow, PreferenceRow, RigRow, SnapshotRow

ROWS_AT_ONCE = 500
# What no write leaves as it was.
_WRITTEN = (
    select(func.max(EntryRow.id), func.count(SnapshotRow.rig_id), func.sum(SnapshotRow.seq))
    .select_from(SnapshotRow)
    .outerjoin(
        EntryRow, (EntryRow.rig_id == SnapshotRow.rig_id) & (EntryRow.seq == SnapshotRow.seq)
    )
    .add_columns(select(func.sum(PartRow.seq)).scalar_subquery())
)


# Asked before a change is final, with the rig as it would be kept, as it is (None: a new one), and
# the entries that lead from one to the other; it raises RefusedError where the rig could not be
# shown.
Check = Callable[[Kept, Kept | None, Sequence[Entry]], None]


# What else is written with an entry, in the same transaction.
Along = Callable[[Connection], None]


def nothing(_: Connection) -> None:
    """Nothing else."""


def _unchecked(_: Kept, __: Kept | None, ___: Sequence[Entry]) -> None:
    """Keep whatever replays."""


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
    new_mark : gives the mark of a new part
    """

    def __init__(
        self, engine: Engine, check: Check = _unchecked, new_mark: rack.NewMark = rack.random_mark
    ) -> None:
        self.engine = engine
        self.may_keep = check
        self.rack = PartStore(engine, lambda kept: check(kept, None, ()), new_mark)
        self._seen: tuple[object, dict[int, Kept | Unreadable]] = (None, {})

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
            together.made_anew(connection, id, now_utc())

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

    def days(self, id: int) -> list[past.DayEntered]:
        """The days on which something was entered, the latest first; raises MissingError."""
        self.either(id)
        with self.engine.connect() as connection:
            return past.days(connection, id)

    def as_of(self, id: int, seq: int) -> Kept:
        """A rig as it stood after entry `seq`; raises MissingError."""
        kept = self.get(id)
        with self.engine.connect() as connection:
            return past.as_of(connection, kept, seq)

    def digests(self, id: int, seqs: Iterable[int]) -> dict[int, str]:
        """Digests of a rig's entries by their numbers; see store.digests."""
        with self.engine.connect() as connection:
            return digests.of_rig(connection, id, seqs)

    def entries(self, id: int) -> Iterator[Entry]:
        """A rig's whole history, a few rows at a time."""
        with self.engine.connect() as connection:
            yield from pages.entries(connection, id)

    def create(
        self,
        rig: Rig,
        entries: Sequence[Entry] = (),
        created_at: str | None = None,
        brought: Mapping[str, Part] | None = None,
        along: Along = nothing,
        uid: str | None = None,
    ) -> Kept:
        """Keep a new rig, with the history and the parts it may bring.

        Parameters
        ----------
        uid : its own from elsewhere, kept unless a rig here has it already
        brought : parts by their marks, out of a rig's file: those that are known here are taken
            as they are here; None for a rig that is written anew
        along : what else belongs to the same act
        """
        at = created_at or now_utc()
        heads = [(e.seq, e.kind) for e in entries]
        derived = derive(rig, heads, entries, at)
        if isinstance(derived.read, RefusedError):
            raise derived.read
        with writing(self.engine) as connection:
            known = rack.parts(connection, brought or {})
            for mark, part in (brought or {}).items():
                if mark not in known:
                    rack.make(connection, mark, part, at)
            now = derived.read.state.rig
            if brought is None or rack.unknown_slots(connection, now):
                on = rack.filled(connection, rig, now, at, self.rack.new_mark, brought is not None)
                rig = rig.model_copy(update={"on": on})
                derived = derive(rig, heads, entries, at)
            id = self._insert(connection, rig.model_dump(mode="json"), at, entries, derived, uid)
            made = together.refreshed(connection, id, now_utc())
            along(connection)
            self.may_keep(made, None, entries)
            return made

    def _insert(
        self,
        connection: Connection,
        base: dict[str, Any],
        created_at: str,
        entries: Iterable[Entry],
        derived: Derived | None,
        uid: str | None = None,
    ) -> int:
        known = connection.execute(select(RigRow.id).where(RigRow.uid == uid)).first()
        if uid is None or known is not None:
            uid = self.rack.new_mark()
        row = {"uid": uid, "base": base, "created_at": created_at}
        made = connection.execute(insert(RigRow).values(**row).returning(RigRow.id))
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
        self,
        kept: Kept | Unreadable,
        entry: Entry,
        check: Callable[[Connection], None],
        before: Along = nothing,
    ) -> None:
        """Write one entry and what follows from it, if it is still the next one."""
        latest = select(func.max(EntryRow.seq)).where(EntryRow.rig_id == kept.id)
        try:
            with writing(self.engine) as connection:
                if (connection.execute(latest).scalar() or 0) != entry.seq - 1:
                    raise _meanwhile()
                before(connection)
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
        put_on: Sequence[PutOn] = (),
        prepare: Along = nothing,
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
        built: tuple[together.Made, ...] = ()
        if wanted:
            built = together.other_build(kept.present.rig, wanted, self.rack.new_mark)
            put_on = (*put_on, *(made.put_on for made in built))
            wanted = wanted | together.slots_for(built)
        made_at = at or now_utc()
        draft = {"seq": seq + 1, "kind": kind, "at": made_at, "trial": trial, "about": about}
        if kind not in ("undo", "redo"):
            wanted = as_measured(self.engine, kept, Entry.model_validate(draft), wanted or {})
            changes = changes_between(kept.present.rig, wanted)
        entry = Entry.model_validate(
            {
                "seq": seq + 1,
                "kind": kind,
                "at": made_at,
                "station": station,
                "standing": standing,
                "why": why,
                "changes": changes,
                "trial": trial,
                "about": about,
                "parts": put_on,
            }
        )
        made: list[Kept] = []

        def before(connection: Connection) -> None:
            prepare(connection)
            for part in built:
                rack.make(connection, part.put_on.mark, part.part, made_at)

        def check(connection: Connection) -> None:
            now = present(connection, id)
            if isinstance(now, Unreadable):  # taken back, and what lies under it is damaged too
                raise UnreadableError(now)
            assert now is not None
            now, reached = together.settle(connection, kept, now, made_at)
            self.may_keep(now, kept, (entry,))  # refused before it is final
            for other in reached:
                self.may_keep(other, None, ())
            made.append(now)

        self._write(kept, entry, check, before)
        return made[0]

    def put_on(
        self,
        id: int,
        seq: int,
        slot: Slot,
        mark: str | None = None,
        new: Part | None = None,
        why: str = "",
        at: str | None = None,
        along: Along = nothing,
    ) -> Kept:
        """Put another part on a rig, from the rack or new: one entry of its history.

        Raises
        ------
        RefusedError : no such part, of another kind, condemned, or lent to somebody.
        """
        rig = self.get(id).present.rig
        if new is None:
            mark = mark or ""
            part = self.rack.get(mark).part
            together.refuse_away(part)
        else:
            part, mark = new, self.rack.new_mark()

        def prepare(connection: Connection) -> None:
            along(connection)
            if new is not None:
                rack.make(connection, mark, new, at or now_utc())

        return self._append(
            id,
            seq,
            "adjust",
            STATION_OF_SLOT[slot],
            why=why,
            wanted=fitted(rig, slot, part, mark),
            at=at,
            put_on=(PutOn(slot=slot, mark=mark, name=part.name),),
            prepare=prepare,
        )

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
        stands: bool | None = None,
        along: Along = nothing,
    ) -> Kept:
        """Keep settings at a station, log a trial there, or both at once.

        Parameters
        ----------
        seq : the latest entry the caller has seen
        wanted : dotted path to new value
        station : where it was kept; None for what belongs to no station (name, notes)
        trial : one of core.trials.Trial, or None
        about : the entry whose trial this one puts right
        stands : whether the station stands as `standing` says; where not said, unless it is a
            trial alone
        along : what else belongs to the same act

        Raises
        ------
        MissingError, ConflictError, RefusedError
        """
        if station is not None and station not in STATIONS:
            raise RefusedError("station", f"“{station}” is not a station.")
        typed = next((path for path in wanted if is_on(path)), None)
        if typed is not None:
            raise RefusedError(typed, "Parts are put on by name, not typed as settings.")
        if MEASURED.keys() & wanted.keys():
            return self._keep_measured(
                id, seq, wanted, station, standing, why, at, trial, about, along
            )
        if stands is None:  # a trial alone says nothing of how the station stands
            stands = trial is None or bool(wanted)
        stands = stands and station is not None
        kind: Kind = "adjust" if trial is None else "trial"
        stood = standing if stands else None
        return self._append(
            id, seq, kind, station, stood, why, wanted, at, trial, about, prepare=along
        )

    def _keep_measured(
        self,
        id: int,
        seq: int,
        wanted: dict[str, Any],
        station: str | None,
        standing: Standing,
        why: str,
        at: str | None,
        trial: Any,
        about: int | None,
        along: Along,
    ) -> Kept:
        """Keep settings of which some are measured: each of these is a trial, or strikes one out.

        One entry holds one trial: what else was measured follows in entries of its own.
        """
        rig = self.get(id).present.rig
        changed(rig, wanted)  # refused in the rig's own words
        asked = asked_of(rig, wanted, trial)
        if asked.trials or asked.plain or not asked.cleared:
            first, *others = asked.trials or (None,)
            kept = self.keep(
                id, seq, asked.plain, station, standing, why, at, first, about, True, along
            )
            for other in others:
                kept = self.keep(id, kept.seq, {}, other.station, standing, why, at, other)
        else:
            kept = self.get(id)
            if kept.seq != seq:
                raise _meanwhile()
        for path in asked.cleared:
            shown = trial_shown(kept, path)
            if shown is not None:
                kept = self.strike(kept.id, kept.seq, shown, True, why)
        return kept

    def strike(
        self,
        id: int,
        seq: int,
        about: int,
        out: bool,
        why: str = "",
        along: Along = nothing,
    ) -> Kept:
        """Strike a trial out, or take it in again; it stays in the history either way."""
        with self.engine.connect() as connection:
            station = pages.station_of(connection, id, about)
        kind: Kind = "strike" if out else "restore"
        return self._append(id, seq, kind, station, None, why, about=about, prepare=along)

    def check(
        self,
        id: int,
        seq: int,
        station: str,
        standing: Standing,
        why: str = "",
        at: str | None = None,
        along: Along = nothing,
    ) -> Kept:
        """Say of a station that it still holds, or is settled, without changing anything."""
        if station not in STATIONS:
            raise RefusedError("station", f"“{station}” is not a station.")
        return self._append(id, seq, "check", station, standing, why, None, at, prepare=along)

    def undo(self, id: int, seq: int, along: Along = nothing) -> Kept:
        """Take back the latest entry that stands; raises NothingError.

        A rig that cannot be read is taken back too: what cannot be read may be what goes.
        """
        kept = self.either(id)
        if isinstance(kept, Unreadable):
            self._write(kept, _undo_of(kept, seq, now_utc()), lambda _: None, along)
            return self.get(id)
        return self._append(id, seq, "undo", prepare=along)

    def redo(self, id: int, seq: int, along: Along = nothing) -> Kept:
        """Do again what was taken back last; raises NothingError."""
        return self._append(id, seq, "redo", prepare=along)

    def copy(self, id: int, name: str) -> Kept:
        """A new rig with the same parts that begins as this one stands, its stations too."""
        kept = self.get(id).present
        rig = Rig.model_validate(kept.rig.model_dump() | {"name": name})
        at = now_utc()
        hold = [s for s in states(kept.marks, kept.rig) if s.state in ("provisional", "settled")]
        checks = [
            Entry(seq=i, kind="check", at=at, station=s.station, standing=s.state)
            for i, s in enumerate(hold, 1)
        ]
        return self.create(rig, checks, at, {})

    def reached(
        self, mark: str, wanted: Mapping[str, Any], but: int | None = None
    ) -> list[tuple[Kept, Rig]]:
        """The rigs that a part's change reaches, each with what it would be; nothing is written.

        Parameters
        ----------
        wanted : part path to new value
        but : a rig that is not asked for: the one the change comes from
        """
        changes = [Change(path=path, after=plain_value(value)) for path, value in wanted.items()]
        found = []
        for use in self.rack.uses(mark):
            kept = self._as_seen(use.rig_id) if use.is_on and use.rig_id != but else None
            if not isinstance(kept, Kept):
                continue
            rig = changed(kept.present.rig, together.on_rig(use.slot, changes))
            rig = changed(rig, untrue(rig, kept.known))
            if rig != kept.present.rig:
                found.append((kept, rig))
        return found

    def _as_seen(self, id: int) -> Kept | Unreadable:
        """A rig as it stands, read once until anything is written: a slider asks at each move."""
        with self.engine.connect() as connection:
            written = tuple(connection.execute(_WRITTEN).one())
        stamp, seen = self._seen
        if stamp != written:
            seen = {}
            self._seen = (written, seen)
        if id not in seen:
            seen[id] = self.either(id)
        return seen[id]

    def archive(self, id: int, away: bool) -> Listed | Unreadable:
        """Put a rig away, or take it out again, readable or not; its line in the list."""
        with Session(self.engine.execution_options(writes=True)) as session, session.begin():
            row = session.get(RigRow, id)
            if row is None:
                raise MissingError(f"There is no rig {id}.")
            row.archived_at = now_utc() if away else None
        return self.lines(id)[0]

    def clear(self) -> None:
        """Remove every rig and preference (the demo's reset)."""
        with writing(self.engine) as connection:
            for table in (RigRow, PartRow, PreferenceRow):  # the rest goes with these
                connection.execute(delete(table))
