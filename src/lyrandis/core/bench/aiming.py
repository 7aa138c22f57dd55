"""Aiming weighed: anchors, a longer arrow, the one crawl, hits and how distance is judged."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from lyrandis.core.aim.anchors import Anchored, anchored
from lyrandis.core.aim.crawls import point_on_unshot
from lyrandis.core.aim.judging import (
    Judged,
    Missed,
    hits,
    judged,
    judged_within,
    missed_by_crawl,
    missed_by_gap,
)
from lyrandis.core.aim.known import Implied, implied
from lyrandis.core.aim.learn import point_on, prior_of
from lyrandis.core.aim.one_crawl import OneCrawl, one_crawls
from lyrandis.core.aim.round_card import CardLine, round_card
from lyrandis.core.arrays import Array
from lyrandis.core.bench.aim import AimBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.estimate import Estimate
from lyrandis.core.fields import changed
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM
from lyrandis.core.flight.scatter import AT_M
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.units import M_PER_IN, MM_PER_IN

LONGER_IN = 1.0


@dataclass(frozen=True)
class AnchorRow:
    """An anchor: its name, empty for a height of the eye alone; own: the archer's as it is."""

    anchor: str
    told: Anchored
    own: bool = False


@dataclass(frozen=True)
class AimingBench:
    """What an archer would weigh about the aim."""

    rig: Rig
    aim: AimBench
    known: tuple[KeptTrial, ...] = ()

    @cached_property
    def anchors(self) -> list[AnchorRow]:
        """The usual anchors of those who draw so, and the archer's own, from near to far."""
        own = self.aim.aimed.eye_mm
        now = replace(anchored(self.aim.aimed, own, self.aim.unshot), point_on_m=self._own_point_on)
        rows = [AnchorRow("", now, own=True)]
        if self.rig.archer.release != "thumb":
            rows += [
                AnchorRow(name, anchored(self.aim.aimed, eye, self.aim.unshot))
                for name, eye in EYE_ABOVE_NOCK_MM.items()
            ]
        else:
            rows += [
                AnchorRow("", anchored(self.aim.aimed, own + by, self.aim.unshot))
                for by in (-20.0, 20.0)
            ]
        return sorted(rows, key=lambda r: r.told.eye_mm)

    @property
    def _own_point_on(self) -> Estimate | None:
        """Without a crawl, as learnt where it was."""
        if self.aim.learned is None:
            return point_on_unshot(self.aim.aimed, self.aim.unshot)
        return point_on(replace(self.aim.learned, aimed=self.aim.aimed))

    @cached_property
    def longer(self) -> Anchored | None:
        """The same anchor with the shaft left an inch longer; None where that cannot be told."""
        rig = changed(
            self.rig, {"arrow.shaft_length_in": self.rig.arrow.shaft_length_in + LONGER_IN}
        )
        other = self.aim.computed_of(rig)
        if other is None:
            return None
        own, was = self.aim.aimed, self.aim.computed
        here = replace(
            own,
            nock_to_tip_m=own.nock_to_tip_m + LONGER_IN * M_PER_IN,
            speed_mps=own.speed_mps * other.speed_mps / was.speed_mps,
            drag_per_m=own.drag_per_m * other.drag_per_m / was.drag_per_m,
        )
        return anchored(here, own.eye_mm, self.aim.unshot)

    @cached_property
    def largest_share(self) -> float | None:
        """The largest crawl of the chart as a share of the bow's length; None without crawls."""
        if self.rig.aims_by == "gaps":
            return None
        largest = float(self.aim.checked.max())
        return max(largest, 0.0) / MM_PER_IN / self.rig.bow.length_in

    @cached_property
    def one_crawls(self) -> tuple[OneCrawl, OneCrawl]:
        """The one crawl that hits the most, and the one with the smallest gaps."""
        r = self.rig
        d = np.array(r.aim.distances_m)
        return one_crawls(self.aim.aimed, d, r.aim.spot_half_height_cm, self.aim.spread_cm_30m)

    @cached_property
    def round_cards(self) -> list[list[CardLine]]:
        """The card of each of the archer's courses."""
        return [round_card(self.rig, self.aim.aimed, c.targets) for c in self.rig.courses]

    @cached_property
    def judged(self) -> Judged | None:
        """How the archer judges distance, by every guess walked; None from too few."""
        return judged(self.guesses)

    @cached_property
    def guesses(self) -> list[tuple[float, float]]:
        """Every guess and what was walked [m]."""
        return [pair for k in still_true(self.known, "judging", self.rig) for pair in k.trial.pairs]

    @cached_property
    def implied(self) -> Implied | None:
        """What the visits ask for; None before any."""
        if not self.aim.visits:
            return None
        level = replace(self.aim.computed, slope_deg=0.0)
        return implied(self.aim.visits, level, prior_of(level, self.aim.unshot))

    @cached_property
    def _missed(self) -> Missed:
        aimed: AimedArrow = self.aim.aimed
        if self.rig.aims_by == "crawls":
            return missed_by_crawl(aimed)
        return missed_by_gap(aimed, self.rig.steady_crawl_mm)

    @cached_property
    def _sd_cm(self) -> Array:
        """One arrow's scatter up and down, with a chart that is right."""
        return self.aim.spread_cm_30m * np.array(self.rig.aim.distances_m) / AT_M

    def hits(self, bias: float = 0.0, spread: float = 0.0) -> Array:
        """The share of arrows in the spot at each of the chart's distances."""
        d = np.array(self.rig.aim.distances_m)
        half = self.rig.aim.spot_half_height_cm
        return hits(self._missed, d, half, self._sd_cm, bias, spread)

    @cached_property
    def judged_hits(self) -> Array | None:
        """The same with the archer's own judging; None where that is not known."""
        told = self.judged
        if told is None:
            return None
        return self.hits(told.bias.value, told.spread.value)

    @cached_property
    def judged_within_m(self) -> Array:
        """How well each distance must be judged [m, one sd] to keep nine of ten hits."""
        d = np.array(self.rig.aim.distances_m)
        return judged_within(self._missed, d, self.rig.aim.spot_half_height_cm, self._sd_cm)
