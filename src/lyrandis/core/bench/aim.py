"""Aiming over this arrow: how it flies, the crawls for the archer's distances, point-on."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from lyrandis.core.aim.aimed import aimed_arrow
from lyrandis.core.aim.crawls import (
    CrawlChart,
    Unshot,
    checked_crawls,
    crawl_chart,
    crawl_plus_minus_mm,
    impact_plus_minus_cm,
)
from lyrandis.core.aim.learn import ChartRow, CrawlVisit, Learned, learn, point_on, prior_of
from lyrandis.core.aim.learn import chart as chart_of
from lyrandis.core.aim.next_visit import NextVisit, next_visits
from lyrandis.core.aim.sight import SightPicture, sight_picture
from lyrandis.core.arrays import Array
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import AimedArrow, points_on_m
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.units import M_PER_FT


@dataclass(frozen=True)
class AimBench:
    """How this arrow is aimed."""

    rig: Rig
    bow: BowBench
    arrow: ArrowBench
    trials: tuple[KeptTrial, ...] = ()

    @cached_property
    def computed(self) -> AimedArrow:
        """How the arrow flies and is looked along by the models alone."""
        speed = self.arrow.shot.speed_fps.value * M_PER_FT
        return aimed_arrow(self.rig, speed, self.bow.stroke_in, self.arrow.build.mass_gr)

    @cached_property
    def visits(self) -> list[CrawlVisit]:
        """Every visit that counts, with the rig as it is, in the order they were shot."""
        kept = still_true(self.trials, "crawl_visit", self.rig)
        return [k.trial.visit for k in kept if k.trial.arrows == "count"]

    @cached_property
    def learned(self) -> Learned | None:
        """What the visits, shot on the level, say; None before the first."""
        if not self.visits:
            return None
        level = replace(self.computed, slope_deg=0.0)
        return learn(self.visits, level, prior_of(level, self.unshot))

    @cached_property
    def next_visits(self) -> list[NextVisit]:
        """Distances to shoot next, the best first."""
        level = replace(self.computed, slope_deg=0.0)
        told = self.learned or learn([], level, prior_of(level, self.unshot))
        return next_visits(told)

    @cached_property
    def aimed(self) -> AimedArrow:
        """How the arrow flies and is looked along: as learnt from shots, else as computed."""
        if self.learned is None:
            return self.computed
        return replace(self.learned.aimed, slope_deg=self.rig.aim.slope_deg)

    @cached_property
    def _rows(self) -> list[ChartRow]:
        """The learnt chart's rows on this slope; none before the first visit."""
        if self.learned is None:
            return []
        told = replace(self.learned, aimed=self.aimed)
        return chart_of(told, np.array(self.rig.aim.distances_m))

    @cached_property
    def chart(self) -> CrawlChart:
        """The crawl chart for the archer's distances."""
        r = self.rig
        return crawl_chart(
            self.aimed,
            np.array(r.aim.distances_m),
            r.aim.spot_half_height_cm,
            r.archer.stitch_pitch_mm,
            r.archer.finger_width_mm,
        )

    @cached_property
    def sights(self) -> tuple[SightPicture, ...]:
        """What the archer sees at each of the chart's distances."""
        r = self.rig
        return tuple(
            sight_picture(
                self.aimed,
                r.arrow.diameter_mm,
                r.aim.spot_half_height_cm,
                row.distance_m,
                row.crawl_mm,
                row.hold_over_cm,
            )
            for row in self.chart.rows
        )

    @cached_property
    def checked(self) -> Array:
        """The crawls for the archer's distances; refuses what no chart can be made for."""
        return checked_crawls(self.aimed, np.array(self.rig.aim.distances_m))

    @cached_property
    def unshot(self) -> Unshot:
        """What the chart rests on before it was shot."""
        return Unshot(speed_mps=self.arrow.shot.speed_fps.plus_minus * M_PER_FT)

    @cached_property
    def plus_minus_mm(self) -> Array:
        """± of each of the chart's crawls [mm]."""
        if self._rows:
            return np.array([r.crawl_sd_mm for r in self._rows])
        d = np.array(self.rig.aim.distances_m)
        return crawl_plus_minus_mm(self.aimed, d, self.unshot)

    @cached_property
    def off_cm(self) -> Array:
        """± of where the first arrow of each distance lands [cm]."""
        if self._rows:
            return np.array([r.impact_sd_cm for r in self._rows])
        d = np.array(self.rig.aim.distances_m)
        return impact_plus_minus_cm(self.aimed, self.checked, d, self.unshot)

    @cached_property
    def point_on(self) -> Estimate | None:
        """Point-on distance [m]; None beyond 400 m."""
        if self.learned is not None:
            return point_on(replace(self.learned, aimed=self.aimed))
        s = self.aimed
        here, *moved = points_on_m(
            (
                s,
                replace(s, speed_mps=s.speed_mps + self.unshot.speed_mps),
                replace(s, eye_mm=s.eye_mm + self.unshot.eye_mm),
            )
        )
        if here is None:
            return None
        spread = [there - here for there in moved if there is not None]
        return Estimate(
            value=here, plus_minus=float(np.hypot.reduce(spread or [here])), source="model"
        )
