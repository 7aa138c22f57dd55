"""Opening the one database file: pragmas, migrations with a backup before each, backups."""

from __future__ import annotations

import sqlite3
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Engine, create_engine, event

FILE_NAME = "lyrandis.db"


class NewerDataError(RuntimeError):
    """The data folder was written by a newer Lyrandis than this one."""


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


def _pragmas(connection: Any, _record: Any) -> None:
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.execute("PRAGMA busy_timeout=5000")
    cursor.close()


def open_database(folder: Path) -> Engine:
    """Open (or make) the database in a data folder and bring it to the present tables.

    A copy is put beside the file before a migration touches it.

    Raises
    ------
    NewerDataError : the file was written by a newer version.
    """
    folder.mkdir(parents=True, exist_ok=True)
    file = folder / FILE_NAME
    existed = file.exists()
    engine = create_engine(f"sqlite:///{file}")
    event.listen(engine, "connect", _pragmas)
    config = _config()
    scripts = ScriptDirectory.from_config(config)
    head = scripts.get_current_head()
    with engine.connect() as connection:
        present = MigrationContext.configure(connection).get_current_revision()
    if present == head:
        return engine
    if present is not None and present not in {s.revision for s in scripts.walk_revisions()}:
        raise NewerDataError(
            f"{file} was written by a newer Lyrandis (its tables are at {present}); "
            "start that version, or point LYRANDIS_DATA at another folder."
        )
    if existed and present is not None:
        backup(folder, folder / f"before-{head}-{datetime.now(UTC):%Y%m%dT%H%M%S}.db")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
    return engine


def backup(folder: Path, target: Path) -> None:
    """Copy the database as it stands, consistent even while it is written to."""
    with (
        sqlite3.connect(folder / FILE_NAME) as source,
        sqlite3.connect(target) as copy,
    ):
        source.backup(copy)
    copy.close()
    source.close()
