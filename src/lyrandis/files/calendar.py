"""Days as iCalendar (RFC 5545), for whatever calendar the archer keeps."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event


@dataclass(frozen=True)
class DayNote:
    """One whole day in a calendar: a stable id, the day (YYYY-MM-DD), a title and a text."""

    uid: str
    day: str
    title: str
    text: str


def write_calendar(name: str, notes: Sequence[DayNote], made_at: str) -> bytes:
    """Whole-day events, one a note, that leave the day free.

    Parameters
    ----------
    name : the calendar's name
    made_at : ISO time at which the file is made
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Lyrandis//rig//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    stamp = datetime.fromisoformat(made_at).astimezone(UTC)
    for note in notes:
        event = Event()
        event.add("uid", f"{note.uid}@lyrandis")
        event.add("dtstamp", stamp)
        first = date.fromisoformat(note.day)
        event.add("dtstart", first)
        event.add("dtend", first + timedelta(days=1))
        event.add("summary", note.title)
        event.add("description", note.text)
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    return calendar.to_ical()
