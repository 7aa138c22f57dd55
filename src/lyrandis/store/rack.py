"""Parts kept once: read, made, changed, and every rig that has one brought along.

A part's settings stand in the part and, copied at the moment of each change, in the history of
each rig it is on: so a rig's history alone gives what it was on any day. Both are written in one
transaction; `unlike_their_rigs` looks whether they agree.
"""

from __future__ import annotations

import json
import uuid
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import Connection, Text, insert, select, type_coerce, update

from lyrandis.core import upcast
from lyrandis.core.fields import part_changed, part_value, refused
from lyrandis.core.history import Change, Fates, fates, plain_value
from lyrandis.core.parts import On, Part, PartKind, Rig, Slot, part_of, slots_of
from lyrandis.store.loose import plain
from lyrandis.store.tables import EntryRow, PartEntryRow, PartRow, RigPartRow, RigRow

_PART: TypeAdapter[Part] = TypeAdapter(Part)
NewMark = Callable[[], str]


def random_mark() -> str:
    """A mark that no other part has."""
    return uuid.uuid4().hex


@dataclass(frozen=True)
class KeptPart:
    """A part as it is kept; `seq` numbers the latest line of its story."""

    mark: str
    kind: PartKind
    created_at: str
    seq: int
    part: Part


@dataclass(frozen=True)
class PartEntry:
    """One line of a part's story, and on which rig it was set (None: on the part itself)."""

    seq: int
    kind: str
    at: str
    why: str
    changes: tuple[Change, ...]
    rig_id: int | None


@dataclass(frozen=True)
class Use:
    """A part on a rig: in which slot, whether it is on now, and when it last was."""

    rig_id: int
    slot: Slot
    mark: str
    is_on: bool
    last_at: str


@lru_cache(maxsize=4096)
def _read(text: str, form: int, present: int) -> Part:
    """A part of its document; `present`: the form to which it is brought, part of what is kept."""
    try:
        if form == present:
            return _PART.validate_json(text)
        return _PART.validate_python(upcast.part_document(json.loads(text), form))
    except ValidationError as error:
        raise refused(error.errors()[0]) from None


_COLUMNS = select(
    PartRow.mark, PartRow.kind, PartRow.created_at, PartRow.seq, PartRow.present,
    PartRow.present_form,
)  # fmt: skip


def _kept(row: Any) -> KeptPart:
    read = _read(row.present, row.present_form, upcast.FORM)
    return KeptPart(row.mark, row.kind, row.created_at, row.seq, read)


def parts(connection: Connection, marks: Iterable[str] | None = None) -> dict[str, KeptPart]:
    """Parts by their marks, the oldest first; every part where no mark is named."""
    asked = _COLUMNS.order_by(PartRow.created_at, PartRow.mark)
    if marks is not None:
        asked = asked.where(PartRow.mark.in_(set(marks)))
    return {row.mark: _kept(row) for row in connection.execute(asked)}


def story(connection: Connection, mark: str) -> list[PartEntry]:
    """A part's story, in order."""
    rows = connection.execute(
        select(PartEntryRow).where(PartEntryRow.mark == mark).order_by(PartEntryRow.seq)
    )
    return [_line(row) for row in rows]


def _line(row: Any) -> PartEntry:
    told = {
        "seq": row.seq, "kind": row.kind, "at": row.at, "why": row.why,
        "changes": plain(row.changes),
    }  # fmt: skip
    told = upcast.story_document(told, row.form)
    changes = tuple(Change.model_validate(c) for c in told["changes"])
    return PartEntry(told["seq"], told["kind"], told["at"], told["why"], changes, row.rig_id)


def story_fates(entries: Iterable[PartEntry]) -> Fates:
    """What became of each line of a story under undo and redo."""
    return fates(entry.kind for entry in entries)


def base_of(connection: Connection, mark: str) -> Part:
    """What a part began as."""
    asked = select(PartRow.base, PartRow.form).where(PartRow.mark == mark)
    row = connection.execute(asked).one()
    return _read(row.base, row.form, upcast.FORM)


def make(connection: Connection, mark: str, part: Part, at: str) -> None:
    """Keep a new part."""
    text = part.model_dump_json()
    connection.execute(
        insert(PartRow).values(
            mark=mark, kind=part.kind, created_at=at, base=text, present=text, seq=0
        )
    )


def write(
    connection: Connection,
    mark: str,
    wanted: Mapping[str, Any],
    at: str,
    why: str = "",
    rig_id: int | None = None,
    kind: str = "adjust",
) -> tuple[KeptPart, tuple[Change, ...]]:
    """Change a part as one line of its story; the part after it, and what really changed.

    Raises
    ------
    RefusedError : an unknown setting or a value out of range.
    """
    kept = parts(connection, (mark,))[mark]  # as it is now: another rig may just have set it
    after = part_changed(kept.part, wanted)
    changes = tuple(
        Change(path=path, before=plain_value(old), after=plain_value(new))
        for path in wanted
        if (old := part_value(kept.part, path)) != (new := part_value(after, path))
    )
    if not changes and kind == "adjust":
        return kept, ()
    connection.execute(
        insert(PartEntryRow).values(
            mark=kept.mark,
            seq=kept.seq + 1,
            kind=kind,
            at=at,
            why=why,
            changes=[c.model_dump(mode="json") for c in changes],
            rig_id=rig_id,
        )
    )
    connection.execute(
        update(PartRow)
        .where(PartRow.mark == kept.mark)
        .values(present=after.model_dump_json(), present_form=upcast.FORM, seq=kept.seq + 1)
    )
    return KeptPart(kept.mark, kept.kind, kept.created_at, kept.seq + 1, after), changes


def uses(connection: Connection, mark: str | None = None, now_only: bool = False) -> list[Use]:
    """On which rigs a part (or every part) is or was, by rig."""
    asked = select(RigPartRow).order_by(RigPartRow.rig_id, RigPartRow.slot)
    if mark is not None:
        asked = asked.where(RigPartRow.mark == mark)
    if now_only:
        asked = asked.where(RigPartRow.is_on)
    return [Use(r.rig_id, r.slot, r.mark, r.is_on, r.last_at) for r in connection.execute(asked)]


def put_ons(connection: Connection, mark: str) -> list[tuple[str, int]]:
    """When a part was put on which rig: as the rig was made, or by an entry that stands."""
    by_entry = connection.execute(
        select(EntryRow.at, EntryRow.rig_id)
        .where(EntryRow.fate == "stands", type_coerce(EntryRow.parts, Text).contains(mark))
        .order_by(EntryRow.at)
    ).all()
    with_rig = connection.execute(
        select(RigRow.created_at, RigRow.id)
        .join(RigPartRow, RigPartRow.rig_id == RigRow.id)
        .where(RigPartRow.mark == mark, type_coerce(RigRow.base, Text).contains(mark))
        .distinct()
    ).all()
    return sorted((row[0], row[1]) for row in (*by_entry, *with_rig))


def note_uses(connection: Connection, rig_id: int, on: On, at: str) -> None:
    """Note which parts are on a rig from some time on."""
    mine = RigPartRow.rig_id == rig_id
    known = {(r.slot, r.mark): r.is_on for r in connection.execute(select(RigPartRow).where(mine))}
    filled = {(slot, mark) for slot, mark in on.slots().items()}
    for slot, mark in filled - known.keys():
        connection.execute(
            insert(RigPartRow).values(rig_id=rig_id, slot=slot, mark=mark, is_on=True, last_at=at)
        )
    for (slot, mark), was_on in known.items():
        is_on = (slot, mark) in filled
        if is_on or was_on:
            connection.execute(
                update(RigPartRow)
                .where(mine, RigPartRow.slot == slot, RigPartRow.mark == mark)
                .values(is_on=is_on, last_at=at)
            )


def _like(part: Part | None, wanted: Part) -> bool:
    """Whether a part that is kept is what a rig says of it, whatever else is known of it."""
    if part is None or part.kind != wanted.kind:
        return False
    if part.kind == "archer" and part.name != wanted.name:
        return False
    own = {"shafts", "which", "marked_riser_in", "cut_for"}
    return part.of.model_dump(exclude=own) == wanted.of.model_dump(exclude=own)


def filled(
    connection: Connection,
    base: Rig,
    present: Rig,
    at: str,
    new_mark: NewMark,
    as_named: bool = False,
) -> On:
    """The parts of a new rig: those it names and that are as it says, and new ones for the rest.

    Parameters
    ----------
    base : what the rig begins as
    present : what its history makes of it
    as_named : take a part that is known by its mark also where the rig says otherwise of it
    """
    named = parts(connection, base.on.slots().values())
    marks: dict[str, Any] = {}
    for slot in slots_of(present):
        mark = getattr(base.on, slot)
        wanted = part_of(present, slot)
        kept = named.get(mark)
        if kept is None or kept.kind != wanted.kind or not (as_named or _like(kept.part, wanted)):
            mark = mark if as_named and mark and kept is None else new_mark()
            make(connection, mark, wanted, at)
        marks[slot] = mark
    known = parts(connection, (*base.on.strings, *base.on.sets))
    along = {
        "strings": _with(marks["string"], (m for m in base.on.strings if m in known)),
        "sets": _with(marks["arrows"], (m for m in base.on.sets if m in known)),
    }
    return On(**marks, **along)


def _with(mark: str, along: Iterable[str]) -> tuple[str, ...]:
    return tuple(dict.fromkeys((*along, mark)))


def unknown_slots(connection: Connection, rig: Rig) -> tuple[Slot, ...]:
    """The slots of a rig for which no part is kept that is as the rig says."""
    known = parts(connection, rig.on.slots().values())
    return tuple(slot for slot in slots_of(rig) if getattr(rig.on, slot) not in known)


def faults(connection: Connection) -> Iterator[tuple[str, str]]:
    """Parts that are not what their story says: name and what is wrong."""
    for mark, kept in parts(connection).items():
        told = base_of(connection, mark)
        entries = story(connection, mark)
        for entry in entries:
            told = part_changed(told, {c.path: c.after for c in entry.changes})
        if told != kept.part or kept.seq != len(entries):
            yield kept.part.name, "what is shown of it is not what its story says"
