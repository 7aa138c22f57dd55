"""Brace trials of one session, brought together: the sweep, the groups, and sound against speed.

Levels are differences within one session: only trials of the latest day are compared.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.bow.form import brace_range_in, brace_reference_offset_in
from lyrandis.core.rig import Bow
from lyrandis.core.trials import BraceTrial, KeptTrial, standing
from lyrandis.core.tune.sweep import Sweep, Visit, sweep
from lyrandis.core.units import MM_PER_IN

SEED = 20  # the joint draws are the same each time, so that the same trials say the same
# By arrows shot: how many times larger a group must be to mean anything (docs/mechanics E2).
GROUP_RATIO = ((6, 1.7), (4, 2.1), (3, 2.5))


@dataclass(frozen=True)
class Heard:
    """One trial of the session: brace to the pivot [in], mean level [dB] and its scatter, feel."""

    seq: int
    to_pivot_in: float
    levels_db: tuple[float, ...]
    feel: int | None
    group_cm: float | None
    arrows: int


@dataclass(frozen=True)
class Listening:
    """A session's trials, what the sweep makes of them, and the range it keeps to [in, pivot].

    offset_in : how far the bow's own reference lies in front of the pivot
    wide_groups : braces to the pivot [in] whose group is too large to be chance
    """

    day: str | None
    heard: tuple[Heard, ...]
    elsewhere: int
    sweep: Sweep | None
    low_in: float
    high_in: float
    offset_in: float
    wide_groups: tuple[float, ...]


def group_ratio(arrows: int) -> float | None:
    """How many times larger a group must be to mean anything; None under three arrows."""
    return next((ratio for n, ratio in GROUP_RATIO if arrows >= n), None)


def _wide(heard: list[Heard]) -> tuple[float, ...]:
    groups = [h for h in heard if h.group_cm is not None and group_ratio(h.arrows) is not None]
    if len(groups) < 2:
        return ()
    smallest = min(h.group_cm or 0.0 for h in groups)
    return tuple(
        h.to_pivot_in
        for h in groups
        if (h.group_cm or 0.0) > smallest * (group_ratio(h.arrows) or np.inf)
    )


def to_pivot_in(trial: BraceTrial, bow: Bow) -> float:
    """A trial's brace height [in] to the pivot, by the reference it was measured to."""
    measured = bow.model_copy(update={"brace_reference": trial.reference})
    return trial.brace_height_in - brace_reference_offset_in(measured)


def listen(trials: tuple[KeptTrial, ...], bow: Bow) -> Listening:
    """The latest session's brace trials and their sweep, kept to the maker's or usual range.

    A trial outside the range is shown, and heard by the sweep; nothing outside is suggested.

    Raises
    ------
    RefusedError : a reference whose place on the bow nobody gave.
    """
    low, high, _ = brace_range_in(bow)
    kept = standing(trials, "brace")
    day = kept[-1].day if kept else None
    today = [k for k in kept if k.day == day]
    heard = [
        Heard(
            k.seq,
            to_pivot_in(k.trial, bow),
            k.trial.levels_db,
            k.trial.feel,
            k.trial.group_cm,
            k.trial.arrows,
        )
        for k in today
    ]
    visits = [
        Visit(h.to_pivot_in * MM_PER_IN, h.levels_db, h.feel)
        for h in heard
        if h.levels_db or h.feel is not None
    ]
    told = None
    if visits:
        rng = np.random.default_rng(SEED)
        told = sweep(low * MM_PER_IN, high * MM_PER_IN, visits, rng)
    return Listening(
        day,
        tuple(heard),
        len(kept) - len(today),
        told,
        low,
        high,
        brace_reference_offset_in(bow),
        _wide(heard),
    )
