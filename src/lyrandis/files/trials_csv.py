"""Brace trials as CSV: a line a trial, units in the header, levels with mean and scatter."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

import numpy as np

from lyrandis.core.trials import BraceTrial

HEAD = (
    "day", "brace height (in)", "measured to", "turns", "arrows", "mean level (dB)",
    "scatter (dB)", "levels (dB)", "heard by", "feel (1-5)", "group (cm)", "notes",
)  # fmt: skip
_FORMULA = ("=", "+", "-", "@")


def _safe(text: str) -> str:
    """Text that no spreadsheet takes for a formula."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def write_brace_trials(trials: Sequence[tuple[str, BraceTrial]]) -> str:
    """Trials with their days, in the order given."""
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(HEAD)
    for day, t in trials:
        n = len(t.levels_db)
        write.writerow(
            [
                day,
                f"{t.brace_height_in:g}",
                t.reference,
                "" if t.twists is None else f"{t.twists:g}",
                t.arrows,
                f"{np.mean(t.levels_db):.2f}" if n else "",
                f"{np.std(t.levels_db, ddof=1):.2f}" if n > 1 else "",
                " ".join(f"{level:g}" for level in t.levels_db),
                t.heard_by,
                "" if t.feel is None else t.feel,
                "" if t.group_cm is None else f"{t.group_cm:g}",
                _safe(t.notes),
            ]
        )
    return out.getvalue()
