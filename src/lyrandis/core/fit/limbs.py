"""A takedown's two limbs: do they belong together, and what do their bolts do.

Directions and sizes for unlike limbs are docs/mechanics A4's (5 % stiffer below: nock point .08
to .15 in down); what a turn of both bolts does comes from the bow model with the limb's root
tilted (A2). Practice's word on limits: a small difference can be taken up at the nock point, a
large one cannot.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np

from lyrandis.core.bow.form import TRADE_OFFSET_IN
from lyrandis.core.bow.statics import rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Bow, Limbs, StringMaterial
from lyrandis.core.units import M_PER_IN, MM_PER_IN

LimbVerdict = Literal["unknown", "pair", "small", "stopgap"]
SMALL_SHARE = 0.05  # own rule: what A4's shift at the nock point still takes up
NOCK_SHARE, NOCK_IN = 0.05, (0.08, 0.15)  # A4: so much stiffer below, so much lower
_STROKE_TIMES = 2.0  # a nearly even pull: the arrow leaves after twice stroke over speed


@dataclass(frozen=True)
class LimbPair:
    """Whether two limbs work as one pair.

    share : lower limb's weight over the upper's, less one [-]; None where not both are known
    nock_mm : least and greatest move of the nock point [mm, up is positive]; None if unknown
    late_ms : how much later the weaker limb would come home, left to itself [ms], at most
    """

    verdict: LimbVerdict
    share: float | None
    nock_mm: tuple[float, float] | None
    late_ms: float | None


@dataclass(frozen=True)
class BoltTurn:
    """What the bolts' turns do: weight [%], brace height [mm], and turns of upper less lower."""

    weight_pct: float
    brace_mm: float
    uneven_turns: float


def limb_pair(limbs: Limbs, stroke_in: float, speed_fps: float) -> LimbPair:
    """Judge two limbs by their marks.

    Parameters
    ----------
    stroke_in : string's way from full draw to brace [in]
    speed_fps : arrow speed [ft/s]

    Returns
    -------
    `late_ms` is half the difference of stiffness times the shot's duration: what free limbs
    would differ by. The string couples them, so the real difference is smaller.

    Source: docs/mechanics A4 for the nock point; own estimate for the timing; practice for limits.

    >>> pair = limb_pair(Limbs(upper_lbf=40, lower_lbf=41), stroke_in=17.75, speed_fps=170)
    >>> pair.verdict, [round(mm, 1) for mm in pair.nock_mm], round(pair.late_ms, 2)
    ('small', [-1.9, -1.0], 0.22)
    """
    a, b = limbs.upper_lbf, limbs.lower_lbf
    share = None if a is None or b is None else b / a - 1
    nock = late = None
    if share is not None:
        low, high = (-share / NOCK_SHARE * shift * MM_PER_IN for shift in NOCK_IN)
        nock = (min(low, high), max(low, high))
        late = abs(share) / 2 * _STROKE_TIMES * stroke_in / 12 / speed_fps * 1000
    classes = {limbs.upper_class, limbs.lower_class} - {None}
    wrong = limbs.pair in ("two_upper", "two_lower", "two_makers")
    if len(classes) > 1 or wrong or (share is not None and abs(share) > SMALL_SHARE + 1e-9):
        verdict: LimbVerdict = "stopgap"
    elif share is not None and abs(share) > 1e-9:
        verdict = "small"
    elif limbs.pair == "pair" or share is not None:
        verdict = "pair"
    else:
        verdict = "unknown"
    return LimbPair(verdict, share, nock, late)


@lru_cache(maxsize=256)
def bolt_turn(
    bow: Bow, material: StringMaterial, turns: float, degrees_per_turn: float, draw_in: float
) -> tuple[float, float]:
    """What turning both bolts out does: change of weight at a draw [%] and of brace height [mm].

    The limb keeps its stiffness and the string its length; only the root tilts toward the archer.

    Parameters
    ----------
    bow, material : the bow and its string's material
    turns : out is positive [turns]
    degrees_per_turn : how far a turn tilts the limb [°]
    draw_in : where the weight is compared [in, trade]

    Raises
    ------
    RefusedError : the string would not hold the bow braced.
    """
    here = solve(bow.model_copy(update={"measured": ()}), material)
    tilt = here.limb.tilt + math.radians(turns * degrees_per_turn)
    try:
        there = rebraced(here, limb=replace(here.limb, tilt=tilt))
    except RefusedError:
        raise RefusedError(
            "limbs.upper_turns",
            f"With the bolts {turns:g} turns out the bow would not stay braced.",
        ) from None
    x = np.array([(draw_in - TRADE_OFFSET_IN) * M_PER_IN])
    before, after = (float(s.draw(x).force[0]) for s in (here, there))
    return (after / before - 1) * 100, (there.brace_x - here.brace_x) / M_PER_IN * MM_PER_IN


def bolts(bow: Bow, material: StringMaterial, limbs: Limbs, draw_in: float) -> BoltTurn:
    """What the bolts as they stand do, against where the marked weight holds."""
    mean = (limbs.upper_turns + limbs.lower_turns) / 2
    uneven = limbs.upper_turns - limbs.lower_turns
    if mean == 0:
        return BoltTurn(0.0, 0.0, uneven)
    weight, brace = bolt_turn(bow, material, mean, limbs.degrees_per_turn, draw_in)
    return BoltTurn(weight, brace, uneven)
