"""The arrow's speed without a chronograph: from crawls that hit at two distances, or from a drop.

Each sighting says: with this crawl, aiming at a mark at this distance, the arrow landed so much
above it. Two crawls that hit tell how fast the crawl must shrink with the distance; one crawl at
two distances tells the drop between them, and leans less on what is not known of crawls.

Unknown with the speed are the eye's height, how a crawl lifts the eye, what it costs in speed, and
an unexplained kick (docs/mechanics C2's priors); nothing is presumed of the speed itself, so that
the answer may stand beside the model's.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.aim.learn import MODEL_SD_MRAD, visit_sd_cm
from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import say
from lyrandis.core.flight.scatter import ARROW_SD_CM_30M
from lyrandis.core.flight.trajectory import AimedArrow, impact_m

APART = 1.5  # the farthest over the nearest distance
FASTEST_MPS, SLOWEST_MPS = 120.0, 20.0
MOST_SHARE = 0.25  # wider than that it is no speed
_STEPS = 60


@dataclass(frozen=True)
class Sighting:
    """Arrows shot with one crawl at one distance, and how far above the mark they landed."""

    distance_m: float
    crawl_mm: float
    height_cm: float
    arrows: int


def speed_from_marks(seen: Sequence[Sighting], aimed: AimedArrow) -> Estimate:
    """The speed [m/s] without a crawl, with its ±.

    Parameters
    ----------
    seen : at least two, at distances apart by half
    aimed : what is known of the archer and the arrow; its speed is only where the search begins

    Raises
    ------
    RefusedError : too few, too near one another, or no speed explains them.

    Source: docs/mechanics C1, C2; Gauss–Newton with the priors above, the speed free.
    """
    if len(seen) < 2 or max(s.distance_m for s in seen) < APART * min(s.distance_m for s in seen):
        raise RefusedError(
            "sightings",
            say("A speed wants two distances, the farther at least half as far again."),
        )
    d = np.array([s.distance_m for s in seen])
    c = np.array([s.crawl_mm for s in seen])
    y = np.array([s.height_cm for s in seen]) / 100
    n = np.array([s.arrows for s in seen])
    sd = np.hypot(visit_sd_cm(d, n, ARROW_SD_CM_30M), MODEL_SD_MRAD * d / 10) / 100
    prior = np.array(
        [math.log(aimed.speed_mps), aimed.eye_mm, aimed.speed_loss_per_mm, aimed.q, 0.0]
    )
    unknown = Unshot(speed_mps=math.inf)
    spread = np.array(
        [
            unknown.speed_mps,
            unknown.eye_mm,
            unknown.speed_loss_per_mm,
            unknown.q,
            unknown.kick_mrad,
        ]
    )
    steps = np.array([1e-4, 0.01, 1e-6, 1e-4, 1e-3])

    def told(theta: Array) -> Array:
        at = replace(
            aimed,
            speed_mps=math.exp(theta[0]),
            eye_mm=float(theta[1]),
            speed_loss_per_mm=float(theta[2]),
            q=float(theta[3]),
            kick_mrad=float(theta[4]),
        )
        return impact_m(at, c, d)

    theta, weight = prior.copy(), np.diag(1 / spread**2)
    square = weight
    bounds = math.log(SLOWEST_MPS), math.log(FASTEST_MPS)
    for _ in range(_STEPS):
        here = told(theta)
        slopes = np.stack(
            [(told(theta + s * e) - here) / s for s, e in zip(steps, np.eye(5), strict=True)], 1
        ) / sd[:, None]  # fmt: skip
        square = slopes.T @ slopes + weight
        pull = slopes.T @ ((y - here) / sd) + weight @ (prior - theta)
        step = np.linalg.solve(square + 1e-12 * np.eye(5), pull)
        step[0] = np.clip(step[0], -0.2, 0.2)
        theta = theta + step
        theta[0] = np.clip(theta[0], *bounds)
        if float(np.abs(step[0])) < 1e-9:
            break
    share = math.sqrt(float(np.linalg.inv(square)[0, 0]))
    speed = math.exp(theta[0])
    off = float((np.abs(y - told(theta)) / sd).max())
    if not bounds[0] < theta[0] < bounds[1] or off > 4:
        raise RefusedError(
            "sightings",
            say(
                "No speed explains these: look at which crawl belongs to which distance, and "
                "whether up and down were told apart."
            ),
        )
    if share > MOST_SHARE:
        raise RefusedError(
            "sightings",
            say("These say next to nothing of the speed: take distances farther apart."),
        )
    return Estimate(value=speed, plus_minus=share * speed, source="measured")
