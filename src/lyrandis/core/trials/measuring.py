"""The trials that give a measured setting its value, and the way from one to the other."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from typing import Any, NamedTuple

from lyrandis.core.trials.arrow_weighing import ArrowWeighingTrial
from lyrandis.core.trials.base import TrialBase
from lyrandis.core.trials.string_weighing import StringWeighingTrial
from lyrandis.core.trials.weighing import WeighingTrial


class Measure(NamedTuple):
    """A setting that is measured, its trial, what it is unmeasured, and the way between."""

    path: str
    kind: type[TrialBase]
    unmeasured: Any
    value: Callable[[Any], Any]  # of a trial
    trial: Callable[[Any], TrialBase]  # of a value

    @property
    def name(self) -> str:
        """The kind of its trial."""
        return str(self.kind.model_fields["kind"].default)


MEASURES: tuple[Measure, ...] = (
    Measure(
        "bow.measured",
        WeighingTrial,
        (),
        lambda trial: trial.readings,
        lambda value: WeighingTrial(readings=value),
    ),
    Measure(
        "arrow.weighed_gr",
        ArrowWeighingTrial,
        None,
        lambda trial: trial.mass_gr,
        lambda value: ArrowWeighingTrial(mass_gr=value),
    ),
    Measure(
        "string.mass_gr",
        StringWeighingTrial,
        None,
        lambda trial: trial.mass_gr,
        lambda value: StringWeighingTrial(mass_gr=value),
    ),
)
MEASURED: dict[str, Measure] = {m.path: m for m in MEASURES}


def trials_in(values: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    """The trials that settings amount to where a measured one is set without a trial.

    Returns
    -------
    The path of each, and its trial. Values that no trial takes are passed over: the rig itself
    refuses them, in its own words.
    """
    for measure in MEASURES:
        value = values.get(measure.path)
        if value is None or len(value if isinstance(value, list | tuple) else [0]) == 0:
            continue
        try:
            yield measure.path, measure.trial(value)
        except ValueError:
            continue


# A trial has the number of the entry that logged it. Where a version of before set measured
# settings without a trial, what they amount to is numbered below nought: -(4 n + 1 … 3) for those
# of entry n, n = 0 for what the rig began with.
_ROOM = len(MEASURES) + 1


def implied_number(seq: int, path: str) -> int:
    """The number of a trial that entry `seq` (0: the beginning) implies.

    >>> implied_number(0, "bow.measured"), implied_number(3, "string.mass_gr")
    (-1, -15)
    """
    return -(_ROOM * seq + 1 + [m.path for m in MEASURES].index(path))


def implied_by(number: int) -> int:
    """The entry that implies a trial numbered below nought.

    >>> implied_by(-1), implied_by(-15)
    (0, 3)
    """
    return -number // _ROOM
