"""A first spine suggestion before any arrow has flown: a fit to the flex model (mechanics B4)."""

from __future__ import annotations

import math
from dataclasses import dataclass

from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said, say
from lyrandis.core.rig import Archer, Arrow, Bow, String
from lyrandis.core.string.measures import string_mass_g

CALIBRATED_LBF = (27.0, 60.0)
WEAKEST_SPINE = 1300.0
# The case the fit is written around (docs/mechanics B3).
REFERENCE_WEIGHT_LBF = 45.0
REFERENCE_LENGTH_IN = 29.5
REFERENCE_FRONT_GR = 112.0
REFERENCE_DRAW_IN = 28.0
REFERENCE_BRACE_IN = 7.5
REFERENCE_STRING_G = 6.5
LONGBOW_FACTOR = 1.10  # longbows run 5 to 15 % weaker
# What widens the band, as shares of the spine; own estimates but the first.
_GROUP_SHARE = 0.08  # one spine group
_LONGBOW_SHARE = 0.05
_FAR_SHARE = 0.12  # a thumb release, static tips
_PLATE_SHARE = 0.12  # felt and hard plates
_HIGH_BRACE_IN, _HIGH_BRACE_SHARE = 8.0, 0.04
FIT_DIAMETER_MM = 6.0  # of the shafts that the fit was made on
_WEIGHT_SHARE = 0.12
_WEAK_SHARE = 0.10
_MATERIAL_SHARE = 0.05


@dataclass(frozen=True)
class _Fit:
    spine: float
    weight: float
    length: float
    front: float
    draw: float
    offset: float
    brace: float
    string: float
    offset0_mm: float


_PLUNGER = _Fit(521, -1.26, -2.05, -0.39, -1.59, 0.031, 0.032, 0.082, -1.0)
_LEATHER = _Fit(597, -1.13, -3.04, -0.66, -1.12, 0.048, 0.069, 0.111, 0.0)
_OFFSET_FAR, _OFFSET_FAR_MM = 0.10, 2.0  # leather, beyond 2 mm short of centre


@dataclass(frozen=True)
class SpineWindow:
    """A suggested static spine [0.001 in at 28 in], its band, and why the band is as wide."""

    spine_28in: Estimate
    low: float
    high: float
    share: float
    widened: tuple[Said, ...]


def refuse_short(archer: Archer, arrow: Arrow) -> None:
    """Refuse an arrow shorter than the draw.

    Raises
    ------
    RefusedError : the back of the point would be drawn past the bow's back.
    """
    if arrow.shaft_length_in < archer.draw_length_in:
        raise RefusedError(
            "arrow.shaft_length_in",
            say(
                "A shaft of {shaft} is shorter than the draw of {draw}: drawn off the rest it can "
                "go through the hand. Use a longer arrow.",
                shaft=("draw", arrow.shaft_length_in),
                draw=("draw", archer.draw_length_in),
            ),
            archer.draw_length_in,
            "in",
        )


def _offset_term(fit: _Fit, offset_mm: float, leather: bool) -> float:
    past = offset_mm - fit.offset0_mm
    if leather and past > _OFFSET_FAR_MM:
        return fit.offset * _OFFSET_FAR_MM + _OFFSET_FAR * (past - _OFFSET_FAR_MM)
    return fit.offset * past


def spine_window(
    archer: Archer, bow: Bow, string: String, arrow: Arrow, curve: ForceDraw
) -> SpineWindow:
    """The static spine that should leave this bow cleanly, and the band about it.

    S = S0 (W/45)^a (L/29.5)^b (front/112)^c (draw/28)^d · exp[e Δoffset + f Δbrace + g Δstring],
    with W the weight at 28 in (the draw has its own term). Carbon of about 6 mm on recurves;
    longbows run 5 to 15 % weaker. rms 4 % plunger, 6 % leather.

    Parameters
    ----------
    archer, bow, string, arrow : as they are set; draw and lengths in inches, masses in grains
    curve : the bow's force–draw curve

    Raises
    ------
    RefusedError : an arrow shorter than the draw.

    Source: docs/mechanics B4.
    """
    refuse_short(archer, arrow)
    leather = bow.side_plate != "plunger"
    fit = _LEATHER if leather else _PLUNGER
    weight = curve.force(min(REFERENCE_DRAW_IN, float(curve.draw_in[-1])))
    front = arrow.point_gr + arrow.insert_gr
    brace = brace_to_pivot_in(bow)
    value = (
        fit.spine
        * (weight / REFERENCE_WEIGHT_LBF) ** fit.weight
        * (arrow.shaft_length_in / REFERENCE_LENGTH_IN) ** fit.length
        * (front / REFERENCE_FRONT_GR) ** fit.front
        * (archer.draw_length_in / REFERENCE_DRAW_IN) ** fit.draw
        * math.exp(
            _offset_term(fit, -bow.centre_cut_mm, leather)
            + fit.brace * (brace - REFERENCE_BRACE_IN)
            + fit.string * (string_mass_g(bow, string) - REFERENCE_STRING_G)
        )
    )
    share = _GROUP_SHARE
    widened: list[Said] = []
    if bow.form == "longbow":
        value *= LONGBOW_FACTOR
        share = math.hypot(share, _LONGBOW_SHARE)
        widened.append(say("longbows run 5 to 15 % weaker than the fit"))
    if bow.form == "static_tip" or archer.release == "thumb":
        share = math.hypot(share, _FAR_SHARE)
        widened.append(say("a thumb release and static tips are far from the calibration"))
    if bow.side_plate in ("felt", "hard"):
        share = math.hypot(share, _PLATE_SHARE)
        widened.append(say(f"a {bow.side_plate} side plate has no calibration; leather stands in"))
    if brace > _HIGH_BRACE_IN:
        share = math.hypot(share, _HIGH_BRACE_SHARE)
        widened.append(say("the brace height is above {high}", high=("brace", _HIGH_BRACE_IN)))
    if not CALIBRATED_LBF[0] <= weight <= CALIBRATED_LBF[1]:
        share = math.hypot(share, _WEIGHT_SHARE)
        widened.append(
            say(
                "the weight is outside {low} to {high}",
                low=("weight", CALIBRATED_LBF[0]),
                high=("weight", CALIBRATED_LBF[1]),
            )
        )
    if value > WEAKEST_SPINE:
        share = math.hypot(share, _WEAK_SHARE)
        widened.append(
            say("beyond spine {weakest} the model was not tried", weakest=("spine", WEAKEST_SPINE))
        )
    if arrow.material != "carbon":
        share = math.hypot(share, _MATERIAL_SHARE)
        widened.append(
            say("the fit was made for carbon of about {thick}", thick=("small", FIT_DIAMETER_MM))
        )
    return SpineWindow(
        Estimate(value=value, plus_minus=share * value, source="model"),
        value * (1 - share),
        value * (1 + share),
        share,
        tuple(widened),
    )
