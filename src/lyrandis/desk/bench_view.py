"""What the browser draws: every number of a rig in one answer, each part absent where refused."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, TypeVar

import numpy as np
from pydantic import BaseModel, BeforeValidator, ConfigDict

from lyrandis.core.arrow.build import Build
from lyrandis.core.arrow.window import SpineWindow
from lyrandis.core.assembly import Step, steps_for
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.drawing import Pose, pose
from lyrandis.core.bow.form import riser_in
from lyrandis.core.bow.shot import Floor, weight_at_draw
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.bow_length import School
from lyrandis.core.fit.candidates import Candidate
from lyrandis.core.fit.draw_history import DrawHistory
from lyrandis.core.fit.hold import Hold
from lyrandis.core.fit.length_map import LengthMap
from lyrandis.core.fit.limbs import BoltTurn, LimbPair
from lyrandis.core.fit.reach import Reach
from lyrandis.core.fit.step_up import WeightStep
from lyrandis.core.rig import Rig
from lyrandis.core.schedule import hours_braced
from lyrandis.core.stations import StationView, views
from lyrandis.core.tally import TallyEntry, tally
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.brace import BraceFit
from lyrandis.core.tune.crawls import CrawlRow, FingerRule, impact_m
from lyrandis.core.tune.nock_point import NockStart
from lyrandis.core.tune.quiet import Quiet
from lyrandis.core.tune.string import StringFit
from lyrandis.core.workbench import Workbench

_T = TypeVar("_T")
Floats = Annotated[
    list[float], BeforeValidator(lambda a: np.round(np.asarray(a, dtype=float), 4).tolist())
]


class View(BaseModel):
    """Base of the views: read from the core's own objects."""

    model_config = ConfigDict(from_attributes=True)


class DrawingView(View):
    """The bow at brace and at full draw."""

    brace: Pose
    full_draw: Pose
    riser_in: float


class CurveView(View):
    """A force–draw curve: draws [in, trade] and forces [lb]."""

    draw_in: Floats
    force_lbf: Floats


class ForceDrawView(View):
    """What the bow pulls, stores and allows."""

    curve: CurveView
    weight_at_draw_lbf: Estimate
    true_draw_in: Estimate
    slope_lbf_per_in: float
    stored_energy_ftlb: float
    stack_onset_in: float | None
    string_angle_deg: float
    end_in: float
    end_reason: str
    drawing: DrawingView


class BowLengthView(View):
    """Schools and candidates, best first."""

    schools: list[School]
    candidates: list[Candidate]
    map: LengthMap
    reach: list[Reach] = []


class PlanView(View):
    """The steps up in weight, or why there are none."""

    steps: list[WeightStep]
    problem: str | None


class SessionCurveView(View):
    """Loudness over brace to the bow's own reference, and where to listen next."""

    brace_in: Floats
    mean_db: Floats
    sd_db: Floats
    best_in: float
    interval_in: tuple[float, float]
    next_in: float | None
    done: bool
    why: str
    sure: float


class HeardView(View):
    """One trial of the session."""

    seq: int
    brace_in: float
    levels_db: list[float]
    mean_db: float | None
    feel: int | None


class ListeningView(View):
    """The latest session of brace trials; braces to the bow's own reference."""

    day: str | None
    heard: list[HeardView]
    elsewhere: int
    curve: SessionCurveView | None
    low_in: float
    high_in: float


class TwistSeen(BaseModel):
    """A brace height [in, to the bow's own reference] at a count of turns."""

    twists: float
    brace_in: float


class SettlingView(View):
    """How a new string settles; the readings stand among the trials."""

    settles_at_in: Estimate
    sinks_in: float
    settled_after_h: float
    settled: bool
    hours: Floats
    brace_in: Floats
    readings: list[tuple[float, float]]
    hours_now: float | None


class TrialsView(View):
    """What the trials come to: draws over time, holds, limbs and bolts, and the plan."""

    draws: DrawHistory
    hold: Hold | None
    limbs: LimbPair | None
    bolts: BoltTurn | None
    plan: PlanView
    listening: ListeningView | None
    settling: SettlingView | None
    twists_seen: list[TwistSeen]
    quiet: Quiet


class ShotCurveView(View):
    """Speed, efficiency and residue over grains per pound."""

    gpp: Floats
    speed_fps: Floats
    efficiency: Floats
    residue_ftlb: Floats


class ShotView(View):
    """One shot."""

    weight_at_draw_lbf: Estimate
    grains_per_pound: float
    speed_fps: Estimate
    efficiency: float
    stored_energy_ftlb: float
    residual_energy_ftlb: float
    virtual_mass_gr: float
    ceiling_speed_fps: float
    arrow_energy_ftlb: float
    momentum_lb_s: float
    floor: Floor
    curve: ShotCurveView


class FlightView(View):
    """The arrow's path over the sight line for the aimed crawl, heights in cm."""

    distance_m: Floats
    height_cm: Floats
    aimed_m: float


class CrawlsView(View):
    """The crawl chart."""

    point_on_m: Estimate | None
    rows: list[CrawlRow]
    plus_minus_mm: Floats
    finger_rule: FingerRule | None
    flights: list[FlightView]
    nock_to_tip_m: float


class BenchView(View):
    """Every number of a rig."""

    rig: Rig
    tally: list[TallyEntry]
    stations: list[StationView]
    force_draw: ForceDrawView | None
    bow_length: BowLengthView | None
    shot: ShotView | None
    arrow: Build | None
    window: SpineWindow | None
    assembly: list[Step]
    trials: TrialsView
    string: StringFit | None
    brace: BraceFit | None
    nock: NockStart | None
    crawls: CrawlsView | None


def force_draw_view(bench: Workbench, draws_in: list[float] | None = None) -> ForceDrawView:
    """The force–draw answer of a rig; `draws_in` chooses the curve's draws."""
    curve, draw = bench.curve, bench.true_draw
    shown = _chosen(curve, draws_in)
    statics = curve.statics
    brace, full = pose(statics), pose(statics, min(draw.value, curve.end_in))
    return ForceDrawView(
        curve=shown,
        weight_at_draw_lbf=weight_at_draw(curve, draw),
        true_draw_in=draw,
        slope_lbf_per_in=curve.slope(draw.value),
        stored_energy_ftlb=curve.energy_ftlb(draw.value),
        stack_onset_in=bench.onset_in,
        string_angle_deg=bench.angle_deg,
        end_in=curve.end_in,
        end_reason=curve.end_reason,
        drawing=DrawingView(brace=brace, full_draw=full, riser_in=riser_in(bench.rig.bow)),
    )


def _chosen(curve: ForceDraw, draws_in: list[float] | None) -> CurveView:
    if draws_in is None:
        return CurveView(draw_in=curve.draw_in, force_lbf=curve.force_lbf)
    low, high = curve.brace_draw_in, float(curve.draw_in[-1])
    for d in draws_in:
        if not low - 1e-9 <= d <= high + 1e-9:
            raise RefusedError(
                "draws_in",
                f"{d:g} in is outside this bow's curve, which runs from {low:.2f} in at brace to "
                f"{high:.2f} in, where {curve.end_reason}.",
                round(low if d < low else high, 2),
                "in",
            )
    return CurveView(draw_in=draws_in, force_lbf=[curve.force(d) for d in draws_in])


def shot_view(b: Workbench) -> ShotView:
    """The shot's answer."""
    s = b.shot
    return ShotView(
        **{name: getattr(s, name) for name in ShotView.model_fields if hasattr(s, name)},
        floor=b.floor,
        curve=ShotCurveView(
            gpp=s.curve_gpp,
            speed_fps=s.curve_speed_fps,
            efficiency=s.curve_efficiency,
            residue_ftlb=s.curve_residue_ftlb,
        ),
    )


def _crawls_view(b: Workbench) -> CrawlsView:
    chart = b.chart
    far = max(r.distance_m for r in chart.rows) + 8
    at = np.linspace(1.5, far, 60)
    flights = []
    for row in chart.rows:
        crawl = row.crawl_mm
        if crawl is None:
            continue
        height = impact_m(b.sight, crawl, at) * 100
        flights.append(FlightView(distance_m=at, height_cm=height, aimed_m=row.distance_m))
    return CrawlsView(
        point_on_m=b.point_on,
        rows=list(chart.rows),
        plus_minus_mm=b.crawl_plus_minus_mm,
        finger_rule=chart.finger_rule,
        flights=flights,
        nock_to_tip_m=b.sight.nock_to_tip_m,
    )


def _part(make: Callable[[], _T]) -> _T | None:
    try:
        return make()
    except RefusedError:
        return None


def _plan_view(b: Workbench) -> PlanView:
    try:
        return PlanView(steps=b.weight_steps, problem=None)
    except RefusedError as error:
        return PlanView(steps=[], problem=error.reason)


def _settling_view(b: Workbench) -> SettlingView | None:
    told = b.settling
    if told is None:
        return None
    return SettlingView(
        **{name: getattr(told, name) for name in told.__dataclass_fields__},
        readings=b.settling_readings,
        hours_now=hours_braced(b.settling_run, b.now),
    )


def _trials_view(b: Workbench) -> TrialsView:
    takedown = b.rig.bow.takedown and b.rig.bow.form == "recurve"
    return TrialsView(
        draws=b.draw_history,
        hold=_part(lambda: b.hold),
        limbs=_part(lambda: b.limb_pair) if takedown else None,
        bolts=_part(lambda: b.bolts) if takedown else None,
        plan=_plan_view(b),
        quiet=b.quiet,
        twists_seen=[
            TwistSeen(twists=t, brace_in=brace) for t, brace in _part(lambda: b.twists_seen) or []
        ],
        settling=_part(lambda: _settling_view(b)),
        listening=_part(lambda: ListeningView.model_validate(b.listening)),
    )


def bench_view(
    rig: Rig, trials: tuple[KeptTrial, ...] = (), now: str = "1970-01-01T00:00:00+00:00"
) -> BenchView:
    """Everything about a rig; parts that the models refuse are absent, their stations say why.

    `trials` are those of the rig's history; `now` an ISO time, where days matter.
    """
    b = Workbench(rig, trials, now)
    return BenchView(
        rig=rig,
        tally=tally(b),
        stations=views(b),
        force_draw=_part(lambda: force_draw_view(b)),
        bow_length=_part(
            lambda: BowLengthView(
                schools=list(b.schools),
                candidates=list(b.candidates),
                map=b.length_map,
                reach=_part(lambda: list(b.reach)) or [],
            )
        ),
        shot=_part(lambda: shot_view(b)),
        arrow=_part(lambda: b.build),
        window=_part(lambda: b.window),
        assembly=list(steps_for(rig.bow)),
        trials=_trials_view(b),
        string=_part(lambda: b.string_fit),
        brace=_part(lambda: b.brace),
        nock=_part(lambda: b.nock),
        crawls=_part(lambda: _crawls_view(b)),
    )
