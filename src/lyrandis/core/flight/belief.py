"""How a belief over truths moves when the shaft or a setting is changed (docs/mechanics D).

The spine error goes by what is predicted, ± half a group; whether the shaft bounces is drawn anew;
the nock point goes as far as it was moved, and what else touches is then drawn anew too. Release
and torque are the archer's and stay.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lyrandis.core.arrays import Array
from lyrandis.core.flight.read_tests import (
    GROUPS,
    NOCKS_MM,
    STIFF_FROM,
    bounce_chance,
    touch_chance,
    truths,
)

Places = NDArray[np.intp]
MOVED_SD = 0.5  # groups, of a predicted effect


@dataclass(frozen=True)
class Change:
    """What a change is predicted to do: groups stiffer, its sd, and mm by which the nock rose."""

    groups: float
    sd: float = MOVED_SD
    nock_mm: float = 0.0


@lru_cache(maxsize=1)
def _places() -> tuple[Places, Places, Places]:
    """Of each truth: which spine error, which nock error, and which release, torque and other touch
    it is of."""
    w = truths()
    s = np.searchsorted(GROUPS, w.s)
    n = np.searchsorted(NOCKS_MM, w.n_mm)
    rt = np.unique(np.stack([w.r, w.t, w.touches]), axis=1, return_inverse=True)[1]
    return s, n, np.asarray(rt).ravel()


def _spread(at: Array, by: float, sd: float) -> Array:
    """Where each place of a grid goes, the ends taking what leaves it; shape (from, to)."""
    near = np.exp(-0.5 * ((at[None, :] - at[:, None] - by) / sd) ** 2)
    beyond = at[:, None] + by
    near[:, 0] += np.where(beyond[:, 0] < at[0] - sd, 1.0, 0.0)
    near[:, -1] += np.where(beyond[:, 0] > at[-1] + sd, 1.0, 0.0)
    return np.asarray(near / near.sum(axis=1, keepdims=True))


def moved(belief: Array, change: Change) -> Array:
    """The belief after a change, shape (2916,).

    Source: docs/mechanics D.
    """
    s, n, rt = _places()
    joint = np.zeros((len(GROUPS), len(NOCKS_MM), rt.max() + 1))
    np.add.at(joint, (s, n, rt), belief)
    to_s = _spread(GROUPS, change.groups, change.sd)
    joint = np.einsum("snr,st->tnr", joint, to_s)
    if change.nock_mm:
        to_n = _spread(NOCKS_MM, change.nock_mm, _NOCK_SD_MM)
        joint = np.einsum("snr,nm->smr", joint, to_n)
        either = joint[:, :, 0::2] + joint[:, :, 1::2]  # the touch is the last of what numbers rt
        touch = touch_chance(NOCKS_MM)[None, :, None]
        joint[:, :, 0::2], joint[:, :, 1::2] = either * (1 - touch), either * touch
    w = truths()
    chance = bounce_chance(w.s)
    share = np.where(w.bounces > 0, chance, np.where(w.s >= STIFF_FROM, 1 - chance, 1.0))
    after = joint[s, n, rt] * share
    return np.asarray(after / after.sum())


_NOCK_SD_MM = 0.5  # a bow square is read so
