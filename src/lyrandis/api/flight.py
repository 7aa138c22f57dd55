"""The flight over HTTP: a rig's shaft passing its bow."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.bodies import CheckedRoute
from lyrandis.api.context import AtDesk, RigId, now
from lyrandis.api.problems import PROBLEM_RESPONSES
from lyrandis.desk import papers
from lyrandis.desk.shown.flight import ChangesView, PassingView, changes_view, passing_view

router = APIRouter(
    prefix="/api", tags=["flight"], responses=PROBLEM_RESPONSES, route_class=CheckedRoute
)


class PassingIn(BaseModel):
    """What is changed on the bench and not kept."""

    model_config = ConfigDict(extra="forbid")

    changes: dict[str, Any] = Field({}, max_length=200)


@router.post("/rigs/{id}/passing")
def passing(id: RigId, body: PassingIn, desk: AtDesk) -> PassingView:
    """Bare shafts past this rig's bow: a stiffer one, the present one, a weaker one."""
    return passing_view(papers.bench_of(desk.get(id), now()).with_changes(body.changes))


@router.post("/rigs/{id}/passing/changes")
def passing_changes(id: RigId, body: PassingIn, desk: AtDesk) -> ChangesView:
    """What would move the shaft on this rig, and by how much; and from the side, the nock point."""
    return changes_view(papers.bench_of(desk.get(id), now()).with_changes(body.changes))
