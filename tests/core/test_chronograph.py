"""The chronograph: exact without noise, and its bands on fresh bows it was not built from."""

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.arrow.chronograph import Shots, calibrate, outlying
from lyrandis.core.arrow.shot import speed_fps
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views
from lyrandis.core.trials import ChronographTrial, KeptTrial

W, E, K = 40.0, 36.0, 124.0  # lb, ft·lb, gr: what the model says of a bow
BOWS = share(400)


def exact(energy, virtual, *masses, n=3):
    return [Shots(m, (float(speed_fps(energy, m, virtual)),) * n) for m in masses]


class TestWithoutNoise:
    def test_the_line_gives_energy_and_virtual_mass_back(self):
        """Many shots, far apart: the prior has nothing more to say."""
        shots = exact(33.0, 140.0, 250, 350, 500, 700, n=4000)
        told = calibrate(shots, E, K, W)
        assert told.stored_energy_ftlb.value == pytest.approx(33.0, rel=0.005)
        assert told.virtual_mass_gr.value == pytest.approx(140.0, abs=4)
        assert told.line

    def test_one_weight_scales_the_energy_and_keeps_the_virtual_mass(self):
        told = calibrate(exact(33.0, K, 400), E, K, W)
        assert not told.line
        assert told.virtual_mass_gr.source == "model"
        assert told.virtual_mass_gr.value == pytest.approx(K)
        assert told.speed_fps(400).value == pytest.approx(float(speed_fps(33.0, 400, K)), rel=0.002)
        near, far = told.speed_fps(400), told.speed_fps(650)
        assert near.plus_minus / near.value < far.plus_minus / far.value

    def test_readings_narrow_what_the_model_said(self):
        one = calibrate(exact(E, K, 400), E, K, W)
        two = calibrate(exact(E, K, 350, 550), E, K, W)
        assert two.virtual_mass_gr.plus_minus < one.virtual_mass_gr.plus_minus < 0.4 * W + 0.1
        assert one.stored_energy_ftlb.plus_minus < 0.1 * E

    @pytest.mark.parametrize("energy", [25.0, 60.0])
    def test_a_heavier_arrow_is_never_faster(self, energy):
        told = calibrate(exact(energy, 90.0, 300, 500), E, K, W)
        speeds = [told.speed_fps(m).value for m in range(200, 900, 20)]
        assert speeds == sorted(speeds, reverse=True)


class TestNonsense:
    def test_heavier_is_faster(self):
        with pytest.raises(RefusedError, match="heavier arrows came out faster"):
            calibrate([Shots(350, (170.0,)), Shots(500, (180.0,))], E, K, W)

    def test_light_arrows_too_fast_for_the_heavy_ones(self):
        with pytest.raises(RefusedError, match="more than it stores"):
            calibrate([Shots(350, (220.0,)), Shots(500, (150.0,))], E, K, W)

    def test_weights_too_near_are_no_line_and_no_nonsense(self):
        told = calibrate([Shots(400, (180.0,)), Shots(420, (181.0,))], E, K, W)
        assert not told.line

    def test_a_shot_far_off_is_left_out_and_few_are_all_believed(self):
        assert outlying([180, 181, 179.5, 180.4, 160]) == (4,)
        assert outlying([180, 160, 181]) == ()
        assert outlying([180.0] * 5) == ()
        clean = calibrate([Shots(400, (180, 181, 179.5, 180.4))], E, K, W)
        told = calibrate([Shots(400, (180, 181, 179.5, 180.4, 160))], E, K, W)
        assert told.outliers == ((4,),)
        assert told.stored_energy_ftlb.value == pytest.approx(clean.stored_energy_ftlb.value)


def bow(rng, world):
    """A bow's true speed over the mass, with what the model would have said of it."""
    energy, kappa = E * np.exp(rng.normal(0, 0.09)), max(K / W + rng.normal(0, 0.4), 1.5)

    def speed(mass):
        virtual = kappa * W
        if world == "virtual mass grows with the arrow":
            virtual *= 1 + 0.15 * (mass / 450 - 1)
        if world == "light arrows lose more":
            energy_then = energy * (1 - 0.03 * max(0.0, 1 - mass / 450))
            return float(speed_fps(energy_then, mass, virtual))
        return float(speed_fps(energy, mass, virtual))

    return speed


@pytest.mark.parametrize(
    ("world", "masses"),
    [("its own", (330, 450, 600)), ("its own", (350, 450)), ("its own", (420,)),
     ("virtual mass grows with the arrow", (330, 450, 600)), ("light arrows lose more", (330, 600)),
     ("readers who draw by eye", (350, 520))],
)  # fmt: skip
def test_a_weight_not_shot_is_foretold(world, masses):
    rng = np.random.default_rng(11)
    off, inside = [], []
    for _ in range(BOWS):
        speed = bow(rng, world)
        scatter = rng.uniform(0.005, 0.02 if world.startswith("readers") else 0.012)
        shots = [
            Shots(
                m,
                tuple(speed(m) * np.exp(rng.normal(0, 0.004)) * np.exp(rng.normal(0, scatter, 4))),
            )
            for m in masses
        ]
        try:
            told = calibrate(shots, E, K, W)
        except RefusedError:  # chance made nonsense of few shots: no number, no harm
            continue
        m = rng.uniform(300, 650)
        then, real = told.speed_fps(m), speed(m) * np.exp(rng.normal(0, 0.004))
        off.append(abs(then.value / real - 1))
        inside.append(abs(then.value - real) <= 1.645 * then.plus_minus)
    kind = f"chronograph, {world}, {len(masses)} weights"
    claimed(f"{kind}: told at all", len(off) / BOWS, least=0.97, of=BOWS)
    claimed(f"{kind}: share off", np.median(off), most=0.01, of=BOWS, sd=0.01)
    claimed(f"{kind}: bands cover", np.mean(inside), least=0.84, most=0.96, of=BOWS)


class TestOnARig:
    RIG = changed(
        Rig(), {"arrow.grains_per_inch": 7.8 + 26 / 30, "bow.brace_height_in": 8.5}
    )  # 400 gr

    def bench(self, *trials, rig=None):
        rig = rig or self.RIG
        kept = tuple(
            KeptTrial(i + 1, f"2026-05-01T10:{i:02}:00+00:00", t, rig) for i, t in enumerate(trials)
        )
        return Bench(rig, kept)

    def shots(self, mass, speed):
        return ChronographTrial(mass_gr=mass, speeds_fps=(speed - 1, speed, speed + 1))

    def said(self, b):
        (view,) = views(b, ["arrow"])
        return " ".join(f.said.plain() for f in view.findings)

    def test_everything_downstream_narrows(self):
        model = Bench(self.RIG)
        real = model.arrow.shot.speed_fps.value * 0.96
        b = self.bench(self.shots(400, real), self.shots(550, real * 0.87))
        speed = b.arrow.shot.speed_fps
        assert speed.source == "measured"
        assert speed.value == pytest.approx(real, rel=0.01)
        assert speed.plus_minus < model.arrow.shot.speed_fps.plus_minus / 3
        assert b.aim.unshot.speed_mps < model.aim.unshot.speed_mps / 3
        assert b.arrow.shot.curve.speed_fps[0] > b.arrow.shot.curve.speed_fps[-1]
        assert "By the chronograph" in self.said(b)

    def test_a_small_change_moves_it_as_the_model_says(self):
        b = self.bench(self.shots(400, 165), self.shots(550, 144))
        lower = {"bow.brace_height_in": 8.25}
        moved = b.with_changes(lower).arrow.shot.speed_fps.value / b.arrow.shot.speed_fps.value
        model = Bench(self.RIG)
        by_model = model.with_changes(lower).arrow.shot.speed_fps.value
        assert moved == pytest.approx(by_model / model.arrow.shot.speed_fps.value, rel=1e-3)
        assert moved > 1

    def test_a_floor_does_not_fall_because_a_bow_was_quick(self):
        quick = self.bench(self.shots(400, 185), self.shots(550, 168))
        assert quick.arrow.floor.floor_gpp == Bench(self.RIG).arrow.floor.floor_gpp

    def test_nonsense_is_said_and_the_model_stands(self):
        b = self.bench(self.shots(400, 160), self.shots(550, 170))
        assert b.arrow.shot.speed_fps == Bench(self.RIG).arrow.shot.speed_fps
        assert "heavier arrows came out faster" in self.said(b)

    def test_one_weight_asks_for_another_and_a_shot_far_off_is_said(self):
        b = self.bench(ChronographTrial(mass_gr=400, speeds_fps=(165, 166, 165.5, 166.5, 140)))
        assert "a quarter heavier or lighter" in self.said(b)
        assert "1 shot lay far from the others" in self.said(b)

    @pytest.mark.parametrize(
        "change", [{"bow.marked_weight_lbf": 40.0}, {"archer.draw_length_in": 29.0},
                   {"bow.brace_height_in": 8.0}, {"string.silencers_gr": 40.0}],
    )  # fmt: skip
    def test_shots_made_otherwise_do_not_count(self, change):
        b = self.bench(self.shots(400, 165))
        assert b.arrow.calibration is not None
        assert b.with_changes(change).arrow.calibration is None
