"""Chronograph readings as CSV: a shot a line, arrow weight and speed with their units."""

from __future__ import annotations

from pydantic import ValidationError

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import refused
from lyrandis.core.trials.chronograph import ChronographTrial
from lyrandis.files.table_csv import Column, at_line, measured, read_table

MOST_SHOTS = 400
_COLUMNS = {
    "arrow": Column(("gr", "g"), measured("mass"), names=("weight", "mass")),
    "speed": Column(("ft/s", "fps", "m/s", "mps"), measured("speed")),
}


def read_speeds(data: bytes) -> list[ChronographTrial]:
    """The shots, those of one arrow weight as one trial, in the order of the file.

    Raises
    ------
    RefusedError : a line that is no shot, with its number; too many shots or none.
    """
    by_mass: dict[float, list[float]] = {}
    rows = read_table(data, _COLUMNS, "arrow (gr),speed (ft/s)", (("arrow", "speed"),))
    if len(rows) > MOST_SHOTS:
        raise RefusedError("file", f"{len(rows)} shots are too many.", MOST_SHOTS, "shots")
    for line, cells in rows:
        mass, speed = round(cells["arrow"], 2), round(cells["speed"], 2)
        try:
            ChronographTrial(mass_gr=mass, speeds_fps=(speed,))
        except ValidationError as error:
            raise at_line(line, refused(error.errors()[0])) from None
        by_mass.setdefault(mass, []).append(speed)
    if not by_mass:
        raise RefusedError("line 2", "There is no shot under the head.")
    try:
        return [ChronographTrial(mass_gr=m, speeds_fps=tuple(v)) for m, v in by_mass.items()]
    except ValidationError as error:
        raise refused(error.errors()[0]) from None
