"""What is shown of the bow: its curve, its drawing, and how its length fits."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.drawing import Pose, pose
from lyrandis.core.bow.form import riser_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.bow_length import SchoolRange
from lyrandis.core.fit.candidates import Candidate
from lyrandis.core.fit.length_map import LengthMap
from lyrandis.core.fit.reach import Reach


@dataclass(frozen=True)
class DrawingView:
    """The bow at brace and at full draw."""

    brace: Pose
    full_draw: Pose
    riser_in: float


@dataclass(frozen=True)
class CurveView:
    """A force–draw curve: draws [in, trade] and forces [lb], shape (n,)."""

    draw_in: Array
    force_lbf: Array


@dataclass(frozen=True)
class ForceDrawView:
    """What the bow pulls, stores and allows; `heaviest_lbf` on a bad day."""

    curve: CurveView
    weight_at_draw_lbf: Estimate
    heaviest_lbf: float
    true_draw_in: Estimate
    slope_lbf_per_in: float
    stored_energy_ftlb: float
    stack_onset_in: float | None
    string_angle_deg: float
    end_in: float
    end_reason: str
    drawing: DrawingView


@dataclass(frozen=True)
class BowLengthView:
    """Schools and candidates, best first."""

    schools: tuple[SchoolRange, ...]
    candidates: tuple[Candidate, ...]
    map: LengthMap
    reach: tuple[Reach, ...]


def force_draw_view(b: Bench, draws_in: list[float] | None = None) -> ForceDrawView:
    """The force–draw answer of a rig; `draws_in` chooses the curve's draws."""
    curve, draw = b.bow.curve, b.bow.draw_in
    shown = _chosen(curve, draws_in)
    statics = curve.statics
    return ForceDrawView(
        curve=shown,
        weight_at_draw_lbf=b.bow.weight,
        heaviest_lbf=b.bow.heaviest_lbf,
        true_draw_in=b.archer.true_draw,
        slope_lbf_per_in=curve.slope(draw),
        stored_energy_ftlb=curve.energy_ftlb(draw),
        stack_onset_in=b.bow.onset_in,
        string_angle_deg=b.bow.angle_deg,
        end_in=curve.end_in,
        end_reason=curve.end_reason,
        drawing=DrawingView(
            brace=pose(statics),
            full_draw=pose(statics, min(draw, curve.end_in)),
            riser_in=riser_in(b.rig.bow),
        ),
    )


def _chosen(curve: ForceDraw, draws_in: list[float] | None) -> CurveView:
    if draws_in is None:
        return CurveView(curve.draw_in, curve.force_lbf)
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
    return CurveView(np.array(draws_in), np.array([curve.force(d) for d in draws_in]))


def bow_length_view(b: Bench) -> BowLengthView:
    """How the bow's length fits, and other bows that could be had."""
    try:
        reach = b.fit.reach
    except RefusedError:  # this bow cannot be drawn so far; others can
        reach = ()
    return BowLengthView(b.fit.schools, b.fit.candidates, b.fit.map, reach)
