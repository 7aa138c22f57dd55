"""The spine map: each cell is the model's own match, cuts and points meet the shaft's line."""

from functools import lru_cache

import numpy as np
import pytest
from test_flight import RIG

from lyrandis.core.bench import Bench
from lyrandis.core.bench.spine_map import _where, spine_map
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed

LONG = changed(RIG, {"arrow.shaft_length_in": 31.5, "arrow.static_spine": 500.0})


@lru_cache(maxsize=2)
def drawn(rig):
    told = []
    return spine_map(Bench(rig), told.append), told


def test_each_cell_is_the_match_of_that_arrow():
    m, _ = drawn(RIG)
    for i, j in ((2, 1), (4, 2), (7, 0)):
        arrow = {"arrow.shaft_length_in": m.length_in[j], "arrow.point_gr": m.point_gr[i]}
        b = Bench(changed(RIG, arrow))
        assert m.spine[i, j] == pytest.approx(b.arrow.window.spine_28in.value, rel=1e-6)
        over = b.arrow.build.lightest_gr / b.bow.heaviest_lbf - b.arrow.floor.floor_gpp
        assert m.over_floor_gpp[i, j] == pytest.approx(over, abs=0.05)


def test_a_cut_and_a_point_bring_it_onto_its_line():
    m, _ = drawn(LONG)
    cut = Bench(changed(LONG, {"arrow.shaft_length_in": m.cut_to_in}))
    assert m.cut_to_in < 31.5
    assert cut.arrow.window.spine_28in.value == pytest.approx(500, rel=0.02)
    lighter = Bench(changed(LONG, {"arrow.point_gr": m.point_for_gr}))
    assert lighter.arrow.window.spine_28in.value == pytest.approx(500, rel=0.02)
    assert Bench(LONG).arrow.window.spine_28in.value < 500  # as it is it leaves weak


def test_a_stiff_shaft_is_not_cut():
    stiff = changed(RIG, {"arrow.static_spine": 520.0})
    m, _ = drawn(stiff)
    assert m.cut_to_in is None
    assert m.point_for_gr > RIG.arrow.point_gr


def test_what_a_weighing_told_stays_in_the_floor():
    weighed = changed(RIG, {"arrow.weighed_gr": Bench(RIG).arrow.build.mass_gr + 20})
    m, heavy = drawn(RIG)[0], spine_map(Bench(weighed), lambda _share: None)
    gained = (heavy.over_floor_gpp - m.over_floor_gpp) * Bench(RIG).bow.heaviest_lbf
    assert gained == pytest.approx(20 + Bench(RIG).arrow.build.sd_gr, abs=3)


def test_it_tells_how_far_it_is_and_can_be_ended():
    _, told = drawn(RIG)
    assert told == sorted(told)
    assert told[0] == 0
    assert len(told) > 5

    def ends(share):
        if share > 0.2:
            raise InterruptedError

    with pytest.raises(InterruptedError):
        spine_map(Bench(RIG), ends)


@pytest.mark.parametrize(
    "change",
    [{"archer.release": "thumb"}, {"bow.marked_weight_lbf": 75.0}, {"bow.centre_cut_mm": -9.0}],
)
def test_outside_the_model_there_is_no_map(change):
    with pytest.raises(RefusedError, match="No map"):
        spine_map(Bench(changed(RIG, change)), lambda _share: None)


def test_lengths_are_none_that_cannot_be_drawn():
    m, _ = drawn(RIG)
    assert m.length_in[0] >= RIG.archer.draw_length_in + 1
    assert m.length_in[-1] <= 32
    assert np.isfinite(m.over_floor_gpp).all()


def test_the_place_on_the_line_is_found_in_the_last_stretch_too():
    at = np.array([26.0, 27.0, 28.0])
    assert _where(at, np.array([600.0, 560.0, 500.0]), 530.0) == pytest.approx(27.5)
    assert _where(at, np.array([600.0, 560.0, 500.0]), 580.0) == pytest.approx(26.5)
    assert _where(at, np.array([600.0, 500.0, 600.0]), 550.0) == pytest.approx(27.5)  # the greatest
    assert _where(at, np.array([600.0, 500.0, 600.0]), 550.0, most=27.0) == pytest.approx(26.5)
    assert _where(at, np.array([600.0, np.nan, 500.0]), 550.0) is None
