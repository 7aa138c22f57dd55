"""How a rig stood before as far as its weight at the draw goes, by when it was set so.

Read only where a plan to go up asks: taking back and doing again count as what they did then.
"""

from __future__ import annotations

from typing import Any

from sqlalchemy import Connection, Text, or_, select, type_coerce

from lyrandis.core.bench.drawn import WEIGHT_PATHS, Drawn
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.store.loose import Broken
from lyrandis.store.tables import EntryRow

_OF = tuple(dict.fromkeys(f"{path.partition('.')[0]}." for path in WEIGHT_PATHS))
_MOST = 400  # the latest of them


def drawn_before(
    connection: Connection, id: int, base: Rig, created_at: str, seq: int
) -> tuple[Drawn, ...]:
    """A rig's states by their weight, the oldest first, up to its entry `seq`."""
    changes = type_coerce(EntryRow.changes, Text)
    asked = (
        select(EntryRow.seq, EntryRow.kind, EntryRow.at, EntryRow.acts_on, EntryRow.changes)
        .where(
            EntryRow.rig_id == id,
            EntryRow.seq <= seq,
            or_(EntryRow.acts_on.is_not(None), *(changes.contains(f'"{name}') for name in _OF)),
        )
        .order_by(EntryRow.seq)
    )
    settings: dict[str, Any] = {}
    states: list[tuple[str, dict[str, Any]]] = [(created_at, {})]
    moved: dict[int, list[dict[str, Any]]] = {}
    for row in connection.execute(asked):
        acted = row.seq if row.acts_on is None else row.acts_on
        if row.acts_on is None:
            moved[acted] = _of_weight(row.changes)
        side = "before" if row.kind == "undo" else "after"
        set_now = {c["path"]: c.get(side) for c in moved.get(acted, ())}
        if set_now:
            settings = settings | set_now
            states.append((row.at, settings))
    return tuple(told for at, then in states[-_MOST:] if (told := _drawn(base, at, then)))


def _of_weight(changes: Any) -> list[dict[str, Any]]:
    if isinstance(changes, Broken) or not isinstance(changes, list):
        return []
    return [c for c in changes if isinstance(c, dict) and c.get("path") in WEIGHT_PATHS]


def _drawn(base: Rig, at: str, settings: dict[str, Any]) -> Drawn | None:
    try:
        return Drawn(at, changed(base, settings))
    except RefusedError:
        return None
