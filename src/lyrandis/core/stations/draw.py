"""Draw: how far the archer draws, how sure that is, and what it costs not to know it."""

from __future__ import annotations

import math

import numpy as np

from lyrandis.core.aim.crawls import Unshot, crawl_plus_minus_mm
from lyrandis.core.arrow.shot import draw_speed_share
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.fit.draw_length import GUESS_SD_IN, SHAKY_SPREAD_IN, THUMB_SD_MM
from lyrandis.core.fit.first_rig import ARROW_BEYOND_DRAW_IN
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.growing import growth
from lyrandis.core.units import MM_PER_IN

_CRAWL_AT_M = 30.0
_STOP_MARGIN_IN, _MIND_MARGIN_IN = 0.25, 0.75  # arrow beyond the draw
_METHODS = {
    None: "not measured yet",
    "tape": "by tape, a first guess",
    "arm_span": "by arm span, a first guess",
    "marked_arrow": "by a marked arrow",
}


def note(b: Bench) -> Said:
    """The draw length."""
    return say("{draw}", draw=("draw", b.rig.archer.draw_length_in))


def tell(b: Bench) -> Answer:
    """The draw length with its ±, and the true draw of a thumb archer."""
    a, true = b.rig.archer, b.archer.true_draw
    sd = GUESS_SD_IN if a.draw_plus_minus_in is None else a.draw_plus_minus_in
    how = _METHODS[a.draw_method]
    if a.release == "thumb":
        answer = say(
            f"The mark on the arrow says {{draw}}, {how}; the string is truly at {{true}}.",
            draw=("draw", a.draw_length_in, sd),
            true=("draw", true),
        )
    else:
        answer = say(
            f"You draw {{draw}} by the trade standard, {how}.", draw=("draw", a.draw_length_in, sd)
        )
    findings = [_certainty(b, sd)]
    if a.release == "thumb":
        findings.append(_thumb(b))
    findings.append(arrow_margin(b))
    findings += _change(b)
    findings += growth(b)
    return Answer(answer, findings)


def _crawl_cost_mm(b: Bench, sd_in: float) -> float:
    """How far [mm] a draw off by sd_in [in] moves the crawl at 30 m, by the arrow's speed alone."""
    share = draw_speed_share(b.bow.curve, b.archer.true_draw.value, sd_in)
    sight = b.aim.aimed
    at = np.array([_CRAWL_AT_M])
    alone = Unshot(share * sight.speed_mps, eye_mm=0, speed_loss_per_mm=0, q=0, kick_mrad=0)
    return float(crawl_plus_minus_mm(sight, at, alone)[0])


def _certainty(b: Bench, sd: float) -> Finding:
    a = b.rig.archer
    cost = b.bow.curve.slope(b.archer.true_draw.value) * sd
    try:
        crawl = _crawl_cost_mm(b, sd)
    except RefusedError:  # an arrow shorter than the draw has no crawls; its own finding says so
        crawl = None
    why = say(
        "Weight rises {slope} near your draw, so {sd} of draw not known is {cost} of weight not "
        "known, and grains per pound and spine with it.",
        slope=("slope", b.bow.curve.slope(b.archer.true_draw.value)),
        sd=("draw", sd),
        cost=("weight", cost),
    )
    if crawl is not None:
        more = say(
            "At {at} it is {crawl} of crawl.", at=("distance", _CRAWL_AT_M), crawl=("crawl", crawl)
        )
        why = why + more
    if a.draw_method != "marked_arrow":
        return mind(
            said=say(
                "This draw is a first guess: it leaves the weight at your draw unsure by {cost}. "
                "Draw a marked arrow five times and read the marks.",
                cost=("weight", cost),
            ),
            why=why + say("A point felt on the bow hand, or a clicker, makes a draw that repeats."),
            told="practice",
        )
    if sd > SHAKY_SPREAD_IN:
        return mind(
            said=say(
                "Your draws spread by {sd}: every later number is as shaky. A point felt on the "
                "bow hand, or a clicker, steadies it.",
                sd=("draw", sd),
            ),
            why=why,
            told="measured",
        )
    return fine(
        said=say(
            "Your draw repeats to {sd}, which is {cost} of weight.",
            sd=("draw", sd),
            cost=("weight", cost),
        ),
        why=why,
        told="measured",
    )


def _thumb(b: Bench) -> Finding:
    a = b.rig.archer
    hidden = (b.archer.true_draw.value - a.draw_length_in) * MM_PER_IN
    estimated = a.thumb_offset_mm is None
    return Finding(
        level="mind" if estimated else "fine",
        said=say(
            "The mark under-reads a thumb draw by {offset}. Pull the bow scale to {true}.",
            offset=("small", hidden, THUMB_SD_MM) if estimated else ("small", hidden),
            true=("draw", b.archer.true_draw.value),
        ),
        why=say(
            "The arrow lies above the thumb and the string slopes forward from it; estimated from "
            "the string's angle unless you measure it."
        ),
        told="model" if estimated else "measured",
    )


def arrow_margin(b: Bench) -> Finding:
    """How much longer the arrow is than the longest draw."""
    longest = b.archer.longest_in
    margin = b.rig.arrow.shaft_length_in - longest
    why = say(
        "An arrow drawn off the rest can go through the hand. Draws vary, and a tired or excited "
        "archer draws farther: judged at {longest}, the longest you logged or your mean and two "
        "spreads.",
        longest=("draw", longest),
    )
    if margin < _MIND_MARGIN_IN:
        safe = math.ceil((longest + ARROW_BEYOND_DRAW_IN) * 4) / 4  # to the next quarter
        return Finding(
            level="stop" if margin < _STOP_MARGIN_IN else "mind",
            said=say(
                "The arrow is only {margin} longer than your longest draw."
                if margin >= 0
                else "The arrow is {margin} shorter than your longest draw. Do not draw it.",
                margin=("draw", abs(margin)),
            ),
            why=why,
            told="practice",
            action=Action(
                label=say("Take a {safe} shaft", safe=("draw", safe)),
                changes={"arrow.shaft_length_in": safe},
                station="arrow",
            ),
        )
    return fine(
        said=say("The arrow is {margin} longer than your longest draw.", margin=("draw", margin)),
        why=why,
        told="practice",
    )


def short_of_the_draw(b: Bench) -> list[Finding]:
    """The same where it is no comfort, for other stations."""
    told = arrow_margin(b)
    return [] if told.level == "fine" else [told]


def _change(b: Bench) -> list[Finding]:
    """A draw that grows or shrinks by more than its measuring's doubt."""
    told = b.archer.draws
    if not told.is_change or told.change_in is None:
        return []
    change, sd = told.change_in
    way = "grew" if change > 0 else "shrank"
    return [
        mind(
            said=say(
                f"Your draw {way} by {{change}} since {told.points[0].day}: look at bow length, "
                "weight and arrow again.",
                change=("draw", abs(change), sd),
            ),
            why=say(
                "A straight line through the measured draws, each weighed by its own doubt. A "
                "growing archer or a changing form both look like this."
            ),
            told="measured",
        )
    ]
