"""The printed rig sheet: settings, findings that matter, and the crawl chart as a tab card.

The tab card is drawn at true size; a 50 mm bar beside it proves that the printer kept the scale.
"""

from __future__ import annotations

from collections.abc import Mapping
from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Table, TableStyle

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding
from lyrandis.core.rig import Rig
from lyrandis.core.stations import views
from lyrandis.core.tally import tally
from lyrandis.core.units import write
from lyrandis.core.words import word

INK, QUIET, LINE = HexColor("#20302B"), HexColor("#5B6963"), HexColor("#B9B2A0")
HEATHER, BRICK, OCHRE = HexColor("#6A4C73"), HexColor("#A23B2A"), HexColor("#9A6A12")
_MARGIN = 16 * mm
_CHECK_BAR_MM = 50.0
_CARD_WIDTH_MM = 46.0
_MOST_FINDINGS = 10
_LEVEL_WORD = {"stop": ("Stop", BRICK), "mind": ("Mind", OCHRE)}
_BODY = ParagraphStyle("body", fontName="Helvetica", fontSize=8.6, leading=11.4, textColor=INK)
_HEAD = ParagraphStyle("head", parent=_BODY, fontName="Helvetica-Bold", fontSize=10.5, leading=14)

Units = Mapping[str, str]


def _latin(text: str) -> str:
    """Text in the signs that the standard PDF fonts have."""
    return text.replace("−", "-").replace("“", '"').replace("”", '"').replace("’", "'")


def _w(value: float, quantity: str, units: Units, spread: float | None = None) -> str:
    return _latin(write(value, quantity, units.get(quantity), spread))


def settings_rows(rig: Rig, bench: Bench, units: Units) -> list[tuple[str, str]]:
    """The settings as (name, value) in the archer's units."""
    a, b, s, r = rig.archer, rig.bow, rig.string, rig.arrow
    rows = [
        (
            "Archer",
            f"{a.name or 'not named'}, {word('archer.hand', a.hand)} hand, "
            f"{word('archer.release', a.release)}",
        ),
        ("Draw length", _w(a.draw_length_in, "draw", units, a.draw_plus_minus_in)),
        (
            "Bow",
            f"{word('bow.form', b.form)}, {_w(b.length_in, 'bow_length', units)}, "
            f"{_w(b.marked_weight_lbf, 'weight', units)} at {_w(b.marked_draw_in, 'draw', units)}",
        ),
        (
            "String",
            f"{word('string.material', s.material)}, {s.strands} strands"
            + (f", {_w(s.length_in, 'bow_length', units)}" if s.length_in else "")
            + (f", {s.twists} twists" if s.twists is not None else ""),
        ),
        (
            "Arrow built as",
            f"{word('arrow.material', r.material)}, {_w(r.shaft_length_in, 'draw', units)}, spine "
            f"{r.static_spine:.0f}, point {_w(r.point_gr, 'mass', units)}",
        ),
        (
            "Side plate",
            f"{word('bow.side_plate', b.side_plate)}, "
            f"{_w(b.centre_cut_mm, 'small', units)} past centre",
        ),
    ]
    for entry in tally(bench):
        if entry.id in ("draw",) or entry.value is None:
            continue
        v = entry.value
        mark = {"measured": "measured", "set": "set"}.get(entry.source, "estimate")
        rows.append((entry.title, f"{_w(v.value, v.quantity, units, v.plus_minus)}  ({mark})"))
    return rows


def findings_that_matter(bench: Bench) -> list[Finding]:
    """Stops first, then what to mind, over all stations."""
    found = [f for station in views(bench) for f in station.findings if f.level != "fine"]
    return sorted(found, key=lambda f: f.level != "stop")[:_MOST_FINDINGS]


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
    table = Table(rows, colWidths=widths, rowHeights=[13.4] * len(rows))
    style = [
        ("FONT", (0, 0), (-1, -1), "Helvetica", 8.4),
        ("TEXTCOLOR", (0, 0), (-1, -1), INK),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, LINE),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
        ("LEFTPADDING", (0, 0), (-1, -1), 0),
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


def _text(
    c: Canvas, x: float, y: float, text: str, font: str, size: float, colour: Color,
    right: bool = False,
) -> None:  # fmt: skip
    c.setFont(font, size)
    c.setFillColor(colour)
    (c.drawRightString if right else c.drawString)(x, y, _latin(text))


def tab_card(c: Canvas, bench: Bench, units: Units, x: float, top: float) -> float:
    """The crawl card at true size, its zero (the arrow nock) at the top; returns its bottom."""
    rows = [r for r in bench.aim.chart.rows if r.crawl_mm is not None]
    deepest = max((r.crawl_mm or 0 for r in rows), default=0.0)
    head, foot = 15 * mm, 6 * mm
    height = head + deepest * mm + foot
    c.setStrokeColor(INK)
    c.setLineWidth(0.6)
    c.roundRect(x, top - height, _CARD_WIDTH_MM * mm, height, 2 * mm)
    _text(c, x + 3 * mm, top - 5 * mm, bench.rig.name[:26], "Helvetica-Bold", 8, INK)
    _text(
        c,
        x + 3 * mm,
        top - 9 * mm,
        "crawl below the arrow nock, true size",
        "Helvetica",
        5.6,
        QUIET,
    )
    zero = top - head
    edge = x + 12 * mm
    c.setLineWidth(0.5)
    c.line(edge, zero, edge, zero - deepest * mm)
    c.setDash(1, 1.5)
    c.line(x + 3 * mm, zero, x + (_CARD_WIDTH_MM - 3) * mm, zero)
    c.setDash()
    _text(
        c,
        x + (_CARD_WIDTH_MM - 3) * mm,
        zero + 1.2,
        "arrow nock",
        "Helvetica",
        5.6,
        QUIET,
        right=True,
    )
    pitch = bench.rig.archer.stitch_pitch_mm
    for i in range(int(deepest / pitch) + 1):
        long = 2.4 if i % 5 == 0 else 1.2
        c.line(edge - long * mm, zero - i * pitch * mm, edge, zero - i * pitch * mm)
    last = 1e9
    for row in sorted(rows, key=lambda r: r.crawl_mm or 0):
        assert row.crawl_mm is not None
        y = zero - row.crawl_mm * mm
        c.setStrokeColor(HEATHER)
        c.line(edge, y, edge + 7 * mm, y)
        if last - y > 7:
            text = f"{_w(row.distance_m, 'distance', units)}   {_w(row.crawl_mm, 'crawl', units)}"
            _text(c, edge + 8 * mm, y - 2.4, text, "Helvetica-Bold", 7.4, INK)
            last = y
    return float(top - height)


def _check_bar(c: Canvas, x: float, y: float) -> None:
    c.setStrokeColor(INK)
    c.setLineWidth(0.8)
    c.line(x, y, x + _CHECK_BAR_MM * mm, y)
    for i in range(6):
        c.line(x + i * 10 * mm, y - 1.2 * mm, x + i * 10 * mm, y + 1.2 * mm)
    text = "50 mm: measure this bar. If it is not 50 mm long, print again at 100 %."
    _text(c, x, y - 4.6 * mm, text, "Helvetica", 6.4, QUIET)


def _chart_rows(bench: Bench, units: Units) -> list[list[str]]:
    distance, crawl = units.get("distance", "m"), units.get("crawl", "mm")
    rows = [[f"Distance ({'yd' if distance == 'yd' else 'm'})",
             f"Crawl ({'in' if crawl.startswith('in') else 'mm'})", "± ", "Marks", "Fingers",
             "Good from", "to"]]  # fmt: skip
    for row, pm in zip(bench.aim.chart.rows, bench.aim.plus_minus_mm, strict=True):
        if row.crawl_mm is None:
            over = _w(row.hold_over_cm or 0, "spot", units)
            shown = [f"hold over {over}", "", "", ""]
        else:
            shown = [
                write(row.crawl_mm, "crawl", crawl, with_unit=False),
                write(float(pm), "crawl", crawl, with_unit=False),
                write(row.stitches or 0, "marks", with_unit=False),
                write(row.fingers or 0, "fingers", with_unit=False),
            ]
        rows.append(
            [
                write(row.distance_m, "distance", distance, with_unit=False),
                *shown,
                write(row.near_m, "distance", distance, with_unit=False),
                write(row.far_m, "distance", distance, with_unit=False),
            ]
        )
    return [[_latin(cell) for cell in row] for row in rows]


def rig_sheet(bench: Bench, units: Units) -> bytes:
    """The sheet as PDF.

    Parameters
    ----------
    bench : the rig as kept with its trials, and the time at which it is printed
    units : display unit per quantity; defaults where absent
    """
    rig, now = bench.rig, bench.now
    out = BytesIO()
    c = Canvas(out, pagesize=A4, pageCompression=1)
    c.setTitle(f"{rig.name}: rig sheet")
    c.setAuthor("Lyrandis")
    width, height = A4
    y = height - _MARGIN
    _text(c, _MARGIN, y - 14, rig.name, "Helvetica-Bold", 18, INK)
    _text(
        c,
        width - _MARGIN,
        y - 14,
        f"Lyrandis rig sheet, {day_of(now)}",
        "Helvetica",
        8,
        QUIET,
        right=True,
    )
    y -= 22
    c.setStrokeColor(INK)
    c.setLineWidth(0.8)
    c.line(_MARGIN, y, width - _MARGIN, y)
    y -= 10
    left = 104 * mm
    side = _MARGIN + left + 8 * mm
    y1 = _paragraph(c, "Settings", _HEAD, _MARGIN, y, left) - 2
    rows = [[name, value] for name, value in settings_rows(rig, bench, units)]
    y1 = _table(c, rows, [30 * mm, left - 30 * mm], _MARGIN, y1, head=False) - 10
    y1 = _paragraph(c, "What matters", _HEAD, _MARGIN, y1, left) - 2
    for f in findings_that_matter(bench):
        word, colour = _LEVEL_WORD[f.level]
        text = (
            f'<font color="{colour.hexval().replace("0x", "#")}"><b>{word}.</b></font> '
            + escape(_latin(f.said.plain(units)))
        )
        y1 = _paragraph(c, text, _BODY, _MARGIN, y1, left) - 3
    try:
        bottom = tab_card(c, bench, units, side, y)
        _check_bar(c, side, bottom - 8 * mm)
        y1 = min(y1, bottom - 18 * mm) - 8
        rows = _chart_rows(bench, units)
        if y1 - (len(rows) + 3) * 13.4 < _MARGIN + 24:
            c.showPage()
            y1 = height - _MARGIN
        y1 = (
            _paragraph(
                c,
                "Crawl chart, computed and to be proved by shooting",
                _HEAD,
                _MARGIN,
                y1,
                170 * mm,
            )
            - 2
        )
        w = (width - 2 * _MARGIN) / 7
        y1 = _table(c, rows, [w] * 7, _MARGIN, y1, head=True)
    except RefusedError as error:
        _paragraph(c, f"No crawl chart: {escape(_latin(error.reason))}", _BODY, side, y, 60 * mm)
    caution = (
        "Estimates replace neither the maker's limits nor a bowyer's, coach's or range officer's "
        "word. Clear range, safe backstop, nobody forward of the line. Never dry-fire."
    )
    _paragraph(
        c,
        caution,
        ParagraphStyle("foot", parent=_BODY, fontSize=7, textColor=QUIET),
        _MARGIN,
        _MARGIN,
        width - 2 * _MARGIN,
    )
    c.showPage()
    c.save()
    return out.getvalue()
