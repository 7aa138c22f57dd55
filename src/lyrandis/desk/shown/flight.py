"""What is shown of the flight: the reads and what they come to, and the shaft passing the bow."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lyrandis.core.bench import Bench
from lyrandis.core.bench.flex import READ_AT_M
from lyrandis.core.bench.movers import Moved, what_moves
from lyrandis.core.findings import Said
from lyrandis.core.flex.vertical import HIGHEST_MM, LOWEST_MM
from lyrandis.core.flex.window import GROUP_WEAKER
from lyrandis.core.flight.looks import CELLS
from lyrandis.core.flight.read_filter import CLASSES, ClassId
from lyrandis.core.flight.read_tests import TESTS
from lyrandis.core.flight.read_words import HOW, TITLES, nock_words, outcome_words
from lyrandis.core.parts import TestId
from lyrandis.core.stations.flight import IS
from lyrandis.core.trials.flight_read import KICKS
from lyrandis.core.tune.group_tuning import GroupsTold
from lyrandis.core.tune.walk_back import LineVisit, WalkedBack

FRAMES = 96
DRAWN_EVERY = 2  # nodes
LINE_POINTS = 30
SIDE_AT_M = 5.0  # where the nock's height is told


@dataclass(frozen=True)
class OutcomeWords:
    """An outcome as scripts name it, and in words."""

    id: str
    words: str


@dataclass(frozen=True)
class TestView:
    """A test that can be made: what it asks, and what it may show; bits by cost where it is next.

    on_block : whether it is logged nock by nock on the 3×3 block
    worth : bits a unit of cost, an arrow or two minutes; None where it is not offered
    """

    id: TestId
    title: str
    how: str
    arrows: int
    on_block: bool
    outcomes: list[OutcomeWords]
    left_out: bool
    worth: float | None


@dataclass(frozen=True)
class BlockPlace:
    """A place of the block: its number, and how a nock there stands."""

    cell: int
    words: str


@dataclass(frozen=True)
class ClassView:
    """A class, in words, and its chance."""

    id: ClassId
    words: str
    chance: float


@dataclass(frozen=True)
class ReadingView:
    """The reads of this rig: what they come to, and every test that there is.

    block : each place of the 3×3 block by its number, and how a nock there stands, in words
    plate_left : whether the arrow stands to the left of the bow as the archer sees it
    """

    classes: list[ClassView]
    tests: list[TestView]
    block: list[BlockPlace]
    plate_left: bool


def reading_view(b: Bench) -> ReadingView:
    """The reads as they are shown."""
    left, told = b.rig.arrow_left, b.reading.verdict
    worth = {t.test: t.worth for t in told.next}
    return ReadingView(
        classes=[ClassView(c, IS[c], told.classes[c]) for c in CLASSES],
        tests=[
            TestView(
                id=id,
                title=TITLES[id],
                how=HOW[id],
                arrows=test.arrows,
                on_block=id in KICKS,
                outcomes=[OutcomeWords(o, outcome_words(id, o, left)) for o in test.outcomes],
                left_out=id in b.rig.reading.left_out,
                worth=worth.get(id),
            )
            for id, test in TESTS.items()
        ],
        block=[BlockPlace(cell, nock_words((cell,))) for cell in CELLS],
        plate_left=left,
    )


@dataclass(frozen=True)
class WalkBackView:
    """The walk-back: its visits, what they say, and the line through them [m, cm]."""

    visits: list[LineVisit]
    told: WalkedBack | None
    line: list[tuple[float, float]]


def walk_back_view(b: Bench) -> WalkBackView:
    """The walk-back as it is shown."""
    visits, told = b.walk_back.visits, b.walk_back.told
    line = [] if told is None else told.line([v.distance_m for v in visits], LINE_POINTS)
    return WalkBackView(visits, told, line)


@dataclass(frozen=True)
class GroupsView:
    """Group tuning: the setting that was stepped through and what its groups say.

    title, quantity : of the setting; now : its value on the rig as it stands
    """

    title: str
    quantity: str
    now: float | None
    told: GroupsTold


def groups_view(b: Bench) -> GroupsView | None:
    """The groups as they are shown; None before two steps of one setting."""
    tuned = b.groups.tuned
    if tuned is None or tuned.read.quantity is None:
        return None
    now = tuned.read.off(b.rig)
    return GroupsView(
        tuned.read.short,
        tuned.read.quantity,
        float(now) if isinstance(now, float | int) else None,
        tuned.told,
    )


@dataclass(frozen=True)
class ShaftShot:
    """A shaft of some spine past the bow.

    clean_deg : J, + stiff; None outside the model's range
    first_ms, last_ms, peak_n, touches : of the side plate; None where it is not touched
    gap_mm : the least gap behind the string's leaving; below 0 it leaned in
    aside_mm : by frame and node, + away from the plate
    push_n : of the plate by frame
    nock_deg : bare, by distance; + away from the plate
    """

    spine: float
    clean_deg: float | None
    first_ms: float | None
    last_ms: float | None
    peak_n: float
    touches: int
    gap_mm: float
    aside_mm: list[list[float]]
    push_n: list[float]
    nock_deg: list[float]
    fletched_deg: list[float]


@dataclass(frozen=True)
class CleanCurve:
    """J over spine, smoothed, where the model covers this bow."""

    spine: list[float]
    clean_deg: list[float]
    match: float | None
    false_below: float | None
    flat: bool


@dataclass(frozen=True)
class FromTheSide:
    """How the nock stands over the error of the nock point, bare at SIDE_AT_M; + up."""

    error_mm: list[float]
    nock_up_deg: list[float]
    at_m: float


@dataclass(frozen=True)
class PassingView:
    """Bare shafts past this bow, seen from above: a stiffer one, the present one, a weaker one.

    outside : why there are shapes only
    plate_at_mm : from the braced nock; plate_mm : its surface from the string's plane, + outward
    exit_ms : when the string lets go
    """

    shots: list[ShaftShot]
    time_ms: list[float]
    nock_mm: list[float]
    along_mm: list[float]
    distance_m: list[float]
    plate_at_mm: float
    plate_mm: float
    radius_mm: float
    exit_ms: float
    speed_mps: float
    curve: CleanCurve | None
    low: float | None
    high: float | None
    outside: list[Said]


def passing_view(b: Bench) -> PassingView:
    """The shaft passing the bow.

    Raises
    ------
    RefusedError : an arrow shorter than the draw, or a bow that cannot be drawn so far.
    """
    flex, acts, window = b.flex, b.arrow.build.acts_spine, b.arrow.window
    spines = np.array([acts / GROUP_WEAKER, acts, acts * GROUP_WEAKER])
    told = flex.passed(spines, FRAMES)
    fitted = flex.fitted
    way = flex.leaving_of(told)
    clean = way.clean_deg if fitted else None
    nocks = flex.nock_angles(told, READ_AT_M) if fitted else None
    aside = flex.asides_mm(told)[..., ::DRAWN_EVERY]
    shots = []
    for i, spine in enumerate(spines.tolist()):
        touched = bool(np.isfinite(told.first_s[i]))
        shots.append(
            ShaftShot(
                spine=spine,
                clean_deg=None if clean is None else float(clean[i]),
                first_ms=1000 * float(told.first_s[i]) if touched else None,
                last_ms=1000 * float(told.last_s[i]) if touched else None,
                peak_n=float(told.peak_n[i]),
                touches=int(told.touches[i]),
                gap_mm=1000 * float(told.gap_m[i]),
                aside_mm=np.round(aside[:, i], 2).tolist(),
                push_n=np.round(told.push_n[:, i], 2).tolist(),
                nock_deg=[] if nocks is None else nocks["bare"][i].tolist(),
                fletched_deg=[] if nocks is None else nocks["fletched"][i].tolist(),
            )
        )
    return PassingView(
        shots=shots,
        time_ms=(1000 * told.time_s).tolist(),
        nock_mm=(1000 * told.nock_m).tolist(),
        along_mm=flex.along_mm()[::DRAWN_EVERY].tolist(),
        distance_m=READ_AT_M.tolist() if fitted else [],
        plate_at_mm=1000 * flex.setting.plate_at_m,
        plate_mm=1000 * flex.setting.offset_m,
        radius_mm=b.rig.arrow.diameter_mm / 2,
        exit_ms=1000 * told.exit_s,
        speed_mps=told.speed_mps,
        curve=_curve(b),
        low=window.low,
        high=window.high,
        outside=list(window.outside),
    )


def _curve(b: Bench) -> CleanCurve | None:
    found = b.arrow.window.clean
    if found is None:
        return None
    return CleanCurve(
        found.spine.tolist(), found.clean_deg.tolist(), found.match, found.false_below, found.flat
    )


@dataclass(frozen=True)
class ChangesView:
    """What changes would do to the read: settings that move it, and the nock point's height."""

    movers: list[Moved]
    side: FromTheSide | None


def changes_view(b: Bench) -> ChangesView:
    """What moves the shaft, and how its nock stands over the nock point's error; outside neither.

    Raises
    ------
    RefusedError : as for the shaft passing the bow.
    """
    if not b.flex.fitted:
        return ChangesView([], None)
    errors = np.arange(LOWEST_MM, HIGHEST_MM + 0.1, 1.0).tolist()
    ups = [b.flex.nock_up_deg(e, SIDE_AT_M) for e in errors]
    return ChangesView(what_moves(b), FromTheSide(errors, ups, SIDE_AT_M))
