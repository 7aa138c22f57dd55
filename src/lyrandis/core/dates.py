"""Days and times as text (ISO 8601), compared and added: the calendar's arithmetic, never a clock.

What is now is always passed in.
"""

from __future__ import annotations

import re
from datetime import UTC, date, datetime, timedelta
from typing import Annotated

from pydantic import AfterValidator, StringConstraints

from lyrandis.core.errors import RefusedError

EARLIEST, LATEST = "1950-01-01", "2100-12-31"  # older notes are nobody's; later plans neither
_MOMENT = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,6})?)?(Z|[+-]\d\d:\d\d)")


def day_of(at: str, field: str = "day") -> str:
    """The day (YYYY-MM-DD) of an ISO day or time; raises RefusedError for anything else."""
    try:
        return datetime.fromisoformat(at).date().isoformat()
    except ValueError:
        raise RefusedError(
            field, f"“{at[:40]}” is not a day of the calendar; write it as 2026-05-31."
        ) from None


def _in_reach(day: str, given: str) -> None:
    if not EARLIEST <= day <= LATEST:
        raise RefusedError(
            "day", f"“{given[:40]}” lies outside {EARLIEST[:4]} to {LATEST[:4]}: check the year."
        )


def _day(text: str) -> str:
    if text:
        _in_reach(day_of(text), text)
    return text


def _moment(text: str) -> str:
    if not _MOMENT.fullmatch(text):
        raise RefusedError(
            "at", f"“{text[:40]}” is not a time with its zone; write it as 2026-05-31T14:30:00Z."
        )
    _in_reach(day_of(text, "at"), text)
    return text


def with_zone(text: str) -> str | None:
    """A day or a time without its zone, as earlier versions took them in, taken as UTC.

    A time with its zone is left as it is; None where it is no time at all.
    """
    if _MOMENT.fullmatch(text):
        return text
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        return None
    return (at if at.tzinfo else at.replace(tzinfo=UTC)).isoformat(timespec="seconds")


def instant(at: str) -> float:
    """Seconds since 1970 of a time with its zone, so that times of several zones are in order."""
    return datetime.fromisoformat(at).timestamp()


EPOCH = "1970-01-01T00:00:00+00:00"  # where nobody says when
Day = Annotated[
    str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$"), AfterValidator(_day)
]  # a day of the calendar, or empty
Moment = Annotated[str, StringConstraints(max_length=40), AfterValidator(_moment)]


def later(day: str, weeks: float = 0, days: int = 0) -> str:
    """The day some whole weeks or days after another."""
    return (date.fromisoformat(day_of(day)) + timedelta(days=round(7 * weeks) + days)).isoformat()


def days_between(first: str, last: str) -> int:
    """Whole days from one day or time to another; negative if it lies before."""
    return (date.fromisoformat(day_of(last)) - date.fromisoformat(day_of(first))).days


def hours_between(first: str, last: str) -> float:
    """Hours from one time to another, both with their offset from UTC."""
    return (datetime.fromisoformat(last) - datetime.fromisoformat(first)).total_seconds() / 3600
