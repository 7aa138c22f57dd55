"""Entries that were handed over later, by a mark of the sender's own: sent twice, kept once.

An answer that was lost on its way leaves the sender not knowing whether the entry was kept. It is
sent again with the same mark, and answered with the entry that it became.
"""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy import Connection, insert, select

from lyrandis.core.errors import RefusedError
from lyrandis.store.tables import HandedRow


def entry_of(connection: Connection, rig_id: int, mark: str) -> int | None:
    """The entry that a mark became on a rig; None where it was never kept.

    Raises
    ------
    RefusedError : the mark was handed over to another rig.
    """
    row = connection.execute(
        select(HandedRow.rig_id, HandedRow.seq).where(HandedRow.mark == mark)
    ).one_or_none()
    if row is None:
        return None
    if row.rig_id != rig_id:
        raise RefusedError(
            "mark", "It was handed over to another rig, and is in that one's logbook."
        )
    return int(row.seq)


def note(rig_id: int, mark: str, seq: int) -> Callable[[Connection], None]:
    """What notes, in the entry's own transaction, that a mark became it."""

    def noted(connection: Connection) -> None:
        connection.execute(insert(HandedRow).values(mark=mark, rig_id=rig_id, seq=seq))

    return noted
