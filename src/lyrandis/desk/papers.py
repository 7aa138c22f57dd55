"""What leaves a rig on paper or for a calendar: its schedule, its plan, its sheet."""

from __future__ import annotations

from collections.abc import Mapping

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.route import states
from lyrandis.core.schedule import Due, schedule
from lyrandis.core.units import write
from lyrandis.files.calendar import DayNote, write_calendar
from lyrandis.files.sheet import rig_sheet
from lyrandis.store.kept import Kept


def schedule_of(kept: Kept, made: str) -> list[Due]:
    """What is due when, seen from a time."""
    present = kept.present
    b = Bench(present.rig, present.trials, made)
    return schedule(b, states(present.marks, present.rig))


def schedule_calendar(kept: Kept, made: str) -> bytes:
    """The dated part of the schedule as iCalendar."""
    name = kept.present.rig.name
    notes = [
        DayNote(f"{due.id}-rig-{kept.id}", due.day, f"{name}: {due.title.plain()}", due.why.plain())
        for due in schedule_of(kept, made)
        if due.day is not None
    ]
    return write_calendar(name, notes, made)


def step_up_calendar(kept: Kept, made: str) -> bytes:
    """The plan to go up in weight as iCalendar; refuses a rig without one."""
    rig = kept.present.rig
    steps = Bench(rig, kept.present.trials, made).bow.steps
    if not steps:
        raise RefusedError("step_up.goal_lbf", "There is no plan yet: set a goal first.")
    notes = [
        DayNote(
            f"step-{step.number}-rig-{kept.id}",
            step.day,
            f"{rig.name}: up to {write(step.weight_lbf, 'weight')} at the earliest",
            f"Only after {step.earned_by}. Stop at pain.",
        )
        for step in steps
    ]
    return write_calendar(f"{rig.name}: weight", notes, made)


def sheet_of(kept: Kept, units: Mapping[str, str], made: str) -> bytes:
    """The printed rig sheet as PDF."""
    present = kept.present
    return rig_sheet(present.rig, units, made, present.trials)
