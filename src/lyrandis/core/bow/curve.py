"""The force–draw curve an archer works with: the model's, or the scale's where it was read.

Draws are in inches, trade standard; forces in pounds. `force_draw` is the one entry.
"""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from scipy.interpolate import CubicSpline, PchipInterpolator

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in, default_brace_in
from lyrandis.core.bow.statics import Statics, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.parts import Bow, StringMaterial
from lyrandis.core.units import M_PER_IN, N_PER_LBF

STACK_FACTOR = 1.35
END_FACTOR = 3.0
END_ANGLE_DEG = 95.0
LONGEST_DRAW_IN = 36.0
_MEAN_OVER_IN = (18.0, 24.0)
_GRID_IN = 0.25
_FINE_IN = 0.01  # how closely onset and end are looked for
_ONSET_FROM_IN = 17.0
LEAST_STROKE_IN = 4.0
_SCALE_PAST_IN = 4.0  # a scale may be pulled so far past the longest draw computed
MEASURED_WITHIN_IN = 0.5
CLOSE_READINGS_IN = 2.0  # so close together, what lies between is read as well
# A pull that may lift the geometry's end: so many readings over its last inches, so close.
LIFTING_READINGS, LIFTING_OVER_IN, LIFTING_STEP_IN = 4, 3.0, 1.25


class CurveTooShortError(ValueError):
    """The curve does not cover the draws that a rule needs."""


def stack_onset(draw_in: Array, force_lbf: Array, factor: float = STACK_FACTOR) -> float | None:
    """First draw at which the bow stacks.

    The draw above 24 in where the slope exceeds `factor` times its mean over 18 to 24 in.

    Parameters
    ----------
    draw_in : draws [in, trade], shape (n,), increasing
    force_lbf : forces [lb], shape (n,)
    factor : ratio of slopes [-]

    Returns
    -------
    Draw [in, trade], or None where the curve ends before it stacks.

    Raises
    ------
    CurveTooShortError : the curve does not cover 18 to 24 in.

    Source: own definition, docs/mechanics A2; at the form's default brace height only.

    >>> draw = np.arange(8.0, 36.0, 0.1)
    >>> force = 2 * (draw - 8) + 0.1 * np.maximum(draw - 24, 0) ** 2
    >>> round(stack_onset(draw, force), 1)  # 2 + 0.2 (x - 24) lb/in reaches 2.7
    27.5
    """
    low, high = _MEAN_OVER_IN
    if draw_in[0] > low or draw_in[-1] < high:
        raise CurveTooShortError("the curve must cover 18 to 24 in")
    spline = CubicSpline(draw_in, force_lbf)
    mean = float(spline(high) - spline(low)) / (high - low)
    fine = np.arange(high, draw_in[-1], _FINE_IN)
    over = spline(fine, 1) > factor * mean
    return float(fine[int(np.argmax(over))]) if over.any() else None


def stack_onset_in(bow: Bow, material: StringMaterial = "polyester") -> float | None:
    """Draw [in, trade] at which this bow's model stacks at the form's default brace height.

    Readings, brace height and the maker's limits have no part in it.
    """
    return _onset_in(bow.model_copy(update=_AS_BUILT), material)


_AS_BUILT: dict[str, Any] = {
    name: field.default
    for name, field in Bow.model_fields.items()
    if name
    not in ("form", "takedown", "length_in", "riser_in", "marked_weight_lbf", "marked_draw_in")
}


@lru_cache(maxsize=1024)
def _onset_in(bow: Bow, material: StringMaterial) -> float | None:
    statics = solve(bow, material, default_brace_in(bow))
    draw = np.arange(_ONSET_FROM_IN, LONGEST_DRAW_IN + _GRID_IN / 2, _GRID_IN)
    force = statics.draw((draw - TRADE_OFFSET_IN) * M_PER_IN).force / N_PER_LBF
    return stack_onset(draw, force)


@dataclass(frozen=True, eq=False)
class ForceDraw:
    """A force–draw curve from brace to where the model or the readings end.

    draw_in [in, trade] and force_lbf [lb] have shape (n,); `angle_deg` is the string's angle at
    each draw; `end_in` the draw where the bow's geometry ends, `end_reason` why; `read_at_in` the
    draws at which a scale was read.
    """

    statics: Statics
    draw_in: Array
    force_lbf: Array
    angle_deg: Array
    end_in: float
    end_reason: str
    measured_points: int
    read_at_in: tuple[float, ...]

    def __post_init__(self) -> None:
        object.__setattr__(self, "_spline", PchipInterpolator(self.draw_in, self.force_lbf))
        object.__setattr__(self, "_angle", CubicSpline(self.draw_in, self.angle_deg))

    @property
    def brace_draw_in(self) -> float:
        """Trade draw of the braced string [in]."""
        return float(self.draw_in[0])

    def force(self, draw_in: float) -> float:
        """Force [lb] at a draw [in, trade]."""
        return float(self._spline(draw_in))  # type: ignore[attr-defined]

    def slope(self, draw_in: float) -> float:
        """Pounds per inch over the inch around a draw [lb/in]."""
        high = min(draw_in + 0.5, float(self.draw_in[-1]))
        return (self.force(high) - self.force(draw_in - 0.5)) / (high - draw_in + 0.5)

    def energy_ftlb(self, draw_in: float) -> float:
        """Energy stored from brace to a draw [ft·lb]: the area under the curve."""
        area = self._spline.integrate(self.brace_draw_in, draw_in)  # type: ignore[attr-defined]
        return float(area) / 12

    def angle(self, draw_in: float) -> float:
        """Full angle between the string's halves [degrees]; from the model."""
        return float(self._angle(draw_in))  # type: ignore[attr-defined]

    def unread_in(self, draw_in: float) -> float | None:
        """How far from the nearest reading [in] a draw lies, past the half inch that one tells.

        None where nothing was read; 0 between two readings that stand close.
        """
        read = self.read_at_in
        if not read:
            return None
        i = bisect_left(read, draw_in)
        if 0 < i < len(read) and read[i] - read[i - 1] <= CLOSE_READINGS_IN:
            return 0.0
        nearest = min(abs(draw_in - at) for at in read[max(i - 1, 0) : i + 1])
        return max(0.0, nearest - MEASURED_WITHIN_IN - 1e-9)


def _model_end(
    draw: Array, force: Array, angle: Array, least_angle_deg: float
) -> tuple[int, float, str]:
    """Number of grid points inside the model, the draw where it ends [in], and why there."""
    low, high = _MEAN_OVER_IN
    spline = CubicSpline(draw, force)
    mean = float(spline(high) - spline(low)) / (high - low)
    fine = np.arange(max(high, float(draw[0])), float(draw[-1]), _FINE_IN)
    steep = spline(fine, 1) > END_FACTOR * mean
    sharp = np.interp(fine, draw, angle) < least_angle_deg
    ended = steep | sharp
    if not ended.any():
        return len(draw), float(draw[-1]), "the longest draw computed"
    i = int(np.argmax(ended))
    why = (
        "the weight climbs three times as fast as in mid draw"
        if steep[i]
        else "the string's angle falls under 95°"
    )
    return int(np.searchsorted(draw, fine[i])), float(fine[i]), why


_LEAST_READ_LBF = 0.5  # lighter than any bow at any draw that is read


def _check_readings(readings: tuple[tuple[float, float], ...], brace_draw: float) -> Array:
    points = np.array(sorted(readings), dtype=float)
    if not np.isfinite(points).all():
        raise RefusedError("bow.measured", "A scale reading is not a number.")
    if points[0, 0] <= brace_draw:
        raise RefusedError(
            "bow.measured",
            say(
                "A reading at {at} lies at or below the braced string ({brace} by the trade "
                "standard), where nothing pulls.",
                at=("draw", float(points[0, 0])),
                brace=("draw", brace_draw),
            ),
            round(brace_draw, 2),
            "in",
        )
    if points[-1, 0] > LONGEST_DRAW_IN + _SCALE_PAST_IN:
        raise RefusedError(
            "bow.measured", "No draw is that long.", LONGEST_DRAW_IN + _SCALE_PAST_IN, "in"
        )
    rises = np.diff(points, axis=0)
    if points[0, 1] <= 0 or (rises[:, 1] <= 0).any() or (rises[:, 0] <= 0).any():
        raise RefusedError(
            "bow.measured",
            "Readings must rise: each longer draw pulls more than the one before, "
            "and no draw stands twice.",
            unit="lb",
        )
    if points[-1, 1] < _LEAST_READ_LBF:
        raise RefusedError(
            "bow.measured",
            say(
                "At the longest draw the scale read less than {least}: it did not hold the bow.",
                least=("weight", _LEAST_READ_LBF),
            ),
            _LEAST_READ_LBF,
            "lb",
        )
    return points


def _with_readings(draw: Array, model: Array, points: Array) -> tuple[Array, Array]:
    """The model's curve made to pass through the readings, its shape kept between and beyond them.

    What a reading says of the model is carried on evenly to the next one. Where that would not
    rise, nothing but the readings stands between the first and the last of them.
    """
    ratio = points[:, 1] / np.interp(points[:, 0], draw, model)
    away = np.abs(draw[:, None] - points[:, 0]).min(axis=1) > 1e-9
    d = np.sort(np.concatenate([draw[away], points[:, 0]]))
    f = np.interp(d, draw, model) * np.interp(d, points[:, 0], ratio)
    if (np.diff(f) > 0).all():
        return d, f
    between = (d > points[0, 0]) & (d < points[-1, 0]) & ~np.isin(d, points[:, 0])
    return d[~between], f[~between]


def _that_count(points: Array, end_in: float) -> Array:
    """The readings that a curve is made of: past the geometry's end only those of a close pull.

    One reading there may be a slip of the pen, and the limit it would lift is there for safety.
    """
    last = points[-1, 0]
    if last <= end_in:
        return points
    near = points[points[:, 0] >= last - LIFTING_OVER_IN, 0]
    if len(near) >= LIFTING_READINGS and np.diff(near).max() <= LIFTING_STEP_IN:
        return points
    return points[points[:, 0] <= end_in]


def force_draw(bow: Bow, material: StringMaterial = "polyester") -> ForceDraw:
    """The bow's force–draw curve: readings where there are any, the model elsewhere.

    Parameters
    ----------
    bow : the bow; its readings are pairs of draw [in, trade] and force [lb]
    material : of the string; sets its stiffness

    Raises
    ------
    RefusedError : no braced shape, marked draw past the geometry's end, bad readings.

    >>> bow = Bow(length_in=68, riser_in=25, marked_weight_lbf=50)
    >>> curve = force_draw(bow, "low_stretch")
    >>> round(curve.force(28), 1), round(curve.slope(28), 2), round(curve.angle(28))
    (50.0, 2.47, 132)

    Source: docs/mechanics A2; the model's shape carried through the readings, scaled beyond them.
    """
    return _force_draw(bow.model_copy(update=_ABOUT_THE_ARROW), material)


# Settings of a bow that say nothing of its curve: moving one asks for no other.
_ABOUT_THE_ARROW = {
    name: Bow.model_fields[name].default
    for name in (
        "centre_cut_mm", "side_plate", "side_plate_mm", "plunger_spring", "maker_min_gpp",
        "maker_max_draw_in",
    )
}  # fmt: skip


@lru_cache(maxsize=256)
def _force_draw(bow: Bow, material: StringMaterial) -> ForceDraw:
    statics = solve(bow, material)
    brace_draw = brace_to_pivot_in(bow) + TRADE_OFFSET_IN
    draw = np.append(np.arange(brace_draw, LONGEST_DRAW_IN, _GRID_IN), LONGEST_DRAW_IN)
    drawn = statics.draw((draw - TRADE_OFFSET_IN) * M_PER_IN)
    force, angle = drawn.force / N_PER_LBF, np.degrees(drawn.angle)
    force[0] = 0.0
    # Bows with static tips are drawn to sharper angles by design: only their steepness ends them.
    n, end, why = _model_end(draw, force, angle, 0.0 if bow.form == "static_tip" else END_ANGLE_DEG)
    if bow.marked_draw_in > end + 1e-6:
        raise RefusedError(
            "bow.marked_draw_in",
            say(
                f"A bow of {{length}} of this form ends at {{end}} of draw ({why}); it cannot be "
                "marked at {marked}.",
                length=("bow_length", bow.length_in),
                end=("draw", end),
                marked=("draw", bow.marked_draw_in),
            ),
            round(end, 1),
            "in",
        )
    # The curve is kept to the very end, so that the last draw has its own point.
    force, angle = (
        np.append(v[:n], CubicSpline(draw, v)(end)) if draw[n - 1] < end else v[:n]
        for v in (force, angle)
    )
    draw = np.append(draw[:n], end) if draw[n - 1] < end else draw[:n]
    if not bow.measured:
        return ForceDraw(statics, draw, force, angle, end, why, 0, ())
    points = _that_count(_check_readings(bow.measured, brace_draw), float(draw[-1]))
    if not len(points):
        return ForceDraw(statics, draw, force, angle, end, why, 0, ())
    if points[-1, 0] > draw[-1]:
        end = float(points[-1, 0])
        why = "the longest draw read off the scale"
    d, f = _with_readings(draw, force, points)
    read_at = tuple(float(at) for at in points[:, 0])
    return ForceDraw(statics, d, f, np.interp(d, draw, angle), end, why, len(points), read_at)


def refuse_past_end(curve: ForceDraw, draw_in: float, length_in: float) -> None:
    """Refuse a draw that the bow's geometry does not allow, or one at or below brace.

    Raises
    ------
    RefusedError : with the limit.
    """
    if draw_in > curve.end_in + 1e-9:
        raise RefusedError(
            "archer.draw_length_in",
            say(
                "{draw} is past what the geometry of this bow of {length} allows: it ends at "
                f"{{end}}, where {curve.end_reason}.",
                draw=("draw", draw_in),
                length=("bow_length", length_in),
                end=("draw", curve.end_in),
            ),
            round(curve.end_in, 2),
            "in",
        )
    if draw_in < curve.brace_draw_in + LEAST_STROKE_IN:
        raise RefusedError(
            "bow.brace_height_in",
            say(
                "The string stands at {brace} by the trade standard when braced; a draw of {draw} "
                "leaves less than {least} of stroke.",
                brace=("draw", curve.brace_draw_in),
                draw=("draw", draw_in),
                least=("draw", LEAST_STROKE_IN),
            ),
            round(draw_in - LEAST_STROKE_IN - TRADE_OFFSET_IN, 2),
            "in",
        )
