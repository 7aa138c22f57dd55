"""The string that is on: what the bow asks of it, how it settles, what its turns did."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bow.form import own_brace_in
from lyrandis.core.parts import Rig
from lyrandis.core.string.measures import StringFit, string_fit
from lyrandis.core.string.settling import Settling, settle
from lyrandis.core.string.twists import same_string
from lyrandis.core.trials import KeptTrial, standing


@dataclass(frozen=True)
class StringBench:
    """The string on this bow."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    bow: BowBench

    @cached_property
    def fit(self) -> StringFit:
        """What the bow asks of its string."""
        b = self.bow
        return string_fit(self.rig.bow, self.rig.string, b.curve.statics, b.weight)

    @cached_property
    def settling_run(self) -> list[KeptTrial]:
        """The readings of the latest new string, from the one when it was put on."""
        run: list[KeptTrial] = []
        for trial in standing(self.trials, "settling"):
            run = [trial] if trial.trial.hours == 0 else [*run, trial]
        return run

    @cached_property
    def settling(self) -> Settling | None:
        """How the latest new string settles; None without one."""
        if not self.settling_run:
            return None
        return settle(self.rig.string.material, self.settling_readings)

    @property
    def settling_readings(self) -> list[tuple[float, float]]:
        """Hours braced and brace height [in, to the bow's own reference] of the new string."""
        return [(k.trial.hours, self._own(k)) for k in self.settling_run]

    @cached_property
    def twists_seen(self) -> list[tuple[float, float]]:
        """Turns and brace height [in, own reference] measured with the string that is on now.

        Trials with another string, or before a new one was put on, say nothing of this one.
        """
        since = self.settling_run[0].seq if self.settling_run else 0
        return [
            (k.trial.twists, self._own(k))
            for k in standing(self.trials, "brace")
            if k.trial.twists is not None
            and k.seq > since
            and same_string(k.rig.string, self.rig.string)
        ]

    def _own(self, kept: KeptTrial) -> float:
        """A trial's brace height [in] to the bow's own reference."""
        return own_brace_in(self.rig.bow, kept.trial.brace_height_in, kept.trial.reference)
