"""What an arrow nock in the butt looks like: from the archer's 3×3 block to weak, straight, stiff.

7 8 9   high          a right-handed finger archer's arrow with its nock to the left was weak;
4 5 6                 the left-handed one's, and a right-handed thumb archer's, was stiff
1 2 3   low
"""

from __future__ import annotations

from collections.abc import Sequence

from lyrandis.core.flight.read_tests import HEIGHTS, SIDES
from lyrandis.core.parts import Archer

CELLS = tuple(range(1, 10))
LEANS = 0.5  # of a column or row, on average, from which arrows lean to a side


def plate_is_left(archer: Archer) -> bool:
    """Whether the arrow stands to the left of the bow as the archer sees it."""
    return (archer.hand == "right") != (archer.release == "thumb")


def columns(cells: Sequence[int]) -> list[int]:
    """−1 left, 0, 1 right, as the archer sees the nocks."""
    return [(cell - 1) % 3 - 1 for cell in cells]


def rows(cells: Sequence[int]) -> list[int]:
    """−1 low, 0, 1 high."""
    return [(cell - 1) // 3 - 1 for cell in cells]


def _third(mean: float) -> int:
    return 1 + (mean >= LEANS) - (mean <= -LEANS)


def side_of(cells: Sequence[int], archer: Archer) -> str:
    """How most of them look from behind: weak, straight or stiff.

    >>> side_of((4, 7, 5), Archer(hand="right"))
    'weak'
    """
    mean = sum(columns(cells)) / len(cells)
    return SIDES[_third(mean if plate_is_left(archer) else -mean)]


def height_of(cells: Sequence[int]) -> str:
    """How most of the nocks stand: low, level or high."""
    return HEIGHTS[_third(sum(rows(cells)) / len(cells))]
