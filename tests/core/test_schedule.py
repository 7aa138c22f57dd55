"""Settling of a new string, and what is due when."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.fit.step_up import begun
from lyrandis.core.inspection import INSPECT_EVERY_DAYS, PLACES
from lyrandis.core.parts import Rig, StepUp
from lyrandis.core.route import Mark, states
from lyrandis.core.schedule import hours_braced, schedule
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import BraceTrial, HoldTrial, InspectionTrial, KeptTrial, SettlingTrial

DAY = "2026-03-0{}T{:02d}:00:00+00:00"
FIRST, FIFTH = DAY.format(1, 10), DAY.format(5, 10)


def kept(*trials, at=FIRST):
    return tuple(KeptTrial(i + 1, at, t, Rig()) for i, t in enumerate(trials))


def reading(hours, brace):
    return SettlingTrial(hours=hours, brace_height_in=brace)


CREPT = [reading(0, 8.5), reading(24, 8.1), reading(72, 8.09), reading(120, 8.09)]


class TestNewStrings:
    def test_a_new_string_begins_a_new_run(self):
        trials = kept(reading(0, 8.5), reading(24, 8.0), reading(0, 8.6), reading(5, 8.4))
        bench = Bench(Rig(), trials, DAY.format(2, 10))
        assert [t.trial.hours for t in bench.string.settling_run] == [0, 5]
        assert hours_braced(bench.string.settling_run, DAY.format(2, 10)) == 24
        assert hours_braced(bench.string.settling_run, "2026-05-01T10:00:00+00:00") is None
        assert Bench(Rig(), (), DAY.format(2, 10)).string.settling is None

    def test_the_string_station_says_so(self):
        def told(*trials):
            findings = (
                TELLERS["string"].tell(Bench(Rig(), kept(*trials), DAY.format(2, 10))).findings
            )
            return " ".join(f.said.plain() for f in findings)

        assert "leave it braced overnight" in told()
        assert "still settles" in told(reading(0, 8.5))
        assert "string has settled" in told(*CREPT)


class TestSchedule:
    def due(self, *trials, now=FIFTH, marks=(), **settings):
        rig = changed(Rig(), settings)
        bench = Bench(rig, kept(*trials), now)
        return {d.id: d for d in schedule(bench, states(marks, rig))}

    def test_a_bare_rig_wants_a_look_and_a_brace_each_time(self):
        told = self.due()
        assert list(told) == ["inspection", "brace-each-time"]
        assert told["inspection"].when == "now"
        assert told["brace-each-time"].day is None

    def test_a_new_string_is_measured_again_the_next_morning(self):
        told = self.due(reading(0, 8.5), now=DAY.format(1, 20))["string-settling"]
        assert (told.day, told.when) == ("2026-03-02", "coming")
        later = self.due(reading(0, 8.5), now=DAY.format(2, 7))["string-settling"]
        assert later.when == "now"
        assert "new string put on" in later.last.plain()
        settled = self.due(*CREPT)
        assert "string-settling" not in settled

    def test_a_look_is_due_again_after_four_weeks(self):
        look = InspectionTrial(looked=tuple(PLACES))
        assert self.due(look)["inspection"].when == "coming"
        assert self.due(look)["inspection"].day == "2026-03-29"
        assert INSPECT_EVERY_DAYS == 28
        assert self.due(look, now="2026-03-29T08:00:00+00:00")["inspection"].when == "now"

    def test_rechecks_come_first_with_their_reasons(self):
        before = changed(Rig(), {"bow.brace_height_in": 8.5})
        marks = [Mark(s, "settled", before) for s in ("brace", "nock-point", "crawls")]
        told = self.due(marks=marks, **{"bow.brace_height_in": 8.0})
        assert list(told)[:2] == ["recheck-nock-point", "recheck-crawls"]
        assert "The brace height went down by 1/2 in" in told["recheck-crawls"].why.plain()

    def test_only_the_next_step_up_can_be_due_now(self):
        plan = {"step_up.goal_lbf": 42, "step_up.starts": "2026-01-10"}
        three = [HoldTrial(weight_lbf=36, seconds=12, day="2026-01-11")] * 3
        told = self.due(*three, **plan)
        assert [told[f"step-{n}"].when for n in (1, 2, 3)] == ["now", "coming", "coming"]
        assert "held 36.0 lb" in told["step-1"].last.plain()
        assert "step-1" not in self.due(**plan, **{"archer.grown": "child"})

    def test_a_plan_that_was_not_earned_waits_and_asks_for_the_holds(self):
        plan = {"step_up.goal_lbf": 42.0, "step_up.starts": "2025-11-01"}
        told = self.due(HoldTrial(weight_lbf=36, seconds=12), **plan)
        assert told["hold-now"].title.plain() == "Time three holds of 36.0 lb"
        assert (told["step-1"].when, told["step-1"].day) == ("coming", "2026-04-16")
        assert told["step-2"].day == "2026-05-28"

    @pytest.mark.parametrize(("ended", "title"), [
        ("pain", "Stop at pain"), ("shaking", "Go down in weight, or hold it first"),
    ])  # fmt: skip
    def test_after_pain_or_too_short_a_hold_nothing_goes_up(self, ended, title):
        plan = {"step_up.goal_lbf": 42.0, "step_up.starts": "2025-11-01"}
        short = HoldTrial(weight_lbf=36.0, seconds=4, ended=ended)
        told = self.due(short, **plan)
        assert not any(id.startswith(("step", "hold")) for id in told)
        assert next(iter(told)) == "stopped-weight"
        assert told["stopped-weight"].title.plain() == title
        rig = changed(Rig(), plan)
        findings = TELLERS["weight"].tell(Bench(rig, kept(short), FIFTH)).findings
        assert told["stopped-weight"].why in [f.said for f in findings]
        assert any(f.level == "stop" for f in findings)


class TestTheStringThatIsOn:
    """What was measured with another string, or to another reference, is not mixed in."""

    def bench(self, trials, **settings):
        return Bench(changed(Rig(), settings), tuple(trials), DAY.format(5, 10))

    def brace(self, seq, turns, brace, rig=None, reference="grip"):
        trial = BraceTrial(brace_height_in=brace, twists=turns, reference=reference)
        return KeptTrial(seq, FIRST, trial, rig or Rig())

    def test_twists_of_another_string_say_nothing_of_this_one(self):
        other = changed(Rig(), {"string.strands": 16})
        turned = changed(Rig(), {"string.twists": 20})
        seen = [
            self.brace(1, 20, 8.0, other),
            self.brace(2, 24, 8.5),
            self.brace(3, 30, 8.75, turned),
            self.brace(4, None, 9.0),
        ]
        assert self.bench(seen).string.twists_seen == [(24, 8.5), (30, 8.75)]

    def test_a_new_string_begins_anew(self):
        seen = [
            self.brace(1, 20, 8.0),
            KeptTrial(2, FIRST, reading(0, 8.5), Rig()),
            self.brace(3, 24, 8.25),
        ]
        assert self.bench(seen).string.twists_seen == [(24, 8.25)]

    def test_readings_to_other_references_are_brought_to_the_bows_own(self):
        seen = [self.brace(1, 20, 10.0, reference="back"), self.brace(2, 24, 8.5)]
        assert self.bench(seen).string.twists_seen == [(20, 8.25), (24, 8.5)]
        back = self.bench(seen, **{"bow.brace_reference": "back"})
        assert back.string.twists_seen == [(20, 10.0), (24, 10.25)]

    def test_settling_follows_one_string_through_a_change_of_reference(self):
        to_back = SettlingTrial(hours=24, brace_height_in=9.5, reference="back")
        trials = kept(reading(0, 8.5), to_back)
        assert self.bench(trials).string.settling_readings == [(0, 8.5), (24, 7.75)]
        plain = self.bench(kept(reading(0, 8.5), reading(24, 7.75))).string.settling
        assert self.bench(trials).string.settling.final_brace_in == plain.final_brace_in


class TestAPlanBegins:
    def test_on_the_day_its_goal_was_set(self):
        told = begun({"step_up.goal_lbf": 42.0}, StepUp(), "2026-03-05")
        assert told == {"step_up.goal_lbf": 42.0, "step_up.starts": "2026-03-05"}

    def test_unless_a_day_was_named_or_no_goal_is_set(self):
        named = StepUp(starts="2026-01-05")
        assert begun({"step_up.goal_lbf": 42.0}, named, "2026-03-05") == {"step_up.goal_lbf": 42.0}
        both = {"step_up.goal_lbf": 42.0, "step_up.starts": "2026-02-01"}
        assert begun(both, StepUp(), "2026-03-05") == both
        assert begun({"step_up.goal_lbf": None}, StepUp(), "2026-03-05") == {"step_up.goal_lbf": None}  # fmt: skip
        assert begun({"step_up.weeks": 8}, StepUp(), "2026-03-05") == {"step_up.weeks": 8}
