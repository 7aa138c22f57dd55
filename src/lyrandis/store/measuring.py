"""Measured settings on their way into the history: each is a trial, or strikes one out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from sqlalchemy import Engine

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.history import Entry, log_trial
from lyrandis.core.measured import counts, untrue
from lyrandis.core.parts import Rig
from lyrandis.core.parts.base import at
from lyrandis.core.trials import MEASURED, MEASURES, standing, trials_in
from lyrandis.store.elsewhere import trials_elsewhere
from lyrandis.store.kept import Kept


@dataclass(frozen=True)
class Asked:
    """What keeping some settings comes to: others, trials to log, measured settings to clear."""

    plain: dict[str, Any]
    trials: tuple[Any, ...]
    cleared: tuple[str, ...]


def asked_of(rig: Rig, wanted: dict[str, Any], trial: Any) -> Asked:
    """Part what is measured from the rest; a trial that came along speaks for its own setting.

    A trial by a simulated instrument is logged beside a typed reading, never in its place.
    """
    plain = {path: value for path, value in wanted.items() if path not in MEASURED}
    values = {path: value for path, value in wanted.items() if path in MEASURED}
    found = dict(trials_in(values))
    cleared = tuple(p for p, v in values.items() if p not in found and not v and at(rig, p))
    if trial is None:
        return Asked(plain, tuple(found.values()), cleared)
    path = next((m.path for m in MEASURES if m.name == trial.kind), None)
    if path in found and counts(trial):
        told = {"scale": trial.scale, "day": trial.day, "notes": trial.notes}
        trial = found[path].model_copy(update=told)
    found.pop(str(path), None)
    return Asked(plain, (trial, *found.values()), cleared)


def trial_shown(kept: Kept, path: str) -> int | None:
    """The number of the trial that a measured setting shows, to be struck out.

    Raises
    ------
    RefusedError : it was measured on another rig: struck out here it would show the same again.
    """
    measure = MEASURED[path]
    shown = at(kept.present.rig, path)
    showing = [t for t in standing(kept.known, measure.name) if measure.value(t.trial) == shown]
    elsewhere = next((trial for trial in showing if trial.rig_id is not None), None)
    if elsewhere is not None:
        raise RefusedError(
            path, f"It was measured on {elsewhere.rig.name}: strike it out in the trials there."
        )
    return showing[-1].seq if showing else None


def as_measured(engine: Engine, kept: Kept, entry: Entry, wanted: dict[str, Any]) -> dict[str, Any]:
    """Changes with each measured setting as the trials make it once the entry stands."""
    plain = {path: value for path, value in wanted.items() if path not in MEASURED}
    rig = changed(kept.present.rig, plain)
    trials = {t.seq: t for t in kept.present.trials}
    if entry.about is None or entry.about in trials:  # an old one is not among the latest
        log_trial(trials, entry, rig)
    elsewhere = kept.elsewhere
    if rig.on != kept.present.rig.on:
        with engine.connect() as connection:
            elsewhere = trials_elsewhere(connection, kept.id, rig.on)
    return plain | untrue(rig, (*trials.values(), *elsewhere))
