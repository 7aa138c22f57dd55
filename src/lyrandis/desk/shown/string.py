"""What is shown of a new string: how it settles, the readings among the trials."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.schedule import hours_braced
from lyrandis.core.string.settling import Settling


@dataclass(frozen=True)
class SettlingView(Settling):
    """How a new string settles, what was read, and how long it may have stood braced."""

    readings: list[tuple[float, float]]
    hours_now: float | None


@dataclass(frozen=True)
class TurnsSeen:
    """A brace height [in, to the bow's own reference] at a count of turns."""

    twists: float
    brace_in: float


def settling_view(b: Bench) -> SettlingView | None:
    """The latest new string; None without one."""
    told = b.string.settling
    if told is None:
        return None
    return SettlingView(
        **vars(told),
        readings=b.string.settling_readings,
        hours_now=hours_braced(b.string.settling_run, b.now),
    )


def turns_seen(b: Bench) -> list[TurnsSeen]:
    """Braces measured at counts of turns with the string that is on."""
    return [TurnsSeen(t, brace) for t, brace in b.string.twists_seen]
