"""Cut or tapered by reads, the over-stiff school, arrows side by side, and what a spread costs."""

import pytest

from lyrandis.core.arrow.shot import speed_fps
from lyrandis.core.bench import Bench
from lyrandis.core.bench.what_if import arrow_on_bow, usual_others
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations.shaft import told_plan
from lyrandis.core.trials import KeptTrial, NumberedTrial, ShaftReadTrial, WayTrial
from lyrandis.core.trials.numbered import Landing
from lyrandis.core.tune.over_stiff import GroupShot, Way, ways
from lyrandis.core.tune.shaft import ReadAt, cut_plan, length_for, taper_plan

BASE = {
    "archer.draw_length_in": 28.0, "arrow.shaft_length_in": 31.5, "arrow.static_spine": 560.0,
    "bow.marked_weight_lbf": 45.0,
}  # fmt: skip


def kept(rig, *trials):
    return tuple(
        KeptTrial(i, f"2026-01-{i + 1:02d}T10:00:00+00:00", t, rig) for i, t in enumerate(trials)
    )


class TestCut:
    def test_starts_with_a_read_and_goes_half_the_way_that_the_model_sees(self):
        assert cut_plan([], 31.0, 28.0, 30.0).step == "start"
        told = cut_plan([ReadAt(31, "weak", 3)], 31.0, 28.0, 30.25)
        assert (told.step, told.next_in, told.limit_in) == ("next", 30.625, 29.0)

    def test_never_more_than_half_an_inch_nor_past_the_safe_length(self):
        assert cut_plan([ReadAt(32, "weak", 3)], 32.0, 28.0, 29.0).next_in == 31.5
        assert cut_plan([ReadAt(29.125, "weak", 3)], 29.125, 28.0, None).next_in == 29.0
        assert cut_plan([ReadAt(29.1, "weak", 3)], 29.1, 28.0, None).step == "end"

    def test_a_stiff_read_is_past_and_names_the_length_of_the_next_shaft(self):
        reads = [ReadAt(31, "weak", 3), ReadAt(30.5, "stiff", 3)]
        told = cut_plan(reads, 30.5, 28.0, None)
        assert (told.step, told.next_in) == ("past", 30.75)

    def test_straight_is_copied_only_after_enough_arrows(self):
        assert cut_plan([ReadAt(30, "straight", 3)], 30.0, 28.0, None).step == "again"
        twice = [ReadAt(30, "straight", 3), ReadAt(30, "straight", 3)]
        assert cut_plan(twice, 30.0, 28.0, None).step == "copy"

    def test_the_models_length_is_where_the_spine_suits(self):
        b = Bench(changed(Rig(), BASE))
        acts = b.arrow.suits_at(30.25)
        assert length_for(b.arrow.suits_at, acts, 31.5, 29.0) == pytest.approx(30.25, abs=1 / 32)
        assert length_for(lambda length: 1000 - 20 * length, 410.0, 31.0, 29.0) == pytest.approx(
            29.5, abs=1 / 32
        )
        assert length_for(lambda length: 1000 - 20 * length, 300.0, 31.0, 29.0) is None
        assert length_for(lambda _: None, 410.0, 31.0, 29.0) is None

    def test_on_the_rig_the_reads_of_longer_lengths_count_and_other_shafts_do_not(self):
        rig = changed(Rig(), BASE)
        read = ShaftReadTrial(length_in=31.5, read="weak")
        b = Bench(rig, kept(rig, read))
        assert b.shaft.cut.step == "next"
        shorter = changed(rig, {"arrow.shaft_length_in": b.shaft.cut.next_in})
        later = Bench(shorter, kept(rig, read))
        assert later.shaft.cut.step == "start"
        assert len(later.shaft.reads("length")) == 1
        other = changed(shorter, {"arrow.static_spine": 700.0})
        assert Bench(other, kept(rig, read)).shaft.reads("length") == []


class TestTaper:
    def test_comes_from_the_stiff_side_inch_by_inch(self):
        assert taper_plan([ReadAt(4, "stiff", 3)], 4.0, 20.0).next_in == 5.0
        assert taper_plan([ReadAt(12, "stiff", 3)], 12.0, 20.0).step == "end"
        reads = [ReadAt(4, "stiff", 3), ReadAt(5, "weak", 3)]
        assert taper_plan(reads, 5.0, 20.0).next_in == 4.5

    @pytest.mark.parametrize("step", ["start", "again", "copy", "end", "past", "next"])
    def test_every_step_is_a_sentence(self, step):
        reads = {
            "start": [], "again": [ReadAt(4, "straight", 2)], "copy": [ReadAt(4, "straight", 6)],
            "end": [ReadAt(4, "stiff", 2)], "past": [ReadAt(4, "weak", 2)],
            "next": [ReadAt(4, "stiff", 2)],
        }[step]  # fmt: skip
        plan = taper_plan(reads, 4.0, 4.0 if step == "end" else 20.0)
        assert plan.step == step
        assert "{" not in told_plan(plan, "Rear taper").plain()


class TestOverStiff:
    MADE, FLIPPED = Way("left", "as_made", "as_made"), Way("left", "flipped", "as_made")

    def test_the_ways_are_tried_in_the_order_of_practice(self):
        assert ways([], "left").next == self.MADE
        told = ways([GroupShot(self.MADE, 20, 6, 25)], "left")
        assert told.next == self.FLIPPED
        assert told.best is None

    @pytest.mark.parametrize(("arrows", "ratio"), [(3, 2.5), (4, 2.1), (6, 1.7)])
    def test_only_a_ratio_that_chance_rarely_makes_counts(self, arrows, ratio):
        for times, best in ((ratio * 1.01, self.MADE), (ratio * 0.99, None)):
            groups = [
                GroupShot(self.MADE, 10, arrows, 30), GroupShot(self.FLIPPED, 10 * times, arrows, 30)
            ]  # fmt: skip
            assert ways(groups, "left").best == best

    def test_two_arrows_tell_nothing_and_distance_is_taken_out(self):
        far = [GroupShot(self.MADE, 10, 2, 10), GroupShot(self.FLIPPED, 90, 2, 30)]
        assert ways(far, "left").best is None
        even = [GroupShot(self.MADE, 10, 6, 10), GroupShot(self.FLIPPED, 30, 6, 30)]
        assert [t.size_cm_30m for t in ways(even, "left").told] == [30, 30]

    def test_its_school_asks_for_a_stiff_shaft_and_never_for_a_weaker_one(self):
        rig = changed(Rig(), BASE | {"spine_school": "over_stiff", "arrow.static_spine": 350.0})
        view = Bench(rig)
        said = [f.said.plain() for f in station(view).findings]
        assert any("over-stiff, as this school wants" in s for s in said)
        assert any(s.startswith("Shoot six arrows on the left, bow as made") for s in said)
        assert not any(
            "arrow.static_spine" in a.changes for f in station(view).findings for a in acts(f)
        )
        shot = [
            WayTrial(size_cm=10, arrows=6, distance_m=20),
            WayTrial(size_cm=40, arrows=6, distance_m=20, bow="flipped"),
        ]
        said = [f.said.plain() for f in station(Bench(rig, kept(rig, *shot))).findings]
        assert any("The better way: on the left, bow as made" in s for s in said)


def station(b):
    from lyrandis.core.stations.arrow import tell

    return tell(b)


def acts(finding):
    return [a for a in (finding.action, *finding.instead) if a is not None]


class TestWhatIf:
    B = Bench(changed(Rig(), BASE))

    def test_each_row_follows_from_the_models(self):
        now, heavy = (
            arrow_on_bow(self.B, c) for c in ({}, usual_others(self.B)["A heavier shaft"])
        )
        assert now.mass_gr.value == self.B.arrow.build.mass_gr
        assert heavy.mass_gr.value > now.mass_gr.value
        assert heavy.speed_fps.value < now.speed_fps.value  # heavier is never faster
        assert heavy.stays_ftlb < now.stays_ftlb
        assert heavy.far.drop_cm > now.far.drop_cm
        assert heavy.far.flight_s > now.far.flight_s
        assert heavy.point_on_m.value < now.point_on_m.value
        shot = self.B.arrow.shot
        energy = 0.5 * now.momentum_lb_s * now.speed_fps.value
        assert energy == pytest.approx(now.energy_ftlb, rel=1e-9)
        assert now.energy_ftlb + now.stays_ftlb == pytest.approx(shot.stored_energy_ftlb)

    def test_a_weighing_holds_for_the_arrow_that_was_weighed(self):
        b = Bench(changed(Rig(), BASE | {"arrow.weighed_gr": 500.0}))
        assert arrow_on_bow(b, {}).mass_gr.value == 500
        assert arrow_on_bow(b, {"arrow.point_gr": 150.0}).mass_gr.value < 460

    def test_a_shaft_shorter_than_the_draw_is_refused(self):
        with pytest.raises(RefusedError, match="shorter than the draw"):
            arrow_on_bow(self.B, {"arrow.shaft_length_in": 27.0})

    def test_without_reach_the_rest_is_told(self):
        b = Bench(changed(Rig(), BASE | {"aim.distances_m": [300.0]}))
        assert arrow_on_bow(b, {}).far is None
        assert arrow_on_bow(b, {}).speed_fps.value > 100


class TestDozen:
    def test_the_cost_is_the_flight_of_the_two_ends(self):
        b = Bench(changed(Rig(), BASE))
        cost = b.dozen.cost(10.0)
        assert cost.far_m == 50
        assert not cost.own_known
        assert cost.high_cm == pytest.approx(10 / cost.gr_per_cm, rel=0.01)
        e, k = b.arrow.shot.stored_energy_ftlb, b.arrow.shot.virtual_mass_gr
        m = b.arrow.build.mass_gr
        slower = 1 - float(speed_fps(e, m + 10, k) / speed_fps(e, m, k))
        fall = 9.81 * (50 / b.aim.aimed.speed_mps) ** 2 / 2 * 100  # cm, in a vacuum
        assert cost.high_cm == pytest.approx(2 * slower * fall, rel=0.15)

    def test_the_archers_own_ends_take_the_place_of_an_ordinary_one(self):
        rig = changed(Rig(), BASE)
        end = [
            NumberedTrial(
                distance_m=30,
                landings=tuple(
                    Landing(number=n, right_cm=(n * e) % 5 - 2, up_cm=(n + e) % 4)
                    for n in range(1, 7)
                ),
            )
            for e in range(1, 5)
        ]
        cost = Bench(rig, kept(rig, *end)).dozen.cost(5.0)
        assert cost.own_known
        assert 0 < cost.own_cm < 5


class TestReadsDecide:
    def test_a_weak_read_of_a_shaft_that_the_model_calls_stiff_is_doubted_first(self):
        told = cut_plan([ReadAt(31, "weak", 3)], 31.0, 28.0, None, looks_stiff=True)
        assert (told.step, told.next_in) == ("doubt", None)
        rig = changed(Rig(), BASE | {"arrow.static_spine": 350.0})
        b = Bench(rig, kept(rig, ShaftReadTrial(length_in=31.5, read="weak")))
        said = [f.said.plain() for f in station(b).findings]
        assert any("bounces off the side plate" in s for s in said)
        assert not any("looks stiff" in s for s in said)

    def test_one_verdict_where_the_reads_and_the_window_differ(self):
        rig = changed(Rig(), BASE | {"arrow.static_spine": 400.0})
        read = ShaftReadTrial(length_in=31.5, read="straight", arrows=6)
        found = station(Bench(rig, kept(rig, read))).findings
        assert not any("arrow.static_spine" in a.changes for f in found for a in acts(f))
        assert any("flies straight" in f.said.plain() for f in found)
