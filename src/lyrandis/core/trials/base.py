"""What every trial is: one thing tried and what it showed, logged as an entry of the history.

It hangs on the rig as it stood then, and may be put right or struck out later; nothing is ever
lost. A kind of trial is one file of this folder and one line of its registry.
"""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from lyrandis.core.dates import Day, instant
from lyrandis.core.findings import Said
from lyrandis.core.parts import Frozen, On, Rig, Short, Slot
from lyrandis.core.stops import StationId

Cell = str | int | float | None


class TrialBase(Frozen):
    """What every trial may say: the day it was made (empty: when it was logged) and notes.

    title : what several of it are called
    station : where it is logged
    grounds : what it was made with, names of route.READS, and how far each may move before the
        trial says so and, of a measurement, no longer holds
    speaks_of : the slots whose part it tells of, on whatever rig that part is; none: of its own
        rig alone
    """

    title: ClassVar[str]
    station: ClassVar[StationId]
    grounds: ClassVar[Mapping[str, float]]
    speaks_of: ClassVar[tuple[Slot, ...]] = ()

    day: Day = ""
    notes: Short = ""

    @abstractmethod
    def said(self) -> Said:
        """The trial as one sentence without its full stop."""

    @abstractmethod
    def columns(self) -> dict[str, Cell]:
        """Its columns in a table, beside day and notes: header with the unit, and the cell."""


@dataclass(frozen=True)
class KeptTrial:
    """A trial in the history: the entry that logged it, when, on which rig, and if struck out.

    rig : as it stood then
    rig_id : another rig whose history holds it; None for one of the rig's own
    """

    seq: int
    at: str
    trial: Any  # one of Trial
    rig: Rig
    struck: bool = False
    rig_id: int | None = None

    @property
    def day(self) -> str:
        """The day it was made: the archer's word, else the day it was logged."""
        return self.trial.day or self.at[:10]

    def speaks_of(self, on: On) -> bool:
        """Whether it tells of one of these parts."""
        there = self.rig.on
        marks = {mark for slot in self.trial.speaks_of if (mark := getattr(there, slot))}
        return any(getattr(on, slot) in marks for slot in self.trial.speaks_of)


def standing(trials: tuple[KeptTrial, ...], kind: str) -> list[Any]:
    """The trials of a kind that are not struck out, by the day they were made, then as logged."""
    kept = [t for t in trials if t.trial.kind == kind and not t.struck]
    return sorted(kept, key=lambda t: (t.day, instant(t.at), t.seq))


def listed(numbers: tuple[float, ...]) -> str:
    """Numbers in one cell of a table."""
    return " ".join(f"{n:g}" for n in numbers)
