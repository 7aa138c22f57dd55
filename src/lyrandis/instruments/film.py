"""A simulated slow-motion camera over an archer's arrow: frames of one shot, seen from above.

The shaft is this rig's but for what it hides, by seed: up to two groups of spine more or less. It
goes as the model of the shaft passing the bow has it, and flies on by its modes.
"""

from __future__ import annotations

import io
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.flex.modes import modes
from lyrandis.core.flex.onward import at_moments
from lyrandis.core.flex.setting import DAMPING
from lyrandis.core.flex.window import GROUP_LN

FRAMES_A_SECOND = 960
WIDTH_PX, HEIGHT_PX, MM_PER_PX = 1600, 200, 1.7
BEFORE, AFTER = 2, 21  # frames before the release and after the string let go
HIDDEN_GROUPS = 2.0
_GROUND, _SHAFT, _NOCK, _POINT, _BOW = (
    (96, 112, 92), (226, 214, 186), (200, 70, 60), (60, 60, 66), (74, 52, 38),
)  # fmt: skip
_STRING, _PLATE_PX, _LEFT_PX = (228, 228, 220), 60.0, 40.0
_KEPT = 400


@dataclass(frozen=True)
class Film:
    """What the camera saw, with the answer sheet: the shaft on each frame [px], and the bow.

    x, y : places along the shaft from the nock, shape (frames, n)
    let_go : the frame on which the string let the arrow go; spine : that the shaft truly has
    plate : where the side plate stands, and its surface; outward : −1 where away from it is up
    braced : where the string stands braced
    """

    seed: int
    x: Array
    y: Array
    let_go: int
    spine: float
    plate: tuple[float, float]
    outward: float
    braced: float

    @property
    def nock_px(self) -> list[tuple[float, float]]:
        """Where the nock is on each frame."""
        return [(float(x), float(y)) for x, y in zip(self.x[:, 0], self.y[:, 0], strict=True)]

    @property
    def point_px(self) -> list[tuple[float, float]]:
        """Where the point is on each frame."""
        return [(float(x), float(y)) for x, y in zip(self.x[:, -1], self.y[:, -1], strict=True)]

    def frames(self) -> list[bytes]:
        """Each frame as JPEG."""
        rng = np.random.default_rng([self.seed, 53])
        return [self._frame(i, rng) for i in range(len(self.x))]

    def _frame(self, i: int, rng: np.random.Generator) -> bytes:
        photo = Image.new("RGB", (WIDTH_PX, HEIGHT_PX), _GROUND)
        draw = ImageDraw.Draw(photo)
        plate, edge = self.plate
        far = edge - _PLATE_PX * self.outward
        draw.rectangle([plate - 8, min(edge, far), plate + 8, max(edge, far)], fill=_BOW)
        x, y = self.x[i], self.y[i]
        if i <= self.let_go:
            draw.line([(x[0], y[0]), (self.braced, HEIGHT_PX / 2)], fill=_STRING, width=1)
        draw.line(list(zip(x, y, strict=True)), fill=_SHAFT, width=4, joint="curve")
        for at, colour in ((0, _NOCK), (-1, _POINT)):
            draw.ellipse([x[at] - 4, y[at] - 4, x[at] + 4, y[at] + 4], fill=colour)
        soft = np.asarray(photo.filter(ImageFilter.GaussianBlur(0.8)), dtype=float)
        grain = rng.normal(0, 5, (HEIGHT_PX, WIDTH_PX, 1))
        out = io.BytesIO()
        noisy = Image.fromarray(np.clip(soft + grain, 0, 255).astype(np.uint8))
        noisy.save(out, "JPEG", quality=60)
        return out.getvalue()


def filmed(b: Bench, seed: int) -> Film:
    """One shot of this rig from above, at 960 frames a second.

    Raises
    ------
    RefusedError : an arrow shorter than the draw, or a bow that cannot be drawn so far.
    """
    hidden = np.random.default_rng([seed, 47]).uniform(-HIDDEN_GROUPS, HIDDEN_GROUPS)
    spine = b.arrow.build.acts_spine * float(np.exp(hidden * GROUP_LN))
    stiff = np.array([stiffness_n_m2(spine)])
    told = b.flex.passed(np.array([spine]), _KEPT)
    let_go = BEFORE + round(told.exit_s * FRAMES_A_SECOND)
    time = told.exit_s + (np.arange(let_go + AFTER + 1) - let_go) / FRAMES_A_SECOND
    q, behind = at_moments(
        told, b.flex.layout, stiff, DAMPING[b.rig.arrow.material], np.maximum(time, 0.0)
    )
    place = modes(b.flex.layout)
    aside = 1000 * q[:, 0] @ place.height.T
    along = 1000 * (place.at_m[None, :] - behind[:, None])
    outward = -1.0 if b.rig.arrow_left else 1.0
    start = _LEFT_PX - along[0, 0] / MM_PER_PX
    return Film(
        seed,
        start + along / MM_PER_PX,
        HEIGHT_PX / 2 + outward * aside / MM_PER_PX,
        let_go,
        spine,
        (
            start + 1000 * b.flex.setting.plate_at_m / MM_PER_PX,
            HEIGHT_PX / 2 + outward * 1000 * b.flex.setting.offset_m / MM_PER_PX,
        ),
        outward,
        start,
    )
