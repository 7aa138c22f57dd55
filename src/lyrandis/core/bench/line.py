"""How the bow is set up about its middle: tiller, centre shot, nock point, by what was tried."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from lyrandis.core.bench.true import still_true
from lyrandis.core.parts import Rig
from lyrandis.core.route import moved_since
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.centre_shot import CentreShot, centre_shot, plate_by_looks_mm
from lyrandis.core.tune.nock_point import NockStart, nock_start
from lyrandis.core.tune.nock_reads import NockFound, NockRead, nock_found
from lyrandis.core.tune.tiller import Measured, Tiller, tiller

_HUNG = {"hung": 0.0}


@dataclass(frozen=True)
class TillerBench:
    """The tiller by every measurement with these parts; whether the last had the weights on."""

    rig: Rig
    trials: tuple[KeptTrial, ...]

    @property
    def _kept(self) -> list[KeptTrial]:
        return still_true(self.trials, "tiller", self.rig)

    @cached_property
    def told(self) -> Tiller | None:
        """What every measurement with these parts comes to."""
        limbs = self.rig.limbs
        looks = [  # what a limb's bolt stood at when both were measured
            Measured(
                k.trial.upper_mm, k.trial.lower_mm, k.rig.limbs.upper_turns, k.rig.limbs.lower_turns
            )
            for k in self._kept
        ]
        return tiller(self.rig.archer.release, limbs, looks)

    @cached_property
    def latest(self) -> KeptTrial | None:
        """The last of them."""
        return self._kept[-1] if self._kept else None

    @cached_property
    def with_weights(self) -> bool:
        """Whether the last was made with what hangs on the riser now."""
        return self.latest is not None and not moved_since(_HUNG, self.latest.rig, self.rig)

    @cached_property
    def turned(self) -> bool:
        """Whether a bolt was turned since the last."""
        if self.latest is None:
            return False
        was, now = self.latest.rig.limbs, self.rig.limbs
        return (was.upper_turns, was.lower_turns) != (now.upper_turns, now.lower_turns)


@dataclass(frozen=True)
class CentreShotBench:
    """The centre shot by the settings, and by looks at the point."""

    rig: Rig
    trials: tuple[KeptTrial, ...]

    @cached_property
    def at(self) -> CentreShot:
        """Where the point stands by the settings."""
        return centre_shot(self.rig)

    @cached_property
    def gaps_mm(self) -> list[float]:
        """What looks at the point, as the rig stands, showed."""
        return [k.trial.gap_mm for k in still_true(self.trials, "centre_shot", self.rig)]

    @cached_property
    def seen(self) -> tuple[float, float] | None:
        """Where the plate stands by these looks [mm outward], and its sd."""
        return plate_by_looks_mm(self.at, self.rig, self.gaps_mm) if self.gaps_mm else None


@dataclass(frozen=True)
class NockBench:
    """The nock point: its ordinary start, and what the reads come to."""

    rig: Rig
    trials: tuple[KeptTrial, ...]

    @cached_property
    def start(self) -> NockStart:
        """The ordinary start, and where it stands."""
        return nock_start(self.rig)

    @cached_property
    def reads(self) -> tuple[NockRead, ...]:
        """The reads made with the rig as it is, but for the height."""
        return tuple(
            NockRead(k.trial.height_mm, k.trial.tail, k.trial.arrows, k.trial.distance_m)
            for k in still_true(self.trials, "nock_read", self.rig)
        )

    @cached_property
    def found(self) -> NockFound | None:
        """What they come to; None before the first."""
        return nock_found(self.start.start_mm, self.reads)

    @cached_property
    def read_crawls_mm(self) -> list[float]:
        """The crawls with which these reads were made, of those that say it."""
        kept = still_true(self.trials, "nock_read", self.rig)
        return [k.trial.crawl_mm for k in kept if k.trial.crawl_mm is not None]
