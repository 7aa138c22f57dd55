"""Where arrows landed with known crawls at known distances: a speed without a chronograph."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from pydantic import Field

from lyrandis.core.aim.speed_marks import Sighting
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Frozen, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase


class Landed(Frozen):
    """Some arrows with one crawl at one distance, and how far over the mark they landed."""

    distance_m: float = measure(..., "distance", 3, 90, "Distance")
    crawl_mm: float = measure(..., "crawl", 0, 160, "Crawl", "Nought where none was taken.")
    height_cm: float = measure(
        0, "spot", -300, 300, "Above the mark", "Negative where they landed below."
    )
    arrows: int = measure(3, "count", 1, 24, "Arrows shot")


class MarksTrial(TrialBase):
    """Arrows at two distances or more, each with its crawl and where they landed."""

    title: ClassVar[str] = "Speeds by where arrows landed"
    station: ClassVar[StationId] = "arrow"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "set": 0, "draw": 0.25,
        "marking": 0.25, "brace": 0.25, "silencers": 10, "upper_turns": 0.25, "lower_turns": 0.25,
        "release": 0, "anchor": 0, "eye": 5, "shaft": 0.25, "arrow_mass": 8,
    }  # fmt: skip

    kind: Literal["marks"] = "marks"
    landed: tuple[Landed, ...] = Field(
        min_length=2, max_length=12, fail_fast=True, title="Where they landed"
    )

    @property
    def sightings(self) -> tuple[Sighting, ...]:
        """The same for the model."""
        return tuple(
            Sighting(one.distance_m, one.crawl_mm, one.height_cm, one.arrows) for one in self.landed
        )

    def said(self) -> Said:
        near = min(self.landed, key=lambda one: one.distance_m)
        far = max(self.landed, key=lambda one: one.distance_m)
        n = sum(one.arrows for one in self.landed)
        return say(
            f"{n} arrows: crawl {{near_crawl}} at {{near}}, {{far_crawl}} at {{far}}, there "
            f"{{off}} {'below' if far.height_cm < 0 else 'above'} the mark",
            near=("distance", near.distance_m),
            near_crawl=("crawl", near.crawl_mm),
            far=("distance", far.distance_m),
            far_crawl=("crawl", far.crawl_mm),
            off=("spot", abs(far.height_cm)),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "distances (m)": " ".join(f"{one.distance_m:g}" for one in self.landed),
            "crawls (mm)": " ".join(f"{one.crawl_mm:g}" for one in self.landed),
            "above the mark (cm)": " ".join(f"{one.height_cm:g}" for one in self.landed),
            "arrows": " ".join(str(one.arrows) for one in self.landed),
        }
