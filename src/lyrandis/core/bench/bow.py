"""The bow at this archer's draw: its curve, where it stacks and ends, its limbs."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.arrow.shot import weight_at_draw
from lyrandis.core.bench.archer import ArcherBench
from lyrandis.core.bench.drawn import Drawn as DrawnThen
from lyrandis.core.bench.drawn import taken_on
from lyrandis.core.bow.curve import ForceDraw, force_draw, refuse_past_end, stack_onset_in
from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import say
from lyrandis.core.fit.hold import Against, Hold
from lyrandis.core.fit.limbs import BoltTurn, bolts
from lyrandis.core.fit.step_up import WeightPlan
from lyrandis.core.flex.of_rig import Drawn
from lyrandis.core.measured import Recalled
from lyrandis.core.parts import Bow, Rig


@dataclass(frozen=True)
class BowBench:
    """The bow as it stands and is drawn; `before`: how it stood since it was first kept."""

    rig: Rig
    archer: ArcherBench
    recalled: Recalled | None = None
    before: tuple[DrawnThen, ...] = ()

    @property
    def as_recalled(self) -> Bow:
        """The bow, off its marking by as much as a scale once said of it."""
        bow = self.rig.bow
        if self.recalled is None:
            return bow
        marked = bow.marked_weight_lbf * self.recalled.over_model
        return bow.model_copy(update={"marked_weight_lbf": marked})

    @cached_property
    def curve(self) -> ForceDraw:
        """The force–draw curve; refuses a draw past the bow's end or the maker's limit."""
        curve = force_draw(self.as_recalled, self.rig.string.material)
        draw, limit = self.draw_in, self.rig.bow.maker_max_draw_in
        if limit is not None and draw > limit:
            raise RefusedError(
                "archer.draw_length_in",
                say(
                    "{draw} is past the {limit} that the bow's maker allows. Never draw past the "
                    "maker's limit.",
                    draw=("draw", draw),
                    limit=("draw", limit),
                ),
                limit,
                "in",
            )
        refuse_past_end(curve, draw, self.rig.bow.length_in)
        return curve

    @property
    def draw_in(self) -> float:
        """The true draw [in, trade]."""
        return self.archer.true_draw.value

    @cached_property
    def force_lbf(self) -> float:
        """Weight [lb] at the true draw."""
        return self.curve.force(self.draw_in)

    @cached_property
    def weight(self) -> Estimate:
        """The same with its ±."""
        told = weight_at_draw(self.curve, self.archer.true_draw)
        if self.recalled is None:
            return told
        from_draw = self.curve.slope(self.draw_in) * self.archer.true_draw.plus_minus
        sd = math.hypot(self.recalled.now.plus_minus, from_draw)
        return Estimate(value=told.value, plus_minus=sd, source="model")

    @cached_property
    def heaviest_lbf(self) -> float:
        """Weight [lb] on a bad day: at the longest draw, and at the ± of what is known of it."""
        at = min(self.archer.longest_true_in, float(self.curve.draw_in[-1]))
        return max(self.curve.force(at), self.force_lbf) + self.weight.plus_minus

    @cached_property
    def onset_in(self) -> float | None:
        """Draw [in] at which the bow starts to stack."""
        return stack_onset_in(self.rig.bow, self.rig.string.material)

    @cached_property
    def stacks(self) -> bool:
        """Whether the bow stacks before the archer's draw."""
        return self.onset_in is not None and self.onset_in < self.draw_in

    @cached_property
    def angle_deg(self) -> float:
        """String angle [deg] at the true draw."""
        return self.curve.angle(min(self.draw_in, float(self.curve.draw_in[-1])))

    @property
    def stroke_in(self) -> float:
        """The string's way from full draw to brace [in]."""
        return self.draw_in - TRADE_OFFSET_IN - brace_to_pivot_in(self.rig.bow)

    @property
    def drawn(self) -> Drawn:
        """The same as the model of the shaft passing it takes it."""
        return Drawn(self.curve, self.draw_in, self.weight.value)

    @cached_property
    def bolts(self) -> BoltTurn:
        """What the limb bolts do as they stand."""
        r = self.rig
        return bolts(r.bow, r.string.material, r.limbs, self.draw_in)

    @cached_property
    def hold(self) -> Hold:
        """What the archer's holds say of this weight."""
        return self.archer.strength.of(self.force_lbf)

    @cached_property
    def against(self) -> Against:
        """This weight against all that the archer held."""
        return self.archer.strength.against(self.force_lbf)

    @cached_property
    def plan(self) -> WeightPlan:
        """The plan to go up from this weight; refuses a goal that cannot be planned."""
        slack = _SLACK_OF_STEP * self.rig.step_up.step_lbf
        taken = taken_on(self.rig, self.before, self.archer.now, slack)
        return self.archer.plan(self.force_lbf, taken)


_SLACK_OF_STEP = 0.5  # what is lighter by less is the same weight
