"""Which parts are on a rig, by their marks."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from lyrandis.core.parts.base import Frozen

PartKind = Literal["archer", "bow", "riser", "limb", "string", "arrows"]
Slot = Literal["archer", "bow", "riser", "upper_limb", "lower_limb", "string", "arrows"]
# A part's mark for good, 32 hexadecimal signs; empty where no part is known.
Mark = Annotated[str, StringConstraints(pattern=r"^([0-9a-f]{32})?$")]
_ALONG = 40  # strings or sets that go with one rig


class On(Frozen):
    """The parts of a rig: one in each slot, and the strings and sets that go with it besides.

    A one-piece bow fills `bow`, a takedown `riser` and both limbs. All empty: a rig that was
    written into a request and not kept.
    """

    archer: Mark = ""
    bow: Mark = ""
    riser: Mark = ""
    upper_limb: Mark = ""
    lower_limb: Mark = ""
    string: Mark = ""
    arrows: Mark = ""
    strings: tuple[Mark, ...] = Field(default=(), max_length=_ALONG, fail_fast=True)
    sets: tuple[Mark, ...] = Field(default=(), max_length=_ALONG, fail_fast=True)

    def marks(self) -> tuple[str, ...]:
        """Every mark it names, once."""
        return tuple(dict.fromkeys((*self.slots().values(), *self.strings, *self.sets)))

    def slots(self) -> dict[Slot, str]:
        """The mark in each slot that is filled."""
        return {slot: mark for slot in KIND_OF if (mark := getattr(self, slot))}


KIND_OF: dict[Slot, PartKind] = {
    "archer": "archer",
    "bow": "bow",
    "riser": "riser",
    "upper_limb": "limb",
    "lower_limb": "limb",
    "string": "string",
    "arrows": "arrows",
}
# What stands in each, in a sentence.
SLOT_NAMES: dict[Slot, str] = {
    "archer": "archer",
    "bow": "bow",
    "riser": "riser",
    "upper_limb": "upper limb",
    "lower_limb": "lower limb",
    "string": "string",
    "arrows": "set of arrows",
}
