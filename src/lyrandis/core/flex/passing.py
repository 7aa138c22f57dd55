"""Shafts passing a bow, bent and pushed: a batch of spines of one layout of masses (mechanics B3).

Semi-implicit Euler, 20 µs: q̇ first, then q with the new q̇. What is linear in a step is one matrix,
the same for every shaft of the batch and made beforehand for all steps; what is a shaft's own, its
bending and its damping, goes in as own = [−Ω² q, −2ζΩ q̇]:

    [q q̇ | own] · V_i = [ Δq Δq̇ | y at the plate, its total rate, y of the nock ]

so that a step is one small product, and the plate's and the fingers' push where they touch.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flex.modes import BENDING, Layout, Modes, modes
from lyrandis.core.flex.setting import (
    STRING_BRACED,
    STRING_DRAWN,
    STRING_POWER,
    TIP_N_M,
    Setting,
    SidePlate,
)

STEP_S, PREVIEW_STEP_S = 20e-6, 40e-6
_DEEP_M = 0.1  # deeper no shaft leans into a plate
_MODES = BENDING + 2
_STATE = 2 * _MODES
_Y, _RATE, _NOCK = _STATE, _STATE + 1, _STATE + 2  # columns behind the state's own


@dataclass(frozen=True)
class Passed:
    """What the shafts did, shape (k,) over the spines where not said otherwise.

    speed_mps, exit_s : at the string's leaving
    shift_mps, angle_rad, turn_rad_s : of the rigid modes when the tail passes the plate
    first_s, last_s, peak_n : of the touch of the plate; nan and 0 where there was none
    touches : how often the plate was touched anew
    gap_m : the least gap between shaft and plate after the string let go; < 0 where it leaned in
    out_m : the nock's greatest way from the string's plane, outward
    bent_m : the greatest elastic bend before the string left
    time_s : of the kept frames, shape (f,)
    shape : q of each frame, shape (f, k, 8)
    nock_m : how far behind the braced nock it then was, − ahead, shape (f,)
    push_n : of the plate then, shape (f, k)
    end_s, end_q, end_rate : when the tail passes the plate, and the modes and their rates then,
        shape (k, 8)
    """

    speed_mps: float
    exit_s: float
    shift_mps: Array
    angle_rad: Array
    turn_rad_s: Array
    first_s: Array
    last_s: Array
    peak_n: Array
    touches: Array
    gap_m: Array
    out_m: Array
    bent_m: Array
    time_s: Array
    shape: Array
    nock_m: Array
    push_n: Array
    end_s: float
    end_q: Array
    end_rate: Array


def _stroke(s: Setting, mass_kg: float, step_s: float) -> tuple[Array, Array, Array]:
    """Places, speeds and accelerations at each step until the string leaves: from the full draw.

    Returns
    -------
    nock's way from brace [m], its speed [m/s], its acceleration [m/s²], shape (n,) each
    """
    even = np.linspace(0.0, s.stroke_m, len(s.way_m))
    pushes, each = np.interp(even, s.way_m, s.pushes_n()).tolist(), float(even[1])
    last, whole = len(pushes) - 2, mass_kg + s.moving_kg
    x, v = 0.0, 0.0
    ways, speeds, rates = [], [], []
    while x < s.stroke_m:
        ramp = s.go.held_share + (1 - s.go.held_share) * min(x / s.go.over_m, 1.0)
        at = (s.stroke_m - x) / each
        i = min(int(at), last)
        a = (pushes[i] + (at - i) * (pushes[i + 1] - pushes[i])) * ramp / whole
        ways.append(s.stroke_m - x)
        speeds.append(v)
        rates.append(a)
        v += step_s * a
        x += step_s * v
    return np.array(ways), np.array(speeds), np.array(rates)


@dataclass(frozen=True)
class _Steps:
    """Everything of the steps that no shaft changes; n steps, n_string of them on the string.

    places_m : the nock's way from brace, − ahead of it
    fingers_m : how far they push it, as long as they do
    beside : heights of the modes at the plate, (n, 8)
    v : (n, 32, 19)
    plate_kick, nock_kick : what a push of 1 N there adds to the state, (n, 16) and (16,)
    """

    h: float
    n_string: int
    places_m: Array
    fingers_m: Array
    beside: Array
    v: Array
    plate_kick: Array
    nock_kick: Array
    leaving_mps: float


def string_n_m(s: Setting, places_m: Array) -> Array:
    """The string's sideways stiffness at places of the nock, in series with the limb tips'."""
    u = np.clip(places_m / s.stroke_m, 0.0, 1.0)
    tau = STRING_DRAWN + (STRING_BRACED - STRING_DRAWN) * (1 - u) ** STRING_POWER
    own = 2 * s.drawn_n * tau / s.half_string_m * s.string_times
    return np.asarray(own * TIP_N_M / (own + TIP_N_M))


@lru_cache(maxsize=8)
def _steps(s: Setting, layout: Layout, h: float) -> _Steps:
    told = modes(layout)
    ways, speeds, rates = _stroke(s, layout.mass_kg, h)
    leaving, n_string = float(speeds[-1]), len(ways)
    gone = math.ceil(s.plate_at_m / (leaving * h))
    n = n_string + gone
    places = np.concatenate([ways, -leaving * h * np.arange(1, gone + 1)])
    v = np.concatenate([speeds, np.full(gone, leaving)])
    a = np.concatenate([rates, np.zeros(gone)])
    on = np.arange(n) < n_string
    nock = told.height[0]
    held = np.linalg.inv(np.eye(_MODES) + s.string_kg * np.outer(nock, nock))
    side = np.where(on, string_n_m(s, places), 0.0)
    bent = (a[:, None, None] * told.ahead - side[:, None, None] * np.outer(nock, nock)) @ held
    beside, slope = told.at(places + s.plate_at_m)
    turn = np.zeros((n, 2 * _STATE, _MODES))  # q̇'s change
    turn[:, :_MODES] = h * bent
    turn[:n_string, _STATE:] = np.tile(h * held, (2, 1))
    turn[n_string:, _STATE:] = np.tile(h * np.eye(_MODES), (2, 1))
    whole = np.zeros((n, 2 * _STATE, _STATE + 3))
    whole[:, :, _MODES:_STATE] = turn
    whole[:, :, :_MODES] = h * turn
    whole[:, _MODES:_STATE, :_MODES] += h * np.eye(_MODES)
    whole[:, :_MODES, _Y] = whole[:, _MODES:_STATE, _RATE] = beside
    whole[:, :_MODES, _RATE] = -v[:, None] * slope
    whole[:, :_MODES, _NOCK] = nock
    x = s.stroke_m - places[places > s.stroke_m - s.go.over_m]
    kick = h * np.where(on[:, None], beside @ held, beside)
    return _Steps(
        h=h,
        n_string=n_string,
        places_m=places,
        fingers_m=s.go.kick_m * np.sin(np.pi * x / (2 * s.go.over_m)) ** 2,
        beside=beside,
        v=whole,
        plate_kick=np.concatenate([h * kick, kick], 1),
        nock_kick=np.concatenate([h * h * nock @ held, h * nock @ held]),
        leaving_mps=leaving,
    )


def _push_by_depth(p: SidePlate) -> tuple[Array, Array]:
    """The plate's push [N] over how deep a shaft leans in [m]: straight from corner to corner."""
    at = np.array([0.0, p.over_m, p.travel_m, p.travel_m + _DEEP_M])
    push = p.k_n_m * at + p.preload_n * np.minimum(at / p.over_m, 1.0)
    return at, push + p.stop_n_m * np.maximum(at - p.travel_m, 0.0)


def pass_bow(
    s: Setting,
    layout: Layout,
    stiffness_n_m2: Array,
    radius_m: float,
    damping: float,
    step_s: float = STEP_S,
    frames: int = 0,
) -> Passed:
    """Shoot bare shafts of one layout of masses and several stiffnesses past a bow.

    Parameters
    ----------
    stiffness_n_m2 : EI of each, shape (k,)
    radius_m : of the shaft, which touches with its surface
    damping : of its bending, as a share of the critical
    step_s : 20 µs; 40 µs for previews
    frames : how many shapes to keep; 0 keeps none

    Source: docs/mechanics B3.
    """
    told = modes(layout)
    steps = _steps(s, layout, step_s)
    ei = np.asarray(stiffness_n_m2, dtype=float)
    omega = told.unit_omega[None, :] * np.sqrt(ei)[:, None]
    own = np.concatenate([-(omega**2), -2 * damping * omega], 1)
    off = s.offset_m + radius_m
    # Straight and just touching, the nock in the string's plane: rigid modes alone.
    lean = off / (s.stroke_m + s.plate_at_m)
    n, k = len(steps.v), len(ei)
    whole = np.zeros((n + 1, k, 2 * _STATE))
    whole[0, :, 0] = lean * layout.balance_m / told.height[0, 0]
    whole[0, :, 1] = lean / told.slope[0, 1]
    out, forces = np.empty((k, _STATE + 3)), np.zeros((n, k))
    change, beside, total, nock = out[:, :_STATE], out[:, _Y], out[:, _RATE], out[:, _NOCK]
    nows, states, owns = list(whole), list(whole[:, :, :_STATE]), list(whole[:, :, _STATE:])
    fingers, depths, damped = len(steps.fingers_m), _push_by_depth(s.plate), s.plate.c_s_m
    for i, linear in enumerate(steps.v):
        state, after = states[i], states[i + 1]
        np.multiply(own, state, out=owns[i])
        np.dot(nows[i], linear, out=out)
        np.add(state, change, out=after)
        if min(beside.tolist()) < off:
            push = np.interp(off - beside, *depths)
            if damped:
                push *= np.maximum(1 - damped * total, 0.0)
            forces[i] = push
            after += push[:, None] * steps.plate_kick[i]
        if i < fingers:
            push = s.go.k_n_m * np.maximum(0.0, steps.fingers_m[i] - nock)
            after += push[:, None] * steps.nock_kick
    return _told(told, steps, off, whole[1:, :, :_STATE], forces, frames)


def _told(
    told: Modes, steps: _Steps, off: float, whole: Array, forces: Array, frames: int
) -> Passed:
    """What the shafts did, read off their whole way: states (n, k, 16), forces (n, k)."""
    n, n_string, h = len(whole), steps.n_string, steps.h
    kept, rate = whole[:, :, :_MODES], whole[-1, :, _MODES:]
    touching = forces > 0
    touched = touching.any(axis=0)
    first = np.where(touched, h * touching.argmax(axis=0), np.nan)
    last = np.where(touched, h * (n - 1 - touching[::-1].argmax(axis=0)), np.nan)
    anew = touching[1:] & ~touching[:-1]
    after = np.einsum("nkj,nj->nk", kept[n_string:], steps.beside[n_string:])
    on = kept[:n_string]
    middle = told.height[len(told.height) // 2, 2:]
    shift, turn = told.height[0, 0], told.slope[0, 1]
    every = np.arange(0, n, max(n // frames, 1)) if frames else np.arange(0)
    return Passed(
        speed_mps=steps.leaving_mps,
        exit_s=n_string * h,
        shift_mps=rate[:, 0] * shift,
        angle_rad=kept[-1, :, 1] * turn,
        turn_rad_s=rate[:, 1] * turn,
        first_s=first,
        last_s=last,
        peak_n=forces.max(axis=0),
        touches=anew.sum(axis=0),
        gap_m=(after - off).min(axis=0, initial=np.inf),
        out_m=(on @ told.height[0]).max(axis=0, initial=0.0),
        bent_m=np.abs(on[:, :, 2:] @ middle).max(axis=0, initial=0.0),
        time_s=np.asarray(h * every, dtype=np.float64),
        shape=kept[every],
        nock_m=steps.places_m[every],
        push_n=forces[every],
        end_s=n * h,
        end_q=kept[-1],
        end_rate=rate,
    )
