"""How this archer reads a shaft: the tests there are, and those that are not made."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from lyrandis.core.parts.base import Frozen

TestId = Literal[
    "kick_3_paces", "kick_7_paces", "bare_shaft_15m", "brace_reread", "felt_plate", "silencers",
    "short_draw", "wear_marks", "clatter", "slow_motion", "group_25m", "nock_height", "long_draw",
]  # fmt: skip


class ReadingShafts(Frozen):
    """Which tests are left out: no bare shafts on wood, no camera, nothing that records."""

    left_out: tuple[TestId, ...] = Field(
        default=("clatter",),
        max_length=13,
        title="Tests not made",
        description="Left out of what is offered next: no bare shafts on wood, no camera.",
        fail_fast=True,
    )
