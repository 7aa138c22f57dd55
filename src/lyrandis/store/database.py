"""Opening the one database file: pragmas, migrations in one transaction with a backup before."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from contextvars import ContextVar
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event, inspect, text

from lyrandis.store import folder as places

FILE_NAME = "lyrandis.db"
BUSY_MS = 30_000  # a writer waits this long for another one


class NewerDataError(RuntimeError):
    """The data folder was written by a newer Lyrandis than this one."""


class UnfinishedError(RuntimeError):
    """The tables were left half made, with rigs in them."""


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


def _scripts() -> ScriptDirectory:
    return ScriptDirectory.from_config(_config())


def head() -> str:
    """The revision of the tables that this version writes."""
    return str(_scripts().get_current_head())


def known(revision: str | None) -> bool:
    """Whether this version can bring tables of a revision up to its own."""
    return revision in {s.revision for s in _scripts().walk_revisions()}


def _connected(connection: Any, _record: Any) -> None:
    # The driver's own transactions leave table changes outside: every one is begun here instead.
    connection.isolation_level = None
    cursor = connection.cursor()
    cursor.execute(f"PRAGMA busy_timeout={BUSY_MS}")
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.close()


def _begun(connection: Connection) -> None:
    writes = connection.get_execution_options().get("writes", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")


def engine_of(file: Path) -> Engine:
    """An engine on a database file, whatever stands in it."""
    engine = create_engine(f"sqlite:///{file}")
    event.listen(engine, "connect", _connected)
    event.listen(engine, "begin", _begun)
    return engine


@contextmanager
def writing(engine: Engine) -> Iterator[Connection]:
    """A connection in a transaction that may write from its beginning.

    What `WITH_IT` holds is written in it too, just before it is final.
    """
    with engine.execution_options(writes=True).begin() as connection:
        yield connection
        also = WITH_IT.get()
        if also is not None:
            also(connection)


# What belongs to whatever is written while a request is answered: see store.answers.
WITH_IT: ContextVar[Callable[[Connection], None] | None] = ContextVar("WITH_IT", default=None)


def revision_of(connection: Connection) -> str | None:
    """The revision of the tables, or None where none is noted."""
    return MigrationContext.configure(connection).get_current_revision()


def _tables(connection: Connection) -> set[str]:
    return set(inspect(connection).get_table_names())


def upgrade(engine: Engine) -> None:
    """Bring the tables to this version's, all of it in one transaction or not at all."""
    config = _config()
    with writing(engine) as connection:
        if {"entries", "_alembic_tmp_entries"} <= _tables(connection):
            # Left by a version that changed tables outside a transaction and was killed there.
            connection.execute(text("DROP TABLE _alembic_tmp_entries"))
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


def _set_aside_if_unfinished(file: Path) -> None:
    """A file whose first tables were never finished and that holds no rig is moved aside."""
    with closed_after(engine_of(file)) as engine, engine.connect() as connection:
        tables = _tables(connection)
        if not tables or revision_of(connection) is not None:
            return
        if "rigs" in tables and connection.execute(text("SELECT count(*) FROM rigs")).scalar():
            raise UnfinishedError(
                f"{file} holds rigs, but not which version wrote them.\n"
                "Nothing was changed. Put a backup back: lyrandis restore FILE\n"
                f"(backups from before an upgrade lie in {file.parent} as before-….db)."
            )
    aside = file.with_name(f"unfinished-{stamp()}.db")
    places.move(file, aside)


@contextmanager
def closed_after(engine: Engine) -> Iterator[Engine]:
    """An engine that is closed at the end, its write-ahead log folded into the file."""
    try:
        yield engine
    finally:
        engine.dispose()


def stamp() -> str:
    """The present time for a file's name."""
    return f"{datetime.now(UTC):%Y%m%dT%H%M%S}"


def open_database(folder: Path) -> Engine:
    """Open (or make) the database in a data folder and bring it to the present tables.

    A copy is put beside the file before a migration touches it. Two processes that open at once
    take turns.

    Raises
    ------
    NewerDataError : the file was written by a newer version.
    UnfinishedError : the file's tables were left half made, with rigs in them.
    OSError, sqlalchemy.exc.OperationalError : the disk is full, or may not be written.
    """
    places.make(folder)
    file = folder / FILE_NAME
    with places.alone_at_opening(folder):
        places.sweep(folder)
        if file.exists():
            _set_aside_if_unfinished(file)
        places.touch(file)
        engine = engine_of(file)
        try:
            _bring_up(engine, folder)
        except BaseException:
            engine.dispose()
            raise
        return engine


def _bring_up(engine: Engine, folder: Path) -> None:
    with engine.connect() as connection:
        present = revision_of(connection)
    if present == head():
        return
    if present is not None and not known(present):
        raise NewerDataError(
            f"{folder / FILE_NAME} was written by a newer Lyrandis (its tables are at {present}).\n"
            "Nothing was changed.\n"
            "Start that version, or point LYRANDIS_DATA at another folder."
        )
    if present is not None:
        backup(folder, folder / f"before-{head()}-{stamp()}.db")
    upgrade(engine)


class NotABackupError(RuntimeError):
    """A file that would be overwritten is no Lyrandis database."""


def is_database(file: Path) -> bool:
    """Whether a file is a Lyrandis database, judged without changing it."""
    if not file.is_file() or file.stat().st_size == 0:
        return False
    with suppress(sqlite3.Error):
        address = f"{file.absolute().as_uri()}?mode=ro&immutable=1"
        connection = sqlite3.connect(address, uri=True)
        try:
            found = connection.execute(
                "SELECT count(*) FROM sqlite_master WHERE name IN ('rigs', 'entries')"
            ).fetchone()
            return bool(found[0] == 2)
        finally:
            connection.close()
    return False


def backup(folder: Path, target: Path) -> None:
    """Copy the database as it stands, consistent even while it is written to.

    The copy grows under a temporary name and takes its own only when it is whole.

    Raises
    ------
    NotABackupError : a file that is no Lyrandis database stands there already.
    OSError, sqlite3.Error : the place may not be written, or is full.
    """
    if target.exists() and not is_database(target):
        raise NotABackupError(
            f"{target} is there already and is no Lyrandis backup; it was left as it is."
        )
    growing = places.beside(target)
    try:
        places.touch(growing)
        copy(folder / FILE_NAME, growing)
        in_one_file(growing)
        growing.replace(target)
    finally:
        growing.unlink(missing_ok=True)


def in_one_file(file: Path) -> None:
    """Leave nothing of a database beside its file."""
    connection = sqlite3.connect(file)
    try:
        connection.execute("PRAGMA journal_mode=DELETE").fetchall()
    finally:
        connection.close()


def copy(source: Path, target: Path) -> None:
    """Copy one database over another, in one transaction of the target's."""
    one = sqlite3.connect(source, timeout=BUSY_MS / 1000)
    try:
        two = sqlite3.connect(target, timeout=BUSY_MS / 1000)
        try:
            one.backup(two, pages=2000)
        finally:
            two.close()
    finally:
        one.close()


def beginnings(folder: Path) -> list[tuple[str, Any]]:
    """When each rig was made and what it began as, without changing anything in the folder."""
    address = f"{(folder / FILE_NAME).absolute().as_uri()}?mode=ro"
    try:
        connection = sqlite3.connect(address, uri=True)
        try:
            rows = connection.execute("SELECT created_at, base FROM rigs").fetchall()
        finally:
            connection.close()
        return [(str(at), json.loads(base)) for at, base in rows]
    except (sqlite3.Error, ValueError):
        return []
