"""A group shot one way with an over-stiff shaft: side, end of the bow, turn of the arrow."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase
from lyrandis.core.tune.over_stiff import ArrowTurn, BowEnd, GroupShot, Side, Way

_BOW = {"as_made": "bow as made", "flipped": "bow flipped"}
_ARROW = {"as_made": "arrow as made", "half_turned": "arrow turned half round"}


class WayTrial(TrialBase):
    """A group of some arrows, shot one way."""

    title: ClassVar[str] = "Ways of a natural bow"
    station: ClassVar[StationId] = "arrow"
    grounds: ClassVar[Mapping[str, float]] = {
        "archer": 0, "bow": 0, "riser": 0, "limbs": 0, "string": 0, "set": 0, "release": 0,
        "draw": 0.5, "brace": 0.25, "spine": 20, "point": 10, "shaft": 0.5,
    }  # fmt: skip

    kind: Literal["way"] = "way"
    side: Side = choice("left", "Arrow on the", "As you see the bow from behind.")
    bow: BowEnd = choice("as_made", "Bow", "Flipped: end for end, the other limb up.")
    arrow: ArrowTurn = choice("as_made", "Arrow", "Half turned: the other side towards the bow.")
    size_cm: float = measure(
        ..., "spot", 0, 400, "Widest apart", "Between the two arrows that lie farthest apart."
    )
    arrows: int = measure(3, "count", 2, 24, "Arrows shot")
    distance_m: float = measure(..., "distance", 3, 90, "Distance")

    @property
    def group(self) -> GroupShot:
        """The same for the comparison."""
        way = Way(self.side, self.bow, self.arrow)
        return GroupShot(way, self.size_cm, self.arrows, self.distance_m)

    def said(self) -> Said:
        return say(
            f"on the {self.side}, {_BOW[self.bow]}, {_ARROW[self.arrow]}: {self.arrows} arrows "
            "{size} apart at {at}",
            size=("spot", self.size_cm),
            at=("distance", self.distance_m),
        )

    def columns(self) -> dict[str, Cell]:
        return {
            "side": self.side,
            "bow": self.bow,
            "arrow": self.arrow,
            "widest apart (cm)": self.size_cm,
            "arrows": self.arrows,
            "distance (m)": self.distance_m,
        }


def way_words(way: Way) -> str:
    """A way in words."""
    return f"on the {way.side}, {_BOW[way.bow]}, {_ARROW[way.arrow]}"
