"""What an archer already knows, as visits with a doubt: a point-on, crawls, the two finger numbers.

    known point-on D ± m      →  at D the bare arrow lands on the mark, ± as much as it falls over m
    known crawl c at d ± cm   →  at d the crawl c lands on the mark, ± cm
    gap at 20 m, per 10 m     →  crawls on a line at three distances, ± a part of a finger

And back: the eye and speed that they ask for, which may contradict the rig.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.aim.crawls import FINGERS_AT_M, FINGERS_PER_M
from lyrandis.core.aim.learn import NAMES, CrawlVisit, Prior, learn
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import AimedArrow, impact_m

_FALL_M, _CRAWL_STEP_MM = 0.5, 1.0
FINGERS_DOUBT = 0.15  # of a finger width: what is remembered is a rounded number
FINGERS_SHOT_M = (20.0, 30.0, 40.0)  # where the two numbers are taken to speak
LEAST_DOUBT_CM = 1.0
WIDE = {"speed_mps": 12.0, "eye_mm": 45.0}  # where visits are to tell it alone
CONTRADICTS_SDS = 2.0  # one in twenty does so by chance


def point_on_visit(aimed: AimedArrow, distance_m: float, doubt_m: float) -> CrawlVisit:
    """A point-on that is known to so many metres.

    The doubt on the butt is how far the arrow falls through the sight line over it; aimed says
    how steeply.
    """
    at = distance_m + np.array([-_FALL_M, _FALL_M])
    low, high = impact_m(aimed, 0.0, at)
    doubt = 100 * doubt_m * abs(float(high - low)) / (2 * _FALL_M)
    return CrawlVisit(distance_m, 0.0, (0.0,), max(doubt, LEAST_DOUBT_CM))


def crawl_known(distance_m: float, crawl_mm: float, doubt_cm: float) -> CrawlVisit:
    """A crawl that is known to land on the mark, to so many centimetres."""
    return CrawlVisit(distance_m, crawl_mm, (0.0,), max(doubt_cm, LEAST_DOUBT_CM))


def gap_known(distance_m: float, gap_cm: float, crawl_mm: float, doubt_cm: float) -> CrawlVisit:
    """A gap that is known to land on the spot, to so many centimetres."""
    return CrawlVisit(distance_m, crawl_mm, (gap_cm,), max(doubt_cm, LEAST_DOUBT_CM))


def finger_visits(
    aimed: AimedArrow, at_20m: float, per_10m: float, finger_mm: float
) -> list[CrawlVisit]:
    """The two numbers of the finger-width school as visits, where their crawls are real ones.

    Parameters
    ----------
    at_20m : the gap at 20 m [finger widths]
    per_10m : what is taken from it for each 10 m farther [finger widths]
    finger_mm : one finger's width [mm]
    """
    told = []
    for d in FINGERS_SHOT_M:
        away = (d - FINGERS_AT_M) / FINGERS_PER_M
        crawl = (at_20m - per_10m * away) * finger_mm
        doubt_mm = FINGERS_DOUBT * finger_mm * math.hypot(1.0, away)
        here, beside = impact_m(aimed, np.array([crawl, crawl + _CRAWL_STEP_MM]), d)
        doubt = 100 * doubt_mm * abs(float(beside - here)) / _CRAWL_STEP_MM
        if crawl >= 0:
            told.append(CrawlVisit(d, crawl, (0.0,), max(doubt, LEAST_DOUBT_CM)))
    return told


@dataclass(frozen=True)
class Implied:
    """What visits ask for where little else is presumed.

    contradicts : whether the eye lies farther from the rig's than both doubts allow
    """

    eye_mm: Estimate
    speed_mps: Estimate
    contradicts: bool


def implied(visits: Sequence[CrawlVisit], aimed: AimedArrow, prior: Prior) -> Implied:
    """The eye's height that visits ask for with the rig's own speed, and the speed they ask for.

    Parameters
    ----------
    visits : at least one
    prior : what the rig presumes

    The eye is told with the rig's speed and no word on the eye; the speed with no word on either,
    so it is wide: speed and eye look alike on a butt.

    Source: own derivation; a contradiction is told at two standard deviations.
    """
    eye_at, speed_at = NAMES.index("eye_mm"), NAMES.index("speed_mps")
    eye = _freed(visits, aimed, prior, ("eye_mm",))[eye_at]
    speed = _freed(visits, aimed, prior, ("eye_mm", "speed_mps"))[speed_at]
    off = abs(eye.value - float(prior.mean[eye_at]))
    both = math.hypot(eye.plus_minus, float(prior.sd[eye_at]))
    return Implied(eye, speed, off > CONTRADICTS_SDS * both)


def _freed(
    visits: Sequence[CrawlVisit], aimed: AimedArrow, prior: Prior, names: tuple[str, ...]
) -> list[Estimate]:
    """Each of NAMES by the visits, some of them hardly presumed."""
    free = prior.covariance.copy()
    for name in names:
        i = NAMES.index(name)
        free[i, :] = free[:, i] = 0.0
        free[i, i] = WIDE[name] ** 2
    told = learn(visits, aimed, Prior(prior.mean, free))
    return [
        Estimate(value=float(getattr(told.aimed, n)), plus_minus=float(sd), source="measured")
        for n, sd in zip(NAMES, np.sqrt(np.diag(told.covariance)), strict=True)
    ]
