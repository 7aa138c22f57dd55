"""A slow-motion look: nock and point marked on some frames of a clip, and what the tail did."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.flight.clip import Marked
from lyrandis.core.flight.read_filter import Reading
from lyrandis.core.flight.read_words import plain_words
from lyrandis.core.parts import Archer, Frozen, choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.trials.flight_read import FlightReadTrial

Px = Annotated[float, Field(ge=-20_000, le=20_000, allow_inf_nan=False)]
LEAST_CHORD_PX = 80.0  # from nock to point on the first frame: shorter, and a pixel is a bend


class FrameMark(Frozen):
    """Nock and point on one frame, in the picture's pixels, y downwards."""

    frame: int = measure(..., "count", 0, 100_000, "Frame")
    nock_px: tuple[Px, Px]
    point_px: tuple[Px, Px]

    @property
    def marked(self) -> Marked:
        """The same for the reading."""
        return Marked(self.frame, self.nock_px, self.point_px)


class ClipTrial(TrialBase):
    """A clip from above, marked; the clip itself is not kept."""

    title: ClassVar[str] = "Slow-motion looks"
    station: ClassVar[StationId] = "flight"
    grounds: ClassVar[Mapping[str, float]] = FlightReadTrial.grounds

    kind: Literal["clip"] = "clip"
    frames_a_second: float = measure(..., "frame_rate", 60, 5000, "Filmed at")
    let_go: int | None = measure(
        None, "count", 0, 100_000, "Frame of the release", "On which the string lets the arrow go."
    )
    marks: Annotated[
        tuple[FrameMark, ...], Field(max_length=200, fail_fast=True, title="Marked frames")
    ] = ()
    tail: Literal["clear", "bounce", "unseen"] = choice("unseen", "The tail")
    by: Literal["telephone", "simulated"] = choice("telephone", "Filmed by")

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        frames = [m.frame for m in self.marks]
        if frames != sorted(set(frames)):
            raise RefusedError("marks", "Each frame is marked once, the earlier ones first.")
        if not self.marks and self.tail == "unseen":
            raise RefusedError("tail", "Say what the tail did, or mark some frames.")
        if self.marks:
            (x0, y0), (x1, y1) = self.marks[0].nock_px, self.marks[0].point_px
            if (x1 - x0) ** 2 + (y1 - y0) ** 2 < LEAST_CHORD_PX**2:
                raise RefusedError(
                    "marks",
                    "On the first marked frame nock and point lie too close: film from above, so "
                    "that the whole arrow is seen.",
                    LEAST_CHORD_PX,
                    "px",
                )
        return self

    def readings(self, archer: Archer) -> list[Reading]:  # noqa: ARG002 (as other reads)
        """Whether the tail struck, as the filter takes it; practice says nothing."""
        if self.by == "simulated" or self.tail == "unseen":
            return []
        return [Reading("slow_motion", self.tail)]

    def said(self) -> Said:
        shown = "" if self.tail == "unseen" else f"{plain_words('slow_motion', self.tail)}, "
        by = ", practice only" if self.by == "simulated" else ""
        return say(
            f"slow motion at {{rate}}: {shown}{{n}} frames marked{by}",
            rate=("frame_rate", self.frames_a_second),
            n=("count", len(self.marks)),
        )

    def columns(self) -> dict[str, Cell]:
        def listed(end: str) -> str:
            return " ".join("{:g},{:g}".format(*getattr(m, end)) for m in self.marks)

        return {
            "filmed at (1/s)": self.frames_a_second,
            "let go on frame": self.let_go,
            "tail": self.tail,
            "frames": " ".join(str(m.frame) for m in self.marks),
            "nock (px)": listed("nock_px"),
            "point (px)": listed("point_px"),
            "by": self.by,
        }
