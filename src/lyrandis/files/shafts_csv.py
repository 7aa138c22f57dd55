"""Shafts of a set as CSV or pasted lines: number, weight, spine, straightness."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from pydantic import ValidationError

from lyrandis.core.arrow.spine import parse_spine
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.parts.part import Shaft
from lyrandis.core.units import parse
from lyrandis.files.table_csv import Column, at_line, measured, read_table

MOST_SHAFTS = 200
EXAMPLE = "number,weight (gr),spine"


def _spine(cell: str, unit: str | None) -> float:
    return parse_spine(f"{cell}#" if unit in ("lb", "#") else cell)


def _number(cell: str, _: str | None) -> float:
    return round(parse(cell, "count"))


_COLUMNS = {
    "number": Column((), _number, needed=False, names=("no", "shaft", "arrow")),
    "weight": Column(("gr", "g"), measured("mass"), needed=False, names=("mass", "weighed")),
    "spine": Column(("lb", "#"), _spine, needed=False, plain=True),
    "runout": Column(("mm",), measured("small"), needed=False, names=("straightness",)),
}
_FIELDS = {"weight": "mass_gr", "spine": "static_spine", "runout": "runout_mm"}
# A table without a first line: weight and spine, or a number before them.
_BARE = (("weight", "spine"), ("number", "weight", "spine"))


def read_shafts(data: bytes, first: int = 1) -> list[Shaft]:
    """Shafts of a table, numbered from `first` where it has no numbers.

    Raises
    ------
    RefusedError : a line that is no shaft, with its number; a number that stands twice.
    """
    rows = read_table(data, _COLUMNS, EXAMPLE, _BARE)
    found: dict[int, int] = {}
    shafts = []
    for i, (line, cells) in enumerate(rows):
        number = int(cells.get("number", first + i))
        if number in found:
            raise RefusedError(
                f"line {line}",
                f"Line {line}: shaft {number} of line {found[number]} stands here again.",
            )
        found[number] = line
        values = {_FIELDS[name]: value for name, value in cells.items() if name in _FIELDS}
        if not values:
            raise RefusedError(f"line {line}", f"Line {line} says nothing of its shaft.")
        try:
            shafts.append(Shaft(number=number, **values))
        except ValidationError as error:
            raise at_line(line, refused(error.errors()[0])) from None
    if not shafts:
        raise RefusedError("line 2", "There is no shaft under the head.")
    if len(shafts) > MOST_SHAFTS:
        raise RefusedError("file", f"{len(shafts)} shafts are too many.", MOST_SHAFTS, "shafts")
    return shafts


def write_shafts(shafts: Sequence[Shaft]) -> str:
    """The same as CSV, with state and notes."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["number", "weight (gr)", "spine", "runout (mm)"])
    for shaft in shafts:
        row = (shaft.mass_gr, shaft.static_spine, shaft.runout_mm)
        writer.writerow([shaft.number, *("" if v is None else f"{v:g}" for v in row)])
    return out.getvalue()
