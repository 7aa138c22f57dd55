"""What the stations say: answers, findings and cures on telling rigs."""

import pytest
from situations import THUMB

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed, field_notes
from lyrandis.core.findings import LEVELS, Said, say
from lyrandis.core.flight.trajectory import drag_per_m
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views
from lyrandis.core.tally import tally

RIG = Rig()
LEFT_HYBRID = {"bow.form": "hybrid", "bow.length_in": 62, "bow.takedown": False,
               "archer.release": "split", "archer.hand": "left"}  # fmt: skip


def told(station, **paths):
    rig = changed(RIG, {p.replace("__", "."): v for p, v in paths.items()})
    return next(v for v in views(Bench(rig)) if v.station == station)


def finding(view, *words):
    for f in view.findings:
        if all(w in f.said.plain() for w in words):
            return f
    raise AssertionError([f.said.plain() for f in view.findings])


@pytest.mark.parametrize(
    "changes", [{}, THUMB, LEFT_HYBRID, {"bow.form": "longbow", "bow.length_in": 66}]
)
def test_every_station_answers_with_its_numbers(changes):
    rig = changed(RIG, changes)
    for view in views(Bench(rig)):
        assert view.problem is None
        assert view.answer.values, view.station
        assert view.findings, view.station
        for f in view.findings:
            assert f.said.plain().endswith(".")
            assert f.why.text
            assert "{" not in f.said.plain() + f.why.plain()
            if f.action:
                assert f.action.changes or f.action.station
                assert set(f.action.changes) <= set(field_notes())
                changed(rig, f.action.changes)  # a cure is itself allowed


def test_findings_come_most_serious_first():
    view = told("arrow", arrow__point_gr=10.0, arrow__grains_per_inch=6.0)
    levels = [LEVELS.index(f.level) for f in view.findings]
    assert levels == sorted(levels)
    assert levels[0] == 0


class TestDraw:
    def test_a_guess_costs_weight(self):
        assert "1.8 lb" in finding(told("draw"), "first guess").said.plain()

    def test_a_steady_marked_arrow_is_fine(self):
        view = told("draw", archer__draw_method="marked_arrow", archer__draw_plus_minus_in=0.125)
        assert finding(view, "repeats").level == "fine"

    def test_a_shaky_one_is_not(self):
        view = told("draw", archer__draw_method="marked_arrow", archer__draw_plus_minus_in=0.8)
        assert finding(view, "spread").level == "mind"

    def test_a_short_arrow_stops_and_a_longer_one_cures_it(self):
        view = told("draw", arrow__shaft_length_in=28.1)
        f = finding(view, "longer than your longest draw")
        assert f.level == "stop"
        assert f.action.changes["arrow.shaft_length_in"] > 29
        assert (
            "shorter than your longest draw"
            in finding(told("draw", arrow__shaft_length_in=27.0), "Do not draw").said.plain()
        )

    def test_the_thumb_is_told_its_true_draw(self):
        rig = changed(RIG, THUMB)
        view = next(v for v in views(Bench(rig)) if v.station == "draw")
        assert finding(view, "under-reads").level == "mind"
        known = changed(rig, {"archer.thumb_offset_mm": 14.0})
        view = next(v for v in views(Bench(known)) if v.station == "draw")
        assert "14.0 mm" in finding(view, "under-reads").said.plain()

    def test_the_cost_of_a_shaky_draw_in_crawl(self):
        """30 m crawl, by speed alone: twice the doubt is twice the cost, and it is some millimetres."""
        costs = []
        for sd in (0.5, 1.0):
            f = finding(told("draw", archer__draw_plus_minus_in=sd), "first guess")
            costs.append(next(v.value for n, v in f.why.values.items() if n.endswith("crawl")))
        assert costs[1] == pytest.approx(2 * costs[0], rel=0.02)
        assert 1 < costs[0] < 10

    def test_a_short_arrow_leaves_the_rest_of_the_station_answered(self):
        view = told("draw", arrow__shaft_length_in=27.0)
        assert view.problem is None
        assert "crawl" not in finding(view, "first guess").why.values


class TestBowLength:
    def test_overdrawing_stops(self):
        view = told("bow-length", bow__length_in=56.0, archer__draw_length_in=29.5)
        assert finding(view, "overdraws").level == "stop"

    def test_close_cover_accepts_a_short_bow(self):
        short = {"bow__length_in": 62.0}
        assert finding(told("bow-length", **short), "before").level == "mind"
        assert finding(told("bow-length", use="close_cover", **short), "stacks").level == "fine"

    def test_a_sharp_string_pinches_three_under_before_split(self):
        under = told("bow-length", bow__length_in=61.0)
        assert finding(under, "pinch").level == "mind"
        split = told("bow-length", bow__length_in=61.0, archer__release="split")
        assert finding(split, "suits").level == "fine"

    def test_the_schools_come_to_one_verdict(self):
        view = told("bow-length", bow__length_in=72.0)
        first = view.findings[0]
        assert "schools" in first.said.plain()
        assert "rules of thumb" in first.why.plain()
        assert first.action.changes["bow.length_in"] < 72
        assert not any("want a longer" in f.said.plain() for f in view.findings)

    def test_where_no_length_suits_none_is_called_right(self):
        far = told("bow-length", archer__draw_length_in=33.5, arrow__shaft_length_in=36.0,
                   bow__length_in=68.0, use="range")  # fmt: skip
        best = Bench(changed(RIG, {"archer.draw_length_in": 33.5, "arrow.shaft_length_in": 36.0,
                                   "use": "range"})).fit.candidates[0]  # fmt: skip
        assert best.objects
        assert finding(far, "No length of this form suits your draw whole").action is None
        assert not any("Keep this length" in f.said.plain() for f in far.findings)

    def test_what_a_bow_too_long_costs_and_gives(self):
        f = finding(
            told("bow-length", bow__length_in=72.0), "A long bow for your draw", "hand shock"
        )
        assert f.level == "mind"
        assert "of reserve" in f.said.plain()


class TestWeight:
    def test_a_marking_is_only_a_marking(self):
        assert finding(told("weight"), "pound or two").level == "mind"
        weighed = told("weight", bow__measured=[[28.0, 37.5]])
        assert finding(weighed, "scale reading").told == "measured"
        assert "by the scale" in weighed.answer.text

    def test_the_makers_limit_and_the_stack(self):
        assert finding(told("weight", bow__maker_max_draw_in=28.25), "maker allows").level == "mind"
        assert finding(
            told("weight", bow__length_in=62.0, archer__draw_length_in=29.5), "into the stack"
        )

    def test_past_the_makers_limit_nothing_is_told(self):
        view = told("weight", bow__maker_max_draw_in=27.0)
        assert view.problem.field == "archer.draw_length_in"
        assert view.problem.limit == 27
        assert view.findings[0].level == "stop"
        assert view.findings[0].action.station == "draw"

    def test_limbs_on_another_riser(self):
        f = finding(told("weight", bow__marked_weight_lbf=40.0), "riser")
        assert f.said.values["more"].value == pytest.approx(2.0, abs=0.02)
        hybrid = told("weight", bow__form="hybrid", bow__length_in=62.0, bow__takedown=False)
        assert not [x for x in hybrid.findings if "riser" in x.said.text]

    def test_heavy_bows_are_warned_of(self):
        assert finding(told("weight", bow__marked_weight_lbf=60.0), "heavy bow").level == "mind"


class TestString:
    @pytest.mark.parametrize(
        ("rated", "level"), [("yes", "fine"), ("unknown", "mind"), ("no", "stop")]
    )
    def test_low_stretch_asks_for_the_makers_word(self, rated, level):
        view = told("string", string__material="low_stretch", bow__low_stretch_rated=rated)
        assert finding(view, "low-stretch").level == level

    def test_too_few_strands_stop(self):
        f = finding(told("string", string__strands=8), "too few")
        assert f.level == "stop"
        assert f.action.changes == {"string.strands": 14}
        assert finding(told("string", string__strands=22), "slower").level == "mind"

    def test_a_string_off_the_usual_is_mentioned(self):
        assert finding(told("string", string__length_in=61.5), "shorter")
        assert finding(told("string", string__length_in=64.5), "agrees").level == "fine"
        assert finding(told("string", string__length_in=65.5), "less").level == "mind"


class TestBraceAndNock:
    def test_outside_the_usual_and_outside_the_makers(self):
        assert finding(told("brace", bow__brace_height_in=7.0), "below").level == "mind"
        maker = {"bow__maker_brace_low_in": 8.0, "bow__maker_brace_high_in": 9.0}
        stop = finding(told("brace", bow__brace_height_in=9.5, **maker), "above")
        assert stop.level == "stop"
        assert stop.action.changes == {"bow.brace_height_in": 9.0}

    def test_nock_point_starts_by_release(self):
        assert finding(told("nock-point"), "Nothing is set").action.changes[
            "nock_height_mm"
        ] == pytest.approx(18.88, abs=0.01)
        split = told("nock-point", archer__release="split")
        assert finding(split, "Nothing").action.changes["nock_height_mm"] == pytest.approx(12.7)
        thumb = told("nock-point", archer__release="thumb")
        assert finding(thumb, "Nothing").action.changes["nock_height_mm"] == pytest.approx(1.0)

    def test_a_set_nock_point_is_judged(self):
        assert finding(told("nock-point", nock_height_mm=14.0), "within").level == "fine"
        assert finding(told("nock-point", nock_height_mm=35.0), "higher").level == "mind"


class TestArrow:
    def test_too_light_stops_and_says_how_much_is_missing(self):
        f = finding(told("arrow", arrow__point_gr=10.0, arrow__grains_per_inch=6.0), "Too light")
        assert f.level == "stop"
        heavier = f.action.changes["arrow.point_gr"]
        view = told("arrow", arrow__point_gr=heavier, arrow__grains_per_inch=6.0)
        assert not [x for x in view.findings if "Too light" in x.said.text]

    def test_light_and_weak_is_the_classic(self):
        view = told(
            "arrow", arrow__point_gr=10.0, arrow__grains_per_inch=6.0, arrow__static_spine=1900
        )
        assert finding(view, "classic").level == "stop"

    def test_spine_outside_the_window_and_its_cure(self):
        f = finding(told("arrow", arrow__static_spine=400), "stiff")
        spine = f.action.changes["arrow.static_spine"]
        assert (
            finding(told("arrow", arrow__static_spine=spine), "lies in the window").level == "fine"
        )
        assert finding(told("arrow", arrow__static_spine=1100), "weak")

    def test_the_makers_minimum(self):
        assert finding(told("arrow", bow__maker_min_gpp=12.0), "floor of 12.0").told == "maker"

    def test_an_arrow_shorter_than_the_draw_is_refused(self):
        view = told("arrow", arrow__shaft_length_in=26.0)
        assert view.problem.field == "arrow.shaft_length_in"
        assert view.answer.text.startswith("This cannot be told")


class TestCrawls:
    def test_first_chart_is_said_to_be_unproved(self):
        assert finding(told("crawls"), "not yet shot").level == "mind"

    def test_danger_space_uses_this_rigs_own_figure(self):
        f = finding(told("crawls"), "At 20.0 m")
        assert "high" in f.why.plain()

    def test_slope_and_release(self):
        assert finding(told("crawls", aim__slope_deg=20.0), "slope").level == "mind"
        split = told("crawls", archer__release="split")
        assert "under the spot" in split.answer.plain()
        assert finding(split, "card carries gaps").action.changes == {
            "archer.release": "three_under"
        }

    def test_beyond_point_on_only_holds_over(self):
        view = told(
            "crawls",
            archer__eye_above_nock_mm=50.0,
            aim__distances_m=[60, 70],
            bow__marked_weight_lbf=25.0,
            arrow__shaft_length_in=33.0,
        )
        assert "hold over" in view.answer.plain()


class TestTally:
    def test_sources_are_told_apart(self):
        entries = {e.id: e for e in tally(Bench(RIG))}
        assert entries["draw"].source == "rule"
        assert entries["speed"].source == "model"
        assert entries["speed"].value.plus_minus > 0
        weighed = changed(
            RIG, {"arrow.weighed_gr": 380.0, "nock_height_mm": 14.0, "bow.brace_height_in": 8.5}
        )
        entries = {e.id: e for e in tally(Bench(weighed))}
        assert entries["mass"].source == "measured"
        assert entries["mass"].value.plus_minus is None
        assert entries["nock"].source == entries["brace"].source == "set"

    def test_what_cannot_be_told_has_no_value(self):
        entries = {e.id: e for e in tally(Bench(changed(RIG, {"arrow.shaft_length_in": 20.0})))}
        assert entries["speed"].value is None
        assert entries["mass"].value is not None


def test_point_on_is_unsurer_with_speed():
    b = Bench(RIG)
    assert b.aim.point_on.plus_minus > 3
    steady = Bench(changed(RIG, {"archer.draw_plus_minus_in": 0.0}))
    assert steady.aim.point_on.plus_minus < b.aim.point_on.plus_minus


def test_drag_scales_with_section_and_mass():
    assert drag_per_m(6, 350.3) == pytest.approx(0.0018, rel=1e-3)
    assert drag_per_m(12, 350.3) == pytest.approx(4 * 0.0018, rel=1e-3)


def test_a_sentence_and_its_values_must_agree():
    with pytest.raises(KeyError):
        say("{a} and {b}", a=("draw", 1.0))
    with pytest.raises(KeyError):
        say("{a}", a=("draw", 1.0), b=("draw", 1.0))
    said: Said = say("{a}", a=("draw", 28.0, 0.25))
    assert said.plain() == "28 ± 1/4 in"
    assert said.plain({"draw": "mm"}) == "711 ± 6 mm"


class TestCautions:
    """Each where the act is, once and short."""

    def test_feathers_where_the_hand_is_the_shelf_and_the_law_where_one_hunts(self):
        assert finding(told("arrow", **{k.replace(".", "__"): v for k, v in THUMB.items()}), "leading edge")  # fmt: skip
        plain = told("arrow")
        assert not any("leading edge" in f.said.plain() for f in plain.findings)
        assert not any("hunt" in f.said.plain() for f in plain.findings)
        assert finding(told("arrow", use="close_cover"), "hunt", "law")

    def test_a_range_where_one_is_sent_to_shoot(self):
        assert finding(told("nock-point", nock_height_mm=None), "Start at", "safe backstop")

    def test_ways_to_a_draw_that_repeats(self):
        guess = told("draw", archer__draw_method="tape")
        assert "clicker" in finding(guess, "first guess").why.plain()
