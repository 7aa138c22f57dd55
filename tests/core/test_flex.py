"""B3, B6: the shaft past the bow: modes, the tuned case, steps, batches, and which way it goes."""

import numpy as np
import pytest
from scipy.integrate import quad

from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.fields import changed
from lyrandis.core.flex import passing
from lyrandis.core.flex.clean import leaving
from lyrandis.core.flex.modes import Layout, modes
from lyrandis.core.flex.passing import pass_bow
from lyrandis.core.flex.setting import LIMB_KG, PLATES, Setting
from lyrandis.core.parts import Bow, Rig
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN, N_PER_LBF

STRING_KG = 6.5e-3 / 3
BRACE_IN = 7.5


def setting(pounds=45.0, draw_in=28.0, plate="plunger", offset_mm=-1.0, string_kg=STRING_KG):
    """The 68 in recurve at a brace of 7.5 in, its rest at the pivot: the tuned case."""
    curve = force_draw(
        Bow(form="recurve", length_in=68, marked_weight_lbf=pounds, brace_height_in=BRACE_IN)
    )
    way = np.linspace(0.0, draw_in - 1.75 - BRACE_IN, 160)
    force = np.array([curve.force(float(w) + BRACE_IN + 1.75) for w in way])
    moving = LIMB_KG["recurve"] * pounds / 45 + string_kg
    return Setting(
        tuple(way * M_PER_IN), tuple(force * N_PER_LBF), BRACE_IN * M_PER_IN, offset_mm / 1000, PLATES[plate],
        moving, string_kg, 0.80,
    )  # fmt: skip


def layout(length_in=29.5, gpi=7.8, front_gr=112.0):
    return Layout(
        length_in * M_PER_IN, gpi * KG_PER_GRAIN / M_PER_IN, 9 * KG_PER_GRAIN,
        front_gr * KG_PER_GRAIN,
    )  # fmt: skip


def shot(spines, s=None, lay=None, **more):
    s, lay = s or setting(), lay or layout()
    stiff = np.array([stiffness_n_m2(x) for x in spines])
    return pass_bow(s, lay, stiff, 0.003, 0.010, **more)


def clean(spines, s=None, lay=None, **more):
    s, lay = s or setting(), lay or layout()
    return leaving(shot(spines, s, lay, **more), lay, s.plate).clean_deg


class TestModes:
    def test_are_mass_normalised_and_orthogonal(self):
        told = modes(layout())
        x = np.linspace(0, told.at_m[-1], 4001)
        height, _ = told.at(x)
        lay = told.layout
        mass = np.trapezoid(height[:, :, None] * height[:, None, :], x, axis=0) * lay.density_kg_m
        mass += lay.nock_kg * np.outer(height[0], height[0])
        mass += lay.front_kg * np.outer(height[-1], height[-1])
        assert mass == pytest.approx(np.eye(8), abs=2e-3)

    def test_the_push_ahead_is_the_integral_it_is_said_to_be(self):
        told = modes(layout())
        lay = told.layout

        def ahead(x, i, j):
            mass = lay.front_kg + lay.density_kg_m * (lay.length_m - x)
            slope = told.at(np.array([x]))[1][0]
            return mass * slope[i] * slope[j]

        for i, j in ((1, 1), (1, 2), (2, 2)):
            whole = quad(ahead, 0, lay.length_m, args=(i, j), limit=200)[0]
            assert told.ahead[i, j] == pytest.approx(whole, rel=5e-3, abs=1.0)

    def test_balance_and_inertia(self):
        lay = layout()
        m, half = lay.density_kg_m * lay.length_m, lay.length_m / 2
        total = m + lay.nock_kg + lay.front_kg
        b = (m * half + lay.front_kg * lay.length_m) / total
        about = (
            m * lay.length_m**2 / 12 + m * (half - b) ** 2 + lay.nock_kg * b**2
            + lay.front_kg * (lay.length_m - b) ** 2
        )  # fmt: skip
        assert (lay.mass_kg, lay.balance_m) == pytest.approx((total, b))
        assert lay.inertia_kg_m2 == pytest.approx(about)


class TestTunedCase:
    def test_cleanest_at_about_520(self):
        spines = np.geomspace(440, 620, 60)
        j = clean(spines)
        first = spines[np.flatnonzero((j[:-1] > 0) & (j[1:] <= 0))[0]]
        assert 500 <= first <= 530

    def test_what_it_does_on_its_way(self):
        told = shot([520.0], lay=layout(gpi=8.0))
        assert told.speed_mps == pytest.approx(58.6, rel=0.02)
        assert told.exit_s == pytest.approx(16.0e-3, rel=0.02)
        assert told.last_s[0] == pytest.approx(8.2e-3, abs=0.3e-3)
        assert told.peak_n[0] == pytest.approx(5.7, abs=0.3)
        assert told.out_m[0] == pytest.approx(12.5e-3, abs=0.5e-3)
        assert told.bent_m[0] == pytest.approx(9e-3, abs=1.5e-3)

    def test_energy_of_the_stroke(self):
        """What the string gives, less the fingers' share, is what arrow and limbs have."""
        s, lay = setting(), layout()
        told = shot([520.0], s, lay)
        x = s.stroke_m - np.array(s.way_m)
        ramp = s.go.held_share + (1 - s.go.held_share) * np.minimum(x / s.go.over_m, 1)
        given = np.trapezoid(s.pushes_n() * ramp, s.way_m)
        assert 0.5 * (lay.mass_kg + s.moving_kg) * told.speed_mps**2 == pytest.approx(
            given, rel=5e-3
        )

    def test_the_skew_keeps_the_energy(self):
        s = setting()
        plain = np.trapezoid(s.force_n, s.way_m)
        assert np.trapezoid(s.pushes_n(), s.way_m) == pytest.approx(0.93 * plain, rel=1e-9)


class TestSolver:
    SPINES = (430.0, 520.0, 640.0)

    def test_20_us_is_within_02_degrees_of_a_fine_run(self):
        assert clean(self.SPINES) == pytest.approx(clean(self.SPINES, step_s=2.5e-6), abs=0.2)

    def test_a_batch_equals_its_shafts_one_by_one(self):
        alone = [float(clean([s])[0]) for s in self.SPINES]
        assert clean(self.SPINES) == pytest.approx(alone, rel=1e-12)

    def test_without_a_plate_a_kick_or_a_push_nothing_moves_sideways(self):
        s = setting(offset_mm=-3.0)  # the shaft's surface in the string's plane
        still = Setting(
            s.way_m, s.force_n, s.plate_at_m, -0.003, s.plate, s.moving_kg, s.string_kg,
            s.half_string_m, go=type(s.go)(0.0, s.go.over_m, s.go.held_share),
        )  # fmt: skip
        told = shot([520.0], still)
        assert abs(told.shift_mps[0]) + abs(told.angle_rad[0]) < 1e-12

    def test_frames_show_the_shaft_on_its_way(self):
        told = shot([520.0], frames=40)
        assert told.shape.shape[1:] == (1, 8)
        assert told.nock_m[0] == pytest.approx(setting().stroke_m)
        assert (np.diff(told.nock_m) <= 0).all()


@pytest.mark.parametrize("plate", ["plunger", "leather"])
class TestSigns:
    """What practitioners agree on, near a clean shaft."""

    def at(self, plate, **more):
        place = {"plunger": -1.0, "leather": 0.0}[plate]
        lay = layout(**{k: more.pop(k) for k in ("length_in", "front_gr") if k in more})
        return clean(
            [530.0, 560.0, 590.0], setting(plate=plate, offset_mm=place, **more), lay
        ).mean()

    def test_stiffer_reads_stiff(self, plate):
        place = {"plunger": -1.0, "leather": 0.0}[plate]
        j = clean([450.0, 500.0, 550.0], setting(plate=plate, offset_mm=place))
        assert (np.diff(j) < 0).all()

    @pytest.mark.parametrize(
        "change", [{"length_in": 30.5}, {"pounds": 49.0}, {"front_gr": 162.0}, {"draw_in": 29.0}]
    )
    def test_reads_weaker(self, plate, change):
        if change == {"draw_in": 29.0}:
            assert self.at(plate, draw_in=27.0) > self.at(plate)
        assert self.at(plate, **change) < self.at(plate)


class TestDirection:
    def test_a_dozens_spread_hardly_shows_fletched(self):
        b = Bench(changed(Rig(), {"bow.marked_weight_lbf": 42.0, "arrow.static_spine": 600.0}))
        cost = b.dozen.cost(5.0, 12.0)
        assert 0 < cost.wide_cm < 3
        assert b.dozen.cost(5.0, 24.0).wide_cm == pytest.approx(2 * cost.wide_cm)

    def test_no_number_where_the_model_was_not_tuned(self):
        thumb = changed(Rig(), {"archer.release": "thumb"})
        assert Bench(thumb).dozen.cost(5.0, 12.0).wide_cm is None
        assert not Bench(changed(Rig(), {"bow.side_plate": "felt"})).flex.fitted


class TestEnergy:
    """Every push, every damper and the work of the changing stiffnesses against what is stored."""

    @pytest.mark.parametrize("plate", ["plunger", "leather", "hard"])
    def test_it_balances_on_the_string(self, plate):
        s, lay, h = (
            setting(plate=plate, offset_mm=-1.0 if plate == "plunger" else 0.0),
            layout(),
            20e-6,
        )
        told, ei = modes(lay), stiffness_n_m2(520.0)
        out = shot([520.0], s, lay, frames=10**6)
        ways, _, a = passing._stroke(s, lay.mass_kg, h)
        n = len(ways)
        lean = (s.offset_m + 0.003) / (s.stroke_m + s.plate_at_m)
        start = np.zeros(8)
        start[:2] = lean * lay.balance_m / told.height[0, 0], lean / told.slope[0, 1]
        q = np.vstack([start, out.shape[: n - 1, 0]])
        rate = np.vstack([np.zeros(8), np.diff(q, axis=0) / h])
        y, v = q @ told.height[0], rate @ told.height[0]
        omega = told.unit_omega * np.sqrt(ei)
        held = passing.string_n_m(s, ways)
        ahead = np.einsum("ni,ij,nj->n", q, told.ahead, q)
        stored = (
            (rate**2).sum(1) + s.string_kg * v**2 + ((omega * q) ** 2).sum(1) + held * y**2
            - a * ahead
        ) / 2  # fmt: skip
        x, over = s.stroke_m - ways, s.go.over_m
        finger = np.where(x < over, s.go.kick_m * np.sin(np.pi * x / (2 * over)) ** 2, -1.0)
        beside, _ = told.at(ways + s.plate_at_m)
        work = (
            -(2 * 0.010 * omega * rate**2).sum(1)
            + (rate * beside).sum(1) * out.push_n[:n, 0]
            + v * s.go.k_n_m * np.maximum(0.0, finger - y)
            + np.gradient(held, h) * y**2 / 2
            - np.gradient(a, h) * ahead / 2
        )
        through = np.trapezoid(np.abs(work), dx=h)
        assert through > 0.05  # joules: something happened
        off = stored[-1] - stored[0] - np.trapezoid(work, dx=h)
        assert abs(off) < 0.0025 * through


def test_first_and_last_touch_are_those_of_the_frames():
    """Kept at every step, the push of the plate begins and ends where it is told."""
    told = shot([450.0, 520.0, 600.0], frames=10**6)
    for i in range(told.push_n.shape[1]):
        pushed = np.flatnonzero(told.push_n[:, i] > 0)
        assert told.first_s[i] == told.time_s[pushed[0]]
        assert told.last_s[i] == told.time_s[pushed[-1]]


def test_no_frames_are_kept_unasked():
    assert shot([520.0]).time_s.shape == (0,)
