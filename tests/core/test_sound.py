"""Sound: the weighting, and what is found in sessions whose truth is known."""

import numpy as np
import pytest
import scipy.fft
from sessions import RATE_HZ, bow, session

from lyrandis.core.errors import RefusedError
from lyrandis.core.sound import pairing
from lyrandis.core.sound.events import analyse
from lyrandis.core.sound.weighting import a_weight_db, a_weighted


def near(times, truth, within=0.03):
    return sum(any(abs(t - s) < within for t in times) for s in truth)


def heard(made, added=()):
    return analyse(made.samples, made.rate_hz, added)


def shots_of(told):
    return [e for e in told.events if e.kind == "shot"]


class TestWeighting:
    @pytest.mark.parametrize(
        ("hz", "db"), [(31.5, -39.5), (100, -19.1), (1000, 0), (4000, 1.0), (10000, -2.5)]
    )
    def test_the_standards_table(self, hz, db):
        assert a_weight_db(np.array([hz]))[0] == pytest.approx(db, abs=0.2)
        t = np.arange(48_000) / 48_000
        tone = np.sin(2 * np.pi * hz * t)[:, None]
        inside = a_weighted(tone, 48_000)[4800:-4800]
        gain = 10 * np.log10(np.mean(inside**2) / np.mean(tone[4800:-4800] ** 2))
        assert gain == pytest.approx(db, abs=0.2)

    def test_channels_are_averaged_by_power_not_by_sample(self):
        """Two channels of opposite sign do not cancel."""
        mono = session().samples
        one, two = analyse(mono, RATE_HZ), analyse(np.hstack([mono, -mono]), RATE_HZ)
        assert len(shots_of(one)) == 5
        assert [e.level_db for e in one.events] == pytest.approx([e.level_db for e in two.events], abs=0.01)  # fmt: skip


class TestFinding:
    @pytest.mark.parametrize(
        "more",
        [
            {},
            {"noise_db": -38.0},
            {"arrival_db": 8.0},
            {"arrival_db": 6.0, "noise_db": -38.0},
            {"lag_s": 0.25},
            {"lag_s": 1.4},
            {"lag_s": 0.9},
            {"click": True},
            {"rate": 48_000},
        ],
        ids=str,
    )
    def test_shots_arrivals_and_clicks_are_what_they_were(self, more):
        shots = arrivals = clicks = false = 0
        for seed in range(4):
            made = session(seed=seed, **more)
            told = heard(made)
            by = {k: [e.at_s for e in told.events if e.kind == k] for k in ("shot", "arrival", "click")}  # fmt: skip
            shots += near(by["shot"], made.shots)
            arrivals += near(by["arrival"], made.arrivals)
            clicks += near(by["click"], made.clicks)
            false += len(by["shot"]) - near(made.shots, by["shot"])
        assert shots >= 19
        assert arrivals >= 19
        assert clicks >= (18 if more.get("click") else 0)
        assert false == 0

    def test_knocks_about(self):
        found = false = 0
        for seed in range(6):
            made = session(seed=seed, knocks=3, apart_s=4.0)
            told = heard(made)
            if told.ask:  # then one marked shot decides
                told = analyse(made.samples, made.rate_hz, mine_s=made.shots[:1])
            said = [e.at_s for e in shots_of(told)]
            found += near(said, made.shots)
            false += len(said) - near(made.shots, said)
        assert found >= 29
        assert false <= 2  # 6 sessions of 22 s: under one a minute

    def test_nothing_but_noise_holds_no_shot(self):
        rng = np.random.default_rng(8)
        told = analyse(rng.normal(0, 0.01, (RATE_HZ * 8, 1)), RATE_HZ)
        assert told.events == ()
        assert told.lag_s is None

    def test_a_single_shot_is_found_without_a_common_lag(self):
        made = session(shots=1, seed=4)
        told = heard(made)
        assert [e.kind for e in told.events] == ["shot", "arrival"]
        assert told.events[1].lag_s == pytest.approx(0.4, abs=0.02)
        assert told.events[0].at_s == pytest.approx(made.shots[0], abs=0.01)

    def test_each_shot_has_decay_and_centroid_and_the_session_its_lag(self):
        told = heard(session())
        assert told.lag_s == pytest.approx(0.4, abs=0.01)
        for e in told.events:
            if e.kind == "shot":
                assert 60 < e.decay_ms < 150
                assert 300 < e.centroid_hz < 2500
                assert e.lag_s is None
            else:
                assert e.decay_ms is None
                assert e.lag_s == pytest.approx(0.4, abs=0.03)

    def test_a_rattle_is_a_tone_that_has_grown(self):
        rng = np.random.default_rng(2)
        t = np.arange(round(0.6 * RATE_HZ)) / RATE_HZ

        def told(rattle):
            wave = rng.normal(0, 1e-4, 6 * RATE_HZ)
            sound = bow(rng, RATE_HZ) * 0.1
            sound += rattle * np.exp(-t / 0.25) * np.sin(2 * np.pi * 1100 * t)
            wave[RATE_HZ : RATE_HZ + len(sound)] += sound
            return analyse(wave, RATE_HZ).tone

        hz, above = told(0.03)
        assert hz == pytest.approx(1100, abs=6)
        assert above > told(0.0)[1] + 3

    def test_level_differences_are_right(self):
        """Two sessions of the same bow, one 4 dB louder: the difference within 0.2 dB."""
        for noise in (-56.0, -42.0):
            loud, soft = (
                np.mean([e.level_db for e in shots_of(heard(session(seed=2, level_db=at, noise_db=noise)))])
                for at in (-20.0, -24.0)
            )  # fmt: skip
            assert loud - soft == pytest.approx(4, abs=0.2)

    def test_a_level_is_that_of_the_loudest_eighth_of_a_second(self):
        """A steady tone of 1 kHz for 125 ms at half of full scale: −9 dB, in exposure −18."""
        t = np.arange(3 * RATE_HZ) / RATE_HZ
        on = (t >= 1.0) & (t < 1.125)
        tone = np.where(on, 0.5 * np.sin(2 * np.pi * 1000 * t), 0.0)
        tone += np.random.default_rng(1).normal(0, 1e-5, len(t))
        (event,) = analyse(tone, RATE_HZ).events
        assert event.level_db == pytest.approx(10 * np.log10(0.125), abs=0.1)
        assert event.exposure_db == pytest.approx(10 * np.log10(0.125 * 0.125), abs=0.1)
        assert event.at_s == pytest.approx(1.0, abs=0.01)
        assert event.centroid_hz == pytest.approx(1000, abs=30)

    @pytest.mark.parametrize("tau", [0.02, 0.04])
    def test_a_ring_has_lost_twenty_decibels_when_it_should(self, tau):
        t = np.arange(3 * RATE_HZ) / RATE_HZ
        ring = np.exp(-(t - 1).clip(0) / tau) * np.sin(2 * np.pi * 1000 * t) * (t >= 1)
        ring += np.random.default_rng(1).normal(0, 1e-5, len(t))
        (event,) = analyse(0.5 * ring, RATE_HZ).events
        assert event.decay_ms == pytest.approx(1000 * tau * np.log(10), abs=5)

    @pytest.mark.parametrize(
        ("samples", "rate", "words"),
        [
            (np.zeros(48_000), 48_000, "silent"),
            (np.ones(100), 48_000, "lasts"),
            (np.ones(8000), 8000, "22.05 kHz"),
            (np.full(48_000, np.nan), 48_000, "no numbers"),
        ],
    )
    def test_what_cannot_be_listened_to(self, samples, rate, words):
        with pytest.raises(RefusedError, match=words):
            analyse(samples, rate)


class TestByHand:
    made = session(seed=9, shots=3, apart_s=4.0)

    def test_a_shot_added_by_hand_is_one_wherever_it_stands(self):
        plain = heard(self.made)
        assert len(shots_of(plain)) == 3
        quiet = self.made.shots[1] + 1.6
        added = [e for e in heard(self.made, [quiet]).events if abs(e.at_s - quiet) < 0.01]
        assert [e.kind for e in added] == ["shot"]
        assert added[0].level_db < min(e.level_db for e in plain.events) - 6

    def test_an_arrival_called_a_shot_becomes_one(self):
        told = heard(self.made, [self.made.arrivals[0]])
        there = [e for e in told.events if abs(e.at_s - self.made.arrivals[0]) < 0.05]
        assert [e.kind for e in there] == ["shot"]
        assert len(shots_of(told)) == 4


class TestWhatDoesNotMatter:
    """Gain, place in time and the number of like channels change nothing but what they must."""

    made = session(seed=21, shots=4)

    def test_gain_adds_its_decibels_to_every_level(self):
        plain, loud = heard(self.made), analyse(self.made.samples * 2, RATE_HZ)
        assert [e.kind for e in plain.events] == [e.kind for e in loud.events]
        for a, b in zip(plain.events, loud.events, strict=True):
            assert b.level_db - a.level_db == pytest.approx(6.02, abs=0.02)
            assert b.exposure_db - a.exposure_db == pytest.approx(6.02, abs=0.02)
        assert loud.noise_db - plain.noise_db == pytest.approx(6.02, abs=0.02)

    def test_a_later_start_moves_every_event_by_as_much(self):
        rng = np.random.default_rng(4)
        quiet = rng.normal(0, float(np.std(self.made.samples[: RATE_HZ // 2])), (RATE_HZ, 1))
        plain = heard(self.made)
        late = analyse(np.vstack([quiet, self.made.samples]), RATE_HZ)
        a, b = ([e.at_s for e in shots_of(t)] for t in (plain, late))
        assert np.array(b) - np.array(a) == pytest.approx(np.ones(len(a)), abs=0.006)

    def test_the_same_in_both_channels_is_as_loud_as_in_one(self):
        one, two = heard(self.made), analyse(np.tile(self.made.samples, (1, 2)), RATE_HZ)
        assert [e.level_db for e in one.events] == pytest.approx([e.level_db for e in two.events], abs=1e-3)  # fmt: skip

    def test_the_sessions_tone_is_one_shots_own(self):
        told = heard(session(seed=6, noise_db=-80, lag_s=0.8))
        pairs = [(e.tone_hz, e.tone_above_db) for e in shots_of(told)]
        assert told.tone in pairs
        quiet = analyse(np.random.default_rng(8).normal(0, 0.01, (RATE_HZ * 8, 1)), RATE_HZ)
        assert quiet.tone is None


class TestBlocks:
    """The weighting goes block by block: nothing of it shows in the result."""

    @pytest.mark.parametrize("channels", [1, 2])
    def test_the_same_as_all_at_once(self, channels):
        rate = 48_000
        rng = np.random.default_rng(3)
        data = rng.normal(0, 0.1, (700_000, channels)).astype(np.float32)
        data[262_000:262_300] += 0.8  # a knock where one block ends and the next begins
        size = scipy.fft.next_fast_len(2 * len(data), real=True)
        gain = 10 ** (a_weight_db(np.arange(size // 2 + 1) * (rate / size)) / 20)
        whole = scipy.fft.irfft(
            scipy.fft.rfft(data.astype(float), size, axis=0) * gain[:, None], size, axis=0
        )
        assert np.abs(a_weighted(data, rate) - whole[: len(data)]).max() < 2e-5

    def test_the_samples_are_kept_unless_they_may_be_spoilt(self):
        data = np.random.default_rng(3).normal(0, 0.1, (50_000, 1)).astype(np.float32)
        before = data.copy()
        weighted = a_weighted(data, 48_000)
        assert (data == before).all()
        assert a_weighted(data, 48_000, spoil=True) is data
        assert data == pytest.approx(weighted)

    def test_it_can_be_stopped_between_blocks(self):
        calls = []

        def heed(share):
            calls.append(share)
            if len(calls) == 2:
                raise InterruptedError

        with pytest.raises(InterruptedError):
            a_weighted(np.ones((700_000, 1), dtype=np.float32), 48_000, heed=heed)


class TestLags:
    def test_the_common_lag_is_found_among_thousands_of_knocks(self):
        """Shots every five seconds among knocks at random: their arrivals' lag still stands out."""
        rng = np.random.default_rng(7)
        frames = sorted(
            {int(f) for f in rng.uniform(0, 400_000, 800)}
            | {2000 * i for i in range(200)}
            | {2000 * i + 180 for i in range(200)}
        )
        shots = {2000 * i for i in range(200)}
        heard = [
            pairing.Heard(f, f + 40, -10.0 if f in shots else float(rng.uniform(-40, -20)), 0.0)
            for f in frames
        ]
        lag, firsts = pairing.common_lag(heard, lambda: None)
        assert lag == pytest.approx(0.45, abs=0.041)
        found = {heard[i].frame for i in firsts}
        assert len(found & shots) > 150
