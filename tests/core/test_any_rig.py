"""Whatever rig the fields allow: every station answers or refuses, and never faults."""

import math

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, field_notes
from lyrandis.core.rig import Rig
from lyrandis.core.workbench import Workbench
from lyrandis.desk.bench_view import bench_view
from lyrandis.files.sheet import rig_sheet

SETTINGS = settings(
    max_examples=60,
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)


def value_of(note):
    """A strategy for one setting, over all that its field allows."""
    if note.choices:
        values = st.sampled_from(note.choices)
    elif note.path in ("string.strands", "string.twists", "arrow.fletching_count"):
        values = st.integers(int(note.low), int(note.high))
    elif note.quantity and note.low is not None:
        values = st.floats(note.low, note.high)
    elif note.path == "bow.takedown":
        values = st.booleans()
    elif note.path == "aim.distances_m":
        values = st.lists(st.floats(0, 200), min_size=1, max_size=8)
    elif note.path == "bow.measured":
        pairs = st.tuples(st.floats(0, 40), st.floats(0, 300))
        values = st.lists(pairs.map(list), max_size=5)
    else:
        return None
    return st.none() | values if note.optional else values


STRATEGIES = {path: value_of(note) for path, note in field_notes().items()}
SOME = st.dictionaries(
    st.sampled_from([path for path, value in STRATEGIES.items() if value is not None]),
    st.none(),
    max_size=6,
).flatmap(lambda paths: st.fixed_dictionaries({path: STRATEGIES[path] for path in paths}))


def numbers(value):
    """Every number in a view."""
    if isinstance(value, dict):
        for inner in value.values():
            yield from numbers(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from numbers(inner)
    elif isinstance(value, float):
        yield value


@SETTINGS
@given(SOME)
def test_every_station_answers_or_refuses(changes):
    view = bench_view(changed(Rig(), changes))
    for station in view.stations:
        assert station.answer.plain()
        if station.problem is not None:
            assert station.findings[0].level == "stop"
            assert len(station.problem.reason) > 15
    assert all(math.isfinite(n) for n in numbers(view.model_dump()))


@settings(SETTINGS, max_examples=15)
@given(SOME)
def test_every_rig_prints(changes):
    assert rig_sheet(changed(Rig(), changes), {}, "2026-11-23").startswith(b"%PDF-")


@SETTINGS
@given(st.floats(20, 60), st.floats(150, 700), st.floats(25, 31), st.sampled_from([62, 66, 70]))
def test_heavier_arrows_are_slower_and_leave_less_behind(weight, mass, draw, length):
    rig = changed(
        Rig(),
        {"bow.marked_weight_lbf": weight, "archer.draw_length_in": draw, "bow.length_in": length,
         "arrow.shaft_length_in": 33.0, "arrow.weighed_gr": mass},
    )  # fmt: skip
    heavier = changed(rig, {"arrow.weighed_gr": mass * 1.1})
    try:
        a, b = Workbench(rig).shot, Workbench(heavier).shot
    except RefusedError:
        assume(False)
    assert b.speed_fps.value < a.speed_fps.value
    assert b.residual_energy_ftlb < a.residual_energy_ftlb
    assert b.momentum_lb_s > a.momentum_lb_s


@SETTINGS
@given(st.floats(20, 60), st.floats(1.02, 1.5))
def test_a_heavier_marking_scales_the_curve(weight, by):
    """Not exactly, since the string stretches more: within 3 % at every draw."""
    light = Workbench(changed(Rig(), {"bow.marked_weight_lbf": weight})).curve
    heavy = Workbench(changed(Rig(), {"bow.marked_weight_lbf": weight * by})).curve
    for draw in (20, 24, 26, 28, 30):
        assert heavy.force(draw) == pytest.approx(by * light.force(draw), rel=0.03)


@SETTINGS
@given(st.floats(26, 31), st.floats(0.1, 1.5))
def test_a_longer_draw_pulls_stores_and_shoots_more(draw, more):
    base = {"arrow.shaft_length_in": 34.0, "bow.length_in": 70.0}
    a = Workbench(changed(Rig(), base | {"archer.draw_length_in": draw}))
    b = Workbench(changed(Rig(), base | {"archer.draw_length_in": draw + more}))
    assert b.shot.weight_at_draw_lbf.value > a.shot.weight_at_draw_lbf.value
    assert b.shot.stored_energy_ftlb > a.shot.stored_energy_ftlb
    assert b.shot.speed_fps.value > a.shot.speed_fps.value
    assert b.angle_deg < a.angle_deg
    assert b.window.spine_28in.value < a.window.spine_28in.value
