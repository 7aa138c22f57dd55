"""Scale readings as CSV: two columns, draw and force, with their units in the header."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence

from lyrandis.core.errors import RefusedError
from lyrandis.core.units import M_PER_IN, N_PER_LBF, parse

MOST_BYTES = 1_000_000
MOST_READINGS = 200
_UNITS = {
    "draw": {"in": "draw", "inch": "draw", "inches": "draw", "mm": "draw", "cm": "draw"},
    "force": {"lb": "weight", "lbs": "weight", "lbf": "weight", "kg": "weight", "n": "weight"},
}
_HEAD = re.compile(r"^\s*(draw|force)\s*[\s_(\[,/]\s*([a-z]+)\s*[)\]]?\s*$", re.IGNORECASE)


def write_readings(readings: Sequence[Sequence[float]], metric: bool = False) -> str:
    """CSV text with the header `draw (in),force (lb)`, or in mm and N."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["draw (mm)", "force (N)"] if metric else ["draw (in)", "force (lb)"])
    for draw, force in readings:
        writer.writerow(
            [round(draw * M_PER_IN * 1000, 2), round(force * N_PER_LBF, 3)]
            if metric
            else [f"{draw:g}", f"{force:g}"]
        )
    return out.getvalue()


def _columns(head: list[str]) -> list[tuple[str, str]]:
    found = []
    for cell in head:
        match = _HEAD.match(cell)
        if match is None or match[2].lower() not in _UNITS[match[1].lower()]:
            raise RefusedError(
                "line 1",
                f"“{cell.strip()[:40]}” is no head of a column; the first line must name draw and "
                "force with their units, for example “draw (in),force (lb)”.",
            )
        found.append((match[1].lower(), match[2].lower()))
    if sorted(name for name, _ in found) != ["draw", "force"]:
        raise RefusedError("line 1", "The first line must name draw once and force once.")
    return found


def read_readings(data: bytes) -> list[list[float]]:
    """Read a CSV of readings whole, or refuse it with the line at fault.

    Returns
    -------
    Pairs [draw in inches, force in pounds], by rising draw.

    Raises
    ------
    RefusedError : too large, not text, a head without units, a cell that is no number, a draw
        that stands twice, too many readings or none.
    """
    if len(data) > MOST_BYTES:
        raise RefusedError("file", "The file is too large for readings.", MOST_BYTES, "bytes")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise RefusedError(
            "file", f"The file is not text: byte {error.start + 1} is none."
        ) from None
    text = text.replace("\r\n", "\n").replace("\r", "\n")  # old machines end lines by CR alone
    sample = text.split("\n", 1)[0]
    delimiter = max(";\t,", key=sample.count)
    reader = csv.reader(io.StringIO(text), delimiter=delimiter)
    try:
        rows = [(i + 1, row) for i, row in enumerate(reader)]
    except csv.Error as error:
        line = reader.line_num
        raise RefusedError(f"line {line}", f"Line {line} cannot be read: {error}.") from None
    rows = [(line, row) for line, row in rows if any(cell.strip() for cell in row)]
    if not rows:
        raise RefusedError("file", "The file is empty.")
    columns = _columns(rows[0][1])
    seen: dict[float, int] = {}
    pairs = []
    for line, row in rows[1:]:
        if len(row) != 2:
            raise RefusedError(
                f"line {line}", f"Line {line} has {len(row)} cells; each has a draw and a force."
            )
        pair = {}
        for (name, unit), cell in zip(columns, row, strict=True):
            try:
                pair[name] = parse(f"{cell.strip()} {unit}", _UNITS[name][unit])
            except RefusedError:
                raise RefusedError(
                    f"line {line}", f"Line {line}: “{cell.strip()[:40]}” is no {name} in {unit}."
                ) from None
        draw = round(pair["draw"], 4)
        if draw in seen:
            raise RefusedError(
                f"line {line}", f"Line {line}: the draw of line {seen[draw]} stands here again."
            )
        seen[draw] = line
        pairs.append([draw, round(pair["force"], 3)])
    if not pairs:
        raise RefusedError("line 2", "There is no reading under the head.")
    if len(pairs) > MOST_READINGS:
        raise RefusedError(
            "file", f"{len(pairs)} readings are too many.", MOST_READINGS, "readings"
        )
    return sorted(pairs)
