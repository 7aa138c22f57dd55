"""Where the arrow goes, and how far down the string the hand must: docs/mechanics C1.

SI: metres, seconds; crawls and eye height in millimetres at the edge. The flat-fire fall with
quadratic drag agrees with a full integration within 0.5 cm on the level and 3 cm at ± 30°, to 50 m.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from scipy.optimize import brentq

from lyrandis.core.bow.geometry import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.units import G_STANDARD

NOCK_TO_HOOK_Q = 0.92
SPEED_LOSS_PER_MM = 0.0010
STROKE_M = 0.50
DRAG_PER_M = 0.0018
MOST_DISTANCES = 60
FARTHEST_M = 120.0
_NEAREST_M = 2.0
_MOST_CRAWL_MM = 160.0
_SLOPE_MM = 0.01
_NO_DRAG_PER_M = 1e-6  # below it the fall's series is exact to rounding
_RUNAWAY_M = 2000.0  # far up a steep slope the steps run away; nothing flies farther than this
_KICK_AT_MM = 30.0  # the crawl at which a kick is stated
POINT_ON_WITHIN_M = 400.0
_DANGER_FROM_M, _DANGER_PAST_M = 1.0, 60.0
_NEAREST_OFF_M = 1.5
OFF_M = 5.0  # how wrong a distance is taken, for what it would do
_LEAST_FLIGHT_M = 0.5
FINGERS_AT_M, FINGERS_PER_M = 20.0, 10.0  # the two numbers of the finger-width school
_FINGERS_FIT_M, _FINGERS_LEAST_M = (10.0, 50.0), 25.0


@dataclass(frozen=True)
class Sight:
    """What the archer looks along, and how fast the arrow goes.

    speed_mps at no crawl; eye_mm above the arrow nock; nock_to_tip_m; stroke_m; drag_per_m
    (ρ·Cd·A/2m); q the share of a crawl that raises the eye's height; speed_loss_per_mm of crawl;
    kick_mrad an unexplained vertical kick at 30 mm of crawl; slope_deg of the ground, + uphill.
    """

    speed_mps: float
    eye_mm: float
    nock_to_tip_m: float
    stroke_m: float = STROKE_M
    drag_per_m: float = DRAG_PER_M
    q: float = NOCK_TO_HOOK_Q
    speed_loss_per_mm: float = SPEED_LOSS_PER_MM
    kick_mrad: float = 0.0
    slope_deg: float = 0.0


def shaft_angle(sight: Sight, crawl_mm: Array | float) -> Array:
    """How far [rad] the shaft points above the sight line at a crawl [mm]."""
    c = np.asarray(crawl_mm, dtype=float)
    height = (sight.eye_mm - sight.q * c) / 1000
    kick = sight.kick_mrad / 1000 * (np.maximum(c, 0) / _KICK_AT_MM) ** 2
    angle: Array = np.arctan(height / sight.nock_to_tip_m) + kick
    return angle


def impact_m(sight: Sight, crawl_mm: Array | float, distance_m: Array | float) -> Array:
    """Height [m] of the arrow over the sight line at a distance [m]; arrays broadcast.

    Parameters
    ----------
    sight : speed [m/s], eye [mm], slope [°] and the rest of what decides the flight
    crawl_mm : crawls [mm], negative ones are virtual
    distance_m : distances along the sight line [m], broadcast against the crawls

    Source: docs/mechanics C1; within 0.5 cm of a full integration on the level, 3 cm at ± 30°,
    to 50 m.
    """
    c, d = np.broadcast_arrays(
        np.asarray(crawl_mm, dtype=float), np.asarray(distance_m, dtype=float)
    )
    alpha = shaft_angle(sight, c)
    speed = sight.speed_mps * (1 - sight.speed_loss_per_mm * np.maximum(c, 0))
    beta = math.radians(sight.slope_deg)
    k = sight.drag_per_m
    flown = d.copy()

    pull = G_STANDARD / speed**2

    def fall(x: Array) -> Array:
        if k < _NO_DRAG_PER_M:
            return np.asarray(pull * x**2 * (0.5 + k * x / 3))
        return np.asarray(pull * (np.expm1(2 * k * x) - 2 * k * x) / (4 * k**2))

    for _ in range(3):
        along = d - sight.nock_to_tip_m + fall(flown) * math.sin(beta)
        flown = np.clip(along / np.cos(alpha) - sight.stroke_m, 0.0, _RUNAWAY_M)
    height: Array = (sight.stroke_m + flown) * np.sin(alpha) - fall(flown) * math.cos(beta)
    return height


def crawl_for_mm(sight: Sight, distance_m: Array) -> Array:
    """The crawl [mm] for each distance [m]; negative beyond point-on (a virtual crawl).

    Newton on the height over the sight line, vectorised over the distances.

    >>> sight = Sight(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)
    >>> np.round(crawl_for_mm(sight, np.array([5.0, 20.0, 50.0]))).tolist()
    [113.0, 83.0, 30.0]
    """
    d = np.asarray(distance_m, dtype=float)
    c = np.zeros_like(d)
    for _ in range(25):
        y, beside = impact_m(sight, np.stack([c, c + _SLOPE_MM]), d)
        step = np.clip(-y * _SLOPE_MM / (beside - y), -40, 40)
        c = c + step
        if float(np.max(np.abs(step))) < 1e-8:
            break
    return c


def point_on_m(sight: Sight) -> float | None:
    """Distance [m] at which the tip is on the mark without a crawl; None if beyond 400 m.

    The far crossing: the arrow starts below the line of sight and crosses it twice.

    >>> round(point_on_m(Sight(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)), 1)
    68.3
    """
    far = np.arange(_NEAREST_M, POINT_ON_WITHIN_M, 2.0)
    y = impact_m(sight, 0.0, far)
    over = np.nonzero((y[:-1] > 0) & (y[1:] <= 0))[0]
    if len(over) == 0:
        return None
    i = int(over[-1])
    return float(brentq(lambda d: float(impact_m(sight, 0.0, d)), far[i], far[i + 1], xtol=1e-5))


def danger_space_m(
    sight: Sight, crawl_mm: Array, distance_m: Array, half_height_m: float
) -> tuple[Array, Array]:
    """Near and far distances [m] over which each crawl keeps the arrow within ± half_height [m].

    crawl_mm and distance_m have shape (n,), as have the results. The near bound is not below
    1 m, the far one not more than 60 m beyond the distance.
    """
    n = len(distance_m)
    aim = np.tile(distance_m, 2)
    crawl = np.tile(crawl_mm, 2)
    stop = np.concatenate([np.full(n, _DANGER_FROM_M), distance_m + _DANGER_PAST_M])
    # Both edges of all crawls at once: a grid, fine near the aim, then halving the last cell.
    grid = aim[:, None] + (stop - aim)[:, None] * np.linspace(0, 1, 161) ** 2
    out = np.abs(impact_m(sight, crawl[:, None], grid)) > half_height_m
    first = np.argmax(out, axis=1)
    rows = np.arange(2 * n)
    inside, outside = grid[rows, np.maximum(first - 1, 0)], grid[rows, first]
    for _ in range(22):
        middle = (inside + outside) / 2
        beyond = np.abs(impact_m(sight, crawl, middle)) > half_height_m
        inside, outside = np.where(beyond, inside, middle), np.where(beyond, middle, outside)
    edge = np.where(out.any(axis=1), inside, stop)
    return edge[:n], edge[n:]


@dataclass(frozen=True)
class CrawlRow:
    """One distance of the chart. Beyond point-on crawl_mm is None and hold_over_cm is set."""

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


@dataclass(frozen=True)
class FingerRule:
    """The finger-width school: two numbers to remember, and what they cost at each distance.

    at_20m_fingers and per_10m_fingers [finger widths]; errors_cm [cm] on the butt per row
    (None beyond point-on).
    """

    at_20m_fingers: float
    per_10m_fingers: float
    errors_cm: tuple[float | None, ...]


@dataclass(frozen=True)
class CrawlChart:
    """The chart for a set of distances."""

    point_on_m: float | None
    rows: tuple[CrawlRow, ...]
    finger_rule: FingerRule | None


def _refuse(sight: Sight, distances: Array) -> None:
    if len(distances) == 0:
        raise RefusedError("distances_m", "Enter at least one distance.", 1, "distances")
    if len(distances) > MOST_DISTANCES:
        raise RefusedError(
            "distances_m",
            f"{len(distances)} distances are more than a chart can carry; "
            f"at most {MOST_DISTANCES} fit on a tab card.",
            MOST_DISTANCES,
            "distances",
        )
    nearest = max(_NEAREST_M, sight.nock_to_tip_m + sight.stroke_m + _LEAST_FLIGHT_M)
    for d in distances:
        if not (nearest <= d <= FARTHEST_M):
            bound = nearest if d < nearest else FARTHEST_M
            raise RefusedError(
                "distances_m",
                f"{d:g} m is outside what the flight model covers: "
                f"{nearest:g} to {FARTHEST_M:g} m.",
                bound,
                "m",
            )


def _finger_rule(
    sight: Sight, d: Array, c: Array, finger_mm: float, point_on: float | None
) -> FingerRule | None:
    at20 = float(crawl_for_mm(sight, np.array([FINGERS_AT_M]))[0])
    if at20 <= 0:
        return None
    near, far = _FINGERS_FIT_M
    top = min(far, point_on or far)
    if top < _FINGERS_LEAST_M:
        return None
    fit_d = np.linspace(near, top, 9)
    fit_c = crawl_for_mm(sight, fit_d)
    away = fit_d - FINGERS_AT_M
    step = float(np.sum((fit_c - at20) * away) / np.sum(away**2))
    ruled = at20 + step * (d - FINGERS_AT_M)
    miss = impact_m(sight, np.maximum(ruled, 0.0), d) * 100
    return FingerRule(
        at20 / finger_mm,
        step * FINGERS_PER_M / finger_mm,
        tuple(float(m) if crawl > 0 else None for m, crawl in zip(miss, c, strict=True)),
    )


def crawl_chart(
    sight: Sight,
    distances_m: Array,
    spot_half_height_cm: float = 5.0,
    stitch_pitch_mm: float | None = None,
    finger_width_mm: float | None = None,
) -> CrawlChart:
    """Crawls, holds over and danger spaces for distances [m].

    Parameters
    ----------
    sight : as above
    distances_m : shape (n,) [m], at most 60 of them, from 2 to 120 m
    spot_half_height_cm : how far off the arrow may land [cm]
    stitch_pitch_mm, finger_width_mm : the archer's own ways to count [mm]; None leaves them out

    Raises
    ------
    RefusedError : no distance, too many, or one outside what the flight model covers; an arrow
        too slow to reach a distance.

    Source: docs/mechanics C1.
    """
    d = np.asarray(distances_m, dtype=float)
    _refuse(sight, d)
    crawls = crawl_for_mm(sight, d)
    if not np.isfinite(crawls).all():
        raise RefusedError(
            "speed_mps",
            f"At {sight.speed_mps:g} m/s the arrow does not reach {float(d.max()):g} m this way.",
            unit="m/s",
        )
    if float(crawls.max()) > _MOST_CRAWL_MM:
        raise RefusedError(
            "eye_above_nock_mm",
            f"The crawl at {float(d[int(crawls.argmax())]):g} m would be {crawls.max():.0f} mm; "
            f"beyond {_MOST_CRAWL_MM:g} mm no hand hooks a string.",
            _MOST_CRAWL_MM,
            "mm",
        )
    point_on = point_on_m(sight)
    at_eye = sight.eye_mm / 1000 / sight.nock_to_tip_m
    virtual = (sight.eye_mm - sight.q * crawls) / 1000 / sight.nock_to_tip_m
    over_cm = d * (np.arctan(virtual) - math.atan(at_eye)) * 100
    beta = math.radians(sight.slope_deg)
    level = d * math.cos(beta) * (1 + shaft_angle(sight, crawls) * math.tan(beta))
    near, far = danger_space_m(sight, crawls, d, spot_half_height_cm / 100)
    nearer = impact_m(sight, crawls, np.maximum(d - OFF_M, _NEAREST_OFF_M)) * 100
    farther = impact_m(sight, crawls, d + OFF_M) * 100
    rows = []
    for i, crawl in enumerate(crawls):
        held = crawl < -1e-9
        aimed = max(float(crawl), 0.0)
        rows.append(
            CrawlRow(
                distance_m=float(d[i]),
                crawl_mm=None if held else aimed,
                hold_over_cm=float(over_cm[i]) if held else None,
                near_m=float(near[i]),
                far_m=float(far[i]),
                stitches=None if held or not stitch_pitch_mm else aimed / stitch_pitch_mm,
                fingers=None if held or not finger_width_mm else aimed / finger_width_mm,
                level_distance_m=float(level[i]),
                impact_cm_if_5m_nearer=float(nearer[i]),
                impact_cm_if_5m_farther=float(farther[i]),
            )
        )
    rule = _finger_rule(sight, d, crawls, finger_width_mm, point_on) if finger_width_mm else None
    return CrawlChart(point_on, tuple(rows), rule)


def crawl_plus_minus_mm(
    sight: Sight, distance_m: Array, speed_sd_mps: float, eye_sd_mm: float
) -> Array:
    """One standard deviation [mm] of each distance's crawl from speed and eye height not known.

    Central differences of the chart; speed and eye height taken as independent.
    """

    def half_change(a: Sight, b: Sight) -> Array:
        return (crawl_for_mm(a, distance_m) - crawl_for_mm(b, distance_m)) / 2

    v, h = sight.speed_mps, sight.eye_mm
    by_speed = half_change(
        replace(sight, speed_mps=v + speed_sd_mps), replace(sight, speed_mps=v - speed_sd_mps)
    )
    by_eye = half_change(replace(sight, eye_mm=h + eye_sd_mm), replace(sight, eye_mm=h - eye_sd_mm))
    return np.hypot(by_speed, by_eye)
