"""The quiet sweep on fresh simulated bows: regret, arrows, the range, and what it says."""

import numpy as np
import pytest

from lyrandis.core.errors import RefusedError
from lyrandis.core.tune.sweep import MOST_VISITS, SHOT_SD_DB, VISIT_SD_DB, Visit, posterior, sweep

SHOTS, BOWS = 3, 1000


def truth(kind, rng, grid, middle):
    """Loudness [dB] over a grid of brace heights of one fresh bow."""
    x = (grid - middle) / 10
    own = np.linalg.cholesky(
        0.25 * np.exp(-0.5 * ((grid[:, None] - grid) / 7) ** 2) + 1e-8 * np.eye(len(grid))
    ) @ rng.standard_normal(len(grid))
    if kind == "v":
        return rng.uniform(1.5, 4) * np.abs(x - rng.uniform(x[0], x[-1])) + 0.3 * own
    loud = rng.normal(0, 3) * x + max(rng.normal(1.6, 1.2), 0.2) * x**2 + own
    if kind == "dip":
        at = rng.uniform(grid[0], grid[-1])
        loud = loud - rng.uniform(1, 2.5) * np.exp(-0.5 * ((grid - at) / 4) ** 2)
    return loud


def heard(loud, i, rng):
    return loud[i] + rng.normal(0, VISIT_SD_DB) + rng.normal(0, SHOT_SD_DB, SHOTS)


def one_bow(kind, rng):
    """Regret of the sweep and of “up until it gets louder” [dB], arrows, and stayed inside."""
    low = rng.uniform(180, 215)
    high = low + rng.uniform(19, 38)
    grid = np.arange(np.ceil(low), np.floor(high) + 0.5)
    loud = truth(kind, rng, grid, (low + high) / 2)
    drift = rng.normal(0, 0.15) if kind == "drift" else 0.0
    at, visits, inside = float(grid[0]), [], True
    while True:
        levels = heard(loud, int(np.argmin(np.abs(grid - at))), rng) + drift * len(visits) + 60
        visits.append(Visit(at, tuple(levels)))
        told = sweep(low, high, visits, rng)
        inside = inside and low <= told.best_mm <= high
        if told.done:
            break
        at = told.next_mm
        inside = inside and low <= at <= high
    regret = loud[int(np.argmin(np.abs(grid - told.best_mm)))] - loud.min()
    best, level = 0, np.inf
    for i in range(0, len(grid), 3):
        mean = heard(loud, i, rng).mean()
        if mean > level:
            break
        best, level = i, mean
    return regret, loud[best] - loud.min(), SHOTS * len(visits), inside


@pytest.mark.parametrize(
    ("kinds", "mean_db", "over_1db"),
    [(("smooth",), 0.26, 0.06), (("v", "dip", "drift"), 0.45, 0.13)],
)
def test_must_reach_on_fresh_bows(kinds, mean_db, over_1db):
    rng = np.random.default_rng(1730)
    told = np.array([one_bow(kinds[i % len(kinds)], rng) for i in range(BOWS)], dtype=float)
    regret, plain, arrows, inside = told.T
    print(
        f"\n{'/'.join(kinds)}: regret {regret.mean():.2f} dB (plain climb {plain.mean():.2f}), "
        f"over 1 dB {np.mean(regret > 1):.1%}, arrows {arrows.mean():.1f}"
    )
    assert regret.mean() <= mean_db
    assert np.mean(regret > 1) <= over_1db
    assert arrows.mean() <= 13
    assert inside.all()
    assert regret.mean() <= 0.5 * plain.mean()


def visit(mm, db, feel=None):
    return Visit(mm, (db,) * SHOTS, feel)


def run(*visits, low=190, high=215):
    return sweep(low, high, visits, np.random.default_rng(1))


def test_the_second_visit_goes_to_the_far_end_and_the_first_in_the_middle_goes_anywhere():
    assert run(visit(192, 60)).next_mm == 215
    assert run(visit(214, 60)).next_mm == 190
    assert 190 <= run(visit(202, 60)).next_mm <= 215


def test_it_finds_a_plain_parabola_and_stops():
    def loud(mm):
        return 60 + 3 * ((mm - 205) / 10) ** 2

    told = run(*(visit(mm, loud(mm)) for mm in (190, 215, 202, 206)))
    assert told.done
    assert told.next_mm is None
    assert abs(told.best_mm - 205) <= 2
    assert told.interval_mm[0] <= 205 <= told.interval_mm[1]


def test_never_before_four_visits_and_never_after_twelve():
    assert not run(*(visit(mm, 60) for mm in (190, 215, 202))).done
    rng = np.random.default_rng(2)
    wild = [visit(190 + 2 * i, 60 + rng.normal(0, 8)) for i in range(MOST_VISITS)]
    assert run(*wild).done


def test_the_curve_passes_near_what_was_heard_and_knows_less_elsewhere():
    told = run(visit(190, 60), visit(215, 66))
    at = {int(mm): i for i, mm in enumerate(told.brace_mm)}
    assert told.mean_db[at[190]] == pytest.approx(60, abs=0.5)
    assert told.mean_db[at[215]] == pytest.approx(66, abs=0.5)
    assert told.sd_db[at[202]] > told.sd_db[at[190]]


def test_feel_alone_points_the_same_way_with_more_doubt():
    grid = np.arange(190, 216.0)
    felt, _ = posterior([Visit(190, (), 2), Visit(215, (), 5)], grid, 202.5)
    assert felt[-1] < felt[0]
    sure = run(visit(190, 64), visit(202, 60), visit(215, 62))
    rough = run(Visit(190, (), 2), Visit(202, (), 5), Visit(215, (), 3))
    assert rough.sd_db.max() > sure.sd_db.max()


def test_adding_a_constant_changes_nothing_but_the_level():
    a = run(visit(190, 60), visit(215, 62))
    b = run(visit(190, 80), visit(215, 82))
    assert b.mean_db - a.mean_db == pytest.approx(np.full(len(a.mean_db), 20), abs=1e-6)
    assert a.next_mm == b.next_mm


@pytest.mark.parametrize(
    ("low", "high", "visits", "field"),
    [
        (190, 191, [visit(190, 60)], "bow.maker_brace_high_in"),
        (190, 400, [visit(190, 60)], "bow.maker_brace_high_in"),
        (190, 215, [], "visits"),
        (190, 215, [Visit(200)], "visits.0.levels_db"),
    ],
)
def test_what_cannot_be_swept_is_refused(low, high, visits, field):
    with pytest.raises(RefusedError) as caught:
        sweep(low, high, visits, np.random.default_rng(1))
    assert caught.value.field == field
