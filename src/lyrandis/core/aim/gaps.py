"""Aiming without a crawl, or with one for all: how far from the spot the tip is held.

            ⌒⌒⌒⌒⌒
      ⌒⌒             ⌒⌒
eye ⌒                    ● spot
   ·  ─ ─ ─ tip ─ ─ ─ ─  │ gap: the arrow rises so far over the line eye to tip
                      ─ ─+ where the tip is held
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.aim.crawls import OFF_M, danger_space_m, refuse_distances
from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.flight.trajectory import AimedArrow, impact_m, shaft_angle
from lyrandis.core.units import M_PER_FT

_MOST_GAP_M = 6.0  # more of it is nowhere near a butt: the arrow does not reach the distance


def crawled(aimed: AimedArrow, crawl_mm: float) -> AimedArrow:
    """The same archer with one crawl for all, as one who does not crawl at all.

    The eye stands as high over the arrow as the shaft then points, and the arrow is as fast as it
    then is.

    >>> from lyrandis.core.flight.trajectory import impact_m
    >>> own = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76, kick_mrad=1.0)
    >>> far = float(impact_m(own, 40.0, 30.0)) - float(impact_m(crawled(own, 40.0), 0.0, 30.0))
    >>> abs(far) < 1e-9
    True
    """
    if crawl_mm == 0:
        return aimed
    angle = float(shaft_angle(aimed, crawl_mm))
    return replace(
        aimed,
        eye_mm=math.tan(angle) * aimed.nock_to_tip_m * 1000,
        speed_mps=aimed.speed_mps * (1 - aimed.speed_loss_per_mm * max(crawl_mm, 0.0)),
        kick_mrad=0.0,
    )


@dataclass(frozen=True)
class GapRow:
    """One distance of a chart of gaps.

    gap_cm : how far under the spot the tip is held, on the butt; negative: over it
    tip_widths : the same beside the tip, in widths of the shaft
    level_distance_m : the same angle beside the tip serves there on the level
    near_m, far_m : the distances over which the arrow stays within the spot with this gap
    impact_cm_if_5m_nearer, impact_cm_if_5m_farther : where it lands when the distance is misjudged
    """

    distance_m: float
    gap_cm: float
    tip_widths: float
    near_m: float
    far_m: float
    level_distance_m: float
    impact_cm_if_5m_nearer: float
    impact_cm_if_5m_farther: float


def gap_chart(
    aimed: AimedArrow,
    distances_m: Array,
    diameter_mm: float,
    spot_half_height_cm: float = 5.0,
    crawl_mm: float = 0.0,
) -> tuple[GapRow, ...]:
    """Gaps for distances [m].

    Parameters
    ----------
    aimed : how the arrow flies and is looked along
    distances_m : shape (n,) [m], at most 60 of them
    diameter_mm : of the shaft, by which a gap is seen beside the tip
    spot_half_height_cm : how far off the arrow may land [cm]
    crawl_mm : the one crawl of a class that allows one; 0 without

    Raises
    ------
    RefusedError : no distance, too many, one outside what the flight model covers, or one that the
        arrow does not reach.

    Source: docs/mechanics C1, on the line from eye over tip to where the tip is held.
    """
    d = np.asarray(distances_m, dtype=float)
    refuse_distances(aimed, d)
    over = np.asarray(impact_m(aimed, crawl_mm, d))
    if float(np.abs(over).max()) > _MOST_GAP_M:
        raise RefusedError(
            "aim.distances_m",
            say(
                "At {speed} the arrow does not reach {far} this way.",
                speed=("speed", aimed.speed_mps / M_PER_FT),
                far=("distance", float(d[int(np.abs(over).argmax())])),
            ),
            unit="m",
        )
    crawl = np.full(len(d), crawl_mm)
    near, far = danger_space_m(aimed, crawl, d, spot_half_height_cm / 100, over)
    nearer, farther = (
        100 * (impact_m(aimed, crawl_mm, np.maximum(d + off, 1.5)) - over)
        for off in (-OFF_M, OFF_M)
    )
    beta = math.radians(aimed.slope_deg)
    angle = float(shaft_angle(aimed, crawl_mm))
    level = d * math.cos(beta) * (1 + (angle - 2 * over / d) * math.tan(beta))
    seen = over / d * aimed.nock_to_tip_m * 1000 / diameter_mm
    return tuple(
        GapRow(*(float(x) for x in row))
        for row in zip(d, 100 * over, seen, near, far, level, nearer, farther, strict=True)
    )
