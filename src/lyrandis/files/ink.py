"""What every paper is drawn with: colours, text, and the bar that proves that the printer kept the
scale."""

from __future__ import annotations

from collections.abc import Mapping

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

INK, QUIET, LINE = HexColor("#20302B"), HexColor("#5B6963"), HexColor("#B9B2A0")
HEATHER = HexColor("#6A4C73")
SMALLEST = 7.0  # pt; nothing on paper is smaller
CHECK_BAR_MM = 50.0
CHECK_WORDS = ("50 mm: measure this bar. If it is not", "50 mm long, print at 100 %.")

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


def check_bar(c: Canvas, x: float, y: float) -> None:
    """The bar of 50 mm."""
    c.setStrokeColor(INK)
    c.setLineWidth(0.8)
    c.line(x, y, x + CHECK_BAR_MM * mm, y)
    for i in range(6):
        c.line(x + i * 10 * mm, y - 1.2 * mm, x + i * 10 * mm, y + 1.2 * mm)
    for i, text in enumerate(CHECK_WORDS):
        put_text(c, x, y - (4.6 + 3.2 * i) * mm, text, "Helvetica", SMALLEST, QUIET)
