"""The bow drawn to scale, seen from the side: outlines in inches, X toward the archer, Y up.

The limb's thickness and the riser's outline are a draughtsman's and not computed; everything else
is the model's.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import BACK_IN_FRONT_IN, TRADE_OFFSET_IN, Limb
from lyrandis.core.bow.geometry import contact
from lyrandis.core.bow.statics import Statics
from lyrandis.core.units import M_PER_IN

Points = list[tuple[float, float]]
_ROOT_IN, _TIP_IN = 0.62, 0.30
_POINTS = 28
_GRIP_IN = 1.7  # the pivot lies a hand below the arrow


@dataclass(frozen=True)
class Pose:
    """The bow in one pose: closed limb outlines, the string's path, the limb nock, the nock.

    The riser is told by points along its belly, from the upper limb down, and back up its back.
    """

    upper_limb: Points
    lower_limb: Points
    string: Points
    arrow_nock: tuple[float, float]
    upper_nock: tuple[float, float]
    riser_belly: Points
    riser_back: Points
    grip_y: float


def limb_line(limb: Limb, phi: float) -> tuple[Array, Array]:
    """The limb's centre line from root to limb nock, shape (n, 2) [m], and its tangent angle."""
    s = np.linspace(0, 1, _POINTS)
    bent = np.where(abs(phi) < 1e-9, 1e-9, phi) * s
    length = limb.working * s
    a = limb.tilt
    f = np.where(
        bent == 0, math.sin(a), (math.cos(a) - np.cos(a + bent)) / np.where(bent == 0, 1, bent)
    )
    g = np.where(
        bent == 0, math.cos(a), (np.sin(a + bent) - math.sin(a)) / np.where(bent == 0, 1, bent)
    )
    points = [np.stack([limb.root_x + length * f, limb.root_y + length * g], axis=1)]
    angles = [a + bent]
    end = points[0][-1]
    if limb.arc:
        t = np.linspace(0, 1, 14)[1:]
        b, r = a + phi, limb.arc / limb.turn
        chi = b - limb.turn * t
        points.append(
            end
            + np.stack([r * (np.cos(chi) - math.cos(b)), r * (math.sin(b) - np.sin(chi))], axis=1)
        )
        angles.append(chi)
    if limb.lever:
        chi_end = a + phi - limb.turn
        along = np.linspace(0, limb.lever, 6)[1:, None]
        points.append(points[-1][-1] + along * np.array([math.sin(chi_end), math.cos(chi_end)]))
        angles.append(np.full(5, chi_end))
    return np.concatenate(points), np.concatenate(angles)


def _outline(line: Array, angle: Array) -> Array:
    """A limb's outline [in]: its line is the belly, the back lies a taper's width in front."""
    step = np.hypot(*np.diff(line, axis=0).T)
    share = np.concatenate([[0], np.cumsum(step)]) / step.sum()
    thick = (_ROOT_IN + (_TIP_IN - _ROOT_IN) * share)[:, None]
    belly = line / M_PER_IN
    back = belly - thick * np.stack([np.cos(angle), -np.sin(angle)], axis=1)
    return np.concatenate([belly, back[::-1]])


def _riser(root: tuple[float, float], back_x: float) -> tuple[Points, Points, float]:
    """The riser's belly and back [in] between the limbs' roots, and the height of its pivot."""
    x, y = root
    grip = min(_GRIP_IN, y * 0.2)
    neck = x * 0.5 + 0.35
    belly = [
        (x, y), (neck, y * 0.62), (0.55, min(1.2, y * 0.3)), (0.12, 0.1), (0.0, -grip),
        (0.45, -min(grip + 1.9, y * 0.56)), (neck, -y * 0.76), (x, -y),
    ]  # fmt: skip
    back = [
        (back_x, -y), (-1.45, -y * 0.6), (-BACK_IN_FRONT_IN, -grip), (-1.35, 0.2), (-1.55, y * 0.5),
        (back_x, y),
    ]  # fmt: skip
    return belly, back, -grip


def _mirrored(points: Points) -> Points:
    return [(x, -y) for x, y in points]


def _listed(points: Array) -> Points:
    return [(round(float(x), 3), round(float(y), 3)) for x, y in points]


@lru_cache(maxsize=256)
def pose(statics: Statics, draw_in: float | None = None) -> Pose:
    """The bow at brace (None) or at a draw [in, trade].

    Parameters
    ----------
    statics : the solved bow
    draw_in : draw [in, trade]; None for the braced bow
    """
    limb = statics.limb
    if draw_in is None:
        phi, nock_x = statics.braced.phi, statics.brace_x
    else:
        nock_x = (draw_in - TRADE_OFFSET_IN) * M_PER_IN
        phi = float(statics.draw(np.array([nock_x])).phi[0])
    line, angle = limb_line(limb, phi)
    outline = _listed(_outline(line, angle))
    touch = contact(limb, np.array([phi]), np.array([nock_x]))
    share = float(touch.t[0])
    if share < 1.0:
        first = _POINTS - 1 + math.ceil(share * 13)
        lying = line[first:]
    else:
        lying = line[-1:]
    half = _listed(lying / M_PER_IN)
    nock = (round(nock_x / M_PER_IN, 3), 0.0)
    belly, back, grip_y = _riser(outline[0], outline[-1][0])
    return Pose(
        upper_limb=outline,
        lower_limb=_mirrored(outline),
        string=[*half[::-1], nock, *_mirrored(half)],
        arrow_nock=nock,
        upper_nock=half[-1],
        riser_belly=belly,
        riser_back=back,
        grip_y=grip_y,
    )
