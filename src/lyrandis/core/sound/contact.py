"""A contact between shot and arrival: the shaft knocking on the bow as it leaves.

loud |▌          the shot dies away in the high band; a knock on the bow stands up out of it,
     |▌▙▖  ▟▖    sharply, a few hundredths of a second later and before the arrow arrives
     +----------
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from scipy.signal import butter, sosfilt

from lyrandis.core.arrays import Array
from lyrandis.core.sound.weighting import Samples

HIGH_HZ = 2000.0  # where a knock of a hard shaft is sharp
FROM_S, TO_S = 0.008, 0.12  # after the shot; nearer it is the shot itself
BEFORE_ARRIVAL_S = 0.02
FRAME_S = 0.001
RISE_DB, OVER_FLOOR_DB = 7.0, 12.0
HEARD_SHARE = 0.5  # of the shots, from which a clatter is heard
LEAST_SHOTS = 2
_BACK = (6, 2)  # frames before, over which the rise is told
_LEAD_S = 0.02


def contact_s(
    weighted: Samples, rate_hz: float, at_s: float, arrival_s: float | None
) -> float | None:
    """How long after a shot a contact sounds [s]; None where none does.

    Parameters
    ----------
    weighted : A-weighted, shape (n, channels)
    at_s : of the shot; arrival_s : of its arrival, None where it is not heard

    Source: own derivation, docs/mechanics E3; tests/core/test_contact.py.
    """
    to_s = TO_S if arrival_s is None else min(TO_S, arrival_s - at_s - BEFORE_ARRIVAL_S)
    a = max(0, round((at_s - _LEAD_S) * rate_hz))
    b = min(len(weighted), round((at_s + to_s) * rate_hz))
    per = round(FRAME_S * rate_hz)
    count = (b - a) // per
    first = round((at_s + FROM_S) * rate_hz - a) // per
    if count - first < 4:
        return None
    high = sosfilt(butter(4, HIGH_HZ, "high", fs=rate_hz, output="sos"), weighted[a:b], axis=0)
    power = (high[: count * per] ** 2).mean(axis=1).reshape(count, per).mean(axis=1)
    return _rise(power, first, round(_LEAD_S / FRAME_S) - 3)


def _rise(power: Array, first: int, quiet: int) -> float | None:
    """Seconds from the shot to the strongest sharp rise after frame `first`; frames before `quiet`
    are the floor."""
    floor = max(float(power[: max(quiet, 2)].mean()), 1e-16)
    best: tuple[float, int] | None = None
    now = (power[:-1] + power[1:]) / 2
    for i in range(max(first, _BACK[0]), len(now)):
        before = float(power[i - _BACK[0] : i - _BACK[1] + 1].max())
        rise = 10 * np.log10(now[i] / max(before, floor))
        over = 10 * np.log10(now[i] / floor)
        if rise >= RISE_DB and over >= OVER_FLOOR_DB and (best is None or rise > best[0]):
            best = (float(rise), i)
    return None if best is None else (best[1] - round(_LEAD_S / FRAME_S)) * FRAME_S


def clatters(contacts: Sequence[float | None]) -> bool | None:
    """Whether shots clatter, by how many of them a contact was heard in; None of too few shots."""
    if len(contacts) < LEAST_SHOTS:
        return None
    return sum(c is not None for c in contacts) >= HEARD_SHARE * len(contacts)
