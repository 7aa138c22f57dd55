"""What a change does to the shaft by the window that judges it, and the change that does so much.

A cure comes from the same model as the verdict (mechanics D): it is solved on the window, tried
there as it would be made, and kept back where it does not bring at least half of what is wanted.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from lyrandis.core.bench.bench import Bench
from lyrandis.core.errors import RefusedError

LEAST_BROUGHT = 0.5  # of what is wanted
_ROUNDS, _NEAR = 2, 0.05  # of solving; groups


@dataclass(frozen=True)
class Cure:
    """A change by so much, and by how many groups the shaft is then stiffer, − weaker."""

    by: float
    groups: float


def moved_groups(b: Bench, changes: Mapping[str, Any]) -> float | None:
    """By how many spine groups the shaft is stiffer for the bow with some settings changed, −
    weaker; None where no window covers it before or after."""
    try:
        was, then = (b.with_changes(made).spine_error_groups for made in ({}, changes))
    except RefusedError:
        return None
    return None if was is None or then is None else then - was


def cure(
    b: Bench,
    sets: Callable[[float], Mapping[str, Any]],
    wanted: float,
    step: float,
    between: tuple[float, float],
) -> Cure | None:
    """The change that moves the shaft by so many groups, in whole steps; None where none does.

    Parameters
    ----------
    sets : the settings after a change by so much
    wanted : groups, + stiffer
    step : the least that is changed, in the setting's unit
    between : the least and the greatest change
    """

    def tried(by: float) -> float | None:
        return moved_groups(b, sets(by))

    by, got = step, tried(step)
    for _ in range(_ROUNDS):
        if not got or abs(got - wanted) < _NEAR:
            break
        by = min(max(by * wanted / got, between[0]), between[1])
        got = tried(by)
    by = round(by / step) * step
    got = tried(by) if by else None
    return Cure(by, got) if got is not None and got / wanted >= LEAST_BROUGHT else None
