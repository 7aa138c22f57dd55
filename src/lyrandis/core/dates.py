"""Days and times as text (ISO 8601), compared and added: the calendar's arithmetic, never a clock.

What is now is always passed in.
"""

from __future__ import annotations

from datetime import date, datetime, timedelta

from lyrandis.core.errors import RefusedError


def day_of(at: str, field: str = "day") -> str:
    """The day (YYYY-MM-DD) of an ISO day or time; raises RefusedError for anything else."""
    try:
        return datetime.fromisoformat(at).date().isoformat()
    except ValueError:
        raise RefusedError(
            field, f"“{at[:40]}” is not a day of the calendar; write it as 2026-05-31."
        ) from None


def later(day: str, weeks: float = 0, days: int = 0) -> str:
    """The day some whole weeks or days after another."""
    return (date.fromisoformat(day_of(day)) + timedelta(days=round(7 * weeks) + days)).isoformat()


def days_between(first: str, last: str) -> int:
    """Whole days from one day or time to another; negative if it lies before."""
    return (date.fromisoformat(day_of(last)) - date.fromisoformat(day_of(first))).days


def hours_between(first: str, last: str) -> float:
    """Hours from one time to another, both with their offset from UTC."""
    return (datetime.fromisoformat(last) - datetime.fromisoformat(first)).total_seconds() / 3600
