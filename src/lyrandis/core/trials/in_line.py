"""A look along the bow from behind: where the string runs beside the middle of limbs and riser."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal, Self

from pydantic import model_validator

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Slot, choice, measure
from lyrandis.core.stops import StationId
from lyrandis.core.trials.base import Cell, TrialBase

_ODD_MM = 40.0


def _offset(title: str, help: str) -> float | None:
    made: float | None = measure(
        None, "small", -_ODD_MM, _ODD_MM, title, help, "So far off it is no bow, but a misread."
    )
    return made


class InLineTrial(TrialBase):
    """Offsets of the string from behind, to the right positive; turns since the look before."""

    title: ClassVar[str] = "Looks from behind"
    station: ClassVar[StationId] = "in-line"
    speaks_of: ClassVar[tuple[Slot, ...]] = ("bow", "riser", "upper_limb", "lower_limb")
    grounds: ClassVar[Mapping[str, float]] = {"bow": 0, "riser": 0, "limbs": 0, "form": 0}

    kind: Literal["in_line"] = "in_line"
    upper_mm: float | None = _offset(
        "String beside the upper mark", "At the block by its pocket; right is positive."
    )
    lower_mm: float | None = _offset(
        "String beside the lower mark", "At the block by the lower pocket; right is positive."
    )
    riser_mm: float | None = _offset(
        "String beside the riser's middle", "At the grip; right is positive."
    )
    upper_turns: float = measure(
        0, "bolt", -6, 6, "Upper pocket turned", "Since the look before; to the right is positive."
    )
    lower_turns: float = measure(
        0, "bolt", -6, 6, "Lower pocket turned", "Since the look before; to the right is positive."
    )
    drawn: Literal["not_tried", "tracks", "leaves"] = choice(
        "not_tried",
        "Drawn a hand's breadth",
        "Whether the string keeps its line when drawn a little.",
    )
    twist: Literal["none", "upper", "lower", "not_looked"] = choice("not_looked", "A twisted limb")

    @model_validator(mode="after")
    def _something_seen(self) -> Self:
        if self.upper_mm is None and self.lower_mm is None and self.riser_mm is None:
            raise RefusedError("riser_mm", "A look tells at least one offset.")
        if (self.upper_mm is None) != (self.lower_mm is None):
            raise RefusedError("lower_mm", "Look at both limbs: one alone cannot be in line.")
        return self

    def said(self) -> Said:
        parts: list[str] = []
        values: dict[str, tuple[str, float]] = {}
        for name, offset in (
            ("the upper mark", self.upper_mm),
            ("the lower mark", self.lower_mm),
            ("the riser's middle", self.riser_mm),
        ):
            if offset is None:
                continue
            slot = f"at{len(values)}"
            values[slot] = ("small", abs(offset))
            way = "right of" if offset > 0 else "left of" if offset < 0 else "over"
            parts.append(f"{{{slot}}} {way} {name}" if offset else f"{way} {name}")
            if not offset:
                del values[slot]
        if self.upper_turns or self.lower_turns:
            parts.append("after {upper} above and {lower} below")
            values["upper"] = ("bolt", self.upper_turns)
            values["lower"] = ("bolt", self.lower_turns)
        if self.drawn != "not_tried":
            parts.append(
                "drawn, it " + ("keeps its line" if self.drawn == "tracks" else "leaves it")
            )
        if self.twist in ("upper", "lower"):
            parts.append(f"the {self.twist} limb twisted")
        return say(f"string {', '.join(parts)}", **values)

    def columns(self) -> dict[str, Cell]:
        return {
            "upper mark (mm, right +)": self.upper_mm,
            "lower mark (mm, right +)": self.lower_mm,
            "riser (mm, right +)": self.riser_mm,
            "upper pocket (turns)": self.upper_turns,
            "lower pocket (turns)": self.lower_turns,
            "drawn": self.drawn,
            "twist": self.twist,
        }
