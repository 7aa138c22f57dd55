"""A string that is put on: the brace it should give, and what is offered once it has settled."""

import math

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bow.statics import rebraced
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import TELLERS
from lyrandis.core.string.twists import (
    STRAND_MM,
    brace_at_turns_in,
    bundle_radius_mm,
    shortening_mm,
)
from lyrandis.core.trials import KeptTrial, SettlingTrial

OLD, NEW = "a" * 32, "b" * 32
RIG = changed(Rig(), {
    "on.string": NEW, "on.strings": (OLD, NEW), "bow.brace_height_in": 8.5, "string.twists": 20,
    "string.length_in": 64.0, "string.material": "low_stretch",
})  # fmt: skip
NOW = "2026-05-20T10:00:00+00:00"


def reading(hours, brace, string=NEW, day=1, rig=RIG, **other):
    made_on = changed(rig, {"on.string": string} | other)
    at = f"2026-05-{day:02d}T10:00:00+00:00"
    return KeptTrial(day, at, SettlingTrial(hours=hours, brace_height_in=brace), made_on)


def said(b):
    return [f.said.plain() for f in TELLERS["string"].tell(b).findings]


def test_by_its_length_where_nothing_else_is_known_with_an_honest_doubt():
    b = Bench(RIG, (), NOW)
    told = b.string.another
    assert told.sd_in == 0.5
    assert told.learnt is None
    longer = Bench(changed(RIG, {"string.length_in": 64.5}), (), NOW).string.another
    assert longer.brace_in < told.brace_in  # a longer string braces lower
    exact = b.string.fit.needed_length_in
    at_home = Bench(changed(RIG, {"string.length_in": round(exact, 3)}), (), NOW).string.another
    assert at_home.brace_in == pytest.approx(8.5, abs=0.01)
    assert any("by its length" in s for s in said(b))


def test_what_it_gave_before_at_the_turns_it_has_now():
    trials = (reading(24, 8.375, day=3), reading(24, 8.0, OLD, day=9))
    same = Bench(RIG, trials, NOW).string.another
    assert same.brace_in == pytest.approx(8.375)
    turned = Bench(changed(RIG, {"string.twists": 30}), trials, NOW).string.another
    assert turned.brace_in > same.brace_in + 0.05
    assert any("what it gave on 2026-05-03" in s for s in said(Bench(RIG, trials, NOW)))


def test_turns_move_it_as_the_bow_re_solved_with_the_shorter_string_says():
    statics = Bench(RIG, (), NOW).bow.curve.statics
    told = brace_at_turns_in(statics, RIG.string, 64.0, (20, 8.5), 30) - 8.5
    radius = bundle_radius_mm(14, STRAND_MM["low_stretch"])
    untwisted = math.hypot(64.0 * 25.4, 2 * math.pi * 20 * radius / math.sqrt(2))
    shorter = shortening_mm(untwisted, radius, 30) - shortening_mm(untwisted, radius, 20)
    again = rebraced(statics, statics.braced.half_slack - shorter / 2000)
    assert told == pytest.approx((again.brace_x - statics.brace_x) / 0.0254, rel=0.1)


def test_nothing_is_said_once_it_was_measured_or_where_there_is_but_one_string():
    assert Bench(RIG, (reading(0, 8.4, day=9),), NOW).string.another is None
    assert Bench(changed(RIG, {"on.strings": (NEW,)}), (), NOW).string.another is None
    other_bow = reading(24, 7.0, day=3, **{"on.riser": "c" * 32})
    told = Bench(RIG, (other_bow,), NOW).string.another
    assert told.learnt is None  # another bow's brace says nothing of this one


def test_settling_is_of_the_string_that_is_on():
    trials = (reading(0, 8.6, OLD, day=1), reading(6, 8.5, OLD, day=2))
    assert Bench(RIG, trials, NOW).string.settling is None
    back = changed(RIG, {"on.string": OLD})
    assert len(Bench(back, trials, NOW).string.settling_run) == 2


def test_set_it_is_offered_once_it_has_settled_and_holds_when_tried():
    settled = tuple(reading(h, brace, day=d) for d, h, brace in
                    ((1, 0, 8.44), (2, 24, 8.40), (5, 96, 8.39), (9, 200, 8.39)))  # fmt: skip
    b = Bench(RIG, settled, NOW)
    assert b.string.settling.settled
    found = next(f for f in TELLERS["string"].tell(b).findings if "has settled" in f.said.plain())
    assert found.action.label.plain() == "Set 8 3/8 in"
    assert found.action.changes == {"bow.brace_height_in": 8.375}
    there = Bench(changed(RIG, {"bow.brace_height_in": 8.375}), settled, NOW)
    found = next(
        f for f in TELLERS["string"].tell(there).findings if "has settled" in f.said.plain()
    )
    assert found.action is None
