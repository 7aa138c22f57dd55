"""Trials of one kind as CSV: a line a trial, units in the header, day first and notes last."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from lyrandis.core.trials import TrialBase
from lyrandis.core.trials.base import Cell

_FORMULA = ("=", "+", "-", "@")


def _cell(cell: Cell) -> str | int:
    """Nothing for what was not said; text that no spreadsheet takes for a formula."""
    if cell is None:
        return ""
    if isinstance(cell, float):
        return f"{cell:g}"
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(_FORMULA) else cell


def write_trials(trials: Sequence[tuple[str, TrialBase]]) -> str:
    """Trials of one kind with their days, in the order given; at least one."""
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(["day", *trials[0][1].columns(), "notes"])
    for day, trial in trials:
        write.writerow([day, *map(_cell, trial.columns().values()), _cell(trial.notes)])
    return out.getvalue()
