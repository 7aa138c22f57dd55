"""The bow's length against the draw: the schools, other bows that could be had, an inch more."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.arrow.build import build
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bow.form import riser_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import (
    SchoolRange,
    angle_limit_deg,
    ends_at_makers_word,
    reserve_wanted_in,
    schools,
)
from lyrandis.core.fit.candidates import Candidate, Equal, candidates
from lyrandis.core.fit.length_map import LengthMap, length_map
from lyrandis.core.fit.reach import Reach, reach
from lyrandis.core.parts import Rig


@dataclass(frozen=True)
class FitBench:
    """How this bow's length fits, and what else would."""

    rig: Rig
    bow: BowBench

    @property
    def angle_limit_deg(self) -> float | None:
        """Least string angle [deg] for the release."""
        return angle_limit_deg(self.rig.archer.release, self.rig.schools)

    @property
    def by_maker(self) -> bool:
        """Whether the maker's word alone ends this bow, not its stack."""
        return ends_at_makers_word(self.rig.bow, self.rig.archer.release)

    @property
    def reserve_wanted_in(self) -> float:
        """Inches wanted between the draw and the onset of stack."""
        return reserve_wanted_in(self.rig.use, self.rig.schools)

    @cached_property
    def schools(self) -> tuple[SchoolRange, ...]:
        """The five schools on this bow."""
        r = self.rig
        return schools(r.archer, r.bow, self.bow.draw_in, r.use, r.schools, r.string.material)

    @cached_property
    def candidates(self) -> tuple[Candidate, ...]:
        """Bows that could be had, best first."""
        r = self.rig
        return candidates(
            r.archer,
            r.bow,
            self.bow.draw_in,
            r.use,
            r.taste,
            r.schools,
            self.equal,
            r.string.material,
        )

    @property
    def own(self) -> Candidate | None:
        """The bow at hand among those that could be had; None where it is not of their lengths."""
        mine = [c for c in self.candidates if c.length_in == self.rig.bow.length_in]
        riser = riser_in(self.rig.bow)
        return min(mine, key=lambda c: abs((c.riser_in or riser) - riser), default=None)

    @cached_property
    def equal(self) -> Equal:
        """What candidates are compared at: this rig's weight at the draw and its arrow."""
        try:
            weight = self.bow.force_lbf
        except RefusedError:  # the present bow cannot be drawn so far: compare at its marking
            weight = self.rig.bow.marked_weight_lbf
        return Equal(weight, build(self.rig.arrow).mass_gr)

    @cached_property
    def map(self) -> LengthMap:
        """Draw over bow length, in regions."""
        return length_map(
            self.rig.bow,
            None if self.by_maker else self.reserve_wanted_in,
            self.rig.string.material,
        )

    @cached_property
    def reach(self) -> tuple[Reach, ...]:
        """This bow an inch under, at, and over the archer's draw."""
        b = self.bow
        onset = None if self.by_maker else b.onset_in
        return reach(self.rig.bow, b.curve, onset, self.reserve_wanted_in, b.draw_in)
