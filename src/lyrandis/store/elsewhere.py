"""What was measured with a rig's parts on other rigs: it is known on this one too."""

from __future__ import annotations

from sqlalchemy import Connection, Text, select, type_coerce

from lyrandis.core.parts import On
from lyrandis.core.trials import KeptTrial
from lyrandis.store.derived import kept_trial
from lyrandis.store.tables import RigPartRow, RigRow, TrialRow

# Kinds of trial that speak of a part, on whatever rig it was.
OF_PARTS = (
    "weighing", "arrow_weighing", "string_weighing", "inspection", "release", "settling", "brace",
)  # fmt: skip
LOOKS = ("inspection", "release")
_MOST = 60  # of one other rig


def trials_elsewhere(connection: Connection, id: int, on: On) -> tuple[KeptTrial, ...]:
    """Trials of other rigs that had one of these parts on, the latest of each rig.

    Parameters
    ----------
    id : the rig that asks
    on : its parts
    """
    parts = [mark for slot, mark in on.slots().items() if slot != "archer"]
    if not parts:
        return ()
    shared = (
        select(RigPartRow.rig_id)
        .where(RigPartRow.mark.in_(parts), RigPartRow.rig_id != id)
        .distinct()
    )
    found: list[KeptTrial] = []
    for rig in connection.execute(
        select(RigRow.id, RigRow.form, type_coerce(RigRow.base, Text).label("base")).where(
            RigRow.id.in_(shared)
        )
    ).all():
        rows = connection.execute(
            select(TrialRow)
            .where(TrialRow.rig_id == rig.id, TrialRow.kind.in_(OF_PARTS))
            .order_by(TrialRow.day.desc(), TrialRow.seq.desc())
            .limit(_MOST)
        )
        found += [kept_trial(row, rig.base, rig.form, rig.id) for row in rows]
    return tuple(found)


def all_looks(connection: Connection) -> list[KeptTrial]:
    """Every look-over and release there is, each with its rig."""
    rows = connection.execute(
        select(TrialRow, RigRow.form, type_coerce(RigRow.base, Text).label("base"))
        .join(RigRow, RigRow.id == TrialRow.rig_id)
        .where(TrialRow.kind.in_(LOOKS))
        .order_by(TrialRow.at)
    ).all()
    return [kept_trial(tuple(row[:-2]), row.base, row.form, row.rig_id) for row in rows]
