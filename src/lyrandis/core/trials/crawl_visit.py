"""A visit to one distance with one crawl: how far above the mark each arrow landed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from lyrandis.core.aim.learn import CrawlVisit
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

Height = Annotated[float, Field(ge=-300, le=300, allow_inf_nan=False)]


class CrawlVisitTrial(TrialBase):
    """Arrows shot on the level with one crawl: the chart is learnt from such visits."""

    title: ClassVar[str] = "Crawls shot"
    station: ClassVar[StationId] = "crawls"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "release": 0, "anchor": 0, "bow": 0, "limbs": 0, "set": 0, "draw": 0.25,
        "weight": 1, "brace": 0.25, "shaft": 0.25, "arrow_mass": 8,
    }  # fmt: skip

    kind: Literal["crawl_visit"] = "crawl_visit"
    distance_m: float = measure(..., "distance", 2, 90, "Distance")
    crawl_mm: float = measure(..., "crawl", 0, 160, "Crawl", "Down the string; 0 at point-on.")
    heights_cm: tuple[Height, ...] = Field(
        min_length=1,
        max_length=24,
        fail_fast=True,
        title="Above the mark",
        description="Of each arrow; negative is low.",
        json_schema_extra={"quantity": "spot"},
    )
    arrows: Literal["count", "sighters"] = choice("count", "These arrows")

    @property
    def visit(self) -> CrawlVisit:
        """The same for the chart."""
        return CrawlVisit(self.distance_m, self.crawl_mm, self.heights_cm)

    def said(self) -> Said:
        n, mean = len(self.heights_cm), sum(self.heights_cm) / len(self.heights_cm)
        way = "high" if mean >= 0 else "low"
        only = ", sighters only" if self.arrows == "sighters" else ""
        return say(
            f"{n} arrow{'s' if n > 1 else ''} at {{at}} with {{crawl}}: on average {{off}} {way}"
            f"{only}",
            at=("distance", self.distance_m),
            crawl=("crawl", self.crawl_mm),
            off=("spot", abs(mean)),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "distance (m)": self.distance_m,
            "crawl (mm)": self.crawl_mm,
            "above the mark (cm)": listed(self.heights_cm),
            "arrows": self.arrows,
        }
