"""Aiming over HTTP: what an archer would weigh about a rig's aim."""

from __future__ import annotations

from fastapi import APIRouter

from lyrandis.api.bodies import CheckedRoute
from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.flight import PassingIn, changed
from lyrandis.api.problems import PROBLEM_RESPONSES
from lyrandis.desk.shown.aim import AimingView, aiming_view

router = APIRouter(
    prefix="/api", tags=["aiming"], responses=PROBLEM_RESPONSES, route_class=CheckedRoute
)


@router.post("/rigs/{id}/aiming")
def aiming(id: RigId, body: PassingIn, desk: AtDesk) -> AimingView:
    """Anchors, a longer arrow, the one crawl, hits, and what judging distance costs."""
    return aiming_view(changed(id, body, desk))
