"""The drawings of the terms, from the same geometry as the stations' own.

Bows are solved at their form's ordinary length, the arrow is built of its ordinary parts, the hand
is as wide as an ordinary hand. What no model holds (a riser's outline, a loop) is a draughtsman's.
"""

from __future__ import annotations

import math
from functools import lru_cache
from itertools import pairwise

from lyrandis.core.arrow.build import build
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.drawing import Pose, pose
from lyrandis.core.bow.form import FORMS, reference_offset_in
from lyrandis.core.fields import changed
from lyrandis.core.fit.draw_length import draw_lines
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM, RELEASE, first_rig
from lyrandis.core.parts import Bow, Form, Release, Rig
from lyrandis.core.string.measures import usual_length_in
from lyrandis.core.terms.chapters import (
    AIMING,
    BOW_AND_ARCHER,
    TAB_AND_HAND,
    THE_ARROW,
    THE_BOW,
    THE_STRING,
)
from lyrandis.core.terms.drawing import Drawing, Points, Shape, area, box, line, span
from lyrandis.core.tune.nock_point import nock_start
from lyrandis.core.units import MM_PER_IN

_TIP_SHARE = 0.14  # of a limb whose tip has no lever
_SERVING_IN, _LOOP_IN = 4.0, 2.0
_WEIGHT_LBF, _DRAW_IN = 40.0, 28.0
_FORMS: tuple[Form, ...] = ("longbow", "hybrid", "recurve", "static_tip")
_CRAWL_MM = 24.0
_SHORT_CUT_MM = -3.0


def _rig(form: Form) -> Rig:
    """An ordinary bow of a form, drawn by an ordinary archer."""
    length = FORMS[form].reference_length_in
    draw = _DRAW_IN if length > 60 else _DRAW_IN - 1
    return first_rig(form, length, _WEIGHT_LBF, draw, "right", RELEASE[form], "Terms")


def _lying(points: list[tuple[float, float]]) -> Points:
    """The bow laid on its back: the upper limb to the right, the string up."""
    return tuple((y, x) for x, y in points)


def _parts_of_limb(outline: list[tuple[float, float]]) -> tuple[Points, Points, Points]:
    """A limb's outline, its tip's, and its back as a line, lying."""
    n = len(outline) // 2
    belly, back = outline[:n], outline[n:][::-1]
    from_ = math.floor(n * (1 - _TIP_SHARE)) if n < 34 else n - 6
    tip = belly[from_:] + back[from_:][::-1]
    return _lying(outline), _lying(tip), _lying(back)


def _bow(form: Form) -> Drawing:
    rig = _rig(form)
    at_brace = pose(force_draw(rig.bow).statics)
    upper, tip, back = _parts_of_limb(at_brace.upper_limb)
    lower, other_tip, other_back = _parts_of_limb(at_brace.lower_limb)
    belly_line = _lying(at_brace.riser_belly)
    riser = belly_line + _lying(at_brace.riser_back)
    brace = at_brace.arrow_nock[0]
    end = at_brace.upper_nock[1]
    string = _lying(at_brace.string)
    foot = belly_line[0]
    over = _string_at(string, foot[0])
    loop = tuple(p for p in string if p[0] > end - _LOOP_IN)
    quiet = brace + (string[0][1] - brace) * 0.7
    grip = at_brace.grip_y
    nock = _lying([at_brace.upper_nock])[0]
    half = rig.bow.length_in / 2
    whole_back = tuple(reversed(back)) + _lying(at_brace.riser_back)[::-1] + other_back
    return Drawing(
        id=f"bow-{form}", about=THE_BOW,
        title=FORMS[form].title,
        says="Strung and laid down, the string up, the upper limb to the right.",
        unit="in",
        left=-half - 1,
        right=half + 1,
        bottom=min(y for _, y in upper + riser) - 2.4,
        top=max(brace, *(y for _, y in string)) + 1.6,
        shapes=(
            line("bow-length", tuple((x, y - 0.9) for x, y in whole_back), "dashed", "bow-length"),
            area("riser", riser, "wood", smooth=True),
            area("limb", lower),
            area("limb", upper),
            area("tip", tip),
            area("tip", other_tip),
            line("back", tuple(reversed(back[2:-2]))),
            line("belly", _lying(at_brace.lower_limb[2 : len(back) - 4])),
            line("string", string, "thread"),
            line("loop", tuple((-x, y) for x, y in loop), "thread"),
            line("loop", loop, "thread"),
            box("serving", (-_SERVING_IN, _SERVING_IN), (brace - 0.12, brace + 0.12)),
            box("nock-point", (0.35, 0.7), (brace - 0.35, brace + 0.35), "wash"),
            _square("limb-nock", nock),
            _square("limb-nock", (-nock[0], nock[1])),
            _blob("silencer", -0.7 * end, quiet, 0.55),
            _blob("silencer", 0.7 * end, quiet, 0.55),
            box("grip", (grip - 1.7, grip + 1.5), (-1.6, 0.35), "wash"),
            _blob("pivot", grip, 0.0, 0.28),
            span(
                "brace-height",
                (grip, 0.0),
                (grip, brace),
                "brace-grip",
                ("brace", round(brace, 3)),
            ),
            span("tiller", (-foot[0] - 0.4, foot[1]), (-foot[0] - 0.4, over)),
            span("tiller", (foot[0] + 0.4, foot[1]), (foot[0] + 0.4, over)),
        ),
    )  # fmt: skip


def _string_at(string: Points, along: float) -> float:
    """How high a lying string stands at a place along the bow."""
    ordered = sorted(string)
    for (x0, y0), (x1, y1) in pairwise(ordered):
        if x0 <= along <= x1 and x1 > x0:
            return y0 + (y1 - y0) * (along - x0) / (x1 - x0)
    return ordered[-1][1]


def _square(term: str, at: tuple[float, float], half: float = 0.35) -> Shape:
    return box(term, (at[0] - half, at[0] + half), (at[1] - half, at[1] + half), "wash")


def _blob(term: str | None, x: float, y: float, r: float, style: str = "wash") -> Shape:
    corners = [2 * math.pi * i / 20 for i in range(20)]
    return area(term, tuple((x + r * math.cos(a), y + r * math.sin(a)) for a in corners), style)


def _riser(of: Pose, limit: float) -> tuple[Points, Points, Points]:
    """The riser and the two limbs of a bow seen from the side."""
    riser = tuple(of.riser_belly) + tuple(of.riser_back)
    limbs = [
        tuple((x, max(-limit, min(limit, y))) for x, y in side)
        for side in (of.upper_limb, of.lower_limb)
    ]
    return riser, limbs[0], limbs[1]


def _drawn() -> Drawing:
    rig = _rig("recurve")
    of = pose(force_draw(rig.bow).statics, rig.archer.draw_length_in)
    lines = draw_lines(rig.archer, rig.bow)
    riser, upper, lower = _riser(of, 30)
    nock, length = of.arrow_nock[0], rig.arrow.shaft_length_in
    end = of.upper_nock[0], of.upper_nock[1]
    r = 5.0
    angle = math.atan2(end[1], nock - end[0])
    arc = [angle * (i / 8 - 1) for i in range(17)]
    return Drawing(
        id="full-draw", about=BOW_AND_ARCHER,
        title="At full draw",
        says="Seen from the side, the archer to the right.",
        unit="in",
        left=-6,
        right=31,
        bottom=-end[1] - 1,
        top=end[1] + 1,
        shapes=(
            area("riser", riser, "wood", smooth=True),
            area("limb", upper), area("limb", lower),
            line("string", tuple(of.string), "thread"),
            box("shaft", (nock - length, nock), (-0.14, 0.14), "wood"),
            line("string-angle", tuple((nock - r * math.cos(a), r * math.sin(a)) for a in arc)),
            span("draw-length", (lines.trade_x_in, 4), (nock, 4), "draw-trade",
                 ("draw", rig.archer.draw_length_in)),
            span("draw-length", (0, -6), (nock, -6), "draw-pivot", ("draw", lines.to_pivot_in)),
            span("draw-length", (lines.back_x_in, -9), (nock, -9), "draw-back",
                 ("draw", lines.to_back_in)),
            _blob("pivot", 0.0, of.grip_y, 0.4),
            line(None, ((0, of.grip_y), (0, -9.5)), "dashed"),
            line(None, ((lines.trade_x_in, 0.4), (lines.trade_x_in, 4.6)), "dashed"),
            line(None, ((nock, 4.6), (nock, -9.5)), "dashed"),
        ),
    )  # fmt: skip


def _at_the_grip() -> Drawing:
    rig = _rig("recurve")
    of = pose(force_draw(rig.bow).statics)
    riser, _, _ = _riser(of, 11)
    brace = of.arrow_nock[0]
    back = -reference_offset_in(rig.bow, "back")
    return Drawing(
        id="grip", about=BOW_AND_ARCHER,
        title="The middle of the bow",
        says="Seen from the side, the archer to the right.",
        unit="in",
        left=-6,
        right=brace + 5,
        bottom=-8.6,
        top=7,
        shapes=(
            area("riser", riser, "wood", smooth=True),
            line("string", ((brace, -11), (brace, 11)), "thread"),
            box("serving", (brace - 0.1, brace + 0.1), (-4, 4)),
            box("shaft", (-3.5, brace - 0.3), (-0.12, 0.12), "wood"),
            area("arrow-nock", ((brace - 0.5, -0.14), (brace + 0.2, -0.14), (brace, 0),
                                (brace + 0.2, 0.14), (brace - 0.5, 0.14))),
            box("nock-point", (brace - 0.25, brace + 0.25), (0.2, 0.45), "wash"),
            line("shelf", ((-1.4, -0.16), (0.1, -0.16))),
            box("side-plate", (-1.0, -0.3), (-0.16, 0.9), "wash"),
            area("grip", ((0.12, -0.4), (0.0, of.grip_y), (0.45, of.grip_y - 1.9),
                          (-1.5, of.grip_y - 1.6), (-1.75, of.grip_y), (-1.4, -0.4)), "wash"),
            line("back", tuple(of.riser_back[1:-1])), line("belly", tuple(of.riser_belly[1:-1])),
            _blob("pivot", 0.0, of.grip_y, 0.16),
            span("brace-height", (0, -5), (brace, -5), "brace-grip", ("brace", brace)),
            span("brace-height", (back, -6.4), (brace, -6.4), "brace-back",
                 ("brace", brace - back)),
            span("brace-height", (-0.65, -7.8), (brace, -7.8), "brace-plunger"),
            line(None, ((0, of.grip_y), (0, -5.4)), "dashed"),
            line(None, ((back, of.grip_y), (back, -6.8)), "dashed"),
            line(None, ((-0.65, 0), (-0.65, -8.2)), "dashed"),
        ),
    )  # fmt: skip


def _string() -> Drawing:
    half = usual_length_in(Bow()) / 2
    loop = tuple(
        (half - 1.1 + 1.1 * math.cos(a), 0.5 * math.sin(a))
        for a in (2 * math.pi * i / 24 for i in range(25))
    )
    bundle = [(i - 1) * 0.16 for i in range(3)]
    return Drawing(
        id="string", about=THE_STRING,
        title="The string",
        says="Off the bow, drawn straight by its two loops.",
        unit="in",
        left=-half - 2,
        right=half + 2,
        bottom=-4.2,
        top=2.6,
        shapes=(
            *(line("strand", ((-half + 2.2, y), (half - 2.2, y)), "thread") for y in bundle),
            line("loop", loop), line("loop", tuple((-x, y) for x, y in loop)),
            box("serving", (half - 5, half - 2.2), (-0.25, 0.25)),
            box("serving", (-half + 2.2, -half + 5), (-0.25, 0.25)),
            box("serving", (-_SERVING_IN, _SERVING_IN), (-0.25, 0.25)),
            box("nock-point", (0.5, 1.0), (-0.5, 0.5), "wash"),
            _blob("silencer", 0.7 * half, 0, 0.7), _blob("silencer", -0.7 * half, 0, 0.7),
            line("twist", tuple((-16 + i * 0.4, 0.35 * math.sin(i * 1.2)) for i in range(20)),
                 "thread"),
            span("string-length", (-half, -2.8), (half, -2.8), None, ("bow_length", 2 * half)),
        ),
    )  # fmt: skip


def _arrow() -> Drawing:
    arrow = Rig().arrow
    made = build(arrow)
    length = arrow.shaft_length_in
    half = arrow.diameter_mm / MM_PER_IN / 2
    tip = length + 0.95

    def feather(side: int) -> Points:
        return ((0.8, side * half), (1.0, side * (half + 0.55)), (2.4, side * (half + 0.47)),
                (4.8, side * half))  # fmt: skip

    return Drawing(
        id="arrow", about=THE_ARROW,
        title="The arrow",
        says="The arrow nock to the left.",
        unit="in",
        left=-1.4,
        right=tip + 1,
        bottom=-4.6,
        top=2.8,
        shapes=(
            box("shaft", (0, length), (-half, half), "wood"),
            box("insert", (length - 1.1, length), (-half * 0.6, half * 0.6), "wash"),
            area("point", ((length, -half), (length + 0.45, -half), (tip, 0),
                           (length + 0.45, half), (length, half))),
            area("arrow-nock", ((-0.18, -half), (0.35, -half), (0.35, half), (-0.18, half),
                                (0, 0))),
            area("fletching", feather(1), "paper"), area("fletching", feather(-1), "paper"),
            area("balance-point", ((made.balance_in, -half - 0.1), (made.balance_in - 0.3, -1.0),
                                   (made.balance_in + 0.3, -1.0))),
            span("front-of-centre", (length / 2, 1.4), (made.balance_in, 1.4), None,
                 ("percent", made.front_of_centre_pct)),
            span("shaft", (0, -2.0), (length, -2.0), "shaft-length", ("draw", length)),
            span("shaft", (0, -3.6), (tip, -3.6), "arrow-length", ("draw", tip)),
        ),
    )  # fmt: skip


def _nocked() -> Drawing:
    start = nock_start(changed(Rig(), {"archer.release": "split"}))
    high, thick = start.start_mm, 6.0
    return Drawing(
        id="nocked", about=THE_STRING,
        title="The arrow on the string",
        says="Seen from the side, the archer to the right: measured from square, and begun level.",
        unit="mm",
        left=-70,
        right=40,
        bottom=-24,
        top=34,
        shapes=(
            line("string", ((0, -24), (0, 34)), "thread"),
            box("serving", (-1.6, 1.6), (-20, 30), "wash"),
            box("shaft", (-70, -9), (high, high + thick), "wood"),
            area("arrow-nock", ((-11, high), (4, high - 0.5), (1, high + thick / 2),
                                (4, high + thick + 0.5), (-11, high + thick))),
            box("nock-point", (-3, 3), (high + thick + 0.6, high + thick + 3), "wash"),
            box("nock-point", (-3, 3), (high - 3, high - 0.6), "wash"),
            line(None, ((-70, 0), (14, 0)), "dashed"),
            span("nock-point", (14, 0), (14, high), "nock-by-square", ("nock_height", high)),
            line("nock-point", ((-70, high + thick / 2), (34, high + thick / 2)), "dashed",
                 "nock-level"),
        ),
    )  # fmt: skip


def _from_behind() -> Drawing:
    thick = 8.0
    plate = _SHORT_CUT_MM
    middle = plate - thick / 2
    return Drawing(
        id="from-behind", about=THE_BOW,
        title="From behind",
        says="A right-handed bow cut short of centre, seen as the archer sees it at brace.",
        unit="mm",
        left=-46,
        right=52,
        bottom=-30,
        top=36,
        shapes=(
            area("riser", ((plate + 2, 36), (plate + 2, -6), (-14, -6), (-14, -30), (20, -30),
                           (20, 36)), "wood"),
            box("side-plate", (plate, plate + 2), (-6, 16), "wash"),
            line("shelf", ((-14, -6), (plate + 2, -6))),
            _blob("shaft", middle, -6 + thick / 2, thick / 2, "paper"),
            line("string", ((0, -30), (0, 36)), "thread"),
            span("centre-cut", (plate, 24), (0, 24), None, ("small", -plate)),
            span("centre-shot", (middle, -18), (0, -18), None, ("small", -middle)),
            line(None, ((middle, -2), (middle, -20)), "dashed"),
            line(None, ((plate, 16), (plate, 26)), "dashed"),
        ),
    )  # fmt: skip


def _hand(release: Release) -> Drawing:
    archer = Rig().archer
    wide, pitch = archer.finger_width_mm, archer.stitch_pitch_mm
    thick = 6.0
    shapes = [
        line("string", ((0, -104), (0, 46)), "thread"),
        box("shaft", (-70, -9), (-thick / 2, thick / 2), "wood"),
        area("arrow-nock", ((-11, -3), (4, -3.5), (1, 0), (4, 3.5), (-11, 3))),
    ]

    def finger(top: float) -> Shape:
        r = wide / 2
        ring = [math.pi * (0.5 + i / 12) for i in range(13)]
        near = tuple((-2 + r * math.cos(a), top - r + r * math.sin(a)) for a in ring)
        return area("finger-width", (*near, (42, top - wide), (42, top)), "paper")

    if release == "thumb":
        shapes += [
            area("thumb-draw", ((44, -6), (18, -5), (-4, -7), (-13, -13), (-9, -21), (4, -24),
                                (18, -25), (44, -32)), "paper", smooth=True),
            area("ring", ((14, -4), (20, -4), (20, -27), (14, -26)), "wash"),
        ]  # fmt: skip
        title, says = "Thumb draw", "The thumb hooks the string under the arrow; a ring guards it."
        bottom = -46.0
    else:
        crawl = _CRAWL_MM if release == "three_under" else 0.0
        below = -thick / 2 - crawl
        tops = (
            [below, below - wide, below - 2 * wide]
            if release == "three_under"
            else [thick / 2 + wide, -thick / 2, -thick / 2 - wide]
        )
        shapes += [finger(top) for top in tops]
        low = tops[-1] - wide
        shapes.append(box("tab", (2, 8), (low, 0.0 if crawl else tops[0] + 2), "wash"))
        if release == "three_under":
            marks = [below - i * pitch for i in range(-int(crawl / pitch), 4)]
            shapes += [line("tab-mark", ((2, y), (8, y))) for y in marks]
            shapes.append(span("crawl", (-26, 0), (-26, below), None, ("crawl", crawl)))
            shapes.append(line(None, ((-26, below), (0, below)), "dashed"))
        shapes.append(
            span("finger-width", (48, tops[1] - wide), (48, tops[1]), None, ("small", wide))
        )
        own = "three-under" if release == "three_under" else "split"
        shapes.append(box(own, (42, 45), (low, tops[0]), "wash"))
        title = "Three under, with a crawl" if release == "three_under" else "Split finger"
        says = "The string hand from the side, the target to the left."
        bottom = low - 6
    return Drawing(
        id=f"hand-{release}", about=TAB_AND_HAND, title=title, says=says, unit="mm",
        left=-72, right=72, bottom=bottom, top=44, shapes=tuple(shapes),
    )  # fmt: skip


def _aim() -> Drawing:
    rig = Rig()
    eye = EYE_ABOVE_NOCK_MM["under_chin"]
    long = rig.arrow.shaft_length_in * MM_PER_IN
    beyond = long * 1.4
    return Drawing(
        id="aim", about=AIMING,
        title="Eye, arrow and mark",
        says="From the side, the target to the left: the line of sight runs over the arrow's tip.",
        unit="mm",
        left=-beyond,
        right=110,
        bottom=-70,
        top=eye + 50,
        shapes=(
            box("shaft", (-long, 0), (-3, 3), "wood"),
            area("point", ((-long, -3), (-long - 24, 0), (-long, 3))),
            area("arrow-nock", ((0, -4), (8, -4), (4, 0), (8, 4), (0, 4))),
            line("string", ((4, -70), (4, eye - 20)), "thread"),
            _blob("anchor", 24, -14, 26, "paper"),
            _blob(None, 12, eye, 9, "ink"),
            line("point-on", ((0, eye), (-beyond, eye * (1 - beyond / long))), "dashed"),
            span("eye-height", (52, 0), (52, eye), None, ("crawl", eye)),
        ),
    )  # fmt: skip


@lru_cache(maxsize=1)
def drawings() -> tuple[Drawing, ...]:
    """Every drawing of the terms, in the order they are shown."""
    releases: tuple[Release, ...] = ("three_under", "split", "thumb")
    return (
        *(_bow(form) for form in _FORMS),
        _at_the_grip(), _drawn(), _from_behind(), _string(), _nocked(), _arrow(),
        *(_hand(release) for release in releases),
        _aim(),
    )  # fmt: skip
