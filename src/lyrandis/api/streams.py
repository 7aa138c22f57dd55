"""Simulated instruments over HTTP: begun as jobs, each reading told as it is taken."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from typing import Any

from lyrandis.instruments.protocol import Instrument
from lyrandis.jobs import Job, Jobs, Tell


def taken_off(
    jobs: Jobs,
    kind: str,
    instrument: Instrument[Any],
    pace: float,
    result: Callable[[Sequence[Any]], Any],
) -> Job:
    """Begin to take an instrument's readings; what it refuses is refused before it begins.

    Parameters
    ----------
    pace : of the instrument's own; 0 takes them all at once
    result : what they come to
    """
    readings = list(instrument.readings())

    def work(tell: Tell) -> Any:
        for i, reading in enumerate(readings):
            time.sleep(instrument.every_s * pace)
            tell((i + 1) / len(readings), list(reading) if isinstance(reading, tuple) else reading)
        return result(readings)

    return jobs.start(kind, work, heavy=False)
