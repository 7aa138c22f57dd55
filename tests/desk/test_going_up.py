"""The plan to go up, through a history of keeping, holding, undoing and parts put on."""

import pytest

from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import BowPart, Part, Rig
from lyrandis.core.trials import CoachTrial, HoldTrial, InspectionTrial
from lyrandis.desk import papers
from lyrandis.desk.rigs import Desk
from lyrandis.store.database import closed_after, open_database
from lyrandis.store.rigs import RigStore

PLAN = {
    "step_up.goal_lbf": 40.0, "step_up.step_lbf": 2.0, "step_up.weeks": 6.0,
    "step_up.starts": "2026-01-01",
}  # fmt: skip


class Year:
    """A desk with a clock that is set by hand, and one rig on it."""

    def __init__(self, engine):
        self.today = "2026-01-01"
        self.desk = Desk(engine, lambda: f"{self.today}T18:00:00+00:00")
        rig = {"bow": {"marked_weight_lbf": 30, "takedown": False}}
        self.id = self.desk.create(Rig.model_validate(rig), created_at=self.desk.now()).id

    def keep(self, wanted=None, trial=None):
        kept = self.desk.get(self.id)
        return self.desk.keep(self.id, kept.seq, wanted or {}, "weight", trial=trial)

    def hold(self, weight, seconds=12.0, times=3, ended="shaking"):
        for _ in range(times):
            self.keep(trial=HoldTrial(weight_lbf=weight, seconds=seconds, ended=ended))

    def log(self, trial, times):
        """Many at once, without looking at every page after each."""
        store = RigStore(self.desk.engine)
        for seq in range(store.get(self.id).seq, store.get(self.id).seq + times):
            store.keep(self.id, seq, {}, "weight", trial=trial, at=self.desk.now())

    def due(self, day):
        """What is due on a day, by its id, with the calendar's days of the plan."""
        self.today = day
        kept = self.desk.get(self.id)
        b = papers.bench_of(kept, self.desk.now())
        told = {d.id: d for d in papers.schedule_of(kept, b)}
        steps = {d.id: d.day for d in told.values() if d.id.startswith("step-")}
        try:
            calendar = papers.step_up_calendar(kept, b).decode()
        except RefusedError:
            assert steps == {}
        else:
            for step in steps.values():
                assert max(step, day).replace("-", "") in calendar
        return told


@pytest.fixture
def year(tmp_path):
    with closed_after(open_database(tmp_path)) as engine:
        yield Year(engine)


def test_a_step_is_not_due_the_day_after_the_last_one(year):
    year.keep(PLAN)
    year.hold(30.0)
    assert year.due("2026-02-12")["step-1"].when == "now"
    year.today = "2026-02-13"
    year.keep({"bow.marked_weight_lbf": 32.0})
    told = year.due("2026-02-14")
    assert told["step-1"].when == "coming"
    assert "hold-now" in told
    year.today = "2026-02-20"
    year.hold(32.0)
    told = year.due("2026-04-02")
    assert (told["step-1"].when, told["step-1"].day) == ("coming", "2026-04-03")
    assert year.due("2026-04-03")["step-1"].when == "now"


def test_going_down_and_undoing_it_begins_the_weeks_again(year):
    year.keep(PLAN)
    year.hold(30.0)
    year.today = "2026-02-13"
    year.keep({"bow.marked_weight_lbf": 32.0})
    year.hold(32.0)
    year.today = "2026-03-20"
    year.keep({"bow.marked_weight_lbf": 28.0})
    kept = year.desk.undo(year.id, year.desk.get(year.id).seq)
    # Undoing is stamped by the machine's own clock: here only that the weight counts as taken then.
    assert kept.present.rig.bow.marked_weight_lbf == 32.0
    assert [d.rig.bow.marked_weight_lbf for d in kept.drawn] == [30.0, 32.0, 28.0, 32.0]


def test_another_bow_put_on_is_a_step_too(year):
    year.keep(PLAN)
    year.hold(30.0)
    year.hold(33.0)
    assert year.due("2026-02-12")["step-1"].when == "now"
    year.today = "2026-02-13"
    kept = year.desk.get(year.id)
    bow = kept.parts["bow"].part.of.model_copy(update={"marked_weight_lbf": 33.0})
    assert isinstance(bow, BowPart)
    year.desk.put_on(year.id, kept.seq, "bow", new=Part(name="Heavier", of=bow), at=year.desk.now())
    told = year.due("2026-04-20")
    assert "hold-now" in told
    assert told["step-1"].when == "coming"


def test_pain_outlives_fifty_lighter_holds_and_a_word_ends_it(year):
    year.keep(PLAN)
    year.hold(30.0)
    year.hold(30.0, 4.0, 1, "pain")
    year.log(HoldTrial(weight_lbf=20.0, seconds=30.0, ended="shaking"), 50)
    told = year.due("2026-06-01")
    assert next(iter(told)) == "stopped-weight"
    assert not any(id.startswith("step") for id in told)
    year.keep(trial=CoachTrial(weight_lbf=30.0, word="Dr Ash"))
    told = year.due("2026-06-02")
    assert "stopped-weight" not in told
    assert told["step-1"].when == "coming"
    assert "hold-now" in told


def test_what_was_found_outlives_fifty_looks_that_found_nothing(year):
    year.keep(trial=InspectionTrial(looked=("cracks",), found=("cracks",)))
    year.log(InspectionTrial(looked=("cracks",)), 35)
    kept = year.desk.get(year.id)
    assert "bow" in papers.bench_of(kept, year.desk.now()).stopped
