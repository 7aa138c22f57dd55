"""Crawls against a full integration and the worked example (docs/mechanics C1)."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from lyrandis.core.aim.crawls import (
    Unshot,
    crawl_chart,
    crawl_plus_minus_mm,
    danger_space_m,
    farthest_m,
    rule_off_cm,
)
from lyrandis.core.errors import RefusedError
from lyrandis.core.flight.trajectory import (
    AimedArrow,
    crawl_for_mm,
    impact_m,
    point_on_m,
    shaft_angle,
)
from lyrandis.core.units import G_STANDARD

CHIN = AimedArrow(speed_mps=50, eye_mm=110, nock_to_tip_m=0.76)
CHEEK = replace(CHIN, eye_mm=70)
TENS = np.arange(5, 51, 5.0)


def integrated_m(sight, crawl, distance):
    """Height over the sight line by Runge–Kutta on the full equations."""
    beta = math.radians(sight.slope_deg)
    alpha = float(shaft_angle(sight, crawl))
    v = sight.speed_mps * (1 - sight.speed_loss_per_mm * max(crawl, 0))
    start = (sight.nock_to_tip_m * 0 + sight.nock_to_tip_m + sight.stroke_m * math.cos(alpha),
             sight.stroke_m * math.sin(alpha))  # fmt: skip

    def rate(_, s):
        speed = math.hypot(s[2], s[3])
        return [s[2], s[3],
                -sight.drag_per_m * speed * s[2] - G_STANDARD * math.sin(beta),
                -sight.drag_per_m * speed * s[3] - G_STANDARD * math.cos(beta)]  # fmt: skip

    def arrived(_, s):
        return s[0] - distance

    arrived.terminal = True
    flown = solve_ivp(rate, (0, 9), [*start, v * math.cos(alpha), v * math.sin(alpha)],
                      events=arrived, rtol=1e-10, atol=1e-10)  # fmt: skip
    return float(flown.y_events[0][0][1])


def test_the_worked_example_under_the_chin():
    crawls = crawl_for_mm(CHIN, TENS)
    assert point_on_m(CHIN) == pytest.approx(68.3, abs=0.1)
    np.testing.assert_allclose(crawls, [113, 103, 93, 83, 74, 65, 56, 47, 39, 30], atol=0.7)


def test_the_worked_example_at_the_cheek():
    assert point_on_m(CHEEK) == pytest.approx(45.8, abs=0.1)
    crawls = crawl_for_mm(CHEEK, TENS[:9])
    np.testing.assert_allclose(crawls, [70, 61, 52, 43, 34, 26, 18, 9, 1], atol=0.7)
    row = crawl_chart(CHEEK, TENS).rows[-1]
    assert row.crawl_mm is None
    assert row.hold_over_cm == pytest.approx(46.5, abs=1)


@pytest.mark.parametrize("slope", [0, -30, -15, 15, 30])
def test_against_a_full_integration(slope):
    sight = replace(CHIN, slope_deg=slope)
    for distance in (10, 25, 50):
        crawl = float(crawl_for_mm(sight, np.array([float(distance)]))[0])
        off = float(impact_m(sight, crawl, distance)) - integrated_m(sight, crawl, distance)
        assert abs(off) < 0.005


@pytest.mark.parametrize(("slope", "slow_cm", "fast_cm"), [(0, 0.4, 0.1), (30, 0.5, 0.2)])
def test_the_bounds_to_fifty_metres_as_they_are_stated(slope, slow_cm, fast_cm):
    rng = np.random.default_rng(6)
    for low, high, most in ((35, 50, slow_cm), (50, 75, fast_cm)):
        off = []
        for _ in range(40):
            sight = AimedArrow(rng.uniform(low, high), rng.uniform(60, 130), rng.uniform(0.65, 0.85),
                               drag_per_m=rng.uniform(0.001, 0.003),
                               slope_deg=float(rng.choice([-slope, slope])))  # fmt: skip
            d = rng.uniform(5, 50)
            crawl = float(crawl_for_mm(sight, np.array([d]))[0])
            off.append(abs(float(impact_m(sight, crawl, d)) - integrated_m(sight, crawl, d)))
        assert max(off) * 100 <= most


def test_no_chart_is_made_where_flat_fire_does_not_hold():
    """To its end the model stays within 8 cm on the level; beyond it there is no number."""
    slow = replace(CHIN, speed_mps=36)
    assert farthest_m(slow) == 50
    assert 85 < farthest_m(CHIN) < 95
    assert farthest_m(replace(CHIN, slope_deg=30)) == 50
    for sight in (CHIN, replace(CHIN, speed_mps=42), replace(CHIN, speed_mps=58)):
        end = farthest_m(sight)
        crawl = float(crawl_for_mm(sight, np.array([end]))[0])
        assert abs(float(impact_m(sight, crawl, end)) - integrated_m(sight, crawl, end)) < 0.08
        with pytest.raises(RefusedError, match="outside what the flight model covers"):
            crawl_chart(sight, np.array([end + 1]))


def test_in_a_vacuum_the_trajectory_is_the_parabola():
    sight = replace(CHIN, drag_per_m=0.0)
    alpha = float(shaft_angle(sight, 40))
    v = 50 * (1 - 0.04)
    flown = (30 - 0.76) / math.cos(alpha) - 0.5
    exact = (0.5 + flown) * math.sin(alpha) - G_STANDARD * flown**2 / (2 * v**2)
    assert float(impact_m(sight, 40, 30)) == pytest.approx(exact, abs=1e-12)


@settings(max_examples=60, deadline=None)
@given(st.floats(35, 75), st.floats(50, 140), st.floats(0.6, 0.85), st.floats(-30, 30))
def test_the_crawl_brings_the_arrow_to_the_mark(speed, eye, length, slope):
    sight = AimedArrow(speed, eye, length, slope_deg=slope)
    d = np.array([8.0, 20.0, 35.0])
    np.testing.assert_allclose(impact_m(sight, crawl_for_mm(sight, d), d), 0, atol=1e-8)
    assert (np.diff(crawl_for_mm(sight, np.arange(8, 50, 3.0))) < 0).all()


def test_twenty_metre_crawl_elsewhere():
    crawl = crawl_for_mm(CHIN, np.array([20.0]))
    near, far = impact_m(CHIN, crawl, np.array([10.0, 30.0]))
    assert near == pytest.approx(0.22, abs=0.01)
    assert far == pytest.approx(-0.72, abs=0.01)


def test_danger_space():
    d = np.array([20.0, 30.0])
    near, far = danger_space_m(CHIN, crawl_for_mm(CHIN, d), d, 0.05)
    np.testing.assert_allclose(near - d, [-1.1, -0.7], atol=0.06)
    np.testing.assert_allclose(far - d, [1.0, 0.7], atol=0.06)
    crawls = crawl_for_mm(CHIN, d)
    np.testing.assert_allclose(np.abs(impact_m(CHIN, crawls, far)), 0.05, atol=1e-6)


@pytest.mark.parametrize("slope", [-20, 10, 30])
def test_the_rule_to_remember_is_off_by_what_it_says(slope):
    """Against the full integration: the level distance's crawl, shot on the slope."""
    sight = replace(CHIN, slope_deg=slope)
    level = crawl_chart(sight, np.array([40.0])).rows[0].level_distance_m
    crawl = float(crawl_for_mm(CHIN, np.array([level]))[0])
    told = rule_off_cm(sight, 40.0, level)
    assert told == pytest.approx(100 * integrated_m(sight, crawl, 40.0), abs=0.5)
    assert abs(told) < 25


def test_a_slope_of_a_hair_is_the_level():
    for distance in (10.0, 30.0, 50.0):
        flat, hair = (
            float(impact_m(replace(CHIN, slope_deg=s), 40.0, distance)) for s in (0, 1e-6)
        )
        assert hair == pytest.approx(flat, abs=0.004)


def test_equal_level_distance_on_a_slope():
    """The rule R cos β (1 + α tan β): its level crawl is the slope's, horizontal distance is not."""
    for slope in (-25, 25):
        row = crawl_chart(replace(CHIN, slope_deg=slope), np.array([40.0])).rows[0]
        by_rule = float(crawl_for_mm(CHIN, np.array([row.level_distance_m]))[0])
        by_horizontal = float(crawl_for_mm(CHIN, np.array([40 * math.cos(math.radians(slope))]))[0])
        assert abs(by_rule - row.crawl_mm) < 1.5
        assert abs(by_rule - row.crawl_mm) < abs(by_horizontal - row.crawl_mm)


def test_tab_marks_and_fingers():
    chart = crawl_chart(CHIN, TENS, stitch_pitch_mm=3, finger_width_mm=18)
    for row in chart.rows:
        assert row.stitches == pytest.approx(row.crawl_mm / 3)
        assert row.fingers == pytest.approx(row.crawl_mm / 18)
    rule = chart.finger_rule
    assert rule.at_20m_fingers == pytest.approx(chart.rows[3].fingers)
    assert rule.errors_cm[3] == pytest.approx(0, abs=1e-9)
    # What the two numbers miss by is what shooting them would show.
    crawl = (rule.at_20m_fingers + rule.per_10m_fingers * 1) * 18
    assert rule.errors_cm[5] == pytest.approx(float(impact_m(CHIN, crawl, 30)) * 100)


def test_a_weaker_bow_has_a_smaller_gap_and_a_larger_step():
    strong, weak = (
        crawl_chart(replace(CHIN, speed_mps=v), TENS, finger_width_mm=18).finger_rule
        for v in (55, 45)
    )
    assert weak.at_20m_fingers < strong.at_20m_fingers
    assert -weak.per_10m_fingers > -strong.per_10m_fingers


def test_uncertainty_of_a_crawl_is_its_change():
    plain = replace(CHIN, speed_loss_per_mm=0.0)
    eye_alone = Unshot(0.0, eye_mm=10.0, speed_loss_per_mm=0, q=0, kick_mrad=0)
    pm = crawl_plus_minus_mm(plain, TENS, eye_alone)
    # Only the eye unsure: the crawl must take up what the eye moves, over q.
    np.testing.assert_allclose(pm, 10 / 0.92, rtol=0.02)
    assert (crawl_plus_minus_mm(plain, TENS, replace(eye_alone, speed_mps=3.0)) > pm).all()


@pytest.mark.parametrize(
    ("sight", "distances", "field"),
    [
        (CHIN, [], "aim.distances_m"),
        (CHIN, np.linspace(5, 60, 1_000_000), "aim.distances_m"),
        (CHIN, [0.5], "aim.distances_m"),
        (CHIN, [500.0], "aim.distances_m"),
        (replace(CHIN, eye_mm=200), [5.0], "archer.eye_above_nock_mm"),
    ],
)
def test_absurd_charts_are_refused(sight, distances, field):
    with pytest.raises(RefusedError) as caught:
        crawl_chart(sight, np.asarray(distances, dtype=float))
    assert caught.value.field == field


def test_a_flat_shooting_rig_has_no_point_on_within_reach():
    assert point_on_m(replace(CHIN, speed_mps=118, drag_per_m=0, eye_mm=240)) is None


def test_what_a_chart_takes_where_nothing_is_said():
    aimed, at = (
        CHIN,
        np.array([20.0, 30.0]),
    )
    assert crawl_chart(aimed, at) == crawl_chart(aimed, at, spot_half_height_cm=5.0)
    assert crawl_chart(aimed, at) != crawl_chart(aimed, at, spot_half_height_cm=5.5)
