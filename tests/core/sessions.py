"""Shooting sessions as sound, made for these tests alone: their truth is known.

A shot is a falling chirp over a burst of noise, an arrival a dull burst, a click a short high one:
nothing of it is taken from the product's own stand-ins.
"""

from dataclasses import dataclass
from functools import cache

import numpy as np

RATE_HZ = 24_000


def burst(rng, seconds, tau, low, high, rate):
    """Noise between two frequencies [Hz] that dies away with tau [s]; unit power over 125 ms."""
    n = round(seconds * rate)
    spectrum = np.fft.rfft(rng.standard_normal(n))
    hz = np.fft.rfftfreq(n, 1 / rate)
    spectrum[(hz < low) | (hz > high)] = 0
    wave = np.fft.irfft(spectrum, n) * np.exp(-np.arange(n) / rate / tau)
    return wave / np.sqrt(np.sum(wave[: round(0.125 * rate)] ** 2) / (0.125 * rate))


def bow(rng, rate):
    """A bow let go: a chirp from 900 to 300 Hz that rings on, over a burst."""
    n = round(0.6 * rate)
    t = np.arange(n) / rate
    ring = np.sin(2 * np.pi * (300 * t + 600 * 0.1 * (1 - np.exp(-t / 0.1)))) * np.exp(-t / 0.06)
    wave = ring + 0.3 * burst(rng, 0.6, 0.02, 200, 5000, rate)
    return wave / np.sqrt(np.sum(wave[: round(0.125 * rate)] ** 2) / (0.125 * rate))


def level(wave, rate):
    """A wave of unit power over its first 125 ms."""
    span = round(0.125 * rate)
    return wave / np.sqrt(np.sum(wave[:span] ** 2) / span)


class OwnBow:
    """A bow that rings at lines of its own, each shot a little otherwise."""

    def __init__(self, rng):
        lines = int(rng.integers(5, 8))
        self.hz = np.exp(rng.uniform(np.log(70), np.log(2200), lines))
        self.db, self.tau = rng.uniform(-8, 4, lines), rng.uniform(0.02, 0.07, lines)
        self.hit, self.hit_tau = rng.uniform(0.3, 0.8), rng.uniform(0.006, 0.018)
        self.low, self.high = rng.uniform(80, 400), rng.uniform(2500, 6000)

    def shot(self, rng, rate):
        t = np.arange(round(0.6 * rate)) / rate
        wave = self.hit * burst(rng, 0.6, self.hit_tau, self.low, self.high, rate)
        for hz, db, tau in zip(self.hz, self.db, self.tau, strict=True):
            loud = 10 ** ((db + rng.normal(0, 0.7)) / 20)
            wave = wave + loud * np.exp(-t / tau) * np.sin(2 * np.pi * hz * t + rng.uniform(0, 6.3))
        return level(wave, rate)


def voice(rng, rate):
    """A syllable or two: harmonics under a moving envelope."""
    seconds, pitch = rng.uniform(0.3, 0.9), rng.uniform(100, 220)
    t = np.arange(round(seconds * rate)) / rate
    wave = sum(
        np.sin(2 * np.pi * pitch * h * t + rng.uniform(0, 6))
        * np.exp(-(((pitch * h - 650) / 700) ** 2)) / h**0.8
        for h in range(1, 25)
    )  # fmt: skip
    envelope = np.clip(np.minimum(t / 0.03, (seconds - t) / 0.06), 0, 1)
    beat = 0.5 + 0.5 * np.abs(np.sin(2 * np.pi * rng.uniform(3, 6) * t))
    return level(wave * envelope * beat, rate)


@dataclass(frozen=True)
class Range:
    """samples (n, 1); own shots [s] with their levels [dB]; their arrivals; its length [s]."""

    samples: np.ndarray
    rate_hz: int
    shots: tuple
    levels: tuple
    arrivals: tuple
    seconds: float


@cache
def on_a_range(seed, echo=False, neighbours=0, voices=0, shots=6, rate=RATE_HZ):
    """A session with others about: a wall's echo at 60 to 150 ms, neighbours 3 to 9 dB down."""
    rng = np.random.default_rng([seed, 41])
    lag, arrives, seconds = rng.uniform(0.25, 1.4), rng.uniform(-4, 5), 3.0 + 6.0 * shots
    wall = np.random.default_rng([seed, 42]).uniform(0.06, 0.15)
    mine = OwnBow(rng)
    wave = burst(rng, seconds, 1e9, 60, 8000, rate)
    wave *= 10 ** (-54 / 20) / np.sqrt(np.mean(wave**2))

    def put(at, sound, db):
        start = round(at * rate)
        part = sound[: max(len(wave) - start, 0)]
        wave[start : start + len(part)] += part * 10 ** (db / 20)

    def away(before, after):
        while True:
            at = rng.uniform(0.5, seconds - 1.5)
            if all(not -before < at - own < after for own in times):
                return at

    times, levels, arrivals = [], [], []
    for i in range(shots):
        at, db = 1.2 + 6 * i + rng.uniform(0, 2), -24 + rng.normal(0, 1)
        sound = mine.shot(rng, rate)
        put(at, sound, db)
        if echo:
            put(at + wall, sound, db - rng.uniform(4, 7))
        times.append(at)
        levels.append(db)
        arrivals.append(at + lag + rng.normal(0, 0.004))
        put(arrivals[-1], burst(rng, 0.25, 0.025, 80, 900, rate), db + arrives + rng.normal(0, 1))
    others = [OwnBow(rng) for _ in range(3)]
    for _ in range(neighbours):
        at, db = away(1.3, 1.6), -24 - rng.uniform(3, 9)
        put(at, others[rng.integers(3)].shot(rng, rate), db)
        put(at + rng.uniform(0.2, 0.8), burst(rng, 0.25, 0.025, 80, 900, rate), db - 3)
    for _ in range(voices):
        put(away(0.6, 0.5), voice(rng, rate), -24 - rng.uniform(4, 14))
    return Range(wave[:, None], rate, tuple(times), tuple(levels), tuple(arrivals), seconds)


@dataclass(frozen=True)
class Session:
    """samples of shape (n, 1); the times [s] at which everything truly sounded."""

    samples: np.ndarray
    rate_hz: int
    shots: tuple
    arrivals: tuple
    clicks: tuple
    knocks: tuple


@cache
def session(
    seed=1,
    shots=5,
    level_db=-24.0,
    noise_db=-56.0,
    arrival_db=0.0,
    lag_s=0.4,
    click=False,
    knocks=0,
    apart_s=3.0,
    rate=RATE_HZ,
    sd_db=1.0,
):
    """A session of shots `apart_s` apart, each with its arrival `lag_s` later."""
    rng = np.random.default_rng([seed, 99])
    seconds = 2.0 + apart_s * shots
    wave = burst(rng, seconds, 1e9, 60, 8000, rate)
    wave *= 10 ** (noise_db / 20) / np.sqrt(np.mean(wave**2))
    truth = {"shots": [], "arrivals": [], "clicks": [], "knocks": []}

    def put(name, at, sound, db):
        start = round(at * rate)
        part = sound[: max(len(wave) - start, 0)]
        wave[start : start + len(part)] += part * 10 ** (db / 20)
        truth[name].append(at)

    for i in range(shots):
        at = 1.0 + apart_s * i + rng.uniform(0, apart_s - 2.2)
        level = level_db + rng.normal(0, sd_db)
        put("shots", at, bow(rng, rate), level)
        put("arrivals", at + lag_s + rng.normal(0, 0.004), burst(rng, 0.25, 0.025, 80, 900, rate),
            level + arrival_db)  # fmt: skip
        if click:
            put("clicks", at - rng.uniform(0.2, 0.4), burst(rng, 0.03, 0.004, 3000, 6000, rate),
                level - 11)  # fmt: skip
    for _ in range(knocks):
        put("knocks", rng.uniform(0.4, seconds - 0.8), burst(rng, 0.2, 0.02, 500, 1500, rate),
            level_db + rng.uniform(-6, 4))  # fmt: skip
    return Session(wave[:, None], rate, *(tuple(truth[k]) for k in truth))
