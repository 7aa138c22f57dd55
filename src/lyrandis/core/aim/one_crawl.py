"""One crawl for all distances, where a class allows only one: which, and what gaps it leaves."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import ndtr

from lyrandis.core.arrays import Array
from lyrandis.core.flight.scatter import AT_M
from lyrandis.core.flight.trajectory import AimedArrow, impact_m

_MOST_MM, _STEP_MM = 160.0, 0.5


@dataclass(frozen=True)
class OneCrawl:
    """A crawl for all distances.

    hits : the share of arrows in the spot over the distances with the tip always on the mark
    largest_gap_cm : the most that the tip must be held off, either way
    """

    crawl_mm: float
    hits: float
    largest_gap_cm: float


def one_crawls(
    aimed: AimedArrow, distances_m: Array, spot_half_height_cm: float, spread_cm_30m: float
) -> tuple[OneCrawl, OneCrawl]:
    """The crawl that hits the most with the tip always on the mark, and the one whose largest gap
    is the smallest.

    Parameters
    ----------
    distances_m : the archer's, shape (n,), each taken as often
    spread_cm_30m : of one arrow, one sd at 30 m

    Source: own derivation; heights by docs/mechanics C1, arrows scattered normally up and down.
    """
    d = np.asarray(distances_m, dtype=float)
    crawl = np.arange(0.0, _MOST_MM + _STEP_MM / 2, _STEP_MM)
    over = 100 * impact_m(aimed, crawl[:, None], d[None, :])
    hits = in_spot(over, spot_half_height_cm, spread_cm_30m * d / AT_M).mean(axis=1)
    largest = np.abs(over).max(axis=1)
    most, least = (
        OneCrawl(float(crawl[i]), float(hits[i]), float(largest[i]))
        for i in (int(hits.argmax()), int(largest.argmin()))
    )
    return most, least


def in_spot(off_cm: Array, half_cm: float, sd_cm: Array | float) -> Array:
    """The share of arrows within ± half_cm of the spot's middle that scatter by sd about off.

    >>> float(np.round(in_spot(np.array(0.0), 10.0, 10.0), 3))
    0.683
    """
    return np.asarray(ndtr((half_cm - off_cm) / sd_cm) - ndtr((-half_cm - off_cm) / sd_cm))
