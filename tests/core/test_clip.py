"""Slow motion: the bend's frequency off marked frames, on worlds with and without the model's own
shots, both hands; and what it does to the belief."""

import numpy as np
import pytest
from pydantic import ValidationError
from test_flight import RIG

from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.flex.modes import modes
from lyrandis.core.flex.onward import at_moments
from lyrandis.core.flight.clip import Track, bend_frequency
from lyrandis.core.stations import views
from lyrandis.core.trials import ClipTrial, KeptTrial
from lyrandis.core.trials.clip import FrameMark
from lyrandis.instruments.film import MM_PER_PX, filmed

ENDS = (-13.6, -4.3)


def plain_track(rng, hz, rate, seconds=0.024, noise=1.2, size=5.0, tone=None):
    """Ends that swing at one frequency (and, if asked, a little at another), not the model's."""
    t = np.arange(0, seconds, 1 / rate)
    phase = rng.uniform(0, 2 * np.pi)
    wave = np.exp(-4 * t) * np.sin(2 * np.pi * hz * t + phase)
    if tone:
        wave = wave + 0.15 * np.sin(2 * np.pi * tone * t + rng.uniform(0, 6))
    ratio = ENDS[1] / ENDS[0] * rng.uniform(0.75, 1.25)
    nock = 3 + rng.normal(0, 200) * t + size * wave
    point = -2 + rng.normal(0, 200) * t + ratio * size * wave
    return Track(t, nock + rng.normal(0, noise, len(t)), point + rng.normal(0, noise, len(t)), 1.7)


class TestFrequency:
    @pytest.mark.parametrize("tone", [None, 2.75])
    @pytest.mark.parametrize(("rate", "seconds"), [(480, 0.03), (960, 0.024), (960, 0.04)])
    def test_its_band_covers_on_other_worlds(self, rate, seconds, tone):
        """Ends' heights a quarter off, a second bend in it, marks a millimetre beside."""
        rng, hits, told = np.random.default_rng(3), [], 0
        for _ in range(120):
            hz = rng.uniform(50, 95)
            track = plain_track(rng, hz, rate, seconds, tone=hz * tone if tone else None)
            found, _ = bend_frequency(track, rate, ENDS)
            if found is None:
                continue
            told += 1
            wide = np.hypot(found.plus_minus, 0.02 * found.value)
            hits.append(abs(found.value - hz) <= 1.645 * wide)
        assert told >= 60
        assert np.mean(hits) >= 0.85

    def test_what_does_not_swing_has_no_frequency(self):
        rng, told = np.random.default_rng(4), []
        for _ in range(100):
            told.append(bend_frequency(plain_track(rng, 70, 960, size=0.0), 960, ENDS)[0])
        assert np.mean([t is not None for t in told]) <= 0.05

    def test_a_swing_that_explains_only_half_of_the_marks_has_none(self):
        t = np.arange(0, 0.06, 1 / 960)
        wave, shake = np.sin(2 * np.pi * 70 * t), 0.8 * (-1.0) ** np.arange(len(t))
        track = Track(t, 5 * (wave + shake), 5 * ENDS[1] / ENDS[0] * (wave + shake), 1.7)
        told, why = bend_frequency(track, 960, ENDS)
        assert told is None
        assert "do not show one bend" in why.plain()

    @pytest.mark.parametrize(("rate", "seconds"), [(960, 0.006), (60, 0.2), (240, 0.02)])
    def test_too_few_frames_or_too_slow_a_camera_say_why(self, rate, seconds):
        told, why = bend_frequency(
            plain_track(np.random.default_rng(1), 75, rate, seconds), rate, ENDS
        )
        assert told is None
        assert why.plain()


class TestOnward:
    def test_a_shot_goes_on_by_its_modes(self):
        """Against a fine integration of the same oscillators, from where the tail passed."""
        f = Bench(RIG).flex
        told = f.passed(np.array([600.0]), 400)
        stiff = np.array([stiffness_n_m2(600.0)])
        time = told.end_s + np.linspace(0, 0.02, 9)
        q, behind = at_moments(told, f.layout, stiff, 0.01, time)
        omega = modes(f.layout).unit_omega * np.sqrt(stiff[0])
        own, rate, h = told.end_q[0].copy(), told.end_rate[0].copy(), 1e-6
        for _ in range(20000):
            rate += h * (-(omega**2) * own - 0.02 * omega * rate)
            own += h * rate
        assert q[-1, 0] == pytest.approx(own, abs=2e-3 * np.abs(own).max())
        speed = (behind[0] - behind[-1]) / 0.02
        assert speed == pytest.approx(told.speed_mps, rel=1e-9)

    def test_no_jump_where_the_tail_passes(self):
        f = Bench(RIG).flex
        told = f.passed(np.array([600.0]), 400)
        time = told.end_s + np.array([-1e-6, 1e-6])
        q, behind = at_moments(told, f.layout, np.array([stiffness_n_m2(600.0)]), 0.01, time)
        assert q[0] == pytest.approx(q[1], abs=1e-3 * np.abs(q).max())
        assert behind[0] - behind[1] == pytest.approx(2e-6 * told.speed_mps, rel=0.05)


def clip_of(film, rng, tail="clear", by="telephone", shake=0.7):
    def near(p):
        return (p[0] + rng.normal(0, shake), p[1] + rng.normal(0, shake))

    return ClipTrial(
        frames_a_second=960,
        let_go=film.let_go,
        marks=tuple(
            FrameMark(frame=i, nock_px=near(film.nock_px[i]), point_px=near(film.point_px[i]))
            for i in range(len(film.nock_px))
        ),
        tail=tail,
        by=by,
    )


class TestOnTheRig:
    @pytest.mark.parametrize("hand", ["right", "left"])
    def test_the_hidden_shaft_of_the_camera_is_found(self, hand):
        rig = changed(RIG, {"archer.hand": hand})
        b, rng = Bench(rig), np.random.default_rng(7)
        for seed in range(4):
            film = filmed(b, seed)
            told = b.clip(clip_of(film, rng))
            assert abs(told.spine.value - film.spine) <= 2.5 * told.spine.plus_minus
            assert told.spine.plus_minus < 0.09 * film.spine
            assert told.nock_way.out_mm.value == pytest.approx(12, abs=5)

    def test_the_computed_shape_lies_on_the_ends_and_bends(self):
        b = Bench(RIG)
        film = filmed(b, 1)
        told = b.clip(clip_of(film, np.random.default_rng(0), shake=0.0))
        shapes = told.laid_over()
        for i in (0, 10, len(shapes) - 1):
            assert shapes[i][0] == pytest.approx(film.nock_px[i])
            assert shapes[i][-1] == pytest.approx(film.point_px[i])
        off = np.array(shapes[told.trial.let_go])[:, 1]
        chord = np.linspace(off[0], off[-1], len(off))
        assert np.abs(off - chord).max() * MM_PER_PX > 3

    def kept(self, trial, rig=RIG):
        return (KeptTrial(1, "2026-04-01T10:00:00+00:00", trial, rig),)

    def test_a_stiffer_shaft_moves_what_is_predicted(self):
        b, rng = Bench(RIG), np.random.default_rng(2)
        seed = next(s for s in range(20) if filmed(b, s).spine < 535)
        trial = clip_of(filmed(b, seed), rng, tail="unseen")
        after = Bench(RIG, self.kept(trial))
        assert after.reading.predicted[0] > b.reading.predicted[0] + 0.8
        assert after.reading.error_groups[0] > b.reading.error_groups[0] + 0.2
        said = " ".join(f.said.plain() for f in views(after, ["flight"])[0].findings)
        assert "By the clip the shaft bends like spine" in said

    def test_a_clip_of_marks_alone_is_no_change_of_the_rig(self):
        trial = clip_of(filmed(Bench(RIG), 1), np.random.default_rng(0), tail="unseen")
        b = Bench(RIG, self.kept(trial))
        assert b.reading.read_here
        assert not b.reading.after_change
        assert "hanged since" not in views(b, ["flight"])[0].answer.plain()
        moved = changed(RIG, {"arrow.static_spine": 500.0})
        assert Bench(moved, self.kept(trial)).reading.after_change

    def test_a_bounce_that_was_seen_counts_as_a_read(self):
        after = Bench(RIG, self.kept(ClipTrial(frames_a_second=240, tail="bounce")))
        assert (
            after.reading.verdict.classes["false_weak"]
            > 3 * Bench(RIG).reading.verdict.classes["false_weak"]
        )

    def test_practice_counts_for_nothing(self):
        trial = clip_of(filmed(Bench(RIG), 1), np.random.default_rng(0), by="simulated")
        b = Bench(RIG, self.kept(trial))
        assert not b.reading.kept
        assert b.reading.predicted == Bench(RIG).reading.predicted

    def test_outside_the_model_the_nocks_way_weighs_nothing(self):
        thumb = changed(RIG, {"archer.release": "thumb"})
        told = Bench(thumb).clip(clip_of(filmed(Bench(thumb), 1), np.random.default_rng(0)))
        assert told.weights is None
        assert told.frequency is not None  # the shaft's own bend asks no bow


class TestTrial:
    def test_it_says_something(self):
        with pytest.raises((ValidationError, RefusedError)):
            ClipTrial(frames_a_second=240)

    def test_frames_rise_and_the_arrow_is_seen_whole(self):
        mark = FrameMark(frame=3, nock_px=(0, 0), point_px=(500, 0))
        with pytest.raises((ValidationError, RefusedError)):
            ClipTrial(frames_a_second=240, marks=(mark, mark))
        with pytest.raises((ValidationError, RefusedError), match="close"):
            ClipTrial(
                frames_a_second=240, marks=(FrameMark(frame=0, nock_px=(0, 0), point_px=(50, 0)),)
            )
