"""Ended at any instant while it is made, migrated, reset or restored, it starts again whole."""

import os
import shutil
import sqlite3
from pathlib import Path

import pytest
from earlier import old_folder
from sqlalchemy import event

from lyrandis.core.parts import Rig
from lyrandis.demo import folder as demo_folder
from lyrandis.store import database, restore
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import RigStore


def ended_at(statement, work):
    """Run work in a child process that ends, as by kill -9, before its n-th database statement
    or file moved.

    Returns whether it got that far.
    """
    child = os.fork()
    if child == 0:
        count = [0]

        def counted(*_):
            count[0] += 1
            if count[0] == statement:
                os._exit(9)

        def before(deed):
            return lambda *args, **words: (counted(), deed(*args, **words))[1]

        event.listen(database.Engine, "before_cursor_execute", counted)
        for deed in ("replace", "unlink"):
            setattr(Path, deed, before(getattr(Path, deed)))
        try:
            work()
        except BaseException:
            os._exit(3)
        os._exit(0)
    status = os.waitstatus_to_exitcode(os.waitpid(child, 0)[1])
    assert status in (0, 9)
    return status == 9


def every_statement(make, work, check, least):
    """Do it all from the beginning for every statement at which it could end."""
    statement = 0
    ended = True
    while ended:
        statement += 1
        folder = make(statement)
        ended = ended_at(statement, lambda folder=folder: work(folder))
        check(folder)
    assert statement > least


def opens_and_keeps(folder, rigs=0):
    store = RigStore(database.open_database(folder))
    assert len(store.all()) == rigs
    made = store.create(Rig(name="After"))
    assert store.keep(made.id, 0, {"string.strands": 12}, "string").seq == 1
    store.engine.dispose()


def test_while_it_is_created(tmp_path):
    def make(n):
        return tmp_path / str(n)

    every_statement(make, database.open_database, opens_and_keeps, least=10)


def test_while_it_is_migrated(tmp_path):
    def check(folder):
        store = RigStore(database.open_database(folder))
        assert store.get(1).present.rig.bow.brace_height_in == 8.0
        store.engine.dispose()
        opens_and_keeps(folder, 1)
        for backup in folder.glob("before-*.db"):
            assert database.is_database(backup)

    every_statement(lambda n: old_folder(tmp_path / str(n)), database.open_database, check, 12)


def test_what_an_interrupted_older_version_left_is_set_aside_or_cleaned(tmp_path):
    # Killed while its first tables were made: no rig is in it.
    empty = tmp_path / "empty"
    empty.mkdir()
    raw = sqlite3.connect(empty / database.FILE_NAME)
    raw.execute("CREATE TABLE rigs (id INTEGER PRIMARY KEY, base JSON)")
    raw.execute("CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL)")
    raw.commit()
    raw.close()
    opens_and_keeps(empty)
    assert len(list(empty.glob("unfinished-*.db"))) == 1
    # Killed while it was migrated: the copied table was left half made.
    half = old_folder(tmp_path / "half")
    raw = sqlite3.connect(half / database.FILE_NAME)
    raw.execute("CREATE TABLE _alembic_tmp_entries (id INTEGER)")
    raw.commit()
    raw.close()
    opens_and_keeps(half, 1)
    # Its version was lost, and rigs are in it: nothing is touched, and it says what to do.
    lost = old_folder(tmp_path / "lost")
    raw = sqlite3.connect(lost / database.FILE_NAME)
    raw.execute("DELETE FROM alembic_version")
    raw.commit()
    raw.close()
    with pytest.raises(database.UnfinishedError, match="lyrandis restore") as caught:
        database.open_database(lost)
    assert str(caught.value).count("\n") == 2


def test_while_the_demo_is_loaded_or_reset(tmp_path):
    loaded = tmp_path / "loaded"
    demo_folder.prepare(loaded, False)

    def make(n):
        folder = tmp_path / str(n)
        if n % 2:
            shutil.copytree(loaded, folder)
            with database.closed_after(database.open_database(folder)) as engine:
                RigStore(engine).create(Rig(name="Played with"))
        return folder

    def check(folder):
        demo_folder.prepare(folder, False)
        with database.closed_after(database.open_database(folder)) as engine:
            names = [kept.present.rig.name for kept in RigStore(engine).all()]
        assert names[:3] == ["Field recurve, crawls", "Woodland one-piece", "Horn-tip thumb bow"]
        assert not list(folder.glob(".demo-*"))

    for n in (1, 2, 3, 20, 21, 60, 61, 120, 121, 300, 301):
        folder = make(n)
        ended_at(n, lambda folder=folder: demo_folder.prepare(folder, True))
        check(folder)


def test_while_a_backup_is_put_back(tmp_path):
    source = tmp_path / "source"
    with database.closed_after(database.open_database(source)) as engine:
        RigStore(engine).create(Rig(name="Saved"))
    saved = tmp_path / "saved.db"
    database.backup(source, saved)

    def make(n):
        folder = tmp_path / str(n)
        with database.closed_after(database.open_database(folder)) as engine:
            RigStore(engine).create(Rig(name="Present"))
        return folder

    def check(folder):
        with database.closed_after(database.open_database(folder)) as engine:
            rigs = RigStore(engine).all()
        assert [kept.present.rig.name for kept in rigs if isinstance(kept, Kept)] in (
            ["Saved"],
            ["Present"],
        )

    every_statement(make, lambda folder: restore.restore(folder, saved), check, 8)
