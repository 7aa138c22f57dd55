"""Up to three bows side by side: drawn to scale, and pulled to the same weight."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.drawing import Pose, pose
from lyrandis.core.bow.form import riser_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import angle_and_reserve, of_length
from lyrandis.core.fit.candidates import Equal
from lyrandis.core.parts import Bow

MOST = 3


@dataclass(frozen=True)
class Lined:
    """One bow of the line-up: its poses [in], and force [lb] over draw [in, trade], shape (n,).

    Forces are scaled so that all pull the same weight at the archer's draw.
    """

    length_in: float
    riser_in: float
    brace: Pose
    full_draw: Pose
    draw_in: list[float]
    force_lbf: list[float]
    string_angle_deg: float
    stack_onset_in: float | None


def line_up(
    bow: Bow, picks: Sequence[tuple[float, float | None]], draw_in: float, equal: Equal
) -> list[Lined]:
    """Bows of one form by their lengths and risers [in], at a draw [in, trade].

    Raises
    ------
    RefusedError : more than three, or a bow that cannot be drawn so far.
    """
    if len(picks) > MOST:
        raise RefusedError("picks", f"At most {MOST} bows stand side by side.", MOST, "bows")
    told = []
    for length, riser in picks:
        sized = of_length(bow, length, riser)
        angle, reserve = angle_and_reserve(sized, draw_in)
        curve = force_draw(sized)
        draw = min(draw_in, float(curve.draw_in[-1]))
        share = equal.weight_lbf / curve.force(draw)
        told.append(
            Lined(
                length_in=length,
                riser_in=riser_in(sized),
                brace=pose(curve.statics),
                full_draw=pose(curve.statics, draw),
                draw_in=np.round(curve.draw_in, 3).tolist(),
                force_lbf=np.round(curve.force_lbf * share, 3).tolist(),
                string_angle_deg=angle,
                stack_onset_in=None if reserve is None else draw_in + reserve,
            )
        )
    return told
