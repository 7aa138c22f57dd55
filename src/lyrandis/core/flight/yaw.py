"""An arrow swinging sideways in free flight: how its nock stands by the distance (mechanics B5).

Planar: yaw and drift. Fins, nose and the shaft's own strips each push where the air meets them:

    α(x) = θ − (v_y + ω x) / v          x ahead of the balance, + toward the point
    fins   2 q π R² k_n (1 − (r/R)² + (r/R)⁴) · α(x_f),  k_n = 2 · 2^(−4/n)
    nose   2 q A · α(x_n)               strips  q d (1.1 |α| + 0.03) α  a metre
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array

AIR_KG_M3 = 1.2
FEATHER_HIGH_M = 0.012  # how far an ordinary feather stands out of the shaft
CROSS_PER_RAD, CROSS_0 = 1.1, 0.03
NOSE = 2.0
STEP_S = 0.004
_STRIPS = 16


@dataclass(frozen=True)
class Swinging:
    """An arrow as the air meets it. SI; places from the nock.

    fins_at_m, fins : where the fletching is, and of how many feathers; 0 of a bare shaft
    """

    length_m: float
    radius_m: float
    mass_kg: float
    balance_m: float
    inertia_kg_m2: float
    fins_at_m: float = 0.0
    fins: int = 0

    def fins_n_per_rad(self, q: float) -> float:
        """The fletching's push for an angle, at a dynamic pressure q [Pa]."""
        if not self.fins:
            return 0.0
        out = self.radius_m + FEATHER_HIGH_M
        k = 2 * 2 ** (-4 / self.fins)
        share = (self.radius_m / out) ** 2
        return 2 * q * math.pi * out**2 * k * (1 - share + share**2)


def swing(arrow: Swinging, speed_mps: float, start: Array, distance_m: Array) -> Array:
    """The arrow's yaw [rad] when it has flown so far; as `flown`, shape (k, len(distance_m))."""
    return flown(arrow, speed_mps, start, distance_m)[0]


def flown(
    arrow: Swinging, speed_mps: float, start: Array, distance_m: Array
) -> tuple[Array, Array]:
    """The arrow's yaw [rad] and how far aside it is [m], shape (k, len(distance_m)) each.

    Parameters
    ----------
    arrow, speed_mps : taken as constant over so short a flight
    start : drift speed [m/s], yaw [rad] and yaw rate [rad/s] of each arrow, shape (k, 3)
    distance_m : how far it has flown, rising

    Source: docs/mechanics B5; Runge and Kutta, 4 ms, batched.
    """
    q = 0.5 * AIR_KG_M3 * speed_mps**2
    strips = (np.arange(_STRIPS) + 0.5) * arrow.length_m / _STRIPS - arrow.balance_m
    nose, fins_at = arrow.length_m - arrow.balance_m, arrow.fins_at_m - arrow.balance_m
    on_fins = arrow.fins_n_per_rad(q)
    on_nose = NOSE * q * math.pi * arrow.radius_m**2
    strip = q * 2 * arrow.radius_m * arrow.length_m / _STRIPS

    def rates(state: Array) -> Array:
        drift, yaw, turn, _ = state.T

        def alpha(x: Array | float) -> Array:
            return np.asarray(yaw[:, None] - (drift[:, None] + turn[:, None] * x) / speed_mps)

        a = alpha(strips)
        side = strip * (CROSS_PER_RAD * np.abs(a) + CROSS_0) * a
        fins, tip = on_fins * alpha(fins_at)[:, 0], on_nose * alpha(nose)[:, 0]
        force = side.sum(axis=1) + fins + tip
        moment = side @ strips + fins * fins_at + tip * nose
        return np.stack([force / arrow.mass_kg, turn, moment / arrow.inertia_kg_m2, drift], 1)

    begun = np.asarray(start, dtype=float)
    state = np.concatenate([begun, np.zeros((len(begun), 1))], axis=1)
    h, way, told = STEP_S, [0.0], [state]
    for _ in range(math.ceil(float(distance_m[-1]) / (speed_mps * h))):
        k1 = rates(state)
        k2 = rates(state + h / 2 * k1)
        k3 = rates(state + h / 2 * k2)
        k4 = rates(state + h * k3)
        state = state + h / 6 * (k1 + 2 * k2 + 2 * k3 + k4)
        way.append(way[-1] + speed_mps * h)
        told.append(state)
    every = np.array(told)
    yaw, aside = (
        np.stack([np.interp(distance_m, way, one) for one in every[:, :, i].T]) for i in (1, 3)
    )
    return yaw, aside
