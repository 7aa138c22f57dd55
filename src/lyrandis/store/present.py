"""A rig as it stands, read from its snapshot in a few indexed rows, however long its history."""

from __future__ import annotations

import json
from typing import Any

from pydantic import ValidationError
from sqlalchemy import Connection, Text, bindparam, func, select, type_coerce, union_all

from lyrandis.core.bench.drawn import Drawn
from lyrandis.core.errors import RefusedError
from lyrandis.core.history import Entry, Replay
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KINDS, OF_SAFETY
from lyrandis.store import rack
from lyrandis.store.derived import ENTRY, MADE_BY, kept_trial, numbered, read_entry
from lyrandis.store.drawn import drawn_before
from lyrandis.store.elsewhere import trials_elsewhere, verdicts_elsewhere
from lyrandis.store.kept import Kept, Listed, Unreadable, name_of
from lyrandis.store.safety import of_safety
from lyrandis.store.tables import EntryRow, RigRow, SnapshotRow, TrialRow
from lyrandis.store.texts import base_of, state_of, summary_of

MOST_TRIALS = 30  # of each kind count, and are shown before one asks for earlier ones


def _seq(*where: Any) -> Any:
    return (
        select(func.max(EntryRow.seq))
        .where(EntryRow.rig_id == RigRow.id, *where)
        .correlate(RigRow)
        .scalar_subquery()
    )


_ROW = select(
    RigRow.id, RigRow.uid, RigRow.created_at, RigRow.archived_at, RigRow.form,
    type_coerce(RigRow.base, Text).label("base"),
    SnapshotRow.made_by, SnapshotRow.seq, SnapshotRow.changed_at, SnapshotRow.state,
    SnapshotRow.summary, SnapshotRow.fault,
    _seq().label("newest"), _seq(EntryRow.fate == "stands").label("top"),
).outerjoin(SnapshotRow, SnapshotRow.rig_id == RigRow.id)  # fmt: skip
_ONE = _ROW.where(RigRow.id == bindparam("id"))
_LIST = _ROW.order_by(RigRow.id)
_MINE = EntryRow.rig_id == bindparam("id")
_TOP = ENTRY.where(_MINE, EntryRow.fate == "stands").order_by(EntryRow.seq.desc()).limit(1)
_AGAIN = ENTRY.where(_MINE, EntryRow.fate == "taken_back").order_by(EntryRow.seq).limit(1)


def _latest(kind: str) -> Any:
    some = (
        select(TrialRow)
        .where(TrialRow.rig_id == bindparam("id"), TrialRow.kind == kind)
        .order_by(TrialRow.day.desc(), TrialRow.seq.desc())
        .limit(MOST_TRIALS)
    )
    return select(some.subquery())


_TRIALS = union_all(*(_latest(kind) for kind in KINDS if kind not in OF_SAFETY))


class Stale(Exception):  # noqa: N818  (no error: what follows from the entries must be made anew)
    """What stands beside a rig's entries does not belong to them."""


def _current(row: Any) -> bool:
    return bool(row.made_by == MADE_BY and row.seq == (row.newest or 0))


def _unreadable(row: Any) -> Unreadable:
    field, reason = json.loads(row.fault)
    return Unreadable(
        id=row.id,
        created_at=row.created_at,
        archived_at=row.archived_at,
        name=name_of(row.base, row.id),
        field=field,
        reason=reason,
        seq=row.seq,
        undoable=row.top is not None,
    )


def _entry(connection: Connection, statement: Any, id: int) -> Entry | None:
    row = connection.execute(statement, {"id": id}).one_or_none()
    return None if row is None else read_entry(row)


def present(connection: Connection, id: int) -> Kept | Unreadable | None:
    """A rig as it stands; None where there is none.

    Raises
    ------
    Stale : make it anew, then ask again.
    """
    row = connection.execute(_ONE, {"id": id}).one_or_none()
    if row is None:
        return None
    if not _current(row):
        raise Stale
    mine = TrialRow.rig_id == id
    try:
        if row.fault is not None:
            return _unreadable(row)
        state = state_of(row.base, row.form, row.state)
        rows = [*connection.execute(_TRIALS, {"id": id}), *of_safety(connection, mine)]
        trials = [kept_trial(t, row.base, row.form) for t in rows]
    except (RefusedError, ValidationError, ValueError, TypeError, LookupError) as error:
        raise Stale from error
    top, again = _entry(connection, _TOP, id), _entry(connection, _AGAIN, id)
    about = {e.about for e in (top, again) if e is not None and e.about is not None}
    marks = state.rig.on.slots()
    kept = rack.parts(connection, marks.values())
    return Kept(
        id=id,
        uid=row.uid,
        created_at=row.created_at,
        archived_at=row.archived_at,
        base=base_of(row.base, row.form),
        seq=row.seq,
        changed_at=row.changed_at,
        present=Replay(
            state.rig, state.marks, top, again, tuple(sorted(trials, key=lambda t: t.seq))
        ),
        spoken_of=numbered(connection, id, about),
        parts={slot: kept[mark] for slot, mark in marks.items() if mark in kept},
        elsewhere=trials_elsewhere(connection, id, state.rig.on),
        verdicts=verdicts_elsewhere(connection, id, state.rig.archer.name),
        drawn=_drawn_of(connection, id, state.rig, row),
    )


def _drawn_of(connection: Connection, id: int, rig: Rig, row: Any) -> tuple[Drawn, ...]:
    if rig.step_up.goal_lbf is None:
        return ()
    base = base_of(row.base, row.form)
    return drawn_before(connection, id, base, row.created_at, row.seq)


def listed(
    connection: Connection, id: int | None = None
) -> tuple[list[Listed | Unreadable], list[int]]:
    """The line of every rig (or of one), the oldest first, and which must be made anew first."""
    lines: list[Listed | Unreadable] = []
    stale: list[int] = []
    rows = connection.execute(_LIST) if id is None else connection.execute(_ONE, {"id": id})
    for row in rows:
        if not _current(row):
            stale.append(row.id)
            continue
        try:
            lines.append(_unreadable(row) if row.fault is not None else _line(row))
        except (ValidationError, ValueError, TypeError):
            stale.append(row.id)
    return lines, stale


def _line(row: Any) -> Listed:
    return Listed(
        id=row.id,
        created_at=row.created_at,
        archived_at=row.archived_at,
        seq=row.seq,
        changed_at=row.changed_at,
        undoable=row.top is not None,
        summary=summary_of(row.summary),
    )
