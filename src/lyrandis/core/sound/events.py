"""What each sound of a recording is: a shot, its arrival at the butt, a click before it, or other.

Source: docs/mechanics E3. An arrival follows its shot by one lag common to the session; shots are
alike in level and shape. Without a calibration tone only differences within one session count.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache
from itertools import islice, pairwise
from typing import Literal

import numpy as np
from scipy import fft

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.sound.onsets import FRAME_S, TINY, Frames, frames_of, onsets
from lyrandis.core.sound.weighting import Samples, a_weighted

Kind = Literal["shot", "arrival", "click", "other"]
LEAST_RATE_HZ, LEAST_S, MOST_S = 22_050, 0.5, 1200.0
LEVEL_S, EXPOSURE_S, SHAPE_S, TONE_AFTER_S = 0.125, 0.4, 0.1, 0.2
_GAP_S, _CUT_S = 0.13, 0.010
_BANDS_HZ = 60.0 * 2.0 ** np.arange(8)
_LAG_S, _LAG_WIDTH_S, _LEAST_PAIRS, _PAIR_DB = (0.1, 1.1), 0.040, 3, 6.0
_GROUP_S, _CLICK_S, _LOUDER_DB = 1.1, 0.5, 9.0
_ACCEPT_DB, _ACCEPT_MADS, _SHAPE_DB = 6.0, 4.0, 7.0
_TONE_HZ = (60.0, 6000.0)
_NEAR_S = 0.06
_MAD_TO_SD = 1.4826  # of a normal distribution
_SHAPE_FLOOR_DB = -40.0
_DECAY_DB, _DECAY_OVER_NOISE_DB, _DECAY_FRAMES = 20.0, 23.0, 4
_TONE_LEAST_S, _TONE_BESIDE = 0.1, 1.5  # at least so long; neighbours within this ratio of it
_LEAST_SPECTRUM = 8192
_SILENT = 1e-7  # of full scale
_OUTLINE_POINTS = 1200


@dataclass(frozen=True)
class SoundEvent:
    """One sound: when [s], what, and for a shot how loud and how it dies away.

    level_db : loudest 125 ms; exposure_db : over up to 400 ms; both A-weighted, less background,
        dB of full scale, so that only differences within one recording mean anything
    lag_s : of an arrival, after its shot
    decay_ms : to 20 dB under the peak; centroid_hz; tone_hz and tone_above_db : the strongest
        line after 200 ms and how far it stands over its neighbours; None where not to be told
    """

    at_s: float
    kind: Kind
    lag_s: float | None
    level_db: float
    exposure_db: float
    decay_ms: float | None
    centroid_hz: float | None
    tone_hz: float | None
    tone_above_db: float | None


@dataclass(frozen=True)
class Sound:
    """A recording analysed: its events, and an outline for the drawing.

    outline_db : loudest frame of each slice, shape (m,); slice_s : their length
    tone : that of the shot in the middle by how far its tone stands out, [Hz] and [dB] over its
        neighbours; None where no shot rang on long enough to tell
    """

    events: tuple[SoundEvent, ...]
    duration_s: float
    lag_s: float | None
    noise_db: float
    outline_db: Array
    slice_s: float

    tone: tuple[float, float] | None


def session_tone(events: Sequence[SoundEvent]) -> tuple[float, float] | None:
    """The tone [Hz] of the shot in the middle by how far [dB] its tone stands out."""
    rung = [
        (e.tone_above_db, e.tone_hz)
        for e in events
        if e.kind == "shot" and e.tone_above_db is not None and e.tone_hz is not None
    ]
    if not rung:
        return None
    above, hz = sorted(rung)[len(rung) // 2]
    return hz, above


@dataclass(frozen=True)
class _Heard:
    """An event while it is being judged."""

    frame: int
    end: int
    level: float
    exposure: float

    @property
    def at(self) -> float:
        return self.frame * FRAME_S


Shape = Callable[[_Heard], Array]


def _db(power: float) -> float:
    return float(10 * np.log10(max(power, TINY)))


def _frames(seconds: float) -> int:
    return round(seconds / FRAME_S)


def _shape(weighted: Samples, rate_hz: float, start: int) -> Array:
    """Seven octave bands from 60 Hz over 100 ms, dB of their total."""
    part = weighted[start : start + int(SHAPE_S * rate_hz)]
    if len(part) < 64:
        return np.zeros(7)
    power = (np.abs(fft.rfft(part, axis=0)) ** 2).sum(axis=1)
    at = np.searchsorted(np.arange(len(power)) * rate_hz / len(part), _BANDS_HZ)
    bands = np.array([power[a:b].sum() for a, b in pairwise(at)]) + TINY
    shape: Array = 10 * np.log10(bands / bands.sum())
    return np.maximum(shape, _SHAPE_FLOOR_DB)


def _hear(frames: Frames, added: Sequence[int], heed: Callable[[], None]) -> list[_Heard]:
    # What was added by hand stands in for any onset found close by.
    found = [k for k in onsets(frames) if all(abs(k - a) * FRAME_S > _NEAR_S for a in added)]
    starts = sorted([*found, *added])
    gap, cut = _frames(_GAP_S), _frames(_CUT_S)
    clean = np.concatenate([[0.0], np.cumsum(frames.power - frames.background)])
    heard = []
    for n, k in enumerate(starts):
        if n % 100 == 0:
            heed()
        end = min(k + _frames(EXPOSURE_S), len(frames.power))
        later = bisect_left(starts, k + gap)
        if later < len(starts):
            end = min(end, starts[later] - cut)
        span = min(_frames(LEVEL_S), end - k)
        if span < 4:
            continue
        first = np.arange(k, end - span + 1)
        level = float((clean[first + span] - clean[first]).max()) / _frames(LEVEL_S)
        exposure = float(clean[end] - clean[k]) * FRAME_S
        heard.append(_Heard(k, end, _db(level), _db(exposure)))
    return heard


def _pairs(heard: list[_Heard]) -> dict[int, list[int]]:
    """The firsts of all pairs that could be a shot and its arrival, by their lag in frames."""
    low, high = (_frames(s) for s in _LAG_S)
    firsts: dict[int, list[int]] = defaultdict(list)
    for i, a in enumerate(heard):
        for b in islice(heard, i + 1, None):
            if b.frame - a.frame > high:
                break
            if b.frame - a.frame >= low:
                firsts[b.frame - a.frame].append(i)
    return firsts


def _common_lag(heard: list[_Heard], heed: Callable[[], None]) -> tuple[float, list[int]] | None:
    """The lag [s] from shot to arrival that most pairs share, and the firsts of those pairs.

    Lags are whole frames, so there are some four hundred windows, however many events there are.
    """
    pairs = _pairs(heard)
    width = _frames(_LAG_WIDTH_S)
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


def _apart(heard: list[_Heard], indices: list[int]) -> list[int]:
    """Events no closer to one another than two shots can be; the earlier one stays."""
    kept: list[int] = []
    for i in indices:
        if not kept or heard[i].at - heard[kept[-1]].at >= _GROUP_S:
            kept.append(i)
    return kept


def _leaders(heard: list[_Heard], taken: set[int]) -> list[int]:
    """Of the sounds not yet explained, the one that leads each group of 1.1 s."""
    led: list[int] = []
    free = [i for i in range(len(heard)) if i not in taken]
    first = 0
    while first < len(free):
        leader = free[first]
        begins = heard[leader].at
        for i in islice(free, first + 1, None):
            if heard[i].at - begins >= _GROUP_S:
                break
            if heard[i].level > heard[leader].level + _LOUDER_DB:
                leader = i
        led.append(leader)
        while first < len(free) and heard[free[first]].at - heard[leader].at < _GROUP_S:
            first += 1
    return led


def _around(times: list[float], at: float) -> range:
    """The events that belong to a shot at a time: a click before it, an arrival after."""
    return range(bisect_left(times, at - _CLICK_S), bisect_right(times, at + _GROUP_S))


def _judge(
    heard: list[_Heard], added: Sequence[int], shape: Shape, heed: Callable[[], None]
) -> tuple[list[Kind], list[float | None], float | None]:
    """A kind for each event, the lag of each arrival, and the session's common lag."""
    kinds: list[Kind] = ["other"] * len(heard)
    hand = set(added)
    by_hand = [i for i, e in enumerate(heard) if e.frame in hand]
    lags: list[float | None] = [None] * len(heard)
    common = _common_lag(heard, heed)
    sure = common[1] if common else []
    times = [e.at for e in heard]
    around = {i for s in sure for i in _around(times, heard[s].at)}
    candidates = sorted([*sure, *_leaders(heard, around)])
    if not candidates:
        return kinds, lags, None
    chosen = set(by_hand)
    candidates = [i for i in candidates if i not in chosen] or by_hand
    shots = sorted(chosen | set(_alike(heard, sure, candidates, shape, heed)))
    for s in shots:
        kinds[s] = "shot"
    shot_times = [times[s] for s in shots]
    for i, at in enumerate(times):
        if kinds[i] == "shot":
            continue
        next_one = bisect_left(shot_times, at)
        if next_one > 0 and 0 < at - shot_times[next_one - 1] <= _GROUP_S:
            kinds[i], lags[i] = "arrival", at - shot_times[next_one - 1]
        elif next_one < len(shots) and 0 < shot_times[next_one] - at <= _CLICK_S:
            kinds[i] = "click"
    return kinds, lags, common[0] if common else None


def _alike(
    heard: list[_Heard],
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
        if (i in certain or alike) and (not shots or heard[i].at - heard[shots[-1]].at >= _GROUP_S):
            shots.append(i)
    return shots


def _decay_ms(power: Array, background: Array, start: int, end: int) -> float | None:
    part = np.convolve(
        power[start:end] - background[start:end],
        np.ones(_DECAY_FRAMES) / _DECAY_FRAMES,
        mode="same",
    )
    top = int(np.argmax(part))
    if part[top] <= 0 or part[top] < 10 ** (_DECAY_OVER_NOISE_DB / 10) * background[start + top]:
        return None  # 20 dB down would be under the noise
    under = np.flatnonzero(part[top:] < part[top] / 10 ** (_DECAY_DB / 10))
    return None if len(under) == 0 else float(under[0] * FRAME_S * 1000)


def _spectrum(weighted: Samples, rate_hz: float, a: int, b: int) -> tuple[Array, Array]:
    part = weighted[a:b] * np.hanning(b - a)[:, None]
    size = fft.next_fast_len(max(len(part), _LEAST_SPECTRUM), real=True)
    power = (np.abs(fft.rfft(part, size, axis=0)) ** 2).sum(axis=1)
    return np.arange(len(power)) * rate_hz / size, power


def _tone(
    weighted: Samples, rate_hz: float, start_s: float, end_s: float
) -> tuple[float | None, float | None]:
    """The strongest line from 200 ms on, and how far [dB] it stands over the median around it."""
    a, b = round((start_s + TONE_AFTER_S) * rate_hz), round(end_s * rate_hz)
    if b - a < _TONE_LEAST_S * rate_hz:
        return None, None
    hz, power = _spectrum(weighted, rate_hz, a, b)
    inside = (hz >= _TONE_HZ[0]) & (hz <= _TONE_HZ[1])
    top = int(np.flatnonzero(inside)[np.argmax(power[inside])])
    near = (hz > hz[top] / _TONE_BESIDE) & (hz < hz[top] * _TONE_BESIDE)
    return float(hz[top]), _db(float(power[top] / (np.median(power[near]) + TINY)))


def _sound(samples: Samples, spoil: bool) -> Samples:
    """Samples of shape (n, channels) as float32; a copy unless they may be overwritten."""
    data = np.asarray(samples, dtype=np.float32)
    if not spoil and np.may_share_memory(data, samples):
        data = data.copy()
    data = data[:, None] if data.ndim == 1 else data
    low, high = float(data.min()), float(data.max())
    if not np.isfinite([low, high]).all():
        raise RefusedError("file", "The recording holds values that are no numbers.")
    if max(high, -low) < _SILENT:
        raise RefusedError("file", "The recording is silent: was the microphone on?")
    return data


def _never() -> None:
    """Go on: nobody asked to stop."""


def analyse(
    samples: Samples,
    rate_hz: float,
    added_s: Sequence[float] = (),
    heed: Callable[[], None] = _never,
    spoil: bool = False,
) -> Sound:
    """Find what sounds in a recording and what it is.

    Parameters
    ----------
    samples : shape (n,) or (n, channels), full scale ±1
    rate_hz : sampling rate [Hz], at least 22.05 kHz
    added_s : times [s] that the archer calls shots, whatever was found there
    heed : called often; it raises to end the work
    spoil : whether the samples may be overwritten, which saves half of the memory

    The work grows with the length and, beyond that, with the number of events.

    Raises
    ------
    RefusedError : too slow a rate, too short or too long a recording, or silence.
    """
    if rate_hz < LEAST_RATE_HZ:
        raise RefusedError(
            "file", "Record at 22.05 kHz or faster: shots live up to 8 kHz.", LEAST_RATE_HZ, "Hz"
        )
    duration = len(samples) / rate_hz
    if not LEAST_S <= duration <= MOST_S:
        bound = LEAST_S if duration < LEAST_S else MOST_S
        raise RefusedError(
            "file",
            f"The recording lasts {duration:.1f} s; from {LEAST_S:g} s to {MOST_S / 60:g} min "
            "is listened to.",
            bound,
            "s",
        )
    weighted = a_weighted(_sound(samples, spoil), rate_hz, spoil=True, heed=heed)
    frames = frames_of(weighted, rate_hz)
    heed()
    last = len(frames.power) - 1
    added = sorted({round(t / FRAME_S) for t in added_s if 0 <= round(t / FRAME_S) < last - 60})
    heard = _hear(frames, added, heed)

    @cache
    def shape(event: _Heard) -> Array:
        return _shape(weighted, rate_hz, round(event.at * rate_hz))

    kinds, lags, common = _judge(heard, added, shape, heed)
    events = []
    for event, kind, lag in zip(heard, kinds, lags, strict=True):
        if kind == "shot":
            heed()
        decay = centroid = tone = above = None
        if kind == "shot":
            start, end = event.at, event.end * FRAME_S
            decay = _decay_ms(frames.power, frames.background, event.frame, event.end)
            a = round(start * rate_hz)
            hz, power = (
                _spectrum(weighted, rate_hz, a, a + round(SHAPE_S * rate_hz))
                if (a + round(SHAPE_S * rate_hz) <= len(weighted))
                else (np.ones(1), np.zeros(1))
            )
            centroid = float((hz * power).sum() / power.sum()) if power.sum() > 0 else None
            tone, above = _tone(weighted, rate_hz, start, end)
        events.append(
            SoundEvent(
                event.at, kind, lag, event.level, event.exposure, decay, centroid, tone, above
            )
        )
    per = max(1, len(frames.power) // _OUTLINE_POINTS)
    m = len(frames.power) // per
    slices = frames.power[: m * per].reshape(m, per).max(axis=1)
    return Sound(
        events=tuple(events),
        duration_s=duration,
        lag_s=common,
        noise_db=_db(float(np.median(frames.background))),
        outline_db=10 * np.log10(np.maximum(slices, TINY)),
        slice_s=per * FRAME_S,
        tone=session_tone(events),
    )
