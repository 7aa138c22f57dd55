"""What each sound is by its time, level and shape: shot, arrival, click or other (steps 3 to 5).

Source: docs/mechanics E3. An arrival follows its shot by one lag common to the session; shots are
alike in level and shape.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Literal

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.sound.measures import in_frames, to_db
from lyrandis.core.sound.onsets import FRAME_S, Frames, onsets

Kind = Literal["shot", "arrival", "click", "other"]
LEVEL_S, EXPOSURE_S = 0.125, 0.4
GROUP_S = 1.1  # two shots are never closer
_GAP_S, _CUT_S = 0.13, 0.010
_LAG_S, _LAG_WIDTH_S, _LEAST_PAIRS, _PAIR_DB = (0.1, 1.6), 0.040, 3, 6.0
_CLICK_S, _LOUDER_DB = 0.5, 9.0
_ACCEPT_DB, _ACCEPT_MADS, _SHAPE_DB = 6.0, 4.0, 7.0
_NEAR_S = 0.06
_MAD_TO_SD = 1.4826  # of a normal distribution


@dataclass(frozen=True)
class Heard:
    """An event while it is being judged."""

    frame: int
    end: int
    level: float
    exposure: float

    @property
    def at(self) -> float:
        return self.frame * FRAME_S


Shape = Callable[[Heard], Array]


def hear(frames: Frames, added: Sequence[int], heed: Callable[[], None]) -> list[Heard]:
    # What was added by hand stands in for any onset found close by.
    found = [k for k in onsets(frames) if all(abs(k - a) * FRAME_S > _NEAR_S for a in added)]
    starts = sorted([*found, *added])
    gap, cut = in_frames(_GAP_S), in_frames(_CUT_S)
    clean = np.concatenate([[0.0], np.cumsum(frames.power - frames.background)])
    heard = []
    for n, k in enumerate(starts):
        if n % 100 == 0:
            heed()
        end = min(k + in_frames(EXPOSURE_S), len(frames.power))
        later = bisect_left(starts, k + gap)
        if later < len(starts):
            end = min(end, starts[later] - cut)
        span = min(in_frames(LEVEL_S), end - k)
        if span < 4:
            continue
        first = np.arange(k, end - span + 1)
        level = float((clean[first + span] - clean[first]).max()) / in_frames(LEVEL_S)
        exposure = float(clean[end] - clean[k]) * FRAME_S
        heard.append(Heard(k, end, to_db(level), to_db(exposure)))
    return heard


def _pairs(heard: list[Heard]) -> dict[int, list[int]]:
    """The firsts of all pairs that could be a shot and its arrival, by their lag in frames."""
    low, high = (in_frames(s) for s in _LAG_S)
    firsts: dict[int, list[int]] = defaultdict(list)
    for i, a in enumerate(heard):
        for b in islice(heard, i + 1, None):
            if b.frame - a.frame > high:
                break
            if b.frame - a.frame >= low:
                firsts[b.frame - a.frame].append(i)
    return firsts


def common_lag(heard: list[Heard], heed: Callable[[], None]) -> tuple[float, list[int]] | None:
    """The lag [s] from shot to arrival that most pairs share, and the firsts of those pairs.

    Lags are whole frames, so there are some four hundred windows, however many events there are.
    """
    pairs = _pairs(heard)
    width = in_frames(_LAG_WIDTH_S)
    best: tuple[int, float, list[int]] | None = None
    for start in sorted(pairs):
        heed()
        window = [lag for lag in range(start, start + width + 1) if lag in pairs]
        if best is not None and sum(len(pairs[lag]) for lag in window) <= best[0]:
            continue  # not even all of them would be more
        firsts = sorted({i for lag in window for i in pairs[lag]})
        middle = float(np.median([heard[i].level for i in firsts]))
        alike = [i for i in firsts if abs(heard[i].level - middle) <= _PAIR_DB]
        apart = _apart(heard, alike)
        if len(apart) >= _LEAST_PAIRS and (best is None or len(apart) > best[0]):
            chosen = set(apart)
            lags = [lag for lag in window for i in pairs[lag] if i in chosen]
            best = (len(apart), float(np.median(lags)) * FRAME_S, apart)
    return None if best is None else (best[1], best[2])


def _apart(heard: list[Heard], indices: list[int]) -> list[int]:
    """Events no closer to one another than two shots can be; the earlier one stays."""
    kept: list[int] = []
    for i in indices:
        if not kept or heard[i].at - heard[kept[-1]].at >= GROUP_S:
            kept.append(i)
    return kept


def _leaders(heard: list[Heard], taken: set[int]) -> list[int]:
    """Of the sounds not yet explained, the one that leads each group of 1.1 s."""
    led: list[int] = []
    free = [i for i in range(len(heard)) if i not in taken]
    first = 0
    while first < len(free):
        leader = free[first]
        begins = heard[leader].at
        for i in islice(free, first + 1, None):
            if heard[i].at - begins >= GROUP_S:
                break
            if heard[i].level > heard[leader].level + _LOUDER_DB:
                leader = i
        led.append(leader)
        while first < len(free) and heard[free[first]].at - heard[leader].at < GROUP_S:
            first += 1
    return led


def _around(times: list[float], at: float, after_s: float) -> range:
    """The events that belong to a shot at a time: a click before it, an arrival after."""
    return range(bisect_left(times, at - _CLICK_S), bisect_right(times, at + after_s))


def _after_s(lag_s: float | None) -> float:
    """How long after a shot its arrival may come [s]."""
    return GROUP_S if lag_s is None else max(GROUP_S, lag_s + _LAG_WIDTH_S)


def paired(
    heard: list[Heard], added: Sequence[int], shape: Shape, heed: Callable[[], None]
) -> tuple[list[int], float | None]:
    """The shots by a lag that they share and by what they are like, and that lag [s]."""
    hand = set(added)
    by_hand = [i for i, e in enumerate(heard) if e.frame in hand]
    common = common_lag(heard, heed)
    sure = common[1] if common else []
    lag = common[0] if common else None
    times = [e.at for e in heard]
    around = {i for s in sure for i in _around(times, heard[s].at, _after_s(lag))}
    candidates = sorted([*sure, *_leaders(heard, around)])
    if not candidates:
        return by_hand, None
    chosen = set(by_hand)
    candidates = [i for i in candidates if i not in chosen] or by_hand
    return sorted(chosen | set(_alike(heard, sure, candidates, shape, heed))), lag


def kinds_of(
    heard: list[Heard], shots: list[int], lag_s: float | None
) -> tuple[list[Kind], list[float | None]]:
    """A kind for each event, given the shots among them, and the lag [s] of each arrival."""
    kinds: list[Kind] = ["other"] * len(heard)
    lags: list[float | None] = [None] * len(heard)
    times = [e.at for e in heard]
    for s in shots:
        kinds[s] = "shot"
    shot_times, after = [times[s] for s in shots], _after_s(lag_s)
    for i, at in enumerate(times):
        if kinds[i] == "shot":
            continue
        next_one = bisect_left(shot_times, at)
        if next_one > 0 and 0 < at - shot_times[next_one - 1] <= after:
            kinds[i], lags[i] = "arrival", at - shot_times[next_one - 1]
        elif next_one < len(shots) and 0 < shot_times[next_one] - at <= _CLICK_S:
            kinds[i] = "click"
    return kinds, lags


def _alike(
    heard: list[Heard],
    sure: list[int],
    candidates: list[int],
    shape: Shape,
    heed: Callable[[], None],
) -> list[int]:
    """The candidates that are like the session's shots in level and shape, none too close."""
    model = sure or candidates
    level = float(np.median([heard[i].level for i in model]))
    usual = np.median([shape(heard[i]) for i in model], axis=0)
    mad = float(np.median([abs(heard[i].level - level) for i in model])) * _MAD_TO_SD
    limit = max(_ACCEPT_DB, _ACCEPT_MADS * mad)
    certain = set(sure)
    shots: list[int] = []
    for i in candidates:
        heed()
        alike = abs(heard[i].level - level) <= limit
        alike = alike and float(np.mean(np.abs(shape(heard[i]) - usual))) <= _SHAPE_DB
        if (i in certain or alike) and (not shots or heard[i].at - heard[shots[-1]].at >= GROUP_S):
            shots.append(i)
    return shots
