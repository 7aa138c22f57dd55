"""What leaves a rig on paper or for a calendar: its schedule, its plan, its sheet."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between
from lyrandis.core.errors import RefusedError
from lyrandis.core.route import states
from lyrandis.core.schedule import Due, schedule
from lyrandis.core.units import write
from lyrandis.files.calendar import DayNote, write_calendar
from lyrandis.files.cards import CardId, as_pdf, as_svg, course_card, pocket_card, tab_card
from lyrandis.files.sheet import rig_sheet
from lyrandis.store.kept import Kept
from lyrandis.store.rack import KeptPart


def bench_of(kept: Kept, made: str) -> Bench:
    """A kept rig on the bench at a time; one bench serves all of its papers."""
    parts = {slot: part.part for slot, part in kept.parts.items()}
    present = kept.present
    return Bench(
        present.rig, present.trials, made, kept.elsewhere, parts, kept.verdicts, kept.drawn
    )


def schedule_of(kept: Kept, b: Bench) -> list[Due]:
    """What is due when, seen from the bench's time."""
    return schedule(b, states(kept.present.marks, b.rig))


def _ahead(day: str, b: Bench) -> bool:
    """Whether a day is today or later: what has passed is no use in a calendar."""
    return days_between(b.now, day) >= 0


def schedule_calendar(kept: Kept, b: Bench) -> bytes:
    """The dated part of the schedule as iCalendar."""
    name = b.rig.name
    notes = [
        DayNote(f"{due.id}-rig-{kept.id}", due.day, f"{name}: {due.title.plain()}", due.why.plain())
        for due in schedule_of(kept, b)
        if due.day is not None and _ahead(due.day, b)
    ]
    return write_calendar(name, notes, b.now)


def step_up_calendar(kept: Kept, b: Bench) -> bytes:
    """The plan to go up in weight as iCalendar; refuses a rig without one.

    A step that may be taken stands on the day of asking.
    """
    steps = b.bow.plan.steps
    if not steps:
        raise RefusedError("step_up.goal_lbf", "There is no plan yet: set a goal first.")
    notes = [
        DayNote(
            f"step-{step.number}-rig-{kept.id}",
            max(step.day, day_of(b.now)),
            f"{b.rig.name}: up to {write(step.weight_lbf, 'weight')} at the earliest",
            f"Only after {step.earned_by}. Stop at pain.",
        )
        for step in steps
    ]
    return write_calendar(f"{b.rig.name}: weight", notes, b.now)


def lent_calendar(parts: Iterable[KeptPart], made_at: str) -> bytes:
    """The days on which lent parts are due back, as iCalendar."""
    notes = [
        DayNote(
            f"due-back-{kept.mark[:12]}",
            kept.part.keeping.due_back,
            f"{kept.part.name} is due back",
            f"Lent to {kept.part.keeping.to} since {kept.part.keeping.since}.",
        )
        for kept in parts
        if kept.part.keeping.state == "lent" and kept.part.keeping.due_back
    ]
    if not notes:
        raise RefusedError("keeping.due_back", "Nothing is lent with a day to be back.")
    return write_calendar("Lent from the rack", notes, made_at)


def sheet_of(kept: Kept, b: Bench, units: Mapping[str, str]) -> bytes:
    """The printed rig sheet as PDF, with what is due at its head."""
    return rig_sheet(b, units, schedule_of(kept, b))


def card_of(
    b: Bench, card: CardId, course: int, kind: str, units: Mapping[str, str]
) -> str | bytes:
    """A card as PDF, or as SVG where kind is svg; course: which of the courses, from 0."""
    if card == "course":
        drawn = course_card(b, course, units)
    else:
        drawn = (tab_card if card == "tab" else pocket_card)(b, units)
    return as_svg(drawn) if kind == "svg" else as_pdf(drawn)
