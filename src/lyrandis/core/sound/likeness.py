"""Shots told by their likeness to those that the archer marked (step 6).

A bow rings at its own lines: level and spectrum part it from echoes, arrivals, voices and most
neighbours. Source: docs/mechanics E3.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.sound.pairing import GROUP_S, Heard

Bands = Callable[[Heard], Array]
LEVEL_SD_DB, BANDS_SD_DB = 2.5, 2.2
ALIKE = 6.0  # squared distance, in those sd
ONE_MARK = 4 / 3  # so much more to one mark: two variances where two marks make one and a half
STRANGE = 9.0  # from the middle of shots found without a mark
_LEAST = 3  # shots of which one is in the middle
_TIMES = 2  # the marked, then all that were accepted
_MARK_S = 0.15  # how far from a sound it may be marked


def marked(heard: Sequence[Heard], mine_s: Sequence[float]) -> list[int]:
    """The events nearest to the places marked [s]; a place with nothing by it marks none."""
    times = np.array([e.at for e in heard])
    found: list[int] = []
    for at in mine_s:
        if len(times):
            i = int(np.argmin(np.abs(times - at)))
            if abs(times[i] - at) <= _MARK_S and i not in found:
                found.append(i)
    return sorted(found)


def distances(levels_db: Array, bands_db: Array, like: Sequence[int]) -> Array:
    """Squared distance of each event, shape (n,), to the mean of those in `like`.

    levels_db : (n,); bands_db : (n, 24)
    """
    level, bands = levels_db[list(like)].mean(), bands_db[list(like)].mean(axis=0)
    rms = np.sqrt(((bands_db - bands) ** 2).mean(axis=1))
    out: Array = ((levels_db - level) / LEVEL_SD_DB) ** 2 + (rms / BANDS_SD_DB) ** 2
    return out


def of_one_kind(heard: Sequence[Heard], shots: Sequence[int], bands: Bands) -> list[int]:
    """Of shots found without a mark, those like the one in their middle: a stranger is left out."""
    if len(shots) < _LEAST:
        return list(shots)
    levels = np.array([heard[i].level for i in shots])
    spectra = np.array([bands(heard[i]) for i in shots])
    middle = np.median(spectra, axis=0)
    off = ((levels - np.median(levels)) / LEVEL_SD_DB) ** 2
    off = off + ((spectra - middle) ** 2).mean(axis=1) / BANDS_SD_DB**2
    return [i for i, d in zip(shots, off, strict=True) if d <= STRANGE]


def alike(heard: Sequence[Heard], mine: Sequence[int], bands: Bands) -> list[int]:
    """The shots of a session like those marked, nearest first, no two within 1.1 s of another."""
    levels = np.array([e.level for e in heard])
    spectra = np.array([bands(e) for e in heard])
    times = [e.at for e in heard]
    like = list(mine)
    for _ in range(_TIMES):
        off = distances(levels, spectra, like)
        off[list(mine)] = -1.0  # they are shots, whatever they are like
        # One shot alone is as far from the others as they from it: it is measured less strictly.
        limit = ALIKE * (ONE_MARK if len(like) == 1 else 1.0)
        taken: list[int] = []
        for i in np.argsort(off, kind="stable").tolist():
            if off[i] > limit:
                break
            if all(abs(times[i] - times[j]) >= GROUP_S for j in taken):
                taken.append(i)
        like = taken
    return sorted(like)
