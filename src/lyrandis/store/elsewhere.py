"""What was measured with a rig's parts on other rigs: it is known on this one too."""

from __future__ import annotations

from sqlalchemy import ColumnElement, Connection, Text, select, type_coerce

from lyrandis.core.parts import On
from lyrandis.core.trials import KINDS, KeptTrial
from lyrandis.store.derived import kept_trial
from lyrandis.store.tables import RigPartRow, RigRow, TrialRow

OF_PARTS = tuple(name for name, kind in KINDS.items() if kind.speaks_of)
LOOKS = ("inspection", "release")
_MOST = 60  # of one other rig


def trials_elsewhere(connection: Connection, id: int, on: On) -> tuple[KeptTrial, ...]:
    """Trials of other rigs that tell of one of these parts: the latest, and every look-over.

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
    """Trials of every rig that tell of a part: the latest of each rig, and every look-over."""
    return _of_rigs(connection, RigRow.id.is_not(None))


def _of_rigs(connection: Connection, which: ColumnElement[bool]) -> list[KeptTrial]:
    found: list[KeptTrial] = []
    columns = select(RigRow.id, RigRow.form, type_coerce(RigRow.base, Text).label("base"))
    for rig in connection.execute(columns.where(which)).all():
        mine = select(TrialRow).where(TrialRow.rig_id == rig.id)
        latest = mine.where(TrialRow.kind.in_(OF_PARTS), TrialRow.kind.not_in(LOOKS))
        latest = latest.order_by(TrialRow.day.desc(), TrialRow.seq.desc()).limit(_MOST)
        for asked in (latest, mine.where(TrialRow.kind.in_(LOOKS))):
            rows = connection.execute(asked)
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
