"""The devices that are let in, by the digest of what their cookie says: nobody reads that here."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass

from sqlalchemy import Engine, insert, select, update
from sqlalchemy.exc import OperationalError

from lyrandis.core.dates import instant
from lyrandis.store.database import writing
from lyrandis.store.errors import MissingError
from lyrandis.store.tables import DeviceRow

SECRET_BYTES = 32
SEEN_EVERY_S = 600.0  # a device's last visit is noted this often


@dataclass(frozen=True)
class Device:
    """A device that was let in; gone_at : when it was signed out."""

    id: int
    name: str
    made_at: str
    seen_at: str
    gone_at: str | None


_DEVICE = select(
    DeviceRow.id, DeviceRow.name, DeviceRow.made_at, DeviceRow.seen_at, DeviceRow.gone_at
)


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode("utf-8", "replace")).hexdigest()


class Devices:
    """The devices of one data folder.

    Parameters
    ----------
    engine : gives the database as it is open
    now : the present time, ISO 8601 in UTC
    """

    def __init__(self, engine: Callable[[], Engine], now: Callable[[], str]) -> None:
        self.engine = engine
        self.now = now

    def let_in(self, name: str) -> str:
        """Let a new device in; what its cookie is to say."""
        secret, at = secrets.token_urlsafe(SECRET_BYTES), self.now()
        with writing(self.engine()) as connection:
            connection.execute(
                insert(DeviceRow).values(digest=_digest(secret), name=name, made_at=at, seen_at=at)
            )
        return secret

    def of(self, secret: str) -> Device | None:
        """The device that a cookie was given to, signed out or not; notes that it was here."""
        with self.engine().connect() as connection:
            row = connection.execute(
                _DEVICE.where(DeviceRow.digest == _digest(secret))
            ).one_or_none()
        if row is None:
            return None
        device = Device(*row)
        now = self.now()
        away_s = instant(now) - instant(device.seen_at)
        if device.gone_at is None and away_s > SEEN_EVERY_S:
            # Who is in reads on where nothing can be written just now.
            with suppress(OperationalError, MissingError):
                self._set(device.id, seen_at=now)
        return device

    def all(self) -> list[Device]:
        """Those that are let in, the latest seen first."""
        with self.engine().connect() as connection:
            rows = connection.execute(
                _DEVICE.where(DeviceRow.gone_at.is_(None)).order_by(
                    DeviceRow.seen_at.desc(), DeviceRow.id.desc()
                )
            )
            return [Device(*row) for row in rows]

    def rename(self, id: int, name: str) -> None:
        """Call a device otherwise; raises MissingError."""
        self._set(id, name=name)

    def sign_out(self, id: int) -> None:
        """Let a device in no more; raises MissingError. Its digest is kept, to know it by."""
        self._set(id, gone_at=self.now())

    def _set(self, id: int, **values: str) -> None:
        with writing(self.engine()) as connection:
            mine = DeviceRow.id == id, DeviceRow.gone_at.is_(None)
            if connection.execute(update(DeviceRow).where(*mine).values(**values)).rowcount == 0:
                raise MissingError("No such device is let in.")
