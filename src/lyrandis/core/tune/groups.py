"""Groups of one session judged together: is one of them wider than chance?

Group sizes of a few arrows scatter widely. All of a session are brought to one scale (over what
that many arrows spread by on average), and each is compared with the mean of the others; how large
that may be by chance alone, over all of the session's groups at once, is simulated for just these
numbers of arrows. Arrows are taken to scatter along one line, with now and then a flyer: that is
the most a few arrows' spread can vary, so that round groups give fewer false alarms, not more.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

LEAST_ARROWS = 3
FALSE_ALARMS = 0.05  # of the sessions in which all groups are truly alike
_SESSIONS = 4000
_FLYERS = 6.0  # degrees of freedom of Student's t
_SEED = 31


@lru_cache(maxsize=256)
def _scale(arrows: int) -> float:
    """What so many arrows spread by on average, in sd of one arrow."""
    rng = np.random.default_rng(_SEED)
    return float(np.ptp(rng.standard_t(_FLYERS, (_SESSIONS, arrows)), axis=1).mean())


@lru_cache(maxsize=256)
def widest_by_chance(arrows: tuple[int, ...]) -> float:
    """How many times the mean of the others the widest group is at most, in 19 sessions of 20."""
    rng = np.random.default_rng(_SEED + 1)
    sizes = np.array(
        [np.ptp(rng.standard_t(_FLYERS, (_SESSIONS, n)), axis=1) / _scale(n) for n in arrows]
    )
    others = (sizes.sum(axis=0) - sizes) / (len(arrows) - 1)
    return float(np.quantile((sizes / others).max(axis=0), 1 - FALSE_ALARMS))


def wide(groups: Sequence[tuple[float, int]]) -> list[bool]:
    """Which groups are wider than chance.

    Parameters
    ----------
    groups : size across, in any one unit, and arrows of each; under three arrows says nothing

    Source: scaled range statistic by simulation, docs/mechanics E2.
    """
    told = [i for i, (_, n) in enumerate(groups) if n >= LEAST_ARROWS]
    out = [False] * len(groups)
    if len(told) < 2:
        return out
    arrows = tuple(groups[i][1] for i in told)
    sizes = np.array([groups[i][0] / _scale(groups[i][1]) for i in told])
    # In order of the arrows, so that one simulation serves each order of the same groups.
    limit = widest_by_chance(tuple(sorted(arrows)))
    others = (sizes.sum() - sizes) / (len(told) - 1)
    for i, is_wide in zip(told, sizes > limit * others, strict=True):
        out[i] = bool(is_wide)
    return out
