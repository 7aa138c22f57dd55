"""What is shown of the brace height: where it stands and what moving it does."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.tune.brace import BraceHeight


@dataclass(frozen=True)
class BraceView(BraceHeight):
    """The brace height, and what 1 in more does; None where the bow cannot be drawn so."""

    energy_per_in_pct: float | None
    string_per_in: float | None


def brace_view(b: Bench) -> BraceView:
    """The brace's answer."""
    height = vars(b.brace.height)
    try:
        effect = b.brace.effect
    except RefusedError:
        return BraceView(**height, energy_per_in_pct=None, string_per_in=None)
    return BraceView(
        **height,
        energy_per_in_pct=effect.energy_per_in_pct,
        string_per_in=effect.string_per_in,
    )
