"""Where something sounds in a recording: power in short frames, its floor, and the onsets."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.ndimage import percentile_filter, uniform_filter1d

from lyrandis.core.arrays import Array
from lyrandis.core.sound.weighting import Samples

FRAME_S = 0.0025
_BLOCK = 10  # frames: 25 ms
_FLOOR_BLOCKS, _SMOOTH_BLOCKS = 120, 21  # 3 s, about half a second
FLOOR_TO_MEAN = 1.12
_OVER_FLOOR_DB, _OVER_BEFORE_DB, _PEAK_DB = 10.0, 6.0, 14.0
_BEFORE, _PEAK_WITHIN, _RE_ARM = (12, 2), 12, 24  # frames: 30…5 ms, 30 ms, 60 ms
TINY = 1e-14
_FRAMES_AT_ONCE = 20_000
_SMOOTH_FRAMES, _FLOOR_PERCENTILE = 4, 20


@dataclass(frozen=True)
class Frames:
    """A-weighted power in frames of 2.5 ms, channels averaged, and the background's mean.

    power and background : shape (n,), full scale squared
    """

    power: Array
    background: Array


def frames_of(weighted: Samples, rate_hz: float) -> Frames:
    """Frames of a weighted recording of shape (n, channels)."""
    per = rate_hz * FRAME_S
    count = int(len(weighted) / per)
    edges = np.round(np.arange(count + 1) * per).astype(int)
    sums = np.zeros(count)
    for first in range(0, count, _FRAMES_AT_ONCE):
        at = edges[first : min(first + _FRAMES_AT_ONCE, count) + 1]
        part = weighted[at[0] : at[-1]]
        power = np.einsum("ij,ij->i", part, part) / weighted.shape[1]
        sums[first : first + len(at) - 1] = np.add.reduceat(power, at[:-1] - at[0])
    frames = sums / np.maximum(np.diff(edges), 1)
    return Frames(frames, background_of(frames))


def background_of(power: Array) -> Array:
    """Mean power of the background, shape (n,), from frames in which shots are rare."""
    if len(power) < 2 * _BLOCK:
        return np.full(len(power), max(float(np.median(power)) if len(power) else 0.0, TINY))
    smooth = uniform_filter1d(power, _SMOOTH_FRAMES)
    blocks = len(smooth) // _BLOCK
    medians = np.median(smooth[: blocks * _BLOCK].reshape(blocks, _BLOCK), axis=1)
    low = percentile_filter(
        medians, _FLOOR_PERCENTILE, size=min(_FLOOR_BLOCKS, blocks), mode="nearest"
    )
    level = uniform_filter1d(low, _SMOOTH_BLOCKS, mode="nearest") * FLOOR_TO_MEAN
    at = (np.arange(len(power)) / _BLOCK - 0.5).clip(0, blocks - 1)
    out: Array = np.maximum(np.interp(at, np.arange(blocks), level), TINY)
    return out


def onsets(frames: Frames) -> list[int]:
    """Frames at which something begins to sound, in order.

    Source: docs/mechanics E3, step 2.
    """
    power, floor = frames.power, frames.background / FLOOR_TO_MEAN
    n = len(power)
    if n < _BEFORE[0] + _PEAK_WITHIN:
        return []
    now = (power + np.append(power[1:], power[-1])) / 2
    total = np.concatenate([[0.0], np.cumsum(power)])
    i = np.arange(n)
    a, b = np.maximum(i - _BEFORE[0], 0), np.maximum(i - _BEFORE[1], 1)
    before = (total[b] - total[a]) / np.maximum(b - a, 1)
    rises = (now > floor * 10 ** (_OVER_FLOOR_DB / 10)) & (
        now > np.maximum(before, TINY) * 10 ** (_OVER_BEFORE_DB / 10)
    )
    found: list[int] = []
    for k in np.flatnonzero(rises).tolist():
        if found and k - found[-1] < _RE_ARM:
            continue
        if power[k : k + _PEAK_WITHIN].max() >= floor[k] * 10 ** (_PEAK_DB / 10):
            found.append(k)
    return found
