"""Cutting marks of a tapered shaft at true size: lay the shaft on, mark, thin, measure.

A taper longer than the paper is drawn in pieces that begin where the one before ends.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from io import BytesIO

import numpy as np
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from lyrandis.core.arrow.taper import Gauge, diameters_mm, refuse_taper, tapered_ends
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Arrow
from lyrandis.core.units import MM_PER_IN, write
from lyrandis.files.ink import HEATHER, INK, QUIET, SMALLEST, Units, check_bar, put_text

PIECE_IN = 6.5  # of the shaft on one strip
_TOP, _LEFT, _STEP = 285 * mm, 18 * mm, 66 * mm
_PER_PAGE = 3


def _pieces(arrow: Arrow) -> Iterator[tuple[str, float, float]]:
    """What is drawn: which end it is of, from and to [in from the throat]."""
    length = arrow.shaft_length_in
    for end in tapered_ends(arrow):
        at, high = (0.0, end.length_in) if end.name == "rear" else (length - end.length_in, length)
        while high - at > 1e-9:
            yield end.name, at, min(at + PIECE_IN, high)
            at += PIECE_IN


def cutting_marks(bench: Bench, gauges: Sequence[Gauge], units: Units) -> bytes:
    """A PDF of both tapers at true size, each inch with its diameter and tolerance.

    Raises
    ------
    RefusedError : the shaft has no taper, or its tapers meet.
    """
    arrow = bench.rig.arrow
    if not tapered_ends(arrow):
        raise RefusedError("arrow.rear_taper_in", "This shaft has no taper to cut.")
    refuse_taper(arrow)
    out = BytesIO()
    c = Canvas(out, pagesize=A4, invariant=1)
    c.setTitle(f"{bench.rig.name}, cutting marks")
    for i, (end, low, high) in enumerate(_pieces(arrow)):
        if i and i % _PER_PAGE == 0:
            _foot(c)
            c.showPage()
        if i % _PER_PAGE == 0:
            _head(c, bench, units)
        _strip(c, arrow, end, low, high, gauges, _TOP - 42 * mm - (i % _PER_PAGE) * _STEP, units)
    _foot(c)
    c.save()
    return out.getvalue()


def _head(c: Canvas, bench: Bench, units: Units) -> None:
    a = bench.rig.arrow
    put_text(c, 16 * mm, _TOP - 8, f"{bench.rig.name}: cutting marks", "Helvetica-Bold", 13, INK)
    whole = write(a.shaft_length_in, "draw", units.get("draw"))
    thick = write(a.diameter_mm, "small", units.get("small"))
    text = f"True size. Shaft {whole} from the throat of the arrow nock, {thick} where it is whole."
    put_text(c, 16 * mm, _TOP - 22, text, "Helvetica", 8.5, QUIET)


def _foot(c: Canvas) -> None:
    check_bar(c, 16 * mm, 22 * mm)


def _strip(
    c: Canvas, arrow: Arrow, end: str, low: float, high: float, gauges: Sequence[Gauge], y: float,
    units: Units,
) -> None:  # fmt: skip
    """One piece of the shaft at true size, its marks each inch."""
    inch = MM_PER_IN * mm

    def x(at: float) -> float:
        return _LEFT + (at - low) * inch

    from_end = low if end == "rear" else arrow.shaft_length_in - low
    what = "arrow nock" if end == "rear" else "point"
    far = write(from_end, "draw", units.get("draw"))
    put_text(c, 16 * mm, y + 17 * mm, f"From {far} off the {what}", "Helvetica-Bold", 9, INK)
    at = np.linspace(low, high, 60)
    half = diameters_mm(arrow, at) / 2 * mm
    c.setStrokeColor(INK)
    c.setLineWidth(0.6)
    outline = c.beginPath()
    outline.moveTo(x(low), y + half[0])
    for place, up in zip(at, half, strict=True):
        outline.lineTo(x(place), y + up)
    for place, up in zip(at[::-1], half[::-1], strict=True):
        outline.lineTo(x(place), y - up)
    outline.close()
    c.drawPath(outline)
    c.setStrokeColor(HEATHER)
    for gauge in gauges:
        if not low - 1e-9 <= gauge.at_in <= high + 1e-9:
            continue
        c.line(x(gauge.at_in), y - 8 * mm, x(gauge.at_in), y + 8 * mm)
        from_nock = write(gauge.at_in, "draw", units.get("draw"))
        for i, text in enumerate(
            (from_nock, f"{gauge.diameter_mm:.2f} mm", f"± {gauge.tolerance_mm:.2f}")
        ):
            put_text(
                c, x(gauge.at_in) - 8, y - (11 + 3.2 * i) * mm, text, "Helvetica", SMALLEST, QUIET
            )
