"""What every station shows: its question, its answer, a short note for the rail, its findings."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from pydantic import BaseModel, ConfigDict

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Said, by_seriousness, say, stop, verbatim
from lyrandis.core.route import STATIONS, station_of
from lyrandis.core.stops import StationId


def your_draw(bench: Bench) -> tuple[str, dict[str, tuple[str, float]]]:
    """The archer's draw as it is named everywhere, as a piece of a sentence and its values.

    A thumb archer's string stands behind the mark: then both are named.
    """
    draw, true = bench.rig.archer.draw_length_in, bench.archer.true_draw.value
    if bench.rig.archer.release != "thumb":
        return "{draw}", {"draw": ("draw", draw)}
    return "{draw} ({true} at the string)", {"draw": ("draw", draw), "true": ("draw", true)}


class Answered(BaseModel):
    """Base of what is shown: every name stands in every answer."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)


class Problem(Answered):
    """Why something cannot be computed: field, limit, unit and reason."""

    field: str
    reason: str
    said: Said | None = None
    limit: float | None = None
    unit: str | None = None

    @classmethod
    def of(cls, error: RefusedError) -> Problem:
        """The problem that a refusal tells."""
        return cls(
            field=error.field,
            reason=error.reason,
            said=error.said,
            limit=error.limit,
            unit=error.unit,
        )


class Answer(NamedTuple):
    """A station's sentence and its findings."""

    said: Said
    findings: list[Finding]


class Teller(NamedTuple):
    """What tells a station: its short note for the rail, and its answer with its findings."""

    note: Callable[[Bench], Said]
    tell: Callable[[Bench], Answer]


class RailNote(Answered):
    """A station on the rail; `problem` is set where even its note cannot be computed."""

    station: StationId
    note: Said
    problem: Problem | None = None


class StationView(Answered):
    """A station as it is shown; `problem` is set where the rig cannot be computed there."""

    station: StationId
    answer: Said
    findings: list[Finding]
    problem: Problem | None = None


def note(station: StationId, teller: Teller, bench: Bench) -> RailNote:
    """A station's line on the rail."""
    try:
        return RailNote(station=station, note=teller.note(bench))
    except RefusedError as error:
        return RailNote(station=station, note=say("cannot be told"), problem=Problem.of(error))


def view(station: StationId, teller: Teller, bench: Bench) -> StationView:
    """Tell a station, or say why it cannot be told and where to mend it."""
    try:
        told, problem = teller.tell(bench), None
    except RefusedError as error:
        problem = Problem.of(error)
        told = Answer(
            say("This cannot be told for the rig as it stands."), [_untold(station, problem)]
        )
    return StationView(
        station=station,
        answer=told.said,
        findings=by_seriousness(told.findings),
        problem=problem,
    )


def _untold(station: StationId, problem: Problem) -> Finding:
    """The finding of a station that cannot be told: why, and where to mend it."""
    owner = station_of(problem.field)
    mend = None
    if owner is not None and owner != station:
        mend = Action(label=say(f"Mend it at {STATIONS[owner].title}"), station=owner)
    return stop(
        said=problem.said or verbatim(problem.reason),
        why=say("The models refuse values they do not cover; nothing kept is lost."),
        told="model",
        action=mend,
    )
