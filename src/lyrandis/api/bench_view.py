"""What the browser draws: every number of a rig in one answer, each part absent where refused."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, TypeVar

import numpy as np
from pydantic import BaseModel, BeforeValidator, ConfigDict

from lyrandis.core.arrow.build import Build
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.drawing import Pose, pose
from lyrandis.core.bow.form import riser_in
from lyrandis.core.bow.shot import weight_at_draw
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.rig import Rig
from lyrandis.core.stations import StationView, views
from lyrandis.core.tally import TallyEntry, tally
from lyrandis.core.tune.crawls import impact_m
from lyrandis.core.tune.string import string_mass_gr
from lyrandis.core.workbench import Workbench

_T = TypeVar("_T")
Floats = Annotated[
    list[float], BeforeValidator(lambda a: np.round(np.asarray(a, dtype=float), 4).tolist())
]


class View(BaseModel):
    """Base of the views: read from the core's own objects."""

    model_config = ConfigDict(from_attributes=True)


class PoseView(View):
    """The bow in one pose, outlines in inches, X toward the archer, Y up."""

    upper_limb: list[tuple[float, float]]
    lower_limb: list[tuple[float, float]]
    string: list[tuple[float, float]]
    arrow_nock: tuple[float, float]
    upper_nock: tuple[float, float]


class DrawingView(View):
    """The bow at brace and at full draw."""

    brace: PoseView
    full_draw: PoseView
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


class SchoolView(View):
    """One school of bow length."""

    school: str
    low_in: float | None
    high_in: float | None
    verdict: str
    why: str


class CandidateView(View):
    """One bow that could be had."""

    length_in: float
    riser_in: float | None
    limb_class: str | None
    string_angle_deg: float
    stack_reserve_in: float | None
    score: float
    reasons: list[str]


class BowLengthView(View):
    """Schools and candidates, best first."""

    schools: list[SchoolView]
    candidates: list[CandidateView]


class FloorView(View):
    """How light an arrow may be, in grains per pound."""

    energy_gpp: float
    form_gpp: float
    maker_gpp: float | None
    floor_gpp: float
    verdict: str


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
    floor: FloorView
    curve: ShotCurveView


class PartView(View):
    """A part of the arrow."""

    name: str
    mass_gr: float
    at_in: float
    length_in: float


class ArrowView(View):
    """The arrow from its parts."""

    mass_gr: float
    parts_gr: float
    measured: bool
    balance_in: float
    front_of_centre_pct: float
    inertia_kg_m2: float
    spine_28in: float
    spine_26in_lbf: float
    stiffness_n_m2: float
    parts: list[PartView]


class WindowView(View):
    """The first spine suggestion."""

    spine_28in: Estimate
    low: float
    high: float
    widened: list[str]


class StringView(View):
    """How the string fits."""

    usual_length_in: float
    needed_length_in: float
    tension_lbf: float
    usual_strands: int
    mass_gr: float
    measured: bool


class BraceView(View):
    """The brace height against its range, to the archer's own reference."""

    brace_in: float
    to_pivot_in: float
    low_in: float
    high_in: float
    range_from: str
    start_in: float
    assumed: bool
    energy_per_in_pct: float
    string_per_in: float


class NockView(View):
    """The nock point against its ordinary starts."""

    low_mm: float
    high_mm: float
    start_mm: float
    height_mm: float
    assumed: bool


class CrawlRowView(View):
    """One distance of the chart."""

    distance_m: float
    crawl_mm: float | None
    hold_over_cm: float | None
    near_m: float
    far_m: float
    stitches: float | None
    fingers: float | None
    level_distance_m: float
    impact_cm_if_5m_nearer: float
    impact_cm_if_5m_farther: float


class FingerRuleView(View):
    """The finger-width school."""

    at_20m_fingers: float
    per_10m_fingers: float
    errors_cm: list[float | None]


class FlightView(View):
    """The arrow's path over the sight line for the aimed crawl, heights in cm."""

    distance_m: Floats
    height_cm: Floats
    aimed_m: float


class CrawlsView(View):
    """The crawl chart."""

    point_on_m: Estimate | None
    rows: list[CrawlRowView]
    plus_minus_mm: Floats
    finger_rule: FingerRuleView | None
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
    arrow: ArrowView | None
    window: WindowView | None
    string: StringView | None
    brace: BraceView | None
    nock: NockView | None
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
        drawing=DrawingView(
            brace=_pose(brace), full_draw=_pose(full), riser_in=riser_in(bench.rig.bow)
        ),
    )


def _pose(p: Pose) -> PoseView:
    return PoseView.model_validate(p)


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
        floor=FloorView.model_validate(b.floor),
        curve=ShotCurveView(
            gpp=s.curve_gpp,
            speed_fps=s.curve_speed_fps,
            efficiency=s.curve_efficiency,
            residue_ftlb=s.curve_residue_ftlb,
        ),
    )


def _string_view(b: Workbench) -> StringView:
    f = b.string_fit
    return StringView(
        usual_length_in=f.usual_length_in,
        needed_length_in=f.needed_length_in,
        tension_lbf=f.tension_lbf,
        usual_strands=f.safety_strands,
        mass_gr=string_mass_gr(b.rig.bow, b.rig.string),
        measured=b.rig.string.mass_gr is not None,
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
        rows=[CrawlRowView.model_validate(r) for r in chart.rows],
        plus_minus_mm=b.crawl_plus_minus_mm,
        finger_rule=(
            None if chart.finger_rule is None else FingerRuleView.model_validate(chart.finger_rule)
        ),
        flights=flights,
        nock_to_tip_m=b.sight.nock_to_tip_m,
    )


def _part(make: Callable[[], _T]) -> _T | None:
    try:
        return make()
    except RefusedError:
        return None


def bench_view(rig: Rig) -> BenchView:
    """Everything about a rig; parts that the models refuse are absent, their stations say why."""
    b = Workbench(rig)
    return BenchView(
        rig=rig,
        tally=tally(b),
        stations=views(b),
        force_draw=_part(lambda: force_draw_view(b)),
        bow_length=_part(
            lambda: BowLengthView(
                schools=[SchoolView(**s._asdict()) for s in b.schools],
                candidates=[CandidateView.model_validate(c) for c in b.candidates],
            )
        ),
        shot=_part(lambda: shot_view(b)),
        arrow=_part(lambda: arrow_view(b.build)),
        window=_part(lambda: WindowView.model_validate(b.window)),
        string=_part(lambda: _string_view(b)),
        brace=_part(lambda: BraceView.model_validate(b.brace)),
        nock=_part(lambda: NockView.model_validate(b.nock)),
        crawls=_part(lambda: _crawls_view(b)),
    )


def arrow_view(made: Build) -> ArrowView:
    """The arrow's answer."""
    return ArrowView.model_validate(made)
