"""The arrow on this bow: its build, the shot, its floor and the spine window."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.arrow.build import Build, build
from lyrandis.core.arrow.shot import Floor, Shot, arrow_floor, shot
from lyrandis.core.arrow.window import SpineWindow, refuse_short, spine_window
from lyrandis.core.bench.archer import ArcherBench
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.fit.limbs import LimbPair, limb_pair
from lyrandis.core.rig import Rig


@dataclass(frozen=True)
class ArrowBench:
    """The arrow, and what one shot does with it."""

    rig: Rig
    archer: ArcherBench
    bow: BowBench

    @cached_property
    def build(self) -> Build:
        """The arrow from its parts."""
        return build(self.rig.arrow)

    @cached_property
    def shot(self) -> Shot:
        """One shot; refuses an arrow shorter than the draw."""
        r = self.rig
        refuse_short(r.archer, r.arrow)
        return shot(r.bow, r.string, self.bow.curve, self.archer.true_draw, self.build.mass_gr)

    @cached_property
    def window(self) -> SpineWindow:
        """The first spine suggestion."""
        r = self.rig
        return spine_window(r.archer, r.bow, r.string, r.arrow, self.bow.curve)

    @cached_property
    def floor(self) -> Floor:
        """How light an arrow may be, and this one's verdict."""
        stiff = self.rig.arrow.static_spine <= self.window.high
        return arrow_floor(self.rig.bow, self.shot.grains_per_pound, self.bow.stacks, stiff)

    @cached_property
    def limb_pair(self) -> LimbPair:
        """Whether the two limbs work as a pair, at this arrow's speed."""
        return limb_pair(self.rig.limbs, self.bow.stroke_in, self.shot.speed_fps.value)
