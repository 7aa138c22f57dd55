"""Which settings of a rig belong to which of its parts, and the way from one to the other.

The rest (brace, nock point, bolts, a takedown's length and weight, aim) belongs to the
combination and stays with the rig.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from lyrandis.core.parts.archer import Drawing
from lyrandis.core.parts.arrow import ArrowBuilt
from lyrandis.core.parts.base import at
from lyrandis.core.parts.bow import Built
from lyrandis.core.parts.on import KIND_OF, SLOT_NAMES, Slot
from lyrandis.core.parts.part import BODIES, Part, PartBody
from lyrandis.core.parts.rig import Rig
from lyrandis.core.parts.string import Stringed

_RISERS = (
    "riser_in", "centre_cut_mm", "side_plate", "side_plate_mm", "plunger_spring",
    "brace_reference", "brace_offset_in",
)  # fmt: skip
_BOTH_LIMBS = (
    "form", "marked_draw_in", "limb_material", "tips", "low_stretch_rated",
    "maker_brace_low_in", "maker_brace_high_in", "maker_min_gpp", "maker_max_draw_in",
)  # fmt: skip


def _section(section: str, names: Iterable[str]) -> dict[str, str]:
    return {f"{section}.{name}": f"of.{name}" for name in names}


def _limb(side: str) -> dict[str, str]:
    own = {
        f"limbs.{side}_lbf": "of.marked_weight_lbf",
        f"limbs.{side}_class": "of.limb_class",
    }
    return own | _section("bow", _BOTH_LIMBS)


# By slot: the rig's path to the part's. Two limbs share what a bow has once.
OWNED: dict[Slot, dict[str, str]] = {
    "archer": _section("archer", Drawing.model_fields) | {"archer.name": "name"},
    "bow": _section("bow", (n for n in Built.model_fields if n != "takedown")),
    "riser": _section("bow", _RISERS) | {"limbs.degrees_per_turn": "of.degrees_per_turn"},
    "upper_limb": _limb("upper"),
    "lower_limb": _limb("lower"),
    "string": _section("string", Stringed.model_fields),
    "arrows": _section("arrow", ArrowBuilt.model_fields),
}


def differing(rig: Rig, slot: Slot, part: Part) -> dict[str, Any]:
    """The rig's settings that say otherwise than the part in a slot: rig path to the part's value.

    An archer without a name of their own on the rig is called by the part's.
    """
    return {
        path: value
        for path, place in OWNED[slot].items()
        if (value := at(part, place)) != at(rig, path)
        and not (path == "archer.name" and not rig.archer.name and value == UNNAMED[slot])
    }


def belonging(slot: Slot, changes: Mapping[str, Any]) -> dict[str, Any]:
    """Of a rig's changes those that are the part's in a slot: part path to value."""
    owned = OWNED[slot]
    told = {owned[path]: value for path, value in changes.items() if path in owned}
    if told.get("name") == "":
        told["name"] = UNNAMED[slot]
    return told


UNNAMED: dict[Slot, str] = {slot: name.capitalize() for slot, name in SLOT_NAMES.items()}


def slots_of(rig: Rig) -> tuple[Slot, ...]:
    """The slots that a rig has: a takedown's riser and limbs, or a bow in one piece."""
    apart: tuple[Slot, ...] = ("riser", "upper_limb", "lower_limb")
    hidden = ("bow",) if rig.bow.takedown else apart
    return tuple(slot for slot in KIND_OF if slot not in hidden)


def part_of(rig: Rig, slot: Slot) -> Part:
    """The part that a rig's settings describe, named after what it is."""
    body: dict[str, Any] = {"kind": KIND_OF[slot]}
    for path, place in OWNED[slot].items():
        if place.startswith("of."):
            body[place.removeprefix("of.")] = at(rig, path)
    if KIND_OF[slot] == "limb":
        body["which"] = slot.removesuffix("_limb")
        if rig.bow.riser_in is not None:
            body["marked_riser_in"] = rig.bow.riser_in
    made: PartBody = BODIES[KIND_OF[slot]].model_validate(body)  # type: ignore[assignment]
    return Part(name=_named(rig, slot), of=made)


def _named(rig: Rig, slot: Slot) -> str:
    """A name for a part that had none: the archer's, or what it is."""
    if slot == "archer":
        return rig.archer.name or UNNAMED[slot]
    whose = rig.name if len(rig.name) <= _NAME_ROOM else f"{rig.name[: _NAME_ROOM - 1]}…"
    return f"{whose}: {UNNAMED[slot].lower()}"


_NAME_ROOM = 60
