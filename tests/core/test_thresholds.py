"""Where the stations change their word: each threshold just below it and just past it."""

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import brace_range_in
from lyrandis.core.bow.geometry import contact_at
from lyrandis.core.bow.statics import solve
from lyrandis.core.dates import days_between
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, field_notes, is_on
from lyrandis.core.findings import Finding
from lyrandis.core.fit.bow_length import of_length
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.fit.first_rig import form_start
from lyrandis.core.flight.trajectory import crawl_for_mm, drag_per_m, impact_m, point_on_m
from lyrandis.core.parts import KIND_OF, Bow, Rig, String
from lyrandis.core.route import NO_CONSEQUENCE, READS, STATIONS, WATCHES, Mark, states
from lyrandis.core.schedule import hours_braced, schedule
from lyrandis.core.stations import TELLERS, bow_length
from lyrandis.core.string.measures import usual_mass_gr
from lyrandis.core.string.twists import twist
from lyrandis.core.tally import tally
from lyrandis.core.trials import BraceTrial, HoldTrial, KeptTrial, QuietTrial, SettlingTrial


def kept(*trials, rig=None, at="2026-03-01T10:00:00+00:00"):
    return tuple(KeptTrial(i + 1, at, t, rig or Rig()) for i, t in enumerate(trials))


def bench(changes=None, *trials):
    rig = changed(Rig(), changes or {})
    return Bench(rig, kept(*trials, rig=rig), "2026-03-02T10:00:00+00:00")


def findings(station, b) -> list[Finding]:
    return TELLERS[station].tell(b).findings


def one(station, b, words) -> Finding:
    found = [f for f in findings(station, b) if words in f.said.plain()]
    assert len(found) == 1, [f.said.plain() for f in findings(station, b)]
    return found[0]


def values(finding, *names):
    return tuple(finding.said.values[n].value for n in names)


class TestDraw:
    @pytest.mark.parametrize(
        ("margin", "level"), [(0.24, "stop"), (0.25, "mind"), (0.74, "mind"), (0.75, "fine")]
    )
    def test_how_much_longer_the_arrow_is(self, margin, level):
        b = bench({"archer.draw_length_in": 28, "arrow.shaft_length_in": 28 + margin})
        found = one("draw", b, "longer than your longest draw")
        assert found.level == level
        assert values(found, "margin") == (pytest.approx(margin),)
        if found.action:
            assert found.action.changes == {"arrow.shaft_length_in": 29.5}

    def test_a_shorter_one_is_not_drawn(self):
        b = bench({"archer.draw_length_in": 28, "arrow.shaft_length_in": 27.5})
        found = one("draw", b, "Do not draw it")
        assert found.level == "stop"
        assert values(found, "margin") == (0.5,)

    @pytest.mark.parametrize(("sd", "words"), [(0.5, "repeats"), (0.51, "spread")])
    def test_a_shaky_draw(self, sd, words):
        b = bench({"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": sd})
        found = one("draw", b, words)
        assert found.why.values["a_cost"].value == pytest.approx(sd * b.bow.curve.slope(28))
        assert found.why.values["b_at"].value == 30

    def test_what_it_costs_in_crawl_is_the_chart_at_another_speed(self):
        b = bench({"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": 0.4})
        found = one("draw", b, "repeats")
        share = 0.5 * b.bow.curve.force(28) * 0.4 / 12 / b.bow.curve.energy_ftlb(28)
        up, down = (
            crawl_for_mm(replace(b.aim.aimed, speed_mps=b.aim.aimed.speed_mps * (1 + s * share)), np.array([30.0]))
            for s in (1, -1)
        )  # fmt: skip
        assert found.why.values["b_crawl"].value == pytest.approx(float(abs(up - down)[0]) / 2)

    def test_a_thumbs_hidden_inches(self):
        b = bench({"archer.release": "thumb"})
        found = one("draw", b, "under-reads")
        assert values(found, "offset") == (pytest.approx((b.archer.true_draw.value - 28) * 25.4),)
        assert found.said.values["offset"].plus_minus == 4
        own = one("draw", bench({"archer.release": "thumb", "archer.thumb_offset_mm": 15}), "under-reads")  # fmt: skip
        assert (own.level, own.said.values["offset"].plus_minus) == ("fine", None)


class TestBowLength:
    def at(self, reserve, **more):
        """A rig drawn so that so much is left before the stack."""
        b = bench({"archer.draw_method": "marked_arrow", **more})
        draw = b.bow.onset_in - reserve
        return bench({"archer.draw_length_in": draw, "arrow.shaft_length_in": 36, **more})

    @pytest.mark.parametrize(
        ("reserve", "use", "level"),
        [
            # A sixteenth short of what is wanted reads as what is wanted.
            (1.45, "range", "fine"), (1.43, "range", "mind"), (-0.1, "range", "mind"),
            (-1.99, "range", "mind"), (-2.01, "range", "stop"),
            (-0.55, "close_cover", "fine"), (-0.57, "close_cover", "mind"),
        ],
    )  # fmt: skip
    def test_reserve(self, reserve, use, level):
        b = self.at(reserve, **{"bow.length_in": 62, "use": use})
        (found,) = bow_length.reserve(b)
        assert found.level == level
        shown = next(iter(found.said.values.values()))
        assert shown.value == pytest.approx(abs(reserve), abs=1e-6)
        answer = TELLERS["bow-length"].tell(b).said
        assert answer.values["reserve"].value == pytest.approx(abs(reserve), abs=1e-6)
        assert ("beyond your draw" if reserve >= 0 else "before your draw") in answer.plain()

    def test_string_angle(self):
        b = bench()
        limit = b.bow.angle_deg
        for move, level in ((-0.01, "fine"), (0.01, "mind")):
            told = bench({"schools.angle_three_under_deg": limit + move})
            words = "suits" if level == "fine" else "pinch"
            assert one("bow-length", told, words).level == level

    def test_another_length_is_offered_from_an_inch_on(self):
        best = bench().fit.candidates[0].length_in
        for off in (0.5, 1.0, -1.0):
            told = bench({"bow.length_in": best + off, "bow.riser_in": None})
            top = told.fit.candidates[0]
            found = findings("bow-length", told)[0]
            if abs(top.length_in - (best + off)) < 1:
                assert found.said.plain().startswith("Keep this length: ")
                assert found.action is None
            else:
                assert found.action.changes == {
                    "bow.length_in": top.length_in, "bow.riser_in": top.riser_in,
                }  # fmt: skip

    def test_one_verdict_counts_the_schools_and_the_reserve_is_one_number(self):
        b = bench({"bow.length_in": 62.0, "use": "range"})
        best = b.fit.candidates[0]
        found = findings("bow-length", b)[0]
        assert found.level == "mind"
        count = ("none", "one", "two", "three", "four", "five")
        assert (
            f"{count[best.schools_for]} of {count[best.schools_of]} schools" in found.said.plain()
        )
        assert any(
            v.value == pytest.approx(best.stack_reserve_in) for v in found.said.values.values()
        )
        keep = findings("bow-length", bench({"use": "range", "bow.length_in": best.length_in, "bow.riser_in": best.riser_in}))  # fmt: skip
        assert "Keep this length" in keep[0].said.plain()
        texts = [f.said.plain() for f in keep if "stack" in f.said.plain()]
        assert len({t.split(" in ")[0].split("stays ")[-1] for t in texts[:2]}) == 1

    def test_a_short_thumb_bow_ends_at_its_makers_word(self):
        thumb = {"bow.form": "static_tip", "bow.takedown": False, "bow.length_in": 48.0,
                 "archer.release": "thumb", "archer.draw_length_in": 28.5, "archer.thumb_offset_mm": 15.0,
                 "bow.tips": "short", "arrow.shaft_length_in": 32.0, "bow.marked_weight_lbf": 40.0}  # fmt: skip
        b = bench(thumb)
        assert b.bow.onset_in < b.archer.true_draw.value - 2  # a stop with another bow
        assert not any(f.level == "stop" for f in findings("bow-length", b))
        assert one("bow-length", b, "Nobody has said how far").level == "mind"
        known = bench(thumb | {"bow.maker_max_draw_in": 31.0})
        left = one("bow-length", known, "the maker's greatest draw")
        assert values(left, "left") == (pytest.approx(31 - known.archer.true_draw.value),)
        with pytest.raises(RefusedError, match="maker allows"):
            findings("bow-length", bench(thumb | {"bow.maker_max_draw_in": 28.0}))

    def test_an_inch_more(self):
        b = bench()
        found = one("bow-length", b, "An inch more draw adds")
        assert values(found, "more", "angle") == pytest.approx(
            (b.bow.curve.force(29) - b.bow.curve.force(28), b.bow.curve.angle(29))
        )


class TestWeight:
    @pytest.mark.parametrize(("left", "stops"), [(1.51, False), (1.49, True)])
    def test_near_the_geometrys_end(self, left, stops):
        changes = {"bow.length_in": 56.0, "bow.riser_in": None, "arrow.shaft_length_in": 36}
        end = bench(changes).bow.curve.end_in
        b = bench(changes | {"archer.draw_length_in": end - left})
        found = [f for f in findings("weight", b) if "geometry ends" in f.said.plain()]
        assert bool(found) == stops
        if found:
            assert values(found[0], "left") == (pytest.approx(left, abs=1e-6),)

    @pytest.mark.parametrize(("limit", "level"), [(28.5, "fine"), (28.49, "mind")])
    def test_the_makers_limit(self, limit, level):
        found = one("weight", bench({"bow.maker_max_draw_in": limit}), "The maker allows")
        assert found.level == level
        assert values(found, "left") == (pytest.approx(limit - 28),)

    def test_two_inches_of_riser(self):
        b = bench()
        found = one("weight", b, "On a riser")
        assert values(found, "step", "more") == pytest.approx((2, 0.05 * b.bow.curve.force(28)))

    @pytest.mark.parametrize(("weight", "told"), [(54.9, False), (55.1, True)])
    def test_a_heavy_bow_untried(self, weight, told):
        b = bench({"bow.marked_weight_lbf": weight, "bow.measured": [[28.0, weight]]})
        assert any("heavy bow" in f.said.plain() for f in findings("weight", b)) == told

    def test_what_the_marking_alone_would_leave_open(self):
        b = bench({"bow.measured": [[24.0, 26.0], [28.0, 36.0]], "archer.draw_plus_minus_in": 0.2})
        found = one("weight", b, "scale readings")
        known = math.hypot(0.36, 0.2 * b.bow.curve.slope(28))
        assert values(found, "known", "guess") == pytest.approx((known, math.hypot(1.5, known)))

    @pytest.mark.parametrize(("turns", "told"), [((1, 1), True), ((0.5, -0.5), False)])
    def test_bolts_change_the_marking(self, turns, told):
        changes = dict(zip(("limbs.upper_turns", "limbs.lower_turns"), turns, strict=True))
        b = bench(changes)
        found = [f for f in findings("weight", b) if "as they stand" in f.said.plain()]
        assert bool(found) == told
        if found:
            marked = 36 * (1 + b.bow.bolts.weight_pct / 100)
            assert found[0].action.changes["bow.marked_weight_lbf"] == round(marked, 2)
        uneven = [f for f in findings("weight", b) if "further out" in f.said.plain()]
        assert bool(uneven) != told
        assert bench({"bow.measured": [[28.0, 36.0]], **changes}).bow.curve.read_at_in == (28,)
        weighed = bench({"bow.measured": [[28.0, 36.0]], **changes})
        assert not any("as they stand" in f.said.plain() for f in findings("weight", weighed))

    @pytest.mark.parametrize(("turns", "told"), [(0.05, False), (0.06, True)])
    def test_uneven_bolts(self, turns, told):
        b = bench({"limbs.upper_turns": turns})
        assert any("further out" in f.said.plain() for f in findings("weight", b)) == told

    def test_unlike_limbs(self):
        b = bench({"limbs.upper_lbf": 36.0, "limbs.lower_lbf": 37.0})
        found = one("weight", b, "take it up at the nock point")
        share = 37 / 36 - 1
        assert values(found, "share", "low", "high") == pytest.approx(
            (100 * share, share / 0.05 * 0.08 * 25.4, share / 0.05 * 0.15 * 25.4)
        )
        assert "lower limb" in found.said.plain()

    def test_holds(self):
        held = [HoldTrial(weight_lbf=36, seconds=s) for s in (11, 10, 12)]
        assert one("weight", bench({}, *held), "You hold it steady").level == "fine"
        assert one("weight", bench({}, *held[:2]), "2 of 3 holds").level == "fine"


class TestString:
    @pytest.mark.parametrize(
        ("off", "level", "words"),
        [(0.74, "fine", "agrees"), (0.76, "mind", "wants"), (-0.74, "fine", "agrees"), (-0.76, "mind", "wants")],
    )  # fmt: skip
    def test_the_models_length_and_the_tapes(self, off, level, words):
        needed = bench().string.fit.needed_length_in
        b = bench({"string.length_in": needed + off})
        found = one("string", b, words)
        assert found.level == level
        assert values(found, "off") == (pytest.approx(abs(off)),)
        if level == "mind":
            assert ("less" if off > 0 else "more") in found.said.plain()

    @pytest.mark.parametrize(
        ("length", "odd"), [(65.5, False), (65.6, True), (62.5, False), (62.4, True)]
    )
    def test_an_inch_and_a_half_off_the_usual(self, length, odd):
        b = bench({"string.length_in": length})  # usual on 68 in: 64
        told = [f for f in findings("string", b) if "than is usual" in f.said.plain()]
        assert bool(told) == odd
        assert [values(f, "off")[0] for f in told] == [pytest.approx(abs(length - 64))] * odd

    @pytest.mark.parametrize(
        ("strands", "level"), [(11, "stop"), (12, "fine"), (16, "fine"), (17, "mind")]
    )
    def test_strands(self, strands, level):
        b = bench({"string.strands": strands})
        assert b.string.fit.usual_strands == 14
        assert one("string", b, f"{strands} " if level != "mind" else "slower").level == level

    def test_a_string_not_weighed_is_known_to_a_tenth(self):
        b = bench()
        mass = TELLERS["string"].tell(b).said.values["mass"]
        assert mass.plus_minus == pytest.approx(mass.value / 10)
        assert TELLERS["string"].tell(bench({"string.mass_gr": 100})).said.values["mass"].plus_minus is None  # fmt: skip


class TestBrace:
    @pytest.mark.parametrize(
        ("brace", "words"), [(8.24, "below"), (8.25, "within"), (9.5, "within"), (9.51, "above")]
    )
    def test_the_usual_range(self, brace, words):
        found = findings("brace", bench({"bow.brace_height_in": brace}))[0]
        assert words in found.said.plain()
        if found.action:
            bound = 8.25 if words == "below" else 9.5
            assert found.action.changes == {"bow.brace_height_in": bound}
            assert values(found, "off") == (pytest.approx(abs(brace - bound)),)

    def test_a_quarter_inch_more(self):
        b = bench()
        found = one("brace", b, "more brace stores")
        assert values(found, "step", "loss", "shorter") == pytest.approx(
            (
                0.25,
                abs(b.brace.effect.energy_per_in_pct) / 4,
                abs(b.brace.effect.string_up_in) * 25.4,
            )
        )

    def swept(self, at_mm, **changes):
        def loud(mm):
            return 60 + 3 * ((mm - at_mm) / 10) ** 2

        visits = [
            210.0,
            240.0,
            226.0,
            218.0,
            232.0,
            222.0,
            229.0,
            214.0,
            236.0,
            225.0,
            227.0,
            224.0,
        ]
        trials = [BraceTrial(brace_height_in=mm / 25.4, levels_db=(loud(mm),) * 3) for mm in visits]
        return bench(changes, *trials)

    def test_a_finished_sweep_offers_the_quietest_to_a_sixteenth(self):
        b = self.swept(226, **{"bow.brace_height_in": 8.5})
        assert b.brace.listening.curve.verdict == "found"
        found = one("brace", b, "Quietest between")
        best = b.brace.listening.curve.best_in
        assert found.action.changes == {"bow.brace_height_in": round(best * 16) / 16}
        there = self.swept(226, **{"bow.brace_height_in": best + 0.06})
        assert one("brace", there, "Quietest between").action is None
        off = self.swept(226, **{"bow.brace_height_in": best + 0.064})
        assert one("brace", off, "Quietest between").action is not None

    def test_sound_against_speed_from_a_quarter_inch(self):
        b = self.swept(230)
        found = one("brace", b, "pull apart")
        away = b.brace.listening.curve.best_in - b.brace.height.low_in
        assert values(found, "cost") == (
            pytest.approx(away * abs(b.brace.effect.energy_per_in_pct) / 2),
        )
        low = self.swept(212)
        assert abs(low.brace.listening.curve.best_in - low.brace.height.low_in) < 0.25
        assert not any("pull apart" in f.said.plain() for f in findings("brace", low))


class TestNockPoint:
    @pytest.mark.parametrize(
        ("height", "words"),
        [(12.1, "lower"), (12.3, "within"), (25.5, "within"), (25.6, "higher")],
    )
    def test_half_a_millimetre_about_the_ordinary_starts(self, height, words):
        """Three under walking the string: 12.7 to 19.05 + 6 mm."""
        found = findings("nock-point", bench({"nock_height_mm": height}))[0]
        assert words in found.said.plain()

    def test_a_crawl_wants_it_higher(self):
        found = one("nock-point", bench(), "farther the hand goes down")
        assert (found.why.values["low"].value, found.why.values["high"].value) == (2.8, 4.6)


class TestArrow:
    def test_how_much_must_be_added_to_be_surely_heavy_enough(self):
        b = bench({"arrow.point_gr": 60.0, "arrow.grains_per_inch": 6.0})
        found = one("arrow", b, "Too light")
        (need,) = values(found, "need")
        weight = b.arrow.shot.weight_at_draw_lbf
        heavy = b.arrow.floor.floor_gpp * (weight.value + weight.plus_minus)
        short = heavy / 0.98 - b.arrow.build.mass_gr  # parts may weigh two percent less
        assert short <= need < short + 5
        assert need % 5 == 0
        ways = [found.action, *found.instead]
        assert ways[0].changes == {"arrow.point_gr": 60 + need}
        assert ways[1].changes["arrow.grains_per_inch"] >= 6 + need / 30
        assert ways[2].changes == {}
        weighed = one("arrow", bench({"arrow.weighed_gr": 200.0}), "Too light")
        assert (weighed.action.changes, weighed.instead) == ({}, ())

    @pytest.mark.parametrize(("over", "level"), [(0.05, "stop"), (1.02, "mind")])
    def test_the_floor_is_judged_on_the_heavy_side(self, over, level):
        base = bench()
        weight, floor = base.bow.weight, base.arrow.floor.floor_gpp
        mass = floor * (weight.value + over * weight.plus_minus)
        b = bench({"arrow.weighed_gr": mass, "arrow.static_spine": 900})
        assert b.arrow.shot.grains_per_pound > floor
        found = [f for f in findings("arrow", b) if "floor" in f.said.plain()]
        assert [f.level for f in found] == [level]
        assert ("not surely over" in found[0].said.plain()) == (level == "stop")

    def test_string_weight_and_silencers_raise_the_floor(self):
        plain = bench().arrow.floor.energy_gpp
        more = {
            "string.silencers_gr": 60.0,
            "string.silencer_position": 0.5,
            "string.mass_gr": 160.0,
        }
        b = bench(more)
        extra = (160 - usual_mass_gr(b.rig.bow, b.rig.string)) / 3 + 60 * 0.25
        assert b.arrow.floor.energy_gpp - plain == pytest.approx(2.5 * extra / b.bow.weight.value)

    def test_spine_at_the_windows_edges(self):
        w = bench().arrow.window
        for spine, words in (
            (w.low - 1, "stiff"), (w.low + 1, "lies in"), (w.high - 1, "lies in"), (w.high + 1, "weak"),
        ):  # fmt: skip
            found = one("arrow", bench({"arrow.static_spine": spine}), "Spine")
            assert words in found.said.plain()

    def test_shares(self):
        b = bench()
        kept_ = one("arrow", b, "The arrow takes")
        assert values(kept_, "share", "ceiling") == pytest.approx(
            (100 * b.arrow.shot.efficiency, b.arrow.shot.ceiling_speed_fps)
        )

    @pytest.mark.parametrize("spine", [420.0, 900.0])
    def test_light_and_weak_together(self, spine):
        b = bench(
            {"arrow.point_gr": 20.0, "arrow.grains_per_inch": 6.0, "arrow.static_spine": spine}
        )
        weak = spine > 500 * 45 / b.bow.weight.value
        assert any("classic" in f.said.plain() for f in findings("arrow", b)) == weak


class TestQuietAndCrawls:
    def test_the_scatter_told_is_that_of_shots_and_visits(self):
        trial = QuietTrial(check="brace", before_db=(60.0,) * 3, after_db=(56.0,) * 3)
        found = one("quiet", bench({}, trial), "Quieter by")
        assert (found.why.values["shot"].value, found.why.values["visit"].value) == (1.1, 1.0)
        assert values(found, "change") == (4.0,)
        assert found.level == "fine"
        louder = QuietTrial(check="brace", before_db=(56.0,) * 3, after_db=(60.0,) * 3)
        assert one("quiet", bench({}, louder), "Louder by").level == "mind"

    def test_one_distance_is_told_nearest_twenty_between_fifteen_and_thirty_five(self):
        for distances, told in (([10.0, 14.9], None), ([14.9, 15.0], 15.0), ([26, 35.0], 26.0),
                                ([35.0, 36], 35.0), ([16.0, 23.0], 23.0), ([35.1], None)):  # fmt: skip
            b = bench({"aim.distances_m": distances, "arrow.shaft_length_in": 29})
            found = [f for f in findings("crawls", b) if "may be wrong by" in f.said.plain()]
            assert [f.said.values["d"].value for f in found] == ([] if told is None else [told])
            for f in found:
                row = next(r for r in b.aim.chart.rows if r.distance_m == told)
                assert values(f, "near", "far") == pytest.approx(
                    (row.distance_m - row.near_m, row.far_m - row.distance_m)
                )
                assert f.why.values["farther"].value == pytest.approx(-row.impact_cm_if_5m_farther)

    def test_finger_widths(self):
        b = bench()
        found = one("crawls", b, "In finger widths")
        rule = b.aim.chart.finger_rule
        assert values(found, "near", "more", "at20", "step") == pytest.approx(
            (20, 10, rule.at_20m_fingers, -rule.per_10m_fingers)
        )
        worst = max(abs(e) for e in rule.errors_cm if e is not None)
        assert found.why.values["worst"].value == pytest.approx(worst)

    def test_a_first_chart_says_its_widest_doubt(self):
        b = bench()
        found = one("crawls", b, "A first chart")
        worst = int(np.argmax(b.aim.off_cm))
        assert values(found, "pm") == (pytest.approx(b.aim.plus_minus_mm[worst]),)
        assert values(found, "off") == (pytest.approx(max(b.aim.off_cm)),)
        assert found.why.values["eye"].value == 15

    def test_only_distances_shot_with_a_crawl_are_told(self):
        far = bench({"aim.distances_m": [20.0, 85.0]})
        assert far.aim.chart.rows[1].crawl_mm is None
        assert values(one("crawls", far, "A first chart"), "d") == (20.0,)
        none = bench({"aim.distances_m": [85.0]})
        assert not any("A first chart" in f.said.plain() for f in findings("crawls", none))


class TestBench:
    def test_point_ons_doubt_is_that_of_speed_and_eye(self):
        b = bench()
        s = b.aim.aimed
        here = point_on_m(s)
        moved = (
            point_on_m(replace(s, speed_mps=s.speed_mps + b.aim.unshot.speed_mps)) - here,
            point_on_m(replace(s, eye_mm=s.eye_mm + 15)) - here,
        )
        assert b.aim.point_on.plus_minus == pytest.approx(math.hypot(*moved))
        assert b.aim.unshot.speed_mps == pytest.approx(b.arrow.shot.speed_fps.plus_minus * 0.3048)

    def test_the_sight_is_the_rigs(self):
        s = bench({"aim.slope_deg": 12.0}).aim.aimed
        assert s.slope_deg == 12
        assert s.nock_to_tip_m == pytest.approx(30 * 0.0254 + 0.025)
        b = bench()
        assert b.aim.aimed.drag_per_m == pytest.approx(drag_per_m(6.0, b.arrow.build.mass_gr))
        assert drag_per_m(6.0, 22.7 / 0.06479891) == pytest.approx(0.0018)

    def test_a_shaft_is_stiff_enough_by_the_weight_at_the_draw(self):
        weight = bench().bow.weight
        most = 500 * 45 / weight.value
        light = {"arrow.weighed_gr": (7.75 - 0.3) * (weight.value + weight.plus_minus)}
        for spine in (most * 0.99, most * 1.01):
            b = bench(light | {"arrow.static_spine": spine})
            assert (b.arrow.floor.verdict == "tolerated") == (spine <= most) == b.arrow.stiff_enough

    def test_the_tallys_doubts(self):
        b = bench({"archer.draw_plus_minus_in": None})
        told = {t.id: t.value for t in tally(b)}
        assert told["draw"].plus_minus == 1.0
        assert told["mass"].plus_minus == pytest.approx(0.02 * b.arrow.build.mass_gr)
        w = b.arrow.shot.weight_at_draw_lbf
        assert told["gpp"].plus_minus == pytest.approx(b.arrow.shot.grains_per_pound * w.plus_minus / w.value)  # fmt: skip

    def test_a_fortnight_braced_and_no_longer(self):
        run = kept(SettlingTrial(hours=0, brace_height_in=8.5), at="2026-03-01T00:00:00+00:00")
        assert hours_braced(run, "2026-03-15T00:00:00+00:00") == 336
        assert hours_braced(run, "2026-03-15T01:00:00+00:00") is None


# Practice's "small changes do not count", each in the unit of its quantity.
THRESHOLDS = {
    ("bow-length", "draw"): 0.5, ("weight", "draw"): 0.25, ("weight", "length"): 0.5,
    ("assembly", "length"): 0.25, ("assembly", "marking"): 0.5, ("assembly", "strands"): 0.5,
    ("assembly", "string_length"): 0.125, ("string", "length"): 0.5, ("string", "weight"): 5,
    ("brace", "length"): 0.5, ("brace", "strands"): 1, ("brace", "string_length"): 0.125,
    ("nock-point", "brace"): 0.125, ("arrow", "draw"): 0.25, ("arrow", "weight"): 2,
    ("arrow", "brace"): 0.25, ("arrow", "silencers"): 10, ("quiet", "brace"): 0.125,
    ("quiet", "strands"): 0.5, ("quiet", "arrow_mass"): 20, ("quiet", "silencers"): 10,
    ("crawls", "draw"): 0.25, ("crawls", "weight"): 1, ("crawls", "brace"): 0.125,
    ("crawls", "nock"): 1.5, ("crawls", "arrow_mass"): 8, ("crawls", "shaft"): 0.25,
    ("crawls", "silencers"): 20, ("weight", "upper_turns"): 0.25, ("weight", "lower_turns"): 0.25,
    ("brace", "upper_turns"): 0.25, ("brace", "lower_turns"): 0.25,
    ("nock-point", "upper_turns"): 0.25, ("nock-point", "lower_turns"): 0.25,
    ("brace", "twists"): 0.5, ("brace", "riser_length"): 0.25, ("weight", "riser_length"): 0.25,
    ("crawls", "eye"): 5, ("crawls", "one_crawl"): 3, ("nock-point", "nearest"): 5, ("nock-point", "diameter"): 1, ("arrow", "diameter"): 0.5,
    ("flight", "draw"): 0.25, ("flight", "weight"): 2, ("flight", "brace"): 0.25,
    ("flight", "silencers"): 10, ("flight", "cut"): 1, ("flight", "spine"): 20,
    ("flight", "shaft"): 0.25, ("flight", "point"): 10,
    ("flight", "rear_taper"): 0.5, ("flight", "front_taper"): 0.5, ("flight", "nock"): 2,
    ("arrow", "cut"): 1, ("arrow", "spine"): 40, ("arrow", "point"): 10,
    ("arrow", "rear_taper"): 0.5, ("arrow", "front_taper"): 0.5, ("arrow", "rear_end"): 0.3,
    ("arrow", "front_end"): 0.3,
    ("arrow", "string_mass"): 15, ("quiet", "spine"): 80, ("quiet", "silencer_place"): 0.1,
    ("crawls", "spine"): 80, ("crawls", "point"): 10, ("crawls", "vanes"): 0.5,
    ("tiller", "upper_turns"): 0.1, ("tiller", "lower_turns"): 0.1,
    ("final-tiller", "upper_turns"): 0.1, ("final-tiller", "lower_turns"): 0.1,
    ("centre-shot", "cut"): 0.3, ("centre-shot", "diameter"): 0.5,
}  # fmt: skip
PATHS = {
    "draw": "archer.draw_length_in", "length": "bow.length_in", "marking": "bow.marked_weight_lbf",
    "strands": "string.strands", "string_length": "string.length_in",
    "silencers": "string.silencers_gr", "brace": "bow.brace_height_in", "nock": "nock_height_mm",
    "arrow_mass": "arrow.weighed_gr", "shaft": "arrow.shaft_length_in", "weight": "bow.measured",
    "one_crawl": "aim.one_crawl_mm", "nearest": "aim.distances_m",
    "upper_turns": "limbs.upper_turns", "lower_turns": "limbs.lower_turns",
    "twists": "string.twists", "riser_length": "bow.riser_in", "eye": "archer.eye_above_nock_mm",
    "diameter": "arrow.diameter_mm", "cut": "bow.centre_cut_mm", "spine": "arrow.static_spine",
    "rear_taper": "arrow.rear_taper_in", "front_taper": "arrow.front_taper_in",
    "rear_end": "arrow.rear_end_mm", "front_end": "arrow.front_end_mm",
    "point": "arrow.point_gr", "string_mass": "string.mass_gr",
    "silencer_place": "string.silencer_position", "vanes": "arrow.fletching_count",
}  # fmt: skip


class TestRoute:
    def test_every_number_watched_is_here_and_words_have_no_threshold(self):
        ever = {("weight", "readings"), ("arrow", "weighed"), ("string", "string_mass")}
        numbers = {
            (w.station, w.read): w.threshold
            for w in WATCHES
            if READS[w.read].quantity not in (None, "part")
        }
        assert all(numbers.pop(key) > 1e6 for key in ever)  # only whether there is one counts
        assert numbers == THRESHOLDS
        words = [w for w in WATCHES if READS[w.read].quantity in (None, "part")]
        assert all(w.threshold == 0 for w in words)

    def test_every_setting_is_watched_or_said_to_be_of_no_consequence(self):
        """A new field of any part must find its place on one side or the other."""
        watched = {path for w in WATCHES for path in READS[w.read].paths if not is_on(path)}
        assert watched & NO_CONSEQUENCE.keys() == set()
        assert watched | NO_CONSEQUENCE.keys() == set(field_notes())
        slots = {slot for slot in KIND_OF if slot not in ("upper_limb", "lower_limb")} - {"arrows"}
        assert {w.read for w in WATCHES if READS[w.read].quantity == "part"} == {
            *slots, "limbs", "set",
        }  # fmt: skip
        assert all(len(why) > 5 for why in NO_CONSEQUENCE.values())

    @pytest.mark.parametrize(("station", "read"), THRESHOLDS)
    def test_due_just_beyond_and_not_at_the_threshold(self, station, read):
        start = {
            "archer.draw_length_in": 28.0, "bow.length_in": 68.0, "bow.riser_in": 25.0,
            "bow.marked_weight_lbf": 36.0, "string.strands": 14, "string.length_in": 64.0,
            "string.silencers_gr": 30.0, "bow.brace_height_in": 8.5, "nock_height_mm": 14.0,
            "arrow.weighed_gr": 400.0, "arrow.shaft_length_in": 31.0, "bow.measured": [[28.0, 36.0]],
            "limbs.upper_turns": 0.0, "limbs.lower_turns": 0.0, "string.twists": 20,
            "archer.eye_above_nock_mm": 110.0, "arrow.diameter_mm": 6.0, "bow.centre_cut_mm": 1.0,
            "arrow.static_spine": 600.0, "arrow.point_gr": 110.0, "string.mass_gr": 95.0,
            "string.silencer_position": 0.5, "arrow.fletching_count": 3, "arrow.rear_taper_in": 4.0,
            "arrow.front_taper_in": 4.0, "arrow.rear_end_mm": 5.0, "arrow.front_end_mm": 5.0,
            "aim.one_crawl_mm": 30.0, "aim.distances_m": [20.0, 50.0],
        }  # fmt: skip
        before, by = changed(Rig(), start), THRESHOLDS[station, read]
        mark = [Mark(s.id, "settled", before) for s in STATIONS.values()]
        steps = (by, by * 1.02 + 1e-3)
        if isinstance(start[PATHS[read]], int):
            steps = (1, 2) if by == 1 else (0, 1)
        for step, due in zip(steps, (False, True), strict=True):
            for way in (1, -1):
                now = start[PATHS[read]]
                if read == "nearest":
                    value = [now[0] + way * step, 50.0]
                elif read == "weight":
                    value = [[28.0, 36.0 + way * step]]
                elif isinstance(now, int):
                    value = int(now + way * step)
                else:
                    value = now + way * step
                told = {s.station: s for s in states(mark, changed(before, {PATHS[read]: value}))}
                name = READS[read].name.removeprefix("The ").lower()
                assert (name in told[station].moved) == due, (step, way)


def test_days_of_a_plan_are_counted_in_whole_days():
    days = ["2026-03-01", "2026-03-15", "2026-03-29"]
    assert [days_between(a, b) for a, b in pairwise(days)] == [14, 14]


def test_a_rig_that_cannot_be_computed_is_refused_where_it_is_asked():
    with pytest.raises(RefusedError):
        _ = bench(
            {"archer.draw_length_in": 34.0, "bow.length_in": 50.0, "bow.riser_in": None}
        ).bow.curve


class TestWhatIsSaid:
    """Numbers in sentences and signs of words that no threshold decides."""

    def test_a_new_string_is_told_by_the_model_until_it_was_measured_twice(self):
        first = SettlingTrial(hours=0, brace_height_in=8.5)
        once = one("string", bench({}, first), "still settles")
        twice = one("string", bench({}, first, SettlingTrial(hours=3, brace_height_in=8.2)), "settles")  # fmt: skip
        assert (once.told, twice.told) == ("model", "measured")

    def test_a_set_brace_is_told_to_its_own_reference(self):
        h = bench({"bow.brace_reference": "back", "bow.brace_height_in": 10.25}).brace.height
        assert (h.brace_in, h.to_pivot_in) == pytest.approx((10.25, 8.5))
        assert (h.low_in, h.high_in) == pytest.approx((10.0, 11.25))

    def test_what_the_checks_made_together_adds_up_as_squares(self):
        trials = [
            QuietTrial(check=c, before_db=(60.0,) * 3, after_db=(58.0,) * 3)
            for c in ("brace", "strand")
        ]
        together = bench({}, *trials).quiet.together_db
        single = math.sqrt(2 * (1.21 / 3 + 1))
        assert together.value == pytest.approx(-4)
        assert together.plus_minus == pytest.approx(single * math.sqrt(2))

    def test_how_sure_a_sweep_is_stands_in_percent(self):
        trials = [
            BraceTrial(brace_height_in=b / 25.4, levels_db=(60 + 0.03 * (b - 222) ** 2,) * 3)
            for b in (212, 232, 222)
        ]
        b = bench({}, *trials)
        found = one("brace", b, "Next listen")
        assert found.said.values["there"].value == pytest.approx(b.brace.listening.curve.next_in)
        assert b.brace.listening.curve.sure <= 1
        many = [
            BraceTrial(brace_height_in=x / 25.4, levels_db=(60 + 0.03 * (x - 222) ** 2,) * 3)
            for x in (212, 232, 222, 217, 227, 220, 224, 214, 230, 222, 221, 223)
        ]
        done = bench({}, *many)
        told = one("brace", done, "Quietest between")
        assert told.why.values["b_close"].value == pytest.approx(
            100 * done.brace.listening.curve.sure
        )

    def test_unlike_limbs_come_home_apart(self):
        b = bench({"limbs.upper_lbf": 36.0, "limbs.lower_lbf": 37.0})
        found = one("weight", b, "take it up at the nock point")
        assert found.why.values["late"].value == pytest.approx(b.arrow.limb_pair.late_ms)

    def test_the_spot_of_the_chart_is_the_archers(self):
        near, far = (
            bench({"aim.spot_half_height_cm": cm, "aim.distances_m": [30.0]}).aim.chart.rows[0]
            for cm in (5.0, 20.0)
        )
        b = bench({"aim.spot_half_height_cm": 20.0, "aim.distances_m": [30.0]})
        edge = abs(float(impact_m(b.aim.aimed, far.crawl_mm, far.far_m)))
        assert edge == pytest.approx(0.20, abs=1e-4)
        assert far.far_m > near.far_m

    def test_beyond_point_on_nothing_is_walked(self):
        row = bench({"aim.distances_m": [90.0]}).aim.chart.rows[0]
        assert row.crawl_mm is None
        assert row.hold_over_cm > 0
        assert row.stitches is None

    def test_what_still_sinks_is_told(self):
        trials = [
            SettlingTrial(hours=h, brace_height_in=v) for h, v in ((0, 8.5), (2, 8.35), (6, 8.2))
        ]
        b = bench({}, *trials)
        due = next(d for d in schedule(b, []) if d.id == "string-settling")
        still = b.string.settling.sinks_in
        assert due.why.values["sinks"].value == pytest.approx(still.value)
        assert still.value > 0

    def test_a_static_tip_begins_with_short_tips_and_the_others_with_working_ones(self):
        tips = {form: form_start(form)["bow.tips"] for form in ("longbow", "hybrid", "recurve", "static_tip")}  # fmt: skip
        assert tips.pop("static_tip") == "short"
        assert set(tips.values()) == {"working"}

    def test_a_strung_bow_stands_as_tall_as_its_limb_nocks_are_apart(self):
        c = bench().fit.candidates[0]
        sized = of_length(Rig().bow, c.length_in, c.riser_in)
        solved = force_draw(sized).statics
        touch = contact_at(
            solved.limb, np.array([solved.braced.phi]), np.array([0.0]), np.array([1.0])
        )
        height = 2 * float(touch.direction[1][0] * touch.length[0]) / 0.0254
        assert c.strung_in == pytest.approx(height, rel=1e-3)

    @pytest.mark.parametrize(("wanted", "told"), [(8.4, True), (8.6, False)])
    def test_an_endless_loop_is_told_when_it_must_grow(self, wanted, told):
        string = String(build="endless", strands=14)
        solved = solve(Bow(brace_height_in=8.5))
        found = twist(solved, string, 64.0, 30.0, 8.5, wanted).findings
        assert any("endless" in f.said.plain() for f in found) == told


class TestWhatIsOnlyAWordApart:
    @pytest.mark.parametrize(("rated", "level"), [("no", "stop"), ("unknown", "mind")])
    def test_low_stretch_fibre_on_a_bow_that_may_not_bear_it(self, rated, level):
        b = bench({"string.material": "low_stretch", "bow.low_stretch_rated": rated})
        found = one("string", b, "built for low-stretch")
        assert found.level == level
        assert found.said.plain().endswith("so." if rated == "no" else "first.")

    @pytest.mark.parametrize("release", ["split", "thumb"])
    def test_only_fingers_are_offered_to_go_three_under(self, release):
        found = one("crawls", bench({"archer.release": release}), "card carries gaps")
        offered = None if found.action is None else found.action.changes
        assert offered == ({"archer.release": "three_under"} if release == "split" else None)

    def test_a_makers_range_to_the_back_is_told_to_the_grip(self):
        bow = Bow(
            maker_brace_low_in=9.5, maker_brace_high_in=10.5, brace_reference="back",
            brace_offset_in=1.5,
        )  # fmt: skip
        assert brace_range_in(bow) == (8.0, 9.0, "maker")

    @pytest.mark.parametrize(
        ("method", "source"), [("marked_arrow", "measured"), ("tape", "rule"), (None, "rule")]
    )
    def test_only_a_marked_arrow_measures_the_draw(self, method, source):
        archer = Rig().archer.model_copy(update={"draw_method": method})
        assert true_draw_in(archer, Bow()).source == source

    @pytest.mark.parametrize(("draw", "words"), [(27.0, "of reserve"), (31.5, "before your draw")])
    def test_reserve_is_told_from_the_draws_own_side(self, draw, words):
        b = bench({"archer.draw_length_in": draw, "arrow.shaft_length_in": 34, "use": "range"})
        left = b.bow.onset_in - draw
        (found,) = bow_length.reserve(b)
        assert words in found.said.plain() or 0 <= left < 1.5
        (value,) = values(found, "left")
        assert value == pytest.approx(abs(left))

    def test_a_string_that_cannot_come_so_low_says_by_how_much_and_which_to_take(self):
        with pytest.raises(RefusedError) as caught:
            twist(solve(Bow()), String(), 64.0, 4, 8.5, 6.0)
        assert caught.value.said.values["out"].value == pytest.approx(2.5)
        assert caught.value.said.values["order"].value > 64
