"""The quiet checks of a rig's latest day."""

from __future__ import annotations

from lyrandis.core.trials import KeptTrial, standing
from lyrandis.core.tune.quiet import Quiet, Tried, quiet


def quiet_of(trials: tuple[KeptTrial, ...], swept: bool = False) -> Quiet:
    """The latest day's checks; levels of other days do not compare.

    swept : a sweep of the brace height came to its end
    """
    kept = standing(trials, "quiet")
    day = kept[-1].day if kept else None
    return quiet(
        day,
        [
            Tried(
                k.seq,
                k.trial.check,
                k.trial.before_db,
                k.trial.after_db,
                k.trial.tone_before_db,
                k.trial.tone_after_db,
                k.trial.tone_after_hz,
            )
            for k in kept
            if k.day == day
        ],
        swept,
    )
