"""The sight picture against plain geometry: two points in space and the angle between them."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.aim.sight import _SHARES, sight_picture
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.fit.draw_length import draw_lines
from lyrandis.core.flight.trajectory import AimedArrow
from lyrandis.core.parts import Archer, Bow, Rig

AIMED = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.75)


@given(st.floats(40, 140), st.floats(0, 60), st.floats(0.6, 0.9), st.floats(4, 12))
def test_the_shaft_is_seen_as_it_lies_in_space(eye, crawl, length, diameter):
    aimed = AimedArrow(speed_mps=50, eye_mm=eye, nock_to_tip_m=length)
    seen = sight_picture(aimed, diameter, 10, 20, crawl, None)
    height = (eye - aimed.q * crawl) / 1000
    to_tip = math.atan2(height, length)  # how far the eye looks down on the tip
    for share, (half, below) in zip(_SHARES, seen.shaft_mrad[1:], strict=True):
        down = math.atan2(height, share * length)
        away = math.hypot(height, share * length)
        # Small angles: within the square of the eye's height over the length.
        within = 2 * (height / (share * length)) ** 2
        assert below == pytest.approx(1000 * (down - to_tip), rel=within, abs=1e-9)
        assert half == pytest.approx(diameter / 2 / away, rel=within)
    assert seen.shaft_mrad[0] == (0.0, 0.0)


def test_what_lies_far_away_is_seen_by_its_angle():
    seen = sight_picture(AIMED, 6, 20, 40, None, 60)
    assert seen.spot_mrad == pytest.approx(1000 * math.atan(0.2 / 40), rel=1e-4)
    assert seen.over_mrad == pytest.approx(1000 * math.atan(0.6 / 40), rel=1e-3)
    assert seen.reach_mrad == 4 * seen.spot_mrad
    assert sight_picture(AIMED, 6, 5, 40, 10, None).reach_mrad == 12
    assert sight_picture(AIMED, 6, 5, 40, 10, None).over_mrad == 0


def test_a_crawl_brings_the_eye_nearer_to_the_shaft():
    near, far = (sight_picture(AIMED, 6, 10, 20, c, None).shaft_mrad for c in (60, 10))
    assert all(a[1] < b[1] for a, b in zip(near[1:], far[1:], strict=True))
    assert [a[0] for a in near] == [b[0] for b in far]


def test_every_distance_of_the_chart_has_its_picture():
    rig = changed(Rig(), {"aim.distances_m": [10, 30, 90], "archer.eye_above_nock_mm": 60})
    bench = Bench(rig)
    assert [s.distance_m for s in bench.aim.sights] == [10, 30, 90]
    beyond = bench.aim.chart.rows[2]
    assert beyond.crawl_mm is None
    assert bench.aim.sights[2].over_mrad == pytest.approx(beyond.hold_over_cm * 10 / 90)


@pytest.mark.parametrize(
    ("reference", "offset", "back", "to_back"),
    [("back", 2.25, -2.25, 28.5), ("back", None, -1.75, 28.0), ("grip", 2.25, -1.75, 28.0)],
)
def test_a_draw_lies_between_lines_that_can_be_drawn(reference, offset, back, to_back):
    lines = draw_lines(
        Archer(draw_length_in=28), Bow(brace_reference=reference, brace_offset_in=offset)
    )
    assert (lines.nock_x_in, lines.trade_x_in, lines.back_x_in) == (26.25, -1.75, back)
    assert (lines.to_pivot_in, lines.to_back_in) == (26.25, to_back)
