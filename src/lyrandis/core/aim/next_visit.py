"""Which distance to shoot next: the one that settles the most of the chart, safe on the butt."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.aim.learn import MODEL_SD_MRAD, VISIT_SD_CM_30M, Learned, visit_sd_cm
from lyrandis.core.arrays import Array
from lyrandis.core.flight.scatter import AT_M
from lyrandis.core.flight.trajectory import crawl_for_mm

CANDIDATES_M = np.arange(5.0, 50.01, 1.0)
BUTT_HALF_CM = 60.0
ARROWS = 3
_SAFE_SDS = 1.96  # 95 % of single arrows


@dataclass(frozen=True)
class NextVisit:
    """A distance that could be shot next.

    settles : the share of the chart's summed crawl variance that it would take away
    safe : whether a single arrow lands on the butt in 95 of 100
    low_cm : how far off it may land so
    """

    distance_m: float
    settles: float
    safe: bool
    low_cm: float


def next_visits(
    told: Learned,
    butt_half_cm: float = BUTT_HALF_CM,
    candidates_m: Array = CANDIDATES_M,
    steady_crawl_mm: float | None = None,
) -> list[NextVisit]:
    """Distances to shoot next, the best first: what settles most of those that are safe, then the
    others from near to far.

    Parameters
    ----------
    steady_crawl_mm : of one who holds gaps with it; None for one who walks the string

    Source: docs/mechanics C2.
    """
    d = np.asarray(candidates_m, dtype=float)
    crawl = (
        crawl_for_mm(told.aimed, d) if steady_crawl_mm is None else np.full(len(d), steady_crawl_mm)
    )
    reached = np.isfinite(crawl)
    d, crawl = d[reached], crawl[reached]
    by, by_crawl = told.slopes(crawl, d)
    on_crawl = by / by_crawl[:, None]
    known = by @ told.covariance
    variance = np.einsum("ni,ni->n", known, by)
    seen = (visit_sd_cm(d, np.full(len(d), ARROWS), told.spread_cm_30m) / 100) ** 2
    # Each candidate takes away known·knownᵀ / (its own variance + what is read): rank one.
    gain = (on_crawl @ known.T) ** 2 / (variance + seen)[None, :]
    whole = np.einsum("ni,ij,nj->n", on_crawl, told.covariance, on_crawl).sum()
    settles = gain.sum(axis=0) / whole
    one = np.sqrt(
        variance
        + (MODEL_SD_MRAD / 1000 * d) ** 2
        + ((told.spread_cm_30m**2 + VISIT_SD_CM_30M**2) * (d / AT_M / 100) ** 2)
    )
    low = 100 * _SAFE_SDS * one
    every = [
        NextVisit(float(x), float(s), bool(far <= butt_half_cm), float(far))
        for x, s, far in zip(d, settles, low, strict=True)
    ]
    safe = sorted((v for v in every if v.safe), key=lambda v: -v.settles)
    return [*safe, *(v for v in every if not v.safe)]
