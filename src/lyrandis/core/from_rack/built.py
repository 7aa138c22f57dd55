"""The rig that parts of the rack make together, on the bench with all that is known of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.fit.put_on import fitted
from lyrandis.core.parts import (
    ArcherPart,
    ArrowSide,
    BowPart,
    Part,
    PartBody,
    Rig,
    RiserPart,
    Slot,
    Use,
    usually_left,
)
from lyrandis.core.trials import KeptTrial

# A riser before its limbs: these are marked on one.
_ORDER: tuple[Slot, ...] = (
    "archer", "bow", "riser", "upper_limb", "lower_limb", "string", "arrows",
)  # fmt: skip


@dataclass(frozen=True)
class Asking:
    """Who asks for a bow, and what is known.

    most_lbf : the weight at the draw [lb] that is wished for at most; None: no wish
    trials : what was measured, of every rig that had a part on
    now : ISO time
    """

    mark: str
    archer: Part
    use: Use
    most_lbf: float | None = None
    trials: Sequence[KeptTrial] = ()
    now: str = ""


def rig_of(asking: Asking, parts: Mapping[Slot, tuple[str, Part]], name: str = "New rig") -> Rig:
    """A rig of these parts, everything that belongs to the combination still open.

    Parameters
    ----------
    parts : by slot the mark and the part; what is missing stays as it is on any new rig

    Raises
    ------
    RefusedError : a part does not go where it is put.
    """
    on = {"archer": (asking.mark, asking.archer), **parts}
    begin = {"name": name, "use": asking.use, "bow.takedown": "riser" in parts}
    rig = changed(Rig(), begin)
    for slot in _ORDER:
        if slot in on:
            mark, part = on[slot]
            rig = changed(rig, fitted(rig, slot, part, mark))
    made = parts.get("bow") or parts.get("riser")
    who = asking.archer.of
    if made is None or not isinstance(who, ArcherPart):
        return rig
    return changed(rig, {"arrow_side": side_for(who, made[1].of)})


def side_for(who: ArcherPart, bow: PartBody) -> ArrowSide:
    """The side on which the arrow lies on a bow: the usual one, or the only one that it is cut for.

    >>> side_for(ArcherPart(hand="right"), BowPart(cut_for="left"))
    'right'
    """
    cut_for = bow.cut_for if isinstance(bow, BowPart | RiserPart) else "unknown"
    if cut_for in ("unknown", "both"):
        return "by_hand"
    left = cut_for == "right"
    if left == usually_left(who.hand, who.release):
        return "by_hand"
    return "left" if left else "right"


def bench_of(asking: Asking, parts: Mapping[Slot, tuple[str, Part]]) -> Bench:
    """The same on the bench, with what was measured of its parts wherever they were on."""
    known = {slot: part for slot, (_, part) in parts.items()}
    return _known(asking, rig_of(asking, parts), {**known, "archer": asking.archer})


def with_part(asking: Asking, b: Bench, slot: Slot, mark: str, part: Part) -> Bench:
    """A bench with another part put on it."""
    rig = changed(b.rig, fitted(b.rig, slot, part, mark))
    return _known(asking, rig, {**b.parts, slot: part})


def _known(asking: Asking, rig: Rig, parts: Mapping[Slot, Part]) -> Bench:
    told = tuple(trial for trial in asking.trials if trial.speaks_of(rig.on))
    b = Bench(rig, (), asking.now, told, parts)
    return b.with_changes({}) if told else b
