"""Anchors beside one another: where the tip is on the mark, and how far down the hand must go."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.aim.crawls import Unshot, point_on_unshot
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m

NEAR_M = 5.0  # the nearest distance, whose crawl is the largest
GAP_AT_M = 20.0


@dataclass(frozen=True)
class Anchored:
    """What one height of the eye makes of the same arrow.

    point_on_m : None beyond 400 m; largest_crawl_mm : the one at 5 m; gap_20m_cm : without one
    """

    eye_mm: float
    point_on_m: Estimate | None
    largest_crawl_mm: float
    gap_20m_cm: float


def anchored(aimed: AimedArrow, eye_mm: float, unshot: Unshot) -> Anchored:
    """What an anchor with the eye so high over the arrow nock [mm] makes of this arrow.

    Source: docs/mechanics C1; the ± of point-on from speed and eye, taken as independent.
    """
    here = replace(aimed, eye_mm=eye_mm)
    return Anchored(
        eye_mm=eye_mm,
        point_on_m=point_on_unshot(here, unshot),
        largest_crawl_mm=float(crawl_for_mm(here, np.array([NEAR_M]))[0]),
        gap_20m_cm=100 * float(impact_m(here, 0.0, GAP_AT_M)),
    )
