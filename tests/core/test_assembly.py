"""Putting the bow together: a list for each kind, and when it is due again."""

import pytest

from lyrandis.core.assembly import STEPS, kind_of, steps_for
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Bow, Rig
from lyrandis.core.route import Mark, states
from lyrandis.core.stations import TELLERS, views

TAKEDOWN = Bow()
ONE_PIECE = Bow(form="hybrid", takedown=False, length_in=62)
STATIC = Bow(form="static_tip", takedown=False, length_in=54)


@pytest.mark.parametrize(
    ("bow", "kind", "has", "lacks"),
    [
        (TAKEDOWN, "takedown", {"bolts", "rest", "limbs"}, {"levers", "shelf"}),
        (ONE_PIECE, "one_piece", {"shelf"}, {"bolts", "rest", "levers"}),
        (STATIC, "static_tip", {"levers", "shelf"}, {"bolts", "rest"}),
    ],
)
def test_each_kind_has_its_own_list(bow, kind, has, lacks):
    ids = {step.id for step in steps_for(bow)}
    assert kind_of(bow) == kind
    assert has <= ids
    assert not lacks & ids
    assert {"look", "stringer", "pluck", "archer"} <= ids


def test_steps_are_told_apart_and_say_why():
    assert len({s.id for s in STEPS}) == len(STEPS)
    assert all(len(s.why) > 20 and s.text.endswith(".") for s in STEPS)
    order = [s.id for s in steps_for(TAKEDOWN)]
    assert order.index("look") < order.index("stringer") < order.index("pluck")


def note(rig):
    return TELLERS["assembly"].note(Bench(rig)).plain()


def told(rig):
    return next(v for v in views(Bench(rig)) if v.station == "assembly")


def test_the_next_step_stands_first_until_all_are_done():
    rig = Rig()
    ids = [s.id for s in steps_for(rig.bow)]
    assert told(rig).findings[0].said.text.startswith("Next: Look along")
    some = changed(rig, {"assembly.done": ids[:3]})
    assert steps_for(rig.bow)[3].text in told(some).findings[0].said.text
    assert note(some) == f"3 of {len(ids)}"
    every = changed(rig, {"assembly.done": ids})
    assert told(every).answer.plain().startswith(f"All {len(ids)}")
    assert not [f for f in told(every).findings if f.said.text.startswith("Next")]


def test_steps_of_another_kind_of_bow_do_not_count():
    rig = changed(Rig(), {"assembly.done": ["levers", "shelf"]})
    assert note(rig).startswith("0 of")


@pytest.mark.parametrize(
    ("changes", "due"),
    [
        ({"string.material": "low_stretch"}, True),
        ({"string.strands": 16}, True),
        ({"bow.marked_weight_lbf": 38.0}, True),
        ({"bow.length_in": 66.0}, True),
        ({"bow.brace_height_in": 8.75}, False),
        ({"arrow.point_gr": 150.0}, False),
    ],
)
def test_due_again_after_a_string_or_limb_change(changes, due):
    marks = [Mark("assembly", "settled", Rig())]
    seen = next(s for s in states(marks, changed(Rig(), changes)) if s.station == "assembly")
    assert (seen.state == "due") is due
