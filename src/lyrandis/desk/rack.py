"""What the pages show of parts: the rack, a part with its story, and whom a change reaches."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from pydantic import BaseModel, ConfigDict

from lyrandis.core.conditions import Stopped, stopped_by
from lyrandis.core.dates import days_between, later
from lyrandis.core.fields import part_changed
from lyrandis.core.findings import Said, say
from lyrandis.core.inspection import INSPECT_EVERY_DAYS
from lyrandis.core.part_story import described, kept_said, line_said, size_in
from lyrandis.core.parts import Part, PartKind, Slot, belonging
from lyrandis.core.route import STATIONS, states
from lyrandis.desk.rigs import Desk
from lyrandis.store.kept import Kept, Listed
from lyrandis.store.rack import KeptPart, PartEntry, Use, story_fates

_LOOKED_OVER: tuple[PartKind, ...] = ("bow", "riser", "limb", "string")


class Shown(BaseModel):
    """Base of what is shown: every name stands in every answer."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)


class OnRig(Shown):
    """A rig that a part is or was on."""

    rig_id: int
    rig: str
    slot: Slot
    is_on: bool
    last_at: str


class PartLine(Shown):
    """A part on the rack: what it is, where it is, on which rigs, and what is due.

    kept : where it is, unless in use; stop : why it must not be shot
    looked : the day it was last looked over
    digest : of the latest line of its story, to be named with its number
    """

    mark: str
    seq: int
    digest: str
    kind: PartKind
    name: str
    what: Said
    state: str
    kept: Said | None
    stop: Said | None
    looked: str | None
    due: list[Said]
    size_in: float | None
    rigs: list[OnRig]


class StoryLine(Shown):
    """One line of a part's story: what was set on it, or where it was put on."""

    at: str
    said: Said
    rig_id: int | None
    rig: str | None


class PartView(Shown):
    """A part with its story, the latest first."""

    line: PartLine
    part: Part
    story: list[StoryLine]
    undoable: Said | None
    redoable: Said | None


class Reached(Shown):
    """Another rig that a change reaches, and the stations that it makes due there."""

    rig_id: int
    rig: str
    part: str
    due: list[str]


class Rack:
    """Everything the rack asks of the store, once."""

    def __init__(self, desk: Desk, today: str) -> None:
        self.desk = desk
        self.today = today
        self.rigs = {
            line.id: line.summary.name for line in desk.lines() if isinstance(line, Listed)
        }
        self.uses: dict[str, list[Use]] = {}
        for use in desk.rack.uses():
            self.uses.setdefault(use.mark, []).append(use)
        self.digests = desk.rack.digests()
        self.looks = desk.rack.looks()
        self.stopped = stopped_by(self.looks)

    def rigs_of(self, mark: str) -> list[OnRig]:
        """The rigs that a part is or was on, the latest first."""
        return [
            OnRig(
                rig_id=u.rig_id,
                rig=self.rigs[u.rig_id],
                slot=u.slot,
                is_on=u.is_on,
                last_at=u.last_at,
            )
            for u in sorted(self.uses.get(mark, ()), key=lambda u: u.last_at, reverse=True)
            if u.rig_id in self.rigs
        ]

    def looked(self, mark: str) -> str | None:
        """The day on which a part was last looked over."""
        days = [
            t.day
            for t in self.looks
            if t.trial.kind == "inspection" and not t.struck and mark in t.rig.on.slots().values()
        ]
        return max(days, default=None)

    def stop_of(self, kept: KeptPart) -> Said | None:
        """Why a part must not be shot."""
        return _stop(kept.part, self.stopped.get(kept.mark))

    def line(self, kept: KeptPart) -> PartLine:
        """A part as the rack shows it."""
        part, mark = kept.part, kept.mark
        looked = self.looked(mark)
        return PartLine(
            mark=mark,
            seq=kept.seq,
            digest=self.digests[mark],
            kind=kept.kind,
            name=part.name,
            what=described(part),
            state=part.keeping.state,
            kept=kept_said(part.keeping),
            stop=self.stop_of(kept),
            looked=looked,
            due=_due(part, looked, bool(self.uses.get(mark)), self.today),
            size_in=size_in(part),
            rigs=self.rigs_of(mark),
        )


def _stop(part: Part, stopped: Stopped | None) -> Said | None:
    if part.keeping.state == "condemned":
        return say("condemned: {why}", why=part.keeping.why)
    if stopped is None:
        return None
    return say(f"found on {stopped.day}: {stopped.places}")


def _due(part: Part, looked: str | None, used: bool, today: str) -> list[Said]:
    keeping = part.keeping
    due = []
    if keeping.state == "lent" and keeping.due_back and days_between(keeping.due_back, today) > 0:
        due.append(say("overdue"))
    if part.kind in _LOOKED_OVER and used and keeping.state not in ("condemned", "put_away"):
        if looked is None:
            due.append(say("never looked over"))
        elif days_between(later(looked, days=INSPECT_EVERY_DAYS), today) > 0:
            due.append(say("last looked over on {day}: look again", day=looked))
    return due


def rack_lines(desk: Desk, today: str) -> list[PartLine]:
    """Every part, the oldest first."""
    rack = Rack(desk, today)
    return [rack.line(kept) for kept in desk.rack.all()]


def part_view(desk: Desk, mark: str, today: str) -> PartView:
    """A part with its story; raises MissingError."""
    kept = desk.rack.get(mark)
    rack = Rack(desk, today)
    entries = desk.rack.story(mark)
    found = story_fates(entries)
    lines = [
        StoryLine(
            at=e.at,
            said=_said(kept, e),
            rig_id=e.rig_id,
            rig=rack.rigs.get(e.rig_id) if e.rig_id else None,
        )
        for e in entries
    ]
    lines += [
        StoryLine(at=t.at, said=t.trial.said().sentence(), rig_id=t.rig_id, rig=t.rig.name)
        for t in rack.looks
        if mark in t.rig.on.slots().values() and not t.struck
    ]
    lines += [
        StoryLine(at=at, said=say("Put on."), rig_id=id, rig=rack.rigs[id])
        for at, id in desk.rack.put_ons(mark)
        if id in rack.rigs
    ]
    lines.append(
        StoryLine(at=kept.created_at, said=say("Came to the rack."), rig_id=None, rig=None)
    )
    stands, taken = found.places("stands"), found.places("taken_back")
    return PartView(
        line=rack.line(kept),
        part=kept.part,
        story=sorted(lines, key=lambda line: line.at, reverse=True),
        undoable=_said(kept, entries[stands[-1]]) if stands else None,
        redoable=_said(kept, entries[taken[0]]) if taken else None,
    )


def _said(kept: KeptPart, entry: PartEntry) -> Said:
    return line_said(kept.kind, entry.kind, entry.changes, entry.why)


def stopped_rigs(desk: Desk) -> dict[int, Said]:
    """The rigs that have a part on that must not be shot, and why."""
    stopped = stopped_by(desk.rack.looks())
    parts = {kept.mark: kept.part for kept in desk.rack.all()}
    told: dict[int, Said] = {}
    for use in desk.rack.uses():
        why = _stop(parts[use.mark], stopped.get(use.mark)) if use.mark in parts else None
        if use.is_on and why is not None:
            told.setdefault(use.rig_id, why)
    return told


def reached_by_part(desk: Desk, mark: str, wanted: Mapping[str, Any]) -> list[Reached]:
    """The rigs that a part's change reaches; raises RefusedError, MissingError."""
    kept = desk.rack.get(mark)
    part_changed(kept.part, wanted)
    return [_reached(k, rig, kept.part.name) for k, rig in desk.reached(mark, wanted)]


def reached_by_rig(desk: Desk, kept: Kept, changes: Mapping[str, Any]) -> list[Reached]:
    """The other rigs that a rig's change reaches through its parts."""
    told: dict[int, Reached] = {}
    for slot, part in kept.parts.items():
        own = belonging(slot, changes)
        for other, rig in desk.reached(part.mark, own, kept.id) if own else ():
            told.setdefault(other.id, _reached(other, rig, part.part.name))
    return list(told.values())


def _reached(kept: Kept, rig: Any, part: str) -> Reached:
    before = {s.station: s.state for s in states(kept.present.marks, kept.present.rig)}
    due = [
        STATIONS[s.station].title
        for s in states(kept.present.marks, rig)
        if s.state == "due" and before[s.station] != "due"
    ]
    return Reached(rig_id=kept.id, rig=kept.present.rig.name, part=part, due=due)
