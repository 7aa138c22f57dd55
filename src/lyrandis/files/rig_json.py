"""A rig as one JSON file: what it began as and its whole history, lossless both ways."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.history import Entry, replay
from lyrandis.core.rig import Rig

MOST_BYTES = 2_000_000


class RigFile(BaseModel):
    """The file: what it is, its version, when the rig was made, its beginning and its history."""

    model_config = ConfigDict(extra="forbid")

    format: Literal["lyrandis-rig"] = "lyrandis-rig"
    version: Literal[1, 2] = 2  # 1 knew no trials; all else is the same
    created_at: str = Field(max_length=40)
    base: Rig
    entries: list[Entry] = Field(max_length=20_000)


def write_rig(base: Rig, entries: Sequence[Entry], created_at: str) -> str:
    """The file's text, indented, with a newline at its end."""
    file = RigFile(created_at=created_at, base=base, entries=list(entries))
    return json.dumps(file.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number that JSON knows")


def read_rig(data: bytes) -> RigFile:
    """Read a rig file whole, or refuse it whole.

    Raises
    ------
    RefusedError : too large, not text, not JSON (with line and column), another file's format
        or version, a value out of range (with its place), or a history that does not replay.
    """
    if len(data) > MOST_BYTES:
        raise RefusedError("file", "The file is too large for a rig.", MOST_BYTES, "bytes")
    try:
        document = json.loads(data.decode("utf-8-sig"), parse_constant=_no_constant)
    except UnicodeDecodeError as error:
        raise RefusedError(
            "file", f"The file is not text in UTF-8: byte {error.start + 1} is none."
        ) from None
    except json.JSONDecodeError as error:
        raise RefusedError(
            "file",
            f"The file is damaged at line {error.lineno}, column {error.colno}: {error.msg}.",
        ) from None
    except (ValueError, RecursionError) as error:
        raise RefusedError("file", f"The file is damaged: {error}.") from None
    if not isinstance(document, dict) or document.get("format") != "lyrandis-rig":
        raise RefusedError(
            "format", "This is not a Lyrandis rig: at its top stands no “format”: “lyrandis-rig”."
        )
    if document.get("version") not in (1, 2):
        raise RefusedError(
            "version", f"Version {document.get('version')} of the rig file is not known here.", 2
        )
    try:
        file = RigFile.model_validate(document)
    except ValidationError as error:
        raise refused(error.errors()[0]) from None
    for i, entry in enumerate(file.entries):
        if entry.seq != i + 1:
            raise RefusedError(f"entries.{i}.seq", f"Entry {i + 1} is numbered {entry.seq}.", i + 1)
    replay(file.base, file.entries)
    return file
