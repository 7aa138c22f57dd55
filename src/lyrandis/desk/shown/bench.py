"""A rig as the pages show it, in parts: each is computed only where a station shows it.

Adding a part is its line in `BenchView`, in `_PARTS` and in `_SHOWS`.
"""

from __future__ import annotations

from collections.abc import Callable, Collection
from typing import Any

from pydantic import BaseModel, ConfigDict

from lyrandis.core.arrow.build import Build
from lyrandis.core.assembly import AssemblyStep, steps_for
from lyrandis.core.bench import Bench
from lyrandis.core.conditions import to_release
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Said
from lyrandis.core.fit.draw_history import DrawHistory
from lyrandis.core.fit.draw_length import DrawLines, draw_lines
from lyrandis.core.fit.hold import Held, Hold
from lyrandis.core.fit.limbs import BoltTurn, LimbPair
from lyrandis.core.flex.window import SpineWindow
from lyrandis.core.inspection import PlaceId
from lyrandis.core.parts import Rig
from lyrandis.core.route import route_of
from lyrandis.core.stations import RailNote, StationView, notes, views
from lyrandis.core.stations.parts_stop import part_stops
from lyrandis.core.stops import RouteId, StationId
from lyrandis.core.string.measures import StringFit
from lyrandis.core.tally import TallyEntry, tally
from lyrandis.core.tune.centre_shot import CentreShot
from lyrandis.core.tune.in_line import InLine
from lyrandis.core.tune.listening import Listening
from lyrandis.core.tune.nock_point import NockStart
from lyrandis.core.tune.nock_reads import NockFound, NockRead
from lyrandis.core.tune.quiet import Quiet
from lyrandis.core.tune.tiller import Tiller
from lyrandis.desk.shown.aim import CrawlsView, crawls_view
from lyrandis.desk.shown.archer import StepUpPlanView, plan_view
from lyrandis.desk.shown.arrow import ChronographView, ShotView, chronograph_view, shot_view
from lyrandis.desk.shown.bow import (
    BowLengthView,
    ForceDrawView,
    bow_length_view,
    force_draw_view,
)
from lyrandis.desk.shown.brace import BraceView, brace_view
from lyrandis.desk.shown.flight import (
    GroupsView,
    ReadingView,
    WalkBackView,
    groups_view,
    reading_view,
    walk_back_view,
)
from lyrandis.desk.shown.shaft import FlyersView, Levers, ShaftView, flyers_view, levers, shaft_view
from lyrandis.desk.shown.string import SettlingView, TurnsSeen, settling_view, turns_seen


class RouteView(BaseModel):
    """The route that a rig is on, what bows it is for, and its stations in working order."""

    id: RouteId
    bows: str
    stops: list[StationId]


def route_view(rig: Rig) -> RouteView:
    """The route of a rig."""
    route = route_of(rig)
    return RouteView(id=route.id, bows=route.bows, stops=list(route.stops))


class BenchView(BaseModel):
    """A rig with its rail and tally, the stations asked for, and the parts these show.

    stop : why a part of it must not be shot; to_release : what was found that only a word frees
    arrow_left : whether the arrow lies to the left of the bow as the archer sees it
    hurt : the hold whose pain still stops
    A part is None where it was not asked for, where there is none of it, and where the models
    refuse the rig: then the station says why.
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    rig: Rig
    route: RouteView
    tally: list[TallyEntry]
    notes: list[RailNote]
    stations: list[StationView]
    takedown_recurve: bool
    arrow_left: bool
    stop: Said | None
    to_release: list[PlaceId]
    draw_lines: DrawLines
    force_draw: ForceDrawView | None = None
    bow_length: BowLengthView | None = None
    draws: DrawHistory | None = None
    hold: Hold | None = None
    hurt: Held | None = None
    limbs: LimbPair | None = None
    bolts: BoltTurn | None = None
    plan: StepUpPlanView | None = None
    assembly: list[AssemblyStep] | None = None
    string: StringFit | None = None
    settling: SettlingView | None = None
    turns_seen: list[TurnsSeen] | None = None
    in_line: InLine | None = None
    tiller: Tiller | None = None
    centre_shot: CentreShot | None = None
    brace: BraceView | None = None
    listening: Listening | None = None
    nock: NockStart | None = None
    nock_reads: tuple[NockRead, ...] | None = None
    nock_found: NockFound | None = None
    shot: ShotView | None = None
    chronograph: ChronographView | None = None
    arrow: Build | None = None
    window: SpineWindow | None = None
    levers: Levers | None = None
    shaft: ShaftView | None = None
    flyers: FlyersView | None = None
    reading: ReadingView | None = None
    walk_back: WalkBackView | None = None
    groups: GroupsView | None = None
    quiet: Quiet | None = None
    crawls: CrawlsView | None = None


_PARTS: dict[str, Callable[[Bench], Any]] = {
    "force_draw": force_draw_view,
    "bow_length": bow_length_view,
    "draws": lambda b: b.archer.draws,
    "hold": lambda b: b.bow.hold,
    "hurt": lambda b: b.archer.strength.pain,
    "limbs": lambda b: b.arrow.limb_pair if b.rig.bow.is_takedown_recurve else None,
    "bolts": lambda b: b.bow.bolts if b.rig.bow.is_takedown_recurve else None,
    "plan": plan_view,
    "assembly": lambda b: list(steps_for(b.rig.bow)),
    "string": lambda b: b.string.fit,
    "settling": settling_view,
    "turns_seen": turns_seen,
    "in_line": lambda b: b.in_line.told,
    "tiller": lambda b: b.tiller.told,
    "centre_shot": lambda b: b.centre_shot.at,
    "brace": brace_view,
    "listening": lambda b: b.brace.listening,
    "nock": lambda b: b.nock.start,
    "nock_reads": lambda b: b.nock.reads,
    "nock_found": lambda b: b.nock.found,
    "shot": shot_view,
    "chronograph": chronograph_view,
    "arrow": lambda b: b.arrow.build,
    "window": lambda b: b.arrow.window,
    "levers": levers,
    "shaft": shaft_view,
    "flyers": flyers_view,
    "reading": reading_view,
    "walk_back": walk_back_view,
    "groups": groups_view,
    "quiet": lambda b: b.quiet,
    "crawls": crawls_view,
}
_SHOWS: dict[StationId, tuple[str, ...]] = {
    "draw": ("force_draw", "draws"),
    "bow-length": ("force_draw", "bow_length"),
    "weight": ("force_draw", "hold", "hurt", "limbs", "bolts", "plan"),
    "assembly": ("force_draw", "assembly"),
    "string": ("force_draw", "string", "settling", "turns_seen", "brace"),
    "tiller": ("force_draw", "tiller"),
    "in-line": ("in_line",),
    "centre-shot": ("centre_shot", "window"),
    "weights": ("force_draw",),
    "final-tiller": ("force_draw", "tiller"),
    "brace": ("force_draw", "brace", "listening", "turns_seen"),
    "nock-point": ("nock", "nock_reads", "nock_found", "brace"),
    "arrow": ("shot", "chronograph", "arrow", "window", "levers", "shaft", "flyers"),
    "flight": ("reading", "walk_back", "groups", "arrow", "window"),
    "quiet": ("quiet",),
    "crawls": ("crawls",),
}


def _part(name: str, b: Bench) -> Any:
    try:
        return _PARTS[name](b)
    except RefusedError:
        return None


def bench_view(b: Bench, parts: Collection[StationId] | None = None) -> BenchView:
    """A rig's numbers.

    Parameters
    ----------
    parts : the stations whose pages are asked for; None asks for every number
    """
    shown = _PARTS if parts is None else {name for id in parts for name in _SHOWS[id]}
    return BenchView(
        rig=b.rig,
        route=route_view(b.rig),
        tally=tally(b),
        notes=notes(b),
        stations=views(b, parts),
        takedown_recurve=b.rig.bow.is_takedown_recurve,
        arrow_left=b.rig.arrow_left,
        stop=next((f.said for f in part_stops(b)), None),
        to_release=list(to_release(b.stopped)),
        draw_lines=draw_lines(b.rig.archer, b.rig.bow),
        **{name: _part(name, b) for name in shown},
    )
