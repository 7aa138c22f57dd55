"""How the limbs stand in line, by the looks that were made with these parts."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.bench.true import still_true
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.in_line import InLine, Seen, in_line


@dataclass(frozen=True)
class InLineBench:
    """The looks from behind, and what they come to; `latest` is the last of them."""

    told: InLine
    latest: KeptTrial | None


def in_line_of(rig: Rig, trials: tuple[KeptTrial, ...]) -> InLineBench:
    """The looks made with the parts that are on, on whatever rig.

    Where a look with turns was struck out nobody knows how the screws stand to those before it:
    only what was looked at since counts.
    """
    made = still_true(trials, "in_line", rig, with_struck=True)
    broken = [i for i, k in enumerate(made) if k.struck and _turned(k)]
    kept = [k for k in made[broken[-1] + 1 if broken else 0 :] if not k.struck]
    looks = [
        Seen(
            k.trial.upper_mm,
            k.trial.lower_mm,
            k.trial.riser_mm,
            k.trial.upper_turns,
            k.trial.lower_turns,
        )
        for k in kept
    ]
    told = in_line(rig.bow, rig.limbs.degrees_per_turn, looks)
    return InLineBench(told, kept[-1] if kept else None)


def _turned(kept: KeptTrial) -> bool:
    return bool(kept.trial.upper_turns or kept.trial.lower_turns)
