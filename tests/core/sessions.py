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
