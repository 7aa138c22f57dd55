"""Draw length: three ways to measure it, three conventions, and what a thumb draw hides.

Source: practice (first guesses by tape and arm span; the marked arrow is the real one).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

import numpy as np
from scipy.special import stdtrit

from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import TRADE_OFFSET_IN
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import say
from lyrandis.core.parts import Archer, Bow, DrawMethod, Release, StringMaterial
from lyrandis.core.units import MM_PER_IN

Convention = Literal["trade", "pivot", "back"]

ARM_SPAN_DIVISOR = 2.5
GUESS_SD_IN = 1.0  # tape and arm span are first guesses
READING_SD_IN = 1 / 16  # reading a mark with a tape
SHAKY_SPREAD_IN = 0.5
# What draws usually spread by, weighing as much as one reading: two that agree do not prove much.
_USUAL_SPREAD_IN = 0.2
# The string leaves the thumb about this far below the arrow: own estimate, so that 103° to 128°
# of string angle give 20 to 12 mm, inside practice's 10 to 25 mm.
THUMB_DROP_MM = 25.0
THUMB_SD_MM = 4.0
_OWN_THUMB_SD_MM = 1.0  # of an offset that the archer measured
THUMB_UNKNOWN_BOW_MM = 17.0
_POSSIBLE_IN = (14.0, 38.0)
_ONE_SD = 0.8413  # of a normal's upper one sd


class DrawLength(NamedTuple):
    """Draw by the mark [in, trade], the draw the scale must be pulled to [in], spread [in]."""

    draw_length_in: Estimate
    true_draw_in: Estimate
    spread_in: float | None


def to_trade_in(draw_in: float, convention: Convention, back_offset_in: float | None) -> float:
    """A draw [in] in any convention as trade draw: arrow nock groove to pivot + 1 3/4 in.

    `back_offset_in` is the distance from the pivot to the far side of the bow; 1 3/4 if None.

    >>> to_trade_in(26.25, "pivot", None), to_trade_in(28.0, "back", 2.0)
    (28.0, 27.75)
    """
    if convention == "pivot":
        return draw_in + TRADE_OFFSET_IN
    if convention == "back" and back_offset_in is not None:
        return draw_in - back_offset_in + TRADE_OFFSET_IN
    return draw_in


def from_trade_in(draw_in: float, convention: Convention, back_offset_in: float | None) -> float:
    """The inverse of `to_trade_in`."""
    return 2 * draw_in - to_trade_in(draw_in, convention, back_offset_in)


@dataclass(frozen=True)
class DrawLines:
    """Where a draw's conventions lie along the arrow [in, from the pivot, towards the archer].

    nock_x_in : the throat of the arrow nock at full draw; trade_x_in : where the trade standard
    measures to; back_x_in : the far side of the bow. to_pivot_in, to_back_in : the draw by them
    """

    nock_x_in: float
    trade_x_in: float
    back_x_in: float
    to_pivot_in: float
    to_back_in: float


def draw_lines(archer: Archer, bow: Bow) -> DrawLines:
    """The archer's draw by each convention; the back's offset is the bow's own where it is told."""
    offset = bow.brace_offset_in if bow.brace_reference == "back" else None
    pivot = from_trade_in(archer.draw_length_in, "pivot", None)
    back = from_trade_in(archer.draw_length_in, "back", offset)
    return DrawLines(pivot, -TRADE_OFFSET_IN, pivot - back, pivot, back)


def thumb_offset_mm(angle_deg: float) -> float:
    """How far [mm] the string sits behind the arrow's mark when the thumb draws.

    The arrow lies above the thumb and the string slopes forward from it at half the string's
    angle. Source: own geometry; ± 4 mm.

    >>> round(thumb_offset_mm(115.0), 1)
    15.9
    """
    return THUMB_DROP_MM / math.tan(math.radians(angle_deg) / 2)


def true_draw_in(
    archer: Archer, bow: Bow | None, material: StringMaterial = "polyester"
) -> Estimate:
    """The draw [in, trade] at which the bow's weight counts for this archer.

    For fingers it is the draw length; for a thumb the mark on the arrow under-reads it, by the
    archer's own offset or by one estimated from the string's angle.
    """
    sd = GUESS_SD_IN if archer.draw_plus_minus_in is None else archer.draw_plus_minus_in
    known = archer.draw_method == "marked_arrow"
    if archer.release != "thumb":
        return Estimate(
            value=archer.draw_length_in, plus_minus=sd, source="measured" if known else "rule"
        )
    if archer.thumb_offset_mm is not None:
        offset, offset_sd = archer.thumb_offset_mm, _OWN_THUMB_SD_MM
    elif bow is None:
        offset, offset_sd = THUMB_UNKNOWN_BOW_MM, THUMB_SD_MM
    else:
        curve = force_draw(bow.model_copy(update={"measured": ()}), material)
        draw = float(np.clip(archer.draw_length_in, curve.draw_in[0], curve.draw_in[-1]))
        offset, offset_sd = thumb_offset_mm(curve.angle(draw)), THUMB_SD_MM
    return Estimate(
        value=archer.draw_length_in + offset / MM_PER_IN,
        plus_minus=math.hypot(sd, offset_sd / MM_PER_IN),
        source="rule" if archer.thumb_offset_mm is None else "measured",
    )


def _next_draw_sd_in(draws: Sequence[float]) -> float:
    """What the next draw may lie off the mean of these by [in], for 68 %.

    Student's t with one reading's worth of the usual spread: a single draw says nothing of the
    spread, and half an inch is what an unsettled form shows.
    """
    n = len(draws)
    if n == 1:
        return SHAKY_SPREAD_IN
    squares = float(np.sum((np.asarray(draws) - np.mean(draws)) ** 2))
    spread = math.sqrt((_USUAL_SPREAD_IN**2 + squares) / n)
    return spread * float(stdtrit(n, _ONE_SD)) * math.sqrt(1 + 1 / n)


def draw_length(
    method: DrawMethod,
    readings_in: Sequence[float],
    convention: Convention = "trade",
    back_offset_in: float | None = None,
    release: Release = "split",
    thumb_offset_mm: float | None = None,
    bow: Bow | None = None,
) -> DrawLength:
    """Draw length from readings.

    Parameters
    ----------
    method : tape (fingertip to shoulder), arm_span (divided by 2.5) or marked_arrow
    readings_in : readings [in] by that method, at least one
    convention : what a marked arrow or tape was read to
    back_offset_in : pivot to the far side of the bow [in], for the convention "back"
    release, thumb_offset_mm, bow : for the true draw of a thumb archer

    Raises
    ------
    RefusedError : no readings, or a draw nobody has.
    """
    if len(readings_in) == 0:
        raise RefusedError("readings_in", "Enter at least one reading.", 1, "readings")
    low, high = _POSSIBLE_IN
    scale = ARM_SPAN_DIVISOR if method == "arm_span" else 1.0
    draws = []
    for i, reading in enumerate(readings_in):
        draw = reading / scale
        if method != "arm_span":
            draw = to_trade_in(draw, convention, back_offset_in)
        if not low <= draw <= high:
            bound = low if draw < low else high
            raise RefusedError(
                f"readings_in.{i}",
                say(
                    "A reading of {reading} makes a draw of {draw}; draws lie between {low} and "
                    "{high}.",
                    reading=("draw", reading),
                    draw=("draw", draw),
                    low=("draw", low),
                    high=("draw", high),
                ),
                bound * scale,
                "in",
            )
        draws.append(draw)
    mean = float(np.mean(draws))
    spread = float(np.std(draws, ddof=1)) if len(draws) > 1 else None
    if method == "marked_arrow":
        scatter = _next_draw_sd_in(draws)
        sd = math.hypot(scatter, READING_SD_IN)
    else:
        sd = math.hypot(GUESS_SD_IN, spread or 0.0)
    marked = Estimate(
        value=mean, plus_minus=sd, source="measured" if method == "marked_arrow" else "rule"
    )
    true = true_draw_in(
        Archer.model_construct(
            draw_length_in=mean,
            draw_method=method,
            draw_plus_minus_in=sd,
            release=release,
            thumb_offset_mm=thumb_offset_mm,
        ),
        bow,
    )
    return DrawLength(marked, true, spread)
