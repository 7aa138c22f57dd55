"""A growing archer: when to measure again, and the room that is left in arrow and bow."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding, mind, say
from lyrandis.core.fit.draw_history import DAYS_PER_MONTH

MARGIN_IN = 0.75  # what an arrow is longer than the longest draw, with comfort


def room_in(b: Bench) -> tuple[float, float]:
    """How much more draw [in] the arrow and the bow allow; under nought where none is left."""
    bow_end = b.bow.curve.end_in
    limit = b.rig.bow.maker_max_draw_in
    bow = (bow_end if limit is None else min(bow_end, limit)) - b.archer.longest_true_in
    return b.rig.arrow.shaft_length_in - MARGIN_IN - b.archer.longest_in, bow


def growth(b: Bench) -> list[Finding]:
    """What a child's growing asks for; nothing for a grown archer."""
    day = b.archer.measure_again
    if day is None:
        return []
    try:
        arrow, bow = room_in(b)
    except RefusedError:  # the bow cannot be drawn so far: its own stop says so
        return []
    when = "today" if days_between(day, day_of(b.now)) >= 0 else f"on {day}"
    left = {"arrow": ("draw", max(arrow, 0.0)), "bow": ("draw", max(bow, 0.0))}
    text = (
        "A child grows out of the arrows first: they leave room for {arrow} more of draw, the bow "
        "for {bow}."
    )
    told = b.archer.draws
    rate = told.per_month_in if told.is_change else None
    if rate is not None and rate > 0 and arrow > 0:
        weeks = round(arrow / rate * DAYS_PER_MONTH / 7)
        text += (
            f" At the rate so far the arrows last about {weeks} week{'' if weeks == 1 else 's'}."
        )
    return [
        mind(
            said=say(f"{text} Measure the draw again {when}.", **left),
            why=say(
                "Judged at the longest draw, with {margin} of arrow beyond it. Every eight weeks "
                "while a child grows: an own rule.",
                margin=("draw", MARGIN_IN),
            ),
            told="practice",
        )
    ]
