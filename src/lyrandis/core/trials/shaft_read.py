"""How a shaft of some length or taper read: the log by which it is cut or tapered."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.tune.shaft import FlightRead

Tuned = Literal["length", "rear_taper", "front_taper"]
TUNED: dict[Tuned, str] = {
    "length": "length", "rear_taper": "rear taper", "front_taper": "front taper",
}  # fmt: skip


class ShaftReadTrial(TrialBase):
    """Some arrows as the shaft is now, and how they flew, most of them."""

    title: ClassVar[str] = "Reads while tuning a shaft"
    station: ClassVar[StationId] = "arrow"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "release": 0, "side": 0,
        "draw": 0.25, "brace": 0.25, "plate": 0, "cut": 1, "silencers": 10, "gpi": 0.3,
        "diameter": 0.3, "shaft_material": 0, "spine": 20, "point": 5,
    }  # fmt: skip

    kind: Literal["shaft_read"] = "shaft_read"
    tuned: Tuned = choice("length", "Tuned by")
    length_in: float = measure(
        ..., "draw", 0, 36, "As long as", "The shaft, or the taper that is being lengthened."
    )
    read: FlightRead = choice(..., "How they flew", "As most of the arrows did.")
    arrows: int = measure(3, "count", 1, 24, "Arrows shot")
    distance_m: float | None = measure(None, "distance", 1, 60, "Distance")

    def said(self) -> Said:
        values: dict[str, tuple[str, float]] = {"long": ("draw", self.length_in)}
        where = ""
        if self.distance_m is not None:
            where, values["at"] = " at {at}", ("distance", self.distance_m)
        many = "s" if self.arrows > 1 else ""
        what = TUNED[self.tuned]
        return say(f"{what} {{long}}: {self.read}, {self.arrows} arrow{many}{where}", **values)

    def columns(self) -> dict[str, Cell]:
        return {
            "tuned": TUNED[self.tuned],
            "as long as (in)": self.length_in,
            "read": self.read,
            "arrows": self.arrows,
            "distance (m)": self.distance_m,
        }
