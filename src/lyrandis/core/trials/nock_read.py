"""A read of the nock height: where the tails stood in the butt after a few arrows."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.tune.nock_reads import Tail


class NockReadTrial(TrialBase):
    """Some arrows at one height and distance, and how their tails stood, most of them."""

    title: ClassVar[str] = "Nock reads"
    station: ClassVar[StationId] = "nock-point"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "set": 0, "release": 0,
        "brace": 0.125, "upper_turns": 0.1, "lower_turns": 0.1, "hung": 0, "nock_fit": 0,
        "grip_line": 0, "diameter": 1,
    }  # fmt: skip

    kind: Literal["nock_read"] = "nock_read"
    height_mm: float = measure(
        ..., "nock_height", -10, 40, "Nock point height", "Where it was at this read."
    )
    tail: Tail = choice(..., "Tail in the butt", "As most of the arrows stood, seen from the side.")
    arrows: int = measure(2, "count", 1, 12, "Arrows shot")
    distance_m: float | None = measure(
        None, "distance", 1, 60, "Distance", "A few steps to begin with, then others."
    )
    shaft: Literal["fletched", "bare"] = choice("fletched", "Arrows")
    crawl_mm: float | None = measure(
        None, "crawl", 0, 160, "Crawl", "Where the string is walked: with which crawl it was shot."
    )

    def said(self) -> Said:
        values: dict[str, tuple[str, float]] = {"height": ("nock_height", self.height_mm)}
        where = ""
        if self.distance_m is not None:
            where, values["at"] = " at {at}", ("distance", self.distance_m)
        if self.crawl_mm is not None:
            where += " with {crawl} of crawl"
            values["crawl"] = ("crawl", self.crawl_mm)
        bare = "bare shaft" if self.shaft == "bare" else "arrow"
        many = "s" if self.arrows > 1 else ""
        tail = {"low": "tail low", "level": "level", "high": "tail high"}[self.tail]
        return say(f"{{height}}: {tail}, {self.arrows} {bare}{many}{where}", **values)

    def columns(self) -> dict[str, Cell]:
        return {
            "nock point (mm above square)": self.height_mm,
            "tail": self.tail,
            "arrows": self.arrows,
            "distance (m)": self.distance_m,
            "shaft": self.shaft,
            "crawl (mm)": self.crawl_mm,
        }
