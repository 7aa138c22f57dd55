"""Fit from the rack: what lies there for an archer, and taking it out in one step."""

from __future__ import annotations

from collections.abc import Mapping
from contextlib import suppress

from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.from_rack import Asking, Lying, rig_of, stops
from lyrandis.core.from_rack import bench_of as bench_with
from lyrandis.core.parts import Keeping, Part, Slot, StringPart, Use
from lyrandis.desk.papers import bench_of
from lyrandis.desk.rack import PartLine, Rack, Shown
from lyrandis.desk.rigs import Desk
from lyrandis.store.kept import Kept
from lyrandis.store.rack import KeptPart
from lyrandis.store.together import refuse_away


def asking_for(desk: Desk, mark: str, use: Use, most_lbf: float | None) -> Asking:
    """Who asks, with all that was measured of any part; raises MissingError."""
    archer = desk.rack.get(mark).part
    trials = desk.rack.trials_of_parts()
    return Asking(mark, archer, use, most_lbf, trials, desk.now())


def lying_for(desk: Desk, asking: Asking) -> list[Lying]:
    """Every part that lies on the rack, as one archer sees it."""
    rack = Rack(desk, day_of(asking.now))
    whose = {rig.rig_id for rig in rack.rigs_of(asking.mark) if rig.is_on}

    def lying(mark: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
        on = [rig for rig in rack.rigs_of(mark) if rig.is_on]
        others = tuple(rig.rig for rig in on if rig.rig_id not in whose)
        return others, tuple(rig.rig for rig in on if rig.rig_id in whose)

    return [
        Lying(
            kept.mark,
            kept.part,
            kept.seq,
            *lying(kept.mark),
            rack.stop_of(kept),
            _long_in(desk, rack, kept),
        )
        for kept in desk.rack.all()
    ]


def _long_in(desk: Desk, rack: Rack, kept: KeptPart) -> float | None:
    """About how long [in] a string is that nobody measured: what the bow it was on last needs."""
    if not isinstance(kept.part.of, StringPart) or kept.part.of.length_in is not None:
        return None
    for on in rack.rigs_of(kept.mark):
        there = desk.either(on.rig_id)
        with suppress(RefusedError):
            if isinstance(there, Kept):
                return bench_of(there, desk.now()).string.fit.needed_length_in
    return None


class Lent(Shown):
    """Parts taken out: the rig that was written of them, and each as it stands now."""

    rig_id: int | None
    lines: list[PartLine]


def take_out(
    desk: Desk,
    asking: Asking,
    parts: Mapping[Slot, tuple[str, int]],
    rig: str | None,
    due_back: str | None,
) -> Lent:
    """Lend a bow that was fitted from the rack, write it up as a rig, or both, as one act.

    Parameters
    ----------
    parts : by slot the mark, and the latest line of its story that the caller has seen
    rig : name of the rig; None: none is written
    due_back : day, "" without one; None: nothing is lent

    Raises
    ------
    RefusedError : something stops this bow for this archer, or there is too little for a rig.
    ConflictError, MissingError
    """
    if rig is None and due_back is None:
        raise RefusedError("due_back", "Lend it, write it up as a rig, or both.")
    known = {slot: (mark, desk.rack.get(mark).part) for slot, (mark, _) in parts.items()}
    _refuse_stopped(desk, asking, known)
    lend = None
    if due_back is not None:
        lend = Keeping(
            state="lent", to=asking.archer.name, since=day_of(asking.now), due_back=due_back
        )
    seqs = dict(parts.values())
    made = None
    if rig is None:
        desk.rack.keep_all(seqs, lend)
    elif not {"string", "arrows"} <= known.keys():
        raise RefusedError("rig", "To write it up as a rig, choose a string and arrows too.")
    else:
        made = desk.create(
            rig_of(asking, known, rig), brought={}, along=desk.rack.keeping(seqs, lend)
        )
    rack = Rack(desk, day_of(asking.now))
    lines = [rack.line(desk.rack.get(mark)) for mark in seqs]
    return Lent(rig_id=None if made is None else made.id, lines=lines)


_WHOLE: tuple[set[Slot], ...] = ({"bow"}, {"riser", "upper_limb", "lower_limb"})


def _refuse_stopped(desk: Desk, asking: Asking, known: Mapping[Slot, tuple[str, Part]]) -> None:
    if not any(whole <= known.keys() for whole in _WHOLE):
        raise RefusedError("parts", "Name a bow, or a riser and two limbs.")
    rack = Rack(desk, day_of(asking.now))
    long_in = None
    for slot, (mark, part) in known.items():
        refuse_away(part)
        kept = desk.rack.get(mark)
        why = rack.stop_of(kept)
        if why is not None:
            raise RefusedError("parts", say("{name}:", name=part.name) + why.ended())
        if slot == "string":
            long_in = _long_in(desk, rack, kept)
    _, bow = known.get("bow") or known["riser"]
    arrows = known["arrows"][1] if "arrows" in known else None
    found = stops(bench_with(asking, known), asking, bow, arrows, long_in)
    if found:
        raise RefusedError("parts", found[0].said)


def take_back(desk: Desk, seqs: Mapping[str, int]) -> list[PartLine]:
    """What was lent is back, several parts as one act."""
    desk.rack.keep_all(seqs, Keeping())
    rack = Rack(desk, day_of(desk.now()))
    return [rack.line(desk.rack.get(mark)) for mark in seqs]
