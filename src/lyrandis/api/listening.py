"""The quiet sweep and recordings, stateless; and the simulated recorder."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from fastapi import Depends, File, Form, Query, Response, UploadFile
from fastapi import Request as HttpRequest
from pydantic import BaseModel, Field, TypeAdapter, ValidationError

from lyrandis.api.compute import Request, named
from lyrandis.api.context import AtDesk, RigId
from lyrandis.api.long import AllJobs, own, waited
from lyrandis.api.problems import answers
from lyrandis.api.routers import router_of
from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.sound.events import MOST_S, Sound, analyse
from lyrandis.core.trials import Level
from lyrandis.core.tune.loudness import Visit
from lyrandis.core.tune.quiet import CheckId
from lyrandis.core.tune.sweep import Verdict, sweep
from lyrandis.files.wav import read_wav, write_wav
from lyrandis.instruments.recorder import of_rig
from lyrandis.jobs import Job, Jobs, Tell, digest

router = router_of("listening")
SWEEP_SEED = 20
Second = Annotated[float, Field(ge=0, le=MOST_S, allow_inf_nan=False)]


class VisitIn(Request):
    """One brace height listened to: levels [dB] of its shots, and the feel from 1 to 5."""

    brace_mm: float = Field(ge=50, le=360, allow_inf_nan=False)
    levels_db: list[Level] = Field(default=[], max_length=50, fail_fast=True)
    feel: float | None = Field(None, ge=1, le=5)


class SweepIn(Request):
    """The range of brace heights, and the visits in the order they were made."""

    low_mm: float = Field(ge=50, le=360, allow_inf_nan=False)
    high_mm: float = Field(ge=50, le=360, allow_inf_nan=False)
    visits: list[VisitIn] = Field(max_length=100, fail_fast=True)


class SweepCurve(BaseModel):
    """Loudness over brace, with its ±."""

    brace_mm: Array
    mean_db: Array
    sd_db: Array


class SweepOut(BaseModel):
    """The curve, where it is quietest, and what to do next."""

    curve: SweepCurve
    best_mm: float
    interval_mm: tuple[float, float]
    next_mm: float | None
    done: bool
    verdict: Verdict | None
    why: str
    sure: float
    left: float
    arrows_to_tell: int


@router.post("/compute/brace-sweep")
def compute_brace_sweep(body: SweepIn) -> SweepOut:
    """Where the bow is quietest, how sure that is, and where to listen next."""
    visits = [Visit(v.brace_mm, tuple(v.levels_db), v.feel) for v in body.visits]
    with named({"bow.maker_brace_high_in": "high_mm"}):
        told = sweep(body.low_mm, body.high_mm, visits, np.random.default_rng(SWEEP_SEED))
    return SweepOut(
        curve=SweepCurve(brace_mm=told.brace_mm, mean_db=told.mean_db, sd_db=told.sd_db),
        best_mm=told.best_mm,
        interval_mm=told.interval_mm,
        next_mm=told.next_mm,
        done=told.done,
        verdict=told.verdict,
        why=told.why.plain(),
        sure=told.sure,
        left=told.left,
        arrows_to_tell=told.arrows_to_tell,
    )


_MARKS: TypeAdapter[list[float]] = TypeAdapter(
    Annotated[list[Second], Field(max_length=60, fail_fast=True)]
)


def marks(mine_at_s: Annotated[str, Form(max_length=2000)] = "[]") -> list[float]:
    """Seconds of shots marked as the archer's own, sent as a JSON list beside the file."""
    try:
        return _MARKS.validate_json(mine_at_s or "[]")
    except ValidationError:
        raise RefusedError(
            "mine_at_s",
            f"Write the marked shots as a list of seconds between 0 and {MOST_S:g}: [1.2, 7.5].",
            unit="s",
        ) from None


Marks = Annotated[list[float], Depends(marks)]


def listening(jobs: Jobs, upload: UploadFile, added_s: list[float], mine_s: list[float]) -> Job:
    """Begin to listen to a recording; the same, with the same shots added, is heard once."""
    file = own(upload)

    def work(tell: Tell) -> Sound:
        with file:
            samples, rate = read_wav(file)
        tell()
        return analyse(samples, rate, added_s, tell, spoil=True, mine_s=mine_s)

    return jobs.start("sound", work, digest("sound", tuple(added_s), tuple(mine_s), file=file))


@router.post("/compute/sound")
async def compute_sound(
    request: HttpRequest,
    file: Annotated[UploadFile, File()],
    jobs: AllJobs,
    mine_s: Marks,
    added_s: Annotated[list[Second], Query(max_length=60)] = [],  # noqa: B006 (never changed)
) -> Sound:
    """Shots, arrivals and clicks in a WAV. Levels are differences within one session only.

    `mine_at_s` are times of shots marked as the archer's own: the others are told by likeness to
    them. `added_s` are times that the archer calls shots, whatever was found there. `ask` says why
    a shot should be marked; then none was decided on. At most two recordings are listened to at
    once; it ends when the connection is closed.
    """
    sound: Sound = await waited(request, lambda: listening(jobs, file, added_s, mine_s))
    return sound


@router.get("/rigs/{id}/recording", response_class=Response, responses=answers("audio/wav"))
def recording(
    id: RigId,
    desk: AtDesk,
    brace_in: Annotated[float | None, Query(ge=2, le=14, allow_inf_nan=False)] = None,
    shots: Annotated[int, Query(ge=1, le=20)] = 3,
    again: Annotated[int, Query(ge=0, le=2**31)] = 0,
    clicker: Annotated[Literal["yes", "no"], Query()] = "no",
    check: Annotated[CheckId | None, Query()] = None,
    done: Annotated[Literal["yes", "no"], Query()] = "no",
    clatter: Annotated[Literal["yes", "no"], Query()] = "no",
) -> Response:
    """A WAV of some shots with this rig, by the simulated recorder.

    How loud follows the rig's residue and how far the brace is from where this bow hides its
    quietest; `again` counts the takes. `check` and `done` stand for one check of the quiet list,
    `clatter` for a shaft that knocks on the bow.
    """
    rig = desk.get(id).present.rig
    recorder = of_rig(
        rig, id, brace_in, shots, again, clicker == "yes", check, done == "yes", clatter == "yes"
    )
    samples, _ = recorder.record()
    headers = {"Content-Disposition": 'attachment; filename="shots.wav"'}
    return Response(write_wav(samples, recorder.rate_hz), media_type="audio/wav", headers=headers)
