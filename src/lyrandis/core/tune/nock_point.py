"""Nock point: ordinary starts by release (practice section 6)."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.parts import Release, Rig
from lyrandis.core.units import MM_PER_IN

START_MM: dict[Release, tuple[float, float]] = {
    "split": (3 / 8 * MM_PER_IN, 5 / 8 * MM_PER_IN),
    "three_under": (1 / 2 * MM_PER_IN, 3 / 4 * MM_PER_IN),
    "thumb": (0.0, 2.0),
}


LEVEL_MM = 0.0  # the underside of a level arrow nock: square with the rest


@dataclass(frozen=True)
class NockStart:
    """Ordinary heights [mm] from square to the underside of the arrow nock.

    begin_mm : where the archer's school begins: in the middle of them, or with a level arrow
    """

    low_mm: float
    high_mm: float
    start_mm: float
    begin_mm: float
    height_mm: float
    assumed: bool


def crawls_used(rig: Rig) -> bool:
    """Whether this archer walks the string: three under, with crawls for the distances."""
    return rig.aims_by != "gaps"


def nock_start(rig: Rig) -> NockStart:
    """Where to start, and where the nock point stands now.

    String walkers need about one more arrow diameter than plain three under.
    """
    low, high = START_MM[rig.archer.release]
    if crawls_used(rig):
        high += rig.arrow.diameter_mm
    start = (low + high) / 2
    assumed = rig.nock_height_mm is None
    begin = LEVEL_MM if rig.nocking.school == "by_eye" else start
    height = start if rig.nock_height_mm is None else rig.nock_height_mm
    return NockStart(low, high, start, begin, height, assumed)
