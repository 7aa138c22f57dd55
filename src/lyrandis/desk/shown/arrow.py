"""What is shown of the shot: its numbers with the floor it is judged by."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from pydantic import BaseModel, ConfigDict

from lyrandis.core.arrow.shot import Floor, Shot
from lyrandis.core.bench import Bench


@dataclass(frozen=True)
class ShotView(Shot):
    """One shot, and how light an arrow may be."""

    floor: Floor


class SpeedsSeen(BaseModel):
    """Arrows of one weight over the chronograph, and which of their shots were left out."""

    mass_gr: float
    speeds_fps: list[float]
    left_out: list[int]


class ChronographView(BaseModel):
    """What the chronograph says: its shots, and speeds by arrow weight with their ±."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    seen: list[SpeedsSeen]
    mass_gr: list[float]
    speed_fps: list[float]
    sd_fps: list[float]
    line: bool


_CURVE_POINTS = 41
_BEYOND = 0.8  # the curve begins at the lightest arrow shot times this, and ends as far beyond


def chronograph_view(b: Bench) -> ChronographView | None:
    """The chronograph's answer; None where nothing was shot over one."""
    told = b.arrow.calibration
    if told is None:
        return None
    shot = [s.mass_gr for s in told.shots] + [b.arrow.build.mass_gr]
    masses = np.linspace(min(shot) * _BEYOND, max(shot) / _BEYOND, _CURVE_POINTS).tolist()
    speeds = [told.speed_fps(m) for m in masses]
    return ChronographView(
        seen=[
            SpeedsSeen(mass_gr=s.mass_gr, speeds_fps=list(s.speed_fps), left_out=list(out))
            for s, out in zip(told.shots, told.outliers, strict=True)
        ],
        mass_gr=masses,
        speed_fps=[s.value for s in speeds],
        sd_fps=[s.plus_minus for s in speeds],
        line=told.line,
    )


def shot_view(b: Bench) -> ShotView:
    """The shot's answer."""
    return ShotView(**vars(b.arrow.shot), floor=b.arrow.floor)
