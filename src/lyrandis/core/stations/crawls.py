"""Aim: point-on, the chart of crawls or gaps, and how far the distance may be misjudged."""

from __future__ import annotations

from lyrandis.core.aim.crawls import rule_off_cm
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding, Said, mind, say
from lyrandis.core.flight.trajectory import POINT_ON_WITHIN_M
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.gapping import gap_answer, gap_findings
from lyrandis.core.stations.shot_chart import misjudged, proof
from lyrandis.core.stations.walking import crawl_answer, crawl_findings

_FINEST_CM = 0.5  # nobody reads a butt finer


def note(b: Bench) -> Said:
    """Point-on."""
    on = b.aim.point_on
    if on is None:
        return say("point-on beyond {far}", far=("distance", POINT_ON_WITHIN_M))
    return say("point-on {on}", on=("distance", on.value))


def tell(b: Bench) -> Answer:
    """Where the tip is on the mark, and how far down the string or off the spot for the rest."""
    walks = b.rig.aims_by == "crawls"
    answer = crawl_answer(b) if walks else gap_answer(b)
    own = crawl_findings(b) if walks else gap_findings(b)
    return Answer(answer, [*proof(b), *misjudged(b), *own, *_slope(b)])


def _slope(b: Bench) -> list[Finding]:
    if b.rig.aim.slope_deg == 0:
        return []
    row = (b.aim.chart.rows if b.rig.aims_by == "crawls" else b.aim.gaps)[-1]
    off = rule_off_cm(b.aim.aimed, row.distance_m, row.level_distance_m)
    return [
        mind(
            said=say(
                "On this slope {d} shoots like {level} on the level, to within {off}.",
                d=("distance", row.distance_m),
                level=("distance", row.level_distance_m),
                off=("spot", max(abs(off), _FINEST_CM)),
            ),
            why=say(
                "Not simply the horizontal distance: the arrow also rises with the slope. A changed body line on a slope is not modelled."
            ),
            told="model",
        )
    ]
