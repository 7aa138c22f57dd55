"""Brace height: where to start, in which range, and what an inch does (practice section 5)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import get_args

from lyrandis.core.bow.curve import ForceDraw, force_draw
from lyrandis.core.bow.form import (
    brace_range_in,
    brace_reference_offset_in,
    brace_to_pivot_in,
    default_brace_in,
    reference_offset_in,
)
from lyrandis.core.bow.statics import Statics, half_slack_at
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Bow, BraceReference, String
from lyrandis.core.units import M_PER_IN

ODD_STRING_IN = 1.5
_STEP_IN = 0.5
QUARTER_IN = 0.25
_DIFFER = 1.15  # twice what a bow square reads, over a quarter inch


@dataclass(frozen=True)
class BraceHeight:
    """Brace heights [in] to the archer's own reference, and to the pivot."""

    brace_in: float
    to_pivot_in: float
    low_in: float
    high_in: float
    range_from: str
    start_in: float
    assumed: bool
    by_reference_in: dict[BraceReference, float | None]  # None: nobody said where it lies


@dataclass(frozen=True)
class BraceEffect:
    """What 1 in more brace does: stored energy [%] and whole string length [in].

    string_up_in, string_down_in : what the slack string must change by for a quarter inch more and
        less [in]; None where no braced shape is. Where it lifts off a static lever they differ
    """

    energy_per_in_pct: float
    string_per_in: float
    string_up_in: float | None
    string_down_in: float | None

    @property
    def two_valued(self) -> bool:
        """Whether more and less brace need strings changed by clearly different lengths."""
        if self.string_up_in is None or self.string_down_in is None:
            return False
        low, high = sorted((abs(self.string_up_in), abs(self.string_down_in)))
        return high > _DIFFER * low


def by_reference_in(bow: Bow) -> dict[BraceReference, float | None]:
    """The brace height [in] as each school measures it: to the grip, the back and the plunger."""
    told: dict[BraceReference, float | None] = {}
    for reference in get_args(BraceReference):
        try:
            told[reference] = brace_to_pivot_in(bow) + reference_offset_in(bow, reference)
        except RefusedError:
            told[reference] = None
    return told


def start_in(bow: Bow) -> float:
    """Ordinary start [in, to the bow's reference]: the form's usual, held in the range."""
    low, high, _ = brace_range_in(bow)
    return min(max(default_brace_in(bow), low), high) + brace_reference_offset_in(bow)


def brace_height(bow: Bow) -> BraceHeight:
    """The brace height against its range."""
    low, high, whose = brace_range_in(bow)
    offset = brace_reference_offset_in(bow)
    pivot = brace_to_pivot_in(bow)
    return BraceHeight(
        brace_in=pivot + offset,
        to_pivot_in=pivot,
        low_in=low + offset,
        high_in=high + offset,
        range_from=whose,
        start_in=start_in(bow),
        assumed=bow.brace_height_in is None,
        by_reference_in=by_reference_in(bow),
    )


def brace_effect(bow: Bow, string: String, curve: ForceDraw, draw_in: float) -> BraceEffect:
    """What moving the brace height does at a draw [in, trade]: the bow solved half an inch lower.

    Source: docs/mechanics A2 and A5.
    """
    bare = bow.model_copy(update={"measured": ()})
    here = force_draw(bare, string.material).energy_ftlb(draw_in)

    def moved(by_in: float) -> float:
        pivot = brace_to_pivot_in(bow) + by_in
        at = bare.model_copy(update={"brace_height_in": pivot, "brace_reference": "grip"})
        return force_draw(at, string.material).energy_ftlb(draw_in)

    try:
        per_in = (here - moved(-_STEP_IN)) / _STEP_IN
    except RefusedError:  # half an inch lower it would not stay braced: half an inch higher then
        per_in = (moved(_STEP_IN) - here) / _STEP_IN
    return BraceEffect(
        energy_per_in_pct=per_in / here * 100,
        string_per_in=1 / curve.statics.brace_per_string(),
        string_up_in=_string_change_in(curve.statics, QUARTER_IN),
        string_down_in=_string_change_in(curve.statics, -QUARTER_IN),
    )


def _string_change_in(bow: Statics, brace_in: float) -> float | None:
    """How much longer the whole slack string must be [in] for so much more brace [in]."""
    try:
        there = half_slack_at(bow, bow.brace_x + brace_in * M_PER_IN)
    except ValueError:
        return None
    return 2 * (there - bow.braced.half_slack) / M_PER_IN
