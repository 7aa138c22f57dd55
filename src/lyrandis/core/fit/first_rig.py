"""A first rig from the little a newcomer knows: each form's ordinary starts, in one place.

Source: practice (shelf bows are shot off leather and anchored at the cheek; takedowns with a
plunger; static tips from the thumb) and docs/mechanics C1 for the eye's height by anchor.
"""

from __future__ import annotations

import math
from typing import Any

from lyrandis.core.arrow.build import PARTS_SD_SHARE, build
from lyrandis.core.arrow.shot import arrow_floor, weight_at_28in, weight_at_draw
from lyrandis.core.bow.curve import force_draw, refuse_past_end
from lyrandis.core.bow.form import FORMS
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.flex.of_rig import Drawn, averaged_of
from lyrandis.core.flex.window import spine_window, stiff_enough_spine
from lyrandis.core.parts import Anchor, Form, Hand, Release, Rig

EYE_ABOVE_NOCK_MM: dict[Anchor, float] = {"under_chin": 112, "cheek": 72}
RELEASE: dict[Form, Release] = {
    "recurve": "three_under",
    "hybrid": "split",
    "longbow": "split",
    "static_tip": "thumb",
}
ARROW_BEYOND_DRAW_IN = 1.5
_SHAFT_STEP_IN = 0.5
_TAKEDOWN_CUT_MM, _STATIC_TIP_CUT_MM = 1.0, -6.0
_MOST_FIRST_GPI = 17.0  # heavier shafts are rare
_SPINE_STEP = 10
_WEAKEST_SPINE = 2000  # weaker shafts are not made


def form_start(form: Form) -> dict[str, Any]:
    """Settings (dotted path to value) with which a form of bow begins; brace and riser its own."""
    takedown = form == "recurve"
    return {
        "bow.form": form,
        "bow.takedown": takedown,
        "bow.length_in": FORMS[form].reference_length_in,
        "bow.riser_in": None,
        "bow.brace_height_in": None,
        "bow.tips": "short" if form == "static_tip" else "working",
        "bow.side_plate": "plunger" if takedown else "leather",
        "bow.centre_cut_mm": _TAKEDOWN_CUT_MM
        if takedown
        else _STATIC_TIP_CUT_MM
        if form == "static_tip"
        else 0,
    }


def first_rig(
    form: Form,
    length_in: float,
    marked_weight_lbf: float,
    draw_length_in: float,
    hand: Hand,
    release: Release,
    name: str,
    archer: str = "",
) -> Rig:
    """A rig with every other setting at its ordinary start.

    The shaft is the next half inch at least 1 1/2 in beyond the draw. Without a sight the usual
    anchor is at the cheek, three under as well.

    Raises
    ------
    RefusedError : a value out of its range, named by its path in the rig.
    """
    anchor: Anchor = "cheek"
    typed = {
        "name": name,
        "archer.name": archer,
        "archer.draw_length_in": draw_length_in,
        "archer.hand": hand,
        "archer.release": release,
        "archer.anchor": anchor,
        "archer.eye_above_nock_mm": EYE_ABOVE_NOCK_MM[anchor],
        "bow.length_in": length_in,
        "bow.marked_weight_lbf": marked_weight_lbf,
    }
    rig = changed(Rig(), form_start(form) | typed)
    shaft = math.ceil((draw_length_in + ARROW_BEYOND_DRAW_IN) / _SHAFT_STEP_IN) * _SHAFT_STEP_IN
    return with_first_arrow(changed(rig, {"arrow.shaft_length_in": shaft}))


def with_first_arrow(rig: Rig) -> Rig:
    """A rig with an arrow to begin with: surely over every floor, and of a spine that suits.

    A bow that cannot be computed keeps the ordinary arrow.
    """
    bow, arrow = rig.bow, rig.arrow
    try:
        curve = force_draw(bow, rig.string.material)
        draw = true_draw_in(rig.archer, bow, rig.string.material)
        refuse_past_end(curve, draw.value, bow.length_in)
    except RefusedError:
        return rig
    weight = weight_at_draw(curve, draw)
    heavy = weight.value + weight.plus_minus
    floor = arrow_floor(bow, 0.0, stacks=False, stiff_enough=False)
    grains = max(floor.energy_gpp, floor.form_gpp) * heavy / (1 - PARTS_SD_SHARE)
    short = max(0.0, grains - build(arrow).mass_gr)
    gpi = math.ceil((arrow.grains_per_inch + short / arrow.shaft_length_in) * 10) / 10
    rig = changed(rig, {"arrow.grains_per_inch": min(gpi, _MOST_FIRST_GPI)})
    there = weight_at_28in(curve)
    drawn = Drawn(curve, draw.value, weight.value)
    window = spine_window(
        rig.archer, rig.bow, rig.string, rig.arrow, there, weight, draw.plus_minus,
        lambda guess: averaged_of(rig, drawn, rig.arrow, guess),
    )  # fmt: skip
    if window.spine_28in is None:
        spine = math.floor(stiff_enough_spine(weight.value) / _SPINE_STEP) * _SPINE_STEP
    else:
        spine = round(window.spine_28in.value / _SPINE_STEP) * _SPINE_STEP
    return changed(rig, {"arrow.static_spine": min(spine, _WEAKEST_SPINE)})
