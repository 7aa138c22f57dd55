"""This rig as the model of the shaft passing the bow takes it: SI, and solved once."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in
from lyrandis.core.flex.many import clean_of_many
from lyrandis.core.flex.match import Averaged, averaged, searched
from lyrandis.core.flex.modes import Layout
from lyrandis.core.flex.setting import (
    DAMPING,
    FINGERS,
    HALF_STRING_AT_IN,
    HALF_STRING_M,
    LIMB_AT_LBF,
    LIMB_KG,
    PLATES,
    THUMB,
    Setting,
)
from lyrandis.core.flex.unknowns import may_be
from lyrandis.core.flex.window import REFERENCE_STRING_G
from lyrandis.core.parts import Arrow, Rig, String
from lyrandis.core.string.measures import sideways_g
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN, N_PER_LBF

_POINTS = 160  # of the force along the stroke
_STRING = String(mass_gr=REFERENCE_STRING_G / 1000 / KG_PER_GRAIN)


@dataclass(frozen=True)
class Drawn:
    """A bow as it is drawn: its curve, the true draw [in] and the weight there [lb]."""

    curve: ForceDraw
    draw_in: float
    weight_lbf: float


def setting_of(rig: Rig, bow: Drawn, string: String) -> Setting:
    """The bow in SI, as a shaft passes it."""
    brace = brace_to_pivot_in(rig.bow)
    way = np.linspace(0.0, bow.draw_in - TRADE_OFFSET_IN - brace, _POINTS)
    force = np.array([bow.curve.force(float(w) + brace + TRADE_OFFSET_IN) for w in way])
    sideways = sideways_g(rig.bow, string) / 1000
    limbs = LIMB_KG[rig.bow.form] * bow.weight_lbf / LIMB_AT_LBF
    return Setting(
        way_m=tuple((way * M_PER_IN).tolist()),
        force_n=tuple((force * N_PER_LBF).tolist()),
        plate_at_m=brace * M_PER_IN,
        offset_m=rig.bow.plate_offset_mm / 1000,
        plate=PLATES[rig.bow.side_plate],
        moving_kg=limbs + sideways,
        string_kg=sideways,
        half_string_m=HALF_STRING_M * rig.bow.length_in / HALF_STRING_AT_IN,
        go=THUMB if rig.archer.release == "thumb" else FINGERS,
    )


def layout_of(arrow: Arrow) -> Layout:
    """The bare shaft's masses."""
    return Layout(
        arrow.shaft_length_in * M_PER_IN,
        arrow.grains_per_inch * KG_PER_GRAIN / M_PER_IN,
        arrow.nock_gr * KG_PER_GRAIN,
        (arrow.point_gr + arrow.insert_gr) * KG_PER_GRAIN,
    )


@lru_cache(maxsize=256)
def averaged_past(
    setting: Setting, layout: Layout, radius_m: float, damping: float, guess: float
) -> Averaged:
    """Where a shaft of these masses leaves a bow cleanly that is known no better than archers know
    theirs, sought about a first guess of its spine [0.001 in].

    Raises
    ------
    ValueError : a side plate of which no clean direction is known.

    Source: docs/mechanics B4a.
    """
    spines = searched(guess)
    stiff = np.array([stiffness_n_m2(float(s)) for s in spines])
    clean = clean_of_many(may_be(setting), layout, stiff, radius_m, damping)
    return averaged(spines, clean, guess)


def averaged_of(rig: Rig, bow: Drawn, arrow: Arrow, guess: float, firmer: float = 0.0) -> Averaged:
    """The same for an arrow on a rig; with a plunger whose spring is firmer by a share.

    With the string that the fit is written around: what another one does is the fit's to say, for
    the model's match goes the wrong way with its mass on one leather bow in six.
    """
    setting = setting_of(rig, bow, _STRING)
    plate = setting.plate
    firm = replace(
        plate, k_n_m=plate.k_n_m * (1 + firmer), preload_n=plate.preload_n * (1 + firmer)
    )
    return averaged_past(
        replace(setting, plate=firm),
        layout_of(arrow),
        arrow.diameter_mm / 2000,
        DAMPING[arrow.material],
        guess,
    )
