"""What follows from a history and is kept beside it, brought up to one more entry or made anew.

fates         what became of each entry under undo and redo
trials        as they stand: put right, struck out, and what the rig was set to then
checkpoints   the rig and its marks every so many entries that stand
snapshot      the rig and its marks now, and its line in the list
"""

from __future__ import annotations

import json
import logging
import uuid
from collections.abc import Iterable, Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError
from sqlalchemy import (
    Connection,
    Text,
    bindparam,
    delete,
    func,
    insert,
    or_,
    select,
    type_coerce,
    update,
)

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import is_on
from lyrandis.core.history import Entry, Fates, State, after, fates, given, log_trial
from lyrandis.core.parts import On, Rig
from lyrandis.core.summary import Summary, summary
from lyrandis.core.trials import KeptTrial, implied_by, implied_number, trials_in
from lyrandis.store import rack
from lyrandis.store.kept import ENTRY_COLUMNS, Kept, entry_of, name_of, where
from lyrandis.store.tables import (
    CheckpointRow,
    EntryRow,
    RigPartRow,
    RigRow,
    SnapshotRow,
    TrialRow,
)
from lyrandis.store.texts import base_of, rig_with, settings_text, state_of, state_text, trial_of

log = logging.getLogger("lyrandis")

MADE_BY = 3  # raise it when what is derived changes its meaning: every snapshot is made anew
CHECKPOINT_EVERY = 64  # entries; a step back replays at most as many
ROWS_AT_ONCE = 500
ENTRY = select(*(getattr(EntryRow, name) for name in (*ENTRY_COLUMNS, "form")))
BASE = select(RigRow.created_at, RigRow.form, type_coerce(RigRow.base, Text).label("base"))


def read_entry(row: Any) -> Entry:
    """An entry of a row of `ENTRY`."""
    *columns, form = row
    return entry_of(dict(zip(ENTRY_COLUMNS, columns, strict=True)), form)


def numbered(connection: Connection, id: int, seqs: set[int]) -> dict[int, Entry]:
    """Entries of a rig by their numbers; a trial that no entry logged stands for its own."""
    if not seqs:
        return {}
    rows = connection.execute(ENTRY.where(EntryRow.rig_id == id, EntryRow.seq.in_(seqs)))
    found = {row.seq: read_entry(row) for row in rows}
    implied = TrialRow.rig_id == id, TrialRow.seq < 0, TrialRow.seq.in_(seqs)
    for row in connection.execute(
        select(TrialRow.seq, TrialRow.at, TrialRow.trial).where(*implied)
    ):
        found[row.seq] = Entry.model_construct(
            seq=row.seq, kind="trial", at=row.at, trial=trial_of(row.trial)
        )
    return found


@dataclass(frozen=True)
class Read:
    """What a history that can be read comes to."""

    base: Rig
    state: State
    summary: Summary
    checkpoints: tuple[tuple[int, State], ...]
    trials: tuple[KeptTrial, ...]
    put_on: tuple[tuple[On, str], ...]  # the parts on it as it began and each time they changed


@dataclass(frozen=True)
class Derived:
    """All that follows from a history: what became of its entries, and what it comes to.

    read : why not, where it cannot be read
    """

    fates: Fates
    seqs: tuple[int, ...]
    read: Read | RefusedError


def _on_after(
    on: On, entry: Entry, acts_on: Mapping[int, int], swaps: dict[int, tuple[On, On]]
) -> On:
    """The parts on a rig after an entry, whether it was taken back later or not.

    swaps : by the number of each entry that changed them, what was on before it and after
    """
    acted = acts_on.get(entry.seq)
    if acted is not None:
        before, after_it = swaps.get(acted, (on, on))
        return before if entry.kind == "undo" else after_it
    named = {c.path.removeprefix("on."): c.after for c in entry.changes if is_on(c.path)}
    if named:
        with suppress(ValidationError):  # where it stands it is refused as the rest of it is read
            swaps[entry.seq] = on, On.model_validate(on.model_dump() | named)
    return swaps.get(entry.seq, (on, on))[1]


def derive(
    began: tuple[str, int] | Rig,
    heads: Iterable[tuple[int, str]],
    entries: Iterable[Entry],
    made_at: str,
) -> Derived:
    """Follow a whole history.

    Parameters
    ----------
    began : what the rig began as, or its text and form
    heads : number and kind of each entry, in order
    entries : the same entries; those that do not stand are passed over
    """
    listed = list(heads)
    found = fates(kind for _, kind in listed)
    seqs = tuple(seq for seq, _ in listed)
    acts_on = {seqs[place]: seqs[on] for place, on in found.acts_on.items()}
    stands = {seqs[place] for place in found.places("stands")}
    checkpoints: list[tuple[int, State]] = []
    latest = 0
    try:
        base = began if isinstance(began, Rig) else base_of(*began)
        state = State(base)
        trials = given(base, made_at)
        put_on = [(base.on, made_at)]
        swaps: dict[int, tuple[On, On]] = {}
        for entry in entries:
            on = _on_after(put_on[-1][0], entry, acts_on, swaps)
            if on != put_on[-1][0]:
                put_on.append((on, entry.at))
            if entry.seq not in stands:
                continue
            state = after(state, entry)
            log_trial(trials, entry, state.rig)
            if entry.seq - latest >= CHECKPOINT_EVERY:
                latest = entry.seq
                checkpoints.append((latest, state))
        read = Read(
            base, state, summary(state), tuple(checkpoints), tuple(trials.values()), tuple(put_on)
        )
    except RefusedError as refusal:
        return Derived(found, seqs, refusal)
    except Exception as error:  # one rig never hides another
        mark = uuid.uuid4().hex[:8]
        log.exception("a rig that could not be read %s", mark, exc_info=error)
        fault = RefusedError("rig", f"it cannot be shown; fault {mark} is in the server's log.")
        return Derived(found, seqs, fault)
    return Derived(found, seqs, read)


def kept_trial(row: Any, base: str, form: int, other: int | None = None) -> KeptTrial:
    """A trial of its row; `other` names the rig where it is not one's own."""
    _, seq, _, at, _, struck, trial, made_with = row
    return KeptTrial(seq, at, trial_of(trial), rig_with(base, form, made_with), struck, other)


def _trial_row(id: int, base: Rig, kept: KeptTrial, made_with: str | None = None) -> dict[str, Any]:
    return {
        "rig_id": id,
        "seq": kept.seq,
        "kind": kept.trial.kind,
        "at": kept.at,
        "day": kept.day,
        "struck": kept.struck,
        "trial": kept.trial.model_dump_json(),
        "made_with": settings_text(base, kept.rig) if made_with is None else made_with,
    }


def _in_pieces(rows: Iterable[dict[str, Any]]) -> Iterator[list[dict[str, Any]]]:
    piece: list[dict[str, Any]] = []
    for row in rows:
        piece.append(row)
        if len(piece) == ROWS_AT_ONCE:
            yield piece
            piece = []
    if piece:
        yield piece


def _write_all(connection: Connection, statement: Any, rows: Iterable[dict[str, Any]]) -> None:
    for piece in _in_pieces(rows):
        connection.execute(statement, piece)


def _clear(connection: Connection, id: int) -> None:
    for table in (TrialRow, CheckpointRow, SnapshotRow, RigPartRow):
        connection.execute(delete(table).where(table.rig_id == id))
    other = or_(EntryRow.fate != "stands", EntryRow.acts_on.is_not(None))
    connection.execute(
        update(EntryRow).where(EntryRow.rig_id == id, other).values(fate="stands", acts_on=None)
    )


_SET_FATE = (
    update(EntryRow.__table__)  # type: ignore[arg-type]
    .where(EntryRow.rig_id == bindparam("of"), EntryRow.seq == bindparam("number"))
    .values(fate=bindparam("now"), acts_on=bindparam("on"))
)


def write(connection: Connection, id: int, made: Derived, changed_at: str) -> None:
    """Write all that follows from a rig's history, in the place of what was there."""
    _clear(connection, id)
    acts_on = {place: made.seqs[on] for place, on in made.fates.acts_on.items()}
    others = (
        {"of": id, "number": made.seqs[place], "now": fate, "on": acts_on.get(place)}
        for place, fate in enumerate(made.fates.fate)
        if fate != "stands"
    )
    _write_all(connection, _SET_FATE, others)
    snapshot = {
        "rig_id": id,
        "made_by": MADE_BY,
        "seq": made.seqs[-1] if made.seqs else 0,
        "changed_at": changed_at,
        "state": None,
        "summary": None,
        "fault": None,
    }
    read = made.read
    if isinstance(read, RefusedError):
        snapshot["fault"] = json.dumps([read.field, read.reason])
    else:
        trials = (_trial_row(id, read.base, kept) for kept in read.trials)
        _write_all(connection, insert(TrialRow), trials)
        along = (
            {"rig_id": id, "seq": seq, "state": state_text(read.base, state)}
            for seq, state in read.checkpoints
        )
        _write_all(connection, insert(CheckpointRow), along)
        for on, at in read.put_on:
            rack.note_uses(connection, id, on, at)
        snapshot["state"] = state_text(read.base, read.state)
        snapshot["summary"] = read.summary.model_dump_json()
    connection.execute(insert(SnapshotRow), snapshot)


def _derived(connection: Connection, id: int) -> tuple[Derived, str]:
    """What follows from a rig's entries, and when it was changed last."""
    row = connection.execute(BASE.where(RigRow.id == id)).one()
    mine = EntryRow.rig_id == id
    heads = connection.execute(
        select(EntryRow.seq, EntryRow.kind, EntryRow.at).where(mine).order_by(EntryRow.seq)
    ).all()
    rows = connection.execute(ENTRY.where(mine).order_by(EntryRow.seq)).yield_per(ROWS_AT_ONCE)
    numbered_heads = [(h.seq, h.kind) for h in heads]
    made = derive((row.base, row.form), numbered_heads, map(read_entry, rows), row.created_at)
    return made, heads[-1].at if heads else row.created_at


def make_anew(connection: Connection, id: int) -> None:
    """Derive everything of a rig from its entries again; what cannot be read is told so.

    A rig of a version that knew no parts is given them first.
    """
    made, changed_at = _derived(connection, id)
    read = made.read
    if isinstance(read, Read) and rack.unknown_slots(connection, read.state.rig):
        _adopt(connection, id, read)
        made, changed_at = _derived(connection, id)
    write(connection, id, made, changed_at)


def _adopt(connection: Connection, id: int, read: Read) -> None:
    """Make parts of what a rig says, as those it began with."""
    row = connection.execute(BASE.where(RigRow.id == id)).one()
    on = rack.filled(
        connection, read.base, read.state.rig, row.created_at, rack.random_mark, as_named=True
    )
    base = json.loads(row.base) | {"on": on.model_dump(mode="json")}
    connection.execute(update(RigRow).where(RigRow.id == id).values(base=base))


def unlike_their_history(connection: Connection) -> Iterator[tuple[str, str]]:
    """Read every rig's whole history: the name of each with something wrong, and what."""
    asked = select(
        RigRow.id, RigRow.form, type_coerce(RigRow.base, Text).label("base"),
        SnapshotRow.made_by, SnapshotRow.seq, SnapshotRow.state,
    ).outerjoin(SnapshotRow, SnapshotRow.rig_id == RigRow.id)  # fmt: skip
    for row in connection.execute(asked.order_by(RigRow.id)).all():
        made, _ = _derived(connection, row.id)
        read = made.read
        if isinstance(read, RefusedError):
            yield name_of(row.base, row.id), where(read.field, read.reason)
            continue
        name = read.state.rig.name
        if made.seqs and made.seqs[-1] != len(made.seqs):
            yield name, "an entry of its history is missing"
        current = row.made_by == MADE_BY and row.seq == (made.seqs[-1] if made.seqs else 0)
        stands = connection.execute(
            select(TrialRow).where(TrialRow.rig_id == row.id).order_by(TrialRow.seq)
        )
        shown = row.state, [dict(trial._mapping) for trial in stands]
        trials = sorted(read.trials, key=lambda t: t.seq)
        told = (
            state_text(read.base, read.state),
            [_trial_row(row.id, read.base, trial) for trial in trials],
        )
        if current and shown != told:
            yield (
                name,
                (
                    "what is shown of it is not what its history says; "
                    "take out its file and take that in as a new rig"
                ),
            )


def _state_at(connection: Connection, kept: Kept, began: tuple[str, int], seq: int) -> State:
    """The rig after all entries that stand up to a number (0: as it began)."""
    mine = CheckpointRow.rig_id == kept.id, CheckpointRow.seq <= seq
    near = connection.execute(
        select(CheckpointRow.seq, CheckpointRow.state)
        .where(*mine)
        .order_by(CheckpointRow.seq.desc())
        .limit(1)
    ).one_or_none()
    start, state = (0, State(kept.base)) if near is None else (near[0], state_of(*began, near[1]))
    rows = connection.execute(
        ENTRY.where(
            EntryRow.rig_id == kept.id,
            EntryRow.fate == "stands",
            EntryRow.seq > start,
            EntryRow.seq <= seq,
        ).order_by(EntryRow.seq)
    )
    for row in rows:
        state = after(state, read_entry(row))
    return state


def _log(
    connection: Connection, id: int, base: Rig, began: tuple[str, int], entry: Entry, rig: Rig
) -> None:
    """Take in what an entry that now stands says of a trial; raises RefusedError."""
    trials: dict[int, KeptTrial] = {}
    made_with: str | None = None
    mine = TrialRow.rig_id == id, TrialRow.seq == entry.about
    row = connection.execute(select(TrialRow).where(*mine)).one_or_none()
    if row is not None:
        made_with = row.made_with
        trials[row.seq] = kept_trial(row, *began)
    log_trial(trials, entry, rig)
    if row is not None:
        connection.execute(delete(TrialRow).where(*mine))
    for trial in trials.values():
        connection.execute(insert(TrialRow), _trial_row(id, base, trial, made_with))


def _unlog(
    connection: Connection,
    id: int,
    base: Rig,
    began: tuple[str, int],
    number: int,
    made_at: str,
) -> None:
    """A trial as the entries that still stand make it; none where its own was taken back."""
    mine = TrialRow.rig_id == id, TrialRow.seq == number
    made_with = connection.execute(select(TrialRow.made_with).where(*mine)).scalar()
    connection.execute(delete(TrialRow).where(*mine))
    origin = number if number > 0 else implied_by(number)
    about = or_(EntryRow.seq == origin, EntryRow.about == number)
    stands = EntryRow.rig_id == id, EntryRow.fate == "stands", about
    rows = connection.execute(ENTRY.where(*stands).order_by(EntryRow.seq)).all()
    if made_with is None or (origin > 0 and (not rows or rows[0].seq != origin)):
        return
    trials = given(base, made_at) if origin == 0 else {}
    for row in rows:
        log_trial(trials, read_entry(row), rig_with(*began, made_with))
    connection.execute(insert(TrialRow), _trial_row(id, base, trials[number], made_with))


def _told_of(entry: Entry) -> list[int]:
    """The numbers of the trials that an entry logs, or is about."""
    if entry.about is not None:
        return [entry.about]
    logged = [] if entry.trial is None else [entry.seq]
    if entry.implied:
        set_then = {change.path: change.after for change in entry.changes}
        logged += [implied_number(entry.seq, path) for path, _ in trials_in(set_then)]
    return logged


def follow(connection: Connection, kept: Kept, entry: Entry) -> None:
    """Write one more entry and bring what follows from the history up to it.

    Parameters
    ----------
    kept : the rig right before the entry

    Raises
    ------
    RefusedError : no rig can take the entry.
    """
    id = kept.id
    row = connection.execute(BASE.where(RigRow.id == id)).one()
    began = (row.base, row.form)
    mine = EntryRow.rig_id == id
    acted: Entry | None = {"undo": kept.present.undoable, "redo": kept.present.redoable}.get(
        entry.kind
    )
    document = entry.model_dump(mode="json") | {"rig_id": id, "fate": "stands", "acts_on": None}
    if acted is not None:
        document |= {"fate": "act", "acts_on": acted.seq}
        fate = "taken_back" if entry.kind == "undo" else "stands"
        connection.execute(
            update(EntryRow).where(mine, EntryRow.seq == acted.seq).values(fate=fate)
        )
    else:
        # What was taken back can no longer be done again, and no step back leads there.
        before = 0 if kept.present.undoable is None else kept.present.undoable.seq
        gone = CheckpointRow.rig_id == id, CheckpointRow.seq > before
        connection.execute(delete(CheckpointRow).where(*gone))
        taken = mine, EntryRow.fate == "taken_back"
        connection.execute(update(EntryRow).where(*taken).values(fate="gone"))
    connection.execute(insert(EntryRow), document)
    if acted is not None and entry.kind == "undo":
        state = _state_at(connection, kept, began, acted.seq - 1)
        for number in _told_of(acted):
            _unlog(connection, id, kept.base, began, number, row.created_at)
        _snap(connection, kept, entry, state, None)
    else:
        top = acted or entry
        state = after(State(kept.present.rig, kept.present.marks), top)
        _log(connection, id, kept.base, began, top, state.rig)
        _snap(connection, kept, entry, state, top.seq)


def _snap(connection: Connection, kept: Kept, entry: Entry, state: State, top: int | None) -> None:
    """Write the snapshot after an entry, and a checkpoint after `top` where one is due."""
    text = state_text(kept.base, state)
    of = kept.id
    if state.rig.on != kept.present.rig.on:
        rack.note_uses(connection, of, state.rig.on, entry.at)
    connection.execute(
        update(SnapshotRow)
        .where(SnapshotRow.rig_id == of)
        .values(
            seq=entry.seq,
            changed_at=entry.at,
            state=text,
            summary=summary(state).model_dump_json(),
        )
    )
    if top is None:  # a step back
        return
    latest = connection.execute(
        select(func.max(CheckpointRow.seq)).where(CheckpointRow.rig_id == of)
    ).scalar()
    if top - (latest or 0) >= CHECKPOINT_EVERY:
        connection.execute(insert(CheckpointRow), {"rig_id": of, "seq": top, "state": text})
