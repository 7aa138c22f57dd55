"""A flight read: a test of how the shaft flies, and what it showed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.flight.looks import height_of, side_of
from lyrandis.core.flight.read_filter import Reading
from lyrandis.core.flight.read_tests import TESTS
from lyrandis.core.flight.read_words import TITLES, nock_words, plain_words
from lyrandis.core.parts import Short, TestId, choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

Nock = Annotated[int, Field(ge=1, le=9)]
KICKS: tuple[TestId, ...] = ("kick_3_paces", "kick_7_paces")
KICK_TO_M = 8.0  # where a lean still tells: mechanics B5
_LEAST_COUNTS = 0.2  # of a test shot with fewer arrows than it asks for


class FlightReadTrial(TrialBase):
    """A test and what it showed; of nocks, where each leaned on the 3×3 block as it was seen."""

    title: ClassVar[str] = "Flight reads"
    station: ClassVar[StationId] = "flight"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "release": 0, "hand": 0, "side": 0,
        "plate": 0,
    }  # fmt: skip

    kind: Literal["flight_read"] = "flight_read"
    test: TestId = choice(..., "Test")
    outcome: Short = Field("", title="What it showed", description="As a script names it.")
    nocks: tuple[Nock, ...] = Field(
        (),
        max_length=24,
        title="Arrow nocks",
        description="Where each leaned: 7 8 9 high, 4 5 6, 1 2 3 low, as you see them.",
    )
    arrows: int = measure(3, "count", 0, 24, "Arrows shot")
    distance_m: float | None = measure(None, "distance", 1, 60, "Distance")
    shaft: Literal["fletched", "bare"] = choice("fletched", "Arrows")

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.nocks:
            if self.test not in KICKS:
                raise ValueError("Arrow nocks on the block are of three or seven paces only.")
            if self.distance_m is not None and self.distance_m > KICK_TO_M:
                raise RefusedError(
                    "distance_m",
                    say(
                        "Beyond {most} a shaft has swung back, and its lean says nothing: read "
                        "nocks nearer.",
                        most=("distance", KICK_TO_M),
                    ),
                    KICK_TO_M,
                    "m",
                )
            return self
        known = TESTS[self.test].outcomes
        if self.outcome not in known:
            raise ValueError(f"“{self.outcome}” is no outcome of this test: {', '.join(known)}.")
        return self

    def readings(self, arrow_left: bool) -> list[Reading]:
        """The same as the filter takes it, for the side on which the arrow lay."""
        test = TESTS[self.test]
        if not self.nocks:
            counts = min(1.0, self.arrows / test.arrows) if test.arrows else 1.0
            return [Reading(self.test, self.outcome, max(counts, _LEAST_COUNTS))]
        counts = min(1.0, len(self.nocks) / test.arrows)
        height = height_of(self.nocks)
        side = Reading(self.test, side_of(self.nocks, arrow_left), counts)
        return [side, Reading("nock_height", height, counts)]

    def said(self) -> Said:
        values: dict[str, tuple[str, float]] = {}
        where = ""
        if self.distance_m is not None:
            where, values["at"] = " at {at}", ("distance", self.distance_m)
        shown = nock_words(self.nocks) if self.nocks else plain_words(self.test, self.outcome)
        bare = ", bare" if self.shaft == "bare" else ""
        return say(f"{TITLES[self.test]}: {shown}{bare}{where}", **values)

    def columns(self) -> dict[str, Cell]:
        return {
            "test": self.test,
            "outcome": self.outcome,
            "nocks": " ".join(map(str, self.nocks)),
            "arrows": len(self.nocks) or self.arrows,
            "distance (m)": self.distance_m,
            "shaft": self.shaft,
        }
