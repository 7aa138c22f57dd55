"""An arrow from its parts: mass, balance, moment of inertia (docs/mechanics B1)."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.arrow.spine import pounds_26in, stiffness_n_m2
from lyrandis.core.parts import Arrow
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN

FLETCHING_CENTRE_IN = 2.75  # ahead of the throat; a 4 in feather set 3/4 in from it
PARTS_SD_SHARE = 0.02  # parts' catalogue numbers add up to within about this


@dataclass(frozen=True)
class Part:
    """A part of the arrow: mass [gr], its centre [in from the throat], and its length [in]."""

    name: str
    mass_gr: float
    at_in: float
    length_in: float


@dataclass(frozen=True)
class Build:
    """A built arrow; `mass_gr` is the weighed mass where the arrow was weighed.

    sd_gr : of the mass
    """

    mass_gr: float
    sd_gr: float
    parts_gr: float
    measured: bool
    balance_in: float
    front_of_centre_pct: float
    inertia_kg_m2: float
    spine_28in: float
    spine_26in_lbf: float
    stiffness_n_m2: float
    parts: tuple[Part, ...]

    @property
    def lightest_gr(self) -> float:
        """What it may weigh if its parts add up to less than they say [gr]."""
        return self.mass_gr - self.sd_gr


def parts_of(arrow: Arrow) -> tuple[Part, ...]:
    """The arrow's parts from the arrow nock forward."""
    length = arrow.shaft_length_in
    return (
        Part("arrow nock", arrow.nock_gr, 0.0, 0.0),
        Part("fletching", arrow.fletching_gr, FLETCHING_CENTRE_IN, 4.0),
        Part("shaft", arrow.grains_per_inch * length, length / 2, length),
        Part("insert", arrow.insert_gr, length, 0.0),
        Part("point", arrow.point_gr, length, 0.0),
    )


def build(arrow: Arrow) -> Build:
    """Mass, balance point and stiffness of an arrow.

    Front of centre is the trade standard: 100·(balance − L/2)/L, L from the throat of the arrow
    nock to the back of the point. Point and insert count at the shaft's front end.
    """
    parts = parts_of(arrow)
    total = sum(p.mass_gr for p in parts)
    balance = sum(p.mass_gr * p.at_in for p in parts) / total
    length = arrow.shaft_length_in
    inertia = sum(p.mass_gr * ((p.at_in - balance) ** 2 + p.length_in**2 / 12) for p in parts)
    mass = total if arrow.weighed_gr is None else arrow.weighed_gr
    return Build(
        mass_gr=mass,
        sd_gr=PARTS_SD_SHARE * total if arrow.weighed_gr is None else 0.0,
        parts_gr=total,
        measured=arrow.weighed_gr is not None,
        balance_in=balance,
        front_of_centre_pct=100 * (balance - length / 2) / length,
        inertia_kg_m2=inertia * KG_PER_GRAIN * M_PER_IN**2,
        spine_28in=arrow.static_spine,
        spine_26in_lbf=pounds_26in(arrow.static_spine),
        stiffness_n_m2=stiffness_n_m2(arrow.static_spine),
        parts=parts,
    )
