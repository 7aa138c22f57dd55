"""A look at the centre shot: how far the point stands beside the string, seen from behind."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class CentreShotTrial(TrialBase):
    """The gap between the string's edge and the point's near edge, arrow on the braced string."""

    title: ClassVar[str] = "Looks at the point"
    station: ClassVar[StationId] = "centre-shot"
    grounds: ClassVar[Mapping[str, float]] = {
        "bow": 0, "riser": 0, "side": 0, "plate": 0, "cut": 0.1, "diameter": 0.2, "brace": 0.25,
        "shaft": 0.5,
    }  # fmt: skip

    kind: Literal["centre_shot"] = "centre_shot"
    gap_mm: float = measure(
        ..., "small", -60, 60, "Gap",
        "From the string's edge to the near edge of the point; outward positive, a point that the "
        "string hides negative.",
        "So far off it is a misread.",
    )  # fmt: skip

    def said(self) -> Said:
        if self.gap_mm < 0:
            return say("the string hides {gap} of the point", gap=("small", -self.gap_mm))
        return say("the point stands {gap} outside the string", gap=("small", self.gap_mm))

    def columns(self) -> dict[str, Cell]:
        return {"gap, string to point (mm, outward +)": self.gap_mm}
