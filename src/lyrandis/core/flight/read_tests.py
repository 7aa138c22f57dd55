"""The tests by which a shaft is read, and how likely each shows what, by the truth (mechanics D).

A truth is: spine error s in groups (+ stiff), whether the shaft bounces off the side plate, the
nock point's error n [mm, + high], how clean the release is (r), how the hand turns the bow (t), and
whether something else touches: a vane on the riser, a low nock on the rest, the string on a sleeve.
Reads are coded by look: looks weak, straight, looks stiff; hand and release only change words.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from itertools import pairwise

import numpy as np
from scipy.special import ndtr

from lyrandis.core.arrays import Array
from lyrandis.core.parts import TestId

SIDES = ("weak", "straight", "stiff")
SIDES_5 = ("weak2", "weak", "straight", "stiff", "stiff2")
HEIGHTS = ("low", "level", "high")
SHIFTS = ("weaker", "same", "stiffer")
_SWINGS = ("holds", "swings")

# The grid of truths.
GROUPS = np.arange(-3.0, 3.01, 0.5)
NOCKS_MM = np.arange(-4.0, 4.01, 1.0)
RELEASES = np.array([1.0, 1.4, 2.0])
TORQUES = np.array([-1.0, 0.0, 1.0])
STIFF_FROM = 0.75
BOUNCE_AT, BOUNCE_WIDTH = 1.7, 0.35
TOUCHES, TOUCHES_LOW, TOUCH_LOW_MM = 0.15, 0.6, -2.0


@dataclass(frozen=True)
class Truths:
    """Every truth of the grid, shape (2916,) each."""

    s: Array
    bounces: Array
    n_mm: Array
    r: Array
    t: Array
    touches: Array


@lru_cache(maxsize=1)
def truths() -> Truths:
    """The grid: a bounce only where the shaft is stiff."""
    rows = [
        (s, b, n, r, t, touches)
        for s in GROUPS
        for b in ((0.0, 1.0) if s >= STIFF_FROM else (0.0,))
        for n in NOCKS_MM
        for r in RELEASES
        for t in TORQUES
        for touches in (0.0, 1.0)
    ]
    return Truths(*np.array(rows).T)


@dataclass(frozen=True)
class Constants:
    """What the tests show of a truth. Every number may be jittered to try the filter on others.

    A look is z: own · s, or −(bounce0 + bounce1 · s) where it bounces, + torque · t; it has a
    spread √(sd0² + (sd_r · r)² / arrows) about z and is told by cuts. `misread`: so often any
    outcome comes up alike.
    """

    kick_3: tuple[float, float, float, float, float, float] = (0.6, 0.9, 0.35, 0.4, 0.55, 0.7)
    kick_7: tuple[float, float, float, float, float, float] = (0.9, 0.5, 0.3, 0.4, 0.40, 0.6)
    bare: tuple[float, float, float, float, float, float] = (1.0, 0.4, 0.2, 0.5, 0.5, 0.9)
    group: tuple[float, float, float, float, float, float] = (0.5, 0.2, 0.0, 0.9, 0.6, 0.7)
    look_cut: float = 0.5
    bare_cuts: tuple[float, float] = (0.5, 1.5)
    bare_height: tuple[float, float, float, float] = (0.9, 1.3, 0.5, 0.5)
    brace_swings: tuple[float, float, float, float, float, float] = (
        0.75, 0.15, 0.12, 0.55, 0.3, 0.06,
    )  # fmt: skip
    felt_swings: tuple[float, float, float] = (0.72, 0.10, 0.04)
    silencers: tuple[float, float, float] = (0.45, -0.30, 0.45)
    short_draw: tuple[float, float, float] = (0.80, -0.35, 0.55)
    long_draw: tuple[float, float, float] = (-0.80, 0.35, 0.55)
    shift_cut: float = 0.35
    wear: tuple[float, float, float] = (0.85, 0.12, 0.80)
    clatter: tuple[float, float, float] = (0.80, 0.10, 0.75)
    slow_motion: tuple[float, float, float] = (0.93, 0.05, 0.60)
    nock: tuple[float, float] = (1.1, 1.2)
    false_high: tuple[float, float] = (-2.0, 0.35)
    misread: Mapping[str, float] = field(
        default_factory=lambda: {
            "kick_3_paces": 0.10, "kick_7_paces": 0.05, "bare_side": 0.05, "bare_height": 0.05,
            "shift": 0.06, "group_25m": 0.05, "nock_height": 0.07,
        }
    )  # fmt: skip


Given = Callable[[Truths, Constants], Array]


@dataclass(frozen=True)
class ReadTest:
    """A test: its outcomes, what it costs, and how likely each outcome is by truth.

    given : the likelihoods, shape (truths, outcomes)
    once : whether it tells nothing new until something was changed
    """

    id: TestId
    outcomes: tuple[str, ...]
    arrows: int
    minutes: float
    given: Given
    once: bool = False

    @property
    def cost(self) -> float:
        """An arrow costs one, a minute a half; nothing is quite free."""
        return max(self.arrows + 0.5 * self.minutes, LEAST_COST)


LEAST_COST = 0.5
_KICK_ARROWS, _GROUP_ARROWS = 3, 6


def _cut(z: Array, sd: Array, cuts: tuple[float, ...]) -> Array:
    """How likely z with a spread falls between each two cuts, shape (truths, cuts + 1)."""
    below = [ndtr((c - z) / sd) for c in cuts]
    edges = [np.zeros_like(z), *below, np.ones_like(z)]
    return np.stack([b - a for a, b in pairwise(edges)], 1)


def _misread(p: Array, share: float) -> Array:
    return np.asarray((1 - share) * p + share / p.shape[1])


def _look(w: Truths, c: tuple[float, ...], arrows: int) -> tuple[Array, Array]:
    own, bounce0, bounce1, torque, sd0, sd_r = c
    z = np.where(w.bounces > 0, -(bounce0 + bounce1 * w.s), own * w.s) + torque * w.t
    return z, np.sqrt(sd0**2 + (sd_r * w.r) ** 2 / arrows)


def _kick(name: TestId, constants: str) -> Given:
    def given(w: Truths, c: Constants) -> Array:
        z, sd = _look(w, getattr(c, constants), _KICK_ARROWS)
        return _misread(_cut(z, sd, (-c.look_cut, c.look_cut)), c.misread[name])

    return given


def _group(w: Truths, c: Constants) -> Array:
    z, sd = _look(w, c.group, _GROUP_ARROWS)
    return _misread(_cut(z, sd, (-c.look_cut, c.look_cut)), c.misread["group_25m"])


def _bare(w: Truths, c: Constants) -> Array:
    """Sideways in five steps and the height, told apart: a high nock sends a bare shaft low."""
    z, sd = _look(w, c.bare, _KICK_ARROWS)
    near, far = c.bare_cuts
    side = _misread(_cut(z, sd, (-far, -near, near, far)), c.misread["bare_side"])
    per_mm, cut, sd0, sd_r = c.bare_height
    height = _cut(-per_mm * w.n_mm, np.sqrt(sd0 + sd_r * w.r**2), (-cut, cut))
    height = _misread(height, c.misread["bare_height"])
    return np.asarray((side[:, :, None] * height[:, None, :]).reshape(len(z), -1))


def _two(chance: Array) -> Array:
    return np.stack([1 - chance, chance], 1)


def _brace(w: Truths, c: Constants) -> Array:
    bouncing, base, near, at, width, per_r = c.brace_swings
    else_ = base + near * (np.abs(np.abs(w.s) - at) < width) + per_r * (w.r - 1)
    return _two(np.where(w.bounces > 0, bouncing, else_))


def _felt(w: Truths, c: Constants) -> Array:
    bouncing, base, per_r = c.felt_swings
    return _two(np.where(w.bounces > 0, bouncing, base + per_r * (w.r - 1)))


def _shift(constants: str) -> Given:
    def given(w: Truths, c: Constants) -> Array:
        clean, bouncing, sd = getattr(c, constants)
        z = np.where(w.bounces > 0, bouncing, clean)
        spread = sd * np.sqrt(0.6 + 0.4 * w.r**2)
        return _misread(_cut(z, spread, (-c.shift_cut, c.shift_cut)), c.misread["shift"])

    return given


def _sign(constants: str) -> Given:
    def given(w: Truths, c: Constants) -> Array:
        bouncing, clean, touching = getattr(c, constants)
        else_ = np.where(w.touches > 0, touching, clean)
        return _two(np.where(w.bounces > 0, bouncing, else_))

    return given


def _nock(w: Truths, c: Constants) -> Array:
    sd, cut = c.nock
    p = _cut(w.n_mm, sd * np.sqrt(0.6 + 0.4 * w.r**2), (-cut, cut))
    from_mm, share = c.false_high
    high = np.array([0.0, 0.0, 1.0])
    p = np.where((w.n_mm < from_mm)[:, None], (1 - share) * p + share * high, p)
    return _misread(p, c.misread["nock_height"])


_ALL = (
    ReadTest("kick_3_paces", SIDES, 3, 1, _kick("kick_3_paces", "kick_3")),
    ReadTest("kick_7_paces", SIDES, 3, 1, _kick("kick_7_paces", "kick_7")),
    ReadTest(
        "bare_shaft_15m", tuple(f"{side}/{height}" for side in SIDES_5 for height in HEIGHTS), 6, 4,
        _bare,
    ),
    ReadTest("brace_reread", _SWINGS, 6, 6, _brace),
    ReadTest("felt_plate", _SWINGS, 3, 5, _felt),
    ReadTest("silencers", SHIFTS, 3, 4, _shift("silencers")),
    ReadTest("short_draw", SHIFTS, 3, 1, _shift("short_draw")),
    ReadTest("long_draw", SHIFTS, 3, 1, _shift("long_draw")),
    ReadTest("wear_marks", ("no", "yes"), 0, 2, _sign("wear"), once=True),
    ReadTest("clatter", ("none", "heard"), 0, 0, _sign("clatter"), once=True),
    ReadTest("slow_motion", ("clear", "bounce"), 3, 3, _sign("slow_motion"), once=True),
    ReadTest("group_25m", SIDES, 6, 2, _group),
    ReadTest("nock_height", HEIGHTS, 3, 1, _nock),
)  # fmt: skip
TESTS: dict[TestId, ReadTest] = {test.id: test for test in _ALL}
CONSTANTS = Constants()


@lru_cache(maxsize=1)
def tables() -> dict[TestId, Array]:
    """Each test's likelihoods over the grid, shape (2916, outcomes)."""
    return {id: test.given(truths(), CONSTANTS) for id, test in TESTS.items()}


def bounce_chance(s: Array | float) -> Array:
    """How likely a shaft of spine error s [groups] bounces off the plate: only stiff ones."""
    s = np.asarray(s, dtype=float)
    chance = 1 / (1 + np.exp(-(s - BOUNCE_AT) / BOUNCE_WIDTH))
    return np.where(s >= STIFF_FROM, chance, 0.0)


def touch_chance(n_mm: Array | float) -> Array:
    """How likely something else touches at a nock point's error [mm]: more where it is low."""
    low = np.asarray(n_mm, dtype=float) < TOUCH_LOW_MM
    return np.where(low, TOUCHES_LOW, TOUCHES)


def log_two(p: Array) -> Array:
    """p · log2 p, nought at nought."""
    return np.asarray(np.where(p > 0, p * np.log2(np.maximum(p, math.ulp(0.0))), 0.0))
