"""In line: the lever of the string, what looks come to, and what the station says of them."""

import math
from dataclasses import replace

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Bow, Rig
from lyrandis.core.route import due_after
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import InLineTrial, KeptTrial
from lyrandis.core.tune.in_line import Seen, in_line, side_gains_mm

TAKEDOWN = Rig(bow=Bow(length_in=68, riser_in=25))
ONE_PIECE = Rig(bow=Bow(form="longbow", takedown=False, length_in=66, centre_cut_mm=-6))


def looked(rig, *looks):
    made = [
        KeptTrial(i, f"2026-05-{i:02d}T10:00:00+00:00", InLineTrial(**look), rig)
        for i, look in enumerate(looks, 1)
    ]
    return Bench(rig, tuple(made), "2026-06-01T10:00:00+00:00")


def told(b):
    return TELLERS["in-line"].tell(b)


def said(b):
    return [(f.level, f.said.plain()) for f in told(b).findings]


def test_the_string_is_straight_from_tip_to_tip():
    """Against the line drawn through both tips, one of them swung by a turn."""
    bow, degrees = Bow(length_in=68, riser_in=25), 0.8
    tips = 34.0 * 25.4
    mark = (12.5 + 1.5) * 25.4
    swung = math.tan(math.radians(degrees)) * 21.5 * 25.4

    def at(y, upper, lower):
        return lower + (upper - lower) * (y + tips) / (2 * tips)

    by_hand = [
        [at(mark, swung, 0), at(mark, 0, swung)],
        [at(-mark, swung, 0), at(-mark, 0, swung)],
    ]
    assert side_gains_mm(bow, degrees) == [pytest.approx(row) for row in by_hand]


def test_turns_add_up_and_looks_without_marks_are_passed_over():
    looks = [Seen(4, -1, None, 0, 0), Seen(None, None, 0.5, -0.5, 0), Seen(1, 0, None, -0.25, 0.5)]
    both = in_line(TAKEDOWN.bow, 0.8, looks)
    alone = in_line(TAKEDOWN.bow, 0.8, [looks[0], Seen(1, 0, None, -0.75, 0.5)])
    assert both.learnt == alone.learnt
    assert (both.riser_mm, both.favoured, both.looks) == (0.5, "middle", 3)
    assert in_line(TAKEDOWN.bow, 0.8, []).learnt is None


def test_a_bow_is_brought_in_line_by_what_the_station_says():
    """Bows whose pockets turn otherwise than the geometry, set right look by look."""
    rng, done = np.random.default_rng(7), 0
    for _ in range(60):
        own = np.array(side_gains_mm(TAKEDOWN.bow, 0.8)) * rng.uniform(0.5, 2.0, 2)
        start, turns, looks, last = rng.uniform(-6, 6, 2), np.zeros(2), [], np.zeros(2)
        for _ in range(5):
            now = start + own @ turns
            read = now + rng.normal(0, 0.5, 2)
            looks.append(
                {"upper_mm": read[0], "lower_mm": read[1], "upper_turns": last[0],
                 "lower_turns": last[1]}
            )  # fmt: skip
            learnt = looked(TAKEDOWN, *looks).in_line.told.learnt
            if not any(learnt.step_turns):
                break
            last = np.array(learnt.step_turns)
            turns = turns + last
        done += bool(np.all(np.abs(start + own @ turns) <= 1.5))
    assert done >= 54


class TestTheStation:
    def test_before_anybody_looked(self):
        assert "should move it by about 5.4" in told(looked(TAKEDOWN)).said.plain()
        assert "block with a centre mark" in said(looked(TAKEDOWN))[0][1]
        assert "which side of the grip" in told(looked(ONE_PIECE)).said.plain()

    def test_what_to_turn_and_what_it_should_then_read(self):
        b = looked(TAKEDOWN, {"upper_mm": 6, "lower_mm": 0})
        (finding,) = told(b).findings
        assert finding.said.values["upper"].value > 0
        text = finding.said.plain()
        assert "the upper pocket by" in text
        assert "to the left" in text
        assert "of the upper mark" in text

    def test_in_line_asks_to_draw_it_a_little_and_then_leaves_it(self):
        near = {"upper_mm": 0.5, "lower_mm": -0.5}
        assert [level for level, _ in said(looked(TAKEDOWN, near))] == ["fine", "mind"]
        assert [level for level, _ in said(looked(TAKEDOWN, near | {"drawn": "tracks"}))] == [
            "fine"
        ]

    @pytest.mark.parametrize(
        ("look", "words"),
        [
            ({"twist": "upper"}, "upper limb is twisted"),
            ({"drawn": "leaves"}, "leaves it when drawn"),
        ],
    )
    def test_what_is_the_makers_business(self, look, words):
        b = looked(TAKEDOWN, {"upper_mm": 0, "lower_mm": 0} | look)
        assert any(words in text and level == "mind" for level, text in said(b))

    def test_a_look_that_no_turn_explains_asks_for_another_and_for_nothing_else(self):
        calm = [{"upper_mm": 4, "lower_mm": 0},
                {"upper_mm": 1.5, "lower_mm": -1, "upper_turns": -0.5}]  # fmt: skip
        odd = {"upper_mm": 12, "lower_mm": -1}
        b = looked(TAKEDOWN, *calm, odd)
        (finding,) = told(b).findings
        assert "slipped screw" in finding.said.plain()
        assert told(b).said.plain().endswith("by all looks but the latest.")
        assert TELLERS["in-line"].note(b).plain() == "look again"
        assert any("Turn the upper" in text for _, text in said(looked(TAKEDOWN, *calm, odd, odd)))

    def test_a_turn_that_did_otherwise_is_said_with_the_next_step(self):
        b = looked(TAKEDOWN, {"upper_mm": 6, "lower_mm": 0},
                   {"upper_mm": 9, "lower_mm": 1, "upper_turns": -1})  # fmt: skip
        (finding,) = told(b).findings
        assert "did not do what was expected" in finding.said.plain()
        assert finding.said.values["upper"].value > 0

    def test_a_struck_look_that_turned_parts_what_was_before_it_from_what_is_after(self):
        looks = [{"upper_mm": 6, "lower_mm": 0}, {"upper_mm": 3, "lower_mm": 0, "upper_turns": -0.5},
                 {"upper_mm": 2, "lower_mm": 0, "upper_turns": -0.25}]  # fmt: skip
        b = looked(TAKEDOWN, *looks)
        first, second, third = b.trials
        struck = Bench(TAKEDOWN, (first, replace(second, struck=True), third))
        assert struck.in_line.told == looked(TAKEDOWN, looks[2]).in_line.told
        without = Bench(TAKEDOWN, (replace(first, struck=True), second, third))
        assert without.in_line.told == looked(TAKEDOWN, *looks[1:]).in_line.told

    def test_other_limbs_begin_anew(self):
        rig = changed(TAKEDOWN, {"on.upper_limb": "a" * 32})
        b = looked(rig, {"upper_mm": 0, "lower_mm": 0})
        other = changed(rig, {"on.upper_limb": "b" * 32})
        assert Bench(other, b.trials).in_line.latest is None
        assert b.in_line.latest is not None

    @pytest.mark.parametrize(
        ("offset", "cut", "side", "words"),
        [(3, -6, "by_hand", "arrow on the right side"), (-3, -6, "right", "arrow on the left side"),
         (-3, -6, "by_hand", "lies on it: left"), (3, -6, "right", "lies on it: right"),
         (3, 1, "by_hand", "shelf decides"), (0.4, -6, "by_hand", "Either side")],
    )  # fmt: skip
    def test_the_favoured_side_of_a_bow_in_one_piece(self, offset, cut, side, words):
        rig = changed(ONE_PIECE, {"bow.centre_cut_mm": cut, "arrow_side": side})
        assert words in said(looked(rig, {"riser_mm": offset}))[0][1]

    def test_the_advice_asks_for_the_side_and_is_content_once_it_is_told(self):
        rig = changed(ONE_PIECE, {"bow.centre_cut_mm": -6})
        b = looked(rig, {"riser_mm": 3})
        (asked,) = [f for f in TELLERS["in-line"].tell(b).findings if f.action]
        assert asked.action.changes == {"arrow_side": "right"}
        after = TELLERS["in-line"].tell(b.with_changes(asked.action.changes)).findings
        assert [f.level for f in after] == ["fine"]


class TestTheTrial:
    def test_it_reads_as_a_sentence_and_as_a_row(self):
        look = InLineTrial(upper_mm=3, lower_mm=-1, riser_mm=0, upper_turns=-0.5, drawn="tracks")
        assert look.said().plain() == (
            "string 3.0 mm right of the upper mark, 1.0 mm left of the lower mark, over the riser's "
            "middle, after −1/2 turns above and 0 turns below, drawn, it keeps its line"
        )
        assert look.columns()["upper mark (mm, right +)"] == 3

    @pytest.mark.parametrize("look", [{}, {"upper_mm": 2.0}, {"upper_mm": 90.0, "lower_mm": 0.0}])
    def test_what_tells_nothing_is_refused(self, look):
        with pytest.raises((ValueError, RefusedError)):
            InLineTrial(**look)


def test_it_is_due_after_other_limbs_and_not_after_another_string():
    assert "in-line" in due_after("upper_limb")
    assert "in-line" in due_after("riser")
    assert "in-line" not in due_after("string")
