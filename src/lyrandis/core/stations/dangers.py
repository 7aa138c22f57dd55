"""What stops stand on a rig, all over the route: short enough to be asked of a rig only tried.

Every finding that may be a stop comes from one of these; a test holds that none is missing.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from typing import NamedTuple

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding
from lyrandis.core.stations import arrow, bow_length, brace, draw, string, weight
from lyrandis.core.stations.holding import holding_findings
from lyrandis.core.stations.limbs import limb_findings
from lyrandis.core.stations.parts_stop import part_stops
from lyrandis.core.stops import StationId


class Danger(NamedTuple):
    """A stop, told apart from others by where it stands and by its words without their numbers."""

    station: StationId
    words: str


_NUMBER = re.compile(r"\d+")
_Asked = tuple[StationId, Callable[[Bench], list[Finding]]]


def _computable(b: Bench) -> list[Finding]:
    b.arrow.shot, b.arrow.window, b.string.fit, b.brace.height, b.nock.start, b.aim.checked  # noqa: B018
    return []


_ASKED: tuple[_Asked, ...] = (
    ("draw", lambda b: [draw.arrow_margin(b)]),
    ("bow-length", bow_length.reserve),
    ("bow-length", part_stops),
    ("weight", weight.end),
    ("weight", lambda b: holding_findings(b, b.bow.weight.value)),
    ("weight", limb_findings),
    ("string", string.material),
    ("string", string.strands),
    ("brace", brace.reach),
    ("arrow", lambda b: [arrow.floor(b), *arrow.both(b), *draw.short_of_the_draw(b)]),
    ("crawls", _computable),
)


def danger(station: StationId, finding: Finding) -> Danger:
    """What a stop is told apart by."""
    return Danger(station, _NUMBER.sub("#", finding.said.text))


def _found(b: Bench) -> Iterator[tuple[Danger, tuple[float, ...]]]:
    for station, ask in _ASKED:
        try:
            for finding in ask(b):
                if finding.level == "stop":
                    values = tuple(v.value for v in finding.said.values.values())
                    yield danger(station, finding), values
        except RefusedError as error:
            yield Danger(station, f"cannot be told: {error.field}"), ()


def dangers(b: Bench) -> dict[Danger, tuple[float, ...]]:
    """Every stop of a rig with the values told in it; a station that cannot be told is one too."""
    return dict(_found(b))
