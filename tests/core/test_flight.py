"""Flight: nocks on the block, the belief through reads and changes, and what is said of it."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.flight.belief import Change, moved
from lyrandis.core.flight.looks import height_of, side_of
from lyrandis.core.flight.read_filter import CLASSES, prior, shares
from lyrandis.core.flight.read_tests import TESTS, truths
from lyrandis.core.flight.read_words import HOW, TITLES, outcome_words, plain_words
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String
from lyrandis.core.stations import views
from lyrandis.core.trials import KeptTrial
from lyrandis.core.trials.flight_read import FlightReadTrial
from lyrandis.core.trials.walk_back import WalkBackTrial

RIG = Rig(
    bow=Bow(
        form="recurve", length_in=68, marked_weight_lbf=42, takedown=True, side_plate="plunger",
        centre_cut_mm=5, side_plate_mm=4, brace_height_in=8,
    ),
    string=String(mass_gr=105),
    arrow=Arrow(shaft_length_in=29.5, static_spine=600),
    nock_height_mm=10.0,
)  # fmt: skip
MIRROR = str.maketrans({"1": "3", "3": "1", "4": "6", "6": "4", "7": "9", "9": "7"})
CELLS = st.lists(st.integers(1, 9), min_size=1, max_size=6)


def kept(*reads, rigs=None):
    """Reads logged a day after one another, each on its rig."""
    rigs = rigs or [RIG] * len(reads)
    return tuple(
        KeptTrial(i + 1, f"2026-03-{i + 1:02}T10:00:00+00:00", FlightReadTrial(**r), rig)
        for i, (r, rig) in enumerate(zip(reads, rigs, strict=True))
    )


def bench(*reads, rig=RIG, rigs=None):
    return Bench(rig, kept(*reads, rigs=rigs or [rig] * len(reads)))


def nocks(*cells, test="kick_7_paces"):
    return {"test": test, "nocks": cells, "arrows": len(cells)}


def told(test, outcome, arrows=None):
    return {"test": test, "outcome": outcome, "arrows": arrows or TESTS[test].arrows}


def likeliest(b):
    return b.reading.verdict.between[0]


class TestBlock:
    @pytest.mark.parametrize(
        ("hand", "release", "side", "left"),
        [("right", "split", "by_hand", True), ("left", "split", "by_hand", False),
         ("right", "thumb", "by_hand", False), ("left", "thumb", "by_hand", True),
         ("right", "split", "right", False), ("left", "thumb", "right", False),
         ("right", "thumb", "left", True), ("right", "split", "left", True)],
    )  # fmt: skip
    def test_on_which_side_the_arrow_lies(self, hand, release, side, left):
        rig = Rig(archer=Archer(hand=hand, release=release), arrow_side=side)
        assert rig.arrow_left is left
        assert rig.arrow_as_usual is (left == ((hand == "right") != (release == "thumb")))

    @pytest.mark.parametrize(
        ("cells", "side", "height"),
        [((4, 4, 4), "weak", "level"), ((6, 9, 3), "stiff", "level"), ((5, 4, 5), "straight", "level"),
         ((7, 8, 8), "straight", "high"), ((1, 2, 1), "weak", "low"), ((4, 6), "straight", "level")],
    )  # fmt: skip
    def test_most_of_them_count(self, cells, side, height):
        assert (side_of(cells, arrow_left=True), height_of(cells)) == (side, height)

    @given(CELLS)
    def test_an_arrow_on_the_other_side_leans_the_other_way(self, cells):
        mirrored = [int(str(c).translate(MIRROR)) for c in cells]
        assert side_of(cells, arrow_left=True) == side_of(mirrored, arrow_left=False)
        assert height_of(cells) == height_of(mirrored)


class TestWords:
    def test_every_test_and_outcome_has_its_words_on_both_sides(self):
        assert set(TITLES) == set(HOW) == set(TESTS)
        for id, test in TESTS.items():
            for left in (True, False):
                words = [outcome_words(id, o, left) for o in test.outcomes]
                assert len(set(words)) == len(words), id
            assert all(plain_words(id, o) for o in test.outcomes)

    @given(st.sampled_from(["kick_3_paces", "kick_7_paces", "group_25m"]))
    def test_sides_swap_with_the_hand(self, test):
        for outcome in ("weak", "stiff"):
            a, b = (outcome_words(test, outcome, left) for left in (True, False))
            assert ("left" in a) == ("right" in b)
            assert ("right" in a) == ("left" in b)

    def test_a_weak_nock_lies_where_the_plate_is_and_its_bare_shaft_on_the_other_side(self):
        assert "left" in outcome_words("kick_7_paces", "weak", plate_left=True)
        assert "right" in outcome_words("bare_shaft_15m", "weak/level", plate_left=True)


class TestTrial:
    def test_nocks_are_of_the_paces_only(self):
        with pytest.raises(ValidationError, match="three or seven paces"):
            FlightReadTrial(test="wear_marks", nocks=(5,))

    def test_an_outcome_must_be_one_of_the_test(self):
        with pytest.raises(ValidationError, match="holds, swings"):
            FlightReadTrial(test="felt_plate", outcome="weak")
        with pytest.raises(ValidationError, match="no outcome"):
            FlightReadTrial(test="kick_7_paces")

    def test_one_arrow_counts_a_third_of_three(self):
        read = FlightReadTrial(**nocks(4)).readings(arrow_left=True)
        assert [(r.test, r.outcome) for r in read] == [
            ("kick_7_paces", "weak"), ("nock_height", "level"),
        ]  # fmt: skip
        assert [r.counts for r in read] == pytest.approx([1 / 3, 1 / 3])

    def test_it_is_told_in_words(self):
        assert FlightReadTrial(**nocks(4, 5, 9)).said().plain() == (
            "nocks at seven paces: left, straight, high right"
        )
        assert "no scuff" in FlightReadTrial(test="wear_marks", outcome="no").said().plain()


class TestMoved:
    def test_nothing_is_lost_and_the_mean_goes_along(self):
        before, s = prior(), truths().s
        for by in (-1.5, -0.5, 0.5):
            after = moved(before, Change(by))
            assert after.sum() == pytest.approx(1.0)
            assert after @ s - before @ s == pytest.approx(by, abs=0.25)

    def test_a_certain_belief_spreads_by_half_a_group(self):
        w = truths()
        sure = ((w.s == 0) & (w.n_mm == 0)).astype(float)
        after = moved(sure / sure.sum(), Change(1.0))
        assert after @ w.s == pytest.approx(1.0, abs=0.01)
        assert np.sqrt(after @ w.s**2 - (after @ w.s) ** 2) == pytest.approx(0.5, abs=0.03)

    def test_whether_it_bounces_is_drawn_anew(self):
        w = truths()
        clear = ((w.s == 2) & (w.bounces == 0)).astype(float)
        after = shares(moved(clear / clear.sum(), Change(0.0, 0.1)))
        assert after[CLASSES.index("false_weak")] == pytest.approx(0.7, abs=0.05)

    def test_a_raised_nock_moves_only_the_nock(self):
        w, before = truths(), prior()
        after = moved(before, Change(0.0, 0.1, nock_mm=2.0))
        assert after @ w.n_mm == pytest.approx(2.0, abs=0.2)
        assert after @ w.s == pytest.approx(before @ w.s, abs=0.05)

    def test_far_beyond_the_grid_it_lies_at_its_end(self):
        w = truths()
        assert moved(prior(), Change(9.0)) @ w.s == pytest.approx(3.0, abs=0.05)


class TestBelief:
    def test_agreeing_reads_make_it_surer(self):
        one = bench(nocks(4, 4, 4))
        three = bench(nocks(4, 4, 4), told("wear_marks", "no"), nocks(4, 1, 4, test="kick_3_paces"))
        weak = lambda b: b.reading.verdict.classes["weak"]  # noqa: E731
        assert weak(bench()) < weak(one) < weak(three)

    def test_a_scuff_turns_a_weak_read_into_a_bounce(self):
        scuffed = (nocks(4, 4, 4), told("wear_marks", "yes"), told("slow_motion", "bounce"))
        rig = changed(RIG, {"arrow.static_spine": 500.0})
        b = bench(*scuffed, rig=rig)
        assert likeliest(b) == "false_weak"
        assert b.reading.verdict.lacks == "push"
        said = " ".join(f.said.plain() for f in views(b, ["flight"])[0].findings)
        assert "push it before you believe either" in said
        b = bench(*scuffed, told("felt_plate", "swings"), rig=rig)
        said = " ".join(f.said.plain() for f in views(b, ["flight"])[0].findings)
        assert "bounces off the side plate" in said
        assert "do not go stiffer" in said

    def test_an_arrow_put_on_the_other_side_is_read_by_its_side(self):
        """A nock to the right is then weak, and no number of the model is left to say otherwise."""
        other = changed(RIG, {"arrow_side": "right"})
        told = bench(nocks(6, 6, 6), rig=other)
        assert told.reading.kept[0].trial.readings(other.arrow_left)[0].outcome == "weak"
        assert told.reading.verdict.classes["weak"] > told.reading.verdict.classes["stiff"]
        assert told.reading.predicted is None
        assert "other side" in told.arrow.window.outside[0].plain()
        assert outcome_words("kick_7_paces", "weak", other.arrow_left) == "nocks right, looks weak"

    def test_reads_of_the_former_side_say_nothing_of_the_new_one(self):
        told = Bench(changed(RIG, {"arrow_side": "right"}), bench(nocks(4, 4, 4)).trials)
        assert told.reading.kept == []

    @pytest.mark.parametrize("archer", [Archer(hand="left"), Archer(release="thumb")])
    def test_mirrored_reads_of_the_other_hand_come_to_the_same(self, archer):
        own = changed(RIG, {"archer.hand": archer.hand, "archer.release": archer.release})
        error = bench().reading.predicted
        other = bench(nocks(6, 6, 6), rig=own)
        if other.reading.predicted != error:  # a thumb bow has no prediction
            assert other.reading.predicted is None
        assert other.reading.kept[0].trial.readings(own.arrow_left)[0].outcome == "weak"
        assert (
            other.reading.verdict.classes["weak"] > bench(rig=own).reading.verdict.classes["weak"]
        )

    def test_a_change_carries_the_reads_over(self):
        reads = (nocks(4, 4, 4), told("wear_marks", "no"), nocks(4, 4, 1))
        stiffer = changed(RIG, {"arrow.static_spine": 600 / 1.08**3})
        before = bench(*reads)
        after = bench(*reads, rig=stiffer, rigs=[RIG] * 3)
        (m0, _), (m1, _) = before.reading.error_groups, after.reading.error_groups
        assert m1 - m0 == pytest.approx(3.0, abs=0.7)
        assert after.reading.after_change
        assert not after.reading.read_here
        assert after.reading.expected.test == "kick_7_paces"

    def test_what_was_read_before_and_after_a_change_adds_up(self):
        stiffer = changed(RIG, {"arrow.static_spine": 560.0})
        b = bench(nocks(4, 4, 4), nocks(4, 4, 5), rig=stiffer, rigs=[RIG, stiffer])
        assert len(b.reading.states) == 2
        assert b.reading.read_here
        assert np.array(list(b.reading.verdict.classes.values())) == pytest.approx(
            shares(b.reading.belief)
        )

    def test_another_bow_begins_anew(self):
        bow = changed(RIG, {"bow.side_plate": "leather"})
        assert bench(nocks(4, 4, 4), rig=bow, rigs=[RIG]).reading.kept == []

    def test_brace_moves_little_and_adds_doubt(self):
        higher = changed(RIG, {"bow.brace_height_in": 8.5})
        change = bench().reading.change(RIG, higher)
        was, now = (Bench(r).spine_error_groups for r in (RIG, higher))
        assert change.groups == pytest.approx(now - was)
        assert abs(change.groups) < 0.5
        assert change.sd == pytest.approx(np.hypot(0.5, 0.5))

    def test_outside_the_fit_only_the_spine_itself_is_followed(self):
        thumb = changed(RIG, {"archer.release": "thumb"})
        reading = bench(rig=thumb).reading
        stiffer = changed(thumb, {"arrow.static_spine": 600 / 1.08})
        assert reading.change(thumb, stiffer).groups == pytest.approx(1.0)
        assert reading.change(thumb, changed(thumb, {"arrow.point_gr": 150.0})) is None

    def test_a_read_against_is_said_and_a_verdict_is_counted(self):
        weak = [nocks(4, 4, 4), told("wear_marks", "no"), told("slow_motion", "clear"),
                nocks(4, 4, 4, test="kick_3_paces"), told("bare_shaft_15m", "weak2/level")]  # fmt: skip
        rig = changed(RIG, {"arrow.static_spine": 800.0})
        b = bench(*weak, nocks(4, 4, 4), rig=rig)
        assert b.reading.verdict.stop == "found"
        assert (b.reading.held.checked, b.reading.held.held) == (1, 1)
        assert not b.reading.against
        doubted = bench(nocks(4, 4, 4), told("bare_shaft_15m", "stiff2/level"))
        assert doubted.reading.against
        said = " ".join(f.said.plain() for f in views(doubted, ["flight"])[0].findings)
        assert "speaks against" in said

    @pytest.mark.parametrize("as_foretold", [True, False])
    def test_after_a_change_it_says_whether_it_showed_what_it_should(self, as_foretold):
        weak = changed(RIG, {"arrow.static_spine": 800.0})
        cured = changed(RIG, {"arrow.static_spine": 600.0})
        reads = [nocks(4, 4, 4), told("wear_marks", "no"), nocks(4, 4, 4, test="kick_3_paces")]
        assert bench(*reads, rig=weak).reading.foretold is None
        foretold = bench(*reads, rig=cured, rigs=[weak] * 3).reading.expected
        cell = {"weak": 4, "straight": 5, "stiff": 6}[foretold.outcome]
        cell = cell if as_foretold else 6 if cell != 6 else 4
        after = bench(*reads, nocks(cell, cell, cell), rig=cured, rigs=[weak] * 3 + [cured])
        expected, shown, chance = after.reading.foretold
        assert expected == foretold
        assert (shown.outcome == expected.outcome) == as_foretold
        assert expected.chance >= chance
        words = "showed what it should" if as_foretold else "should have shown"
        assert any(words in f.said.plain() for f in views(after, ["flight"])[0].findings)

    def test_what_is_left_out_is_never_offered(self):
        rig = changed(RIG, {"reading.left_out": ["bare_shaft_15m", "slow_motion"]})
        offered = {t.test for t in bench(nocks(4, 4, 4), rig=rig).reading.verdict.next}
        assert not offered & {"bare_shaft_15m", "slow_motion"}
        assert "wear_marks" in offered


class TestSaid:
    def test_next_names_a_test_and_what_its_outcomes_would_mean(self):
        view = views(bench(nocks(4, 4, 4)), ["flight"])[0]
        asked = next(f for f in view.findings if f.said.plain().startswith("Next:"))
        assert "would make it" in asked.why.plain()
        assert "Passed over" in asked.why.plain()

    def test_a_found_fault_offers_a_cure_that_goes_the_right_way(self):
        rig = changed(RIG, {"arrow.static_spine": 800.0})
        reads = [nocks(4, 4, 4), told("wear_marks", "no"), told("slow_motion", "clear"),
                 nocks(4, 4, 4, test="kick_3_paces"), told("bare_shaft_15m", "weak2/level")]  # fmt: skip
        b = bench(*reads, rig=rig)
        action = next(f.action for f in views(b, ["flight"])[0].findings if f.action)
        after = Bench(changed(rig, action.changes), kept(*reads, rigs=[rig] * 5))
        assert abs(after.reading.error_groups[0]) < abs(b.reading.error_groups[0])
        shown = " ".join(f.said.plain() for f in views(after, ["flight"])[0].findings)
        assert "What the next read should show" in shown

    def test_outside_the_fit_there_is_no_button(self):
        thumb = changed(RIG, {"archer.release": "thumb"})
        b = bench(*[nocks(6, 6, 6)] * 3, told("wear_marks", "no"), rig=thumb)
        assert not [f for f in views(b, ["flight"])[0].findings if f.action]

    def test_a_shaft_in_the_false_weak_is_warned_of_before_it_is_shot(self):
        heavy = changed(RIG, {"bow.marked_weight_lbf": 50.0, "arrow.point_gr": 140.0})
        edge = Bench(heavy).arrow.window.false_below
        if edge is None:
            pytest.skip("no false weak on this bow")
        stiff = changed(heavy, {"arrow.static_spine": edge * 0.95})
        said = " ".join(f.said.plain() for f in views(Bench(stiff), ["flight"])[0].findings)
        assert "will look weak" in said


class TestWalkBack:
    """The walk-back on the rig: its visits, what they say, and when it begins anew."""

    def kept(self, *visits, rig=RIG):
        return tuple(
            KeptTrial(
                i + 1, f"2026-03-{i + 1:02}T10:00:00+00:00",
                WalkBackTrial(distance_m=d, offsets_cm=o), rig,
            )
            for i, (d, o) in enumerate(visits)
        )  # fmt: skip

    def said(self, bench):
        return " ".join(f.said.plain() for f in views(bench, ["flight"])[0].findings)

    SLANT = ((8, (1, 2, 1.5)), (18, (9, 10, 11)), (28, (19, 20, 18)))

    def test_a_slant_is_told_and_leads_to_centre_shot(self):
        b = Bench(RIG, self.kept(*self.SLANT))
        assert b.walk_back.told.verdict == "slant"
        finding = next(
            f for f in views(b, ["flight"])[0].findings if "arrows run right" in f.said.plain()
        )
        assert finding.action.station == "centre-shot"
        line = dict(b.walk_back.told.line([8, 28], 3))
        assert line[28.0] - line[8.0] == pytest.approx(
            2 * b.walk_back.told.slant_cm_per_10m.value, rel=1e-6
        )
        assert line[8.0] == pytest.approx(1.5, abs=1.0)

    def test_two_distances_say_what_is_missing(self):
        b = Bench(RIG, self.kept(*self.SLANT[:2]))
        assert b.walk_back.told is None
        assert "three distances at least" in self.said(b)

    def test_another_plate_begins_it_anew_and_another_use_does_not(self):
        kept = self.kept(*self.SLANT)
        moved_out = changed(RIG, {"bow.side_plate_mm": 5.0})
        assert Bench(moved_out, kept).walk_back.visits == []
        assert len(Bench(changed(RIG, {"use": "range"}), kept).walk_back.visits) == 3

    def test_few_arrows_say_that_they_are_few(self):
        b = Bench(RIG, self.kept((8, (1.0,)), (18, (-2.0,)), (28, (3.0,))))
        assert b.walk_back.told.verdict == "unclear"
        assert "Nothing counts yet" in self.said(b)
