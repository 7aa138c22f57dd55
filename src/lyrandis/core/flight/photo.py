"""Centimetres on a butt from a photo of it: its four corners give the plane.

1 ______ 2        corners in pixels, clockwise from the upper left as the archer sees the butt
 /      \\         a homography takes them to a rectangle of known size
4________3
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.errors import RefusedError

Pixel = tuple[float, float]
LEAST_PX_PER_CM = 6.0  # along each edge: coarser, and half a centimetre cannot be told


def homography(corners_px: Sequence[Pixel], width_cm: float, height_cm: float) -> Array:
    """The matrix from pixels to centimetres from the butt's middle, + right and + up, shape (3, 3).

    Parameters
    ----------
    corners_px : the butt's corners, clockwise from the upper left; y downwards as in photos

    Raises
    ------
    RefusedError : corners out of order, on one line, or a butt too small on the photo.

    Source: direct linear transformation from four points.
    """
    px = np.asarray(corners_px, dtype=float)
    _refuse_bad(px, np.array([width_cm, height_cm] * 2))
    w, h = width_cm / 2, height_cm / 2
    rows = []
    for (x, y), (u, v) in zip(px, ((-w, h), (w, h), (w, -h), (-w, -h)), strict=True):
        rows.append([x, y, 1, 0, 0, 0, -u * x, -u * y, -u])
        rows.append([0, 0, 0, x, y, 1, -v * x, -v * y, -v])
    scale = np.array([*(1 / np.abs(px).max(),) * 2, 1.0] * 3)
    *_, vt = np.linalg.svd(np.array(rows) * scale)
    return np.asarray((vt[-1] * scale).reshape(3, 3))


def _refuse_bad(px: Array, sizes_cm: Array) -> None:
    sides = np.roll(px, -1, axis=0) - px
    turns = sides[:, 0] * np.roll(sides, -1, axis=0)[:, 1]
    turns = turns - sides[:, 1] * np.roll(sides, -1, axis=0)[:, 0]
    if not (turns > 0).all():
        raise RefusedError(
            "corners_px",
            "Mark the butt's four corners clockwise as you see it: upper left, upper right, lower "
            "right, lower left.",
        )
    if (np.hypot(*sides.T) / sizes_cm).min() < LEAST_PX_PER_CM:
        raise RefusedError(
            "corners_px",
            "The butt is too small on this photo to tell half a centimetre: go nearer.",
            LEAST_PX_PER_CM,
            "px/cm",
        )


def places_cm(matrix: Array, marks_px: Sequence[Pixel]) -> Array:
    """Where marks lie on the butt [cm from its middle, + right and + up], shape (n, 2).

    Parameters
    ----------
    matrix : of `homography`
    """
    px = np.asarray(marks_px, dtype=float).reshape(-1, 2)
    told = np.column_stack([px, np.ones(len(px))]) @ matrix.T
    return np.asarray(told[:, :2] / told[:, 2:])
