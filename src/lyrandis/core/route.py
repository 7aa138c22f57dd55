"""The route: stations in working order, what each depends on, and the state each is in.

Dependencies and thresholds are data (`WATCHES`). A station is open until something was kept or
checked there; then provisional or settled as the archer said; due when something it rests on has
moved by more than its threshold since. Small changes add up: the comparison is always with the
rig as it was when the station was last kept or checked.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, NamedTuple

from pydantic import BaseModel

from lyrandis.core.arrow.build import build
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said, say
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.parts import Limbs, Rig, SchoolNumbers, StepUp
from lyrandis.core.stops import Standing, StationId
from lyrandis.core.words import word

State = Literal["open", "provisional", "settled", "due"]


class Station(NamedTuple):
    """One step of the work: the question it asks, and the settings that are kept there."""

    id: StationId
    title: str
    question: str
    settings: tuple[str, ...]


ROUTE: tuple[Station, ...] = (
    Station(
        "draw",
        "Draw",
        "How far do you draw?",
        (
            "archer.draw_length_in",
            "archer.draw_method",
            "archer.draw_plus_minus_in",
            "archer.hand",
            "archer.release",
            "archer.thumb_offset_mm",
            "archer.grown",
        ),
    ),
    Station(
        "bow-length",
        "Bow length",
        "How long a bow?",
        (
            "bow.form",
            "bow.takedown",
            "bow.length_in",
            "bow.riser_in",
            "bow.tips",
            "use",
            "taste",
            *(f"schools.{name}" for name in SchoolNumbers.model_fields),
        ),
    ),
    Station(
        "weight",
        "Weight",
        "What does it pull at your draw?",
        (
            "bow.marked_weight_lbf",
            "bow.marked_draw_in",
            "bow.measured",
            "bow.maker_max_draw_in",
            "bow.limb_material",
            *(f"limbs.{name}" for name in Limbs.model_fields),
            *(f"step_up.{name}" for name in StepUp.model_fields),
        ),
    ),
    Station("assembly", "Assembly", "Is it put together right?", ("assembly.done",)),
    Station(
        "string",
        "String",
        "Which string?",
        (
            "string.material",
            "string.build",
            "string.worked_in",
            "string.strands",
            "string.length_in",
            "string.mass_gr",
            "string.silencers_gr",
            "string.silencer_position",
            "string.twists",
            "bow.low_stretch_rated",
        ),
    ),
    Station(
        "brace",
        "Brace",
        "Where does the string sit?",
        (
            "bow.brace_height_in",
            "bow.brace_reference",
            "bow.brace_offset_in",
            "bow.maker_brace_low_in",
            "bow.maker_brace_high_in",
        ),
    ),
    Station(
        "nock-point", "Nock point", "Where does the arrow sit on the string?", ("nock_height_mm",)
    ),
    Station(
        "arrow",
        "Arrow",
        "Which arrow?",
        (
            "arrow.shaft_length_in",
            "arrow.grains_per_inch",
            "arrow.static_spine",
            "arrow.diameter_mm",
            "arrow.material",
            "arrow.point_gr",
            "arrow.insert_gr",
            "arrow.nock_gr",
            "arrow.fletching_gr",
            "arrow.fletching_count",
            "arrow.weighed_gr",
            "bow.side_plate",
            "bow.centre_cut_mm",
            "bow.maker_min_gpp",
        ),
    ),
    Station("quiet", "Quiet", "What still makes noise?", ()),
    Station(
        "crawls",
        "Crawls",
        "How far down the string?",
        (
            "archer.anchor",
            "archer.eye_above_nock_mm",
            "archer.finger_width_mm",
            "archer.stitch_pitch_mm",
            "aim.distances_m",
            "aim.slope_deg",
            "aim.spot_half_height_cm",
        ),
    ),
)
STATIONS: dict[str, Station] = {station.id: station for station in ROUTE}


def station_of(path: str) -> StationId | None:
    """The station at which a setting is kept; None for those of no station."""
    return next((s.id for s in ROUTE if path in s.settings), None)


class Read(NamedTuple):
    """Something a station may rest on: its name in a sentence, its quantity (None: a word)."""

    name: str
    quantity: str | None
    of: Callable[[Rig], float | str | None]

    @property
    def short(self) -> str:
        """Its name within a sentence."""
        return self.name.removeprefix("The ").lower()

    def off(self, rig: Rig) -> float | str | None:
        """Its value on a rig; None where it is not set or cannot be told."""
        try:
            return self.of(rig)
        except RefusedError:
            return None


def _weight(rig: Rig) -> float | None:
    curve = force_draw(rig.bow, rig.string.material)
    draw = true_draw_in(rig.archer, rig.bow, rig.string.material).value
    return curve.force(draw) if draw <= curve.draw_in[-1] else None


READS: dict[str, Read] = {
    "draw": Read("The draw", "draw", lambda r: r.archer.draw_length_in),
    "release": Read("The release", None, lambda r: word("archer.release", r.archer.release)),
    "form": Read("The form of bow", None, lambda r: word("bow.form", r.bow.form)),
    "length": Read("The bow's length", "bow_length", lambda r: r.bow.length_in),
    "weight": Read("The weight at your draw", "weight", _weight),
    "marking": Read("The marked weight", "weight", lambda r: r.bow.marked_weight_lbf),
    "fibre": Read(
        "The string's material", None, lambda r: word("string.material", r.string.material)
    ),
    "strands": Read("The number of strands", "count", lambda r: r.string.strands),
    "string_length": Read("The string's length", "bow_length", lambda r: r.string.length_in),
    "silencers": Read("The silencers' weight", "mass", lambda r: r.string.silencers_gr),
    "brace": Read("The brace height", "brace", lambda r: brace_to_pivot_in(r.bow)),
    "nock": Read("The nock point", "nock_height", lambda r: r.nock_height_mm),
    "arrow_mass": Read("The arrow's weight", "mass", lambda r: build(r.arrow).mass_gr),
    "shaft": Read("The shaft's length", "draw", lambda r: r.arrow.shaft_length_in),
    "spine": Read("The static spine", "spine", lambda r: r.arrow.static_spine),
    "plate": Read("The side plate", None, lambda r: word("bow.side_plate", r.bow.side_plate)),
}


class _Seen(dict[str, float | str | None]):
    """The readings of one rig, each taken when it is first asked for."""

    def __init__(self, rig: Rig) -> None:
        super().__init__()
        self.rig = rig

    def __missing__(self, name: str) -> float | str | None:
        value = self[name] = READS[name].off(self.rig)
        return value


class Watch(NamedTuple):
    """`station` rests on `read`: a move beyond `threshold` (quantity's stored unit) makes it due.

    For words the threshold is 0: any change counts. `then` says the quickest recheck.
    """

    station: StationId
    read: str
    threshold: float
    then: str


WATCHES: tuple[Watch, ...] = (
    Watch("bow-length", "draw", 0.5, "see whether the bow still fits"),
    Watch("bow-length", "release", 0, "look at the string's angle again"),
    Watch("weight", "draw", 0.25, "take the weight at the new draw"),
    Watch("weight", "length", 0.5, "weigh it again"),
    Watch("weight", "form", 0, "weigh it again"),
    Watch("assembly", "form", 0, "go through the steps for this kind of bow"),
    Watch("assembly", "length", 0.25, "look at limbs, loops and bolts again"),
    Watch("assembly", "marking", 0.5, "look at limbs, loops and bolts again"),
    Watch("assembly", "fibre", 0, "look at loops and serving, then pluck and listen"),
    Watch("assembly", "strands", 0.5, "look at loops and serving, then pluck and listen"),
    Watch("assembly", "string_length", 0.125, "look at loops and serving, then pluck and listen"),
    Watch("string", "length", 0.5, "check the string's length"),
    Watch("string", "weight", 5, "check the number of strands"),
    Watch("string", "form", 0, "check the string's length and material"),
    Watch("brace", "length", 0.5, "measure the brace height"),
    Watch("brace", "form", 0, "start from the form's usual brace height"),
    Watch("brace", "fibre", 0, "let the string settle braced overnight, then measure"),
    Watch("brace", "strands", 1, "measure the brace height again"),
    Watch("brace", "string_length", 0.125, "measure the brace height again"),
    Watch("nock-point", "brace", 0.125, "put the bow square on again"),
    Watch("nock-point", "release", 0, "start from the new release's usual height"),
    Watch("nock-point", "fibre", 0, "put the bow square on again"),
    Watch("arrow", "draw", 0.25, "check the arrow's length first, then its spine"),
    Watch("arrow", "weight", 2, "check grains per pound and spine"),
    Watch("arrow", "brace", 0.25, "read the flight again; reports differ on which way it goes"),
    Watch("arrow", "silencers", 10, "read the flight again"),
    Watch("arrow", "plate", 0, "look at the spine window again"),
    Watch("quiet", "brace", 0.125, "listen again: brace moves the sound most"),
    Watch("quiet", "strands", 0.5, "listen again"),
    Watch("quiet", "arrow_mass", 20, "listen again: a lighter arrow leaves more in the bow"),
    Watch("quiet", "silencers", 10, "listen again"),
    Watch("crawls", "draw", 0.25, "shoot the nearest and farthest crawl again"),
    Watch("crawls", "weight", 1, "shoot the nearest and farthest crawl again"),
    Watch(
        "crawls", "brace", 0.125, "read the nock height and the flight before trusting the crawls"
    ),
    Watch("crawls", "nock", 1.5, "shoot one middle distance again"),
    Watch("crawls", "arrow_mass", 8, "shoot the farthest crawl again"),
    Watch("crawls", "shaft", 0.25, "find point-on again"),
    Watch("crawls", "silencers", 20, "shoot the farthest crawl again"),
    Watch("crawls", "release", 0, "start the chart again"),
)


def moved_since(reads: Iterable[str], before: Rig, now: Rig) -> list[str]:
    """The names of those readings [keys of READS] that differ between two rigs at all."""
    was, is_now = _Seen(before), _Seen(now)
    return [READS[name].short for name in reads if was[name] != is_now[name]]


@dataclass(frozen=True)
class Mark:
    """A station was kept or checked: how it stands, and the rig as it was right after."""

    station: str
    standing: Standing
    rig: Rig

    @cached_property
    def seen(self) -> _Seen:
        """The rig's readings then: every preview compares with the same few marks."""
        return _Seen(self.rig)


class StationState(BaseModel):
    """The state of a station and, where it is due, what moved and each reason in full."""

    station: StationId
    state: State
    moved: list[str]
    reasons: list[Said]


def _moved(watch: Watch, before: _Seen, now: _Seen) -> Said | None:
    read = READS[watch.read]
    a, b = before[watch.read], now[watch.read]
    if a is None or b is None:
        if a is None and b is None:
            return None
        changed = "was set" if a is None else "is no longer set"
        return say(f"{read.name} {changed}: {watch.then}.")
    if isinstance(a, str) or isinstance(b, str):
        return None if a == b else say(f"{read.name} changed from {a} to {b}: {watch.then}.")
    change = b - a
    if abs(change) <= watch.threshold + 1e-9:
        return None
    way = "up" if change > 0 else "down"
    return say(
        f"{read.name} went {way} by {{change}}: {watch.then}.",
        change=(read.quantity or "count", abs(change)),
    )


def states(marks: Sequence[Mark], present: Rig) -> list[StationState]:
    """The state of every station, from the marks in the order they were made.

    Parameters
    ----------
    marks : each time a station was kept or checked
    present : the rig as it stands (or as a preview would make it)
    """
    latest: dict[str, Mark] = {mark.station: mark for mark in marks}
    now = _Seen(present)
    told = []
    for station in ROUTE:
        mark = latest.get(station.id)
        if mark is None:
            told.append(StationState(station=station.id, state="open", moved=[], reasons=[]))
            continue
        due = {
            READS[w.read].short: said
            for w in WATCHES
            if w.station == station.id and (said := _moved(w, mark.seen, now)) is not None
        }
        told.append(
            StationState(
                station=station.id,
                state="due" if due else mark.standing,
                moved=list(due),
                reasons=list(due.values()),
            )
        )
    return told
