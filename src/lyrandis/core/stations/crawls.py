"""Crawls: point-on, the chart, and how far the distance may be misjudged."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from lyrandis.core.aim.crawls import FINGERS_AT_M, FINGERS_PER_M
from lyrandis.core.aim.next_visit import BUTT_HALF_CM
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.flight.scatter import AT_M
from lyrandis.core.flight.trajectory import POINT_ON_WITHIN_M, crawl_for_mm
from lyrandis.core.stations.base import Answer

_WORTH = 0.1  # of what is unsure: less is not worth a visit
_SHOWN_M = (15.0, 35.0)  # the distances of which one is told


def note(b: Bench) -> Said:
    """Point-on."""
    on = b.aim.point_on
    if on is None:
        return say("point-on beyond {far}", far=("distance", POINT_ON_WITHIN_M))
    return say("point-on {on}", on=("distance", on.value))


def tell(b: Bench) -> Answer:
    """Where the tip is on the mark, and how far down the string for the rest."""
    chart, on = b.aim.chart, b.aim.point_on
    first = chart.rows[0]
    if on is None:
        answer = say(
            "The arrow tip is never on the mark within {far}: every distance needs a crawl.",
            far=("distance", POINT_ON_WITHIN_M),
        )
    elif first.crawl_mm is None:
        answer = say(
            "The tip is on the mark at {on}; nearer than that a crawl, farther a hold over.",
            on=("distance", on),
        )
    else:
        answer = say(
            "The tip is on the mark at {on}; at {d} the hand goes {crawl} down the string.",
            on=("distance", on),
            d=("distance", first.distance_m),
            crawl=("crawl", first.crawl_mm, float(b.aim.plus_minus_mm[0])),
        )
    shot = [*_shot(b), *_next(b)] if b.aim.learned else _unproved(b)
    return Answer(answer, [*shot, *_release(b), *_danger(b), *_fingers(b), *_slope(b)])


def _unproved(b: Bench) -> list[Finding]:
    """How far the first arrows may land off, of the distances that are shot with a crawl."""
    shot = [i for i, row in enumerate(b.aim.chart.rows) if row.crawl_mm is not None]
    if not shot:
        return []
    worst = max(shot, key=lambda i: b.aim.off_cm[i])
    unshot = b.aim.unshot
    return [
        mind(
            said=say(
                "A first chart, computed and not yet shot: at {d} the crawl is good to {pm}, and "
                "the arrow may land {off} high or low. Begin at the nearest distance.",
                d=("distance", b.aim.chart.rows[worst].distance_m),
                pm=("crawl", float(b.aim.plus_minus_mm[worst])),
                off=("spot", float(b.aim.off_cm[worst])),
            ),
            why=say(
                "Speed is known to {speed}, the eye's height over the arrow to {eye}; how the string "
                "slopes, what a crawl costs in speed and how it kicks are priors. Clear range, safe "
                "backstop, nobody forward of the line.",
                speed=("speed", b.arrow.shot.speed_fps.plus_minus),
                eye=("crawl", unshot.eye_mm),
            ),
            told="model",
        )
    ]


def _shot(b: Bench) -> list[Finding]:
    """How good the chart is that was learnt from shots."""
    rows = [i for i, row in enumerate(b.aim.chart.rows) if row.crawl_mm is not None]
    told = b.aim.learned
    if not rows or told is None:
        return []
    worst = max(rows, key=lambda i: b.aim.off_cm[i])
    arrows = sum(len(v.heights_cm) for v in b.aim.visits)
    return [
        fine(
            said=say(
                "Learnt from {n} arrows: the chart is least sure at {d}, its crawl good to {pm}, or "
                "{off} on the butt.",
                n=("count", arrows),
                d=("distance", b.aim.chart.rows[worst].distance_m),
                pm=("crawl", float(b.aim.plus_minus_mm[worst])),
                off=("spot", float(b.aim.off_cm[worst])),
            ),
            why=say(
                "Your arrows spread by {spread} at {at}; a visit's own mistake does not average out, "
                "however many arrows. No speed is to be read off a chart: a faster arrow and a "
                "higher eye look alike.",
                spread=("spot", told.spread_cm_30m),
                at=("distance", AT_M),
            ),
            told="measured",
        )
    ]


def _next(b: Bench) -> list[Finding]:
    """Which distance to shoot next, and what it would settle."""
    best = b.aim.next_visits[0] if b.aim.next_visits else None
    walked = b.rig.archer.release == "three_under"
    if best is None or best.settles < _WORTH or not walked:
        return []
    at = np.array([best.distance_m])
    crawl = float(crawl_for_mm(replace(b.aim.aimed, slope_deg=0.0), at)[0])
    said = say(
        "Next, three arrows at {d} with {crawl}: of what is unsure in the chart it settles {share}.",
        d=("distance", best.distance_m),
        crawl=("crawl", max(crawl, 0.0)),
        share=("percent", 100 * best.settles),
    )
    if not best.safe:
        said = say(
            "No distance is sure to land on the butt yet: begin at {d} with {crawl}, close to a "
            "wide backstop.",
            d=("distance", best.distance_m),
            crawl=("crawl", max(crawl, 0.0)),
        )
    return [
        mind(
            said=said,
            why=say(
                "Of the distances at which a single arrow stays on a butt of {half} either way, it is "
                "the one that tells the most; it may land {off} off.",
                half=("spot", BUTT_HALF_CM),
                off=("spot", best.low_cm),
            ),
            told="model",
        )
    ]


def _release(b: Bench) -> list[Finding]:
    release = b.rig.archer.release
    if release == "three_under":
        return [
            fine(
                said=say("Some classes allow one fixed crawl only, or none. Check yours."),
                why=say("The rules of a class are the archer's to check."),
                told="practice",
            )
        ]
    how = "with a thumb ring" if release == "thumb" else "split finger"
    return [
        mind(said=say(f"You shoot {how}; walking the string is done three under."),
            why=say("The chart stands for what a hand below the arrow nock would do. Point-on and the danger spaces hold for you; the crawls do not unless you go three under."),
            told="practice",
            action=Action(
                label=say("Shoot three under"), changes={"archer.release": "three_under"}, station="draw"
            ) if release == "split" else None,
        )
    ]  # fmt: skip


def _danger(b: Bench) -> list[Finding]:
    rows = [
        r
        for r in b.aim.chart.rows
        if r.crawl_mm is not None and _SHOWN_M[0] <= r.distance_m <= _SHOWN_M[1]
    ]
    if not rows:
        return []
    row = min(rows, key=lambda r: abs(r.distance_m - FINGERS_AT_M))
    return [
        mind(
            said=say(
                "At {d} the distance may be wrong by {near} nearer or {far} farther before the arrow leaves the spot.",
                d=("distance", row.distance_m),
                near=("distance", row.distance_m - row.near_m),
                far=("distance", row.far_m - row.distance_m),
            ),
            why=say(
                "Five metres nearer it lands {high} high, five metres farther {low} low. One gap does "
                "not serve ten metres either way.",
                high=("spot", row.impact_cm_if_5m_nearer),
                low=("spot", -row.impact_cm_if_5m_farther),
            ),
            told="model",
        )
    ]


def _fingers(b: Bench) -> list[Finding]:
    rule = b.aim.chart.finger_rule
    if rule is None:
        return []
    errors = [abs(e) for e in rule.errors_cm if e is not None]
    return [
        fine(said=say(
                "In finger widths: {at20} at {near}, {step} less for each {more} farther.",
                near=("distance", FINGERS_AT_M),
                more=("distance", FINGERS_PER_M),
                at20=("fingers", rule.at_20m_fingers),
                step=("fingers", -rule.per_10m_fingers),
            ),
            why=say("Against the chart the two numbers miss by at most {worst} over your distances.", worst=("spot", max(errors))),
            told="model",
        )
    ] if errors else []  # fmt: skip


def _slope(b: Bench) -> list[Finding]:
    if b.rig.aim.slope_deg == 0:
        return []
    row = b.aim.chart.rows[-1]
    return [
        mind(
            said=say(
                "On this slope {d} shoots like {level} on the level.",
                d=("distance", row.distance_m),
                level=("distance", row.level_distance_m),
            ),
            why=say(
                "Not simply the horizontal distance: the arrow also rises with the slope. A changed body line on a slope is not modelled."
            ),
            told="model",
        )
    ]
