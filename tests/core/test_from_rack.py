"""Fit from the rack: what can be built for an archer, what speaks against it, and its ranking."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.fit.hold import Held, Strength
from lyrandis.core.from_rack import Asking, Lying, bench_of, rack_fit, rig_of, stops
from lyrandis.core.from_rack.built import with_part
from lyrandis.core.parts import (
    ArcherPart,
    ArrowSet,
    BowPart,
    Keeping,
    LimbPart,
    Part,
    RiserPart,
    Shaft,
    StringPart,
)
from lyrandis.core.stations.dangers import dangers
from lyrandis.core.trials import (
    BraceTrial,
    CoachTrial,
    HoldTrial,
    InLineTrial,
    KeptTrial,
    WeighingTrial,
)

MARK = "f" * 32


def mark(n):
    return f"{n:032x}"


def lie(n, of, name="", **more):
    return Lying(mark(n), Part(name=name or f"Part {n}", of=of), **more)


def archer(**of):
    made = ArcherPart(**{"draw_length_in": 27.0, "release": "split"} | of)
    return Part(name="Ada", of=made)


ASKING = Asking(MARK, archer(), "woodland", now="2026-07-01T10:00:00+00:00")
BOW = BowPart(form="hybrid", length_in=64, marked_weight_lbf=32, side_plate="leather",
              centre_cut_mm=-1, cut_for="both")  # fmt: skip
STRING = StringPart(length_in=61.25, strands=12)
ARROWS = ArrowSet(shaft_length_in=29, static_spine=820, grains_per_inch=9)


def limb(which="unknown", weight=34.0, **more):
    return LimbPart(**{"which": which, "limb_class": "medium", "marked_weight_lbf": weight, **more})


def only(fit):
    (build,) = fit.builds
    return build


def said(findings, level=None):
    return [f.said.plain() for f in findings if level in (None, f.level)]


def held(rig, *holds):
    """Holds as (weight, seconds, how it ended) on a rig, one a minute."""
    return [
        KeptTrial(i, f"2026-06-01T10:{i:02d}:00+00:00",
                  HoldTrial(weight_lbf=w, seconds=s, ended=e), rig, rig_id=1)
        for i, (w, s, e) in enumerate(holds, 1)
    ]  # fmt: skip


class TestWhatCanBeBuilt:
    def test_a_bow_with_its_string_and_arrows_and_their_numbers(self):
        build = only(rack_fit(ASKING, [lie(1, BOW), lie(2, STRING), lie(3, ARROWS)]))
        assert (build.level, build.free, build.lacks) == ("mind", True, [])
        assert build.length_in == 64
        rig = rig_of(
            ASKING,
            {"bow": (mark(1), Part(name="b", of=BOW)), "string": (mark(2), Part(name="s", of=STRING)),
             "arrows": (mark(3), Part(name="a", of=ARROWS))},
        )  # fmt: skip
        assert (rig.bow.length_in, rig.string.length_in, rig.arrow.static_spine) == (64, 61.25, 820)
        assert rig.on.archer == MARK
        b = bench_of(ASKING, {"bow": (mark(1), Part(name="b", of=BOW))})
        assert build.weight.value == pytest.approx(b.bow.weight.value)
        assert build.angle_deg == pytest.approx(b.bow.angle_deg)
        assert [s.verdict for s in build.schools] == [s.verdict for s in b.fit.schools]
        (untimed,) = said(build.findings, "mind")  # else only the set's school's floor
        assert "nobody timed a hold" in untimed

    def test_a_riser_and_two_limbs_that_belong_together(self):
        riser = RiserPart(riser_in=25, cut_for="right")
        lying = [lie(1, riser), lie(2, limb("upper")), lie(3, limb("lower")),
                 lie(4, limb("upper", 44)), lie(5, limb(weight=34.0, limb_class="long"))]  # fmt: skip
        fit = rack_fit(ASKING, lying)
        build = only(fit)
        assert [(p.slot, p.mark) for p in build.parts] == [
            ("riser", mark(1)), ("upper_limb", mark(2)), ("lower_limb", mark(3))]  # fmt: skip
        assert build.length_in == 25 + 43
        assert [left.mark for left in fit.left] == [mark(4), mark(5)]

    @pytest.mark.parametrize(
        ("one", "other", "together"),
        [
            (limb("upper"), limb("lower"), True),
            (limb("upper"), limb("upper"), False),
            (limb("upper", 34), limb("lower", 35.7), True),
            (limb("upper", 34), limb("lower", 35.8), False),
            (limb("upper"), limb("lower", maker_max_draw_in=29), False),
            (limb("upper"), limb("lower", marked_riser_in=23), False),
            (limb(), limb(), True),
            (limb("lower"), limb(), True),
        ],
    )
    def test_which_two_limbs_belong_together(self, one, other, together):
        made = rack_fit(ASKING, [lie(1, RiserPart(riser_in=25)), lie(2, one), lie(3, other)]).builds
        assert len(made) == together
        if together:
            assert {p.mark for p in made[0].parts} == {mark(1), mark(2), mark(3)}

    def test_what_cannot_be_built_of_says_why(self):
        lying = [
            lie(1, RiserPart()), lie(2, limb(limb_class=None)), lie(3, limb(weight=None)),
            lie(4, limb(form="longbow")), lie(5, BOW, stopped=say("cracks")),
        ]  # fmt: skip
        fit = rack_fit(ASKING, lying)
        assert fit.builds == []
        assert [left.why.plain() for left in fit.left] == [
            "its length is not set", "short, medium or long is not set",
            "its marked weight is not set",
            "only limbs of the common recurve fitting are built up here", "cracks",
        ]  # fmt: skip

    def test_only_an_archer_asks(self):
        with pytest.raises(RefusedError, match="not an archer"):
            rack_fit(replace(ASKING, archer=Part(name="B", of=BOW)), [])

    def test_an_empty_rack_builds_nothing(self):
        assert rack_fit(ASKING, []).builds == []


class TestWhatDoesNotFit:
    @pytest.mark.parametrize(
        ("hand", "release", "cut_for", "level"),
        [
            ("right", "split", "right", "fine"),
            ("right", "split", "left", "stop"),
            ("left", "split", "left", "fine"),
            ("right", "thumb", "left", "fine"),
            ("right", "thumb", "right", "stop"),
            ("left", "three_under", "both", "fine"),
            ("left", "split", "unknown", "mind"),
        ],
    )
    def test_the_hand(self, hand, release, cut_for, level):
        asking = replace(ASKING, archer=archer(hand=hand, release=release))
        bow = BOW.model_copy(update={"cut_for": cut_for})
        found = only(rack_fit(asking, [lie(1, bow)])).findings
        told = [f.level for f in found if "hand" in f.said.text]
        assert told == ([] if level == "fine" else [level])

    def test_a_draw_past_what_the_maker_allows(self):
        bow = BOW.model_copy(update={"maker_max_draw_in": 26.0})
        build = only(rack_fit(ASKING, [lie(1, bow), lie(2, STRING), lie(3, ARROWS)]))
        assert (build.level, build.weight, build.strings, build.lacks) == ("stop", None, [], [])
        assert "26 in" in said(build.findings, "stop")[0]

    def test_what_was_too_much_to_hold_stops_and_what_is_more_than_was_held_is_minded(self):
        rig = rig_of(ASKING, {})
        for holds, level in (
            ([(31.0, 12.0, "shaking")] * 3, "fine"),
            ([(29.65, 12.0, "shaking")] * 3, "mind"),
            ([(26.0, 12.0, "shaking")] * 3, "stop"),
            ([(29.0, 4.0, "shaking")], "stop"),
            ([(30.0, 12.0, "shaking")] * 3 + [(30.0, 12.0, "pain")], "stop"),
            ([(40.0, 4.0, "shaking")], "mind"),
        ):
            asking = replace(ASKING, trials=held(rig, *holds))
            build = only(rack_fit(asking, [lie(1, BOW)]))
            about = ("held", "hold")
            told = [f.level for f in build.findings if any(word in f.said.text for word in about)]
            assert told == [level], holds

    def test_holds_of_somebody_else_say_nothing(self):
        rig = rig_of(replace(ASKING, mark="e" * 32), {})
        asking = replace(ASKING, trials=held(rig, (29.0, 4.0, "pain")))
        build = only(rack_fit(asking, [lie(1, BOW)]))
        assert build.level == "mind"
        assert "nobody timed a hold" in " ".join(said(build.findings, "mind"))

    def test_a_heavy_bow_for_a_child_needs_a_coachs_word(self):
        asking = replace(ASKING, archer=archer(grown="child"))
        lying = [lie(1, BOW.model_copy(update={"marked_weight_lbf": 26.0}))]
        assert only(rack_fit(asking, lying)).level == "stop"
        word = CoachTrial(weight_lbf=30, word="R. Vale")
        kept = KeptTrial(1, "2026-06-01T10:00:00+00:00", word, rig_of(asking, {}), rig_id=1)
        assert only(rack_fit(replace(asking, trials=(kept,)), lying)).level != "stop"

    def test_a_string_by_its_length(self):
        needed = bench_of(ASKING, {"bow": (mark(1), Part(name="b", of=BOW))})
        needed = needed.string.fit.needed_length_in
        for off, level in (
            (0.0, "fine"),
            (-1.0, "mind"),
            (1.0, "mind"),
            (-1.5, "stop"),
            (2, "stop"),
        ):
            string = StringPart(length_in=needed + off, strands=12)
            (option,) = only(rack_fit(ASKING, [lie(1, BOW), lie(2, string)])).strings
            assert option.level == level, off
        # Nobody measured it: the bow it was on tells as much as it can.
        for long_in, level in ((None, "mind"), (needed + 2, "mind"), (needed + 3, "stop")):
            lying = lie(2, StringPart(strands=12), long_in=long_in)
            (option,) = only(rack_fit(ASKING, [lie(1, BOW), lying])).strings
            assert option.level == level, long_in

    def test_a_string_known_on_this_bow_is_known_better_than_by_its_length(self):
        on = {
            "bow": (mark(1), Part(name="b", of=BOW)),
            "string": (mark(2), Part(name="s", of=STRING)),
        }
        rig = rig_of(ASKING, on)
        for brace, level in ((7.25, "fine"), (6.8, "fine"), (6.0, "stop")):
            seen = BraceTrial(brace_height_in=brace)
            kept = KeptTrial(1, "2026-06-01T10:00:00+00:00", seen, rig, rig_id=1)
            asking = replace(ASKING, trials=(kept,))
            (option,) = only(rack_fit(asking, [lie(1, BOW), lie(2, STRING)])).strings
            assert option.level == level, brace
            assert any("gave on this bow" in f.said.text for f in option.findings)

    def test_arrows_too_short_too_light_too_weak_or_broken(self):
        for changes, level, told in (
            ({}, "fine", None),
            ({"grains_per_inch": 6.5}, "mind", "by form and size it would be"),
            ({"shaft_length_in": 27.0}, "stop", "not draw it|longer than"),
            ({"grains_per_inch": 4.0, "point_gr": 30.0}, "stop", "Too light"),
            ({"static_spine": 500.0}, "mind", "looks stiff"),
            ({"shafts": (Shaft(number=1, state="broken"),)}, "stop", "No shaft"),
            ({"shafts": tuple(Shaft(number=n) for n in (1, 2))}, "mind", "Only 2"),
        ):
            arrows = ARROWS.model_copy(update=changes)
            (option,) = only(rack_fit(ASKING, [lie(1, BOW), lie(2, STRING), lie(3, arrows)])).sets
            assert option.level == level, (changes, said(option.findings))
            if told:
                assert any(part in " ".join(said(option.findings)) for part in told.split("|"))

    def test_what_lacks_is_named_so_that_it_fits(self):
        lying = [
            lie(1, BOW),
            lie(2, StringPart(length_in=50)),
            lie(3, ArrowSet(shaft_length_in=24)),
        ]
        build = only(rack_fit(ASKING, lying))
        string, arrows = (lack.values for lack in build.lacks)
        named = [
            *lying,
            lie(4, StringPart(length_in=string["length"].value, strands=12)),
            lie(5, ArrowSet(shaft_length_in=arrows["length"].value,
                            static_spine=arrows["spine"].value,
                            grains_per_inch=(arrows["mass"].value - 140) / arrows["length"].value)),
        ]  # fmt: skip
        again = only(rack_fit(ASKING, named))
        assert again.lacks == []
        assert [again.strings[0].part.mark, again.sets[0].part.mark] == [mark(4), mark(5)]
        assert again.level != "stop"


class TestTheSideOfTheArrow:
    """What In line advised of a bow without a shelf is not refused on the rack."""

    WRONG = BOW.model_copy(update={"cut_for": "left", "centre_cut_mm": -6.0})

    def fit(self, bow, riser_mm):
        rig = rig_of(ASKING, {"bow": (mark(1), Part(name="b", of=bow))})
        look = KeptTrial(
            1, "2026-06-01T10:00:00+00:00", InLineTrial(riser_mm=riser_mm), rig, rig_id=1
        )
        return only(rack_fit(replace(ASKING, trials=(look,)), [lie(1, bow)]))

    @pytest.mark.parametrize(
        ("bow", "riser_mm", "level"),
        [(WRONG, 3.0, "fine"), (WRONG, -3.0, "stop"), (WRONG, 0.2, "stop"),
         (WRONG.model_copy(update={"centre_cut_mm": -1.0}), 3.0, "stop")],
    )  # fmt: skip
    def test_the_favoured_side_counts_where_no_shelf_decides(self, bow, riser_mm, level):
        build = self.fit(bow, riser_mm)
        told = [
            f.level for f in build.findings if "favours" in f.said.text or "made for" in f.said.text
        ]
        assert told == [level]

    def test_the_rig_that_comes_of_it_has_the_arrow_there(self):
        rig = rig_of(ASKING, {"bow": (mark(1), Part(name="b", of=self.WRONG))})
        assert (rig.arrow_side, rig.arrow_left) == ("right", False)
        usual = rig_of(ASKING, {"bow": (mark(1), Part(name="b", of=BOW))})
        assert usual.arrow_side == "by_hand"


class TestRanking:
    def test_free_before_taken_and_what_does_not_fit_last(self):
        lent = Keeping(state="lent", to="Bo", since="2026-05-01", due_back="2026-09-01")
        wrong = BOW.model_copy(update={"cut_for": "left"})
        lying = [
            lie(1, wrong, "wrong"),
            Lying(mark(2), Part(name="lent", of=BOW, keeping=lent)),
            lie(3, BOW, "taken", others=("Bo's rig",)),
            lie(4, BOW.model_copy(update={"marked_weight_lbf": 30.0}), "heavier"),
            lie(5, BOW.model_copy(update={"marked_weight_lbf": 28.0}), "lighter"),
            lie(6, BOW.model_copy(update={"marked_weight_lbf": 26.0}), "own", own=("Ada's rig",)),
        ]
        builds = rack_fit(ASKING, lying).builds
        names = [b.parts[0].name for b in builds]
        assert names[:3] == ["own", "lighter", "heavier"]
        assert (set(names[3:5]), names[5]) == ({"lent", "taken"}, "wrong")
        where = {b.parts[0].name: b.parts[0].where for b in builds}
        assert where["lent"].plain() == "lent to Bo, back by 2026-09-01"
        assert where["taken"].plain() == "on Bo's rig"
        assert where["lighter"] is None

    def test_a_wish_for_less_weight_is_minded(self):
        weight = only(rack_fit(ASKING, [lie(1, BOW)])).weight.value
        for most, level in ((weight - 1, "mind"), (weight - 5, "stop")):
            build = only(rack_fit(replace(ASKING, most_lbf=most), [lie(1, BOW)]))
            assert any("you asked for" in text for text in said(build.findings, level))

    def ranked(self, weights, *holds, most=None):
        """The names of bows of some weights at the draw, by a scale, as they are ranked."""
        rig = rig_of(ASKING, {})
        asking = replace(ASKING, most_lbf=most, trials=held(rig, *holds))
        bows = [
            lie(n, BOW.model_copy(update={"marked_weight_lbf": float(w)}), f"{w}")
            for n, w in enumerate(weights)
        ]
        return rack_fit(asking, bows).builds

    def test_strength_is_weighed_and_not_counted(self):
        """Held 30, and wished for no more: neither comes, but the nearer one is the nearer."""
        builds = self.ranked([53, 35], *[(30.0, 12.0, "shaking")] * 3, most=30.0)
        assert [(b.parts[0].name, b.level) for b in builds] == [("35", "stop"), ("53", "stop")]

    def test_what_lies_between_held_and_failed_is_no_first_choice(self):
        holds = [(26.0, 12.0, "shaking")] * 3 + [(32.0, 4.0, "shaking")]
        builds = self.ranked([32, 26], *holds)
        assert [(b.parts[0].name, b.level == "stop") for b in builds] == [
            ("26", False),
            ("32", True),
        ]

    def test_untimed_the_lightest_comes_first_with_the_hold_to_make(self):
        builds = self.ranked([63, 48, 30])
        assert [b.parts[0].name for b in builds] == ["30", "48", "63"]
        for build in builds:
            assert "time 3 holds of 10.0 s with it" in " ".join(said(build.findings, "mind"))

    def test_after_pain_only_much_lighter_bows_are_left(self):
        builds = self.ranked([24, 36], (38.0, 5.0, "pain"))
        assert [(b.parts[0].name, b.level) for b in builds] == [("24", "mind"), ("36", "stop")]
        assert "ended in pain" in " ".join(said(builds[0].findings, "mind"))

    def test_progress_is_told_and_may_stop_the_work(self):
        lying, seen = [lie(n, BOW) for n in range(4)], []
        rack_fit(ASKING, lying, seen.append)
        assert seen == [0.0, 0.25, 0.5, 0.75]

        def enough(share):
            if share >= 0.5:
                raise InterruptedError

        with pytest.raises(InterruptedError):
            rack_fit(ASKING, lying, enough)


def test_what_was_weighed_of_a_bow_on_another_rig_is_known():
    rig = rig_of(ASKING, {"bow": (mark(1), Part(name="b", of=BOW))})
    readings = ((20.0, 22.0), (24.0, 30.0), (27.0, 36.0), (28.0, 38.0))
    kept = KeptTrial(
        1, "2026-06-01T10:00:00+00:00", WeighingTrial(readings=readings), rig, rig_id=1
    )
    build = only(rack_fit(replace(ASKING, trials=(kept,)), [lie(1, BOW)]))
    assert build.weight.source == "measured"
    assert build.weight.value == pytest.approx(36.0, abs=0.05)


def test_strength_is_the_latest_word_at_each_weight():
    assert Strength((Held(30, 12, False),) * 2).lasting_lbf is None
    got = Strength((Held(30, 4, False), *[Held(30, 12, False)] * 3, Held(40, 5, True)))
    assert (got.lasting_lbf, got.too_much_lbf) == (30, 40)


BOWS = st.builds(
    BowPart,
    form=st.sampled_from(["longbow", "hybrid", "recurve", "static_tip"]),
    length_in=st.sampled_from([52.0, 58.0, 62.0, 66.0, 70.0]),
    marked_weight_lbf=st.floats(12, 70),
    cut_for=st.sampled_from(["right", "left", "both"]),
    maker_max_draw_in=st.sampled_from([None, 28.0, 30.0]),
    low_stretch_rated=st.sampled_from(["yes", "no", "unknown"]),
    side_plate=st.sampled_from(["leather", "plunger"]),
)
STRINGS = st.builds(
    StringPart,
    material=st.sampled_from(["polyester", "low_stretch"]),
    length_in=st.one_of(st.none(), st.floats(46, 68)),
    strands=st.integers(8, 22),
)
SETS = st.builds(
    ArrowSet,
    shaft_length_in=st.floats(24, 33),
    static_spine=st.floats(300, 1200),
    grains_per_inch=st.floats(5, 14),
)
ARCHERS = st.builds(
    ArcherPart,
    draw_length_in=st.floats(23, 31),
    release=st.sampled_from(["split", "three_under", "thumb"]),
    hand=st.sampled_from(["right", "left"]),
    grown=st.sampled_from(["adult", "child"]),
    draw_method=st.sampled_from([None, "marked_arrow"]),
    draw_plus_minus_in=st.sampled_from([None, 0.2, 0.6]),
)


@settings(max_examples=25, deadline=None)
@given(ARCHERS, st.lists(BOWS, min_size=1, max_size=2), st.lists(STRINGS, max_size=2),
       st.lists(SETS, max_size=2))  # fmt: skip
def test_nothing_that_is_offered_makes_a_stop_on_the_rig_that_comes_of_it(who, bows, strings, sets):
    asking = replace(ASKING, archer=Part(name="Who", of=who))
    things = [*bows, *strings, *sets]
    lying = [lie(n, of) for n, of in enumerate(things)]
    builds = rack_fit(asking, lying).builds
    assert len(builds) == len(bows)
    assert [b.level == "stop" for b in builds] == sorted(b.level == "stop" for b in builds)
    known = {one.mark: one.part for one in lying}
    for build in builds:
        bow = build.parts[0].mark
        if build.level == "stop" or build.lacks:
            continue
        b = bench_of(asking, {"bow": (bow, known[bow])})
        for slot, option in (("string", build.strings[0]), ("arrows", build.sets[0])):
            b = with_part(asking, b, slot, option.part.mark, known[option.part.mark])
        arrows = known[build.sets[0].part.mark]
        assert stops(b, asking, known[bow], arrows) == []
        assert [d for d in dangers(b) if d.station not in ("crawls", "brace")] == []


def test_a_riser_and_a_limb_say_of_each_field_what_a_bow_says():
    for model in (RiserPart, LimbPart):
        shared = model.model_fields.keys() & BowPart.model_fields.keys() - {"kind", "cut_for"}
        for name in shared - {"marked_weight_lbf"}:  # a limb may have no marking
            own, bows = model.model_fields[name], BowPart.model_fields[name]
            assert (own.annotation, own.title) == (bows.annotation, bows.title), name
            assert own.metadata == bows.metadata, name
