"""B5: how an arrow swings: its frequency by hand, damped by its feathers, mirrored exactly."""

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.flight.yaw import AIR_KG_M3, Swinging, swing
from lyrandis.core.parts import Rig

ARROW = Swinging(0.75, 0.003, 0.022, 0.45, 1.0e-3, fins_at_m=0.06, fins=3)
AT = np.linspace(0.05, 40.0, 2000)


def test_the_frequency_is_that_of_its_fins():
    """ω² = N l / I for a small swing, the shaft's own push left small beside the fins'."""
    thin = Swinging(0.75, 1e-4, 0.022, 0.45, 1.0e-3, fins_at_m=0.06, fins=3)
    v = 55.0
    yaw = swing(thin, v, np.array([[0.0, 0.01, 0.0]]), AT)[0]
    falls = AT[np.flatnonzero((yaw[:-1] > 0) & (yaw[1:] <= 0))]
    rises = AT[np.flatnonzero((yaw[:-1] < 0) & (yaw[1:] >= 0))]
    half_m = rises[0] - falls[0]
    q = 0.5 * AIR_KG_M3 * v**2
    omega = np.sqrt(thin.fins_n_per_rad(q) * (0.45 - 0.06) / 1.0e-3)
    assert np.pi * v / half_m == pytest.approx(omega, rel=0.03)


def test_feathers_bring_it_back_and_a_bare_shaft_goes_on():
    start = np.array([[0.3, 0.02, 1.5]])
    feathered = swing(ARROW, 55.0, start, AT)[0]
    bare = swing(Swinging(0.75, 0.003, 0.022, 0.45, 1.0e-3), 55.0, start, AT)[0]
    assert np.abs(feathered[1500:]).max() < 0.5 * np.abs(feathered[:700]).max()
    assert np.abs(bare).max() > 2 * np.abs(feathered).max()


def test_mirrored_and_batched_exactly():
    start = np.array([[0.3, 0.02, 1.5], [-0.3, -0.02, -1.5]])
    one, other = swing(ARROW, 55.0, start, AT)
    assert one == pytest.approx(-other, abs=1e-15)
    assert swing(ARROW, 55.0, start[:1], AT)[0] == pytest.approx(one, abs=1e-15)


def test_a_weak_shaft_kicks_its_nock_out_and_a_stiff_one_in():
    b = Bench(changed(Rig(), {"bow.marked_weight_lbf": 42.0}))
    told = b.flex.passed(np.array([480.0, 850.0]))
    stiff, weak = b.flex.nock_angles(told, np.array([3.0, 5.0, 7.0]))["bare"]
    assert (weak > 3).all()
    assert (stiff < -1).all()
