"""What the flight reads of this rig come to: the belief, read by read and change by change.

    reads of one state  →  belief  →  a change: moved by what is predicted of it  →  further reads

With the rig as a preview would make it the last step is what the next read should show.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bench.clip import ClipBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.dates import instant
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.flight.belief import MOVED_SD, Change, moved
from lyrandis.core.flight.gain import Gain, taught, untaught
from lyrandis.core.flight.held import NONE_TRIED, PREDICTED_SD, Held, off_by, predicted_sd
from lyrandis.core.flight.read_filter import (
    CLASSES,
    Reading,
    Verdict,
    believed,
    found,
    prior,
    shares,
    verdict,
)
from lyrandis.core.flight.read_tests import GROUPS, TESTS, tables, truths
from lyrandis.core.parts import Rig, TestId
from lyrandis.core.route import READS, moved_since
from lyrandis.core.trials import KeptTrial

FARTHEST = 4.0  # groups; farther off the word is only "far"
BRACE_DOUBT = 0.5  # groups for each BRACE_PER_IN of brace: reports differ on its way
BRACE_PER_IN = 0.5
READ_BY = ("flight_read", "group", "clip")  # kinds of trial that tell how the shaft flew
_AGAINST = 0.8  # of the chance before: a read that leaves less spoke against it
_HARDLY = 0.1  # groups: what moves the nock point alone does to the spine
_NOCK, _SPINE = (READS[name].short for name in ("nock", "spine"))
# What makes another shaft: a clip tells of one and the same.
_SHAFT: dict[str, float] = {
    "set": 0, "spine": 5, "shaft": 0.06, "point": 2, "insert": 2, "gpi": 0.05, "arrow_nock": 2,
}  # fmt: skip
# What makes another state of the same bow: the reads before it are carried over by a prediction.
STATE: dict[str, float] = {
    "spine": 5, "shaft": 0.06, "point": 2, "insert": 2, "gpi": 0.05, "diameter": 0.1,
    "arrow_nock": 2, "rear_taper": 0.1, "front_taper": 0.1, "rear_end": 0.1, "front_end": 0.1,
    "cut": 0.1, "spring": 0, "silencers": 5, "silencer_place": 0.1, "string_mass": 5, "brace": 0.06,
    "nock": 0.4, "draw": 0.12, "weight": 0.5, "string": 0, "set": 0,
}  # fmt: skip


def _alone(before: Rig, now: Rig) -> str:
    """The name of what alone was changed, but for the nock point; empty where it was not one."""
    what = set(moved_since(STATE, before, now)) - {_NOCK}
    return what.pop() if len(what) == 1 else ""


def _taught_change(change: Change | None, gain: Gain) -> Change | None:
    """What a change is predicted to do once such changes were read."""
    if change is None or not gain.changes:
        return change
    return replace(change, groups=gain.mean * change.groups)


@dataclass(frozen=True)
class Expected:
    """What the next read should show: the test, its likeliest outcome, the outcome's chance."""

    test: TestId
    outcome: str
    chance: float


@dataclass(frozen=True)
class State:
    """The rig as it was for some reads, and these."""

    rig: Rig
    kept: list[KeptTrial]


@dataclass(frozen=True)
class Walked:
    """The reads gone through: the belief before those of the rig as it stands, and after them.

    against : whether the latest read spoke against the likeliest class before it
    gains : by the name of what was changed alone, what such a change does here
    """

    start: Array
    belief: Array
    readings: list[Reading]
    against: bool
    held: Held
    gains: Mapping[str, Gain]


@dataclass(frozen=True)
class ReadingBench:
    """The flight reads of this rig.

    error_of : by how many groups the shaft of a rig is predicted too stiff; None outside the fit
    elsewhere : how verdicts on this archer's other rigs did
    longer_draw_ok : whether an inch more draw is safe with this bow and arrow
    clip_of : a clip beside the model of the rig it was filmed with
    """

    rig: Rig
    trials: tuple[KeptTrial, ...]
    error_of: Callable[[Rig], float | None]
    elsewhere: Held = NONE_TRIED
    clip_of: Callable[[KeptTrial], ClipBench | None] = lambda _: None
    longer_draw_ok: Callable[[], bool] = lambda: False

    @cached_property
    def kept(self) -> list[KeptTrial]:
        """Reads with this bow and archer, in order."""
        told = [k for kind in READ_BY for k in still_true(self.trials, kind, self.rig)]
        told = [k for k in told if k.trial.readings(k.rig.arrow_left) or self._filmed(k)]
        return sorted(told, key=lambda k: (k.day, instant(k.at), k.seq))

    @cached_property
    def predicted(self) -> tuple[float, float] | None:
        """What the model says of the shaft as it was first read, mean and sd in groups."""
        return self._predicted_of(self._first, self.predicted_sd)

    def _filmed(self, kept: KeptTrial) -> bool:
        """Whether a trial is a true clip whose marks say something."""
        t = kept.trial
        return t.kind == "clip" and t.by != "simulated" and t.let_go is not None

    @cached_property
    def clips(self) -> dict[int, ClipBench]:
        """The clips among the reads, by the number of their trial."""
        made = {k.seq: self.clip_of(k) for k in self.kept if self._filmed(k)}
        return {seq: clip for seq, clip in made.items() if clip is not None}

    def _stiffer(self, rig: Rig) -> float:
        """By how many groups a rig's shaft bends as a stiffer one, by the latest clip of it."""
        told = [self.clips[k.seq] for k in self.kept
                if k.seq in self.clips and not moved_since(_SHAFT, k.rig, rig)]  # fmt: skip
        told = [clip for clip in told if clip.frequency is not None]
        return told[-1].stiffer_groups if told else 0.0

    @property
    def _first(self) -> Rig:
        """The rig as it was first read."""
        return self.states[0].rig if self.states else self.rig

    def _predicted_of(self, rig: Rig, sd: float) -> tuple[float, float] | None:
        error = self.error_of(rig)
        if error is None:
            return None
        return float(np.clip(error + self._stiffer(rig), -FARTHEST, FARTHEST)), sd

    @cached_property
    def states(self) -> list[State]:
        """The reads, those of one state of the rig together."""
        told: list[State] = []
        for kept in self.kept:
            if told and not moved_since(STATE, told[-1].rig, kept.rig):
                told[-1].kept.append(kept)
            else:
                told.append(State(kept.rig, [kept]))
        return told

    def gain_of(self, name: str) -> Gain:
        """What changes of a setting, by its key in READS, were found to do here."""
        return self._walked.gains.get(READS[name].short, untaught())

    def change(self, before: Rig, now: Rig) -> Change | None:
        """What a change of the rig is predicted to do, by the model and by what changes of its kind
        did here; None where nothing can be said of it."""
        gain = self._walked.gains.get(_alone(before, now), untaught())
        return _taught_change(self._by_model(before, now), gain)

    def _by_model(self, before: Rig, now: Rig) -> Change | None:
        what = set(moved_since(STATE, before, now))
        nock = (now.nock_height_mm or 0.0) - (before.nock_height_mm or 0.0)
        if before.nock_height_mm is None or now.nock_height_mm is None:
            nock = 0.0
        braces = brace_to_pivot_in(before.bow), brace_to_pivot_in(now.bow)
        doubt = BRACE_DOUBT * abs(braces[1] - braces[0]) / BRACE_PER_IN
        sd = math.hypot(MOVED_SD, doubt)
        if what <= {_NOCK}:
            return Change(0.0, _HARDLY, nock)
        was, then = self.error_of(before), self.error_of(now)
        if was is not None and then is not None:
            return Change(then - was, sd, nock)
        if what <= {_SPINE, _NOCK}:
            share = before.arrow.static_spine / now.arrow.static_spine
            return Change(math.log(share) / GROUP_LN, sd, nock)
        return None

    @cached_property
    def own_held(self) -> Held:
        """How verdicts on this rig alone did, a prediction counting as it does before any."""
        own, error = self._walk(PREDICTED_SD).held, self._predicted_of(self._first, PREDICTED_SD)
        if error is None or not self.states:
            return own
        first = [r for k in self.states[0].kept for r in k.trial.readings(k.rig.arrow_left)]
        return replace(own, off=off_by(error[0], first))

    @cached_property
    def held(self) -> Held:
        """How verdicts on all of this archer's rigs did."""
        return self.own_held + self.elsewhere

    @cached_property
    def predicted_sd(self) -> float:
        """What a prediction is off by on this archer's rigs [groups]."""
        return predicted_sd(self.held)

    @cached_property
    def _walked(self) -> Walked:
        return self._walk(self.predicted_sd)

    def _walk(self, sd: float) -> Walked:
        """The reads gone through in order, state by state; a prediction is off by sd [groups]."""
        start = self._predicted_of(self._first, sd)
        belief, against, tried = prior(start), False, list[bool]()
        begun, readings, before = belief, list[Reading](), self.rig
        gains: dict[str, Gain] = {}
        for i, state in enumerate(self.states):
            carried, left = belief, before
            begun = belief = self._carried(belief, before, state.rig, sd, gains) if i else belief
            readings, before, stated, stands = [], state.rig, None, False
            for kept in state.kept:
                was = shares(belief)
                if stated is None:
                    stated = found(readings, belief)
                readings = readings + kept.trial.readings(kept.rig.arrow_left)
                begun = self._weighed(begun, kept)
                belief = believed(readings, begun)
                now, best = shares(belief), int(was.argmax())
                against = kept is not self.kept[0] and bool(now[best] < _AGAINST * was[best])
                stands = CLASSES[int(now.argmax())] == stated
            if stated is not None:
                tried.append(stands)
            name, by_model = _alone(left, state.rig), self._by_model(left, state.rig) if i else None
            if name and by_model is not None:
                gains[name] = taught(gains.get(name, untaught()), carried, by_model, readings)
        if self.states and not self.read_here:
            begun = belief = self._carried(belief, before, self.rig, sd, gains)
            readings = []
        return Walked(begun, belief, readings, against, Held(len(tried), sum(tried)), gains)

    def _weighed(self, belief: Array, kept: KeptTrial) -> Array:
        """The belief after the nock's way on a clip."""
        clip = self.clips.get(kept.seq)
        if clip is None or clip.weights is None:
            return belief
        after = belief * clip.weights[np.searchsorted(GROUPS, truths().s)]
        return np.asarray(after / after.sum())

    def _carried(
        self, belief: Array, before: Rig, now: Rig, sd: float, gains: Mapping[str, Gain]
    ) -> Array:
        """The belief after a change; begun anew where nothing can be said of it."""
        gain = gains.get(_alone(before, now), untaught())
        change = _taught_change(self._by_model(before, now), gain)
        return prior(self._predicted_of(now, sd)) if change is None else moved(belief, change)

    @property
    def against(self) -> bool:
        """Whether the latest read spoke against what was likeliest before it."""
        return self._walked.against

    @property
    def belief(self) -> Array:
        """The belief over truths as it stands, shape (2916,)."""
        return self._walked.belief

    @property
    def error_groups(self) -> tuple[float, float]:
        """Mean and sd of the spine error as it is believed [groups, + stiff]."""
        s = truths().s
        mean = float(self.belief @ s)
        return mean, math.sqrt(max(float(self.belief @ s**2) - mean**2, 0.0))

    @property
    def read_here(self) -> bool:
        """Whether the rig was read as it stands, or filmed."""
        return bool(self.states) and not moved_since(STATE, self.states[-1].rig, self.rig)

    @property
    def after_change(self) -> bool:
        """Whether the rig was changed since its last read."""
        return bool(self.kept) and not self.read_here

    @cached_property
    def verdict(self) -> Verdict:
        """What the reads come to, why, and what next."""
        left_out: set[TestId] = set(self.rig.reading.left_out)
        if not self.longer_draw_ok():
            left_out.add("long_draw")
        return verdict(self._walked.readings, start=self._walked.start, without=left_out)

    @cached_property
    def foretold(self) -> tuple[Expected, Reading, float] | None:
        """What the first read after the latest change should have shown, what it showed, and how
        likely that was; None before a change, and of a test that foretells nothing."""
        if len(self.states) < 2 or not self.read_here or not self._walked.readings:
            return None
        first = self._walked.readings[0]
        chances = self._walked.start @ tables()[first.test]
        outcomes = TESTS[first.test].outcomes
        best = int(np.argmax(chances))
        expected = Expected(first.test, outcomes[best], float(chances[best]))
        return expected, first, float(chances[outcomes.index(first.outcome)])

    @cached_property
    def expected(self) -> Expected | None:
        """What the first nocks should show as the rig stands; None where it was read so."""
        if self.read_here:
            return None
        test: TestId = "kick_7_paces"
        chances = self.belief @ tables()[test]
        best = int(np.argmax(chances))
        return Expected(test, TESTS[test].outcomes[best], float(chances[best]))
