"""One arrow of a set, and its parts."""

from __future__ import annotations

from typing import Literal

from lyrandis.core.parts.base import Frozen, choice, measure

ShaftMaterial = Literal["carbon", "aluminium", "wood", "cane"]


class ArrowBuilt(Frozen):
    """An arrow and its parts."""

    shaft_length_in: float = measure(
        30, "draw", 18, 36, "Shaft length", "Throat of the arrow nock to the back of the point."
    )
    grains_per_inch: float = measure(7.8, "gpi", 3, 25, "Shaft grains per inch")
    static_spine: float = measure(
        600,
        "spine",
        150,
        2000,
        "Static spine",
        "What is printed on the shaft: a larger number is a weaker shaft.",
    )
    diameter_mm: float = measure(6, "small", 3, 12, "Shaft diameter")
    material: ShaftMaterial = choice("carbon", "Shaft material")
    point_gr: float = measure(110, "mass", 10, 600, "Point")
    insert_gr: float = measure(12, "mass", 0, 300, "Insert")
    nock_gr: float = measure(9, "mass", 0, 60, "Arrow nock")
    fletching_gr: float = measure(9, "mass", 0, 100, "Fletching, all of it")
    fletching_count: int = measure(3, "count", 0, 6, "Feathers or vanes")
    rear_taper_in: float = measure(
        0, "draw", 0, 16, "Rear taper", "How far from the arrow nock a wood shaft is thinned."
    )
    rear_end_mm: float | None = measure(
        None, "small", 3, 12, "Rear end", "How thick a tapered wood shaft is at the arrow nock."
    )
    front_taper_in: float = measure(
        0, "draw", 0, 16, "Front taper", "How far from the point a wood shaft is thinned."
    )
    front_end_mm: float | None = measure(
        None, "small", 3, 12, "Front end", "How thick a tapered wood shaft is at the point."
    )


class Arrow(ArrowBuilt):
    """One arrow of the set, and what a grain scale said of it."""

    weighed_gr: float | None = measure(
        None, "mass", 50, 2500, "Weighed arrow", "The finished arrow on a grain scale."
    )
