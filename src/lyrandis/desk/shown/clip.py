"""A slow-motion clip as it is shown: what its marks say beside the model, and the shapes on it."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.bench.clip import NockWay
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said
from lyrandis.core.trials import ClipTrial


@dataclass(frozen=True)
class ClipView:
    """What the marks say.

    frequency, spine : as seen; computed_hz, acts : as the rig's shaft is taken; why : where the
    frequency comes from, or why there is none
    shapes : the computed shaft on each marked frame, in its pixels
    """

    frequency: Estimate | None
    computed_hz: float
    spine: Estimate | None
    acts: float
    why: Said | None
    nock_way: NockWay | None
    shapes: list[list[tuple[float, float]]]


def clip_view(b: Bench, trial: ClipTrial) -> ClipView:
    """A clip beside this rig's model.

    Raises
    ------
    RefusedError : the rig cannot be shot.
    """
    told = b.clip(trial)
    return ClipView(
        told.frequency,
        told.computed_hz,
        told.spine,
        told.acts,
        told.why,
        told.nock_way,
        told.laid_over(),
    )
