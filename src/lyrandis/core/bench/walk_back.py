"""The walk-back that was shot with the rig as it is."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.true import still_true
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.walk_back import LineVisit, WalkedBack, walk_back


@dataclass(frozen=True)
class WalkBackBench:
    """Its visits, and what they say."""

    rig: Rig
    trials: tuple[KeptTrial, ...]

    @cached_property
    def visits(self) -> list[LineVisit]:
        """Every visit with the rig as it is, in the order they were shot."""
        return [k.trial.visit for k in still_true(self.trials, "walk_back", self.rig)]

    @cached_property
    def told(self) -> WalkedBack | None:
        """Slant and bow; None before three distances stand far enough apart."""
        try:
            return walk_back(self.visits) if self.visits else None
        except RefusedError:
            return None
