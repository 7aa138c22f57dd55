"""The spine that suits before any arrow has flown: a fit to the flex model, corrected by the model
of the shaft passing this very bow (mechanics B4, B4a).

Outside the bows and arrows that the fit was made on there is no number and no verdict: it says what
lies outside, and what practice begins with.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Annotated

from pydantic import Field

from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said, joined, say
from lyrandis.core.flex.match import Averaged, Match
from lyrandis.core.parts import Archer, Arrow, Bow, String
from lyrandis.core.string.measures import sideways_g, string_mass_g
from lyrandis.core.units import KG_PER_GRAIN

# What the fit was made on (docs/mechanics B4), from and to.
FIT_WEIGHT_LBF = (27.0, 60.0)
FIT_DRAW_IN = (26.0, 31.0)
FIT_SHAFT_IN = (27.0, 32.0)
FIT_STRING_G = (5.0, 9.0)
FIT_FRONT_GR = (60.0, 220.0)  # point and insert
FIT_OFFSET_MM = (-2.0, 4.0)  # of a leather plate, outward from centre
FIT_PLUNGER_MM = (-2.0, 3.0)
FIT_SPINE = (300.0, 1300.0)
FIT_DIAMETER_MM = 6.0  # of the shafts that the fit was made on
# The case the fit is written around (docs/mechanics B3).
REFERENCE_WEIGHT_LBF = 45.0
REFERENCE_LENGTH_IN = 29.5
REFERENCE_FRONT_GR = 112.0
REFERENCE_DRAW_IN = 28.0
REFERENCE_BRACE_IN = 7.5
REFERENCE_STRING_G = 6.5
# A shaft stiff enough (docs/mechanics F4, a practitioners' rule): so weak at so many pounds.
STIFF_SPINE, STIFF_LBF = 500.0, 45.0
GROUP_WEAKER = 1.2  # one spine group weaker, as groups are sold: 500, 600, 700
# What widens the band, as shares of the spine; own estimates but the first two.
GROUP_SHARE = 0.08  # one spine group
FIT_SD, MATCH_SD = 0.08, 0.12  # of ln of the fit, and of the model's match
UNTOLD_SD = 0.12  # of what neither knows: limb tips with mass, a grip that gives, another eye
GROUP_LN = math.log(1 + GROUP_SHARE)
_LONGBOW_SHARE = 0.20
_LONGBOW_STIFF = 1.5  # of it lies on the stiff side, the rest on the weak one
_HIGH_BRACE_IN, _HIGH_BRACE_SHARE = 8.0, 0.04
_MATERIAL_SHARE = 0.05
_WEIGHED_SHARE, _DRAWN_SHARE = 0.01, 0.004  # of weight and draw, once they are measured
_WORTH_SHARE = 0.95  # less than a twentieth narrower is not worth a measurement
STIFF_SHARE = 0.15  # finer than groups are sold "about 500" was never meant: own estimate
_FLAT = "little changes in how it leaves about there"
_EDGE_TENTH, _EDGE_SHARE = 0.1, 0.12  # of a range, towards either of its ends


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


_PLUNGER = _Fit(517, -1.037, -1.74, -0.274, -2.01, 0.030, 0.023, 0.033, -1.0)
_LEATHER = _Fit(552, -0.98, -1.93, -0.2, -1.39, 0.034, -0.032, 0.008, 0.0)


@dataclass(frozen=True)
class Start:
    """What practice begins with: in words, and a spine where a rule gives one."""

    said: Said
    spine: float | None


@dataclass(frozen=True)
class SpineWindow:
    """A suggested static spine [0.001 in at 28 in] and its band, or why there is none.

    spine_28in, low, high, share : None outside the fit
    widened : why the band is wider than a group
    outside : what lies outside the fit, and its range
    start : what practice begins with
    shrinks : what would make the band narrower, and by how much
    first : the fit's own number [0.001 in]
    false_below : stiffer shafts than this look weak, for they bounce off the plate
    clean : how shafts of every spine leave, brought to spine_28in; its match is None where the
        model finds none. Answers leave it out: they draw it where it is asked for
    """

    spine_28in: Estimate | None
    low: float | None
    high: float | None
    share: float | None
    widened: tuple[Said, ...]
    outside: tuple[Said, ...]
    start: Start
    shrinks: tuple[Said, ...] = ()
    first: float | None = None
    false_below: float | None = None
    clean: Annotated[Match | None, Field(exclude=True)] = None

    def why_outside(self, before: str) -> Said:
        """What lies outside the fit, as one sentence; there must be something."""
        why = self.outside[0]
        for reason in self.outside[1:]:
            why = joined(why, reason, "; ")
        return why.around(before, ".")


def stiff_enough_spine(weight_lbf: float) -> float:
    """The weakest spine [0.001 in] that is stiff enough for a weight at the true draw [lb].

    Source: docs/mechanics F4, a rule of practitioners.

    >>> round(stiff_enough_spine(36.0))
    625
    """
    return STIFF_SPINE * STIFF_LBF / weight_lbf


def about_stiff_enough(weight: Estimate) -> Estimate:
    """The same with its ±: most of a group, and what the weight is not known to."""
    rule = stiff_enough_spine(weight.value)
    share = math.hypot(STIFF_SHARE, weight.plus_minus / weight.value)
    return Estimate(value=rule, plus_minus=share * rule, source="rule")


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


def _fit_of(bow: Bow) -> _Fit:
    return _PLUNGER if bow.side_plate == "plunger" else _LEATHER


def _blended(plain: float, found: Averaged) -> tuple[float, float]:
    """The fit corrected by the model's match, both with the string that the fit is written around.

    Returns
    -------
    the spine [0.001 in] and its sd as a share

    Source: docs/mechanics B4a.
    """
    if found.match.match is None:
        return plain, math.hypot(FIT_SD, MATCH_SD, UNTOLD_SD)
    by_fit, by_match = FIT_SD**-2, MATCH_SD**-2
    whole = by_fit + by_match
    centre = math.exp((by_fit * math.log(plain) + by_match * math.log(found.match.match)) / whole)
    return centre, math.sqrt(1 / whole + found.spread_ln**2 / 2 + UNTOLD_SD**2)


@dataclass(frozen=True)
class _Asked:
    """One of the numbers that the fit goes by, with the range it was made on."""

    name: str
    quantity: str
    value: float
    low: float
    high: float
    hint: str = ""

    @property
    def outside(self) -> bool:
        """Whether it lies beyond the fit."""
        return not self.low <= self.value <= self.high

    @property
    def nearness(self) -> float:
        """0 in the middle of the range, rising over its last tenth to 1 at the very end."""
        tenth = _EDGE_TENTH * (self.high - self.low)
        left = min(self.value - self.low, self.high - self.value)
        return max(0.0, 1.0 - left / tenth)

    def said(self) -> Said:
        """Why there is no window."""
        return say(
            f"{self.name} of {{value}} lies outside the fit, {{low}} to {{high}}{self.hint}",
            value=(self.quantity, self.value),
            low=(self.quantity, self.low),
            high=(self.quantity, self.high),
        )


def _asked(
    archer: Archer, bow: Bow, string: String, arrow: Arrow, weight_28in: Estimate
) -> list[_Asked]:
    plate = FIT_PLUNGER_MM if bow.side_plate == "plunger" else FIT_OFFSET_MM
    per_gram = 1 / 1000 / KG_PER_GRAIN
    light, heavy = (per_gram * g for g in FIT_STRING_G)
    mass = per_gram * string_mass_g(bow, string)
    return [
        _Asked("the weight", "weight", weight_28in.value, *FIT_WEIGHT_LBF),
        _Asked("the draw", "draw", archer.draw_length_in, *FIT_DRAW_IN),
        _Asked("the shaft's length", "draw", arrow.shaft_length_in, *FIT_SHAFT_IN),
        _Asked("the weight of point and insert", "mass", arrow.point_gr + arrow.insert_gr,
               *FIT_FRONT_GR),
        _Asked("the string's weight", "mass", mass, light, heavy),
        _Asked("the side plate's place", "small", bow.plate_offset_mm, *plate,
               hint=", counted outward from centre"),
    ]  # fmt: skip


def _not_fitted(archer: Archer, bow: Bow, as_usual: bool) -> Iterator[Said]:
    if not as_usual:
        yield say("no arrow on the other side than hand and release ask for is in the fit")
    if archer.release == "thumb":
        yield say("no thumb release is in the fit")
    if bow.form == "static_tip":
        yield say("no bow with static tips is in the fit")
    if bow.side_plate in ("felt", "hard"):
        yield say(f"no {bow.side_plate} side plate is in the fit")


def _start(archer: Archer, bow: Bow, weight_lbf: float) -> Start:
    spine = stiff_enough_spine(weight_lbf)
    if archer.release == "thumb":
        said = say(
            "Practice asks first for a shaft stiff enough: {spine} or stiffer at {weight}.",
            spine=("spine", spine),
            weight=("weight", weight_lbf),
        )
        return Start(said, spine)
    if bow.plate_offset_mm > FIT_OFFSET_MM[1]:
        said = say(
            "A bow cut so far short of centre wants a weaker shaft: start a group weaker than your "
            "weight suggests, about {spine}, and read the flight.",
            spine=("spine", spine * GROUP_WEAKER),
        )
        return Start(said, spine * GROUP_WEAKER)
    said = say("Start with what shaft charts give for your weight, err stiff, and read the flight.")
    return Start(said, None)


def spine_window(
    archer: Archer,
    bow: Bow,
    string: String,
    arrow: Arrow,
    weight_28in: Estimate,
    weight_at_draw: Estimate,
    draw_sd_in: float,
    past: Callable[[float], Averaged],
    as_usual: bool = True,
) -> SpineWindow:
    """The static spine that should leave this bow cleanly, and the band about it.

    S = S0 (W/45)^a (L/29.5)^b (front/112)^c (draw/28)^d · exp[e Δoffset + f Δbrace + g Δstring],
    with W the weight at 28 in (the draw has its own term), then blended in ln with the match of J
    averaged over what is not known of the bow. Carbon of about 6 mm, finger releases. Longbows:
    ± 20 %, most of it stiffer.

    Parameters
    ----------
    archer, bow, string, arrow : as they are set; draw and lengths in inches, masses in grains
    weight_28in : at 28 in, or where the curve ends before [lb]
    weight_at_draw : at the archer's true draw [lb]
    draw_sd_in : of the draw length [in]
    past : the model's averaged match about a first guess of the spine [0.001 in]
    as_usual : whether the arrow lies on the side that hand and release ask for

    Raises
    ------
    RefusedError : an arrow shorter than the draw.

    Source: docs/mechanics B4.
    """
    refuse_short(archer, arrow)
    asked = _asked(archer, bow, string, arrow, weight_28in)
    outside = [*_not_fitted(archer, bow, as_usual), *(a.said() for a in asked if a.outside)]
    start = _start(archer, bow, weight_at_draw.value)
    if outside:
        return SpineWindow(None, None, None, None, (), tuple(outside), start)
    fit, brace = _fit_of(bow), brace_to_pivot_in(bow)
    plain = (
        fit.spine
        * (weight_28in.value / REFERENCE_WEIGHT_LBF) ** fit.weight
        * (arrow.shaft_length_in / REFERENCE_LENGTH_IN) ** fit.length
        * ((arrow.point_gr + arrow.insert_gr) / REFERENCE_FRONT_GR) ** fit.front
        * (archer.draw_length_in / REFERENCE_DRAW_IN) ** fit.draw
        * math.exp(
            fit.offset * (bow.plate_offset_mm - fit.offset0_mm)
            + fit.brace * (brace - REFERENCE_BRACE_IN)
        )
    )
    by_string = math.exp(fit.string * (3 * sideways_g(bow, string) - REFERENCE_STRING_G))
    first = plain * by_string
    result = _Asked("the resulting spine", "spine", first, *FIT_SPINE)
    if not result.outside:
        found = past(plain)
        plain, own = _blended(plain, found)
        result = replace(result, value=plain * by_string)
    if result.outside:
        return SpineWindow(None, None, None, None, (), (result.said(),), start)
    value, clean = result.value, found.match
    if clean.match is not None:
        clean = clean.brought_to(value)
    share, widened = _share(bow, arrow, brace, [*asked, result], own, clean)
    doubt = math.hypot(
        share,
        fit.weight * weight_28in.plus_minus / weight_28in.value,
        fit.draw * draw_sd_in / archer.draw_length_in,
    )
    if doubt > 1.25 * share:
        widened.append(say("weight and draw are not known well"))
    stiff, weak = doubt, doubt
    if bow.form == "longbow":
        stiff, weak = _LONGBOW_STIFF * doubt, (2 - _LONGBOW_STIFF) * doubt
    return SpineWindow(
        Estimate(value=value, plus_minus=doubt * value, source="model"),
        value * (1 - stiff),
        value * (1 + weak),
        doubt,
        tuple(widened),
        (),
        start,
        _shrinks(value, fit, share, weight_28in, draw_sd_in / archer.draw_length_in),
        first,
        clean.false_below,
        clean,
    )


def _shrinks(
    spine: float, fit: _Fit, share: float, weight: Estimate, draw_share: float
) -> tuple[Said, ...]:
    """What would narrow the band: a weighed bow, a marked arrow drawn, reads on the bow."""
    by_weight, by_draw = fit.weight * weight.plus_minus / weight.value, fit.draw * draw_share
    now = math.hypot(share, by_weight, by_draw)
    told = []
    for how, left in (
        ("weigh the bow", math.hypot(share, fit.weight * _WEIGHED_SHARE, by_draw)),
        ("draw a marked arrow some times", math.hypot(share, by_weight, fit.draw * _DRAWN_SHARE)),
    ):
        if left < _WORTH_SHARE * now:
            told.append(
                say(
                    f"{how}: the ± goes from {{now}} to {{then}}",
                    now=("spine", now * spine),
                    then=("spine", left * spine),
                )
            )
    told.append(say("reads at three and seven paces, of this shaft from this bow, do most"))
    return tuple(told)


def _share(
    bow: Bow, arrow: Arrow, brace: float, asked: list[_Asked], own: float, clean: Match
) -> tuple[float, list[Said]]:
    """The band's half width as a share of the spine, but for weight and draw; and why."""
    share = own
    widened: list[Said] = []
    if bow.form == "longbow":
        share = max(share, _LONGBOW_SHARE)
        widened.append(say("practice finds longbows to want a group or two stiffer"))
    if clean.wider:
        share = math.hypot(share, clean.wider)
        widened.append(say(_FLAT))
    if brace > _HIGH_BRACE_IN:
        share = math.hypot(share, _HIGH_BRACE_SHARE)
        widened.append(say("the brace height is above {high}", high=("brace", _HIGH_BRACE_IN)))
    if arrow.material != "carbon":
        share = math.hypot(share, _MATERIAL_SHARE)
        thick = ("small", FIT_DIAMETER_MM)
        widened.append(say("the fit was made for carbon of about {thick}", thick=thick))
    for a in asked:
        if a.nearness:
            share = math.hypot(share, _EDGE_SHARE * a.nearness**2)
            widened.append(say(f"{a.name} is near the end of the fit"))
    return share, widened
