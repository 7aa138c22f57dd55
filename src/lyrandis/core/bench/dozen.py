"""A set of arrows on this rig: what its spread costs at the far distance, and who flies out."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from lyrandis.core.aim.crawls import checked_crawls
from lyrandis.core.bench.aim import AimBench
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.flex import FlexBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.flight.flyers import AT_M, Flyers, NumberedShot, flyers
from lyrandis.core.flight.scatter import ARROW_SD_CM_30M
from lyrandis.core.flight.trajectory import drag_per_m, impact_m
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial

_SLOPE_SHARE = 0.05  # of the spine, to either side
_SEED = 1903  # of the lottery: the same shots give the same odds


@dataclass(frozen=True)
class SpreadCost:
    """What arrows that differ in weight do at the archer's far distance.

    high_cm : between the lightest and the heaviest, up and down
    wide_cm : between the stiffest and the weakest, sideways, once the fletching has turned them;
        None where the model of the shaft passing the bow was not tuned
    own_cm : one standard deviation of the archer's own arrows there, up and down
    own_known : whether it comes from the archer's numbered ends
    gr_per_cm : grains that move the impact by a centimetre
    """

    far_m: float
    high_cm: float
    wide_cm: float | None
    own_cm: float
    own_known: bool
    gr_per_cm: float


@lru_cache(maxsize=32)
def _drawn(shots: tuple[NumberedShot, ...]) -> Flyers:
    """The lottery, once for the same shots: a rig is looked at many times while a hand drags."""
    return flyers(shots, np.random.default_rng(_SEED))


@dataclass(frozen=True)
class DozenBench:
    """The set that is on this rig."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    arrow: ArrowBench
    aim: AimBench
    flex: FlexBench

    @cached_property
    def flyers(self) -> Flyers:
        """What the numbered ends say of each shaft."""
        shots = tuple(
            NumberedShot(end, one.number, one.right_cm, one.up_cm, k.trial.distance_m)
            for end, k in enumerate(still_true(self.trials, "numbered", self.rig))
            for one in k.trial.landings
        )
        return _drawn(shots)

    def _wide_cm(self, spine_range: float, far_m: float) -> float | None:
        """By the slope over a group about this spine: a few thousandths alone are lost in steps."""
        if not self.flex.fitted:
            return None
        spine = self.arrow.build.acts_spine
        about = np.array([1 - _SLOPE_SHARE, 1.0, 1 + _SLOPE_SHARE]) * spine
        direction = np.radians(self.flex.leaving(about).direction_deg)
        slope = float(np.abs(np.diff(direction)).max()) / (_SLOPE_SHARE * spine)
        return 100 * far_m * slope * spine_range

    def cost(self, mass_range_gr: float, spine_range: float = 0.0) -> SpreadCost:
        """What a range of weight [gr] and of spine [0.001 in] about this arrow costs.

        Raises
        ------
        RefusedError : no distance of the archer's is within reach.
        """
        aimed, mass = self.aim.aimed, self.arrow.build.mass_gr
        within = np.array(self.rig.aim.distances_m)
        crawls = checked_crawls(aimed, within)
        if not (crawls >= 0).any():
            raise RefusedError("aim.distances_m", say("No distance lies within point-on."))
        far = float(within[crawls >= 0].max())
        crawl = float(crawls[np.argmax(np.where(crawls >= 0, within, 0.0))])
        virtual = self.arrow.shot.virtual_mass_gr

        def lands(other_gr: float) -> float:
            speed = aimed.speed_mps * ((mass + virtual) / (other_gr + virtual)) ** 0.5
            drag = drag_per_m(self.rig.arrow.diameter_mm, other_gr)
            arrow = replace(aimed, speed_mps=speed, drag_per_m=drag)
            return 100 * float(impact_m(arrow, crawl, far))

        half = mass_range_gr / 2
        per_gr = (lands(mass - 0.5) - lands(mass + 0.5)) / 1.0
        known = self.flyers.spread_cm
        return SpreadCost(
            far_m=far,
            high_cm=lands(mass - half) - lands(mass + half),
            wide_cm=self._wide_cm(spine_range, far),
            own_cm=(ARROW_SD_CM_30M if known is None else known) * far / AT_M,
            own_known=known is not None,
            gr_per_cm=1 / per_gr,
        )
