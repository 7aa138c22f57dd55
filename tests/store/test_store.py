"""Keeping: survives a restart, migrates with a backup, never loses an entry."""

import json
import shutil
import sqlite3
from datetime import datetime

import pytest
from alembic import command
from sqlalchemy import create_engine, text
from sqlalchemy.exc import IntegrityError

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String
from lyrandis.core.route import states
from lyrandis.core.schedule import schedule
from lyrandis.core.stations import views
from lyrandis.core.trials import KINDS, FlightReadTrial, HoldTrial
from lyrandis.demo import scenario
from lyrandis.desk.papers import bench_of
from lyrandis.store import database
from lyrandis.store.preferences import PreferenceStore
from lyrandis.store.rigs import (
    ConflictError,
    MissingError,
    NothingError,
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
    entries = list(again.entries(made.id))
    assert entries[0].why == "why not"
    assert entries[0].changes[0].before is None
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
    assert [e.seq for e in store.entries(made.id)] == [1, 2, 3, 4, 5, 6]
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
    assert copy.base.name == "Two"
    assert copy.base.on == made.base.on  # the same bow and string, not others like them
    stand = {s.station: s.state for s in states(copy.present.marks, copy.present.rig)}
    assert stand.pop("bow-length") == "provisional"
    assert set(stand.values()) == {"open"}


def test_archive_and_back(store):
    made = store.create(Rig())
    assert store.archive(made.id, True).archived_at is not None
    assert store.archive(made.id, False).archived_at is None


def test_the_file_is_wal_with_foreign_keys(store):
    with store.engine.connect() as connection:
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
        assert connection.execute(text("PRAGMA foreign_keys")).scalar() == 1
        assert (
            connection.execute(text("SELECT version_num FROM alembic_version")).scalar() == "0008"
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


def test_what_an_earlier_version_wrote_is_kept(tmp_path):
    """A folder with the tables of 0001 and rigs in it comes up whole, with a copy put beside it."""
    engine = create_engine(f"sqlite:///{tmp_path / database.FILE_NAME}")
    config = database._config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
        connection.execute(
            text("INSERT INTO rigs VALUES (1, :base, '2026-01-01T10:00:00+00:00', NULL)"),
            {"base": json.dumps({"name": "Old", "bow": {"length_in": 66}})},
        )
        connection.execute(
            text(
                "INSERT INTO entries VALUES (5, 1, 1, 'adjust', '2026-01-02T10:00:00+00:00', "
                "'brace', 'settled', 'quiet', :changes)"
            ),
            {"changes": json.dumps([{"path": "bow.brace_height_in", "after": 8.0}])},
        )
    engine.dispose()
    store = RigStore(database.open_database(tmp_path))
    old = store.get(1)
    assert old.present.rig.bow.brace_height_in == 8.0
    entry = next(store.entries(1))
    assert (entry.why, entry.trial) == ("quiet", None)
    assert old.present.trials == ()
    kept = store.keep(1, 1, {}, "weight", trial=HoldTrial(weight_lbf=36, seconds=9))
    assert kept.present.trials[0].trial.seconds == 9
    with pytest.raises(IntegrityError), store.engine.begin() as raw:
        raw.execute(text("UPDATE entries SET kind = 'other'"))
    assert len(list(tmp_path.glob("before-0008-*.db"))) == 1
    store.engine.dispose()


def test_trials_survive_a_restart_and_are_struck_out_not_lost(store, tmp_path):
    made = store.create(Rig())
    hold = HoldTrial(weight_lbf=36, seconds=9, notes="cold hands")
    store.keep(made.id, 0, {"archer.draw_length_in": 28.5}, "draw", trial=hold)
    store.keep(made.id, 1, {}, "weight", trial=hold.model_copy(update={"seconds": 10}), about=1)
    store.strike(made.id, 2, 1, True, "wrong bow")
    store2 = RigStore(database.open_database(tmp_path))
    again = store2.get(made.id)
    assert [t.trial.seconds for t in again.present.trials] == [10]
    assert again.present.trials[0].struck
    assert again.present.rig.archer.draw_length_in == 28.5
    assert [e.kind for e in store2.entries(made.id)] == ["trial", "trial", "strike"]
    # A trial alone says nothing of how its station stands; one that brings changes does.
    assert [m.station for m in again.present.marks] == ["draw"]
    assert not store.strike(made.id, 3, 1, False).present.trials[0].struck
    with pytest.raises(RefusedError):
        store.strike(made.id, 4, 9, True)
    assert store.get(made.id).seq == 4
    store2.engine.dispose()


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
    @pytest.fixture
    def demo(self, tmp_path, demo_rigs):
        """A store of the demo's rigs."""
        shutil.copytree(demo_rigs, tmp_path / "demo")
        engine = database.open_database(tmp_path / "demo")
        yield RigStore(engine)
        engine.dispose()

    def test_the_scenario_is_always_the_same(self, demo, tmp_path):
        other = RigStore(database.open_database(tmp_path / "other"))
        scenario.load(other)
        assert [k.present.rig for k in demo.all()] == [k.present.rig for k in other.all()]
        for k in demo.all():
            assert list(demo.entries(k.id)) == list(other.entries(k.id))
        other.engine.dispose()

    def test_three_rigs_of_three_kinds_with_due_stations(self, demo):
        kept = demo.all()
        assert {k.present.rig.bow.form for k in kept} == {"recurve", "hybrid", "static_tip"}
        assert {k.present.rig.archer.release for k in kept} == {"three_under", "split", "thumb"}
        assert "left" in {k.present.rig.archer.hand for k in kept}
        for k in kept:
            times = [datetime.fromisoformat(e.at) for e in demo.entries(k.id)]
            assert times == sorted(times)

    def test_reset_brings_it_back(self, demo):
        first = demo.all()[0]
        demo.keep(first.id, first.seq, {"name": "Spoilt"})
        scenario.reset(demo)
        assert demo.all()[0].present.rig.name != "Spoilt"
        assert len(demo.all()) == 3

    def test_every_kind_of_trial_stands_in_the_demo_at_its_own_station(self, demo):
        seen = {}
        for kept in demo.all():
            entries = list(demo.entries(kept.id))
            for trial in kept.present.trials:
                seen.setdefault(trial.trial.kind, []).append(trial)
                entry = entries[trial.seq - 1]
                assert entry.station == trial.trial.station
                assert trial.at == entry.at
        assert set(seen) == set(KINDS) - {"release", "coach"}  # nothing was found, no child shoots
        assert not any(t.struck for trials in seen.values() for t in trials)

    def test_the_demos_archers_have_something_to_do(self, demo):
        """Each rig shows at least one thing due, and none a finding that stops it."""
        for kept in demo.all():
            present = kept.present
            bench = Bench(present.rig, present.trials, "2026-06-01T10:00:00+00:00")
            due = schedule(bench, states(present.marks, present.rig))
            assert any(d.when == "now" for d in due)
            assert [v.station for v in views(bench) if v.problem] == []


def test_verdicts_of_the_archers_other_rigs_are_counted(store):
    """By the archer's name, on rigs whose same state was read again after a verdict."""
    reads = [
        FlightReadTrial(test="kick_7_paces", nocks=(4, 4, 4)),
        FlightReadTrial(test="wear_marks", outcome="no", arrows=0),
        FlightReadTrial(test="slow_motion", outcome="clear"),
        FlightReadTrial(test="kick_3_paces", nocks=(4, 4, 4)),
        FlightReadTrial(test="bare_shaft_15m", outcome="weak2/level", arrows=6),
        FlightReadTrial(test="kick_7_paces", nocks=(4, 4, 4)),
    ]
    weak = {
        "bow": Bow(
            form="recurve", length_in=68, marked_weight_lbf=42, takedown=True, centre_cut_mm=5,
            side_plate="plunger", side_plate_mm=4, brace_height_in=8,
        ),
        "string": String(mass_gr=105),
        "arrow": Arrow(shaft_length_in=29.5, static_spine=800),
    }  # fmt: skip
    one, other, mine = (
        store.create(Rig(name=n, archer=Archer(name=who), **weak))
        for n, who in (("One", "Ada"), ("Other", "Bo"), ("Mine", "Ada"))
    )
    for seq, read in enumerate(reads):
        store.keep(one.id, seq, {}, "flight", trial=read)
    own = bench_of(store.get(one.id), "2026-05-01T10:00:00+00:00").reading
    assert (own.own_held.checked, own.elsewhere.checked) == (1, 0)
    assert store.get(mine.id).verdicts == own.own_held
    assert store.get(other.id).verdicts.checked == 0
    assert bench_of(store.get(mine.id), "2026-05-01T10:00:00+00:00").reading.held.checked == 1
