"""Parts that must not be shot, and the arrow that is too short on a bad day: said everywhere."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.conditions import Stopped
from lyrandis.core.findings import Action, Finding, say, stop
from lyrandis.core.parts import SLOT_NAMES, Slot


def part_stops(b: Bench) -> list[Finding]:
    """A stop for each thing that was found on a part, or for which a part was condemned."""
    groups: dict[tuple[str, str, str], list[Slot]] = {}
    for slot, stopped in b.stopped.items():
        groups.setdefault((stopped.why, stopped.places, stopped.day), []).append(slot)
    return [_stop(slots, b.stopped[slots[0]]) for slots in groups.values()]


def _stop(slots: list[Slot], stopped: Stopped) -> Finding:
    names = " and ".join(SLOT_NAMES[slot] for slot in slots)
    if stopped.why:
        verb = "are" if len(slots) > 1 else "is"
        return stop(
            said=say(
                f"The {names} {verb} condemned: {{why}}. Do not shoot this rig; put another on.",
                why=stopped.why,
            ),
            why=say("A condemned part stays condemned."),
            told="practice",
        )
    where = {kept.rig.name for kept in stopped.found.values() if kept.rig_id is not None}
    elsewhere = " with {rig}" if where else ""
    words = {"rig": ", ".join(sorted(where))} if where else {}
    cure = (
        "Change the string before you shoot."
        if slots == ["string"]
        else "Do not shoot it until a bowyer has seen it and given it free."
    )
    return stop(
        said=say(
            f"On the {names} was found on {stopped.day}{elsewhere}: {stopped.places}. {cure}",
            **words,
        ),
        why=say(
            "What was found stays with the part, on whatever rig it is. Only a release logged with "
            "whose word it is takes it away, not another look."
        ),
        told="practice",
        action=Action(label=say("To the look-overs"), station="bow-length"),
    )
