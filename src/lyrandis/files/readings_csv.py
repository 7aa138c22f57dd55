"""Scale readings as CSV: two columns, draw and force, with their units in the header."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from lyrandis.core.errors import RefusedError
from lyrandis.core.units import M_PER_IN, N_PER_LBF
from lyrandis.files.table_csv import MOST_BYTES, Column, measured, read_table

__all__ = ["MOST_BYTES", "MOST_READINGS", "read_readings", "write_readings"]

MOST_READINGS = 200
_COLUMNS = {
    "draw": Column(("in", "inch", "inches", "mm", "cm"), measured("draw")),
    "force": Column(("lb", "lbs", "lbf", "kg", "n"), measured("weight")),
}


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
    seen: dict[float, int] = {}
    pairs = []
    for line, cells in read_table(data, _COLUMNS, "draw (in),force (lb)"):
        draw = round(cells["draw"], 4)
        if draw in seen:
            raise RefusedError(
                f"line {line}", f"Line {line}: the draw of line {seen[draw]} stands here again."
            )
        seen[draw] = line
        pairs.append([draw, round(cells["force"], 3)])
    if not pairs:
        raise RefusedError("line 2", "There is no reading under the head.")
    if len(pairs) > MOST_READINGS:
        raise RefusedError(
            "file", f"{len(pairs)} readings are too many.", MOST_READINGS, "readings"
        )
    return sorted(pairs)
