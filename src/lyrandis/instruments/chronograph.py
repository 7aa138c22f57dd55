"""A simulated chronograph: shots of one arrow from a hidden bow near the model's.

Deterministic by its seed. Some shots are short draws, and now and then one is misread, as happens.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrow.shot import speed_fps

ENERGY_SD_SHARE, VIRTUAL_SD_SHARE = 0.06, 0.12
SHOT_SD_SHARE = 0.008
SHORT_DRAWS, SHORT_SHARE = 0.05, 0.03  # so many shots are short, and by how much slower


@dataclass(frozen=True)
class SimulatedChronograph:
    """Some shots over a chronograph.

    energy_ftlb, virtual_gr : the model's; the hidden bow's are near those
    mass_gr : of the arrows shot
    seed : chooses the hidden bow
    again : the how many-th series
    """

    energy_ftlb: float
    virtual_gr: float
    mass_gr: float
    shots: int
    seed: int
    again: int = 0
    every_s: float = 0.5
    name: str = "simulated chronograph"
    simulated: bool = True

    def hidden_speed_fps(self) -> float:
        """How fast the hidden bow really sends this arrow [ft/s]."""
        rng = np.random.default_rng([self.seed, 31])
        energy = self.energy_ftlb * (1 + ENERGY_SD_SHARE * float(rng.normal()))
        virtual = self.virtual_gr * (1 + VIRTUAL_SD_SHARE * float(rng.normal()))
        return float(speed_fps(energy, self.mass_gr, virtual))

    def readings(self) -> Iterator[float]:
        """The speed of each shot [ft/s], to a tenth."""
        rng = np.random.default_rng([self.seed, 32, self.again])
        speed = self.hidden_speed_fps()
        for _ in range(self.shots):
            short = 1 - SHORT_SHARE if rng.random() < SHORT_DRAWS else 1.0
            yield round(speed * short * (1 + SHOT_SD_SHARE * float(rng.normal())), 1)
