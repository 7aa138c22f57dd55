"""Tuning a shaft by its length or its tapers: the next small step, and where to stop.

Cutting makes a shaft act stiffer and cannot be undone; a longer taper makes it act weaker, and
cannot be undone either. So one starts on the side from which the tool can come: too long, too
stiff; goes in small steps, half the way that the model sees at most, and reads after each.

    read:   weak   weak   weak | straight       cutting comes from the weak side,
            stiff  stiff  stiff | straight      tapering from the stiff one
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

FlightRead = Literal["weak", "straight", "stiff"]
Tool = Literal["cut", "taper"]
SAFE_PAST_DRAW_IN = 1.0  # no shaft is cut nearer to the draw: own margin
LEAST_CUT_IN, MOST_CUT_IN = 0.125, 0.5
TAPER_STEP_IN = 1.0
MOST_TAPER_IN = 12.0
CLOSE_ARROWS = 6  # so many arrows straight before a shaft is copied: own choice
FROM_WEAK: dict[Tool, FlightRead] = {"cut": "weak", "taper": "stiff"}

Step = Literal["start", "again", "next", "copy", "past", "end", "doubt"]


@dataclass(frozen=True)
class ReadAt:
    """How a shaft of some length or taper [in] read, and by how many arrows."""

    at_in: float
    read: FlightRead
    arrows: int


@dataclass(frozen=True)
class ShaftPlan:
    """What to do next with a shaft.

    step : start (nothing read yet), again (straight, but by few arrows), next (a step is due),
        copy (straight by enough arrows), past (it reads the other way now), end (no safe step
        left), doubt (weak where the model calls it stiff: it may bounce off the plate)
    next_in : the length or taper to go to [in]; None where none is
    change_in : from here to there [in]
    limit_in : how far it may go at all [in]
    model_in : where the model would end [in]; None where it says nothing
    """

    tool: Tool
    step: Step
    now_in: float
    next_in: float | None
    change_in: float | None
    limit_in: float
    model_in: float | None


def shortest_safe_in(draw_in: float) -> float:
    """The shortest shaft that is cut for a draw [in]: an inch past it."""
    return draw_in + SAFE_PAST_DRAW_IN


def length_for(
    suits: Callable[[float], float | None], acts: float, from_in: float, to_in: float
) -> float | None:
    """The length [in] at which the spine that suits is what the shaft acts like; None if nowhere.

    Parameters
    ----------
    suits : length [in] to the spine that suits there [0.001 in], rising as it gets shorter
    acts : of the shaft
    from_in, to_in : the present length and the shortest safe one

    Bisection to a sixty-fourth of an inch.
    """
    at_long, at_short = suits(from_in), suits(to_in)
    if at_long is None or at_short is None or not at_long <= acts <= at_short:
        return None
    long, short = from_in, to_in
    while long - short > 1 / 64:
        middle = (long + short) / 2
        there = suits(middle)
        if there is None:
            return None
        long, short = (long, middle) if there > acts else (middle, short)
    return (long + short) / 2


def _latest(reads: Sequence[ReadAt], now_in: float) -> tuple[FlightRead | None, int]:
    """What the shaft reads as it is now: the last word, and by how many arrows in all."""
    here = [r for r in reads if math.isclose(r.at_in, now_in, abs_tol=1 / 32)]
    if not here:
        return None, 0
    last = here[-1].read
    return last, sum(r.arrows for r in here if r.read == last)


def cut_plan(
    reads: Sequence[ReadAt],
    now_in: float,
    draw_in: float,
    model_in: float | None,
    looks_stiff: bool = False,
) -> ShaftPlan:
    """The next cut of a shaft that is too long.

    Parameters
    ----------
    reads : at each length, in the order they were shot
    now_in : its length now [in]
    draw_in : the archer's [in]
    model_in : the length at which the model sees it leave cleanly; None where it says nothing
    looks_stiff : whether the model calls it stiff as it is

    Source: practice (start long, cut by small steps, read each); the steps are own choice.
    """
    limit = shortest_safe_in(draw_in)
    step = LEAST_CUT_IN if model_in is None else (now_in - model_in) / 2
    step = min(max(_eighths(step), LEAST_CUT_IN), MOST_CUT_IN)
    left = math.floor((now_in - limit) * 8 + 1e-9) / 8
    plan = _plan("cut", reads, now_in, min(step, left), -1, limit, model_in)
    if looks_stiff and plan.step in ("next", "end"):
        return replace(plan, step="doubt", next_in=None, change_in=None)
    return plan


def taper_plan(reads: Sequence[ReadAt], now_in: float, most_in: float) -> ShaftPlan:
    """The next inch of a taper of a shaft that is too stiff.

    Parameters
    ----------
    reads : at each taper, in the order they were shot
    now_in : how long the taper is now [in]
    most_in : how long it may become [in]
    """
    limit = min(MOST_TAPER_IN, most_in)
    return _plan("taper", reads, now_in, min(TAPER_STEP_IN, limit - now_in), 1, limit, None)


def _plan(
    tool: Tool, reads: Sequence[ReadAt], now: float, step: float, way: int, limit: float,
    model: float | None,
) -> ShaftPlan:  # fmt: skip
    read, arrows = _latest(reads, now)

    def told(what: Step, to: float | None = None) -> ShaftPlan:
        change = None if to is None else to - now
        return ShaftPlan(tool, what, now, to, change, limit, model)

    if read is None:
        return told("start")
    if read == "straight":
        return told("copy" if arrows >= CLOSE_ARROWS else "again")
    if read == FROM_WEAK[tool]:
        return told("end") if step < LEAST_CUT_IN else told("next", now + way * step)
    before = [r.at_in for r in reads if r.read == FROM_WEAK[tool]]
    near = (min if way < 0 else max)(before, default=None)
    return told("past", None if near is None else _eighths((near + now) / 2))


def _eighths(inches: float) -> float:
    return math.floor(inches * 8 + 0.5) / 8
