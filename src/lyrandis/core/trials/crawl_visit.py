"""A visit to one distance with one crawl: how far above the mark each arrow landed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, model_validator

from lyrandis.core.aim.learn import CrawlVisit
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, choice, measure
from lyrandis.core.parts.rig import CountedBy
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase, listed

Height = Annotated[float, Field(ge=-600, le=600, allow_inf_nan=False)]
# What a chart was learnt with; another set of arrows has its own.
CHART_GROUNDS: Mapping[str, float] = {
    "archer": 0, "release": 0, "anchor": 0, "bow": 0, "limbs": 0, "set": 0, "draw": 0.25,
    "weight": 1, "brace": 0.25, "shaft": 0.25, "arrow_mass": 8,
}  # fmt: skip


class CrawlVisitTrial(TrialBase):
    """Arrows shot on the level with one crawl: the chart is learnt from such visits.

    A crawl counted in tab marks or finger widths is kept so, with what one of them measured; the
    millimetres follow.
    """

    title: ClassVar[str] = "Crawls shot"
    station: ClassVar[StationId] = "crawls"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = CHART_GROUNDS

    kind: Literal["crawl_visit"] = "crawl_visit"
    distance_m: float = measure(..., "distance", 2, 90, "Distance")
    crawl_mm: float = measure(0, "crawl", 0, 160, "Crawl", "Down the string; 0 at point-on.")
    counted_by: CountedBy = choice("mm", "Counted by")
    counted: float | None = measure(
        None, "marks", 0, 200, "Counted", "How many marks or finger widths the crawl was."
    )
    each_mm: float | None = measure(
        None, "small", 0.5, 30, "One of them", "What one mark or finger width measured."
    )
    gap_cm: float = measure(
        0, "spot", -600, 600, "Tip held under the spot", "Seen on the butt; negative: over it."
    )
    heights_cm: tuple[Height, ...] = Field(
        min_length=1,
        max_length=24,
        fail_fast=True,
        title="Above the spot",
        description="Of each arrow; negative is low.",
        json_schema_extra={"quantity": "spot"},
    )
    arrows: Literal["count", "sighters"] = choice("count", "These arrows")

    by: Literal["typed", "tapped", "photo", "simulated"] = choice("typed", "Put down")

    @model_validator(mode="before")
    @classmethod
    def _measured(cls, data: Any) -> Any:
        """The crawl [mm] of one that was counted."""
        if not isinstance(data, dict):
            return data
        n, each = data.get("counted"), data.get("each_mm")
        if data.get("counted_by", "mm") == "mm":
            return data
        if isinstance(n, int | float) and isinstance(each, int | float):
            return {**data, "crawl_mm": n * each}
        return data

    @property
    def counts(self) -> bool:
        """Whether the chart is learnt from it: not from sighters, nor from practice."""
        return self.arrows == "count" and self.by != "simulated"

    @property
    def visit(self) -> CrawlVisit:
        """The same for the chart: heights above where the tip was held."""
        above = tuple(h + self.gap_cm for h in self.heights_cm)
        return CrawlVisit(self.distance_m, self.crawl_mm, above)

    def said(self) -> Said:
        n, mean = len(self.heights_cm), sum(self.heights_cm) / len(self.heights_cm)
        way = "high" if mean >= 0 else "low"
        only = ", sighters only" if self.arrows == "sighters" else ""
        only += {"photo": ", off a photo", "simulated": ", practice only"}.get(self.by, "")
        said: dict[str, Any] = {"at": ("distance", self.distance_m), "off": ("spot", abs(mean))}
        if self.counted_by != "mm" and self.counted is not None:
            crawl = "{crawl}"
            said["crawl"] = (self.counted_by, self.counted)
        elif self.crawl_mm or not self.gap_cm:
            crawl = "{crawl}"
            said["crawl"] = ("crawl", self.crawl_mm)
        else:
            crawl = "no crawl"
        held = ""
        if self.gap_cm:
            held = f", tip {{gap}} {'under' if self.gap_cm > 0 else 'over'} the spot"
            said["gap"] = ("spot", abs(self.gap_cm))
        return say(
            f"{n} arrow{'s' if n > 1 else ''} at {{at}} with {crawl}{held}: on average {{off}} "
            f"{way}{only}",
            **said,
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "distance (m)": self.distance_m,
            "crawl (mm)": self.crawl_mm,
            "counted": self.counted,
            "counted by": self.counted_by,
            "one of them (mm)": self.each_mm,
            "tip under the spot (cm)": self.gap_cm,
            "above the spot (cm)": listed(self.heights_cm),
            "arrows": self.arrows,
            "by": self.by,
        }
