"""The shot routine: the archer's own few steps, the same every time."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

from lyrandis.core.parts.base import Frozen, measure

Words = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
_WHY_SO_LONG = "Nobody holds so long; a pause between arrows is no step."


class RoutineStep(Frozen):
    """One step of a shot: what is said to oneself, and how long it takes."""

    says: Words = Field("Step", title="Step")
    seconds: float = measure(2, "seconds", 0.5, 30, "Takes", "", _WHY_SO_LONG)


class Routine(Frozen):
    """The steps of a shot in their order."""

    steps: tuple[RoutineStep, ...] = Field(
        default=(),
        max_length=12,
        fail_fast=True,
        title="Shot routine",
        description="Your own few steps, the same every time.",
    )
