"""The spine that leaves cleanly, and the shaft seen from the side."""

import math

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.bench import Bench
from lyrandis.core.bench.movers import MOVERS, what_moves
from lyrandis.core.fields import changed
from lyrandis.core.flex.match import SMOOTH_LN, match, searched, smoothed
from lyrandis.core.parts import Arrow, Bow, Rig, String

TAKEDOWN = Rig(
    bow=Bow(
        form="recurve", length_in=68, marked_weight_lbf=42, takedown=True, side_plate="plunger",
        centre_cut_mm=5, side_plate_mm=4, brace_height_in=8,
    ),
    string=String(mass_gr=105),
    arrow=Arrow(shaft_length_in=29.5),
)  # fmt: skip
SHELF = changed(
    TAKEDOWN,
    {"bow.side_plate": "leather", "bow.centre_cut_mm": 2.0, "bow.side_plate_mm": 2.0,
     "bow.takedown": False},
)  # fmt: skip
THUMB = changed(TAKEDOWN, {"archer.release": "thumb"})


class TestSmoothed:
    def test_a_straight_line_stays_what_it_was(self):
        x = np.linspace(5.0, 7.0, 41)
        at, told = smoothed(x, 3.0 - 2.0 * x)
        assert told == pytest.approx(3.0 - 2.0 * at)
        assert at[0] >= x[0] + SMOOTH_LN - 1e-9
        assert at[-1] <= x[-1] - SMOOTH_LN + 1e-9

    def test_a_jump_becomes_a_slope_as_wide_as_the_window(self):
        x = np.linspace(-1.0, 1.0, 4001)
        at, told = smoothed(x, np.where(x < 0, 1.0, -1.0))
        assert np.interp(0.0, at, told) == pytest.approx(0.0, abs=0.02)
        assert np.interp(SMOOTH_LN / 2, at, told) == pytest.approx(-0.5, abs=0.02)


class TestMatch:
    """A curve with its false weak, its maximum and its match where they are put."""

    guess = 600.0

    def curve(self, clean):
        spine = searched(self.guess, 200)
        return match(spine, clean(np.log(spine / self.guess)), self.guess)

    def test_the_crossing_behind_the_maximum_and_the_one_before_it(self):
        found = self.curve(lambda x: 5 - 60 * (x + 0.2) ** 2)
        half = math.sqrt(5 / 60 - SMOOTH_LN**2 / 3)  # the window lowers a parabola a little
        assert found.match == pytest.approx(self.guess * math.exp(-0.2 + half), rel=1e-3)
        assert found.false_below == pytest.approx(self.guess * math.exp(-0.2 - half), rel=1e-3)
        assert found.slope_deg == pytest.approx(0.06 * 2 * 60 * half, rel=0.01)
        assert not found.flat

    def test_none_where_nothing_crosses_and_never_the_edge(self):
        for always in (3.0, -3.0):
            found = self.curve(lambda x, a=always: np.full_like(x, a))
            assert (found.match, found.false_below, found.slope_deg) == (None, None, None)

    def test_a_crossing_from_weak_to_stiff_is_no_match(self):
        found = self.curve(lambda x: -2 + 4 * (x > 0.3))
        assert found.match is None

    def test_flat_crossings_widen_the_window(self):
        steep, flat = (self.curve(lambda x, k=k: -k * x) for k in (50.0, 5.0))
        assert (steep.flat, steep.wider) == (False, 0.0)
        assert flat.flat
        assert flat.wider == pytest.approx(0.06 * 1 / 0.3, rel=0.01)
        assert self.curve(lambda x: -0.01 * x).wider == pytest.approx(0.24)


class TestOnBows:
    @pytest.mark.parametrize("rig", [TAKEDOWN, SHELF])
    def test_the_window_lies_about_its_spine_and_near_the_fit(self, rig):
        w = Bench(rig).arrow.window
        assert w.low < w.spine_28in.value < w.high
        assert w.clean.match == w.spine_28in.value
        assert w.spine_28in.value == pytest.approx(w.first, rel=0.2)
        share = w.spine_28in.plus_minus / w.spine_28in.value
        assert share == pytest.approx(w.share)
        assert w.low == pytest.approx(w.spine_28in.value * (1 - share), rel=1e-6)

    def test_outside_the_fit_there_is_no_match(self):
        for rig in (THUMB, changed(TAKEDOWN, {"bow.side_plate": "hard"})):
            assert Bench(rig).arrow.window.clean is None
            assert Bench(rig).spine_error_groups is None
            assert what_moves(Bench(rig)) == []

    def test_at_the_match_the_shaft_is_neither_stiff_nor_weak(self):
        spine = Bench(TAKEDOWN).arrow.window.spine_28in.value
        error = Bench(changed(TAKEDOWN, {"arrow.static_spine": spine})).spine_error_groups
        assert error == pytest.approx(0.0, abs=0.01)
        stiffer = Bench(changed(TAKEDOWN, {"arrow.static_spine": spine / 1.08}))
        assert stiffer.spine_error_groups == pytest.approx(1.0, abs=0.01)


class TestWhatMoves:
    @pytest.mark.parametrize("rig", [TAKEDOWN, SHELF])
    def test_what_the_model_supports_goes_the_reported_way(self, rig):
        told = {m.id: m for m in what_moves(Bench(rig))}
        for id, way in (("spine", 1), ("length", -1), ("point", -1), ("weight", -1)):
            assert told[id].groups * way > 0, id

    def test_of_brace_no_side_is_told_and_both_are_named(self):
        told = next(m for m in what_moves(Bench(TAKEDOWN)) if m.id == "brace")
        assert told.groups is None
        assert "reports differ" in told.said.plain()
        assert "model" in told.said.plain()

    def test_only_a_plunger_has_a_spring(self):
        ids = {
            rig.bow.side_plate: {m.id for m in what_moves(Bench(rig))} for rig in (TAKEDOWN, SHELF)
        }
        assert "spring" in ids["plunger"]
        assert "spring" not in ids["leather"]

    def test_no_side_is_stated_that_the_table_does_not_support(self):
        for rig in (TAKEDOWN, SHELF):
            for m in what_moves(Bench(rig)):
                mover = next(x for x in MOVERS if x.id == m.id)
                if m.groups is not None:
                    assert mover.shares[rig.bow.side_plate] >= 0.7
                    assert (m.groups > 0) == (mover.expected == "stiff")

    @pytest.mark.parametrize("plate", ["plunger", "leather"])
    def test_the_table_holds_on_fresh_bows(self, plate):
        """Where the table says the model agrees, it does on bows drawn anew."""
        rng = np.random.default_rng(20260 + len(plate))
        agree, bows = {m.id: [] for m in MOVERS}, 0
        while bows < share(20, 8):
            rig = changed(
                TAKEDOWN if plate == "plunger" else SHELF,
                {
                    "bow.marked_weight_lbf": round(float(rng.uniform(30, 52)), 1),
                    "archer.draw_length_in": round(float(rng.uniform(27, 29.5)), 2),
                    "bow.brace_height_in": round(float(rng.uniform(7.25, 8.5)), 2),
                    "arrow.shaft_length_in": round(float(rng.uniform(30, 30.9)), 2),
                    "arrow.point_gr": float(rng.integers(80, 140)),
                },
            )
            b = Bench(rig)
            if b.arrow.window.spine_28in is None:
                continue
            bows += 1
            rig = changed(rig, {"arrow.static_spine": round(b.arrow.window.spine_28in.value)})
            for m in what_moves(Bench(rig)):
                agree[m.id].append(m.groups is not None)
        least = {"spine": 0.98, "length": 0.98, "point": 0.98, "weight": 0.98, "overdraw": 0.95,
                 "short_draw": 0.95, "plate": 0.9, "silencers": 0.98}  # fmt: skip
        for id, wanted in least.items():
            what = f"what moves it, {plate}: {id} goes its side"
            claimed(what, np.mean(agree[id]), least=wanted, of=bows)
        assert not any(agree["brace"]) or plate == "leather"


class TestFromTheSide:
    def test_four_millimetres_high_and_low_both_read_high(self):
        flex = Bench(changed(TAKEDOWN, {"arrow.static_spine": 520.0})).flex
        high, level, low = (flex.nock_up_deg(e, 5.0) for e in (4.0, 0.0, -4.0))
        assert high == pytest.approx(3.0, abs=1.0)
        assert low == pytest.approx(7.0, abs=1.5)
        assert level == pytest.approx(0.0, abs=0.1)
        assert low > 1.5 * high

    def test_both_hands_alike(self):
        left = changed(TAKEDOWN, {"archer.hand": "left"})
        assert Bench(left).flex.nock_up_deg(3.0, 5.0) == Bench(TAKEDOWN).flex.nock_up_deg(3.0, 5.0)
