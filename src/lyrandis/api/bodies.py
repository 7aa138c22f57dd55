"""JSON bodies judged off the event loop, before anything else reads them."""

from __future__ import annotations

import json
from collections.abc import Callable, Coroutine
from typing import Any

from fastapi import Request, Response, params
from fastapi.exceptions import RequestValidationError
from fastapi.routing import APIRoute
from starlette.concurrency import run_in_threadpool

from lyrandis.core.errors import RefusedError
from lyrandis.core.strict import refuse_unfit

MOST_FAULTS = 20  # told of one body


class NoJsonError(ValueError):
    """The body is not JSON."""


def _read(raw: bytes) -> Any:
    try:
        document = json.loads(raw)
    except RecursionError:
        raise RefusedError("body", "It is nested too deeply.") from None
    except ValueError as error:  # no JSON, no UTF-8, or a number of thousands of digits
        raise NoJsonError(str(error)) from None
    try:
        refuse_unfit(document)
    except RefusedError as error:
        # A changed setting is named by its own path, as everywhere.
        raise error.at(error.field.removeprefix("changes.")) from None
    return document


class CheckedRoute(APIRoute):
    """A route whose JSON body is parsed and validated in a thread first.

    A faulty body never reaches the event loop's own validation, and a whole one is bounded by its
    schema, so no request holds up the others.
    """

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        """The framework's handler behind the judgement."""
        handle = super().get_route_handler()
        field = self.body_field
        if field is None or isinstance(field.field_info, params.Form):
            return handle

        def judge(raw: bytes) -> None:
            _, errors = field.validate(_read(raw), {}, loc=("body",))
            if errors:
                raise RequestValidationError(errors[:MOST_FAULTS])

        async def judged(request: Request) -> Response:
            kind = request.headers.get("content-type", "").partition(";")[0].strip().lower()
            raw = await request.body()
            if raw and (kind == "application/json" or kind.endswith("+json")):
                await run_in_threadpool(judge, raw)
            return await handle(request)

        return judged
