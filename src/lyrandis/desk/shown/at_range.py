"""What the page for the range shows of a rig: all in one answer, so that it can be kept there."""

from __future__ import annotations

import math
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict

from lyrandis.core.aim.counting import Counted
from lyrandis.core.aim.round_card import CardLine
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import bound
from lyrandis.core.findings import Said
from lyrandis.core.parts.rig import AimsBy
from lyrandis.core.route import StationState, route_of, states
from lyrandis.core.stations import views
from lyrandis.core.stops import StationId
from lyrandis.core.trials import CrawlVisitTrial
from lyrandis.desk import papers
from lyrandis.desk.shown.bench import BenchView, bench_view
from lyrandis.store.kept import Kept

_PARTS: tuple[StationId, ...] = ("brace", "nock-point", "flight", "crawls")
_AT_ONCE = 60  # distances that one chart takes
_SAME_M = 0.01  # two distances that are one


@dataclass(frozen=True)
class RangeLine:
    """One distance of the card.

    own : one of the archer's distances, not only a whole metre or yard between them
    set_to : the crawl [mm], or the gap [cm] of one who holds gaps, with its ±; None beyond
        point-on, where hold_over_cm is the way
    off_cm : what the ± of a crawl comes to on the butt
    counted : the crawl as archers count it; None where there is none
    """

    distance_m: float
    own: bool
    set_to: float | None
    plus_minus: float
    off_cm: float
    hold_over_cm: float | None
    counted: Counted | None


@dataclass(frozen=True)
class Limits:
    """The least and the most that a field takes."""

    low: float
    high: float


class RangeView(BaseModel):
    """A rig at the range, as it was at a time.

    uid : its own for good; digest : of its latest entry, `seq`, to be named with it
    told_at : when this was told, ISO 8601 in UTC; made_at : when the rig
        was made, by which it is told from another that took its number
    way, steady_crawl_mm : how its archer aims, and the one crawl of who holds gaps with it
    limits : of an end's distance_m, crawl_mm and gap_cm
    bench : its numbers, as far as aim, brace height, nock point and reads show them
    lines : the card, the nearest first: the archer's distances, and each whole one between them;
        empty where the models refuse the rig
    round_cards : of each of its courses; empty where the models refuse the rig
    stops : what forbids to shoot it, from every station
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    id: int
    uid: str
    seq: int
    digest: str
    told_at: str
    made_at: str
    way: AimsBy
    steady_crawl_mm: float
    limits: dict[str, Limits]
    bench: BenchView
    states: list[StationState]
    lines: list[RangeLine]
    round_cards: list[list[CardLine]]
    stops: list[Said]


def range_view(kept: Kept, digest: str, now: str, step_m: float = 1.0) -> RangeView:
    """A kept rig as it is taken to the range.

    Parameters
    ----------
    digest : of its latest entry
    step_m : one of the unit in which the archer counts distances
    """
    b = papers.bench_of(kept, now)
    return RangeView(
        id=kept.id,
        uid=kept.uid,
        seq=kept.seq,
        digest=digest,
        told_at=now,
        made_at=kept.created_at,
        way=b.rig.aims_by,
        steady_crawl_mm=b.rig.steady_crawl_mm,
        limits={name: _limits(name) for name in ("distance_m", "crawl_mm", "gap_cm")},
        bench=bench_view(b, [id for id in _PARTS if id in route_of(b.rig).stops]),
        states=states(kept.present.marks, b.rig),
        lines=_lines(b, step_m),
        round_cards=_round_cards(b),
        stops=_stops(b),
    )


def _lines(b: Bench, step_m: float) -> list[RangeLine]:
    try:
        own = _card(b, True)
        lines = list(own)
        for between in _charts(_whole([line.distance_m for line in own], step_m)):
            lines += _card(b.with_changes({"aim.distances_m": between}), False)
        return sorted(lines, key=lambda line: line.distance_m)
    except RefusedError:
        return []


def _whole(own: list[float], step_m: float) -> list[float]:
    """Whole metres or yards between the nearest and the farthest, but for those that are there."""
    first, last = math.ceil(min(own) / step_m), math.floor(max(own) / step_m)
    every = [n * step_m for n in range(first, last + 1)]
    return [d for d in every if all(abs(d - o) > _SAME_M for o in own)]


def _charts(distances: list[float]) -> list[list[float]]:
    """Distances by as many as one chart takes."""
    return [distances[i : i + _AT_ONCE] for i in range(0, len(distances), _AT_ONCE)]


def _limits(name: str) -> Limits:
    info = CrawlVisitTrial.model_fields[name]
    low, high = bound(info, "ge"), bound(info, "le")
    assert low is not None
    assert high is not None
    return Limits(low, high)


def _card(b: Bench, own: bool) -> list[RangeLine]:
    """The card for the rig's distances as they are."""
    if b.rig.aims_by != "crawls":
        return [
            RangeLine(row.distance_m, own, row.gap_cm, float(pm), float(pm), None, None)
            for row, pm in zip(b.aim.gaps, b.aim.gap_plus_minus_cm, strict=True)
        ]
    told = zip(b.aim.chart.rows, b.aim.plus_minus_mm, b.aim.off_cm, b.aim.counted, strict=True)
    return [
        RangeLine(
            row.distance_m,
            own,
            row.crawl_mm,
            float(pm),
            float(off),
            row.hold_over_cm,
            None if row.crawl_mm is None else count,
        )
        for row, pm, off, count in told
    ]


def _round_cards(b: Bench) -> list[list[CardLine]]:
    try:
        return list(b.aiming.round_cards)
    except RefusedError:
        return []


def _stops(b: Bench) -> list[Said]:
    """What stops the rig, each once, in the order of its route."""
    told: list[Said] = []
    for station in views(b):
        for finding in station.findings:
            if finding.level == "stop" and finding.said not in told:
                told.append(finding.said)
    return told
