"""What is kept beside a history always says what the history says, whatever was done."""

from contextlib import suppress

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from claims import share
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, difference
from lyrandis.core.history import Entry, State, UnreadEntry, fates, replay
from lyrandis.core.parts import Rig
from lyrandis.core.summary import summary
from lyrandis.core.trials import BraceTrial, CoachTrial, HoldTrial, InspectionTrial
from lyrandis.desk.views import view_of
from lyrandis.store import database, derived, present
from lyrandis.store.kept import Unreadable
from lyrandis.store.rigs import NothingError, RigStore

PATHS = (("bow.brace_height_in", "brace"), ("arrow.point_gr", "arrow"), ("notes", None))
ACTS = st.one_of(
    st.tuples(st.just("keep"), st.integers(0, 2), st.integers(0, 9)),
    st.tuples(st.just("log"), st.sampled_from(["hold", "brace"]), st.integers(1, 9)),
    st.tuples(st.just("put right"), st.integers(0, 3), st.integers(1, 9)),
    st.tuples(st.just("strike"), st.integers(0, 3), st.booleans()),
    st.tuples(st.just("check"), st.sampled_from(["brace", "string"])),
    st.tuples(st.just("undo")),
    st.tuples(st.just("undo")),
    st.tuples(st.just("redo")),
)


def value_of(path, n):
    return {"notes": f"note {n}", "arrow.point_gr": 100.0 + n}.get(path, 7.5 + n / 10)


def trial_of(kind, n):
    if kind == "hold":
        return HoldTrial(weight_lbf=36, seconds=n, day=f"2026-03-0{n}")
    return BraceTrial(brace_height_in=7 + n / 10)


def do(store, id, act):
    kept = store.get(id)
    what, *given = act
    stands = [t.seq for t in kept.present.trials]
    if what == "keep":
        path, station = PATHS[given[0]]
        store.keep(id, kept.seq, {path: value_of(path, given[1])}, station)
    elif what == "log":
        extra = {"taste": given[1] / 10} if given[1] % 2 else {}
        store.keep(id, kept.seq, extra, "brace", trial=trial_of(*given))
    elif what == "check":
        store.check(id, kept.seq, given[0], "settled")
    elif what in ("put right", "strike") and stands:
        seq = stands[given[0] % len(stands)]
        if what == "strike":
            store.strike(id, kept.seq, seq, given[1])
        else:
            kind = next(t.trial.kind for t in kept.present.trials if t.seq == seq)
            store.keep(id, kept.seq, {}, "brace", trial=trial_of(kind, given[1]), about=seq)
    elif what in ("undo", "redo"):
        with suppress(NothingError):
            getattr(store, what)(id, kept.seq)


def says_the_same(kept, base, entries):
    """What is kept against the plain replay of the whole list."""
    told = replay(base, entries)
    assert kept.present.rig == told.rig
    assert set(kept.present.marks) == set(told.marks)
    assert kept.present.undoable == told.undoable
    assert kept.present.redoable == told.redoable
    assert kept.present.trials == tuple(sorted(told.trials, key=lambda t: t.seq))
    assert kept.seq == len(entries)


@pytest.fixture(scope="module")
def shared(tmp_path_factory):
    engine = database.open_database(tmp_path_factory.mktemp("lives"))
    yield RigStore(engine)
    engine.dispose()


@settings(max_examples=share(60, 15), suppress_health_check=list(HealthCheck))
@given(acts=st.lists(ACTS, min_size=1, max_size=25))
def test_whatever_was_done_the_snapshot_says_what_the_list_says(shared, acts):
    derived.CHECKPOINT_EVERY, usual = 3, derived.CHECKPOINT_EVERY
    try:
        made = shared.create(Rig(name="Any"))
        id, base = made.id, made.base
        for act in acts:
            do(shared, id, act)
            says_the_same(shared.get(id), base, list(shared.entries(id)))
        kept = shared.get(id)
        entries = list(shared.entries(id))
        line = shared.lines(id)[0]
        assert line.summary == summary(State(kept.present.rig, kept.present.marks))
        with shared.engine.connect() as connection:
            assert list(derived.unlike_their_history(connection)) == []
        # Made anew from the list, and brought with a file, it is the same again.
        with shared.engine.begin() as connection:
            connection.exec_driver_sql("DELETE FROM snapshots")
        assert shared.get(id) == kept
        taken = shared.create(base, entries, brought={})
        says_the_same(taken, base, entries)
        # And every page of the logbook speaks of the same entries.
        page = shared.page(id, None, 0, 500)
        assert list(page.entries) == entries[::-1]
        acts_on = fates(e.kind for e in entries).acts_on
        assert page.acts_on == {entries[a].seq: entries[b].seq for a, b in acts_on.items()}
    finally:
        derived.CHECKPOINT_EVERY = usual


@given(
    st.fixed_dictionaries(
        {},
        optional={
            "name": st.text("abc", min_size=1, max_size=5),
            "bow.measured": st.just([[20.0, 18.0], [28.0, 36.0]]),
            "aim.distances_m": st.lists(st.sampled_from([10.0, 15.5, 40.0]), min_size=1),
            "archer.grown": st.sampled_from(["adult", "child"]),
            "bow.brace_height_in": st.none() | st.just(8.25),
        },
    )
)
def test_a_difference_leads_from_one_rig_to_the_other_and_names_no_more(changes):
    before = Rig(name="Before", notes="as it was")
    after = changed(before, changes)
    found = difference(before, after)
    assert changed(before, found) == after
    assert changed(after, difference(after, before)) == before
    assert set(found) <= set(changes)
    assert difference(after, after) == {}


def test_a_step_back_reads_no_more_than_lies_between_checkpoints(store, monkeypatch):
    id = store.create(Rig()).id
    for i in range(150):
        store.keep(id, i, {"string.strands": 10 + i % 9}, "string")
    read = []
    monkeypatch.setattr(derived, "read_entry", lambda row: read.append(row.seq) or real(row))
    from lyrandis.store.present import read_entry as real

    store.undo(id, 150)
    assert len(read) <= derived.CHECKPOINT_EVERY
    store.undo(id, 151)
    store.redo(id, 152)
    assert store.get(id).present.rig.string.strands == 10 + 148 % 9


def test_the_latest_trials_count_and_the_earlier_ones_are_had_by_the_page(store):
    id = store.create(Rig()).id
    entries = [
        Entry(seq=n, kind="trial", at=f"2026-01-01T10:{n % 60:02d}:00Z", station="brace",
              trial=BraceTrial(brace_height_in=8 + n % 60 / 60, day=f"2026-01-{1 + n % 9:02d}"))
        for n in range(1, 61)
    ]  # fmt: skip
    id = store.create(Rig(), entries).id
    kept = store.get(id)
    every = sorted(replay(kept.base, entries).trials, key=lambda t: (t.day, t.seq), reverse=True)
    assert kept.present.trials == tuple(sorted(every[: present.MOST_TRIALS], key=lambda t: t.seq))
    paged, after = [], None
    while found := store.trials(id, "brace", after, 7):
        paged += found
        after = found[-1].seq
    assert paged == every
    assert store.trials(id, "brace", None, None) == every
    assert store.trials(id, "hold", None, 7) == []


HELD = 500  # more than what is looked at of the latest


@pytest.mark.parametrize("healed", [False, True])
def test_of_safety_nothing_that_counts_is_forgotten(store, healed):
    """Pain, what ended it, and what was found, behind hundreds of later holds and looks."""
    said = [HoldTrial(weight_lbf=36, seconds=4, ended="pain", day="2026-01-01")]
    if healed:
        said += [HoldTrial(weight_lbf=36, seconds=12, day="2026-01-09")] * 3
    said += [HoldTrial(weight_lbf=20, seconds=30, day="2026-02-01")] * HELD
    said += [InspectionTrial(looked=("tips",), found=("tips",), day="2026-01-01")]
    said += [InspectionTrial(looked=("tips",), day="2026-02-01")] * HELD
    said += [CoachTrial(weight_lbf=20, word="a coach", day="2026-01-01")]
    entries = [
        Entry(seq=n, kind="trial", at="2026-03-01T10:00:00Z", station="weight", trial=trial)
        for n, trial in enumerate(said, 1)
    ]
    kept = store.get(store.create(Rig(), entries).id)
    assert len(kept.present.trials) < HELD
    every = Bench(kept.present.rig, replay(kept.base, entries).trials)
    b = Bench(kept.present.rig, kept.present.trials)
    assert (b.archer.strength.pain is None) == healed
    assert b.archer.strength.pain == every.archer.strength.pain
    assert b.archer.strength.lasting_lbf == every.archer.strength.lasting_lbf
    assert b.archer.allowed_lbf == 20
    assert b.stopped.keys() == every.stopped.keys() != set()
    past = store.as_of(kept.id, kept.seq)
    assert {t.seq for t in kept.present.trials} <= {t.seq for t in past.present.trials}


def spoil(store, statement):
    with store.engine.begin() as connection:
        connection.exec_driver_sql(statement)


def test_a_damaged_entry_long_ago_closes_nothing(store):
    id = store.create(Rig()).id
    for i in range(5):
        store.keep(id, i, {"string.strands": 10 + i}, "string")
    spoil(store, f"UPDATE entries SET changes = '[{{' WHERE rig_id = {id} AND seq = 2")
    assert store.get(id).present.rig.string.strands == 14
    store.keep(id, 5, {"string.strands": 30}, "string")
    page = store.page(id, None, 0, 50)
    assert [isinstance(e, UnreadEntry) for e in page.entries] == [False] * 4 + [True, False]
    with store.engine.connect() as connection:
        ((name, why),) = derived.unlike_their_history(connection)
    assert name == "New rig"
    assert why.startswith("entry 2: ")


@pytest.mark.parametrize(
    "statement",
    [
        "UPDATE snapshots SET state = 'no json'",
        "UPDATE snapshots SET state = '{}'",
        "UPDATE snapshots SET state = NULL",
        "UPDATE snapshots SET summary = '{\"name\": 5}'",
        "UPDATE snapshots SET made_by = 0",
        "UPDATE snapshots SET seq = 1",
        'UPDATE trials SET trial = \'{"kind": "dream"}\'',
        "UPDATE trials SET made_with = '{\"bow.colour\": 1}'",
        "DELETE FROM snapshots",
    ],
)
def test_what_is_kept_beside_a_history_heals_itself(store, statement):
    id = store.create(Rig()).id
    store.keep(id, 0, {"string.strands": 12}, "string")
    store.keep(id, 1, {}, "weight", trial=HoldTrial(weight_lbf=36, seconds=9))
    kept, line = store.get(id), store.lines()[0]
    spoil(store, statement)
    assert store.lines() == [line]
    assert store.get(id) == kept
    assert store.keep(id, 2, {"string.strands": 13}, "string").seq == 3


def test_a_snapshot_that_says_otherwise_is_found_when_the_data_is_looked_over(store):
    id = store.create(Rig()).id
    store.keep(id, 0, {"string.strands": 12}, "string")
    spoil(store, "UPDATE snapshots SET state = replace(state, '12', '13')")
    with store.engine.connect() as connection:
        ((_, why),) = derived.unlike_their_history(connection)
    assert "not what its history says" in why


def test_trials_that_say_otherwise_are_found_too(store):
    id = store.create(Rig()).id
    store.keep(id, 0, {}, "weight", trial=HoldTrial(weight_lbf=36, seconds=9))
    with store.engine.connect() as connection:
        assert list(derived.unlike_their_history(connection)) == []
    spoil(store, "UPDATE trials SET struck = 1")
    with store.engine.connect() as connection:
        ((_, why),) = derived.unlike_their_history(connection)
    assert "take out its file" in why


def test_what_can_be_taken_back_is_told_however_old_its_trial_is(store):
    entries = [
        Entry(seq=n, kind="trial", at="2026-01-01T10:00:00Z", station="brace",
              trial=BraceTrial(brace_height_in=7 + n / 32, day=f"2026-01-{n:02d}"))
        for n in range(1, present.MOST_TRIALS + 1)
    ]  # fmt: skip
    late = BraceTrial(brace_height_in=8.5, day="2026-02-01")
    id = store.create(Rig(), entries).id
    seq = store.keep(id, len(entries), {}, "brace", trial=late).seq
    kept = store.strike(id, seq, 1, True)
    assert 1 not in {t.seq for t in kept.present.trials}
    assert "brace 7 in" in view_of(kept, store.digests).undoable.plain().lower()


def test_a_rig_whose_numbers_break_hides_no_other(store, monkeypatch):
    ids = [store.create(Rig(name=name)).id for name in ("Good", "Odd")]

    def broken(state):
        if state.rig.name == "Odd":
            raise ZeroDivisionError("secret path")
        return summary(state)

    monkeypatch.setattr(derived, "summary", broken)
    spoil(store, "DELETE FROM snapshots")
    good, odd = store.lines()
    assert good.summary.name == "Good"
    assert isinstance(odd, Unreadable)
    assert "Fault" in odd.reason or "fault" in odd.reason
    assert "secret" not in odd.reason
    assert store.get(ids[0]).present.rig.name == "Good"


def test_a_refused_write_leaves_nothing_behind(store):
    id = store.create(Rig()).id
    store.keep(id, 0, {}, "weight", trial=HoldTrial(weight_lbf=36, seconds=9))
    kept = store.get(id)

    def never(*_):
        raise RefusedError("rig", "no")

    store.may_keep = never
    for act in (
        lambda: store.keep(id, 1, {"string.strands": 12}, "string"),
        lambda: store.strike(id, 1, 1, True),
        lambda: store.undo(id, 1),
        lambda: store.create(Rig(), list(store.entries(id))),
    ):
        with pytest.raises(RefusedError):
            act()
    assert store.get(id) == kept
    assert len(store.lines()) == 1
    with store.engine.connect() as connection:
        assert list(derived.unlike_their_history(connection)) == []
