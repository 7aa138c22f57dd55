"""The router of one subject: how each of its routes is named, checked and refused."""

from __future__ import annotations

from fastapi import APIRouter
from fastapi.routing import APIRoute

from lyrandis.api.bodies import CheckedRoute
from lyrandis.api.document import route_id
from lyrandis.api.problems import PROBLEM_RESPONSE


def router_of(
    subject: str, prefix: str = "/api", route_class: type[APIRoute] = CheckedRoute
) -> APIRouter:
    """A router whose routes are whole by themselves, so that an application takes them as they are.

    An included router is built anew by each application when the first request comes in: a third of
    a second before anything is answered.
    """
    return APIRouter(
        prefix=prefix,
        tags=[subject],
        route_class=route_class,
        responses=PROBLEM_RESPONSE,
        generate_unique_id_function=route_id,
    )
