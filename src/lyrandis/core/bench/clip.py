"""What a slow-motion clip says on its rig: the shaft's own bend, and how the nock went on the
string, each beside what the model computes for the same moments.

    bend frequency  →  the spine that the shaft truly has   ∝ 1/f²      →  moves the prediction
    nock's way      →  which spine error it goes like  →  weighs the belief, a little
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench.flex import FlexBench
from lyrandis.core.estimate import Estimate
from lyrandis.core.findings import Said
from lyrandis.core.flex.modes import modes
from lyrandis.core.flex.onward import at_moments
from lyrandis.core.flex.setting import DAMPING
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.flight.clip import Track, bend_frequency, track
from lyrandis.core.flight.read_tests import GROUPS
from lyrandis.core.trials.clip import ClipTrial

FRAMES = 240  # of the computed shot
TRACK_SD_MM = 3.0  # how far the model's nock goes beside a true one: own estimate, no better
FREQUENCY_SHARE = 0.02  # of the frequency, what the masses at the ends are off by
SHAKE_PX, SHAKE_MM = 2.0, 0.5  # how far beside a mark is set: own estimate
LEAST_ON_STRING = 3  # marked frames before the string lets go


@dataclass(frozen=True)
class NockWay:
    """The nock's way on the string [mm], away from the plate: seen, and computed, frame by frame.

    out_mm : the farthest that was seen
    groups : the spine error that goes most like it; None outside the model's range
    """

    time_ms: list[float]
    seen_mm: list[float]
    computed_mm: list[float]
    out_mm: Estimate
    groups: float | None


@dataclass(frozen=True)
class ClipBench:
    """A clip beside the model of the rig that it was filmed with.

    acts : the shaft's spine; match : what leaves clean by the model, None outside its range
    """

    trial: ClipTrial
    flex: FlexBench
    acts: float
    match: float | None

    @cached_property
    def track(self) -> Track | None:
        """The marked ends; None without a release or two frames."""
        t = self.trial
        if t.let_go is None or len(t.marks) < 2:
            return None
        return track(
            [m.marked for m in t.marks],
            t.frames_a_second,
            float(t.let_go),
            1000 * self.flex.layout.length_m,
            self.flex.rig.arrow_left,
        )

    @cached_property
    def _bent(self) -> tuple[Estimate | None, Said | None]:
        if self.track is None:
            return None, None
        height = modes(self.flex.layout).height
        told, why = bend_frequency(
            self.track, self.trial.frames_a_second, (height[0, 2], height[-1, 2])
        )
        return told, why

    @property
    def frequency(self) -> Estimate | None:
        """The first bending frequency as it was seen [Hz]."""
        return self._bent[0]

    @property
    def why(self) -> Said | None:
        """Where it comes from, or why there is none."""
        return self._bent[1]

    @property
    def computed_hz(self) -> float:
        """The same as the model has it."""
        unit = modes(self.flex.layout).unit_omega[2]
        return float(unit * np.sqrt(stiffness_n_m2(self.acts)) / (2 * np.pi))

    @property
    def spine(self) -> Estimate | None:
        """The spine [0.001 in] of a shaft that bends so fast."""
        told = self.frequency
        if told is None:
            return None
        value = self.acts * (self.computed_hz / told.value) ** 2
        share = 2 * float(np.hypot(told.plus_minus / told.value, FREQUENCY_SHARE))
        return Estimate(value=value, plus_minus=share * value, source="measured")

    @property
    def stiffer_groups(self) -> float:
        """By how many groups the shaft is stiffer than it is taken for; 0 where not seen."""
        told = self.spine
        return 0.0 if told is None else float(np.log(self.acts / told.value)) / GROUP_LN

    @cached_property
    def nock_way(self) -> NockWay | None:
        """The nock's way on the string; None of too few frames before it let go."""
        t = self.track
        if t is None or (t.time_s < 0).sum() < LEAST_ON_STRING:
            return None
        on = t.time_s <= 0
        time, seen = t.time_s[on], t.nock_mm[on]
        own = self._ends(np.array([self.acts]), time)[:, 0, 0]
        weight = self.weights
        groups = None if weight is None else float(GROUPS[int(np.argmax(weight))])
        return NockWay(
            (1000 * time).tolist(),
            seen.tolist(),
            own.tolist(),
            Estimate(
                value=float(seen.max()),
                plus_minus=SHAKE_PX * t.mm_per_px + SHAKE_MM,
                source="measured",
            ),
            groups,
        )

    @cached_property
    def weights(self) -> Array | None:
        """How well the nock's way goes with each spine error of GROUPS, greatest 1; None where
        nothing is to be said of it. All frames together count as one reading."""
        t = self.track
        if self.match is None or t is None or (t.time_s < 0).sum() < LEAST_ON_STRING:
            return None
        on = t.time_s <= 0
        spines = self.match * np.exp(-GROUPS * GROUP_LN)
        ways = self._ends(spines, t.time_s[on])[:, :, 0]
        sd = np.hypot(TRACK_SD_MM, SHAKE_PX * t.mm_per_px)
        off = ((ways - t.nock_mm[on][:, None]) ** 2).mean(axis=0) / sd**2
        return np.asarray(np.exp(-0.5 * (off - off.min())))

    def _ends(self, spines: Array, time_s: Array) -> Array:
        """Nock and point [mm] of shafts at moments from the string's letting go, (f, k, 2), from
        their own line at full draw."""
        shapes = 1000 * self._shapes(spines, time_s) @ modes(self.flex.layout).height[[0, -1]].T
        return np.asarray(shapes)

    def _shapes(self, spines: Array, time_s: Array) -> Array:
        told = self.flex.passed(spines, FRAMES)
        stiff = np.array([stiffness_n_m2(float(s)) for s in spines])
        q, _ = at_moments(
            told, self.flex.layout, stiff, DAMPING[self.flex.rig.arrow.material],
            np.maximum(time_s + told.exit_s, 0.0),
        )  # fmt: skip
        return q

    def laid_over(self) -> list[list[tuple[float, float]]]:
        """The computed shape on each marked frame, in the picture's pixels, nock first.

        Its ends lie on the marked ones; what bends between them is the model's.
        """
        t = self.track
        if t is None:
            return []
        place = modes(self.flex.layout)
        bent = 1000 * self._shapes(np.array([self.acts]), t.time_s)[:, 0] @ place.height.T
        share = place.at_m / place.at_m[-1]
        bent = bent - (bent[:, :1] * (1 - share) + bent[:, -1:] * share)
        side = 1.0 if self.flex.rig.arrow_left else -1.0
        drawn = []
        for mark, row in zip(self.trial.marks, bent, strict=True):
            nock, point = np.array(mark.nock_px), np.array(mark.point_px)
            axis = (point - nock) / np.hypot(*(point - nock))
            away = side * np.array([axis[1], -axis[0]]) / t.mm_per_px
            at = nock + share[:, None] * (point - nock) + row[:, None] * away
            drawn.append([(float(x), float(y)) for x, y in at])
        return drawn
