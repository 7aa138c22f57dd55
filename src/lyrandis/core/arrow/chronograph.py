"""What a chronograph tells of a bow: stored energy E, virtual mass K, and other arrows' speeds.

    1/v² = (m + K) / 2E      a straight line over the arrow's mass m

1/v²  |            ×        slope 1/2E, meets the mass axis at −K
      |      ×
      | ×                   × each arrow weight's mean
      +-------------- m

The line is combined with what the model says of E (± 10 %: half of it is the speed's ± 5 %) and of
κ (± 0.4 gr/lb). With one weight, or weights less than a quarter apart, it says next to nothing of K
and the prior keeps it: only E is scaled.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.shot import speed_fps
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import say

ENERGY_SHARE_SD = 0.1
KAPPA_SD_GPP = 0.4
SHOT_SD_SHARE, SHOT_WEIGHS = 0.01, 4.0  # scatter of one shot's speed before any, and its weight
ARROW_SD_SHARE = 0.004  # what an arrow weight's mean is off by: fletching, scale, one day's draw
APART = 1.25  # heaviest over lightest from which on the line speaks of K
OUTLIER_MAD = 3.0
_MAD_TO_SD = 1.4826
_LEAST_SPREAD_SHARE = 0.004  # of the speed: shots nearer than this times three are no outliers
_STEPS = 40  # of Gauss and Newton; a handful serve


@dataclass(frozen=True)
class Shots:
    """Speeds [ft/s] of arrows of one mass [gr]."""

    mass_gr: float
    speed_fps: tuple[float, ...]


@dataclass(frozen=True)
class Known:
    """A speed [ft/s] of an arrow of a mass [gr] that was told otherwise, with its own ±."""

    mass_gr: float
    speed_fps: Estimate


@dataclass(frozen=True)
class Calibrated:
    """A bow as the chronograph knows it.

    stored_energy_ftlb, virtual_mass_gr : each with its ±
    scatter_share : of one shot's speed
    shots : what it was told from
    outliers : for each arrow weight, which shots were left out
    line : whether the weights were far enough apart to speak of K
    covariance : of (ln E, K) [-, gr]
    """

    stored_energy_ftlb: Estimate
    virtual_mass_gr: Estimate
    scatter_share: float
    shots: tuple[Shots, ...]
    outliers: tuple[tuple[int, ...], ...]
    line: bool
    covariance: Array

    def moved(self, energy_share: float, virtual_more_gr: float) -> Calibrated:
        """The same bow set a little otherwise, by what the model says that moves.

        Parameters
        ----------
        energy_share : the model's stored energy now, over what it was when the shots were made
        virtual_more_gr : the model's virtual mass now, less what it was then [gr]
        """
        energy, virtual = self.stored_energy_ftlb, self.virtual_mass_gr
        return replace(
            self,
            stored_energy_ftlb=Estimate(
                value=energy.value * energy_share,
                plus_minus=energy.plus_minus * energy_share,
                source=energy.source,
            ),
            virtual_mass_gr=virtual.model_copy(update={"value": virtual.value + virtual_more_gr}),
        )

    def speed_fps(self, mass_gr: float) -> Estimate:
        """The speed of an arrow of some mass [ft/s], with the ± of its own day's fletching."""
        energy, virtual = self.stored_energy_ftlb.value, self.virtual_mass_gr.value
        speed = float(speed_fps(energy, mass_gr, virtual))
        slope = np.array([0.5, -0.5 / (mass_gr + virtual)])
        share = math.hypot(math.sqrt(float(slope @ self.covariance @ slope)), ARROW_SD_SHARE)
        return Estimate(value=speed, plus_minus=share * speed, source="measured")


def outlying(speeds_fps: Sequence[float]) -> tuple[int, ...]:
    """Which shots lie beyond 3 scaled MAD of their median; none of fewer than four."""
    if len(speeds_fps) < 4:
        return ()
    v = np.asarray(speeds_fps, dtype=float)
    middle = float(np.median(v))
    spread = max(_MAD_TO_SD * float(np.median(np.abs(v - middle))), _LEAST_SPREAD_SHARE * middle)
    return tuple(int(i) for i in np.flatnonzero(np.abs(v - middle) > OUTLIER_MAD * spread))


def calibrate(
    shots: Sequence[Shots],
    energy_ftlb: float,
    virtual_gr: float,
    weight_lbf: float,
    known: Sequence[Known] = (),
) -> Calibrated:
    """E and K from speeds, combined with what the model says of them.

    Parameters
    ----------
    shots : one of each arrow weight
    known : speeds told otherwise; at least one of these or of the shots
    energy_ftlb, virtual_gr : the model's [ft·lb], [gr]
    weight_lbf : at the true draw [lb]; κ's ± counts by it

    Raises
    ------
    RefusedError : heavier arrows came out faster, or the line meets the axis at K ≤ 0: such
        speeds are not one bow's.

    Source: docs/mechanics A3. Noise in ln v, one Gauss–Newton fit of (ln E, K).
    """
    outliers = tuple(outlying(s.speed_fps) for s in shots)
    kept = [
        np.delete(np.asarray(s.speed_fps, dtype=float), out)
        for s, out in zip(shots, outliers, strict=True)
    ]
    mass = np.array([s.mass_gr for s in shots], dtype=float)
    mean = np.array([np.log(v).mean() for v in kept])
    n = np.array([len(v) for v in kept])
    scatter = _scatter(kept)
    sd = np.sqrt(scatter**2 / n + ARROW_SD_SHARE**2)
    line = len(mass) > 1 and float(mass.max()) >= APART * float(mass.min())
    if line:
        _refuse_nonsense(mass, np.exp(mean))
    if known:
        told = [k.speed_fps for k in known]
        mass = np.append(mass, [k.mass_gr for k in known])
        mean = np.append(mean, np.log([t.value for t in told]))
        sd = np.append(sd, [t.plus_minus / t.value for t in told])
    prior = np.array([math.log(energy_ftlb), virtual_gr])
    spread = np.array([ENERGY_SHARE_SD, KAPPA_SD_GPP * weight_lbf])
    theta, covariance = _fit(mass, mean, sd, prior, spread, free=line)
    energy = math.exp(theta[0])
    return Calibrated(
        stored_energy_ftlb=Estimate(
            value=energy, plus_minus=energy * math.sqrt(covariance[0, 0]), source="measured"
        ),
        virtual_mass_gr=Estimate(
            value=float(theta[1]),
            plus_minus=math.sqrt(covariance[1, 1]),
            source="measured" if line else "model",
        ),
        scatter_share=scatter,
        shots=tuple(shots),
        outliers=outliers,
        line=line,
        covariance=covariance,
    )


def _scatter(kept: Sequence[Array]) -> float:
    """Of one shot's speed, as a share: what is usual, and what the shots show."""
    squares = sum(float(((np.log(v) - np.log(v).mean()) ** 2).sum()) for v in kept)
    free = sum(len(v) - 1 for v in kept)
    return math.sqrt((SHOT_WEIGHS * SHOT_SD_SHARE**2 + squares) / (SHOT_WEIGHS + free))


def _refuse_nonsense(mass: Array, speed: Array) -> None:
    slope, begin = np.polyfit(mass, 1 / speed**2, 1)
    if slope <= 0:
        raise RefusedError(
            "readings",
            say(
                "The heavier arrows came out faster, which no bow does. Look at which speed "
                "belongs to which arrow, and whether all were drawn alike."
            ),
        )
    if begin <= 0:
        raise RefusedError(
            "readings",
            say(
                "By these speeds the bow would pass on more than it stores: the light arrows are "
                "too fast for the heavy ones. Weigh the arrows again, and draw them alike."
            ),
        )


def _fit(
    mass: Array, log_speed: Array, sd: Array, prior: Array, spread: Array, free: bool
) -> tuple[Array, Array]:
    """(ln E, K) and its covariance: ln v = (ln E − ln(m + K))/2 + constant, and the prior.

    free : whether K may move; else E alone is scaled, and K keeps its ±
    """
    theta = prior.copy()
    for _ in range(_STEPS):
        told = np.log(speed_fps(math.exp(theta[0]), mass, float(theta[1])))
        slopes = np.stack([np.full_like(mass, 0.5), -0.5 / (mass + theta[1])], 1) / sd[:, None]
        square = slopes.T @ slopes + np.diag(spread**-2.0)
        pull = slopes.T @ ((log_speed - told) / sd) + (prior - theta) / spread**2
        step = np.linalg.solve(square, pull) if free else np.array([pull[0] / square[0, 0], 0.0])
        theta = theta + step
        theta[1] = max(theta[1], -0.5 * float(mass.min()))
        if float(np.abs(step / spread).max()) < 1e-9:
            break
    return theta, np.asarray(np.linalg.inv(square))
