"""The bow's length against the draw: the schools, other bows that could be had, an inch more."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.arrow.build import build
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.bow_length import School, angle_limit_deg, reserve_wanted_in, schools
from lyrandis.core.fit.candidates import Candidate, Equal, candidates
from lyrandis.core.fit.length_map import LengthMap, length_map
from lyrandis.core.fit.reach import Reach, reach
from lyrandis.core.rig import Rig


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
    def reserve_wanted_in(self) -> float:
        """Inches wanted between the draw and the onset of stack."""
        return reserve_wanted_in(self.rig.use, self.rig.schools)

    @cached_property
    def schools(self) -> tuple[School, ...]:
        """The five schools on this bow."""
        r = self.rig
        return schools(r.archer, r.bow, self.bow.draw_in, r.use, r.schools)

    @cached_property
    def candidates(self) -> tuple[Candidate, ...]:
        """Bows that could be had, best first."""
        r = self.rig
        return candidates(r.archer, r.bow, self.bow.draw_in, r.use, r.taste, r.schools, self.equal)

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
        return length_map(self.rig.bow, self.reserve_wanted_in)

    @cached_property
    def reach(self) -> tuple[Reach, ...]:
        """This bow an inch under, at, and over the archer's draw."""
        b = self.bow
        return reach(self.rig.bow, b.curve, b.onset_in, self.reserve_wanted_in, b.draw_in)
