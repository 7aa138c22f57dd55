"""The one kind of array that the core computes with, and how it is written in an answer."""

from __future__ import annotations

from typing import Annotated, Any

import numpy as np
from numpy.typing import NDArray
from pydantic import GetPydanticSchema, WithJsonSchema
from pydantic_core import core_schema

_DECIMALS = 4  # of a drawn curve


def _written(array: Any) -> list[Any]:
    rounded: list[Any] = np.round(np.asarray(array, dtype=float), _DECIMALS).tolist()
    return rounded


_SCHEMA = core_schema.any_schema(
    serialization=core_schema.plain_serializer_function_ser_schema(
        _written, return_schema=core_schema.list_schema(core_schema.float_schema())
    )
)
# Numbers of one curve: float64, shape (n,) unless a docstring says otherwise.
Array = Annotated[
    NDArray[np.float64],
    GetPydanticSchema(lambda *_: _SCHEMA),
    WithJsonSchema({"type": "array", "items": {"type": "number"}}),
]
