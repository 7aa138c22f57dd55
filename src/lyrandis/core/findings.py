"""What the numbers mean: sentences with their values in them, ready for any unit system.

A `Said` keeps its numbers apart from its words, so that the reader's units can be set into it.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from lyrandis.core.estimate import Estimate
from lyrandis.core.units import write

Level = Literal["stop", "mind", "fine"]
Told = Literal["model", "practice", "rule", "maker", "measured"]
_SLOT = re.compile(r"\{(\w+)\}")
LEVELS: tuple[Level, ...] = ("stop", "mind", "fine")


class Value(BaseModel):
    """A number in its quantity's stored unit [key of units.QUANTITIES]."""

    model_config = ConfigDict(frozen=True)

    value: float
    quantity: str
    plus_minus: float | None = None


class Said(BaseModel):
    """A sentence with {slots}, and the values that stand in them."""

    model_config = ConfigDict(frozen=True)

    text: str
    values: dict[str, Value] = {}

    def plain(self, units: Mapping[str, str] | None = None) -> str:
        """The sentence as text, in the units chosen per quantity, else in the defaults."""
        chosen = units or {}

        def put(slot: re.Match[str]) -> str:
            v = self.values[slot[1]]
            return write(v.value, v.quantity, chosen.get(v.quantity), v.plus_minus)

        return _SLOT.sub(put, self.text)


def say(
    text: str, **values: tuple[str, float] | tuple[str, float, float] | tuple[str, Estimate]
) -> Said:
    """A sentence: `say("{w} at your draw", w=("weight", 38.4))`.

    Each value is (quantity, number), (quantity, number, ±) or (quantity, Estimate).
    """
    made: dict[str, Value] = {}
    for name, parts in values.items():
        number: Any = parts[1]
        if isinstance(number, Estimate):
            made[name] = Value(value=number.value, quantity=parts[0], plus_minus=number.plus_minus)
        else:
            spread = parts[2] if len(parts) == 3 else None
            made[name] = Value(value=number, quantity=parts[0], plus_minus=spread)
    missing = set(_SLOT.findall(text)) ^ set(made)
    if missing:
        raise KeyError(f"sentence and values differ in {sorted(missing)}: {text}")
    return Said(text=text, values=made)


class Action(BaseModel):
    """What cures a finding: changes to try, or a station to go to."""

    model_config = ConfigDict(frozen=True)

    label: Said
    changes: dict[str, Any] = {}
    station: str | None = None


class Finding(BaseModel):
    """One thing the numbers mean, how serious, why, whose word it is, and what cures it."""

    model_config = ConfigDict(frozen=True)

    level: Level
    said: Said
    why: Said
    told: Told
    action: Action | None = None


def by_seriousness(findings: list[Finding]) -> list[Finding]:
    """Most serious first, otherwise in the order given."""
    return sorted(findings, key=lambda f: LEVELS.index(f.level))
