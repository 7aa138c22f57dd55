"""Keeping: survives a restart, migrates with a backup, never loses an entry."""

import sqlite3
from datetime import datetime

import pytest
from sqlalchemy import text

from lyrandis.core.errors import RefusedError
from lyrandis.core.rig import Bow, Rig
from lyrandis.demo import scenario
from lyrandis.store import database
from lyrandis.store.rigs import (
    ConflictError,
    MissingError,
    NothingError,
    PreferenceStore,
    RigStore,
)


def test_everything_survives_a_restart(tmp_path):
    first = RigStore(database.open_database(tmp_path))
    made = first.create(Rig(name="One", bow=Bow(measured=((20.0, 18.0), (28.0, 36.0)))))
    first.keep(made.id, 0, {"bow.brace_height_in": 8.25}, "brace", "settled", "why not")
    PreferenceStore(first.engine).put("preferences", {"theme": "dark"})
    first.engine.dispose()
    again = RigStore(database.open_database(tmp_path))
    kept = again.get(made.id)
    assert kept.present.rig.bow.brace_height_in == 8.25
    assert kept.present.rig.bow.measured == ((20.0, 18.0), (28.0, 36.0))
    assert kept.entries[0].why == "why not"
    assert kept.entries[0].changes[0].before is None
    assert PreferenceStore(again.engine).get("preferences") == {"theme": "dark"}
    assert PreferenceStore(again.engine).get("nothing") is None
    again.engine.dispose()


def test_a_refused_change_writes_nothing(store):
    made = store.create(Rig())
    with pytest.raises(RefusedError):
        store.keep(made.id, 0, {"bow.length_in": 3}, "bow-length")
    with pytest.raises(RefusedError):
        store.keep(made.id, 0, {"bow.length_in": 66}, "kitchen")
    with pytest.raises(RefusedError):
        store.check(made.id, 0, "kitchen", "settled")
    assert store.get(made.id).seq == 0


def test_entries_are_numbered_without_gaps_and_conflicts_are_told(store):
    made = store.create(Rig())
    for i in range(4):
        store.keep(made.id, i, {"string.strands": 10 + i}, "string")
    with pytest.raises(ConflictError):
        store.keep(made.id, 2, {"string.strands": 30}, "string")
    store.undo(made.id, 4)
    kept = store.redo(made.id, 5)
    assert [e.seq for e in kept.entries] == [1, 2, 3, 4, 5, 6]
    assert kept.present.rig.string.strands == 13


def test_nothing_to_undo(store):
    made = store.create(Rig())
    with pytest.raises(NothingError):
        store.undo(made.id, 0)
    with pytest.raises(NothingError):
        store.redo(made.id, 0)
    with pytest.raises(MissingError):
        store.get(77)


def test_copy_begins_where_the_other_stands(store):
    made = store.create(Rig(name="One"))
    store.keep(made.id, 0, {"bow.length_in": 66}, "bow-length")
    copy = store.copy(made.id, "Two")
    assert copy.base.bow.length_in == 66
    assert copy.entries == ()
    assert copy.base.name == "Two"


def test_archive_and_back(store):
    made = store.create(Rig())
    assert store.archive(made.id, True).archived_at is not None
    assert store.archive(made.id, False).archived_at is None


def test_the_file_is_wal_with_foreign_keys(store):
    with store.engine.connect() as connection:
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert connection.execute(text("PRAGMA foreign_keys")).scalar() == 1
        assert (
            connection.execute(text("SELECT version_num FROM alembic_version")).scalar() == "0001"
        )


def test_two_writers_never_share_a_number(tmp_path):
    one, two = (RigStore(database.open_database(tmp_path)) for _ in range(2))
    made = one.create(Rig())
    one.keep(made.id, 0, {"string.strands": 16}, "string")
    with pytest.raises(ConflictError):
        two.keep(made.id, 0, {"string.strands": 18}, "string")
    assert two.get(made.id).present.rig.string.strands == 16
    for s in (one, two):
        s.engine.dispose()


def test_a_newer_database_is_left_alone(tmp_path):
    database.open_database(tmp_path).dispose()
    with sqlite3.connect(tmp_path / database.FILE_NAME) as raw:
        raw.execute("UPDATE alembic_version SET version_num = '9999'")
    raw.close()
    with pytest.raises(database.NewerDataError, match="newer"):
        database.open_database(tmp_path)


def test_backup_is_whole_while_open(store, tmp_path):
    made = store.create(Rig(name="Saved"))
    target = tmp_path / "copy" / database.FILE_NAME
    target.parent.mkdir()
    database.backup(tmp_path, target)
    store.keep(made.id, 0, {"name": "Later"})
    saved = RigStore(database.open_database(target.parent))
    assert saved.get(made.id).present.rig.name == "Saved"
    saved.engine.dispose()


class TestDemo:
    def test_the_scenario_is_always_the_same(self, store, tmp_path):
        scenario.load(store)
        other = RigStore(database.open_database(tmp_path / "other"))
        scenario.load(other)
        assert [k.present.rig for k in store.all()] == [k.present.rig for k in other.all()]
        assert [k.entries for k in store.all()] == [k.entries for k in other.all()]
        other.engine.dispose()

    def test_three_rigs_of_three_kinds_with_due_stations(self, store):
        scenario.load(store)
        kept = store.all()
        assert {k.present.rig.bow.form for k in kept} == {"recurve", "hybrid", "static_tip"}
        assert {k.present.rig.archer.release for k in kept} == {"three_under", "split", "thumb"}
        assert "left" in {k.present.rig.archer.hand for k in kept}
        for k in kept:
            times = [datetime.fromisoformat(e.at) for e in k.entries]
            assert times == sorted(times)

    def test_reset_brings_it_back(self, store):
        scenario.load(store)
        first = store.all()[0]
        store.keep(first.id, first.seq, {"name": "Spoilt"})
        scenario.reset(store)
        assert store.all()[0].present.rig.name != "Spoilt"
        assert len(store.all()) == 3
