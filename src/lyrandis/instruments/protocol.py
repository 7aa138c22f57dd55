"""What every bench instrument does: it says what it is, and gives readings one after another."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Protocol, TypeVar

Reading_co = TypeVar("Reading_co", covariant=True)


class Instrument(Protocol[Reading_co]):
    """A source of readings.

    `simulated` tells a stand-in from a device; `every_s` is the time between two readings [s], by
    which whoever streams them may pace himself. Reading twice gives the same readings.
    """

    @property
    def name(self) -> str:
        """What it is called."""
        ...

    @property
    def simulated(self) -> bool:
        """Whether it stands in for a device."""
        ...

    @property
    def every_s(self) -> float:
        """Time between two readings [s]."""
        ...

    def readings(self) -> Iterator[Reading_co]:
        """The readings of one measurement, in order; it ends when the measurement does."""
        ...
