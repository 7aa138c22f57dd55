"""A part as one JSON file: what it began as and its story, lossless both ways."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError

from lyrandis.core import upcast
from lyrandis.core.dates import Moment
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import part_changed, refused
from lyrandis.core.history import MOST_ENTRIES, Change
from lyrandis.core.parts import Part
from lyrandis.core.strict import refuse_unfit

MOST_BYTES = 5_000_000


class StoryEntry(BaseModel):
    """One line of a part's story."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    seq: int = Field(ge=1, le=MOST_ENTRIES)
    kind: Literal["adjust", "undo", "redo"]
    at: Moment
    why: str = Field("", max_length=500)
    changes: tuple[Change, ...] = Field((), max_length=200)


class PartFile(BaseModel):
    """The file: what it is, its version, the part's mark, what it began as, and its story.

    version : the form of its documents, see core.upcast
    """

    model_config = ConfigDict(extra="forbid")

    format: Literal["lyrandis-part"]
    version: int
    mark: Annotated[str, StringConstraints(pattern="^[0-9a-f]{32}$")]
    created_at: Moment
    base: Part
    story: list[StoryEntry] = Field(max_length=MOST_ENTRIES)


def part_text(mark: str, created_at: str, base: Part, story: Sequence[StoryEntry]) -> str:
    """The file's text, indented, with a newline at its end."""
    file = PartFile(
        format="lyrandis-part",
        version=upcast.FORM,
        mark=mark,
        created_at=created_at,
        base=base,
        story=list(story),
    )
    return json.dumps(file.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def _up(document: dict[str, Any], form: int) -> dict[str, Any]:
    """A file's document with what is in it in the present form."""
    story = document.get("story")
    up = {"base": upcast.part_document(document.get("base"), form)}
    if isinstance(story, list):
        up["story"] = [upcast.story_document(line, form) for line in story]
    return document | up


def read_part(data: bytes) -> PartFile:
    """Read a part's file whole, or refuse it whole.

    Raises
    ------
    RefusedError : too large, not JSON, another file, a value out of range, or a story that does
        not lead from the beginning.
    """
    if len(data) > MOST_BYTES:
        raise RefusedError("file", "The file is too large for a part.", MOST_BYTES / 1e6, "MB")
    try:
        document = json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError) as error:
        raise RefusedError("file", f"The file is damaged: {str(error)[:120]}.") from None
    if not isinstance(document, dict) or document.get("format") != "lyrandis-part":
        raise RefusedError(
            "format", "This is not a part of Lyrandis: its “format” is not “lyrandis-part”."
        )
    refuse_unfit(document, "file")
    form = document.get("version")
    if not isinstance(form, int) or not upcast.PARTS_SINCE <= form <= upcast.FORM:
        raise RefusedError(
            "version", f"Version {str(form)[:20]} of the part file is not known here.", upcast.FORM
        )
    try:
        read = PartFile.model_validate(_up(document, form))
    except ValidationError as error:
        raise refused(error.errors()[0]) from None
    part = read.base
    for i, entry in enumerate(read.story):
        if entry.seq != i + 1:
            raise RefusedError(f"story.{i}.seq", f"Line {i + 1} is numbered {entry.seq}.", i + 1)
        try:
            part = part_changed(part, {c.path: c.after for c in entry.changes})
        except RefusedError as error:
            raise error.at(f"story.{i}.{error.field}") from None
    return read
