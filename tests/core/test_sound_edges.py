"""The steps of docs/mechanics E3 one by one, on sounds made up to lie just inside and outside."""

from itertools import pairwise

import numpy as np
import pytest

from lyrandis.core.errors import RefusedError
from lyrandis.core.sound import measures, pairing
from lyrandis.core.sound.events import SoundEvent, analyse, session_tone
from lyrandis.core.sound.onsets import Frames, background_of, frames_of, onsets
from lyrandis.core.sound.weighting import a_weight_db

FLAT = np.zeros(7)


def sounds(*rows):
    """Events from (time [s], level [dB])."""
    return [
        pairing.Heard(round(t / 0.0025), round(t / 0.0025) + 40, level, 0.0) for t, level in rows
    ]


def judged(heard, added=(), shape=lambda _: FLAT):
    shots, common = pairing.paired(heard, [round(t / 0.0025) for t in added], shape, lambda: None)
    return *pairing.kinds_of(heard, shots, common), common


class TestFrames:
    def test_the_mean_power_of_each_two_and_a_half_milliseconds_over_channels(self):
        rate = 24_000  # 60 samples a frame
        wave = np.repeat(np.array([0.1, 0.2, 0.3, 0.4] * 10), 60)[:, None]
        both = np.hstack([wave, 2 * wave])
        got = frames_of(both, rate).power
        assert got == pytest.approx(np.array([0.1, 0.2, 0.3, 0.4] * 10) ** 2 * 2.5)
        assert len(frames_of(np.ones((rate * 60, 1), dtype=np.float32), rate).power) == 24_000

    def test_the_background_of_an_even_sound_is_its_power_by_the_pages_factor(self):
        assert background_of(np.full(4000, 2e-6)) == pytest.approx(2e-6 * 1.12)
        rng = np.random.default_rng(1)
        noise = rng.normal(0, 1, (4000, 60)) ** 2
        mean = background_of(noise.mean(axis=1)).mean()
        assert mean == pytest.approx(1.0, abs=0.1)

    def test_of_less_than_twenty_frames_the_median_is_all_there_is(self):
        assert background_of(np.full(19, 2e-6)) == pytest.approx(2e-6)
        assert background_of(np.full(20, 2e-6)) == pytest.approx(2e-6 * 1.12)
        assert background_of(np.zeros(0)).tolist() == []

    def test_the_background_follows_a_level_that_moves(self):
        """A fifth of 3 s back and forth decides: a louder half is heard as one, not as shots."""
        power = np.concatenate([np.full(4000, 1e-6), np.full(4000, 1e-4)])
        got = background_of(power)
        assert got[1000] == pytest.approx(1.12e-6)
        assert got[7000] == pytest.approx(1.12e-4)
        assert (np.diff(got) >= -1e-15).all()

    def test_shots_hardly_lift_the_background(self):
        power = np.full(8000, 1e-6)
        power[::800] = 1.0
        assert background_of(power) == pytest.approx(1.12e-6, rel=0.05)


class TestOnsets:
    def burst(self, db, length=20, at=1000, before_db=-120.0, n=2000):
        """Frames of a floor of 0 dB (power 1) with a burst so loud [dB], and what stood before."""
        power = np.ones(n)
        power[at : at + length] = 10 ** (db / 10)
        power[at - 100 : at] = np.maximum(power[at - 100 : at], 10 ** (before_db / 10))
        return Frames(power, np.full(n, 1.12))

    def test_fourteen_decibels_of_peak(self):
        assert onsets(self.burst(13.9)) == []
        assert len(onsets(self.burst(14.1))) == 1
        # The peak may come up to 30 ms later; a dull start of 11 dB is onset enough.
        for late, found in ((11, 1), (12, 0)):
            frames = self.burst(11, length=40)
            frames.power[1000 + late] = 10**1.5
            first = [k for k in onsets(frames) if k <= 1000]
            assert len(first) == found

    def test_ten_over_the_floor_and_six_over_what_was_before(self):
        begins = self.burst(30)
        assert onsets(begins) in ([999], [1000])
        for before, found in ((23.9, True), (24.1, False)):
            assert any(k >= 998 for k in onsets(self.burst(30, before_db=before))) == found

    def test_armed_again_after_sixty_milliseconds(self):
        for apart, count in ((22, 1), (24, 2)):
            power = np.ones(2000)
            power[1000] = power[1000 + apart] = 1e4
            assert len(onsets(Frames(power, np.full(2000, 1.12)))) == count

    def test_too_short_to_tell(self):
        assert onsets(Frames(np.ones(23), np.ones(23))) == []


class TestHearing:
    def heard(self, power, added=()):
        return pairing.hear(Frames(power, np.full(len(power), 1e-6)), added, lambda: None)

    def test_level_over_125_ms_exposure_over_400(self):
        power = np.full(2000, 1e-6)
        power[400:440] = 0.5  # 100 ms
        (one,) = self.heard(power)
        assert one.level == pytest.approx(10 * np.log10(0.5 * 40 / 50), abs=0.01)
        assert one.exposure == pytest.approx(10 * np.log10(0.5 * 0.1), abs=0.01)
        assert (one.frame, one.end) == (pytest.approx(400, abs=1), pytest.approx(560, abs=1))
        assert one.at == pytest.approx(1.0, abs=0.003)

    def test_its_window_ends_ten_milliseconds_before_the_next(self):
        power = np.full(2000, 1e-6)
        power[400:420] = power[500:520] = 0.5
        first, second = self.heard(power)
        assert first.end == second.frame - 4
        # What comes within 130 ms belongs to it.
        power[450:452] = 0.5
        first, middle, _ = self.heard(power)
        assert first.end - first.frame > middle.frame - first.frame

    def test_added_by_hand_stands_in_for_an_onset_close_by(self):
        power = np.full(2000, 1e-6)
        power[400:440] = 0.5
        assert [e.frame for e in self.heard(power, [410])] == [410]
        assert len(self.heard(power, [430])) == 2
        assert len(self.heard(power, [1200])) == 2


class TestCommonLag:
    def test_three_pairs_alike_make_a_lag(self):
        rows = [(t, -20.0) for t in (1, 4, 7)] + [(t + 0.4, -25.0) for t in (1, 4, 7)]
        lag, firsts = pairing.common_lag(sounds(*sorted(rows)), lambda: None)
        assert lag == pytest.approx(0.4)
        assert firsts == [0, 2, 4]
        assert pairing.common_lag(sounds(*sorted(rows)[:4]), lambda: None) is None

    @pytest.mark.parametrize(
        ("lag", "found"), [(0.0975, False), (0.1, True), (1.6, True), (1.6025, False)]
    )
    def test_from_a_tenth_to_one_and_six_tenths_of_a_second(self, lag, found):
        rows = [(t, -20.0) for t in (1, 5, 9)] + [(t + lag, -25.0) for t in (1, 5, 9)]
        assert (pairing.common_lag(sounds(*sorted(rows)), lambda: None) is not None) == found

    @pytest.mark.parametrize(("scatter", "found"), [(0.04, True), (0.0425, False)])
    def test_within_forty_milliseconds(self, scatter, found):
        rows = [(t, -20.0) for t in (1, 5, 9)]
        rows += [(1.4, -25.0), (5.4 + scatter / 2, -25.0), (9.4 + scatter, -25.0)]
        assert (pairing.common_lag(sounds(*sorted(rows)), lambda: None) is not None) == found

    @pytest.mark.parametrize(("louder", "found"), [(5.9, True), (6.1, False)])
    def test_firsts_within_six_decibels_of_their_median(self, louder, found):
        rows = [(1, -20.0), (5, -20.0), (9, -20.0 + louder)] + [(t + 0.4, -40.0) for t in (1, 5, 9)]
        assert (pairing.common_lag(sounds(*sorted(rows)), lambda: None) is not None) == found

    def test_firsts_stand_apart_as_two_shots_must(self):
        assert pairing._apart(sounds((0, 0), (1.0975, 0), (1.1, 0), (2.3, 0)), [0, 1, 2, 3]) == [
            0,
            2,
            3,
        ]


class TestLeaders:
    @pytest.mark.parametrize(("louder", "leader"), [(9.0, 0), (9.1, 1)])
    def test_the_first_leads_unless_a_later_is_nine_decibels_louder(self, louder, leader):
        assert pairing._leaders(sounds((1, -30), (1.5, -30 + louder)), set()) == [leader]

    def test_groups_of_one_and_a_tenth_seconds(self):
        heard = sounds((1, -30), (2.0975, -10), (2.1, -30), (5, -30))
        assert pairing._leaders(heard, set()) == [1, 3]
        apart = sounds((1, -30), (2.1, -10), (5, -30))
        assert pairing._leaders(apart, set()) == [0, 1, 2]
        assert pairing._leaders(apart, {1}) == [0, 2]

    def test_what_lies_around_a_shot(self):
        times = [0.4, 0.5, 1.0, 2.1, 2.2]
        assert list(pairing._around(times, 1.0, 1.1)) == [1, 2, 3]


class TestJudging:
    rows = (*((t, -20.0) for t in (1, 4, 7, 10)), *((t + 0.4, -24.0) for t in (1, 4, 7, 10)))

    def test_a_shot_its_arrival_and_its_click(self):
        heard = sounds(*sorted([*self.rows, (3.7, -32.0), (12.5, -45.0)]))
        kinds, lags, common = judged(heard)
        told = {round(e.at, 2): (k, lag) for e, k, lag in zip(heard, kinds, lags, strict=True)}
        assert common == pytest.approx(0.4)
        assert told[1.0] == ("shot", None)
        assert told[1.4] == ("arrival", pytest.approx(0.4))
        assert told[3.7] == ("click", None)
        assert told[12.5] == ("other", None)

    @pytest.mark.parametrize(("before", "kind"), [(0.5, "click"), (0.55, "other")])
    def test_half_a_second_before_is_a_click(self, before, kind):
        heard = sounds(*sorted([*self.rows, (7 - before, -40.0)]))
        kinds = judged(heard)[0]
        assert kinds[[round(e.at, 2) for e in heard].index(round(7 - before, 2))] == kind

    @pytest.mark.parametrize(("level", "kind"), [(-14.1, "shot"), (-13.9, "other"), (-25.9, "shot"), (-26.1, "other")])  # fmt: skip
    def test_a_leader_is_accepted_within_six_decibels(self, level, kind):
        heard = sounds(*sorted([*self.rows, (14.0, level)]))
        assert judged(heard)[0][-1] == kind

    def test_or_within_four_scaled_deviations(self):
        # With the last one the median is −21.5 and the MAD 2: 4 × 1.4826 × 2 = 11.86 dB.
        levels = (-20.0, -24.0, -16.0, -20.0, -23.0)
        rows = [(3.0 * i + 1, v) for i, v in enumerate(levels)]
        for last, kind in ((-33.3, "shot"), (-33.5, "other")):
            assert judged(sounds(*rows, (18, last)))[0] == ["shot"] * 5 + [kind]

    @pytest.mark.parametrize(("off", "kind"), [(6.9, "shot"), (7.1, "other")])
    def test_and_within_seven_decibels_of_shape(self, off, kind):
        heard = sounds(*sorted([*self.rows, (14.0, -20.0)]))
        kinds = judged(heard, shape=lambda e: FLAT + (off if e.at > 13 else 0.0))[0]
        assert kinds[-1] == kind

    def test_what_the_archer_calls_a_shot_is_one(self):
        heard = sounds(*sorted([*self.rows, (14.0, -60.0)]))
        assert judged(heard)[0][-1] == "other"
        assert judged(heard, added=[14.0])[0][-1] == "shot"


class TestOneEvent:
    def test_shape_is_seven_octaves_in_decibels_of_their_total(self):
        rate = 24_000
        t = np.arange(rate) / rate
        # 1 kHz and 3 kHz lie in the bands 960–1920 and 1920–3840 Hz: the fifth and the sixth.
        wave = (np.sin(2 * np.pi * 1000 * t) + np.sin(2 * np.pi * 3000 * t))[:, None]
        shape = measures.octaves_db(wave, rate, 100)
        assert shape[4] == pytest.approx(-3, abs=0.1)
        assert shape[5] == pytest.approx(-3, abs=0.1)
        assert (np.delete(shape, [4, 5]) < -20).all()
        assert shape.min() >= -40
        assert measures.octaves_db(wave, rate, rate - 63).tolist() == [0.0] * 7
        assert measures.octaves_db(wave, rate, rate - 64)[4] != 0

    def test_a_tone_after_200_ms_and_how_far_it_stands_out(self):
        rate = 24_000
        t = np.arange(rate) / rate
        rng = np.random.default_rng(1)
        noise = rng.normal(0, 0.01, rate)
        wave = (noise + np.where(t > 0.2, 0.1, 0) * np.sin(2 * np.pi * 700 * t))[:, None]
        hz, above = measures.tone_of(wave, rate, 0.0, 0.6)
        assert hz == pytest.approx(700, abs=3)
        plain = measures.tone_of(noise[:, None], rate, 0.0, 0.6)[1]
        assert above > plain + 15
        early = (noise + np.where(t < 0.19, 0.1, 0) * np.sin(2 * np.pi * 700 * t))[:, None]
        assert measures.tone_of(early, rate, 0.0, 0.6)[1] == pytest.approx(plain, abs=3)
        assert measures.tone_of(wave, rate, 0.0, 0.2999) == (None, None)
        assert measures.tone_of(wave, rate, 0.0, 0.3001)[0] is not None

    @pytest.mark.parametrize(
        ("hz", "told"), [(50.0, False), (70.0, True), (5900.0, True), (6200.0, False)]
    )
    def test_tones_are_looked_for_from_60_to_6000_hertz(self, hz, told):
        rate = 24_000
        t = np.arange(rate) / rate
        wave = (0.1 * np.sin(2 * np.pi * hz * t))[:, None]
        wave = wave + np.random.default_rng(1).normal(0, 1e-4, (rate, 1))
        found = measures.tone_of(wave, rate, 0.0, 0.6)[0]
        assert (abs(found - hz) < 5) == told

    def test_decay_needs_three_decibels_more_than_it_tells(self):
        power = np.full(600, 1e-6)
        fall = 10 ** (-np.arange(400) / 100)  # 10 dB in 100 frames
        for over, told in ((22.0, False), (25.0, True)):
            loud = power.copy()
            loud[100:500] += 1e-6 * 10 ** (over / 10) * fall
            got = measures.decay_ms(loud, power, 100, 500)
            assert (got is not None) == told
        loud = power.copy()
        loud[100:500] += fall
        assert measures.decay_ms(loud, power, 100, 500) == pytest.approx(200 * 2.5, abs=15)

    def test_the_session_tone_is_the_middle_shots(self):
        def shot(hz, above):
            return SoundEvent(1.0, "shot", None, -20, -25, 100, 800, hz, above, True, None)

        heard = (shot(500.0, 10.0), shot(700.0, 30.0), shot(600.0, 20.0), shot(None, None))
        assert session_tone(heard) == (600.0, 20.0)
        assert session_tone(heard[3:]) is None


class TestRecording:
    def test_the_outline_is_the_loudest_of_each_slice(self):
        rate = 24_000
        rng = np.random.default_rng(3)
        told = analyse(rng.normal(0, 0.01, (rate * 12, 1)), rate)
        assert len(told.outline_db) * told.slice_s == pytest.approx(12, rel=0.01)
        assert 1200 <= len(told.outline_db) < 2400
        assert told.noise_db == pytest.approx(-40, abs=3)
        assert told.outline_db.min() > -50
        assert told.duration_s == pytest.approx(12)

    @pytest.mark.parametrize(("seconds", "good"), [(0.49, False), (0.5, True)])
    def test_half_a_second_at_least(self, seconds, good):
        wave = np.random.default_rng(1).normal(0, 0.01, round(24_000 * seconds))
        if good:
            analyse(wave, 24_000)
        else:
            with pytest.raises(RefusedError, match="lasts") as caught:
                analyse(wave, 24_000)
            assert caught.value.limit == 0.5

    def test_the_slowest_rate(self):
        wave = np.random.default_rng(1).normal(0, 0.01, 22_050)
        analyse(wave, 22_050)
        with pytest.raises(ValueError, match="faster"):
            analyse(wave, 22_049)

    def test_added_times_beyond_the_recording_are_not_heard(self):
        wave = np.random.default_rng(1).normal(0, 0.01, 24_000 * 2)
        assert analyse(wave, 24_000, [-1.0, 5.0]).events == ()
        assert len(analyse(wave, 24_000, [1.0]).events) == 1


def test_the_poles_give_the_standards_ends():
    """Falling by 24 dB an octave far below, by 12 far above (two and four pole pairs)."""
    low = a_weight_db(np.array([0.5, 1.0]))
    high = a_weight_db(np.array([400e3, 800e3]))
    assert low[1] - low[0] == pytest.approx(24.1, abs=0.2)
    assert high[1] - high[0] == pytest.approx(-12.0, abs=0.2)
    assert a_weight_db(np.array([1000.0]))[0] == pytest.approx(0)
    falls = [b - a for a, b in pairwise(a_weight_db(np.array([20.0, 50.0, 200.0, 1000.0])))]
    assert falls == pytest.approx([20.2, 19.4, 10.9], abs=0.2)
