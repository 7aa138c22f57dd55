"""What was logged at the range, out of the server's reach, and is handed over later."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import Connection

from lyrandis.core.errors import RefusedError
from lyrandis.core.stops import Standing
from lyrandis.core.trials import MEASURED
from lyrandis.desk.rigs import Desk
from lyrandis.store import handed
from lyrandis.store.errors import ConflictError
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import Along, nothing


@dataclass(frozen=True)
class Deed:
    """What was done at a station.

    changes, trial : what is kept and logged; strikes : the entry whose trial is struck out; with
        none of these the station was looked at and holds
    made_at : when the rig was made on which it was done; empty where that is not known
    """

    station: str
    standing: Standing = "provisional"
    why: str = ""
    changes: Mapping[str, Any] = field(default_factory=dict)
    trial: Any = None
    strikes: int | None = None
    made_at: str = ""


def _unasked() -> Along:
    return nothing


def hand_over(
    desk: Desk,
    id: int,
    seq: int,
    mark: str,
    deed: Deed,
    seen: Callable[[], Along] = _unasked,
) -> int:
    """Keep one deed, once however often it is sent; the number of its entry.

    Parameters
    ----------
    seq : the latest entry its archer knew of, those handed over before it included
    mark : the sender's own for this deed, 32 hexadecimal signs
    seen : refuses what was made on other data, now and where it is written; not asked of what was
        kept before

    Raises
    ------
    OtherDataError, MissingError, RefusedError; ConflictError : something else was kept meanwhile.
    """
    known = _entry_of(desk, id, mark)
    if known is not None:
        return known
    refuse_others = seen()
    if deed.made_at and desk.get(id).created_at != deed.made_at:
        raise RefusedError(
            "made_at",
            "Another rig has this number now. Leave it out here, and log it on its own rig.",
        )
    try:
        note = handed.note(id, mark, seq + 1)

        def along(connection: Connection) -> None:
            refuse_others(connection)
            note(connection)

        return _keep(desk, id, seq, deed, along).seq
    except ConflictError:
        known = _entry_of(desk, id, mark)  # sent twice at once, the other one was first
        if known is None:
            raise
        return known


def _keep(desk: Desk, id: int, seq: int, d: Deed, along: Along) -> Kept:
    typed = next((path for path in d.changes if path in MEASURED), None)
    if typed is not None:  # such a setting is trials of its own, and one mark is one entry
        raise RefusedError(typed, "What is measured is handed over as its trial.")
    if d.strikes is not None:
        if d.changes or d.trial is not None:
            raise RefusedError("strikes", "One act at a time: strike out, or keep and log.")
        return desk.strike(id, seq, d.strikes, True, d.why, along)
    if d.changes or d.trial is not None:
        return desk.keep(
            id, seq, dict(d.changes), d.station, d.standing, d.why, trial=d.trial, along=along
        )
    return desk.check(id, seq, d.station, d.standing, d.why, along=along)


def _entry_of(desk: Desk, id: int, mark: str) -> int | None:
    with desk.engine.connect() as connection:
        return handed.entry_of(connection, id, mark)
