"""Walking the string: the crawls' answer, how they are counted, and what they ask of the bow."""

from __future__ import annotations

from lyrandis.core.aim.crawls import FINGERS_AT_M, FINGERS_PER_M
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding, Said, fine, mind, say
from lyrandis.core.flight.trajectory import POINT_ON_WITHIN_M

_COST_WORTH_CM = 3.0  # a rounding that costs more is worth a finer count
_AN_INCH_IN = 28.0  # an inch more of such a draw, for comparison


def crawl_answer(b: Bench) -> Said:
    """Point-on, and the crawl of the nearest distance."""
    on, first = b.aim.point_on, b.aim.chart.rows[0]
    if on is None:
        return say(
            "The arrow tip is never on the mark within {far}: every distance needs a crawl.",
            far=("distance", POINT_ON_WITHIN_M),
        )
    if first.crawl_mm is None:
        return say(
            "The tip is on the mark at {on}; nearer than that a crawl, farther a hold over.",
            on=("distance", on),
        )
    return say(
        "The tip is on the mark at {on}; at {d} the hand goes {crawl} down the string; "
        "that ± is {off} on the butt.",
        on=("distance", on),
        d=("distance", first.distance_m),
        crawl=("crawl", first.crawl_mm, float(b.aim.plus_minus_mm[0])),
        off=("spot", float(b.aim.off_cm[0])),
    )


def crawl_findings(b: Bench) -> list[Finding]:
    """How the crawls are counted, how much they ask of the bow, and the class."""
    return [*_counting(b), *_fingers(b), *_share(b), _class()]


def _counting(b: Bench) -> list[Finding]:
    """What the rounding to marks or fingers costs, where the archer counts so."""
    way = b.rig.aim.counted_by
    walked = [
        (row, of)
        for row, of in zip(b.aim.chart.rows, b.aim.counted, strict=True)
        if row.crawl_mm is not None
    ]
    if way == "mm" or not walked:
        return []
    row, worst = max(
        walked,
        key=lambda at: abs(at[1].marks_cost_cm if way == "marks" else at[1].fingers_cost_cm),
    )
    cost = abs(worst.marks_cost_cm if way == "marks" else worst.fingers_cost_cm)
    count = ("marks", worst.marks) if way == "marks" else ("finger_parts", worst.fingers)
    said = say(
        "Rounded to what you count, the worst is {d}: {count} lands {off} off.",
        d=("distance", row.distance_m),
        count=count,
        off=("spot", cost),
    )
    why = say(
        "Tab marks are rounded as finely as you say you can set them, finger widths to a quarter. "
        "It comes on top of the chart's own doubt."
    )
    level = mind if cost > _COST_WORTH_CM else fine
    return [level(said=said, why=why, told="model")]


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


def _share(b: Bench) -> list[Finding]:
    """The largest crawl beside the bow's length, and what it does to the bow."""
    share = b.aiming.largest_share
    if not share:
        return []
    largest = float(b.aim.checked.max())
    said = say(
        "The largest crawl, {crawl}, is {share} of the bow's length: it tips the limbs against each "
        "other.",
        crawl=("crawl", largest),
        share=("percent", 100 * share),
    )
    why = say(
        "Drawing {one} farther at a draw of {draw} is {inch}, for comparison. A crawl makes the arrow a "
        "little slower and noisier, and asks for a higher nock point: tune it with the crawls you "
        "use most, then look at the largest with a bare shaft.",
        one=("draw", 1.0),
        draw=("draw", _AN_INCH_IN),
        inch=("percent", 100 / _AN_INCH_IN),
    )
    return [fine(said=said, why=why, told="practice")]


def _class() -> Finding:
    return fine(
        said=say("Some classes allow one fixed crawl only, or none. Check yours."),
        why=say("The rules of a class are the archer's to check."),
        told="practice",
    )
