"""What is measured of one sound: its bands, how it dies away, its strongest line."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
from scipy import fft

from lyrandis.core.arrays import Array
from lyrandis.core.sound.onsets import FRAME_S, TINY
from lyrandis.core.sound.weighting import Samples

SHAPE_S, TONE_AFTER_S, BANDS_S = 0.1, 0.2, 0.25
_OCTAVES_HZ = 60.0 * 2.0 ** np.arange(8)
_QUARTERS_FROM_HZ, _QUARTERS = 40.0, 24  # to 2.5 kHz
_QUARTER_FLOOR_DB = -50.0
_SHAPE_FLOOR_DB = -40.0
_TONE_HZ = (60.0, 6000.0)
_DECAY_DB, _DECAY_OVER_NOISE_DB, _DECAY_FRAMES = 20.0, 23.0, 4
_TONE_LEAST_S, _TONE_BESIDE = 0.1, 1.5  # at least so long; neighbours within this ratio of it
_LEAST_SPECTRUM = 8192


def to_db(power: float) -> float:
    return float(10 * np.log10(max(power, TINY)))


def in_frames(seconds: float) -> int:
    return round(seconds / FRAME_S)


def octaves_db(weighted: Samples, rate_hz: float, start: int) -> Array:
    """Seven octave bands from 60 Hz over 100 ms, dB of their total."""
    part = weighted[start : start + int(SHAPE_S * rate_hz)]
    if len(part) < 64:
        return np.zeros(7)
    power = (np.abs(fft.rfft(part, axis=0)) ** 2).sum(axis=1)
    at = np.searchsorted(np.arange(len(power)) * rate_hz / len(part), _OCTAVES_HZ)
    bands = np.array([power[a:b].sum() for a, b in pairwise(at)]) + TINY
    shape: Array = 10 * np.log10(bands / bands.sum())
    return np.maximum(shape, _SHAPE_FLOOR_DB)


def quarters_db(weighted: Samples, rate_hz: float, start: int) -> Array:
    """Quarter-octave bands from 40 Hz to 2.5 kHz over 250 ms, dB of their total, shape (24,)."""
    part = weighted[start : start + round(BANDS_S * rate_hz)]
    if len(part) < 64:
        return np.full(_QUARTERS, _QUARTER_FLOOR_DB)
    power = (np.abs(fft.rfft(part, axis=0)) ** 2).sum(axis=1)
    summed = np.concatenate([[0.0], np.cumsum(power)])
    edges = _QUARTERS_FROM_HZ * 2.0 ** (np.arange(_QUARTERS + 1) / 4)
    at = np.searchsorted(np.arange(len(power)) * rate_hz / len(part), edges)
    bands = np.diff(summed[np.minimum(at, len(power))])
    told: Array = 10 * np.log10(np.maximum(bands / (summed[-1] + TINY), TINY))
    return np.maximum(told, _QUARTER_FLOOR_DB)


def decay_ms(power: Array, background: Array, start: int, end: int) -> float | None:
    part = np.convolve(
        power[start:end] - background[start:end],
        np.ones(_DECAY_FRAMES) / _DECAY_FRAMES,
        mode="same",
    )
    top = int(np.argmax(part))
    if part[top] <= 0 or part[top] < 10 ** (_DECAY_OVER_NOISE_DB / 10) * background[start + top]:
        return None  # 20 dB down would be under the noise
    under = np.flatnonzero(part[top:] < part[top] / 10 ** (_DECAY_DB / 10))
    return None if len(under) == 0 else float(under[0] * FRAME_S * 1000)


def spectrum(weighted: Samples, rate_hz: float, a: int, b: int) -> tuple[Array, Array]:
    part = weighted[a:b] * np.hanning(b - a)[:, None]
    size = fft.next_fast_len(max(len(part), _LEAST_SPECTRUM), real=True)
    power = (np.abs(fft.rfft(part, size, axis=0)) ** 2).sum(axis=1)
    return np.arange(len(power)) * rate_hz / size, power


def tone_of(
    weighted: Samples, rate_hz: float, start_s: float, end_s: float
) -> tuple[float | None, float | None]:
    """The strongest line from 200 ms on, and how far [dB] it stands over the median around it."""
    a, b = round((start_s + TONE_AFTER_S) * rate_hz), round(end_s * rate_hz)
    if b - a < _TONE_LEAST_S * rate_hz:
        return None, None
    hz, power = spectrum(weighted, rate_hz, a, b)
    inside = (hz >= _TONE_HZ[0]) & (hz <= _TONE_HZ[1])
    top = int(np.flatnonzero(inside)[np.argmax(power[inside])])
    near = (hz > hz[top] / _TONE_BESIDE) & (hz < hz[top] * _TONE_BESIDE)
    return float(hz[top]), to_db(float(power[top] / (np.median(power[near]) + TINY)))
