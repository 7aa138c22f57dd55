"""The four forms of bow as the one-angle model describes them.

Source: own calibration by hand to what is widely known of such bows, docs/mechanics A2.
Every number marked there with a star is replaced by the archer's own measurements when they exist.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import say
from lyrandis.core.parts import Bow, BraceReference, StringMaterial
from lyrandis.core.units import M_PER_IN

TRADE_OFFSET_IN = 1.75  # trade draw = string to pivot + 1 3/4 in


@dataclass(frozen=True)
class FormShape:
    """Shape constants of a form; lengths in inches, angles in degrees, shares of the limb L."""

    title: str
    reference_length_in: float
    root_x_in: float
    root_tilt_deg: float
    rest_angle_deg: float
    arc_share: float
    arc_turn_deg: float
    lever_share: float
    riser_in: float
    brace_in: float
    usual_brace_in: tuple[float, float]  # practice's range for such bows


FORMS: dict[str, FormShape] = {
    "longbow": FormShape("Longbow", 66, -0.75, 0, -8, 0, 0, 0, 13, 7.0, (6.0, 7.5)),
    "hybrid": FormShape("Reflex–deflex", 62, -0.40, 9, -32, 0.22, 16, 0, 15.5, 7.25, (7.0, 7.75)),
    "recurve": FormShape("Recurve", 68, 1.0, 18, -36, 0.29, 55, 0, 25, 8.5, (7.5, 8.5)),
    "static_tip": FormShape("Static-tip", 54, -0.5, 5, -24, 0.10, 50, 0.24, 10, 7.0, (5.5, 7.5)),
}
_LONG_RECURVE_BRACE_IN = (8.25, 9.5)
_LONG_RECURVE_FROM_IN = 66.0
_BRACE_PER_IN = 0.04
BACK_IN_FRONT_IN = 1.75
_LEAST_LIMB_SHARE = 0.25  # of the bow's length, on either side of the riser

# Stiffness E·A of the complete bundle [N]; natural fibre lies between (own assumption).
BUNDLE_STIFFNESS_N: dict[StringMaterial, float] = {
    "low_stretch": 40e3,
    "polyester": 14e3,
    "natural": 25e3,
}


def default_riser_in(bow: Bow) -> float:
    """Usual length [in] of the part that does not bend, for this form and bow length."""
    shape = FORMS[bow.form]
    return shape.riser_in * bow.length_in / shape.reference_length_in


def riser_in(bow: Bow) -> float:
    """The riser's length [in]: the one given, or the form's usual."""
    return default_riser_in(bow) if bow.riser_in is None else bow.riser_in


def default_brace_in(bow: Bow) -> float:
    """Usual brace height [in, to the pivot] for this form and bow length."""
    shape = FORMS[bow.form]
    return shape.brace_in + _BRACE_PER_IN * (bow.length_in - shape.reference_length_in)


def reference_offset_in(bow: Bow, reference: BraceReference) -> float:
    """How far [in] a brace reference lies in front of the pivot.

    The offset that the bow states belongs to its own reference; the back else stands 1 3/4 in
    in front of the pivot.

    Raises
    ------
    RefusedError : a plunger of which nobody said where it is.
    """
    if reference == "grip":
        return 0.0
    if reference == bow.brace_reference and bow.brace_offset_in is not None:
        return bow.brace_offset_in
    if reference == "plunger":
        raise RefusedError(
            "bow.brace_offset_in",
            "Say how far the plunger lies in front of the deepest part of the grip "
            "(0 if level with it): without it a brace height to the plunger means nothing.",
            unit="in",
        )
    return BACK_IN_FRONT_IN


def brace_reference_offset_in(bow: Bow) -> float:
    """How far [in] the bow's own brace reference lies in front of the pivot; see above."""
    return reference_offset_in(bow, bow.brace_reference)


def own_brace_in(bow: Bow, brace_in: float, reference: BraceReference) -> float:
    """A brace height [in] measured to any reference, as measured to the bow's own.

    Raises
    ------
    RefusedError : one of the two references is not known on this bow.
    """
    return brace_in - reference_offset_in(bow, reference) + brace_reference_offset_in(bow)


def brace_to_pivot_in(bow: Bow) -> float:
    """Brace height [in] to the deepest part of the grip, whatever it was measured to.

    >>> brace_to_pivot_in(Bow(brace_height_in=10.25, brace_reference="back"))
    8.5
    """
    if bow.brace_height_in is None:
        return default_brace_in(bow)
    return bow.brace_height_in - brace_reference_offset_in(bow)


def brace_range_in(bow: Bow) -> tuple[float, float, str]:
    """Lowest and highest ordinary brace height [in, to the pivot] and whose word that is."""
    shape = FORMS[bow.form]
    low, high = shape.usual_brace_in
    if bow.form == "recurve" and bow.length_in >= _LONG_RECURVE_FROM_IN:
        low, high = _LONG_RECURVE_BRACE_IN
    if bow.maker_brace_low_in is None and bow.maker_brace_high_in is None:
        return low, high, "practice"
    offset = brace_reference_offset_in(bow)
    maker_low, maker_high = bow.maker_brace_low_in, bow.maker_brace_high_in
    low = low if maker_low is None else maker_low - offset
    high = high if maker_high is None else maker_high - offset
    if low >= high:
        raise RefusedError(
            "bow.maker_brace_high_in",
            "The maker's highest brace height must lie above the lowest.",
            low + offset,
            "in",
        )
    return low, high, "maker"


@dataclass(frozen=True)
class Limb:
    """One limb in its mirrored frame, SI: origin at the pivot, x toward the archer.

    Root at (root_x, root_y) tilted by `tilt`; a working part of length `working` and uniform
    curvature, then an arc of length `arc` turning back by `turn`, then a straight lever.
    """

    root_x: float
    root_y: float
    tilt: float
    rest: float
    working: float
    arc: float
    turn: float
    lever: float


def limb_of(bow: Bow) -> Limb:
    """The limb [m, rad] of a bow.

    Raises
    ------
    RefusedError : the riser leaves no limb that could bend.
    """
    shape = FORMS[bow.form]
    riser = riser_in(bow)
    usual = default_riser_in(bow)
    length = (bow.length_in - riser) / 2 * M_PER_IN
    if length < _LEAST_LIMB_SHARE * bow.length_in * M_PER_IN:
        raise RefusedError(
            "bow.riser_in",
            say(
                "A riser of {riser} leaves too little limb on a bow of {length}; usual is about "
                "{usual}.",
                riser=("bow_length", riser),
                length=("bow_length", bow.length_in),
                usual=("bow_length", usual),
            ),
            round((1 - 2 * _LEAST_LIMB_SHARE) * bow.length_in, 2),
            "in",
        )
    return Limb(
        root_x=shape.root_x_in * M_PER_IN,
        root_y=riser / 2 * M_PER_IN,
        tilt=math.radians(shape.root_tilt_deg),
        rest=math.radians(shape.rest_angle_deg),
        working=length * (1 - shape.arc_share - shape.lever_share),
        arc=length * shape.arc_share,
        turn=math.radians(shape.arc_turn_deg),
        lever=length * shape.lever_share,
    )
