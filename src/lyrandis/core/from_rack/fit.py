"""Fit from the rack: which bows can be built for an archer, with which string and arrows, ranked.

The ranking is an own rule: nothing that stops it; strength, by how many steps it is over what was
held or asked for; free before what somebody has; string and arrows there; few things to mind; many
schools for it; then the lighter bow, since too light a bow is outgrown and too heavy a one hurts.
Where no hold was timed the lightest that most schools are for comes first, whatever else there is
to mind.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import LEVELS, Finding, Level, Said, say
from lyrandis.core.fit.bow_length import SCHOOL_TITLES, VERDICT_WORDS, SchoolId, SchoolVerdict
from lyrandis.core.fit.first_rig import ARROW_BEYOND_DRAW_IN, with_first_arrow
from lyrandis.core.fit.hold import UNDER, Strength, step_lbf
from lyrandis.core.from_rack import judged
from lyrandis.core.from_rack.built import Asking, bench_of, with_part
from lyrandis.core.from_rack.frames import Frame, LeftOut, frames
from lyrandis.core.from_rack.judged import heavy_side_lbf
from lyrandis.core.from_rack.lying import Lying, usable
from lyrandis.core.part_story import described
from lyrandis.core.parts import KeepingState, Slot
from lyrandis.core.stations import string
from lyrandis.core.stations.base import Answered, your_draw
from lyrandis.core.words import word


class Placed(Answered):
    """A part where it would go: what it is, and where it is now (None: it lies there free).

    state : how it is kept; one in use that is not free is on somebody's rig
    """

    slot: Slot
    mark: str
    seq: int
    name: str
    what: Said
    state: KeepingState
    free: bool
    where: Said | None


class Option(Answered):
    """A string or a set of arrows for a bow: what it comes to there, and what speaks against it."""

    part: Placed
    level: Level
    told: Said
    findings: list[Finding]


class SchoolWord(Answered):
    """What one school of bow length says of it."""

    school: SchoolId
    title: str
    verdict: SchoolVerdict
    word: str
    why: Said


class Buildable(Answered):
    """A bow that can be built, with every string and set of arrows there is for it, best first.

    level, free : of the bow with the first string and set; `weight` [lb], `angle_deg` at the draw
    lacks : what must be got, because none that lies there fits
    """

    parts: list[Placed]
    level: Level
    free: bool
    said: Said
    length_in: float
    weight: Estimate | None
    angle_deg: float | None
    schools: list[SchoolWord]
    findings: list[Finding]
    strings: list[Option]
    sets: list[Option]
    lacks: list[Said]


class Left(Answered):
    """A part that no bow is built of, and why."""

    mark: str
    name: str
    why: Said


class RackFit(Answered):
    """What the rack has for an archer; `known`: how much they can hold, as far as that is known."""

    builds: list[Buildable]
    left: list[Left]
    known: Said


def rack_fit(
    asking: Asking, lying: Iterable[Lying], heed: Callable[[float], None] = lambda _: None
) -> RackFit:
    """Every bow that can be built of what lies there, the best first.

    Parameters
    ----------
    heed : told the share that is done, and may raise to stop the work

    Raises
    ------
    RefusedError : what asks is no archer.
    """
    if asking.archer.kind != "archer":
        raise RefusedError("archer", f"{asking.archer.name} is not an archer.")
    parts = list(lying)
    made, left = frames(parts)
    strings, sets = usable(parts, "string"), usable(parts, "arrows")
    builds = []
    for i, frame in enumerate(made):
        heed(i / len(made))
        builds.append(_build(asking, frame, strings, sets))
    held = bench_of(asking, {}).archer.strength
    return RackFit(
        builds=sorted(builds, key=lambda build: _rank(build, held, asking.most_lbf)),
        left=[_left(one) for one in left],
        known=_known(asking),
    )


def _left(one: LeftOut) -> Left:
    return Left(mark=one.lying.mark, name=one.lying.part.name, why=one.why)


def _known(asking: Asking) -> Said:
    """What is known of the archer's strength."""
    held = bench_of(asking, {}).archer.strength
    name = asking.archer.name
    if held.pain is not None:
        return say(
            "A hold of {name}'s at {hurt} ended in pain: nothing near that weight before a coach "
            "or doctor gives it free.",
            name=name,
            hurt=("weight", held.pain.weight_lbf),
        )
    if held.lasting_lbf is None and held.too_much_lbf is None:
        return say("No hold of {name}'s was timed: start light, and time holds.", name=name)
    if held.lasting_lbf is None:
        return say(
            "{name} could not hold {much} well: stay under it.",
            name=name,
            much=("weight", held.too_much_lbf or 0.0),
        )
    return say(
        "{name} held {lasting} three times.", name=name, lasting=("weight", held.lasting_lbf)
    )


def _placed(slot: Slot, one: Lying) -> Placed:
    return Placed(
        slot=slot,
        mark=one.mark,
        seq=one.seq,
        name=one.part.name,
        what=described(one.part),
        state=one.part.keeping.state,
        free=one.free,
        where=one.where,
    )


def _build(asking: Asking, frame: Frame, strings: list[Lying], sets: list[Lying]) -> Buildable:
    bare = bench_of(asking, {slot: (one.mark, one.part) for slot, one in frame.items()})
    made_for = frame.get("bow") or frame["riser"]
    findings = judged.of_bow(bare, asking, made_for.part)
    placed = [_placed(slot, one) for slot, one in frame.items()]
    drawn = _weight(bare) is not None
    braced = sorted([_string(asking, bare, s) for s in strings] if drawn else [], key=_rank_option)
    strung = _with_best(asking, bare, "string", braced, strings)
    shot = sorted([_set(asking, strung, a) for a in sets] if drawn else [], key=_rank_option)
    schools = _schools(bare)
    first = [o[0] for o in (braced, shot) if o and o[0].level != "stop"]
    return Buildable(
        parts=placed,
        level=judged.level_of([*findings, *(f for o in first for f in o.findings)]),
        free=all(p.free for p in [*placed, *(o.part for o in first)]),
        said=_said(bare, schools),
        length_in=bare.rig.bow.length_in,
        weight=_weight(bare),
        angle_deg=_angle(bare),
        schools=schools,
        findings=findings,
        strings=braced,
        sets=shot,
        lacks=_lacks(strung, braced, shot) if drawn else [],
    )


def _with_best(
    asking: Asking, b: Bench, slot: Slot, options: list[Option], lying: list[Lying]
) -> Bench:
    """A bench with the first of some options on, where that fits."""
    if not options or options[0].level == "stop":
        return b
    mark = options[0].part.mark
    part = next(one.part for one in lying if one.mark == mark)
    return with_part(asking, b, slot, mark, part)


def _string(asking: Asking, bare: Bench, one: Lying) -> Option:
    b = with_part(asking, bare, "string", one.mark, one.part)
    findings = judged.of_string(b, one.long_in)
    gives = b.string.expected
    if gives is None or (gives.learnt is None and judged.too_long_in(b) is not None):
        said = say("needs {needed}", needed=("bow_length", b.string.fit.needed_length_in))
    else:
        said = say("braces at about {brace}", brace=("brace", gives.brace_in, gives.sd_in))
    placed = _placed("string", one)
    return Option(part=placed, level=judged.level_of(findings), told=said, findings=findings)


def _set(asking: Asking, strung: Bench, one: Lying) -> Option:
    b = with_part(asking, strung, "arrows", one.mark, one.part)
    findings = judged.of_set(b, one.part)
    spine, mass = ("spine", b.rig.arrow.static_spine), ("mass", b.arrow.build.mass_gr)
    try:
        said = say("{mass}, {gpp}, spine {spine}", mass=mass, gpp=("gpp", b.arrow.gpp), spine=spine)
    except RefusedError:
        said = say("{mass}, spine {spine}", mass=mass, spine=spine)
    placed = _placed("arrows", one)
    return Option(part=placed, level=judged.level_of(findings), told=said, findings=findings)


def _weight(b: Bench) -> Estimate | None:
    try:
        return b.bow.weight
    except RefusedError:
        return None


def _angle(b: Bench) -> float | None:
    try:
        return b.bow.angle_deg
    except RefusedError:
        return None


def _schools(b: Bench) -> list[SchoolWord]:
    return [
        SchoolWord(
            school=s.school,
            title=SCHOOL_TITLES[s.school],
            verdict=s.verdict,
            word=VERDICT_WORDS[s.verdict],
            why=s.why,
        )
        for s in b.fit.schools
    ]


def _said(b: Bench, schools: list[SchoolWord]) -> Said:
    """The bow in one line."""
    length = ("bow_length", b.rig.bow.length_in)
    weight, angle = _weight(b), _angle(b)
    kind = word("bow.form", b.rig.bow.form)
    if weight is None or angle is None:
        return say(f"{{length}} {kind}", length=length)
    yours, values = your_draw(b)
    speaking = [s for s in schools if s.verdict != "silent"]
    fits = sum(s.verdict == "fits" for s in speaking)
    votes = f"; {fits} of {len(speaking)} schools for it" if speaking else ""
    return say(
        f"{{length}} {kind}, {{weight}} at {yours}, the string at {{angle}}{votes}",
        length=length,
        weight=("weight", weight),
        angle=("angle", angle),
        **values,
    )


def _lacks(b: Bench, strings: list[Option], sets: list[Option]) -> list[Said]:
    """What to get where nothing that lies there fits: a string, a set of arrows."""
    told = []
    if all(option.level == "stop" for option in strings):
        fit = b.string.fit
        told.append(
            say(
                f"No string here fits: it needs one of {{length}}, {fit.usual_strands} strands of "
                f"{word('string.material', b.rig.string.material)}.",
                length=("bow_length", fit.needed_length_in, string.NEEDED_SD_IN),
            )
        )
    if all(option.level == "stop" for option in sets):
        shaft = b.archer.longest_in + ARROW_BEYOND_DRAW_IN
        first = with_first_arrow(b.with_changes({"arrow.shaft_length_in": max(shaft, 18.0)}).rig)
        told.append(
            say(
                "No arrows here fit: they need to be {length} or longer, {mass} or heavier, about "
                "spine {spine} to begin with.",
                length=("draw", shaft),
                mass=("mass", Bench(first).arrow.build.mass_gr),
                spine=("spine", first.arrow.static_spine),
            )
        )
    return told


def _minds(findings: Iterable[Finding]) -> int:
    return sum(f.level == "mind" for f in findings)


def _rank_option(option: Option) -> tuple[bool, bool, int, int, str]:
    return (
        option.level == "stop",
        not option.part.free,
        LEVELS[::-1].index(option.level),
        _minds(option.findings),
        option.part.name,
    )


def _steps_over(build: Buildable, held: Strength, most_lbf: float | None) -> int:
    """How many steps a bow is over what was held or asked for, on the heavy side; 0: none."""
    if build.weight is None:
        return 0
    over = 0
    limits = ((held.lasting_lbf, heavy_side_lbf(build.weight)), (most_lbf, build.weight.value))
    for limit, pulls in limits:
        if limit is not None and build.weight.value > limit * (1 + UNDER):
            over = max(over, math.ceil((pulls - limit) / step_lbf(limit)))
    return over


def _rank(build: Buildable, held: Strength, most_lbf: float | None) -> tuple[float, ...]:
    taken = [options[0] for options in (build.strings, build.sets) if options]
    minds = _minds(build.findings) + sum(_minds(o.findings) for o in taken if o.level != "stop")
    speaking = [s for s in build.schools if s.verdict != "silent"]
    share = sum(s.verdict == "fits" for s in speaking) / len(speaking) if speaking else 0.0
    weight = build.weight.value if build.weight else 0.0
    first = (
        build.level == "stop",
        _steps_over(build, held, most_lbf),
        not build.free,
        bool(build.lacks),
    )
    if held.lasting_lbf is None:
        return (*first, share < _MOST_SCHOOLS, weight, minds, -share)
    return (*first, minds, -share, weight)


_MOST_SCHOOLS = 0.5
