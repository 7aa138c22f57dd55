"""The shaft at any moment of the shot and of the first metres after it: drawn and filmed alike.

Until the tail has passed the plate between the frames that were kept; then it flies on by its
modes, the rigid ones straight, the bending ones dying away:

    q(t) = e^(−ζωt) (q cos ωt + (q̇ + ζωq)/ω sin ωt)
"""

from __future__ import annotations

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flex.modes import Layout, modes
from lyrandis.core.flex.passing import Passed


def at_moments(
    told: Passed, layout: Layout, stiffness_n_m2: Array, damping: float, time_s: Array
) -> tuple[Array, Array]:
    """Modes of each shaft, shape (f, k, 8), and how far behind the braced nock it is [m], (f,).

    Parameters
    ----------
    told : with frames kept, of shafts of these stiffnesses, shape (k,)
    time_s : from the release, rising, shape (f,); before it the shaft is as at full draw

    The air, which turns the arrow over metres, is left out.
    """
    before = time_s <= told.end_s
    omega = modes(layout).unit_omega[None, :] * np.sqrt(stiffness_n_m2)[:, None]
    kept_s = np.append(told.time_s, told.end_s)
    kept = np.concatenate([told.shape, told.end_q[None]])
    flat = kept.reshape(len(kept), -1)
    inside = np.column_stack([np.interp(time_s, kept_s, column) for column in flat.T])
    q = inside.reshape(len(time_s), *told.end_q.shape)
    on = (time_s[~before] - told.end_s)[:, None, None]
    rigid = told.end_q + told.end_rate * on
    safe = np.where(omega > 0, omega, 1.0)
    swings = np.exp(-damping * omega * on) * (
        told.end_q * np.cos(omega * on)
        + (told.end_rate + damping * omega * told.end_q) / safe * np.sin(omega * on)
    )
    q[~before] = np.where(omega > 0, swings, rigid)
    last = told.nock_m[-1] - told.speed_mps * (told.end_s - told.time_s[-1])
    places = np.interp(time_s, kept_s, np.append(told.nock_m, last))
    places[~before] = last - told.speed_mps * (time_s[~before] - told.end_s)
    return q, places
