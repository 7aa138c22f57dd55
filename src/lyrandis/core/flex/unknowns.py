"""What nobody knows of a bow that a shaft passes, as a few bows that it may be (mechanics B4a).

Kick, opening, side plate and string are known to a quarter at best. The same few draws for every
rig, so that what differs between two rigs is what was changed.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache

import numpy as np
from scipy.special import ndtri
from scipy.stats import qmc

from lyrandis.core.arrays import Array
from lyrandis.core.flex.setting import Setting

DRAWS, SEED = 16, 1
# One sd each, own estimates; of the logarithm where no unit stands.
SPRING_LN, PRELOAD_LN, KICK_LN, OPENING_LN = 0.25, 0.25, 0.25, 0.20
HELD, HELD_FROM, HELD_TO = 0.10, 0.1, 0.9  # of the force's share at the first moment
OFFSET_M = 0.5e-3
STRING_LN, HALF_STRING_LN = 0.10, 0.12
TAIL = 0.01  # cut off on either side
_WHAT = 8  # spring, preload, kick, opening, held share, offset, string, half string


@lru_cache(maxsize=1)
def _draws() -> Array:
    """Normal draws, shape (DRAWS, 8)."""
    even = qmc.Sobol(_WHAT, rng=SEED).random(DRAWS)
    return np.asarray(ndtri(np.clip(even, TAIL, 1 - TAIL)))


def may_be(s: Setting) -> list[Setting]:
    """The bows that this one may be.

    Source: docs/mechanics B4a.
    """
    return [_drawn(s, *z) for z in _draws().tolist()]


def _drawn(
    s: Setting,
    spring: float,
    preload: float,
    kick: float,
    opening: float,
    held: float,
    offset: float,
    string: float,
    half: float,
) -> Setting:
    plate, go = s.plate, s.go
    heavier_kg = s.string_kg * (math.exp(STRING_LN * string) - 1)
    return replace(
        s,
        plate=replace(
            plate,
            k_n_m=plate.k_n_m * math.exp(SPRING_LN * spring),
            preload_n=plate.preload_n * math.exp(PRELOAD_LN * preload),
        ),
        go=replace(
            go,
            kick_m=go.kick_m * math.exp(KICK_LN * kick),
            over_m=go.over_m * math.exp(OPENING_LN * opening),
            held_share=min(max(go.held_share + HELD * held, HELD_FROM), HELD_TO),
        ),
        offset_m=s.offset_m + OFFSET_M * offset,
        string_kg=s.string_kg + heavier_kg,
        moving_kg=s.moving_kg + heavier_kg,
        half_string_m=s.half_string_m * math.exp(HALF_STRING_LN * half),
    )
