"""What is shown of aiming: the chart of crawls or gaps, what the eye sees, and what was weighed."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lyrandis.core.aim.anchors import GAP_AT_M, NEAR_M, Anchored
from lyrandis.core.aim.counting import Counted
from lyrandis.core.aim.crawls import CrawlRow, FingerRule
from lyrandis.core.aim.gaps import GapRow
from lyrandis.core.aim.judging import LEAST, Judged
from lyrandis.core.aim.learn import visit_sd_cm
from lyrandis.core.aim.next_visit import NextVisit
from lyrandis.core.aim.one_crawl import OneCrawl
from lyrandis.core.aim.round_card import CardLine
from lyrandis.core.aim.sight import SightPicture
from lyrandis.core.arrays import Array
from lyrandis.core.bench import Bench
from lyrandis.core.bench.aiming import LONGER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.trajectory import crawl_for_mm, impact_m
from lyrandis.core.parts import SLOT_NAMES
from lyrandis.core.parts.rig import AimsBy
from lyrandis.core.units import M_PER_FT

# As far as a hand would drag a sight picture: from a row's crawl, and from its gap.
_DRAGGED_MM = np.linspace(-30.0, 30.0, 25)
_DRAGGED_MRAD = np.linspace(-30.0, 30.0, 25)
_MOST_CRAWL_MM = 160.0


@dataclass(frozen=True)
class Dragged:
    """What a distance's sight picture becomes when it is dragged, step by step, shape (n,).

    set_to : the crawl [mm], or the gap [cm] of one who holds gaps
    over_mrad : the tip over the spot; landed_mrad, height_cm : the arrow over the spot
    shaft_share : how far the shaft falls away under the tip, as a share of the picture's own
    """

    set_to: list[float]
    over_mrad: list[float]
    height_cm: list[float]
    landed_mrad: list[float]
    shaft_share: list[float]


@dataclass(frozen=True)
class VisitShown:
    """A visit that counts: its distance, and the crawl [mm], or gap [cm], that would have hit,
    with its ±; known: told beforehand and not shot here."""

    distance_m: float
    known: bool
    crawl_mm: float
    plus_minus_mm: float
    gap_cm: float
    gap_plus_minus_cm: float


@dataclass(frozen=True)
class NextShown:
    """A distance to shoot next; set_to: the crawl [mm] or gap [cm] to do it with."""

    distance_m: float
    set_to: float
    settles: float
    safe: bool
    low_cm: float


@dataclass(frozen=True)
class CrawlsView:
    """The chart with its ±: of crawls where the string is walked, else of gaps.

    next : the most telling distance that is safe; walking_back : the next of equal steps
    rows, plus_minus_mm, off_cm, counted : of crawls; gaps, gap_plus_minus_cm : of gaps
    """

    way: AimsBy
    crawl_mm: float
    point_on_m: Estimate | None
    rows: tuple[CrawlRow, ...]
    plus_minus_mm: list[float]
    off_cm: list[float]
    counted: list[Counted]
    dragged: list[Dragged]
    gaps: tuple[GapRow, ...]
    gap_plus_minus_cm: list[float]
    finger_rule: FingerRule | None
    sights: tuple[SightPicture, ...]
    visits: list[VisitShown]
    shot: bool
    next: NextShown | None
    walking_back: NextShown | None


def crawls_view(b: Bench) -> CrawlsView:
    """The aim's answer."""
    walks, a = b.rig.aims_by == "crawls", b.aim
    return CrawlsView(
        way=b.rig.aims_by,
        crawl_mm=b.rig.steady_crawl_mm,
        point_on_m=a.point_on,
        rows=a.chart.rows if walks else (),
        plus_minus_mm=a.plus_minus_mm.tolist() if walks else [],
        off_cm=a.off_cm.tolist() if walks else [],
        counted=a.counted if walks else [],
        dragged=_dragged_crawls(b) if walks else _dragged_gaps(b),
        gaps=() if walks else a.gaps,
        gap_plus_minus_cm=[] if walks else a.gap_plus_minus_cm.tolist(),
        finger_rule=a.chart.finger_rule if walks else None,
        sights=a.sights,
        visits=visits_shown(b),
        shot=bool(a.shot),
        next=_shown(b, a.next_visits[0]) if a.next_visits else None,
        walking_back=None if a.walking_back is None else _shown(b, a.walking_back),
    )


def _shown(b: Bench, n: NextVisit) -> NextShown:
    """A distance to shoot next, with the crawl or the gap to do it with."""
    level = replace(b.aim.aimed, slope_deg=0.0)
    at = np.array([n.distance_m])
    if b.rig.aims_by == "crawls":
        set_to = max(float(crawl_for_mm(level, at)[0]), 0.0)
    else:
        set_to = 100 * float(impact_m(level, b.rig.steady_crawl_mm, at)[0])
    return NextShown(n.distance_m, set_to, n.settles, n.safe, n.low_cm)


def _dragged_crawls(b: Bench) -> list[Dragged]:
    told = []
    for row, sight in zip(b.aim.chart.rows, b.aim.sights, strict=True):
        own = row.crawl_mm or 0.0
        crawl = np.unique(np.clip(own + _DRAGGED_MM, 0.0, _MOST_CRAWL_MM))
        held = (row.hold_over_cm or 0.0) / 100
        up = impact_m(b.aim.aimed, crawl, row.distance_m) + held
        eye = b.aim.aimed.eye_mm - b.aim.aimed.q * np.array([own, *crawl])
        told.append(_dragged(crawl, np.full(len(crawl), sight.over_mrad), up, row.distance_m, eye))
    return told


def _dragged_gaps(b: Bench) -> list[Dragged]:
    told = []
    for row in b.aim.gaps:
        gap = row.gap_cm + _DRAGGED_MRAD / 10 * row.distance_m
        over = -gap * 10 / row.distance_m
        up = (row.gap_cm - gap) / 100
        told.append(_dragged(gap, over, up, row.distance_m, np.ones(len(gap) + 1)))
    return told


def _dragged(set_to: Array, over: Array, up_m: Array, distance_m: float, eye: Array) -> Dragged:
    return Dragged(
        set_to.tolist(),
        over.tolist(),
        (100 * up_m).tolist(),
        (1000 * up_m / distance_m).tolist(),
        (eye[1:] / eye[0]).tolist(),
    )


@dataclass(frozen=True)
class JudgedRow:
    """A distance: the hits when it is known and as the archer judges, and how well it must be."""

    distance_m: float
    hits: float
    judged_hits: float | None
    within_m: float


@dataclass(frozen=True)
class AnchorShown:
    """An anchor: its name, empty for a height of the eye alone; own: the archer's as it is."""

    anchor: str
    own: bool
    told: Anchored


@dataclass(frozen=True)
class ArrowTallyShown:
    """A part by its name, and its arrows: all, those of the last 7 and of the last 30 days."""

    part: str
    arrows: int
    week: int
    month: int


@dataclass(frozen=True)
class ImpliedShown:
    """What the visits ask for where little else is presumed."""

    eye_mm: Estimate
    speed_fps: Estimate
    contradicts: bool


@dataclass(frozen=True)
class AimingView:
    """What an archer would weigh about the aim.

    longer : the shaft left longer_in longer; nearer_m : how much that brings point-on nearer
    most_hits, least_gap : the one crawl for all distances, by either measure
    round_cards : of each of the courses
    guesses, more_guesses : distances judged, and how many more it takes to tell
    """

    anchors: list[AnchorShown]
    near_m: float
    gap_at_m: float
    longer_in: float
    nearer_m: float | None
    largest_share: float | None
    most_hits: OneCrawl
    least_gap: OneCrawl
    spread_cm_30m: float
    judged: Judged | None
    guesses: list[list[float]]
    more_guesses: int
    rows: list[JudgedRow]
    round_cards: list[list[CardLine]]
    arrow_tally: list[ArrowTallyShown]
    implied: ImpliedShown | None


def aiming_view(b: Bench) -> AimingView:
    """What an archer would weigh about the aim."""
    a = b.aiming
    own = next(r for r in a.anchors if r.own)
    nearer = None
    if a.longer is not None and a.longer.point_on_m and own.told.point_on_m:
        nearer = own.told.point_on_m.value - a.longer.point_on_m.value
    most, least = a.one_crawls
    with_it = a.judged_hits
    return AimingView(
        anchors=[AnchorShown(r.anchor, r.own, r.told) for r in a.anchors],
        near_m=NEAR_M,
        gap_at_m=GAP_AT_M,
        longer_in=LONGER_IN,
        nearer_m=nearer,
        largest_share=a.largest_share,
        most_hits=most,
        least_gap=least,
        spread_cm_30m=b.aim.spread_cm_30m,
        judged=a.judged,
        guesses=[[g, d] for g, d in a.guesses],
        more_guesses=max(LEAST - len(a.guesses), 0),
        rows=[
            JudgedRow(d, float(h), None if with_it is None else float(with_it[i]), float(w))
            for i, (d, h, w) in enumerate(
                zip(b.rig.aim.distances_m, a.hits(), a.judged_within_m, strict=True)
            )
        ],
        round_cards=a.round_cards,
        arrow_tally=[
            ArrowTallyShown(SLOT_NAMES[t.slot], t.arrows, t.week, t.month) for t in b.arrow_tally
        ],
        implied=None
        if a.implied is None
        else ImpliedShown(
            a.implied.eye_mm, a.implied.speed_mps.times(1 / M_PER_FT), a.implied.contradicts
        ),
    )


def visits_shown(b: Bench) -> list[VisitShown]:
    """Each visit as the crawl that would have hit, by the learnt archer's own slope there."""
    told, visits = b.aim.learned, b.aim.visits
    if told is None or not visits:
        return []
    d, c = np.array([[v.distance_m, v.crawl_mm] for v in visits]).T
    _, by_crawl = told.slopes(c, d)
    off = np.array([np.mean(v.heights_cm) for v in visits]) / 100
    arrows = np.array([len(v.heights_cm) for v in visits])
    sd = visit_sd_cm(d, arrows, told.spread_cm_30m) / 100
    doubts = [None if v.doubt_cm is None else v.doubt_cm / 100 for v in visits]
    sd = np.array([s if doubt is None else doubt for s, doubt in zip(sd, doubts, strict=True)])
    return [
        VisitShown(
            float(x),
            doubt is not None,
            float(max(hit, 0.0)),
            float(pm),
            float(100 * gap),
            float(100 * s),
        )
        for x, doubt, hit, pm, gap, s in zip(
            d, doubts, c - off / by_crawl, np.abs(sd / by_crawl), off, sd, strict=True
        )
    ]
