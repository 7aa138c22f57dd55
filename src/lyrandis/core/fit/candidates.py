"""Bows that could be had, ranked for one archer, each at the same weight with the same arrow.

The ranking is an own rule, explained in docs/mechanics: it is not calibrated.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from lyrandis.core.arrow.shot import kappa_gpp, speed_fps
from lyrandis.core.bow.curve import force_draw, stack_onset_in
from lyrandis.core.bow.drawing import pose
from lyrandis.core.bow.form import riser_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import (
    IDEAL_RATIO,
    LENGTHS_IN,
    LIMB_CLASS_ADDS_IN,
    RISERS_BY_USE,
    angle_and_reserve,
    angle_limit_deg,
    idle_ratio,
    of_length,
    reserve_wanted_in,
)
from lyrandis.core.rig import Archer, Bow, Form, SchoolNumbers, Use

RISERS_IN = (17.0, 19.0, 21.0, 23.0, 25.0, 27.0)
USUAL_GPP = 9.0
_STEP_IN = 2.0
# How use shifts the length over draw wanted, and how tall a strung bow still passes under branches.
_USE_RATIO: dict[Use, float] = {
    "close_cover": -0.10,
    "woodland": 0.0,
    "range": 0.03,
    "backyard": 0.0,
}
_HANDY_IN = 60.0
# What a bow loses of ten points: own rule, not calibrated.
_POINTS = 10.0
_PER_DEGREE = 0.6  # of string angle missing
_PER_RESERVE_IN = 2.0  # missing
_PER_RATIO = 9.0  # of length over draw beside the ideal
_PER_IDLE_RATIO = 20.0  # past where the limbs are hardly worked
_PER_RISER_IN = 0.5  # beside the risers of the use
_TASTE_RATIO = 0.11  # of length over draw, from no taste to all of it


@dataclass(frozen=True)
class Candidate:
    """One bow that could be had, and why it ranks.

    Lengths [in]; string angle [deg] at the draw; reserve before stack [in], None: never stacks.
    At equal weight and with one arrow: speed [ft/s] and what the last inch adds [lb].
    `strung_in` is its height from limb nock to limb nock when strung.
    """

    length_in: float
    riser_in: float | None
    limb_class: str | None
    string_angle_deg: float
    stack_reserve_in: float | None
    score: float
    reasons: tuple[str, ...]
    speed_fps: float
    last_inch_lbf: float
    strung_in: float


@dataclass(frozen=True)
class Equal:
    """What all candidates are compared at: weight at the draw [lb] and arrow [gr]."""

    weight_lbf: float
    arrow_gr: float


@lru_cache(maxsize=512)
def _strung_in(bow: Bow) -> float:
    """Height [in] of the strung bow, from limb nock to limb nock."""
    return 2 * pose(force_draw(bow).statics).upper_nock[1]


def _score(
    form: Form,
    length: float,
    draw_in: float,
    angle: float,
    reserve: float | None,
    limit: float | None,
    wanted: float,
    taste: float,
    use: Use,
) -> tuple[float, tuple[str, ...]]:
    """Points of 10: 10 less what is missing of angle and reserve and what is too long."""
    points, reasons = _POINTS, []
    if limit is not None and angle < limit:
        points -= _PER_DEGREE * (limit - angle)
        reasons.append("the string pinches the fingers")
    if reserve is not None and reserve < wanted:
        points -= _PER_RESERVE_IN * (wanted - reserve)
        reasons.append("it stacks too near the draw")
    ratio = length / draw_in
    ideal = IDEAL_RATIO[form] + _TASTE_RATIO * taste + _USE_RATIO[use]
    points -= _PER_RATIO * abs(ratio - ideal)
    too_long = idle_ratio(form)
    if ratio > too_long:
        points -= _PER_IDLE_RATIO * (ratio - too_long)
        reasons.append("the limbs are hardly worked")
    if not reasons:
        reasons.append("smooth at your draw" if ratio >= ideal else "short and lively")
    return max(points, 0.0), tuple(reasons)


def _is_own(bow: Bow, length_in: float, riser: float | None) -> bool:
    """Whether an offer is the bow at hand."""
    same_riser = riser is None or riser == riser_in(bow)
    return length_in == bow.length_in and same_riser


def offers(bow: Bow) -> list[tuple[float, float | None, str | None]]:
    """Lengths [in] that could be had, with riser [in] and limb class for takedown recurves."""
    if bow.is_takedown_recurve:
        return [
            (riser + adds, riser, name)
            for riser in RISERS_IN
            for name, adds in LIMB_CLASS_ADDS_IN.items()
        ]
    low, high = LENGTHS_IN[bow.form]
    return [(low + _STEP_IN * i, None, None) for i in range(int((high - low) / _STEP_IN) + 1)]


def candidates(
    archer: Archer,
    bow: Bow,
    draw_in: float,
    use: Use,
    taste: float,
    numbers: SchoolNumbers,
    equal: Equal | None = None,
) -> tuple[Candidate, ...]:
    """Bows of this form that could be had, best first.

    Takedowns are risers and limb classes of the common fitting (short, medium and long limbs add
    41, 43 and 45 in to the riser); one-piece bows come in every second inch.

    Parameters
    ----------
    draw_in : true draw [in, trade]
    taste : −1 short and lively, +1 long and smooth
    equal : the weight and arrow all are compared at; the marked weight and 9 gr/lb if None

    Source: angle, reserve and energy from docs/mechanics A2 at the form's default brace height,
    speed from A3's virtual mass, ± 5 %; only differences between candidates mean much.
    """
    at = equal or Equal(bow.marked_weight_lbf, USUAL_GPP * bow.marked_weight_lbf)
    limit, wanted = angle_limit_deg(archer.release, numbers), reserve_wanted_in(use, numbers)
    ranked = []
    for length, riser, name in offers(bow):
        sized = of_length(bow, length, riser)
        try:
            angle, reserve = angle_and_reserve(sized, draw_in)
            if _is_own(bow, length, riser):  # its reserve is the same number everywhere
                onset = stack_onset_in(bow)
                reserve = None if onset is None else onset - draw_in
        except RefusedError:
            continue
        score, reasons = _score(
            bow.form, length, draw_in, angle, reserve, limit, wanted, taste, use
        )
        if riser is not None:
            small, large = RISERS_BY_USE[use]
            if not small <= riser <= large:
                score -= _PER_RISER_IN * min(abs(riser - small), abs(riser - large))
        curve = force_draw(sized)
        draw = min(draw_in, float(curve.draw_in[-1]))
        share = at.weight_lbf / curve.force(draw)
        energy = curve.energy_ftlb(draw) * share
        strung = _strung_in(sized)
        if use == "close_cover" and strung <= _HANDY_IN:
            reasons = (*reasons, "handy under branches")
        ranked.append(
            Candidate(
                length_in=length,
                riser_in=riser,
                limb_class=name,
                string_angle_deg=angle,
                stack_reserve_in=reserve,
                score=max(score, 0.0),
                reasons=reasons,
                speed_fps=float(speed_fps(energy, at.arrow_gr, kappa_gpp(sized) * at.weight_lbf)),
                last_inch_lbf=(curve.force(draw) - curve.force(draw - 1)) * share,
                strung_in=strung,
            )
        )
    return tuple(sorted(ranked, key=lambda c: (-c.score, c.length_in)))
