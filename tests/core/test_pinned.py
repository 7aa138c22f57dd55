"""Formulas and constants held against their pages: each input alone, signs, and closed forms.

The numbers stand here as the models' page gives them, not as the code has them.
"""

import math

import numpy as np
import pytest
from scipy.integrate import solve_ivp
from test_arrow import told_by_model

from lyrandis.core.aim.crawls import crawl_chart
from lyrandis.core.arrow.shot import draw_speed_share, shot, virtual_mass_gr, weight_at_draw
from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import (
    BUNDLE_STIFFNESS_N,
    FORMS,
    brace_range_in,
    default_brace_in,
    default_riser_in,
)
from lyrandis.core.estimate import Estimate
from lyrandis.core.flex.window import spine_window
from lyrandis.core.flight.trajectory import (
    AimedArrow,
    crawl_for_mm,
    drag_per_m,
    impact_m,
    shaft_angle,
)
from lyrandis.core.parts import Archer, Arrow, Bow, Rig, String
from lyrandis.core.string.measures import (
    string_mass_g,
    usual_length_in,
    usual_mass_gr,
    usual_strands,
)
from lyrandis.core.units import parse

GRAIN_KG, LB_N, FT_M, IN_M = 64.79891e-6, 4.4482216152605, 0.3048, 0.0254


class TestUnits:
    """Exact by definition."""

    @pytest.mark.parametrize(
        ("typed", "quantity", "value"),
        [
            ("1 oz", "mass", 437.5),
            ("1 g", "mass", 15.4323583529),
            ("1 kg", "weight", 2.20462262185),
            ("100 N", "weight", 22.4808943100),
            ("1 in", "draw", 1.0),
            ("1 cm", "draw", 0.393700787402),
            ("1 yd", "distance", 0.9144),
            ("36 km/h", "speed", 32.8083989501),
            ("10 m/s", "speed", 32.8083989501),
        ],
    )
    def test_what_is_typed(self, typed, quantity, value):
        assert parse(typed, quantity) == pytest.approx(value, rel=1e-9)


# docs/mechanics B4: S0, then the exponents of weight, length, front and draw, then offset, brace,
# string in the exponential, and the offset it was fitted at [mm].
FITS = {
    "plunger": (517, -1.037, -1.74, -0.274, -2.01, 0.030, 0.023, 0.033, -1.0),
    "leather": (552, -0.98, -1.93, -0.2, -1.39, 0.034, -0.032, 0.008, 0.0),
}


@pytest.mark.parametrize("plate", FITS)
class TestSpineWindow:
    def spine(self, plate, weight=45.0, draw=28.0, brace=7.5, cut=None, grams=6.5, **arrow):
        fit = FITS[plate]
        cut = -fit[8] if cut is None else cut
        bow = Bow(side_plate=plate, centre_cut_mm=cut, brace_height_in=brace)
        string = String(mass_gr=grams / 1000 / GRAIN_KG)
        parts = {"shaft_length_in": 29.5, "point_gr": 100.0, "insert_gr": 12.0} | arrow
        sure = Estimate(value=weight, plus_minus=0.0, source="measured")
        archer = Archer(draw_length_in=draw)
        told = spine_window(archer, bow, string, Arrow(**parts), sure, sure, 0.0, told_by_model())
        return told.spine_28in.value

    def test_the_calibration_case_is_the_fits_own_number(self, plate):
        assert self.spine(plate) == pytest.approx(FITS[plate][0], rel=1e-9)

    @pytest.mark.parametrize(
        ("which", "changed", "ratio"),
        [
            (1, {"weight": 54.0}, 54 / 45),
            (2, {"shaft_length_in": 31.0}, 31 / 29.5),
            (3, {"point_gr": 150.0}, 162 / 112),
            (3, {"insert_gr": 62.0}, 162 / 112),
            (4, {"draw": 29.0}, 29 / 28),
        ],
    )
    def test_each_power_alone(self, plate, which, changed, ratio):
        got = self.spine(plate, **changed) / self.spine(plate)
        assert got == pytest.approx(ratio ** FITS[plate][which], rel=1e-9)

    @pytest.mark.parametrize(
        ("which", "changed", "by"),
        [(6, {"brace": 8.0}, 0.5), (6, {"brace": 7.0}, -0.5), (7, {"grams": 7.5}, 1.0)],
    )
    def test_each_exponential_alone(self, plate, which, changed, by):
        got = self.spine(plate, **changed) / self.spine(plate)
        assert got == pytest.approx(math.exp(FITS[plate][which] * by), rel=1e-9)

    def test_a_plate_further_out_wants_by_its_own_slope(self, plate):
        *_, e, _, _, offset0 = FITS[plate]
        got = self.spine(plate, cut=-(offset0 + 1.5)) / self.spine(plate)
        assert got == pytest.approx(math.exp(e * 1.5), rel=1e-9)


class TestForms:
    """docs/mechanics A2's table and practice's ranges."""

    @pytest.mark.parametrize(
        ("form", "length", "riser", "brace", "low", "high"),
        [
            ("longbow", 66, 13.0, 7.0, 6.0, 7.5),
            ("hybrid", 62, 15.5, 7.25, 7.0, 7.75),
            ("recurve", 68, 25.0, 8.5, 8.25, 9.5),
            ("static_tip", 54, 10.0, 7.0, 5.5, 7.5),
        ],
    )
    def test_at_the_reference_length(self, form, length, riser, brace, low, high):
        bow = Bow(form=form, length_in=length)
        assert default_riser_in(bow) == pytest.approx(riser)
        assert default_brace_in(bow) == pytest.approx(brace)
        assert brace_range_in(bow)[:2] == (low, high)

    def test_with_length(self):
        short, long = Bow(length_in=62), Bow(length_in=70)
        assert default_brace_in(long) - default_brace_in(short) == pytest.approx(8 * 0.04)
        assert default_riser_in(short) == pytest.approx(25 * 62 / 68)
        assert brace_range_in(short)[:2] == (7.5, 8.5)

    def test_shape_constants_are_those_of_the_page(self):
        page = {
            "longbow": (-0.75, 0, -8, 0, 0, 0),
            "hybrid": (-0.40, 9, -32, 0.22, 16, 0),
            "recurve": (1.0, 18, -36, 0.29, 55, 0),
            "static_tip": (-0.5, 5, -24, 0.10, 50, 0.24),
        }
        for form, numbers in page.items():
            s = FORMS[form]
            assert (
                s.root_x_in, s.root_tilt_deg, s.rest_angle_deg, s.arc_share, s.arc_turn_deg,
                s.lever_share,
            ) == numbers  # fmt: skip

    def test_the_bundles_stiffness(self):
        assert BUNDLE_STIFFNESS_N["low_stretch"] == 40e3
        assert BUNDLE_STIFFNESS_N["polyester"] == 14e3
        # Own assumption: natural fibre lies between the two.
        assert BUNDLE_STIFFNESS_N["natural"] == pytest.approx(25e3)


class TestString:
    @pytest.mark.parametrize(
        ("form", "shorter"), [("longbow", 3), ("hybrid", 3), ("recurve", 4), ("static_tip", 4.5)]
    )
    def test_length_from_the_bow(self, form, shorter):
        assert usual_length_in(Bow(form=form, length_in=60)) == 60 - shorter

    @pytest.mark.parametrize(
        ("material", "counts"),
        [
            ("low_stretch", (12, 14, 16, 18, 20, 24)),
            ("polyester", (10, 12, 14, 16, 18, 22)),
            ("natural", (14, 18, 22, 26, 32, 40)),
        ],
    )
    def test_strands_rise_with_the_weight(self, material, counts):
        at = [usual_strands(material, w) for w in np.arange(8, 120, 0.5)]
        assert sorted(set(at)) == list(counts)
        assert at == sorted(at)
        edges = (30, 38, 46, 56, 70) if material == "low_stretch" else (25, 35, 45, 55, 70)
        for edge, count, more in zip(edges, counts, counts[1:], strict=False):
            assert usual_strands(material, edge) == count
            assert usual_strands(material, edge + 0.01) == more

    def test_mass_from_strands_length_and_serving(self):
        string = String(material="polyester", strands=14, length_in=60)
        assert string_mass_g(Bow(), string) == pytest.approx(14 * 60 * IN_M * 0.28 + 1.8)


class TestShot:
    bow = Bow(length_in=68, riser_in=25, marked_weight_lbf=40)
    curve = force_draw(bow)
    draw = Estimate(value=28.0, plus_minus=0.3, source="measured")

    def fired(self, mass=360.0, draw=None):
        return shot(self.bow, String(), self.curve, draw or self.draw, mass)

    def test_speed_energy_and_momentum_are_one_arrow(self):
        s = self.fired()
        v = s.speed_fps.value * FT_M
        kg = 360 * GRAIN_KG
        joule = kg * v**2 / 2
        assert s.arrow_energy_ftlb * FT_M * LB_N == pytest.approx(joule, rel=1e-9)
        assert s.momentum_lb_s * LB_N == pytest.approx(kg * v, rel=1e-9)

    def test_what_stays_is_the_virtual_masses_share(self):
        s = self.fired()
        k = 3.1 * s.weight_at_draw_lbf.value
        assert s.virtual_mass_gr == pytest.approx(k)
        assert s.residual_energy_ftlb == pytest.approx(s.stored_energy_ftlb * k / (360 + k))
        at = int(np.argmin(np.abs(s.curve.gpp - 9)))
        assert s.curve.residue_ftlb[at] == pytest.approx(s.stored_energy_ftlb * 3.1 / 12.1)
        assert (np.diff(s.curve.residue_ftlb) < 0).all()
        assert (np.diff(s.curve.speed_fps) < 0).all()
        assert (np.diff(s.curve.efficiency) > 0).all()

    def test_the_limits_of_a_light_and_a_heavy_arrow(self):
        assert self.fired(1e-6).speed_fps.value == pytest.approx(self.fired().ceiling_speed_fps)
        heavy = self.fired(1e9)
        assert heavy.efficiency == pytest.approx(1, abs=1e-6)

    def test_a_draw_not_known_moves_the_speed_as_the_curve_says(self):
        def speed(draw):
            return math.sqrt(self.curve.energy_ftlb(draw))

        h = 0.01
        slope = (speed(28 + h) - speed(28 - h)) / (2 * h) / speed(28)
        assert draw_speed_share(self.curve, 28.0, 0.3) == pytest.approx(0.3 * slope, rel=1e-3)

    def test_the_doubt_of_weight_and_speed(self):
        exact = Estimate(value=28.0, plus_minus=0.0, source="measured")
        assert weight_at_draw(self.curve, exact).plus_minus == pytest.approx(0.04 * 40)
        light = force_draw(Bow(marked_weight_lbf=30))
        assert weight_at_draw(light, exact).plus_minus == pytest.approx(1.5)
        s = self.fired(draw=exact)
        assert s.speed_fps.plus_minus == pytest.approx(0.05 * s.speed_fps.value)
        both = weight_at_draw(self.curve, self.draw).plus_minus
        assert both == pytest.approx(math.hypot(1.6, 0.3 * self.curve.slope(28.0)))

    def test_a_third_of_the_strings_own_mass_and_what_is_tied_to_it(self):
        plain = virtual_mass_gr(self.bow, String(), 40)
        usual = usual_mass_gr(self.bow, String())
        heavier = virtual_mass_gr(self.bow, String(mass_gr=usual + 30), 40)
        assert heavier - plain == pytest.approx(10)
        for p in (0.0, 0.5, 1.0):
            tied = virtual_mass_gr(self.bow, String(silencers_gr=40, silencer_position=p), 40)
            assert tied - plain == pytest.approx(40 * (1 - p) ** 2)


class TestAim:
    sight = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)

    def flown(self, crawl, d, sight=None):
        """Height over the sight line by Runge–Kutta, level ground."""
        s = sight or self.sight
        alpha = math.atan((s.eye_mm - s.q * crawl) / 1000 / s.nock_to_tip_m)
        alpha += s.kick_mrad / 1000 * (max(crawl, 0) / 30) ** 2
        v = s.speed_mps * (1 - s.speed_loss_per_mm * max(crawl, 0))
        k = s.drag_per_m

        def rate(_, y):
            speed = math.hypot(y[2], y[3])
            return [y[2], y[3], -k * speed * y[2], -9.80665 - k * speed * y[3]]

        def there(_, y):
            return y[0] - (d - s.nock_to_tip_m)

        there.terminal = True
        start = [s.stroke_m * math.cos(alpha), s.stroke_m * math.sin(alpha)]
        begin = [*start, v * math.cos(alpha), v * math.sin(alpha)]
        return solve_ivp(rate, (0, 5), begin, events=there, rtol=1e-9, atol=1e-9).y[1, -1]

    def test_a_kick_grows_with_the_square_of_the_crawl_and_lifts(self):
        kicked = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76, kick_mrad=2.0)
        for crawl, factor in ((30.0, 1.0), (60.0, 4.0), (0.0, 0.0), (-20.0, 0.0)):
            more = float(shaft_angle(kicked, crawl) - shaft_angle(self.sight, crawl))
            assert more == pytest.approx(0.002 * factor, abs=1e-12)
        assert self.flown(60.0, 30.0, kicked) > self.flown(60.0, 30.0)
        assert float(impact_m(kicked, 60.0, 30.0)) == pytest.approx(
            self.flown(60.0, 30.0, kicked), abs=0.005
        )

    def test_five_metres_nearer_and_farther_are_where_the_arrow_goes(self):
        row = crawl_chart(self.sight, np.array([25.0])).rows[0]
        assert row.impact_cm_if_5m_nearer == pytest.approx(
            100 * self.flown(row.crawl_mm, 20.0), abs=0.6
        )
        assert row.impact_cm_if_5m_farther == pytest.approx(
            100 * self.flown(row.crawl_mm, 30.0), abs=0.6
        )
        assert row.impact_cm_if_5m_farther < 0 < row.impact_cm_if_5m_nearer

    def test_the_danger_spaces_edges_are_half_a_spot_off(self):
        row = crawl_chart(self.sight, np.array([30.0]), spot_half_height_cm=5).rows[0]
        for edge in (row.near_m, row.far_m):
            assert abs(self.flown(row.crawl_mm, edge)) == pytest.approx(0.05, abs=0.004)
        assert row.near_m < 30 < row.far_m
        wide = crawl_chart(self.sight, np.array([30.0]), spot_half_height_cm=10).rows[0]
        assert wide.near_m < row.near_m
        assert wide.far_m > row.far_m

    def test_the_stroke_is_the_draw_less_brace_and_an_inch_and_three_quarters(self):
        rig = Rig()
        b = Bench(rig)
        brace = rig.bow.brace_height_in or default_brace_in(rig.bow)
        assert b.aim.aimed.stroke_m == pytest.approx((28 - 1.75 - brace) * IN_M)
        assert b.aim.aimed.nock_to_tip_m == pytest.approx(30 * IN_M + 0.025)

    def test_the_charts_doubt_before_it_was_shot(self):
        b = Bench(Rig())
        d = np.array(b.rig.aim.distances_m)
        s = b.aim.aimed
        more = {"speed_mps": b.arrow.shot.speed_fps.plus_minus * 0.3048, "eye_mm": 15, "q": 0.05,
                "speed_loss_per_mm": 0.0006, "kick_mrad": 1.0}  # fmt: skip
        moved = [AimedArrow(**(vars(s) | {k: getattr(s, k) + v})) for k, v in more.items()]
        by = [crawl_for_mm(x, d) - crawl_for_mm(s, d) for x in moved]
        assert b.aim.plus_minus_mm == pytest.approx(np.sqrt(np.square(by).sum(axis=0)), rel=0.1)

    def test_drag_by_section_and_mass(self):
        assert drag_per_m(6.0, 350.3) == pytest.approx(0.0018, rel=1e-3)
        assert drag_per_m(12.0, 350.3) == pytest.approx(4 * 0.0018, rel=1e-3)
        assert drag_per_m(6.0, 700.6) == pytest.approx(0.0009, rel=1e-3)
