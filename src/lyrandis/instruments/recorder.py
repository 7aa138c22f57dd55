"""A simulated recorder: a session of shots as a microphone beside the archer would hear it.

Each shot rings in the bow's own modes and dies away; its arrow arrives at the butt a flight
later, perhaps louder; a clicker may precede it, knocks may stand between. Deterministic by seed.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import brace_range_in, brace_reference_offset_in, brace_to_pivot_in
from lyrandis.core.parts import Rig
from lyrandis.core.sound.weighting import a_weighted
from lyrandis.core.tune.quiet import CHECKS, CheckId
from lyrandis.core.units import MM_PER_IN

_MODES_HZ = (92.0, 187.0, 341.0, 610.0, 1180.0, 2300.0)
_MODES_DB = (0.0, 2.0, 3.0, 1.0, -3.0, -8.0)
_USUAL_RESIDUE_FTLB = 9.0
_LOUDER_PER_CM2 = 1.6
_CLATTER_DB = 11.0  # under the shot, over an eighth of a second


@dataclass(frozen=True)
class Heard:
    """What truly sounded and when [s]: the answer sheet of a simulated session."""

    shots: tuple[float, ...]
    arrivals: tuple[float, ...]
    clicks: tuple[float, ...]
    knocks: tuple[float, ...]


@dataclass(frozen=True)
class SimulatedRecorder:
    """A session to be recorded.

    loudness_db : a shot's A-weighted level over 125 ms in dB of full scale
    noise_db : that of the background
    shot_sd_db : from shot to shot; arrival_db : louder than the shot by so much
    clicker : whether one clicks before each shot; knocks_per_minute : about the place
    looseness : 0 to 1, a rattle at 1.1 kHz that rings on
    clatter_db : of the shaft knocking on the bow after each shot, under the shot; None: it is clear
    """

    seed: int
    shots: int = 6
    seconds: float = 40.0
    rate_hz: int = 48_000
    channels: int = 1
    loudness_db: float = -24.0
    noise_db: float = -54.0
    shot_sd_db: float = 1.1
    arrival_db: float = 0.0
    flight_s: float = 0.35
    clicker: bool = False
    knocks_per_minute: float = 0.0
    looseness: float = 0.0
    clatter_db: float | None = None
    name: str = "simulated recorder"
    simulated: bool = True

    def record(self) -> tuple[Array, Heard]:
        """The recording, shape (n, channels) in full scale, and what truly sounded."""
        rng = np.random.default_rng([self.seed, 7])
        n = round(self.seconds * self.rate_hz)
        mono = np.zeros(n)
        room = (self.seconds - 2.5) / max(self.shots, 1)
        detune = rng.normal(1, 0.04, len(_MODES_HZ))
        tint = rng.normal(0, 2, len(_MODES_HZ))
        shots, arrivals, clicks, knocks = [], [], [], []
        for i in range(self.shots):
            at = 1.0 + i * room + rng.uniform(0, max(room - 2.2, 0.0))
            level = self.loudness_db + rng.normal(0, self.shot_sd_db)
            self._put(mono, at, self._shot(rng, detune, tint), level)
            shots.append(at)
            if self.clatter_db is not None:
                after, own = at + rng.uniform(0.012, 0.035), level - self.clatter_db
                self._put(mono, after, self._clack(rng), own + rng.normal(0, 2))
            arrival = at + self.flight_s + rng.normal(0, 0.004)
            self._put(mono, arrival, self._thump(rng), level + self.arrival_db + rng.normal(0, 1.5))
            arrivals.append(arrival)
            if self.clicker:
                click = at - rng.uniform(0.18, 0.42)
                self._put(mono, click, self._click(rng), level - rng.uniform(8, 14))
                clicks.append(click)
        for _ in range(rng.poisson(self.knocks_per_minute * self.seconds / 60)):
            at = rng.uniform(0.3, self.seconds - 0.8)
            self._put(mono, at, self._knock(rng), self.loudness_db + rng.uniform(-8, 6))
            knocks.append(at)
        noise = self._noise(rng, n, self.channels, self.rate_hz)
        out = mono[:, None] + noise * 10 ** (self.noise_db / 20)
        return np.clip(out, -1, 1), Heard(
            tuple(shots), tuple(arrivals), tuple(clicks), tuple(knocks)
        )

    def _time(self, seconds: float) -> Array:
        return np.arange(round(seconds * self.rate_hz)) / self.rate_hz

    def _put(self, into: Array, at: float, wave: Array, level_db: float) -> None:
        """Add a sound whose first 125 ms have an A-weighted power of `level_db` of full scale."""
        span = round(0.125 * self.rate_hz)
        heard = a_weighted(np.append(wave, np.zeros(span))[:, None], self.rate_hz)[:span]
        power = float(np.sum(heard**2)) / span
        start = round(at * self.rate_hz)
        part = wave[: max(len(into) - start, 0)]
        into[start : start + len(part)] += part * 10 ** (level_db / 20) / np.sqrt(power)

    def _shot(self, rng: np.random.Generator, detune: Array, tint: Array) -> Array:
        t = self._time(0.6)
        wave = np.zeros(len(t))
        for hz, db, off, colour in zip(_MODES_HZ, _MODES_DB, detune, tint, strict=True):
            tau = 0.05 * (200 / hz) ** 0.35
            phase = rng.uniform(0, 2 * np.pi)
            wave += (
                10 ** ((db + colour) / 20)
                * np.exp(-t / tau)
                * np.sin(2 * np.pi * hz * off * t + phase)
            )
        wave += 0.8 * np.exp(-t / 0.012) * rng.standard_normal(len(t))
        wave += self.looseness * 0.5 * np.exp(-t / 0.25) * np.sin(2 * np.pi * 1100 * t)
        return wave

    def _thump(self, rng: np.random.Generator) -> Array:
        t = self._time(0.25)
        return np.exp(-t / 0.02) * (
            2 * np.sin(2 * np.pi * rng.uniform(120, 160) * t) + rng.standard_normal(len(t))
        )

    def _click(self, rng: np.random.Generator) -> Array:
        t = self._time(0.03)
        return np.exp(-t / 0.003) * np.sin(2 * np.pi * rng.uniform(3000, 4500) * t)

    def _clack(self, rng: np.random.Generator) -> Array:
        t = self._time(0.04)
        hz = rng.uniform(2600, 4800)
        return np.exp(-t / rng.uniform(0.002, 0.005)) * np.sin(2 * np.pi * hz * t)

    def _knock(self, rng: np.random.Generator) -> Array:
        t = self._time(0.2)
        hz = rng.uniform(500, 1500)
        return np.exp(-t / rng.uniform(0.01, 0.04)) * np.sin(2 * np.pi * hz * t)

    @staticmethod
    def _noise(rng: np.random.Generator, n: int, channels: int, rate_hz: int) -> Array:
        """Background of unit A-weighted power in which low tones are the stronger, as outdoors."""
        white = rng.standard_normal((n, channels)).astype(np.float32)
        for c in range(channels):
            white[1:, c] += 0.5 * white[:-1, c]
        heard = a_weighted(white[: 1 << 16, :1], rate_hz)
        return np.asarray(white / np.sqrt(np.mean(heard**2)), dtype=float)


def of_rig(
    rig: Rig,
    seed: int,
    brace_in: float | None,
    shots: int,
    again: int,
    clicker: bool = False,
    check: CheckId | None = None,
    done: bool = False,
    clatter: bool = False,
) -> SimulatedRecorder:
    """The recorder beside an archer with this rig.

    A shot is 10 log10 of its residue louder than a usual one; the bow hides the brace at which it
    is quietest (by `seed`), and is louder by 1.6 dB for each cm² away from it.

    Parameters
    ----------
    brace_in : brace height to the bow's own reference [in]; the rig's own if None
    again : counts the takes: each has its own noise and its own day
    check, done : a quiet check and whether it was made: each hides what it gains, 0 to 3 dB, and
        loose parts ring until they are tightened
    clatter : whether the shaft knocks on the bow as it leaves
    """
    bench = Bench(rig)
    low, high, _ = brace_range_in(rig.bow)
    hidden = np.random.default_rng([seed, 3])
    middle, half = (low + high) / 2 * MM_PER_IN, (high - low) / 2 * MM_PER_IN
    quietest = middle + half * hidden.uniform(-0.7, 0.7)
    offset = brace_reference_offset_in(rig.bow)
    pivot = brace_to_pivot_in(rig.bow) if brace_in is None else brace_in - offset
    brace = pivot * MM_PER_IN
    away = (brace - quietest) / 10
    loud = -26.0 + 10 * np.log10(bench.arrow.shot.residual_energy_ftlb / _USUAL_RESIDUE_FTLB)
    loud += _LOUDER_PER_CM2 * away**2
    if done and check is not None:
        place = [c.id for c in CHECKS].index(check)
        loud -= np.random.default_rng([seed, 11, place]).uniform(0, 3)
    day = np.random.default_rng([seed, again, 5]).normal(0, 0.35)
    return SimulatedRecorder(
        seed=seed * 1000 + again,
        shots=shots,
        seconds=2.5 + 4.0 * shots,
        loudness_db=float(np.clip(loud + day, -45, -8)),
        arrival_db=2.0,
        flight_s=0.45,
        clicker=clicker,
        looseness=1.0 if check == "loose" and not done else 0.0,
        clatter_db=_CLATTER_DB if clatter else None,
    )
