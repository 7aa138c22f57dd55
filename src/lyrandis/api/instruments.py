"""Simulated bench instruments as jobs: they tell each reading as it is taken, and keep nothing."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import BaseModel, Field

from lyrandis.api.arrows import ShaftsRead
from lyrandis.api.context import AtDesk
from lyrandis.api.long import AllJobs, JobView, job_view
from lyrandis.api.rigs import Body
from lyrandis.api.routers import router_of
from lyrandis.api.scale import pulling
from lyrandis.api.streams import taken_off
from lyrandis.core.arrow.build import build
from lyrandis.core.bench import Bench
from lyrandis.core.parts import Arrow, Shaft
from lyrandis.instruments.arrow_bench import (
    ShaftReading,
    SimulatedGrainScale,
    SimulatedShaftBench,
)
from lyrandis.instruments.chronograph import SimulatedChronograph

router = router_of("jobs", "/api/jobs")


class RigIn(Body):
    """Which rig, which hidden truth behind it, and the how many-th time it is measured."""

    rig: int = Field(ge=1, le=2**53 - 1)
    seed: int = Field(1, ge=0, le=2**31)
    again: int = Field(0, ge=0, le=2**31)
    pace: float = Field(1.0, ge=0, le=10, allow_inf_nan=False)


@router.post("/pull", status_code=202)
def begin_pull(body: RigIn, desk: AtDesk, jobs: AllJobs) -> JobView:
    """Begin a pull of the simulated scale; it tells each reading, nothing is kept."""
    rig = desk.get(body.rig).present.rig
    return job_view(pulling(jobs, rig, body.seed, body.again, body.pace))


class Weighed(BaseModel):
    """What the scale read when it stood still [gr]."""

    mass_gr: float


@router.post("/weigh", status_code=202)
def begin_weighing(body: RigIn, desk: AtDesk, jobs: AllJobs) -> JobView:
    """Lay the rig's arrow on the simulated grain scale; it tells each reading, nothing is kept."""
    mass = build(desk.get(body.rig).present.rig.arrow).parts_gr
    scale = SimulatedGrainScale(mass, body.seed, body.again)
    job = taken_off(jobs, "weigh", scale, body.pace, lambda told: Weighed(mass_gr=told[-1]))
    return job_view(job)


class ShootIn(RigIn):
    """Some shots of a rig over the simulated chronograph, with arrows of some mass."""

    mass_gr: float = Field(ge=50, le=2500, allow_inf_nan=False)
    shots: int = Field(6, ge=1, le=60)


class Shot(BaseModel):
    """Speeds that the chronograph showed [ft/s]."""

    speeds_fps: list[float]


@router.post("/chronograph", status_code=202)
def begin_chronograph(body: ShootIn, desk: AtDesk, jobs: AllJobs) -> JobView:
    """Shoot over the simulated chronograph; it tells each speed, nothing is kept."""
    shot = Bench(desk.get(body.rig).present.rig).arrow.shot
    chronograph = SimulatedChronograph(
        shot.stored_energy_ftlb,
        shot.virtual_mass_gr,
        body.mass_gr,
        body.shots,
        body.seed,
        body.again,
    )
    job = taken_off(
        jobs, "chronograph", chronograph, body.pace, lambda told: Shot(speeds_fps=list(told))
    )
    return job_view(job)


class SetIn(Body):
    """A set measured shaft by shaft on the simulated scale and jig: what it is made to."""

    arrow: Arrow = Arrow()
    shafts: int = Field(12, ge=2, le=200)
    seed: int = Field(1, ge=0, le=2**31)
    again: int = Field(0, ge=0, le=2**31)
    pace: float = Field(1.0, ge=0, le=10, allow_inf_nan=False)


@router.post("/shafts", status_code=202)
def begin_shafts(body: SetIn, jobs: AllJobs) -> JobView:
    """Weigh and spine a made-up set; it tells each shaft, nothing is kept."""
    made = build(body.arrow)
    bench = SimulatedShaftBench(
        made.parts_gr, made.spine_28in, body.shafts, body.seed, body.again
    )  # fmt: skip
    return job_view(taken_off(jobs, "shafts", bench, body.pace, _as_shafts))


def _as_shafts(told: Sequence[ShaftReading]) -> ShaftsRead:
    return ShaftsRead(
        shafts=[
            Shaft(number=one.number, mass_gr=one.mass_gr, static_spine=one.spine_28in)
            for one in told
        ]
    )
