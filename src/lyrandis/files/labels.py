"""Labels for shafts at true size, on the common sheets of labels."""

from __future__ import annotations

from collections.abc import Sequence
from io import BytesIO
from typing import Literal, NamedTuple

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import inch, mm
from reportlab.pdfgen.canvas import Canvas

from lyrandis.core.errors import RefusedError
from lyrandis.core.parts.part import Shaft
from lyrandis.core.units import write
from lyrandis.files.ink import INK, QUIET, SMALLEST, Units, put_text

SheetId = Literal["a4_24", "a4_65", "letter_30"]


class LabelSheet(NamedTuple):
    """A sheet of labels: its paper, columns and rows, a label's size, where the first one stands.

    All in points, from the paper's upper left corner; step is from one label to the next.
    """

    title: str
    paper: tuple[float, float]
    columns: int
    rows: int
    width: float
    height: float
    left: float
    top: float
    step_x: float
    step_y: float


SHEETS: dict[SheetId, LabelSheet] = {
    "a4_24": LabelSheet(
        "A4, 24 of 70 × 37 mm", A4, 3, 8, 70 * mm, 37 * mm, 0, 0.5 * mm, 70 * mm, 37 * mm
    ),
    "a4_65": LabelSheet(
        "A4, 65 of 38.1 × 21.2 mm", A4, 5, 13, 38.1 * mm, 21.2 * mm, 4.75 * mm, 10.7 * mm,
        40.6 * mm, 21.2 * mm,
    ),
    "letter_30": LabelSheet(
        "Letter, 30 of 2 5/8 × 1 in", LETTER, 3, 10, 2.625 * inch, inch, 0.1875 * inch, 0.5 * inch,
        2.75 * inch, inch,
    ),
}  # fmt: skip


def shaft_labels(
    name: str, shafts: Sequence[Shaft], sheet: SheetId, units: Units, skip: int = 0
) -> bytes:
    """A PDF of labels, one for each whole shaft: its number, the set, its weight and spine.

    Parameters
    ----------
    skip : labels of the first sheet that are gone already

    Raises
    ------
    RefusedError : no shaft is whole, or more labels are skipped than a sheet has.
    """
    s = SHEETS[sheet]
    room = s.columns * s.rows
    if skip >= room:
        raise RefusedError("skip", "So many labels are not on the sheet.", room - 1, "labels")
    whole = [shaft for shaft in shafts if shaft.state in ("whole", "put_by")]
    if not whole:
        raise RefusedError("shafts", "No shaft of this set is whole: there is nothing to label.")
    out = BytesIO()
    c = Canvas(out, pagesize=s.paper, invariant=1)
    c.setTitle(f"{name}, labels")
    for i, shaft in enumerate(whole, skip):
        if i % room == 0 and i > skip:
            c.showPage()
        row, column = divmod(i % room, s.columns)
        left = s.left + column * s.step_x
        top = s.paper[1] - s.top - row * s.step_y
        _label(c, s, left, top, name, shaft, units)
    c.save()
    return out.getvalue()


def _label(
    c: Canvas, s: LabelSheet, left: float, top: float, name: str, shaft: Shaft, units: Units
) -> None:
    rim = 3 * mm
    big = min(s.height * 0.5, 30.0)
    put_text(
        c, left + rim, top - rim - big * 0.75, str(shaft.number), "Helvetica-Bold", big, INK
    )  # fmt: skip
    beside = left + rim + c.stringWidth(str(shaft.number), "Helvetica-Bold", big) + 2 * mm
    lines = []
    if shaft.mass_gr is not None:
        lines.append(write(shaft.mass_gr, "mass", units.get("mass")))
    if shaft.static_spine is not None:
        lines.append(f"spine {write(shaft.static_spine, 'spine', units.get('spine'))}")
    for i, text in enumerate(lines):
        put_text(c, beside, top - rim - 7 - 9 * i, text, "Helvetica", 8, INK)
    room = int((s.width - 2 * rim) / (SMALLEST * 0.5))
    put_text(c, left + rim, top - s.height + rim, name[:room], "Helvetica", SMALLEST, QUIET)
