"""The string that is on: what the bow asks of it, how it settles, what its turns did."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bow.form import brace_to_pivot_in, own_brace_in
from lyrandis.core.dates import instant
from lyrandis.core.parts import Rig
from lyrandis.core.string.measures import StringFit, string_fit
from lyrandis.core.string.settling import Settling, settle
from lyrandis.core.string.twists import (
    brace_at_turns_in,
    brace_per_string_slack,
    same_string,
)
from lyrandis.core.trials import KeptTrial, standing

MEASURED_SD_IN = 1 / 16  # a brace read, and the turns counted since
LENGTH_SD_IN = 0.5  # lengths are told differently by every maker


def _order(kept: KeptTrial) -> tuple[float, int]:
    """The order in which trials were logged, of several rigs too."""
    return instant(kept.at), kept.seq


@dataclass(frozen=True)
class NewBrace:
    """The brace [in, own reference] a string should give, its ±, and what it was learnt from."""

    brace_in: float
    sd_in: float
    learnt: KeptTrial | None


@dataclass(frozen=True)
class StringBench:
    """The string on this bow."""

    rig: Rig
    trials: tuple[KeptTrial, ...]
    bow: BowBench

    @cached_property
    def fit(self) -> StringFit:
        """What the bow asks of its string."""
        b = self.bow
        return string_fit(self.rig.bow, self.rig.string, b.curve.statics, b.weight)

    @cached_property
    def settling_run(self) -> list[KeptTrial]:
        """The readings of the latest new string, from the one when it was put on."""
        run: list[KeptTrial] = []
        for trial in self._of_this("settling"):
            run = [trial] if trial.trial.hours == 0 else [*run, trial]
        return run

    @cached_property
    def settling(self) -> Settling | None:
        """How the latest new string settles; None without one."""
        if not self.settling_run:
            return None
        return settle(self.rig.string.material, self.settling_readings)

    @property
    def settling_readings(self) -> list[tuple[float, float]]:
        """Hours braced and brace height [in, to the bow's own reference] of the new string."""
        return [(k.trial.hours, self._own(k)) for k in self.settling_run]

    @cached_property
    def twists_seen(self) -> list[tuple[float, float]]:
        """Turns and brace height [in, own reference] measured with the string that is on now.

        Trials with another string, or before a new one was put on, say nothing of this one.
        """
        began = _order(self.settling_run[0]) if self.settling_run else None
        return [
            (k.trial.twists, self._own(k))
            for k in self._of_this("brace")
            if k.trial.twists is not None and (began is None or _order(k) > began)
        ]

    def _of_this(self, kind: str) -> list[KeptTrial]:
        """Trials of a kind made with this string on this bow, on whatever rig."""
        return [k for k in standing(self.trials, kind) if self._same(k.rig)]

    def _same(self, other: Rig) -> bool:
        here, there = self.rig.on, other.on
        if not here.string or not there.string:
            return same_string(other.string, self.rig.string)
        bow = ("bow", "riser", "upper_limb", "lower_limb")
        return here.string == there.string and all(
            getattr(here, slot) == getattr(there, slot) for slot in bow
        )

    @cached_property
    def another(self) -> NewBrace | None:
        """The brace a string that was put on in another's place should give; None once measured.

        What it gave before on this bow, at its turns now; else by its length.
        """
        if len(self.rig.on.strings) < 2:
            return None
        every = standing(self.trials, "settling") + standing(self.trials, "brace")
        latest = max((k for k in every if k.rig_id is None), key=_order, default=None)
        if latest is not None and self._braced and latest is self._braced[-1]:
            return None
        return self.expected

    @cached_property
    def _braced(self) -> list[KeptTrial]:
        """The times this string was measured on this bow, in order."""
        return sorted([*self._of_this("settling"), *self._of_this("brace")], key=_order)

    @property
    def expected(self) -> NewBrace | None:
        """The brace this string should give: by what it gave on this bow before, else its length.

        None where neither is known.
        """
        r, mine, length = self.rig, self._braced, self.rig.string.length_in
        if mine:
            last = mine[-1]
            turns, now = last.rig.string.twists, r.string.twists
            brace = self._own(last)
            if turns is not None and now is not None:
                long = length or self.fit.needed_length_in
                brace = brace_at_turns_in(
                    self.bow.curve.statics, r.string, long, (turns, brace), now
                )
            return NewBrace(brace, MEASURED_SD_IN, last)
        if length is None:
            return None
        off = length - self.fit.needed_length_in
        here = own_brace_in(r.bow, brace_to_pivot_in(r.bow), "grip")
        brace = here - brace_per_string_slack(self.bow.curve.statics) * off
        return NewBrace(brace, LENGTH_SD_IN, None)

    def _own(self, kept: KeptTrial) -> float:
        """A trial's brace height [in] to the bow's own reference."""
        return own_brace_in(self.rig.bow, kept.trial.brace_height_in, kept.trial.reference)
