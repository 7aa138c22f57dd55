"""What belongs to the data folder and not to the data in it: its id, its generation, its devices.

The data may be put back or replaced; these stay. The generation goes up whenever data came from
elsewhere, so that whoever was told something before knows that it may be otherwise now.
"""

from __future__ import annotations

import time
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, delete, insert, select, update
from sqlalchemy.exc import DatabaseError

from lyrandis.store.database import closed_after, engine_of, writing
from lyrandis.store.tables import DeviceRow, FolderRow


@dataclass(frozen=True)
class Identity:
    """A folder's id for good, 32 hexadecimal signs, and its generation."""

    id: str
    generation: int

    @property
    def text(self) -> str:
        """Both as one word."""
        return f"{self.id}.{self.generation}"


def identity(connection: Connection) -> Identity:
    """The folder's own."""
    row = connection.execute(select(FolderRow.id, FolderRow.generation)).one()
    return Identity(row.id, row.generation)


def identity_of(engine: Engine) -> Identity:
    """The same of a database."""
    with engine.connect() as connection:
        return identity(connection)


def raise_generation(engine: Engine) -> None:
    """Note that data came from elsewhere."""
    with writing(engine) as connection:
        connection.execute(update(FolderRow).values(generation=FolderRow.generation + 1))


def carry_over(present: Path, ready: Path) -> None:
    """Have a database that is to replace another one belong to the same folder.

    Where the present one cannot be read nobody is let in by what the other one says, and the
    generation is above any that was counted.
    """
    own, devices = _own(present)
    with closed_after(engine_of(ready)) as engine, writing(engine) as connection:
        came = identity(connection)
        connection.execute(delete(FolderRow))
        connection.execute(delete(DeviceRow))
        if own is None:
            connection.execute(insert(FolderRow).values(id=came.id, generation=int(time.time())))
            return
        generation = max(own.generation, came.generation) + 1
        connection.execute(insert(FolderRow).values(id=own.id, generation=generation))
        if devices:
            connection.execute(insert(DeviceRow), devices)


def _own(present: Path) -> tuple[Identity | None, list[dict[str, Any]]]:
    if not present.exists() or present.stat().st_size == 0:
        return None, []
    try:
        with closed_after(engine_of(present)) as engine, engine.connect() as connection:
            rows = connection.execute(select(DeviceRow.__table__)).mappings()
            return identity(connection), [dict(row) for row in rows]
    except DatabaseError:  # damaged, or of a version that knew neither
        return None, []
