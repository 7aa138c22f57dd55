"""Brace trials of a session: which count, the range, groups that mean something, what is said."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.rig import Bow, Rig
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import BraceTrial, KeptTrial
from lyrandis.core.tune.listening import group_ratio

AT = "2026-03-01T10:00:00+00:00"


def listen(trials, bow):
    """What the latest day's trials say of a bow."""
    return Bench(Rig(bow=bow), tuple(trials)).brace.listening


def trial(brace, level=None, **more):
    levels = () if level is None else (level - 0.4, level, level + 0.4)
    return BraceTrial(brace_height_in=brace, levels_db=levels, **more)


def kept(*trials):
    return tuple(KeptTrial(i + 1, AT, t, Rig()) for i, t in enumerate(trials))


def told(*trials, **rig):
    bench = Bench(changed(Rig(), rig), kept(*trials), AT)
    return [(f.level, f.said.plain()) for f in TELLERS["brace"].tell(bench).findings]


PARABOLA = [trial(b, 60 + 20 * (b - 8.75) ** 2) for b in (8.25, 9.5, 8.75, 9.0)]


def test_only_the_latest_days_trials_are_compared():
    old = trial(8.5, 90, day="2026-02-01")
    heard = listen(kept(old, *PARABOLA), Bow())
    assert heard.day == "2026-03-01"
    assert heard.elsewhere == 1
    assert len(heard.heard) == 4
    assert heard.curve.mean_db.max() < 80


def test_a_struck_trial_is_not_heard():
    some = kept(*PARABOLA)
    struck = KeptTrial(9, AT, trial(8.4, 30), Rig(), struck=True)
    assert listen((*some, struck), Bow()).curve.best_in == listen(some, Bow()).curve.best_in


def test_references_are_brought_to_the_pivot():
    bow = Bow(brace_reference="back")
    heard = listen(kept(trial(10.5, 60, reference="back"), trial(8.75, 60)), bow)
    assert [h.brace_in for h in heard.heard] == pytest.approx([10.5, 10.5])
    grip = listen(kept(trial(10.5, 60, reference="back"), trial(8.75, 60)), Bow())
    assert heard.curve.best_in == pytest.approx(grip.curve.best_in + 1.75)
    assert heard.low_in == pytest.approx(grip.low_in + 1.75)


def test_an_offset_belongs_to_the_bows_own_reference_only():
    """A plunger a quarter inch in front of the grip does not move the back of the bow."""
    bow = Bow(brace_reference="plunger", brace_offset_in=0.25)
    heard = listen(
        kept(trial(10.5, 60, reference="back"), trial(9.0, 60, reference="plunger")), bow
    )
    assert [h.brace_in for h in heard.heard] == pytest.approx([9.0, 9.0])
    with pytest.raises(RefusedError, match="plunger"):
        listen(kept(trial(9.0, 60, reference="plunger")), Bow())


def test_nothing_outside_the_makers_range_is_suggested():
    bow = Bow(maker_brace_low_in=8.5, maker_brace_high_in=9.0)
    heard = listen(kept(trial(7.5, 55), trial(8.6, 60)), bow)
    assert 8.5 <= heard.curve.best_in <= 9
    assert heard.curve.next_in is None or 8.5 <= heard.curve.next_in <= 9


@pytest.mark.parametrize(("arrows", "ratio"), [(2, None), (3, 2.5), (4, 2.1), (5, 2.1), (6, 1.7), (12, 1.7)])  # fmt: skip
def test_what_a_group_must_be(arrows, ratio):
    assert group_ratio(arrows) == ratio


def test_only_a_much_wider_group_is_told():
    small, wider, wide = (
        trial(b, 60, group_cm=g, arrows=3) for b, g in ((8.5, 10), (8.75, 24), (9.0, 26))
    )
    assert listen(kept(small, wider), Bow()).wide_groups == ()
    assert listen(kept(small, wider, wide), Bow()).wide_groups == (9.0,)
    assert any("wider than chance" in said for _, said in told(small, wide))


def test_the_station_names_the_next_and_then_the_quietest():
    first = told(PARABOLA[0])
    assert ("mind", "Next listen at 9 1/2 in.") in first
    done = told(*PARABOLA, **{"bow.brace_height_in": 9.5, "use": "woodland"})
    assert any(said.startswith("Quietest between") for _, said in done)
    assert any("For your use quiet counts more" in said for _, said in done)
    speed = told(*PARABOLA, **{"bow.brace_height_in": 9.5, "use": "range"})
    assert any("For your use speed counts more" in said for _, said in speed)


def test_feel_alone_is_heard_and_nothing_at_all_is_not():
    assert listen(kept(trial(8.5)), Bow()).curve is None
    assert listen(kept(trial(8.5, feel=3), trial(9.0, feel=5)), Bow()).curve.best_in > 8.6
    assert listen((), Bow()).day is None


def test_the_trial_reads_as_a_sentence():

    full = trial(8.5, 61, feel=4, group_cm=12, twists=22)
    assert full.said().plain() == (
        "brace 8 1/2 in to the grip: 3 arrows, 61.0 dB, feel 4 of 5, group 12.0 cm, 22 turns"
    )
