"""The string."""

from __future__ import annotations

from typing import Literal

from lyrandis.core.parts.base import Frozen, choice, measure

StringBuild = Literal["two_bundle", "endless", "unknown"]
StringMaterial = Literal["low_stretch", "polyester", "natural"]


class Stringed(Frozen):
    """The string: material, strands, length, and what hangs on it."""

    material: StringMaterial = choice("polyester", "Material")
    build: StringBuild = choice(
        "unknown", "Loops", "Two-bundle twisted loops adjust both ways, an endless loop hardly."
    )
    worked_in: float | None = measure(
        None,
        "bow_length",
        30,
        76,
        "A string that worked",
        "Its length on this bow, loop to loop under tension: a better guide than any rule.",
    )
    strands: int = measure(14, "count", 4, 40, "Strands")
    strand_diameter_mm: float | None = measure(None, "small", 0.1, 1.5, "Strand diameter")
    length_in: float | None = measure(
        None, "bow_length", 30, 76, "String length", "Loop to loop, under tension."
    )
    silencers_gr: float = measure(0, "mass", 0, 200, "Silencers", "Weight of all of them.")
    silencer_position: float = measure(
        0.7, "share", 0, 1, "Silencer position", "0 at the arrow nock, 1 at the limb nock."
    )
    twists: int | None = measure(None, "count", 0, 120, "Twists")


class String(Stringed):
    """The string that is on, and what a grain scale said of it."""

    mass_gr: float | None = measure(None, "mass", 20, 400, "String weight", "On a grain scale.")
