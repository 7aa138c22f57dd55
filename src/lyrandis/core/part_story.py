"""A part in words: what it is, where it is, and each line of its story."""

from __future__ import annotations

from collections.abc import Sequence

from lyrandis.core.fields import part_notes
from lyrandis.core.findings import Said, joined, say
from lyrandis.core.history import Change
from lyrandis.core.logbook import changes_said
from lyrandis.core.parts import (
    ArcherPart,
    ArrowSet,
    BowPart,
    Keeping,
    LimbPart,
    Part,
    PartKind,
    RiserPart,
    StringPart,
)
from lyrandis.core.words import word

TITLES: dict[PartKind, tuple[str, str]] = {  # one, and several of it
    "archer": ("Archer", "Archers"),
    "bow": ("Bow", "Bows in one piece"),
    "riser": ("Riser", "Risers"),
    "limb": ("Limb", "Limbs"),
    "string": ("String", "Strings"),
    "arrows": ("Set of arrows", "Sets of arrows"),
}


def described(part: Part) -> Said:
    """What a part is, in a few numbers."""
    of = part.of
    if isinstance(of, ArcherPart):
        told = say(
            f"draws {{draw}}, {word('archer.release', of.release)}, {of.hand} hand"
            + (", a child" if of.grown == "child" else ""),
            draw=("draw", of.draw_length_in),
        )
    elif isinstance(of, BowPart):
        told = say(
            f"{word('bow.form', of.form)}, {{length}}, marked {{weight}} at {{draw}}",
            length=("bow_length", of.length_in),
            weight=("weight", of.marked_weight_lbf),
            draw=("draw", of.marked_draw_in),
        )
    elif isinstance(of, RiserPart):
        told = say("length not set") if of.riser_in is None else say(
            "{length}", length=("bow_length", of.riser_in)
        )  # fmt: skip
    elif isinstance(of, LimbPart):
        told = _limb(of)
    elif isinstance(of, StringPart):
        told = _string(of)
    else:
        told = _set(of)
    return told


def _limb(of: LimbPart) -> Said:
    length = "" if of.limb_class is None else f"{of.limb_class} "
    kind = f"{length}{word('bow.form', of.form)} limb, {word('limb.which', of.which)}"
    if of.marked_weight_lbf is None:
        return say(f"{kind}, no marking")
    return say(
        f"{kind}, marked {{weight}} at {{draw}} on {{riser}}",
        weight=("weight", of.marked_weight_lbf),
        draw=("draw", of.marked_draw_in),
        riser=("bow_length", of.marked_riser_in),
    )


def _string(of: StringPart) -> Said:
    told = say(f"{word('string.material', of.material)}, {of.strands} strands")
    if of.length_in is not None:
        told = joined(told, say(", {length}", length=("bow_length", of.length_in)))
    return told if of.twists is None else told.ended(f", {of.twists} turns")


def _set(of: ArrowSet) -> Said:
    whole = sum(shaft.state == "whole" for shaft in of.shafts)
    count = f"{whole} of {len(of.shafts)} whole, " if of.shafts else ""
    return say(
        f"{count}{word('arrow.material', of.material)}, {{length}}, spine {{spine}}, "
        "{point} point",
        length=("draw", of.shaft_length_in),
        spine=("spine", of.static_spine),
        point=("mass", of.point_gr),
    )


def kept_said(keeping: Keeping) -> Said | None:
    """Where a part is, unless it is simply in use."""
    if keeping.state == "lent":
        back = f", back by {keeping.due_back}" if keeping.due_back else ""
        return say(f"lent to {{to}}{back}", to=keeping.to)
    if keeping.state == "condemned":
        return say("condemned: {why}, by {word}", why=keeping.why, word=keeping.word)
    return say("put away") if keeping.state == "put_away" else None


def size_in(part: Part) -> float | None:
    """How long a part is [in], for drawing it to scale beside others; None where not known."""
    of = part.of
    if isinstance(of, BowPart):
        return of.length_in
    if isinstance(of, RiserPart):
        return of.riser_in
    if isinstance(of, LimbPart):
        return LIMB_IN.get(of.limb_class or "")
    if isinstance(of, StringPart):
        return of.length_in
    if isinstance(of, ArrowSet):
        return of.shaft_length_in
    return of.draw_length_in


# A limb along its back: half of what it adds to a riser, and what lies in the pocket.
LIMB_IN = {"short": 22.5, "medium": 23.5, "long": 24.5}


def line_said(kind: PartKind, act: str, changes: Sequence[Change], why: str) -> Said:
    """One line of a part's story as a sentence."""
    verb = {"undo": "Took back: ", "redo": "Did again: "}.get(act, "Set ")
    return changes_said(verb, changes, part_notes(kind), why)
