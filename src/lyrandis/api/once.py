"""A request that is sent twice is done once: by the `Idempotency-Key` that it comes with.

The same key with the same request is answered alike for thirty days; with another one it is
refused. While the first is at work the second waits for it. Only what wrote something, or began
work of its own, is kept: what was refused may be put right and sent again with its key.
"""

from __future__ import annotations

import asyncio
import hashlib
import re
import tempfile
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from typing import IO

from sqlalchemy import Engine
from sqlalchemy.exc import IntegrityError
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lyrandis.api.problems import problem
from lyrandis.core.errors import RefusedError
from lyrandis.store import answers
from lyrandis.store.database import WITH_IT

HEADER = "idempotency-key"
REPLAYED = "idempotent-replayed"
LOST = "urn:x-lyrandis:answer-lost"
_KEY = re.compile(r"[\x21-\x7e]{8,100}")
_WRITES = frozenset({"POST", "PUT", "PATCH", "DELETE"})
_BEGUN = frozenset({201, 202})  # made, or work that was begun: kept though nothing was noted
_IN_MEMORY = 1_000_000  # bytes of a body
_MOST_KEPT = 2_000_000  # bytes of an answer


class Once:
    """Does a request with a key once.

    Parameters
    ----------
    engine : gives the database as it is open
    now : the present time, ISO 8601 in UTC
    """

    def __init__(self, app: ASGIApp, engine: Callable[[], Engine], now: Callable[[], str]) -> None:
        self.app = app
        self.engine = engine
        self.now = now
        self._waiting: dict[str, tuple[asyncio.Lock, int]] = {}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer one request, or repeat what it was answered."""
        key = Headers(scope=scope).get(HEADER) if scope["type"] == "http" else None
        if key is None or scope["method"] not in _WRITES or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        if not _KEY.fullmatch(key):
            error = RefusedError("Idempotency-Key", "A key has 8 to 100 signs, without spaces.")
            await problem(422, "A value is refused", error.reason, [error])(scope, receive, send)
            return
        with tempfile.SpooledTemporaryFile(_IN_MEMORY) as body:
            request = await _digest(scope, receive, body)
            async with self._alone(key):
                known = await run_in_threadpool(answers.known, self.engine(), key)
                if known is not None:
                    await _again(known, request)(scope, receive, send)
                    return
                noting = answers.Noting(key, request, self.now())
                await self._first(noting, scope, _replayed(body, receive), send)

    @asynccontextmanager
    async def _alone(self, key: str) -> AsyncIterator[None]:
        """Whoever comes with the same key meanwhile waits."""
        lock, count = self._waiting.get(key, (asyncio.Lock(), 0))
        self._waiting[key] = (lock, count + 1)
        try:
            async with lock:
                yield
        finally:
            lock, count = self._waiting[key]
            if count == 1:
                del self._waiting[key]
            else:
                self._waiting[key] = (lock, count - 1)

    async def _first(
        self, noting: answers.Noting, scope: Scope, receive: Receive, send: Send
    ) -> None:
        answer = _Answer(send)
        token = WITH_IT.set(noting)
        try:
            await self.app(scope, receive, answer.seen)
        except IntegrityError:
            # Another server on this folder has noted the key: what it does is done there.
            if answer.begun:
                raise
            await _lost()(scope, receive, send)
            return
        finally:
            WITH_IT.reset(token)
        if answer.whole and (noting.noted or answer.status in _BEGUN):
            await run_in_threadpool(
                answers.keep, self.engine(), noting, answer.status, answer.kind, answer.body
            )
        await answer.finish()


class _Answer:
    """An answer as it passes: its last piece is held back until it is kept."""

    def __init__(self, send: Send) -> None:
        self.send = send
        self.status, self.kind = 0, "application/json"
        self.pieces: list[bytes] = []
        self.size = 0
        self.begun = False
        self.last: Message | None = None

    async def seen(self, message: Message) -> None:
        """Take in a piece and hand it on."""
        if message["type"] == "http.response.start":
            self.begun = True
            self.status = message["status"]
            self.kind = Headers(raw=message["headers"]).get("content-type", self.kind)
        elif message["type"] == "http.response.body":
            self.size += len(message.get("body", b""))
            if self.size <= _MOST_KEPT:
                self.pieces.append(message.get("body", b""))
            if not message.get("more_body", False):
                self.last = message
                return
        await self.send(message)

    @property
    def whole(self) -> bool:
        """Whether it came to its end, and is small enough to be kept."""
        return self.last is not None and self.size <= _MOST_KEPT

    @property
    def body(self) -> bytes:
        return b"".join(self.pieces)

    async def finish(self) -> None:
        """Send the last piece."""
        if self.last is not None:
            await self.send(self.last)


async def _digest(scope: Scope, receive: Receive, body: IO[bytes]) -> str:
    """Read a request's body into a file; the digest of its method, path and body."""
    query = scope["query_string"].decode("latin-1")
    said = hashlib.sha256(f"{scope['method']} {scope['path']}?{query}\n".encode())
    more = True
    while more:
        message = await receive()
        if message["type"] == "http.disconnect":
            break
        piece = message.get("body", b"")
        said.update(piece)
        body.write(piece)
        more = message.get("more_body", False)
    body.seek(0)
    return said.hexdigest()


def _replayed(body: IO[bytes], receive: Receive) -> Receive:
    """The body once more, piece by piece; then whatever the connection says."""
    over = False

    async def again() -> Message:
        nonlocal over
        if over:
            return await receive()
        piece = body.read(_IN_MEMORY)
        over = len(piece) < _IN_MEMORY
        return {"type": "http.request", "body": piece, "more_body": not over}

    return again


def _again(known: answers.Known, request: str) -> Response:
    if known.request != request:
        error = RefusedError(
            "Idempotency-Key", "This key was sent with another request: give each its own."
        )
        return problem(422, "A value is refused", error.reason, [error])
    if known.status is None:
        return _lost()
    return Response(known.body, known.status, media_type=known.kind, headers={REPLAYED: "true"})


def _lost() -> Response:
    return problem(
        409,
        "Done before",
        "This was done already, and its answer was lost. Nothing was done twice: look at it as it "
        "stands now.",
        type=LOST,
    )
