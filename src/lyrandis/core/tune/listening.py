"""Brace trials brought together: sessions and sources, the sweep, the groups.

Levels are differences: those of another source or day are off by an offset that nobody knows. They
join the session on one axis where they share a brace with it, and the offset is fitted; else they
stand apart. After two months a session begins anew.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import brace_range_in, brace_reference_offset_in
from lyrandis.core.dates import days_between
from lyrandis.core.findings import Said
from lyrandis.core.parts import Bow
from lyrandis.core.tune.groups import wide
from lyrandis.core.tune.loudness import Visit
from lyrandis.core.tune.sweep import ANYWHERE_MM, Hearing, Verdict, hearing, toward
from lyrandis.core.units import MM_PER_IN

SEED = 20  # the joint draws are the same each time, so that the same trials say the same
SESSION_DAYS = 60
SIMULATED = "simulated"  # what heard it was a stand-in
SHARED_MM = 1.5  # two trials that near are at one brace


@dataclass(frozen=True)
class Heard:
    """One trial: brace to the bow's own reference [in], levels [dB], feel, group.

    by : what heard it; stands : what it was made with is what the latest trial was made with
    offset_db : what its source lies above the session's [dB]; None where it stands apart
    """

    seq: int
    day: str
    by: str
    brace_in: float
    levels_db: tuple[float, ...]
    feel: int | None
    group_cm: float | None
    arrows: int
    stands: bool
    mean_db: float | None  # None where nothing was heard
    offset_db: float | None

    @property
    def source(self) -> tuple[str, str]:
        """Levels of one source share a number."""
        return self.day, self.by


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
    verdict: Verdict | None
    why: Said
    sure: float


@dataclass(frozen=True)
class Earlier:
    """What an earlier session came to: its day, where it was quietest [in], and what has moved."""

    day: str
    best_in: float
    interval_in: tuple[float, float]
    stands: bool


@dataclass(frozen=True)
class Listening:
    """The latest session, what the sweep makes of it, and the range it keeps to [in].

    All braces are to the bow's own reference. `heard` are the session's trials and those that
    joined it; `apart` those whose levels share no brace with them; `stale` a session months old;
    `wide_groups` braces whose group is wider than chance.
    """

    day: str | None
    heard: tuple[Heard, ...]
    apart: tuple[Heard, ...]
    stale: bool
    earlier: Earlier | None
    curve: Curve | None
    low_in: float
    high_in: float
    wide_groups: tuple[float, ...]


def _shares(a: Sequence[Heard], b: Sequence[Heard]) -> bool:
    near = SHARED_MM / MM_PER_IN
    return any(abs(x.brace_in - y.brace_in) <= near for x in a for y in b)


def joined(day: str, heard: Sequence[Heard]) -> tuple[list[Heard], list[Heard]]:
    """The trials on the axis of a day's session, those of its main source first, and the others.

    Of the day, the source with the most trials is the session's; others join by a shared brace.
    Trials of more than two months before, or made with what has changed since, do not, nor do a
    stand-in's levels join a measured session or the other way round.
    """
    loud = [h for h in heard if h.levels_db]
    sources = list(dict.fromkeys(h.source for h in loud))
    of = {s: [h for h in loud if h.source == s] for s in sources}
    todays = [s for s in sources if s[0] == day]
    if not todays:
        return [h for h in heard if h.day == day], [h for h in loud if h.day != day]
    into = [max(todays, key=lambda s: len(of[s]))]
    able = [
        s
        for s in sources
        if s not in into
        and days_between(s[0], day) <= SESSION_DAYS
        and (s[1] == SIMULATED) == (into[0][1] == SIMULATED)
        and all(h.stands for h in of[s])
    ]
    grew = True
    while grew:
        grew = False
        for s in able:
            if s not in into and _shares(of[s], [h for i in into for h in of[i]]):
                into.append(s)
                grew = True
    on = [h for s in into for h in of[s]]
    on += [h for h in heard if not h.levels_db and h.day == day]  # felt, or shot for the group
    told = {h.seq for h in on}
    return on, [h for h in loud if h.seq not in told]


@lru_cache(maxsize=64)
def _hearing(low_mm: float, high_mm: float, visits: tuple[Visit, ...]) -> Hearing:
    """The same trials come with each move of a slider: they are told once."""
    return hearing(low_mm, high_mm, visits, np.random.default_rng(SEED))


def _swept(
    heard: Sequence[Heard], bow: Bow, reach_in: tuple[float, float] | None
) -> tuple[Curve, list[Heard]] | None:
    """The sweep of trials on one axis, and the trials with their sources' offsets.

    None before anything was heard.
    """
    low, high, _ = brace_range_in(bow)
    offset = brace_reference_offset_in(bow)
    numbers = {s: i for i, s in enumerate(dict.fromkeys(h.source for h in heard))}
    visits = tuple(
        Visit(_mm(h.brace_in - offset), h.levels_db, h.feel, numbers[h.source])
        for h in heard
        if h.levels_db or h.feel is not None
    )
    if not visits:
        return None
    reach = ANYWHERE_MM
    if reach_in is not None:
        reach = _mm(reach_in[0] - offset), _mm(reach_in[1] - offset)
    told = toward(_hearing(_mm(low), _mm(high), visits), reach)

    def own(mm: float) -> float:
        return mm / MM_PER_IN + offset

    curve = Curve(
        brace_in=told.brace_mm / MM_PER_IN + offset,
        mean_db=told.mean_db,
        sd_db=told.sd_db,
        best_in=own(told.best_mm),
        interval_in=(own(told.interval_mm[0]), own(told.interval_mm[1])),
        next_in=None if told.next_mm is None else own(told.next_mm),
        verdict=told.verdict,
        why=told.why,
        sure=told.sure,
    )
    lie = told.offsets_db
    return curve, [replace(h, offset_db=lie.get(numbers[h.source], 0.0)) for h in heard]


def _mm(inches: float) -> float:
    return inches * MM_PER_IN


def _earlier(heard: Sequence[Heard], bow: Bow) -> Earlier | None:
    """What the latest of earlier days came to, if it was heard to its end."""
    if not heard:
        return None
    day = max(h.day for h in heard)
    on, _ = joined(day, [h for h in heard if h.day == day])
    swept = _swept(on, bow, None)
    if swept is None or swept[0].verdict is None:
        return None
    curve, _ = swept
    return Earlier(day, curve.best_in, curve.interval_in, all(h.stands for h in on))


def listen(
    heard: Sequence[Heard], today: str, bow: Bow, reach_in: tuple[float, float] | None = None
) -> Listening:
    """The latest session of brace trials and its sweep, kept to the maker's or usual range.

    A trial outside the range is shown, and heard by the sweep; nothing outside is suggested.

    Parameters
    ----------
    heard : all trials, by the day they were made
    today : the day, YYYY-MM-DD
    reach_in : what the string reaches by turning [in, to the bow's own reference], if known

    Raises
    ------
    RefusedError : a reference whose place on the bow nobody gave.
    """
    low, high, _ = brace_range_in(bow)
    offset = brace_reference_offset_in(bow)
    day = heard[-1].day if heard else None
    on, apart = joined(day, heard) if day else ([], [])
    swept = _swept(on, bow, reach_in)
    curve = None
    stale = day is not None and days_between(day, today) > SESSION_DAYS
    if swept is not None:
        curve, on = swept
        if stale:
            curve = replace(curve, next_in=None)
    groups = [h for h in on if h.group_cm is not None]
    are_wide = wide([(h.group_cm or 0.0, h.arrows) for h in groups])
    return Listening(
        day=day,
        heard=tuple(on),
        apart=tuple(apart),
        stale=stale,
        earlier=_earlier([h for h in apart if h.day != day], bow),
        curve=curve,
        low_in=low + offset,
        high_in=high + offset,
        wide_groups=tuple(h.brace_in for h, w in zip(groups, are_wide, strict=True) if w),
    )
