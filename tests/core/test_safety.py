"""Safety is judged on the bad day, and what was found stops the part wherever it goes."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.conditions import stopped_by, to_release
from lyrandis.core.fields import changed
from lyrandis.core.parts import Bow, Keeping, Part, Rig, StringPart
from lyrandis.core.route import route_of
from lyrandis.core.schedule import schedule
from lyrandis.core.stations import TELLERS, views
from lyrandis.core.trials import (
    CoachTrial,
    DrawTrial,
    InspectionTrial,
    KeptTrial,
    ReleaseTrial,
)

A, B, C = ("a" * 32, "b" * 32, "c" * 32)
ON = {"on.upper_limb": A, "on.lower_limb": B, "on.riser": C, "on.string": "d" * 32}
RIG = changed(Rig(), ON)
NOW = "2026-05-01T10:00:00+00:00"


def kept(*trials, rig=RIG, rig_id=None, start=1):
    return tuple(
        KeptTrial(n, f"2026-03-{n:02d}T10:00:00+00:00", t, rig, False, rig_id)
        for n, t in enumerate(trials, start)
    )


def drawn(*readings):
    mean = sum(readings) / len(readings)
    return DrawTrial(method="marked_arrow", readings_in=readings, draw_length_in=mean,
                     plus_minus_in=0.1)  # fmt: skip


def told(station, b):
    return [(f.level, f.said.plain()) for f in TELLERS[station].tell(b).findings]


def stops(b):
    return [f.said.plain() for v in views(b) for f in v.findings if f.level == "stop"]


class TestTheLongestDraw:
    def test_the_mean_and_two_spreads_or_the_longest_ever_logged(self):
        measured = {"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": 0.25}
        assert Bench(changed(Rig(), measured)).archer.longest_in == 28.5
        trials = kept(drawn(27.8, 28.0, 29.2), rig=Rig())
        assert Bench(changed(Rig(), measured), trials).archer.longest_in == pytest.approx(29.2)
        guess = {"archer.draw_method": "tape", "archer.draw_plus_minus_in": 1.0}
        assert Bench(changed(Rig(), guess)).archer.longest_in == 28

    def test_somebody_elses_longest_is_not_mine(self):
        other = kept(drawn(30.0, 30.5), rig=changed(Rig(), {"on.archer": A}))
        assert Bench(changed(Rig(), {"on.archer": B}), other).archer.longest_in == 28

    def test_a_measured_draw_as_long_as_the_shaft_stops_and_asks_for_a_longer_shaft(self):
        rig = changed(Rig(), {"archer.draw_length_in": 29.5, "archer.draw_method": "marked_arrow",
                              "archer.draw_plus_minus_in": 0.1, "arrow.shaft_length_in": 29.5})  # fmt: skip
        for station in ("draw", "arrow"):
            found = [f for v in views(Bench(rig)) if v.station == station for f in v.findings
                     if f.level == "stop"]  # fmt: skip
            if station == "arrow" and not found:
                continue
            assert any("longest draw" in f.said.plain() for f in found)
            for f in found:
                assert "archer.draw_length_in" not in (f.action.changes if f.action else {})
        assert any("Do not draw it" in said for said in stops(Bench(rig)))

    def test_a_draw_that_passes_the_makers_limit_on_a_bad_day_stops(self):
        rig = changed(Rig(), {"archer.draw_method": "marked_arrow", "bow.maker_max_draw_in": 28.25,
                              "archer.draw_plus_minus_in": 0.25})  # fmt: skip
        assert any(
            level == "stop" and "on a bad day" in said for level, said in told("weight", Bench(rig))
        )
        steady = changed(rig, {"archer.draw_plus_minus_in": 0.05})
        assert not any("on a bad day" in said for _, said in told("weight", Bench(steady)))

    def test_grains_per_pound_are_judged_at_the_heavy_end(self):
        rig = changed(
            Rig(), {"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": 0.3}
        )
        b = Bench(rig)
        assert b.bow.heaviest_lbf == pytest.approx(
            b.bow.curve.force(28.6) + b.bow.weight.plus_minus
        )
        assert b.bow.heaviest_lbf > b.bow.weight.value + b.bow.weight.plus_minus


class TestPartsThatStop:
    CRACK = InspectionTrial(looked=("cracks",), found=("cracks",))
    SOUND = InspectionTrial(looked=("cracks", "string"))
    FREE = ReleaseTrial(places=("cracks",), word="Bowyer Ruta")

    def test_times_of_several_zones_are_in_order(self):
        found = KeptTrial(1, "2026-05-01T23:30:00-05:00", self.CRACK, RIG)
        free = KeptTrial(2, "2026-05-02T02:00:00Z", self.FREE, RIG)  # two and a half hours before
        assert set(stopped_by((found, free))) == {A, B}

    def test_what_a_word_frees_is_each_place_once_wherever_it_was_found(self):
        found = kept(self.CRACK, rig=changed(RIG, {"name": "Club bow"}), rig_id=7)
        assert to_release(Bench(RIG, (), NOW, found).stopped) == ("cracks",)

    def test_the_schedule_begins_with_it(self):
        first = schedule(Bench(RIG, kept(self.CRACK), NOW), [])[0]
        assert (first.id, first.when) == ("stopped-upper_limb", "now")

    def test_another_look_does_not_set_it_free_and_a_word_does(self):
        assert set(stopped_by(kept(self.CRACK))) == {A, B}
        assert set(stopped_by(kept(self.CRACK, self.SOUND))) == {A, B}
        assert stopped_by(kept(self.CRACK, self.SOUND, self.FREE)) == {}
        assert set(stopped_by(kept(self.CRACK, self.FREE, self.CRACK))) == {A, B}
        struck = KeptTrial(1, NOW, self.CRACK, RIG, struck=True)
        assert stopped_by((struck,)) == {}

    def test_every_station_says_so_and_a_rig_with_other_limbs_does_not(self):
        b = Bench(RIG, kept(self.CRACK), NOW)
        for view in views(b):
            assert view.findings[0].level == "stop"
            assert "upper limb and lower limb" in view.findings[0].said.plain()
        assert len(views(b)) == len(route_of(RIG).stops)
        other = changed(RIG, {"on.upper_limb": "e" * 32, "on.lower_limb": "f" * 32})
        assert Bench(other, kept(self.CRACK), NOW).stopped == {}

    def test_the_crack_comes_along_to_the_next_rig(self):
        club = changed(RIG, {"name": "Club bow", "on.riser": "e" * 32})
        found = kept(self.CRACK, rig=club, rig_id=7)
        (said,) = {f.said.plain() for v in views(Bench(RIG, (), NOW, found)) for f in v.findings
                   if f.level == "stop" and "was found" in f.said.plain()}  # fmt: skip
        assert "with Club bow" in said

    def test_a_worn_serving_stops_the_string_and_goes_with_it(self):
        worn = kept(InspectionTrial(looked=("string",), found=("string",)))
        assert any("Change the string" in said for said in stops(Bench(RIG, worn, NOW)))
        new = changed(RIG, {"on.string": "e" * 32})
        assert Bench(new, worn, NOW).stopped == {}

    def test_a_condemned_part_stops_and_a_bow_without_known_parts_is_stopped_as_a_whole(self):
        gone = Keeping(state="condemned", why="split at the loop", word="Ruta")
        part = Part(name="S", keeping=gone, of=StringPart())
        b = Bench(RIG, (), NOW, (), {"string": part})
        assert any("condemned: split at the loop" in said for said in stops(b))
        bare = Rig(bow=Bow())
        worn = InspectionTrial(looked=("cracks", "string"), found=("cracks", "string"))
        assert set(Bench(bare, kept(worn, rig=bare), NOW).stopped) == {"bow", "string"}


class TestChildren:
    HEAVY = changed(RIG, {"archer.grown": "child", "bow.marked_weight_lbf": 26})

    def test_a_heavy_bow_stops_a_child_and_only_a_coachs_word_goes_past(self):
        b = Bench(self.HEAVY, (), NOW)
        assert any("Only a coach's word" in said for said in stops(b))
        heavy = b.bow.heaviest_lbf
        # What the page logs is the bow's heavy side, so that the word goes past the stop it is for.
        word = kept(CoachTrial(weight_lbf=heavy, word="Coach Emil"), rig=self.HEAVY)
        assert not any("coach's word goes" in said for said in stops(Bench(self.HEAVY, word, NOW)))
        light = kept(CoachTrial(weight_lbf=22, word="Coach Emil"), rig=self.HEAVY)
        assert any("Only a coach's word" in said for said in stops(Bench(self.HEAVY, light, NOW)))

    def test_a_light_bow_and_a_grown_archer_are_let_be(self):
        light = changed(self.HEAVY, {"bow.marked_weight_lbf": 14})
        assert not any("heavy for a child" in said for said in stops(Bench(light, (), NOW)))
        grown = changed(self.HEAVY, {"archer.grown": "adult"})
        assert not any("heavy for a child" in said for said in stops(Bench(grown, (), NOW)))

    def test_growth_names_the_day_and_the_room_that_is_left(self):
        light = changed(self.HEAVY, {"bow.marked_weight_lbf": 14, "archer.draw_length_in": 24,
                                     "arrow.shaft_length_in": 27, "bow.maker_max_draw_in": 28})  # fmt: skip
        said = [said for _, said in told("draw", Bench(light, (), NOW)) if "grows out" in said]
        assert said[0].endswith("Measure the draw again today.")
        assert "room for 2 1/4 in more of draw, the bow for 4 in" in said[0]
        early = DrawTrial(method="marked_arrow", readings_in=(23.5,) * 3, draw_length_in=23.5,
                          plus_minus_in=0.1, day="2026-01-20")  # fmt: skip
        later = DrawTrial(method="marked_arrow", readings_in=(24.0,) * 3, draw_length_in=24.0,
                          plus_minus_in=0.1, day="2026-04-20")  # fmt: skip
        b = Bench(light, kept(early, later, rig=light), NOW)
        said = next(said for _, said in told("draw", b) if "grows out" in said)
        assert "Measure the draw again on 2026-06-15." in said
        assert "the arrows last about 58 weeks" in said  # 2 1/4 in at 1/2 in in 90 days
        again = [d for d in schedule(b, []) if d.id == "draw-again"]
        assert [(d.when, d.day) for d in again] == [("coming", "2026-06-15")]
        grown = changed(light, {"archer.grown": "adult"})
        assert not any("grows out" in said for _, said in told("draw", Bench(grown, (), NOW)))

    def test_a_word_for_another_child_does_not_count(self):
        word = kept(CoachTrial(weight_lbf=40, word="Coach Emil"),
                    rig=changed(self.HEAVY, {"on.archer": "e" * 32}))  # fmt: skip
        assert any("Only a coach's word" in said for said in stops(Bench(self.HEAVY, word, NOW)))
