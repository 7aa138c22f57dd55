"""Simulated bench instruments for arrows: a grain scale, a spine jig, and both for a whole set.

The hidden arrows differ from their catalogue as real ones do; a scale settles and rounds, a jig
repeats within a few thousandths. Deterministic by their seeds.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

BATCH_SD_SHARE, SHAFT_SD_SHARE = 0.015, 0.012  # of the weight: a batch, a shaft of it
SPINE_BATCH_SHARE, SPINE_SHAFT_SHARE = 0.03, 0.02
SETTLING = 12  # readings until a scale stands still


@dataclass(frozen=True)
class SimulatedGrainScale:
    """One arrow laid on a grain scale: readings that settle; the last one counts.

    mass_gr : what its parts add up to; the hidden arrow is near that
    seed : chooses the hidden arrow
    again : the how many-th weighing of it
    resolution_gr, noise_gr : step of the scale, and how it trembles
    """

    mass_gr: float
    seed: int
    again: int = 0
    resolution_gr: float = 0.1
    noise_gr: float = 0.15
    every_s: float = 0.08
    name: str = "simulated grain scale"
    simulated: bool = True

    def hidden_mass_gr(self) -> float:
        """What the hidden arrow really weighs [gr]."""
        rng = np.random.default_rng([self.seed, 21])
        return self.mass_gr * (1 + BATCH_SD_SHARE * float(rng.normal()))

    def readings(self) -> Iterator[float]:
        """What the scale shows [gr], one after another."""
        rng, hidden = np.random.default_rng([self.seed, 22, self.again]), self.hidden_mass_gr()
        for i in range(SETTLING):
            swing = 0.3 * np.exp(-0.6 * i) * np.cos(2.4 * i) if i < SETTLING - 1 else 0.0
            shown = hidden * (1 - swing) + rng.normal(0, self.noise_gr)
            yield round(round(float(shown) / self.resolution_gr) * self.resolution_gr, 3)


class ShaftReading(NamedTuple):
    """A numbered shaft, what it weighed [gr] and read on the jig [0.001 in]."""

    number: int
    mass_gr: float
    spine_28in: float


@dataclass(frozen=True)
class SimulatedShaftBench:
    """A set weighed and spined shaft by shaft: each reading is the next shaft.

    mass_gr, spine_28in : what the set is made to; its hidden shafts are near that
    shafts : how many
    seed, again : the hidden set, and the how many-th time it is measured
    """

    mass_gr: float
    spine_28in: float
    shafts: int
    seed: int
    again: int = 0
    every_s: float = 0.25
    name: str = "simulated grain scale and spine jig"
    simulated: bool = True

    def readings(self) -> Iterator[ShaftReading]:
        """Each shaft as scale and jig show it."""
        hidden = np.random.default_rng([self.seed, 23])
        batch = 1 + np.array([BATCH_SD_SHARE, SPINE_BATCH_SHARE]) * hidden.normal(size=2)
        noise = np.random.default_rng([self.seed, 24, self.again])
        for number in range(1, self.shafts + 1):
            own = batch + np.array([SHAFT_SD_SHARE, SPINE_SHAFT_SHARE]) * hidden.normal(size=2)
            mass = self.mass_gr * own[0] + noise.normal(0, 0.15)
            spine = self.spine_28in * own[1] + noise.normal(0, 2.0)
            yield ShaftReading(number, round(float(mass), 1), float(round(spine)))
