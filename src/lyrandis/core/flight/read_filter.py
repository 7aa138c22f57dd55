"""What a series of reads says of a shaft, and which test would tell most (docs/mechanics D).

A Bayesian filter over 2,916 truths. Every read multiplies the belief by how likely it was under
each truth; a test's second reading counts less, for it shares its bias with the first, and its
fourth nothing. Nothing is found from one test; a false weak only once something looked weak and a
push (brace, silencers, felt, a short or a long draw) moved the read as a bounce would.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.flight.read_tests import (
    STIFF_FROM,
    TESTS,
    bounce_chance,
    log_two,
    tables,
    touch_chance,
    truths,
)
from lyrandis.core.parts import TestId

PRIOR_GROUPS = (0.4, 1.5)  # mean and sd: people err stiff
NOCK_SD_MM = 1.8
RELEASE_WEIGHTS, TORQUE_WEIGHTS = (0.5, 0.35, 0.15), (0.2, 0.6, 0.2)
REPEATS = (1.0, 0.6, 0.4)  # powers of a test's first three readings; then nothing
STOP_AT = 0.9
LEAST_BITS, LEAST_BITS_WITH_PRIOR = 0.0135, 0.010  # per unit of cost
NOCK_OK_MM = 1.2
WITHIN_GROUPS, WITHIN_AT = 1.25, 0.93  # right within a group: no farther off, and no bounce
_LEAST_TESTS = 2  # of any kind, before a verdict is found
# Pushes, and what each shows where the shaft bounces.
PUSHES: dict[TestId, str] = {
    "brace_reread": "swings", "felt_plate": "swings", "silencers": "weaker", "short_draw": "weaker",
    "long_draw": "stiffer",
}  # fmt: skip

ClassId = Literal["false_weak", "stiff", "right", "weak"]
CLASSES: tuple[ClassId, ...] = ("false_weak", "stiff", "right", "weak")
Stop = Literal["found", "within_a_group", "borderline"]
Lacks = Literal["look", "push"]
NockClass = Literal["low", "ok", "high"]
NOCKS: tuple[NockClass, ...] = ("low", "ok", "high")


@dataclass(frozen=True)
class Reading:
    """A test's outcome; a bare shaft's as side and height with a slash between.

    counts : how much of it counts: of fewer arrows than the test asks for, less
    """

    test: TestId
    outcome: str
    counts: float = 1.0


@dataclass(frozen=True)
class Reason:
    """A read for or against the verdict: how many times likelier than under its rival.

    rival : the class that it is compared with
    times : above 1 speaks for the verdict
    """

    reading: Reading
    rival: ClassId
    times: float


@dataclass(frozen=True)
class NextTest:
    """A test that could be made: bits it would give, what it costs, what each outcome would mean.

    outcomes : outcome to its chance and what the classes would then be
    """

    test: TestId
    bits: float
    arrows: int
    minutes: float
    outcomes: Mapping[str, tuple[float, Mapping[ClassId, float]]]

    @property
    def worth(self) -> float:
        """Bits a unit of cost."""
        return self.bits / TESTS[self.test].cost


@dataclass(frozen=True)
class Verdict:
    """What the reads come to.

    classes, nock : chances
    within : the chance that it is right within a group
    touches : the chance that something other than a bounce touches the bow
    stop : "found" at nine in ten; when no test is worth its arrows "within_a_group" where it is
        surely right within one, else "borderline"; None while reading
    lacks : what a likely false weak still lacks to be found: a look, or a push
    between : at a borderline the two likeliest classes
    """

    classes: Mapping[ClassId, float]
    nock: Mapping[NockClass, float]
    reasons: tuple[Reason, ...]
    next: tuple[NextTest, ...]
    stop: Stop | None
    between: tuple[ClassId, ClassId]
    within: float
    touches: float
    lacks: Lacks | None


@lru_cache(maxsize=1)
def class_of() -> Array:
    """Which class each truth is of, as an index of CLASSES."""
    w = truths()
    which = np.full(len(w.s), CLASSES.index("right"))
    which[w.s >= STIFF_FROM] = CLASSES.index("stiff")
    which[w.s <= -STIFF_FROM] = CLASSES.index("weak")
    which[w.bounces > 0] = CLASSES.index("false_weak")
    return which


@lru_cache(maxsize=1)
def _nock_of() -> Array:
    n = truths().n_mm
    return np.where(n < -NOCK_OK_MM, 0, np.where(n > NOCK_OK_MM, 2, 1))


def prior(spine: tuple[float, float] | None = None) -> Array:
    """The belief before any read, shape (2916,).

    Parameters
    ----------
    spine : what the prediction for this rig says, mean and sd in groups, multiplied onto the usual
    """
    w = truths()
    mean, sd = PRIOR_GROUPS
    log = -0.5 * ((w.s - mean) / sd) ** 2 - 0.5 * (w.n_mm / NOCK_SD_MM) ** 2
    if spine is not None:
        log = log - 0.5 * ((w.s - spine[0]) / spine[1]) ** 2
    chance = bounce_chance(w.s)
    bounce = np.where(w.bounces > 0, chance, np.where(w.s >= STIFF_FROM, 1 - chance, 1.0))
    release = np.array(RELEASE_WEIGHTS)[np.searchsorted((1.2, 1.7), w.r)]
    torque = np.array(TORQUE_WEIGHTS)[(w.t + 1).astype(int)]
    touch = np.where(w.touches > 0, touch_chance(w.n_mm), 1 - touch_chance(w.n_mm))
    p = np.exp(log - log.max()) * bounce * release * torque * touch
    return np.asarray(p / p.sum())


def power(before: int) -> float:
    """How much a reading of a test counts that was made so often before."""
    return REPEATS[before] if before < len(REPEATS) else 0.0


def _given(test: TestId, before: int) -> Array:
    """Likelihoods of a test that was read so often before, shape (2916, outcomes)."""
    p = tables()[test] ** power(before)
    return p / p.sum(axis=1, keepdims=True) if before else p


def checked(readings: Sequence[Reading]) -> None:
    """Refuse a test or an outcome that is none.

    Raises
    ------
    RefusedError : with the outcomes that there are.
    """
    for i, reading in enumerate(readings):
        known = TESTS[reading.test].outcomes
        if reading.outcome not in known:
            raise RefusedError(
                f"readings.{i}.outcome",
                say("“{it}” is no outcome of this test: {known}.", it=reading.outcome,
                    known=", ".join(known)),
            )  # fmt: skip


def _weighed(readings: Sequence[Reading], start: Array) -> Array:
    """The start times how likely every read is, not brought to one; shape (2916,)."""
    belief, seen = start.copy(), dict.fromkeys(TESTS, 0)
    for reading in readings:
        before, test = seen[reading.test], TESTS[reading.test]
        seen[reading.test] += 1
        if test.once and before:
            continue
        column = test.outcomes.index(reading.outcome)
        belief = belief * tables()[reading.test][:, column] ** (power(before) * reading.counts)
    return belief


def believed(readings: Sequence[Reading], start: Array) -> Array:
    """The belief after reads, shape (2916,)."""
    belief = _weighed(readings, start)
    return np.asarray(belief / belief.sum())


def evidence(readings: Sequence[Reading], start: Array) -> float:
    """How likely reads were by the belief before them."""
    return float(_weighed(readings, start).sum())


def shares(belief: Array) -> Array:
    """The chance of each class."""
    return np.bincount(class_of(), belief, len(CLASSES)).astype(np.float64)


def _entropy(p: Array) -> Array:
    return np.asarray(-log_two(p).sum(axis=-1))


def worth_of(
    belief: Array, test: TestId, before: int, want_nock: bool
) -> tuple[float, Array, Array]:
    """What a test would tell.

    Returns
    -------
    bits about the class (and the nock), the chance of each outcome, the classes after each
    """
    joint = belief[:, None] * _given(test, before)
    chance = joint.sum(axis=0)
    classes = np.stack([np.bincount(class_of(), col, len(CLASSES)) for col in joint.T])
    after = classes / np.maximum(chance, 1e-300)[:, None]
    bits = float(_entropy(shares(belief)) - (chance * _entropy(after)).sum())
    if want_nock:
        nocks = np.stack([np.bincount(_nock_of(), col, len(NOCKS)) for col in joint.T])
        own = np.bincount(_nock_of(), belief, len(NOCKS)).astype(np.float64)
        bits += float(
            _entropy(own) - (chance * _entropy(nocks / np.maximum(chance, 1e-300)[:, None])).sum()
        )
    return max(bits, 0.0), chance, after


def verdict(
    readings: Sequence[Reading],
    spine: tuple[float, float] | None = None,
    want_nock: bool = False,
    without: Collection[TestId] = (),
    start: Array | None = None,
) -> Verdict:
    """What reads say of a shaft, why, and which test would tell most.

    Parameters
    ----------
    readings : in the order they were made, since the last change
    spine : the prediction for this rig in groups of spine, + stiff: mean and sd; None without one
    want_nock : whether the nock point's height is asked for too
    without : tests that the archer does not make
    start : the belief before these reads, in the place of the usual one and the prediction

    Raises
    ------
    RefusedError : an outcome that is none.

    Source: docs/mechanics D.
    """
    checked(readings)
    belief = believed(readings, prior(spine) if start is None else start)
    told = shares(belief)
    order = np.argsort(-told)
    best, second = CLASSES[int(order[0])], CLASSES[int(order[1])]
    counts = {id: sum(r.test == id for r in readings) for id in TESTS}
    offered = []
    for id, test in TESTS.items():
        if id in without or not power(counts[id]) or (test.once and counts[id]):
            continue
        bits, chance, after = worth_of(belief, id, counts[id], want_nock)
        outcomes = {
            outcome: (float(c), dict(zip(CLASSES, map(float, row), strict=True)))
            for outcome, c, row in zip(test.outcomes, chance, after, strict=True)
        }
        offered.append(NextTest(id, bits, test.arrows, test.minutes, outcomes))
    offered.sort(key=lambda t: -t.worth)
    least = LEAST_BITS if spine is None and start is None else LEAST_BITS_WITH_PRIOR
    lacks: Lacks | None = None
    if told[order[0]] > STOP_AT and best == "false_weak" and not proven(readings):
        lacks = "push" if _looked_weak(readings) else "look"
    within = float(belief[_within()].sum())
    stop: Stop | None = None
    if found(readings, belief):
        stop = "found"
    elif not offered or (offered[0].worth < least and not lacks):
        stop = "within_a_group" if within > WITHIN_AT else "borderline"
    if lacks:
        offered.sort(key=lambda t: (not _proves(t.test, lacks), -t.worth))
    nock = np.bincount(_nock_of(), belief, len(NOCKS))
    return Verdict(
        dict(zip(CLASSES, map(float, told), strict=True)),
        dict(zip(NOCKS, map(float, nock), strict=True)),
        _reasons(readings, belief, best, second),
        tuple(offered),
        stop,
        (best, second),
        within,
        float(belief @ truths().touches),
        lacks,
    )


@lru_cache(maxsize=1)
def _within() -> NDArray[np.bool_]:
    w = truths()
    return np.asarray((np.abs(w.s) < WITHIN_GROUPS) & (w.bounces == 0))


def _looked_weak(readings: Sequence[Reading]) -> bool:
    return any(r.outcome.startswith("weak") for r in readings if r.test not in PUSHES)


def proven(readings: Sequence[Reading]) -> bool:
    """Whether something looked weak, and a push moved the read as a bounce would.

    Contact alone proves nothing: a vane, a low nock and a sleeve leave scuffs and clatter too.
    """
    pushed = any(PUSHES.get(r.test) == r.outcome for r in readings)
    return pushed and _looked_weak(readings)


def _proves(test: TestId, lacks: Lacks) -> bool:
    """Whether a test is of the kind that a false weak still lacks."""
    look = test not in PUSHES and TESTS[test].outcomes[0].startswith("weak")
    return test in PUSHES if lacks == "push" else look


def found(readings: Sequence[Reading], belief: Array) -> ClassId | None:
    """The class that reads and a belief come to at nine in ten; None while they do not, and as long
    as too few tests, or no push of a false weak, stand behind it."""
    told = shares(belief)
    best = CLASSES[int(told.argmax())]
    enough = len({r.test for r in readings}) >= _LEAST_TESTS
    if not enough or told.max() <= STOP_AT or (best == "false_weak" and not proven(readings)):
        return None
    return best


def _reasons(
    readings: Sequence[Reading], belief: Array, best: ClassId, second: ClassId
) -> tuple[Reason, ...]:
    """How many times likelier each read is under the verdict than under its strongest rival.

    Within a class by the belief as it stands, so that what else was seen counts.
    """
    which, seen, told = class_of(), dict.fromkeys(TESTS, 0), []
    for reading in readings:
        before, test = seen[reading.test], TESTS[reading.test]
        seen[reading.test] += 1
        if test.once and before:
            continue
        counts = power(before) * reading.counts
        given = tables()[reading.test][:, test.outcomes.index(reading.outcome)] ** counts
        own, rival = (
            float((belief * given * mine).sum() / max((belief * mine).sum(), 1e-12))
            for mine in (which == CLASSES.index(best), which == CLASSES.index(second))
        )
        told.append(Reason(reading, second, own / max(rival, 1e-12)))
    return tuple(told)
