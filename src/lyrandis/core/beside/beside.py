"""Two rigs side by side, or one at two dates: numbers, what differs, and what each is told."""

from __future__ import annotations

from collections.abc import Mapping

from lyrandis.core.bench import Bench
from lyrandis.core.beside.differences import ITSELF, Away, Difference, differences
from lyrandis.core.beside.numbers import FELT, numbers
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding, Said, Value, by_seriousness, say
from lyrandis.core.route import STATIONS, route_of
from lyrandis.core.stations import TELLERS
from lyrandis.core.stations.base import Answered
from lyrandis.core.stations.dangers import danger
from lyrandis.core.stations.parts_stop import part_stops
from lyrandis.core.stops import StationId
from lyrandis.core.tally import TallySource


class NumberBeside(Answered):
    """One number on both sides; `felt`: they differ by a step that an archer could notice."""

    id: str
    title: str
    station: StationId
    mine: Value | None
    other: Value | None
    mine_source: TallySource
    other_source: TallySource
    felt: bool


class ToldAt(Answered):
    """A finding of one side, and at which station it stands."""

    station: StationId
    title: str
    finding: Finding


class Beside(Answered):
    """Two sides: what differs first, their numbers, and what is told of one side alone."""

    said: Said
    differences: list[Difference]
    numbers: list[NumberBeside]
    only_mine: list[ToldAt]
    only_other: list[ToldAt]


def beside(mine: Bench, other: Bench, away: Mapping[str, Away], is_now: bool) -> Beside:
    """Compare two benches; the parameters are those of `differences`."""
    found = differences(mine, other, away, is_now)
    rows = _numbers(mine, other)
    only_mine, only_other = _told_apart(_told(mine), _told(other))
    return Beside(
        said=_said(found, rows),
        differences=found,
        numbers=rows,
        only_mine=only_mine,
        only_other=only_other,
    )


def _numbers(mine: Bench, other: Bench) -> list[NumberBeside]:
    return [
        NumberBeside(
            id=a.id,
            title=a.title,
            station=a.station,
            mine=a.value,
            other=b.value,
            mine_source=a.source,
            other_source=b.source,
            felt=(a.value is None) != (b.value is None)
            or (
                a.value is not None
                and b.value is not None
                and abs(a.value.value - b.value.value) >= FELT[a.id] - 1e-9
            ),
        )
        for a, b in zip(numbers(mine), numbers(other), strict=True)
    ]


def _said(found: list[Difference], rows: list[NumberBeside]) -> Said:
    """What there is to see, in a sentence."""
    if not found:
        return say("Nothing differs in their settings.")
    itself = {ITSELF.get(row.path) for difference in found for row in difference.rows}
    felt = [row.title.lower() for row in rows if row.felt and row.id not in itself]
    first = found[0].title
    shows = f"It shows in {', '.join(felt)}." if felt else "No number shows it."
    if len(found) == 1:
        return say(f"One thing differs: {{first}}. {shows}", first=first.lower())
    return say(f"{len(found)} things differ, first {{first}}. {shows}", first=first.lower())


def _told(b: Bench) -> list[ToldAt]:
    """What every station tells of a rig; the untold say so on their own pages."""
    told = [
        ToldAt(station="bow-length", title=STATIONS["bow-length"].title, finding=f)
        for f in part_stops(b)
    ]
    for id in route_of(b.rig).stops:
        try:
            findings = TELLERS[id].tell(b).findings
        except RefusedError:
            continue
        told += [ToldAt(station=id, title=STATIONS[id].title, finding=f) for f in findings]
    return told


def _told_apart(mine: list[ToldAt], other: list[ToldAt]) -> tuple[list[ToldAt], list[ToldAt]]:
    """The serious findings that stand on one side only, their numbers aside."""

    def only(these: list[ToldAt], those: list[ToldAt]) -> list[ToldAt]:
        known = {(danger(t.station, t.finding), t.finding.level) for t in those}
        left = [
            t
            for t in these
            if t.finding.level != "fine"
            and (danger(t.station, t.finding), t.finding.level) not in known
        ]
        order = by_seriousness([t.finding for t in left])
        return sorted(left, key=lambda t: order.index(t.finding))

    return only(mine, other), only(other, mine)
