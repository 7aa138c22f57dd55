"""Stateless computation about flights: a shaft past the bow, reads, walk-back."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import BaseModel, Field

from lyrandis.api.compute import Request
from lyrandis.api.routers import router_of
from lyrandis.core.bench import Bench
from lyrandis.core.bench.flex import READ_AT_M
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said
from lyrandis.core.flight.read_filter import ClassId, Lacks, NockClass, Reading, Stop, verdict
from lyrandis.core.flight.read_tests import TESTS
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String, TestId
from lyrandis.core.tune.walk_back import LineVisit, WalkedBack, walk_back

router = router_of("compute", "/api/compute")
Offset = Annotated[float, Field(ge=-500, le=500, allow_inf_nan=False)]


class Side(BaseModel):
    """A bare shaft's outcome in two words: how it looked from behind, and at which height."""

    side: Literal["weak2", "weak", "straight", "stiff", "stiff2"]
    height: Literal["low", "level", "high"]


class TestReadingIn(Request):
    """A test, and what it showed."""

    test: TestId
    outcome: str | Side = Field(description="A bare shaft's is {side, height}.")

    def read(self) -> Reading:
        """The same for the core."""
        told = self.outcome
        words = told if isinstance(told, str) else f"{told.side}/{told.height}"
        return Reading(self.test, words)


class SpinePrior(Request):
    """What is predicted for this rig, in groups of spine, + stiff: value and sd."""

    value: float = Field(ge=-6, le=6, allow_inf_nan=False)
    sd: float = Field(gt=0.1, le=6, allow_inf_nan=False)


class ReadsIn(Request):
    """Reads since the last change, in order; what is predicted; tests that are not made."""

    readings: list[TestReadingIn] = Field([], max_length=100, fail_fast=True)
    spine_prior: SpinePrior | tuple[float, float] | None = None
    want_nock: bool = False
    without: list[TestId] = Field([], max_length=len(TESTS))


class ReasonOut(BaseModel):
    """A read, and how many times likelier it is under the verdict than under its rival."""

    test: TestId
    outcome: str
    rival: ClassId
    times: float
    speaks: Literal["for", "against"]


class OutcomeOut(BaseModel):
    """What an outcome of a next test would mean: its chance, and the classes after it."""

    outcome: str
    chance: float
    classes: dict[ClassId, float]


class NextOut(BaseModel):
    """A next test: bits it gives, what it costs, what each outcome would mean."""

    test: TestId
    bits: float
    arrows: int
    minutes: float
    outcomes: list[OutcomeOut]


class ReadsOut(BaseModel):
    """Chances of the classes and of the nock point; why; what next, most telling per cost first.

    stop : found, at nine in ten; when no test is worth its arrows within_a_group, where it is
        surely right within one, else borderline; null while reading
    between : the two likeliest classes
    found : whether the likeliest class is found: from two kinds of test at least, a false weak only
        once something looked weak and a push moved it as a bounce would
    touches_otherwise : the chance that something else than a bounce touches the bow
    within_a_group : the chance that it is right within one
    lacks : what a likely false weak still lacks to be found: a look, or a push
    """

    classes: dict[ClassId, float]
    nock: dict[NockClass, float]
    reasons: list[ReasonOut]
    next: list[NextOut]
    stop: Stop | None
    between: tuple[ClassId, ClassId]
    found: bool
    touches_otherwise: float
    within_a_group: float
    lacks: Lacks | None


def _prior(body: ReadsIn) -> tuple[float, float] | None:
    given = body.spine_prior
    if given is None:
        return None
    value, sd = (given.value, given.sd) if isinstance(given, SpinePrior) else given
    if not (abs(value) <= 6 and 0.1 < sd <= 6):
        raise RefusedError(
            "spine_prior", "A prediction is a value of at most 6 groups and an sd of 0.1 to 6."
        )
    return value, sd


@router.post("/reads")
def compute_reads(body: ReadsIn) -> ReadsOut:
    """What a series of reads says of a shaft, why, and which test would tell most."""
    told = verdict(
        [r.read() for r in body.readings], _prior(body), body.want_nock, set(body.without)
    )
    return ReadsOut(
        classes=dict(told.classes),
        nock=dict(told.nock),
        reasons=[
            ReasonOut(
                test=r.reading.test,
                outcome=r.reading.outcome,
                rival=r.rival,
                times=r.times,
                speaks="for" if r.times >= 1 else "against",
            )
            for r in told.reasons
        ],
        next=[
            NextOut(
                test=t.test,
                bits=t.bits,
                arrows=t.arrows,
                minutes=t.minutes,
                outcomes=[
                    OutcomeOut(outcome=o, chance=chance, classes=dict(classes))
                    for o, (chance, classes) in t.outcomes.items()
                ],
            )
            for t in told.next
        ],
        stop=told.stop,
        between=told.between,
        found=told.stop == "found",
        touches_otherwise=told.touches,
        within_a_group=told.within,
        lacks=told.lacks,
    )


class LineVisitIn(Request):
    """Arrows at the line from one distance; + right of it."""

    distance_m: float = Field(ge=2, le=120, allow_inf_nan=False)
    offsets_cm: list[Offset] = Field(min_length=1, max_length=60, fail_fast=True)


class WalkBackIn(Request):
    """A walk-back: its visits."""

    visits: list[LineVisitIn] = Field(min_length=1, max_length=40, fail_fast=True)


@router.post("/walk-back")
def compute_walk_back(body: WalkBackIn) -> WalkedBack:
    """What arrows at one vertical line, from near to far, say of centre shot and side plate."""
    return walk_back([LineVisit(v.distance_m, tuple(v.offsets_cm)) for v in body.visits])


class FlexIn(Request):
    """The archer, bow, string and arrow; how many frames of its way are wanted."""

    archer: Archer
    bow: Bow
    string: String = String()
    arrow: Arrow
    nock_height_mm: float | None = Field(
        None, ge=-10, le=40, allow_inf_nan=False,
        description="Taken and not used yet: only the view from above is computed.",
    )  # fmt: skip
    frames: int = Field(40, ge=0, le=200)


class Clean(BaseModel):
    """J: how clean the bare shaft leaves [°], + stiff; null where no clean direction is known."""

    j_deg: float | None
    direction_deg: float


class Contact(BaseModel):
    """The shaft's touch of the side plate [ms], its greatest push [N], how often anew."""

    first_ms: float | None
    last_ms: float | None
    peak_n: float
    touches: int


class Frame(BaseModel):
    """The shaft at a moment: the nock's way from brace, the shaft's places and offsets [mm]."""

    time_ms: float
    nock_mm: float
    along_mm: list[float]
    aside_mm: list[float]


class NockAngle(BaseModel):
    """How the nock stands [°] at a distance, + away from the plate, bare and fletched."""

    distance_m: float
    bare_deg: float
    fletched_deg: float


class FlexOut(BaseModel):
    """How a bare shaft passes the bow, seen from above; `outside` says where the model was not
    tuned: then shapes only, and no number.

    clearance_mm : the least gap between shaft and plate once the string has let go
    nock_angle_deg : by distance; none outside
    """

    clean: Clean | None
    clearance_mm: float | None
    contacts: Contact
    nock_angle_deg: list[NockAngle]
    frames: list[Frame]
    speed_mps: float
    exit_ms: float
    outside: list[Said]


@router.post("/flex")
def compute_flex(body: FlexIn) -> FlexOut:
    """A bare shaft bending past the bow, frame by frame."""
    bench = Bench(Rig(archer=body.archer, bow=body.bow, string=body.string, arrow=body.arrow))
    flex = bench.flex
    told = flex.passed(np.array([bench.arrow.build.acts_spine]), body.frames)
    way, along = flex.leaving_of(told), flex.along_mm().tolist()
    clean, angles = None, []
    if flex.fitted:
        nocks = flex.nock_angles(told, READ_AT_M)
        angles = [
            NockAngle(distance_m=d, bare_deg=bare, fletched_deg=fletched)
            for d, bare, fletched in zip(
                READ_AT_M.tolist(), nocks["bare"][0].tolist(), nocks["fletched"][0].tolist(),
                strict=True,
            )
        ]  # fmt: skip
        j = None if way.clean_deg is None else float(way.clean_deg[0])
        clean = Clean(j_deg=j, direction_deg=float(way.direction_deg[0]))
    first, last = float(told.first_s[0]), float(told.last_s[0])
    return FlexOut(
        clean=clean,
        clearance_mm=1000 * float(told.gap_m[0]),
        contacts=Contact(
            first_ms=None if np.isnan(first) else 1000 * first,
            last_ms=None if np.isnan(last) else 1000 * last,
            peak_n=float(told.peak_n[0]),
            touches=int(told.touches[0]),
        ),
        nock_angle_deg=angles,
        frames=[
            Frame(time_ms=t, nock_mm=n, along_mm=along, aside_mm=aside)
            for t, n, aside in zip(
                (1000 * told.time_s).tolist(),
                (1000 * told.nock_m).tolist(),
                flex.asides_mm(told)[:, 0].tolist(),
                strict=True,
            )
        ],
        speed_mps=told.speed_mps,
        exit_ms=1000 * told.exit_s,
        outside=list(bench.arrow.window.outside),
    )
