"""Parts are kept once: whatever is done where, every rig says of its parts what they are."""

from contextlib import suppress

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from claims import share
from lyrandis.core.errors import RefusedError
from lyrandis.core.history import replay
from lyrandis.core.parts import (
    Archer,
    Arrow,
    ArrowSet,
    Bow,
    BowPart,
    LimbPart,
    Part,
    Rig,
    RiserPart,
    Shaft,
    String,
    StringPart,
    differing,
)
from lyrandis.core.parts.base import at
from lyrandis.core.route import moved_since
from lyrandis.core.trials import MEASURES, WeighingTrial
from lyrandis.store import database, derived, rack
from lyrandis.store.errors import ConflictError, MissingError, NothingError
from lyrandis.store.rigs import RigStore

STRING = Part(name="Spare", of=StringPart(strands=16, twists=20))


@pytest.fixture
def store(tmp_path):
    engine = database.open_database(tmp_path)
    yield RigStore(engine)
    engine.dispose()


def agrees(store):
    """Every rig with every part, every part with its story, every snapshot with its list."""
    for kept in store.all():
        rig = kept.present.rig
        assert set(kept.parts) == set(rig.on.slots())
        for slot, part in kept.parts.items():
            assert differing(rig, slot, part.part) == {}, (rig.name, slot)
        told = replay(kept.base, list(store.entries(kept.id)))
        assert told.rig == rig
    with store.engine.connect() as connection:
        assert list(rack.faults(connection)) == []
        assert list(derived.unlike_their_history(connection)) == []
        on = {(u.rig_id, u.slot, u.mark) for u in rack.uses(connection, now_only=True)}
    assert on == {(k.id, s, p.mark) for k in store.all() for s, p in k.parts.items()}


def test_a_new_rig_is_given_its_parts(store):
    one = store.create(Rig(name="One", archer=Archer(name="Ilse"), bow=Bow(takedown=False)))
    assert set(one.parts) == {"archer", "bow", "string", "arrows"}
    assert one.parts["archer"].part.name == "Ilse"
    two = store.create(Rig(name="Two", bow=Bow(takedown=True, riser_in=23)))
    assert set(two.parts) == {"archer", "riser", "upper_limb", "lower_limb", "string", "arrows"}
    limb = two.parts["lower_limb"].part.of
    assert (limb.which, limb.marked_riser_in) == ("lower", 23)
    assert one.seq == two.seq == 0
    agrees(store)


def test_an_archers_draw_that_grew_reaches_every_rig_and_is_taken_back_as_one(store):
    one = store.create(Rig(name="One", archer=Archer(name="Ilse", draw_length_in=27)))
    two = store.copy(one.id, "Two")
    other = store.create(Rig(name="Not hers"))
    kept = store.keep(one.id, 0, {"archer.draw_length_in": 27.5}, "draw")
    assert store.get(two.id).present.rig.archer.draw_length_in == 27.5
    assert store.rack.get(one.parts["archer"].mark).part.of.draw_length_in == 27.5
    assert store.get(other.id).seq == 0
    latest = list(store.entries(two.id))[-1]
    assert (latest.station, latest.why) == (None, "Ilse: on One")
    store.undo(one.id, kept.seq)
    assert {store.get(i).present.rig.archer.draw_length_in for i in (one.id, two.id)} == {27}
    agrees(store)
    # From the other rig it is taken back as well: there it is one entry like any other.
    store.redo(one.id, store.get(one.id).seq)
    store.undo(two.id, store.get(two.id).seq)
    assert {store.get(i).present.rig.archer.draw_length_in for i in (one.id, two.id)} == {27}
    agrees(store)


def test_a_part_changed_on_its_own_page_reaches_every_rig_and_is_undone_there(store):
    one = store.create(Rig(name="One"))
    two = store.copy(one.id, "Two")
    mark = one.parts["arrows"].mark
    part = store.rack.change(mark, 0, {"of.point_gr": 125.0, "name": "Field set"}, "heavier points")
    assert (part.seq, part.part.name) == (1, "Field set")
    assert [store.get(i).present.rig.arrow.point_gr for i in (one.id, two.id)] == [125, 125]
    with pytest.raises(ConflictError):
        store.rack.change(mark, 0, {"of.point_gr": 130.0})
    with pytest.raises(RefusedError, match="at most 600 gr"):
        store.rack.change(mark, 1, {"of.point_gr": 1300.0})
    with pytest.raises(RefusedError, match="not a setting"):
        store.rack.change(mark, 1, {"of.strands": 12})
    store.rack.undo(mark, 1)
    assert [store.get(i).present.rig.arrow.point_gr for i in (one.id, two.id)] == [110, 110]
    store.rack.redo(mark, 2)
    assert store.get(two.id).present.rig.arrow.point_gr == 125
    with pytest.raises(NothingError):
        store.rack.redo(mark, 3)
    assert [e.kind for e in store.rack.story(mark)] == ["adjust", "undo", "redo"]
    agrees(store)


def test_another_string_brings_its_own_and_what_changed_meanwhile_comes_along(store):
    one = store.create(Rig(name="One", string=String(strands=14, twists=10)))
    two = store.copy(one.id, "Two")
    first = one.parts["string"].mark
    spare = store.rack.make(STRING)
    kept = store.put_on(one.id, 0, "string", spare.mark, why="the old one is worn")
    rig = kept.present.rig
    assert (rig.string.strands, rig.string.twists) == (16, 20)
    assert rig.on.string == spare.mark
    assert rig.on.strings == (first, spare.mark)
    entry = list(store.entries(one.id))[-1]
    assert (entry.station, entry.parts[0].name) == ("string", "Spare")
    # The first string is turned on the other rig, and comes back as it is now.
    store.keep(two.id, 0, {"string.twists": 30}, "string")
    assert store.get(one.id).present.rig.string.twists == 20
    back = store.undo(one.id, kept.seq)
    assert back.present.rig.string.twists == 30
    assert back.present.rig.on.string == first
    agrees(store)


def test_what_cannot_be_put_on_is_refused(store):
    one = store.create(Rig(name="One", bow=Bow(takedown=False)))
    spare = store.rack.make(STRING)
    with pytest.raises(RefusedError, match="cannot be put"):
        store.put_on(one.id, 0, "arrows", spare.mark)
    with pytest.raises(RefusedError, match="in one piece"):
        store.put_on(one.id, 0, "riser", new=Part(name="R", of=RiserPart()))
    with pytest.raises(MissingError):
        store.put_on(one.id, 0, "string", "0" * 32)
    lent = {"keeping.state": "lent", "keeping.to": "Jonas", "keeping.since": "2026-05-01"}
    store.rack.change(spare.mark, 0, lent)
    with pytest.raises(RefusedError, match="lent to Jonas"):
        store.put_on(one.id, 0, "string", spare.mark)
    with pytest.raises(RefusedError, match="by whose word"):
        store.rack.change(spare.mark, 1, {"keeping.state": "condemned"})
    gone = {"keeping.state": "condemned", "keeping.why": "worn through", "keeping.word": "Ruta"}
    store.rack.change(spare.mark, 1, gone)
    with pytest.raises(RefusedError, match="stays condemned"):
        store.rack.undo(spare.mark, 2)
    with pytest.raises(RefusedError, match="condemned"):
        store.put_on(one.id, 0, "string", spare.mark)
    assert store.get(one.id).seq == 0
    agrees(store)


def test_limbs_and_risers_make_a_takedowns_length_and_weight(store):
    one = store.create(Rig(bow=Bow(takedown=True, length_in=68, riser_in=25, marked_weight_lbf=34)))
    limb = {"limb_class": "long", "marked_weight_lbf": 30.0}
    kept = store.put_on(one.id, 0, "upper_limb",
                        new=Part(name="U", of=LimbPart(which="upper", **limb)))  # fmt: skip
    kept = store.put_on(one.id, kept.seq, "lower_limb",
                        new=Part(name="L", of=LimbPart(which="lower", **limb)))  # fmt: skip
    bow = kept.present.rig.bow
    assert (bow.length_in, bow.marked_weight_lbf) == (70, 30)
    kept = store.put_on(one.id, kept.seq, "riser", new=Part(name="R", of=RiserPart(riser_in=23)))
    bow = kept.present.rig.bow
    assert (bow.length_in, bow.marked_weight_lbf) == (68, 31.5)
    agrees(store)


def test_another_construction_is_another_bow(store):
    one = store.create(Rig(name="One", bow=Bow(takedown=True)))
    kept = store.keep(one.id, 0, {"bow.takedown": False}, "bow-length")
    assert set(kept.parts) == {"archer", "bow", "string", "arrows"}
    agrees(store)
    back = store.undo(one.id, kept.seq)
    assert back.parts["riser"].mark == one.parts["riser"].mark
    agrees(store)


def test_two_limbs_share_what_a_bow_has_once(store):
    one = store.create(Rig(name="One"))
    two = store.copy(one.id, "Two")
    kept = store.put_on(
        two.id, two.seq, "lower_limb", new=Part(name="L", of=LimbPart(which="lower"))
    )
    store.keep(one.id, 0, {"bow.maker_max_draw_in": 31.0}, "weight")
    rig = store.get(two.id).present.rig
    assert rig.bow.maker_max_draw_in == 31
    assert store.rack.get(kept.parts["lower_limb"].mark).part.of.maker_max_draw_in == 31
    agrees(store)


def test_what_was_weighed_on_one_rig_is_known_on_the_next_and_taken_back_there_too(store):
    one = store.create(Rig(name="One"))
    two = store.copy(one.id, "Two")
    kept = store.keep(one.id, 0, {"arrow.weighed_gr": 402.0}, "arrow")
    assert list(store.entries(one.id))[-1].trial.mass_gr == 402
    assert store.get(two.id).present.rig.arrow.weighed_gr == 402
    # A heavier point on the other rig: it is an estimate again on both, and undone on both.
    changed = store.keep(two.id, store.get(two.id).seq, {"arrow.point_gr": 125.0}, "arrow")
    assert changed.present.rig.arrow.weighed_gr is None
    assert store.get(one.id).present.rig.arrow.weighed_gr is None
    store.undo(two.id, changed.seq)
    assert [store.get(i).present.rig.arrow.weighed_gr for i in (one.id, two.id)] == [402, 402]
    kept = store.strike(one.id, store.get(one.id).seq, kept.seq, True)
    assert [store.get(i).present.rig.arrow.weighed_gr for i in (one.id, two.id)] == [None, None]
    agrees(store)


def test_two_things_measured_at_once_are_two_trials_and_a_cleared_one_is_struck_out(store):
    made = store.create(Rig(name="One"))
    kept = store.keep(made.id, 0, {"arrow.weighed_gr": 402.0, "string.mass_gr": 90.0}, "arrow")
    assert [t.trial.kind for t in kept.present.trials] == ["arrow_weighing", "string_weighing"]
    kept = store.keep(made.id, kept.seq, {"arrow.weighed_gr": None}, "arrow")
    assert kept.present.rig.arrow.weighed_gr is None
    assert kept.present.trials[0].struck
    assert kept.present.rig.string.mass_gr == 90
    other = store.copy(made.id, "Two")
    assert other.present.rig.string.mass_gr == 90  # known by the string
    with pytest.raises(RefusedError, match="measured on One"):
        store.keep(other.id, other.seq, {"string.mass_gr": None}, "string")


def test_a_simulated_pull_is_logged_and_never_kept_as_measured(store):
    made = store.create(Rig(name="One"))
    pull = WeighingTrial(readings=((28.0, 37.0),), scale="simulated")
    kept = store.keep(made.id, 0, {"bow.measured": [[28.0, 37.0]]}, "weight", trial=pull)
    assert kept.present.rig.bow.measured == ()
    assert kept.present.trials[0].trial.scale == "simulated"


def test_a_rig_that_comes_with_measurements_traces_them_to_trials(store):
    base = Rig(arrow=Arrow(weighed_gr=388), bow=Bow(measured=((28.0, 36.0),)))
    kept = store.create(base)
    assert kept.seq == 0
    assert [t.seq for t in kept.present.trials] == [-2, -1]
    assert kept.present.rig == base.model_copy(update={"on": kept.base.on})
    kept = store.keep(kept.id, 0, {"bow.brace_height_in": 9.5}, "brace")
    assert kept.present.rig.bow.measured == ()
    kept = store.keep(kept.id, kept.seq, {"bow.brace_height_in": 8.5}, "brace")
    assert kept.present.rig.bow.measured == ((28.0, 36.0),)
    struck = store.strike(kept.id, kept.seq, -1, True)
    assert struck.present.rig.bow.measured == ()
    assert store.undo(kept.id, struck.seq).present.rig.bow.measured == ((28.0, 36.0),)
    agrees(store)


def test_shafts_are_numbered_once():
    with pytest.raises(ValueError, match="number 3"):
        ArrowSet(shafts=(Shaft(number=3), Shaft(number=3)))


RIG_CHANGES = [
    ("archer.draw_length_in", st.sampled_from([27.0, 28.0, 28.5]), "draw"),
    ("string.twists", st.sampled_from([None, 12, 20, 28]), "string"),
    ("arrow.point_gr", st.sampled_from([90.0, 110.0, 125.0]), "arrow"),
    ("bow.tips", st.sampled_from(["working", "short"]), "bow-length"),
    ("limbs.upper_lbf", st.sampled_from([None, 34.0, 36.0]), "weight"),
    ("bow.brace_height_in", st.sampled_from([8.0, 8.25]), "brace"),
    ("bow.takedown", st.booleans(), "bow-length"),
]
PART_CHANGES = {
    "archer": ("of.draw_length_in", 29.0),
    "bow": ("of.marked_weight_lbf", 40.0),
    "riser": ("of.side_plate", "leather"),
    "limb": ("of.marked_draw_in", 27.0),
    "string": ("of.strands", 12),
    "arrows": ("of.fletching_gr", 12.0),
}
WHICH = st.integers(0, 5)
ACTS = st.one_of(
    st.tuples(st.just("keep"), WHICH, st.sampled_from(RIG_CHANGES), st.data()),
    st.tuples(st.just("undo"), WHICH),
    st.tuples(st.just("redo"), WHICH),
    st.tuples(st.just("swap"), WHICH, st.integers(0, 40)),
    st.tuples(st.just("copy"), WHICH),
    st.tuples(st.just("weigh"), WHICH, st.sampled_from(["arrow.weighed_gr", "bow.measured"])),
    st.tuples(st.just("strike"), WHICH, st.integers(0, 9)),
    st.tuples(st.just("part"), st.integers(0, 40), st.sampled_from(["change", "undo", "redo"])),
)


def act(store, what, *given):
    ids = [line.id for line in store.lines()]
    if what == "part":
        every = store.rack.all()
        part = every[given[0] % len(every)]
        with suppress(NothingError):
            if given[1] == "change":
                path, value = PART_CHANGES[part.kind]
                store.rack.change(part.mark, part.seq, {path: value})
            else:
                getattr(store.rack, given[1])(part.mark, part.seq)
        return
    kept = store.get(ids[given[0] % len(ids)])
    if what == "keep":
        path, values, station = given[1]
        store.keep(kept.id, kept.seq, {path: given[2].draw(values)}, station)
    elif what == "swap":
        every = store.rack.all()
        part = every[given[1] % len(every)]
        slot = next(s for s, k in (("archer", "archer"), ("bow", "bow"), ("riser", "riser"),
                                   ("upper_limb", "limb"), ("string", "string"),
                                   ("arrows", "arrows")) if k == part.kind)  # fmt: skip
        with suppress(RefusedError):
            store.put_on(kept.id, kept.seq, slot, part.mark)
    elif what == "weigh":
        value = 400.0 + kept.seq if given[1] != "bow.measured" else [[28.0, 34.0 + kept.seq / 10]]
        store.keep(kept.id, kept.seq, {given[1]: value}, "arrow")
    elif what == "strike" and kept.present.trials:
        trial = kept.present.trials[given[1] % len(kept.present.trials)]
        store.strike(kept.id, kept.seq, trial.seq, not trial.struck)
    elif what == "copy" and len(ids) < 5:
        store.copy(kept.id, f"Copy {len(ids)}")
    elif what in ("undo", "redo"):
        with suppress(NothingError):
            getattr(store, what)(kept.id, kept.seq)


def holds(kept):
    """Every setting shown as measured has a trial that stands, says so and still holds."""
    rig = kept.present.rig
    for measure in MEASURES:
        shown = at(rig, measure.path)
        if shown == measure.unmeasured:
            continue
        assert any(
            not t.struck
            and measure.value(t.trial) == shown
            and not moved_since(measure.kind.grounds, t.rig, rig)
            for t in kept.known
            if t.trial.kind == measure.name
        ), (rig.name, measure.path, shown)


def alike_but_for_shared_limbs(store):
    """As `agrees`; two limbs of other makes on one rig may differ in what a bow has once."""
    for kept in store.all():
        for slot, part in kept.parts.items():
            apart = differing(kept.present.rig, slot, part.part)
            if slot in ("upper_limb", "lower_limb"):
                apart = {p: v for p, v in apart.items() if not p.startswith("bow.")}
            assert apart == {}, (kept.present.rig.name, slot)
        assert replay(kept.base, list(store.entries(kept.id))).rig == kept.present.rig
        holds(kept)
    with store.engine.connect() as connection:
        assert list(rack.faults(connection)) == []
        assert list(derived.unlike_their_history(connection)) == []


@settings(max_examples=share(30, 8), suppress_health_check=list(HealthCheck))
@given(acts=st.lists(ACTS, min_size=3, max_size=14))
def test_whatever_is_done_rigs_and_parts_say_the_same(tmp_path_factory, acts):
    engine = database.open_database(tmp_path_factory.mktemp("rack"))
    try:
        store = RigStore(engine)
        first = store.create(Rig(name="One", archer=Archer(name="Ilse")))
        store.copy(first.id, "Two")
        store.create(Rig(name="Other", bow=Bow(takedown=False)))
        store.rack.make(STRING)
        store.rack.make(Part(name="Old bow", of=BowPart(form="longbow", length_in=66)))
        for one in acts:
            act(store, *one)
        alike_but_for_shared_limbs(store)
    finally:
        engine.dispose()
