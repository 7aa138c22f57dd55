"""Twists and the settling of a new string, stateless."""

from __future__ import annotations

from pydantic import BaseModel, Field

from lyrandis.api.compute import Request, named
from lyrandis.api.routers import router_of
from lyrandis.core.bow.statics import solve
from lyrandis.core.estimate import Estimate
from lyrandis.core.parts import Bow, String
from lyrandis.core.string.measures import usual_length_in
from lyrandis.core.string.settling import settle
from lyrandis.core.string.twists import Twisted, twist

router = router_of("compute", "/api/compute")


class TurnsSeenIn(Request):
    """A brace height measured at a count of turns."""

    twists: float = Field(ge=0, le=200, allow_inf_nan=False)
    brace_in: float = Field(ge=2, le=14, allow_inf_nan=False)


class TwistsIn(Request):
    """A string in a bow, the turns in it, the brace it gives and the brace wanted."""

    bow: Bow
    string: String = String()
    twists_now: float = Field(ge=0, le=200, allow_inf_nan=False)
    brace_now_in: float = Field(ge=2, le=14, allow_inf_nan=False)
    brace_wanted_in: float = Field(ge=2, le=14, allow_inf_nan=False)
    observed: list[TurnsSeenIn] = Field(default=[], max_length=100, fail_fast=True)


@router.post("/twists")
def compute_twists(body: TwistsIn) -> Twisted:
    """How many turns bring the brace from one height to another; learns from `observed`."""
    bow = body.bow.model_copy(update={"brace_height_in": body.brace_now_in, "measured": ()})
    solved = solve(bow, body.string.material)
    with named({"string.twists": "twists_now", "bow.brace_height_in": "brace_wanted_in"}):
        return twist(
            solved,
            body.string,
            body.string.length_in or usual_length_in(bow),
            body.twists_now,
            body.brace_now_in,
            body.brace_wanted_in,
            [(o.twists, o.brace_in) for o in body.observed],
        )


class BracedIn(Request):
    """The brace height of a new string after some hours braced."""

    hours: float = Field(ge=0, le=2000, allow_inf_nan=False)
    brace_in: float = Field(ge=2, le=14, allow_inf_nan=False)


class SettlingIn(Request):
    """A new string on a bow and its brace heights so far."""

    bow: Bow
    string: String = String()
    readings: list[BracedIn] = Field(min_length=1, max_length=100, fail_fast=True)


class SettlingOut(BaseModel):
    """Where it stands after a fortnight; null where no creep explains the readings."""

    final_brace_in: Estimate | None
    band_in: tuple[float, float] | None
    settled: bool
    explained: bool
    settled_after_h: float | None
    next_look_h: float


@router.post("/settling")
def compute_settling(body: SettlingIn) -> SettlingOut:
    """Whether a new string has settled, where it comes to, and when to measure next.

    The fibre decides; `bow` says only what the string is on.
    """
    told = settle(body.string.material, [(r.hours, r.brace_in) for r in body.readings])
    return SettlingOut(
        final_brace_in=told.final_brace_in if told.explained else None,
        band_in=told.band_in if told.explained else None,
        settled=told.settled,
        explained=told.explained,
        settled_after_h=told.settled_after_h if told.explained else None,
        next_look_h=told.next_look_h,
    )
