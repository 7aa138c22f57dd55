"""Centre shot: plane geometry, looks against settings, and what it asks of the shaft."""

import math

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bench.cures import moved_groups
from lyrandis.core.fields import changed
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.parts import Rig
from lyrandis.core.tune.centre_shot import centre_shot, plate_by_looks_mm

PLUNGER = changed(Rig(), {"arrow.static_spine": 760.0})


def at(**paths):
    return centre_shot(changed(PLUNGER, {p.replace("__", "."): v for p, v in paths.items()}))


class TestGeometry:
    def test_similar_triangles(self):
        told = at(bow__centre_cut_mm=1.0, arrow__diameter_mm=6.0, bow__brace_height_in=8.0,
                  arrow__shaft_length_in=30.0)  # fmt: skip
        assert told.axis_mm == pytest.approx(2.0)
        assert told.point_mm == pytest.approx(2.0 * 30 / 8)
        assert told.full_mm == pytest.approx(2.0 * 30 * 25.4 / told.stroke_mm)
        assert told.gap_mm == pytest.approx(told.point_mm - 3 - told.string_mm)

    def test_a_plate_counts_as_the_cut_does(self):
        cut = at(bow__centre_cut_mm=1.0)
        plate = at(bow__centre_cut_mm=5.0, bow__side_plate_mm=4.0)
        assert plate == cut

    def test_the_calibration_case_is_an_ordinary_start(self):
        """The case that the spine fit is written around leaves the point where practice wants it."""
        told = at(bow__centre_cut_mm=1.0, arrow__diameter_mm=6.0, bow__brace_height_in=7.5,
                  arrow__shaft_length_in=29.5)  # fmt: skip
        assert told.move_mm == pytest.approx(0, abs=0.5)

    @pytest.mark.parametrize("cut", [-4.0, -1.0, 2.5, 4.0])
    def test_the_move_that_is_told_brings_it_home(self, cut):
        told = at(bow__centre_cut_mm=cut)
        after = at(bow__centre_cut_mm=cut - told.move_mm)
        assert told.move_mm
        slack = 0.125 * after.per_mm + 1e-9  # a plunger is set to a quarter of a millimetre
        assert after.low_mm - slack <= after.gap_mm <= after.high_mm + slack

    def test_looks_give_the_plate_back(self):
        rng = np.random.default_rng(5)
        told = centre_shot(PLUNGER)
        off = []
        for _ in range(400):
            gaps = told.gap_mm + rng.normal(0, 1.5, 2)
            place, sd = plate_by_looks_mm(told, PLUNGER, list(gaps))
            off.append((place - PLUNGER.bow.plate_offset_mm) / sd)
        assert np.mean(off) == pytest.approx(0, abs=0.15)
        assert np.std(off) == pytest.approx(1, abs=0.1)


class TestSpine:
    @pytest.mark.parametrize("plate", ["plunger", "leather"])
    def test_further_out_wants_a_weaker_shaft_by_what_the_window_moves(self, plate):
        rig = changed(PLUNGER, {"bow.side_plate": plate, "bow.centre_cut_mm": 0.5,
                                "bow.brace_height_in": 7.5})  # fmt: skip
        out = {"bow.centre_cut_mm": -0.5}
        a, b = (Bench(r).arrow.window.spine_28in.value for r in (rig, changed(rig, out)))
        moved = moved_groups(Bench(rig), out)
        assert moved == pytest.approx(math.log(b / a) / GROUP_LN)
        assert 0.2 < moved < 1.0


class TestTold:
    def said(self, **paths):
        rig = changed(PLUNGER, {p.replace("__", "."): v for p, v in paths.items()})
        from lyrandis.core.stations import views

        view = next(v for v in views(Bench(rig), ["centre-shot"]))
        return view, " ".join(f.said.plain() for f in view.findings)

    def test_a_plunger_too_far_out_is_brought_in_and_a_shelf_is_as_it_is_cut(self):
        view, text = self.said(bow__centre_cut_mm=-2.0)
        assert "farther out than an ordinary start" in text
        move = next(f.action for f in view.findings if f.action and f.action.changes)
        assert move.changes["bow.centre_cut_mm"] > -2.0
        _, shelf = self.said(bow__centre_cut_mm=-2.0, bow__side_plate="leather")
        assert "as it is cut" in shelf
        assert "ordinary start" not in shelf

    def test_outside_the_fit_there_is_no_number_for_the_shaft(self):
        _, text = self.said(archer__release="thumb")
        assert "cannot be told for this bow" in text
        assert "% weaker" not in text

    def test_a_shaft_that_looks_weak_sends_the_plate_out(self):
        _, weak = self.said(arrow__static_spine=1100.0)
        _, stiff = self.said(arrow__static_spine=450.0)
        assert "looks weak" in weak
        assert "farther out" in weak
        assert "looks stiff" in stiff
        assert "farther in" in stiff
