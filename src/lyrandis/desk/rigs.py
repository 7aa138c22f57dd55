"""What a user does with rigs, one call each. Nothing is written that could not be shown after."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import IO, Any

from sqlalchemy import Engine

from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.step_up import begun
from lyrandis.core.route import ROUTE, Standing
from lyrandis.core.stations import views
from lyrandis.core.workbench import Workbench
from lyrandis.desk.bench_view import BenchView, bench_view
from lyrandis.desk.showing import refuse_unshowable
from lyrandis.files.rig_json import read_rig, rig_text
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import RigStore


def _owner(path: str) -> str | None:
    return next((s.id for s in ROUTE if path in s.settings), None)


class Desk(RigStore):
    """The rigs of a data folder, as the pages and scripts use them: nothing unshowable is kept.

    Parameters
    ----------
    now : the present time, ISO 8601 in UTC
    """

    def __init__(self, engine: Engine, now: Callable[[], str]) -> None:
        super().__init__(engine, refuse_unshowable(now))
        self.now = now

    def look(self, id: int, changes: dict[str, Any]) -> tuple[Kept, BenchView]:
        """What changes would make of a rig; nothing is written."""
        kept = self.get(id)
        rig = changed(kept.present.rig, changes)
        return kept, bench_view(rig, kept.present.trials, self.now())

    def keep(
        self,
        id: int,
        seq: int,
        wanted: dict[str, Any],
        station: str | None = None,
        standing: Standing = "provisional",
        why: str = "",
        at: str | None = None,
        trial: Any = None,
        about: int | None = None,
    ) -> Kept:
        """Keep settings. Refused where a changed setting itself makes the rig impossible.

        So is a change after which its own station cannot be told any more, as a brace height to
        the plunger without how far the plunger lies in front of the grip. What only strains a
        station downstream is kept, and that station says so.
        """
        present = self.get(id).present
        made = at or self.now()
        changes = begun(wanted, present.rig.step_up, day_of(made))
        if changes:
            after = Workbench(changed(present.rig, changes), present.trials, made)
            self._refuse(after, Workbench(present.rig, present.trials, made), changes)
        return super().keep(id, seq, changes, station, standing, why, made, trial, about)

    @staticmethod
    def _refuse(after: Workbench, before: Workbench, changes: dict[str, Any]) -> None:
        own = {_owner(path): path for path in changes}
        problems = [s for s in views(after) if s.problem is not None]
        told = {s.station for s in views(before) if s.problem is None} if problems else set()
        for station in problems:
            p = station.problem
            if p is None:
                continue
            if p.field in changes or (station.station in own and station.station in told):
                same = _owner(p.field) in own
                field = p.field if same else own[station.station]
                raise RefusedError(field, p.reason, p.limit, p.unit)

    def file(self, id: int) -> tuple[str, Iterator[str]]:
        """The rig with its history as one JSON file, piece by piece, and the rig's name.

        The rows as they are: a rig that cannot be read goes out too.
        """
        name, created_at, base, entries = self.documents(id)
        return name, rig_text(created_at, base, entries)

    def take_in(self, file: IO[bytes], heed: Callable[[], None]) -> Kept:
        """Take in a rig file whole, as a new rig, or refuse it whole."""
        read = read_rig(file, heed)
        return self.create(read.base, read.entries, read.created_at)
