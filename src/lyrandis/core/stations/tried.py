"""An action that is offered is tried first: it may not leave its stop, nor make or move another."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property
from typing import Any

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding
from lyrandis.core.stations.dangers import Danger, danger, dangers
from lyrandis.core.stops import StationId

_SAME = 1e-9


class Proof:
    """Tries what the findings of a rig offer."""

    def __init__(self, bench: Bench) -> None:
        self.bench = bench

    @cached_property
    def before(self) -> dict[Danger, tuple[float, ...]]:
        """The stops as the rig stands."""
        return dangers(self.bench)

    def holds(self, own: Danger | None, changes: Mapping[str, Any]) -> bool:
        """Whether changes leave no stop that was to go, and neither make nor move another."""
        b = self.bench
        try:
            after = dangers(b.with_changes(changes))
        except RefusedError:
            return False
        if own in after:
            return False
        return all(
            key in self.before and _unmoved(self.before[key], values)
            for key, values in after.items()
        )

    def tried(self, station: StationId, finding: Finding) -> Finding:
        """The finding with the first of its actions that holds; with none where none does."""
        offered = [a for a in (finding.action, *finding.instead) if a is not None]
        if not any(a.changes for a in offered):
            return finding
        own = danger(station, finding) if finding.level == "stop" else None
        action = next((a for a in offered if self._may(own, a)), None)
        return finding.model_copy(update={"action": action, "instead": ()})

    def _may(self, own: Danger | None, action: Action) -> bool:
        return not action.changes or self.holds(own, action.changes)


def _unmoved(before: tuple[float, ...], after: tuple[float, ...]) -> bool:
    return len(before) == len(after) and all(
        abs(a - b) <= _SAME * max(abs(a), abs(b), 1.0) for a, b in zip(before, after, strict=True)
    )
