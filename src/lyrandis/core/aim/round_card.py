"""A course's round card: for each target the crawl or the gap, as it lies on its slope."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.aim.counting import PARTS, Counted, counted
from lyrandis.core.aim.crawls import crawl_chart
from lyrandis.core.aim.gaps import gap_chart
from lyrandis.core.errors import RefusedError
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.parts import Rig, Target


@dataclass(frozen=True)
class CardLine:
    """One target of a course.

    crawl_mm, or hold_over_cm beyond point-on, where the string is walked; else gap_cm under the
    spot and tip_widths beside the tip; near_m, far_m : how wrong the distance may be
    why : why this target has neither; empty where it has
    """

    number: int
    target: Target
    level_distance_m: float | None = None
    crawl_mm: float | None = None
    counted: Counted | None = None
    hold_over_cm: float | None = None
    gap_cm: float | None = None
    tip_widths: float | None = None
    near_m: float | None = None
    far_m: float | None = None
    why: str = ""


def round_card(rig: Rig, aimed: AimedArrow, targets: tuple[Target, ...]) -> list[CardLine]:
    """The card of a course, in the order in which its targets are walked.

    Parameters
    ----------
    aimed : how the rig's arrow flies and is looked along, learnt from shots where it was

    Source: docs/mechanics C1 on each target's own slope.
    """
    return [_line(rig, aimed, n, target) for n, target in enumerate(targets, 1)]


def _line(rig: Rig, aimed: AimedArrow, number: int, target: Target) -> CardLine:
    here = replace(aimed, slope_deg=target.slope_deg)
    at = np.array([target.distance_m])
    try:
        if rig.aims_by != "crawls":
            (gap,) = gap_chart(
                here, at, rig.arrow.diameter_mm, target.spot_half_height_cm, rig.steady_crawl_mm
            )
            return CardLine(
                number, target, gap.level_distance_m, gap_cm=gap.gap_cm,
                tip_widths=gap.tip_widths, near_m=gap.near_m, far_m=gap.far_m,
            )  # fmt: skip
        (row,) = crawl_chart(here, at, target.spot_half_height_cm).rows
    except RefusedError as error:
        return CardLine(number, target, why=error.reason)
    count = None
    if row.crawl_mm is not None:
        archer = rig.archer
        (count,) = counted(
            here, at, np.array([row.crawl_mm]), archer.stitch_pitch_mm,
            PARTS[rig.aim.mark_parts], archer.finger_width_mm, rig.aim.mark_words,
        )  # fmt: skip
    return CardLine(
        number, target, row.level_distance_m, row.crawl_mm, count, row.hold_over_cm,
        near_m=row.near_m, far_m=row.far_m,
    )  # fmt: skip
