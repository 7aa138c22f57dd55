"""Twists: how many turns move the brace height how far, learnt from every measured change.

A bundle of n strands of diameter d twisted t full turns shortens by
Δ = S_u − √(S_u² − (2πt)² R²/2), R = (d/2)√(n/0.8): quadratic in the turns already in
(docs/mechanics E1). What a millimetre of slack string moves the brace is the bow model's (A5).
Their product is uncertain by about a quarter until a change was measured.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.bow.statics import Statics, half_slack_at
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding, fine, mind, say, stop
from lyrandis.core.parts import String, StringMaterial
from lyrandis.core.units import M_PER_IN, MM_PER_IN

PACKING = 0.8
# Ordinary strand diameters [mm] by material; own figures, the spool's word wins.
STRAND_MM: dict[StringMaterial, float] = {"low_stretch": 0.42, "polyester": 0.48, "natural": 0.55}
FACTOR_SD = 0.25  # how far model and string differ before a change was measured: own estimate
READING_SD_MM = 0.5  # a bow square is read to about this
ANOTHER_STRING_IN = 0.375
# Own rule for two-bundle strings, in turns for each inch of string.
LEAST_PER_IN, MOST_PER_IN = 0.15, 0.80
_STEP_M = 0.0005
_LEAST_FACTOR = 0.2
_ODD = (0.4, 1.8)  # a measured effect outside this, over the model's, is likelier a miscount


@dataclass(frozen=True)
class Twisted:
    """What the turns do.

    turns : to add (negative: to take out) [turns], with its ± from what is known of the string
    string_change_mm : how much longer (positive) the string gets [mm]
    brace_per_turn_mm : what the next turn moves [mm], as the string is now
    factor : the measured effect over the model's [-], with its ±
    order_length_in : the string to order instead [in], where twisting is not the way; else None
    """

    turns: float
    turns_plus_minus: float
    string_change_mm: float
    brace_per_turn_mm: float
    factor: float
    factor_plus_minus: float
    order_length_in: float | None
    findings: tuple[Finding, ...]


def same_string(a: String, b: String) -> bool:
    """Whether two strings are one and the same as far as twists go: only turns may differ."""
    return (a.material, a.strands, a.strand_diameter_mm, a.length_in, a.build) == (
        b.material,
        b.strands,
        b.strand_diameter_mm,
        b.length_in,
        b.build,
    )


def bundle_radius_mm(strands: int, diameter_mm: float) -> float:
    """Radius [mm] of a bundle of strands packed to 0.8 of its section."""
    return diameter_mm / 2 * math.sqrt(strands / PACKING)


def shortening_mm(untwisted_mm: float, radius_mm: float, turns: float) -> float:
    """How much shorter [mm] a bundle of a length [mm] is after full turns.

    Raises
    ------
    RefusedError : more turns than the bundle has length for.

    >>> round(shortening_mm(1372.0, bundle_radius_mm(18, 0.42), 30.0), 2)
    6.44
    """
    inner = untwisted_mm**2 - (2 * math.pi * turns) ** 2 * radius_mm**2 / 2
    if inner <= 0:
        raise RefusedError("string.twists", "That many turns would use up the whole string.")
    return untwisted_mm - math.sqrt(inner)


def turns_for(untwisted_mm: float, radius_mm: float, shortening: float) -> float:
    """The inverse of `shortening_mm`: full turns for a shortening [mm] of at least 0."""
    inner = untwisted_mm**2 - (untwisted_mm - shortening) ** 2
    return math.sqrt(2 * inner) / (2 * math.pi * radius_mm)


@lru_cache(maxsize=256)
def brace_per_string_slack(bow: Statics, toward_m: float = 0.0) -> float:
    """Brace gained [-] for each length the whole slack string is shortened by (A5).

    toward_m : the change of brace [m] over which it is meant; where the string lifts off a
        static lever up and down differ

    Raises
    ------
    RefusedError : no braced shape beside the present one.
    """
    for change in (toward_m, _STEP_M, -_STEP_M):
        if abs(change) < _STEP_M:
            continue
        try:
            there = half_slack_at(bow, bow.brace_x + change)
        except ValueError:  # no braced shape there: what it is here
            continue
        return change / (2 * (bow.braced.half_slack - there))
    raise RefusedError(
        "string.twists", "No brace height beside the present one would hold a string."
    )


def string_radius_mm(string: String) -> float:
    """The radius [mm] of a string's bundle."""
    return bundle_radius_mm(string.strands, string.strand_diameter_mm or STRAND_MM[string.material])


def _bundle(string: String, length_in: float, turns: float) -> tuple[float, float]:
    """The untwisted length and the radius [mm] of a string with so many turns in it."""
    radius = string_radius_mm(string)
    return math.hypot(length_in * MM_PER_IN, 2 * math.pi * turns * radius / math.sqrt(2)), radius


def brace_at_turns_in(
    bow: Statics,
    string: String,
    length_in: float,
    measured: tuple[float, float],
    turns: float,
) -> float:
    """The brace [in] of a string at other turns than it was measured at.

    Parameters
    ----------
    length_in : the string's length [in, loop to loop] at the turns it was measured at
    measured : turns, and the brace then [in, any reference]

    Source: docs/mechanics E1 and A5, without what was learnt of this string's own turns.
    """
    then, brace = measured
    untwisted, radius = _bundle(string, length_in, then)
    shorter = shortening_mm(untwisted, radius, turns) - shortening_mm(untwisted, radius, then)
    return brace + brace_per_string_slack(bow) * shorter / MM_PER_IN


@dataclass(frozen=True)
class _Learnt:
    """brace = b0 + factor · gained, as readings of ± 0.5 mm each tell it; factor N(1, 0.25²).

    All in mm; b0 and factor are told together, so that what the readings share is counted once.
    """

    b0: float
    factor: float
    factor_sd: float
    gained_mean: float
    readings: int

    @classmethod
    def of(cls, gained_mm: Sequence[float], brace_mm: Sequence[float]) -> _Learnt:
        g, b = np.asarray(gained_mm), np.asarray(brace_mm)
        g0, y0 = g - g.mean(), b - b.mean()
        precision = float(g0 @ g0) / READING_SD_MM**2 + 1 / FACTOR_SD**2
        factor = (float(g0 @ y0) / READING_SD_MM**2 + 1 / FACTOR_SD**2) / precision
        b0 = float(b.mean() - factor * g.mean())
        return cls(b0, factor, precision**-0.5, float(g.mean()), len(g))

    def needed(self, brace_mm: float) -> tuple[float, float]:
        """What must be gained [mm] for a brace, and its ±: the readings' own error is in it."""
        gained = (brace_mm - self.b0) / self.factor
        variance = (
            READING_SD_MM**2 / self.readings + (gained - self.gained_mean) ** 2 * self.factor_sd**2
        )
        return gained, math.sqrt(variance) / abs(self.factor)


def twist(
    bow: Statics,
    string: String,
    length_in: float,
    twists_now: float,
    brace_now_in: float,
    brace_wanted_in: float,
    observed: Sequence[tuple[float, float]] = (),
) -> Twisted:
    """How many turns bring the brace height from one to another.

    Parameters
    ----------
    bow : the solved bow at its present brace
    length_in : the string's present length, loop to loop [in]
    twists_now : full turns in it now
    brace_now_in, brace_wanted_in : to one and the same reference [in]
    observed : earlier pairs of turns and brace height [in] with this string, same reference

    Raises
    ------
    RefusedError : a brace that no number of turns of this string reaches.

    Source: docs/mechanics E1, A5; limits of turns are an own rule.
    """
    untwisted, radius = _bundle(string, length_in, twists_now)
    gain = brace_per_string_slack(bow, (brace_wanted_in - brace_now_in) * M_PER_IN)
    pairs = [*observed, (twists_now, brace_now_in)]
    gained = [gain * shortening_mm(untwisted, radius, t) for t, _ in pairs]
    learnt = _Learnt.of(gained, [b * MM_PER_IN for _, b in pairs])
    factor, sd = learnt.factor, learnt.factor_sd
    if factor <= _LEAST_FACTOR:
        raise RefusedError(
            "observed",
            "By these measurements more turns do not raise the brace. Count the turns again and "
            "measure the brace at the same place.",
        )
    here = shortening_mm(untwisted, radius, twists_now)
    needed, needed_sd = learnt.needed(brace_wanted_in * MM_PER_IN)
    there, there_sd = needed / gain, needed_sd / gain
    order = length_in - (brace_wanted_in - brace_now_in) / gain
    if not 0 <= there < untwisted:
        raise RefusedError(
            "bow.brace_height_in",
            say(
                "Even with no turn left this string does not come {out} lower: take one of "
                "about {order}.",
                out=("brace", abs(brace_wanted_in - brace_now_in)),
                order=("bow_length", order),
            ),
            learnt.b0 / MM_PER_IN,
            "in",
        )
    turns = turns_for(untwisted, radius, there) - twists_now
    low, high = (
        turns_for(untwisted, radius, min(max(there + side * there_sd, 0.0), 0.99 * untwisted))
        for side in (-1, 1)
    )
    per_turn = factor * gain * _slope(untwisted, radius, twists_now)
    found, another = _findings(
        length_in, twists_now, turns, brace_wanted_in - brace_now_in, order, len(pairs)
    )
    if string.build == "endless" and turns < 0:
        found.append(_endless())
    if not _ODD[0] <= factor <= _ODD[1]:
        found.append(_odd(factor))
    return Twisted(
        turns=turns,
        turns_plus_minus=(high - low) / 2,
        string_change_mm=here - there,
        brace_per_turn_mm=per_turn,
        factor=factor,
        factor_plus_minus=sd,
        order_length_in=order if another else None,
        findings=tuple(found),
    )


def reach_in(
    bow: Statics, string: String, length_in: float, twists_now: float, brace_now_in: float
) -> tuple[float, float]:
    """Braces [in, to the reference of brace_now_in] within the limits of turns, by the model.

    Source: docs/mechanics E1, A5; limits of turns are an own rule, as in `twist`.
    """
    untwisted, radius = _bundle(string, length_in, twists_now)
    gain, here = brace_per_string_slack(bow), shortening_mm(untwisted, radius, twists_now)
    least = min(LEAST_PER_IN * length_in, twists_now)
    most = max(MOST_PER_IN * length_in, twists_now)
    low, high = (
        brace_now_in + gain * (shortening_mm(untwisted, radius, t) - here) / MM_PER_IN
        for t in (least, most)
    )
    return low, high


def _endless() -> Finding:
    return mind(
        said=say("An endless loop can be shortened by twisting, hardly lengthened."),
        why=say("Its loops hold their turns; two-bundle loops adjust both ways within limits."),
        told="practice",
    )


def _odd(factor: float) -> Finding:
    return mind(
        said=say(
            "By your measurements a turn does {times} times what it should: count the turns and "
            "measure the brace once more.",
            times=("share", factor),
        ),
        why=say(
            "A string that settled between two measurements, another reference or a miscount all "
            "look like this; strands much thicker or thinner than set do too."
        ),
        told="measured",
    )


def _slope(untwisted: float, radius: float, turns: float) -> float:
    """d(shortening)/d(turn) [mm] around the turns, over one turn."""
    low = max(turns - 0.5, 0.0)
    high = low + 1
    return shortening_mm(untwisted, radius, high) - shortening_mm(untwisted, radius, low)


def _findings(
    length_in: float, now: float, turns: float, change_in: float, order_in: float, measured: int
) -> tuple[list[Finding], bool]:
    """What the turns mean, and whether another string is the better way."""
    least, most = LEAST_PER_IN * length_in, MOST_PER_IN * length_in
    after = now + turns
    why = say(
        "Twisting shortens a string by the square of the turns in it, so each turn does more than "
        "the one before. Too few and the loops work loose; too many and the strands chafe."
    )
    found: list[Finding] = []
    another = abs(change_in) > ANOTHER_STRING_IN + 1e-9 or not least <= after <= most
    if after < least:
        found.append(
            stop(
                said=say(
                    "That leaves {after}; under {least} the loops work loose.",
                    after=("turns", after),
                    least=("turns", least),
                ),
                why=why,
                told="rule",
            )
        )
    elif after > most:
        found.append(
            mind(
                said=say(
                    "That makes {after}, more than {most} a string of this length bears well.",
                    after=("turns", after),
                    most=("turns", most),
                ),
                why=why,
                told="rule",
            )
        )
    if another:
        found.append(
            mind(
                said=say(
                    "Rather than twist so far take a string of {order}.",
                    order=("bow_length", order_in),
                ),
                why=say(
                    "Beyond about {far} of brace another string is the better way.",
                    far=("brace", ANOTHER_STRING_IN),
                ),
                told="practice",
            )
        )
    if measured < 2:
        found.append(
            fine(
                said=say("Turn half of it, measure, and the next step is surer."),
                why=say(
                    "Before a change was measured with this string the effect of a turn is known "
                    "to about a quarter; one measured change brings it to a tenth."
                ),
                told="model",
            )
        )
    return found, another
