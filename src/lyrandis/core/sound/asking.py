"""When a recording can be read two ways the archer is asked, rather than guessing (step 7).

Source: docs/mechanics E3. Asked for is one shot of their own; `likeness.py` does the rest.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.sound.likeness import ALIKE, Bands, distances
from lyrandis.core.sound.pairing import Heard, Kind, common_lag

LEAST_LAG_S = 0.2  # a butt is never nearer than that; an echo is
_NEARLY = 0.8  # as many
_LOUD_DB = 9.0  # under the shots
_EXPLAINED = 0.5
_LEAST = 3
_STRANGERS = 0.6  # of the shots


def _second_lag(heard: list[Heard], shots: list[int], heed: Callable[[], None]) -> bool:
    """Whether events other than the shots, and what follows them, pair up nearly as often."""
    own = set(shots)
    other = [e for i, e in enumerate(heard) if i not in own]
    pair = common_lag(other, heed)
    return pair is not None and len(pair[1]) >= max(_LEAST, _NEARLY * len(shots))


def _most_alike(levels: Array, spectra: Array) -> int:
    """The most of some events that are all like one of them; levels (n,), spectra (n, 24)."""
    return max(
        (int((distances(levels, spectra, [i]) <= ALIKE).sum()) for i in range(len(levels))),
        default=0,
    )


def ask_for_a_shot(
    heard: list[Heard],
    shots: list[int],
    kinds: Sequence[Kind],
    lag_s: float | None,
    bands: Bands,
    heed: Callable[[], None],
) -> str | None:
    """Why the archer should mark one shot of their own; None where the reading is plain."""
    if len(shots) < 2:
        return None
    if lag_s is not None and lag_s < LEAST_LAG_S:
        return "What follows each sound comes so soon that it may be an echo."
    levels = np.array([e.level for e in heard])
    usual = float(np.median(levels[shots]))
    loud = [i for i in range(len(heard)) if levels[i] >= usual - _LOUD_DB]
    explained = [i for i in loud if kinds[i] != "other"]
    if len(explained) < _EXPLAINED * len(loud):
        return "Most of what is loud in it is neither a shot nor an arrival."
    spectra = np.array([bands(e) for e in heard])
    if _most_alike(levels[shots], spectra[shots]) < _NEARLY * len(shots):
        return "The sounds that could be shots are of two kinds."
    rest = [i for i in loud if kinds[i] == "other"]
    many = len(rest) >= max(_LEAST, _STRANGERS * len(shots))
    if many and (len(rest) >= len(shots) or _most_alike(levels[rest], spectra[rest]) >= _LEAST):
        return "Other sounds, as loud, are about as many as the shots."
    if _second_lag(heard, shots, heed):
        return "Two kinds of sounds are each followed by another as shots are by arrivals."
    return None
