"""Archers who read a shaft, each with a bow of another make: what a test shows of what is true.

What is usual of such tests, every number off by its own share; and what nobody's model has: an eye
that leans to one side, a release that tires, a thing that touches the bow and sometimes throws the
shaft too, looks that were all misread on a bad day.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np

EDGE, NEAR = 0.75, 1.25  # groups off, from which a shaft is stiff or weak, or no neighbour any more
SIDES = ("weak", "straight", "stiff")
FIVE = ("weak2", "weak", "straight", "stiff", "stiff2")
SHIFTS = ("weaker", "same", "stiffer")
# own, bounce from, bounce by s, torque, least spread, spread by release; arrows
LOOKS = {
    "kick_3_paces": (0.6, 0.9, 0.35, 0.4, 0.55, 0.7, 3),
    "kick_7_paces": (0.9, 0.5, 0.3, 0.4, 0.40, 0.6, 3),
    "bare_shaft_15m": (1.0, 0.4, 0.2, 0.5, 0.50, 0.9, 3),
    "group_25m": (0.5, 0.2, 0.0, 0.9, 0.60, 0.7, 6),
}
MOVES = {"silencers": (0.45, -0.30, 0.45), "short_draw": (0.80, -0.35, 0.55),
         "long_draw": (-0.80, 0.35, 0.55)}  # fmt: skip
SIGNS = {"wear_marks": (0.85, 0.12, 0.80), "clatter": (0.80, 0.10, 0.75),
         "slow_motion": (0.93, 0.05, 0.60)}  # fmt: skip
MISREAD = {"kick_3_paces": 0.10, "kick_7_paces": 0.05, "bare_shaft_15m": 0.05, "group_25m": 0.05}


@dataclass
class Archer:
    """One archer and bow. s: groups too stiff; n: mm too high; touching: something else does.

    off : every number is off by up to this share; leans: sd of the eye's bias in torque's units
    """

    rng: np.random.Generator
    touching_share: float = 0.2
    off: float = 0.25
    leans: float = 0.25
    s: float = 0.0
    bounces: bool = False
    touching: bool = False
    shots: int = 0
    numbers: dict = field(default_factory=dict)

    def __post_init__(self) -> None:
        r = self.rng
        self.s = float(np.clip(r.normal(0.4, 1.5), -3.2, 3.2))
        chance = 1 / (1 + math.exp(-(self.s - 1.7) / 0.35)) if self.s >= EDGE else 0.0
        self.bounces = bool(r.random() < chance)
        self.n = float(np.clip(r.normal(0, 1.8), -4.5, 4.5))
        low = 3.0 if self.n < -2 else 0.7
        self.touching = bool(r.random() < min(self.touching_share * low, 0.9))
        self.throws = float(r.choice([0.0, 0.0, -0.5, 0.5])) if self.touching else 0.0
        self.release = float(r.choice([1.0, 1.4, 2.0], p=[0.5, 0.35, 0.15]))
        self.torque = float(r.choice([-1, 0, 1], p=[0.2, 0.6, 0.2]))
        self.lean, self.misreads = r.normal(0, self.leans), r.uniform(0.5, 2.5)

    @property
    def truth(self) -> str:
        """What it truly is."""
        if self.bounces:
            return "false_weak"
        return "stiff" if self.s >= EDGE else "weak" if self.s <= -EDGE else "right"

    @property
    def within(self) -> bool:
        """Whether it is right within a group."""
        return abs(self.s) < NEAR and not self.bounces

    def near(self, told: str) -> bool:
        """Whether a verdict is right within a quarter of a group."""
        sides = {"right", "stiff", "false_weak"} if self.s > 0 else {"right", "weak"}
        return told == self.truth or (
            abs(abs(self.s) - EDGE) < 0.25 and {told, self.truth} <= sides
        )

    def _number(self, name: str, value: float) -> float:
        if name not in self.numbers:
            self.numbers[name] = value * self.rng.uniform(1 - self.off, 1 + self.off)
        return self.numbers[name]

    def _tired(self) -> float:
        return self.release * (1 + 0.004 * self.shots)

    def _among(self, kind: str, shown: int, of: int) -> int:
        wrong = self.rng.random() < min(MISREAD.get(kind, 0.06) * self.misreads, 0.5)
        return int(self.rng.integers(of)) if wrong else shown

    def shows(self, kind: str) -> str:
        """What a test shows, by the names that the tests go by."""
        r = self.rng
        if kind in LOOKS:
            *numbers, arrows = LOOKS[kind]
            own, from_, by, torque, least, spread = (
                self._number(f"{kind}{i}", v) for i, v in enumerate(numbers)
            )
            z = -(from_ + by * self.s) if self.bounces else own * self.s
            z += torque * self.torque + self.lean + self.throws
            z += r.normal(0, math.sqrt(least**2 + (spread * self._tired()) ** 2 / arrows))
            self.shots += arrows
            if kind != "bare_shaft_15m":
                cut = self._number("cut", 0.5)
                return SIDES[self._among(kind, int(z > -cut) + int(z > cut), 3)]
            side = self._among(kind, sum(z > c for c in (-1.5, -0.5, 0.5, 1.5)), 5)
            up = -0.9 * self.n + r.normal(0, math.sqrt(0.5 + 0.5 * self._tired() ** 2))
            height = self._among(kind, int(up > -1.3) + int(up > 1.3), 3)
            return f"{FIVE[side]}/{('low', 'level', 'high')[height]}"
        if kind in MOVES:
            clean, bounced, spread = (
                self._number(f"{kind}{i}", v) for i, v in enumerate(MOVES[kind])
            )
            z = bounced if self.bounces else clean
            z += r.normal(0, spread * math.sqrt(0.6 + 0.4 * self._tired() ** 2))
            self.shots += 3
            return SHIFTS[self._among(kind, int(z > -0.35) + int(z > 0.35), 3)]
        if kind in SIGNS:
            bounced, clean, touched = (
                min(self._number(f"{kind}{i}", v), 0.97) for i, v in enumerate(SIGNS[kind])
            )
            chance = bounced if self.bounces else touched if self.touching else clean
            return {"wear_marks": ("no", "yes"), "clatter": ("none", "heard"),
                    "slow_motion": ("clear", "bounce")}[kind][int(r.random() < chance)]  # fmt: skip
        if kind in ("brace_reread", "felt_plate"):
            edge = 0.12 * (abs(abs(self.s) - 0.55) < 0.3) if kind == "brace_reread" else 0.0
            clean = (0.15 if kind == "brace_reread" else 0.10) + edge + 0.05 * (self._tired() - 1)
            bounced = min(self._number(kind, 0.74), 0.95)
            return ("holds", "swings")[int(r.random() < (bounced if self.bounces else clean))]
        high = self.n + r.normal(0, 1.1 * math.sqrt(0.6 + 0.4 * self._tired() ** 2))
        if self.n < -2 and r.random() < 0.35:
            return "high"
        return ("low", "level", "high")[self._among(kind, int(high > -1.2) + int(high > 1.2), 3)]
