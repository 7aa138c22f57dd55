"""Where the limb is for a given bend, and where the string touches it (docs/mechanics A1).

The limb has one degree of freedom, its total turning `phi`. All functions take and return SI
units and broadcast over arrays of `phi` and of the arrow nock's position.

  y ^        |  lever, straight on (static tips only); its end is the limb nock
    |        )  arc: turns back by `turn` from E (t = 0) to its end (t = 1)
    |       P .   where the string leaves the belly: its tangent to the arc
    |      )    .
    |     E       .   free string, |P − N| long
    |    /          .
    |   /  working    .   the part between root and E turns by phi, evenly
    |  /   part         .
    | root (tilted by `tilt`)
    +-----------------------N--> x, toward the archer; the pivot is the origin

    t < 1              P on the arc; (1 − t)·arc + lever of string lie on the belly
    t = 1              P is the lever's end; nothing lies on the limb
    arc = lever = 0    P = E, always t = 1 (the straight longbow)
"""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.bow.form import Limb

_SERIES_BELOW = 1e-4  # rad; under this the series of sin(phi)/phi is exact to rounding


class Contact(NamedTuple):
    """The string's path from the arrow nock to the limb; every member has the shape of phi."""

    length: Array  # half string from the arrow nock to the limb nock [m]
    length_phi: Array  # its derivatives by phi [m/rad], [m/rad2] ...
    length_phi2: Array
    length_x: Array  # ... and by the arrow nock's X [-]
    direction: tuple[Array, Array]  # unit vector from the arrow nock to the contact point
    t: Array  # place on the tip's arc where the string leaves, 0 at its root, 1 at its end


def end_of_working_part(limb: Limb, phi: Array) -> tuple[Array, Array, Array, Array, Array, Array]:
    """Position of the working part's end and its first and second derivative by phi.

    Returns x, y [m], x', y' [m/rad], x'', y'' [m/rad2].
    """
    w, a = limb.working, limb.tilt
    small = np.abs(phi) < _SERIES_BELOW
    p = np.where(small, 1.0, phi)
    b = a + phi
    s0, c0, s1, c1 = math.sin(a), math.cos(a), np.sin(b), np.cos(b)
    f, g = (c0 - c1) / p, (s1 - s0) / p
    f1, g1 = (s1 - f) / p, (c1 - g) / p
    f2, g2 = (c1 - 2 * f1) / p, (-s1 - 2 * g1) / p
    if small.any():
        f = np.where(small, s0 + phi * c0 / 2, f)
        g = np.where(small, c0 - phi * s0 / 2, g)
        f1, g1 = (
            np.where(small, c0 / 2 - phi * s0 / 3, f1),
            np.where(small, -s0 / 2 - phi * c0 / 3, g1),
        )
        f2, g2 = np.where(small, -s0 / 3, f2), np.where(small, -c0 / 3, g2)
    return (limb.root_x + w * f, limb.root_y + w * g, w * f1, w * g1, w * f2, w * g2)


def tip_point(limb: Limb, phi: Array, t: Array) -> tuple[Array, Array]:
    """Point at share t of the tip's arc, seen from the end of the working part [m]."""
    if limb.arc == 0:
        zero = np.zeros_like(phi)
        return zero, zero
    r = limb.arc / limb.turn
    chi = limb.tilt + phi - limb.turn * t
    b = limb.tilt + phi
    return r * (np.cos(chi) - np.cos(b)), r * (np.sin(b) - np.sin(chi))


def contact_at(limb: Limb, phi: Array, nock_x: Array, t: Array) -> Contact:
    """The string's path when it leaves the limb at the given t; arrow nock at (nock_x, 0).

    Parameters
    ----------
    limb : [m, rad]
    phi, nock_x, t : bends [rad], the arrow nock's X [m] and share of the arc, all of one shape
    """
    ex, ey, ex1, ey1, ex2, ey2 = end_of_working_part(limb, phi)
    dx, dy = tip_point(limb, phi, t)
    at_end = t >= 1.0
    if limb.lever:
        chi = limb.tilt + phi - limb.turn * t
        dx = dx + np.where(at_end, limb.lever * np.sin(chi), 0.0)
        dy = dy + np.where(at_end, limb.lever * np.cos(chi), 0.0)
    px, py = ex + dx, ey + dy
    px1, py1 = ex1 + dy, ey1 - dx  # turning the tip part by phi turns the offset by −90°
    px2, py2 = ex2 - dx, ey2 - dy
    lx = px - nock_x
    free = np.hypot(lx, py)
    ux, uy = lx / free, py / free
    rest = np.where(at_end, 0.0, (1 - t) * limb.arc + limb.lever)
    across = px1 * uy - py1 * ux
    return Contact(
        length=free + rest,
        length_phi=ux * px1 + uy * py1,
        length_phi2=across**2 / free + ux * px2 + uy * py2,
        length_x=-ux,
        direction=(ux, uy),
        t=t,
    )


def contact(limb: Limb, phi: Array, nock_x: Array) -> Contact:
    """The string's path at bend phi [rad] with the arrow nock at (nock_x [m], 0).

    The string lies on the tip's belly until it lifts: t is the tangent from the arrow nock to
    the tip's arc, in closed form, kept within the arc.

    Parameters
    ----------
    limb : [m, rad]
    phi : bends [rad], any shape
    nock_x : the arrow nock's X [m], of phi's shape

    Source: docs/mechanics A1.
    """
    if limb.arc == 0:
        return contact_at(limb, phi, nock_x, np.ones_like(phi))
    ex, ey, *_ = end_of_working_part(limb, phi)
    r, b = limb.arc / limb.turn, limb.tilt + phi
    ax = ex - r * np.cos(b) - nock_x
    ay = ey + r * np.sin(b)
    chi = np.arccos(np.clip(-r / np.hypot(ax, ay), -1, 1)) - np.arctan2(ay, ax)
    t = np.clip((b - chi) / limb.turn, 0.0, 1.0)
    return contact_at(limb, phi, nock_x, t)


def t_at_brace(limb: Limb, phi: Array) -> Array:
    """Where a vertical string leaves the tip's arc."""
    if limb.arc == 0:
        return np.ones_like(phi)
    return np.clip((limb.tilt + phi) / limb.turn, 0.0, 1.0)
