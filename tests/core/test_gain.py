"""What a change was found to do decides what the next is taken to do (docs/mechanics D, F1)."""

import numpy as np
import pytest
from test_flight import RIG, kept, nocks, told
from test_match import TAKEDOWN

from claims import claimed, share
from lyrandis.core.bench import Bench
from lyrandis.core.bench.cures import LEAST_BROUGHT, cure, moved_groups
from lyrandis.core.fields import changed
from lyrandis.core.flight.belief import Change
from lyrandis.core.flight.gain import GAIN_SD, taught, untaught
from lyrandis.core.flight.read_filter import Reading, prior
from lyrandis.core.flight.read_tests import truths
from lyrandis.core.stations import views
from worlds.archers import Archer


def reads(archer, kinds=("kick_7_paces", "bare_shaft_15m", "kick_3_paces")):
    return [Reading(kind, archer.shows(kind)) for kind in kinds]


class TestGain:
    def test_before_any_change_it_is_the_models_own(self):
        assert untaught().mean == pytest.approx(1.0, abs=1e-6)
        assert GAIN_SD < untaught().sd < 1.6 * GAIN_SD  # now and then it does something else

    def test_a_change_that_did_nothing_or_the_opposite_is_learnt(self):
        """A shaft two groups weak, changed by what the model calls one and a half stiffer."""
        start = np.exp(-0.5 * ((truths().s + 2) / 0.5) ** 2) * prior()
        start /= start.sum()
        by = Change(1.5)
        means = [
            taught(untaught(), start, by, [Reading("kick_7_paces", shown)] * 2
                   + [Reading("bare_shaft_15m", f"{shown}/level")]).mean
            for shown in ("straight", "weak")
        ]  # fmt: skip
        assert means[0] > 1.0
        assert means[1] < means[0] - 0.15

    def test_a_change_too_small_and_one_not_read_teach_nothing(self):
        start = prior()
        read = [Reading("kick_7_paces", "weak")]
        assert taught(untaught(), start, Change(0.2), read).changes == 0
        assert taught(untaught(), start, Change(2.0), []).changes == 0
        assert taught(untaught(), start, Change(2.0), read).changes == 1

    @pytest.mark.parametrize("true", [-0.4, 0.4, 1.0, 1.8])
    def test_its_band_covers_and_it_beats_the_model(self, true):
        rng, off, z, n = np.random.default_rng(3), [], [], share(200, 40)
        for _ in range(n):
            archer = Archer(rng, 0.0)
            archer.s, archer.bounces = -1.6, False
            start = np.exp(-0.5 * ((truths().s + 1.6) / 0.5) ** 2) * prior()
            gain = untaught()
            for step in (1.5, -1.0, 1.2):
                archer.s = float(np.clip(archer.s + true * step, -3.2, 3.2))
                after = reads(archer)
                gain = taught(gain, start / start.sum(), Change(step), after)
                start = np.exp(-0.5 * ((truths().s - archer.s) / 0.5) ** 2) * prior()
            off.append(abs(gain.mean - true))
            z.append(abs(gain.mean - true) / np.hypot(gain.sd, 0.05))
        if abs(true - 1) > 0.5:
            claimed(f"gain of a change, truly {true}: nearer than the model",
                    np.mean(np.array(off) < abs(1 - true)), least=0.85, of=n)  # fmt: skip
        within = np.mean(np.array(z) < 2.0)
        claimed(f"gain of a change, truly {true}: within two sd", within, least=0.8, of=n)


class TestCure:
    def test_it_is_what_the_window_then_says(self):
        b = Bench(changed(TAKEDOWN, {"arrow.static_spine": 620.0}))
        error = b.spine_error_groups
        assert error < -0.5
        found = cure(b, lambda by: {"arrow.point_gr": b.rig.arrow.point_gr + by}, -error, 5.0,
                     (-50.0, 50.0))  # fmt: skip
        assert found.by < 0  # a lighter point reads stiffer
        assert found.by % 5 == 0
        then = moved_groups(b, {"arrow.point_gr": b.rig.arrow.point_gr + found.by})
        assert found.groups == pytest.approx(then)
        assert found.groups == pytest.approx(-error, abs=0.15)

    def test_what_brings_less_than_half_is_kept_back(self):
        b = Bench(changed(TAKEDOWN, {"arrow.static_spine": 620.0}))

        def point(by):
            return {"arrow.point_gr": b.rig.arrow.point_gr + by}

        whole = cure(b, point, 1.0, 5.0, (-50.0, 50.0)).by
        assert cure(b, point, 1.0, 5.0, (whole * LEAST_BROUGHT * 0.8, 0.0)) is None
        assert cure(b, point, 1.0, 5.0, (whole * LEAST_BROUGHT * 1.4, 0.0)) is not None
        assert cure(b, lambda _: {"arrow.shaft_length_in": 20.0}, 1.0, 0.5, (-5, 5)) is None


class TestOnTheRig:
    WEAK = changed(RIG, {"arrow.static_spine": 700.0, "string.mass_gr": None})

    def after_a_lighter_point(self, cells):
        """Read weak, a point lighter by 30 gr, then read by these cells."""
        lighter = changed(self.WEAK, {"arrow.point_gr": self.WEAK.arrow.point_gr - 30})
        weak = (nocks(4, 4, 4), told("bare_shaft_15m", "weak/level"), told("wear_marks", "no"))
        then = (nocks(*cells), nocks(*cells, test="kick_3_paces"))
        rigs = [self.WEAK] * 3 + [lighter] * 2
        return Bench(lighter, kept(*weak, *then, rigs=rigs)), lighter

    def test_a_change_read_teaches_what_the_next_is_taken_to_do(self):
        helped, rig = self.after_a_lighter_point((6, 6, 6))
        not_at_all, _ = self.after_a_lighter_point((4, 4, 4))
        gains = [b.reading.gain_of("point") for b in (helped, not_at_all)]
        assert [g.changes for g in gains] == [1, 1]
        assert gains[0].mean > 1.0 > gains[1].mean
        more = changed(rig, {"arrow.point_gr": rig.arrow.point_gr - 20})
        model = moved_groups(helped, {"arrow.point_gr": rig.arrow.point_gr - 20})
        for b, g in zip((helped, not_at_all), gains, strict=True):
            assert b.reading.change(rig, more).groups == pytest.approx(g.mean * model)
        assert helped.reading.gain_of("shaft").changes == 0

    def test_centre_shot_asks_of_the_shaft_what_flew_not_what_was_computed(self):
        straight = (nocks(5, 5, 5), nocks(5, 5, 5, test="kick_3_paces"),
                    told("bare_shaft_15m", "straight/level"))  # fmt: skip
        rig = changed(RIG, {"arrow.static_spine": 760.0})

        def says(trials):
            found = views(Bench(rig, trials), ["centre-shot"])[0].findings
            return " ".join(f.said.plain() for f in found)

        assert "looks weak" in says(())
        assert "yours suits where it stands" in says(kept(*straight, rigs=[rig] * 3))
