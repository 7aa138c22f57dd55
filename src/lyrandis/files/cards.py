"""Cards at true size, drawn once for paper (PDF) and for any drawing program (SVG).

    tab     a ruler below the arrow nock, mark by mark, for the hand that holds the string
    pocket  the chart as a table: crawl or gap for each distance, with its doubt
    course  the round card: target by target

Each stands over a bar of 50 mm that proves the scale.
"""

from __future__ import annotations

import io
import re
from collections.abc import Callable, Sequence
from typing import Literal

from reportlab.graphics import renderPDF, renderSVG
from reportlab.graphics.shapes import Drawing, Line, Rect, String
from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.units import write
from lyrandis.files.ink import (
    CHECK_BAR_MM,
    CHECK_WORDS,
    HEATHER,
    INK,
    LINE,
    QUIET,
    SMALLEST,
    Units,
    latin,
)

CardId = Literal["tab", "pocket", "course"]
_TAB_MM, _POCKET_MM = 46.0, 74.0
_LINE_MM = 4.4
_FONT = {False: "Helvetica", True: "Helvetica-Bold"}
_NAME = 26  # signs of a target's name
_MARGIN_MM = 16.0
_BAR_MM = 14.0  # the check bar and its words, under a card


class _Pen:
    """Draws in millimetres from the upper left of a card."""

    def __init__(self, width_mm: float, height_mm: float) -> None:
        self.width, self.height = width_mm, height_mm
        self.drawing = Drawing(width_mm * mm, height_mm * mm)

    def _y(self, y: float) -> float:
        return (self.height - y) * mm

    def line(
        self, x0: float, y0: float, x1: float, y1: float, colour: Color = INK, width: float = 0.5,
        dash: Sequence[float] | None = None,
    ) -> None:  # fmt: skip
        """A line between two places [mm]."""
        self.drawing.add(
            Line(x0 * mm, self._y(y0), x1 * mm, self._y(y1), strokeColor=colour,
                 strokeWidth=width, strokeDashArray=dash)
        )  # fmt: skip

    def text(
        self, x: float, y: float, text: str, size: float = SMALLEST, colour: Color = INK,
        bold: bool = False, right: bool = False,
    ) -> None:  # fmt: skip
        """Words whose baseline is at a place [mm]; right: ending there."""
        self.drawing.add(
            String(x * mm, self._y(y), latin(text), fontName=_FONT[bold],
                   fontSize=size, fillColor=colour, textAnchor="end" if right else "start")
        )  # fmt: skip

    def frame(self) -> None:
        """The card's edge."""
        self.drawing.add(
            Rect(0, 0, self.width * mm, self.height * mm, rx=2 * mm, ry=2 * mm, fillColor=None,
                 strokeColor=INK, strokeWidth=0.6)
        )  # fmt: skip


def _state(bench: Bench) -> str:
    """Whether what stands on the card was shot."""
    if bench.aim.shot:
        return f"learnt from {sum(len(v.heights_cm) for v in bench.aim.shot)} arrows"
    return "from what was known, not yet shot" if bench.aim.told else "computed, not yet shot"


def _writer(units: Units) -> Callable[[float, str], str]:
    return lambda value, quantity: write(value, quantity, units.get(quantity))


def tab_card(bench: Bench, units: Units) -> Drawing:
    """The crawls as a ruler at true size, its zero (the arrow nock) at the top.

    It stands for the hand that holds the string: a left hand's is mirrored.

    Raises
    ------
    RefusedError : the string is not walked, or there is no chart.
    """
    if bench.rig.aims_by != "crawls":
        raise RefusedError("aim.allowed", "A tab card carries crawls; this aim has gaps.")
    w = _writer(units)
    rows = [r for r in bench.aim.chart.rows if r.crawl_mm is not None]
    deepest = max((r.crawl_mm or 0 for r in rows), default=0.0)
    head, foot = 19.0, 6.0
    pen = _Pen(_TAB_MM, head + deepest + foot)
    left_hand = bench.rig.archer.hand == "left"
    side = -1 if left_hand else 1  # away from the card's edge
    pen.frame()
    pen.text(3, 5, bench.rig.name[:26], 8, bold=True)
    hand = "left" if left_hand else "right"
    for i, line in enumerate(("below the arrow nock, true size", f"{hand} hand", _state(bench))):
        pen.text(3, 9 + 3.2 * i, line, colour=QUIET)
    edge = _TAB_MM - 12 if left_hand else 12.0
    pen.line(edge, head, edge, head + deepest)
    pen.line(3, head, _TAB_MM - 3, head, dash=(1, 1.5))
    pen.text(
        3 if left_hand else _TAB_MM - 3, head - 1.1, "arrow nock", colour=QUIET, right=not left_hand
    )
    pitch = bench.rig.archer.stitch_pitch_mm
    for i in range(int(deepest / pitch) + 1):
        long = 2.4 if i % 5 == 0 else 1.2
        pen.line(edge, head + i * pitch, edge - side * long, head + i * pitch)
    last = -1e9
    for row in sorted(rows, key=lambda r: r.crawl_mm or 0):
        y = head + (row.crawl_mm or 0.0)
        a, b = sorted((edge, edge + side * 7))
        pen.line(a, y, b, y, HEATHER)
        if y - last > SMALLEST / mm:
            text = f"{w(row.distance_m, 'distance')}   {w(row.crawl_mm or 0.0, 'crawl')}"
            pen.text(edge + side * 8, y + 0.85, text, 7.4, bold=True, right=left_hand)
            last = y
    return pen.drawing


def _table(
    title: str, under: str, heads: Sequence[str], rows: Sequence[Sequence[str]], at: Sequence[float]
) -> Drawing:
    """A card with a table; at: where each column ends [mm], the first begins at the left."""
    head = 19.0
    pen = _Pen(max(_POCKET_MM, at[-1] + 4), head + _LINE_MM * len(rows) + 3)
    pen.frame()
    pen.text(3, 5.5, title[:44], 9, bold=True)
    pen.text(3, 9.5, under[:70], colour=QUIET)
    for i, cells in enumerate((heads, *rows)):
        y = head - 2 + _LINE_MM * i
        bold, colour = (False, QUIET) if i == 0 else (True, INK)
        for j, (cell, x) in enumerate(zip(cells, at, strict=True)):
            loud = bold and j < 2
            pen.text(3 if j == 0 else x, y, cell, 7.6 if i else SMALLEST, colour, loud, right=j > 0)
        pen.line(3, y + 1.2, pen.width - 3, y + 1.2, LINE, 0.3)
    return pen.drawing


def pocket_card(bench: Bench, units: Units) -> Drawing:
    """The chart as a table for the pocket."""
    w = _writer(units)
    under = _state(bench)
    if bench.rig.aims_by == "crawls":
        rows = []
        aim = bench.aim
        for row, pm, off, c in zip(
            aim.chart.rows, aim.plus_minus_mm, aim.off_cm, aim.counted, strict=True
        ):
            if row.crawl_mm is None:
                shown = [f"hold {w(row.hold_over_cm or 0.0, 'spot')} over", "", "", ""]
            else:
                marks = c.words or write(c.marks, "marks", with_unit=False)
                spread = [w(float(pm), "crawl"), w(float(off), "spot")]
                shown = [w(row.crawl_mm, "crawl"), *spread, marks]
            rows.append([w(row.distance_m, "distance"), *shown])
        return _table(
            bench.rig.name, under, ("Distance", "Crawl", "+/-", "on the butt", "Marks"), rows,
            (3, 30, 45, 59, 72),
        )  # fmt: skip
    rows = [
        [w(r.distance_m, "distance"), _gap(r.gap_cm, units), w(float(pm), "spot"),
         write(abs(r.tip_widths), "shafts", with_unit=False)]
        for r, pm in zip(bench.aim.gaps, bench.aim.gap_plus_minus_cm, strict=True)
    ]  # fmt: skip
    if bench.rig.steady_crawl_mm:
        under = f"crawl {w(bench.rig.steady_crawl_mm, 'crawl')}; {under}"
    return _table(
        bench.rig.name, under, ("Distance", "Tip", "+/-", "Shafts"), rows, (3, 40, 56, 70)
    )


def _gap(cm: float, units: Units) -> str:
    return f"{write(abs(cm), 'spot', units.get('spot'))} {'under' if cm >= 0 else 'over'}"


def course_card(bench: Bench, course: int, units: Units) -> Drawing:
    """The round card of one of the archer's courses, counted from 0.

    Raises
    ------
    RefusedError : there is no such course.
    """
    if not 0 <= course < len(bench.rig.courses):
        raise RefusedError("course", "This rig has no such course.", len(bench.rig.courses))
    w = _writer(units)
    rows = []
    for line in bench.aiming.round_cards[course]:
        t = line.target
        if line.why:
            aim = "no aim: see the page"
        elif line.crawl_mm is not None:
            aim = w(line.crawl_mm, "crawl")
        elif line.hold_over_cm is not None:
            aim = f"hold {w(line.hold_over_cm, 'spot')} over"
        else:
            aim = _gap(line.gap_cm or 0.0, units)
        marks = ""
        if line.counted:
            marks = line.counted.words or write(line.counted.marks, "marks", with_unit=False)
        rows.append([
            f"{line.number}  {t.name}"[:_NAME], aim, w(t.distance_m, "distance"),
            write(t.slope_deg, "angle") if t.slope_deg else "level", marks,
        ])  # fmt: skip
    name = f"{bench.rig.courses[course].name} - {bench.rig.name}"
    heads = ("Target", "Aim", "Distance", "Slope", "Marks")
    return _table(name, _state(bench), heads, rows, (3, 56, 74, 88, 104))


def as_pdf(card: Drawing) -> bytes:
    """A card on a page of A4, over its check bar."""
    out = io.BytesIO()
    c = Canvas(out, pagesize=A4)
    _, height = A4
    top = height - _MARGIN_MM * mm
    renderPDF.draw(card, c, _MARGIN_MM * mm, top - card.height)
    renderPDF.draw(_check(card.width / mm), c, _MARGIN_MM * mm, top - card.height - _BAR_MM * mm)
    c.showPage()
    c.save()
    return out.getvalue()


def _check(width_mm: float) -> Drawing:
    """The bar of 50 mm, with what it is for."""
    pen = _Pen(width_mm, _BAR_MM)
    pen.line(0, 4, CHECK_BAR_MM, 4, INK, 0.8)
    for i in range(6):
        pen.line(i * 10, 2.8, i * 10, 5.2, INK, 0.8)
    for i, text in enumerate(CHECK_WORDS):
        pen.text(0, 8.6 + 3.2 * i, text, colour=QUIET)
    return pen.drawing


def as_svg(card: Drawing) -> str:
    """A card over its check bar as SVG, its size stated in millimetres."""
    width, height = max(card.width / mm, CHECK_BAR_MM), card.height / mm + _BAR_MM
    whole = Drawing(width * mm, height * mm)
    for part, up in ((card, _BAR_MM * mm), (_check(width), 0.0)):
        part.translate(0, up)
        whole.add(part.asGroup())
    text = renderSVG.drawToString(whole)
    # The writer rounds to whole points, names nothing, and points at a type definition elsewhere.
    for rounded, true in (
        (r"<!DOCTYPE[^>]*>\s*", ""),
        (r'width="[\d.]+" height="[\d.]+"', f'width="{width:.3f}mm" height="{height:.3f}mm"'),
        (r'viewBox="[^"]*"', f'viewBox="0 0 {whole.width:.4f} {whole.height:.4f}"'),
        (r"translate\(0,-\d+\)", f"translate(0,{-whole.height:.4f})"),
        (
            r"font-family: ?Helvetica-Bold",
            "font-family: Helvetica, Arial, sans-serif; font-weight: bold",
        ),
        (r"font-family: ?Helvetica;", "font-family: Helvetica, Arial, sans-serif;"),
        (r"<title>[^<]*</title>\s*<desc>[^<]*</desc>", "<title>Lyrandis card</title>"),
    ):
        text = re.sub(rounded, true, text)
    return text
