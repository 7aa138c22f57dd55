"""The shaft that is being tuned: by its length, by its tapers, or by which way it is shot."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from lyrandis.core.arrow.matched_set import MASS_SCALE_GR, SPINE_SCALE
from lyrandis.core.arrow.taper import Gauge, diameters_mm, gauges
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.in_line import InLine
from lyrandis.core.tune.over_stiff import Side, Ways, ways
from lyrandis.core.tune.shaft import (
    ReadAt,
    ShaftPlan,
    cut_plan,
    length_for,
    shortest_safe_in,
    taper_plan,
)

_LEAST_WHOLE_IN = 6.0  # of the shaft is left whole between two tapers: own choice
_DRAWN_EVERY_IN, _SUITS_EVERY_IN = 0.5, 0.25


@dataclass(frozen=True)
class Profile:
    """Diameters over the length: [in from the throat], [mm], shape (n,)."""

    at_in: list[float]
    diameter_mm: list[float]


@dataclass(frozen=True)
class Suits:
    """Spines that suit by the shaft's length [in], shape (n,); None outside the fit."""

    length_in: list[float]
    spine: list[float | None]


@dataclass(frozen=True)
class ShaftBench:
    """What the reads say of this shaft, and what to do next with it."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    arrow: ArrowBench
    in_line: InLine

    def reads(self, tuned: str) -> list[ReadAt]:
        """The reads of a shaft that is tuned one way and else is what it is now."""
        kept = still_true(self.trials, "shaft_read", self.rig)
        return [
            ReadAt(k.trial.length_in, k.trial.read, k.trial.arrows)
            for k in kept
            if k.trial.tuned == tuned and _same_but(tuned, k.rig, self.rig)
        ]

    @cached_property
    def cut(self) -> ShaftPlan:
        """The next cut."""
        r = self.rig
        now, draw = r.arrow.shaft_length_in, r.archer.draw_length_in
        least = shortest_safe_in(draw)
        model = None
        if now > least:
            model = length_for(self.arrow.suits_at, self.arrow.build.acts_spine, now, least)
        low = self.arrow.window.low
        stiff = low is not None and self.arrow.build.acts_spine < low
        return cut_plan(self.reads("length"), now, draw, model, stiff)

    @cached_property
    def is_read(self) -> bool:
        """Whether arrows were read with the shaft as it is, whatever was tuned."""
        return any(plan.step != "start" for plan in self._plans)

    @property
    def is_straight(self) -> bool:
        """Whether by every read of the shaft as it is it flies straight, by enough arrows."""
        return {plan.step for plan in self._plans} - {"start"} == {"copy"}

    @property
    def _plans(self) -> tuple[ShaftPlan, ...]:
        return (self.cut, self.rear, self.front)

    @cached_property
    def suits(self) -> Suits | None:
        """The spine that suits from an inch longer down to the shortest safe length."""
        a, least = self.rig.arrow, shortest_safe_in(self.rig.archer.draw_length_in)
        at = np.arange(least, max(a.shaft_length_in, least) + 1.0, _SUITS_EVERY_IN)
        told = [self.arrow.suits_at(float(length)) for length in at]
        if all(spine is None for spine in told):
            return None
        return Suits(at.tolist(), told)

    @cached_property
    def rear(self) -> ShaftPlan:
        """The next inch of the rear taper."""
        a = self.rig.arrow
        return taper_plan(self.reads("rear_taper"), a.rear_taper_in, self._room - a.front_taper_in)

    @cached_property
    def front(self) -> ShaftPlan:
        """The next inch of the front taper."""
        a = self.rig.arrow
        return taper_plan(self.reads("front_taper"), a.front_taper_in, self._room - a.rear_taper_in)

    @property
    def _room(self) -> float:
        return self.rig.arrow.shaft_length_in - _LEAST_WHOLE_IN

    @cached_property
    def profile(self) -> Profile:
        """The shaft's thickness from end to end."""
        length = self.rig.arrow.shaft_length_in
        at = np.linspace(0.0, length, int(length / _DRAWN_EVERY_IN) + 1)
        return Profile(at.tolist(), diameters_mm(self.rig.arrow, at).tolist())

    @cached_property
    def gauges(self) -> list[Gauge]:
        """The diameters by which it is copied onto the set."""
        return gauges(self.rig.arrow, MASS_SCALE_GR, SPINE_SCALE)

    @cached_property
    def favoured(self) -> Side:
        """The side that the string favours; without a look, the one on which the arrow lies."""
        if self.in_line.favoured in ("left", "right"):
            return "left" if self.in_line.favoured == "left" else "right"
        return "left" if self.rig.arrow_left else "right"

    @cached_property
    def ways(self) -> Ways:
        """What the groups say of the ways to shoot an over-stiff shaft."""
        kept = still_true(self.trials, "way", self.rig)
        return ways([k.trial.group for k in kept], self.favoured)


_OTHERS = {
    "length": ("rear_taper_in", "front_taper_in"),
    "rear_taper": ("shaft_length_in", "front_taper_in"),
    "front_taper": ("shaft_length_in", "rear_taper_in"),
}


def _same_but(tuned: str, was: Rig, now: Rig) -> bool:
    """Whether nothing of the shaft but what is being tuned was changed since."""
    return all(getattr(was.arrow, n) == getattr(now.arrow, n) for n in _OTHERS[tuned])
