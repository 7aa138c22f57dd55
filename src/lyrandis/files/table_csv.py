"""Tables that people send: CSV or pasted text, units in the first line, errors by line."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable, Mapping
from typing import Any, NamedTuple

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import joined, verbatim
from lyrandis.core.strict import refuse_unfit
from lyrandis.core.units import parse

MOST_BYTES = 1_000_000
_HEAD = re.compile(r"^\s*([a-z ]+?)\s*(?:[_(\[,/]\s*([^\s)\]]+)\s*[)\]]?)?\s*$", re.IGNORECASE)

Read = Callable[[str, str | None], float]


class Column(NamedTuple):
    """A column: the units that it may be in, how a cell of it is read, and whether it may lack.

    units : none where it is a plain number
    plain : whether a number without a unit will do too
    names : other names that its head may have
    """

    units: tuple[str, ...]
    read: Read
    needed: bool = True
    names: tuple[str, ...] = ()
    plain: bool = False


def measured(quantity: str) -> Read:
    """Reads a cell as a quantity in its column's unit."""
    return lambda cell, unit: parse(f"{cell} {unit or ''}".strip(), quantity)


class Row(NamedTuple):
    """A line of the table: its number in the file, and its cells by column; empty ones left out."""

    line: int
    cells: dict[str, float]


def read_table(
    data: bytes, columns: Mapping[str, Column], example: str, bare: tuple[tuple[str, ...], ...] = ()
) -> list[Row]:
    """A table's lines, or a refusal with the line at fault.

    Parameters
    ----------
    columns : by name, as its head has it
    example : a first line, to be shown
    bare : orders of columns that a table without a first line may have, one for each width

    Raises
    ------
    RefusedError : too large, no text, a head without its units, a cell that is no number.
    """
    rows = rows_of(data)
    if not rows:
        raise RefusedError("file", "The file is empty.")
    headless = next((b for b in bare if len(b) == len(rows[0][1])), None)
    if headless is not None and not any(re.search("[A-Za-z]", cell) for cell in rows[0][1]):
        heads: list[tuple[str, str | None]] = [
            (name, None if columns[name].plain else (columns[name].units or (None,))[0])
            for name in headless
        ]
    else:
        heads = _heads(rows.pop(0)[1], columns, example)
    found = []
    for line, row in rows:
        if len(row) != len(heads):
            raise RefusedError(
                f"line {line}",
                f"Line {line} has {len(row)} cells; each has {_named([n for n, _ in heads])}.",
            )
        found.append(Row(line, _cells(line, row, heads, columns)))
    return found


def rows_of(data: bytes) -> list[tuple[int, list[str]]]:
    """The cells of each line that is not empty, with its number in the file."""
    if len(data) > MOST_BYTES:
        raise RefusedError("file", "The file is too large for readings.", MOST_BYTES, "bytes")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise RefusedError(
            "file", f"The file is not text: byte {error.start + 1} is none."
        ) from None
    text = text.replace("\r\n", "\n").replace("\r", "\n")  # old machines end lines by CR alone
    sample = text.lstrip("\n").split("\n", 1)[0]
    delimiter = max(";\t,", key=sample.count)
    if not sample.count(delimiter) and not re.search("[A-Za-z]", sample):
        text, delimiter = re.sub(r"[^\S\n]+", "\t", text), "\t"  # pasted with spaces
    reader = csv.reader(io.StringIO(text), delimiter=delimiter)
    try:
        rows = [(reader.line_num, row) for row in reader]
    except csv.Error as error:
        line = reader.line_num
        raise RefusedError(f"line {line}", f"Line {line} cannot be read: {error}.") from None
    return [(line, row) for line, row in rows if any(cell.strip() for cell in row)]


def document(data: bytes) -> Any:
    """A JSON document, within the same bounds as a table; raises RefusedError."""
    if len(data) > MOST_BYTES:
        raise RefusedError("file", "The file is too large for readings.", MOST_BYTES, "bytes")
    try:
        told = json.loads(data)
    except (ValueError, RecursionError):
        raise RefusedError(
            "file", "The file begins as JSON and is none: take it out anew, or send a table."
        ) from None
    refuse_unfit(told, "file")
    return told


def head_of(cell: str) -> tuple[str, str | None]:
    """What a column is called, and its unit where it has one.

    >>> head_of("Crawl (mm)"), head_of("marks")
    (('crawl', 'mm'), ('marks', None))
    """
    match = _HEAD.match(cell)
    if match is None:
        return cell.strip().lower(), None
    return match[1].lower(), match[2].lower() if match[2] else None


def _named(names: list[str]) -> str:
    """Names with their articles, the last with an “and”."""
    with_a = [f"a {name}" for name in names]
    return with_a[0] if len(with_a) == 1 else f"{', '.join(with_a[:-1])} and {with_a[-1]}"


def _heads(
    row: list[str], columns: Mapping[str, Column], example: str
) -> list[tuple[str, str | None]]:
    needed = [name for name, column in columns.items() if column.needed]
    by_name = {n: name for name, c in columns.items() for n in (name, *c.names)}
    found: list[tuple[str, str | None]] = []
    for cell in row:
        title, unit = head_of(cell)
        name = by_name.get(title)
        fits = name is not None and (
            unit in columns[name].units if unit else columns[name].plain or not columns[name].units
        )
        if name is None or not fits:
            raise RefusedError(
                "line 1",
                f"“{cell.strip()[:40]}” is no head of a column; the first line must name "
                f"{' and '.join(needed)} with their units, for example “{example}”.",
            )
        found.append((name, unit))
    names = [name for name, _ in found]
    if any(names.count(n) != 1 for n in {*needed, *names}):
        once = " and ".join(f"{name} once" for name in needed)
        raise RefusedError("line 1", f"The first line must name {once}.")
    return found


def _cells(
    line: int, row: list[str], heads: list[tuple[str, str | None]], columns: Mapping[str, Column]
) -> dict[str, float]:
    cells: dict[str, float] = {}
    for (name, unit), cell in zip(heads, row, strict=True):
        typed = cell.strip()
        if not typed and not columns[name].needed:
            continue
        try:
            cells[name] = columns[name].read(typed, unit)
        except RefusedError:
            told = f" in {unit}" if unit else ""
            raise RefusedError(
                f"line {line}", f"Line {line}: “{typed[:40]}” is no {name}{told}."
            ) from None
    return cells


def at_line(line: int, error: RefusedError) -> RefusedError:
    """A refusal of a line's values, told with the line."""
    said = error.said or verbatim(error.reason)
    return RefusedError(
        f"line {line}", joined(verbatim(f"Line {line}: "), said), error.limit, error.unit
    )
