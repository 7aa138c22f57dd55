"""Side by side: every difference once, what each does, and what may be set back."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from claims import share
from lyrandis.core.bench import Bench
from lyrandis.core.beside import Away, beside
from lyrandis.core.beside.differences import differing_paths
from lyrandis.core.beside.numbers import FELT, numbers
from lyrandis.core.fields import changed, value_at
from lyrandis.core.parts import Arrow, ArrowSet, Bow, Part, Rig, String
from lyrandis.core.stations.dangers import dangers
from lyrandis.core.trials import BraceTrial, KeptTrial

RIG = Rig(
    bow=Bow(marked_weight_lbf=34, riser_in=25, brace_height_in=8.5),
    string=String(length_in=64.5),
    arrow=Arrow(shaft_length_in=30, static_spine=700, grains_per_inch=8.5),
    nock_height_mm=12.0,
)
NOW = "2026-07-01T10:00:00+00:00"


def on(rig, *trials):
    return Bench(rig, tuple(trials), NOW)


def of(changes, base=RIG):
    return beside(on(base), on(changed(base, changes)), {}, True)


def by_title(found):
    return {d.title: d for d in found.differences}


def test_nothing_differs():
    same = of({})
    assert same.differences == []
    assert same.said.plain() == "Nothing differs in their settings."
    assert not any(n.felt for n in same.numbers)
    assert same.only_mine == same.only_other == []
    assert of({"name": "Two", "notes": "another"}).differences == []


def test_what_moves_most_comes_first_and_says_what_it_does():
    found = of({"arrow.point_gr": 160.0, "bow.brace_height_in": 8.0, "aim.slope_deg": 5.0})
    assert [d.title for d in found.differences] == ["Point", "Brace height", "Slope"]
    point, brace, slope = found.differences
    heavier = on(changed(RIG, {"arrow.point_gr": 160.0}))
    speed = {n.id: n.value for n in numbers(heavier)}["speed"]
    was = {n.id: n.value for n in numbers(on(RIG))}["speed"]
    told = next(s for s in point.does if s.text.startswith("Speed"))
    assert told.text.startswith("Speed down")
    assert told.values["to"].value == pytest.approx(speed.value)
    assert told.values["to"].plus_minus == pytest.approx(speed.plus_minus)
    assert told.values["by"].value == pytest.approx(was.value - speed.value)
    assert not any(s.text.startswith("Brace") for s in brace.does)  # it says so itself
    assert slope.does == []
    assert "first point" in found.said.plain()


def test_each_number_stands_on_both_sides_and_says_whether_it_is_felt():
    found = of({"bow.marked_weight_lbf": 36.0})
    weight = next(n for n in found.numbers if n.id == "weight")
    assert weight.felt
    assert weight.other.value - weight.mine.value > 1.9
    assert {n.id for n in found.numbers} == set(FELT)
    hair = of({"bow.marked_weight_lbf": 34.1})
    assert not next(n for n in hair.numbers if n.id == "weight").felt


def test_what_cannot_be_told_on_one_side_is_said_not_left_out():
    short = of({"arrow.shaft_length_in": 27.0})  # shorter than the draw
    shaft = by_title(short)["Shaft length"]
    assert any("cannot be told" in s.plain() for s in shaft.does)
    assert shaft.back is None
    assert "stop" in shaft.not_back.plain()
    assert any(t.finding.level == "stop" for t in short.only_other)
    assert not any(t.finding.level == "stop" for t in short.only_mine)


def test_another_part_is_one_difference_with_its_settings_and_what_was_measured_of_it():
    mine = RIG.model_copy(update={"on": RIG.on.model_copy(update={"arrows": "a" * 32})})
    other = changed(mine, {"on.arrows": "b" * 32, "arrow.static_spine": 600.0,
                           "arrow.weighed_gr": 400.0, "bow.brace_height_in": 8.0})  # fmt: skip
    part = Part(name="Indoor set", of=ArrowSet(shaft_length_in=30, static_spine=600,
                                               grains_per_inch=8.5))  # fmt: skip
    a = Bench(mine, (), NOW, (), {"arrows": Part(name="Field set", of=ArrowSet())})
    b = Bench(other, (), NOW, (), {"arrows": part})
    found = beside(a, b, {"b" * 32: Away(part, "")}, True)
    assert {d.title for d in found.differences} == {"Another set of arrows", "Brace height"}
    group = by_title(found)["Another set of arrows"]
    assert (group.mine, group.other) == ("Field set", "Indoor set")
    assert {row.path for row in group.rows} == {"arrow.static_spine", "arrow.weighed_gr"}
    assert (group.back.slot, group.back.mark, group.back.changes) == ("arrows", "b" * 32, {})
    lent = beside(a, b, {"b" * 32: Away(part, "It is lent to Bo.")}, True)
    assert by_title(lent)["Another set of arrows"].not_back.plain() == "It is lent to Bo."
    gone = beside(a, b, {}, True)
    assert "not on the rack" in by_title(gone)["Another set of arrows"].not_back.plain()
    short = Part(name="Short", of=ArrowSet(shaft_length_in=26))
    refused = beside(a, b, {"b" * 32: Away(short, "")}, True)
    assert by_title(refused)["Another set of arrows"].back is None


def test_another_build_and_what_was_measured_are_not_set_back():
    found = of({"bow.takedown": False, "bow.form": "hybrid", "bow.length_in": 62.0,
                "bow.riser_in": None, "string.mass_gr": 90.0})  # fmt: skip
    told = by_title(found)
    assert set(told) == {"Another build of bow", "String weight"}
    assert {d.back for d in told.values()} == {None}
    assert "Assembly" in told["Another build of bow"].not_back.plain()
    assert "measured again" in told["String weight"].not_back.plain()


def test_on_what_is_not_a_rig_as_it_stands_nothing_is_set():
    other = on(changed(RIG, {"bow.brace_height_in": 8.0}))
    (brace,) = beside(on(RIG), other, {}, False).differences
    assert (brace.back, brace.not_back) == (None, None)


def test_what_the_trials_said_stands_with_the_setting_they_were_made_with():
    def heard(seq, brace, level, struck=False):
        rig = changed(RIG, {"bow.brace_height_in": brace})
        trial = BraceTrial(brace_height_in=brace, levels_db=(level,))
        return KeptTrial(seq, f"2026-05-{seq:02d}T10:00:00+00:00", trial, rig, struck)

    trials = [heard(n, 8.5, 60.0 + n) for n in range(1, 6)]
    trials += [heard(6, 8.0, 66.0), heard(7, 8.0, 50.0, struck=True), heard(8, 9.0, 70.0)]
    other = changed(RIG, {"bow.brace_height_in": 8.0})
    (brace,) = beside(on(RIG, *trials), on(other), {}, True).differences
    assert [s.plain()[:10] for s in brace.trials_mine] == ["2026-05-05", "2026-05-04", "2026-05-03"]
    assert [s.plain()[:10] for s in brace.trials_other] == ["2026-05-06"]
    assert "66.0 dB" in brace.trials_other[0].plain()


CHANGES = st.fixed_dictionaries(
    {},
    optional={
        "bow.brace_height_in": st.floats(7, 10),
        "bow.marked_weight_lbf": st.floats(20, 50),
        "bow.side_plate": st.sampled_from(["plunger", "leather", "felt"]),
        "bow.maker_max_draw_in": st.sampled_from([None, 27.0, 30.0]),
        "string.strands": st.integers(8, 20),
        "string.material": st.sampled_from(["polyester", "low_stretch"]),
        "arrow.shaft_length_in": st.floats(26, 33),
        "arrow.static_spine": st.floats(300, 1000),
        "arrow.point_gr": st.floats(60, 200),
        "archer.draw_length_in": st.floats(25, 31),
        "archer.release": st.sampled_from(["split", "three_under", "thumb"]),
        "nock_height_mm": st.one_of(st.none(), st.floats(0, 30)),
        "use": st.sampled_from(["range", "woodland"]),
        "limbs.upper_turns": st.floats(-2, 2),
    },
)


@settings(max_examples=share(40, 10), deadline=None)
@given(CHANGES, CHANGES)
def test_every_difference_once_and_what_is_set_back_neither_stays_nor_makes_a_stop(one, two):
    a, b = on(changed(RIG, one)), on(changed(RIG, two))
    found = beside(a, b, {}, True)
    rows = [row.path for d in found.differences for row in d.rows]
    assert sorted(rows) == sorted(differing_paths(a.rig, b.rig))
    before = dangers(a)
    for d in found.differences:
        assert (d.back is None) != (d.not_back is None)
        if d.back is None:
            continue
        after = a.with_changes(d.back.changes)
        assert all(value_at(after.rig, r.path) == value_at(b.rig, r.path) for r in d.rows)
        assert dangers(after).keys() <= before.keys()
    mirrored = beside(b, a, {}, True)
    assert [t.finding for t in mirrored.only_mine] == [t.finding for t in found.only_other]
