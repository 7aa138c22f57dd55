"""Where the arrow goes: flat fire with quadratic drag, seen along the sight line (mechanics C1).

SI: metres, seconds; crawls and eye height in millimetres at the edge. The flat-fire fall with
quadratic drag agrees with a full integration to 50 m: from 35 m/s on within 0.4 cm on the level and
0.5 cm at ± 30°, where gravity's share along the shaft is integrated (tests/core/test_crawls.py).

        eye .
            | .  eye_mm − q·crawl, square to the shaft
       nock o---.========> tip ................ mark     the sight line: eye, tip, mark
             shaft, nock_to_tip_m, points alpha above the sight line
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.units import G_STANDARD, KG_PER_GRAIN

NOCK_TO_HOOK_Q = 0.92
SPEED_LOSS_PER_MM = 0.0010
STROKE_M = 0.50
DRAG_PER_M = 0.0018
NEAREST_M = 2.0
POINT_ON_WITHIN_M = 400.0
_POINT_ON_STEPS, _POINT_ON_CELLS = 4, 24  # 2 m to within 3 µm
_SLOPE_MM = 0.01
_NO_DRAG_PER_M = 1e-6  # below it the fall's series is exact to rounding
_LEAST_SHARE = 1e-4  # of the speed, squared: slower nothing is asked for
_NODES = 8  # of the integrals along a slope
_RUNAWAY_M = 2000.0  # far up a steep slope the steps run away; nothing flies farther than this
_DRAG_REFERENCE = (6.0, 0.0227)  # the default drag is that of a 6 mm shaft of 350 gr
_KICK_AT_MM = 30.0  # the crawl at which a kick is stated


@dataclass(frozen=True)
class AimedArrow:
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


def drag_per_m(diameter_mm: float, mass_gr: float) -> float:
    """Drag κ [1/m] of an arrow: the default, scaled by section area and mass."""
    d, m = _DRAG_REFERENCE
    return DRAG_PER_M * (diameter_mm / d) ** 2 * m / (mass_gr * KG_PER_GRAIN)


def shaft_angle(aimed: AimedArrow, crawl_mm: Array | float) -> Array:
    """How far [rad] the shaft points above the sight line at a crawl [mm]."""
    c = np.asarray(crawl_mm, dtype=float)
    height = (aimed.eye_mm - aimed.q * c) / 1000
    kick = aimed.kick_mrad / 1000 * (np.maximum(c, 0) / _KICK_AT_MM) ** 2
    angle: Array = np.arctan(height / aimed.nock_to_tip_m) + kick
    return angle


def impact_m(aimed: AimedArrow, crawl_mm: Array | float, distance_m: Array | float) -> Array:
    """Height [m] of the arrow over the sight line at a distance [m]; arrays broadcast.

    Parameters
    ----------
    aimed : speed [m/s], eye [mm], slope [°] and the rest of what decides the flight
    crawl_mm : crawls [mm], negative ones are virtual
    distance_m : distances along the sight line [m], broadcast against the crawls

    Source: docs/mechanics C1; its bounds at the head of this file.
    """
    c, d = np.broadcast_arrays(
        np.asarray(crawl_mm, dtype=float), np.asarray(distance_m, dtype=float)
    )
    alpha = shaft_angle(aimed, c)
    speed = aimed.speed_mps * (1 - aimed.speed_loss_per_mm * np.maximum(c, 0))
    beta = math.radians(aimed.slope_deg)
    k = aimed.drag_per_m
    pull = G_STANDARD / speed**2
    if not aimed.slope_deg:
        flown = np.clip((d - aimed.nock_to_tip_m) / np.cos(alpha) - aimed.stroke_m, 0, _RUNAWAY_M)
        height: Array = (aimed.stroke_m + flown) * np.sin(alpha) - _level_fall(pull, k, flown)
        return height
    flown = d.copy()
    down = np.zeros_like(flown)
    for _ in range(3):  # how far it has flown hangs a little on how far it fell
        along = d - aimed.nock_to_tip_m - down * np.sin(alpha)
        flown = np.clip(along / np.cos(alpha) - aimed.stroke_m, 0.0, _RUNAWAY_M)
        down = _slope_fall(pull, k, flown, beta + alpha)
    return np.asarray((aimed.stroke_m + flown) * np.sin(alpha) - down * np.cos(alpha))


def _level_fall(pull: Array, k: float, x: Array) -> Array:
    """How far [m] it has fallen after flying x [m]; pull = g/v² [1/m]."""
    if k < _NO_DRAG_PER_M:
        return np.asarray(pull * x**2 * (0.5 + k * x / 3))
    return np.asarray(pull * (np.expm1(2 * k * x) - 2 * k * x) / (4 * k**2))


@lru_cache(maxsize=1)
def _gauss(n: int = _NODES) -> tuple[Array, Array, Array]:
    """Gauss points of [0, 1], their weights, and what integrates from 0 to each of them."""
    at, weight = np.polynomial.legendre.leggauss(n)
    at = (at + 1) / 2
    powers = at[:, None] ** np.arange(n)
    upto = at[:, None] ** np.arange(1, n + 1) / np.arange(1, n + 1)
    return at, weight / 2, upto @ np.linalg.inv(powers)


def _slope_fall(pull: Array, k: float, x: Array, up_rad: Array) -> Array:
    """How far [m] an arrow has fallen square to the line that it left on, flown x [m] along it.

    Gravity slows it along that line, dv²/dx = −2κv² − 2g sin θ, and pulls it aside,
    d(δ̇)/dx = g cos θ/v − κδ̇, dδ/dx = δ̇/v; speeds as shares of the first, by Gauss.
    """
    at, weight, upto = _gauss()
    k = max(k, _NO_DRAG_PER_M)
    s = x[..., None] * at
    slows = (pull * np.sin(up_rad))[..., None] / k
    share = np.sqrt(np.maximum((1 + slows) * np.exp(-2 * k * s) - slows, _LEAST_SHARE))
    aside = np.exp(-k * s) * ((np.exp(k * s) / share) @ upto.T) * x[..., None]
    fallen = (aside / share) @ weight * x
    return np.asarray(pull * np.cos(up_rad) * fallen)


def flight_s(aimed: AimedArrow, distance_m: float) -> float:
    """Time in the air [s] to a distance [m], without a crawl: t = (e^{κX} − 1) / (κ v).

    >>> round(flight_s(AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76), 30.0), 2)
    0.59
    """
    far = max(distance_m - aimed.nock_to_tip_m - aimed.stroke_m, 0.0)
    k = max(aimed.drag_per_m, _NO_DRAG_PER_M)
    return math.expm1(k * far) / (k * aimed.speed_mps)


def crawl_for_mm(aimed: AimedArrow, distance_m: Array) -> Array:
    """The crawl [mm] for each distance [m]; negative beyond point-on (a virtual crawl).

    Newton on the height over the sight line, vectorised over the distances.

    >>> aimed = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)
    >>> np.round(crawl_for_mm(aimed, np.array([5.0, 20.0, 50.0]))).tolist()
    [113.0, 83.0, 30.0]
    """
    d = np.asarray(distance_m, dtype=float)
    c = np.zeros_like(d)
    for _ in range(25):
        y, beside = impact_m(aimed, np.stack([c, c + _SLOPE_MM]), d)
        step = np.clip(-y * _SLOPE_MM / (beside - y), -40, 40)
        c = c + step
        if float(np.max(np.abs(step))) < 1e-8:
            break
    return c


@lru_cache(maxsize=512)
def points_on_m(aimed: tuple[AimedArrow, ...]) -> tuple[float | None, ...]:
    """Distances [m] at which the tip is on the mark without a crawl; None where beyond 400 m.

    The far crossing: the arrow starts below the line of sight and crosses it twice. Found for all
    at once on a grid of 2 m, then in the crossing's own cell on ever finer ones.
    """
    column: dict[str, Any] = {
        name: np.array([[getattr(a, name)] for a in aimed])
        for name in ("speed_mps", "eye_mm", "nock_to_tip_m", "stroke_m", "speed_loss_per_mm", "q")
    }
    (drag,), (slope,) = ({getattr(a, n) for a in aimed} for n in ("drag_per_m", "slope_deg"))
    every = AimedArrow(**column, drag_per_m=drag, slope_deg=slope)
    grid = np.arange(NEAREST_M, POINT_ON_WITHIN_M, 2.0)[None, :]
    y = impact_m(every, 0.0, grid)
    over = (y[:, :-1] > 0) & (y[:, 1:] <= 0)
    crosses = [bool(row.any()) for row in over]
    last = over.shape[1] - 1 - np.argmax(over[:, ::-1], axis=1)
    near, far = grid[0, last], grid[0, last + 1]
    rows = np.arange(len(aimed))
    for _ in range(_POINT_ON_STEPS):
        cell = near[:, None] + (far - near)[:, None] * np.linspace(0, 1, _POINT_ON_CELLS + 1)
        first = np.argmax(impact_m(every, 0.0, cell) <= 0, axis=1)
        near, far = cell[rows, np.maximum(first - 1, 0)], cell[rows, np.maximum(first, 1)]
    found = (near + far) / 2
    return tuple(float(d) if real else None for d, real in zip(found, crosses, strict=True))


def point_on_m(aimed: AimedArrow) -> float | None:
    """Distance [m] at which the tip is on the mark without a crawl; None if beyond 400 m.

    >>> round(point_on_m(AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)), 1)
    68.3
    """
    return points_on_m((aimed,))[0]
