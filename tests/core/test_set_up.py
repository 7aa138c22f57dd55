"""What the stations of the set-up tell: tiller, weights, nock point, by what was tried."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views
from lyrandis.core.trials import CentreShotTrial, KeptTrial, NockReadTrial, TillerTrial

RIG = changed(Rig(), {"nock_height_mm": 19.0})
ONE_PIECE = changed(RIG, {"bow.takedown": False, "bow.side_plate": "leather"})


def tried(rig, *trials, on=None):
    """A rig's bench after trials; `on` gives the rig each was made on."""
    on = on or [rig] * len(trials)
    kept = tuple(
        KeptTrial(i + 1, f"2026-05-01T10:{i:02}:00+00:00", t, r)
        for i, (t, r) in enumerate(zip(trials, on, strict=True))
    )
    return Bench(rig, kept)


def told(b, station):
    (view,) = views(b, [station])
    return view


def text(b, station):
    return " ".join(f.said.plain() for f in told(b, station).findings)


def action(b, station):
    return next(
        (f.action for f in told(b, station).findings if f.action and f.action.changes), None
    )


class TestTiller:
    FAR = TillerTrial(upper_mm=196, lower_mm=188)

    def test_a_measurement_leads_to_a_turn_of_both_bolts_and_what_it_costs(self):
        b = tried(RIG, self.FAR)
        assert "keeps the weight" in text(b, "tiller")
        offered = action(b, "tiller").changes
        assert offered["limbs.upper_turns"] < 0 < offered["limbs.lower_turns"]
        assert told(b, "tiller").answer.values["tiller"].plus_minus > 0

    def test_once_turned_it_asks_to_be_measured_and_offers_nothing_more(self):
        b = tried(RIG, self.FAR)
        turned = b.with_changes(action(b, "tiller").changes)
        assert "measure both distances" in text(turned, "tiller")
        assert "before the last turn" in told(turned, "tiller").answer.plain()
        assert action(turned, "tiller") is None

    def test_the_second_look_teaches_what_a_turn_does(self):
        first = tried(RIG, self.FAR)
        after = changed(RIG, action(first, "tiller").changes)
        b = tried(after, self.FAR, TillerTrial(upper_mm=190, lower_mm=188), on=[RIG, after])
        prior, learnt = first.tiller.told, b.tiller.told
        assert learnt.per_turn_mm[0] > prior.per_turn_mm[0]
        assert learnt.per_turn_sd_mm[0] < prior.per_turn_sd_mm[0]
        assert "On this bow a turn of the upper bolt" in text(b, "tiller")
        assert "On this bow" not in text(first, "tiller")
        assert b.tiller.told.good or b.tiller.told.step_turns != (0.0, 0.0)

    def test_the_final_one_wants_the_weights_on(self):
        b = tried(RIG, TillerTrial(upper_mm=188.5, lower_mm=188))
        assert "leave it" in text(b, "final-tiller")
        hung = b.with_changes({"weights.middle_g": 150.0})
        assert "measure both distances once more" in text(hung, "final-tiller")
        assert "leave it" in text(hung, "tiller")

    def test_a_bow_without_bolts_is_left_to_its_bowyer(self):
        b = tried(ONE_PIECE, self.FAR)
        assert "its bowyer decides" in text(b, "tiller")
        assert action(b, "tiller") is None

    def test_other_limbs_and_another_marking_begin_anew(self):
        b = tried(RIG, self.FAR)
        assert b.with_changes({"bow.marked_weight_lbf": 38.0}).tiller.told is None
        other = changed(RIG, {"on.upper_limb": "a" * 32})
        assert Bench(other, b.trials).tiller.told is None

    def test_a_wish_moves_what_is_left_alone(self):
        b = tried(RIG, TillerTrial(upper_mm=196, lower_mm=190))
        assert not b.tiller.told.good
        assert b.with_changes({"limbs.tiller_wanted_mm": 6.0}).tiller.told.good

    def test_an_odd_reading_waits_for_another(self):
        odd = TillerTrial(upper_mm=230, lower_mm=188)
        b = tried(RIG, self.FAR, odd)
        assert "Measure again before you turn anything" in text(b, "tiller")
        assert action(b, "tiller") is None


class TestWeights:
    def test_a_pocket_alone_is_offered_to_the_grip(self):
        b = Bench(changed(RIG, {"weights.lower_pocket_g": 80.0, "weights.middle_g": 50.0}))
        assert "wants a higher nock point" in text(b, "weights")
        assert action(b, "weights").changes == {
            "weights.lower_pocket_g": 0.0, "weights.middle_g": 130.0,
        }  # fmt: skip
        assert "a lower nock point" in text(
            Bench(changed(RIG, {"weights.upper_pocket_g": 80.0})), "weights"
        )

    def test_what_practice_says_of_each_place(self):
        both = changed(RIG, {"weights.upper_pocket_g": 40.0, "weights.lower_pocket_g": 40.0})
        assert "both pockets" in text(Bench(both), "weights")
        bar = changed(RIG, {"weights.bar_g": 200.0})
        assert "holds stiller" in text(Bench(bar), "weights")
        front = changed(RIG, {"weights.front_g": 200.0})
        assert "tips the bow forward" in text(Bench(front), "weights")
        heavy = changed(RIG, {"weights.middle_g": 900.0})
        assert "tires a shoulder" in text(Bench(heavy), "weights")
        assert all("your class" in text(Bench(r), "weights") for r in (RIG, bar, heavy))


class TestCentreShot:
    def test_looks_that_disagree_with_the_setting_offer_to_set_it(self):
        b = tried(RIG, *[CentreShotTrial(gap_mm=12.0)] * 3)
        assert "farther out than it is set" in text(b, "centre-shot")
        after = b.with_changes(action(b, "centre-shot").changes)
        assert after.centre_shot.at.gap_mm == pytest.approx(12.0, abs=0.3)

    def test_looks_that_agree_say_so(self):
        gap = Bench(RIG).centre_shot.at.gap_mm
        assert "agree with the plate" in text(
            tried(RIG, CentreShotTrial(gap_mm=gap)), "centre-shot"
        )

    def test_a_look_at_another_setting_does_not_count(self):
        b = tried(RIG, CentreShotTrial(gap_mm=12.0))
        assert b.with_changes({"bow.side_plate_mm": 1.0}).centre_shot.seen is None


class TestNockPoint:
    def reads(self, *pairs):
        trials = [NockReadTrial(height_mm=h, tail=t, distance_m=4) for h, t in pairs]
        return tried(changed(RIG, {"nock_height_mm": pairs[-1][0]}), *trials)

    def test_a_read_names_the_next_height_and_it_can_be_taken(self):
        b = self.reads((19.0, "low"))
        change = action(b, "nock-point").changes
        assert change["nock_height_mm"] > 19.0
        assert "tells the most" in text(b, "nock-point")

    def test_found_is_tied_and_another_height_is_told_so(self):
        b = self.reads((19, "low"), (24, "high"), (21, "level"), (20, "low"), (22, "high"),
                       (21.5, "level"))  # fmt: skip
        found = b.nock.found
        assert found.end == "found"
        assert "Tie it there" in text(b, "nock-point")
        elsewhere = b.with_changes({"nock_height_mm": found.best_mm + 6})
        assert "The reads found it at" in text(elsewhere, "nock-point")
        assert action(elsewhere, "nock-point").changes["nock_height_mm"] == pytest.approx(
            found.best_mm, abs=0.01
        )

    def test_reads_that_never_agree_end_without_a_promise(self):
        mixed = [(19.0, t) for t in ("high", "low", "level", "high", "low", "level", "high")]
        b = self.reads(*mixed)
        assert b.nock.found.end == "out_of_patience"
        assert "do not agree" in text(b, "nock-point")

    @pytest.mark.parametrize(
        "change",
        [{"archer.release": "split"}, {"bow.brace_height_in": 8.0}, {"nocking.fit": "tight"},
         {"weights.lower_pocket_g": 60.0}, {"limbs.upper_turns": 0.5}],
    )  # fmt: skip
    def test_reads_made_otherwise_do_not_count(self, change):
        b = self.reads((19.0, "low"))
        assert b.with_changes(change).nock.found is None

    def test_by_eye_begins_with_a_level_arrow(self):
        b = Bench(changed(Rig(), {"nocking.school": "by_eye"}))
        assert "level by eye" in text(b, "nock-point")
        assert action(b, "nock-point").changes == {"nock_height_mm": 0.0}

    @pytest.mark.parametrize(
        ("fit", "release", "words"),
        [("not_tried", "split", "off with a tap"), ("snug", "split", "as it should"),
         ("loose", "split", "a shot without an arrow"), ("loose", "thumb", "thumb archer's choice"),
         ("tight", "thumb", "dragged off")],
    )  # fmt: skip
    def test_the_fit_of_the_arrow_nock(self, fit, release, words):
        rig = changed(RIG, {"nocking.fit": fit, "archer.release": release})
        assert words in text(Bench(rig), "nock-point")

    def test_pockets_and_tiller_say_on_which_side_to_begin(self):
        pocket = changed(RIG, {"weights.lower_pocket_g": 60.0})
        assert "begin on the higher side" in text(Bench(pocket), "nock-point")
        assert "begin on" not in text(
            Bench(changed(pocket, {"weights.upper_pocket_g": 60.0})), "nock-point"
        )
        stiff = tried(RIG, TillerTrial(upper_mm=200, lower_mm=188))
        assert "the lower limb is plainly the stiffer" in text(stiff, "nock-point")

    def test_what_a_hand_costs(self):
        assert "1.0 mm lower" in text(Bench(RIG), "nock-point")
        thumb = changed(RIG, {"archer.release": "thumb"})
        assert "whole clearance" in text(Bench(thumb), "nock-point")
        lined = changed(thumb, {"nocking.grip_line": "line"})
        assert "Set the hand to its line" in text(Bench(lined), "nock-point")
