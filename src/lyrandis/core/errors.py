"""The one way the core refuses a value: it names the field, the limit, the unit and the reason."""

from __future__ import annotations


class RefusedError(ValueError):
    """A value that the models or the rules cannot take.

    Parameters
    ----------
    field : dotted name of the field at fault, as in the request (`bow.length_in`)
    reason : one sentence that says what is wrong and why
    limit : the bound that was crossed, in `unit`; None where there is no single number
    unit : unit of `limit`
    """

    def __init__(
        self, field: str, reason: str, limit: float | None = None, unit: str | None = None
    ) -> None:
        super().__init__(reason)
        self.field = field
        self.reason = reason
        self.limit = limit
        self.unit = unit
