"""Which parts must not be shot: what was found on them on any rig, until somebody's word.

A finding stops the part, not the rig: limbs with a crack stop every rig they are put on. Nothing
looked at later and found whole takes it away; only a release does, with whose word it is.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from lyrandis.core.dates import instant
from lyrandis.core.inspection import PLACES, PlaceId
from lyrandis.core.parts import On, Part, Slot
from lyrandis.core.trials import KeptTrial

_AT: dict[PlaceId, tuple[Slot, ...]] = {
    "cracks": ("bow", "upper_limb", "lower_limb"),
    "layers": ("bow", "upper_limb", "lower_limb"),
    "twist": ("bow", "upper_limb", "lower_limb"),
    "tips": ("bow", "upper_limb", "lower_limb"),
    "fades": ("bow", "upper_limb", "lower_limb"),
    "riser": ("bow", "riser"),
    "string": ("string",),
}


@dataclass(frozen=True)
class Stopped:
    """A part that is not to be shot, and what was found on it, by place; `why`: condemned."""

    found: Mapping[PlaceId, KeptTrial]
    why: str = ""

    @property
    def places(self) -> str:
        """What was found, as part of a sentence."""
        return ", ".join(PLACES[id].title.lower() for id in self.found)

    @property
    def day(self) -> str:
        """When the latest of it was found."""
        return max((trial.day for trial in self.found.values()), default="")


def _marks(on: On, place: PlaceId) -> list[str]:
    """The parts of a rig that have a place; the rig's own name where none is known."""
    return [mark for slot in _AT[place] if (mark := getattr(on, slot))] or [""]


def stopped_by(trials: Iterable[KeptTrial]) -> dict[str, Stopped]:
    """The parts that trials stop, by their marks; "" stands for a rig whose parts are not known.

    Parameters
    ----------
    trials : looks and releases, of one rig or of many
    """
    said = [t for t in trials if t.trial.kind in ("inspection", "release") and not t.struck]
    found: dict[str, dict[PlaceId, KeptTrial]] = {}
    for kept in sorted(said, key=lambda t: (instant(t.at), t.seq)):
        places = kept.trial.found if kept.trial.kind == "inspection" else kept.trial.places
        for place in places:
            for mark in _marks(kept.rig.on, place):
                if kept.trial.kind == "inspection":
                    found.setdefault(mark, {})[place] = kept
                else:
                    found.get(mark, {}).pop(place, None)
    return {mark: Stopped(places) for mark, places in found.items() if places}


def stopped_on(
    on: On, trials: Iterable[KeptTrial], parts: Mapping[Slot, Part]
) -> dict[Slot, Stopped]:
    """The slots of a rig whose part must not be shot, and why.

    Parameters
    ----------
    parts : those on it, which may be condemned
    """
    by_mark = defaultdict(lambda: Stopped({}), stopped_by(trials))
    told: dict[Slot, Stopped] = {}
    for slot, mark in on.slots().items():
        part = parts.get(slot)
        if part is not None and part.keeping.state == "condemned":
            told[slot] = Stopped({}, part.keeping.why)
        elif mark in by_mark:
            told[slot] = by_mark[mark]
    for place, kept in by_mark["" if not on.slots() else "none"].found.items():
        slot = _AT[place][0]
        others = told[slot].found if slot in told else {}
        told[slot] = Stopped({**others, place: kept})
    return told


def to_release(stopped: Mapping[Slot, Stopped]) -> tuple[PlaceId, ...]:
    """What was found and only somebody's word takes away, each place once."""
    return tuple(dict.fromkeys(place for one in stopped.values() for place in one.found))
