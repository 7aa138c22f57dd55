"""Walk-back: what arrows at one vertical line, from near to far, say of centre shot and plate.

    x(d) = a + b · (d − d1)/10 + c · (d − d1)(d2 − d) / ((d2 − d1)/2)²

near d1 |   .            b, the slant: cm a 10 m; centre shot
        |    .  ← c      c, the bow: how far the middle lies off the ends' line; plate or plunger
 far d2 |      .
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said, say
from lyrandis.core.flight.scatter import AT_M, one_arrow_cm, squares_cm2

VISIT_WEIGHS = 3.0  # how many arrows the ordinary scatter counts for within a visit
READ_SD_CM = 0.5
VISIT_SD_CM_30M = 0.8  # how a visit aims at the line beside the others: own estimate
COUNTS_SD, COUNTS_CM = 2.5, 1.5
LEAST_DISTANCES, LEAST_SPAN = 3, 3.0
MOST_MORE = 400  # more arrows than that nobody shoots for it

Verdict = Literal["straight", "slant", "bow", "both", "unclear"]


@dataclass(frozen=True)
class LineVisit:
    """Arrows shot at the line from one distance [m]: how far right of it each landed [cm]."""

    distance_m: float
    offsets_cm: tuple[float, ...]


@dataclass(frozen=True)
class WalkedBack:
    """What the visits say.

    slant_cm_per_10m, bow_cm : + right; the bow where the middle lies right of the ends' line
    near_cm : where the arrows of the nearest distance lie, by all of them; + right
    spread_cm_30m : of one arrow of this archer, at 30 m
    more_arrows : how many more would tell, where it is unclear; None where none would
    """

    slant_cm_per_10m: Estimate
    bow_cm: Estimate
    near_cm: float
    spread_cm_30m: float
    verdict: Verdict
    more_arrows: int | None
    why: Said

    def line(self, distances_m: Sequence[float], points: int) -> list[tuple[float, float]]:
        """The line through the visits: distance [m] and how far right [cm], nearest first."""
        near, far = min(distances_m), max(distances_m)
        told = []
        for d in np.linspace(near, far, points).tolist():
            bow = self.bow_cm.value * (d - near) * (far - d) / ((far - near) / 2) ** 2
            told.append((d, self.near_cm + self.slant_cm_per_10m.value * (d - near) / 10 + bow))
        return told


def _squares(visit: LineVisit) -> float:
    """The visit's own scatter, squared and summed, in proportion at 30 m [cm²]."""
    return squares_cm2(visit.offsets_cm, visit.distance_m)


def _spread(visits: Sequence[LineVisit]) -> float:
    """One arrow's sd at 30 m [cm], from the visits' own scatter and what is ordinary."""
    free = sum(len(v.offsets_cm) - 1 for v in visits)
    return one_arrow_cm(sum(_squares(v) for v in visits), free)


def walk_back(visits: Sequence[LineVisit]) -> WalkedBack:
    """The slant and the bow of a walk-back, with their ± and what they amount to.

    An effect counts beyond 2.5 of its sd and 1.5 cm, the slant at the farthest distance, the bow in
    the middle. Straight is only said where an effect as large as the archer's own spread there
    would have counted; else it is unclear.

    Parameters
    ----------
    visits : at three distances or more, the farthest at least three times the nearest

    Raises
    ------
    RefusedError : too few distances, or too near one another.

    Source: docs/mechanics F2; weighted least squares.
    """
    d = np.array([v.distance_m for v in visits], dtype=float)
    if len(set(d.tolist())) < LEAST_DISTANCES or d.max() < LEAST_SPAN * d.min():
        raise RefusedError(
            "visits",
            say(
                "A walk-back wants three distances at least, the farthest three times the nearest: "
                "say {near} to {far}.",
                near=("distance", 10.0),
                far=("distance", 30.0),
            ),
        )
    near, far = float(d.min()), float(d.max())
    mean = np.array([np.mean(v.offsets_cm) for v in visits])
    n = np.array([len(v.offsets_cm) for v in visits])
    spread = _spread(visits)
    # A visit that scattered more than its distance asks for is trusted less.
    own = np.array([_squares(v) for v in visits])
    at_30m = (VISIT_WEIGHS * spread**2 + own) / (VISIT_WEIGHS + n - 1)
    sd = np.sqrt((at_30m * (d / AT_M) ** 2 + READ_SD_CM**2) / n + (VISIT_SD_CM_30M * d / AT_M) ** 2)
    shape = np.stack(
        [np.ones_like(d), (d - near) / 10, (d - near) * (far - d) / ((far - near) / 2) ** 2], 1
    )
    weighed = shape / sd[:, None]
    covariance = np.linalg.inv(weighed.T @ weighed)
    at_near, slant, bow = covariance @ weighed.T @ (mean / sd)
    slant_sd, bow_sd = math.sqrt(covariance[1, 1]), math.sqrt(covariance[2, 2])
    reach = (far - near) / 10
    own_far, own_middle = spread * far / AT_M, spread * (near + far) / 2 / AT_M
    effects = ((slant * reach, slant_sd * reach, own_far), (bow, bow_sd, own_middle))
    slanted, bowed = (abs(e) > max(COUNTS_SD * s, COUNTS_CM) for e, s, _ in effects)
    short = max(COUNTS_SD * s / max(own, COUNTS_CM) for _, s, own in effects)
    verdict: Verdict = "both" if slanted and bowed else "slant" if slanted else "bow"
    more = None
    if not slanted and not bowed:
        verdict = "straight" if short <= 1 else "unclear"
        if verdict == "unclear":
            more = math.ceil(float(n.sum()) * (short**2 - 1))
    slant_told = Estimate(value=float(slant), plus_minus=slant_sd, source="measured")
    bow_told = Estimate(value=float(bow), plus_minus=bow_sd, source="measured")
    return WalkedBack(
        slant_told,
        bow_told,
        float(at_near),
        spread,
        verdict,
        more if more is None or more <= MOST_MORE else None,
        _why(verdict, slant_told, bow_told, more),
    )


def _why(verdict: Verdict, slant: Estimate, bow: Estimate, more: int | None) -> Said:
    side = "right" if slant.value > 0 else "left"
    middle = "right" if bow.value > 0 else "left"
    values: dict[str, tuple[str, float] | tuple[str, Estimate]] = {
        "slant": ("spot", slant.times(math.copysign(1.0, slant.value))),
        "bow": ("spot", bow.times(math.copysign(1.0, bow.value))),
        "ten": ("distance", 10.0),
    }
    if verdict == "slant":
        return say(
            f"The arrows run {side} by {{slant}} each {{ten}}: the centre shot is off. Move it a "
            "little, walk back again, and the first change tells which way.",
            slant=values["slant"],
            ten=values["ten"],
        )
    if verdict == "bow":
        return say(
            f"The middle distances lie {{bow}} {middle} of the line between the ends: the side "
            "plate or the plunger does that. Change it a little; the first change tells which way.",
            bow=values["bow"],
        )
    if verdict == "both":
        return say(
            f"The arrows run {side} by {{slant}} each {{ten}}, and the middle lies {{bow}} "
            f"{middle} of the line: mend the side plate or plunger first, then the centre shot.",
            **values,
        )
    if verdict == "straight":
        return say(
            "No slant and no bow that would show over your own spread: {slant} each {ten} and "
            "{bow} in the middle.",
            **values,
        )
    tail = "" if more is None or more > MOST_MORE else f" About {more} more would tell."
    return say(
        "Nothing counts yet: {slant} each {ten} and {bow} in the middle are within what so few "
        "arrows scatter." + tail,
        **values,
    )
