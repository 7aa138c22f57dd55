"""Crawls as archers count them: tab marks or finger widths, and what rounding them costs."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.flight.trajectory import AimedArrow, impact_m

PARTS = {"whole": 1, "half": 2, "quarter": 4}
_FINGER_PARTS = 4
_PART_WORDS = {0: "", 1: "1/4", 2: "1/2", 3: "3/4"}


@dataclass(frozen=True)
class Counted:
    """A crawl counted, each with how far off the arrow lands for the rounding [cm], + high.

    words : the tab marks in the archer's own words
    """

    marks: float
    marks_cost_cm: float
    words: str
    fingers: float
    fingers_cost_cm: float


def counted(
    aimed: AimedArrow,
    distance_m: Array,
    crawl_mm: Array,
    pitch_mm: float,
    parts: int,
    finger_mm: float,
    words: Sequence[str] = (),
) -> list[Counted]:
    """Crawls [mm] for distances [m], shape (n,) each, as the archer counts them.

    Parameters
    ----------
    pitch_mm, finger_mm : one tab mark, one finger width
    parts : into how many a mark is divided by eye: 1, 2 or 4
    words : the archer's own for the first mark, the second …
    """
    marks = np.round(crawl_mm / pitch_mm * parts) / parts
    fingers = np.round(crawl_mm / finger_mm * _FINGER_PARTS) / _FINGER_PARTS
    off = [
        100 * impact_m(aimed, n * each, distance_m)
        for n, each in ((marks, pitch_mm), (fingers, finger_mm))
    ]
    return [
        Counted(float(m), float(mc), in_words(float(m), words), float(f), float(fc))
        for m, mc, f, fc in zip(marks, off[0], fingers, off[1], strict=True)
    ]


def in_words(marks: float, words: Sequence[str]) -> str:
    """A count of marks in the archer's own words; empty where there is no word for it.

    >>> in_words(2.5, ("first", "blue", "seam")), in_words(0, ("first",)), in_words(9, ("first",))
    ('blue + 1/2', 'arrow nock', '')
    """
    whole, part = int(marks), _PART_WORDS.get(round(4 * (marks % 1)), "")
    if whole > len(words) or (whole and not words[whole - 1]) or not words:
        return ""
    name = words[whole - 1] if whole else "arrow nock"
    return f"{name} + {part}" if part else name
