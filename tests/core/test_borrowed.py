"""A second set's chart from the first's, what is known before a shot, and what contradicts."""

from dataclasses import replace

import numpy as np
import pytest
from test_learn import BASE, PRIOR, D, archer, shots

from lyrandis.core.aim.borrow import borrowed
from lyrandis.core.aim.known import (
    crawl_known,
    finger_visits,
    implied,
    point_on_visit,
)
from lyrandis.core.aim.learn import chart, learn, point_on
from lyrandis.core.aim.next_visit import next_visits
from lyrandis.core.flight.trajectory import crawl_for_mm, impact_m, point_on_m

ARCHERS = 120


def reached(rng):
    """A fresh archer who reaches every distance with both sets, and what the second set is told."""
    while True:
        true = archer(rng)
        ratio = rng.uniform(0.9, 1.1)
        told = replace(BASE, nock_to_tip_m=0.76 + rng.uniform(-0.03, 0.03), drag_per_m=0.0018)
        second = replace(
            true,
            nock_to_tip_m=told.nock_to_tip_m,
            speed_mps=true.speed_mps * ratio * (1 + rng.normal(0, 0.015)),
            eye_mm=true.eye_mm + rng.normal(0, 1.5),
            kick_mrad=true.kick_mrad + rng.normal(0, 0.25),
        )
        if all(np.isfinite(crawl_for_mm(a, D)).all() for a in (true, second)):
            return true, second, told, ratio


def shot(rng, true, aimed, prior, plan):
    visits, now = [], learn([], aimed, prior)
    for distance in plan:
        at = distance or next_visits(now)[0].distance_m
        crawl = float(crawl_for_mm(now.aimed, np.array([float(at)]))[0])
        visits.append(shots(rng, true, float(at), crawl, 3, 5.5, False))
        now = learn(visits, aimed, prior)
    return now


def test_two_visits_make_a_borrowed_chart():
    rng, off, plain, held = np.random.default_rng(31), [], [], []
    for _ in range(ARCHERS):
        true, second, told, ratio = reached(rng)
        first = shot(rng, true, BASE, PRIOR, (10, 28, 50))
        for prior, into in ((borrowed(first, ratio), off), (PRIOR, plain)):
            now = shot(rng, second, told, prior, (15, 45))
            rows = chart(now, D)
            miss = 100 * impact_m(second, np.array([r.crawl_mm for r in rows]), D)
            into.append(np.sqrt(np.mean(miss**2)))
            if into is off:
                held.append(
                    np.mean(np.abs(miss) <= 1.645 * np.array([r.impact_sd_cm for r in rows]))
                )
    assert np.median(off) <= 3.3
    assert np.median(off) < 0.9 * np.median(plain)
    assert 0.86 <= np.mean(held) <= 0.97


def test_what_is_borrowed_is_the_archers_and_the_speed_goes_by_the_ratio():
    first = learn([], replace(BASE, speed_mps=50.0, eye_mm=104.0), PRIOR)
    prior = borrowed(first, 0.9)
    assert prior.mean[0] == pytest.approx(0.9 * first.aimed.speed_mps)
    assert prior.mean[1:] == pytest.approx(PRIOR.mean[1:])
    assert prior.sd[2:4] == pytest.approx(PRIOR.sd[2:4])
    assert prior.sd[1] > PRIOR.sd[1]


class TestKnown:
    def test_a_point_on_is_as_sure_as_the_arrow_falls_there(self):
        on = point_on_m(BASE)
        visit = point_on_visit(BASE, on, 3.0)
        assert visit.crawl_mm == 0
        falls = 100 * abs(float(impact_m(BASE, 0.0, on + 1.5) - impact_m(BASE, 0.0, on - 1.5)))
        assert visit.doubt_cm == pytest.approx(falls, rel=0.02)
        told = point_on(learn([visit], BASE, PRIOR))
        assert told.value == pytest.approx(on, abs=0.3)
        assert 2.0 < told.plus_minus < 4.0  # hardly better than what was said

    def test_a_known_crawl_pulls_by_its_doubt(self):
        off = float(crawl_for_mm(BASE, np.array([30.0]))[0]) + 6.0
        sure, unsure = (
            chart(learn([crawl_known(30.0, off, doubt)], BASE, PRIOR), np.array([30.0]))[0]
            for doubt in (2.0, 60.0)
        )
        assert abs(sure.crawl_mm - off) < 0.5
        assert abs(unsure.crawl_mm - off) > 2
        assert sure.crawl_sd_mm < unsure.crawl_sd_mm

    def test_the_two_numbers_alone_make_a_chart_with_eye_and_speed(self):
        """By archers who remember the best line through their own crawls, rounded to a quarter."""
        rng, inside, off, before = np.random.default_rng(8), [], [], []
        at = np.array([10.0, 20.0, 30.0, 40.0, 50.0])
        for _ in range(ARCHERS):
            true = archer(rng)
            crawls = crawl_for_mm(true, at)
            if not np.isfinite(crawls).all() or crawls[3] < 0:
                continue
            step = (crawls[1] - crawls[3]) / 2 / 18
            visits = finger_visits(
                BASE, np.round(crawls[1] / 18 * 4) / 4, np.round(step * 4) / 4, 18.0
            )
            told = implied(visits, BASE, PRIOR)
            inside.append(
                (abs(told.eye_mm.value - true.eye_mm) < 1.645 * told.eye_mm.plus_minus * 1.5)
                and (abs(told.speed_mps.value - true.speed_mps) < 1.645 * told.speed_mps.plus_minus)
            )
            now = learn(visits, BASE, PRIOR)
            for at_first, into in ((now, off), (learn([], BASE, PRIOR), before)):
                c = np.array([r.crawl_mm for r in chart(at_first, at)])
                into.append(np.sqrt(np.mean((100 * impact_m(true, c, at)) ** 2)))
        assert np.median(off) < 0.6 * np.median(before)
        assert np.mean(inside) > 0.6

    def test_an_eye_that_is_another_contradicts_and_the_own_one_seldom_does(self):
        """In one of twenty the own eye seems to be another; an eye 45 mm lower is found out."""
        rng, false, found = np.random.default_rng(12), [], []
        known = replace(PRIOR, covariance=np.diag(np.array([2.5, 15.0, 0.0006, 0.05, 1.0]) ** 2))
        for _ in range(ARCHERS):
            true = replace(archer(rng), speed_mps=rng.normal(52, 2.5))
            for into, by in ((false, 0.0), (found, -45.0)):
                there = replace(
                    true, eye_mm=(true.eye_mm if not by else 112 + by + rng.normal(0, 5))
                )
                if not np.isfinite(crawl_for_mm(there, np.array([30.0]))).all():
                    continue
                visits = [
                    shots(
                        rng,
                        there,
                        d,
                        max(float(crawl_for_mm(there, np.array([d]))[0]), 0.0),
                        3,
                        5.5,
                        False,
                    )
                    for d in (10.0, 30.0)
                ]
                into.append(implied(visits, BASE, known).contradicts)
        assert np.mean(false) <= 0.1
        assert np.mean(found) >= 0.75
