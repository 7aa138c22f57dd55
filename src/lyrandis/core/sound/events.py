"""What sounds in a recording: shots, their arrivals at the butt, clicks before them, and others.

Source: docs/mechanics E3. Shots are told by the likeness to those the archer marked, else by a lag
to their arrivals that is common to the session; where that can be read two ways, the archer is
asked. Without a calibration tone only differences within one session count.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache
from itertools import takewhile
from typing import Protocol

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.sound.asking import ask_for_a_shot
from lyrandis.core.sound.contact import clatters, contact_s
from lyrandis.core.sound.likeness import alike, marked, of_one_kind
from lyrandis.core.sound.measures import (
    SHAPE_S,
    decay_ms,
    octaves_db,
    quarters_db,
    spectrum,
    to_db,
    tone_of,
)
from lyrandis.core.sound.onsets import FRAME_S, TINY, Frames, frames_of
from lyrandis.core.sound.pairing import Heard, Kind, hear, kinds_of, paired
from lyrandis.core.sound.usable import Spoilt, clipped_at, spoilt
from lyrandis.core.sound.weighting import Samples, a_weighted

LEAST_RATE_HZ, LEAST_S, MOST_S = 22_050, 0.5, 1200.0
_SILENT = 1e-7  # of full scale
_OUTLINE_POINTS = 1200
_HEARD_SHARE = 0.8  # of the work is done when it is weighted


class Heed(Protocol):
    """Called often; it may be told a share of the whole (0 to 1), and raises to end the work."""

    def __call__(self, share: float | None = None) -> None: ...


@dataclass(frozen=True)
class SoundEvent:
    """One sound: when [s], what, and for a shot how loud and how it dies away.

    level_db : loudest 125 ms; exposure_db : over up to 400 ms; both A-weighted, less background,
        dB of full scale, so that only differences within one recording mean anything
    lag_s : of an arrival, after its shot
    decay_ms : to 20 dB under the peak; centroid_hz; tone_hz and tone_above_db : the strongest
        line after 200 ms and how far it stands over its neighbours; None where not to be told
    usable : whether a level may be used; spoilt : what spoils it
    contact_ms : how long after a shot something knocks on the bow; None where nothing does
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
    usable: bool
    spoilt: Spoilt | None
    contact_ms: float | None = None


@dataclass(frozen=True)
class Sound:
    """A recording analysed: its events, and an outline for the drawing.

    outline_db : loudest frame of each slice, shape (m,); slice_s : their length
    tone : that of the shot in the middle by how far its tone stands out, [Hz] and [dB] over its
        neighbours; None where no shot rang on long enough to tell
    clatter : whether the shots clatter; None of fewer than two shots
    ask : why the archer should mark a shot of their own; then nothing is called a shot before
    """

    events: tuple[SoundEvent, ...]
    duration_s: float
    lag_s: float | None
    noise_db: float
    outline_db: Array
    slice_s: float
    tone: tuple[float, float] | None
    ask: str | None
    clatter: bool | None = None


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


def _never(share: float | None = None) -> None:
    """Go on: nobody asked to stop."""


def _refuse(length: int, rate_hz: float) -> float:
    """The recording's length [s]; raises RefusedError for what cannot be listened to."""
    if rate_hz < LEAST_RATE_HZ:
        raise RefusedError(
            "file", "Record at 22.05 kHz or faster: shots live up to 8 kHz.", LEAST_RATE_HZ, "Hz"
        )
    duration = length / rate_hz
    if not LEAST_S <= duration <= MOST_S:
        bound = LEAST_S if duration < LEAST_S else MOST_S
        raise RefusedError(
            "file",
            f"The recording lasts {duration:.1f} s; from {LEAST_S:g} s to {MOST_S / 60:g} min "
            "is listened to.",
            bound,
            "s",
        )
    return duration


@dataclass(frozen=True)
class _Listened:
    """A recording while it is judged."""

    weighted: Samples
    rate_hz: float
    frames: Frames
    clipped: Array
    duration_s: float

    def event(self, heard: Heard, kind: Kind, lag: float | None) -> SoundEvent:
        """An event as it is told; how it dies away and rings only of a shot."""
        why = spoilt(heard, self.clipped, self.frames, self.weighted, self.rate_hz, self.duration_s)
        decay = centroid = tone = above = None
        if kind == "shot":
            decay = decay_ms(self.frames.power, self.frames.background, heard.frame, heard.end)
            a = round(heard.at * self.rate_hz)
            b = a + round(SHAPE_S * self.rate_hz)
            if b <= len(self.weighted):
                hz, power = spectrum(self.weighted, self.rate_hz, a, b)
                centroid = float((hz * power).sum() / power.sum()) if power.sum() > 0 else None
            tone, above = tone_of(self.weighted, self.rate_hz, heard.at, heard.end * FRAME_S)
        return SoundEvent(
            heard.at, kind, lag, heard.level, heard.exposure, decay, centroid, tone, above,
            why is None, why,
        )  # fmt: skip

    def with_contact(self, shot: SoundEvent, events: Sequence[SoundEvent]) -> SoundEvent:
        """A shot with what knocks after it; its arrival is the latest before the next shot."""
        since = [e for e in events if e.at_s > shot.at_s]
        arrivals = [e.at_s for e in takewhile(lambda e: e.kind != "shot", since)
                    if e.kind == "arrival"]  # fmt: skip
        told = contact_s(
            self.weighted, self.rate_hz, shot.at_s, max(arrivals) if arrivals else None
        )
        return shot if told is None else replace(shot, contact_ms=1000 * told)

    def outline(self) -> tuple[Array, float]:
        """The loudest frame of each slice [dB], and a slice's length [s]."""
        power = self.frames.power
        per = max(1, len(power) // _OUTLINE_POINTS)
        m = len(power) // per
        slices = power[: m * per].reshape(m, per).max(axis=1)
        return 10 * np.log10(np.maximum(slices, TINY)), per * FRAME_S


def analyse(
    samples: Samples,
    rate_hz: float,
    added_s: Sequence[float] = (),
    heed: Heed = _never,
    spoil: bool = False,
    mine_s: Sequence[float] = (),
) -> Sound:
    """Find what sounds in a recording and what it is.

    Parameters
    ----------
    samples : shape (n,) or (n, channels), full scale ±1
    rate_hz : sampling rate [Hz], at least 22.05 kHz
    added_s : times [s] that the archer calls shots, whatever was found there
    heed : called often; it is told how far the work is, and raises to end it
    spoil : whether the samples may be overwritten, which saves half of the memory
    mine_s : times [s] of shots marked as the archer's own: the others are told by their likeness

    The work grows with the length and, beyond that, with the number of events.

    Raises
    ------
    RefusedError : too slow a rate, too short or too long a recording, or silence.
    """
    duration = _refuse(len(samples), rate_hz)
    data = _sound(samples, spoil)
    clipped = clipped_at(data)
    weighted = a_weighted(data, rate_hz, True, lambda share: heed(_HEARD_SHARE * share))
    frames = frames_of(weighted, rate_hz)
    heed(_HEARD_SHARE)
    told = _Listened(weighted, rate_hz, frames, clipped, duration)
    last = len(frames.power) - 1
    added = sorted({round(t / FRAME_S) for t in added_s if 0 <= round(t / FRAME_S) < last - 60})
    heard = hear(frames, added, heed)

    @cache
    def shape(event: Heard) -> Array:
        return octaves_db(weighted, rate_hz, round(event.at * rate_hz))

    @cache
    def bands(event: Heard) -> Array:
        return quarters_db(weighted, rate_hz, round(event.at * rate_hz))

    by_hand = [i for i, e in enumerate(heard) if e.frame in set(added)]
    mine = marked(heard, mine_s)
    lag = ask = None
    if mine:
        shots = alike(heard, sorted({*mine, *by_hand}), bands)
    else:
        shots, lag = paired(heard, added, shape, heed)
        kinds, _ = kinds_of(heard, shots, lag)
        found = [i for i in shots if i not in by_hand]
        ask = ask_for_a_shot(heard, found, kinds, lag, bands, heed)
        if ask:
            shots, lag = by_hand, None
        else:
            shots = sorted({*of_one_kind(heard, shots, bands), *by_hand})
    kinds, lags = kinds_of(heard, shots, lag)
    if mine:
        lag = _usual_lag(lags)
    events = []
    for event, kind, after in zip(heard, kinds, lags, strict=True):
        if kind == "shot":
            heed()
        events.append(told.event(event, kind, after))
    events = [told.with_contact(e, events) if e.kind == "shot" else e for e in events]
    outline, slice_s = told.outline()
    return Sound(
        events=tuple(events),
        duration_s=duration,
        lag_s=lag,
        noise_db=to_db(float(np.median(frames.background))),
        outline_db=outline,
        slice_s=slice_s,
        tone=session_tone(events),
        ask=ask,
        clatter=clatters([e.contact_ms for e in events if e.kind == "shot" and e.usable]),
    )


def _usual_lag(lags: Sequence[float | None]) -> float | None:
    """The arrival's lag [s] in the middle; None where nothing arrived."""
    known = [lag for lag in lags if lag is not None]
    return float(np.median(known)) if known else None
