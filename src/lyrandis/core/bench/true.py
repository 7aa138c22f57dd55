"""Which trials still hold: those that were made with the rig as it is."""

from __future__ import annotations

from lyrandis.core.dates import instant
from lyrandis.core.parts import Rig
from lyrandis.core.route import moved_since
from lyrandis.core.trials import KeptTrial


def still_true(
    trials: tuple[KeptTrial, ...], kind: str, rig: Rig, with_struck: bool = False
) -> list[KeptTrial]:
    """The trials of a kind whose grounds have not moved, in the order they were made."""
    kept = [k for k in trials if k.trial.kind == kind and (with_struck or not k.struck)]
    kept.sort(key=lambda k: (k.day, instant(k.at), k.seq))
    return [k for k in kept if not moved_since(k.trial.grounds, k.rig, rig)]
