"""A random walk of an archer with a bow: what one page calls a danger no other calls fine."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.findings import verbatim
from lyrandis.core.from_rack import Asking, Lying, rack_fit
from lyrandis.core.parts import BowPart, Keeping, Part, Rig, part_of
from lyrandis.core.schedule import schedule
from lyrandis.core.stations import views
from lyrandis.core.stations.holding import holding_findings
from lyrandis.core.trials import (
    CoachTrial,
    HoldTrial,
    InspectionTrial,
    KeptTrial,
    ReleaseTrial,
)

WHO, BOW = "a" * 32, "b" * 32
ACTS_A_WALK, LOOKED_EVERY = 100, 20
START = datetime(2026, 1, 1, 9, tzinfo=UTC)


class Walk:
    """An archer with one bow of the rack; every act is drawn by a seed."""

    def __init__(self, seed):
        self.rng = np.random.default_rng(seed)
        on = {"archer": WHO, "bow": BOW}
        rig = {"on": on, "bow": {"takedown": False, "side_plate": "leather", "centre_cut_mm": 0}}
        self.rig = Rig.model_validate(rig)
        self.trials, self.at, self.condemned = [], START, False

    @property
    def now(self):
        return self.at.isoformat()

    def log(self, trial):
        self.trials.append(KeptTrial(len(self.trials) + 1, self.now, trial, self.rig))

    def set(self, **changes):
        self.rig = changed(self.rig, {path.replace("__", "."): v for path, v in changes.items()})

    def bench(self):
        part = part_of(self.rig, "bow")
        if self.condemned:
            part = part.model_copy(
                update={"keeping": Keeping(state="condemned", why="a crack", word="a bowyer")}
            )
        return Bench(self.rig, tuple(self.trials), self.now, parts={"bow": part})

    def act(self):
        rng = self.rng
        self.at += timedelta(hours=float(rng.choice([0.1, 20, 24 * 5, 24 * 12])))
        weight = self.bench().bow.force_lbf
        what = rng.choice(
            ["hold", "hold", "three", "three", "pain", "light", "weight", "plan", "word", "child",
             "crack", "sound", "release", "condemn"],
            p=[0.15, 0.1, 0.15, 0.1, 0.06, 0.06, 0.14, 0.06, 0.05, 0.03, 0.03, 0.03, 0.03, 0.01],
        )  # fmt: skip
        if what in ("hold", "three"):
            for _ in range(3 if what == "three" else 1):
                self.log(HoldTrial(weight_lbf=weight, seconds=float(rng.choice([4, 8, 11, 14]))))
        elif what == "pain":
            self.log(HoldTrial(weight_lbf=weight, seconds=float(rng.uniform(1, 14)), ended="pain"))
        elif what == "light":
            self.log(HoldTrial(weight_lbf=float(rng.uniform(8, 20)), seconds=1.0))
        elif what == "weight":
            marked = self.rig.bow.marked_weight_lbf + float(rng.choice([-8, -3, -1, 1, 2, 3, 8]))
            self.set(bow__marked_weight_lbf=min(max(marked, 12.0), 70.0))
        elif what == "plan":
            goal = None if rng.random() < 0.3 else float(rng.uniform(20, 60))
            self.set(step_up__goal_lbf=goal, step_up__step_lbf=float(rng.choice([1, 2, 4])))
        elif what == "word":
            self.log(CoachTrial(weight_lbf=float(rng.uniform(0.7, 1.2)) * weight, word="a coach"))
        elif what == "child":
            self.set(archer__grown="child" if self.rig.archer.grown == "adult" else "adult")
        elif what in ("crack", "sound"):
            found = ("cracks",) if what == "crack" else ()
            self.log(InspectionTrial(looked=("cracks",), found=found))
        elif what == "release":
            self.log(ReleaseTrial(places=("cracks",), word="a bowyer"))
        else:
            self.condemned = self.condemned or bool(rng.random() < 0.2)


def planned(b):
    try:
        return b.bow.plan
    except RefusedError:
        return None


def stands_together(b):
    """What the Weight page, the plan and the schedule say of one moment."""
    strength, weight = b.archer.strength, b.bow.force_lbf
    findings = holding_findings(b, weight)
    stops = [f for f in findings if f.level == "stop"]
    due = schedule(b, [])
    goes_up = [d for d in due if d.id.startswith("step-") and d.when == "now"]
    may_go = [f for f in findings if "may be taken" in f.said.text]
    against = strength.against(weight)
    assert bool(goes_up) == bool(may_go)
    assert not (goes_up and stops)
    assert not (
        stops and any(f.level == "fine" for f in findings if "hold it steady" in f.said.text)
    )
    if against in ("pain", "failed", "beyond"):
        assert stops, against
    if strength.pain is not None:
        assert planned(b) is None or b.rig.step_up.goal_lbf is None
        assert due[0].id in ("stopped-weight", "stopped-bow")
        assert strength.lasting_lbf is None or not strength.hurts(strength.lasting_lbf)
    if b.stopped:
        assert due[0].id == "stopped-bow"
    plan = planned(b)
    if plan is not None and plan.steps and goes_up:
        assert strength.against(plan.steps[0].weight_lbf) in ("step", "held", "beyond")
        assert b.rig.archer.grown == "adult"


def pages_stand_together(walk, b):
    """What every station, and a fit from the rack, say of it."""
    told = {station.station: station.findings for station in views(b)}
    for slot in b.stopped:
        assert slot == "bow"
        assert all(any("Do not shoot" in f.said.text for f in found) for found in told.values())
    part = b.parts["bow"].model_copy(
        update={"of": b.parts["bow"].of.model_copy(update={"cut_for": "both"})}
    )
    assert isinstance(part.of, BowPart)
    asking = Asking(
        WHO,
        Part(name="Ada", of=part_of(b.rig, "archer").of),
        b.rig.use,
        trials=tuple(replace(t, rig_id=1) for t in walk.trials),
        now=walk.now,
    )
    stopped = verbatim("stopped") if b.stopped else None
    fit = rack_fit(asking, [Lying(BOW, part, stopped=stopped)])
    if b.stopped:
        assert fit.builds == []
        return
    (build,) = fit.builds
    stops = {f.said.text for f in told["weight"] if f.level == "stop"}
    if any(word in text for text in stops for word in ("pain", "overbowed", "more than a step")):
        assert build.level == "stop"
    strong = [f for f in build.findings if "was held" in f.said.text and f.level == "fine"]
    assert not (strong and stops), (strong[0].said.plain(), stops)


@pytest.mark.parametrize("seed", range(12))
def test_no_page_calls_fine_what_another_calls_a_danger(seed):
    walk = Walk(seed)
    for n in range(ACTS_A_WALK):
        walk.act()
        b = walk.bench()
        stands_together(b)
        if n % LOOKED_EVERY == 0:
            pages_stand_together(walk, b)
