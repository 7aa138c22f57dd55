"""An arrow from its parts: mass, balance, moment of inertia (docs/mechanics B1)."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.arrow.spine import pounds_26in, stiffness_n_m2
from lyrandis.core.arrow.taper import taper
from lyrandis.core.parts import Arrow
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN

_FEATHER_IN = 4.0
FLETCHING_CENTRE_IN = 2.75  # ahead of the throat; a 4 in feather set 3/4 in from it
PARTS_SD_SHARE = 0.02  # parts' catalogue numbers add up to within about this


@dataclass(frozen=True)
class ArrowComponent:
    """A part of the arrow: mass [gr], its centre [in from the throat], and its length [in].

    own_in2 : its own moment of inertia over its mass [in²]
    """

    name: str
    mass_gr: float
    at_in: float
    length_in: float
    own_in2: float


@dataclass(frozen=True)
class Build:
    """A built arrow; `mass_gr` is the weighed mass where the arrow was weighed.

    sd_gr : of the mass
    spine_28in : what a jig reads of the shaft as it is, tapers with it
    acts_spine : of the shaft without tapers that would act alike on the bow
    """

    mass_gr: float
    sd_gr: float
    parts_gr: float
    measured: bool
    balance_in: float
    front_of_centre_pct: float
    inertia_kg_m2: float
    spine_28in: float
    acts_spine: float
    spine_26in_lbf: float
    stiffness_n_m2: float
    parts: tuple[ArrowComponent, ...]

    @property
    def lightest_gr(self) -> float:
        """What it may weigh if its parts add up to less than they say [gr]."""
        return self.mass_gr - self.sd_gr


def parts_of(arrow: Arrow) -> tuple[ArrowComponent, ...]:
    """The arrow's parts from the arrow nock forward."""
    length, told = arrow.shaft_length_in, taper(arrow)
    shaft = arrow.grains_per_inch * length * told.mass_share
    return (
        ArrowComponent("arrow nock", arrow.nock_gr, 0.0, 0.0, 0.0),
        ArrowComponent(
            "fletching", arrow.fletching_gr, FLETCHING_CENTRE_IN, _FEATHER_IN, _FEATHER_IN**2 / 12
        ),
        ArrowComponent("shaft", shaft, told.centre_in, length, told.inertia_in2),
        ArrowComponent("insert", arrow.insert_gr, length, 0.0, 0.0),
        ArrowComponent("point", arrow.point_gr, length, 0.0, 0.0),
    )


def build(arrow: Arrow) -> Build:
    """Mass, balance point and stiffness of an arrow.

    Front of centre is the trade standard: 100·(balance − L/2)/L, L from the throat of the arrow
    nock to the back of the point. Point and insert count at the shaft's front end. Tapers of a
    wood shaft take mass and stiffness from its ends.
    """
    parts = parts_of(arrow)
    total = sum(p.mass_gr for p in parts)
    balance = sum(p.mass_gr * p.at_in for p in parts) / total
    length = arrow.shaft_length_in
    inertia = sum(p.mass_gr * ((p.at_in - balance) ** 2 + p.own_in2) for p in parts)
    mass = total if arrow.weighed_gr is None else arrow.weighed_gr
    told = taper(arrow)
    read = arrow.static_spine * (told.measured_share or told.acts_share)
    return Build(
        mass_gr=mass,
        sd_gr=PARTS_SD_SHARE * total if arrow.weighed_gr is None else 0.0,
        parts_gr=total,
        measured=arrow.weighed_gr is not None,
        balance_in=balance,
        front_of_centre_pct=100 * (balance - length / 2) / length,
        inertia_kg_m2=inertia * KG_PER_GRAIN * M_PER_IN**2,
        spine_28in=read,
        acts_spine=arrow.static_spine * told.acts_share,
        spine_26in_lbf=pounds_26in(read),
        stiffness_n_m2=stiffness_n_m2(read),
        parts=parts,
    )
