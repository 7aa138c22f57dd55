"""The simulated recorder, and what is found in its sessions, whose truth is known."""

from itertools import pairwise

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.parts import Rig
from lyrandis.core.sound.events import analyse
from lyrandis.instruments.recorder import SimulatedRecorder, of_rig


def near(times, truth, within=0.03):
    return sum(any(abs(t - s) < within for t in times) for s in truth)


SESSIONS = share(12, 4)


def score(sessions=SESSIONS, **more):
    """Recall of shots and arrivals, false shots a minute, arrivals called shots, sessions asked."""
    shots = found = arrivals = heard = false = wrong = asked = 0
    minutes = 0.0
    for seed in range(sessions):
        recorder = SimulatedRecorder(seed=seed + 500, **more)
        samples, truth = recorder.record()
        told = analyse(samples, recorder.rate_hz)
        if told.ask:  # then nothing was decided, and one marked shot decides
            assert not any(e.kind == "shot" for e in told.events)
            asked += 1
            told = analyse(samples, recorder.rate_hz, mine_s=truth.shots[:1])
        said = [e.at_s for e in told.events if e.kind == "shot"]
        shots += len(truth.shots)
        found += near(said, truth.shots)
        false += len(said) - near(truth.shots, said)
        wrong += near(said, truth.arrivals)
        arrivals += len(truth.arrivals)
        heard += near([e.at_s for e in told.events if e.kind == "arrival"], truth.arrivals)
        minutes += recorder.seconds / 60
    return found / shots, heard / arrivals, false / minutes, wrong, asked


class TestFinding:
    @pytest.mark.parametrize(
        ("name", "more"),
        [
            ("30 dB over noise", {}),
            ("10 dB over noise", {"noise_db": -34.0}),
            ("louder arrivals", {"arrival_db": 8.0}),
            ("louder arrivals, 10 dB", {"arrival_db": 6.0, "noise_db": -34.0}),
            ("near butt", {"flight_s": 0.15}),
            ("far butt", {"flight_s": 0.9}),
            ("clickers", {"clicker": True}),
            ("clickers, arrivals, 12 dB", {"clicker": True, "arrival_db": 6.0, "noise_db": -36.0}),
            ("44.1 kHz stereo", {"rate_hz": 44_100, "channels": 2}),
            ("22.05 kHz", {"rate_hz": 22_050}),
        ],
    )
    def test_must_reach(self, name, more):
        recall, arrivals, false, wrong, asked = score(**more)
        claimed(f"shots heard, {name}", recall, least=0.95, of=SESSIONS * 6)
        claimed(f"arrivals heard, {name}", arrivals, least=0.95, of=SESSIONS * 6)
        claimed(f"false shots a minute, {name}", false, most=0.2, of=SESSIONS, sd=0.2)
        assert wrong == 0
        assert asked == (SESSIONS if name == "near butt" else 0)  # a butt so near may be an echo

    @pytest.mark.parametrize("more", [{}, {"noise_db": -36.0, "clicker": True, "arrival_db": 6.0}])
    def test_with_loud_knocks_about(self, more):
        recall, _, false, wrong, asked = score(knocks_per_minute=6.0, **more)
        assert asked <= 3
        claimed(f"shots heard among knocks, {more}", recall, least=0.95, of=SESSIONS * 6)
        claimed(f"false shots a minute among knocks, {more}", false, most=2, of=SESSIONS, sd=1)
        assert wrong == 0

    def test_a_rattle_is_a_tone_that_has_grown(self):
        def tone(loose):
            recorder = SimulatedRecorder(seed=6, looseness=loose, noise_db=-70)
            told = analyse(recorder.record()[0], recorder.rate_hz)
            shots = [e for e in told.events if e.kind == "shot"]
            return np.median([e.tone_hz for e in shots]), np.median([e.tone_above_db for e in shots])  # fmt: skip

        hz, above = tone(1.0)
        assert hz == pytest.approx(1100, abs=10)
        assert above > tone(0.0)[1] + 3


class TestRecorder:
    def test_the_same_by_its_seed_another_by_another(self):
        one, again, other = (SimulatedRecorder(seed=s, seconds=10, shots=2).record()[0] for s in (1, 1, 2))  # fmt: skip
        assert np.array_equal(one, again)
        assert not np.array_equal(one, other)

    def test_the_rig_sounds_quietest_at_one_brace_in_its_range(self):
        levels = [of_rig(Rig(), 1, mm / 25.4, 3, 0).loudness_db for mm in range(205, 245, 4)]
        low = int(np.argmin(levels))
        assert 0 <= low < len(levels)
        assert all(a > b for a, b in pairwise(levels[: low + 1]))
        assert max(levels) > min(levels) + 1
        assert of_rig(Rig(), 1, 8.5, 3, 0) != of_rig(Rig(), 1, 8.5, 3, 1)
