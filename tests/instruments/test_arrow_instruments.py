"""The simulated grain scale, spine jig and chronograph: repeatable, noisy, of a hidden truth."""

import numpy as np
import pytest

from lyrandis.core.arrow.shot import speed_fps
from lyrandis.instruments.arrow_bench import SimulatedGrainScale, SimulatedShaftBench
from lyrandis.instruments.chronograph import SimulatedChronograph


def test_a_scale_settles_on_the_hidden_arrow():
    scale = SimulatedGrainScale(400, 5)
    shown = list(scale.readings())
    assert shown == list(SimulatedGrainScale(400, 5).readings())
    assert shown[-1] == pytest.approx(scale.hidden_mass_gr(), abs=0.7)
    assert abs(shown[0] - shown[-1]) > 20
    again = SimulatedGrainScale(400, 5, again=1)
    assert again.hidden_mass_gr() == scale.hidden_mass_gr()
    assert list(again.readings()) != shown
    many = [SimulatedGrainScale(400, seed).hidden_mass_gr() for seed in range(300)]
    assert np.std(many) == pytest.approx(6, rel=0.2)


def test_a_set_is_the_same_set_each_time_within_what_scale_and_jig_repeat_to():
    one, two = (list(SimulatedShaftBench(400, 500, 24, 3, again).readings()) for again in (0, 1))
    assert [s.number for s in one] == list(range(1, 25))
    assert one != two
    assert max(abs(a.mass_gr - b.mass_gr) for a, b in zip(one, two, strict=True)) < 1.2
    assert max(abs(a.spine_28in - b.spine_28in) for a, b in zip(one, two, strict=True)) < 15
    assert 2 < np.std([s.mass_gr for s in one]) < 9


def test_a_chronograph_shows_a_hidden_bow():
    told = SimulatedChronograph(40, 120, 400, 60, seed=2)
    speeds = list(told.readings())
    assert np.median(speeds) == pytest.approx(told.hidden_speed_fps(), rel=0.006)
    assert told.hidden_speed_fps() != pytest.approx(float(speed_fps(40, 400, 120)), rel=1e-4)
    heavy = SimulatedChronograph(40, 120, 520, 60, seed=2)
    assert heavy.hidden_speed_fps() < told.hidden_speed_fps()
    assert all(i.simulated for i in (told, SimulatedGrainScale(400, 1)))
