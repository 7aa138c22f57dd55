"""Which found shots' levels can be used: none that is clipped, cut off or blown over (step 8).

Source: docs/mechanics E3.
"""

from __future__ import annotations

from typing import Literal

import numpy as np
from scipy import fft

from lyrandis.core.arrays import Array
from lyrandis.core.sound.measures import to_db
from lyrandis.core.sound.onsets import FRAME_S, Frames
from lyrandis.core.sound.pairing import Heard
from lyrandis.core.sound.weighting import Samples, a_weight_db

Spoilt = Literal["clipped", "cut", "wind"]
FULL_SCALE, _RUN = 0.999, 3  # of the loudest sample, so many in a row
_LEAST_PEAK = 0.5  # of full scale: under it nothing is clipped
CUT_S = 0.3
WIND_DB, WIND_HZ = 10.0, 100.0
_BEFORE_S, _PAUSE_S = 0.3, 0.03
_AT_ONCE = 1 << 20


def clipped_at(samples: Samples) -> Array:
    """Places [sample] at which a channel runs at full scale; samples of shape (n, channels)."""
    peak = max(float(samples.max()), -float(samples.min()))
    if peak < _LEAST_PEAK:
        return np.zeros(0)
    limit = FULL_SCALE * peak
    found = []
    for first in range(0, len(samples), _AT_ONCE):
        part = samples[first : first + _AT_ONCE + _RUN - 1]
        full = np.abs(part) >= limit
        run = full[: len(part) - _RUN + 1]
        for k in range(1, _RUN):
            run = run & full[k : len(part) - _RUN + 1 + k]
        found.append(first + np.flatnonzero(run.any(axis=1)))
    return np.concatenate(found).astype(float)


def _blown(event: Heard, frames: Frames, weighted: Samples, rate_hz: float) -> bool:
    """Whether wind lies under a shot: within 10 dB of it just before, most of it under 100 Hz."""
    a = max(0, round((event.at - _PAUSE_S - _BEFORE_S) / FRAME_S))
    b = max(0, round((event.at - _PAUSE_S) / FRAME_S))
    if b - a < 8:
        return False
    before = max(float(frames.power[a:b].mean()), float(frames.background[event.frame]))
    if event.level - to_db(before) >= WIND_DB:
        return False
    part = weighted[round(a * FRAME_S * rate_hz) : round(b * FRAME_S * rate_hz)]
    power = (np.abs(fft.rfft(part, axis=0)) ** 2).sum(axis=1)[1:]
    hz = np.arange(1, len(power) + 1) * rate_hz / len(part)
    bare = power * 10 ** (-a_weight_db(hz) / 10)
    return bool(bare[hz < WIND_HZ].sum() > 0.5 * bare.sum())


def spoilt(
    event: Heard,
    clipped: Array,
    frames: Frames,
    weighted: Samples,
    rate_hz: float,
    duration_s: float,
) -> Spoilt | None:
    """What spoils the level of an event; None where it can be used.

    clipped : from `clipped_at`, before the recording was weighted
    """
    if event.at < CUT_S or duration_s - event.at < CUT_S:
        return "cut"
    a, b = event.at * rate_hz, event.end * FRAME_S * rate_hz
    i = int(np.searchsorted(clipped, a))
    if i < len(clipped) and clipped[i] < b:
        return "clipped"
    return "wind" if _blown(event, frames, weighted, rate_hz) else None
