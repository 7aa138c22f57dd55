"""The state each station is in: what was kept or checked there, and what moved since.

A station is open until something was kept or checked there; then provisional or settled as the
archer said; due when something it rests on has moved by more than its threshold since. Small
changes add up: the comparison is always with the rig as it was when the station was last kept or
checked, with the same string and the same arrows where there was such a time.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from pydantic import BaseModel

from lyrandis.core.findings import Said, say
from lyrandis.core.parts import Rig
from lyrandis.core.route.reads import READS, Seen, beyond
from lyrandis.core.route.routes import route_of
from lyrandis.core.route.watches import WATCHES, Watch
from lyrandis.core.stops import Standing, StationId

State = Literal["open", "provisional", "settled", "due"]


@dataclass(frozen=True)
class Mark:
    """A station was kept or checked: how it stands, and the rig as it was right after."""

    station: str
    standing: Standing
    rig: Rig

    @cached_property
    def seen(self) -> Seen:
        """The rig's readings then: every preview compares with the same few marks."""
        return Seen(self.rig)


class StationState(BaseModel):
    """The state of a station and, where it is due, what moved and each reason in full."""

    station: StationId
    state: State
    moved: list[str]
    reasons: list[Said]


def _latest(marks: Sequence[Mark], present: Rig) -> dict[str, Mark]:
    """The mark each station is compared with.

    What was settled with one string and one set of arrows is so again when these come back.
    """
    on = present.on

    def alike(mark: Mark) -> int:
        return (mark.rig.on.string == on.string) + (mark.rig.on.arrows == on.arrows)

    # The latest of those that are most alike: sorting keeps the order they were made in.
    return {mark.station: mark for mark in sorted(marks, key=alike)}


def _moved(watch: Watch, before: Seen, now: Seen) -> Said | None:
    read = READS[watch.read]
    a, b = before[watch.read], now[watch.read]
    gained = a is None and math.isinf(watch.threshold)  # measured since: nothing to look at again
    if gained or not beyond(a, b, watch.threshold):
        return None
    if read.quantity == "part":
        return say(f"{read.name} is another: {watch.then}.")
    if a is None or b is None:
        changed = "was set" if a is None else "is no longer set"
        return say(f"{read.name} {changed}: {watch.then}.")
    if isinstance(a, str) or isinstance(b, str):
        return say(f"{read.name} changed from {a} to {b}: {watch.then}.")
    way = "up" if b > a else "down"
    return say(
        f"{read.name} went {way} by {{change}}: {watch.then}.",
        change=(read.quantity or "count", abs(b - a)),
    )


def states(marks: Sequence[Mark], present: Rig) -> list[StationState]:
    """The state of every station of the rig's route, from the marks in the order they were made.

    Parameters
    ----------
    marks : each time a station was kept or checked
    present : the rig as it stands (or as a preview would make it)
    """
    latest = _latest(marks, present)
    now = Seen(present)
    told = []
    for id in route_of(present).stops:
        mark = latest.get(id)
        if mark is None:
            told.append(StationState(station=id, state="open", moved=[], reasons=[]))
            continue
        due = {
            READS[w.read].short: said
            for w in WATCHES
            if w.station == id and (said := _moved(w, mark.seen, now)) is not None
        }
        told.append(
            StationState(
                station=id,
                state="due" if due else mark.standing,
                moved=list(due),
                reasons=list(due.values()),
            )
        )
    return told
