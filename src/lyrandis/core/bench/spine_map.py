"""Which spine leaves this bow cleanly, over the shaft's length and the weight of its point.

point
  |  500    600        each line is one spine; a shaft is brought onto the line of its own spine
  |    \\     \\         by cutting it (to the left) or by another point (up or down)
  |     \\ x   \\        x this shaft
  +------------- length
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.build import build
from lyrandis.core.bench.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.flex.window import FIT_SHAFT_IN
from lyrandis.core.parts import Arrow
from lyrandis.core.tune.shaft import shortest_safe_in

STEP_IN, LONGER_IN = 0.5, 1.5  # of the lengths; how far past this shaft's own
STEP_GR, LIGHTEST_GR, HEAVIEST_GR = 20.0, 50.0, 210.0  # of the points

Heed = Callable[[float], None]


@dataclass(frozen=True)
class SpineMap:
    """The clean spine over lengths and points.

    length_in : shape (n,); point_gr : shape (m,)
    spine : what leaves cleanly [0.001 in], shape (m, n); NaN where the model finds or covers none
    flat : where so little changes about the match that a wide range of spines leaves alike
    over_floor_gpp : grains per pound over the floor, shape (m, n); below 0 too light
    acts : this shaft's own spine
    low, high : spines that a shaft of `acts` may be matched with and still lies in the window
    cut_to_in : the longest length, no longer than now, at which this shaft is clean with its point
    point_for_gr : the point with which it is clean as long as it is; None: off the map
    """

    length_in: Array
    point_gr: Array
    spine: Array
    flat: NDArray[np.bool_]
    over_floor_gpp: Array
    acts: float
    low: float
    high: float
    cut_to_in: float | None
    point_for_gr: float | None


def spine_map(b: Bench, heed: Heed) -> SpineMap:
    """The map of this rig, row by row; `heed` is told how far it is, and raises to end it.

    Raises
    ------
    RefusedError : the model does not cover this bow, or the shaft is too short for the draw.
    """
    arrow, window = b.rig.arrow, b.arrow.window
    if window.spine_28in is None or window.low is None or window.high is None:
        raise RefusedError(
            "arrow", window.why_outside("No map is drawn where the model says nothing: ")
        )
    least = max(FIT_SHAFT_IN[0], shortest_safe_in(b.rig.archer.draw_length_in))
    longest = min(FIT_SHAFT_IN[1], max(arrow.shaft_length_in, least) + LONGER_IN)
    lengths = np.arange(least, longest + 1e-9, STEP_IN)
    points = np.arange(LIGHTEST_GR, HEAVIEST_GR + 1e-9, STEP_GR)
    spine = np.full((len(points), len(lengths)), np.nan)
    flat, over = np.zeros(spine.shape, bool), np.empty_like(spine)
    for i, point in enumerate(points.tolist()):
        heed(i / len(points))
        for j, length in enumerate(lengths.tolist()):
            made = _made(arrow, length, point)
            spine[i, j], flat[i, j] = _clean(b, made)
            over[i, j] = _over_floor(b, made)
    acts, suits = b.arrow.build.acts_spine, window.spine_28in.value
    return SpineMap(
        lengths,
        points,
        spine,
        flat,
        over,
        acts,
        acts * suits / window.high,
        acts * suits / window.low,
        _where(lengths, _along(lengths, points, spine, point=arrow.point_gr), acts,
               arrow.shaft_length_in),
        _where(points, _along(lengths, points, spine, length=arrow.shaft_length_in), acts),
    )  # fmt: skip


def _made(arrow: Arrow, length_in: float, point_gr: float) -> Arrow:
    return arrow.model_copy(
        update={"shaft_length_in": length_in, "point_gr": point_gr, "weighed_gr": None}
    )


def _clean(b: Bench, arrow: Arrow) -> tuple[float, bool]:
    """The spine that leaves cleanly, and whether it is flat there; NaN outside, or where none."""
    told = b.arrow.window_for(arrow)
    if told.spine_28in is None or told.clean is None or told.clean.match is None:
        return np.nan, False
    return told.spine_28in.value, told.clean.flat


def _over_floor(b: Bench, arrow: Arrow) -> float:
    """Grains per pound over the floor; its parts' weight differs from this arrow's as they say."""
    now = b.rig.arrow
    shift = build(arrow).mass_gr - build(_made(now, now.shaft_length_in, now.point_gr)).mass_gr
    light = b.arrow.build.lightest_gr + shift
    return light / b.bow.heaviest_lbf - b.arrow.floor.floor_gpp


def _along(
    lengths: Array,
    points: Array,
    spine: Array,
    length: float | None = None,
    point: float | None = None,
) -> Array:
    """The spines along one row at a point's weight, or along one column at a length."""
    if point is not None:
        return np.array([np.interp(point, points, col, np.nan, np.nan) for col in spine.T])
    assert length is not None
    return np.array([np.interp(length, lengths, row, np.nan, np.nan) for row in spine])


def _where(at: Array, spine: Array, acts: float, most: float = np.inf) -> float | None:
    """The greatest place, no further than `most`, where the clean spine is the shaft's own."""
    for i in range(len(at) - 1, 0, -1):
        a, b = spine[i - 1] - acts, spine[i] - acts
        if np.isnan(a + b) or a * b > 0 or a == b:
            continue
        place = float(at[i - 1] + (at[i] - at[i - 1]) * a / (a - b))
        if place <= most + 1e-9:
            return place
    return None
