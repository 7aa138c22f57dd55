"""The archer: how far they draw, how that changed, what they can hold, and the plan to go up."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.dates import day_of, instant, later
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.draw_history import (
    MEASURE_EVERY_DAYS,
    DrawHistory,
    draw_history,
    draw_point,
)
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.fit.hold import Held, Strength, Word
from lyrandis.core.fit.step_up import WeightPlan, weight_plan
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

    @property
    def held(self) -> list[KeptTrial]:
        """The holds that were timed with this archer, by their days."""
        return self._mine("hold")

    @cached_property
    def strength(self) -> Strength:
        """What all holds come to, and the words of coaches and doctors, wherever made."""
        mine = [*self.held, *self._mine("coach")]
        mine.sort(key=lambda k: (k.day, instant(k.at), k.rig_id is not None, k.seq))
        return Strength(tuple(map(_told, mine)))

    @cached_property
    def allowed_lbf(self) -> float | None:
        """The weight [lb] up to which a coach lets the archer draw, by the latest word."""
        words = self._mine("coach")
        return words[-1].trial.weight_lbf if words else None

    def plan(self, weight_lbf: float, taken: str) -> WeightPlan:
        """The plan to go up from a weight at the draw [lb] that was `taken` on a day.

        Raises
        ------
        RefusedError : a goal not to be planned, or a plan that stands still.
        """
        of = self.rig
        return weight_plan(
            of.step_up, of.archer, weight_lbf, day_of(self.now), self.strength, taken
        )


def _told(kept: KeptTrial) -> Held | Word:
    trial = kept.trial
    if trial.kind == "coach":
        return Word(trial.weight_lbf, kept.day)
    return Held(trial.weight_lbf, trial.seconds, trial.ended == "pain", kept.day)
