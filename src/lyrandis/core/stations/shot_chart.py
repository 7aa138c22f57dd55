"""What a chart rests on, shots or not; what to shoot next; and what a misjudged distance costs."""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from lyrandis.core.aim.crawls import FINGERS_AT_M
from lyrandis.core.aim.next_visit import BUTT_HALF_CM
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, fine, joined, mind, say
from lyrandis.core.flight.scatter import AT_M
from lyrandis.core.flight.trajectory import crawl_for_mm, impact_m

_WORTH = 0.1  # of what is unsure: less is not worth a visit
_SHOWN_M = (15.0, 35.0)  # the distances of which one is told
_EYE_MM = (30.0, 200.0)  # what the eye's height may be set to
_EYE_STEP_MM = 1.0


def proof(b: Bench) -> list[Finding]:
    """How good the chart is, and what would make it better."""
    told = [*_contradiction(b), *_lent(b)]
    return [*told, *_shot(b), *_next(b)] if b.aim.learned else [*told, *_unproved(b)]


class _Worst(NamedTuple):
    """The distance of which the chart is least sure: ± of its crawl, None of a gap, and on the
    butt."""

    distance_m: float
    crawl_mm: float | None
    off_cm: float


def _least_sure(b: Bench) -> _Worst | None:
    if b.rig.aims_by != "crawls":
        at = int(np.argmax(b.aim.gap_plus_minus_cm))
        return _Worst(b.aim.gaps[at].distance_m, None, float(b.aim.gap_plus_minus_cm[at]))
    rows = [i for i, row in enumerate(b.aim.chart.rows) if row.crawl_mm is not None]
    if not rows:
        return None
    at = max(rows, key=lambda i: b.aim.off_cm[i])
    row = b.aim.chart.rows[at]
    return _Worst(row.distance_m, float(b.aim.plus_minus_mm[at]), float(b.aim.off_cm[at]))


def _unproved(b: Bench) -> list[Finding]:
    """How far the first arrows may land off."""
    worst = _least_sure(b)
    if worst is None:
        return []
    d, off = ("distance", worst.distance_m), ("spot", worst.off_cm)
    if worst.crawl_mm is None:
        said = say(
            "A first chart, computed and not yet shot: at {d} the arrow may land {off} high or low. "
            "Begin at the nearest distance.",
            d=d,
            off=off,
        )
    else:
        said = say(
            "A first chart, computed and not yet shot: at {d} the crawl is good to {pm}, and the "
            "arrow may land {off} high or low. Begin at the nearest distance.",
            d=d,
            pm=("crawl", worst.crawl_mm),
            off=off,
        )
    return [
        mind(
            said=said,
            why=say(
                "Speed is known to {speed}, the eye's height over the arrow to {eye}; how the string "
                "slopes, what a crawl costs in speed and how it kicks are priors. Clear range, safe "
                "backstop, nobody forward of the line.",
                speed=("speed", b.arrow.shot.speed_fps.plus_minus),
                eye=("crawl", b.aim.unshot.eye_mm),
            ),
            told="model",
        )
    ]


def _shot(b: Bench) -> list[Finding]:
    """How good the chart is that was learnt from shots."""
    worst, told = _least_sure(b), b.aim.learned
    if worst is None or told is None or not b.aim.visits:
        return []
    arrows = sum(len(v.heights_cm) for v in b.aim.shot)
    source = "Learnt from {n} arrows" if arrows else "From what you knew before"
    crawl = "" if worst.crawl_mm is None else "its crawl good to {pm}, or "
    values: dict[str, tuple[str, float]] = {
        "d": ("distance", worst.distance_m), "off": ("spot", worst.off_cm),
    }  # fmt: skip
    if arrows:
        values["n"] = ("count", arrows)
    if worst.crawl_mm is not None:
        values["pm"] = ("crawl", worst.crawl_mm)
    return [
        fine(
            said=say(
                f"{source}: the chart is least sure at {{d}}, {crawl}{{off}} on the butt.", **values
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


def _lent(b: Bench) -> list[Finding]:
    """What another set's chart lends to this one."""
    lent = b.aim.lent
    if lent is None:
        return []
    other = lent.rig.arrow
    return [
        fine(
            said=say(
                "This set's chart begins from your other set's ({shaft} shaft, {n} visits): its eye "
                "and its string are borrowed, its speed goes by the arrows' weights.",
                shaft=("draw", other.shaft_length_in),
                n=("count", lent.visits),
            ),
            why=say(
                "The same archer and bow; shaft, nock and feathers may still have a will of their "
                "own. Two visits with this set make the chart its own."
            ),
            told="measured",
        )
    ]


def _contradiction(b: Bench) -> list[Finding]:
    """Whether what was shot or known asks for another eye than the rig's."""
    told = b.aiming.implied
    if told is None or not told.contradicts:
        return []
    eye = round(told.eye_mm.value / _EYE_STEP_MM) * _EYE_STEP_MM
    now = b.rig.archer.eye_above_nock_mm
    source = "Your shots ask" if b.aim.shot else "What you knew before asks"
    settable = _EYE_MM[0] <= eye <= _EYE_MM[1]
    return [
        mind(
            said=say(
                f"{source} for an eye {{eye}} over the arrow nock, not {{now}}: measure it, or trust "
                "the shots.",
                eye=("crawl", told.eye_mm),
                now=("crawl", now),
            ),
            why=say(
                "Taken with the rig's own speed. A faster or slower arrow than computed would look "
                "the same: a chronograph tells the two apart."
            ),
            told="measured",
            action=Action(
                label=say("Trust the shots"),
                changes={"archer.eye_above_nock_mm": eye},
                station="crawls",
            )
            if settable
            else None,
        )
    ]


def _next(b: Bench) -> list[Finding]:
    """Which distance to shoot next, and what it would settle."""
    best = b.aim.next_visits[0] if b.aim.next_visits else None
    if best is None or best.settles < _WORTH:
        return []
    at = np.array([best.distance_m])
    level = replace(b.aim.aimed, slope_deg=0.0)
    if b.rig.aims_by == "crawls":
        crawl = max(float(crawl_for_mm(level, at)[0]), 0.0)
        how = say("with {crawl}", crawl=("crawl", crawl))
    else:
        gap = 100 * float(impact_m(level, b.rig.steady_crawl_mm, at)[0])
        way = "under" if gap >= 0 else "over"
        how = say(f"with the tip {{gap}} {way} the spot", gap=("spot", abs(gap)))
    where = joined(say("at {d}", d=("distance", best.distance_m)), how, " ")
    said = joined(
        where.around("Next, three arrows ", ": "),
        say(
            "of what is unsure in the chart it settles {share}.",
            share=("percent", 100 * best.settles),
        ),
    )
    if not best.safe:
        said = where.around(
            "No distance is sure to land on the butt yet: begin ", ", close to a wide backstop."
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


def misjudged(b: Bench) -> list[Finding]:
    """How wrong a distance may be, and what the archer's own judging costs."""
    every = b.aim.chart.rows if b.rig.aims_by == "crawls" else b.aim.gaps
    rows = [r for r in every if _SHOWN_M[0] <= r.distance_m <= _SHOWN_M[1]]
    if b.rig.aims_by == "crawls":
        rows = [r for r in rows if getattr(r, "crawl_mm", None) is not None]
    if not rows:
        return _judging(b)
    row = min(rows, key=lambda r: abs(r.distance_m - FINGERS_AT_M))
    off = [row.impact_cm_if_5m_nearer, row.impact_cm_if_5m_farther]
    way = ["high" if cm >= 0 else "low" for cm in off]
    return [
        mind(
            said=say(
                "At {d} the distance may be wrong by {near} nearer or {far} farther before the arrow "
                "leaves the spot.",
                d=("distance", row.distance_m),
                near=("distance", row.distance_m - row.near_m),
                far=("distance", row.far_m - row.distance_m),
            ),
            why=say(
                f"Five metres nearer it lands {{nearer}} {way[0]}, five metres farther {{farther}} "
                f"{way[1]}. One gap does not serve ten metres either way.",
                nearer=("spot", abs(off[0])),
                farther=("spot", abs(off[1])),
            ),
            told="model",
        ),
        *_judging(b),
    ]


def _judging(b: Bench) -> list[Finding]:
    """What the archer's own judging of distance costs in hits."""
    told, with_it = b.aiming.judged, b.aiming.judged_hits
    if told is None or with_it is None:
        return []
    known = float(b.aiming.hits().mean())
    habit = (
        say(
            "You guess {bias} too "
            + ("far" if told.bias.value > 0 else "near")
            + " as a rule, and "
            "{spread} either way besides",
            bias=("percent", abs(100 * told.bias.value), 100 * told.bias.plus_minus),
            spread=("percent", told.spread.times(100)),
        )
        if told.real
        else say("You guess distances to {spread}", spread=("percent", told.spread.times(100)))
    )
    return [
        mind(
            said=joined(
                habit.ended(": "),
                say(
                    "over your distances it takes the hits in the spot from {known} to {judged}.",
                    known=("percent", 100 * known),
                    judged=("percent", 100 * float(with_it.mean())),
                ),
            ),
            why=say(
                "From {n} guesses walked, with your arrows' own scatter up and down and a chart that "
                "is right; sideways misses are not counted.",
                n=("count", told.guesses),
            ),
            told="measured",
        )
    ]
