"""Aiming with the tip off the spot: the gaps' answer, and the one crawl of a class."""

from __future__ import annotations

from lyrandis.core.aim.gaps import GapRow
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.flight.trajectory import POINT_ON_WITHIN_M

_TOLD_AT_M = 20.0
_BETTER_CM = 10.0  # of the largest gap: a one crawl that spares less is not worth a change


def _near(b: Bench) -> tuple[GapRow, float]:
    """The row that is told, and its ±."""
    rows = list(zip(b.aim.gaps, b.aim.gap_plus_minus_cm, strict=True))
    return min(rows, key=lambda at: abs(at[0].distance_m - _TOLD_AT_M))


def gap_answer(b: Bench) -> Said:
    """Point-on, and the gap near 20 m."""
    on = b.aim.point_on
    row, pm = _near(b)
    way = "under" if row.gap_cm >= 0 else "over"
    gap = ("spot", abs(row.gap_cm), float(pm))
    if on is None:
        return say(
            f"The arrow tip is never on the mark within {{far}}; at {{d}} hold it {{gap}} {way} "
            "the spot.",
            far=("distance", POINT_ON_WITHIN_M),
            d=("distance", row.distance_m),
            gap=gap,
        )
    return say(
        f"The tip is on the mark at {{on}}; at {{d}} hold it {{gap}} {way} the spot.",
        on=("distance", on),
        d=("distance", row.distance_m),
        gap=gap,
    )


def gap_findings(b: Bench) -> list[Finding]:
    """How a gap is seen, and why gaps and not crawls."""
    row, _ = _near(b)
    seen = fine(
        said=say(
            "At {d} the gap seen beside the tip is {tips} wide.",
            d=("distance", row.distance_m),
            tips=("shafts", abs(row.tip_widths)),
        ),
        why=say(
            "The same gap, measured at the arrow's tip in widths of the shaft: it needs no guess of "
            "centimetres on a far butt."
        ),
        told="model",
    )
    return [seen, *(_one_crawl(b) if b.rig.aims_by == "one" else _why_gaps(b))]


def _one_crawl(b: Bench) -> list[Finding]:
    """Which one crawl would leave smaller gaps."""
    _, least = b.aiming.one_crawls
    now = max(abs(r.gap_cm) for r in b.aim.gaps)
    if now - least.largest_gap_cm < _BETTER_CM:
        return [
            fine(
                said=say(
                    "Of all single crawls {own} leaves about the smallest gaps over your distances, "
                    "at most {gap}.",
                    own=("crawl", b.rig.steady_crawl_mm),
                    gap=("spot", now),
                ),
                why=say(
                    "Counted over the distances of the chart; the class's word on it is final."
                ),
                told="model",
            )
        ]
    return [
        mind(
            said=say(
                "With one crawl of {best} no gap of your distances is larger than {gap}; now it is "
                "{now}.",
                best=("crawl", least.crawl_mm),
                gap=("spot", least.largest_gap_cm),
                now=("spot", now),
            ),
            why=say("Counted over the distances of the chart; the class's word on it is final."),
            told="model",
            action=Action(
                label=say("Try {best}", best=("crawl", least.crawl_mm)),
                changes={"aim.one_crawl_mm": least.crawl_mm},
                station="crawls",
            ),
        )
    ]


def _why_gaps(b: Bench) -> list[Finding]:
    release = b.rig.archer.release
    if release == "three_under":
        return [
            fine(
                said=say("Your class allows no crawl: the card carries gaps."),
                why=say("The rules of a class are the archer's to check."),
                told="practice",
            )
        ]
    how = "with a thumb ring" if release == "thumb" else "split finger"
    return [
        fine(
            said=say(f"You shoot {how}: the hand stays at the nock, and the card carries gaps."),
            why=say("Walking the string is done three under, with the whole hand below the arrow."),
            told="practice",
            action=Action(
                label=say("Shoot three under"),
                changes={"archer.release": "three_under"},
                station="draw",
            )
            if release == "split"
            else None,
        )
    ]
