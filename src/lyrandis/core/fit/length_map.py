"""A map of draw over bow length: comfortable, stacking, overdrawn and under-used regions."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.bow.curve import force_draw, stack_onset_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import LENGTHS_IN, idle_ratio, of_length
from lyrandis.core.parts import Bow, StringMaterial

OVERDRAWN_PAST_IN = 2.0  # never several inches inside the stack (practice, school d)
_STEP_IN = 2.0
_FAR_IN = 36.0


@dataclass(frozen=True)
class LengthMap:
    """Borders between the regions: for each length [in], draws [in, trade].

    Under `under_used_in` the limbs are hardly worked; up to `comfortable_to_in` the reserve is
    kept; from `stacks_from_in` the bow stacks; from `overdrawn_from_in` it is overdrawn or its
    geometry ends.
    """

    length_in: list[float]
    under_used_in: list[float]
    comfortable_to_in: list[float]
    stacks_from_in: list[float]
    overdrawn_from_in: list[float]


def length_map(
    bow: Bow, reserve_in: float | None, material: StringMaterial = "polyester"
) -> LengthMap:
    """The map for a form of bow, with the reserve [in] wanted before the onset of stack.

    No reserve: its stack does not end this kind of bow, only its geometry or its maker's word.

    Each length is solved with the form's default riser and brace height. Lengths at which no
    bow of the form can be marked at its draw are left out.
    """
    low, high = LENGTHS_IN[bow.form]
    told: dict[str, list[float]] = {name: [] for name in LengthMap.__dataclass_fields__}
    for length in np.arange(low, high + _STEP_IN / 2, _STEP_IN):
        sized = of_length(bow, float(length))
        try:
            end = force_draw(sized, material).end_in
            onset = stack_onset_in(sized, material) or _FAR_IN
        except RefusedError:
            continue
        told["length_in"].append(float(length))
        told["under_used_in"].append(float(length) / idle_ratio(bow.form))
        by_stack = (end, end, end)
        if reserve_in is not None:
            by_stack = onset - reserve_in, onset, min(onset + OVERDRAWN_PAST_IN, end)
        told["comfortable_to_in"].append(by_stack[0])
        told["stacks_from_in"].append(by_stack[1])
        told["overdrawn_from_in"].append(by_stack[2])
    return LengthMap(**told)
