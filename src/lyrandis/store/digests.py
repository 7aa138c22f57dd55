"""What tells an entry from another one of the same number: of other data, or put back since.

A number alone names an entry only as long as the data is the same. Whoever names one carries its
digest, and is refused where another stands under that number.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterable
from typing import Any

from sqlalchemy import Connection, select

from lyrandis.core.trials import implied_by
from lyrandis.store.errors import OtherDataError
from lyrandis.store.loose import plain
from lyrandis.store.tables import EntryRow, PartEntryRow, PartRow, RigRow

_ENTRY = select(EntryRow.seq, EntryRow.kind, EntryRow.at, EntryRow.changes, EntryRow.trial)


def digest(owner: str, seq: int, kind: str, at: str, changes: Any, trial: Any) -> str:
    """The digest of an entry: 32 hexadecimal signs of its SHA-256.

    Parameters
    ----------
    owner : the uid of its rig, or the mark of its part
    changes, trial : plain JSON, as they are kept
    """
    said = json.dumps([owner, seq, kind, at, changes, trial], sort_keys=True)
    return hashlib.sha256(said.encode()).hexdigest()[:32]


def began(owner: str, at: str) -> str:
    """The digest of a beginning, which is numbered 0."""
    return digest(owner, 0, "began", at, [], None)


def of_rig(connection: Connection, id: int, seqs: Iterable[int]) -> dict[int, str]:
    """Digests of a rig's entries by the numbers asked for; those that it has not are left out.

    A trial that no entry logged (its number is negative) goes by the entry that it follows from.
    """
    rig = connection.execute(
        select(RigRow.uid, RigRow.created_at).where(RigRow.id == id)
    ).one_or_none()
    if rig is None:
        return {}
    entry = {seq: seq if seq >= 0 else implied_by(seq) for seq in seqs}
    asked = _ENTRY.where(EntryRow.rig_id == id, EntryRow.seq.in_(set(entry.values())))
    found = {
        row.seq: digest(rig.uid, row.seq, row.kind, row.at, plain(row.changes), plain(row.trial))
        for row in connection.execute(asked)
    }
    found[0] = began(rig.uid, rig.created_at)
    return {seq: found[of] for seq, of in entry.items() if of in found}


def _of_lines(connection: Connection, seq: Any, *where: Any) -> dict[str, str]:
    line = (PartEntryRow.mark == PartRow.mark) & (PartEntryRow.seq == seq)
    asked = select(
        PartRow.mark, PartRow.created_at,
        PartEntryRow.seq, PartEntryRow.kind, PartEntryRow.at, PartEntryRow.changes,
    ).outerjoin(PartEntryRow, line)  # fmt: skip
    return {
        row.mark: began(row.mark, row.created_at)
        if row.seq is None
        else digest(row.mark, row.seq, row.kind, row.at, plain(row.changes), None)
        for row in connection.execute(asked.where(*where))
    }


def latest_of_parts(connection: Connection) -> dict[str, str]:
    """By its mark, the digest of the latest line of each part's story."""
    return _of_lines(connection, PartRow.seq)


def of_part(connection: Connection, mark: str, seq: int) -> str | None:
    """The digest of a line of a part's story; None where it has none of that number."""
    if seq == 0:
        return _of_lines(connection, 0, PartRow.mark == mark).get(mark)
    return _of_lines(connection, seq, PartRow.mark == mark, PartEntryRow.seq == seq).get(mark)


def named(id: int, entries: Iterable[tuple[int, str | None]]) -> Callable[[Connection], None]:
    """What refuses to go on where a rig's entries are not those that were meant.

    Parameters
    ----------
    entries : number and digest of each entry that is named; None where its sender knows no digest
    """
    known = {(seq, told) for seq, told in entries if told is not None}

    def refuse_others(connection: Connection) -> None:
        if known and not known <= of_rig(connection, id, [seq for seq, _ in known]).items():
            raise OtherDataError

    return refuse_others


def named_line(mark: str, seq: int, told: str | None) -> Callable[[Connection], None]:
    """The same of a line of a part's story."""

    def refuse_others(connection: Connection) -> None:
        if told is not None and of_part(connection, mark, seq) != told:
            raise OtherDataError

    return refuse_others
