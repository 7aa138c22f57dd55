"""The printed rig sheet: what is unsafe or due, settings, every stop and mind, the crawl chart.

Numbers stand on it as on the pages, with their ± and whether they are assumed.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from contextlib import suppress
from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.graphics import renderPDF
from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Table, TableStyle

from lyrandis.core.aim.crawls import CrawlRow
from lyrandis.core.aim.gaps import GapRow
from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding
from lyrandis.core.parts import Rig
from lyrandis.core.route import STATIONS, route_of
from lyrandis.core.schedule import Due
from lyrandis.core.stations import notes, views
from lyrandis.core.stations.weights import hung_said
from lyrandis.core.stops import StationId
from lyrandis.core.string.measures import MASS_SD_SHARE
from lyrandis.core.tally import tally
from lyrandis.core.units import write
from lyrandis.core.words import word
from lyrandis.files.cards import pocket_card, tab_card
from lyrandis.files.ink import (
    INK,
    LINE,
    QUIET,
    SMALLEST,
    Units,
    check_bar,
    latin,
    put_text,
)

BRICK, OCHRE = HexColor("#A23B2A"), HexColor("#9A6A12")
_MARGIN = 16 * mm
_MARK = {"measured": "measured", "set": "set", "rule": "assumed", "model": "estimate"}
_NAMED_LENGTH = re.compile(r"(?<![\d.])(4[4-9]|[56]\d|7[0-6])(?![\d.])(?!\s*(?:lb|#|kg|m\b))")
_LEVEL_WORD = {"stop": ("Stop", BRICK), "mind": ("Mind", OCHRE)}
_BODY = ParagraphStyle("body", fontName="Helvetica", fontSize=8.6, leading=11.4, textColor=INK)
_CELL = ParagraphStyle("cell", parent=_BODY, fontSize=8.4, leading=10.2)
_SMALL = ParagraphStyle("foot", parent=_BODY, fontSize=SMALLEST, leading=9, textColor=QUIET)
_FOOT = 26.0  # of the page's caution
_HEX = BRICK.hexval().replace("0x", "#")
_HEAD = ParagraphStyle("head", parent=_BODY, fontName="Helvetica-Bold", fontSize=10.5, leading=14)


def _w(value: float, quantity: str, units: Units, spread: float | None = None) -> str:
    return latin(write(value, quantity, units.get(quantity), spread))


def settings_rows(rig: Rig, bench: Bench, units: Units) -> list[tuple[str, str]]:
    """The settings as (name, value) in the archer's units, each as the pages tell it."""
    a, b, r = rig.archer, rig.bow, rig.arrow
    rows = [
        (
            "Archer",
            f"{a.name or 'not named'}, {word('archer.hand', a.hand)} hand, "
            f"{word('archer.release', a.release)}",
        ),
        (
            "Bow",
            f"{word('bow.form', b.form)}, {_w(b.length_in, 'bow_length', units)}, marked "
            f"{_w(b.marked_weight_lbf, 'weight', units)} at {_w(b.marked_draw_in, 'draw', units)}",
        ),
        ("String", _string(bench, units)),
        (
            "Arrow built as",
            f"{word('arrow.material', r.material)}, {_w(r.shaft_length_in, 'draw', units)}, spine "
            f"{r.static_spine:.0f}, point {_w(r.point_gr, 'mass', units)}",
        ),
        (
            "Side plate",
            f"{word('bow.side_plate', b.side_plate)}, "
            f"{_w(abs(b.plate_offset_mm), 'small', units)} "
            + ("short of centre" if b.plate_offset_mm > 0 else "past centre"),
        ),
        *_side(rig),
        *_set_up(bench, units),
    ]
    for entry in tally(bench):
        if entry.value is None:
            rows.append((entry.title, "cannot be told"))
            continue
        v = entry.value
        told = _w(v.value, v.quantity, units, v.plus_minus)
        rows.append((entry.title, f"{told} ({_MARK[entry.source]})"))
    return rows


def _side(rig: Rig) -> list[tuple[str, str]]:
    """The side on which the arrow lies, where that is not what hand and release ask for."""
    if rig.arrow_as_usual:
        return []
    return [("Arrow lies", "left of the bow" if rig.arrow_left else "right of the bow")]


# The stations whose line on the rail says how the bow is set up.
_SET_UP: tuple[StationId, ...] = ("tiller", "in-line", "final-tiller")


def _set_up(bench: Bench, units: Units) -> list[tuple[str, str]]:
    """How the bow is set up about its middle, as far as its route asks."""
    stops = route_of(bench.rig).stops
    told = {n.station: latin(n.note.plain(units)) for n in notes(bench)}
    rows = [(STATIONS[id].title, told[id]) for id in _SET_UP if id in stops]
    if "centre-shot" in stops:
        with suppress(RefusedError):
            gap = bench.centre_shot.at.gap_mm
            rows.append(("Centre shot", f"point {_w(gap, 'small', units)} outside the string"))
    found = bench.nock.found
    if found is not None:
        band = (_w(mm, "nock_height", units) for mm in (found.low_mm, found.high_mm))
        rows.append(("Nock by reads", " to ".join(band)))
    if "weights" in stops:
        rows.append(("On the riser", latin(hung_said(bench).plain(units))))
    return rows


def _string(bench: Bench, units: Units) -> str:
    """The string as its page tells it: what was not set is assumed."""
    s = bench.rig.string
    parts = [f"{word('string.material', s.material)}, {s.strands} strands"]
    with suppress(RefusedError):
        length = s.length_in or bench.string.fit.needed_length_in
        assumed = "" if s.length_in else " (assumed)"
        parts.append(_w(length, "bow_length", units) + assumed)
        mass = bench.string.fit.mass_gr
        spread = None if s.mass_gr is not None else MASS_SD_SHARE * mass
        parts.append(_w(mass, "mass", units, spread))
    if s.twists is not None:
        parts.append(_w(s.twists, "turns", units))
    return ", ".join(parts)


def renamed(rig: Rig) -> str:
    """The rig's name; where it names another length than the bow's, that is said beside it."""
    named = {float(m) for m in _NAMED_LENGTH.findall(rig.name)}
    length = rig.bow.length_in
    if not named or length in named:
        return rig.name
    return f"{rig.name} (the bow is {length:g} in now)"


def findings_that_matter(bench: Bench) -> list[Finding]:
    """Stops first, then what to mind, over all stations."""
    found = [f for station in views(bench) for f in station.findings if f.level != "fine"]
    return sorted(found, key=lambda f: f.level != "stop")


def _paragraph(
    canvas: Canvas, text: str, style: ParagraphStyle, x: float, y: float, width: float
) -> float:
    p = Paragraph(text, style)
    _, height = p.wrap(width, 400)
    p.drawOn(canvas, x, y - height)
    return float(y - height)


def _table(
    canvas: Canvas, rows: list[list[str]], widths: list[float], x: float, y: float, head: bool
) -> float:
    cells: list[list[str | Paragraph]] = [list(row) for row in rows]
    if not head:  # a long setting takes a second line
        cells = [[row[0], Paragraph(escape(latin(row[1])), _CELL)] for row in rows]
    table = Table(cells, colWidths=widths, rowHeights=[13.4] * len(rows) if head else None)
    style = [
        ("FONT", (0, 0), (-1, -1), "Helvetica", 8.4),
        ("TEXTCOLOR", (0, 0), (-1, -1), INK),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, LINE),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
        ("LEFTPADDING", (0, 0), (-1, -1), 0),
        ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
    ]
    if head:
        style += [
            ("FONT", (0, 0), (-1, 0), "Helvetica-Bold", 8.2),
            ("ALIGN", (0, 0), (-1, -1), "RIGHT"),
        ]
    else:
        style += [("TEXTCOLOR", (0, 0), (0, -1), QUIET)]
    table.setStyle(TableStyle(style))
    _, height = table.wrap(0, 0)
    table.drawOn(canvas, x, y - height)
    return float(y - height)


def _chart_rows(bench: Bench, units: Units) -> list[list[str]]:
    distance, crawl = units.get("distance", "m"), units.get("crawl", "mm")
    spot = units.get("spot", "cm")
    far = f"Distance ({'yd' if distance == 'yd' else 'm'})"
    state = "shot" if bench.aim.shot else "computed"

    def spaces(row: CrawlRow | GapRow) -> list[str]:
        edges = [write(d, "distance", distance, with_unit=False) for d in (row.near_m, row.far_m)]
        return [*edges, state]

    def at(row: CrawlRow | GapRow) -> str:
        return write(row.distance_m, "distance", distance, with_unit=False)

    if bench.rig.aims_by != "crawls":
        unit = "in" if spot == "in" else "cm"
        rows = [
            [far, f"Tip under ({unit})", f"± ({unit})", "By the tip", "Good from", "to", "State"]
        ]
        for gap, pm in zip(bench.aim.gaps, bench.aim.gap_plus_minus_cm, strict=True):
            told = [write(v, "spot", spot, with_unit=False) for v in (gap.gap_cm, float(pm))]
            rows.append([at(gap), *told, write(gap.tip_widths, "shafts"), *spaces(gap)])
        return [[latin(cell) for cell in row] for row in rows]
    rows = [[far, f"Crawl ({'in' if crawl.startswith('in') else 'mm'})", "± ",
             f"± butt ({'in' if spot == 'in' else 'cm'})", "Marks", "Fingers",
             "Good from", "to", "State"]]  # fmt: skip
    aim = bench.aim
    for row, pm, off, of in zip(
        aim.chart.rows, aim.plus_minus_mm, aim.off_cm, aim.counted, strict=True
    ):
        if row.crawl_mm is None:
            shown = [f"hold over {_w(row.hold_over_cm or 0, 'spot', units)}", "", "", "", ""]
        else:
            shown = [
                write(row.crawl_mm, "crawl", crawl, with_unit=False),
                write(float(pm), "crawl", crawl, with_unit=False),
                write(float(off), "spot", spot, with_unit=False),
                write(of.marks, "marks", with_unit=False),
                write(of.fingers, "finger_parts", with_unit=False),
            ]
        rows.append([at(row), *shown, *spaces(row)])
    return [[latin(cell) for cell in row] for row in rows]


class _Page:
    """Where the next line goes: down a column, and over to a new page when it is full."""

    def __init__(self, canvas: Canvas, y: float, width: float) -> None:
        self.canvas, self.y, self.width = canvas, y, width

    def room(self, height: float) -> None:
        """Turn the page if so much is not left over its foot."""
        if self.y - height < _MARGIN + _FOOT:
            _foot(self.canvas)
            self.canvas.showPage()
            self.y, self.width = A4[1] - _MARGIN, A4[0] - 2 * _MARGIN

    def say(self, text: str, style: ParagraphStyle, gap: float = 3) -> None:
        """A paragraph, whole on one page."""
        _, height = Paragraph(text, style).wrap(self.width, 400)
        self.room(height)
        self.y = _paragraph(self.canvas, text, style, _MARGIN, self.y, self.width) - gap


def _finding(f: Finding, units: Units) -> str:
    name, colour = _LEVEL_WORD[f.level]
    head = f'<font color="{colour.hexval().replace("0x", "#")}"><b>{name}.</b></font> '
    return head + escape(latin(f.said.plain(units)))


def _head(c: Canvas, bench: Bench, y: float) -> float:
    """Name and day."""
    title, day = latin(renamed(bench.rig)), f"Lyrandis rig sheet, {day_of(bench.now)}"
    size = 18.0
    room = A4[0] - 2 * _MARGIN - c.stringWidth(day, "Helvetica", 8) - 12
    while size > 9 and c.stringWidth(title, "Helvetica-Bold", size) > room:
        size -= 1
    put_text(c, _MARGIN, y - 14, title, "Helvetica-Bold", size, INK)
    put_text(c, A4[0] - _MARGIN, y - 14, day, "Helvetica", 8, QUIET, right=True)
    c.setStrokeColor(INK)
    c.setLineWidth(0.8)
    c.line(_MARGIN, y - 22, A4[0] - _MARGIN, y - 22)
    return y - 30


def _foot(c: Canvas) -> None:
    caution = (
        "Estimates replace neither the maker's limits nor a bowyer's, coach's or range officer's "
        "word. Clear range, safe backstop, nobody forward of the line. Never dry-fire."
    )
    _paragraph(c, caution, _SMALL, _MARGIN, _MARGIN + 2, A4[0] - 2 * _MARGIN)


def rig_sheet(bench: Bench, units: Units, due: Sequence[Due] = ()) -> bytes:
    """The sheet as PDF.

    Parameters
    ----------
    bench : the rig as kept with its trials, and the time at which it is printed
    units : display unit per quantity; defaults where absent
    due : the schedule at that time: what is due now stands at the sheet's head
    """
    rig = bench.rig
    out = BytesIO()
    c = Canvas(out, pagesize=A4, pageCompression=1)
    c.setTitle(f"{rig.name}: rig sheet")
    c.setAuthor("Lyrandis")
    width, height = A4
    matters = findings_that_matter(bench)
    page = _Page(c, _head(c, bench, height - _MARGIN), width - 2 * _MARGIN)
    if any(f.level == "stop" for f in matters):
        page.say(
            f'<font color="{_HEX}"><b>Unsafe as it stands:</b></font> see the stops below.', _BODY
        )
    overdue = [d.title.plain(units) for d in due if d.when == "now"]
    if overdue:
        page.say(f"<b>Due now:</b> {escape(latin('; '.join(overdue)))}.", _BODY, gap=6)
    top = page.y
    left = 104 * mm
    side = _MARGIN + left + 8 * mm
    page.width = left
    page.say("Settings", _HEAD, gap=2)
    rows = [[name, value] for name, value in settings_rows(rig, bench, units)]
    page.y = _table(c, rows, [30 * mm, left - 30 * mm], _MARGIN, page.y, head=False) - 10
    refused: RefusedError | None = None
    bottom = page.y
    try:
        drawn = (tab_card if bench.rig.aims_by == "crawls" else pocket_card)(bench, units)
        card = top - drawn.height
        renderPDF.draw(drawn, c, side, card)
        check_bar(c, side, card - 8 * mm)
        bottom = card - 20 * mm
    except RefusedError as error:
        refused = error
        text = f"No crawl chart: {escape(latin(error.reason))}"
        bottom = _paragraph(c, text, _BODY, side, top, 60 * mm)
    page.say("What matters", _HEAD, gap=2)
    for f in matters:
        if page.y < bottom:
            page.width = width - 2 * _MARGIN
        page.say(_finding(f, units), _BODY)
    if refused is None:
        rows = _chart_rows(bench, units)
        page.y = min(page.y, bottom) if page.width == left else page.y
        page.width = width - 2 * _MARGIN
        page.y -= 8
        page.room((len(rows) + 2) * 13.4)
        kind = "Crawl chart" if bench.rig.aims_by == "crawls" else "Chart of gaps"
        proved = "learnt from shots" if bench.aim.shot else "computed and to be proved by shooting"
        page.say(f"{kind}, {proved}", _HEAD, gap=2)
        w = page.width / len(rows[0])
        page.y = _table(c, rows, [w] * len(rows[0]), _MARGIN, page.y, head=True)
    _foot(c)
    c.showPage()
    c.save()
    return out.getvalue()
