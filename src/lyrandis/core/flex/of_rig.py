"""This rig as the model of the shaft passing the bow takes it: SI, and solved once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bow.curve import ForceDraw
from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in
from lyrandis.core.flex.clean import leaving
from lyrandis.core.flex.match import PREVIEW_SHAFTS, Match, match, searched
from lyrandis.core.flex.modes import Layout
from lyrandis.core.flex.passing import PREVIEW_STEP_S, pass_bow
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
from lyrandis.core.parts import Arrow, Rig, String
from lyrandis.core.string.measures import string_mass_g
from lyrandis.core.units import KG_PER_GRAIN, M_PER_IN, N_PER_LBF

_POINTS = 160  # of the force along the stroke


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
    own = string_mass_g(rig.bow, string) / 1000
    tied = string.silencers_gr * KG_PER_GRAIN * (1 - string.silencer_position) ** 2
    sideways = own / 3 + tied
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
def matched(
    setting: Setting,
    layout: Layout,
    radius_m: float,
    damping: float,
    guess: float,
    shafts: int = PREVIEW_SHAFTS,
    step_s: float = PREVIEW_STEP_S,
) -> Match:
    """Where a shaft of these masses leaves this bow cleanly, sought about a first guess of its
    spine [0.001 in].

    Raises
    ------
    ValueError : a side plate of which no clean direction is known.
    """
    spines = searched(guess, shafts)
    stiff = np.array([stiffness_n_m2(float(s)) for s in spines])
    told = pass_bow(setting, layout, stiff, radius_m, damping, step_s)
    clean = leaving(told, layout, setting.plate).clean_deg
    if clean is None:
        raise ValueError("no clean direction is known for this side plate")
    return match(spines, clean, guess)


def match_of(rig: Rig, bow: Drawn, string: String, arrow: Arrow, guess: float) -> Match:
    """The same for an arrow on a rig, quickly."""
    return matched(
        setting_of(rig, bow, string),
        layout_of(arrow),
        arrow.diameter_mm / 2000,
        DAMPING[arrow.material],
        guess,
    )
