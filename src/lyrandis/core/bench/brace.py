"""The brace height: where it stands, what moving it does, and what listening said."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bow.form import own_brace_in
from lyrandis.core.rig import Rig
from lyrandis.core.trials import KeptTrial, standing
from lyrandis.core.tune.brace import BraceEffect, BraceHeight, brace_effect, brace_height
from lyrandis.core.tune.listening import Heard, Listening, listen, mean_of


@dataclass(frozen=True)
class BraceBench:
    """The brace height of this bow."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    bow: BowBench

    @cached_property
    def height(self) -> BraceHeight:
        """The brace height against its range."""
        return brace_height(self.rig.bow)

    @cached_property
    def effect(self) -> BraceEffect:
        """What moving it does at this draw."""
        return brace_effect(self.rig.bow, self.rig.string, self.bow.curve, self.bow.draw_in)

    @cached_property
    def listening(self) -> Listening:
        """The latest day's brace trials."""
        kept = standing(self.trials, "brace")
        day = kept[-1].day if kept else None
        today = [k for k in kept if k.day == day]
        heard = [
            Heard(
                k.seq,
                own_brace_in(self.rig.bow, k.trial.brace_height_in, k.trial.reference),
                k.trial.levels_db,
                k.trial.feel,
                k.trial.group_cm,
                k.trial.arrows,
                mean_of(k.trial.levels_db),
            )
            for k in today
        ]
        return listen(day, heard, len(kept) - len(today), self.rig.bow)
