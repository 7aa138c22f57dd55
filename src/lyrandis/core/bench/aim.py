"""Aiming over this arrow: how it flies, the crawls or gaps for the archer's distances, point-on."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from lyrandis.core.aim.aimed import aimed_arrow
from lyrandis.core.aim.borrow import borrowed
from lyrandis.core.aim.counting import PARTS, Counted, counted
from lyrandis.core.aim.crawls import (
    CrawlChart,
    Unshot,
    checked_crawls,
    crawl_chart,
    crawl_plus_minus_mm,
    impact_plus_minus_cm,
    point_on_unshot,
    refuse_distances,
)
from lyrandis.core.aim.gaps import GapRow, crawled, gap_chart
from lyrandis.core.aim.learn import (
    MODEL_SD_MRAD,
    ChartRow,
    CrawlVisit,
    Learned,
    Prior,
    learn,
    point_on_with,
    prior_of,
)
from lyrandis.core.aim.learn import chart as chart_of
from lyrandis.core.aim.next_visit import CANDIDATES_M, NextVisit, next_visits
from lyrandis.core.aim.sight import SightPicture, sight_picture
from lyrandis.core.arrays import Array
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM
from lyrandis.core.flight.scatter import ARROW_SD_CM_30M
from lyrandis.core.flight.trajectory import AimedArrow, points_on_m
from lyrandis.core.parts import Rig
from lyrandis.core.route import moved_since
from lyrandis.core.trials import KeptTrial
from lyrandis.core.trials.crawl_visit import CHART_GROUNDS
from lyrandis.core.units import M_PER_FT

EYE_MEASURED_SD_MM = 10.0  # of an eye's height that is not just the anchor's usual one
_OF_THE_ARROW = ("set", "shaft", "arrow_mass")
WALK_STEP_M = 5.0
_LEAST_LENT = 2  # visits: a chart of fewer is not lent


@dataclass(frozen=True)
class Lent:
    """What another set's chart lends: the rig as it was shot, its visits, the speeds' ratio."""

    rig: Rig
    visits: int
    prior: Prior


@dataclass(frozen=True)
class AimBench:
    """How this arrow is aimed.

    known : every trial that may speak of the archer, of other rigs as well
    computed_of : how another rig's arrow flies by the models alone; None where it cannot be told
    """

    rig: Rig
    bow: BowBench
    arrow: ArrowBench
    known: tuple[KeptTrial, ...] = ()
    computed_of: Callable[[Rig], AimedArrow | None] = lambda _: None

    @cached_property
    def computed(self) -> AimedArrow:
        """How the arrow flies and is looked along by the models alone."""
        speed = self.arrow.shot.speed_fps.value * M_PER_FT
        return aimed_arrow(self.rig, speed, self.bow.stroke_in, self.arrow.build.mass_gr)

    @cached_property
    def _level(self) -> AimedArrow:
        return replace(self.computed, slope_deg=0.0)

    @cached_property
    def shot(self) -> list[CrawlVisit]:
        """Every visit shot that counts, with the rig as it is, in the order they were shot."""
        kept = still_true(self.known, "crawl_visit", self.rig)
        return [k.trial.visit for k in kept if k.trial.counts]

    @cached_property
    def told(self) -> list[CrawlVisit]:
        """What the archer knew before, as visits with a doubt."""
        kept = still_true(self.known, "aim_known", self.rig)
        return [visit for k in kept for visit in k.trial.visits(self._level)]

    @cached_property
    def visits(self) -> list[CrawlVisit]:
        """What the chart is learnt from."""
        return [*self.told, *self.shot]

    @cached_property
    def lent(self) -> Lent | None:
        """What the best-shot other set of this archer and bow lends; None where there is none."""
        grounds = {n: t for n, t in CHART_GROUNDS.items() if n not in _OF_THE_ARROW}
        arrow = {n: t for n, t in CHART_GROUNDS.items() if n in _OF_THE_ARROW}
        sets: list[tuple[Rig, list[CrawlVisit]]] = []
        for kept in self.known:
            if kept.trial.kind != "crawl_visit" or kept.struck or not kept.trial.counts:
                continue
            if moved_since(grounds, kept.rig, self.rig) or not moved_since(
                arrow, kept.rig, self.rig
            ):
                continue
            same = next((v for r, v in sets if not moved_since(arrow, r, kept.rig)), None)
            if same is None:
                sets.append((kept.rig, same := []))
            same.append(kept.trial.visit)
        for rig, visits in sorted(sets, key=lambda of: -sum(len(v.heights_cm) for v in of[1])):
            there = self.computed_of(rig) if len(visits) >= _LEAST_LENT else None
            if there is not None:
                level = replace(there, slope_deg=0.0)
                first = learn(visits, level, prior_of(level, self.unshot))
                ratio = self.computed.speed_mps / there.speed_mps
                return Lent(rig, len(visits), borrowed(first, ratio))
        return None

    @cached_property
    def prior(self) -> Prior:
        """What is presumed before this set is shot."""
        return self.lent.prior if self.lent else prior_of(self._level, self.unshot)

    @cached_property
    def learned(self) -> Learned | None:
        """What the visits, shot on the level, and another set's chart say; None before any."""
        if not self.visits and self.lent is None:
            return None
        return learn(self.visits, self._level, self.prior)

    @cached_property
    def _told(self) -> Learned:
        """What is known of archer and arrow: learnt, or else what is presumed."""
        return self.learned or learn([], self._level, self.prior)

    @cached_property
    def next_visits(self) -> list[NextVisit]:
        """Distances to shoot next, the best first."""
        walks = self.rig.aims_by == "crawls"
        return next_visits(self._told, steady_crawl_mm=None if walks else self.rig.steady_crawl_mm)

    @cached_property
    def walking_back(self) -> NextVisit | None:
        """The next distance of one who walks back in equal steps; None past the last of them."""
        shot = [v.distance_m for v in self.shot]
        at = max(shot) + WALK_STEP_M if shot else min(self.rig.aim.distances_m)
        walks = self.rig.aims_by == "crawls"
        if at > CANDIDATES_M[-1]:
            return None
        steady = None if walks else self.rig.steady_crawl_mm
        every = next_visits(
            self._told, candidates_m=np.union1d(CANDIDATES_M, [at]), steady_crawl_mm=steady
        )
        return next((n for n in every if n.distance_m == at), None)

    @cached_property
    def spread_cm_30m(self) -> float:
        """One arrow of this archer at 30 m, one sd: from what landed and from what is ordinary."""
        return self.learned.spread_cm_30m if self.learned else ARROW_SD_CM_30M

    @cached_property
    def gaps(self) -> tuple[GapRow, ...]:
        """How far off the spot the tip is held, for one who does not walk the string."""
        r = self.rig
        return gap_chart(
            self.aimed,
            self._distances,
            r.arrow.diameter_mm,
            r.aim.spot_half_height_cm,
            r.steady_crawl_mm,
        )

    @cached_property
    def gap_plus_minus_cm(self) -> Array:
        """± of each gap [cm], shape (n,)."""
        d = self._distances
        crawl = np.full(len(d), self.rig.steady_crawl_mm)
        if self.learned is None:
            return impact_plus_minus_cm(self.aimed, crawl, d, self.unshot)
        here = replace(self.learned, aimed=self.aimed)
        by, _ = here.slopes(crawl, d)
        variance = np.einsum("ni,ij,nj->n", by, here.covariance, by)
        return np.asarray(100 * np.sqrt(variance + (MODEL_SD_MRAD / 1000 * d) ** 2))

    @cached_property
    def _distances(self) -> Array:
        return np.array(self.rig.aim.distances_m)

    @cached_property
    def counted(self) -> list[Counted]:
        """The chart's crawls as the archer counts them; those beyond point-on as none."""
        r = self.rig
        crawl = np.array([row.crawl_mm or 0.0 for row in self.chart.rows])
        return counted(
            self.aimed,
            self._distances,
            crawl,
            r.archer.stitch_pitch_mm,
            PARTS[r.aim.mark_parts],
            r.archer.finger_width_mm,
            r.aim.mark_words,
        )

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
        return chart_of(told, self._distances)

    @cached_property
    def chart(self) -> CrawlChart:
        """The crawl chart for the archer's distances."""
        r = self.rig
        return crawl_chart(
            self.aimed,
            self._distances,
            r.aim.spot_half_height_cm,
            r.archer.stitch_pitch_mm,
            r.archer.finger_width_mm,
        )

    @cached_property
    def sights(self) -> tuple[SightPicture, ...]:
        """What the archer sees at each of the chart's distances."""
        r = self.rig
        held = (
            [(row.distance_m, row.crawl_mm, row.hold_over_cm) for row in self.chart.rows]
            if r.aims_by == "crawls"
            else [(row.distance_m, r.steady_crawl_mm, -row.gap_cm) for row in self.gaps]
        )
        return tuple(
            sight_picture(self.aimed, r.arrow.diameter_mm, r.aim.spot_half_height_cm, *at)
            for at in held
        )

    @cached_property
    def checked(self) -> Array:
        """The crawls for the archer's distances; refuses what no chart can be made for."""
        if self.rig.aims_by != "crawls":
            refuse_distances(self.aimed, self._distances)
            return np.full(len(self._distances), self.rig.steady_crawl_mm)
        return checked_crawls(self.aimed, self._distances)

    @cached_property
    def unshot(self) -> Unshot:
        """What the chart rests on before it was shot."""
        speed = self.arrow.shot.speed_fps.plus_minus * M_PER_FT
        archer = self.rig.archer
        if archer.eye_above_nock_mm == EYE_ABOVE_NOCK_MM[archer.anchor]:
            return Unshot(speed_mps=speed)
        return Unshot(speed_mps=speed, eye_mm=EYE_MEASURED_SD_MM)

    @cached_property
    def plus_minus_mm(self) -> Array:
        """± of each of the chart's crawls [mm]."""
        if self._rows:
            return np.array([r.crawl_sd_mm for r in self._rows])
        d = self._distances
        return crawl_plus_minus_mm(self.aimed, d, self.unshot)

    @cached_property
    def off_cm(self) -> Array:
        """± of where the first arrow of each distance lands [cm]."""
        if self._rows:
            return np.array([r.impact_sd_cm for r in self._rows])
        d = self._distances
        return impact_plus_minus_cm(self.aimed, self.checked, d, self.unshot)

    @cached_property
    def point_on(self) -> Estimate | None:
        """Point-on distance [m], with the one crawl where a class allows one; None past 400 m."""
        if self.learned is None and not self.rig.steady_crawl_mm:
            return point_on_unshot(self.aimed, self.unshot)
        told, crawl = replace(self._told, aimed=self.aimed), self.rig.steady_crawl_mm
        on = points_on_m((crawled(self.aimed, crawl),))[0]
        if on is None:
            return None
        found = point_on_with(told, crawl, on)
        # What is only known from before, or borrowed, was not measured with this set.
        return found if self.shot else found.model_copy(update={"source": "model"})
