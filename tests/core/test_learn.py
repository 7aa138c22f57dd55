"""C2: a chart learnt from shots, on fresh simulated archers of several kinds; and its answers."""

from dataclasses import replace
from functools import lru_cache

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.aim.learn import CrawlVisit, Learned, chart, learn, prior_of
from lyrandis.core.aim.next_visit import next_visits
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m

BASE = AimedArrow(speed_mps=52, eye_mm=112, nock_to_tip_m=0.76)
D = np.arange(5, 50.1, 2.5)
ARCHERS = share(300)
PRIOR = prior_of(BASE, Unshot(7.0))


def archer(rng):
    return replace(
        BASE,
        speed_mps=rng.normal(52, 7),
        eye_mm=rng.normal(112, 15),
        speed_loss_per_mm=max(rng.normal(0.001, 0.0006), 0),
        q=rng.normal(0.92, 0.05),
        kick_mrad=rng.normal(0, 1),
    )


def shots(rng, true, distance, crawl, arrows, spread, tails):
    """A visit with its own bias; with tails the arrows have flyers."""
    middle = 100 * float(impact_m(true, crawl, distance)) + rng.normal(0, 1.5 * distance / 30)
    one = spread * distance / 30
    off = rng.standard_t(5, arrows) * np.sqrt(3 / 5) if tails else rng.normal(0, 1, arrows)
    return CrawlVisit(distance, crawl, tuple(middle + one * off))


def lines(visits):
    """What an archer without a model does: each crawl put right by its mean height, joined and
    extended."""
    d = np.array([v.distance_m for v in visits])
    order = np.argsort(d)
    c = np.array([v.crawl_mm + np.mean(v.heights_cm) * 10 * 0.76 / v.distance_m for v in visits])[
        order
    ]
    d = d[order]
    low = c[0] + (c[1] - c[0]) / (d[1] - d[0]) * (D - d[0])
    high = c[-1] + (c[-1] - c[-2]) / (d[-1] - d[-2]) * (D - d[-1])
    return np.where(d[0] > D, low, np.where(d[-1] < D, high, np.interp(D, d, c)))


@lru_cache(maxsize=6)
def world(plan, arrows, tails=False, drag=1.0):
    """Medians over archers: crawl and impact rms, that of lines, and how often bands hold."""
    rng, told = np.random.default_rng(21), []
    while len(told) < ARCHERS:
        true = replace(archer(rng), drag_per_m=BASE.drag_per_m * drag)
        crawls = crawl_for_mm(true, D)
        if not np.isfinite(crawls).all():
            continue
        visits, now = [], learn([], BASE, PRIOR)
        for distance in plan:
            at = float(crawl_for_mm(now.aimed, np.array([float(distance)]))[0])
            visits.append(shots(rng, true, float(distance), at, arrows, rng.uniform(4, 7), tails))
            now = learn(visits, BASE, PRIOR)
        rows = chart(now, D)
        own = np.array([r.crawl_mm for r in rows])
        off = 100 * impact_m(true, own, D)
        straight = 100 * impact_m(true, lines(visits), D)
        held = np.abs(off) <= 1.645 * np.array([r.impact_sd_cm for r in rows])
        told.append([np.sqrt(np.mean(v**2)) for v in (own - crawls, off, straight)] + [held.mean()])
    every = np.array(told)
    return *np.median(every[:, :3], axis=0), every[:, 3].mean()


@pytest.mark.parametrize(
    ("plan", "arrows", "mm", "cm"),
    [((10, 28, 50), 3, 1.15, 3.6), ((8, 20, 34, 50), 3, 0.9, 3.0),
     ((6, 14, 23, 32, 41, 50), 6, 0.65, 2.1)],
)  # fmt: skip
def test_as_close_as_was_promised(plan, arrows, mm, cm):
    crawl, impact, straight, held = world(plan, arrows)
    visits = f"{len(plan)} visits of {arrows}"
    claimed(f"chart of {visits}: crawl off [mm]", crawl, most=mm, of=ARCHERS, sd=0.8 * mm)
    claimed(f"chart of {visits}: impact off [cm]", impact, most=cm, of=ARCHERS, sd=0.8 * cm)
    claimed(
        f"chart of {visits}: of straight lines'", impact / straight, most=0.85, of=ARCHERS, sd=0.8
    )
    claimed(f"chart of {visits}: bands hold", held, least=0.86, most=0.96, of=ARCHERS)


@pytest.mark.parametrize(("tails", "drag"), [(True, 1.0), (False, 1.5), (True, 0.7)])
def test_bands_hold_on_worlds_that_it_was_not_made_from(tails, drag):
    """Flyers, and an arrow that the air slows otherwise than it is taken to."""
    *_, held = world((10, 28, 50), 3, tails, drag)
    odd = f"{'flyers, ' if tails else ''}drag {drag} times"
    claimed(f"chart, {odd}: bands hold", held, least=0.86, most=0.96, of=ARCHERS)


def test_safe_choosing_stays_on_the_butt():
    rng, off, rms, visits_made = np.random.default_rng(5), 0, [], 0
    for _ in range(count := share(150)):
        true, visits = archer(rng), []
        if not np.isfinite(crawl_for_mm(true, D)).all():
            continue
        for _ in range(3):
            now = learn(visits, BASE, PRIOR)
            at = next_visits(now)[0].distance_m
            crawl = float(crawl_for_mm(now.aimed, np.array([at]))[0])
            visits.append(shots(rng, true, at, crawl, 3, 5.5, False))
            off += max(abs(h) for h in visits[-1].heights_cm) > 60
            visits_made += 1
        now = learn(visits, BASE, PRIOR)
        own = np.array([r.crawl_mm for r in chart(now, D)])
        rms.append(np.sqrt(np.mean((100 * impact_m(true, own, D)) ** 2)))
    claimed("chart: arrows off the butt", off / visits_made, most=0.06, of=visits_made)
    claimed("chart, chosen safely: impact off [cm]", np.median(rms), most=4.2, of=count, sd=3)


class TestLearn:
    def visits(self, true=None, distances=(10.0, 30.0, 50.0)):
        true = true or replace(BASE, speed_mps=48.0, eye_mm=100.0)
        made = []
        for d in distances:
            c = float(crawl_for_mm(BASE, np.array([d]))[0])
            made.append(CrawlVisit(d, c, (100 * float(impact_m(true, c, d)),) * 3))
        return made

    def test_without_a_visit_it_says_what_was_presumed(self):
        told = learn([], BASE, PRIOR)
        assert isinstance(told, Learned)
        assert told.aimed.speed_mps == 52
        assert np.sqrt(np.diag(told.covariance)) == pytest.approx(PRIOR.sd)
        assert told.spread_cm_30m == 5.5

    def test_the_covariance_is_that_of_the_straightened_problem(self):
        """Where the likeliest lies the slopes of the cost are nought, and its bend the inverse."""
        visits = self.visits()
        told = learn(visits, BASE, PRIOR)
        theta = np.array([getattr(told.aimed, n) for n in
                          ("speed_mps", "eye_mm", "speed_loss_per_mm", "q", "kick_mrad")])  # fmt: skip
        by, _ = told.slopes(
            np.array([v.crawl_mm for v in visits]), np.array([v.distance_m for v in visits])
        )
        d = np.array([v.distance_m for v in visits])
        sd = np.sqrt(((told.spread_cm_30m * d / 30) ** 2 + 0.25) / 3 + (1.5 * d / 30) ** 2) / 100
        left = np.array([np.mean(v.heights_cm) / 100 for v in visits]) - np.array(
            [float(impact_m(told.aimed, v.crawl_mm, v.distance_m)) for v in visits]
        )
        pull = by.T @ (left / sd**2) - (theta - PRIOR.mean) / PRIOR.sd**2
        assert pull * PRIOR.sd == pytest.approx(np.zeros(5), abs=2e-3)
        whole = np.linalg.inv((by / sd[:, None] ** 2).T @ by + np.diag(1 / PRIOR.sd**2))
        assert told.covariance == pytest.approx(whole, rel=2e-2, abs=1e-9)

    def test_high_arrows_ask_for_more_crawl(self):
        at = float(crawl_for_mm(BASE, np.array([30.0]))[0])
        high = learn([CrawlVisit(30.0, at, (20.0, 22.0, 18.0))], BASE, PRIOR)
        assert chart(high, np.array([30.0]))[0].crawl_mm > at + 2

    def test_every_visit_narrows_the_chart(self):
        wide = [r.impact_sd_cm for r in chart(learn([], BASE, PRIOR), D)]
        told = learn(self.visits(), BASE, PRIOR)
        narrow = [r.impact_sd_cm for r in chart(told, D)]
        assert all(n < w for n, w in zip(narrow, wide, strict=True))

    def test_a_known_speed_narrows_it_before_any_shot(self):
        known = learn([], BASE, prior_of(BASE, Unshot(1.5)))
        unknown = learn([], BASE, PRIOR)
        assert chart(known, D)[-1].impact_sd_cm < 0.8 * chart(unknown, D)[-1].impact_sd_cm

    def test_the_first_distance_is_a_near_one_and_each_is_told_what_it_settles(self):
        told = next_visits(learn([], BASE, PRIOR))
        assert told[0].safe
        assert told[0].distance_m <= 15
        assert not told[-1].safe
        assert all(0 < v.settles <= 1 for v in told)
        small = next_visits(learn([], BASE, PRIOR), butt_half_cm=5.0)
        assert not any(v.safe for v in small)
        assert small[0].distance_m == 5
