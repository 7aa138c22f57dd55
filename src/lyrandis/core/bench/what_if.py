"""Arrows side by side on one bow: what another build changes all the way down to the butt."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Literal

import numpy as np

from lyrandis.core.aim.crawls import checked_crawls, danger_space_m
from lyrandis.core.arrow.shot import Verdict
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import flight_s, impact_m

if TYPE_CHECKING:
    from lyrandis.core.bench.bench import Bench

Fits = Literal["stiff", "fits", "weak"]
WEIGHT_STEP = 0.1  # of the shaft's own weight: a lighter and a heavier one
LENGTH_STEP_IN = 1.0
POINT_STEP_GR = 25.0


@dataclass(frozen=True)
class FarShot:
    """What the arrow does at the archer's far distance.

    far_m, near_m : the archer's farthest distance within reach, and the one before it
    drop_cm : how far below the mark it lands there with the crawl of the one before
    danger_m : over how many metres it stays within the spot
    crawl_mm, near_crawl_mm : at both
    """

    far_m: float
    near_m: float
    crawl_mm: float
    near_crawl_mm: float
    drop_cm: float
    danger_m: float
    flight_s: float


@dataclass(frozen=True)
class ArrowOnBow:
    """One arrow on this bow. What cannot be told for it is None.

    changes : settings by which it differs from the one on the rig
    problem : why it is no arrow for this bow
    """

    changes: Mapping[str, Any]
    shaft_length_in: float
    point_gr: float
    mass_gr: Estimate
    balance_in: float
    front_of_centre_pct: float
    gpp: Estimate
    floor_gpp: float
    verdict: Verdict
    speed_fps: Estimate
    energy_ftlb: float
    momentum_lb_s: float
    stays_ftlb: float
    acts_spine: float
    suits: Estimate | None
    fits: Fits | None
    point_on_m: Estimate | None
    far: FarShot | None


def build_of(b: Bench, changes: Mapping[str, Any]) -> Bench:
    """The rig with another build: a weighing of the one before holds for it no longer."""
    told = dict(changes)
    if told and b.rig.arrow.weighed_gr is not None and "arrow.weighed_gr" not in told:
        told["arrow.weighed_gr"] = None
    return b.with_changes(told) if told else b


def usual_others(b: Bench) -> dict[str, dict[str, float]]:
    """The builds that are asked for most, by what they are called."""
    a = b.rig.arrow
    shaft = a.grains_per_inch
    return {
        "A lighter shaft": {"arrow.grains_per_inch": round(shaft * (1 - WEIGHT_STEP), 1)},
        "A heavier shaft": {"arrow.grains_per_inch": round(shaft * (1 + WEIGHT_STEP), 1)},
        "A longer shaft": {"arrow.shaft_length_in": a.shaft_length_in + LENGTH_STEP_IN},
        "A heavier point": {"arrow.point_gr": a.point_gr + POINT_STEP_GR},
    }


def arrow_on_bow(b: Bench, changes: Mapping[str, Any]) -> ArrowOnBow:
    """What an arrow does on this bow.

    Raises
    ------
    RefusedError : no such arrow, or it is shorter than the draw.
    """
    other = build_of(b, changes)
    built, shot, window = other.arrow.build, other.arrow.shot, other.arrow.window
    fits: Fits | None = None
    if window.low is not None and window.high is not None:
        inside = window.low <= built.acts_spine <= window.high
        fits = "fits" if inside else "stiff" if built.acts_spine < window.low else "weak"
    try:
        point_on, far = other.aim.point_on, _far(other)
    except RefusedError:
        point_on, far = None, None
    return ArrowOnBow(
        changes=changes,
        shaft_length_in=other.rig.arrow.shaft_length_in,
        point_gr=other.rig.arrow.point_gr,
        mass_gr=Estimate(
            value=built.mass_gr,
            plus_minus=built.sd_gr,
            source="measured" if built.measured else "rule",
        ),
        balance_in=built.balance_in,
        front_of_centre_pct=built.front_of_centre_pct,
        gpp=other.arrow.gpp,
        floor_gpp=other.arrow.floor.floor_gpp,
        verdict=other.arrow.floor.verdict,
        speed_fps=shot.speed_fps,
        energy_ftlb=shot.arrow_energy_ftlb,
        momentum_lb_s=shot.momentum_lb_s,
        stays_ftlb=shot.residual_energy_ftlb,
        acts_spine=built.acts_spine,
        suits=window.spine_28in,
        fits=fits,
        point_on_m=point_on,
        far=far,
    )


def _far(b: Bench) -> FarShot | None:
    """At the archer's farthest distance within reach; None with fewer than two of them."""
    aimed, half = b.aim.aimed, b.rig.aim.spot_half_height_cm / 100
    within = np.array(sorted(set(b.rig.aim.distances_m)))
    crawls = checked_crawls(aimed, within)
    within, crawls = within[crawls >= 0], crawls[crawls >= 0]
    if len(within) < 2:
        return None
    near, far = within[-2:]
    low, high = danger_space_m(aimed, crawls[-1:], within[-1:], half)
    return FarShot(
        far_m=float(far),
        near_m=float(near),
        crawl_mm=float(crawls[-1]),
        near_crawl_mm=float(crawls[-2]),
        drop_cm=-100 * float(impact_m(aimed, crawls[-2], far)),
        danger_m=float(high[0] - low[0]),
        flight_s=flight_s(aimed, float(far)),
    )
