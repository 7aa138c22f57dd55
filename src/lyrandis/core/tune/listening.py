"""Brace trials of one session, brought together: the sweep, the groups, and sound against speed.

Levels are differences within one session: only trials of the latest day are compared.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import brace_range_in, brace_reference_offset_in
from lyrandis.core.rig import Bow
from lyrandis.core.tune.sweep import Visit, sweep
from lyrandis.core.units import MM_PER_IN

SEED = 20  # the joint draws are the same each time, so that the same trials say the same
# By arrows shot: how many times larger a group must be to mean anything (docs/mechanics E2).
GROUP_RATIO = ((6, 1.7), (4, 2.1), (3, 2.5))


@dataclass(frozen=True)
class Heard:
    """One trial of the session: brace to the bow's own reference [in], levels [dB], feel, group."""

    seq: int
    brace_in: float
    levels_db: tuple[float, ...]
    feel: int | None
    group_cm: float | None
    arrows: int

    mean_db: float | None  # None where nothing was heard


@dataclass(frozen=True)
class Curve:
    """A session's sweep in inches to the bow's own reference; arrays of shape (n,).

    `next_in` is where to listen next, None when done; `sure` P(quietest within 2 mm of best).
    """

    brace_in: Array
    mean_db: Array
    sd_db: Array
    best_in: float
    interval_in: tuple[float, float]
    next_in: float | None
    done: bool
    why: str
    sure: float


def mean_of(levels_db: Sequence[float]) -> float | None:
    """Mean level [dB]; None where nothing was heard."""
    return float(np.mean(levels_db)) if levels_db else None


@dataclass(frozen=True)
class Listening:
    """A session's trials, what the sweep makes of them, and the range it keeps to [in].

    All braces are to the bow's own reference. `elsewhere` counts the trials of other days;
    `wide_groups` are braces whose group is too large to be chance.
    """

    day: str | None
    heard: tuple[Heard, ...]
    elsewhere: int
    curve: Curve | None
    low_in: float
    high_in: float
    wide_groups: tuple[float, ...]


def group_ratio(arrows: int) -> float | None:
    """How many times larger a group must be to mean anything; None under three arrows."""
    return next((ratio for n, ratio in GROUP_RATIO if arrows >= n), None)


def _wide(heard: Sequence[Heard]) -> tuple[float, ...]:
    groups = [h for h in heard if h.group_cm is not None and group_ratio(h.arrows) is not None]
    if len(groups) < 2:
        return ()
    smallest = min(h.group_cm or 0.0 for h in groups)
    return tuple(
        h.brace_in
        for h in groups
        if (h.group_cm or 0.0) > smallest * (group_ratio(h.arrows) or np.inf)
    )


def _curve(heard: Sequence[Heard], low_in: float, high_in: float, offset_in: float) -> Curve | None:
    """The sweep of a session, within a range to the pivot [in]; None before anything was heard."""
    visits = [
        Visit((h.brace_in - offset_in) * MM_PER_IN, h.levels_db, h.feel)
        for h in heard
        if h.levels_db or h.feel is not None
    ]
    if not visits:
        return None
    told = sweep(low_in * MM_PER_IN, high_in * MM_PER_IN, visits, np.random.default_rng(SEED))

    def own(mm: float) -> float:
        return mm / MM_PER_IN + offset_in

    low, high = told.interval_mm
    return Curve(
        brace_in=told.brace_mm / MM_PER_IN + offset_in,
        mean_db=told.mean_db,
        sd_db=told.sd_db,
        best_in=own(told.best_mm),
        interval_in=(own(low), own(high)),
        next_in=None if told.next_mm is None else own(told.next_mm),
        done=told.done,
        why=told.why,
        sure=told.sure,
    )


def listen(day: str | None, heard: Sequence[Heard], elsewhere: int, bow: Bow) -> Listening:
    """One day's brace trials and their sweep, kept to the maker's or usual range.

    A trial outside the range is shown, and heard by the sweep; nothing outside is suggested.

    Parameters
    ----------
    heard : the day's trials, in the order they were made
    elsewhere : how many trials there are of other days

    Raises
    ------
    RefusedError : a reference whose place on the bow nobody gave.
    """
    low, high, _ = brace_range_in(bow)
    offset = brace_reference_offset_in(bow)
    return Listening(
        day=day,
        heard=tuple(heard),
        elsewhere=elsewhere,
        curve=_curve(heard, low, high, offset),
        low_in=low + offset,
        high_in=high + offset,
        wide_groups=_wide(heard),
    )
