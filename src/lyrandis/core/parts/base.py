"""What every part is made of: frozen models whose fields know unit, range, title and help.

Each field is defined once. The API document, the browser's types, the form limits and the help
texts all come from there. All models are frozen; a change is a new one.
"""

from __future__ import annotations

import re
from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints


def _one_line(value: Any) -> Any:
    """Text of one line: line ends and other control signs become spaces."""
    return _CONTROL.sub(" ", value) if isinstance(value, str) else value


_CONTROL = re.compile(r"[\x00-\x1f\x7f-\x9f\u2028\u2029]+")
Name = Annotated[
    str,
    StringConstraints(strip_whitespace=True, min_length=1, max_length=80),
    BeforeValidator(_one_line),
]
PartName = Annotated[  # an archer's name on a rig may be as long
    str,
    StringConstraints(strip_whitespace=True, min_length=1, max_length=200),
    BeforeValidator(_one_line),
]
Short = Annotated[
    str, StringConstraints(strip_whitespace=True, max_length=200), BeforeValidator(_one_line)
]
# One pair of a bow scale: draw [in, trade standard] and force [lb].
Reading = tuple[
    Annotated[float, Field(ge=0, le=40, allow_inf_nan=False)],
    Annotated[float, Field(ge=0, le=300, allow_inf_nan=False)],
]


def measure(
    default: Any,
    quantity: str,
    low: float,
    high: float,
    title: str,
    help: str = "",
    why: str = "Outside this range the models do not hold.",
) -> Any:
    """A numeric field: quantity [key of units.QUANTITIES], range, title, help, why the range."""
    return Field(
        default=default,
        ge=low,
        le=high,
        title=title,
        description=help,
        allow_inf_nan=False,
        json_schema_extra={"quantity": quantity, "why": why},
    )


def choice(default: Any, title: str, help: str = "") -> Any:
    """A field with a fixed set of values."""
    return Field(default=default, title=title, description=help)


def at(value: Any, path: str) -> Any:
    """What stands in a model at a dotted path."""
    for name in path.split("."):
        value = getattr(value, name)
    return value


class Frozen(BaseModel):
    """Base of the domain types: immutable, and refusing what it does not know."""

    model_config = ConfigDict(
        frozen=True, extra="forbid", json_schema_serialization_defaults_required=True
    )
