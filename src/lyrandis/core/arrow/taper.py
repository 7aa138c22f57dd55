"""A wood shaft with tapered ends: what it weighs, what a jig reads, how it acts (mechanics B2).

    |<- rear taper ->|                        |<- front taper ->|
   ====                                                       ====
   ===============================================================   diameter over its length
   nock                                                      point

Solid round wood: EI goes by the fourth power of the diameter, mass by the second. A jig, which
bends the middle, hardly notices tapered ends; the bow, which takes the shaft by its end, does.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Literal, NamedTuple

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.beam import ELEMENTS, bending_frequencies
from lyrandis.core.arrow.spine import SPAN_28_M, stiffness_n_m2
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.parts import Arrow
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN

LEAST_IN = 1 / 64  # a shorter taper is none
SHORT_SPAN_IN = 26.0  # of the jig where the shaft is too short for the usual span
_NODES = 24  # of Gauss and Legendre in each stretch; the fourth power needs few


@dataclass(frozen=True)
class Taper:
    """What the tapers make of a shaft, each against the same shaft without them.

    mass_share : of the shaft's mass that is left
    centre_in : its own balance [in from the throat]
    inertia_in2 : of the shaft about that balance, over its mass [in²]
    measured_share : by which a jig reads a larger number; None where the shaft is too short for one
    acts_share : by which it acts weaker on the bow
    """

    mass_share: float
    centre_in: float
    inertia_in2: float
    measured_share: float | None
    acts_share: float


class End(NamedTuple):
    """A tapered end: which, how long the taper is [in], and how thick it ends [mm]."""

    name: Literal["rear", "front"]
    length_in: float
    end_mm: float


def tapered_ends(arrow: Arrow) -> list[End]:
    """The tapers that count: of solid wood, for the powers hold for no tube, and told in full."""
    told: tuple[tuple[Literal["rear", "front"], float, float | None], ...] = (
        ("rear", arrow.rear_taper_in, arrow.rear_end_mm),
        ("front", arrow.front_taper_in, arrow.front_end_mm),
    )
    return [
        End(name, length, end)
        for name, length, end in told
        if arrow.material == "wood" and length > LEAST_IN and end not in (None, arrow.diameter_mm)
    ]


def refuse_taper(arrow: Arrow) -> None:
    """Refuse tapers that meet, or an end thicker than the shaft.

    Raises
    ------
    RefusedError : with the field, the limit and its unit.
    """
    ends = tapered_ends(arrow)
    for end in ends:
        if end.end_mm > arrow.diameter_mm:
            raise RefusedError(
                f"arrow.{end.name}_end_mm",
                say(
                    "A taper ends thinner than the shaft: give less than {thick}.",
                    thick=("small", arrow.diameter_mm),
                ),
                arrow.diameter_mm,
                "mm",
            )
    room = arrow.shaft_length_in - arrow.front_taper_in
    if len(ends) > 1 and arrow.rear_taper_in > room:
        raise RefusedError(
            "arrow.rear_taper_in",
            say("The two tapers meet: {room} is left for this one.", room=("draw", room)),
            room,
            "in",
        )


def diameters_mm(arrow: Arrow, at_in: Array) -> Array:
    """The shaft's diameter [mm] at places [in from the throat], any shape."""
    x = np.asarray(at_in, dtype=float)
    thick = np.full_like(x, arrow.diameter_mm)
    for end in tapered_ends(arrow):
        away = x if end.name == "rear" else arrow.shaft_length_in - x
        slope = (arrow.diameter_mm - end.end_mm) / end.length_in
        tapered = end.end_mm + slope * np.maximum(away, 0)
        thick = np.where(away < end.length_in, tapered, thick)
    return thick


@lru_cache(maxsize=256)
def taper(arrow: Arrow) -> Taper:
    """What its tapers make of a shaft; all shares are 1 without any.

    `acts_share` compares the first bending frequency with the nock held by the string and the
    point in front, squared: own choice; free at both ends the lost mass would hide the rest.

    Raises
    ------
    RefusedError : the tapers meet, or an end is thicker than the shaft.

    Source: unit-load integral δ = P ∫ m²/EI dx, docs/mechanics B2.
    """
    length = arrow.shaft_length_in
    if not tapered_ends(arrow):
        return Taper(1.0, length / 2, length**2 / 12, 1.0, 1.0)
    refuse_taper(arrow)
    area = _moments(arrow)
    centre = area[1] / area[0]
    return Taper(
        mass_share=float(area[0] / length),
        centre_in=float(centre),
        inertia_in2=float(area[2] / area[0] - centre**2),
        measured_share=_measured(arrow),
        acts_share=_acts(arrow),
    )


def _cuts(arrow: Arrow, *others: float) -> list[float]:
    """Where a stretch of the shaft ends: nock, tapers, point and others [in]."""
    length = arrow.shaft_length_in
    cuts = {0.0, length, arrow.rear_taper_in, length - arrow.front_taper_in, *others}
    return sorted(c for c in cuts if 0 <= c <= length)


def _gauss(low: float, high: float) -> tuple[Array, Array]:
    nodes, weights = np.polynomial.legendre.leggauss(_NODES)
    half = (high - low) / 2
    return low + half * (nodes + 1), half * weights


def _moments(arrow: Arrow) -> Array:
    """∫ (d/d0)² xⁿ dx for n = 0, 1, 2 [in, in², in³]."""
    cuts = _cuts(arrow)
    total = np.zeros(3)
    for low, high in pairwise(cuts):
        x, w = _gauss(low, high)
        area = (diameters_mm(arrow, x) / arrow.diameter_mm) ** 2
        total += [float((w * area * x**n).sum()) for n in range(3)]
    return total


def _measured(arrow: Arrow) -> float | None:
    """By which a jig's reading grows: the span lies in the middle of the shaft."""
    length = arrow.shaft_length_in
    usual = SPAN_28_M / M_PER_IN
    span = usual if length >= usual else SHORT_SPAN_IN
    if length < span:
        return None
    first, last = (length - span) / 2, (length + span) / 2
    cuts = [c for c in _cuts(arrow, first, length / 2, last) if first <= c <= last]
    bent = 0.0
    for low, high in pairwise(cuts):
        x, w = _gauss(low, high)
        arm = np.minimum(x - first, last - x) / 2
        bent += float((w * arm**2 * (arrow.diameter_mm / diameters_mm(arrow, x)) ** 4).sum())
    return bent / (span**3 / 48)


def _acts(arrow: Arrow) -> float:
    """By which it acts weaker: the square of the frequencies' ratio, nock held, point in front."""
    length = arrow.shaft_length_in * M_PER_IN
    middles = (np.arange(ELEMENTS) + 0.5) * arrow.shaft_length_in / ELEMENTS
    share = diameters_mm(arrow, middles) / arrow.diameter_mm
    stiff = stiffness_n_m2(arrow.static_spine)
    heavy = arrow.grains_per_inch * KG_PER_GRAIN / M_PER_IN
    lumps = (arrow.nock_gr * KG_PER_GRAIN, (arrow.point_gr + arrow.insert_gr) * KG_PER_GRAIN)
    whole = np.ones(ELEMENTS)
    plain, tapered = (
        float(bending_frequencies(length, stiff * s**4, heavy * s**2, *lumps, nock_held=True)[0])
        for s in (whole, share)
    )
    return (plain / tapered) ** 2


@dataclass(frozen=True)
class Gauge:
    """The diameter wanted at a place of the shaft, and how far it may be off."""

    at_in: float
    diameter_mm: float
    tolerance_mm: float


GAUGE_EVERY_IN = 1.0


def gauges(arrow: Arrow, mass_tolerance_gr: float, spine_tolerance: float) -> list[Gauge]:
    """Diameters to copy along the tapers, every inch, each with the tolerance that the set bears.

    A shaft thinner all along by t weighs 2 t/d less of itself and reads 4 t/d weaker: the tighter
    of the two, halved, since a set is as wide as its two ends.

    Parameters
    ----------
    mass_tolerance_gr, spine_tolerance : what the shafts of a set may differ by [gr], [0.001 in]
    """
    length = arrow.shaft_length_in
    mass = arrow.grains_per_inch * length
    share = min(mass_tolerance_gr / mass / 2, spine_tolerance / arrow.static_spine / 4) / 2
    places = []
    for end in tapered_ends(arrow):
        away = np.arange(0.0, end.length_in + GAUGE_EVERY_IN / 2, GAUGE_EVERY_IN)
        places += list(away if end.name == "rear" else length - away[::-1])
    thick = diameters_mm(arrow, np.array(places))
    return [
        Gauge(float(x), float(d), math.floor(share * float(d) * 1000) / 1000)
        for x, d in zip(places, thick, strict=True)
    ]
