"""Every error as RFC 9457 problem details, with the field, the limit, the unit and the reason."""

from __future__ import annotations

import logging
import uuid
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.store.rigs import ConflictError, MissingError, NothingError

log = logging.getLogger("lyrandis")
MEDIA_TYPE = "application/problem+json"


class FieldProblem(BaseModel):
    """One field at fault."""

    field: str
    reason: str
    limit: float | None = None
    unit: str | None = None


class ProblemDetails(BaseModel):
    """RFC 9457, with the fields at fault beside it."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


PROBLEM_RESPONSES: dict[int | str, dict[str, Any]] = {
    code: {"model": ProblemDetails, "description": text}
    for code, text in {
        400: "The request is not JSON",
        404: "No such thing",
        409: "Someone else kept a change meanwhile, or nothing to take back",
        413: "Too large",
        422: "A value is refused, with field, limit, unit and reason",
    }.items()
}


def problem(
    status: int, title: str, detail: str, errors: list[RefusedError] | None = None
) -> JSONResponse:
    """A problem-details response."""
    body = ProblemDetails(
        title=title,
        status=status,
        detail=detail,
        errors=[
            FieldProblem(field=e.field, reason=e.reason, limit=e.limit, unit=e.unit)
            for e in errors or []
        ],
    )
    return JSONResponse(body.model_dump(), status_code=status, media_type=MEDIA_TYPE)


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
        errors = [refused(e, ("body", "query", "path")) for e in found[:20]]
        return problem(422, "A value is refused", errors[0].reason, errors)

    @app.exception_handler(MissingError)
    async def _missing(_: Request, error: MissingError) -> JSONResponse:
        return problem(404, "No such thing", str(error))

    @app.exception_handler(ConflictError)
    async def _conflict(_: Request, error: ConflictError) -> JSONResponse:
        return problem(409, "Changed meanwhile", str(error))

    @app.exception_handler(NothingError)
    async def _nothing(_: Request, error: NothingError) -> JSONResponse:
        return problem(409, "Nothing to do", str(error))

    @app.exception_handler(HTTPException)
    async def _http(_: Request, error: HTTPException) -> JSONResponse:
        return problem(error.status_code, "The request failed", str(error.detail))

    @app.exception_handler(Exception)
    async def _fault(_: Request, error: Exception) -> JSONResponse:
        mark = uuid.uuid4().hex[:8]
        log.exception("fault %s", mark, exc_info=error)
        return problem(
            500,
            "A fault of the server",
            f"Something went wrong on the server's side. Nothing kept was lost. Fault {mark} is "
            "in its log.",
        )
