"""Answers kept by the key that their request was sent with: sent again, it is answered alike.

    asked with a key       → known: the answer it had, or that it was lost
                           → new: done; its first transaction notes the key, then the answer is kept

An answer that is lost on its way, or with the server, leaves the sender not knowing. The key is
noted in the transaction of what is written, so that nothing is written twice.
"""

from __future__ import annotations

import zlib
from dataclasses import dataclass

from sqlalchemy import Connection, Engine, delete, insert, select, update

from lyrandis.core.dates import later
from lyrandis.store.database import writing
from lyrandis.store.tables import AnswerRow

KEPT_DAYS = 30


@dataclass(frozen=True)
class Known:
    """What is known of a key: the request it was sent with, and its answer.

    status : None where the server ended before it was kept
    """

    request: str
    status: int | None
    kind: str
    body: bytes


def known(engine: Engine, key: str) -> Known | None:
    """What a key was answered; None where it is new."""
    with engine.connect() as connection:
        row = connection.execute(select(AnswerRow.__table__).where(AnswerRow.key == key)).first()
    if row is None:
        return None
    body = b"" if row.body is None else zlib.decompress(row.body)
    return Known(row.request, row.status, row.kind or "application/json", body)


class Noting:
    """Notes a key in the first transaction that is written for its request.

    Parameters
    ----------
    at : the time of the request, ISO 8601; what was kept a month before goes
    """

    def __init__(self, key: str, request: str, at: str) -> None:
        self.row = {"key": key, "request": request, "at": at}
        self.noted = False

    def __call__(self, connection: Connection) -> None:
        """Write the note, once; raises IntegrityError where another server noted it first."""
        if self.noted:
            return
        self.noted = True
        before = later(self.row["at"], days=-KEPT_DAYS)
        connection.execute(delete(AnswerRow).where(AnswerRow.at < before))
        connection.execute(insert(AnswerRow).values(**self.row))


def keep(engine: Engine, noting: Noting, status: int, kind: str, body: bytes) -> None:
    """Keep the answer of a request whose key is noted, or note both."""
    with writing(engine) as connection:
        noting(connection)
        answer = {"status": status, "kind": kind, "body": zlib.compress(body)}
        mine = AnswerRow.key == noting.row["key"]
        connection.execute(update(AnswerRow).where(mine).values(**answer))
