"""A rig's history as far as one looks: pages of entries and of trials, by their indices."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection, Engine, Text, func, select, tuple_, type_coerce

from lyrandis.core.fields import is_on
from lyrandis.core.history import Entry
from lyrandis.core.trials import KINDS, KeptTrial
from lyrandis.core.upcast import entry_document, rig_document
from lyrandis.store import rack
from lyrandis.store.derived import ENTRY, ROWS_AT_ONCE, kept_trial, numbered, read_entry
from lyrandis.store.kept import ENTRY_COLUMNS
from lyrandis.store.loose import plain
from lyrandis.store.tables import EntryRow, RigPartRow, RigRow, TrialRow


@dataclass(frozen=True)
class Page:
    """Some entries, the latest first, with what their sentences speak of.

    others : by number: the entries taken back or done again, and those that hold a trial spoken of
    acts_on : by the number of an undo or redo, the entry it took back or did again
    """

    entries: tuple[Entry, ...]
    others: dict[int, Entry]
    acts_on: dict[int, int]


def history(connection: Connection, id: int, before: int | None, since: int, most: int) -> Page:
    """Entries numbered after `since` and before `before` (None: to the end), at most `most`."""
    asked = [EntryRow.rig_id == id, EntryRow.seq > since]
    if before is not None:
        asked.append(EntryRow.seq < before)
    rows = connection.execute(
        ENTRY.add_columns(EntryRow.acts_on).where(*asked).order_by(EntryRow.seq.desc()).limit(most)
    ).all()
    entries = tuple(read_entry(row[:-1]) for row in rows)
    acts_on = {row.seq: row.acts_on for row in rows if row.acts_on is not None}
    others = numbered(connection, id, set(acts_on.values()))
    spoken_of = {e.about for e in (*entries, *others.values()) if e.about is not None}
    others |= numbered(connection, id, spoken_of)
    return Page(entries, others, acts_on)


def trials(
    connection: Connection, id: int, kind: str, after: int | None, most: int | None
) -> list[KeptTrial]:
    """Trials of a kind, the latest day first, from the one that stands below trial `after`."""
    asked = [TrialRow.rig_id == id, TrialRow.kind == kind]
    if after is not None:
        last = select(TrialRow.day, TrialRow.seq).where(
            TrialRow.rig_id == id, TrialRow.seq == after
        )
        asked.append(tuple_(TrialRow.day, TrialRow.seq) < last.scalar_subquery())
    began = connection.execute(
        select(type_coerce(RigRow.base, Text), RigRow.form).where(RigRow.id == id)
    ).one()
    rows = connection.execute(
        select(TrialRow)
        .where(*asked)
        .order_by(TrialRow.day.desc(), TrialRow.seq.desc())
        .limit(-1 if most is None else most)
    )
    return [kept_trial(row, *began) for row in rows]


def station_of(connection: Connection, id: int, seq: int) -> str | None:
    """The station an entry was kept at, or where a trial that none logged belongs."""
    if seq < 0:
        kind = connection.execute(
            select(TrialRow.kind).where(TrialRow.rig_id == id, TrialRow.seq == seq)
        ).scalar()
        return KINDS[kind].station if kind in KINDS else None
    return connection.execute(
        select(EntryRow.station).where(EntryRow.rig_id == id, EntryRow.seq == seq)
    ).scalar()


def entries(connection: Connection, id: int) -> Iterator[Entry]:
    """A rig's entries in order, without holding all their rows at once."""
    ordered = ENTRY.where(EntryRow.rig_id == id).order_by(EntryRow.seq)
    yield from map(read_entry, connection.execute(ordered).yield_per(ROWS_AT_ONCE))


@dataclass(frozen=True)
class Documents:
    """A rig's rows as they are: its uid, when it was made, its beginning, its entries in order."""

    uid: str
    created_at: str
    base: Any
    parts: dict[str, Any]
    entries: Iterator[dict[str, Any]]


def documents(engine: Engine, id: int) -> Documents:
    """A rig's rows in the present form, as far as they can be read."""
    with engine.connect() as connection:
        row = connection.execute(
            select(RigRow.uid, RigRow.created_at, RigRow.base, RigRow.form).where(RigRow.id == id)
        ).one()
        mine = select(func.max(EntryRow.seq)).where(EntryRow.rig_id == id)
        newest = connection.execute(mine).scalar() or 0
        base = rig_document(plain(row.base), row.form)
        parts = _parts(connection, id, base)
    return Documents(row.uid, row.created_at, base, parts, _documents(engine, id, newest))


def _parts(connection: Connection, id: int, base: Any) -> dict[str, Any]:
    """Every part that the rig names, on it or not, by its mark, as plain JSON."""
    marks = set(
        connection.execute(select(RigPartRow.mark).where(RigPartRow.rig_id == id)).scalars()
    )
    on = base.get("on") if isinstance(base, dict) else None
    for mark in on.values() if isinstance(on, dict) else ():
        marks |= set(mark) if isinstance(mark, list) else {mark}
    changes = connection.execute(
        select(EntryRow.changes).where(EntryRow.rig_id == id, EntryRow.parts != [])
    ).scalars()
    for change in (c for some in changes if isinstance(some, list) for c in some):
        if is_on(change["path"]):
            after = change["after"]
            marks |= set(after) if isinstance(after, list) else {after}
    kept = rack.parts(connection, (mark for mark in marks if isinstance(mark, str)))
    return {mark: part.part.model_dump(mode="json") for mark, part in kept.items()}


def _documents(engine: Engine, id: int, newest: int) -> Iterator[dict[str, Any]]:
    mine = ENTRY.where(EntryRow.rig_id == id, EntryRow.seq <= newest).order_by(EntryRow.seq)
    last = 0
    while last < newest:
        with engine.connect() as connection:
            rows = connection.execute(mine.where(EntryRow.seq > last).limit(ROWS_AT_ONCE)).all()
        if not rows:
            return
        for *columns, form in rows:
            values = dict(zip(ENTRY_COLUMNS, map(plain, columns), strict=True))
            yield entry_document(values, form)
        last = rows[-1].seq
