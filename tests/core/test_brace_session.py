"""Brace trials of a session: which count, the range, groups that mean something, what is said."""

import numpy as np
import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Bow, Rig
from lyrandis.core.stations import TELLERS
from lyrandis.core.trials import BraceTrial, KeptTrial
from lyrandis.core.tune.groups import wide, widest_by_chance

AT = "2026-03-01T10:00:00+00:00"


def listen(trials, bow, now=AT):
    """What the latest day's trials say of a bow."""
    return Bench(Rig(bow=bow), tuple(trials), now).brace.listening


def trial(brace, level=None, **more):
    levels = () if level is None else (level - 0.4, level, level + 0.4)
    return BraceTrial(brace_height_in=brace, levels_db=levels, **more)


def kept(*trials):
    return tuple(KeptTrial(i + 1, AT, t, Rig()) for i, t in enumerate(trials))


def told(*trials, **rig):
    bench = Bench(changed(Rig(), rig), kept(*trials), AT)
    return [(f.level, f.said.plain()) for f in TELLERS["brace"].tell(bench).findings]


PARABOLA = [trial(b, 60 + 20 * (b - 8.75) ** 2) for b in (8.25, 9.5, 8.875, 9.1875, 8.5625, 8.75)]


def test_only_the_latest_days_trials_are_compared():
    old = trial(8.5, 90, day="2026-02-01")
    heard = listen(kept(old, *PARABOLA), Bow())
    assert heard.day == "2026-03-01"
    assert [h.day for h in heard.apart] == ["2026-02-01"]
    assert len(heard.heard) == len(PARABOLA)
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


def across(rng, arrows, kind):
    """The size of a group whose arrows scatter by one: round, with flyers, or along a line."""
    if kind == "line":
        return np.ptp(rng.standard_normal(arrows))
    at = rng.standard_normal((arrows, 2)) if kind == "round" else rng.standard_t(5, (arrows, 2))
    return np.linalg.norm(at[:, None] - at, axis=-1).max()


@pytest.mark.parametrize("kind", ["round", "flyers", "line"])
@pytest.mark.parametrize(("braces", "arrows"), [(2, 3), (5, 3), (8, 4), (5, 6)])
def test_equal_groups_raise_no_more_than_one_alarm_in_twenty_sessions(kind, braces, arrows):
    rng = np.random.default_rng(12)
    alarms = [
        any(wide([(across(rng, arrows, kind), arrows) for _ in range(braces)])) for _ in range(600)
    ]
    assert np.mean(alarms) <= 0.05 + 0.015


def test_a_much_wider_group_is_found_and_two_arrows_say_nothing():
    rng = np.random.default_rng(13)
    found = [
        wide([(across(rng, 6, "round") * (4 if i == 2 else 1), 6) for i in range(5)])[2]
        for _ in range(200)
    ]
    assert np.mean(found) > 0.85
    assert wide([(10, 3), (200, 2)]) == [False, False]
    assert wide([(10, 3)]) == [False]
    assert widest_by_chance((3, 3)) > widest_by_chance((6, 6))


def test_only_a_much_wider_group_is_told():
    groups = [trial(b, 60, group_cm=g, arrows=6) for b, g in
              ((8.5, 10), (8.6, 11), (8.75, 24), (8.9, 10))]  # fmt: skip
    assert listen(kept(*groups), Bow()).wide_groups == ()
    wider = trial(9.0, 60, group_cm=60, arrows=6)
    assert listen(kept(*groups, wider), Bow()).wide_groups == (9.0,)
    assert any("wider than chance" in said for _, said in told(*groups, wider))


def test_sources_join_by_a_shared_brace_and_else_stand_apart():
    by_meter = [trial(b, 60 + 20 * (b - 8.75) ** 2, heard_by="meter") for b in (8.25, 9.5, 8.75)]
    taped = [trial(b, -20 + 20 * (b - 8.75) ** 2, heard_by="recording") for b in (8.5, 9.0)]
    apart = listen(kept(*by_meter, *taped), Bow())
    assert {h.by for h in apart.apart} == {"recording"}
    assert any("stand apart" in said for _, said in told(*by_meter, *taped))
    joined = listen(kept(*by_meter, *taped, trial(8.75, -20, heard_by="recording")), Bow())
    assert joined.apart == ()
    assert {h.by: round(h.offset_db) for h in joined.heard} == {"meter": 0, "recording": -80}


def test_another_day_joins_by_a_shared_brace_but_not_after_a_change_nor_months():
    before = [trial(b, 70 + 20 * (b - 8.75) ** 2, day="2026-02-20") for b in (8.25, 8.75, 9.5)]
    both = listen(kept(*before, trial(8.75, 60), trial(9.0, 61)), Bow())
    assert both.apart == ()
    assert len(both.heard) == 5
    months = [t.model_copy(update={"day": "2025-11-01"}) for t in before]
    assert len(listen(kept(*months, trial(8.75, 60)), Bow()).apart) == 3
    other = changed(Rig(), {"string.strands": 20})
    trials = [KeptTrial(i + 1, AT, t, other) for i, t in enumerate(before)]
    today = KeptTrial(9, AT, trial(8.75, 60), Rig())
    assert len(listen((*trials, today), Bow()).apart) == 3


def test_after_months_it_begins_anew_and_says_where():
    bench = Bench(Rig(), kept(*PARABOLA), "2026-09-01T10:00:00+00:00")
    said = [f.said.plain() for f in TELLERS["brace"].tell(bench).findings]
    assert any(
        s.startswith("You listened last on 2026-03-01: begin anew. It was quiet") for s in said
    )
    assert not any("Nothing audible" in s for s in said)
    assert bench.brace.listening.curve.next_in is None
    old = [t.model_copy(update={"day": "2025-06-01"}) for t in PARABOLA]
    found = told(*old, trial(8.75, 60))
    assert any(s.startswith("On 2025-06-01 it was quietest between") for _, s in found)


def test_a_string_that_cannot_reach_the_quietest_is_said():
    rig = {"string.twists": 12.0, "string.length_in": 64.5, "bow.brace_height_in": 8.25}
    bench = Bench(changed(Rig(), rig), kept(*PARABOLA), AT)
    low, high = bench.brace.reach_in
    assert low <= 8.25 <= high
    short = changed(Rig(), {**rig, "bow.brace_height_in": 7.0})
    found = TELLERS["brace"].tell(Bench(short, kept(*PARABOLA), AT)).findings
    assert Bench(short).brace.reach_in[1] < 8.2
    assert any("this string reaches" in f.said.plain() for f in found)


def test_a_stand_in_never_joins_what_was_really_heard():
    real = [trial(b, 60 + 20 * (b - 8.75) ** 2, heard_by="recording") for b in (8.25, 9.5, 8.75)]
    stand_in = [trial(b, -20, heard_by="simulated") for b in (8.25, 8.75)]
    heard = listen(kept(*real, *stand_in), Bow())
    assert {h.by for h in heard.heard} == {"recording"}
    assert {h.by for h in heard.apart} == {"simulated"}
    assert any("kept apart" in said for _, said in told(*real, *stand_in))
    alone = listen(kept(*stand_in), Bow())
    assert len(alone.heard) == 2
    said = TELLERS["brace"].tell(Bench(Rig(), kept(*stand_in), AT)).findings
    assert any(f.said.plain().startswith("Simulated: ") for f in said)
    assert not [f for f in said if f.told == "measured"]


def test_a_long_log_is_told_by_its_last_session_and_the_one_before():
    """Of a thousand trials only those of two months, and of the last day before them, are read."""
    days = [f"202{y}-{m:02d}-10" for y in (3, 4) for m in range(1, 13)]
    long = [trial(8.25 + 0.05 * i, 60, day=d) for d in days for i in range(20)]
    heard = listen(kept(*long, *PARABOLA), Bow())
    assert len(heard.heard) == len(PARABOLA)
    assert {h.day for h in heard.apart} == {days[-1]}


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
