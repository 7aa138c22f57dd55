"""Whatever rig the fields allow: every station answers or refuses, and never faults."""

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from any_rig import SETTINGS, SOME
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views


@SETTINGS
@given(SOME)
def test_every_station_answers_or_refuses(changes):
    for station in views(Bench(changed(Rig(), changes))):
        assert station.answer.plain()
        for finding in station.findings:
            for value in (*finding.said.values.values(), *finding.why.values.values()):
                assert math.isfinite(value.value)
        if station.problem is not None:
            assert station.findings[0].level == "stop"
            assert len(station.problem.reason) > 15


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
        a, b = Bench(rig).arrow.shot, Bench(heavier).arrow.shot
    except RefusedError:
        assume(False)
    assert b.speed_fps.value < a.speed_fps.value
    assert b.residual_energy_ftlb < a.residual_energy_ftlb
    assert b.momentum_lb_s > a.momentum_lb_s


@SETTINGS
@given(st.floats(20, 60), st.floats(1.02, 1.5))
def test_a_heavier_marking_scales_the_curve(weight, by):
    """Not exactly, since the string stretches more: within 3 % at every draw."""
    light = Bench(changed(Rig(), {"bow.marked_weight_lbf": weight})).bow.curve
    heavy = Bench(changed(Rig(), {"bow.marked_weight_lbf": weight * by})).bow.curve
    for draw in (20, 24, 26, 28, 30):
        assert heavy.force(draw) == pytest.approx(by * light.force(draw), rel=0.03)


@SETTINGS
@given(st.floats(26, 31), st.floats(0.1, 1.5))
def test_a_longer_draw_pulls_stores_and_shoots_more(draw, more):
    base = {"arrow.shaft_length_in": 34.0, "bow.length_in": 70.0}
    fitted = {"arrow.shaft_length_in": 31.9, "string.mass_gr": 100.0}
    a = Bench(changed(Rig(), base | {"archer.draw_length_in": draw}))
    b = Bench(changed(Rig(), base | {"archer.draw_length_in": draw + more}))
    assert b.arrow.shot.weight_at_draw_lbf.value > a.arrow.shot.weight_at_draw_lbf.value
    assert b.arrow.shot.stored_energy_ftlb > a.arrow.shot.stored_energy_ftlb
    assert b.arrow.shot.speed_fps.value > a.arrow.shot.speed_fps.value
    assert b.bow.angle_deg < a.bow.angle_deg
    if draw + more <= 31:  # within the spine model's fit
        windows = [Bench(changed(x.rig, fitted)).arrow.window.spine_28in for x in (a, b)]
        assert windows[1].value < windows[0].value
