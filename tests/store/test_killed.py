"""Ended at any instant while it is made, migrated, reset or restored, it starts again whole."""

import os
import shutil
import sqlite3
from contextlib import contextmanager
from pathlib import Path

import pytest
from earlier import old_folder
from sqlalchemy import Engine, event

from claims import ALL
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

        def counted():
            count[0] += 1
            if count[0] == statement:
                os._exit(9)

        try:
            with watched(counted):
                work()
        except BaseException:
            os._exit(3)
        os._exit(0)
    status = os.waitstatus_to_exitcode(os.waitpid(child, 0)[1])
    assert status in (0, 9)
    return status == 9


@contextmanager
def watched(deed):
    """Do something before each database statement and each file moved or taken away."""

    def before(moved):
        return lambda *args, **words: (deed(), moved(*args, **words))[1]

    def statement(*_):
        deed()

    event.listen(database.Engine, "before_cursor_execute", statement)
    with pytest.MonkeyPatch.context() as patch:
        for name in ("replace", "unlink"):
            patch.setattr(Path, name, before(getattr(Path, name)))
        try:
            yield
        finally:
            event.remove(database.Engine, "before_cursor_execute", statement)


def on_disk(folder):
    """What lies in a folder, by content; what is shared in memory only is made anew."""
    return tuple(
        (file.relative_to(folder), file.read_bytes())
        for file in sorted(folder.rglob("*"))
        if file.is_file() and not file.name.endswith("-shm")
    )


def every_statement(make, work, check, least):
    """Check every state that a process killed before any of its statements leaves on the disk.

    The work runs once; what lies on the disk before each statement is copied. A state that was
    there already is checked once.
    """
    folder, states = make(0), []

    def copied():
        state = folder.with_name(f"state-{len(states)}")
        state.mkdir()
        if folder.exists():
            shutil.copytree(folder, state, dirs_exist_ok=True)
        states.append(state)

    with watched(copied):
        made = work(folder)
    if isinstance(made, Engine):
        made.dispose()
    assert len(states) > least
    seen = {on_disk(state): state for state in reversed(states)}
    assert len(seen) > 1
    for state in (*seen.values(), folder):
        check(state)


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

    for n in (1, 2, 21, 60, 121, 300, 301) if ALL else (2, 121, 301):
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
