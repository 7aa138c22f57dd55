"""What an arrow nock in the butt looks like: from the archer's 3×3 block to weak, straight, stiff.

7 8 9   high          of an arrow that lies to the left of the bow a nock to the left was weak;
4 5 6                 of one to the right it was stiff
1 2 3   low
"""

from __future__ import annotations

from collections.abc import Sequence

from lyrandis.core.flight.read_tests import HEIGHTS, SIDES

CELLS = tuple(range(1, 10))
LEANS = 0.5  # of a column or row, on average, from which arrows lean to a side


def columns(cells: Sequence[int]) -> list[int]:
    """−1 left, 0, 1 right, as the archer sees the nocks."""
    return [(cell - 1) % 3 - 1 for cell in cells]


def rows(cells: Sequence[int]) -> list[int]:
    """−1 low, 0, 1 high."""
    return [(cell - 1) // 3 - 1 for cell in cells]


def _third(mean: float) -> int:
    return 1 + (mean >= LEANS) - (mean <= -LEANS)


def side_of(cells: Sequence[int], arrow_left: bool) -> str:
    """How most of them look from behind: weak, straight or stiff.

    Parameters
    ----------
    arrow_left : whether the arrow lies to the left of the bow as the archer sees it

    >>> side_of((4, 7, 5), arrow_left=True)
    'weak'
    """
    mean = sum(columns(cells)) / len(cells)
    return SIDES[_third(mean if arrow_left else -mean)]


def height_of(cells: Sequence[int]) -> str:
    """How most of the nocks stand: low, level or high."""
    return HEIGHTS[_third(sum(rows(cells)) / len(cells))]
