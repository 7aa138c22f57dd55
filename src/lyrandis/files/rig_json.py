"""A rig as one JSON file: what it began as and its whole history, lossless both ways.

Written and read entry by entry, so that a long history costs no more memory than a short one.
"""

from __future__ import annotations

import io
import json
from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import IO, Annotated, Any, Literal

import ijson
from ijson.common import JSONError, ObjectBuilder
from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from lyrandis.core.dates import Moment
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import is_on, refused
from lyrandis.core.history import MOST_ENTRIES, Entry, replay
from lyrandis.core.parts import Part, Rig
from lyrandis.core.parts.on import Mark as PartMark
from lyrandis.core.strict import MOST_DEPTH, MOST_KEYS, refuse_unfit
from lyrandis.core.upcast import FORM, entry_document, part_document, rig_document

MOST_BYTES = 500_000_000
MOST_PARTS = 300  # of one rig in all its history
VERSION = FORM  # of the file and of the documents in it; see core.upcast
_SMALL_BYTES = 2_000_000  # a damaged file up to this is read again to name line and column
_CHUNK = 1 << 16
_MOST_TEXT = 4_000_000  # one text or one entry of it
_MOST_VALUES = 50_000  # of one entry, or of one name at the top


class _Metered:
    """A file that stops giving when nothing whole was found in it for too long."""

    def __init__(self, file: IO[bytes]) -> None:
        self.file = file
        self.since = 0

    def read(self, count: int = -1) -> bytes:
        """The next bytes."""
        self.since += count
        if self.since > _MOST_TEXT:
            raise RefusedError("file", "One entry of the file is too long.", _MOST_TEXT, "bytes")
        return self.file.read(count)


class RigFile(BaseModel):
    """The file: what it is, its version, when the rig was made, its beginning and its history.

    uid : the rig's own for good; files written before it was known have none
    parts : by its mark, every part that was on it, as it was when the file was written
    """

    model_config = ConfigDict(extra="forbid")

    format: Literal["lyrandis-rig"] = "lyrandis-rig"
    version: Literal[1, 2, 3, 4, 5] = 5
    uid: Annotated[str, StringConstraints(pattern="^[0-9a-f]{32}$")] | None = None
    created_at: Moment
    base: Rig
    parts: dict[PartMark, Part] = Field(default={}, max_length=MOST_PARTS)
    entries: list[Entry] = Field(max_length=MOST_ENTRIES)


def _indented(value: Any, by: int) -> str:
    return json.dumps(value, indent=2, ensure_ascii=False).replace("\n", "\n" + " " * by)


def rig_text(
    created_at: str,
    base: Any,
    parts: Mapping[str, Any],
    entries: Iterable[Any],
    uid: str | None = None,
) -> Iterator[str]:
    """The file's text piece by piece, from documents (already plain JSON)."""
    yield '{\n  "format": "lyrandis-rig",\n'
    if uid is not None:
        yield f'  "uid": {json.dumps(uid)},\n'
    yield f'  "version": {VERSION},\n  "created_at": {json.dumps(created_at)},\n'
    yield f'  "base": {_indented(base, 2)},\n  "parts": {_indented(dict(parts), 2)},\n'
    yield '  "entries": ['
    empty = True
    for entry in entries:
        yield f"{'' if empty else ','}\n    {_indented(entry, 4)}"
        empty = False
    yield "]\n}\n" if empty else "\n  ]\n}\n"


def _heed() -> None:
    """Go on: nobody asked to stop."""


def read_rig(data: bytes | IO[bytes], heed: Callable[[], None] = _heed) -> RigFile:
    """Read a rig file whole, or refuse it whole.

    Parameters
    ----------
    data : the file or its bytes
    heed : called between entries; it raises to end the reading

    Raises
    ------
    RefusedError : too large, not text, not JSON (small files: with line and column), another
        file's format or version, a value out of range (with its place), or a history that does
        not replay. What is taken in is checked as strictly as what is typed.
    """
    file = io.BytesIO(data) if isinstance(data, bytes) else data
    size = file.seek(0, io.SEEK_END)
    if size > MOST_BYTES:
        raise RefusedError(
            "file", "The file is too large for a rig.", MOST_BYTES / 1e6, "MB"
        )  # fmt: skip
    start = 3 if _head(file, 3) == b"\xef\xbb\xbf" else 0
    try:
        top, entries = _parts(file, start, heed)
    except (JSONError, UnicodeDecodeError, RecursionError, OverflowError, ValueError) as error:
        if isinstance(error, RefusedError):
            raise
        raise _damaged(file, size, error) from None
    try:
        up = {"base": rig_document(top.get("base"), _form(top)), "entries": []}
        if isinstance(parts := top.get("parts"), dict):
            up["parts"] = {mark: part_document(p, _form(top)) for mark, p in parts.items()}
        read = RigFile.model_validate(top | up)
    except ValidationError as error:
        raise refused(error.errors()[0]) from None
    read.entries = entries
    _refuse_unlikely(entries)
    _refuse_without_parts(read)
    heed()
    replay(read.base, entries)
    return read


def _head(file: IO[bytes], count: int) -> bytes:
    file.seek(0)
    return file.read(count)


def _walk(
    file: IO[bytes], start: int, heed: Callable[[], None]
) -> Iterator[tuple[str | None, Any]]:
    """Each value at the file's top by its name, and each entry of its list under None.

    {"format": …, "base": {…}, "entries": [ {…}, {…} ]}
     level 1: a name    level 2: inside a value, or between the list's entries
    """
    file.seek(start)
    metered = _Metered(file)
    level = count = 0
    name, listed = "", False  # the name being read; whether its value is the list of entries
    builder: ObjectBuilder | None = None
    for event, value in ijson.basic_parse(metered, use_float=True, buf_size=_CHUNK):
        count += 1
        if level == 0:
            if event != "start_map":
                raise _foreign()
            level = 1
            continue
        between = level == 1 or (listed and level == 2)
        if event in ("start_map", "start_array"):
            level += 1
            if level > MOST_DEPTH:
                raise RefusedError("file", "The file is nested too deeply.", MOST_DEPTH, "levels")
        elif event in ("end_map", "end_array"):
            level -= 1
            if builder is None:  # the list of entries, or the file itself, is over
                listed = False
                continue
        elif event == "map_key" and level == 1:
            name = value
            continue
        if between and level == 2 and name == "entries" and event == "start_array" and not listed:
            listed = True
            continue
        if builder is None:
            builder = ObjectBuilder()
        builder.event(event, value)
        if level == (2 if listed else 1):
            yield None if listed else name, builder.value
            builder, count, metered.since = None, 0, 0
            heed()
        elif count > _MOST_VALUES:
            raise RefusedError("file", "One entry of the file holds too much.", _MOST_VALUES)


def _foreign() -> RefusedError:
    return RefusedError(
        "format", "This is not a Lyrandis rig: at its top stands no “format”: “lyrandis-rig”."
    )


def _parts(
    file: IO[bytes], start: int, heed: Callable[[], None]
) -> tuple[dict[str, Any], list[Entry]]:
    top: dict[str, Any] = {}
    entries: list[Entry] = []
    for name, value in _walk(file, start, heed):
        if name is None:
            entries.append(_entry(len(entries), value, _form(top)))
            continue
        top[name] = value
        if name == "format":
            _refuse_foreign(top | {"version": VERSION})  # before the rest of it is read
        if len(top) > MOST_KEYS:
            raise RefusedError("file", "The file has too many names.", MOST_KEYS, "names")
    refuse_unfit(top, "file")
    _refuse_foreign(top)
    if not entries and top.get("entries", []) != []:
        raise RefusedError("entries", "The file holds no list of “entries”.")
    top.pop("entries", None)
    return top, entries


def _refuse_foreign(top: dict[str, Any]) -> None:
    if top.get("format") != "lyrandis-rig":
        raise _foreign()
    if top.get("version") not in range(1, VERSION + 1):
        shown = str(top.get("version"))[:20]
        raise RefusedError(
            "version", f"Version {shown} of the rig file is not known here.", VERSION
        )


def _form(top: dict[str, Any]) -> int:
    """The form of a file's documents; the present one where it is named only after them."""
    form = top.get("version")
    return form if isinstance(form, int) and 1 <= form <= VERSION else VERSION


def _entry(index: int, document: Any, form: int) -> Entry:
    if index >= MOST_ENTRIES:
        raise RefusedError("entries", "The history is too long.", MOST_ENTRIES, "entries")
    refuse_unfit(document, f"entries.{index}")
    try:
        entry = Entry.model_validate(entry_document(document, form))
    except ValidationError as error:
        first = refused(error.errors()[0])
        raise first.at(f"entries.{index}.{first.field}") from None
    if entry.seq != index + 1:
        raise RefusedError(
            f"entries.{index}.seq", f"Entry {index + 1} is numbered {entry.seq}.", index + 1
        )
    return entry


def _refuse_unlikely(entries: list[Entry]) -> None:
    """Refuse a history that nobody could have kept: something taken back that was not there."""
    done = undone = 0
    for i, entry in enumerate(entries):
        if entry.kind == "undo":
            done, undone = done - 1, undone + 1
        elif entry.kind == "redo":
            done, undone = done + 1, undone - 1
        else:
            done, undone = done + 1, 0
        if min(done, undone) < 0:
            word = "take back" if entry.kind == "undo" else "do again"
            raise RefusedError(f"entries.{i}.kind", f"At entry {i + 1} there is nothing to {word}.")


def _refuse_without_parts(read: RigFile) -> None:
    """Refuse a file that names a part and does not bring it."""
    named = [("base.on", mark) for mark in read.base.on.marks()]
    for i, entry in enumerate(read.entries):
        named += [(f"entries.{i}.parts", part.mark) for part in entry.parts]
        named += [
            (f"entries.{i}.changes", mark)
            for change in entry.changes
            if is_on(change.path)
            for mark in (change.after if isinstance(change.after, list) else [change.after])
            if mark
        ]
    for place, mark in named:
        if mark not in read.parts:
            raise RefusedError(
                place,
                f"The file names a part ({str(mark)[:8]}…) it does not bring: write it out again.",
            )


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number that JSON knows")


def _damaged(file: IO[bytes], size: int, error: Exception) -> RefusedError:
    """What is wrong with a file that cannot be read, with its place where that can be told."""
    if size <= _SMALL_BYTES:
        file.seek(0)
        try:
            json.loads(file.read().decode("utf-8-sig"), parse_constant=_no_constant)
        except UnicodeDecodeError as no_text:
            return RefusedError(
                "file", f"The file is not text in UTF-8: byte {no_text.start + 1} is none."
            )
        except json.JSONDecodeError as no_json:
            return RefusedError(
                "file",
                f"The file is damaged at line {no_json.lineno}, column {no_json.colno}: "
                f"{no_json.msg}.",
            )
        except (ValueError, RecursionError) as other:
            return RefusedError("file", f"The file is damaged: {other}.")
    said = str(error).strip().split("\n")[0].encode("ascii", "replace").decode()
    return RefusedError("file", f"The file is damaged: {said[:120]}.")
