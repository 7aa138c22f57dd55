"""Stateless computation about arrows, beside `compute`: matched sets and the chronograph."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from lyrandis.api.compute import Request
from lyrandis.api.routers import router_of
from lyrandis.core.arrow.chronograph import Shots
from lyrandis.core.arrow.matched_set import (
    MASS_SCALE_GR,
    MOST_SHAFTS,
    SPINE_SCALE,
    MatchedSet,
    ShaftSeen,
    sets_of,
)
from lyrandis.core.bench import Bench
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said
from lyrandis.core.parts import Archer, Bow, Rig, String
from lyrandis.core.trials.chronograph import Speed

router = router_of("compute", "/api/compute")
Mass = Annotated[float, Field(ge=50, le=2500, allow_inf_nan=False)]


class ShaftIn(Request):
    """A shaft as it was measured."""

    id: str = Field(min_length=1, max_length=40)
    mass_gr: Mass
    spine_28in: float = Field(ge=100, le=3000, allow_inf_nan=False)


class MatchedSetIn(Request):
    """Shafts, how many are wanted, and what range of weight and of spine costs alike."""

    shafts: list[ShaftIn] = Field(min_length=1, max_length=MOST_SHAFTS, fail_fast=True)
    count: int = Field(ge=1, le=MOST_SHAFTS)
    mass_scale_gr: float | None = Field(None, gt=0, le=1000, allow_inf_nan=False)
    spine_scale: float | None = Field(None, gt=0, le=2000, allow_inf_nan=False)


class SetOut(BaseModel):
    """Shafts that go together, how far they differ, and their size: 1 just fills the scales.

    said : the same in a sentence
    """

    ids: list[str]
    mass_range_gr: float
    spine_range: float
    size: float
    said: Said

    @classmethod
    def of(cls, told: MatchedSet) -> SetOut:
        """The core's set."""
        return cls(
            ids=list(told.ids),
            mass_range_gr=told.mass_range_gr,
            spine_range=told.spine_range,
            size=told.size,
            said=told.said(),
        )


class MatchedSetOut(SetOut):
    """The tightest set, the next ones of what it leaves, the leftovers, and the scales used."""

    next_sets: list[SetOut]
    leftovers: list[str]
    mass_scale_gr: float
    spine_scale: float


@router.post("/matched-set")
def compute_matched_set(body: MatchedSetIn) -> MatchedSetOut:
    """The tightest n of N shafts by weight and spine, exactly."""
    seen = [ShaftSeen(s.id, s.mass_gr, s.spine_28in) for s in body.shafts]
    scales = body.mass_scale_gr or MASS_SCALE_GR, body.spine_scale or SPINE_SCALE
    sets = sets_of(seen, body.count, *scales)
    taken = {id for one in sets for id in one.ids}
    best, *after = (SetOut.of(one) for one in sets)
    return MatchedSetOut(
        **best.model_dump(),
        next_sets=after,
        leftovers=[s.id for s in seen if s.id not in taken],
        mass_scale_gr=scales[0],
        spine_scale=scales[1],
    )


class ChronographReadingIn(Request):
    """Speeds of arrows of one mass."""

    mass_gr: Mass
    speed_fps: list[Speed] = Field(min_length=1, max_length=200, fail_fast=True)


class ChronographIn(Request):
    """The bow and who draws it, speeds by arrow weight, and weights to foretell."""

    archer: Archer
    bow: Bow
    string: String = String()
    readings: list[ChronographReadingIn] = Field(min_length=1, max_length=40, fail_fast=True)
    masses_gr: list[Mass] = Field(default=[], max_length=100, fail_fast=True)


class ChronographOut(BaseModel):
    """What the speeds say of the bow; `line` is false where they say nothing of its virtual mass.

    outliers : by reading, the shots that were left out
    scatter_pct : of one shot's speed
    """

    stored_energy_ftlb: Estimate
    virtual_mass_gr: Estimate
    speeds_fps: list[Estimate]
    scatter_pct: float
    outliers: list[list[int]]
    line: bool


@router.post("/chronograph")
def compute_chronograph(body: ChronographIn) -> ChronographOut:
    """Stored energy and virtual mass from chronograph readings, and other weights' speeds."""
    shots = [Shots(r.mass_gr, tuple(r.speed_fps)) for r in body.readings]
    bench = Bench(Rig(archer=body.archer, bow=body.bow, string=body.string))
    told = bench.arrow.calibrated(shots)
    return ChronographOut(
        stored_energy_ftlb=told.stored_energy_ftlb,
        virtual_mass_gr=told.virtual_mass_gr,
        speeds_fps=[told.speed_fps(m) for m in body.masses_gr],
        scatter_pct=100 * told.scatter_share,
        outliers=[list(out) for out in told.outliers],
        line=told.line,
    )
