"""What was measured, and whether what it was measured with is still so.

A measured setting shows the newest trial that stands and whose grounds hold: the parts and
settings it was taken with, within the thresholds written here. Where none holds, the setting is
empty and `recalled` tells what the newest trial says of the rig as it is now: the old reading
times the model's ratio, new over old.

Source: own rule; the thresholds stand with each kind of trial.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from lyrandis.core.arrow.build import PARTS_SD_SHARE, build
from lyrandis.core.arrow.shot import marking_sd_lbf
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.parts.base import at
from lyrandis.core.route import moved_since
from lyrandis.core.string.measures import MASS_SD_SHARE, usual_mass_gr
from lyrandis.core.trials import MEASURED, MEASURES, KeptTrial, Measure, standing

_STEP_SHARE = 0.25  # of a model's step taken as its standard deviation
_READING_SHARE = 0.01  # of a reading by a bow scale
_TWO = math.sqrt(2)  # the part that was measured and the other are each off their own way
_GRAIN_SD = 0.5  # gr, of a grain scale


def counts(trial: Any) -> bool:
    """Whether a trial's reading may stand as measured: a simulated instrument's never does."""
    return getattr(trial, "scale", "typed") != "simulated"


def moved_grounds(measure: Measure, then: Rig, now: Rig) -> list[str]:
    """Names of the grounds that moved between two rigs by more than a measure allows."""
    return moved_since(measure.kind.grounds, then, now)


def _newest(measure: Measure, trials: Iterable[KeptTrial]) -> list[KeptTrial]:
    kept = [t for t in standing(tuple(trials), measure.name) if counts(t.trial)]
    return kept[::-1]


def measured_now(rig: Rig, trials: Iterable[KeptTrial]) -> dict[str, Any]:
    """Each measured setting as trials make it: the newest one that stands and holds, or empty.

    Parameters
    ----------
    trials : of the rig, and those made elsewhere with the same parts
    """
    every = tuple(trials)
    told: dict[str, Any] = {}
    for measure in MEASURES:
        holding = (t for t in _newest(measure, every) if not moved_grounds(measure, t.rig, rig))
        first = next(holding, None)
        told[measure.path] = measure.unmeasured if first is None else measure.value(first.trial)
    return told


def sources(rig: Rig, trials: Iterable[KeptTrial]) -> dict[str, KeptTrial]:
    """The trial behind each setting that is measured, by path."""
    every = tuple(trials)
    told = {}
    for measure in MEASURES:
        shown = at(rig, measure.path)
        for kept in _newest(measure, every) if shown != measure.unmeasured else ():
            if measure.value(kept.trial) == shown and not moved_grounds(measure, kept.rig, rig):
                told[measure.path] = kept
                break
    return told


def untrue(rig: Rig, trials: Iterable[KeptTrial]) -> dict[str, Any]:
    """The measured settings that say something else than the trials: path to what they say."""
    return {p: v for p, v in measured_now(rig, trials).items() if at(rig, p) != v}


@dataclass(frozen=True)
class Recalled:
    """What an earlier measurement says of the rig as it is now.

    was : the reading then, at the same place where it is a curve
    now : the old reading times the model's ratio
    over_model : the old reading over what the model said then
    moved : what is otherwise now
    """

    path: str
    trial: KeptTrial
    was: float
    now: Estimate
    over_model: float
    moved: list[str]


def recalled(path: str, rig: Rig, trials: Iterable[KeptTrial], draw_in: float) -> Recalled | None:
    """The newest measurement of a setting whose grounds moved, brought to the rig as it is.

    Parameters
    ----------
    draw_in : draw [in, trade] at which scale readings are compared

    Returns
    -------
    None where the setting is measured, where nothing stands, or where the model reaches no ratio.
    """
    measure = MEASURED[path]
    if at(rig, path) != measure.unmeasured:
        return None
    kept = next(iter(_newest(measure, trials)), None)
    if kept is None:
        return None
    try:
        was, then, now, sd = _COMPARED[path](kept, rig, draw_in)
    except RefusedError:
        return None
    moved = moved_grounds(measure, kept.rig, rig)
    if not moved or then <= 0:
        return None
    value = was * now / then
    told = Estimate(value=value, plus_minus=sd(value), source="model")
    return Recalled(path, kept, was, told, was / then, moved)


Compared = tuple[float, float, float, Callable[[float], float]]


def model_lbf(rig: Rig, draw_in: float) -> float:
    """What the model alone says a bow pulls [lb] at a draw [in, trade]."""
    return force_draw(changed(rig, {"bow.measured": ()}).bow, rig.string.material).force(draw_in)


def _weights(kept: KeptTrial, rig: Rig, draw_in: float) -> Compared:
    read = changed(kept.rig, {"bow.measured": kept.trial.readings})
    was = force_draw(read.bow, read.string.material).force(draw_in)
    then, now = model_lbf(kept.rig, draw_in), model_lbf(rig, draw_in)
    other = bool({"bow", "riser", "limbs"} & set(moved_grounds(_WEIGHT, kept.rig, rig)))

    def sd(value: float) -> float:
        # Both markings are a pound or two off, and each its own way; a bolt's turn is the model's.
        step = _TWO * marking_sd_lbf(value) if other else _STEP_SHARE * abs(now - then)
        return math.hypot(_READING_SHARE * value, step)

    return was, then, now, sd


def _arrows(kept: KeptTrial, rig: Rig, _: float) -> Compared:
    then, now = build(kept.rig.arrow).parts_gr, build(rig.arrow).parts_gr
    other = kept.rig.on.arrows != rig.on.arrows

    def sd(value: float) -> float:
        step = _TWO * PARTS_SD_SHARE * value if other else _STEP_SHARE * abs(now - then)
        return math.hypot(_GRAIN_SD, step)

    return kept.trial.mass_gr, then, now, sd


def _strings(kept: KeptTrial, rig: Rig, _: float) -> Compared:
    then = usual_mass_gr(kept.rig.bow, kept.rig.string)
    now = usual_mass_gr(rig.bow, rig.string)
    other = kept.rig.on.string != rig.on.string

    def sd(value: float) -> float:
        step = _TWO * MASS_SD_SHARE * value if other else _STEP_SHARE * abs(now - then)
        return math.hypot(_GRAIN_SD, step)

    return kept.trial.mass_gr, then, now, sd


_WEIGHT = MEASURED["bow.measured"]
_COMPARED: dict[str, Callable[[KeptTrial, Rig, float], Compared]] = {
    "bow.measured": _weights,
    "arrow.weighed_gr": _arrows,
    "string.mass_gr": _strings,
}
