"""Side by side: two rigs, two parts, or one rig at two dates."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict, Field, model_validator

from lyrandis.core.bench import Bench
from lyrandis.core.beside import Away, Beside, beside
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.put_on import fitted
from lyrandis.core.history import MOST_ENTRIES
from lyrandis.core.parts import KIND_OF, Part, Rig, Slot
from lyrandis.core.stops import StationId
from lyrandis.desk.papers import bench_of
from lyrandis.desk.rigs import Desk
from lyrandis.desk.shown import BenchView, bench_view
from lyrandis.store.kept import Kept
from lyrandis.store.rack import KeptPart
from lyrandis.store.together import refuse_away

# The stations whose plates stand side by side.
_PLATES: tuple[StationId, ...] = ("weight", "arrow", "crawls")


class SideIn(BaseModel):
    """One side: a rig as it stands or as it stood after an entry, or a part by its mark."""

    model_config = ConfigDict(extra="forbid")

    rig: int | None = Field(None, ge=1, le=2**53 - 1)
    seq: int | None = Field(None, ge=0, le=MOST_ENTRIES)
    part: str | None = Field(None, pattern="^[0-9a-f]{32}$")

    @model_validator(mode="after")
    def _one(self) -> SideIn:
        if (self.rig is None) == (self.part is None):
            raise RefusedError("rig", "A side is a rig or a part.")
        return self


class SideView(BaseModel):
    """One side as it is shown.

    day : of a rig as it stood; on : the rig that a part is looked at on
    """

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    title: str
    rig_id: int | None
    seq: int | None
    day: str | None
    on: str | None
    bench: BenchView


class BesideView(BaseModel):
    """Two sides, and what is told of them together."""

    mine: SideView
    other: SideView
    told: Beside


@dataclass(frozen=True)
class _Side:
    title: str
    bench: Bench
    kept: Kept | None = None
    day: str | None = None
    on: str | None = None

    def view(self) -> SideView:
        return SideView(
            title=self.title,
            rig_id=self.kept.id if self.kept else None,
            seq=self.kept.seq if self.kept else None,
            day=self.day,
            on=self.on,
            bench=bench_view(self.bench, _PLATES),
        )


def compare(desk: Desk, mine: SideIn, other: SideIn) -> BesideView:
    """Two sides beside one another.

    Raises
    ------
    MissingError, RefusedError : there is no such rig, entry or part; a rig beside a part; parts
        of two kinds.
    """
    if mine.part is not None and other.part is not None:
        here, there = _parts(desk, mine.part, other.part)
    elif mine.rig is not None and other.rig is not None:
        here, there = _rig(desk, mine.rig, mine.seq), _rig(desk, other.rig, other.seq)
    else:
        raise RefusedError("other", "A rig stands beside a rig, a part beside a part.")
    is_now = here.kept is not None and here.day is None
    told = beside(here.bench, there.bench, _away(desk, here.bench.rig, there.bench.rig), is_now)
    return BesideView(mine=here.view(), other=there.view(), told=told)


def _rig(desk: Desk, id: int, seq: int | None) -> _Side:
    now = desk.get(id)
    if seq is None or seq == now.seq:
        return _Side(now.present.rig.name, bench_of(now, desk.now()), now)
    kept = desk.as_of(id, seq)
    # Days that matter are seen from then: a rig of spring is not overdue since spring.
    return _Side(kept.present.rig.name, bench_of(kept, kept.changed_at), kept, kept.changed_at[:10])


def _parts(desk: Desk, mine: str, other: str) -> tuple[_Side, _Side]:
    """Two parts, each on the rig that has one of them on, else on an ordinary new one."""
    a, b = desk.rack.get(mine), desk.rack.get(other)
    if a.kind != b.kind:
        raise RefusedError("other", f"{a.part.name} and {b.part.name} are of two kinds.")
    slot, kept = _context(desk, a, b)
    try:
        return _part(desk, a, slot, kept), _part(desk, b, slot, kept)
    except RefusedError:  # the rig has both, as two limbs, or takes only one of them
        return _part(desk, a, slot, None), _part(desk, b, slot, None)


def _context(desk: Desk, a: KeptPart, b: KeptPart) -> tuple[Slot, Kept | None]:
    for mark in (a.mark, b.mark):
        for use in desk.rack.uses(mark):
            kept = desk.either(use.rig_id) if use.is_on else None
            if isinstance(kept, Kept):
                return use.slot, kept
    return next(slot for slot, kind in KIND_OF.items() if kind == a.kind), None


def _part(desk: Desk, part: KeptPart, slot: Slot, kept: Kept | None) -> _Side:
    if kept is None:
        rig = changed(Rig(), {"bow.takedown": slot in ("riser", "upper_limb", "lower_limb")})
        rig = changed(rig, fitted(rig, slot, part.part, part.mark))
        return _Side(part.part.name, Bench(rig, now=desk.now()))
    b = bench_of(kept, desk.now())
    if getattr(b.rig.on, slot) == part.mark:
        return _Side(part.part.name, b, on=b.rig.name)
    other = b.with_changes(fitted(b.rig, slot, part.part, part.mark))
    return _Side(part.part.name, other, on=b.rig.name)


def _away(desk: Desk, here: Rig, there: Rig) -> Mapping[str, Away]:
    """The other side's parts as they are now."""
    marks = set(there.on.slots().values()) - set(here.on.slots().values())
    return {
        kept.mark: Away(kept.part, _why_not(kept.part))
        for kept in desk.rack.all()
        if kept.mark in marks
    }


def _why_not(part: Part) -> str:
    try:
        refuse_away(part)
    except RefusedError as error:
        return error.reason
    return ""
