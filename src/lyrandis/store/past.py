"""A rig as it stood after one of its entries, and the days on which something was entered."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import Connection, Text, func, select, type_coerce

from lyrandis.core.dates import instant
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.history import Entry, Replay, UnreadEntry, fates
from lyrandis.core.trials import OF_SAFETY, KeptTrial, implied_by
from lyrandis.store import pages, rack
from lyrandis.store.derived import kept_trial
from lyrandis.store.drawn import drawn_before
from lyrandis.store.elsewhere import trials_elsewhere
from lyrandis.store.errors import MissingError
from lyrandis.store.kept import Kept
from lyrandis.store.safety import of_safety
from lyrandis.store.tables import EntryRow, RigRow, TrialRow

_MOST_TRIALS = 400  # the latest of them, beside every one of safety


@dataclass(frozen=True)
class DayEntered:
    """A day on which something was entered: its last entry, how many there were, and where."""

    day: str
    seq: int
    entries: int
    stations: tuple[str, ...]


def days(connection: Connection, id: int) -> list[DayEntered]:
    """The days of a rig's history, the latest first."""
    day = func.substr(EntryRow.at, 1, 10).label("day")
    mine = EntryRow.rig_id == id
    where: dict[str, list[str]] = {}
    touched = select(day, EntryRow.station).where(mine, EntryRow.station.is_not(None)).distinct()
    for row in connection.execute(touched):
        where.setdefault(row.day, []).append(row.station)
    counted = select(day, func.max(EntryRow.seq).label("seq"), func.count().label("entries"))
    rows = connection.execute(counted.where(mine).group_by(day).order_by(day.desc()))
    return [DayEntered(r.day, r.seq, r.entries, tuple(sorted(where.get(r.day, ())))) for r in rows]


def as_of(connection: Connection, kept: Kept, seq: int) -> Kept:
    """A rig as it stood after entry `seq` (0: as it began), with what was measured by then.

    Its stations' states are not told again: they are of the present.

    Raises
    ------
    MissingError : there is no such entry.
    RefusedError : an entry that this version cannot read lies before it.
    """
    if not 0 <= seq <= kept.seq:
        raise MissingError(f"This rig has no entry {seq}.")
    entries = []
    for entry in pages.entries(connection, kept.id):
        if entry.seq > seq:
            break
        entries.append(entry)
    at = entries[-1].at if entries else kept.created_at
    rig = changed(kept.base, _settings(entries))
    marks = rig.on.slots()
    known = rack.parts(connection, marks.values())
    elsewhere = trials_elsewhere(connection, kept.id, rig.on)
    return replace(
        kept,
        seq=seq,
        changed_at=at,
        present=Replay(rig, (), None, None, _trials(connection, kept.id, seq)),
        spoken_of={},
        parts={slot: known[mark] for slot, mark in marks.items() if mark in known},
        elsewhere=tuple(t for t in elsewhere if instant(t.at) <= instant(at)),
        drawn=drawn_before(connection, kept.id, kept.base, kept.created_at, seq),
    )


def _settings(entries: Iterable[Entry]) -> dict[str, Any]:
    """All that stands of some entries, the last word on each setting."""
    every = list(entries)
    told: dict[str, Any] = {}
    for place in fates(entry.kind for entry in every).places("stands"):
        entry = every[place]
        if isinstance(entry, UnreadEntry):
            raise RefusedError(f"entries.{entry.seq - 1}", entry.reason)
        told |= {change.path: change.after for change in entry.changes}
    return told


def _trials(connection: Connection, id: int, seq: int) -> tuple[KeptTrial, ...]:
    """The trials logged by then, as they stand now: what was struck out later was wrong then."""
    began = connection.execute(
        select(type_coerce(RigRow.base, Text), RigRow.form).where(RigRow.id == id)
    ).one()
    mine = TrialRow.rig_id == id, TrialRow.seq <= seq
    latest = select(TrialRow).where(*mine, TrialRow.kind.not_in(OF_SAFETY))
    latest = latest.order_by(TrialRow.at.desc(), TrialRow.seq.desc()).limit(_MOST_TRIALS)
    rows = [*connection.execute(latest), *of_safety(connection, *mine)]
    numbers = TrialRow.__table__.c.keys().index("seq")
    by_then = [row for row in rows if row[numbers] > 0 or implied_by(row[numbers]) <= seq]
    return tuple(sorted((kept_trial(row, *began) for row in by_then), key=lambda t: t.seq))
