"""What can be held: timed holds at full draw, and what they say of the weight.

Source: practice section 3 (choose by what can be held steady); the two times are an own rule.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

HoldVerdict = Literal["untried", "few", "held", "borderline", "too_heavy", "pain"]
HELD_S = 10.0  # a shot's aim with room to spare: own rule
SHORT_S = 6.0
WANTED = 3
SAME_WEIGHT = 0.05  # of a weight: holds so near to it speak of it


@dataclass(frozen=True)
class Held:
    """One hold: weight [lb], time [s], and whether it ended in pain."""

    weight_lbf: float
    seconds: float
    pain: bool


@dataclass(frozen=True)
class Hold:
    """What the latest holds near a weight come to: their number, the median time [s], a verdict."""

    verdict: HoldVerdict
    count: int
    median_s: float | None
    lasting_lbf: float | None  # the heaviest weight that was held three times, anywhere


def judge(seconds: Sequence[float], pain: bool) -> HoldVerdict:
    """A verdict on holds [s] of one weight, the latest last; `pain` if the latest ended so.

    >>> judge([11.0, 9.0, 12.0], pain=False), judge([5.0], pain=False)
    ('held', 'too_heavy')
    """
    if pain:
        return "pain"
    if not seconds:
        return "untried"
    median = float(np.median(seconds[-WANTED:]))
    if median < SHORT_S:
        return "too_heavy"
    if len(seconds) < WANTED:
        return "few"
    return "held" if median >= HELD_S else "borderline"


def _same(a_lbf: float, b_lbf: float) -> bool:
    return abs(a_lbf / b_lbf - 1) <= SAME_WEIGHT + 1e-9


@dataclass(frozen=True)
class Strength:
    """What all holds come to [lb]: the most that was held, and the least that was too much."""

    lasting_lbf: float | None
    too_much_lbf: float | None


def strength(tests: Sequence[Held]) -> Strength:
    """How much an archer can hold, by every hold at every weight; the latest of each counts.

    >>> strength([Held(30, 12, False)] * 3 + [Held(40, 4, False)])
    Strength(lasting_lbf=30, too_much_lbf=40)
    """
    lasting = too_much = None
    for weight in sorted({round(t.weight_lbf, 1) for t in tests}):
        same = [t for t in tests if _same(t.weight_lbf, weight)]
        verdict = judge([t.seconds for t in same], same[-1].pain)
        if verdict == "held":
            lasting = weight
        elif verdict in ("too_heavy", "pain") and too_much is None:
            too_much = weight
    return Strength(lasting, too_much)


def hold(tests: Sequence[Held], weight_lbf: float) -> Hold:
    """What the archer's holds say of a weight at the draw [lb]; holds within 5 % of it count."""
    near = [t for t in tests if _same(t.weight_lbf, weight_lbf)]
    times = [t.seconds for t in near]
    pain = bool(near) and near[-1].pain
    lasting = strength(tests).lasting_lbf
    median = float(np.median(times[-WANTED:])) if times else None
    return Hold(judge(times, pain), len(times), median, lasting)
