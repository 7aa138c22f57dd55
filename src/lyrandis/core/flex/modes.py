"""The ways a bare shaft moves sideways: two rigid ones and six bending ones, mass-normalised.

A layout of masses is solved once; another spine of the same masses keeps its shapes, and its
frequencies go by the root of its stiffness.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.linalg import eigh

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.beam import ELEMENTS, assembled

BENDING = 6


@dataclass(frozen=True)
class Layout:
    """The masses of a bare shaft: length [m], density [kg/m], lumps at nock and front [kg]."""

    length_m: float
    density_kg_m: float
    nock_kg: float
    front_kg: float

    @property
    def mass_kg(self) -> float:
        """All of it."""
        return self.density_kg_m * self.length_m + self.nock_kg + self.front_kg

    @property
    def balance_m(self) -> float:
        """From the nock."""
        shaft = self.density_kg_m * self.length_m**2 / 2
        return (shaft + self.front_kg * self.length_m) / self.mass_kg

    @property
    def inertia_kg_m2(self) -> float:
        """About the balance."""
        about_nock = self.density_kg_m * self.length_m**3 / 3 + self.front_kg * self.length_m**2
        return about_nock - self.mass_kg * self.balance_m**2


@dataclass(frozen=True)
class Modes:
    """Shapes at the nodes and what an acceleration does to them.

    at_m : nodes, shape (n + 1,)
    height, slope : of each mode there, shape (n + 1, 8); the first two are rigid
    unit_omega : of the bending modes for a stiffness of 1 N·m² [rad/s], noughts first, shape (8,)
    ahead : ∫ (mass ahead of x) φi′ φj′ dx, shape (8, 8)
    """

    layout: Layout
    at_m: Array
    height: Array
    slope: Array
    unit_omega: Array
    ahead: Array

    def at(self, place_m: Array) -> tuple[Array, Array]:
        """Heights and slopes of all modes at places along the shaft, shape (k, 8) each; held to
        its ends."""
        h = self.at_m[1]
        x = np.clip(np.asarray(place_m, dtype=float), 0.0, self.at_m[-1])
        i = np.minimum((x / h).astype(int), len(self.at_m) - 2)
        u = ((x - self.at_m[i]) / h)[:, None]
        y0, y1 = self.height[i], self.height[i + 1]
        t0, t1 = self.slope[i], self.slope[i + 1]
        height = (
            y0 * (1 - 3 * u**2 + 2 * u**3)
            + h * t0 * (u - 2 * u**2 + u**3)
            + y1 * (3 * u**2 - 2 * u**3)
            + h * t1 * (u**3 - u**2)
        )
        slope = (
            (y1 - y0) * (6 * u - 6 * u**2) / h
            + t0 * (1 - 4 * u + 3 * u**2)
            + t1 * (3 * u**2 - 2 * u)
        )
        return height, slope


@lru_cache(maxsize=64)
def modes(layout: Layout) -> Modes:
    """The modes of a layout of masses.

    Source: docs/mechanics B3.
    """
    ones = np.ones(ELEMENTS)
    beam = assembled(
        layout.length_m, ones, layout.density_kg_m * ones, layout.nock_kg, layout.front_kg
    )
    squares, shapes = eigh(beam.bend, beam.mass)
    bending = shapes[:, 2 : 2 + BENDING]
    shift = np.zeros(len(beam.bend))
    shift[0::2] = 1 / np.sqrt(layout.mass_kg)
    turn = np.zeros(len(beam.bend))
    turn[0::2] = (beam.at_m - layout.balance_m) / np.sqrt(layout.inertia_kg_m2)
    turn[1::2] = 1 / np.sqrt(layout.inertia_kg_m2)
    every = np.column_stack([shift, turn, bending])
    omega = np.concatenate([[0.0, 0.0], np.sqrt(squares[2 : 2 + BENDING])])
    ahead = every.T @ beam.ahead @ every
    return Modes(layout, beam.at_m, every[0::2], every[1::2], omega, ahead)
