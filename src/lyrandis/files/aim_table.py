"""What an archer brings along of the aim: a table or JSON of distances with crawls or gaps.

A line with where its arrows landed is a visit; one without is known from before, with the usual
doubt. Our own charts and trials come in again as they went out; columns that say something else
are passed over.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import ValidationError

from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.trials import AimKnownTrial, CrawlVisitTrial
from lyrandis.core.units import parse, parse_list
from lyrandis.files.table_csv import at_line, document, head_of, rows_of

AimTrial = AimKnownTrial | CrawlVisitTrial
MOST_LINES = 60
# By the head of its column: the field, its quantity and the units it may be in.
_COLUMNS = {
    "distance": ("distance_m", "distance", ("m", "yd")),
    "crawl": ("crawl_mm", "crawl", ("mm", "in")),
    "tip under the spot": ("gap_cm", "spot", ("cm", "in")),
    "gap": ("gap_cm", "spot", ("cm", "in")),
    "above the spot": ("heights_cm", "spot", ("cm", "in")),
}
_EXAMPLE = "distance (m), crawl (mm), above the spot (cm)"
_FIELDS = ("distance_m", "crawl_mm", "gap_cm", "heights_cm")


def read_aim(data: bytes, walks: bool) -> list[AimTrial]:
    """Visits, and what is known from before, in the order of the file.

    Parameters
    ----------
    walks : whether crawls are asked for; else gaps are

    Raises
    ------
    RefusedError : a line that cannot be, with its number; no line that says anything; too many.
    """
    json_like = data.lstrip()[:1] in (b"{", b"[")
    told = _of_json(data) if json_like else _of_table(data)
    found = [trial for line, fields in told if (trial := _trial(line, fields, walks)) is not None]
    if not found:
        missing = "crawl (mm)" if walks else "gap (cm)"
        raise RefusedError(
            "file", f"No line has a distance and what it is shot with: a column “{missing}”."
        )
    if len(found) > MOST_LINES:
        raise RefusedError(
            "file",
            f"At most {MOST_LINES} lines are taken at once: split the file.",
            MOST_LINES,
            "lines",
        )
    return found


def _of_table(data: bytes) -> Iterator[tuple[int, dict[str, Any]]]:
    rows = rows_of(data)
    if not rows:
        raise RefusedError("file", "The file is empty.")
    heads = [head_of(cell) for cell in rows[0][1]]
    for name, unit in heads:
        if name in _COLUMNS and unit not in _COLUMNS[name][2]:
            units = " or ".join(_COLUMNS[name][2])
            raise RefusedError("line 1", f"The head “{name}” wants its unit in brackets: {units}.")
    if "distance" not in {name for name, _ in heads}:
        raise RefusedError("line 1", f"The first line names its columns, as “{_EXAMPLE}”.")
    for line, row in rows[1:]:
        yield line, _fields(line, dict(zip(heads, row, strict=False)))


def _fields(line: int, cells: Mapping[tuple[str, str | None], str]) -> dict[str, Any]:
    told: dict[str, Any] = {}
    for (name, unit), cell in cells.items():
        typed = cell.strip()
        if not typed:
            continue
        if name == "day":
            try:
                told["day"] = day_of(typed)
            except RefusedError as error:
                raise at_line(line, error) from None
        elif name == "arrows" and typed == "sighters":
            told["arrows"] = "sighters"
        if name not in _COLUMNS:
            continue
        field, quantity, _ = _COLUMNS[name]
        try:
            told[field] = (
                parse_list(typed, quantity, unit)
                if field == "heights_cm"
                else parse(f"{typed} {unit}", quantity)
            )
        except RefusedError:
            raise RefusedError(
                f"line {line}", f"Line {line}: “{typed[:40]}” is no {name} in {unit}."
            ) from None
    return told


def _of_json(data: bytes) -> Iterator[tuple[int, dict[str, Any]]]:
    told = document(data)
    if isinstance(told, dict):
        told = next((told[n] for n in ("rows", "gaps", "visits") if told.get(n)), None)
    if not isinstance(told, list) or not all(isinstance(row, dict) for row in told):
        raise RefusedError("file", "The file is no list of distances with crawls or gaps.")
    for n, row in enumerate(told, 1):
        yield n, {k: row[k] for k in _FIELDS if row.get(k) is not None}


def _trial(line: int, fields: dict[str, Any], walks: bool) -> AimTrial | None:
    """What a line says; None where it says nothing to aim with."""
    setting = "crawl_mm" if walks else "gap_cm"
    if "distance_m" not in fields or setting not in fields:
        return None
    known = {"known": "crawl" if walks else "gap"}
    try:
        if "heights_cm" in fields:
            return CrawlVisitTrial.model_validate(fields)
        fields.pop("arrows", None)
        return AimKnownTrial.model_validate(known | fields)
    except ValidationError as error:
        raise at_line(line, refused(error.errors()[0])) from None
