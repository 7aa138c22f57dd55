"""The shot: speed, efficiency, what stays in the bow, and how light an arrow may be.

Virtual-mass form (docs/mechanics A3): v = √(2E/(m+K)), K = κ·W. Its κ holds every loss on the
way back. Finger release as is; ± 5 % on speed until a chronograph has spoken.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.estimate import Estimate, Source
from lyrandis.core.parts import Bow, SizeTerm, String
from lyrandis.core.string.measures import usual_mass_gr
from lyrandis.core.units import J_PER_FTLB, KG_PER_GRAIN, M_PER_FT

KAPPA_GPP = {"longbow": 3.6, "hybrid": 3.3, "recurve": 3.1, "static_tip": 4.4}
_STATIC_FROM_IN, _STATIC_PER_IN, _STATIC_MOST = 54.0, 0.08, 6.0
SPEED_SHARE_SD = 0.05
RESIDUE_MOST = 2 / 7
FLOOR_PER_KAPPA = (1 - RESIDUE_MOST) / RESIDUE_MOST
MARKING_SD_LBF, MARKING_SD_SHARE = 1.5, 0.04  # whichever is more
MARKED_AT_IN = 28.0  # by the trade standard
_SCALE_SD_SHARE = 0.01
_SHAPE_SD_SHARE = 0.015  # of the weight, an inch away from what the scale told
_STRING_SHARE = 1 / 3  # of a string moves with the arrow: its speed rises evenly from the tip
_CURVE_GPP = (2.0, 18.0, 65)  # from, to, points

Verdict = Literal["below", "tolerated", "mind", "fine"]


def kappa_gpp(bow: Bow) -> float:
    """Virtual mass per pound of draw weight [gr/lb] of this form; sd 0.4 until measured."""
    kappa = KAPPA_GPP[bow.form]
    if bow.form == "static_tip":
        kappa += _STATIC_PER_IN * max(bow.length_in - _STATIC_FROM_IN, 0)
        kappa = min(kappa, _STATIC_MOST)
    return kappa


def virtual_mass_gr(bow: Bow, string: String, weight_lbf: float) -> float:
    """What moves with the arrow besides the arrow, K [gr].

    κ·W, a third of what a weighed string has beyond one of its strands and fibre, and (1−p)² of
    silencers at share p of the half string.

    Parameters
    ----------
    bow, string : the string's own mass counts where it was weighed
    weight_lbf : weight at the true draw [lb]

    Source: docs/mechanics A3.
    """
    extra = 0.0
    if string.mass_gr is not None:
        extra = (string.mass_gr - usual_mass_gr(bow, string)) * _STRING_SHARE
    tied = string.silencers_gr * (1 - string.silencer_position) ** 2
    return kappa_gpp(bow) * weight_lbf + extra + tied


def speed_fps(energy_ftlb: float, mass_gr: float | Array, virtual_gr: float) -> Array:
    """Arrow speed [ft/s] from stored energy [ft·lb], arrow mass and virtual mass [gr].

    Parameters
    ----------
    energy_ftlb : stored at the draw [ft·lb]
    mass_gr : arrow mass [gr], any shape
    virtual_gr : what moves with it [gr]

    >>> round(float(speed_fps(40.0, 400.0, 125.0)))
    185
    """
    mass = (np.asarray(mass_gr, dtype=float) + virtual_gr) * KG_PER_GRAIN
    return np.sqrt(2 * energy_ftlb * J_PER_FTLB / mass) / M_PER_FT


def marking_sd_lbf(weight_lbf: float) -> float:
    """What the marking is good to [lb]: a pound or two, more on heavy bows."""
    return max(MARKING_SD_LBF, MARKING_SD_SHARE * weight_lbf)


def weight_at_draw(curve: ForceDraw, draw: Estimate) -> Estimate:
    """Weight [lb] at the archer's true draw; ± from the marking or scale and from the draw."""
    force = curve.force(draw.value)
    from_draw = curve.slope(draw.value) * draw.plus_minus
    unread = curve.unread_in(draw.value)
    if unread is None:
        sd = marking_sd_lbf(force)
    else:
        scale = math.hypot(_SCALE_SD_SHARE * force, _SHAPE_SD_SHARE * unread * force)
        sd = min(scale, math.hypot(marking_sd_lbf(force), _SCALE_SD_SHARE * force))
    source: Source = "measured" if unread == 0.0 else "model"
    return Estimate(value=force, plus_minus=math.hypot(sd, from_draw), source=source)


def weight_at_28in(curve: ForceDraw) -> Estimate:
    """Weight [lb] at 28 in, or where the curve ends before; ± from the marking or scale."""
    at = min(MARKED_AT_IN, float(curve.draw_in[-1]))
    return weight_at_draw(curve, Estimate(value=at, plus_minus=0.0, source="rule"))


def draw_speed_share(curve: ForceDraw, draw_in: float, sd_in: float) -> float:
    """Share of the arrow's speed that a draw off by sd_in [in] moves.

    The stored energy changes by the force times the draw, the speed by half as much of itself.
    """
    return 0.5 * curve.force(draw_in) * sd_in / 12 / curve.energy_ftlb(draw_in)


@dataclass(frozen=True)
class Floor:
    """How light an arrow may be, in grains per pound, by each school, and what follows."""

    energy_gpp: float
    form_gpp: float
    maker_gpp: float | None
    floor_gpp: float
    verdict: Verdict


_FORM_GPP = 9.0  # the second school's start
_TIP_GPP = {"working": 0.0, "short": 1.0, "long": 2.5, "heavy": 4.0}
_SOLID_SHARE, _STACK_SHARE = 0.8, 0.9
TOLERANCE_GPP = 0.5
STRUNG_SHORTER_IN = 4.5
# Strung tip to tip: under the first short, to the second middling, above it long.
_SIZES_IN, _SIZE_GPP = (52.0, 58.0), (0.0, 1.0, 2.0)


def size_counts(bow: Bow, term: SizeTerm = "usual") -> bool:
    """Whether the size term of the second school is asked of a bow.

    Usually not of recurves with working tips: their weight is in the riser, not in what moves, and
    an ordinary field recurve would be told 11. Own choice.
    """
    if term != "usual":
        return term == "always"
    return not (bow.form == "recurve" and bow.tips == "working")


def form_floor_gpp(bow: Bow, stacks: bool, term: SizeTerm = "usual") -> float:
    """The floor by form and size [gr/lb]: the second school (docs/mechanics A3).

    Parameters
    ----------
    stacks : whether it stacks before the archer's draw
    term : whether size counts

    >>> form_floor_gpp(Bow(form="longbow", length_in=60), stacks=False)  # 9, strung 55.5 in
    10.0
    >>> form_floor_gpp(Bow(length_in=68), stacks=False)  # a recurve's size is left out
    9.0
    """
    strung = bow.length_in - STRUNG_SHORTER_IN
    short, middling = _SIZES_IN
    size = _SIZE_GPP[0 if strung < short else 1 if strung <= middling else 2]
    floor = _FORM_GPP + _TIP_GPP[bow.tips] + (size if size_counts(bow, term) else 0.0)
    if bow.limb_material in ("solid_glass", "natural"):
        floor *= _SOLID_SHARE
    return floor * (_STACK_SHARE if stacks else 1)


def arrow_floor(
    bow: Bow,
    gpp: float,
    stacks: bool,
    stiff_enough: bool,
    virtual_gpp: float | None = None,
    size_term: SizeTerm = "usual",
) -> Floor:
    """Judge grains per pound against the floors.

    The energy floor judges bows with working tips; static tips take the higher of the two
    schools, since κ does not know how heavy they are. The maker's stated minimum overrides both.

    Parameters
    ----------
    gpp : grains per pound at the true draw; on the heavy side of what the weight may be
    stacks : whether the bow stacks before that draw
    stiff_enough : whether the shaft is stiff enough for half a grain of tolerance
    virtual_gpp : what moves besides the arrow [gr/lb], string and silencers with it; κ if None
    size_term : whether the second school's size term counts
    """
    energy = FLOOR_PER_KAPPA * (kappa_gpp(bow) if virtual_gpp is None else virtual_gpp)
    form = form_floor_gpp(bow, stacks, size_term)
    own = energy if bow.tips == "working" else max(energy, form)
    floor = own if bow.maker_min_gpp is None else bow.maker_min_gpp
    if gpp >= floor:
        verdict: Verdict = "fine" if gpp >= max(energy, form) else "mind"
    elif bow.maker_min_gpp is None and stiff_enough and gpp >= floor - TOLERANCE_GPP:
        verdict = "tolerated"
    else:
        verdict = "below"
    return Floor(energy, form, bow.maker_min_gpp, floor, verdict)


@dataclass(frozen=True)
class ShotCurve:
    """What other arrows would do, shape (n,) over grains per pound."""

    gpp: Array
    speed_fps: Array
    efficiency: Array
    residue_ftlb: Array


@dataclass(frozen=True)
class Shot:
    """What one shot does, and what lighter and heavier arrows would."""

    weight_at_draw_lbf: Estimate
    grains_per_pound: float
    speed_fps: Estimate
    efficiency: float
    stored_energy_ftlb: float
    residual_energy_ftlb: float
    virtual_mass_gr: float
    ceiling_speed_fps: float
    arrow_energy_ftlb: float
    momentum_lb_s: float
    curve: ShotCurve


def shot(bow: Bow, string: String, curve: ForceDraw, draw: Estimate, mass_gr: float) -> Shot:
    """One shot with an arrow of `mass_gr` [gr] from the archer's true draw [in, trade].

    Parameters
    ----------
    bow, string : as they are set
    curve : the bow's force–draw curve
    draw : the true draw [in, trade] with its ±
    mass_gr : the finished arrow [gr]

    Source: docs/mechanics A3; ± 5 % on speed until a chronograph has spoken.
    """
    weight = weight_at_draw(curve, draw)
    energy = curve.energy_ftlb(draw.value)
    virtual = virtual_mass_gr(bow, string, weight.value)
    speed = float(speed_fps(energy, mass_gr, virtual))
    from_draw = draw_speed_share(curve, draw.value, draw.plus_minus)
    sd = speed * math.hypot(SPEED_SHARE_SD, from_draw)
    told = Estimate(value=speed, plus_minus=sd, source="model")
    return shot_of(energy, virtual, weight, mass_gr, told)


def shot_of(
    energy_ftlb: float, virtual_gr: float, weight: Estimate, mass_gr: float, speed: Estimate
) -> Shot:
    """A shot from what is stored [ft·lb] and what moves with the arrow [gr], whoever told them.

    Parameters
    ----------
    weight : at the true draw [lb]
    mass_gr : the finished arrow [gr]
    speed : of this arrow [ft/s], with its ±
    """
    gpp = np.linspace(*_CURVE_GPP)
    masses = gpp * weight.value
    shares = masses / (masses + virtual_gr)
    efficiency = mass_gr / (mass_gr + virtual_gr)
    passed = energy_ftlb * efficiency
    return Shot(
        weight_at_draw_lbf=weight,
        grains_per_pound=mass_gr / weight.value,
        speed_fps=speed,
        efficiency=efficiency,
        stored_energy_ftlb=energy_ftlb,
        residual_energy_ftlb=energy_ftlb - passed,
        virtual_mass_gr=virtual_gr,
        ceiling_speed_fps=float(speed_fps(energy_ftlb, 0.0, virtual_gr)),
        arrow_energy_ftlb=passed,
        momentum_lb_s=2 * passed / speed.value,
        curve=ShotCurve(
            gpp, speed_fps(energy_ftlb, masses, virtual_gr), shares, energy_ftlb * (1 - shares)
        ),
    )
