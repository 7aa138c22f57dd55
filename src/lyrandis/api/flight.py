"""The flight over HTTP: a rig's shaft passing its bow."""

from __future__ import annotations

import base64
from typing import Annotated, Any

from fastapi import Query, Request
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.context import AtDesk, RigId, now
from lyrandis.api.long import AllJobs, waited
from lyrandis.api.routers import router_of
from lyrandis.core.bench import Bench
from lyrandis.core.trials import ClipTrial
from lyrandis.desk import papers
from lyrandis.desk.rigs import Desk
from lyrandis.desk.shown.clip import ClipView, clip_view
from lyrandis.desk.shown.flight import ChangesView, PassingView, changes_view, passing_view
from lyrandis.desk.shown.spine_map import SpineMapView, spine_map_view
from lyrandis.instruments.film import FRAMES_A_SECOND, HEIGHT_PX, WIDTH_PX, filmed
from lyrandis.jobs import Job, Jobs, digest

router = router_of("flight")


class PassingIn(BaseModel):
    """What is changed on the bench and not kept."""

    model_config = ConfigDict(extra="forbid")

    changes: dict[str, Any] = Field({}, max_length=200)


def changed(id: int, body: PassingIn, desk: Desk) -> Bench:
    """A kept rig on the bench, with what is changed on it and not kept."""
    return papers.bench_of(desk.get(id), now()).with_changes(body.changes)


def mapping(jobs: Jobs, b: Bench) -> Job:
    """Begin to draw a bench's spine map; the same bow and arrow are gone through once."""
    now, bow = b.arrow, b.bow.drawn
    key = digest(
        "spine map", b.rig.archer, b.rig.bow, b.rig.arrow, now.string, bow.draw_in, bow.weight_lbf,
        b.bow.heaviest_lbf, now.build.lightest_gr, now.floor.floor_gpp, now.window,
    )  # fmt: skip
    return jobs.start("spine-map", lambda tell: spine_map_view(b, tell), key)


class ClipIn(PassingIn):
    """A clip's marks so far, beside what is changed."""

    trial: ClipTrial


@router.post("/rigs/{id}/clip")
def clip(id: RigId, body: ClipIn, desk: AtDesk) -> ClipView:
    """What a slow-motion clip's marks say of this rig, and the computed shape on each frame."""
    return clip_view(changed(id, body, desk), body.trial)


class FilmView(BaseModel):
    """Frames of the simulated camera as data addresses, and its answer sheet.

    let_go : the frame on which the string let go; spine : that the filmed shaft truly has
    """

    frames: list[str]
    width: int
    height: int
    frames_a_second: float
    let_go: int
    spine: float
    nock_px: list[list[float]]
    point_px: list[list[float]]
    simulated: bool = True


@router.get("/rigs/{id}/film")
def film(id: RigId, desk: AtDesk, again: Annotated[int, Query(ge=0, le=2**31)] = 0) -> FilmView:
    """One shot of this rig in slow motion, by the simulated camera; it is no measurement."""
    told = filmed(papers.bench_of(desk.get(id), now()), again)
    return FilmView(
        frames=["data:image/jpeg;base64," + base64.b64encode(f).decode() for f in told.frames()],
        width=WIDTH_PX,
        height=HEIGHT_PX,
        frames_a_second=FRAMES_A_SECOND,
        let_go=told.let_go,
        spine=told.spine,
        nock_px=[list(p) for p in told.nock_px],
        point_px=[list(p) for p in told.point_px],
    )


@router.post("/rigs/{id}/passing")
def passing(id: RigId, body: PassingIn, desk: AtDesk) -> PassingView:
    """Bare shafts past this rig's bow: a stiffer one, the present one, a weaker one."""
    return passing_view(changed(id, body, desk))


@router.post("/rigs/{id}/passing/changes")
def passing_changes(id: RigId, body: PassingIn, desk: AtDesk) -> ChangesView:
    """What would move the shaft on this rig, and by how much; and from the side, the nock point."""
    return changes_view(changed(id, body, desk))


@router.post("/rigs/{id}/passing/map")
async def passing_map(
    request: Request, id: RigId, body: PassingIn, desk: AtDesk, jobs: AllJobs
) -> SpineMapView:
    """Which spine leaves this bow cleanly over length and point: some seconds of work, once."""
    told: SpineMapView = await waited(request, lambda: mapping(jobs, changed(id, body, desk)))
    return told
