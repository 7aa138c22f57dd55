"""Static spine: two standards, one beam (docs/mechanics B2)."""

from __future__ import annotations

import re

from lyrandis.core.units import M_PER_IN, N_PER_LBF, parse

_POUNDS = re.compile(r"(#|lbs?|pounds)\s*$")
SPAN_28_M, LOAD_28_N = 28 * M_PER_IN, 1.94 * N_PER_LBF
SPAN_26_M, LOAD_26_N = 26 * M_PER_IN, 2.0 * N_PER_LBF


def stiffness_n_m2(spine_28in: float) -> float:
    """Bending stiffness EI [N·m²] from the 28 in number [0.001 in]: EI = P S³ / (48 δ).

    >>> round(stiffness_n_m2(500.0), 2)
    5.09
    """
    return LOAD_28_N * SPAN_28_M**3 / (48 * spine_28in * 0.001 * M_PER_IN)


def spine_28in(stiffness: float) -> float:
    """The 28 in number [0.001 in] from EI [N·m²]."""
    return LOAD_28_N * SPAN_28_M**3 / (48 * stiffness) / (0.001 * M_PER_IN)


def pounds_26in(spine_28: float) -> float:
    """The 26 in standard's pounds from the 28 in number: 26 / deflection [in] under 2 lb.

    >>> round(pounds_26in(500.0), 1)
    63.0
    """
    deflection = LOAD_26_N * SPAN_26_M**3 / (48 * stiffness_n_m2(spine_28)) / M_PER_IN
    return 26 / deflection


def parse_spine(text: str, unit: str | None = None) -> float:
    """A static spine as it is typed: the 28 in number, or pounds by the 26 in standard ("45#").

    Returns
    -------
    The 28 in number [0.001 in].

    Raises
    ------
    RefusedError : nothing or something unreadable was typed.

    >>> parse_spine("600"), round(parse_spine("45#"))
    (600.0, 700)
    """
    if _POUNDS.search(text.lower()):
        pounds = parse(text, "weight", "lb")
        if pounds > 0:
            return spine_from_pounds(pounds)
    return parse(text, "spine", unit)


def spine_from_pounds(pounds: float) -> float:
    """The 28 in number [0.001 in] from the 26 in standard's pounds."""
    return pounds_26in(1.0) / pounds
