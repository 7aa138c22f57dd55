"""A slow-motion clip from above, frame by frame: how the nock went, and how fast the shaft bends.

          nock ●───────────────▶ point        marked on some frames, in pixels
    axis of the first marked frame, at full draw: sideways is square to it

After the string lets go both ends go straight but for the first bending mode, in which they swing
together: y(t) = a + b t + g (A cos ωt + B sin ωt) for each end, g its height in that mode. The
frequency is where the sum of squares is least; its ± is where it rises by one of its variance.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said, say

LEAST_HZ, MOST_HZ, STEP_HZ = 25.0, 160.0, 0.25  # of a shaft's first bending
LEAST_FRAMES, LEAST_PERIODS = 7, 1.2  # after the string let go
_NYQUIST = 0.45  # of the frames a second
_LEAST_FALL = 4.0  # times: the squares must be so much less than without any bending
_RIVAL = 9.0  # variances: another frequency as near as this leaves it open
_LEAST_MM = 1.0  # a mark is set no better


@dataclass(frozen=True)
class Marked:
    """Nock and point on one frame [px], y downwards."""

    frame: int
    nock: tuple[float, float]
    point: tuple[float, float]


@dataclass(frozen=True)
class Track:
    """The ends beside the axis, shape (n,).

    time_s : from when the string let go
    nock_mm, point_mm : away from the side plate
    mm_per_px : the picture's scale
    """

    time_s: Array
    nock_mm: Array
    point_mm: Array
    mm_per_px: float


def track(
    marks: Sequence[Marked],
    frames_a_second: float,
    let_go: float,
    length_mm: float,
    plate_left: bool,
) -> Track:
    """The ends of the shaft beside its own axis at the first marked frame.

    Parameters
    ----------
    marks : two frames at least, rising; on the first the arrow is at full draw and straight
    let_go : the frame on which the string lets the arrow go
    length_mm : from nock to point
    plate_left : whether the arrow stands to the left of the bow as the archer sees it
    """
    nock, point = (np.array([getattr(m, end) for m in marks], float) for end in ("nock", "point"))
    axis = point[0] - nock[0]
    long = float(np.hypot(*axis))
    # From above the archer's left lies to the left of the arrow's way.
    left = np.array([axis[1], -axis[0]]) / long
    away = left if plate_left else -left
    scale = length_mm / long
    aside = [(end - nock[0]) @ away * scale for end in (nock, point)]
    frames = np.array([m.frame for m in marks], float)
    return Track((frames - let_go) / frames_a_second, aside[0], aside[1], scale)


def bend_frequency(
    t: Track, frames_a_second: float, ends: tuple[float, float]
) -> tuple[Estimate | None, Said]:
    """The first bending frequency [Hz] with its ±, or None; and why.

    Parameters
    ----------
    ends : heights of nock and point in the first bending mode, in proportion

    Source: own derivation, variable projection over a grid; tests/core/test_clip.py.
    """
    after = t.time_s >= 0
    time, y = t.time_s[after], np.concatenate([t.nock_mm[after], t.point_mm[after]])
    if len(time) < LEAST_FRAMES:
        return None, say(
            f"Mark {LEAST_FRAMES} frames at least after the string let go: a bend that swings is "
            "not to be told from fewer."
        )
    most = min(MOST_HZ, _NYQUIST * frames_a_second)
    grid = np.arange(LEAST_HZ, most, STEP_HZ)
    grid = grid[grid * (time[-1] - time[0]) >= LEAST_PERIODS]
    if not len(grid):
        return None, say("The frames are too few a second, or too short a time, for a bend.")
    straight = float(_squares(time, y, ends, np.zeros(1))[0])
    squares = _squares(time, y, ends, grid)
    best = int(squares.argmin())
    free = max(len(y) - 7, 1)
    variance = max(squares[best] / free, (_LEAST_MM / 2) ** 2)
    near = squares - squares[best] <= variance
    away = np.abs(grid - grid[best]) > 0.15 * grid[best]
    rivals = away & (squares - squares[best] <= _RIVAL * variance)
    if straight < _LEAST_FALL * max(squares[best], variance * free) or rivals.any():
        return None, say(
            "The marks do not show one bend that swings: mark more frames, or film faster."
        )
    if best in (0, len(grid) - 1):
        return None, say("The bend swings beyond what these frames can show: film faster.")
    wide = float(np.ptp(grid[near])) / 2 if near.sum() > 1 else STEP_HZ
    return (
        Estimate(value=float(grid[best]), plus_minus=max(wide, STEP_HZ), source="measured"),
        say("By the marks on nock and point after the string let go."),
    )


def _squares(time: Array, y: Array, ends: tuple[float, float], hz: Array) -> Array:
    """The least sums of squares [mm²], both ends going straight and bending at each frequency
    together, shape (g,); at 0 Hz they go straight alone."""
    one, zero, on = np.ones_like(time), np.zeros_like(time), time / time[-1]
    straight = [np.concatenate(c) for c in ((one, zero), (on, zero), (zero, one), (zero, on))]
    turn = 2 * np.pi * hz[:, None] * time[None, :]
    swings = [
        np.concatenate([ends[0] * wave, ends[1] * wave], axis=1) / abs(ends[0])
        for wave in (np.cos(turn), np.sin(turn))
    ]
    made = np.stack([*(np.broadcast_to(c, swings[0].shape) for c in straight), *swings], axis=2)
    left = y - (made @ (np.linalg.pinv(made) @ y)[:, :, None])[:, :, 0]
    return np.asarray((left**2).sum(axis=1))
