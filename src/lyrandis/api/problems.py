"""Every error as RFC 9457 problem details, with the field, the limit, the unit and the reason."""

from __future__ import annotations

import json
import logging
import uuid
from collections.abc import Sequence
from typing import Any

from fastapi import APIRouter, FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import OperationalError
from starlette.exceptions import HTTPException
from starlette.routing import Route

from lyrandis.api.bodies import MOST_FAULTS, NoJsonError
from lyrandis.api.long import ClientGoneError
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.findings import Said
from lyrandis.jobs import UnknownJobError
from lyrandis.store.errors import (
    ConflictError,
    MissingError,
    NothingError,
    OtherDataError,
    UnreadableError,
)

log = logging.getLogger("lyrandis")
MEDIA_TYPE = "application/problem+json"
CONFLICT = "urn:x-lyrandis:conflict"  # by which a page knows that it can be resolved
OTHER_DATA = "urn:x-lyrandis:other-data"  # and by which it knows that it cannot


class FieldProblem(BaseModel):
    """One field at fault; `said` is the reason with its values apart, where it has any."""

    field: str
    reason: str
    said: Said | None = None
    limit: float | None = None
    unit: str | None = None


class ProblemDetails(BaseModel):
    """RFC 9457, with the fields at fault beside it."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


_CODES = {
    400: "The request is not HTTP or not JSON, or asks for an unknown host",
    401: "An access token is wanted",
    403: "Changes are taken from the server's own pages only",
    404: "No such thing",
    405: "This is not done there; Allow names what is",
    409: "Someone else kept a change meanwhile, nothing to take back, or an unreadable rig",
    411: "The body's length is wanted",
    413: "Too large",
    422: "A value is refused, with field, limit, unit and reason",
    429: "Too many wrong tokens; Retry-After says how long to wait",
    503: "The data cannot be written just now",
}
_WORD = {"schema": {"type": "string"}}
PROBLEM_RESPONSE: dict[int | str, dict[str, Any]] = {
    "default": {
        "description": "A problem: " + "; ".join(f"{code} {text}" for code, text in _CODES.items()),
        "content": {MEDIA_TYPE: {"schema": {"$ref": "#/components/schemas/ProblemDetails"}}},
        "headers": {"Allow": _WORD, "Retry-After": _WORD},
    }
}


def answers(media_type: str, description: str = "The file") -> dict[int | str, dict[str, Any]]:
    """The documented answer of a route that sends a file."""
    schema = {"type": "string"}
    if not media_type.startswith("text/") and media_type != "application/json":
        schema |= {"format": "binary"}
    shown: dict[str, Any] = {} if media_type == "application/json" else {"schema": schema}
    return {200: {"description": description, "content": {media_type: shown}}}


def problem(
    status: int,
    title: str,
    detail: str,
    errors: list[RefusedError] | None = None,
    headers: dict[str, str] | None = None,
    type: str = "about:blank",
) -> JSONResponse:
    """A problem-details response."""
    body = ProblemDetails(
        type=type,
        title=title,
        status=status,
        detail=detail,
        errors=[
            FieldProblem(field=e.field, reason=e.reason, said=e.said, limit=e.limit, unit=e.unit)
            for e in errors or []
        ],
    )
    return JSONResponse(
        body.model_dump(), status_code=status, headers=headers, media_type=MEDIA_TYPE
    )


def fault(error: Exception) -> JSONResponse:
    """The answer to what nobody foresaw: a mark that stands in the log too, and no more."""
    mark = uuid.uuid4().hex[:8]
    log.exception("fault %s", mark, exc_info=error)
    return problem(
        500,
        "A fault of the server",
        f"Something went wrong on the server's side. Nothing kept was lost. Fault {mark} is in "
        "its log.",
    )


async def problem_of(request: Request, error: Exception) -> dict[str, Any]:
    """The problem details that an error would be answered with, where no answer can be sent."""
    for kind in type(error).__mro__:
        handler = request.app.exception_handlers.get(kind)
        if handler is not None:
            answer = await handler(request, error)
            break
    else:
        answer = fault(error)
    details: dict[str, Any] = json.loads(answer.body)
    return details


def note_methods(app: FastAPI, routers: Sequence[APIRouter]) -> None:
    """Note which methods each path of the routers knows, for the answers that say so."""
    app.state.methods = [
        (route.path_regex, frozenset(route.methods or ()))
        for router in routers
        for route in router.routes
        if isinstance(route, Route)
    ]


def allowed(app: FastAPI, path: str) -> list[str]:
    """The methods known for a path; none for a path that is not known."""
    found: set[str] = set()
    for pattern, methods in app.state.methods:
        if pattern.match(path):
            found |= methods
    return sorted(found | {"HEAD"} if "GET" in found else found)


def not_allowed(path: str, methods: list[str]) -> JSONResponse:
    """The answer to a method that is not done at a path."""
    said = ", ".join(methods) or "GET, HEAD"
    return problem(
        405, "Not done there", f"At {path[:80]} only {said} is done.", headers={"Allow": said}
    )


def install(app: FastAPI) -> None:
    """Answer every error of the application as problem details."""

    @app.exception_handler(RefusedError)
    async def _refused(_: Request, error: RefusedError) -> JSONResponse:
        return problem(422, "A value is refused", error.reason, [error])

    @app.exception_handler(RequestValidationError)
    async def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        found = error.errors()
        if any(e["type"] == "json_invalid" for e in found):
            return problem(400, "The request is not JSON", "The request's body is not valid JSON.")
        errors = [refused(e, ("body", "query", "path", "header")) for e in found[:MOST_FAULTS]]
        return problem(422, "A value is refused", errors[0].reason, errors)

    @app.exception_handler(NoJsonError)
    async def _no_json(_: Request, __: NoJsonError) -> JSONResponse:
        return problem(400, "The request is not JSON", "The request's body is not valid JSON.")

    @app.exception_handler(UnreadableError)
    async def _unreadable(_: Request, error: UnreadableError) -> JSONResponse:
        rig = error.rig
        return problem(
            409,
            "This rig cannot be read",
            f"This version cannot read the rig, {rig.why} It is kept as it is: "
            "take back its latest entry, take out its file, or put it away.",
            [RefusedError(rig.field, rig.reason)],
        )

    @app.exception_handler(OperationalError)
    async def _cannot_write(_: Request, error: OperationalError) -> JSONResponse:
        log.error("the database: %s", error.orig)
        return problem(
            503,
            "The data cannot be written just now",
            f"The database says: {error.orig}. Nothing kept was lost. Look at the disk's room and "
            "rights, then try again.",
            headers={"Retry-After": "5"},
        )

    @app.exception_handler(ClientGoneError)
    async def _gone(_: Request, __: ClientGoneError) -> JSONResponse:
        return problem(409, "Nobody waits", "The connection was closed before the answer.")

    @app.exception_handler(MissingError)
    @app.exception_handler(UnknownJobError)
    async def _missing(_: Request, error: LookupError) -> JSONResponse:
        return problem(404, "No such thing", str(error))

    @app.exception_handler(ConflictError)
    async def _conflict(_: Request, error: ConflictError) -> JSONResponse:
        return problem(409, "Changed meanwhile", str(error), type=CONFLICT)

    @app.exception_handler(OtherDataError)
    async def _other_data(_: Request, error: OtherDataError) -> JSONResponse:
        return problem(409, "Other data", str(error), type=OTHER_DATA)

    @app.exception_handler(NothingError)
    async def _nothing(_: Request, error: NothingError) -> JSONResponse:
        return problem(409, "Nothing to do", str(error))

    @app.exception_handler(HTTPException)
    async def _http(request: Request, error: HTTPException) -> JSONResponse:
        headers = dict(error.headers or {})
        if error.status_code == 405:
            return not_allowed(request.url.path, allowed(app, request.url.path))
        return problem(error.status_code, "The request failed", str(error.detail), headers=headers)
