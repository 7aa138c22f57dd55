"""What is shown of the shaft: what dragging it does, how it is tuned, and the set one by one."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrow.matched_set import MASS_SCALE_GR, SPINE_SCALE
from lyrandis.core.arrow.taper import Gauge
from lyrandis.core.bench import Bench
from lyrandis.core.bench.shaft import Profile, Suits
from lyrandis.core.findings import Said
from lyrandis.core.flight.flyers import AT_M, Flyers
from lyrandis.core.stations.shaft import told_plan
from lyrandis.core.trials.shaft_read import TUNED, Tuned
from lyrandis.core.tune.over_stiff import Side, Ways
from lyrandis.core.tune.shaft import ReadAt, ShaftPlan

_POINTS_GR = np.arange(10.0, 601.0, 5.0)
_SHAFTS_GPI = np.arange(3.0, 25.01, 0.1)


@dataclass(frozen=True)
class Levers:
    """What dragging does, as tables to look up: shape (n,) each pair.

    point_gr, balance_in : where the arrow balances with each point
    grains_per_inch, gpp : grains per pound with each shaft
    """

    point_gr: list[float]
    balance_in: list[float]
    grains_per_inch: list[float]
    gpp: list[float]


def levers(b: Bench) -> Levers:
    """The tables for this arrow: only the point, or only the shaft's weight, is another."""
    arrow, weight = b.rig.arrow, b.bow.weight.value
    others = [p for p in b.arrow.build.parts if p.name != "point"]
    mass, moment = sum(p.mass_gr for p in others), sum(p.mass_gr * p.at_in for p in others)
    shaft = next(p.mass_gr for p in others if p.name == "shaft")
    without = b.arrow.build.parts_gr - shaft
    balance = (moment + _POINTS_GR * arrow.shaft_length_in) / (mass + _POINTS_GR)
    return Levers(
        point_gr=_POINTS_GR.tolist(),
        balance_in=balance.tolist(),
        grains_per_inch=[round(float(g), 1) for g in _SHAFTS_GPI],
        gpp=((without + shaft * _SHAFTS_GPI / arrow.grains_per_inch) / weight).tolist(),
    )


@dataclass(frozen=True)
class ShaftPlanView(ShaftPlan):
    """A plan, and what it says."""

    tuned: Tuned
    said: Said


@dataclass(frozen=True)
class ShaftView:
    """How the shaft is tuned; `ways` of the over-stiff school, and the side that it begins on.

    bears_gr, bears_spine : what the gauges let shafts of a set differ by
    """

    plans: list[ShaftPlanView]
    suits: Suits | None
    reads: list[ReadAt]
    profile: Profile
    gauges: list[Gauge]
    bears_gr: float
    bears_spine: float
    ways: Ways
    favoured: Side


def shaft_view(b: Bench) -> ShaftView:
    """The shaft's answer."""
    plans: dict[Tuned, ShaftPlan] = {
        "length": b.shaft.cut, "rear_taper": b.shaft.rear, "front_taper": b.shaft.front,
    }  # fmt: skip
    return ShaftView(
        plans=[
            ShaftPlanView(**vars(plan), tuned=name, said=told_plan(plan, TUNED[name].capitalize()))
            for name, plan in plans.items()
        ],
        suits=b.shaft.suits,
        reads=b.shaft.reads("length"),
        profile=b.shaft.profile,
        gauges=b.shaft.gauges,
        bears_gr=MASS_SCALE_GR,
        bears_spine=SPINE_SCALE,
        ways=b.shaft.ways,
        favoured=b.shaft.favoured,
    )


@dataclass(frozen=True)
class FlyersView(Flyers):
    """Every shaft's place at `at_m`, and whether the worst one flies out."""

    at_m: float
    out: bool


def flyers_view(b: Bench) -> FlyersView | None:
    """Every shaft's place; None where no end was shot numbered."""
    told = b.dozen.flyers
    return FlyersView(**vars(told), at_m=AT_M, out=told.flies_out) if told.shafts else None
