"""What was measured with a rig's parts on other rigs: it is known on this one too."""

from __future__ import annotations

from functools import lru_cache

from sqlalchemy import ColumnElement, Connection, Text, func, select, type_coerce

from lyrandis.core.bench import Bench
from lyrandis.core.bench.reading import READ_BY
from lyrandis.core.errors import RefusedError
from lyrandis.core.flight.held import NONE_TRIED, Held
from lyrandis.core.parts import On
from lyrandis.core.trials import KINDS, OF_SAFETY, KeptTrial
from lyrandis.store.derived import kept_trial
from lyrandis.store.safety import of_safety
from lyrandis.store.tables import RigPartRow, RigRow, SnapshotRow, TrialRow

OF_PARTS = tuple(name for name, kind in KINDS.items() if kind.speaks_of)
LOOKS = ("inspection", "release")
_MOST = 60  # of one other rig


def trials_elsewhere(connection: Connection, id: int, on: On) -> tuple[KeptTrial, ...]:
    """Trials of other rigs that tell of one of these parts: the latest, and every one of safety.

    Parameters
    ----------
    id : the rig that asks
    on : its parts
    """
    parts = on.slots().values()
    if not parts:
        return ()
    sharing = (
        select(RigPartRow.rig_id)
        .where(RigPartRow.mark.in_(parts), RigPartRow.rig_id != id)
        .distinct()
    )
    return tuple(t for t in _of_rigs(connection, RigRow.id.in_(sharing)) if t.speaks_of(on))


def trials_of_parts(connection: Connection) -> list[KeptTrial]:
    """Trials of every rig that tell of a part: the latest of each rig, and every one of safety."""
    return _of_rigs(connection, RigRow.id.is_not(None))


def _of_rigs(connection: Connection, which: ColumnElement[bool]) -> list[KeptTrial]:
    found: list[KeptTrial] = []
    columns = select(RigRow.id, RigRow.form, type_coerce(RigRow.base, Text).label("base"))
    for rig in connection.execute(columns.where(which)).all():
        mine = select(TrialRow).where(TrialRow.rig_id == rig.id)
        latest = mine.where(TrialRow.kind.in_(OF_PARTS), TrialRow.kind.not_in(OF_SAFETY))
        latest = latest.order_by(TrialRow.day.desc(), TrialRow.seq.desc()).limit(_MOST)
        of = TrialRow.rig_id == rig.id
        rows = [*connection.execute(latest), *of_safety(connection, of)]
        found += [kept_trial(row, rig.base, rig.form, rig.id) for row in rows]
    return found


def all_looks(connection: Connection) -> list[KeptTrial]:
    """Every look-over and release there is, each with its rig."""
    rows = connection.execute(
        select(TrialRow, RigRow.form, type_coerce(RigRow.base, Text).label("base"))
        .join(RigRow, RigRow.id == TrialRow.rig_id)
        .where(TrialRow.kind.in_(LOOKS))
        .order_by(TrialRow.at)
    ).all()
    return [kept_trial(tuple(row[:-2]), row.base, row.form, row.rig_id) for row in rows]


def verdicts_elsewhere(connection: Connection, id: int, archer: str) -> Held:
    """How verdicts of the flight reads on the other rigs of an archer of that name did."""
    if not archer.strip():
        return NONE_TRIED
    named = func.json_extract(type_coerce(SnapshotRow.summary, Text), "$.archer")
    rows = connection.execute(
        select(TrialRow, RigRow.form, type_coerce(RigRow.base, Text).label("base"))
        .join(RigRow, RigRow.id == TrialRow.rig_id)
        .join(SnapshotRow, SnapshotRow.rig_id == RigRow.id)
        .where(TrialRow.kind.in_(READ_BY), TrialRow.rig_id != id, named == archer)
        .order_by(TrialRow.rig_id, TrialRow.seq)
    )
    of_rigs: dict[int, list[tuple[tuple[object, ...], str, int]]] = {}
    for row in rows:
        of_rigs.setdefault(row.rig_id, []).append((tuple(row[:-2]), row.base, row.form))
    return sum((_held_of(tuple(reads)) for reads in of_rigs.values()), NONE_TRIED)


@lru_cache(maxsize=256)
def _held_of(reads: tuple[tuple[tuple[object, ...], str, int], ...]) -> Held:
    """How the verdicts of one rig's reads did, with the bow and archer of the latest."""
    try:
        kept = tuple(kept_trial(row, base, form) for row, base, form in reads)
        return Bench(kept[-1].rig, kept).reading.own_held
    except (RefusedError, ValueError, TypeError, LookupError):
        return NONE_TRIED  # what cannot be read is told on its own rig
