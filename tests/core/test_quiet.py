"""The quiet checks: what a change did with its ±, the order, the day, and a tone that has grown."""

import math

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bench.quiet import quiet_of
from lyrandis.core.parts import Rig
from lyrandis.core.route import STATIONS, WATCHES
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import BraceTrial, KeptTrial, QuietTrial
from lyrandis.core.tune.quiet import CHECKS, difference, likely_places

AT = "2026-03-01T10:00:00+00:00"


def trial(check="loose", before=62.0, after=60.0, n=3, **more):
    return QuietTrial(check=check, before_db=(before,) * n, after_db=(after,) * n, **more)


def kept(*trials):
    return tuple(KeptTrial(i + 1, AT, t, Rig()) for i, t in enumerate(trials))


def judged(trial):
    return quiet_of(kept(trial)).done[0]


def said(*trials):
    return " ".join(f.said.plain() for f in TELLERS["quiet"].tell(Bench(Rig(), kept(*trials), AT)).findings)  # fmt: skip


def test_the_difference_and_its_doubt():
    d = difference((60.0, 62.0, 61.0), (58.0, 59.0, 60.0))
    assert d.value == pytest.approx(-2)
    assert d.plus_minus == pytest.approx(math.sqrt(2 * (1.1**2 / 3 + 1)))


@pytest.mark.parametrize("visit_sd", [0.35, 1.0])
def test_the_doubt_is_honest_on_fresh_shots(visit_sd):
    """Of unchanged bows at most one in twenty is called changed, visits differing by a decibel."""
    rng = np.random.default_rng(9)

    def visit():
        return tuple(60 + rng.normal(0, visit_sd) + rng.normal(0, 1.1, 3))

    verdicts = [
        judged(QuietTrial(check="loose", before_db=visit(), after_db=visit())).verdict
        for _ in range(2000)
    ]
    assert np.mean([v != "same" for v in verdicts]) <= 0.05


def test_looked_and_found_nothing_is_a_check_too():
    looked = QuietTrial(check="strand")
    assert judged(looked).verdict == "looked"
    assert looked.said().plain() == "quiet check, strand: looked, found nothing"
    assert quiet_of(kept(trial("brace", 64, 60), looked)).next == "strands"
    assert "Looked at a loose strand: nothing found." in said(looked)
    with pytest.raises(ValueError, match="go together"):
        QuietTrial(check="loose", before_db=(60.0,))


def test_a_finished_sweep_ticks_the_first_check():
    assert quiet_of((), swept=True).next == "strand"
    trials = [
        BraceTrial(brace_height_in=b, levels_db=(60 + 20 * (b - 8.75) ** 2,) * 3)
        for b in (8.25, 9.5, 8.875, 9.1875, 8.5625, 8.75)
    ]
    assert Bench(Rig(), kept(*trials), AT).quiet.made == ("brace",)
    assert Bench(Rig(), kept(*trials[:3]), AT).quiet.made == ()


@pytest.mark.parametrize(("after", "verdict"), [(57.0, "quieter"), (67.0, "louder"), (61.5, "same")])  # fmt: skip
def test_verdicts(after, verdict):
    assert judged(trial(after=after)).verdict == verdict


def test_checks_follow_their_order_and_only_one_day_counts():
    assert quiet_of(()).next == "brace"
    assert quiet_of(()).together_db is None
    told = quiet_of(kept(trial("brace", 64, 61), trial("strands", 61, 60)))
    assert told.next == "strand"
    assert told.together_db.value == pytest.approx(-4)
    old = trial("strand", 90, 80, day="2026-02-01")
    assert quiet_of(kept(old, trial("brace", 64, 61))).together_db.value == pytest.approx(-3)
    every = quiet_of(kept(*(trial(c.id) for c in CHECKS)))
    assert every.next is None


def test_a_tone_is_told_only_as_a_change():
    rings = {"tone_after_hz": 1100, "tone_after_db": 30}
    assert judged(trial(**rings)).tone_hz is None
    small = judged(trial(**rings, tone_before_hz=1100, tone_before_db=25))
    assert small.tone_hz is None
    grown = judged(trial(**rings, tone_before_hz=340, tone_before_db=18))
    assert (grown.tone_hz, grown.tone_grown_db) == (1100, 12)
    assert "screws" in grown.tone_places
    text = said(trial(**rings, tone_before_hz=340, tone_before_db=18))
    assert "A tone at 1100 Hz has grown by 12.0 dB" in text
    assert "Look first at" in text


def test_places_by_frequency():
    assert "limbs" in likely_places(90)
    assert "stabiliser" in likely_places(500)
    assert "screws" in likely_places(5000)


def test_the_station_says_keep_or_take_back_and_what_is_next():
    text = said(trial("brace", 64, 60), trial("strand", 60, 64.5))
    assert "Quieter by 4.0 ± 1.7 dB after the check of brace height: leave it so." in text
    assert "after the check of a loose strand: take it back." in text
    assert "Next, strand count" in text


def test_every_check_leads_to_a_station_and_the_station_is_watched():
    assert {c.station for c in CHECKS} <= set(STATIONS)
    assert {w.read for w in WATCHES if w.station == "quiet"} >= {"brace", "strands"}
