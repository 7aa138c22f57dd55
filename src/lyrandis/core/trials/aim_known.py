"""What an archer already knows of the aim: a point-on, a crawl, or the two finger numbers."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal, Self

from pydantic import model_validator

from lyrandis.core.aim.known import crawl_known, finger_visits, gap_known, point_on_visit
from lyrandis.core.aim.learn import CrawlVisit
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.parts import Slot, choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.crawl_visit import CHART_GROUNDS

Knowledge = Literal["point_on", "crawl", "gap", "two_numbers"]
_NEEDS: dict[Knowledge, tuple[str, ...]] = {
    "point_on": ("distance_m",),
    "crawl": ("distance_m", "crawl_mm"),
    "gap": ("distance_m", "gap_cm"),
    "two_numbers": ("at_20m_fingers", "per_10m_fingers", "finger_mm"),
}


class AimKnownTrial(TrialBase):
    """Something known before it was shot here: it counts as visits, with the doubt that is said."""

    title: ClassVar[str] = "Known of the aim"
    station: ClassVar[StationId] = "crawls"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("archer",)
    grounds: ClassVar[Mapping[str, float]] = CHART_GROUNDS

    kind: Literal["aim_known"] = "aim_known"
    known: Knowledge = choice(..., "What is known")
    distance_m: float | None = measure(None, "distance", 2, 90, "Distance")
    doubt_m: float = measure(2, "distance", 0.5, 20, "Point-on known to", "One way or the other.")
    crawl_mm: float | None = measure(None, "crawl", 0, 160, "Crawl")
    gap_cm: float | None = measure(
        None, "spot", -600, 600, "Tip under the spot", "Negative: held over it."
    )
    doubt_cm: float = measure(6, "spot", 1, 60, "Lands within", "High or low, as a rule.")
    at_20m_fingers: float | None = measure(None, "fingers", 0, 12, "Finger widths at 20 m")
    per_10m_fingers: float | None = measure(None, "fingers", 0, 5, "Less for each 10 m")
    finger_mm: float | None = measure(None, "small", 10, 30, "One finger's width")

    @model_validator(mode="after")
    def _whole(self) -> Self:
        for name in _NEEDS[self.known]:
            if getattr(self, name) is None:
                title = type(self).model_fields[name].title
                raise RefusedError(name, f"{title} is missing.")
        return self

    def visits(self, aimed: AimedArrow) -> list[CrawlVisit]:
        """The same as visits, with the doubt on the butt that this arrow makes of it."""
        if self.known == "point_on":
            assert self.distance_m is not None
            return [point_on_visit(aimed, self.distance_m, self.doubt_m)]
        if self.known == "gap":
            assert self.distance_m is not None
            assert self.gap_cm is not None
            return [gap_known(self.distance_m, self.gap_cm, self.crawl_mm or 0.0, self.doubt_cm)]
        if self.known == "crawl":
            assert self.distance_m is not None
            assert self.crawl_mm is not None
            return [crawl_known(self.distance_m, self.crawl_mm, self.doubt_cm)]
        assert self.at_20m_fingers is not None
        assert self.per_10m_fingers is not None
        assert self.finger_mm is not None
        return finger_visits(aimed, self.at_20m_fingers, self.per_10m_fingers, self.finger_mm)

    def said(self) -> Said:
        if self.known == "point_on":
            return say(
                "known: point-on {at}, to {doubt}",
                at=("distance", self.distance_m or 0.0),
                doubt=("distance", self.doubt_m),
            )
        if self.known == "crawl":
            return say(
                "known: at {at} a crawl of {crawl} lands within {doubt}",
                at=("distance", self.distance_m or 0.0),
                crawl=("crawl", self.crawl_mm or 0.0),
                doubt=("spot", self.doubt_cm),
            )
        if self.known == "gap":
            way = "under" if (self.gap_cm or 0.0) >= 0 else "over"
            return say(
                f"known: at {{at}} the tip {{gap}} {way} the spot lands within {{doubt}}",
                at=("distance", self.distance_m or 0.0),
                gap=("spot", abs(self.gap_cm or 0.0)),
                doubt=("spot", self.doubt_cm),
            )
        return say(
            "known: {at} at {near}, {per} less for each {more} farther",
            at=("fingers", self.at_20m_fingers or 0.0),
            per=("fingers", self.per_10m_fingers or 0.0),
            near=("distance", 20.0),
            more=("distance", 10.0),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "known": self.known,
            "distance (m)": self.distance_m,
            "to (m)": self.doubt_m,
            "crawl (mm)": self.crawl_mm,
            "tip under the spot (cm)": self.gap_cm,
            "lands within (cm)": self.doubt_cm,
            "finger widths at 20 m": self.at_20m_fingers,
            "less per 10 m": self.per_10m_fingers,
            "one finger (mm)": self.finger_mm,
        }
