"""B1, B2: a beam's known roots, tapers by hand and by quadrature, the diameters to copy."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import brentq

from lyrandis.core.arrow.beam import bending_frequencies
from lyrandis.core.arrow.build import build
from lyrandis.core.arrow.taper import diameters_mm, gauges, refuse_taper, taper, tapered_ends
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Arrow

ONES = np.ones(24)


def roots(**lumps):
    """βL of a uniform beam of unit length, stiffness and density."""
    return np.sqrt(bending_frequencies(1.0, ONES, ONES, **({"nock_kg": 0, "front_kg": 0} | lumps)))


def test_free_at_both_ends():
    assert roots()[:3] == pytest.approx([4.7300, 7.8532, 10.9956], abs=2e-3)


def test_a_tip_mass_of_half_the_beam():
    def zero(b):
        return (
            math.cos(b) * math.cosh(b)
            - 1
            + 0.5 * b * (math.cos(b) * math.sinh(b) - math.sin(b) * math.cosh(b))
        )

    assert roots(front_kg=0.5)[0] == pytest.approx(brentq(zero, 3.9, 4.6), abs=1e-4)
    assert roots(front_kg=0.5)[0] == pytest.approx(4.12814, abs=1e-4)


def test_held_at_the_nock():
    """Pinned and free: tan b = tanh b."""
    assert roots(nock_held=True)[0] == pytest.approx(
        brentq(lambda b: math.tan(b) - math.tanh(b), 3.7, 4.2), abs=1e-4
    )


WOOD = Arrow(material="wood", diameter_mm=8.73, grains_per_inch=11, static_spine=500)
LONG_TAPER = {"rear_taper_in": 10.0, "rear_end_mm": 7.1}


def wood(**changes):
    return WOOD.model_copy(update=changes)


def test_a_long_rear_taper_hardly_shows_on_the_jig():
    """10 in from 8.73 to 7.1 mm: 2 to 4 % by where the span sits."""
    for length in (29.0, 30.0, 31.0, 32.0):
        told = taper(wood(shaft_length_in=length, **LONG_TAPER))
        assert 1.015 < told.measured_share < 1.04
        assert told.acts_share > told.measured_share  # the bow takes it by its end


def test_mass_and_balance_by_hand():
    """A cone's frustum: ∫ d² = l (a² + a b + b²)/3."""
    arrow = wood(shaft_length_in=30.0, **LONG_TAPER)
    a, b = 7.1 / 8.73, 1.0
    share = (10 * (a * a + a * b + b * b) / 3 + 20) / 30
    told = taper(arrow)
    assert told.mass_share == pytest.approx(share, rel=1e-12)
    first = quad(lambda x: x * (a + (b - a) * x / 10) ** 2, 0, 10)[0] + (30**2 - 10**2) / 2
    assert told.centre_in == pytest.approx(first / (share * 30), rel=1e-10)
    built = build(arrow)
    shaft = next(p for p in built.parts if p.name == "shaft")
    assert shaft.mass_gr == pytest.approx(share * 330)
    assert built.balance_in > build(wood(shaft_length_in=30.0)).balance_in


def test_the_jig_by_quadrature():
    arrow = wood(
        shaft_length_in=31.0, rear_taper_in=8.0, rear_end_mm=7.4, front_taper_in=5.0,
        front_end_mm=7.9,
    )  # fmt: skip
    first, last = 1.5, 29.5

    def bends(x):
        arm = min(x - first, last - x) / 2
        return arm**2 * (8.73 / float(diameters_mm(arrow, np.array([x]))[0])) ** 4

    bent = quad(bends, first, last, points=[8.0, 15.5, 26.0], limit=200)[0]
    assert taper(arrow).measured_share == pytest.approx(bent / (28**3 / 48), rel=1e-9)


def test_no_taper_is_the_shaft_itself():
    for arrow in (WOOD, wood(rear_taper_in=8.0), Arrow(rear_taper_in=8.0, rear_end_mm=5.0)):
        assert tapered_ends(arrow) == []
        assert gauges(arrow, 5.0, 12.0) == []
        told = taper(arrow)
        assert (told.mass_share, told.measured_share, told.acts_share) == (1, 1, 1)
        assert build(arrow).spine_28in == build(arrow).acts_spine == arrow.static_spine


@given(
    st.floats(0, 11), st.floats(0, 11), st.floats(6.0, 8.73), st.floats(6.0, 8.73),
    st.floats(0.1, 1.0),
)  # fmt: skip
def test_a_longer_taper_is_lighter_and_never_acts_stiffer(rear, front, rear_end, front_end, more):
    ends = {"rear_end_mm": rear_end, "front_end_mm": front_end, "shaft_length_in": 31.0}
    one = taper(wood(rear_taper_in=rear, front_taper_in=front, **ends))
    two = taper(wood(rear_taper_in=rear + more, front_taper_in=front, **ends))
    assert two.mass_share <= one.mass_share + 1e-12
    assert two.measured_share >= one.measured_share - 1e-12
    assert two.acts_share >= one.acts_share - 2e-3


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        (
            {
                "rear_taper_in": 16.0,
                "front_taper_in": 15.0,
                "rear_end_mm": 7.0,
                "front_end_mm": 7.0,
            },
            "arrow.rear_taper_in",
        ),
        ({"front_taper_in": 5.0, "front_end_mm": 9.5}, "arrow.front_end_mm"),
    ],
)
def test_no_such_taper(changes, field):
    with pytest.raises(RefusedError) as refused:
        refuse_taper(wood(shaft_length_in=30.0, **changes))
    assert refused.value.field == field
    assert refused.value.limit is not None


def test_the_gauge_keeps_a_set_within_its_tolerances():
    arrow = wood(shaft_length_in=30.0, **LONG_TAPER)
    table = gauges(arrow, 5.0, 12.0)
    assert [g.at_in for g in table] == list(range(11))
    assert [table[0].diameter_mm, table[-1].diameter_mm] == pytest.approx([7.1, 8.73])
    for end in (1, -1):  # a shaft all at one edge, against one at the other
        thick = 1 + end * table[-1].tolerance_mm / 8.73
        assert abs(330 * (thick**2 - 1)) <= 2.5 * 1.01
        assert abs(500 * (thick**-4 - 1)) <= 6.0 * 1.01
    assert all(g.tolerance_mm > 0 for g in table)


def test_the_gauges_tolerance_by_hand():
    """A shaft of 8 gr/in and 30 in weighs 240 gr: 6 gr of it are 1/40, so 1/160 of the diameter."""
    arrow = wood(grains_per_inch=8.0, shaft_length_in=30.0, rear_taper_in=8.0, rear_end_mm=7.0)
    for g in gauges(arrow, 6.0, 1e6):
        assert g.tolerance_mm == pytest.approx(g.diameter_mm / 160, abs=1e-3)
    for g in gauges(arrow, 1e6, arrow.static_spine / 10):
        assert g.tolerance_mm == pytest.approx(g.diameter_mm / 80, abs=1e-3)
