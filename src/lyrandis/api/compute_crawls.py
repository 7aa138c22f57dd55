"""A chart learnt from shots, stateless: `POST /api/compute/crawl-fit`."""

from __future__ import annotations

from typing import Annotated

import numpy as np
from pydantic import BaseModel, Field

from lyrandis.api.compute import Request
from lyrandis.api.routers import router_of
from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.aim.learn import (
    SPEED_MPS,
    ChartRow,
    CrawlVisit,
    chart,
    learn,
    point_on,
    prior_of,
)
from lyrandis.core.aim.next_visit import BUTT_HALF_CM, NextVisit, next_visits
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.parts.archer import Anchor

router = router_of("compute", "/api/compute")
DISTANCES_M = tuple(np.arange(5.0, 50.01, 5.0).tolist())
MOST_NEXT = 5
Metres = Annotated[float, Field(ge=2, le=90, allow_inf_nan=False)]
Height = Annotated[float, Field(ge=-300, le=300, allow_inf_nan=False)]


class CrawlVisitIn(Request):
    """Arrows with one crawl from one distance: heights above the mark, negative is low."""

    distance_m: Metres
    crawl_mm: float = Field(ge=0, le=160, allow_inf_nan=False)
    heights_cm: list[Height] = Field(min_length=1, max_length=24, fail_fast=True)


class CrawlFitIn(Request):
    """An anchor, an arrow's length from nock to tip, and visits.

    speed_prior_mps : mean and sd, where something is known of the speed
    """

    anchor: Anchor = "under_chin"
    eye_above_nock_mm: float | None = Field(None, ge=30, le=200, allow_inf_nan=False)
    nock_to_tip_m: float = Field(ge=0.4, le=1.1, allow_inf_nan=False)
    visits: list[CrawlVisitIn] = Field([], max_length=100, fail_fast=True)
    speed_prior_mps: (
        tuple[
            Annotated[float, Field(ge=20, le=120, allow_inf_nan=False)],
            Annotated[float, Field(ge=0.1, le=50, allow_inf_nan=False)],
        ]
        | None
    ) = None
    butt_half_height_cm: float = Field(BUTT_HALF_CM, ge=10, le=300, allow_inf_nan=False)
    distances_m: list[Metres] = Field(list(DISTANCES_M), min_length=1, max_length=60)


class CrawlFitOut(BaseModel):
    """The chart with its ±, point-on, and the distances to shoot next, the best first."""

    rows: list[ChartRow]
    point_on_m: float | None
    next_distance_m: float | None
    next_distances: list[NextVisit]
    spread_cm_30m: float


@router.post("/crawl-fit")
def compute_crawl_fit(body: CrawlFitIn) -> CrawlFitOut:
    """A crawl chart learnt from shots; no speed is to be read off it."""
    eye = body.eye_above_nock_mm or EYE_ABOVE_NOCK_MM[body.anchor]
    speed, doubt = body.speed_prior_mps or SPEED_MPS
    aimed = AimedArrow(speed_mps=speed, eye_mm=eye, nock_to_tip_m=body.nock_to_tip_m)
    visits = [CrawlVisit(v.distance_m, v.crawl_mm, tuple(v.heights_cm)) for v in body.visits]
    told = learn(visits, aimed, prior_of(aimed, Unshot(doubt)))
    on = point_on(told)
    following = next_visits(told, body.butt_half_height_cm)
    return CrawlFitOut(
        rows=chart(told, np.array(body.distances_m)),
        point_on_m=None if on is None else on.value,
        next_distance_m=following[0].distance_m if following else None,
        next_distances=following[:MOST_NEXT],
        spread_cm_30m=told.spread_cm_30m,
    )
