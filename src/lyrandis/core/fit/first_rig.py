"""A first rig from the little a newcomer knows: each form's ordinary starts, in one place.

Source: practice (shelf bows are shot off leather and anchored at the cheek; takedowns with a
plunger; static tips from the thumb) and docs/mechanics C1 for the eye's height by anchor.
"""

from __future__ import annotations

import math
from typing import Any

from lyrandis.core.bow.form import FORMS
from lyrandis.core.fields import changed
from lyrandis.core.rig import Anchor, Form, Hand, Release, Rig

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

    The shaft is the next half inch at least 1 1/2 in beyond the draw. Anchor and eye follow the
    release: three under anchors under the chin, others at the cheek.

    Raises
    ------
    RefusedError : a value out of its range, named by its path in the rig.
    """
    anchor: Anchor = "under_chin" if release == "three_under" else "cheek"
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
    return changed(rig, {"arrow.shaft_length_in": shaft})
