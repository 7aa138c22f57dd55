"""A simulated bow scale: it pulls a hidden true bow and reads draw and force as a real one would.

The hidden bow differs from its marking as real ones do; the scale has noise, an offset and a
resolution, and the draw is read off a tape. Deterministic by its seed.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from lyrandis.core.bow.curve import force_draw
from lyrandis.core.parts import Bow, StringMaterial

MARKING_SD_SHARE = 0.03  # how far bows are from their marking
READINGS = 60


class ScaleReading(NamedTuple):
    """Force [lb] at a draw [in, trade standard]."""

    draw_in: float
    force_lbf: float


@dataclass(frozen=True)
class SimulatedScale:
    """One slow pull of a bow scale from just past brace to `to_draw_in` [in, trade standard].

    `seed` chooses the hidden bow, `pull` the noise of one pull of it.
    noise_lbf and draw_sd_in are standard deviations; offset_lbf is what the scale shows of
    nothing; resolution_lbf and tape_in are the steps of scale and tape.
    """

    bow: Bow
    material: StringMaterial
    to_draw_in: float
    seed: int
    pull: int = 0
    noise_lbf: float = 0.15
    offset_lbf: float = 0.0
    resolution_lbf: float = 0.1
    draw_sd_in: float = 0.03
    tape_in: float = 0.05
    every_s: float = 0.04
    name: str = "simulated bow scale"
    simulated: bool = True

    def hidden_weight_lbf(self) -> float:
        """What the hidden bow really pulls at its marked draw."""
        rng = np.random.default_rng([self.seed, 1])
        return self.bow.marked_weight_lbf * (1 + MARKING_SD_SHARE * float(rng.normal()))

    def readings(self) -> Iterator[ScaleReading]:
        """Readings of one pull, at even times; draws and forces as the scale shows them.

        Raises
        ------
        RefusedError : a bow that cannot be solved.
        """
        hidden = self.bow.model_copy(
            update={"marked_weight_lbf": self.hidden_weight_lbf(), "measured": ()}
        )
        curve = force_draw(hidden, self.material)
        end = min(self.to_draw_in, float(curve.draw_in[-1]))
        rng = np.random.default_rng([self.seed, 2, self.pull])
        for share in np.linspace(0.06, 1.0, READINGS):
            draw = curve.brace_draw_in + share * (end - curve.brace_draw_in)
            force = curve.force(draw) + self.offset_lbf + rng.normal(0, self.noise_lbf)
            seen = draw + rng.normal(0, self.draw_sd_in)
            yield ScaleReading(
                round(round(seen / self.tape_in) * self.tape_in, 4),
                round(round(force / self.resolution_lbf) * self.resolution_lbf, 4),
            )
