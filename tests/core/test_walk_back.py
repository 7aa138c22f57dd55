"""F2: exact on noiseless lines, honest bands, few false alarms, on several kinds of archers."""

import numpy as np
import pytest

from lyrandis.core.errors import RefusedError
from lyrandis.core.tune.walk_back import LineVisit, walk_back

AT = (10.0, 18.0, 26.0, 34.0)


def line(d, slant, bow):
    near, far = AT[0], AT[-1]
    return 2 + slant * (d - near) / 10 + bow * (d - near) * (far - d) / ((far - near) / 2) ** 2


def shoot(rng, slant, bow, arrows=6, world="even"):
    scatter = 5.5 * rng.uniform(0.6, 1.5)
    visits = []
    for d in AT:
        at = rng.normal(0, 1, arrows)
        if world == "tails":
            at = rng.standard_t(4, arrows) / np.sqrt(2)
        if world == "tired":
            at *= 1 + 0.3 * AT.index(d)
        offsets = line(d, slant, bow) + scatter * d / 30 * at
        visits.append(LineVisit(d, tuple(np.round(offsets, 1).tolist())))
    return visits


def test_a_line_without_noise_is_given_back():
    told = walk_back([LineVisit(d, (line(d, 3.0, -4.0),) * 12) for d in AT])
    assert told.slant_cm_per_10m.value == pytest.approx(3.0)
    assert told.bow_cm.value == pytest.approx(-4.0)
    mirrored = walk_back([LineVisit(d, (-line(d, 3.0, -4.0),) * 12) for d in AT])
    assert mirrored.slant_cm_per_10m.value == pytest.approx(-3.0)
    assert mirrored.verdict == told.verdict


@pytest.mark.parametrize("world", ["even", "tails", "tired"])
def test_bands_cover_and_false_alarms_are_few(world):
    rng = np.random.default_rng(8)
    held, alarms = [], 0
    for i in range(600):
        slant, bow = (0.0, 0.0) if i % 2 else rng.normal(0, 4, 2)
        told = walk_back(shoot(rng, slant, bow, world=world))
        held.append(
            abs(told.slant_cm_per_10m.value - slant) < 1.645 * told.slant_cm_per_10m.plus_minus
        )
        held.append(abs(told.bow_cm.value - bow) < 1.645 * told.bow_cm.plus_minus)
        alarms += i % 2 and told.verdict in ("slant", "bow", "both")
    assert 0.85 <= np.mean(held) <= 0.95
    assert alarms / 300 <= 0.08


def test_what_is_there_is_named_with_enough_arrows():
    rng = np.random.default_rng(9)
    slants = [walk_back(shoot(rng, 8.0, 0.0, 12)).verdict for _ in range(60)]
    bows = [walk_back(shoot(rng, 0.0, 14.0, 12)).verdict for _ in range(60)]
    assert sum(v in ("slant", "both") for v in slants) >= 54
    assert sum(v in ("bow", "both") for v in bows) >= 54


def test_straight_is_only_said_where_it_would_have_shown():
    rng = np.random.default_rng(10)
    few = [walk_back(shoot(rng, 0, 0, 2)) for _ in range(40)]
    assert not any(t.verdict == "straight" for t in few)
    assert all(t.more_arrows for t in few if t.verdict == "unclear")
    many = [walk_back(shoot(rng, 0, 0, 24)).verdict for _ in range(40)]
    assert many.count("straight") >= 36


@pytest.mark.parametrize("at", [(10, 20), (20, 30, 40), (10, 10, 30)])
def test_too_few_or_too_near(at):
    with pytest.raises(RefusedError, match="three distances"):
        walk_back([LineVisit(float(d), (1.0, 2.0)) for d in at])


def test_every_verdict_is_a_sentence():
    for slant, bow, arrows in ((9, 0, 40), (0, 20, 40), (9, 20, 60), (0, 0, 60), (0, 0, 1)):
        told = walk_back([LineVisit(d, (line(d, slant, bow),) * arrows) for d in AT])
        assert "{" not in told.why.plain()
