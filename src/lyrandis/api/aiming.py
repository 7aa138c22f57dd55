"""Aiming over HTTP: what an archer would weigh, the chart and its cards as files, courses in."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from fastapi import File, Query, Response, UploadFile
from pydantic import BaseModel

from lyrandis.api.attached import file_name
from lyrandis.api.context import AtDesk, Preferences, RigId, now
from lyrandis.api.flight import PassingIn, changed
from lyrandis.api.problems import answers
from lyrandis.api.reference import get_preferences
from lyrandis.api.routers import router_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said
from lyrandis.core.parts import Course
from lyrandis.core.trials import Trial
from lyrandis.desk import papers
from lyrandis.desk.shown.aim import AimingView, CrawlsView, aiming_view, crawls_view
from lyrandis.files.aim_table import read_aim
from lyrandis.files.cards import CardId
from lyrandis.files.course_csv import read_course, write_chart, write_course
from lyrandis.files.table_csv import MOST_BYTES
from lyrandis.store.kept import Kept

router = router_of("aiming")
_CARD: dict[int | str, dict[str, Any]] = {
    200: {
        "description": "The file",
        "content": {
            kind: {"schema": {"type": "string", "format": "binary"}}
            for kind in ("application/pdf", "image/svg+xml")
        },
    }
}
CourseAt = Annotated[int, Query(ge=0, le=11, description="Which course, counted from 0.")]


@router.post("/rigs/{id}/aiming")
def aiming(id: RigId, body: PassingIn, desk: AtDesk) -> AimingView:
    """Anchors, a longer arrow, the one crawl, hits, judging distance, and round cards."""
    return aiming_view(changed(id, body, desk))


@router.get("/rigs/{id}/chart")
def chart(id: RigId, desk: AtDesk) -> CrawlsView:
    """The chart of crawls or gaps as JSON."""
    return crawls_view(papers.bench_of(desk.get(id), now()))


@router.get("/rigs/{id}/chart.csv", response_class=Response, responses=answers("text/csv"))
def chart_csv(id: RigId, desk: AtDesk) -> Response:
    """The chart of crawls or gaps as CSV."""
    kept = desk.get(id)
    text = write_chart(papers.bench_of(kept, now()))
    return _file(text, f"{kept.present.rig.name} chart", "csv", "text/csv")


@router.get("/rigs/{id}/card", response_class=Response, responses=_CARD)
def card(
    id: RigId,
    desk: AtDesk,
    preferences: Preferences,
    card: CardId,
    kind: Literal["pdf", "svg"] = "pdf",
    course: CourseAt = 0,
) -> Response:
    """A tab card, a pocket card or a course's round card at true size, as PDF or SVG."""
    kept = desk.get(id)
    units = get_preferences(preferences).units
    data = papers.card_of(papers.bench_of(kept, now()), card, course, kind, units)
    media = "application/pdf" if kind == "pdf" else "image/svg+xml"
    return _file(data, f"{kept.present.rig.name} {card} card", kind, media)


@router.get("/rigs/{id}/course.csv", response_class=Response, responses=answers("text/csv"))
def course_csv(id: RigId, desk: AtDesk, course: CourseAt = 0) -> Response:
    """A course's targets as CSV."""
    found = _course(desk.get(id), course)
    return _file(write_course(found.targets), found.name, "csv", "text/csv")


@router.get("/rigs/{id}/course")
def course_json(id: RigId, desk: AtDesk, course: CourseAt = 0) -> Course:
    """A course with its names as JSON, as it is read again."""
    return _course(desk.get(id), course)


class AimLine(BaseModel):
    """What a line of a table says, in words and as the trial that it would be."""

    said: Said
    trial: Trial


@router.post("/aim-table")
def aim_table(file: Annotated[UploadFile, File()], walks: bool = True) -> list[AimLine]:
    """Read a table or JSON of crawls or gaps; nothing is kept until the archer logs it."""
    found = read_aim(file.file.read(MOST_BYTES + 1), walks)
    return [AimLine(said=trial.said(), trial=trial) for trial in found]


@router.post("/courses")
def course_in(file: Annotated[UploadFile, File()]) -> Course:
    """Read a table of targets, or a course as JSON; nothing is kept until the archer keeps it."""
    return read_course(file.file.read(MOST_BYTES + 1))


def _course(kept: Kept, course: int) -> Course:
    courses = kept.present.rig.courses
    if course >= len(courses):
        raise RefusedError("course", "This rig has no such course.", len(courses))
    return courses[course]


def _file(data: str | bytes, name: str, kind: str, media: str) -> Response:
    return Response(data, media_type=media, headers={"Content-Disposition": file_name(name, kind)})
