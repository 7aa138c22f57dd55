"""The brace height: where it stands, what moving it does, and what listening said."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bow.form import own_brace_in
from lyrandis.core.dates import days_between
from lyrandis.core.parts import Rig
from lyrandis.core.route import moved_since
from lyrandis.core.string.measures import usual_length_in
from lyrandis.core.string.twists import reach_in
from lyrandis.core.trials import KeptTrial, standing
from lyrandis.core.tune.brace import BraceEffect, BraceHeight, brace_effect, brace_height
from lyrandis.core.tune.listening import SESSION_DAYS, Heard, Listening, listen


def _recent(kept: list[KeptTrial]) -> list[KeptTrial]:
    """Of trials by their days what a session is told of: two months, and the last day before."""
    near = [k for k in kept if days_between(k.day, kept[-1].day) <= SESSION_DAYS]
    older = kept[: len(kept) - len(near)]
    return [*(k for k in older if k.day == older[-1].day), *near]


@dataclass(frozen=True)
class BraceBench:
    """The brace height of this bow."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    bow: BowBench
    now: str

    @cached_property
    def height(self) -> BraceHeight:
        """The brace height against its range."""
        return brace_height(self.rig.bow)

    @cached_property
    def effect(self) -> BraceEffect:
        """What moving it does at this draw."""
        return brace_effect(self.rig.bow, self.rig.string, self.bow.curve, self.bow.draw_in)

    @cached_property
    def reach_in(self) -> tuple[float, float] | None:
        """Braces [in, own reference] this string reaches by turning; None without its turns."""
        r = self.rig
        if r.string.twists is None:
            return None
        return reach_in(
            self.bow.curve.statics,
            r.string,
            r.string.length_in or usual_length_in(r.bow),
            r.string.twists,
            self.height.brace_in,
        )

    @cached_property
    def listening(self) -> Listening:
        """The latest session's brace trials."""
        kept = _recent(standing(self.trials, "brace"))
        last = kept[-1].rig if kept else self.rig
        made_on = {id(k.rig): k for k in kept}
        moved = {i: bool(moved_since(k.trial.grounds, k.rig, last)) for i, k in made_on.items()}
        heard = [
            Heard(
                k.seq,
                k.day,
                k.trial.heard_by,
                own_brace_in(self.rig.bow, k.trial.brace_height_in, k.trial.reference),
                k.trial.levels_db,
                k.trial.feel,
                k.trial.group_cm,
                k.trial.arrows,
                not moved[id(k.rig)],
                float(np.mean(k.trial.levels_db)) if k.trial.levels_db else None,
                None,
            )
            for k in kept
        ]
        return listen(heard, self.now, self.rig.bow, self.reach_in)
