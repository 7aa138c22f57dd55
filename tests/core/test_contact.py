"""A clatter in a recording: found on fresh sessions of many kinds, and seldom where there is none."""

import numpy as np
import pytest

from lyrandis.core.sound.contact import clatters
from lyrandis.core.sound.events import analyse
from lyrandis.instruments.recorder import SimulatedRecorder

KINDS = {
    "a quiet place": {},
    "noise": {"noise_db": -42.0},
    "a clicker": {"clicker": True},
    "loose parts": {"looseness": 1.0},
    "a near butt": {"flight_s": 0.26},
    "knocks about": {"knocks_per_minute": 8.0},
}


def session(seed, clatter, **more):
    return SimulatedRecorder(
        seed, shots=4, seconds=18.0, clatter_db=clatter, arrival_db=2.0, **more
    )


def heard(recorder):
    samples, true = recorder.record()
    return analyse(samples, recorder.rate_hz, spoil=True), true


@pytest.mark.parametrize("kind", KINDS)
def test_a_clatter_is_heard_and_none_is_not(kind):
    """Eight in ten where the shaft knocks, one in ten at most where it does not."""
    rng = np.random.default_rng(5)
    found, false = [], []
    for seed in range(6):
        told, _ = heard(session(seed, float(rng.uniform(6, 14)), **KINDS[kind]))
        found.append(told.clatter)
        told, _ = heard(session(100 + seed, None, **KINDS[kind]))
        false.append(told.clatter)
    assert np.mean([f is True for f in found]) >= 0.8
    assert np.mean([f is True for f in false]) <= 0.1


def test_it_is_told_when_it_sounds():
    told, _ = heard(session(3, 8.0))
    at = [e.contact_ms for e in told.events if e.kind == "shot"]
    assert len(at) == 4
    assert all(8 <= c <= 40 for c in at if c is not None)


def test_only_shots_have_one_and_two_are_needed():
    told, _ = heard(session(3, 8.0))
    assert all(e.contact_ms is None for e in told.events if e.kind != "shot")
    assert clatters([12.0]) is None
    assert clatters([12.0, None]) is True
    assert clatters([None, None, 12.0]) is False
