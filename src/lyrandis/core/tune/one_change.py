"""Learn from one change: offsets, screws that move them, and how far a turn goes on this bow.

Limbs in line and tiller are cured the same way. Offsets y [mm] are read, screws u [turns] are
turned, y is read again: y = y0 + G u, both unknown. What a turn does follows from geometry only to
some 40 %; each look teaches it.

first look      half of what the geometry says: its gain may be more than twice as large
an odd look     one that no likely gain explains waits: the next confirms it (what was before it is
                let go: a screw slipped) or refutes it (a misread); until then nothing is turned
later looks     the turns after which the sum of the squared offsets is expected to be least,
                s = −(Σ ĝ ĝᵀ + cov g)⁻¹ Σ ĝ ŷ over the offsets, to what a hand can turn

Source: docs/mechanics F1; one regression of all looks instead of change after change, so that a
reading shared by two changes counts once, and screws that also move their neighbour's offset.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

READING_SD_MM = 0.5
GAIN_SHARE = 0.4  # of the geometry's gain: its standard deviation
FINEST = 1 / 8  # of a turn, what a hand can turn
FIRST_SHARE = 0.5  # of the way
GOOD_MM = (1.0, 0.5)  # left alone: at the first look, and once a turn was learnt
SURPRISE_SD = 3.0
LIKELY_SHARE = 1.0  # of the geometry's gain: spread of gains that a look is not called odd for
_START_SD_MM = 100.0  # of an offset before anything was read
Array = NDArray[np.float64]


@dataclass(frozen=True)
class Look:
    """One look: how far each screw stands from where it began [turns], and each offset [mm]."""

    turns: tuple[float, ...]
    offsets_mm: tuple[float, ...]


@dataclass(frozen=True)
class Told:
    """One offset as the looks make it: where it stands, and what it should read after the step.

    per_turn_mm, per_turn_sd_mm : what a turn of each screw does to it
    surprise : the latest look is beyond three sd of what was expected
    odd : and no likely gain explains it, so that it waits for another
    """

    offset_mm: float
    offset_sd_mm: float
    expected_mm: float
    expected_sd_mm: float
    per_turn_mm: tuple[float, ...]
    per_turn_sd_mm: tuple[float, ...]
    surprise: bool
    odd: bool


@dataclass(frozen=True)
class Learnt:
    """What the looks come to, and the next turn of each screw; all 0 where none brings it nearer.

    good : every offset is so small that it is left alone
    """

    told: tuple[Told, ...]
    step_turns: tuple[float, ...]
    good: bool


@dataclass(frozen=True)
class _Line:
    """One offset's regression: mean (1 + k,) and covariance of its start and its gains."""

    mean: Array
    covariance: Array

    @property
    def gains(self) -> Array:
        return self.mean[1:]

    def at(self, turns: Array) -> tuple[float, float]:
        """The offset [mm] with the screws so, and its sd."""
        row = np.concatenate([[1.0], turns])
        return float(row @ self.mean), math.sqrt(float(row @ self.covariance @ row))


def _line(turns: Array, offsets: Array, gains: Array, share: float = GAIN_SHARE) -> _Line:
    """Regression of offsets (n,) on turns (n, k), gains (k,) expected by geometry to a share."""
    rows = np.concatenate([np.ones((len(turns), 1)), turns], axis=1)
    spread = np.maximum(share * np.abs(gains), 1e-6)
    prior = np.diag(np.concatenate([[_START_SD_MM**-2.0], spread**-2.0]))
    covariance = np.linalg.inv(prior + rows.T @ rows / READING_SD_MM**2)
    known = prior @ np.concatenate([[0.0], gains])
    return _Line(covariance @ (known + rows.T @ offsets / READING_SD_MM**2), covariance)


def _step(lines: Sequence[_Line], offsets: Array, expected: Array, learnt: bool) -> Array:
    """The next turn of each screw, not yet to what a hand can turn."""
    if not learnt:
        return np.asarray(FIRST_SHARE * np.linalg.lstsq(expected, -offsets, rcond=None)[0])
    k = expected.shape[1]
    square, pull = np.zeros((k, k)), np.zeros(k)
    for line, offset in zip(lines, offsets, strict=True):
        square += np.outer(line.gains, line.gains) + line.covariance[1:, 1:]
        pull += line.gains * offset
    return np.asarray(-np.linalg.solve(square, pull))


def _turned(step: Array, learnt: bool) -> Array:
    """A step to what a hand can turn; the first one is rather cut short than rounded up."""
    short = np.trunc(np.round(step / FINEST, 2)) * FINEST
    return short if not learnt and np.any(short) else np.round(step / FINEST) * FINEST


def learn(looks: Sequence[Look], gains_mm: Sequence[Sequence[float]]) -> Learnt | None:
    """What looks come to, and the next turns.

    Parameters
    ----------
    looks : in the order they were made
    gains_mm : by geometry, what a turn of each screw does to each offset [mm], shape (offsets,
        screws); one that a screw does not move is 0

    Returns
    -------
    None before the first look.

    >>> told = learn([Look((0,), (6.0,))], [[2.0]])
    >>> told.step_turns, round(told.told[0].expected_mm, 2)
    ((-1.5,), 3.0)
    """
    if not looks:
        return None
    expected = np.array(gains_mm, dtype=float)
    agreeing, odd = _agreeing(looks, expected)
    before = _agreeing(looks[:-1], expected)[0] if looks[1:] else []
    surprises = _beyond(before, looks[-1], expected, GAIN_SHARE)
    turns, read = _arrays(agreeing)
    lines = [_line(turns, read[:, i], expected[i]) for i in range(len(expected))]
    here = np.array(looks[-1].turns, dtype=float)
    now = np.array([line.at(here)[0] for line in lines])
    learnt = len({look.turns for look in agreeing}) > 1
    good = not any(odd) and bool(np.all(np.abs(now) <= GOOD_MM[learnt]))
    step = _turned(_step(lines, now, expected, learnt), learnt)
    after = np.array([line.at(here + step)[0] for line in lines])
    if good or any(odd) or np.sum(after**2) >= np.sum(now**2):
        step, after = np.zeros_like(step), now
    return Learnt(
        told=tuple(
            Told(
                offset_mm=line.at(here)[0],
                offset_sd_mm=line.at(here)[1],
                expected_mm=line.at(here + step)[0],
                expected_sd_mm=math.hypot(line.at(here + step)[1], READING_SD_MM),
                per_turn_mm=tuple(float(g) for g in line.gains),
                per_turn_sd_mm=tuple(float(v) for v in np.sqrt(np.diag(line.covariance)[1:])),
                surprise=surprises[i],
                odd=odd[i],
            )
            for i, line in enumerate(lines)
        ),
        step_turns=tuple(float(s) for s in step),
        good=good,
    )


def _arrays(looks: Sequence[Look]) -> tuple[Array, Array]:
    """Turns (n, screws) and offsets (n, offsets) of looks."""
    turns = np.array([look.turns for look in looks], dtype=float)
    return turns, np.array([look.offsets_mm for look in looks], dtype=float)


def _agreeing(looks: Sequence[Look], gains: Array) -> tuple[list[Look], tuple[bool, ...]]:
    """The looks that go together, and for each offset whether the latest is odd and waits."""
    run, waiting = [looks[0]], None
    for look in looks[1:]:
        if not any(_odd(run, look, gains)):
            run, waiting = [*run, look], None
        elif waiting is not None and not any(_odd([waiting], look, gains)):
            run, waiting = [waiting, look], None
        else:
            waiting = look
    return run, (False,) * len(gains) if waiting is None else _odd(run, waiting, gains)


def _odd(run: Sequence[Look], look: Look, gains: Array) -> tuple[bool, ...]:
    """For each offset whether no likely gain explains a look, after others."""
    return _beyond(run, look, gains, LIKELY_SHARE)


def _beyond(run: Sequence[Look], look: Look, gains: Array, share: float) -> tuple[bool, ...]:
    """For each offset whether a look is far from what others lead to expect."""
    if not run:
        return (False,) * len(gains)
    turns, read = _arrays(run)
    told = []
    for i, offset in enumerate(look.offsets_mm):
        line = _line(turns, read[:, i], gains[i], share)
        expected, sd = line.at(np.array(look.turns, dtype=float))
        told.append(abs(offset - expected) > SURPRISE_SD * math.hypot(sd, READING_SD_MM))
    return tuple(told)
