"""Invitations: what lets one more device in, once, within ten minutes of being made."""

from __future__ import annotations

import hmac
import secrets
import threading
import time
from dataclasses import dataclass

# Without those that are read as one another.
_SIGNS = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"
_LENGTH = 10  # 50 bits: with the brake on guesses, more than ten minutes can try
LASTS_S = 600.0
MOST_OPEN = 20


@dataclass(frozen=True)
class Invitation:
    """What is typed or scanned, and how long it still lasts."""

    code: str
    lasts_s: float


class Invitations:
    """Those that are open, in this server's memory only."""

    def __init__(self) -> None:
        self._open: dict[str, float] = {}
        self._alone = threading.Lock()

    def make(self) -> Invitation:
        """A new one."""
        code = "".join(secrets.choice(_SIGNS) for _ in range(_LENGTH))
        with self._alone:
            self._sweep()
            if len(self._open) >= MOST_OPEN:
                self._open.pop(next(iter(self._open)))
            self._open[code] = time.monotonic() + LASTS_S
        return Invitation(code, LASTS_S)

    def take(self, shown: str) -> bool:
        """Use one up; whether it was open. Case, spaces and hyphens count for nothing."""
        bare = shown.replace("-", "").replace(" ", "").upper().encode("utf-8", "replace")
        with self._alone:
            self._sweep()
            found = [code for code in self._open if hmac.compare_digest(code.encode(), bare)]
            for code in found:
                del self._open[code]
            return bool(found)

    def _sweep(self) -> None:
        now = time.monotonic()
        for code in [code for code, until in self._open.items() if until <= now]:
            del self._open[code]
