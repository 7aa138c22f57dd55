"""Evidence turns a belief the right way: each case made by hand, so that a turned sign is noticed."""

import numpy as np
import pytest
from test_clip import RIG, clip_of, filmed
from test_from_rack import ARROWS, ASKING, BOW, STRING, lie

from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import stack_onset_in
from lyrandis.core.fields import changed
from lyrandis.core.flight.read_filter import Reading, believed, prior, shares
from lyrandis.core.flight.read_tests import TESTS, tables, truths
from lyrandis.core.from_rack import rack_fit
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial
from lyrandis.core.tune.nock_reads import BOUNCE_SHARE, MISREAD, outcome_chances

LOW, LEVEL, HIGH = range(3)


@pytest.mark.parametrize("seed", range(3))
def test_the_nocks_way_on_a_clip_speaks_for_the_shaft_that_it_fits(seed):
    trial = clip_of(filmed(Bench(RIG), seed), np.random.default_rng(seed), tail="unseen")
    kept = KeptTrial(1, "2026-04-01T10:00:00+00:00", trial, RIG)
    reading = Bench(RIG, (kept,)).reading
    s = truths().s
    before = np.full(len(s), 1 / len(s))
    after = reading._weighed(before, kept)
    fits = reading.clips[1].nock_way.groups
    assert s[np.argmax(after)] == pytest.approx(fits)
    assert after[s == fits].min() > after[np.abs(s - fits) > 1.5].max()


class TestABouncingShaft:
    """It is stiff and looks weak, strikes the plate, and changes with what the plate is like."""

    @pytest.mark.parametrize(
        ("test", "outcome"),
        [
            ("kick_3_paces", "weak"),
            ("kick_7_paces", "weak"),
            ("wear_marks", "yes"),
            ("clatter", "heard"),
            ("slow_motion", "bounce"),
            ("felt_plate", "swings"),
            ("brace_reread", "swings"),
        ],
    )
    def test_each_read_speaks_for_the_bounce_that_would_make_it(self, test, outcome):
        w, chance = truths(), tables()[test][:, TESTS[test].outcomes.index(outcome)]
        very_stiff = (w.s >= w.s.max()) & (w.touches == 0)
        assert chance[very_stiff & (w.bounces > 0)].min() > 0.4
        assert chance[very_stiff & (w.bounces == 0)].max() < 0.35
        start = prior()
        told = shares(believed([Reading(test, outcome)], start))
        assert told[0] > 1.3 * shares(start)[0]

    @pytest.mark.parametrize("test", ["wear_marks", "clatter", "slow_motion"])
    def test_a_sign_of_contact_speaks_for_any_other_touch_as_well(self, test):
        w, chance = truths(), tables()[test][:, 1]
        touching = chance[(w.touches > 0) & (w.bounces == 0)]
        clear = chance[(w.touches == 0) & (w.bounces == 0)]
        assert touching.min() > 4 * clear.max()
        after = believed([Reading(test, TESTS[test].outcomes[1])], prior())
        assert after @ w.touches > 2 * (prior() @ w.touches)

    def test_a_nock_clearly_too_low_reads_high_by_bouncing(self):
        told = outcome_chances(np.array([-8.0, -1.0, 8.0]), 1.0)
        assert np.allclose(told.sum(axis=-1), 1)
        kept, shared = 1 - MISREAD, MISREAD / 3
        assert told[0] == pytest.approx(
            [kept * (1 - BOUNCE_SHARE) + shared, shared, kept * BOUNCE_SHARE + shared], abs=1e-3
        )
        assert told[1, HIGH] < 0.2
        assert told[2, HIGH] > 0.9


class TestTheSchools:
    RIG = changed(Rig(), {"bow.length_in": 66.0, "bow.riser_in": 23.0})

    def test_a_candidates_votes_are_those_of_the_schools_one_by_one(self):
        """A rule of thumb is against what lies outside its range, and whoever is not against is for."""
        fit = Bench(self.RIG).fit
        by_rule = {s.school: s for s in fit.schools if s.verdict != "silent"}
        for c in fit.candidates:
            against = {
                name
                for name, s in by_rule.items()
                if name in ("ladder", "limb_first", "ratio_band")
                and not s.low_in - 0.5 <= c.length_in <= s.high_in + 0.5
            }
            assert against <= set(c.schools_against), c
            assert c.schools_for == len(by_rule) - len(c.schools_against)
            assert c.schools_of == len(by_rule)
        whole = max(fit.candidates, key=lambda c: c.schools_for)
        least = min(fit.candidates, key=lambda c: c.schools_for)
        assert whole.score > least.score

    def test_the_own_bows_reserve_is_its_onset_less_the_draw(self):
        b = Bench(self.RIG)
        onset = stack_onset_in(self.RIG.bow, self.RIG.string.material)
        assert b.fit.own.stack_reserve_in == pytest.approx(onset - 28.0)
        assert 0 < b.fit.own.stack_reserve_in < 4

    def test_on_the_rack_the_bow_that_more_schools_are_for_comes_first(self):
        short = BOW.model_copy(update={"length_in": 54})
        lying = [lie(1, short, "short"), lie(2, BOW, "long"), lie(3, STRING), lie(4, ARROWS)]
        builds = rack_fit(ASKING, lying).builds
        fits = {b.parts[0].name: sum(s.verdict == "fits" for s in b.schools) for b in builds}
        assert fits["long"] > fits["short"]
        assert [b.parts[0].name for b in builds] == ["long", "short"]
