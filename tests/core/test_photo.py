"""Centimetres off a photo: the homography against its own projection, and 200 noisy photos."""

import numpy as np
import pytest

from lyrandis.core.errors import RefusedError
from lyrandis.core.flight.photo import homography, places_cm

SQUARE = [(100.0, 100.0), (500.0, 100.0), (500.0, 500.0), (100.0, 500.0)]


def camera(rng):
    """A pinhole camera before a butt 80 × 80 cm: a function from the butt [cm] to pixels."""
    aside, above, roll = np.radians(rng.uniform([-35, -10, -6], [35, 25, 6]))
    far, focal = rng.uniform(120, 190), rng.uniform(1700, 2300)
    turn = np.array(
        [[np.cos(aside), 0, np.sin(aside)], [0, 1, 0], [-np.sin(aside), 0, np.cos(aside)]]
    )
    tilt = np.array(
        [[1, 0, 0], [0, np.cos(above), -np.sin(above)], [0, np.sin(above), np.cos(above)]]
    )
    lean = np.array([[np.cos(roll), -np.sin(roll), 0], [np.sin(roll), np.cos(roll), 0], [0, 0, 1]])

    def seen(cm):
        at = np.column_stack([cm, np.zeros(len(cm))]) @ (lean @ tilt @ turn).T
        deep = far - at[:, 2]
        return np.column_stack([1000 + focal * at[:, 0] / deep, 750 - focal * at[:, 1] / deep])

    return seen


CORNERS = np.array([[-40, 40], [40, 40], [40, -40], [-40, -40]], dtype=float)


def test_200_photos_with_perspective_and_shaky_marks():
    """Corners and impacts are marked a pixel or two beside: within half a centimetre."""
    rng, off = np.random.default_rng(8), []
    for _ in range(200):
        seen = camera(rng)
        true = rng.uniform(-35, 35, (6, 2))
        marks = seen(true) + rng.normal(0, 1.0, (6, 2))
        matrix = homography(seen(CORNERS) + rng.normal(0, 1.0, (4, 2)), 80, 80)
        off.append(np.hypot(*(places_cm(matrix, marks) - true).T))
    off = np.array(off)
    assert np.quantile(off, 0.99) <= 0.5
    assert np.median(off) <= 0.25


def test_without_noise_it_is_exact_and_a_rectangle_serves():
    rng = np.random.default_rng(9)
    wide = CORNERS * [1.5, 1.0]
    for _ in range(20):
        seen, true = camera(rng), rng.uniform(-35, 35, (5, 2))
        matrix = homography(seen(wide), 120, 80)
        assert places_cm(matrix, seen(true)) == pytest.approx(true, abs=1e-6)


def test_upright_corners_and_signs():
    matrix = homography(SQUARE, 40, 40)
    assert places_cm(matrix, [(300, 300), (500, 100), (300, 500)]) == pytest.approx(
        np.array([[0, 0], [20, 20], [0, -20]]), abs=1e-9
    )


@pytest.mark.parametrize(
    "corners",
    [
        [SQUARE[0], SQUARE[3], SQUARE[2], SQUARE[1]],  # anticlockwise
        [SQUARE[0], SQUARE[2], SQUARE[1], SQUARE[3]],  # crossed
        [(0.0, 0.0), (100.0, 0.0), (200.0, 0.0), (300.0, 0.0)],
    ],
)
def test_corners_out_of_order_are_refused(corners):
    with pytest.raises(RefusedError, match="clockwise"):
        homography(corners, 80, 80)


def test_a_butt_too_small_on_the_photo_is_refused():
    with pytest.raises(RefusedError, match="too small"):
        homography([(x / 10, y / 10) for x, y in SQUARE], 80, 80)
