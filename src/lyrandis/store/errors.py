"""Why the store does not do what it is asked."""

from __future__ import annotations

from lyrandis.store.kept import Unreadable


class MissingError(LookupError):
    """No rig has that number, or no part that mark."""


class UnreadableError(LookupError):
    """The rig is there, and this version cannot read it."""

    def __init__(self, rig: Unreadable) -> None:
        super().__init__(rig.reason)
        self.rig = rig


class ConflictError(RuntimeError):
    """Someone else kept a change meanwhile."""


class NothingError(RuntimeError):
    """There is nothing to undo or to do again."""
