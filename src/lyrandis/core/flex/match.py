"""The spine that leaves cleanly: where J, smoothed over a little spine, falls through nought.

J |      _ max                       stiff ←  spine → weak
  |    /   \\__                       below 1.2 of the first guess the highest maximum is taken;
0 |---/------\\-----                  the first crossing from + to − above it is the match;
  |  /        \\___                   below the maximum J has a second nought: the false weak,
  | false weak                       a shaft so stiff that it bounces off the plate
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.arrays import Array

SEARCH_FROM, SEARCH_TO = 0.45, 1.6  # of the first guess
SMOOTH_LN = 0.07  # ± of ln spine
MAXIMUM_BELOW = 1.2  # of the first guess
SHAFTS = 18  # over the search
FLAT_DEG, FLAT_SHARE = 1.0, 0.06  # less than so much J over so much of spine is flat

_MOST_FLAT = 4.0


@dataclass(frozen=True)
class Match:
    """Where a shaft leaves cleanly.

    spine, clean_deg : J over spine [0.001 in], stiff first, smoothed, shape (n,)
    match : the spine that leaves cleanly; None where there is none
    false_below : stiffer shafts than this leave as weak ones do; None where none does
    slope_deg : how much J falls over FLAT_SHARE of spine at the match
    """

    spine: Array
    clean_deg: Array
    match: float | None
    false_below: float | None
    slope_deg: float | None

    @property
    def flat(self) -> bool:
        """Whether so little changes about the match that its band must be wider."""
        return self.slope_deg is not None and self.slope_deg < FLAT_DEG

    def brought_to(self, spine: float) -> Match:
        """The same, every spine by the share that brings its match to this one [0.001 in].

        Raises
        ------
        ValueError : there is no match.
        """
        if self.match is None:
            raise ValueError("nothing leaves clean: nothing to bring anywhere")
        share = spine / self.match
        below = None if self.false_below is None else share * self.false_below
        return replace(self, spine=share * self.spine, match=spine, false_below=below)

    @property
    def wider(self) -> float:
        """What a flat crossing adds to the band, as a share of the spine: so far FLAT_DEG reaches,
        up to four times as far as where it is just flat."""
        if not self.flat or self.slope_deg is None:
            return 0.0
        return FLAT_SHARE * min(FLAT_DEG / max(self.slope_deg, 1e-9), _MOST_FLAT)


@dataclass(frozen=True)
class Averaged:
    """The match of J averaged over what is not known of a bow, and how far single bows lie off it.

    spread_ln : sd of ln of the matches of the bows that it may be; of those that have one
    """

    match: Match
    spread_ln: float


def searched(guess: float, shafts: int = SHAFTS) -> Array:
    """The spines to try about a first guess [0.001 in], even in ln spine, with room to smooth."""
    low, high = np.log(SEARCH_FROM) - SMOOTH_LN, np.log(SEARCH_TO) + SMOOTH_LN
    return np.asarray(guess * np.exp(np.linspace(low, high, shafts)))


def smoothed(ln_spine: Array, clean_deg: Array) -> tuple[Array, Array]:
    """J averaged over ± SMOOTH_LN of ln spine, where the tries reach so far to both sides.

    Exact for J straight between the tries.
    """
    area = np.concatenate(
        [[0.0], np.cumsum(np.diff(ln_spine) * (clean_deg[1:] + clean_deg[:-1]) / 2)]
    )

    def under(x: Array) -> Array:
        i = np.clip(np.searchsorted(ln_spine, x) - 1, 0, len(ln_spine) - 2)
        into = x - ln_spine[i]
        rise = (clean_deg[i + 1] - clean_deg[i]) / (ln_spine[i + 1] - ln_spine[i])
        return np.asarray(area[i] + clean_deg[i] * into + rise * into**2 / 2)

    room = 1e-9
    inside = (ln_spine >= ln_spine[0] + SMOOTH_LN - room) & (
        ln_spine <= ln_spine[-1] - SMOOTH_LN + room
    )
    at = ln_spine[inside]
    return at, (under(at + SMOOTH_LN) - under(at - SMOOTH_LN)) / (2 * SMOOTH_LN)


def averaged(spine: Array, clean_deg: Array, guess: float) -> Averaged:
    """The match of J averaged over several bows.

    Parameters
    ----------
    clean_deg : J of each bow over the tries [°], shape (d, n)
    spine, guess : as `match` takes them

    Source: docs/mechanics B4a.
    """
    single = [match(spine, each, guess).match for each in clean_deg]
    spread = float(np.std(np.log([m for m in single if m is not None] or [guess])))
    return Averaged(match(spine, clean_deg.mean(axis=0), guess), spread)


def match(spine: Array, clean_deg: Array, guess: float) -> Match:
    """The match among shafts tried, as `searched` gives them.

    Parameters
    ----------
    spine, clean_deg : the tries [0.001 in] and their J [°], stiff first, shape (n,)
    guess : the first guess [0.001 in]

    Source: docs/mechanics B3.
    """
    at, told = smoothed(np.log(spine), clean_deg)
    below = at < np.log(MAXIMUM_BELOW * guess)
    top = int(np.argmax(np.where(below, told, -np.inf)))
    falls = _crossing(at, told, range(top, len(at) - 1))
    rises = _crossing(at, -told, range(top - 1, -1, -1)) if told[top] > 0 else None
    slope = None
    if falls is not None:
        aside = np.interp([falls - FLAT_SHARE / 2, falls + FLAT_SHARE / 2], at, told)
        slope = float(aside[0] - aside[1])
    return Match(
        np.exp(at),
        told,
        None if falls is None else float(np.exp(falls)),
        None if rises is None else float(np.exp(rises)),
        slope,
    )


def _crossing(at: Array, told: Array, steps: range) -> float | None:
    """Where told first falls through nought between i and i + 1, by the steps' order."""
    for i in steps:
        if told[i] > 0 >= told[i + 1]:
            share = told[i] / (told[i] - told[i + 1])
            return float(at[i] + share * (at[i + 1] - at[i]))
    return None
