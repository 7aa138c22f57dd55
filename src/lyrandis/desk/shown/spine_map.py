"""The spine map as it is drawn: lines of one spine, and regions, over length and point."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import cast

import numpy as np
from contourpy import FillType, LineType, contour_generator

from lyrandis.core.arrays import Array
from lyrandis.core.bench import Bench
from lyrandis.core.bench.spine_map import Heed, SpineMap, spine_map

Ring = list[tuple[float, float]]  # length [in], point [gr]
LINES = (*range(300, 700, 50), *range(700, 1301, 100))  # spines as they are sold


@dataclass(frozen=True)
class SpineLine:
    """Where one spine leaves cleanly; own : the shaft's own."""

    spine: float
    own: bool
    points: Ring


@dataclass(frozen=True)
class SpineMapView:
    """The map: its edges, its lines, its regions, and where this shaft would be clean.

    window : where this shaft lies in the window; flat : where a wide range of spines leaves alike;
    too_light : under the floor of grains per pound; none : where the model finds or covers nothing
    cut_to_in, point_for_gr : where the line of this shaft's spine is met, by a cut or by a point
    """

    length_in: tuple[float, float]
    point_gr: tuple[float, float]
    lines: list[SpineLine]
    window: list[Ring]
    flat: list[Ring]
    too_light: list[Ring]
    none: list[Ring]
    acts: float
    floor_gpp: float
    cut_to_in: float | None
    point_for_gr: float | None
    rows: list[tuple[float, float, float | None]]


def spine_map_view(b: Bench, heed: Heed) -> SpineMapView:
    """The map of this rig as it is drawn.

    Raises
    ------
    RefusedError : the model says nothing of this bow, or the shaft is too short for the draw.
    """
    m = spine_map(b, heed)
    spine = np.ma.masked_invalid(m.spine)
    lines = contour_generator(m.length_in, m.point_gr, spine, line_type=LineType.Separate)
    drawn = [
        SpineLine(float(level), level == m.acts, _ring(line))
        for level in sorted({*map(float, LINES), m.acts})
        for line in cast(list[Array], lines.lines(level))
    ]
    return SpineMapView(
        length_in=(float(m.length_in[0]), float(m.length_in[-1])),
        point_gr=(float(m.point_gr[0]), float(m.point_gr[-1])),
        lines=drawn,
        window=_filled(m, spine, m.low, m.high),
        flat=_filled(m, m.flat.astype(float), 0.5, 2),
        too_light=_filled(m, m.over_floor_gpp, -1e6, 0),
        none=_filled(m, np.isnan(m.spine).astype(float), 0.5, 2),
        acts=m.acts,
        floor_gpp=b.arrow.floor.floor_gpp,
        cut_to_in=m.cut_to_in,
        point_for_gr=m.point_for_gr,
        rows=_rows(m),
    )


def _ring(line: Array) -> Ring:
    return [(round(float(x), 3), round(float(y), 2)) for x, y in line]


def _filled(m: SpineMap, values: Array, low: float, high: float) -> list[Ring]:
    """The rings of a region; drawn together by the even-odd rule."""
    made = contour_generator(m.length_in, m.point_gr, values, fill_type=FillType.OuterOffset)
    polygons, offsets = cast(tuple[list[Array], list[Array]], made.filled(low, high))
    return [
        _ring(points[a:b])
        for points, at in zip(polygons, offsets, strict=True)
        for a, b in pairwise(at)
    ]


def _rows(m: SpineMap) -> list[tuple[float, float, float | None]]:
    """Every length and point of the map with its spine, a table's rows."""
    return [
        (float(length), float(point), None if np.isnan(s) else float(s))
        for point, row in zip(m.point_gr, m.spine, strict=True)
        for length, s in zip(m.length_in, row, strict=True)
    ]
