"""The one way the core refuses a value: it names the field, the limit, the unit and the reason."""

from __future__ import annotations

from typing import Any, Protocol


class Sentence(Protocol):
    """A sentence with its values apart, ready for any unit system: findings.Said."""

    def plain(self) -> str:
        """It as text, in the usual units."""


class RefusedError(ValueError):
    """A value that the models or the rules cannot take.

    Parameters
    ----------
    field : dotted name of the field at fault, as in the request (`bow.length_in`)
    reason : one sentence that says what is wrong and why; with its values apart where it has any
    limit : the bound that was crossed, in `unit`; None where there is no single number
    unit : unit of `limit`
    """

    said: Any

    def __init__(
        self,
        field: str,
        reason: str | Sentence,
        limit: float | None = None,
        unit: str | None = None,
    ) -> None:
        self.said = None if isinstance(reason, str) else reason
        self.reason = reason if isinstance(reason, str) else reason.plain()
        super().__init__(self.reason)
        self.field = field
        self.limit = limit
        self.unit = unit

    def at(self, field: str) -> RefusedError:
        """The same refusal told of another field."""
        return RefusedError(field, self.said or self.reason, self.limit, self.unit)
