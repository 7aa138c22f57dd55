"""Looking a database over, and putting a backup back without losing what it replaces."""

from __future__ import annotations

import shutil
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from sqlalchemy import Engine, func, select
from sqlalchemy.exc import DatabaseError

from lyrandis.store import database
from lyrandis.store import folder as places
from lyrandis.store.database import FILE_NAME, closed_after, engine_of
from lyrandis.store.derived import unlike_their_history
from lyrandis.store.identity import carry_over
from lyrandis.store.tables import RigRow


class NoBackupError(RuntimeError):
    """The file is no Lyrandis database, or a damaged one."""


@dataclass(frozen=True)
class Looked:
    """What a look over a database found.

    faults : what SQLite says is damaged; empty when whole
    revision : of its tables; None when none is noted
    rigs : how many rigs it holds; unreadable : those that cannot be read whole, with why
    """

    faults: tuple[str, ...]
    revision: str | None
    rigs: int
    unreadable: tuple[tuple[str, str], ...]

    @property
    def whole(self) -> bool:
        """Whether nothing is wrong with it."""
        return not self.faults and not self.unreadable and self.revision == database.head()


def _faults(file: Path) -> tuple[str, ...]:
    try:
        connection = sqlite3.connect(file, timeout=database.BUSY_MS / 1000)
        try:
            rows = connection.execute("PRAGMA integrity_check(20)").fetchall()
            lost = connection.execute("PRAGMA foreign_key_check").fetchmany(20)
            rows += [(f"{table}: row {row} points at nothing",) for table, row, *_ in lost]
        finally:
            connection.close()
    except sqlite3.Error as error:
        return (str(error),)
    return tuple(str(row[0]) for row in rows if row[0] != "ok")


def look_over(file: Path) -> Looked:
    """Integrity, tables and every rig of a database file."""
    faults = _faults(file)
    if faults:
        return Looked(faults, None, 0, ())
    with closed_after(engine_of(file)) as engine:
        with engine.connect() as connection:
            revision = database.revision_of(connection)
        if revision != database.head():
            return Looked((), revision, 0, ())
        with engine.connect() as connection:
            count = connection.execute(select(func.count()).select_from(RigRow)).scalar() or 0
            bad = tuple(unlike_their_history(connection))
    return Looked((), revision, count, bad)


@contextmanager
def _made_ready(folder: Path, source: Path) -> Iterator[tuple[Path, Looked]]:
    """A copy of a backup in the data folder, whole and with the present tables."""
    if not database.is_database(source):
        raise NoBackupError(
            f"{source.name} is not a Lyrandis backup. Nothing was changed. "
            "Choose a file that “Back up” or “lyrandis backup” made."
        )
    ready = places.beside(folder / FILE_NAME)
    try:
        places.touch(ready)
        try:
            database.copy(source, ready)
        except sqlite3.DatabaseError as error:
            raise NoBackupError(
                f"{source.name} is damaged ({error}). Nothing was changed."
            ) from None
        looked = look_over(ready)
        if looked.faults:
            raise NoBackupError(
                f"{source.name} is damaged ({looked.faults[0]}). Nothing was changed."
            )
        if looked.revision != database.head():
            if not database.known(looked.revision):
                raise NoBackupError(
                    f"{source.name} was written by a newer Lyrandis (its tables are at "
                    f"{looked.revision}). Nothing was changed."
                )
            with closed_after(engine_of(ready)) as engine:
                database.upgrade(engine)
            looked = look_over(ready)
        carry_over(folder / FILE_NAME, ready)
        database.in_one_file(ready)
        yield ready, looked
    finally:
        for ending in ("", "-wal", "-shm", "-journal"):
            ready.with_name(ready.name + ending).unlink(missing_ok=True)


def _keep_what_is_there(folder: Path) -> Path | None:
    """A copy of the present data under a name of its own; None where there is none."""
    present = folder / FILE_NAME
    if not present.exists() or present.stat().st_size == 0:
        return None
    aside = folder / f"replaced-{database.stamp()}.db"
    number = 1
    while aside.exists():
        number += 1
        aside = folder / f"replaced-{database.stamp()}-{number}.db"
    try:
        database.backup(folder, aside)
    except sqlite3.DatabaseError:  # too damaged to be read: kept as it lies there
        for ending in ("", "-wal", "-shm"):
            part = present.with_name(present.name + ending)
            if part.exists():
                shutil.copy2(part, aside.with_name(aside.name + ending))
    return aside


def restore(folder: Path, source: Path) -> tuple[Path | None, Looked]:
    """Put a backup in the place of a folder's data, while nobody serves it.

    Returns
    -------
    Where the data that was there lies now (None where there was none), and what was put back.

    Raises
    ------
    InUseError, NoBackupError, OSError : nothing was changed.
    """
    places.make(folder)
    with (
        places.nobody_else(folder),
        places.alone_at_opening(folder),
        _made_ready(folder, source) as (ready, looked),
    ):
        aside = _keep_what_is_there(folder)
        present = folder / FILE_NAME
        if present.exists():
            _fold(present)
        ready.replace(present)
    return aside, looked


def _fold(file: Path) -> None:
    """Fold a write-ahead log into its file, or drop the log of a file that cannot be read."""
    try:
        with closed_after(engine_of(file)) as engine, engine.connect():
            pass
    except DatabaseError:
        pass
    for ending in ("-wal", "-shm"):
        file.with_name(file.name + ending).unlink(missing_ok=True)


def restore_running(
    engine: Engine, folder: Path, source: Path, heed: Callable[[], None]
) -> tuple[Path | None, Looked]:
    """The same from inside the server: one transaction of the database that is open.

    `heed` is called before anything is changed; it raises to end the work.
    """
    with places.alone_at_opening(folder), _made_ready(folder, source) as (ready, looked):
        heed()
        aside = _keep_what_is_there(folder)
        database.copy(ready, folder / FILE_NAME)
        engine.dispose()
    return aside, looked
