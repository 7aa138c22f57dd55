"""What each sound of a recording is: a shot, its arrival at the butt, a click before it, or other.

Source: docs/mechanics E3. An arrival follows its shot by one lag common to the session; shots are
alike in level and shape. Without a calibration tone only differences within one session count.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np
from scipy import fft

from lyrandis.core.bow.geometry import Array
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
    """

    events: tuple[SoundEvent, ...]
    duration_s: float
    lag_s: float | None
    noise_db: float
    outline_db: Array
    slice_s: float

    @property
    def tone(self) -> tuple[float, float] | None:
        """The shots' tone: that of the shot in the middle by how far [dB] its tone stands out.

        Frequency [Hz] and height [dB]; None where no shot rang on long enough to tell.
        """
        rung = [
            (e.tone_above_db, e.tone_hz)
            for e in self.events
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
    shape: Array

    @property
    def at(self) -> float:
        return self.frame * FRAME_S


def _db(power: float) -> float:
    return float(10 * np.log10(max(power, TINY)))


def _shape(weighted: Samples, rate_hz: float, start: int) -> Array:
    """Seven octave bands from 60 Hz over 100 ms, dB of their total."""
    part = weighted[start : start + int(SHAPE_S * rate_hz)]
    if len(part) < 64:
        return np.zeros(7)
    power = (np.abs(fft.rfft(part, axis=0)) ** 2).sum(axis=1)
    at = np.searchsorted(np.arange(len(power)) * rate_hz / len(part), _BANDS_HZ)
    bands = np.array([power[a:b].sum() for a, b in pairwise(at)]) + TINY
    shape: Array = 10 * np.log10(bands / bands.sum())
    return np.maximum(shape, -40.0)


def _hear(
    weighted: Samples, rate_hz: float, frames: Frames, added: Sequence[int] = ()
) -> list[_Heard]:
    # What was added by hand stands in for any onset found close by.
    found = [k for k in onsets(frames) if all(abs(k - a) * FRAME_S > _NEAR_S for a in added)]
    starts = sorted([*found, *added])
    gap, cut = round(_GAP_S / FRAME_S), round(_CUT_S / FRAME_S)
    clean = np.concatenate([[0.0], np.cumsum(frames.power - frames.background)])
    heard = []
    for k in starts:
        later = next((j for j in starts if j - k >= gap), None)
        end = min(k + round(EXPOSURE_S / FRAME_S), len(frames.power))
        if later is not None:
            end = min(end, later - cut)
        span = min(round(LEVEL_S / FRAME_S), end - k)
        if span < 4:
            continue
        first = np.arange(k, end - span + 1)
        level = float((clean[first + span] - clean[first]).max()) / round(LEVEL_S / FRAME_S)
        exposure = float(clean[end] - clean[k]) * FRAME_S
        shape = _shape(weighted, rate_hz, round(k * FRAME_S * rate_hz))
        heard.append(_Heard(k, end, _db(level), _db(exposure), shape))
    return heard


def _common_lag(heard: list[_Heard]) -> tuple[float, list[int]] | None:
    """The lag [s] from shot to arrival that most pairs share, and the firsts of those pairs."""
    pairs = [
        (b.at - a.at, i)
        for i, a in enumerate(heard)
        for b in heard[i + 1 :]
        if _LAG_S[0] <= b.at - a.at <= _LAG_S[1]
    ]
    pairs.sort()
    best: tuple[int, float, list[int]] | None = None
    for n, (start, _) in enumerate(pairs):
        inside = [(lag, i) for lag, i in pairs[n:] if lag <= start + _LAG_WIDTH_S]
        firsts = sorted({i for _, i in inside})
        middle = float(np.median([heard[i].level for i in firsts]))
        alike = [i for i in firsts if abs(heard[i].level - middle) <= _PAIR_DB]
        apart = _apart(heard, alike)
        if len(apart) >= _LEAST_PAIRS and (best is None or len(apart) > best[0]):
            lag = float(np.median([lag for lag, i in inside if i in apart]))
            best = (len(apart), lag, apart)
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
    while free:
        group = [i for i in free if heard[i].at - heard[free[0]].at < _GROUP_S]
        leader = group[0]
        for i in group[1:]:
            if heard[i].level > heard[leader].level + _LOUDER_DB:
                leader = i
        led.append(leader)
        free = [i for i in free if heard[i].at - heard[leader].at >= _GROUP_S]
    return led


def _judge(
    heard: list[_Heard], added: Sequence[int] = ()
) -> tuple[list[Kind], list[float | None], float | None]:
    """A kind for each event, the lag of each arrival, and the session's common lag."""
    kinds: list[Kind] = ["other"] * len(heard)
    by_hand = [i for i, e in enumerate(heard) if e.frame in added]
    lags: list[float | None] = [None] * len(heard)
    common = _common_lag(heard)
    sure = common[1] if common else []
    around: set[int] = set()
    for s in sure:
        around |= {i for i, e in enumerate(heard) if -_CLICK_S <= e.at - heard[s].at <= _GROUP_S}
    candidates = sorted([*sure, *_leaders(heard, around)])
    if not candidates:
        return kinds, lags, None
    candidates = [i for i in candidates if i not in by_hand] or by_hand
    model = sure or candidates
    level = float(np.median([heard[i].level for i in model]))
    shape = np.median([heard[i].shape for i in model], axis=0)
    mad = float(np.median([abs(heard[i].level - level) for i in model])) * 1.4826
    limit = max(_ACCEPT_DB, _ACCEPT_MADS * mad)
    shots: list[int] = []
    for i in candidates:
        alike = abs(heard[i].level - level) <= limit
        alike = alike and float(np.mean(np.abs(heard[i].shape - shape))) <= _SHAPE_DB
        if (i in sure or alike) and (not shots or heard[i].at - heard[shots[-1]].at >= _GROUP_S):
            shots.append(i)
    for s in {*shots, *by_hand}:
        kinds[s] = "shot"
    shots = sorted({*shots, *by_hand})
    for i, event in enumerate(heard):
        if kinds[i] == "shot":
            continue
        before = [s for s in shots if 0 < event.at - heard[s].at <= _GROUP_S]
        after = [s for s in shots if 0 < heard[s].at - event.at <= _CLICK_S]
        if before:
            kinds[i], lags[i] = "arrival", event.at - heard[before[-1]].at
        elif after:
            kinds[i] = "click"
    return kinds, lags, common[0] if common else None


def _decay_ms(power: Array, background: Array, start: int, end: int) -> float | None:
    part = np.convolve(power[start:end] - background[start:end], np.ones(4) / 4, mode="same")
    top = int(np.argmax(part))
    if part[top] <= 0 or part[top] < 200 * background[start + top]:
        return None  # 20 dB down would be under the noise
    under = np.flatnonzero(part[top:] < part[top] / 100)
    return None if len(under) == 0 else float(under[0] * FRAME_S * 1000)


def _spectrum(weighted: Samples, rate_hz: float, a: int, b: int) -> tuple[Array, Array]:
    part = weighted[a:b] * np.hanning(b - a)[:, None]
    size = fft.next_fast_len(max(len(part), 8192), real=True)
    power = (np.abs(fft.rfft(part, size, axis=0)) ** 2).sum(axis=1)
    return np.arange(len(power)) * rate_hz / size, power


def _tone(
    weighted: Samples, rate_hz: float, start_s: float, end_s: float
) -> tuple[float | None, float | None]:
    """The strongest line from 200 ms on, and how far [dB] it stands over the median around it."""
    a, b = round((start_s + TONE_AFTER_S) * rate_hz), round(end_s * rate_hz)
    if b - a < 0.1 * rate_hz:
        return None, None
    hz, power = _spectrum(weighted, rate_hz, a, b)
    inside = (hz >= _TONE_HZ[0]) & (hz <= _TONE_HZ[1])
    top = int(np.flatnonzero(inside)[np.argmax(power[inside])])
    near = (hz > hz[top] / 1.5) & (hz < hz[top] * 1.5)
    return float(hz[top]), _db(float(power[top] / (np.median(power[near]) + TINY)))


def analyse(samples: Samples, rate_hz: float, added_s: Sequence[float] = ()) -> Sound:
    """Find what sounds in a recording and what it is.

    Parameters
    ----------
    samples : shape (n,) or (n, channels), full scale ±1
    rate_hz : sampling rate [Hz], at least 22.05 kHz
    added_s : times [s] that the archer calls shots, whatever was found there

    Raises
    ------
    RefusedError : too slow a rate, too short or too long a recording, or silence.
    """
    if rate_hz < LEAST_RATE_HZ:
        raise RefusedError(
            "file", "Record at 22.05 kHz or faster: shots live up to 8 kHz.", LEAST_RATE_HZ, "Hz"
        )
    data = np.asarray(samples, dtype=np.float32)
    data = data[:, None] if data.ndim == 1 else data
    duration = len(data) / rate_hz
    if not LEAST_S <= duration <= MOST_S:
        bound = LEAST_S if duration < LEAST_S else MOST_S
        raise RefusedError(
            "file",
            f"The recording lasts {duration:.1f} s; from {LEAST_S:g} s to {MOST_S / 60:g} min "
            "is listened to.",
            bound,
            "s",
        )
    if not np.isfinite(data).all():
        raise RefusedError("file", "The recording holds values that are no numbers.")
    if float(np.abs(data).max()) < 1e-7:
        raise RefusedError("file", "The recording is silent: was the microphone on?")
    weighted = a_weighted(data, rate_hz)
    frames = frames_of(weighted, rate_hz)
    last = len(frames.power) - 1
    added = sorted({round(t / FRAME_S) for t in added_s if 0 <= round(t / FRAME_S) < last - 60})
    heard = _hear(weighted, rate_hz, frames, added)
    kinds, lags, common = _judge(heard, added)
    events = []
    for event, kind, lag in zip(heard, kinds, lags, strict=True):
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
    per = max(1, len(frames.power) // 1200)
    m = len(frames.power) // per
    slices = frames.power[: m * per].reshape(m, per).max(axis=1)
    return Sound(
        events=tuple(events),
        duration_s=duration,
        lag_s=common,
        noise_db=_db(float(np.median(frames.background))),
        outline_db=10 * np.log10(np.maximum(slices, TINY)),
        slice_s=per * FRAME_S,
    )
