"""A number that is not simply known: its value, its ±, and where it comes from."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

Source = Literal["model", "rule", "measured"]


class Estimate(BaseModel):
    """A value with one standard deviation (`plus_minus`, same unit) and its source."""

    model_config = ConfigDict(frozen=True)

    value: float
    plus_minus: float
    source: Source

    def times(self, factor: float) -> Estimate:
        """The same in another unit, or of so many of it."""
        return self.model_copy(
            update={"value": self.value * factor, "plus_minus": self.plus_minus * abs(factor)}
        )
