"""The archer: how far they draw, how that changed, what they can hold, and the plan to go up."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.dates import day_of, later
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.draw_history import (
    MEASURE_EVERY_DAYS,
    DrawHistory,
    draw_history,
    draw_point,
)
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.fit.hold import Held, Hold, Strength, hold, strength
from lyrandis.core.fit.step_up import WeightStep, weight_steps
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial, standing

SPREADS = 2.0  # of the draw, on a bad day


@dataclass(frozen=True)
class ArcherBench:
    """Who draws this rig."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    now: str

    @cached_property
    def true_draw(self) -> Estimate:
        """The draw [in, trade] the bow is really pulled to."""
        return true_draw_in(self.rig.archer, self.rig.bow, self.rig.string.material)

    @cached_property
    def longest_in(self) -> float:
        """The draw [in, trade, as the mark shows it] on a bad day, for everything that must hold.

        The longest that was ever logged with a marked arrow, or the mean and two spreads of a
        measured draw, whichever is more. A first guess has no spread of its own: its ± is told.
        """
        a = self.rig.archer
        longest = a.draw_length_in
        if a.draw_method == "marked_arrow":
            longest += SPREADS * (a.draw_plus_minus_in or 0.0)
        for kept in self.measured_on:
            trial = kept.trial
            if trial.method == "marked_arrow":
                mean = sum(trial.readings_in) / len(trial.readings_in)
                longest = max(longest, trial.draw_length_in + max(trial.readings_in) - mean)
        return longest

    @property
    def measured_on(self) -> list[KeptTrial]:
        """The times this archer's draw was measured, by their days."""
        return self._mine("draw")

    def _mine(self, kind: str) -> list[KeptTrial]:
        """Trials of a kind that were made with this archer, on whatever rig."""
        mine = self.rig.on.archer
        return [k for k in standing(self.trials, kind) if k.rig.on.archer == mine]

    @property
    def measure_again(self) -> str | None:
        """The day on which a child's draw is measured again; None for a grown archer."""
        if self.rig.archer.grown != "child":
            return None
        drawn = self.measured_on
        return later(drawn[-1].day, days=MEASURE_EVERY_DAYS) if drawn else day_of(self.now)

    @property
    def longest_true_in(self) -> float:
        """The same where the string is: for a thumb draw further back than the mark."""
        return self.longest_in + self.true_draw.value - self.rig.archer.draw_length_in

    @cached_property
    def draws(self) -> DrawHistory:
        """The archer's draws over time."""
        return draw_history(
            [
                draw_point(
                    k.seq,
                    k.day,
                    k.trial.method,
                    k.trial.draw_length_in,
                    k.trial.plus_minus_in,
                    len(k.trial.readings_in),
                )
                for k in self.measured_on
            ]
        )

    def holds(self, weight_lbf: float) -> Hold:
        """What the archer's holds say of a weight at the draw [lb]."""
        return hold(self._held, weight_lbf)

    @property
    def strength(self) -> Strength:
        """What all holds come to."""
        return strength(self._held)

    @property
    def _held(self) -> list[Held]:
        kept = [k.trial for k in self._mine("hold")]
        return [Held(t.weight_lbf, t.seconds, t.ended == "pain") for t in kept]

    @property
    def in_pain(self) -> bool:
        """Whether the latest hold, of whatever weight, ended in pain."""
        held = self._mine("hold")
        return bool(held) and held[-1].trial.ended == "pain"

    def steps(self, weight_lbf: float) -> list[WeightStep]:
        """The plan to go up from a weight at the draw [lb]; refuses a goal not to be planned.

        A hold that ended in pain freezes it, until one is held without.
        """
        steps = weight_steps(self.rig.step_up, self.rig.archer, weight_lbf, day_of(self.now))
        if steps and self.in_pain:
            raise RefusedError(
                "step_up.goal_lbf",
                "The plan stands still since a hold ended in pain: it goes on once one ends "
                "without.",
            )
        return steps
