"""Parts kept and read back; a change of one reaches every rig it is on, in one transaction."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from typing import Any, Protocol

from sqlalchemy import Connection, Engine

from lyrandis.core.history import Change, Fate
from lyrandis.core.parts import Keeping, Part
from lyrandis.core.trials import KeptTrial
from lyrandis.store import rack, together
from lyrandis.store.database import writing
from lyrandis.store.digests import latest_of_parts, named_line
from lyrandis.store.elsewhere import all_looks, trials_of_parts
from lyrandis.store.errors import ConflictError, MissingError, NothingError
from lyrandis.store.kept import Kept
from lyrandis.store.rack import KeptPart, PartEntry, Use

Wanted = Callable[[Connection], Mapping[str, Any]]


class Told(Protocol):
    """A line of a story that came from elsewhere."""

    @property
    def kind(self) -> str:
        """adjust, undo or redo."""

    @property
    def at(self) -> str:
        """When."""

    @property
    def why(self) -> str:
        """The reason."""

    @property
    def changes(self) -> Sequence[Change]:
        """What was set."""


def now_utc() -> str:
    """The present time, to the second."""
    return datetime.now(UTC).isoformat(timespec="seconds")


class PartStore:
    """The parts of one data folder.

    Parameters
    ----------
    may_keep : asked before a change is final, of every rig it reaches
    new_mark : gives the mark of a new part
    """

    def __init__(
        self,
        engine: Engine,
        may_keep: Callable[[Kept], None],
        new_mark: rack.NewMark = rack.random_mark,
    ) -> None:
        self.engine = engine
        self.may_keep = may_keep
        self.new_mark = new_mark

    def get(self, mark: str) -> KeptPart:
        """One part; raises MissingError."""
        with self.engine.connect() as connection:
            found = rack.parts(connection, (mark,))
        if mark not in found:
            raise MissingError("There is no such part.")
        return found[mark]

    def all(self) -> list[KeptPart]:
        """Every part, the oldest first."""
        with self.engine.connect() as connection:
            return list(rack.parts(connection).values())

    def story(self, mark: str) -> list[PartEntry]:
        """A part's story, in order."""
        with self.engine.connect() as connection:
            return rack.story(connection, mark)

    def digests(self) -> dict[str, str]:
        """By its mark, the digest of the latest line of each part's story."""
        with self.engine.connect() as connection:
            return latest_of_parts(connection)

    def uses(self, mark: str | None = None) -> list[Use]:
        """On which rigs a part (or each) is or was."""
        with self.engine.connect() as connection:
            return rack.uses(connection, mark)

    def looks(self) -> list[KeptTrial]:
        """Every look-over and release of every rig, each with its rig."""
        with self.engine.connect() as connection:
            return all_looks(connection)

    def trials_of_parts(self) -> list[KeptTrial]:
        """Trials of every rig that tell of a part on whatever rig it is."""
        with self.engine.connect() as connection:
            return trials_of_parts(connection)

    def put_ons(self, mark: str) -> list[tuple[str, int]]:
        """When a part was put on which rig, in order."""
        with self.engine.connect() as connection:
            return rack.put_ons(connection, mark)

    def whole(self, mark: str) -> tuple[KeptPart, Part, list[PartEntry]]:
        """A part with what it began as and its story."""
        kept = self.get(mark)
        with self.engine.connect() as connection:
            return kept, rack.base_of(connection, mark), rack.story(connection, mark)

    def take_in(self, mark: str, created_at: str, base: Part, story: Sequence[Told]) -> None:
        """Keep a part that came with its story; one that is here already is left as it is."""
        with writing(self.engine) as connection:
            if rack.parts(connection, (mark,)):
                return
            rack.make(connection, mark, base, created_at)
            for entry in story:
                wanted = {c.path: c.after for c in entry.changes}
                rack.write(connection, mark, wanted, entry.at, entry.why, None, entry.kind)

    def make(self, part: Part, at: str | None = None, mark: str | None = None) -> KeptPart:
        """Keep a new part."""
        mark = mark or self.new_mark()
        with writing(self.engine) as connection:
            rack.make(connection, mark, part, at or now_utc())
        return self.get(mark)

    def change(
        self,
        mark: str,
        seq: int,
        wanted: Mapping[str, Any],
        why: str = "",
        at: str | None = None,
        digest: str | None = None,
    ) -> KeptPart:
        """Change a part, and every rig it is on, as one act.

        Parameters
        ----------
        seq, digest : the latest line of its story that the caller has seen; see store.digests

        Raises
        ------
        MissingError, ConflictError, OtherDataError, RefusedError
        """
        return self._change(mark, seq, lambda _: wanted, why, at, "adjust", digest)

    def keep_all(self, seqs: Mapping[str, int], keeping: Keeping | None) -> None:
        """Lend several parts, or take them back, as one act; raises as `change` does."""
        with writing(self.engine) as connection:
            self.keeping(seqs, keeping)(connection)

    def keeping(
        self, seqs: Mapping[str, int], keeping: Keeping | None
    ) -> Callable[[Connection], None]:
        """The same, to be done along with something else.

        Parameters
        ----------
        seqs : by mark the latest line of a part's story that the caller has seen
        keeping : where the parts are from now on; None: where they were
        """

        def along(connection: Connection) -> None:
            for mark, seq in seqs.items():
                kept = _seen(connection, mark, seq)
                wanted = {} if keeping is None else _keeping_changes(keeping)
                after, _ = rack.write(connection, mark, wanted, now_utc())
                together.refuse_second_life(kept.part, after.part)

        return along

    def undo(self, mark: str, seq: int, digest: str | None = None) -> KeptPart:
        """Take back the latest change of a part, on every rig it is on; raises NothingError."""
        return self._change(mark, seq, lambda c: _step(c, mark, "stands"), "", None, "undo", digest)

    def redo(self, mark: str, seq: int, digest: str | None = None) -> KeptPart:
        """Do again what was taken back of a part last; raises NothingError."""
        return self._change(
            mark, seq, lambda c: _step(c, mark, "taken_back"), "", None, "redo", digest
        )

    def _change(
        self,
        mark: str,
        seq: int,
        wanted: Wanted,
        why: str,
        at: str | None,
        kind: str,
        digest: str | None,
    ) -> KeptPart:
        made_at = at or now_utc()
        with writing(self.engine) as connection:
            named_line(mark, seq, digest)(connection)
            kept = _seen(connection, mark, seq)
            after, changes = rack.write(
                connection, mark, wanted(connection), made_at, why, None, kind
            )
            together.refuse_second_life(kept.part, after.part)
            for other in together.spread(connection, after, changes, made_at, why, None):
                self.may_keep(other)
        return after


def _seen(connection: Connection, mark: str, seq: int) -> KeptPart:
    """A part as the caller has seen it; raises MissingError, ConflictError."""
    kept = rack.parts(connection, (mark,)).get(mark)
    if kept is None:
        raise MissingError("There is no such part.")
    if kept.seq != seq:
        raise ConflictError(
            f"Someone changed {kept.part.name} meanwhile. Nothing was overwritten: look at it "
            "again."
        )
    return kept


def _keeping_changes(keeping: Keeping) -> dict[str, Any]:
    return {f"keeping.{name}": value for name, value in keeping.model_dump().items()}


def _step(connection: Connection, mark: str, fate: Fate) -> dict[str, Any]:
    """The changes of the next step back (`stands`) or forward (`taken_back`)."""
    entries = rack.story(connection, mark)
    places = rack.story_fates(entries).places(fate)
    if not places:
        raise NothingError("There is nothing to take back or to do again.")
    if fate == "stands":
        return {c.path: c.before for c in entries[places[-1]].changes}
    return {c.path: c.after for c in entries[places[0]].changes}
