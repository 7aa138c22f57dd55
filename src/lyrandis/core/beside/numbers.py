"""The numbers by which two sides are compared, and from which step on a difference is felt.

The steps are an own rule: about what a careful archer could read or hear of each.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Value
from lyrandis.core.stops import StationId
from lyrandis.core.tally import TallyEntry, TallySource, tally

# Of the numbers in the tally, in their stored units.
FELT = {
    "draw": 0.125, "weight": 0.5, "brace": 0.0625, "nock": 0.5, "mass": 2.0, "gpp": 0.1,
    "speed": 1.0, "point_on": 1.0, "angle": 1.0, "energy": 0.5, "residue": 0.3, "spine": 10.0,
    "front": 0.3,
}  # fmt: skip


class _Number(NamedTuple):
    id: str
    title: str
    station: StationId
    source: TallySource
    value: Callable[[Bench], Value]


def _plain(value: float, quantity: str) -> Value:
    return Value(value=value, quantity=quantity)


def _spine(b: Bench) -> Value:
    told = b.arrow.window.spine_28in
    if told is None:
        raise RefusedError("arrow.static_spine", "No spine can be computed for it.")
    return Value(value=told.value, quantity="spine", plus_minus=told.plus_minus)


_MORE: tuple[_Number, ...] = (
    _Number("angle", "String angle", "bow-length", "model",
            lambda b: _plain(b.bow.angle_deg, "angle")),
    _Number("energy", "Stored energy", "weight", "model",
            lambda b: _plain(b.arrow.shot.stored_energy_ftlb, "energy")),
    _Number("residue", "Stays in the bow", "arrow", "model",
            lambda b: _plain(b.arrow.shot.residual_energy_ftlb, "energy")),
    _Number("spine", "Spine that suits", "arrow", "model", _spine),
    _Number("front", "Forward of centre", "arrow", "model",
            lambda b: _plain(b.arrow.build.front_of_centre_pct, "percent_1")),
)  # fmt: skip


def numbers(b: Bench) -> list[TallyEntry]:
    """The tally and what else tells two rigs apart; without a value where it cannot be told."""
    told = tally(b)
    for number in _MORE:
        try:
            value: Value | None = number.value(b)
        except RefusedError:
            value = None
        told.append(
            TallyEntry(
                id=number.id,
                title=number.title,
                station=number.station,
                value=value,
                source=number.source,
            )
        )
    return told
