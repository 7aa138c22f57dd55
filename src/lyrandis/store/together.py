"""A rig and its parts kept together: what is changed in one place reaches every other.

a rig's setting that is a part's   → the part → every other rig with it on
another part put on                → the rig takes the part's settings
a part changed on its own page     → every rig with it on
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Connection

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.history import MOST_ENTRIES, Change, Entry, PutOn, changes_between
from lyrandis.core.measured import untrue
from lyrandis.core.parts import OWNED, Part, Rig, Slot, belonging, differing, part_of, slots_of
from lyrandis.core.parts.base import at as value_of
from lyrandis.store import rack
from lyrandis.store.derived import follow, make_anew
from lyrandis.store.kept import Kept, Unreadable
from lyrandis.store.present import Stale, present


@dataclass(frozen=True)
class Made:
    """A part that a change of build makes."""

    put_on: PutOn
    part: Part


def other_build(rig: Rig, wanted: dict[str, Any], new_mark: rack.NewMark) -> tuple[Made, ...]:
    """The parts that a rig needs once its construction is changed: a riser and limbs, or a bow."""
    if wanted.get("bow.takedown", rig.bow.takedown) == rig.bow.takedown or not rig.on.slots():
        return ()
    after = changed(rig, wanted)
    made = []
    for slot in slots_of(after):
        if not getattr(after.on, slot):
            part = part_of(after, slot)
            made.append(Made(PutOn(slot=slot, mark=new_mark(), name=part.name), part))
    return tuple(made)


def slots_for(built: Sequence[Made]) -> dict[str, Any]:
    """The changes by which parts of another build come on and those of the former go."""
    if not built:
        return {}
    comes = {f"on.{made.put_on.slot}": made.put_on.mark for made in built}
    apart: tuple[Slot, ...] = ("riser", "upper_limb", "lower_limb")
    goes = apart if "on.bow" in comes else ("bow",)
    return comes | {f"on.{slot}": "" for slot in goes}


def refuse_away(part: Part) -> None:
    """Raises RefusedError for a part that cannot be put on."""
    if part.keeping.state == "condemned":
        raise RefusedError(
            "mark", f"{part.name} is condemned ({part.keeping.why}): it goes on nothing again."
        )
    if part.keeping.state == "lent":
        raise RefusedError("mark", f"{part.name} is lent to {part.keeping.to}: take it back first.")


def refuse_second_life(before: Part, after: Part) -> None:
    """Raises RefusedError where a condemned part would be anything else again."""
    if before.keeping.state == "condemned" and after.keeping.state != "condemned":
        raise RefusedError("keeping.state", "A condemned part stays condemned.")


def settle(connection: Connection, before: Kept, after: Kept, at: str) -> tuple[Kept, list[Kept]]:
    """Bring parts, other rigs and the rig itself into agreement after one of its entries.

    Returns
    -------
    The rig as it then stands, and the other rigs that were changed.
    """
    was, rig = before.present.rig, after.present.rig
    stale: dict[str, Any] = {}
    reached: list[Kept] = []
    for slot, kept in after.parts.items():
        if getattr(was.on, slot) != kept.mark:
            stale |= differing(rig, slot, kept.part)
            continue
        own = {
            path: value
            for path in OWNED[slot]
            if (value := value_of(rig, path)) != value_of(was, path)
        }
        if own:
            why = f"on {rig.name}"
            part, changes = rack.write(
                connection, kept.mark, belonging(slot, own), at, why, after.id
            )
            reached += spread(connection, part, changes, at, f"{part.part.name}: {why}", after.id)
    fresh = present(connection, after.id)
    assert isinstance(fresh, Kept)
    if stale:
        fresh = _set(connection, fresh, stale, at, "the part as it is now")
    elif untrue(fresh.present.rig, fresh.known):
        fresh = _set(connection, fresh, {}, at, "what trials still show")
    return fresh, reached + _measured_along(connection, before, fresh, at)


def _measured_along(connection: Connection, before: Kept, after: Kept, at: str) -> list[Kept]:
    """Other rigs with the same parts, where what was measured or struck out here counts too."""
    if before.present.trials == after.present.trials:
        return []
    ids = {
        use.rig_id
        for part in after.parts.values()
        if part.kind != "archer"
        for use in rack.uses(connection, part.mark, now_only=True)
    }
    reached = []
    for id in sorted(ids - {after.id}):
        kept = _present(connection, id)
        if isinstance(kept, Kept) and untrue(kept.present.rig, kept.known):
            why = f"measured on {after.present.rig.name}"
            reached.append(_set(connection, kept, {}, at, why))
    return reached


def refreshed(connection: Connection, id: int, at: str) -> Kept:
    """A rig that has just come in, with its parts' settings as they are here."""
    kept = present(connection, id)
    assert isinstance(kept, Kept)
    stale: dict[str, Any] = {}
    for slot, part in kept.parts.items():
        stale |= differing(kept.present.rig, slot, part.part)
    if not stale and not untrue(kept.present.rig, kept.known):
        return kept
    return _set(connection, kept, stale, at, "as it is known here")


def spread(
    connection: Connection,
    part: rack.KeptPart,
    changes: Sequence[Change],
    at: str,
    why: str,
    origin: int | None,
) -> list[Kept]:
    """Set a part's changes on every rig that has it on, but the one they come from."""
    reached = []
    for use in rack.uses(connection, part.mark, now_only=True):
        if use.rig_id == origin:
            continue
        kept = _present(connection, use.rig_id)
        if not isinstance(kept, Kept):
            continue  # what cannot be read is left as it is
        wanted = on_rig(use.slot, changes)
        if wanted and changes_between(kept.present.rig, wanted):
            reached.append(_set(connection, kept, wanted, at, why))
    return reached


def on_rig(slot: Slot, changes: Iterable[Change]) -> dict[str, Any]:
    """A part's changes as those of the rig in whose slot it is."""
    told = {c.path: c.after for c in changes}
    return {path: told[place] for path, place in OWNED[slot].items() if place in told}


def _set(connection: Connection, kept: Kept, wanted: dict[str, Any], at: str, why: str) -> Kept:
    if kept.seq >= MOST_ENTRIES:
        raise RefusedError(
            "seq",
            f"This part is on {kept.present.rig.name}, whose history is full: copy that rig, and "
            "put another part on the full one.",
            MOST_ENTRIES,
        )
    rig = changed(kept.present.rig, wanted)
    changes = changes_between(kept.present.rig, wanted | untrue(rig, kept.known))
    entry = Entry(seq=kept.seq + 1, kind="adjust", at=at, why=why[:500], changes=changes)
    follow(connection, kept, entry)
    after = present(connection, kept.id)
    assert isinstance(after, Kept)
    # Limbs share a bow's settings: what one brought is now the other's too.
    for slot, part in after.parts.items():
        own = belonging(slot, {c.path: c.after for c in changes})
        if own:
            rack.write(connection, part.mark, own, at, why, kept.id)
    fresh = present(connection, kept.id)
    assert isinstance(fresh, Kept)
    return fresh


def _present(connection: Connection, id: int) -> Kept | Unreadable | None:
    try:
        return present(connection, id)
    except Stale:
        make_anew(connection, id)
        return present(connection, id)


def made_anew(connection: Connection, id: int, at: str) -> None:
    """Derive everything of a rig again; what no longer holds as measured is not shown so."""
    make_anew(connection, id)
    kept = present(connection, id)
    if isinstance(kept, Kept):
        refreshed(connection, id, at)
