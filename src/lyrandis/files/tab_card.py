"""The tab card at true size, and the bar that proves that the printer kept the scale.

The card stands for the hand that holds the string: a left hand's is mirrored.
"""

from __future__ import annotations

from collections.abc import Mapping

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from lyrandis.core.bench import Bench
from lyrandis.core.units import write

INK, QUIET, LINE = HexColor("#20302B"), HexColor("#5B6963"), HexColor("#B9B2A0")
HEATHER = HexColor("#6A4C73")
SMALLEST = 7.0  # pt; nothing on paper is smaller
_CHECK_BAR_MM = 50.0
_WIDTH_MM = 46.0

Units = Mapping[str, str]


def latin(text: str) -> str:
    """Text in the signs that the standard PDF fonts have."""
    return text.replace("−", "-").replace("“", '"').replace("”", '"').replace("’", "'")


def put_text(
    c: Canvas, x: float, y: float, text: str, font: str, size: float, colour: Color,
    right: bool = False,
) -> None:  # fmt: skip
    c.setFont(font, size)
    c.setFillColor(colour)
    (c.drawRightString if right else c.drawString)(x, y, latin(text))


def _w(value: float, quantity: str, units: Units) -> str:
    return latin(write(value, quantity, units.get(quantity)))


def tab_card(c: Canvas, bench: Bench, units: Units, x: float, top: float) -> float:
    """The crawl card at true size, its zero (the arrow nock) at the top; returns its bottom."""
    rows = [r for r in bench.aim.chart.rows if r.crawl_mm is not None]
    deepest = max((r.crawl_mm or 0 for r in rows), default=0.0)
    head, foot = 19 * mm, 6 * mm
    height = head + deepest * mm + foot
    left_hand = bench.rig.archer.hand == "left"
    side = -1 if left_hand else 1  # away from the card's edge
    c.setStrokeColor(INK)
    c.setLineWidth(0.6)
    c.roundRect(x, top - height, _WIDTH_MM * mm, height, 2 * mm)
    put_text(c, x + 3 * mm, top - 5 * mm, bench.rig.name[:26], "Helvetica-Bold", 8, INK)
    hand = "left" if left_hand else "right"
    lines = ("below the arrow nock, true size", f"{hand} hand; computed, not yet shot")
    for i, line in enumerate(lines):
        put_text(c, x + 3 * mm, top - (9 + 3.2 * i) * mm, line, "Helvetica", SMALLEST, QUIET)
    zero = top - head
    edge = x + (_WIDTH_MM - 12 if left_hand else 12) * mm
    c.setLineWidth(0.5)
    c.line(edge, zero, edge, zero - deepest * mm)
    c.setDash(1, 1.5)
    c.line(x + 3 * mm, zero, x + (_WIDTH_MM - 3) * mm, zero)
    c.setDash()
    place = x + 3 * mm if left_hand else x + (_WIDTH_MM - 3) * mm
    put_text(c, place, zero + 3.2, "arrow nock", "Helvetica", SMALLEST, QUIET, right=not left_hand)
    pitch = bench.rig.archer.stitch_pitch_mm
    for i in range(int(deepest / pitch) + 1):
        long = 2.4 if i % 5 == 0 else 1.2
        y = zero - i * pitch * mm
        out = edge - side * long * mm
        c.line(min(out, edge), y, max(out, edge), y)
    last = 1e9
    for row in sorted(rows, key=lambda r: r.crawl_mm or 0):
        assert row.crawl_mm is not None
        y = zero - row.crawl_mm * mm
        c.setStrokeColor(HEATHER)
        c.line(min(edge, edge + side * 7 * mm), y, max(edge, edge + side * 7 * mm), y)
        if last - y > SMALLEST:
            text = f"{_w(row.distance_m, 'distance', units)}   {_w(row.crawl_mm, 'crawl', units)}"
            put_text(
                c, edge + side * 8 * mm, y - 2.4, text, "Helvetica-Bold", 7.4, INK, right=left_hand
            )
            last = y
    return float(top - height)


def check_bar(c: Canvas, x: float, y: float) -> None:
    """The bar of 50 mm."""
    c.setStrokeColor(INK)
    c.setLineWidth(0.8)
    c.line(x, y, x + _CHECK_BAR_MM * mm, y)
    for i in range(6):
        c.line(x + i * 10 * mm, y - 1.2 * mm, x + i * 10 * mm, y + 1.2 * mm)
    for i, text in enumerate(
        ("50 mm: measure this bar. If it is not", "50 mm long, print at 100 %.")
    ):
        put_text(c, x, y - (4.6 + 3.2 * i) * mm, text, "Helvetica", SMALLEST, QUIET)
