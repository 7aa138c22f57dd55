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


class OtherDataError(RuntimeError):
    """Another entry stands under the number that was named, or none: the data is not the same."""

    def __init__(self) -> None:
        super().__init__(
            "The data here is not the one that this was made on: it was put back to an earlier "
            "state, or is another folder's. Nothing was written. Look at it as it stands now, and "
            "log this anew if it is still true."
        )


class NothingError(RuntimeError):
    """There is nothing to undo or to do again."""
