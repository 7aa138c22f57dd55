"""Courses and charts as files: a target a line in and out, a distance a line out."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from pydantic import ValidationError

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.parts import Course, Target
from lyrandis.files.table_csv import Column, at_line, document, measured, read_table

_COLUMNS = {
    "distance": Column(("m", "yd"), measured("distance"), plain=True),
    "slope": Column(("deg", "°"), measured("angle"), needed=False, plain=True),
    "spot": Column(("cm", "in"), measured("spot"), needed=False, plain=True),
}
_HEAD = ("distance (m)", "slope (deg)", "spot (cm)")


def read_course(data: bytes) -> Course:
    """A course as JSON, or from a table: distance, and where said slope and half the spot's height.

    Raises
    ------
    RefusedError : a line that is no target, with its number; too many targets or none.
    """
    if data.lstrip().startswith(b"{"):
        return _from_json(data)
    targets: list[Target] = []
    bare = (("distance",), ("distance", "slope"), ("distance", "slope", "spot"))
    for line, cells in read_table(data, _COLUMNS, ",".join(_HEAD), bare):
        told = {
            "distance_m": cells["distance"],
            "slope_deg": cells.get("slope", 0.0),
            "spot_half_height_cm": cells.get("spot", 5.0),
        }
        try:
            targets.append(Target.model_validate(told))
        except ValidationError as error:
            raise at_line(line, refused(error.errors()[0])) from None
    if not targets:
        raise RefusedError("line 2", "There is no target under the head.")
    try:
        return Course(name="A course", targets=tuple(targets))
    except ValidationError as error:
        raise refused(error.errors()[0]) from None


def _from_json(data: bytes) -> Course:
    try:
        return Course.model_validate(document(data))
    except ValidationError as error:
        raise refused(error.errors()[0]) from None


def write_course(targets: Sequence[Target]) -> str:
    """A course's targets, as they are read again."""
    return _table(_HEAD, [[t.distance_m, t.slope_deg, t.spot_half_height_cm] for t in targets])


def write_chart(b: Bench) -> str:
    """The chart of crawls or gaps: a distance a line, with its ±."""
    if b.rig.aims_by == "crawls":
        head = ("distance (m)", "crawl (mm)", "± (mm)", "± on the butt (cm)", "tab marks",
                "finger widths", "hold over (cm)", "good from (m)", "to (m)")  # fmt: skip
        return _table(head, [
            [r.distance_m, r.crawl_mm, pm, off, None if r.crawl_mm is None else c.marks,
             None if r.crawl_mm is None else c.fingers, r.hold_over_cm, r.near_m, r.far_m]
            for r, pm, off, c in zip(
                b.aim.chart.rows, b.aim.plus_minus_mm, b.aim.off_cm, b.aim.counted, strict=True
            )
        ])  # fmt: skip
    gaps = ("distance (m)", "tip under the spot (cm)", "± (cm)", "beside the tip (shafts)",
            "good from (m)", "to (m)")  # fmt: skip
    return _table(gaps, [
        [r.distance_m, r.gap_cm, pm, r.tip_widths, r.near_m, r.far_m]
        for r, pm in zip(b.aim.gaps, b.aim.gap_plus_minus_cm, strict=True)
    ])  # fmt: skip


def _table(head: Sequence[str], rows: Sequence[Sequence[float | None]]) -> str:
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(head)
    for row in rows:
        write.writerow(["" if v is None else f"{v:.4g}" for v in row])
    return out.getvalue()
