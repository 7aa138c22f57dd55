"""Bare shafts past many bows at once: how clean each leaves, and nothing else (mechanics B3, B4a).

The mechanics of `passing`, for bows that differ in what of a bow is not known. Leapfrog, each bow
by a clock of its own, so that all let go in the same step and all tails pass in the same step:

    step      0 … on the string … n_string … flying … n
    bow 1     |---- each h1 ----|-- h1' --|
    bow 2     |----- each h2 -----|- h2' -|        a step of one is as early or late as of another

Nothing jumps where a setting changes a little: there are always as many steps, and the fingers'
push ends within one.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flex.clean import clean_deg
from lyrandis.core.flex.modes import BENDING, Layout, Modes, modes
from lyrandis.core.flex.passing import string_n_m
from lyrandis.core.flex.setting import Setting

ON_STRING, FLYING = 256, 48  # steps; always as many, or a rounding would make the match jump
_STABLE = 1.6  # a step times the fastest bending; leapfrog bears 2
_FINE = 256  # places along the stroke, closer where the nock starts


@dataclass(frozen=True)
class _Stroke:
    """One bow's nock from full draw until the string lets go, over time: rising, shape (fine,).

    time_s, gone_m, speed_mps, rate_mps2 : since the release, of how far it has gone
    """

    time_s: Array
    gone_m: Array
    speed_mps: Array
    rate_mps2: Array

    def at(self, time_s: Array) -> tuple[Array, Array, Array]:
        """Way gone, speed and acceleration at times; at the start the way goes by their square."""
        gone = np.interp(time_s, self.time_s, np.sqrt(self.gone_m)) ** 2
        speed = np.interp(time_s, self.time_s, self.speed_mps)
        return gone, speed, np.interp(time_s, self.time_s, self.rate_mps2)


def _stroke(s: Setting, mass_kg: float) -> _Stroke:
    """By the energy that the string has given after each place."""
    u = np.linspace(0.0, 1.0, _FINE)
    gone = s.stroke_m * u * u
    ramp = s.go.held_share + (1 - s.go.held_share) * np.minimum(gone / s.go.over_m, 1.0)
    rate = np.interp(s.stroke_m - gone, s.way_m, s.pushes_n()) * ramp / (mass_kg + s.moving_kg)
    energy = np.concatenate([[0.0], np.cumsum((rate[1:] + rate[:-1]) * np.diff(gone) / 2)])
    speed = np.sqrt(2 * energy)
    per_u = np.empty_like(u)  # dt/du = 2 stroke u / v, which has a limit at the start
    per_u[0] = math.sqrt(2 * s.stroke_m / rate[0])
    per_u[1:] = 2 * s.stroke_m * u[1:] / speed[1:]
    time = np.concatenate([[0.0], np.cumsum((per_u[1:] + per_u[:-1]) / 2 * u[1])])
    return _Stroke(time, gone, speed, rate)


@dataclass(frozen=True)
class _Course:
    """Everything of the steps that no shaft changes; n steps of d bows, n_string on the string.

    linear : what the state does to itself and shows: q · linear = [push of a and string | nock's
        height | height at the plate | its rate by the sliding], shape (n, d, 8, 11)
    beside : heights of the modes at the plate, shape (n, d, 8)
    plate_kick, nock_kick : what 1 N does there, shapes (n, d, 8) and (d, 8)
    loaded : M⁻¹ = 1 − loaded · nock nockᵀ on the string, shape (d,)
    fingers_m, fingers_n_m : how far they push the nock and how stiffly, shape (fingers' steps, d)
    kick_s, move_s : the leapfrog's, shape (n, d)
    """

    n_string: int
    linear: Array
    beside: Array
    plate_kick: Array
    nock_kick: Array
    loaded: Array
    fingers_m: Array
    fingers_n_m: Array
    kick_s: Array
    move_s: Array
    leaving_mps: Array


def _course(
    bows: Sequence[Setting], layout: Layout, told: Modes, fastest_rad_s: float, finer: int
) -> _Course:
    strokes = [_stroke(s, layout.mass_kg) for s in bows]
    ends = np.array([stroke.time_s[-1] for stroke in strokes])
    while float(ends.max()) / (ON_STRING * finer) * fastest_rad_s > _STABLE:
        finer *= 2
    n_string, n_off = ON_STRING * finer, FLYING * finer
    on = ends / n_string
    ways = [stroke.at(np.arange(n_string) * h) for stroke, h in zip(strokes, on, strict=True)]
    gone, speed, rate = (np.array(each).T for each in zip(*ways, strict=True))
    leaving = np.array([stroke.speed_mps[-1] for stroke in strokes])
    stroke_m, plate_at = (
        np.array([getattr(s, n) for s in bows]) for n in ("stroke_m", "plate_at_m")
    )
    off = plate_at / leaving / n_off
    places = np.concatenate([stroke_m - gone, -np.outer(np.arange(n_off), leaving * off)])
    v = np.concatenate([speed, np.tile(leaving, (n_off, 1))])

    nock = told.height[0]
    held = np.array([s.string_kg for s in bows])
    loaded = held / (1 + held * (nock @ nock))
    unloaded = np.eye(len(nock)) - loaded[:, None, None] * np.outer(nock, nock)
    side = np.stack([string_n_m(s, places[:n_string, i]) for i, s in enumerate(bows)], 1)
    beside, slope = (a.reshape(*places.shape, -1) for a in told.at((places + plate_at).ravel()))
    linear = np.zeros((*places.shape, len(nock), len(nock) + 3))
    linear[:n_string, :, :, :-3] = (
        rate[:, :, None, None] * told.ahead - side[:, :, None, None] * np.outer(nock, nock)
    ) @ unloaded
    linear[..., -3] = nock
    linear[..., -2] = beside
    linear[..., -1] = -v[:, :, None] * slope
    plate_kick = beside.copy()
    plate_kick[:n_string] -= (loaded * (beside[:n_string] @ nock))[..., None] * nock

    over, kick, stiff = np.array([(s.go.over_m, s.go.kick_m, s.go.k_n_m) for s in bows]).T
    within = np.clip((over - gone) / np.gradient(gone, axis=0) + 0.5, 0.0, 1.0)
    pushed = int(np.flatnonzero(within.any(1))[-1]) + 1
    fingers = kick * np.sin(np.pi / 2 * np.minimum(gone[:pushed] / over, 1.0)) ** 2
    move = np.repeat([on, off], [n_string, n_off], axis=0)
    push = move.copy()
    push[0] /= 2  # half a step behind from rest, and half of two where the clocks change
    push[n_string] = (on + off) / 2
    return _Course(
        n_string, linear, beside, plate_kick, nock @ unloaded, loaded, fingers,
        within[:pushed] * stiff, push, move, leaving,
    )  # fmt: skip


def clean_of_many(
    bows: Sequence[Setting],
    layout: Layout,
    stiffness_n_m2: Array,
    radius_m: float,
    damping: float,
    finer: int = 1,
) -> Array:
    """J of bare shafts of several stiffnesses from each of several bows [°], shape (d, k).

    Parameters
    ----------
    bows : d of them, alike in their plate's kind
    stiffness_n_m2 : EI of each shaft, shape (k,)
    radius_m, damping : of the shafts, as `pass_bow` takes them
    finer : so many times the usual steps

    Raises
    ------
    ValueError : a side plate of which no clean direction is known.

    Source: docs/mechanics B3.
    """
    told = modes(layout)
    omega = told.unit_omega * np.sqrt(np.asarray(stiffness_n_m2, dtype=float))[:, None]
    c = _course(bows, layout, told, float(omega.max()), finer)
    nock, plate = told.height[0], bows[0].plate
    bend, damp = omega**2, 2 * damping * omega
    surface, reach, spring, preload = (
        np.array(each)[:, None]
        for each in zip(
            *((s.offset_m + radius_m, s.stroke_m + s.plate_at_m, s.plate.k_n_m, s.plate.preload_n)
              for s in bows),
            strict=True,
        )
    )  # fmt: skip
    # Straight and just touching, the nock in the string's plane: rigid modes alone.
    q = np.zeros((len(bows), len(omega), BENDING + 2))
    q[..., 0] = surface / reach * layout.balance_m / told.height[0, 0]
    q[..., 1] = surface / reach / told.slope[0, 1]
    p = np.zeros_like(q)
    kick_s, move_s = c.kick_s[:, :, None, None], c.move_s[:, :, None, None]
    for i, linear in enumerate(c.linear):
        shown = q @ linear
        own = bend * q
        own += damp * p
        push = shown[..., :-3] - own
        if i < c.n_string:
            push += (c.loaded[:, None] * (own @ nock))[..., None] * nock
        deep = surface - shown[..., -2]
        if deep.max() > 0:
            np.maximum(deep, 0.0, out=deep)
            force = spring * deep + preload * np.minimum(deep / plate.over_m, 1.0)
            force += plate.stop_n_m * np.maximum(deep - plate.travel_m, 0.0)
            if plate.c_s_m:
                rate = np.einsum("dkj,dj->dk", p, c.beside[i]) + shown[..., -1]
                force *= np.maximum(1 - plate.c_s_m * rate, 0.0)
            push += force[..., None] * c.plate_kick[i][:, None, :]
        if i < len(c.fingers_m):
            force = c.fingers_n_m[i][:, None] * np.maximum(
                0.0, c.fingers_m[i][:, None] - shown[..., -3]
            )
            push += force[..., None] * c.nock_kick[:, None, :]
        p += kick_s[i] * push
        q += move_s[i] * p
    shift, turn = told.height[0, 0], told.slope[0, 1]
    return clean_deg(
        p[..., 0] * shift, q[..., 1] * turn, p[..., 1] * turn, c.leaving_mps[:, None], layout, plate
    )
