"""A course of the archer's own: its targets in order, each with distance, slope and spot."""

from __future__ import annotations

from pydantic import Field

from lyrandis.core.parts.base import Frozen, Name, Short, measure


class Target(Frozen):
    """One target of a course."""

    name: Short = ""
    distance_m: float = measure(20, "distance", 2, 120, "Distance")
    slope_deg: float = measure(0, "angle", -45, 45, "Slope", "Uphill is positive.")
    spot_half_height_cm: float = measure(5, "spot", 0.5, 60, "Half height of the spot")


class Course(Frozen):
    """A course that is shot again: its name, and its targets as they are walked."""

    name: Name = "A course"
    targets: tuple[Target, ...] = Field(
        default=(Target(),), min_length=1, max_length=60, fail_fast=True, title="Targets"
    )
