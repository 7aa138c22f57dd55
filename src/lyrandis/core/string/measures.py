"""The string: how long, how many strands, how heavy (docs/mechanics A5 and practice)."""

from __future__ import annotations

import math
from dataclasses import dataclass

from lyrandis.core.bow.statics import Statics
from lyrandis.core.estimate import Estimate
from lyrandis.core.parts import Bow, Form, String, StringMaterial
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN, N_PER_LBF

SHORTER_IN: dict[Form, float] = {"longbow": 3, "hybrid": 3, "recurve": 4, "static_tip": 4.5}
# Trade habit: a strand for every so many pounds, within these counts (own table, editable later).
_STRANDS: dict[StringMaterial, tuple[tuple[float, int], ...]] = {
    "low_stretch": ((30, 12), (38, 14), (46, 16), (56, 18), (70, 20), (999, 24)),
    "polyester": ((25, 10), (35, 12), (45, 14), (55, 16), (70, 18), (999, 22)),
    "natural": ((25, 14), (35, 18), (45, 22), (55, 26), (70, 32), (999, 40)),
}
# Grams per metre of one strand; servings add about 1.8 g (own figures, to 10 %).
_STRAND_G_PER_M: dict[StringMaterial, float] = {
    "low_stretch": 0.18,
    "polyester": 0.28,
    "natural": 0.30,
}
_SERVING_G = 1.8
MASS_SD_SHARE = 0.1  # of a string not weighed
TENSION_SD_SHARE = 0.15  # of the braced string: limbs of one form and weight differ so


def usual_strands(material: StringMaterial, weight_lbf: float) -> int:
    """Usual number of strands for a draw weight [lb]; trade habit, the maker's word wins.

    >>> usual_strands("polyester", 35.0), usual_strands("polyester", 35.5)
    (12, 14)
    """
    return next(n for limit, n in _STRANDS[material] if weight_lbf <= limit)


def usual_mass_gr(bow: Bow, string: String) -> float:
    """What a string of these strands, fibre and length usually weighs [gr]."""
    length = string.length_in or usual_length_in(bow)
    grams = string.strands * length * M_PER_IN * _STRAND_G_PER_M[string.material] + _SERVING_G
    return grams / 1000 / KG_PER_GRAIN


def string_mass_gr(bow: Bow, string: String) -> float:
    """The string's mass [gr]: weighed, or from strands, material and length."""
    return usual_mass_gr(bow, string) if string.mass_gr is None else string.mass_gr


def string_mass_g(bow: Bow, string: String) -> float:
    """The same in grams."""
    return string_mass_gr(bow, string) * KG_PER_GRAIN * 1000


def sideways_g(bow: Bow, string: String) -> float:
    """What of the string moves with the nock [g]: a third of its own mass, and of the silencers the
    less the nearer to a tip they are tied.

    Source: docs/mechanics B3.
    """
    tied = string.silencers_gr * (1 - string.silencer_position) ** 2
    return string_mass_g(bow, string) / 3 + tied * KG_PER_GRAIN * 1000


def usual_length_in(bow: Bow) -> float:
    """Ordinary string length [in, loop to loop under tension] for a bow length and form."""
    return bow.length_in - SHORTER_IN[bow.form]


@dataclass(frozen=True)
class StringFit:
    """How a string of a length fits: lengths in inches, tension in pounds, mass in grains."""

    usual_length_in: float  # that of a string that worked, else by the bow's length
    needed_length_in: float  # what this bow needs at its brace height, from the model
    tension_lbf: Estimate
    usual_strands: int
    mass_gr: float
    measured: bool  # whether the string was weighed


def string_fit(bow: Bow, string: String, statics: Statics, weight: Estimate) -> StringFit:
    """What the bow asks of a string at its present brace height.

    Parameters
    ----------
    bow, string : as they are set
    statics : the bow solved at its brace height
    weight : at the true draw [lb]; the tension is unsure by its share of it too
    """
    tension = statics.braced.tension / N_PER_LBF
    share = math.hypot(TENSION_SD_SHARE, weight.plus_minus / weight.value)
    return StringFit(
        usual_length_in=string.worked_in or usual_length_in(bow),
        needed_length_in=2 * statics.braced.half_string / M_PER_IN,
        tension_lbf=Estimate(value=tension, plus_minus=tension * share, source="model"),
        usual_strands=usual_strands(string.material, weight.value),
        mass_gr=string_mass_gr(bow, string),
        measured=string.mass_gr is not None,
    )
