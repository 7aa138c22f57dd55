"""A measured number shows the newest trial whose grounds hold; otherwise it is an estimate again."""

import math

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.measured import measured_now, model_lbf, recalled, untrue
from lyrandis.core.parts import Bow, Rig, String
from lyrandis.core.route import Mark, states
from lyrandis.core.stations import TELLERS
from lyrandis.core.tally import tally
from lyrandis.core.trials import (
    ArrowWeighingTrial,
    KeptTrial,
    StringWeighingTrial,
    WeighingTrial,
    implied_by,
    implied_number,
    trials_in,
)

BASE = Rig(bow=Bow(marked_weight_lbf=34, riser_in=25), string=String(material="low_stretch"))
READINGS = ((20.0, 19.6), (24.0, 27.6), (28.0, 36.3))


def logged(*made):
    """Trials on rigs, one day after another."""
    return tuple(
        KeptTrial(i, f"2026-04-{i:02d}T10:00:00+00:00", trial, rig)
        for i, (trial, rig) in enumerate(made, 1)
    )


def settled(rig, trials):
    """The rig as the store keeps it: measured where the trials say so."""
    return changed(rig, untrue(rig, trials))


def findings(station, b):
    return [f.said.plain() for f in TELLERS[station].tell(b).findings]


class TestGrounds:
    def test_scale_readings_rest_on_limbs_bolts_fibre_and_a_brace_within_half_an_inch(self):
        trials = logged((WeighingTrial(readings=READINGS), BASE))
        for changes, holds in (
            ({}, True),
            ({"archer.draw_length_in": 27}, True),
            ({"bow.brace_height_in": 8.9}, True),
            ({"bow.brace_height_in": 9.3}, False),
            ({"limbs.upper_turns": 0.12}, True),
            ({"limbs.upper_turns": 0.25}, False),
            ({"string.material": "polyester"}, False),
            ({"string.strands": 20}, True),
            ({"on.upper_limb": "a" * 32}, False),
            ({"on.riser": "a" * 32}, False),
            ({"arrow.point_gr": 300}, True),
        ):
            now = measured_now(changed(BASE, changes), trials)["bow.measured"]
            assert bool(now) is holds, changes

    @pytest.mark.parametrize(
        "path", ["arrow.point_gr", "arrow.nock_gr", "arrow.fletching_gr", "arrow.insert_gr",
                 "arrow.shaft_length_in", "arrow.grains_per_inch"],
    )  # fmt: skip
    def test_a_weighed_arrow_rests_on_each_of_its_parts(self, path):
        trials = logged((ArrowWeighingTrial(mass_gr=400), BASE))
        other = changed(BASE, {path: float(trials[0].rig.model_dump()[path.split(".")[0]][
            path.split(".")[1]]) + 2})  # fmt: skip
        assert measured_now(BASE, trials)["arrow.weighed_gr"] == 400
        assert measured_now(other, trials)["arrow.weighed_gr"] is None

    def test_another_string_is_another_weight_and_turns_are_not(self):
        trials = logged((StringWeighingTrial(mass_gr=95), BASE))
        assert measured_now(changed(BASE, {"string.twists": 30}), trials)["string.mass_gr"] == 95
        other = changed(BASE, {"on.string": "b" * 32})
        assert measured_now(other, trials)["string.mass_gr"] is None

    def test_the_newest_that_holds_counts_and_an_older_one_comes_back(self):
        heavy = changed(BASE, {"arrow.point_gr": 125})
        trials = logged(
            (ArrowWeighingTrial(mass_gr=400), BASE), (ArrowWeighingTrial(mass_gr=415), heavy)
        )
        assert measured_now(heavy, trials)["arrow.weighed_gr"] == 415
        assert measured_now(BASE, trials)["arrow.weighed_gr"] == 400
        struck = (trials[0], KeptTrial(2, trials[1].at, trials[1].trial, heavy, struck=True))
        assert measured_now(heavy, struck)["arrow.weighed_gr"] is None

    def test_a_simulated_scale_never_counts(self):
        trials = logged((WeighingTrial(readings=READINGS, scale="simulated"), BASE))
        assert measured_now(BASE, trials)["bow.measured"] == ()
        assert recalled("bow.measured", BASE, trials, 28) is None

    def test_what_came_without_a_trial_is_numbered_below_nought_and_found_again(self):
        numbers = set()
        for seq in range(50):
            for path in ("bow.measured", "arrow.weighed_gr", "string.mass_gr"):
                number = implied_number(seq, path)
                assert number < 0
                assert implied_by(number) == seq
                numbers.add(number)
        assert len(numbers) == 150
        values = {"bow.measured": (), "arrow.weighed_gr": 410.0, "string.mass_gr": None}
        assert [path for path, _ in trials_in(values)] == ["arrow.weighed_gr"]
        assert list(trials_in({"arrow.weighed_gr": 1e9})) == []  # the rig refuses it itself


class TestRecalled:
    def test_other_limbs_carry_the_old_reading_by_the_models_ratio(self):
        trials = logged((WeighingTrial(readings=READINGS), BASE))
        now = changed(BASE, {"on.upper_limb": "a" * 32, "bow.marked_weight_lbf": 40})
        told = recalled("bow.measured", now, trials, 28)
        assert told.was == pytest.approx(36.3)
        assert told.now.value == pytest.approx(36.3 * model_lbf(now, 28) / model_lbf(BASE, 28))
        assert told.now.value == pytest.approx(36.3 * 40 / 34, rel=0.01)
        assert told.now.plus_minus == pytest.approx(
            math.hypot(0.01 * told.now.value, 1.5 * 2**0.5), rel=0.2
        )
        assert told.moved == ["limbs"]
        b = Bench(now, trials, "2026-05-01T10:00:00+00:00")
        draw = b.archer.true_draw.value
        assert b.bow.force_lbf == pytest.approx(b.recalled["bow.measured"].now.value, rel=0.01)
        assert (b.bow.weight.source, draw) == ("model", 28)
        said = next(f for f in findings("weight", b) if f.startswith("Was"))
        assert said.startswith(
            "Was 36.3 lb by the scale on 2026-04-01; the limbs changed since: about 42."
        )
        assert said.endswith("Weigh the bow again.")

    def test_a_bolt_turned_leaves_less_doubt_than_other_limbs(self):
        trials = logged((WeighingTrial(readings=READINGS), BASE))
        turned = changed(BASE, {"limbs.upper_turns": 1, "limbs.lower_turns": 1})
        other = changed(BASE, {"on.upper_limb": "a" * 32})
        few = recalled("bow.measured", turned, trials, 28).now
        many = recalled("bow.measured", other, trials, 28).now
        assert few.plus_minus < many.plus_minus

    def test_a_heavier_point_adds_what_it_weighs_and_the_tally_says_estimated(self):
        trials = logged((ArrowWeighingTrial(mass_gr=345), BASE))
        now = settled(changed(BASE, {"arrow.weighed_gr": 345, "arrow.point_gr": 125}), trials)
        assert now.arrow.weighed_gr is None
        b = Bench(now, trials, "2026-05-01T10:00:00+00:00")
        told = b.recalled["arrow.weighed_gr"]
        assert told.now.value == pytest.approx(360, abs=2)
        assert 1 < told.now.plus_minus < 6
        assert b.arrow.build.mass_gr == told.now.value
        mass = next(t for t in tally(b) if t.id == "mass")
        assert mass.source == "rule"
        assert mass.value.plus_minus == told.now.plus_minus
        assert any("the point changed since" in f for f in findings("arrow", b))

    def test_what_is_measured_or_never_was_recalls_nothing(self):
        trials = logged((ArrowWeighingTrial(mass_gr=345), BASE))
        assert recalled("arrow.weighed_gr", settled(BASE, trials), trials, 28) is None
        assert recalled("string.mass_gr", BASE, trials, 28) is None

    def test_it_says_on_which_rig_it_was(self):
        other = changed(BASE, {"name": "Club bow"})
        trial = KeptTrial(
            1, "2026-04-01T10:00:00Z", WeighingTrial(readings=READINGS), other, False, 7
        )
        now = changed(BASE, {"string.material": "polyester"})
        b = Bench(now, (), "2026-05-01T10:00:00+00:00", (trial,))
        assert any("with Club bow" in f for f in findings("weight", b))


class TestQuestioned:
    @pytest.mark.parametrize(
        ("force", "words"),
        [(36.3, None), (34.5 * 0.4536, "kilograms"), (34.5 * 2.2046, "entered as kilograms"),
         (24.0, "other limbs")],
    )  # fmt: skip
    def test_a_reading_far_from_the_marking_names_the_likely_slip(self, force, words):
        rig = changed(BASE, {"bow.measured": [[28.0, force]]})
        said = [f for f in findings("weight", Bench(rig)) if "read it again" in f]
        assert (said == []) if words is None else (words in said[0])

    def test_the_draw_by_another_convention_is_known_by_its_size(self):
        for off, words in ((1.75, "to the grip and entered"), (-1.75, "added to the draw twice")):
            rig = changed(BASE, {"bow.measured": [[20.0, model_lbf(BASE, 20 + off)]]})
            said = next(f for f in findings("weight", Bench(rig)) if "read it again" in f)
            assert words in said

    def test_a_brace_that_the_string_cannot_give(self):
        fits = Bench(changed(BASE, {"string.length_in": 64.5, "bow.brace_height_in": 8.5}))
        assert not any("would brace" in f for f in findings("brace", fits))
        short = Bench(changed(BASE, {"string.length_in": 62, "bow.brace_height_in": 7.5}))
        assert any("would brace" in f for f in findings("brace", short))


class TestDue:
    def test_what_ended_a_measurement_does_not_settle_its_station(self):
        weighed = changed(BASE, {"arrow.weighed_gr": 345})
        marks = (Mark("arrow", "settled", weighed),)
        assert next(s for s in states(marks, weighed) if s.station == "arrow").state == "settled"
        now = changed(weighed, {"arrow.weighed_gr": None})
        due = next(s for s in states(marks, now) if s.station == "arrow")
        assert due.state == "due"
        assert "weigh a finished arrow" in due.reasons[0].plain()

    def test_stations_stand_as_they_did_when_string_and_set_come_back(self):
        one = changed(BASE, {"on.string": "a" * 32, "on.arrows": "b" * 32, "string.strands": 14})
        two = changed(one, {"on.string": "c" * 32, "string.strands": 18})
        marks = (Mark("quiet", "settled", one), Mark("quiet", "provisional", two))
        state = {r.on.string[0]: next(s.state for s in states(marks, r) if s.station == "quiet")
                 for r in (one, two)}  # fmt: skip
        assert state == {"a": "settled", "c": "provisional"}
        third = changed(two, {"on.string": "d" * 32})
        due = next(s for s in states(marks, third) if s.station == "quiet")
        assert due.reasons[0].plain() == "The string is another: listen again."


@pytest.mark.parametrize("world", ["normal", "flat", "heavy tails", "one maker marks low"])
def test_the_doubt_of_other_limbs_covers_what_it_says_on_bows_marked_otherwise(world):
    """Limbs that pull off their markings, each its own way: the next reading against the ± told."""
    rng = np.random.default_rng(1207)

    def off(n):  # lb, of what 34 to 44 lb markings are good to
        return {
            "normal": rng.normal(0, 1.5, n),
            "flat": rng.uniform(-2.5, 2.5, n),
            "heavy tails": np.clip(rng.standard_t(3, n), -4, 4),
            "one maker marks low": rng.normal(0.8, 1.2, n),
        }[world]

    errors = []
    for marked, before, after in zip(rng.integers(36, 45, 120), off(120), off(120), strict=True):
        then = model_lbf(BASE, 28) + before
        trials = logged((WeighingTrial(readings=((28.0, round(then, 2)),)), BASE))
        now = changed(BASE, {"on.upper_limb": "a" * 32, "bow.marked_weight_lbf": float(marked)})
        told = recalled("bow.measured", now, trials, 28).now
        errors.append((model_lbf(now, 28) + after - told.value) / told.plus_minus)
    within = np.mean(np.abs(errors) < 1.645)
    assert within > 0.87
