"""Arrows over HTTP: side by side on a rig, a set's cost, shafts and speeds in, labels out."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import File, Query, Response, UploadFile
from pydantic import BaseModel, ConfigDict, Field

from lyrandis.api.context import AtDesk, Preferences, RigId, now
from lyrandis.api.parts import Mark
from lyrandis.api.problems import answers
from lyrandis.api.reference import get_preferences
from lyrandis.api.routers import router_of
from lyrandis.core.bench.dozen import SpreadCost
from lyrandis.core.bench.what_if import ArrowOnBow, arrow_on_bow, usual_others
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import ArrowSet, Shaft
from lyrandis.core.stations import Problem
from lyrandis.core.trials import ChronographTrial
from lyrandis.desk import papers
from lyrandis.files.cutting import cutting_marks
from lyrandis.files.labels import SHEETS, SheetId, shaft_labels
from lyrandis.files.shafts_csv import read_shafts, write_shafts
from lyrandis.files.speeds_csv import read_speeds
from lyrandis.files.table_csv import MOST_BYTES

router = router_of("arrows")
MOST_OTHERS = 4
Changes = dict[str, Any]


class WhatIfIn(BaseModel):
    """The rig as it stands on the bench, and builds that differ from it."""

    model_config = ConfigDict(extra="forbid")

    changes: Changes = Field({}, max_length=200)
    others: list[Changes] = Field([], max_length=MOST_OTHERS)


class WhatIfRow(BaseModel):
    """An arrow on this bow, or why it is none."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    arrow: ArrowOnBow | None = None
    problem: Problem | None = None


class Suggested(BaseModel):
    """A build that is asked for often: its name and the settings that make it."""

    name: str
    changes: Changes


class WhatIfOut(BaseModel):
    """The arrow as it is first, then the others in their order; builds that are asked for often."""

    rows: list[WhatIfRow]
    suggested: list[Suggested]


@router.post("/rigs/{id}/what-if")
def what_if(id: RigId, body: WhatIfIn, desk: AtDesk) -> WhatIfOut:
    """Arrows side by side on this rig, with all that each changes downstream. Nothing is kept."""
    bench = papers.bench_of(desk.get(id), now()).with_changes(body.changes)
    rows = []
    for changes in ({}, *body.others):
        try:
            rows.append(WhatIfRow(arrow=arrow_on_bow(bench, changes)))
        except RefusedError as error:
            rows.append(WhatIfRow(problem=Problem.of(error)))
    return WhatIfOut(
        rows=rows,
        suggested=[Suggested(name=n, changes=dict(c)) for n, c in usual_others(bench).items()],
    )


@router.get("/rigs/{id}/spread")
def spread(
    id: RigId,
    desk: AtDesk,
    mass_range_gr: Annotated[float, Query(ge=0, le=500, allow_inf_nan=False)],
    spine_range: Annotated[float, Query(ge=0, le=500, allow_inf_nan=False)] = 0.0,
) -> SpreadCost:
    """What arrows that differ so much in weight and spine do at this archer's far distance."""
    return papers.bench_of(desk.get(id), now()).dozen.cost(mass_range_gr, spine_range)


@router.get(
    "/rigs/{id}/cutting", response_class=Response, responses=answers("application/pdf")
)  # fmt: skip
def cutting(id: RigId, desk: AtDesk, preferences: Preferences) -> Response:
    """The tapers of the rig's shaft at true size, as PDF."""
    bench = papers.bench_of(desk.get(id), now())
    pdf = cutting_marks(bench, bench.shaft.gauges, get_preferences(preferences).units)
    headers = {"Content-Disposition": 'inline; filename="cutting.pdf"'}
    return Response(pdf, media_type="application/pdf", headers=headers)


class ShaftsRead(BaseModel):
    """Shafts of a table."""

    shafts: list[Shaft]


@router.post("/shafts")
def shafts_in(
    file: Annotated[UploadFile, File()], first: Annotated[int, Query(ge=1, le=999)] = 1
) -> ShaftsRead:
    """Read a table of shafts, CSV or pasted; nothing is kept until the archer keeps it."""
    return ShaftsRead(shafts=read_shafts(file.file.read(MOST_BYTES + 1), first))


class SpeedsRead(BaseModel):
    """Shots of a table, those of one arrow weight together."""

    readings: list[ChronographTrial]


@router.post("/speeds")
def speeds_in(file: Annotated[UploadFile, File()]) -> SpeedsRead:
    """Read a table of chronograph shots; nothing is logged until the archer logs it."""
    return SpeedsRead(readings=read_speeds(file.file.read(MOST_BYTES + 1)))


def _set(desk: AtDesk, mark: str) -> tuple[str, ArrowSet]:
    part = desk.rack.get(mark).part
    if not isinstance(part.of, ArrowSet):
        raise RefusedError("mark", "This part is no set of arrows.")
    return part.name, part.of


@router.get("/parts/{mark}/shafts", response_class=Response, responses=answers("text/csv"))
def shafts_out(mark: Mark, desk: AtDesk) -> Response:
    """A set's shafts as CSV, units in the header."""
    _, of = _set(desk, mark)
    if not of.shafts:
        raise RefusedError("shafts", "No shaft of this set is numbered yet.")
    headers = {"Content-Disposition": 'attachment; filename="shafts.csv"'}
    return Response(write_shafts(of.shafts), media_type="text/csv", headers=headers)


class SheetNote(BaseModel):
    """A sheet of labels, and how many it holds."""

    id: SheetId
    title: str
    labels: int


@router.get("/labels")
def label_sheets() -> list[SheetNote]:
    """The sheets of labels that can be printed on."""
    return [
        SheetNote(id=id, title=sheet.title, labels=sheet.rows * sheet.columns)
        for id, sheet in SHEETS.items()
    ]


@router.get("/parts/{mark}/labels", response_class=Response, responses=answers("application/pdf"))
def labels(
    mark: Mark,
    desk: AtDesk,
    preferences: Preferences,
    sheet: SheetId = "a4_24",
    skip: Annotated[int, Query(ge=0, le=200)] = 0,
) -> Response:
    """Labels of a set's whole shafts at true size, as PDF."""
    name, of = _set(desk, mark)
    pdf = shaft_labels(name, of.shafts, sheet, get_preferences(preferences).units, skip)
    headers = {"Content-Disposition": 'inline; filename="labels.pdf"'}
    return Response(pdf, media_type="application/pdf", headers=headers)
