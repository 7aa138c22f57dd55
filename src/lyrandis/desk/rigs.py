"""What a user does with rigs, one call each. Nothing is written that could not be shown after."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import IO, Any

from sqlalchemy import Engine

from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.first_rig import first_rig
from lyrandis.core.fit.step_up import begun
from lyrandis.core.rig import Rig
from lyrandis.core.route import ROUTE, Standing
from lyrandis.core.stations import views
from lyrandis.core.workbench import Workbench
from lyrandis.desk.bench_view import BenchView, bench_view
from lyrandis.desk.showing import refuse_unshowable
from lyrandis.files.rig_json import read_rig, rig_text
from lyrandis.store.kept import Kept, Unreadable
from lyrandis.store.rigs import RigStore


def _owner(path: str) -> str | None:
    return next((s.id for s in ROUTE if path in s.settings), None)


class Desk:
    """The rigs of a data folder, as the pages and scripts use them.

    Parameters
    ----------
    now : the present time, ISO 8601 in UTC
    """

    def __init__(self, engine: Engine, now: Callable[[], str]) -> None:
        self.store = RigStore(engine, refuse_unshowable(now))
        self.now = now

    def all(self) -> list[Kept | Unreadable]:
        """Every rig, the oldest first."""
        return self.store.all()

    def get(self, id: int) -> Kept:
        """One rig; raises MissingError or UnreadableError."""
        return self.store.get(id)

    def either(self, id: int) -> Kept | Unreadable:
        """One rig, readable or not; raises MissingError."""
        return self.store.either(id)

    def make(self, rig: Rig) -> Kept:
        """Keep a new rig."""
        return self.store.create(rig)

    def make_first(self, **told: Any) -> Kept:
        """Keep a newcomer's first rig, from the little that is known."""
        return self.store.create(first_rig(**told))

    def look(self, id: int, changes: dict[str, Any]) -> tuple[Kept, BenchView]:
        """What changes would make of a rig; nothing is written."""
        kept = self.store.get(id)
        rig = changed(kept.present.rig, changes)
        return kept, bench_view(rig, kept.present.trials, self.now())

    def keep(
        self,
        id: int,
        seq: int,
        changes: dict[str, Any],
        station: str | None = None,
        standing: Standing = "provisional",
        why: str = "",
        trial: Any = None,
        about: int | None = None,
    ) -> Kept:
        """Keep settings. Refused where a changed setting itself makes the rig impossible.

        So is a change after which its own station cannot be told any more, as a brace height to
        the plunger without how far the plunger lies in front of the grip. What only strains a
        station downstream is kept, and that station says so.
        """
        present = self.store.get(id).present
        made = self.now()
        changes = begun(changes, present.rig.step_up, day_of(made))
        if changes:
            after = Workbench(changed(present.rig, changes), present.trials, made)
            self._refuse(after, Workbench(present.rig, present.trials, made), changes)
        return self.store.keep(id, seq, changes, station, standing, why, made, trial, about)

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

    def strike(self, id: int, seq: int, about: int, out: bool, why: str = "") -> Kept:
        """Strike a trial out, or take it in again."""
        return self.store.strike(id, seq, about, out, why)

    def check(self, id: int, seq: int, station: str, standing: Standing, why: str = "") -> Kept:
        """Say that a station holds or is settled."""
        return self.store.check(id, seq, station, standing, why)

    def undo(self, id: int, seq: int) -> Kept:
        """Take back the latest change that stands, of a rig that cannot be read too."""
        return self.store.undo(id, seq)

    def redo(self, id: int, seq: int) -> Kept:
        """Do again what was taken back last."""
        return self.store.redo(id, seq)

    def copy(self, id: int, name: str) -> Kept:
        """A new rig that begins as this one stands."""
        return self.store.copy(id, name)

    def archive(self, id: int, away: bool) -> Kept | Unreadable:
        """Put a rig away or take it out again; nothing is deleted."""
        return self.store.archive(id, away)

    def file(self, id: int) -> tuple[str, Iterator[str]]:
        """The rig with its history as one JSON file, piece by piece, and the rig's name.

        The rows as they are: a rig that cannot be read goes out too.
        """
        name, created_at, base, entries = self.store.documents(id)
        return name, rig_text(created_at, base, entries)

    def take_in(self, file: IO[bytes], heed: Callable[[], None]) -> Kept:
        """Take in a rig file whole, as a new rig, or refuse it whole."""
        read = read_rig(file, heed)
        return self.store.create(read.base, read.entries, read.created_at)
