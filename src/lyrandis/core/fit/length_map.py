"""A map of draw over bow length: comfortable, stacking, overdrawn and under-used regions."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.bow.curve import force_draw, stack_onset_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import LENGTHS_IN, idle_ratio, of_length
from lyrandis.core.rig import Bow

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


def length_map(bow: Bow, reserve_in: float) -> LengthMap:
    """The map for a form of bow, with the reserve [in] wanted before the onset of stack.

    Each length is solved with the form's default riser and brace height. Lengths at which no
    bow of the form can be marked at its draw are left out.
    """
    low, high = LENGTHS_IN[bow.form]
    told: dict[str, list[float]] = {name: [] for name in LengthMap.__dataclass_fields__}
    for length in np.arange(low, high + _STEP_IN / 2, _STEP_IN):
        sized = of_length(bow, float(length))
        try:
            end = force_draw(sized).end_in
            onset = stack_onset_in(sized) or _FAR_IN
        except RefusedError:
            continue
        told["length_in"].append(float(length))
        told["under_used_in"].append(float(length) / idle_ratio(bow.form))
        told["comfortable_to_in"].append(onset - reserve_in)
        told["stacks_from_in"].append(onset)
        told["overdrawn_from_in"].append(min(onset + OVERDRAWN_PAST_IN, end))
    return LengthMap(**told)
