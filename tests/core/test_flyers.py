"""Which shaft flies out: honest odds on sets alike, found on sets that are not, on several worlds."""

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.flight.flyers import LIKELY_CHANCE, NumberedShot, flyers


def shoot(rng, off_cm, shafts=8, ends=4, world="even"):
    """Ends of a made-up set whose third shaft flies off; `world` says how the rest scatters."""
    shots = []
    for end in range(ends):
        d = 30.0 if world != "distances" else (18.0, 30.0, 50.0)[end % 3]
        aim = rng.normal(0, 6, 2)
        for n in range(1, shafts + 1):
            at = rng.normal(0, 6, 2) if world != "tails" else 4 * rng.standard_t(3, 2)
            if world == "tired":
                at *= 1 + 0.4 * end
            at[0] += off_cm if n == 3 else 0
            right, up = (at + aim) * d / 30
            shots.append(NumberedShot(end, n, float(right), float(up), d))
    return shots


@pytest.mark.parametrize("world", ["even", "tails", "tired", "distances"])
def test_chance_alone_is_named_as_often_as_it_says(world):
    rng = np.random.default_rng(11)
    told = [flyers(shoot(rng, 0, world=world), np.random.default_rng(1)) for _ in range(share(200))]
    named = np.mean([t.flies_out for t in told])
    claimed(
        f"flyers, {world}: named by chance alone", named, most=LIKELY_CHANCE + 0.05, of=len(told)
    )
    chance = np.mean([t.chance for t in told])
    claimed(f"flyers, {world}: mean chance", chance, least=0.35, most=0.65, of=len(told), sd=0.3)


@pytest.mark.parametrize("world", ["even", "tails", "distances"])
def test_a_shaft_that_flies_out_is_found(world):
    rng = np.random.default_rng(12)
    told = [flyers(shoot(rng, 15, world=world), np.random.default_rng(1)) for _ in range(share(60))]
    found = np.mean([t.flies_out and t.worst == 3 for t in told])
    claimed(f"flyers, {world}: found", found, least=0.8, of=len(told))


def test_the_archers_aim_of_each_end_counts_for_nothing():
    rng = np.random.default_rng(3)
    shots = shoot(rng, 8)
    moved = [
        NumberedShot(s.end, s.number, s.right_cm + 9 * s.end, s.up_cm - 20, s.distance_m)
        for s in shots
    ]
    one, two = (flyers(seen, np.random.default_rng(1)) for seen in (shots, moved))
    assert one.worst == two.worst
    assert one.chance == two.chance
    assert one.spread_cm == pytest.approx(two.spread_cm)


def test_the_spread_is_the_archers_own():
    rng = np.random.default_rng(4)
    told = flyers(shoot(rng, 20, ends=40), np.random.default_rng(1))
    assert told.spread_cm == pytest.approx(6.0 * np.sqrt(7 / 8), rel=0.05)


def test_too_few_tell_nothing():
    rng = np.random.default_rng(5)
    assert flyers([], rng).shafts == ()
    assert flyers(shoot(rng, 30, ends=2), rng).worst is None  # two shots of each
    assert flyers(shoot(rng, 30, shafts=3, ends=6), rng).chance is None
