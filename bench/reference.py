"""A plain reference doing the same work as the core, with scipy's general solvers and no tricks.

The bow point by point with a root finder, the energy by quadrature of forces, the flight by
integrating its equations, the crawls by a root finder around that.
"""

from __future__ import annotations

import math

import numpy as np
from scipy.integrate import quad, solve_ivp
from scipy.optimize import brentq

from lyrandis.core.bow.form import BUNDLE_STIFFNESS_N, brace_to_pivot_in, limb_of
from lyrandis.core.bow.geometry import contact, t_at_brace
from lyrandis.core.flight.trajectory import AimedArrow, shaft_angle
from lyrandis.core.parts import Rig
from lyrandis.core.units import G_STANDARD, M_PER_IN, N_PER_LBF


class PlainBow:
    """A bow solved one draw at a time."""

    def __init__(self, rig: Rig) -> None:
        self.limb = limb_of(rig.bow)
        self.bundle = BUNDLE_STIFFNESS_N[rig.string.material]
        self.x_brace = brace_to_pivot_in(rig.bow) * M_PER_IN
        self.wanted = rig.bow.marked_weight_lbf * N_PER_LBF
        self.marked = (rig.bow.marked_draw_in - 1.75) * M_PER_IN
        self.phi_b = brentq(self._gap, self.limb.rest + 1e-6, 2.6, xtol=1e-12)
        self.stiffness = brentq(self._misses, 1.0, 2000.0, xtol=1e-9)
        self._string_up(self.stiffness)

    def _path(self, phi: float, x: float) -> tuple[float, float, float]:
        c = contact(self.limb, np.array([phi]), np.array([x]))
        return float(c.length[0]), float(c.length_phi[0]), float(c.length_x[0])

    def _gap(self, phi: float) -> float:
        p = np.array([phi])
        from lyrandis.core.bow.statics import _upright

        return _upright(self.limb, p, t_at_brace(self.limb, p))[0] - self.x_brace

    def _string_up(self, k: float) -> None:
        length, slope, _ = self._path(self.phi_b, self.x_brace)
        tension = -k * (self.phi_b - self.limb.rest) / slope
        self.slack = length / (1 + tension / self.bundle)
        self.k = k

    def _misses(self, k: float) -> float:
        self._string_up(k)
        return self.force(self.marked) - self.wanted

    def force(self, x: float) -> float:
        """Force [N] with the arrow nock at x [m]."""

        def balance(phi: float) -> float:
            length, slope, _ = self._path(phi, x)
            return self.k * (phi - self.limb.rest) + self.bundle * (length / self.slack - 1) * slope

        phi = brentq(balance, self.phi_b - 0.02, self.phi_b + 1.6, xtol=1e-12)
        length, _, by_x = self._path(phi, x)
        return 2 * self.bundle * (length / self.slack - 1) * by_x

    def curve(self, draws_in: np.ndarray) -> np.ndarray:
        """Forces [lb] at draws [in, trade]."""
        return np.array([self.force((d - 1.75) * M_PER_IN) / N_PER_LBF for d in draws_in])

    def energy_ftlb(self, draw_in: float) -> float:
        """Stored energy [ft·lb] by quadrature of the force."""
        joules, _ = quad(self.force, self.x_brace, (draw_in - 1.75) * M_PER_IN, epsrel=1e-6)
        return joules / 1.3558179483314004


def plain_impact(sight: AimedArrow, crawl: float, distance: float) -> float:
    """Height [m] over the sight line by integrating the flight."""
    alpha, beta = float(shaft_angle(sight, crawl)), math.radians(sight.slope_deg)
    v = sight.speed_mps * (1 - sight.speed_loss_per_mm * max(crawl, 0))
    start = [
        sight.nock_to_tip_m + sight.stroke_m * math.cos(alpha), sight.stroke_m * math.sin(alpha),
        v * math.cos(alpha), v * math.sin(alpha),
    ]  # fmt: skip

    def rate(_: float, s: np.ndarray) -> list[float]:
        drag = sight.drag_per_m * math.hypot(s[2], s[3])
        return [s[2], s[3], -drag * s[2] - G_STANDARD * math.sin(beta),
                -drag * s[3] - G_STANDARD * math.cos(beta)]  # fmt: skip

    def there(_: float, s: np.ndarray) -> float:
        return float(s[0] - distance)

    there.terminal = True  # type: ignore[attr-defined]
    flown = solve_ivp(rate, (0, 9), start, events=there, rtol=1e-8, atol=1e-8)
    return float(flown.y_events[0][0][1])


def plain_crawl(sight: AimedArrow, distance: float) -> float:
    """Crawl [mm] for a distance [m]."""
    return float(brentq(lambda c: plain_impact(sight, c, distance), -150, 150, xtol=1e-4))
