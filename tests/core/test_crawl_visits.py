"""Crawls shot on a rig: the chart follows them, is told with its doubt, and says what is next."""

import numpy as np
import pytest
from test_flight import RIG

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.flight.trajectory import crawl_for_mm, impact_m
from lyrandis.core.stations import views
from lyrandis.core.trials import CrawlVisitTrial, KeptTrial
from lyrandis.desk.shown.aim import visits_shown

THREE_UNDER = changed(RIG, {"archer.release": "three_under"})


def kept(*visits, rig=THREE_UNDER, arrows="count"):
    return tuple(
        KeptTrial(
            i + 1, f"2026-05-{i + 1:02}T10:00:00+00:00",
            CrawlVisitTrial(distance_m=d, crawl_mm=c, heights_cm=h, arrows=arrows), rig,
        )
        for i, (d, c, h) in enumerate(visits)
    )  # fmt: skip


VISITS = ((10, 95, (2, 1, 3)), (30, 60, (-4, -9, -6)), (50, 25, (-20, -28, -16)))


def test_the_chart_follows_the_shots_and_narrows():
    before, after = Bench(THREE_UNDER), Bench(THREE_UNDER, kept(*VISITS))
    assert before.aim.aimed == before.aim.computed
    assert after.aim.aimed != after.aim.computed
    assert (after.aim.off_cm < before.aim.off_cm).all()
    assert (after.aim.plus_minus_mm < before.aim.plus_minus_mm).all()
    assert after.aim.point_on.source == "measured"
    assert after.aim.point_on.plus_minus < before.aim.point_on.plus_minus
    for distance, crawl, heights in VISITS:
        told = 100 * float(impact_m(after.aim.aimed, crawl, distance))
        assert told == pytest.approx(np.mean(heights), abs=2 + 0.25 * distance)
    shown = visits_shown(after)
    assert [v.distance_m for v in shown] == [10, 30, 50]
    assert shown[2].crawl_mm < 25  # it landed low: with less crawl it would have hit


def test_sighters_and_another_arrow_do_not_count():
    assert Bench(THREE_UNDER, kept(*VISITS, arrows="sighters")).aim.learned is None
    other = changed(THREE_UNDER, {"arrow.point_gr": 160.0})
    assert Bench(other, kept(*VISITS)).aim.visits == []


def test_a_slope_is_laid_on_what_was_learnt_on_the_level():
    uphill = changed(THREE_UNDER, {"aim.slope_deg": 20.0})
    level, sloped = Bench(THREE_UNDER, kept(*VISITS)), Bench(uphill, kept(*VISITS))
    assert sloped.aim.learned.aimed == level.aim.learned.aimed
    assert sloped.aim.aimed.slope_deg == 20
    assert len(sloped.aim.plus_minus_mm) == len(uphill.aim.distances_m)


def test_what_is_said_before_and_after():
    def said(b):
        return " ".join(f.said.plain() for f in views(b, ["crawls"])[0].findings)

    assert "computed and not yet shot" in said(Bench(THREE_UNDER))
    assert "Next, three arrows at" not in said(Bench(THREE_UNDER))
    after = said(Bench(THREE_UNDER, kept(*VISITS)))
    assert "Learnt from 9 arrows" in after
    assert "not yet shot" not in after
    assert "Next, three arrows at" in said(Bench(THREE_UNDER, kept(*VISITS[:1])))
    split = changed(RIG, {"archer.release": "split"})
    assert "under the spot: of what" in said(Bench(split, kept(*VISITS[:1], rig=split)))


def test_its_trial_and_its_point_on_against_a_search():
    b = Bench(THREE_UNDER, kept(*VISITS))
    on = b.aim.point_on.value
    assert float(crawl_for_mm(b.aim.aimed, np.array([on]))[0]) == pytest.approx(0, abs=0.01)
    trial = kept((20, 80, (-3,)))[0].trial
    assert trial.said().plain().startswith("1 arrow at 20.0 m with")
    assert "low" in trial.said().plain()
