"""A rig as it stood after each of its entries, and the days on which something was entered."""

import shutil

import pytest

from lyrandis.core.history import replay
from lyrandis.core.parts import Rig
from lyrandis.core.trials import BraceTrial
from lyrandis.store.database import open_database
from lyrandis.store.errors import MissingError
from lyrandis.store.rigs import RigStore


@pytest.fixture(scope="module")
def store(tmp_path_factory, demo_rigs):
    folder = tmp_path_factory.mktemp("past") / "data"
    shutil.copytree(demo_rigs, folder)
    engine = open_database(folder)
    yield RigStore(engine)
    engine.dispose()


@pytest.mark.parametrize("id", [1, 2, 3])
def test_it_is_what_its_history_makes_of_it_by_then(store, id):
    kept, entries = store.get(id), list(store.entries(id))
    for seq in range(kept.seq + 1):
        then = store.as_of(id, seq)
        replayed = replay(kept.base, entries[:seq], kept.created_at)
        assert then.present.rig == replayed.rig
        assert [t.seq for t in then.present.trials] == sorted(t.seq for t in replayed.trials)
        assert set(then.parts) == set(then.present.rig.on.slots())
        assert all(t.at <= then.changed_at for t in then.elsewhere)
    assert store.as_of(id, kept.seq).present.rig == kept.present.rig


def test_what_was_taken_back_and_done_again_is_so_then_too(store):
    rig = store.create(Rig(name="To and fro"))
    for brace in (8.0, 8.25, 8.5):
        rig = store.keep(rig.id, rig.seq, {"bow.brace_height_in": brace}, "brace")
    trial = BraceTrial(brace_height_in=8.5, levels_db=(60.0,))
    rig = store.keep(rig.id, rig.seq, {}, "brace", trial=trial)
    rig = store.undo(rig.id, rig.seq)
    rig = store.undo(rig.id, rig.seq)
    rig = store.redo(rig.id, rig.seq)
    braces = [store.as_of(rig.id, n).present.rig.bow.brace_height_in for n in range(rig.seq + 1)]
    assert braces == [None, 8.0, 8.25, 8.5, 8.5, 8.5, 8.25, 8.5]


def test_an_entry_that_is_not_there_is_missing(store):
    for seq in (-1, store.get(1).seq + 1):
        with pytest.raises(MissingError):
            store.as_of(1, seq)
    with pytest.raises(MissingError):
        store.days(999)


def test_the_days_are_told_the_latest_first_with_what_was_touched(store):
    days, entries = store.days(1), list(store.entries(1))
    assert [d.day for d in days] == sorted({e.at[:10] for e in entries}, reverse=True)
    assert sum(d.entries for d in days) == len(entries)
    for d in days:
        mine = [e for e in entries if e.at[:10] == d.day]
        assert d.seq == mine[-1].seq
        assert set(d.stations) == {e.station for e in mine if e.station}
