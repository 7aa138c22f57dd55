"""A shaft as a beam: how it rings sideways (docs/mechanics B3, B6).

Hermite elements (a height and a slope at each end), the nock and the point as lumps at its ends.

    o====|====|====|====|===>     nock at 0, point at L; free at both ends, or the nock held
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.linalg import eigh

from lyrandis.core.arrays import Array

ELEMENTS = 24


@dataclass(frozen=True)
class Assembled:
    """The beam's matrices over heights and slopes of its nodes, shape (2n + 2, 2n + 2) each.

    at_m : its nodes, shape (n + 1,)
    bend, mass : stiffness and mass
    ahead : of each slope squared, the mass that an acceleration pushes ahead of it
    """

    at_m: Array
    bend: Array
    mass: Array
    ahead: Array


def assembled(
    length_m: float, stiffness_n_m2: Array, density_kg_m: Array, nock_kg: float, front_kg: float
) -> Assembled:
    """A shaft's matrices.

    Parameters
    ----------
    length_m : of the shaft
    stiffness_n_m2, density_kg_m : EI and mass a metre in the middle of each element, shape (n,)
    nock_kg, front_kg : lumps at the ends
    """
    n = len(stiffness_n_m2)
    h = length_m / n
    bend = np.array(
        [
            [12, 6 * h, -12, 6 * h],
            [6 * h, 4 * h * h, -6 * h, 2 * h * h],
            [-12, -6 * h, 12, -6 * h],
            [6 * h, 2 * h * h, -6 * h, 4 * h * h],
        ]
    ) / h**3  # fmt: skip
    heavy = np.array(
        [
            [156, 22 * h, 54, -13 * h],
            [22 * h, 4 * h * h, 13 * h, -3 * h * h],
            [54, 13 * h, 156, -22 * h],
            [-13 * h, -3 * h * h, -22 * h, 4 * h * h],
        ]
    ) * (h / 420)  # fmt: skip
    slopes = np.array(
        [
            [36, 3 * h, -36, 3 * h],
            [3 * h, 4 * h * h, -3 * h, -h * h],
            [-36, -3 * h, 36, -3 * h],
            [3 * h, -h * h, -3 * h, 4 * h * h],
        ]
    ) / (30 * h)  # fmt: skip
    own = density_kg_m * h
    before = front_kg + np.cumsum(own[::-1])[::-1] - own / 2  # mass ahead of each middle
    size = 2 * (n + 1)
    k, m, g = (np.zeros((size, size)) for _ in range(3))
    for i in range(n):
        at = slice(2 * i, 2 * i + 4)
        k[at, at] += stiffness_n_m2[i] * bend
        m[at, at] += density_kg_m[i] * heavy
        g[at, at] += before[i] * slopes
    m[0, 0] += nock_kg
    m[-2, -2] += front_kg
    return Assembled(np.linspace(0.0, length_m, n + 1), k, m, g)


def bending_frequencies(
    length_m: float,
    stiffness_n_m2: Array,
    density_kg_m: Array,
    nock_kg: float,
    front_kg: float,
    nock_held: bool = False,
) -> Array:
    """Angular frequencies of bending [rad/s], rising; the rigid ones are left out.

    Parameters
    ----------
    length_m, stiffness_n_m2, density_kg_m, nock_kg, front_kg : as `assembled` has them
    nock_held : whether the string holds the nock sideways

    Source: Euler–Bernoulli, Hermite elements; its known roots stand in tests/core/test_taper.
    """
    beam = assembled(length_m, stiffness_n_m2, density_kg_m, nock_kg, front_kg)
    first = 1 if nock_held else 0  # a held nock has no height of its own
    squares = eigh(beam.bend[first:, first:], beam.mass[first:, first:], eigvals_only=True)
    rigid = 1 if nock_held else 2
    return np.sqrt(squares[rigid:])
