"""What every station shows: its question, its answer, a short note for the rail, its findings."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from pydantic import BaseModel

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Said, by_seriousness, say, verbatim
from lyrandis.core.route import STATIONS, StationId
from lyrandis.core.workbench import Workbench


class Problem(BaseModel):
    """Why something cannot be computed: field, limit, unit and reason."""

    field: str
    reason: str
    limit: float | None = None
    unit: str | None = None

    @classmethod
    def of(cls, error: RefusedError) -> Problem:
        """The problem that a refusal tells."""
        return cls(field=error.field, reason=error.reason, limit=error.limit, unit=error.unit)


class Told(NamedTuple):
    """A station's sentence, its rail note, and its findings."""

    answer: Said
    note: Said
    findings: list[Finding]


class StationView(BaseModel):
    """A station as it is shown; `problem` is set where the rig cannot be computed there."""

    station: StationId
    title: str
    question: str
    answer: Said
    note: Said
    findings: list[Finding]
    problem: Problem | None = None


def view(station: StationId, tell: Callable[[Workbench], Told], bench: Workbench) -> StationView:
    """Tell a station, or say why it cannot be told and where to mend it."""
    of = STATIONS[station]
    try:
        told, problem = tell(bench), None
    except RefusedError as error:
        problem = Problem.of(error)
        owner = next((s for s in STATIONS.values() if problem.field in s.settings), None)
        mend = (
            Action(label=say(f"Mend it at {owner.title}"), station=owner.id)
            if owner is not None and owner.id != station
            else None
        )
        told = Told(
            say("This cannot be told for the rig as it stands."),
            say("cannot be told"),
            [
                Finding(
                    level="stop",
                    said=verbatim(problem.reason),
                    why=say("The models refuse values they do not cover; nothing kept is lost."),
                    told="model",
                    action=mend,
                )
            ],
        )
    return StationView(
        station=station,
        title=of.title,
        question=of.question,
        answer=told.answer,
        note=told.note,
        findings=by_seriousness(told.findings),
        problem=problem,
    )
