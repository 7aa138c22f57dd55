"""The bow's and the arrow's formulas by hand, at their edges and in their limits."""

import math

import numpy as np
import pytest
from energy import stored_energy_model_ftlb
from scipy.interpolate import CubicSpline
from test_arrow import BOTH, told_by_model

from lyrandis.core.arrow.build import build, parts_of
from lyrandis.core.arrow.shot import arrow_floor, form_floor_gpp, kappa_gpp, weight_at_draw
from lyrandis.core.arrow.spine import pounds_26in, spine_28in, spine_from_pounds, stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import (
    force_draw,
    refuse_past_end,
    stack_onset,
)
from lyrandis.core.bow.form import FORMS, brace_range_in, default_riser_in, limb_of
from lyrandis.core.bow.geometry import contact, contact_at
from lyrandis.core.bow.readings import thinned
from lyrandis.core.bow.statics import rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fields import changed
from lyrandis.core.flex.window import spine_window
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String

LB_N, IN_M = 4.4482216152605, 0.0254


def reference(form, **more):
    return Bow(form=form, length_in=FORMS[form].reference_length_in, marked_weight_lbf=45, **more)


@pytest.mark.parametrize("form", FORMS)
class TestStatics:
    def test_each_draw_is_the_least_energy_of_limbs_and_string(self, form):
        """No bend near it stores less: k (φ−φr)² + EA/S0 (ℓ − S0)² is least where A2 balances."""
        solved = solve(reference(form))
        b = solved.braced
        x = (np.array([20.0, 28.0]) - 1.75) * IN_M
        drawn = solved.draw(x)

        def energy(phi):
            path = contact(solved.limb, phi, x).length
            bent = solved.stiffness * (phi - solved.limb.rest) ** 2
            return bent + solved.bundle / b.half_slack * (path - b.half_slack) ** 2

        here = energy(drawn.phi)
        for step in (1e-3, 1e-2):
            assert (energy(drawn.phi + step) > here).all()
            assert (energy(drawn.phi - step) > here).all()
        tension = solved.bundle * (contact(solved.limb, drawn.phi, x).length / b.half_slack - 1)
        assert drawn.tension == pytest.approx(tension)
        braced = solved.stiffness * (b.phi - solved.limb.rest) ** 2
        braced += solved.bundle / b.half_slack * (b.half_string - b.half_slack) ** 2
        assert drawn.energy == pytest.approx(here - braced)

    def test_the_force_is_the_slope_of_the_energy_and_twice_the_tensions_share(self, form):
        solved = solve(reference(form))
        x, h = (np.array([18.0, 24.0, 28.0]) - 1.75) * IN_M, 1e-4
        drawn = solved.draw(x)
        slope = (solved.draw(x + h).energy - solved.draw(x - h).energy) / (2 * h)
        assert drawn.force == pytest.approx(slope, rel=1e-5)
        assert drawn.force == pytest.approx(2 * drawn.tension * np.cos(drawn.angle / 2), rel=1e-9)

    def test_at_brace_limb_and_string_balance_and_the_string_is_upright(self, form):
        solved = solve(reference(form))
        b = solved.braced
        c = contact_at(solved.limb, np.array([b.phi]), np.array([solved.brace_x]), np.array([b.t]))
        assert float(c.direction[0][0]) == pytest.approx(0, abs=1e-9)
        assert float(c.length[0]) == pytest.approx(b.half_string)
        moment = solved.stiffness * (b.phi - solved.limb.rest) + b.tension * float(c.length_phi[0])
        assert moment == pytest.approx(0, abs=1e-6)
        assert b.half_string == pytest.approx(b.half_slack * (1 + b.tension / solved.bundle))

    def test_below_brace_nothing_pulls(self, form):
        solved = solve(reference(form))
        held = solved.draw(np.array([0.0, solved.brace_x]))
        assert held.force == pytest.approx(0, abs=1e-6)
        assert held.energy == pytest.approx(0, abs=1e-9)
        assert held.angle == pytest.approx(math.pi, abs=1e-6)

    def test_brace_over_string_length_by_another_string(self, form):
        solved = solve(reference(form), "low_stretch")
        other = rebraced(solved, solved.braced.half_slack * 0.9995)
        brace = other.brace_x - solved.brace_x
        string = 2 * (other.braced.half_string - solved.braced.half_string)
        assert brace / string == pytest.approx(solved.brace_per_string(), rel=0.02)

    def test_differential_stiffness_against_two_limbs_one_string(self, form):
        """Energy of both limbs with the string's nock free to slide up: a numeric Hessian."""
        solved = solve(reference(form))
        b, limb, k = solved.braced, solved.limb, solved.stiffness
        if limb.lever:
            return  # on the corner of a lever the smaller of two sides counts

        def energy(d):
            # One limb more bent by d, the other less; the contact slides but to first order
            # a tangent's length does not change with it.
            ends = [tip(b.phi + s * d) for s in (1, -1)]
            (x1, y1, r1), (x2, y2, r2) = ends
            whole = math.hypot(x1 - x2, y1 + y2) + r1 + r2
            bent = k / 2 * ((b.phi + d - limb.rest) ** 2 + (b.phi - d - limb.rest) ** 2)
            return bent + b.tension * whole

        def tip(phi):
            """Where an upright string would leave this limb: the tangent's own place."""
            t = b.t if not limb.arc else float(np.clip((limb.tilt + phi) / limb.turn, 0, 1))
            c = contact_at(limb, np.array([phi]), np.array([solved.brace_x]), np.array([t]))
            rest = 0.0 if t >= 1 else (1 - t) * limb.arc + limb.lever
            free = float(c.length[0]) - rest
            return (
                solved.brace_x + float(c.direction[0][0]) * free,
                float(c.direction[1][0]) * free,
                rest,
            )

        h = 2e-3
        second = (energy(h) - 2 * energy(0.0) + energy(-h)) / h**2
        assert second / (2 * k) == pytest.approx(solved.differential_stiffness(), abs=0.02)


class TestRefusals:
    def test_a_marked_draw_near_the_brace(self):
        with pytest.raises(RefusedError) as caught:
            solve(Bow(brace_height_in=13, marked_draw_in=20), brace_in=16.3)
        assert caught.value.limit == pytest.approx(20 - 1.75 - 2)

    def test_four_inches_of_stroke(self):
        curve = force_draw(Bow(brace_height_in=8.5))
        refuse_past_end(curve, 8.5 + 1.75 + 4.0001, 68)
        with pytest.raises(RefusedError) as caught:
            refuse_past_end(curve, 8.5 + 1.75 + 3.99, 68)
        assert caught.value.limit == pytest.approx(8.5 - 0.01, abs=0.011)
        refuse_past_end(curve, curve.end_in, 68)
        with pytest.raises(RefusedError):
            refuse_past_end(curve, curve.end_in + 0.01, 68)

    def test_half_the_length_is_limb(self):
        assert limb_of(Bow(length_in=60, riser_in=30)).root_y == pytest.approx(15 * IN_M)
        with pytest.raises(RefusedError) as caught:
            limb_of(Bow(length_in=60, riser_in=30.1))
        assert caught.value.limit == 30

    def test_a_brace_range_must_rise(self):
        low, high, whose = brace_range_in(Bow(maker_brace_low_in=8))
        assert (low, high, whose) == (8, 9.5, "maker")
        for top in (8.0, 7.9):
            with pytest.raises(RefusedError):
                brace_range_in(Bow(maker_brace_low_in=8, maker_brace_high_in=top))

    def test_no_string_within_three_inches(self):
        solved = solve(reference("recurve"))
        with pytest.raises(RefusedError):
            rebraced(solved, solved.braced.half_slack * 1.2)


class TestCurve:
    def curve(self, bend):
        """A made-up curve: even to 24 in, then bending up by `bend` lb/in²."""
        draw = np.arange(8.0, 36.01, 0.1)
        force = 2.0 * (draw - 8) + bend / 2 * np.maximum(draw - 24, 0) ** 2
        return draw, force

    def test_the_onset_is_where_the_slope_is_a_third_more(self):
        # Slope 2 to 24 in, then 2 + b (x − 24): 1.35 × 2 at 24 + 0.7/b.
        for bend in (0.2, 0.5):
            assert stack_onset(*self.curve(bend)) == pytest.approx(24 + 0.7 / bend, abs=0.03)
            twice = stack_onset(*self.curve(bend), factor=2.0)
            assert twice == pytest.approx(24 + 2.0 / bend, abs=0.03)
        assert stack_onset(*self.curve(0.0)) is None

    @pytest.mark.parametrize("form", FORMS)
    def test_the_end_is_where_slope_or_angle_say(self, form):
        bow = Bow(form=form, length_in={"longbow": 56, "hybrid": 52, "recurve": 56, "static_tip": 48}[form])  # fmt: skip
        curve = force_draw(bow)
        assert curve.draw_in[0] == pytest.approx(curve.brace_draw_in)
        assert float(curve.draw_in[-1]) == pytest.approx(curve.end_in)
        assert curve.force_lbf[0] == 0
        x = np.arange(18, 36, 0.05)
        drawn = curve.statics.draw((x - 1.75) * IN_M)
        spline = CubicSpline(x, drawn.force / LB_N)
        mean = (spline(24) - spline(18)) / 6
        steep = np.argmax((x > 24) & (spline(x, 1) > 3 * mean)) or len(x) - 1
        # Static tips are drawn to sharper angles by design: only their steepness ends them.
        least = 0 if form == "static_tip" else 95
        sharp = np.argmax((x > 24) & (np.degrees(drawn.angle) < least)) or len(x) - 1
        assert curve.end_in == pytest.approx(x[min(steep, sharp)], abs=0.15)

    def test_slope_energy_and_angle_of_a_curve(self):
        curve = force_draw(Bow())
        assert curve.slope(27) == pytest.approx(curve.force(27.5) - curve.force(26.5))
        last = float(curve.draw_in[-1])
        assert curve.slope(last) == pytest.approx(
            (curve.force(last) - curve.force(last - 0.5)) / 0.5
        )
        x = np.linspace(curve.brace_draw_in, 28, 4001)
        area = np.trapezoid([curve.force(v) for v in x], x) / 12
        assert curve.energy_ftlb(28) == pytest.approx(area, rel=1e-5)
        assert stored_energy_model_ftlb(curve.statics, 28) == pytest.approx(area, rel=1e-3)
        at28 = curve.statics.draw(np.array([(28 - 1.75) * IN_M]))
        assert curve.angle(28) == pytest.approx(math.degrees(float(at28.angle[0])), abs=0.01)

    def test_readings_are_met_and_the_model_scaled_beyond(self):
        bow = Bow()
        plain = force_draw(bow)
        readings = ((20.0, 19.0), (24.0, 28.0), (28.0, 37.5))
        read = force_draw(bow.model_copy(update={"measured": readings}))
        for draw, force in readings:
            assert read.force(draw) == pytest.approx(force)
        assert read.force(15.25) == pytest.approx(
            plain.force(15.25) * 19 / plain.force(20), rel=0.01
        )
        assert read.force(31.25) == pytest.approx(
            plain.force(31.25) * 37.5 / plain.force(28), rel=0.01
        )
        assert read.read_at_in == (20, 24, 28)
        draws = (19.49, 19.5, 20.5, 22.0, 23.5, 28.5, 28.51)
        assert [read.unread_in(d) == 0 for d in draws] == [
            False, True, True, False, True, True, False
        ]  # fmt: skip
        assert [read.unread_in(d) for d in (18.5, 22.0, 30.0)] == pytest.approx([1.0, 1.5, 1.5])
        close = force_draw(bow.model_copy(update={"measured": ((26.0, 33.0), (28.0, 37.5))}))
        assert close.unread_in(27.0) == 0
        assert plain.unread_in(24) is None
        assert plain.unread_in(24) != 0

    @pytest.mark.parametrize(
        "readings",
        [
            ((20.0, 20.0), (22.0, 20.0)),
            ((20.0, 20.0), (22.0, 19.0)),
            ((20.0, 20.0), (20.0, 21.0)),
            ((20.0, 0.0), (22.0, 21.0)),
            ((10.0, 1.0), (22.0, 21.0)),
            ((20.0, 20.0), (40.01, 60.0)),
        ],
    )
    def test_readings_that_cannot_be(self, readings):
        bow = Bow.model_construct(**{**dict(Bow()), "measured": readings})
        with pytest.raises(RefusedError) as caught:
            force_draw(bow)
        assert caught.value.field == "bow.measured"


class TestThinned:
    def test_each_step_is_the_mean_brought_to_it(self):
        draw = np.arange(20.0, 28.01, 0.25)
        got = thinned([(d, 2 * d - 15) for d in draw])
        assert got == [[float(d), pytest.approx(2 * d - 15, abs=0.01)] for d in range(20, 29)]

    def test_a_dip_is_evened_out_and_still_rises(self):
        pull = [(20.0, 20.0), (21.0, 23.0), (22.0, 22.0), (23.0, 26.0), (24.0, 28.0)]
        got = thinned(pull)
        forces = [f for _, f in got]
        assert (np.diff(forces) >= 0.05 - 1e-9).all()
        assert forces[1] == pytest.approx(22.5, abs=0.2)
        assert forces[2] == pytest.approx(22.55, abs=0.25)

    def test_too_few_or_too_short(self):
        for pull in ([(20, 20), (22, 22), (24, 24)], [(20, 20), (20.5, 21), (21, 22), (21.9, 23)]):
            with pytest.raises(RefusedError):
                thinned(pull)
        assert thinned([(20, 20), (20.5, 21), (21, 22), (22.0, 23)])


class TestShotEdges:
    def test_kappa_grows_with_a_static_tips_length_to_six(self):
        for length, kappa in ((50, 4.4), (54, 4.4), (64, 5.2), (74, 6.0), (76, 6.0)):
            assert kappa_gpp(Bow(form="static_tip", length_in=length)) == pytest.approx(kappa)

    @pytest.mark.parametrize(
        ("length", "size"), [(56.4, 0), (56.5, 1), (62.5, 1), (62.6, 2)]
    )  # strung 51.9, 52, 58, 58.1
    def test_size_by_the_strung_length(self, length, size):
        assert form_floor_gpp(Bow(form="longbow", length_in=length), stacks=False) == pytest.approx(
            9 + size
        )

    @pytest.mark.parametrize(("tips", "more"), [("working", 0), ("short", 1), ("long", 2.5), ("heavy", 4)])  # fmt: skip
    def test_tips_material_and_stack(self, tips, more):
        bow = Bow(form="hybrid", length_in=60, tips=tips)
        assert form_floor_gpp(bow, stacks=False) == pytest.approx(10 + more)
        assert form_floor_gpp(bow, stacks=True) == pytest.approx(0.9 * (10 + more))
        for material in ("solid_glass", "natural"):
            soft = bow.model_copy(update={"limb_material": material})
            assert form_floor_gpp(soft, stacks=False) == pytest.approx(0.8 * (10 + more))

    def test_verdicts_at_their_edges(self):
        bow = Bow(length_in=68)  # energy 7.75, form 9
        for gpp, verdict in ((7.74, "tolerated"), (7.25, "tolerated"), (7.24, "below"), (7.75, "mind"),
                             (8.99, "mind"), (9.0, "fine")):  # fmt: skip
            assert arrow_floor(bow, gpp, False, stiff_enough=True).verdict == verdict
        assert arrow_floor(bow, 7.74, False, stiff_enough=False).verdict == "below"
        made = bow.model_copy(update={"maker_min_gpp": 8.0})
        assert arrow_floor(made, 7.99, False, stiff_enough=True).verdict == "below"
        assert arrow_floor(made, 8.0, False, stiff_enough=True).verdict == "mind"

    def test_a_scales_doubt_is_a_hundredth(self):
        bow = Bow(measured=((24.0, 28.0), (28.0, 38.0)))
        told = weight_at_draw(force_draw(bow), Estimate(value=28, plus_minus=0, source="measured"))
        assert (told.value, told.source) == (pytest.approx(38), "measured")
        assert told.plus_minus == pytest.approx(0.38)


class TestArrow:
    def test_a_beam_in_the_middle(self):
        """δ = P S³ / 48 EI, for both standards."""
        ei = 5.0
        sag28 = 1.94 * LB_N * (28 * IN_M) ** 3 / (48 * ei) / IN_M * 1000
        assert spine_28in(ei) == pytest.approx(sag28)
        assert stiffness_n_m2(sag28) == pytest.approx(ei)
        sag26 = 2.0 * LB_N * (26 * IN_M) ** 3 / (48 * ei) / IN_M
        assert pounds_26in(sag28) == pytest.approx(26 / sag26)
        assert spine_from_pounds(26 / sag26) == pytest.approx(sag28)

    def test_moments_by_hand(self):
        arrow = Arrow(
            shaft_length_in=30, grains_per_inch=8, point_gr=100, insert_gr=20, nock_gr=10, fletching_gr=12
        )  # fmt: skip
        told = build(arrow)
        assert told.parts_gr == 240 + 100 + 20 + 10 + 12
        balance = (240 * 15 + 120 * 30 + 12 * 2.75) / 382
        assert told.balance_in == pytest.approx(balance)
        assert told.front_of_centre_pct == pytest.approx(100 * (balance - 15) / 30)
        inertia = 240 * (30**2 / 12 + (15 - balance) ** 2) + 120 * (30 - balance) ** 2
        inertia += 10 * balance**2 + 12 * ((2.75 - balance) ** 2 + 4**2 / 12)
        assert told.inertia_kg_m2 == pytest.approx(inertia * 64.79891e-6 * IN_M**2)
        assert [p.name for p in parts_of(arrow)] == ["arrow nock", "fletching", "shaft", "insert", "point"]  # fmt: skip

    @pytest.mark.parametrize(
        ("bow", "arrow", "parts"),
        [
            ({}, {}, [BOTH]),
            ({"form": "longbow", "length_in": 66}, {}, [0.20]),
            ({"brace_height_in": 8.01}, {}, [BOTH, 0.04]),
            ({"brace_height_in": 8.0}, {}, [BOTH]),
            ({}, {"material": "wood"}, [BOTH, 0.05]),
            # Over the last tenth of 27 to 32 in: a quarter inch from the end is half of it.
            ({}, {"shaft_length_in": 31.75}, [BOTH, 0.12 * 0.25]),
            ({}, {"shaft_length_in": 31.5}, [BOTH]),
        ],
    )
    def test_what_widens_the_spine_window(self, bow, arrow, parts):
        bow = Bow(**({"brace_height_in": 7.5} | bow))
        arrow = Arrow(**({"shaft_length_in": 29.5} | arrow))
        sure = Estimate(value=45.0, plus_minus=0.0, source="measured")
        string = String(mass_gr=100)
        past = told_by_model()
        told = spine_window(Archer(draw_length_in=28), bow, string, arrow, sure, sure, 0.0, past)
        assert told.share == pytest.approx(math.hypot(*parts))
        assert told.spine_28in.plus_minus == pytest.approx(told.share * told.spine_28in.value)
        stiff, weak = (1.5, 0.5) if bow.form == "longbow" else (1, 1)
        value = told.spine_28in.value
        assert (told.low, told.high) == pytest.approx(
            (value * (1 - stiff * told.share), value * (1 + weak * told.share))
        )
        assert len(told.widened) == len(parts) - (bow.form != "longbow")


def test_the_weight_at_28_is_taken_at_the_curves_end_where_it_ends_before():
    short = changed(Rig(), {"bow.length_in": 48, "bow.takedown": False, "bow.marked_draw_in": 26,
                            "archer.draw_length_in": 26.5})  # fmt: skip
    b = Bench(short)
    assert b.bow.curve.draw_in[-1] < 31
    assert b.arrow.window is not None


def test_a_default_riser_is_the_forms_share():
    assert default_riser_in(Bow(form="longbow", length_in=60)) == pytest.approx(13 * 60 / 66)
    limb = limb_of(Bow(form="static_tip", length_in=54))
    whole = (54 - 10) / 2 * IN_M
    assert limb.working == pytest.approx(whole * (1 - 0.10 - 0.24))
    assert (limb.arc, limb.lever) == pytest.approx((whole * 0.10, whole * 0.24))
    assert (limb.turn, limb.tilt, limb.rest) == pytest.approx(
        tuple(map(math.radians, (50, 5, -24)))
    )
