"""What is shown of the shot: its numbers with the floor it is judged by."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.arrow.shot import Floor, Shot
from lyrandis.core.bench import Bench


@dataclass(frozen=True)
class ShotView(Shot):
    """One shot, and how light an arrow may be."""

    floor: Floor


def shot_view(b: Bench) -> ShotView:
    """The shot's answer."""
    return ShotView(**vars(b.arrow.shot), floor=b.arrow.floor)
