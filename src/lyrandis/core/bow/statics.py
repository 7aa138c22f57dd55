"""The bow at brace and at any draw: the one-angle limb with an elastic string (docs/mechanics A2).

SI inside; `Statics` is the solved bow, `solve` makes one and remembers the latest thousand.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.optimize import brentq

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import (
    BUNDLE_STIFFNESS_N,
    TRADE_OFFSET_IN,
    Limb,
    brace_to_pivot_in,
    default_riser_in,
    limb_of,
)
from lyrandis.core.bow.geometry import contact, contact_at, t_at_brace
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.parts import Bow, StringMaterial
from lyrandis.core.units import M_PER_IN, N_PER_LBF

_STEP_RAD = 0.15
_NEWTON_MAX = 60
_GUESSES = 3
_TOLERANCE = 1e-11
_MOST_BEND_RAD = 2.6
_LEAST_DRAWN_IN = 2.0  # between brace and the marked draw


@dataclass(frozen=True)
class Braced:
    """The bow at brace: bend, half string under tension, slack half string and tension."""

    phi: float  # rad
    half_string: float  # m, under tension
    half_slack: float  # m
    tension: float  # N
    t: float


@dataclass(frozen=True)
class Drawn:
    """The bow over a grid of arrow nock positions x [m]; arrays of the grid's shape."""

    x: Array
    phi: Array  # rad
    force: Array  # N
    tension: Array  # N
    energy: Array  # J, over the braced bow, both limbs and the string
    angle: Array  # rad, full angle between the string's halves


@dataclass(frozen=True)
class Statics:
    """A solved bow: limb, stiffness of one limb [N·m/rad], string stiffness E·A [N], brace."""

    limb: Limb
    stiffness: float
    bundle: float
    brace_x: float
    braced: Braced

    def draw(self, x: Array) -> Drawn:
        """Pull the arrow nock to each x [m, from the pivot]; x below brace is held at brace."""
        return _draw(self, np.maximum(np.asarray(x, dtype=float), self.brace_x))

    def differential_stiffness(self) -> float:
        """Resistance to one limb bending more than the other, relative to one limb's stiffness.

        Must be positive for the bow to stay braced evenly. Where the string sits on the corner
        of a static lever the smaller of the two sides counts. Source: docs/mechanics A2.
        """
        b = self.braced
        phi, x = np.array([b.phi]), np.array([self.brace_x])
        ts = [b.t]
        if self.limb.lever and b.t >= 1.0:
            ts.append(1.0 - 1e-9)
        curves = [float(contact_at(self.limb, phi, x, np.array([t])).length_phi2[0]) for t in ts]
        return 1 + b.tension / self.stiffness * min(curves)

    def brace_per_string(self) -> float:
        """d(brace height)/d(whole string length under tension) [-]; negative."""
        b = self.braced
        h = 1e-6
        at = []
        for phi in (b.phi - h, b.phi + h):
            p = np.array([phi])
            t = t_at_brace(self.limb, p)
            if self.limb.lever and b.t >= 1.0:
                t = np.ones_like(t)
            at.append(_upright(self.limb, p, t))
        (x0, s0), (x1, s1) = at
        return (x1 - x0) / (2 * (s1 - s0))


def _upright(limb: Limb, phi: Array, t: Array) -> tuple[float, float]:
    """x of the contact point and half string length [m] when the string stands vertical."""
    c = contact_at(limb, phi, np.zeros_like(phi), t)
    free = c.length - np.where(t >= 1.0, 0.0, (1 - t) * limb.arc + limb.lever)
    x, y = c.direction[0] * free, c.direction[1] * free
    return float(x[0]), float((y + c.length - free)[0])


def _brace(limb: Limb, x: float) -> tuple[float, float, float]:
    """Bend, half string length and contact share of a bow braced at x [m]."""

    def gap(phi: float) -> float:
        p = np.array([phi])
        return _upright(limb, p, t_at_brace(limb, p))[0] - x

    low, high = limb.rest + 1e-6, _MOST_BEND_RAD
    if gap(low) >= 0 or gap(high) <= 0:
        raise ValueError("no braced shape")
    phi = float(brentq(gap, low, high, xtol=1e-13, rtol=1e-14))
    t = t_at_brace(limb, np.array([phi]))
    return phi, _upright(limb, np.array([phi]), t)[1], float(t[0])


def _string_up(
    limb: Limb, stiffness: float, bundle: float, x: float, phi: float, half: float, t: float
) -> Braced:
    c = contact_at(limb, np.array([phi]), np.array([x]), np.array([t]))
    tension = -stiffness * (phi - limb.rest) / float(c.length_phi[0])
    return Braced(phi, half, half / (1 + tension / bundle), tension, t)


def _inextensible(bow: Statics, x: Array, half: float) -> Array:
    """A near guess of the bends: those at which a string that cannot stretch would reach x."""
    # The arrow nock's travel turns into bend in proportion to the string's slope.
    phi = bow.braced.phi + 0.9 * (x - bow.brace_x) / half
    for _ in range(_GUESSES):
        c = contact(bow.limb, phi, x)
        step = (half - c.length) / np.minimum(c.length_phi, -0.02 * half)
        phi = phi + np.clip(step, -_STEP_RAD, _STEP_RAD)
    return phi


def _draw(bow: Statics, x: Array, guess: Array | None = None) -> Drawn:
    limb, k, ea, b = bow.limb, bow.stiffness, bow.bundle, bow.braced
    s0 = b.half_slack
    half = b.half_string
    phi = _inextensible(bow, x, half) if guess is None else guess
    for _ in range(_NEWTON_MAX):
        c = contact(limb, phi, x)
        tension = ea * (c.length / s0 - 1)
        residual = k * (phi - limb.rest) + tension * c.length_phi
        slope = k + ea / s0 * c.length_phi**2 + tension * c.length_phi2
        step = -residual / np.where(slope > 0.1 * k, slope, k)
        step = np.clip(step, -_STEP_RAD, _STEP_RAD)
        phi = phi + step
        if float(np.max(np.abs(step))) < _TOLERANCE:
            break
    c = contact(limb, phi, x)
    tension = ea * (c.length / s0 - 1)
    energy = k * ((phi - limb.rest) ** 2 - (b.phi - limb.rest) ** 2) + s0 / ea * (
        tension**2 - b.tension**2
    )
    ux, uy = c.direction
    return Drawn(x, phi, 2 * tension * c.length_x, tension, energy, 2 * np.arctan2(uy, -ux))


_BRACE_SPAN_M = 0.075  # how far around the present brace a new one is looked for
_BRACE_STEPS = 12


def _nearest_change(off: Callable[[float], float], at: float) -> tuple[float, float] | None:
    """The nearest interval around a brace [m] over which `off` changes its sign, looking outward.

    Braces for which there is no braced shape end the search on their side.
    """
    try:
        here = off(at)
    except ValueError:
        return None
    step = _BRACE_SPAN_M / _BRACE_STEPS
    ends: dict[int, tuple[float, float] | None] = {1: (at, here), -1: (at, here)}
    for n in range(1, _BRACE_STEPS + 1):
        for side, end in ends.items():
            if end is None:
                continue
            x = at + side * n * step
            try:
                gap = off(x)
            except ValueError:
                ends[side] = None
                continue
            if end[1] * gap <= 0:
                return min(end[0], x), max(end[0], x)
            ends[side] = (x, gap)
    return None


def rebraced(bow: Statics, half_slack: float | None = None, limb: Limb | None = None) -> Statics:
    """The same limbs braced by a string of another length, or at another tilt of their roots.

    The limbs' stiffness is kept; the brace height follows. Where two brace heights would balance
    (a limb near its differential limit) the one nearest the present is taken.

    Parameters
    ----------
    half_slack : half of the string's slack length [m]; the present one if None
    limb : the limb with its new tilt; the present one if None

    Raises
    ------
    RefusedError : no brace height within 75 mm balances that string.

    Source: docs/mechanics A5 (twists act on the slack length; A2 solved again).
    """
    wanted = bow.braced.half_slack if half_slack is None else half_slack
    other = bow.limb if limb is None else limb

    def off(x: float) -> float:
        phi, half, t = _brace(other, x)
        return _string_up(other, bow.stiffness, bow.bundle, x, phi, half, t).half_slack - wanted

    best = _nearest_change(off, bow.brace_x)
    if best is None:
        raise RefusedError(
            "string.twists",
            say(
                "No brace height within {span} of the present one would hold such a string.",
                span=("brace", _BRACE_SPAN_M / M_PER_IN),
            ),
            _BRACE_SPAN_M / M_PER_IN,
            "in",
        )
    x = float(brentq(off, *best, xtol=1e-9))
    phi, half, t = _brace(other, x)
    braced = _string_up(other, bow.stiffness, bow.bundle, x, phi, half, t)
    return Statics(other, bow.stiffness, bow.bundle, x, braced)


@lru_cache(maxsize=512)
def half_slack_at(bow: Statics, brace_x: float) -> float:
    """Half of the slack length [m] of the string that braces these limbs at brace_x [m].

    Raises
    ------
    ValueError : no braced shape there.
    """
    phi, half, t = _brace(bow.limb, brace_x)
    return _string_up(bow.limb, bow.stiffness, bow.bundle, brace_x, phi, half, t).half_slack


_LOOK_STEP_IN, _LOOK_FAR_IN = 0.05, 2.5


def _refuse_unstable(brace_in: float, solved: Callable[[float], Statics | None]) -> None:
    """Refuse a brace height at which one limb would give way to the other (docs/mechanics A2)."""
    here = solved(brace_in)
    if here is None or here.differential_stiffness() > 0:
        return

    def stable(side: int) -> float | None:
        for n in range(1, round(_LOOK_FAR_IN / _LOOK_STEP_IN) + 1):
            at = round(brace_in + side * n * _LOOK_STEP_IN, 2)
            other = solved(at)
            if other is not None and other.differential_stiffness() > 0:
                return at
        return None

    below, above = stable(-1), stable(1)
    held = {n: v for n, v in (("below", below), ("above", above)) if v is not None}
    places = {"below": "{below} and lower", "above": "{above} and higher"}
    known = [places[n] for n in held]
    raise RefusedError(
        "bow.brace_height_in",
        say(
            "At {brace} this bow would not stay braced evenly: one limb gives way to the other. "
            + (f"It does at {' or '.join(known)}." if known else "Try another riser."),
            brace=("brace", brace_in),
            **{n: ("brace", v) for n, v in held.items()},
        ),
        above or below,
        "in",
    )


def refuse_unbraced(bow: Bow, brace_in: float) -> RefusedError:
    """The refusal of a bow for which no braced shape exists, with the usual riser beside it."""
    usual = default_riser_in(bow)
    return RefusedError(
        "bow.riser_in" if bow.riser_in is not None else "bow.brace_height_in",
        say(
            "A bow of {length} of this form has no braced shape at {brace}; a riser of {low} to "
            "{high} and the form's usual brace height do.",
            length=("bow_length", bow.length_in),
            brace=("brace", brace_in),
            low=("bow_length", usual - 4),
            high=("bow_length", usual + 4),
        ),
        unit="in",
    )


def solve(
    bow: Bow, material: StringMaterial = "polyester", brace_in: float | None = None
) -> Statics:
    """Solve a bow so that it pulls its marked weight at its marked draw.

    Parameters
    ----------
    bow : the bow
    material : sets the string's stiffness
    brace_in : brace height [in, to the pivot] to use in place of the bow's own

    Raises
    ------
    RefusedError : no braced shape, or none that is stable; marked draw below brace + 1.75 in.
    """
    brace = brace_to_pivot_in(bow) if brace_in is None else brace_in
    if bow.marked_draw_in < brace + TRADE_OFFSET_IN + _LEAST_DRAWN_IN:
        raise RefusedError(
            "bow.brace_height_in",
            say(
                "A brace height of {brace} leaves no draw: the bow is marked at {marked}, so it "
                "must stay under {most}.",
                brace=("brace", brace),
                marked=("draw", bow.marked_draw_in),
                most=("brace", bow.marked_draw_in - TRADE_OFFSET_IN - _LEAST_DRAWN_IN),
            ),
            bow.marked_draw_in - TRADE_OFFSET_IN - _LEAST_DRAWN_IN,
            "in",
        )

    def solved(at_in: float) -> Statics | None:
        return _solve(
            limb_of(bow),
            bow.marked_weight_lbf,
            bow.marked_draw_in,
            BUNDLE_STIFFNESS_N[material],
            at_in,
        )

    told = solved(brace)
    if told is None:
        raise refuse_unbraced(bow, brace)
    _refuse_unstable(brace, solved)
    return told


@lru_cache(maxsize=1024)
def _solve(
    limb: Limb, weight_lbf: float, draw_in: float, bundle: float, brace_in: float
) -> Statics | None:
    x_brace = brace_in * M_PER_IN
    try:
        phi, half, t = _brace(limb, x_brace)
    except ValueError:
        return None
    wanted = weight_lbf * N_PER_LBF
    x = np.array([(draw_in - TRADE_OFFSET_IN) * M_PER_IN])
    k = wanted * half
    bent: Array | None = None
    for _ in range(_NEWTON_MAX):
        bow = Statics(limb, k, bundle, x_brace, _string_up(limb, k, bundle, x_brace, phi, half, t))
        drawn = _draw(bow, x, bent)
        force, bent = float(drawn.force[0]), drawn.phi
        if not np.isfinite(force) or force <= 0:
            return None
        if abs(force / wanted - 1) < 1e-9:
            break
        k *= wanted / force
    return bow if bow.braced.tension > 0 else None
