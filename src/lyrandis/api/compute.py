"""Stateless computation for scripts: docs/api names that stay. No arithmetic here."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from typing import Annotated

import numpy as np
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.context import now
from lyrandis.api.routers import router_of
from lyrandis.core.aim.crawls import MOST_DISTANCES, CrawlChart, crawl_chart
from lyrandis.core.arrow.build import Build, build
from lyrandis.core.bench import Bench
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.bow_length import schools
from lyrandis.core.fit.candidates import candidates
from lyrandis.core.fit.draw_length import Convention, draw_length
from lyrandis.core.flight.trajectory import (
    DRAG_PER_M,
    NOCK_TO_HOOK_Q,
    SPEED_LOSS_PER_MM,
    STROKE_M,
    AimedArrow,
)
from lyrandis.core.parts import (
    Archer,
    Arrow,
    Bow,
    DrawMethod,
    Reading,
    Release,
    Rig,
    SchoolNumbers,
    String,
    Use,
)
from lyrandis.desk.shown import BenchView, bench_view
from lyrandis.desk.shown.arrow import ShotView, shot_view
from lyrandis.desk.shown.bow import BowLengthView, ForceDrawView, force_draw_view

router = router_of("compute", "/api/compute")
Finite = Annotated[float, Field(allow_inf_nan=False)]


class Request(BaseModel):
    """Base of the requests: unknown names are refused."""

    model_config = ConfigDict(extra="forbid")


@contextmanager
def named(own: Mapping[str, str]) -> Iterator[None]:
    """Tell refusals by the request's own names: the core names a field as a rig does."""
    try:
        yield
    except RefusedError as error:
        raise error.at(own.get(error.field, error.field)) from None


class DrawLengthIn(Request):
    """Readings by one method."""

    method: DrawMethod
    readings_in: list[Annotated[float, Field(ge=1, le=120, allow_inf_nan=False)]] = Field(
        min_length=1, max_length=100, fail_fast=True
    )
    convention: Convention = "trade"
    back_offset_in: float | None = Field(None, ge=-2, le=6)
    release: Release = "split"
    thumb_offset_mm: float | None = Field(None, ge=0, le=40)
    bow_length_in: float | None = Field(None, ge=40, le=76)
    bow: Bow | None = None


class DrawLengthOut(BaseModel):
    """Draw by the mark, the draw the scale must be pulled to, and the readings' spread."""

    draw_length_in: Estimate
    true_draw_in: Estimate
    spread_in: float | None


@router.post("/draw-length")
def compute_draw_length(body: DrawLengthIn) -> DrawLengthOut:
    """Draw length from readings, in the trade standard."""
    bow = body.bow
    if bow is None and body.bow_length_in is not None:
        form = "static_tip" if body.release == "thumb" else "recurve"
        bow = Bow(form=form, takedown=False, length_in=body.bow_length_in)
    told = draw_length(
        body.method,
        body.readings_in,
        body.convention,
        body.back_offset_in,
        body.release,
        body.thumb_offset_mm,
        bow,
    )
    return DrawLengthOut(**told._asdict())


class BowLengthIn(Request):
    """An archer, what the bow is for, and the kind of bow."""

    archer: Archer
    use: Use = "woodland"
    taste: float = Field(0, ge=-1, le=1)
    takedown: bool | None = None
    schools: SchoolNumbers = SchoolNumbers()
    bow: Bow | None = None


@router.post("/bow-length")
def compute_bow_length(body: BowLengthIn) -> BowLengthView:
    """What the schools say, and bows that could be had, best first."""
    takedown = body.takedown if body.takedown is not None else True
    bow = body.bow or Bow(form="recurve" if takedown else "hybrid")
    if body.takedown is not None:
        bow = bow.model_copy(update={"takedown": body.takedown})
    bench = Bench(
        Rig(archer=body.archer, bow=bow, use=body.use, taste=body.taste, schools=body.schools)
    )
    draw = bench.archer.true_draw.value
    told = schools(body.archer, bow, draw, body.use, body.schools)
    ranked = candidates(body.archer, bow, draw, body.use, body.taste, body.schools)
    return BowLengthView(told, ranked, bench.fit.map, ())


class ForceDrawIn(Request):
    """A bow and how far it is drawn."""

    bow: Bow
    draw_length_in: float = Field(28, ge=10, le=40, allow_inf_nan=False)
    draws_in: list[Finite] | None = Field(None, min_length=1, max_length=500, fail_fast=True)
    measured: list[Reading] | None = Field(None, max_length=200, fail_fast=True)
    string: String = String()


@router.post("/force-draw")
def compute_force_draw(body: ForceDrawIn) -> ForceDrawView:
    """The force–draw curve, energy, string angle, stack onset, and the bow's outlines."""
    bow = body.bow
    if body.measured:
        bow = bow.model_copy(update={"measured": tuple(body.measured)})
    # A draw at the bow as such, with no archer's limits: the geometry refuses what it must.
    archer = Archer.model_construct(
        **(Archer().model_dump() | {"draw_length_in": body.draw_length_in, "release": "split"})
    )
    rig = Rig.model_construct(
        **({name: getattr(Rig(), name) for name in Rig.model_fields}
           | {"archer": archer, "bow": bow, "string": body.string})
    )  # fmt: skip
    with named({"archer.draw_length_in": "draw_length_in"}):
        return force_draw_view(Bench(rig), body.draws_in)


class ArrowIn(Request):
    """An arrow."""

    arrow: Arrow


@router.post("/arrow")
def compute_arrow(body: ArrowIn) -> Build:
    """Mass, balance and stiffness of an arrow."""
    return build(body.arrow)


class ShotIn(Request):
    """A whole rig without its aim."""

    archer: Archer
    bow: Bow
    string: String = String()
    arrow: Arrow


def _bench(body: ShotIn) -> Bench:
    return Bench(Rig(archer=body.archer, bow=body.bow, string=body.string, arrow=body.arrow))


@router.post("/shot")
def compute_shot(body: ShotIn) -> ShotView:
    """Weight, grains per pound, speed, residue and floors."""
    return shot_view(_bench(body))


class StartOut(BaseModel):
    """What practice begins with: in words, and a spine where a rule gives one."""

    words: str
    spine: float | None


class SpineWindowOut(BaseModel):
    """A suggested static spine and its band by the fit; without them, what lies outside it.

    match_28in : where the model of the shaft passing this very bow finds it leaves cleanly; null
        where it finds none
    false_below : stiffer shafts than this look weak, for they bounce off the side plate
    """

    spine_28in: Estimate | None
    low: float | None
    high: float | None
    share: float | None
    widened: list[str]
    outside: list[str]
    start: StartOut
    match_28in: float | None
    false_below: float | None

    @classmethod
    def of(cls, arrow: ArrowBench) -> SpineWindowOut:
        """The core's window with its sentences in the usual units."""
        told = arrow.window
        found = told.clean
        return cls(
            match_28in=found.match if found else None,
            false_below=told.false_below,
            spine_28in=told.spine_28in,
            low=told.low,
            high=told.high,
            share=told.share,
            widened=[said.plain() for said in told.widened],
            outside=[said.plain() for said in told.outside],
            start=StartOut(words=told.start.said.plain(), spine=told.start.spine),
        )


@router.post("/spine-window")
def compute_spine_window(body: ShotIn) -> SpineWindowOut:
    """The first spine suggestion."""
    return SpineWindowOut.of(_bench(body).arrow)


class CrawlsIn(Request):
    """What the archer looks along, and the distances."""

    speed_mps: float = Field(ge=15, le=120, allow_inf_nan=False)
    eye_above_nock_mm: float = Field(ge=20, le=250, allow_inf_nan=False)
    nock_to_tip_m: float = Field(ge=0.4, le=1.1, allow_inf_nan=False)
    distances_m: list[Finite] = Field(min_length=1, max_length=MOST_DISTANCES, fail_fast=True)
    slope_deg: float = Field(0, ge=-45, le=45, allow_inf_nan=False)
    stroke_m: float = Field(STROKE_M, ge=0.2, le=0.9, allow_inf_nan=False)
    drag_per_m: float = Field(DRAG_PER_M, ge=0, le=0.02, allow_inf_nan=False)
    q: float = Field(NOCK_TO_HOOK_Q, ge=0.5, le=1.2, allow_inf_nan=False)
    speed_loss_per_mm: float = Field(SPEED_LOSS_PER_MM, ge=0, le=0.005, allow_inf_nan=False)
    kick_mrad: float = Field(0, ge=-10, le=10, allow_inf_nan=False)
    spot_half_height_cm: float = Field(5, ge=0.5, le=60, allow_inf_nan=False)
    stitch_pitch_mm: float | None = Field(None, ge=0.5, le=20)
    finger_width_mm: float | None = Field(None, ge=5, le=40)


@router.post("/crawls")
def compute_crawls(body: CrawlsIn) -> CrawlChart:
    """Crawls, holds over, danger spaces, tab marks and finger widths for distances."""
    aimed = AimedArrow(
        speed_mps=body.speed_mps,
        eye_mm=body.eye_above_nock_mm,
        nock_to_tip_m=body.nock_to_tip_m,
        stroke_m=body.stroke_m,
        drag_per_m=body.drag_per_m,
        q=body.q,
        speed_loss_per_mm=body.speed_loss_per_mm,
        kick_mrad=body.kick_mrad,
        slope_deg=body.slope_deg,
    )
    own = {
        "aim.distances_m": "distances_m",
        "archer.eye_above_nock_mm": "eye_above_nock_mm",
    }
    with named(own):
        return crawl_chart(
            aimed,
            np.array(body.distances_m),
            body.spot_half_height_cm,
            body.stitch_pitch_mm,
            body.finger_width_mm,
        )


@router.post("/rig")
def compute_rig(body: Rig) -> BenchView:
    """Every number of a whole rig at once."""
    return bench_view(Bench(body, now=now()))
