"""What a user does with rigs, one call each. Nothing is written that could not be shown after."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator
from typing import IO, Any

from sqlalchemy import Engine

from lyrandis.core.dates import day_of
from lyrandis.core.fit.step_up import begun
from lyrandis.core.stops import Standing, StationId
from lyrandis.desk import papers
from lyrandis.desk.showing import refuse_unshowable
from lyrandis.desk.shown import BenchView, bench_view
from lyrandis.files.rig_json import read_rig, rig_text
from lyrandis.store.identity import identity_of, raise_generation
from lyrandis.store.kept import Kept
from lyrandis.store.rigs import Along, RigStore, nothing


class Desk(RigStore):
    """The rigs of a data folder, as the pages and scripts use them: nothing unshowable is kept.

    Parameters
    ----------
    now : the present time, ISO 8601 in UTC
    """

    def __init__(self, engine: Engine, now: Callable[[], str]) -> None:
        super().__init__(engine, refuse_unshowable(now))
        self.now = now
        self.identity = identity_of(engine)

    def arrived(self, raised: bool = False) -> None:
        """Note that data came from elsewhere; `raised`: that is noted in the data already."""
        if not raised:
            raise_generation(self.engine)
        self.identity = identity_of(self.engine)

    def look(
        self, id: int, changes: dict[str, Any], parts: Collection[StationId] | None = None
    ) -> tuple[Kept, BenchView]:
        """What changes would make of a rig, for some stations or all; nothing is written."""
        kept = self.get(id)
        b = papers.bench_of(kept, self.now()).with_changes(changes)
        return kept, bench_view(b, parts)

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
        stands: bool | None = None,
        along: Along = nothing,
    ) -> Kept:
        """Keep settings, log a trial, or both; a plan that names no day begins on this one."""
        made = at or self.now()
        changes = begun(wanted, self.get(id).present.rig.step_up, day_of(made))
        return super().keep(
            id, seq, changes, station, standing, why, made, trial, about, stands, along
        )

    def file(self, id: int) -> tuple[str, Iterator[str]]:
        """The rig with its history as one JSON file, piece by piece, and the rig's name.

        The rows as they are: a rig that cannot be read goes out too.
        """
        name, rig = self.documents(id)
        return name, rig_text(rig.created_at, rig.base, rig.parts, rig.entries, rig.uid)

    def take_in(self, file: IO[bytes], heed: Callable[[], None]) -> Kept:
        """Take in a rig file whole, as a new rig, or refuse it whole."""
        read = read_rig(file, heed)
        made = self.create(read.base, read.entries, read.created_at, read.parts, uid=read.uid)
        self.arrived()
        return made
