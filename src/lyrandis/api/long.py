"""Long computation: off the event loop, few at once, ended when nobody waits for it any more."""

from __future__ import annotations

import asyncio
import threading
import weakref
from collections.abc import Callable
from typing import TypeVar

from anyio import CapacityLimiter, to_thread
from fastapi import Request

T = TypeVar("T")
AT_ONCE = 2
_LOOK_EVERY_S = 0.2
_limiters: weakref.WeakKeyDictionary[asyncio.AbstractEventLoop, CapacityLimiter] = (
    weakref.WeakKeyDictionary()
)


class ClientGoneError(Exception):
    """Whoever asked has closed the connection."""


async def cancellable(request: Request, work: Callable[[Callable[[], None]], T]) -> T:
    """Run work in a thread; at most two at once, the others wait their turn.

    Parameters
    ----------
    work : is given a function that it calls often; that raises ClientGoneError once the client
        has gone

    Raises
    ------
    ClientGoneError : nobody is there to answer.
    """
    gone = threading.Event()

    def heed() -> None:
        if gone.is_set():
            raise ClientGoneError

    def run() -> T:
        heed()
        return work(heed)

    async def watch() -> None:
        while not await request.is_disconnected():
            await asyncio.sleep(_LOOK_EVERY_S)
        gone.set()

    watcher = asyncio.create_task(watch())
    limiter = _limiters.setdefault(asyncio.get_running_loop(), CapacityLimiter(AT_ONCE))
    try:
        return await to_thread.run_sync(run, limiter=limiter)
    finally:
        gone.set()
        watcher.cancel()
