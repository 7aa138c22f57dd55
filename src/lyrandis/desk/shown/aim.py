"""What is shown of aiming: the crawl chart, and the arrow's path over the sight line."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.aim.crawls import CrawlRow, FingerRule
from lyrandis.core.aim.learn import visit_sd_cm
from lyrandis.core.aim.sight import SightPicture
from lyrandis.core.arrays import Array
from lyrandis.core.bench import Bench
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import impact_m

_FROM_M, _PAST_M, _POINTS = 1.5, 8.0, 60


@dataclass(frozen=True)
class FlightView:
    """The arrow's path over the sight line for the aimed crawl: heights [cm], shape (n,)."""

    distance_m: Array
    height_cm: Array
    aimed_m: float


@dataclass(frozen=True)
class VisitShown:
    """A visit that counts: its distance, and the crawl [mm] that would have hit, with its ±."""

    distance_m: float
    crawl_mm: float
    plus_minus_mm: float


@dataclass(frozen=True)
class CrawlsView:
    """The crawl chart with its ±, and the flights of its crawls."""

    point_on_m: Estimate | None
    rows: tuple[CrawlRow, ...]
    plus_minus_mm: Array
    finger_rule: FingerRule | None
    flights: list[FlightView]
    sights: tuple[SightPicture, ...]
    visits: list[VisitShown]


def crawls_view(b: Bench) -> CrawlsView:
    """The crawls' answer."""
    chart, aimed = b.aim.chart, b.aim.aimed
    walked = [(r.distance_m, r.crawl_mm) for r in chart.rows if r.crawl_mm is not None]
    at = np.linspace(_FROM_M, max(r.distance_m for r in chart.rows) + _PAST_M, _POINTS)
    crawls = np.array([c for _, c in walked], dtype=float)
    heights = impact_m(aimed, crawls[:, None], at) * 100
    return CrawlsView(
        point_on_m=b.aim.point_on,
        rows=chart.rows,
        plus_minus_mm=b.aim.plus_minus_mm,
        finger_rule=chart.finger_rule,
        flights=[FlightView(at, h, d) for h, (d, _) in zip(heights, walked, strict=True)],
        sights=b.aim.sights,
        visits=visits_shown(b),
    )


def visits_shown(b: Bench) -> list[VisitShown]:
    """Each visit as the crawl that would have hit, by the learnt archer's own slope there."""
    told, visits = b.aim.learned, b.aim.visits
    if told is None:
        return []
    d, c = np.array([[v.distance_m, v.crawl_mm] for v in visits]).T
    _, by_crawl = told.slopes(c, d)
    off = np.array([np.mean(v.heights_cm) for v in visits]) / 100
    arrows = np.array([len(v.heights_cm) for v in visits])
    sd = visit_sd_cm(d, arrows, told.spread_cm_30m) / 100
    return [
        VisitShown(float(x), float(max(hit, 0.0)), float(pm))
        for x, hit, pm in zip(d, c - off / by_crawl, np.abs(sd / by_crawl), strict=True)
    ]
