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
    SHOWN_IN,
    SchoolId,
    SchoolRange,
    angle_and_reserve,
    angle_limit_deg,
    ends_at_makers_word,
    idle_ratio,
    of_length,
    reserve_wanted_in,
    schools,
    verdict,
)
from lyrandis.core.parts import Archer, Bow, Form, SchoolNumbers, StringMaterial, Use

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
_PER_SCHOOL = 0.5  # that says no
_PER_RISER_IN = 0.5  # beside the risers of the use
_TASTE_RATIO = 0.11  # of length over draw, from no taste to all of it


@dataclass(frozen=True)
class Candidate:
    """One bow that could be had, and why it ranks.

    Lengths [in]; string angle [deg] at the draw; reserve before stack [in], None: never stacks.
    objects : one of the reasons speaks against it; schools_for of schools_of schools say it fits
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
    objects: bool
    schools_for: int
    schools_of: int
    schools_against: tuple[SchoolId, ...]
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


@dataclass(frozen=True)
class _Judge:
    """Who asks, and what is wanted: angle [deg], None without a limit; reserve [in], None where
    the maker's word ends a bow; the schools on the bow at hand."""

    form: Form
    draw_in: float
    limit: float | None
    wanted: float | None
    taste: float
    use: Use
    schools: tuple[SchoolRange, ...]

    def against(
        self, length: float, angle: float, reserve: float | None
    ) -> tuple[int, tuple[SchoolId, ...]]:
        """How many schools speak, and which of them say no to a bow."""
        speaking = [s for s in self.schools if s.verdict != "silent"]

        def fits(school: SchoolRange) -> bool:
            if school.school == "stack_reserve" and self.wanted is not None:
                return reserve is None or reserve >= self.wanted - SHOWN_IN
            if school.school == "string_angle" and self.limit is not None:
                return angle >= self.limit
            return verdict(length, school.low_in, school.high_in) == "fits"

        return len(speaking), tuple(s.school for s in speaking if not fits(s))

    def score(
        self, length: float, angle: float, reserve: float | None, against: int
    ) -> tuple[float, tuple[str, ...], bool]:
        """Points of 10, why, and whether one of the reasons speaks against it."""
        points, reasons = _POINTS - _PER_SCHOOL * against, []
        if self.limit is not None and angle < self.limit:
            points -= _PER_DEGREE * (self.limit - angle)
            reasons.append("the string pinches the fingers")
        if self.wanted is not None and reserve is not None and reserve < self.wanted - SHOWN_IN:
            points -= _PER_RESERVE_IN * (self.wanted - reserve)
            reasons.append("it stacks too near the draw")
        ratio = length / self.draw_in
        ideal = IDEAL_RATIO[self.form] + _TASTE_RATIO * self.taste + _USE_RATIO[self.use]
        points -= _PER_RATIO * abs(ratio - ideal)
        too_long = idle_ratio(self.form)
        if ratio > too_long:
            points -= _PER_IDLE_RATIO * (ratio - too_long)
            reasons.append("the limbs are hardly worked")
        objects = bool(reasons)
        if not reasons:
            reasons.append("smooth at your draw" if ratio >= ideal else "short and lively")
        return max(points, 0.0), tuple(reasons), objects


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
    material: StringMaterial = "polyester",
) -> tuple[Candidate, ...]:
    """Bows of this form that could be had, best first: those nothing speaks against before others.

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
    judge = _Judge(
        form=bow.form,
        draw_in=draw_in,
        limit=angle_limit_deg(archer.release, numbers),
        wanted=None
        if ends_at_makers_word(bow, archer.release)
        else reserve_wanted_in(use, numbers),
        taste=taste,
        use=use,
        schools=schools(archer, bow, draw_in, use, numbers, material),
    )
    ranked = []
    for length, riser, name in offers(bow):
        sized = of_length(bow, length, riser)
        try:
            angle, reserve = angle_and_reserve(sized, draw_in, material)
            if _is_own(bow, length, riser):  # its reserve is the same number everywhere
                onset = stack_onset_in(bow, material)
                reserve = None if onset is None else onset - draw_in
        except RefusedError:
            continue
        speaking, against = judge.against(length, angle, reserve)
        score, reasons, objects = judge.score(length, angle, reserve, len(against))
        if riser is not None:
            small, large = RISERS_BY_USE[use]
            if not small <= riser <= large:
                score -= _PER_RISER_IN * min(abs(riser - small), abs(riser - large))
        curve = force_draw(sized, material)
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
                objects=objects,
                schools_for=speaking - len(against),
                schools_of=speaking,
                schools_against=against,
                speed_fps=float(speed_fps(energy, at.arrow_gr, kappa_gpp(sized) * at.weight_lbf)),
                last_inch_lbf=(curve.force(draw) - curve.force(draw - 1)) * share,
                strung_in=strung,
            )
        )
    return tuple(sorted(ranked, key=lambda c: (c.objects, -c.score, c.length_in)))
