"""What lies on the rack as one archer sees it, and where each part is."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lyrandis.core.findings import Said, say
from lyrandis.core.part_story import kept_said
from lyrandis.core.parts import Part, PartKind


@dataclass(frozen=True)
class Lying:
    """A part and where it is.

    others : names of the rigs of other archers that it is on
    seq : number of the latest line of its story
    own : the names of the asking archer's rigs that it is on
    stopped : why it must not be shot
    long_in : length [in] of a string that nobody measured, by the bow that it was last on
    """

    mark: str
    part: Part
    seq: int = 0
    others: tuple[str, ...] = ()
    own: tuple[str, ...] = ()
    stopped: Said | None = None
    long_in: float | None = None

    @property
    def free(self) -> bool:
        """Whether it can be taken without taking it from anybody."""
        return self.part.keeping.state == "in_use" and not self.others

    @property
    def where(self) -> Said | None:
        """Where it is, unless it lies there free."""
        kept = kept_said(self.part.keeping)
        if kept is not None:
            return kept
        if self.others:
            return say("on {rigs}", rigs=", ".join(self.others))
        return say("on {rigs} already", rigs=", ".join(self.own)) if self.own else None


def usable(lying: Iterable[Lying], kind: PartKind) -> list[Lying]:
    """The parts of a kind that may be shot."""
    return [
        one
        for one in lying
        if one.part.kind == kind and one.stopped is None and one.part.keeping.state != "condemned"
    ]
