"""A rig as it is kept, or what is left to say of one that cannot be read."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, cast

from pydantic import ValidationError

from lyrandis.core.bench.drawn import Drawn
from lyrandis.core.fields import refused
from lyrandis.core.flight.held import NONE_TRIED, Held
from lyrandis.core.history import Entry, Kind, Replay, UnreadEntry
from lyrandis.core.parts import Rig, Slot
from lyrandis.core.summary import Summary
from lyrandis.core.trials import KeptTrial
from lyrandis.core.upcast import entry_document
from lyrandis.store.loose import Broken
from lyrandis.store.rack import KeptPart

ENTRY_COLUMNS = (
    "seq", "kind", "at", "station", "standing", "why", "changes", "trial", "about",
    "parts", "implied",
)  # fmt: skip


@dataclass(frozen=True)
class Kept:
    """A rig as it is kept: its beginning, and what its history comes to.

    uid : its own for good, in whatever folder it lies
    seq : number of the latest entry; 0 for a rig nothing was changed on
    changed_at : its time, or when the rig was made
    present : of its trials the latest of each kind (store.present.MOST_TRIALS), and
        every one on which somebody's safety rests
    spoken_of : by number, the entries of the trials that what can be taken back or done again
        is about
    parts : those on it, by slot
    elsewhere : trials of other rigs that had a part of this one on
    verdicts : how those of the flight reads on the archer's other rigs did
    drawn : how it stood before as far as its weight goes, where it has a plan to go up
    """

    id: int
    uid: str
    created_at: str
    archived_at: str | None
    base: Rig
    seq: int
    changed_at: str
    present: Replay
    spoken_of: dict[int, Entry]
    parts: dict[Slot, KeptPart]
    elsewhere: tuple[KeptTrial, ...] = ()
    verdicts: Held = NONE_TRIED
    drawn: tuple[Drawn, ...] = ()

    @property
    def known(self) -> tuple[KeptTrial, ...]:
        """Trials of this rig, and of others with its parts."""
        return (*self.present.trials, *self.elsewhere)


@dataclass(frozen=True)
class Unreadable:
    """A rig that this version cannot read: what is known of it, and why.

    undoable : whether an entry stands that can be taken back
    """

    id: int
    created_at: str
    archived_at: str | None
    name: str
    field: str
    reason: str
    seq: int
    undoable: bool

    @property
    def why(self) -> str:
        """Where it cannot be read, as people count, and why."""
        return where(self.field, self.reason)


def where(field: str, reason: str) -> str:
    """A reason with its place in a rig's history, as people count."""
    head, _, rest = field.partition(".")
    number = rest.partition(".")[0]
    if head == "entries" and number.isdigit():
        return f"entry {int(number) + 1}: {reason}"
    return f"its beginning: {reason}" if head == "base" else reason


def name_of(base: str, id: int) -> str:
    """What a rig was called at its beginning, as far as that can be read."""
    try:
        named = json.loads(base)["name"]
    except (ValueError, TypeError, LookupError, RecursionError):
        named = None
    return named[:80] if isinstance(named, str) and named.strip() else f"Rig {id}"


@dataclass(frozen=True)
class Listed:
    """A rig's line in the list, read without opening it."""

    id: int
    created_at: str
    archived_at: str | None
    seq: int
    changed_at: str
    undoable: bool
    summary: Summary


def entry_of(document: Mapping[str, Any], form: int) -> Entry:
    """An entry of its row's columns, or an UnreadEntry where the row cannot be read."""
    broken = next((v for v in document.values() if isinstance(v, Broken)), None)
    try:
        if broken is None:
            return Entry.model_validate(entry_document(dict(document), form))
        reason = broken.reason
    except ValidationError as error:
        reason = refused(error.errors()[0]).reason
    seq = int(document["seq"])
    return UnreadEntry.model_construct(
        seq=seq,
        kind=cast(Kind, document["kind"]),
        at=str(document["at"]),
        station=None,
        standing=None,
        why="",
        changes=(),
        trial=None,
        about=None,
        reason=f"Entry {seq} cannot be read: {reason}",
    )
