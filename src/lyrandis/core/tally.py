"""The tally: the seven numbers always in sight, each with its source."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from pydantic import BaseModel

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Value
from lyrandis.core.fit.draw_length import GUESS_SD_IN
from lyrandis.core.stops import StationId

TallySource = Literal["model", "rule", "measured", "set"]


class TallyEntry(BaseModel):
    """One number of the tally; `value` is None where it cannot be told."""

    id: str
    title: str
    station: StationId
    value: Value | None
    source: TallySource


def _told(quantity: str, estimate: Estimate) -> tuple[Value, TallySource]:
    value = Value(value=estimate.value, quantity=quantity, plus_minus=estimate.plus_minus)
    return value, estimate.source


def _draw(b: Bench) -> tuple[Value, TallySource]:
    a = b.rig.archer
    sd = GUESS_SD_IN if a.draw_plus_minus_in is None else a.draw_plus_minus_in
    measured = a.draw_method == "marked_arrow"
    return (
        Value(value=a.draw_length_in, quantity="draw", plus_minus=sd),
        "measured" if measured else "rule",
    )


def _brace(b: Bench) -> tuple[Value, TallySource]:
    return Value(
        value=b.brace.height.brace_in, quantity="brace"
    ), "rule" if b.brace.height.assumed else "set"


def _nock(b: Bench) -> tuple[Value, TallySource]:
    n = b.nock.start
    return Value(value=n.height_mm, quantity="nock_height"), "rule" if n.assumed else "set"


def _mass(b: Bench) -> tuple[Value, TallySource]:
    m = b.arrow.build
    spread = None if m.measured else m.sd_gr
    value = Value(value=m.mass_gr, quantity="mass", plus_minus=spread)
    return value, "measured" if m.measured else "rule"


def _point_on(b: Bench) -> tuple[Value, TallySource]:
    if b.aim.point_on is None:
        raise RefusedError("archer.eye_above_nock_mm", "Point-on lies beyond 400 m.")
    return _told("distance", b.aim.point_on)


_ENTRIES: tuple[tuple[str, str, StationId, Callable[[Bench], tuple[Value, TallySource]]], ...] = (
    ("draw", "Draw", "draw", _draw),
    (
        "weight",
        "At your draw",
        "weight",
        lambda b: _told("weight", b.arrow.shot.weight_at_draw_lbf),
    ),
    ("brace", "Brace", "brace", _brace),
    ("nock", "Nock point", "nock-point", _nock),
    ("mass", "Arrow", "arrow", _mass),
    ("gpp", "Grains per pound", "arrow", lambda b: _told("gpp", b.arrow.gpp)),
    ("speed", "Speed", "arrow", lambda b: _told("speed", b.arrow.shot.speed_fps)),
    ("point_on", "Point-on", "crawls", _point_on),
)


def tally(bench: Bench) -> list[TallyEntry]:
    """The tally of a rig; an entry that cannot be told has no value."""
    told = []
    for id, title, station, of in _ENTRIES:
        value: Value | None
        try:
            value, source = of(bench)
        except RefusedError:
            value, source = None, "model"
        told.append(TallyEntry(id=id, title=title, station=station, value=value, source=source))
    return told
