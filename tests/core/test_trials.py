"""Trials in the history: logged, put right, struck out, taken back; and what they come to."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between, hours_between, later
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.hold import judge
from lyrandis.core.history import Change, Entry, replay
from lyrandis.core.inspection import PLACES
from lyrandis.core.logbook import sentences
from lyrandis.core.parts import Rig
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import (
    DrawTrial,
    HoldTrial,
    InspectionTrial,
    KeptTrial,
    WeighingTrial,
    standing,
)

AT = "2026-03-01T10:00:00+00:00"


def draw_history(trials):
    return Bench(Rig(), tuple(trials)).archer.draws


def hold(trials, weight):
    return Bench(Rig(), tuple(trials)).archer.strength.of(weight)


def drawn(draw, day="", sd=0.1, method="marked_arrow", n=4):
    return DrawTrial(
        method=method,
        readings_in=(draw,) * n,
        draw_length_in=draw,
        plus_minus_in=sd,
        day=day,
    )


def held(seconds, weight=36.0, ended="shaking"):
    return HoldTrial(weight_lbf=weight, seconds=seconds, ended=ended)


def entry(seq, kind="trial", **more):
    return Entry(seq=seq, kind=kind, at=AT, **more)


def kept(*trials):
    return tuple(KeptTrial(i + 1, AT, trial, Rig()) for i, trial in enumerate(trials))


class TestHistory:
    def test_a_trial_hangs_on_the_rig_it_was_made_with(self):
        change = Change(path="bow.length_in", before=68, after=66)
        told = replay(
            Rig(),
            [
                entry(1, trial=held(9)),
                entry(2, "adjust", station="bow-length", standing="settled", changes=(change,)),
                entry(3, trial=held(12)),
            ],
        )
        assert [t.rig.bow.length_in for t in told.trials] == [68, 66]
        assert [t.seq for t in told.trials] == [1, 3]

    def test_a_draw_brings_the_draw_length_along_and_goes_with_it(self):
        change = Change(path="archer.draw_length_in", before=28, after=28.5)
        entries = [
            entry(1, station="draw", standing="settled", trial=drawn(28.5), changes=(change,))
        ]
        there = replay(Rig(), entries)
        assert there.rig.archer.draw_length_in == 28.5
        assert len(there.trials) == len(there.marks) == 1
        back = replay(Rig(), [*entries, entry(2, "undo")])
        assert back.rig.archer.draw_length_in == 28
        assert back.trials == ()
        assert replay(Rig(), [*entries, entry(2, "undo"), entry(3, "redo")]).trials == there.trials

    def test_put_right_struck_out_and_taken_in_again_keep_its_place(self):
        entries = [entry(1, trial=held(9)), entry(2, trial=held(10, 30), about=1)]
        assert [t.trial.seconds for t in replay(Rig(), entries).trials] == [10]
        entries.append(entry(3, "strike", about=1))
        assert replay(Rig(), entries).trials[0].struck
        assert standing(replay(Rig(), entries).trials, "hold") == []
        entries.append(entry(4, "restore", about=1))
        assert not replay(Rig(), entries).trials[0].struck
        assert replay(Rig(), [*entries, entry(5, "undo")]).trials[0].struck

    @pytest.mark.parametrize("kind", ["strike", "restore"])
    def test_what_is_not_there_is_refused(self, kind):
        with pytest.raises(RefusedError) as caught:
            replay(Rig(), [entry(1, kind, about=7)])
        assert caught.value.field == "entries.0.about"
        with pytest.raises(RefusedError):
            replay(Rig(), [entry(1, kind)])

    def test_each_line_reads_as_a_sentence(self):
        lines = sentences(
            [
                entry(1, trial=drawn(28.5)),
                entry(2, trial=held(11.5, ended="pain")),
                entry(3, "strike", about=2),
                entry(4, "undo"),
                entry(5, trial=WeighingTrial(readings=((20, 18), (28, 35)), scale="simulated")),
                entry(6, trial=held(12.0), about=2),
                entry(7, trial=InspectionTrial(looked=("cracks", "tips"), found=("cracks",))),
                entry(8, trial=InspectionTrial(looked=("cracks",))),
            ]
        )
        assert [line.plain() for line in lines] == [
            "4 draws with a marked arrow: 28 1/2 ± 1/8 in.",
            "Held 36.0 lb for 11.5 s, until it hurt.",
            "Struck out held 36.0 lb for 11.5 s, until it hurt.",
            "Took back: struck out held 36.0 lb for 11.5 s, until it hurt.",
            "Weighed by the simulated scale, 35.0 lb at 28 in.",
            "Put right: held 36.0 lb for 12.0 s, until it shook.",
            "Looked the bow over and found: cracks across a limb.",
            "Looked the bow over in 1 place, nothing found.",
        ]

    def test_a_list_of_words_names_what_came_and_went(self):
        change = Change(path="assembly.done", before=["look"], after=["limbs", "bolts"])
        said = sentences([entry(1, "adjust", changes=(change,))])[0].plain()
        assert said == "Set assembly steps done: added limbs, bolts; took out look."

    def test_every_kind_has_its_station_and_its_sentence(self):
        for trial in (drawn(28), held(9), InspectionTrial(looked=("tips",)), WeighingTrial(readings=((28, 36),))):  # fmt: skip
            assert trial.station in TELLERS
            assert trial.said().text


class TestDates:
    def test_arithmetic(self):
        assert day_of("2026-03-01T23:30:00+00:00") == "2026-03-01"
        assert later("2026-02-26", days=3) == "2026-03-01"
        assert later("2026-03-01", weeks=6) == "2026-04-12"
        assert days_between("2026-03-01", "2026-02-26T10:00:00+00:00") == -3
        assert hours_between(AT, "2026-03-02T12:00:00+02:00") == pytest.approx(24)

    @pytest.mark.parametrize("bad", ["2026-02-30", "tomorrow", "", "26-1-1"])
    def test_no_day(self, bad):
        with pytest.raises(RefusedError, match="calendar"):
            day_of(bad)


class TestDrawHistory:
    def test_a_line_through_exact_draws_gives_its_slope(self):
        told = draw_history(
            kept(drawn(27.0, "2026-01-01"), drawn(27.5, "2026-07-01"), drawn(28.0, "2026-12-30"))
        )
        assert told.per_month_in == pytest.approx(1.0 * 30.44 / 363, rel=0.01)
        assert told.is_change

    def test_the_slopes_doubt_is_that_of_two_means(self):
        told = draw_history(kept(drawn(27.0, "2026-01-01"), drawn(27.2, "2026-07-01")))
        months = 181 / 30.44
        assert told.per_month_sd_in == pytest.approx(2**0.5 * 1 / 16 / months, rel=1e-6)

    def test_first_guesses_hardly_count_and_order_is_by_day(self):
        exact = [drawn(28.0, "2026-01-01"), drawn(28.0, "2026-06-01")]
        told = draw_history(kept(drawn(30.0, "2026-03-01", 1.0, "tape", 1), *exact))
        assert [p.day for p in told.points] == ["2026-01-01", "2026-03-01", "2026-06-01"]
        assert abs(told.per_month_in) < 0.01
        assert not told.is_change

    def test_no_slope_from_one_day_or_a_fortnight(self):
        assert draw_history(()).per_month_in is None
        near = draw_history(kept(drawn(28, "2026-01-01"), drawn(29, "2026-01-09")))
        assert near.per_month_in is None
        assert not near.is_change


class TestHold:
    @pytest.mark.parametrize(
        ("seconds", "pain", "verdict"),
        [
            ([], False, "untried"),
            ([12], False, "few"),
            ([4], False, "too_heavy"),
            ([11, 12, 10.5], False, "held"),
            ([2, 3, 11, 12, 10.5], False, "held"),
            ([8, 9, 12], False, "borderline"),
            ([5, 5.5, 12], False, "too_heavy"),
            ([30, 30, 30], True, "pain"),
        ],
    )
    def test_verdicts(self, seconds, pain, verdict):
        assert judge(seconds, pain) == verdict

    def test_only_holds_of_about_this_weight_count(self):
        trials = kept(*(held(12, 30) for _ in range(3)), held(4, 40))
        told = hold(trials, 40)
        assert (told.verdict, told.count, told.lasting_lbf) == ("too_heavy", 1, 30)
        assert [hold(trials, w).verdict for w in (29, 30.5, 31)] == ["held", "held", "untried"]


class TestFindings:
    def tell(self, station, *trials, now="2026-03-05T10:00:00+00:00", rig=None):
        told = TELLERS[station].tell(Bench(rig or Rig(), kept(*trials), now))
        return [(f.level, f.said.plain()) for f in told.findings]

    def test_a_bow_never_looked_over_found_cracked_sound_and_long_ago(self):
        looked = tuple(PLACES)
        assert any("not looked over" in said for _, said in self.tell("bow-length"))
        sound = InspectionTrial(looked=looked)
        assert ("fine", "Looked over on 2026-03-01, nothing found.") in self.tell("bow-length", sound)  # fmt: skip
        late = self.tell("bow-length", sound, now="2026-05-01T10:00:00+00:00")
        assert ("mind", "It was last looked over on 2026-03-01. Look again.") in late

    def test_holds_say_overbowed_held_or_pain(self):
        weight = Bench(Rig()).bow.curve.force(28)
        heavy = self.tell("weight", held(4, weight))
        assert any(level == "stop" and "overbowed. Take a lighter bow" in s for level, s in heavy)
        uneven = self.tell("weight", *(held(s, weight) for s in (12, 11, 9)))
        assert (
            "mind",
            "You hold it for 11.0 s, but not each time: short for a long day.",
        ) in uneven
        good = self.tell("weight", *(held(12, weight) for _ in range(3)))
        assert ("fine", "You hold it steady for 12.0 s.") in good
        pain = self.tell("weight", held(12, weight, "pain"))
        assert any(level == "stop" and "pain" in said for level, said in pain)

    def test_a_growing_draw_is_told(self):
        told = self.tell("draw", drawn(27.0, "2026-01-01"), drawn(28.0, "2026-12-01"))
        assert any("Your draw grew by 1 ± 1/8 in since 2026-01-01" in said for _, said in told)
        steady = self.tell("draw", drawn(28.0, "2026-01-01"), drawn(28.0, "2026-12-01"))
        assert not any("grew" in said or "shrank" in said for _, said in steady)
