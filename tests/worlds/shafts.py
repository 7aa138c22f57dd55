"""A shaft that passes a bow, as a chain of lumps: the spine that truly leaves clean in one world.

Beside a bow known from its handbook it has what a handbook leaves out: limb tips with mass, a grip
that gives in the hand, a nock that the serving turns with, a release that is never twice the same,
an eye of one's own for what is clean.

    tip --string-- nock o-o-o-o-o-o-o-o point
     |                      | side plate
    grip ------------------- (held by a hand)
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

GRAIN_KG, INCH_M, POUND_N = 6.479891e-5, 0.0254, 4.448222
LUMPS = 14
STEP_S = 2e-5
SPINES = 22


@dataclass(frozen=True)
class Rig:
    """What a handbook says of a bow and its bare shaft. SI; the plate outward from the string.

    filled : the energy stored, of weight times stroke
    """

    weight_n: float
    filled: float
    stroke_m: float
    brace_m: float
    bow_m: float
    string_kg: float
    plunger: bool
    plate_out_m: float
    shaft_m: float
    density_kg_m: float
    front_kg: float
    nock_kg: float
    radius_m: float


@dataclass(frozen=True)
class World:
    """What no handbook says. Drawn for each archer."""

    filled_times: float  # of the energy that the handbook says
    friction: float
    limb_kg: float
    skew: float
    tip_kg: float
    tip_n_m: float
    string_times: float
    string_power: float
    spring_times: float
    kick_m: float
    opening_m: float
    first_share: float
    nock_turn_nm: float
    grip_kg: float
    hand_n_m: float
    hand_ns_m: float
    damping: float
    clean_at_deg: float
    direction_weighs: float
    offset_m: float


def drawn(rng: np.random.Generator, plunger: bool) -> World:
    """One world."""

    def about(value: float, share: float) -> float:
        return float(value * np.exp(share * np.clip(rng.normal(), -2.2, 2.2)))

    return World(
        filled_times=about(1.0, 0.03),
        friction=rng.uniform(0.90, 0.96),
        limb_kg=about(5.5e-3, 0.15),
        skew=rng.normal(0.7, 0.12),
        tip_kg=about(14e-3, 0.3),
        tip_n_m=about(1e4, 0.25),
        string_times=about(3.4, 0.15),
        string_power=rng.uniform(0.9, 1.4),
        spring_times=about(1.0, 0.3),
        kick_m=about(7e-3, 0.22),
        opening_m=about(15e-3, 0.2),
        first_share=rng.uniform(0.3, 0.6),
        nock_turn_nm=rng.uniform(0.0, 0.6),
        grip_kg=about(1.1, 0.3),
        hand_n_m=about(900.0, 0.5),
        hand_ns_m=about(15.0, 0.5),
        damping=about(0.011, 0.3),
        clean_at_deg=(0.70 if plunger else 1.20) + rng.normal(0, 0.12),
        direction_weighs=about(11.0, 0.15),
        offset_m=rng.normal(0, 0.4e-3),
    )


def _stroke(rig: Rig, w: World, mass: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """The nock's way still to go, its speed and its acceleration, step by step."""
    u = np.linspace(0, 1, 400)  # from brace to full draw
    area = rig.filled * w.filled_times
    force = rig.weight_n * (1 - (1 - u) ** (area / (1 - area)))
    middle = np.trapezoid(force * u, u) / np.trapezoid(force, u)
    force = w.friction * force * (1 + w.skew * (middle - u))
    moving = mass + rig.string_kg / 3 + w.limb_kg * rig.weight_n / (45 * POUND_N)
    x, v, ways, speeds, rates = 0.0, 0.0, [], [], []
    while x < rig.stroke_m:
        opened = w.first_share + (1 - w.first_share) * min(x / w.opening_m, 1)
        a = float(np.interp(1 - x / rig.stroke_m, u, force)) * opened / moving
        ways.append(rig.stroke_m - x)
        speeds.append(v)
        rates.append(a)
        v += STEP_S * a
        x += STEP_S * v
    return np.array(ways), np.array(speeds), np.array(rates)


def _plate(rig: Rig, w: World, deep: np.ndarray, rate: np.ndarray) -> np.ndarray:
    if rig.plunger:
        push = 4.0 * np.minimum(deep / 0.3e-3, 1) + 1000 * deep + 5e4 * np.maximum(deep - 4e-3, 0)
        return w.spring_times * push
    return w.spring_times * 1.5e4 * deep * np.maximum(1 + 0.6 * rate, 0)


def leaves(rig: Rig, w: World, spines: np.ndarray) -> np.ndarray:
    """How stiff, − weak, shafts of these spines leave [degrees], as this world's eye has it."""
    n, k, d = LUMPS, len(spines), rig.shaft_m / LUMPS
    at = np.linspace(0, rig.shaft_m, n + 1)
    mass = np.full(n + 1, rig.density_kg_m * d)
    mass[[0, -1]] /= 2
    mass[0] += rig.nock_kg
    mass[-1] += rig.front_kg
    whole = mass.sum()
    balance = float(mass @ at) / whole
    inertia = float(mass @ (at - balance) ** 2)
    ahead = np.cumsum(mass[::-1])[::-1][1:]  # in front of each link
    # 500 on the usual standard is 5.09 N·m².
    ei = (5.09 * 500 / spines)[:, None]
    ways, speeds, rates = _stroke(rig, w, whole)
    leaving = speeds[-1]
    flying = int(np.ceil(rig.brace_m / leaving / STEP_S))
    ways = np.concatenate([ways, -leaving * STEP_S * np.arange(1, flying + 1)])
    half = 0.8 * rig.bow_m / (68 * INCH_M)
    off = rig.plate_out_m + w.offset_m + rig.radius_m
    y = np.tile(off * at / (rig.stroke_m + rig.brace_m), (k, 1))
    v = np.zeros_like(y)
    tip, tip_v, grip, grip_v = (np.zeros(k) for _ in range(4))
    on_string = len(speeds)
    nock = mass[0] + rig.string_kg / 3
    slow = 2 * w.damping * np.sqrt(ei * (4.73 / rig.shaft_m) ** 4 / rig.density_kg_m)
    for i, way in enumerate(ways):
        on = i < on_string
        bend = ei / d**3 * (y[:, :-2] - 2 * y[:, 1:-1] + y[:, 2:])
        force = np.zeros_like(y)
        force[:, :-2] -= bend
        force[:, 1:-1] += 2 * bend
        force[:, 2:] -= bend
        # Bending alone is damped: what the whole shaft does is taken out first.
        drift = (v @ mass / whole)[:, None]
        turn = (v @ (mass * (at - balance)) / inertia)[:, None]
        force -= slow * mass * (v - drift - turn * (at - balance))
        if on:
            lean = (y[:, 1:] - y[:, :-1]) / d * (rates[i] * ahead)
            force[:, :-1] -= lean
            force[:, 1:] += lean
            u = way / rig.stroke_m
            held = (
                2
                * rig.weight_n
                / half
                * (0.95 + (w.string_times - 0.95) * (1 - u) ** w.string_power)
            )
            pull = held * (y[:, 0] - tip)
            force[:, 0] -= pull
            tip_v += STEP_S * (pull - w.tip_n_m * (tip - grip)) / w.tip_kg
            twist = w.nock_turn_nm * (y[:, 1] - y[:, 0]) / d / d
            force[:, 0] += twist
            force[:, 1] -= twist
            gone = rig.stroke_m - way
            if gone < w.opening_m:
                kick = w.kick_m * np.sin(np.pi * gone / (2 * w.opening_m)) ** 2
                force[:, 0] += 4000 * np.maximum(kick - y[:, 0], 0)
        # The plate stands way + brace in front of the nock.
        place = np.clip((way + rig.brace_m) / d, 0, n - 1e-9)
        j = int(place)
        s = place - j
        beside = (1 - s) * y[:, j] + s * y[:, j + 1]
        deep = np.maximum(grip + off - beside, 0)
        slide = (y[:, j + 1] - y[:, j]) / d * (speeds[i] if on else leaving)
        rate = grip_v - ((1 - s) * v[:, j] + s * v[:, j + 1]) + slide
        push = np.where(deep > 0, _plate(rig, w, deep, rate), 0.0)
        force[:, j] += (1 - s) * push
        force[:, j + 1] += s * push
        hand = w.hand_n_m * grip + w.hand_ns_m * grip_v
        grip_v += STEP_S * (-push - hand + w.tip_n_m * (tip - grip) * on) / w.grip_kg
        a = force / mass
        if on:
            a[:, 0] = force[:, 0] / nock
        v += STEP_S * a
        y += STEP_S * v
        tip += STEP_S * tip_v
        grip += STEP_S * grip_v
    shift, turn = v @ mass / whole, v @ (mass * (at - balance)) / inertia
    lean = (y @ (mass * (at - balance))) / inertia
    way_deg = np.degrees((shift + inertia * turn / (whole * (balance - 0.05))) / leaving)
    attack = np.degrees(lean - shift / leaving) + np.degrees(turn * 5 / leaving)
    return attack + w.direction_weighs * (way_deg - w.clean_at_deg)


def clean_spine(rig: Rig, w: World, guess: float) -> float | None:
    """The spine [0.001 in] at which shafts turn from stiff to weak in this world; None: none does.

    A bounce makes stiff shafts look weak: it is sought from the stiffest look on.
    """
    spines = guess * np.exp(np.linspace(np.log(0.5), np.log(1.7), SPINES))
    told = np.convolve(leaves(rig, w, spines), np.ones(3) / 3, mode="valid")
    spines = spines[1:-1]
    top = int(np.argmax(np.where(spines < 1.25 * guess, told, -np.inf)))
    for i in range(top, len(told) - 1):
        if told[i] > 0 >= told[i + 1]:
            share = told[i] / (told[i] - told[i + 1])
            return float(spines[i] * (spines[i + 1] / spines[i]) ** share)
    return None
