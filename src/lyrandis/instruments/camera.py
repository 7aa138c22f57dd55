"""A simulated camera: a photo of a butt with arrows in it, as it is taken from a few paces.

Deterministic by seed. What truly stands in the butt is the answer sheet.
"""

from __future__ import annotations

import io
import math
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

from lyrandis.core.arrays import Array

STRAW, EDGE, INK, GROUND = (214, 190, 132), (120, 98, 58), (52, 44, 38), (104, 118, 96)
NOCKS = {"fletched": (190, 60, 52), "bare": (240, 240, 232)}


@dataclass(frozen=True)
class ButtPhoto:
    """What the camera saw.

    corners_px : of the butt, clockwise from the upper left, shape (4, 2)
    places_cm : where each arrow truly stands, from the middle, shape (n, 2)
    marks_px : where each is on the photo, shape (n, 2)
    """

    jpeg: bytes
    corners_px: Array
    places_cm: Array
    bare: tuple[bool, ...]
    marks_px: Array


@dataclass(frozen=True)
class SimulatedCamera:
    """A camera in an archer's hand.

    size_cm : of the square butt; far_m : how far it is; aside_deg, above_deg : from where; focal:
    in widths of the photo
    """

    seed: int
    size_cm: float = 80.0
    far_m: float = 2.4
    aside_deg: float = 18.0
    above_deg: float = 8.0
    focal: float = 1.1
    width_px: int = 1600
    height_px: int = 1200
    name: str = "simulated camera"
    simulated: bool = True

    def project(self, places_cm: Array) -> Array:
        """Where places on the butt [cm from its middle] are on the photo [px], shape (n, 2)."""
        a, b = math.radians(self.aside_deg), math.radians(self.above_deg)
        p = np.column_stack([places_cm / 100, np.zeros(len(places_cm))])
        turn = np.array([[math.cos(a), 0, math.sin(a)], [0, 1, 0], [-math.sin(a), 0, math.cos(a)]])
        tilt = np.array([[1, 0, 0], [0, math.cos(b), -math.sin(b)], [0, math.sin(b), math.cos(b)]])
        seen = p @ turn.T @ tilt.T
        deep = self.far_m - seen[:, 2]
        focal = self.focal * self.width_px
        return np.column_stack(
            [
                self.width_px / 2 + focal * seen[:, 0] / deep,
                self.height_px / 2 - focal * seen[:, 1] / deep,
            ]
        )

    def butt(self, places_cm: Array, bare: tuple[bool, ...]) -> ButtPhoto:
        """A photo of the butt with arrows in it."""
        half = self.size_cm / 2
        square = np.array([[-half, half], [half, half], [half, -half], [-half, -half]])
        corners, marks = self.project(square), self.project(places_cm)
        rng = np.random.default_rng([self.seed, 41])
        photo = Image.new("RGB", (self.width_px, self.height_px), GROUND)
        draw = ImageDraw.Draw(photo)
        draw.polygon([tuple(c) for c in corners], fill=STRAW, outline=EDGE, width=8)
        for up in np.linspace(-half, half, 17)[1:-1]:
            line = self.project(np.array([[-half, up], [half, up]]))
            draw.line([tuple(c) for c in line], fill=(196, 170, 112), width=2)
        cross = self.project(np.array([[-2, 0], [2, 0], [0, -2], [0, 2]]))
        draw.line([tuple(cross[0]), tuple(cross[1])], fill=INK, width=4)
        draw.line([tuple(cross[2]), tuple(cross[3])], fill=INK, width=4)
        for (x, y), is_bare in zip(marks, bare, strict=True):
            colour = NOCKS["bare" if is_bare else "fletched"]
            draw.ellipse([x - 7, y - 7, x + 7, y + 7], fill=INK)
            draw.ellipse([x - 4, y - 4, x + 4, y + 4], fill=colour)
        grain = rng.normal(0, 6, (self.height_px, self.width_px, 1))
        soft = np.asarray(photo.filter(ImageFilter.GaussianBlur(1.0)), dtype=float)
        noisy = Image.fromarray(np.clip(soft + grain, 0, 255).astype(np.uint8))
        out = io.BytesIO()
        noisy.save(out, "JPEG", quality=85)
        return ButtPhoto(out.getvalue(), corners, places_cm, bare, marks)


def group_photo(seed: int) -> ButtPhoto:
    """A practice group: four fletched arrows, three bare ones, from somewhere before the butt."""
    rng = np.random.default_rng([seed, 43])
    middle, aside = rng.normal(0, 4, 2), rng.normal([0, 0], [6, 3])
    bare = (False,) * 4 + (True,) * 3
    places = np.array([middle + (aside if b else 0) + rng.normal(0, 3, 2) for b in bare])
    camera = SimulatedCamera(
        seed,
        far_m=float(rng.uniform(1.7, 2.2)),
        aside_deg=float(rng.uniform(-28, 28)),
        above_deg=float(rng.uniform(-5, 18)),
    )
    return camera.butt(places, bare)
