"""A rig on the bench, its subjects beside one another."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from lyrandis.core.bench.aim import AimBench
from lyrandis.core.bench.aiming import AimingBench
from lyrandis.core.bench.archer import ArcherBench
from lyrandis.core.bench.arrow import ArrowBench
from lyrandis.core.bench.arrow_tally import ArrowTally, arrow_tally
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bench.brace import BraceBench
from lyrandis.core.bench.clip import ClipBench
from lyrandis.core.bench.dozen import DozenBench
from lyrandis.core.bench.drawn import Drawn
from lyrandis.core.bench.fit import FitBench
from lyrandis.core.bench.flex import FlexBench
from lyrandis.core.bench.groups import GroupsBench
from lyrandis.core.bench.in_line import InLineBench, in_line_of
from lyrandis.core.bench.line import CentreShotBench, NockBench, TillerBench
from lyrandis.core.bench.quiet import quiet_of
from lyrandis.core.bench.reading import ReadingBench
from lyrandis.core.bench.shaft import ShaftBench
from lyrandis.core.bench.string import StringBench
from lyrandis.core.bench.walk_back import WalkBackBench
from lyrandis.core.conditions import Stopped, stopped_on
from lyrandis.core.dates import EPOCH
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.flight.held import NONE_TRIED, Held
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.measured import Recalled, recalled, untrue
from lyrandis.core.parts import Part, Rig, Slot
from lyrandis.core.trials import MEASURED, ClipTrial, KeptTrial
from lyrandis.core.tune.quiet import Quiet

LONGER_DRAW_IN = 1.0  # of a draw made long on purpose


@dataclass(frozen=True)
class Bench:
    """A rig on the bench. Members raise RefusedError where the rig cannot be computed.

    trials : those of its history
    elsewhere : those of other rigs that had one of its parts on
    parts : its parts as they are kept, where they are
    verdicts : how those on the archer's other rigs did
    drawn : the rig as it stood before, as far as its weight goes, where a plan to go up asks
    now : an ISO time, passed in where days matter: the core has no clock
    """

    rig: Rig
    trials: tuple[KeptTrial, ...] = ()
    now: str = EPOCH
    elsewhere: tuple[KeptTrial, ...] = ()
    parts: Mapping[Slot, Part] = field(default_factory=dict)
    verdicts: Held = NONE_TRIED
    drawn: tuple[Drawn, ...] = ()

    def with_changes(self, changes: Mapping[str, Any]) -> Bench:
        """The rig with settings changed, and what is measured as it then is."""
        rig = changed(self.rig, {p: v for p, v in changes.items() if p not in MEASURED})
        typed = {p: v for p, v in changes.items() if p in MEASURED}
        if self.known:
            typed = untrue(rig, self.known) | typed
        return replace(self, rig=changed(rig, typed) if typed else rig)

    @cached_property
    def stopped(self) -> dict[Slot, Stopped]:
        """The slots whose part must not be shot, and why."""
        return stopped_on(self.rig.on, self.known, self.parts)

    @cached_property
    def known(self) -> tuple[KeptTrial, ...]:
        """Every trial that may speak of the rig's parts."""
        return (*self.trials, *self.elsewhere)

    @cached_property
    def recalled(self) -> dict[str, Recalled]:
        """What earlier measurements say of settings that are not measured any more, by path."""
        draw = self.archer.true_draw.value
        told = {path: recalled(path, self.rig, self.known, draw) for path in MEASURED}
        return {path: one for path, one in told.items() if one is not None}

    @cached_property
    def archer(self) -> ArcherBench:
        """Who draws: how far, and what can be held."""
        return ArcherBench(self.rig, self.known, self.now)

    @cached_property
    def bow(self) -> BowBench:
        """The bow at this draw."""
        return BowBench(self.rig, self.archer, self.recalled.get("bow.measured"), self.drawn)

    @cached_property
    def fit(self) -> FitBench:
        """The bow's length against the draw, and other bows that could be had."""
        return FitBench(self.rig, self.bow)

    @cached_property
    def string(self) -> StringBench:
        """The string that is on."""
        return StringBench(self.rig, self.known, self.bow)

    @cached_property
    def in_line(self) -> InLineBench:
        """Whether the string runs over the middle of limbs and riser."""
        return in_line_of(self.rig, self.known)

    @cached_property
    def brace(self) -> BraceBench:
        """The brace height."""
        return BraceBench(self.rig, self.trials, self.bow, self.now)

    @cached_property
    def tiller(self) -> TillerBench:
        """Whether the two limbs bend alike."""
        return TillerBench(self.rig, self.trials)

    @cached_property
    def centre_shot(self) -> CentreShotBench:
        """Where the arrow's point stands beside the string."""
        return CentreShotBench(self.rig, self.trials)

    @cached_property
    def nock(self) -> NockBench:
        """The nock point: its ordinary start, and what the reads say."""
        return NockBench(self.rig, self.trials)

    @cached_property
    def arrow(self) -> ArrowBench:
        """The arrow on this bow."""
        return ArrowBench(self.rig, self.archer, self.bow, self.recalled, self.trials)

    @cached_property
    def shaft(self) -> ShaftBench:
        """The shaft that is being tuned."""
        return ShaftBench(self.rig, self.trials, self.arrow, self.in_line.told)

    @cached_property
    def flex(self) -> FlexBench:
        """The shaft passing the bow."""
        return FlexBench(self.rig, self.bow, self.arrow)

    @cached_property
    def spine_error_groups(self) -> float | None:
        """By how many spine groups the shaft is stiffer than what leaves this bow cleanly, −
        weaker; None outside the fit."""
        suits = self.arrow.window.spine_28in
        if suits is None:
            return None
        return math.log(suits.value / self.arrow.build.acts_spine) / GROUP_LN

    @cached_property
    def reading(self) -> ReadingBench:
        """What the flight reads come to."""

        def error_of(rig: Rig) -> float | None:
            try:
                return (self if rig == self.rig else replace(self, rig=rig)).spine_error_groups
            except RefusedError:
                return None

        def clip_of(kept: KeptTrial) -> ClipBench | None:
            try:
                return (self if kept.rig == self.rig else replace(self, rig=kept.rig)).clip(
                    kept.trial
                )
            except RefusedError:
                return None

        return ReadingBench(
            self.rig, self.trials, error_of, self.verdicts, clip_of, lambda: self.longer_draw_ok
        )

    @property
    def longer_draw_ok(self) -> bool:
        """Whether a draw so much longer leaves arrow, bow and maker room for one as long again."""
        far = self.rig.archer.draw_length_in + 2 * LONGER_DRAW_IN
        most = self.rig.bow.maker_max_draw_in
        if self.rig.arrow.shaft_length_in < far or (most is not None and most < far):
            return False
        try:
            then = self.with_changes({"archer.draw_length_in": far})
            return not then.bow.stacks and then.arrow.shot is not None
        except RefusedError:
            return False

    def clip(self, trial: ClipTrial) -> ClipBench:
        """A clip beside the model of this rig; raises RefusedError where it cannot be shot."""
        found = self.arrow.window.clean
        match = None if found is None else found.match
        return ClipBench(trial, self.flex, self.arrow.build.acts_spine, match)

    @cached_property
    def walk_back(self) -> WalkBackBench:
        """The walk-back."""
        return WalkBackBench(self.rig, self.trials)

    @cached_property
    def groups(self) -> GroupsBench:
        """The groups, and the setting that was stepped through."""
        return GroupsBench(self.rig, self.trials)

    @cached_property
    def dozen(self) -> DozenBench:
        """The set of arrows, one by one."""
        return DozenBench(self.rig, self.known, self.arrow, self.aim, self.flex)

    @cached_property
    def quiet(self) -> Quiet:
        """The latest session of quiet checks."""
        return quiet_of(self.trials, self._swept)

    @property
    def _swept(self) -> bool:
        """Whether a sweep of the brace height came to its end, and still stands."""
        try:
            heard = self.brace.listening
        except RefusedError:
            return False
        return heard.curve is not None and heard.curve.verdict is not None and not heard.stale

    @cached_property
    def aim(self) -> AimBench:
        """Where the arrow goes and how it is aimed."""

        def computed_of(rig: Rig) -> AimedArrow | None:
            try:
                return replace(self, rig=rig).aim.computed
            except RefusedError:
                return None

        return AimBench(self.rig, self.bow, self.arrow, self.known, computed_of)

    @cached_property
    def aiming(self) -> AimingBench:
        """What the archer would weigh about the aim."""
        return AimingBench(self.rig, self.aim, self.known)

    @cached_property
    def arrow_tally(self) -> list[ArrowTally]:
        """How many arrows its parts have shot."""
        return arrow_tally(self.rig, self.known, self.now)
