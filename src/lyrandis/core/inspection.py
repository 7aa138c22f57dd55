"""Looking a bow over: where to look, what it looks like, and what it means.

Source: practice sections 2 and 12 and the cautions. A bowyer's word wins over this list.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

PlaceId = Literal["cracks", "layers", "twist", "tips", "fades", "riser", "string"]


@dataclass(frozen=True)
class Place:
    """One place to look at: what to look for, and what it means when it is there."""

    id: PlaceId
    title: str
    look: str
    means: str
    stop: bool  # whether the part is not to be shot until it was given free


PLACES: dict[PlaceId, Place] = {
    place.id: place
    for place in (
        Place(
            "cracks",
            "Cracks across a limb",
            "Unstrung, tilt the limb to a window: hair lines across it, on the belly or the back.",
            "The limb was bent past what it stands: overdrawn, dry-fired or tired. It lets go at "
            "full draw, sometimes years later.",
            True,
        ),
        Place(
            "layers",
            "A lifting layer",
            "A fingernail along both edges: a line that opens, a blister, a dull tap.",
            "The lamination is letting go. It does not mend by itself.",
            True,
        ),
        Place(
            "twist",
            "A twisted limb",
            "Strung, from the tip along the limb: the string runs down its middle.",
            "Strung without a stringer, leaned in a corner or hot in a car. The string can slip "
            "off its groove.",
            True,
        ),
        Place(
            "tips",
            "Limb nocks and overlays",
            "Grooves smooth and whole, overlays without a gap.",
            "A sharp or split groove cuts the loop.",
            True,
        ),
        Place(
            "fades",
            "Where limb and riser meet",
            "The last inch before the wood thickens: white lines or a wrinkle.",
            "The glue line carries most here.",
            True,
        ),
        Place(
            "riser",
            "Riser and grip",
            "Hair lines along the grain at the shelf and through the grip, play in the pockets.",
            "The grip is the thinnest part of many risers.",
            True,
        ),
        Place(
            "string",
            "String and serving",
            "No worn serving, no broken or loose strand, loops whole.",
            "Change the string: it is the cheapest part that can hurt you.",
            True,
        ),
    )
}
INSPECT_EVERY_DAYS = 28  # every few weeks of shooting (practice section 12)
