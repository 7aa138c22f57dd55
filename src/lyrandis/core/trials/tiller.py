"""A measuring of the tiller: both distances, limb by its pocket to string."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

_CLOSEST_MM, _FARTHEST_MM = 60.0, 360.0
_WHY = "No braced string stands nearer or farther than this from its limb."


class TillerTrial(TrialBase):
    """Both distances with the bow braced; the bolts stand as the rig says."""

    title: ClassVar[str] = "Tiller measured"
    station: ClassVar[StationId] = "tiller"
    grounds: ClassVar[Mapping[str, float]] = {
        "bow": 0, "riser": 0, "limbs": 0, "string": 0, "form": 0, "marking": 0.25,
    }  # fmt: skip

    kind: Literal["tiller"] = "tiller"
    upper_mm: float = measure(
        ..., "tiller", _CLOSEST_MM, _FARTHEST_MM, "Upper distance",
        "Square from the string to the upper limb where it leaves its pocket.", _WHY,
    )  # fmt: skip
    lower_mm: float = measure(
        ..., "tiller", _CLOSEST_MM, _FARTHEST_MM, "Lower distance",
        "Square from the string to the lower limb where it leaves its pocket.", _WHY,
    )  # fmt: skip

    @property
    def tiller_mm(self) -> float:
        """Upper less lower."""
        return self.upper_mm - self.lower_mm

    def said(self) -> Said:
        return say(
            "{upper} above, {lower} below: tiller {tiller}",
            upper=("tiller", self.upper_mm),
            lower=("tiller", self.lower_mm),
            tiller=("small", self.tiller_mm),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "upper distance (mm)": self.upper_mm,
            "lower distance (mm)": self.lower_mm,
            "tiller (mm)": round(self.tiller_mm, 2),
        }
