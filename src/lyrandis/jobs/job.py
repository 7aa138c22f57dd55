"""One piece of long work: where it stands, what it told on its way, what came of it."""

from __future__ import annotations

import threading
from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass, field
from typing import Any, Literal, Protocol

State = Literal["waiting", "running", "done", "failed", "stopped"]
_LEAST_STEP = 0.01  # of the whole: progress is told no finer, however often the work looks up


class StoppedError(Exception):
    """The work was asked to stop."""


class Tell(Protocol):
    """What a piece of work calls often: it tells how far it is, and raises StoppedError."""

    def __call__(self, share: float | None = None, live: Any = None) -> None:
        """Tell a share of the whole (0 to 1; None: unknown), and something to show at once."""


Work = Callable[[Tell], Any]


@dataclass(frozen=True)
class Told:
    """Something told on the way: how far the work is, and what there is to show of it."""

    share: float | None
    live: Any = None


@dataclass
class Job:
    """A piece of work and what became of it; read from any thread.

    work : None once it is over: what it held (a file) is let go
    askers : how many asked for it; it is stopped when none of them wants it any more
    told : all that was told so far, in order
    """

    id: int
    kind: str
    work: Work | None
    askers: int = 1
    told: list[Told] = field(default_factory=list)
    state: State = "waiting"
    result: Any = None
    error: Exception | None = None
    future: Future[None] | None = None
    _stop: threading.Event = field(default_factory=threading.Event)

    @property
    def over(self) -> bool:
        """Whether nothing more will come."""
        return self.state in ("done", "failed", "stopped")

    @property
    def stopping(self) -> bool:
        """Whether it was asked to end."""
        return self._stop.is_set()

    def leave(self) -> None:
        """One of those who asked for it no longer wants it; without any it is stopped."""
        self.askers -= 1
        if self.askers <= 0:
            self.stop()

    def stop(self) -> None:
        """Ask it to end; what it has not begun it will not begin."""
        self._stop.set()
        if self.future is not None and self.future.cancel():
            self.state, self.work = "stopped", None

    def _tell(self, share: float | None = None, live: Any = None) -> None:
        if self._stop.is_set():
            raise StoppedError
        last = self.told[-1].share if self.told else None
        moved = share is not None and (last is None or share - last >= _LEAST_STEP)
        if live is not None or moved:
            self.told.append(Told(share, live))

    def run(self) -> None:
        """Do the work here and now; never raises."""
        work, self.work = self.work, None
        try:
            self._tell()
            self.state = "running"
            result = None if work is None else work(self._tell)
        except StoppedError:
            self.state = "stopped"
        except Exception as error:  # handed to whoever asks
            self.error = error
            self.state = "failed"
        else:
            self.result = result
            self.state = "done"
