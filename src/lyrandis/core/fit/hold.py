"""What can be held: timed holds at full draw, pain, and the words that free from it.

One function each; every page, paper and calendar asks here.

    hold           counts for a weight if it was made at it (2 % under is a scale's error), or held
                   long enough at more; too short a one at less counts against it
    held           the latest three that count were 10 s or longer
    pain           is no hold; what was held of that weight and more before it counts no more
    free of it     by a coach's or doctor's word for that weight, or by three holds of 10 s at it
                   that were made at least a week after; never by a lighter bow

Source: practice section 3 (choose by what can be held steady, stop at pain); the figures are own
rules.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from lyrandis.core.dates import days_between

HoldVerdict = Literal["untried", "few", "held", "borderline", "too_heavy", "pain"]
Against = Literal["held", "step", "beyond", "failed", "pain", "untimed"]
HELD_S = 10.0  # a shot's aim with room to spare: own rule
SHORT_S = 6.0
WANTED = 3
UNDER = 0.02  # of a weight: a hold so little under it still speaks of it
OVER = 0.05  # of a weight: a short hold so little over it still speaks against it
REST_DAYS = 7  # between pain and the holds that end it
LIGHTER = 0.10  # of the weight that hurt: what is lighter by so much may be tried
_READ_LBF = 0.05  # no scale is read finer
STEP_LBF = 2.0  # an ordinary step up
STEP_SHARE = 0.10  # of what was held: no ordinary step is larger


@dataclass(frozen=True)
class Held:
    """One hold: weight [lb], time [s], whether it ended in pain, and its day (YYYY-MM-DD)."""

    weight_lbf: float
    seconds: float
    pain: bool
    day: str = ""

    @property
    def good(self) -> bool:
        """Whether it was held as long as is asked, without pain."""
        return not self.pain and self.seconds >= HELD_S


@dataclass(frozen=True)
class Word:
    """A coach's or doctor's word that a weight [lb] may be drawn, and its day."""

    weight_lbf: float
    day: str = ""


@dataclass(frozen=True)
class Hold:
    """What holds say of a weight: their number, the median of the latest [s], a verdict.

    lasting_lbf : the heaviest weight that is held, anywhere
    """

    verdict: HoldVerdict
    count: int
    median_s: float | None
    lasting_lbf: float | None


def step_lbf(from_lbf: float) -> float:
    """The largest ordinary step up from a weight [lb].

    >>> step_lbf(15), step_lbf(40)
    (2.0, 4.0)
    """
    return max(STEP_LBF, STEP_SHARE * from_lbf)


def judge(seconds: Sequence[float], pain: bool) -> HoldVerdict:
    """A verdict on painless holds [s] that count for a weight, the latest last.

    Parameters
    ----------
    pain : whether the weight hurt, and nobody gave it free

    >>> judge([11.0, 10.0, 12.0], pain=False), judge([11.0, 9.0, 12.0], pain=False)
    ('held', 'borderline')
    >>> judge([5.0], pain=False)
    'too_heavy'
    """
    if pain:
        return "pain"
    if not seconds:
        return "untried"
    latest = seconds[-WANTED:]
    if float(np.median(latest)) < SHORT_S:
        return "too_heavy"
    if len(seconds) < WANTED:
        return "few"
    return "held" if min(latest) >= HELD_S else "borderline"


def _counts(held: Held, weight_lbf: float, under: float = UNDER) -> bool:
    """Whether a painless hold says something of a weight."""
    if held.good:
        return held.weight_lbf >= weight_lbf * (1 - under)
    at = weight_lbf * (1 - under) <= held.weight_lbf <= weight_lbf * (1 + OVER)
    return at or (held.weight_lbf < weight_lbf and held.seconds < SHORT_S)


@dataclass(frozen=True)
class Strength:
    """All that somebody's holds, and the words on them, come to.

    told : in the order they were made
    """

    told: tuple[Held | Word, ...] = ()

    @cached_property
    def _holds(self) -> tuple[Held, ...]:
        return tuple(one for one in self.told if isinstance(one, Held))

    def counting(self, weight_lbf: float, since: str = "", under: float = UNDER) -> list[Held]:
        """The painless holds that say something of a weight [lb], since it last hurt.

        Parameters
        ----------
        since : holds of earlier days are passed over
        under : the share by which a hold may lie under the weight
        """
        found: list[Held] = []
        for held in self._holds:
            if held.day < since:
                continue
            if not held.pain and _counts(held, weight_lbf, under):
                found.append(held)
            elif held.pain and held.weight_lbf <= weight_lbf * (1 + OVER):
                found.clear()
        return found

    def held_on(self, weight_lbf: float, since: str = "", under: float = UNDER) -> str | None:
        """The day from which a weight [lb] is held; None where it is not. See `counting`.

        >>> three = tuple(Held(30, 11, False, f"2026-01-0{n}") for n in (1, 2, 3))
        >>> Strength(three).held_on(30), Strength(three).held_on(32)
        ('2026-01-03', None)
        """
        days: list[str] = []
        for held in self.counting(weight_lbf, since, under):
            if held.good:
                days.append(held.day)
            else:
                days.clear()
        return days[WANTED - 1] if len(days) >= WANTED else None

    def least_held_lbf(self, weight_lbf: float, since: str = "", under: float = UNDER) -> float:
        """Of the holds by which a weight is held, the lightest [lb], and no more than it."""
        latest = self.counting(weight_lbf, since, under)[-WANTED:]
        return min(weight_lbf, *(held.weight_lbf for held in latest))

    @cached_property
    def pain(self) -> Held | None:
        """The hold whose pain still stops: of several the lightest."""
        stops = [held for i, held in self._painful() if not self._freed(i, held)]
        return min(stops, key=lambda held: held.weight_lbf, default=None)

    def _painful(self) -> Iterator[tuple[int, Held]]:
        for i, one in enumerate(self.told):
            if isinstance(one, Held) and one.pain:
                yield i, one

    def _freed(self, place: int, hurt: Held) -> bool:
        """Whether a word, or three holds at its weight a week after, came behind a pain."""
        row = 0
        for one in self.told[place + 1 :]:
            if isinstance(one, Word):
                if one.weight_lbf >= hurt.weight_lbf * (1 - UNDER):
                    return True
            elif one.pain:
                row = 0
            elif _counts(one, hurt.weight_lbf) and _rested(hurt, one):
                row = row + 1 if one.good else 0
                if row >= WANTED:
                    return True
        return False

    def hurts(self, weight_lbf: float) -> bool:
        """Whether a weight [lb] is one that hurt, or hardly lighter."""
        most = None if self.pain is None else self.pain.weight_lbf * (1 - LIGHTER)
        return most is not None and weight_lbf > most + _READ_LBF

    def of(self, weight_lbf: float) -> Hold:
        """What the holds say of a weight at the draw [lb]."""
        times = [held.seconds for held in self.counting(weight_lbf)]
        median = float(np.median(times[-WANTED:])) if times else None
        verdict = judge(times, self.hurts(weight_lbf))
        return Hold(verdict, len(times), median, self.lasting_lbf)

    @cached_property
    def lasting_lbf(self) -> float | None:
        """The heaviest weight [lb] that is held."""
        tried = {held.weight_lbf for held in self._holds if held.good}
        held = (w for w in tried if self.held_on(w) is not None and not self.hurts(w))
        return max(held, default=None)

    @cached_property
    def too_much_lbf(self) -> float | None:
        """The lightest weight [lb] that could not be held, or not without pain."""
        tried = {held.weight_lbf for held in self._holds if held.seconds < SHORT_S}
        short = [w for w in tried if self.of(w).verdict == "too_heavy"]
        return min([*short, *([] if self.pain is None else [self.pain.weight_lbf])], default=None)

    @property
    def most_lbf(self) -> float | None:
        """One step over what is held [lb]; None where nothing is."""
        lasting = self.lasting_lbf
        return None if lasting is None else lasting + step_lbf(lasting)

    def against(self, weight_lbf: float, heavy_lbf: float | None = None) -> Against:
        """A weight [lb] against all that was held.

        Parameters
        ----------
        heavy_lbf : the weight on the heavy side of its ±; the weight itself by default

        Returns
        -------
        held; or a step over it; or beyond that; or one that hurt, or that could not be held; or
        nobody's hold was timed that tells.

        >>> of_30 = Strength((Held(30, 12, False),) * 3)
        >>> [of_30.against(w) for w in (30, 32, 36)]
        ['held', 'step', 'beyond']
        """
        heavy = weight_lbf if heavy_lbf is None else heavy_lbf
        if self.hurts(heavy):
            return "pain"
        much, lasting, most = self.too_much_lbf, self.lasting_lbf, self.most_lbf
        held = lasting is not None and weight_lbf <= lasting * (1 + UNDER)
        verdict = self.of(weight_lbf).verdict
        if verdict == "too_heavy" or (much is not None and heavy >= much * (1 - UNDER)):
            return "failed"
        if most is None:
            return "untimed"
        if heavy > most and verdict != "borderline":
            return "beyond"
        return "held" if held else "step"


def _rested(hurt: Held, held: Held) -> bool:
    """Whether a hold was made long enough after a pain; one without a day is not."""
    return bool(hurt.day and held.day) and days_between(hurt.day, held.day) >= REST_DAYS
