"""The bow at hand, drawn an inch less or more: is it long enough, and what would an inch cost."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.fit.bow_length import idle_ratio
from lyrandis.core.fit.length_map import OVERDRAWN_PAST_IN
from lyrandis.core.parts import Bow

Region = Literal["hardly_worked", "comfortable", "near_stack", "stacks", "overdrawn", "past_end"]
STEPS_IN = (-1.0, 0.0, 1.0, 2.0)


@dataclass(frozen=True)
class Reach:
    """The bow at one draw [in]; weight [lb], slope [lb/in], angle [deg] None past its end.

    `more_lbf` is the weight over that at the archer's own draw.
    """

    draw_in: float
    weight_lbf: float | None
    more_lbf: float | None
    slope_lbf_per_in: float | None
    angle_deg: float | None
    region: Region


def region(
    bow: Bow, curve: ForceDraw, onset_in: float | None, reserve_in: float, draw: float
) -> Region:
    """Where a draw [in, trade] lies on the map of draw over length, for this very bow.

    A maker's greatest draw ends it as its geometry does.
    """
    end = (
        curve.end_in if bow.maker_max_draw_in is None else min(curve.end_in, bow.maker_max_draw_in)
    )
    if draw > end + 1e-9:
        return "past_end"
    if onset_in is not None and draw > onset_in + OVERDRAWN_PAST_IN:
        return "overdrawn"
    if onset_in is not None and draw > onset_in:
        return "stacks"
    if onset_in is not None and draw > onset_in - reserve_in:
        return "near_stack"
    return "hardly_worked" if bow.length_in / draw > idle_ratio(bow.form) else "comfortable"


def reach(
    bow: Bow, curve: ForceDraw, onset_in: float | None, reserve_in: float, draw_in: float
) -> tuple[Reach, ...]:
    """The bow an inch under, at, and one and two inches over the archer's draw [in, trade]."""
    own = curve.force(draw_in)
    rows = []
    for step in STEPS_IN:
        draw = draw_in + step
        where = region(bow, curve, onset_in, reserve_in, draw)
        inside = curve.brace_draw_in < draw <= float(curve.draw_in[-1])
        rows.append(
            Reach(
                draw,
                curve.force(draw) if inside else None,
                curve.force(draw) - own if inside else None,
                curve.slope(draw) if inside else None,
                curve.angle(draw) if inside else None,
                where,
            )
        )
    return tuple(rows)
