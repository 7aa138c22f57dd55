"""Shafts passing a bow, bent and pushed: a batch of spines of one layout of masses (mechanics B3).

One clock serves all: along the stroke every shaft goes through the same places in the same order,
only slower the heavier it is. Semi-implicit Euler, 20 µs: q̇ first, then q with the new q̇.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flex.modes import Layout, Modes, modes
from lyrandis.core.flex.setting import (
    STRING_BRACED,
    STRING_DRAWN,
    STRING_POWER,
    TIP_N_M,
    Setting,
)

STEP_S = 20e-6


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


def _stroke(s: Setting, mass_kg: float, step_s: float) -> tuple[Array, Array, Array]:
    """Places, speeds and accelerations at each step until the string leaves: from the full draw.

    Returns
    -------
    nock's way from brace [m], its speed [m/s], its acceleration [m/s²], shape (n,) each
    """
    pushes, whole = s.pushes_n(), mass_kg + s.moving_kg
    x, v = 0.0, 0.0
    ways, speeds, rates = [], [], []
    while x < s.stroke_m:
        ramp = s.go.held_share + (1 - s.go.held_share) * min(x / s.go.over_m, 1.0)
        a = float(np.interp(s.stroke_m - x, s.way_m, pushes)) * ramp / whole
        ways.append(s.stroke_m - x)
        speeds.append(v)
        rates.append(a)
        v += step_s * a
        x += step_s * v
    return np.array(ways), np.array(speeds), np.array(rates)


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
    ways, speeds, rates = _stroke(s, layout.mass_kg, step_s)
    leaving = float(speeds[-1])
    gone = math.ceil((s.plate_at_m) / (leaving * step_s))
    n_string = len(ways)
    places = np.concatenate([ways, -leaving * step_s * np.arange(1, gone + 1)])
    run = _Run(s, told, np.asarray(stiffness_n_m2, dtype=float), radius_m, damping, step_s)
    beside, slope = told.at(places + s.plate_at_m)
    every = max(len(places) // frames, 1) if frames else 0
    kept_at, kept = [], []
    for i, place in enumerate(places):
        on = i < n_string
        run.step(
            place,
            speeds[i] if on else leaving,
            rates[i] if on else 0.0,
            beside[i],
            slope[i],
            on,
            i * step_s,
        )
        if every and i % every == 0:
            kept_at.append(i)
            kept.append(run.q.copy())
    shift, turn = told.height[0, 0], told.slope[0, 1]
    return Passed(
        speed_mps=leaving,
        exit_s=n_string * step_s,
        shift_mps=run.rate[:, 0] * shift,
        angle_rad=run.q[:, 1] * turn,
        turn_rad_s=run.rate[:, 1] * turn,
        first_s=run.first,
        last_s=run.last,
        peak_n=run.peak,
        touches=run.touches,
        gap_m=run.gap,
        out_m=run.out,
        bent_m=run.bent,
        time_s=np.array(kept_at) * step_s,
        shape=np.array(kept) if kept else np.empty((0, len(run.q), 8)),
        nock_m=places[kept_at] if kept else np.empty(0),
    )


class _Run:
    """The shafts' coordinates through time."""

    def __init__(
        self, s: Setting, told: Modes, ei: Array, radius_m: float, damping: float, step_s: float
    ) -> None:
        self.s, self.told, self.h = s, told, step_s
        self.omega = told.unit_omega[None, :] * np.sqrt(ei)[:, None]
        self.damping = 2 * damping * self.omega
        self.nock = told.height[0]
        self.off = s.offset_m + radius_m
        heavy = np.eye(8) + s.string_kg * np.outer(self.nock, self.nock)
        self.with_string = np.linalg.inv(heavy)
        # Straight and just touching, the nock in the string's plane: rigid modes alone.
        lean = self.off / (s.stroke_m + s.plate_at_m)
        self.q = np.zeros((len(ei), 8))
        self.q[:, 0] = lean * told.layout.balance_m / told.height[0, 0]
        self.q[:, 1] = lean / told.slope[0, 1]
        self.rate = np.zeros_like(self.q)
        k = len(ei)
        self.first, self.last = np.full(k, np.nan), np.full(k, np.nan)
        self.peak, self.touches = np.zeros(k), np.zeros(k, dtype=int)
        self.out, self.bent, self.touching = np.zeros(k), np.zeros(k), np.ones(k, dtype=bool)
        self.gap = np.full(k, np.inf)
        self.middle = told.height[len(told.height) // 2, 2:]

    def step(
        self, place: float, v: float, a: float, beside: Array, slope: Array, on: bool, now: float
    ) -> None:
        """One step: forces as they are, then q̇, then q."""
        q, rate = self.q, self.rate
        force = -(self.omega**2) * q - self.damping * rate
        touch = self._plate(q @ beside, rate @ beside - v * (q @ slope), now)
        force += touch[:, None] * beside
        if on:
            if a:
                force += a * (q @ self.told.ahead)
            y = q @ self.nock
            force += (-self._string(place) * y + self._fingers(place, y))[:, None] * self.nock
            force = force @ self.with_string
        self.rate = rate + self.h * force
        self.q = q + self.h * self.rate
        if not on:
            self.gap = np.minimum(self.gap, self.q @ beside - self.off)
        if on:
            self.out = np.maximum(self.out, self.q @ self.nock)
            self.bent = np.maximum(self.bent, np.abs(self.q[:, 2:] @ self.middle))

    def _string(self, place: float) -> float:
        """The string's sideways stiffness, in series with the limb tips'."""
        s = self.s
        u = min(max(place / s.stroke_m, 0.0), 1.0)
        tau = STRING_DRAWN + (STRING_BRACED - STRING_DRAWN) * (1 - u) ** STRING_POWER
        own = 2 * s.drawn_n * tau / s.half_string_m
        return float(own * TIP_N_M / (own + TIP_N_M))

    def _fingers(self, place: float, y: Array) -> Array:
        x = self.s.stroke_m - place
        go = self.s.go
        if x >= go.over_m:
            return np.zeros_like(y)
        pushed = go.kick_m * math.sin(math.pi * x / (2 * go.over_m)) ** 2
        return np.asarray(go.k_n_m * np.maximum(0.0, pushed - y))

    def _plate(self, y: Array, rate: Array, now: float) -> Array:
        """The plate's push on the shaft where it leans in, never a pull."""
        p = self.s.plate
        into = self.off - y
        push = (
            p.preload_n * np.clip(into / p.over_m, 0.0, 1.0)
            + p.k_n_m * into
            + p.stop_n_m * np.maximum(0.0, into - p.travel_m)
        )
        force = np.where(into > 0, np.maximum(push * (1 - p.c_s_m * rate), 0.0), 0.0)
        touching = force > 0
        self.first = np.where(touching & np.isnan(self.first), now, self.first)
        self.last = np.where(touching, now, self.last)
        self.peak = np.maximum(self.peak, force)
        self.touches += touching & ~self.touching
        self.touching = touching
        return np.asarray(force)
