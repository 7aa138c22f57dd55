"""`make bench`: a shaft past the bow against a plain integration of the same equations by scipy."""

from __future__ import annotations

import math
import statistics
import time
from collections.abc import Callable

import numpy as np
from rich.console import Console
from rich.table import Table
from scipy.integrate import solve_ivp

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.flex.modes import Layout, modes
from lyrandis.core.flex.passing import pass_bow
from lyrandis.core.flex.setting import STRING_BRACED, STRING_DRAWN, STRING_POWER, TIP_N_M, Setting
from lyrandis.core.parts import Rig

RUNS = 5
SPINES = np.geomspace(400.0, 900.0, 24)
RADIUS_M, DAMPING = 0.003, 0.010
WITHIN_DEG = 0.3  # of yaw at the plate, between the two


def plain(s: Setting, layout: Layout, ei: float) -> float:
    """The yaw [rad] of one shaft when its tail passes the plate, by scipy."""
    told = modes(layout)
    nock, omega = told.height[0], told.unit_omega * math.sqrt(ei)
    pushes, whole = s.pushes_n(), layout.mass_kg + s.moving_kg
    heavy = np.linalg.inv(np.eye(8) + s.string_kg * np.outer(nock, nock))
    off = s.offset_m + RADIUS_M

    def sideways(q: Array, rate: Array, place: float, v: float, a: float, on: bool) -> Array:
        height, slope = (m[0] for m in told.at(np.array([place + s.plate_at_m])))
        p, into = s.plate, off - q @ height
        force = -(omega**2) * q - 2 * DAMPING * omega * rate
        if into > 0:
            push = p.preload_n * min(into / p.over_m, 1.0) + p.k_n_m * into
            push += p.stop_n_m * max(0.0, into - p.travel_m)
            total = -(rate @ height - v * (q @ slope))
            force += max(push * (1 + p.c_s_m * total), 0.0) * height
        if not on:
            return np.asarray(force)
        u = min(max(place / s.stroke_m, 0.0), 1.0)
        tau = STRING_DRAWN + (STRING_BRACED - STRING_DRAWN) * (1 - u) ** STRING_POWER
        own = 2 * s.drawn_n * tau / s.half_string_m
        held, x = own * TIP_N_M / (own + TIP_N_M), s.stroke_m - place
        fingers = 0.0
        if x < s.go.over_m:
            pushed = s.go.kick_m * math.sin(math.pi * x / (2 * s.go.over_m)) ** 2
            fingers = s.go.k_n_m * max(0.0, pushed - q @ nock)
        force += a * (told.ahead @ q) + (fingers - held * (q @ nock)) * nock
        return np.asarray(heavy @ force)

    def stroke(_: float, state: Array) -> Array:
        x, v, q, rate = state[0], state[1], state[2:10], state[10:]
        ramp = s.go.held_share + (1 - s.go.held_share) * min(x / s.go.over_m, 1.0)
        a = float(np.interp(s.stroke_m - x, s.way_m, pushes)) * ramp / whole
        return np.concatenate([[v, a], rate, sideways(q, rate, s.stroke_m - x, v, a, True)])

    def free(t: float, state: Array) -> Array:
        q, rate = state[:8], state[8:]
        return np.concatenate([rate, sideways(q, rate, -leaves * t, leaves, 0.0, False)])

    def let_go(_: float, state: Array) -> float:
        return float(state[0] - s.stroke_m)

    let_go.terminal = True  # type: ignore[attr-defined]
    start = np.zeros(18)
    lean = off / (s.stroke_m + s.plate_at_m)
    start[2] = lean * layout.balance_m / told.height[0, 0]
    start[3] = lean / told.slope[0, 1]
    on = solve_ivp(stroke, (0, 0.1), start, events=let_go, max_step=4e-5, rtol=1e-6, atol=1e-9)
    leaves = float(on.y[1, -1])
    end = s.plate_at_m / leaves
    off_string = solve_ivp(free, (0, end), on.y[2:, -1], max_step=4e-5, rtol=1e-6, atol=1e-9)
    return float(off_string.y[1, -1] * told.slope[0, 1])


def median_ms(work: Callable[[int], object], runs: int = RUNS) -> float:
    """Median time [ms] over some runs, after one that warms up."""
    work(0)
    times = []
    for run in range(runs):
        start = time.perf_counter()
        work(run)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


bench = Bench(changed(Rig(), {"bow.marked_weight_lbf": 42.0}))
setting, layout = bench.flex.setting, bench.flex.layout
stiff = np.array([stiffness_n_m2(float(spine)) for spine in SPINES])
ours = pass_bow(setting, layout, stiff[:1], RADIUS_M, DAMPING).angle_rad[0]
apart = math.degrees(abs(ours - plain(setting, layout, float(stiff[0]))))
assert apart < WITHIN_DEG, f"the two integrations are {apart:.2f}° apart"
shot = median_ms(lambda _: pass_bow(setting, layout, stiff[:1], RADIUS_M, DAMPING))
sweep = median_ms(lambda _: pass_bow(setting, layout, stiff, RADIUS_M, DAMPING))
one = median_ms(lambda run: plain(setting, layout, float(stiff[run])), 3)
table = Table(title=f"A shaft past the bow, median \\[ms]; {apart:.2f}° apart")
for head in ("", "core", "plain scipy", "times"):
    table.add_column(head, justify="left" if not head else "right")
table.add_row("one shaft, warm", f"{shot:.1f}", f"{one:.0f}", f"{one / shot:.0f}")
table.add_row("24 shafts, warm", f"{sweep:.1f}", f"{24 * one:.0f}", f"{24 * one / sweep:.0f}")
Console().print(table)
