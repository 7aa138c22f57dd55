"""What differs between two rigs: setting by setting, or a whole part where another one is on.

Each is tried alone on the first rig: what the models say it would do there, and whether it may be
set there without making a stop. What moves most comes first.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from lyrandis.core.bench import Bench
from lyrandis.core.beside.numbers import FELT, numbers
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import field_notes, value_at
from lyrandis.core.findings import Said, Value, say
from lyrandis.core.fit.put_on import fitted
from lyrandis.core.history import plain_value
from lyrandis.core.logbook import setting_said
from lyrandis.core.parts import OWNED, SLOT_NAMES, Part, Rig, Slot
from lyrandis.core.route import STATION_OF_SLOT, station_of
from lyrandis.core.stations.base import Answered
from lyrandis.core.stations.tried import Proof
from lyrandis.core.stops import StationId
from lyrandis.core.tally import TallyEntry
from lyrandis.core.trials import KINDS, MEASURED, KeptTrial

_NOT_COMPARED = {"name", "notes"}
_MOST_TRIALS = 3  # told of a setting on each side
# A number that is the setting itself says nothing more of it.
ITSELF = {
    "archer.draw_length_in": "draw",
    "bow.brace_height_in": "brace",
    "nock_height_mm": "nock",
}


class Row(Answered):
    """One setting on both sides."""

    path: str
    title: str
    mine: Said
    other: Said


class Back(Answered):
    """How the other side's comes to this one: settings to keep, or a part to put on."""

    station: StationId | None
    changes: dict[str, Any]
    slot: Slot | None
    mark: str | None


class Difference(Answered):
    """What differs; `does`: what the other side's would do here, by the models.

    mine, other : names of the two parts, where another one is on
    trials_mine, trials_other : what was tried with it as it is here, and as it is there
    back : how it comes here; None where it cannot, and `not_back` says why
    """

    title: str
    mine: str
    other: str
    station: StationId | None
    rows: list[Row]
    does: list[Said]
    trials_mine: list[Said]
    trials_other: list[Said]
    back: Back | None
    not_back: Said | None


@dataclass(frozen=True)
class Away:
    """A part of the other side as it is now, and why it cannot be put on; "" where it can."""

    part: Part
    why: str


def differing_paths(mine: Rig, other: Rig) -> list[str]:
    """The settings in which two rigs differ, in the order of the fields; parts apart."""
    return [
        path
        for path in field_notes()
        if path not in _NOT_COMPARED and value_at(mine, path) != value_at(other, path)
    ]


def other_parts(mine: Rig, other: Rig) -> list[Slot]:
    """The slots in which another part is on."""
    here, there = mine.on.slots(), other.on.slots()
    return [slot for slot, mark in here.items() if slot in there and there[slot] != mark]


def differences(
    mine: Bench, other: Bench, away: Mapping[str, Away], is_now: bool
) -> list[Difference]:
    """What differs between two rigs, what moves most first.

    Parameters
    ----------
    away : the other side's parts as they are now, by mark
    is_now : whether the first rig is one as it stands: only then anything can be set on it
    """
    here, proof = numbers(mine), Proof(mine)
    told: list[tuple[float, Difference]] = []
    for group in _groups(mine.rig, other.rig):
        changes = _values(other.rig, group.paths)
        if group.slot is not None:
            changes[f"on.{group.slot}"] = getattr(other.rig.on, group.slot)
        back, why = None, None
        if is_now:
            back, why = _back(mine, other, group, changes, away, proof)
        told.append(_told(mine, other, here, group, changes, back, why))
    told.sort(key=lambda pair: -pair[0])  # stable: where nothing moves, in the fields' order
    return [difference for _, difference in told]


@dataclass(frozen=True)
class _Group:
    """What differs together: a part's settings where another is on, a build, or one setting.

    measured : settings that trials gave; they are shown, not set
    """

    title: str
    paths: tuple[str, ...]
    slot: Slot | None = None
    measured: tuple[str, ...] = ()
    otherwise: bool = False


# What was measured of a part goes with it.
_MEASURED_OF: dict[Slot, str] = {
    "arrows": "arrow.weighed_gr", "string": "string.mass_gr", "bow": "bow.measured",
    "riser": "bow.measured", "upper_limb": "bow.measured", "lower_limb": "bow.measured",
}  # fmt: skip
# A takedown's length and weight follow from riser and limbs.
_COMBINED = ("bow.length_in", "bow.marked_weight_lbf")
_APART: tuple[Slot, ...] = ("riser", "upper_limb", "lower_limb")


def _groups(mine: Rig, other: Rig) -> list[_Group]:
    left = dict.fromkeys(differing_paths(mine, other))
    found: list[_Group] = []

    def take(wanted: Iterable[str]) -> tuple[str, ...]:
        taken = tuple(path for path in list(left) if path in set(wanted))
        for path in taken:
            del left[path]
        return taken

    if mine.bow.takedown != other.bow.takedown:
        built = [path for path in left if path in OWNED["bow"] or path.startswith("limbs.")]
        measured = take(["bow.measured"])
        found.append(_Group("Another build of bow", take([*built, "bow.takedown"]),
                            measured=measured, otherwise=True))  # fmt: skip
    for slot in other_parts(mine, other):
        measured = take([_MEASURED_OF[slot]] if slot in _MEASURED_OF else [])
        own = take([*OWNED[slot], *(_COMBINED if slot in _APART else ())])
        found.append(_Group(f"Another {SLOT_NAMES[slot]}", own, slot, measured))
    titles = field_notes()
    for path in list(left):
        measured = (path,) if path in MEASURED else ()
        found.append(_Group(titles[path].title, () if measured else (path,), measured=measured))
    return found


def _values(rig: Rig, paths: Iterable[str]) -> dict[str, Any]:
    return {path: plain_value(value_at(rig, path)) for path in paths}


def _told(
    mine: Bench,
    other: Bench,
    here: Sequence[TallyEntry],
    group: _Group,
    changes: Mapping[str, Any],
    back: Back | None,
    why: Said | None,
) -> tuple[float, Difference]:
    shown = (*group.paths, *group.measured)
    tried = changes if group.paths or group.slot else _values(other.rig, group.measured)
    does, size = _effects(mine, here, tried, {ITSELF.get(path) for path in shown})
    station = STATION_OF_SLOT[group.slot] if group.slot else None
    station = station or next((s for p in shown if (s := station_of(p)) is not None), None)
    return size, Difference(
        title=group.title,
        mine=_name(mine, group.slot),
        other=_name(other, group.slot),
        station=station,
        rows=[
            Row(
                path=path,
                title=field_notes()[path].title,
                mine=setting_said(path, value_at(mine.rig, path)),
                other=setting_said(path, value_at(other.rig, path)),
            )
            for path in shown
        ],
        does=does,
        trials_mine=_tried(mine, other, station, changes, mine.rig),
        trials_other=_tried(mine, other, station, changes, other.rig),
        back=back,
        not_back=why,
    )


def _name(b: Bench, slot: Slot | None) -> str:
    return b.parts[slot].name if slot is not None and slot in b.parts else ""


def _effects(
    mine: Bench, here: Sequence[TallyEntry], changes: Mapping[str, Any], itself: set[str | None]
) -> tuple[list[Said], float]:
    """What the models say changes would do to the numbers, and how many steps the most moves."""
    try:
        there = numbers(mine.with_changes(changes))
    except RefusedError as error:
        return [say("By the models it would not go here: {why}", why=error.reason)], 0.0
    found: list[tuple[float, Said]] = []
    for was, now in zip(here, there, strict=True):
        if was.id in itself:
            continue
        if was.value is None or now.value is None:
            if was.value is not now.value:
                found.append(
                    (1.0, say(f"{was.title} can{'not' if now.value is None else ''} be told"))
                )
            continue
        steps = abs(now.value.value - was.value.value) / FELT[was.id]
        if steps >= 1 - 1e-9:
            found.append((steps, _moved(was.title, was.value, now.value)))
    found.sort(key=lambda pair: -pair[0])
    return [said for _, said in found], max((steps for steps, _ in found), default=0.0)


def _moved(title: str, was: Value, now: Value) -> Said:
    by = now.value - was.value
    return say(
        f"{title} {'up' if by > 0 else 'down'} by about {{by}} to {{to}}",
        by=(was.quantity, abs(by)),
        to=now,
    )


def _tried(
    mine: Bench,
    other: Bench,
    station: StationId | None,
    changes: Mapping[str, Any],
    like: Rig,
) -> list[Said]:
    """What was tried at a station with the settings as one side has them, the latest first."""
    every = {(k.rig_id, k.seq, k.at): k for b in (other, mine) for k in b.known}
    kinds = {name for name, kind in KINDS.items() if kind.station == station}
    paths = [path for path in changes if path not in MEASURED]

    def with_it(kept: KeptTrial) -> bool:
        return all(value_at(kept.rig, path) == value_at(like, path) for path in paths)

    found = [
        k for k in every.values() if k.trial.kind in kinds and not k.struck and with_it(k)
    ] if paths else []  # fmt: skip
    found.sort(key=lambda k: (k.day, k.at, k.seq), reverse=True)
    return [k.trial.said().around(f"{k.day}: ", ".") for k in found[:_MOST_TRIALS]]


def _back(
    mine: Bench,
    other: Bench,
    group: _Group,
    changes: dict[str, Any],
    away: Mapping[str, Away],
    proof: Proof,
) -> tuple[Back | None, Said | None]:
    if group.slot is not None:
        return _part_back(mine, other, group.slot, away, proof)
    if group.otherwise:
        return None, say(
            "Built otherwise: say so at Bow length first, then put its parts on at Assembly."
        )
    if not group.paths:
        return None, say("Measured: it is measured again, not set back.")
    if not proof.holds(None, changes):
        return None, say("Alone it would make or move a stop here.")
    return Back(station=station_of(group.paths[0]), changes=changes, slot=None, mark=None), None


def _part_back(
    mine: Bench, other: Bench, slot: Slot, away: Mapping[str, Away], proof: Proof
) -> tuple[Back | None, Said | None]:
    mark = getattr(other.rig.on, slot)
    if mark not in away:
        return None, say("That part is not on the rack any more.")
    there = away[mark]
    if there.why:
        return None, say("{why}", why=there.why)
    try:
        changes = fitted(mine.rig, slot, there.part, mark)
    except RefusedError as error:
        return None, say("{why}", why=error.reason)
    if not proof.holds(None, changes):
        return None, say("Alone it would make or move a stop here.")
    return Back(station=STATION_OF_SLOT[slot], changes={}, slot=slot, mark=mark), None
