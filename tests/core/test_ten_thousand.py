"""Ten thousand random histories: nothing is ever shown as measured whose grounds changed.

Each is a list of entries as the store writes them: settings changed, parts swapped, things
measured, trials struck out, and any of it taken back and done again. After each entry the measured
settings are held against the plain definition, and in the end the list is replayed.
"""

import numpy as np
import pytest

from claims import share
from lyrandis.core.fields import changed, value_at
from lyrandis.core.history import Entry, changes_between, log_trial, replay
from lyrandis.core.measured import untrue
from lyrandis.core.parts import Bow, Rig, String
from lyrandis.core.route import moved_since
from lyrandis.core.trials import (
    MEASURES,
    ArrowWeighingTrial,
    StringWeighingTrial,
    WeighingTrial,
)

SEQUENCES, CHUNKS = share(10_000), 8
BASE = Rig(bow=Bow(marked_weight_lbf=34, riser_in=25), string=String(material="low_stretch"))
A, B = "a" * 32, "b" * 32
# Each setting with values on both sides of every threshold; a swap sets the mark of a part.
VALUES = {
    "archer.draw_length_in": (27.0, 29.0),
    "bow.brace_height_in": (8.2, 8.5, 8.9, 9.6),
    "bow.riser_in": (23.0, 25.0),
    "limbs.upper_turns": (0.0, 0.1, 0.6),
    "string.material": ("polyester", "low_stretch"),
    "string.strands": (12, 16),
    "string.length_in": (64.0, 64.05, 65.0),
    "arrow.point_gr": (100.0, 110.0, 110.2),
    "arrow.shaft_length_in": (29.0, 30.0),
    "arrow.fletching_gr": (9.0, 15.0),
    "nock_height_mm": (10.0, 14.0),
    "on.string": (A, B),
    "on.arrows": (A, B),
    "on.upper_limb": (A, B),
    "on.riser": (A, B),
}
PATHS = list(VALUES)
PARTS = {  # what each measurement must share, whatever else is allowed to move
    "bow.measured": ("on.upper_limb", "on.riser"),
    "arrow.weighed_gr": ("on.arrows",),
    "string.mass_gr": ("on.string",),
}


def reading(rng, n):
    return (
        WeighingTrial(readings=((28.0, 30.0 + n),)),
        ArrowWeighingTrial(mass_gr=300.0 + n),
        StringWeighingTrial(mass_gr=80.0 + n),
    )[rng.integers(3)]


class History:
    """Entries, and the rig and trials they come to; taken back as a whole, as the store does."""

    def __init__(self):
        self.entries, self.done, self.undone = [], [(BASE, {})], []

    @property
    def rig(self):
        return self.done[-1][0]

    @property
    def trials(self):
        return self.done[-1][1]

    def write(self, kind, wanted=None, trial=None, about=None):
        seq = len(self.entries) + 1
        at = f"2026-04-01T10:{seq:02d}:00+00:00"
        if kind in ("undo", "redo"):
            give, take = (self.done, self.undone) if kind == "undo" else (self.undone, self.done)
            take.append(give.pop())
            self.entries.append(Entry(seq=seq, kind=kind, at=at))
            return
        rig, trials = changed(self.rig, wanted or {}), dict(self.trials)
        draft = Entry(seq=seq, kind=kind, at=at, trial=trial, about=about)
        log_trial(trials, draft, rig)
        changes = changes_between(self.rig, (wanted or {}) | untrue(rig, trials.values()))
        self.entries.append(draft.model_copy(update={"changes": changes}))
        self.undone.clear()
        after = changed(self.rig, {c.path: c.after for c in changes})
        log_trial(trials := dict(self.trials), draft, after)
        self.done.append((after, trials))

    def step(self, rng):
        chance = rng.random()
        if chance < 0.16 and len(self.done) > 1:
            return self.write("undo")
        if chance < 0.24 and self.undone:
            return self.write("redo")
        if chance < 0.54:
            return self.write("trial", trial=reading(rng, len(self.entries)))
        standing = [n for n, t in self.trials.items() if not t.struck]
        if chance < 0.60 and standing:
            return self.write("strike", about=int(rng.choice(standing)))
        path = PATHS[rng.integers(len(PATHS))]
        value = VALUES[path][rng.integers(len(VALUES[path]))]
        return self.write("adjust", {path: value})


def held(history):
    """Each measured setting is that of the newest standing trial whose grounds hold, or empty."""
    rig = history.rig
    for measure in MEASURES:
        of = [t for t in history.trials.values() if isinstance(t.trial, measure.kind)]
        good = [t for t in of if not t.struck and not moved_since(measure.kind.grounds, t.rig, rig)]
        shown = value_at(rig, measure.path)
        assert shown == (measure.value(good[-1].trial) if good else measure.unmeasured)
        for path in PARTS[measure.path] if good else ():
            assert value_at(good[-1].rig, path) == value_at(rig, path)


@pytest.mark.parametrize("chunk", range(CHUNKS))
def test_nothing_is_shown_as_measured_whose_grounds_changed(chunk):
    rng = np.random.default_rng(12_000 + chunk)
    seen = {measure.path: 0 for measure in MEASURES}
    for _ in range(SEQUENCES // CHUNKS):
        history = History()
        for _ in range(int(rng.integers(3, 9))):
            history.step(rng)
            held(history)
        told = replay(BASE, history.entries)
        assert told.rig == history.rig
        assert {t.seq: t.struck for t in told.trials} == {
            n: t.struck for n, t in history.trials.items()
        }
        for path in seen:
            seen[path] += bool(value_at(history.rig, path))
    assert min(seen.values()) > 50  # it did come to something
