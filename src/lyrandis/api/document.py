"""The API's document as a contract: names that outlive a move of the code, one schema a thing."""

from __future__ import annotations

import re
from typing import Any

from fastapi import FastAPI
from fastapi.routing import APIRoute

from lyrandis.api.problems import ProblemDetails

_PLACE = "#/components/schemas/"
_IN, _OUT = "-Input", "-Output"


def route_id(route: APIRoute) -> str:
    """A route's name in the document: its method and path, wherever its function lies."""
    method = min(route.methods or {"get"}).lower()
    return re.sub(r"\W+", "_", f"{method}{route.path_format}").strip("_")


def _renamed(value: Any, names: dict[str, str]) -> Any:
    """A schema with everything that leads to one of `names` led to its new name."""
    if isinstance(value, dict):
        return {k: _renamed(v, names) for k, v in value.items()}
    if isinstance(value, list):
        return [_renamed(v, names) for v in value]
    if isinstance(value, str) and value.startswith(_PLACE):
        name = value.removeprefix(_PLACE)
        return _PLACE + names.get(name, name)
    return value


def one_a_thing(document: dict[str, Any]) -> dict[str, Any]:
    """A document in which what goes in and comes out has one schema, that of what goes in.

    The two differ in that what comes out always has every field; `default` says what a field is
    that is left out.
    """
    schemas = document["components"]["schemas"]
    names = {n: n.removesuffix(_IN).removesuffix(_OUT) for n in schemas if n.endswith((_IN, _OUT))}
    for name in [n for n in names if n.endswith(_OUT) and names[n] + _IN in schemas]:
        del schemas[name]
    document = _renamed(document, names)
    kept = document["components"]["schemas"]
    document["components"]["schemas"] = {
        name: kept[was] for was, name in sorted((n, names.get(n, n)) for n in kept)
    }
    return document


def install(app: FastAPI) -> None:
    """Make the application's document so, with the shape of a problem in it."""
    plain = app.openapi

    def made() -> dict[str, Any]:
        if app.openapi_schema is None:
            document = plain()
            problem = ProblemDetails.model_json_schema(ref_template=_PLACE + "{model}")
            inner = problem.pop("$defs")
            document["components"]["schemas"].update(inner | {"ProblemDetails": problem})
            app.openapi_schema = one_a_thing(document)
        return app.openapi_schema

    app.openapi = made  # type: ignore[method-assign]
