"""Making a bow quiet: the ordered checks, and what each change did, before against after.

Source: practice section 10; the scatter of shots and visits from docs/mechanics E2. A tone is only
ever told as a change since the visit before, never as a verdict: the bow itself rings.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.estimate import Estimate
from lyrandis.core.stops import StationId
from lyrandis.core.tune.shots import SHOT_SD_DB

CheckId = Literal["brace", "strand", "strands", "loose", "dampers", "tune"]
CheckVerdict = Literal["quieter", "louder", "same", "looked"]
GROWN_DB = 6.0
VISIT_SD_DB = 1.0  # two visits with nothing changed may differ so much; more than most do
TOLD_FROM = 2.0  # times its ±
# Likely places by frequency [Hz]; own rule, a hint where to look first.
_PLACES: tuple[tuple[float, str], ...] = (
    (200.0, "limbs, riser and string themselves"),
    (800.0, "weights, stabiliser, quiver"),
    (math.inf, "screws, rest, plunger, string loops"),
)


@dataclass(frozen=True)
class Check:
    """One thing to look at, what to do, why, and the station where it is set."""

    id: CheckId
    title: str
    do: str
    why: str
    station: StationId


CHECKS: tuple[Check, ...] = (
    Check(
        "brace",
        "Brace height",
        "Sweep the brace height first: listen, change some twists, listen again.",
        "It moves the sound more than anything hung on the bow.",
        "brace",
    ),
    Check(
        "strand",
        "A loose strand",
        "Run the string through your fingers under light and look for one strand off the bundle.",
        "A loose strand slaps at each shot and cannot be seen unless looked for.",
        "string",
    ),
    Check(
        "strands",
        "Strand count",
        "Compare the strands with what is usual for the weight.",
        "Too few are thin and loud, too many dull the bow.",
        "string",
    ),
    Check(
        "loose",
        "Loose parts",
        "Tighten weights, screws, rest and quiver; pluck the string and listen. Plucks can be "
        "recorded in place of shots, their rattle is kept with them.",
        "One loose screw hides everything else, a crack too.",
        "assembly",
    ),
    Check(
        "dampers",
        "Dampers",
        "Silencers on the string, dampers on limbs and fittings where your class allows them.",
        "They take what is left; on the string they cost a little speed.",
        "string",
    ),
    Check(
        "tune",
        "The tune",
        "Look at grains per pound and spine again.",
        "An under-spined or too light arrow is loud whatever else is done.",
        "arrow",
    ),
)


@dataclass(frozen=True)
class Tried:
    """One check as it was made: levels [dB] before and after, the strongest tones [Hz, dB].

    Both without levels: looked at, and nothing found.
    """

    seq: int
    check: CheckId
    before_db: tuple[float, ...]
    after_db: tuple[float, ...]
    tone_before_db: float | None = None
    tone_after_db: float | None = None
    tone_after_hz: float | None = None


@dataclass(frozen=True)
class CheckDone:
    """One change measured: the difference after − before [dB] with its ±, and what it means.

    tone_hz : a tone that has grown by at least 6 dB, with by how much and where to look first
    """

    seq: int
    check: CheckId
    before_db: tuple[float, ...]
    after_db: tuple[float, ...]
    before_mean_db: float | None
    after_mean_db: float | None
    difference_db: Estimate | None
    verdict: CheckVerdict
    tone_hz: float | None
    tone_grown_db: float | None
    tone_places: str | None


@dataclass(frozen=True)
class Quiet:
    """A session's checks, the next one in order, and what they made together [dB] with its ±.

    made : the checks that are done, in their order; the sweep of the brace height counts as one
    """

    day: str | None
    done: tuple[CheckDone, ...]
    made: tuple[CheckId, ...]
    next: CheckId | None
    together_db: Estimate | None


def difference(before: tuple[float, ...], after: tuple[float, ...]) -> Estimate:
    """Mean of after − mean of before [dB], ± from shots (1.1 dB) and visits (1 dB)."""
    variance = sum(SHOT_SD_DB**2 / len(v) + VISIT_SD_DB**2 for v in (before, after))
    return Estimate(
        value=float(np.mean(after) - np.mean(before)),
        plus_minus=math.sqrt(variance),
        source="measured",
    )


def likely_places(hz: float) -> str:
    """Where to look first for a tone [Hz]."""
    return next(places for limit, places in _PLACES if hz <= limit)


def _grown(trial: Tried) -> tuple[float, float] | None:
    """A tone [Hz] that has grown, and by how much [dB]."""
    if None in (trial.tone_before_db, trial.tone_after_db, trial.tone_after_hz):
        return None
    rise = (trial.tone_after_db or 0.0) - (trial.tone_before_db or 0.0)
    return (trial.tone_after_hz or 0.0, rise) if rise >= GROWN_DB else None


def judge(trial: Tried) -> CheckDone:
    """What one change did: told as quieter or louder from twice its ± on."""
    before, after = trial.before_db, trial.after_db
    d = difference(before, after) if before and after else None
    verdict: CheckVerdict = "looked" if d is None else "same"
    if d is not None and abs(d.value) > TOLD_FROM * d.plus_minus:
        verdict = "quieter" if d.value < 0 else "louder"
    grown = _grown(trial)
    return CheckDone(
        seq=trial.seq,
        check=trial.check,
        before_db=before,
        after_db=after,
        before_mean_db=float(np.mean(before)) if d else None,
        after_mean_db=float(np.mean(after)) if d else None,
        difference_db=d,
        verdict=verdict,
        tone_hz=grown[0] if grown else None,
        tone_grown_db=grown[1] if grown else None,
        tone_places=likely_places(grown[0]) if grown else None,
    )


def quiet(day: str | None, tried: Sequence[Tried], swept: bool = False) -> Quiet:
    """The checks of one day; levels of other days do not compare.

    swept : a sweep of the brace height came to its end: that is the first check
    """
    done = tuple(judge(t) for t in tried)
    ticked = {d.check for d in done} | ({"brace"} if swept else set())
    made = tuple(c.id for c in CHECKS if c.id in ticked)
    following = next((c.id for c in CHECKS if c.id not in ticked), None)
    measured = [d.difference_db for d in done if d.difference_db is not None]
    together = None
    if measured:
        together = Estimate(
            value=sum(d.value for d in measured),
            plus_minus=math.sqrt(sum(d.plus_minus**2 for d in measured)),
            source="measured",
        )
    return Quiet(day, done, made, following, together)
