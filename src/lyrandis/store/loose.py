"""JSON in a column, read back even where it is damaged: one broken text hides no other row."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Dialect, Text
from sqlalchemy.types import TypeDecorator


@dataclass(frozen=True)
class Broken:
    """Text that should be JSON and is not, and why."""

    text: str
    reason: str


def plain(value: Any) -> Any:
    """A value as it stands in its column: the text itself where it is no JSON."""
    return value.text if isinstance(value, Broken) else value


def read_loosely(text: str) -> Any:
    """The value of a text that should be JSON, or a Broken."""
    try:
        return json.loads(text)
    except (ValueError, RecursionError) as error:
        return Broken(text, f"it is not JSON ({error})")


class LooseJSON(TypeDecorator[Any]):
    """JSON as text: written strictly (no NaN), read back as a Broken where it is none."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Any, dialect: Dialect) -> str | None:  # noqa: ARG002
        """The text that is written."""
        return None if value is None else json.dumps(value, allow_nan=False)

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:  # noqa: ARG002
        """The value that was written, or a Broken."""
        return None if value is None else read_loosely(str(value))
