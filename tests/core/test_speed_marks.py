"""A speed from where arrows landed: exact on its own world, honest on others, refused on nonsense."""

import math
from dataclasses import replace

import numpy as np
import pytest

from lyrandis.core.aim.speed_marks import Sighting, speed_from_marks
from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.flight.trajectory import AimedArrow, crawl_for_mm, impact_m
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KeptTrial, MarksTrial
from lyrandis.core.trials.marks import Landed

TOLD = AimedArrow(speed_mps=52, eye_mm=100, nock_to_tip_m=0.76)


def crawl(aimed, d):
    return float(crawl_for_mm(aimed, np.array([d]))[0])


def lands(aimed, c, d):
    return 100 * float(impact_m(aimed, c, d))


def test_noiseless_marks_give_the_speed_back():
    true = replace(TOLD, speed_mps=46.0)
    c = crawl(true, 12.0)
    drop = [Sighting(12, c, 0, 6), Sighting(30, c, lands(true, c, 30.0), 6)]
    crawls = [Sighting(d, crawl(true, d), 0, 6) for d in (10.0, 35.0)]
    for seen in (drop, crawls):
        assert speed_from_marks(seen, TOLD).value == pytest.approx(46.0, rel=1e-4)


def worlds(how, heavy_tails):
    """Bands that held, and how wide they were, over made-up archers."""
    rng = np.random.default_rng(5)
    held, shares, refused = [], [], 0
    for _ in range(300):
        true = AimedArrow(
            speed_mps=rng.normal(52, 7), eye_mm=rng.normal(100, 15), nock_to_tip_m=0.76,
            speed_loss_per_mm=abs(rng.normal(0.001, 0.0006)), q=rng.normal(0.92, 0.05),
            kick_mrad=rng.normal(0, 1), drag_per_m=0.0018 * rng.uniform(0.8, 1.25),
        )  # fmt: skip
        at = (12.0, 30.0)
        c = [crawl(true, at[0]), crawl(true, at[0] if how == "drop" else at[1])]
        seen = []
        for d, one in zip(at, c, strict=True):
            shots = rng.standard_t(4, 4) / math.sqrt(2) if heavy_tails else rng.normal(0, 1, 4)
            off = 5.5 * d / 30 * shots.mean() + rng.normal(0, 1.5 * d / 30)
            seen.append(Sighting(d, round(2 * one) / 2, lands(true, one, d) + off, 4))
        try:
            told = speed_from_marks(seen, TOLD)
        except RefusedError:  # the slowest of them: these marks say next to nothing of a speed
            refused += 1
            continue
        held.append(abs(told.value - true.speed_mps) < 1.645 * told.plus_minus)
        shares.append(told.plus_minus / told.value)
    assert refused <= 15
    return np.mean(held), np.median(shares)


@pytest.mark.parametrize("heavy_tails", [False, True])
@pytest.mark.parametrize("how", ["drop", "crawls"])
def test_the_band_holds_on_archers_of_other_kinds(how, heavy_tails):
    held, share = worlds(how, heavy_tails)
    assert 0.84 <= held <= 0.97
    assert 0.03 < share < 0.09  # wider than a chronograph's, as it deserves


@pytest.mark.parametrize(
    "seen",
    [
        [Sighting(20, 60, 0, 3)],
        [Sighting(20, 60, 0, 3), Sighting(25, 55, 0, 3)],
        [Sighting(10, 60, 0, 6), Sighting(40, 60, 200, 6)],
    ],
)
def test_what_tells_no_speed_is_refused(seen):
    with pytest.raises(RefusedError) as refused:
        speed_from_marks(seen, TOLD)
    assert refused.value.field == "sightings"


def test_marks_narrow_what_is_downstream():
    rig = Rig()
    plain = Bench(rig)
    true = replace(plain.aim.aimed, speed_mps=plain.aim.aimed.speed_mps * 0.95)
    c = crawl(true, 12.0)
    trial = MarksTrial(
        landed=(
            Landed(distance_m=12, crawl_mm=c, arrows=6),
            Landed(distance_m=40, crawl_mm=c, height_cm=lands(true, c, 40.0), arrows=12),
        )
    )
    told = Bench(rig, (KeptTrial(1, "2026-01-01T10:00:00+00:00", trial, rig),))
    assert told.arrow.shot.speed_fps.value < plain.arrow.shot.speed_fps.value
    assert told.arrow.shot.speed_fps.plus_minus < plain.arrow.shot.speed_fps.plus_minus
    assert (told.aim.plus_minus_mm <= plain.aim.plus_minus_mm).all()
    assert not told.arrow.calibration.line
