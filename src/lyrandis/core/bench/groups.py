"""The groups shot with this rig: which setting was stepped through, and what they say of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.reading import STATE
from lyrandis.core.bench.true import still_true
from lyrandis.core.parts import Rig
from lyrandis.core.route import READS, Read, moved_since
from lyrandis.core.trials import GroupTrial, KeptTrial
from lyrandis.core.tune.group_tuning import Group, GroupsTold, compare

LONG_M = 15.0  # nearer all groups are tight
TUNED = ("brace", "nock", "cut", "point", "silencers", "spine", "shaft")  # keys of READS


@dataclass(frozen=True)
class Tuned:
    """A setting that was stepped through, by its key, and what its groups say."""

    key: str
    read: Read
    told: GroupsTold


@dataclass(frozen=True)
class GroupsBench:
    """Every group with this bow and archer."""

    rig: Rig
    trials: tuple[KeptTrial, ...]

    @cached_property
    def kept(self) -> list[KeptTrial]:
        """Groups with this bow, in order; practice counts for nothing."""
        told = still_true(self.trials, "group", self.rig)
        return [k for k in told if k.trial.by != "simulated"]

    @cached_property
    def tuned(self) -> Tuned | None:
        """The setting with the most steps shot, all else as it is; None without two steps."""
        found = [tuned for key in TUNED if (tuned := self._by(key)) is not None]
        return max(found, key=lambda t: len(t.told.steps), default=None)

    def _by(self, key: str) -> Tuned | None:
        """The groups shot with this rig but for one setting, by its value."""
        read, steps = READS[key], dict[float, list[Group]]()
        for kept in self.kept:
            value, group = read.off(kept.rig), _fletched(kept.trial)
            if group is None or not isinstance(value, float | int):
                continue
            if set(moved_since(STATE, kept.rig, self.rig)) <= {read.short}:
                at = next((v for v in steps if abs(v - value) <= STATE[key]), float(value))
                steps.setdefault(at, []).append(group)
        told = compare(steps)
        return None if told is None else Tuned(key, read, told)


def _fletched(trial: GroupTrial) -> Group | None:
    """The fletched arrows of a group from far enough; None of fewer than two."""
    impacts = [i for i in trial.impacts if i.shaft == "fletched"]
    if trial.distance_m < LONG_M or len(impacts) < 2:
        return None
    return trial.distance_m, [i.right_cm for i in impacts], [i.up_cm for i in impacts]
