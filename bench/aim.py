"""A chart fitted to a dozen visits, beside plain scipy on the same sum of squares."""

from __future__ import annotations

import time
from dataclasses import replace

import numpy as np
from scipy.optimize import least_squares

from lyrandis.core.aim.crawls import Unshot
from lyrandis.core.aim.learn import NAMES, CrawlVisit, chart, learn, point_on, prior_of, visit_sd_cm
from lyrandis.core.aim.next_visit import next_visits
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m

BASE = AimedArrow(speed_mps=52, eye_mm=112, nock_to_tip_m=0.76)
TRUE = replace(BASE, speed_mps=49.0, eye_mm=101.0, kick_mrad=0.5)
PRIOR = prior_of(BASE, Unshot(7.0))
D = np.arange(5.0, 50.1, 5.0)
ROUNDS = 40


def _visits() -> list[CrawlVisit]:
    rng, made = np.random.default_rng(1), []
    for d in np.linspace(6, 50, 12):
        c = float(crawl_for_mm(BASE, np.array([d]))[0])
        y = 100 * float(impact_m(TRUE, c, d)) + rng.normal(0, 5.5 * d / 30, 3)
        made.append(CrawlVisit(float(d), c, tuple(y)))
    return made


def _plain(visits: list[CrawlVisit], spread: float) -> np.ndarray:
    """The same weights and priors, one visit at a time, slopes by differences."""
    d = np.array([v.distance_m for v in visits])
    sd = visit_sd_cm(d, np.full(len(d), 3), spread) / 100

    def off(theta: np.ndarray) -> np.ndarray:
        at = replace(BASE, **dict(zip(NAMES, theta.tolist(), strict=True)))
        heights = [
            (np.mean(v.heights_cm) / 100 - float(impact_m(at, v.crawl_mm, v.distance_m))) / s
            for v, s in zip(visits, sd, strict=True)
        ]
        return np.array([*heights, *((theta - PRIOR.mean) / PRIOR.sd)])

    scale = np.array([1.0, 1.0, 1e-4, 1e-2, 1.0])
    return least_squares(off, PRIOR.mean, x_scale=scale, xtol=1e-12, ftol=1e-12).x


def _best_ms(work: object) -> float:
    times = []
    for _ in range(ROUNDS):
        begun = time.perf_counter()
        work()  # type: ignore[operator]
        times.append(time.perf_counter() - begun)
    return 1000 * float(np.median(times))


def main() -> None:
    """Print both, and how far apart they end."""
    visits = _visits()

    def own() -> object:
        told = learn(visits, BASE, PRIOR)
        return chart(told, D), point_on(told), next_visits(told)

    told = learn(visits, BASE, PRIOR)
    here = np.array([getattr(told.aimed, n) for n in NAMES])
    apart = np.abs(here - _plain(visits, told.spread_cm_30m)) / PRIOR.sd
    ours, plain = _best_ms(own), _best_ms(lambda: _plain(visits, told.spread_cm_30m))
    print(f"a dozen visits, chart, point-on and next distances: {ours:.1f} ms")
    print(f"plain scipy, the fit alone: {plain:.1f} ms, {plain / ours:.1f} times as long")
    print(f"apart by at most {apart.max():.4f} of a prior's sd")


if __name__ == "__main__":
    main()
