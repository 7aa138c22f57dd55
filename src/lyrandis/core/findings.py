"""What the numbers mean: sentences with their values in them, ready for any unit system.

A `Said` keeps its numbers apart from its words, so that the reader's units can be set into it, and
what the archer wrote apart from both: only the product's own text is ever read for {slots}.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from lyrandis.core.estimate import Estimate
from lyrandis.core.units import write

Level = Literal["stop", "mind", "fine"]
Grounds = Literal["model", "practice", "rule", "maker", "measured"]
_SLOT = re.compile(r"\{(\w+)\}")
LEVELS: tuple[Level, ...] = ("stop", "mind", "fine")


class Value(BaseModel):
    """A number in its quantity's stored unit [key of units.QUANTITIES].

    exact : it is a limit or what was typed, and is written without noughts after the point
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    value: float
    quantity: str
    plus_minus: float | None = None
    exact: bool = False


class Said(BaseModel):
    """A sentence with {slots}, and what stands in them: values, or words taken as they are."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    text: str
    values: dict[str, Value] = {}
    words: dict[str, str] = {}

    def plain(self, units: Mapping[str, str] | None = None) -> str:
        """The sentence as text, in the units chosen per quantity, else in the defaults."""
        chosen = units or {}

        def put(slot: re.Match[str]) -> str:
            name = slot[1]
            if name not in self.values:
                return self.words.get(name, slot[0])
            v = self.values[name]
            unit = chosen.get(v.quantity)
            return write(v.value, v.quantity, unit, v.plus_minus, exact=v.exact)

        return _SLOT.sub(put, self.text)

    def __add__(self, other: Said) -> Said:
        """Two sentences one after the other, each with its own slots."""
        return joined(self, other, " ")

    def renamed(self, prefix: str) -> Said:
        """The same sentence with every slot's name behind a prefix."""
        return Said(
            text=_SLOT.sub(lambda slot: f"{{{prefix}{slot[1]}}}", self.text),
            values={f"{prefix}{name}": v for name, v in self.values.items()},
            words={f"{prefix}{name}": v for name, v in self.words.items()},
        )

    def around(self, before: str, after: str) -> Said:
        """The same sentence between two pieces of the product's own text."""
        return self.model_copy(update={"text": f"{before}{self.text}{after}"})

    def ended(self, end: str = ".") -> Said:
        """The same words with an end."""
        return self.model_copy(update={"text": f"{self.text}{end}"})

    def sentence(self) -> Said:
        """The same words with a capital at their beginning and a full stop at their end."""
        return self.model_copy(update={"text": f"{self.text[:1].upper()}{self.text[1:]}."})


def joined(one: Said, other: Said, between: str = "") -> Said:
    """Two pieces of a sentence as one, each with its own slots."""
    a, b = one.renamed("a_"), other.renamed("b_")
    text = f"{a.text}{between}{b.text}"
    return Said(text=text, values=a.values | b.values, words=a.words | b.words)


def verbatim(text: str) -> Said:
    """Text that is not the product's own, or is finished already: nothing in it is a slot."""
    return Said(text="{text}", words={"text": text})


def say(
    text: str,
    **values: str | Value | tuple[str, float] | tuple[str, float, float] | tuple[str, Estimate],
) -> Said:
    """A sentence: `say("{w} at your draw, {name}", w=("weight", 38.4), name=archer.name)`.

    Each value is a Value, (quantity, number), (quantity, number, ±), (quantity, Estimate), or words
    that stand as they are.
    """
    made: dict[str, Value] = {}
    words = {name: parts for name, parts in values.items() if isinstance(parts, str)}
    for name, parts in values.items():
        if isinstance(parts, str):
            continue
        if isinstance(parts, Value):
            made[name] = parts
            continue
        number: Any = parts[1]
        if isinstance(number, Estimate):
            made[name] = Value(value=number.value, quantity=parts[0], plus_minus=number.plus_minus)
        else:
            spread = parts[2] if len(parts) == 3 else None
            made[name] = Value(value=number, quantity=parts[0], plus_minus=spread)
    missing = set(_SLOT.findall(text)) ^ (set(made) | set(words))
    if missing:
        raise KeyError(f"sentence and values differ in {sorted(missing)}: {text}")
    return Said(text=text, values=made, words=words)


class Action(BaseModel):
    """What cures a finding: changes to try, a station to go to, or another bow.

    rack_lbf : the most [lb] that a bow may pull which the rack is searched for
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    label: Said
    changes: dict[str, Any] = {}
    station: str | None = None
    rack_lbf: float | None = None


class Finding(BaseModel):
    """One thing the numbers mean, how serious, why, whose word it is, and what cures it.

    instead : other cures, for where the first does not hold when it is tried
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    level: Level
    said: Said
    why: Said
    told: Grounds
    action: Action | None = None
    instead: tuple[Action, ...] = Field(default=(), exclude=True)


def stop(
    *,
    said: Said,
    why: Said,
    told: Grounds,
    action: Action | None = None,
    instead: tuple[Action, ...] = (),
) -> Finding:
    """Something that can hurt the archer or the bow."""
    return Finding(level="stop", said=said, why=why, told=told, action=action, instead=instead)


def mind(*, said: Said, why: Said, told: Grounds, action: Action | None = None) -> Finding:
    """Something to look at."""
    return Finding(level="mind", said=said, why=why, told=told, action=action)


def fine(*, said: Said, why: Said, told: Grounds, action: Action | None = None) -> Finding:
    """Something that is as it should be."""
    return Finding(level="fine", said=said, why=why, told=told, action=action)


def by_seriousness(findings: list[Finding]) -> list[Finding]:
    """Most serious first, otherwise in the order given."""
    return sorted(findings, key=lambda f: LEVELS.index(f.level))
