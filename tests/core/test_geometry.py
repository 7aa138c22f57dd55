"""The limb's shape and the string's path, against integration, differences and plain geometry."""

import numpy as np
import pytest
from scipy.integrate import quad

from lyrandis.core.bow.drawing import limb_line, pose
from lyrandis.core.bow.form import FORMS, Limb, limb_of
from lyrandis.core.bow.geometry import (
    contact,
    contact_at,
    end_of_working_part,
    t_at_brace,
    tip_point,
)
from lyrandis.core.bow.statics import solve
from lyrandis.core.parts import Bow

LIMBS = {form: limb_of(Bow(form=form, length_in=FORMS[form].reference_length_in)) for form in FORMS}
BENDS = np.array([-0.5, -0.2, -1e-5, 0.0, 1e-5, 3e-4, 0.3, 0.9, 1.4])


@pytest.fixture(params=LIMBS)
def limb(request) -> Limb:
    return LIMBS[request.param]


def walked(limb, phi):
    """The working part's end, by integrating its direction along its length."""
    x, _ = quad(lambda s: np.sin(limb.tilt + phi * s / limb.working), 0, limb.working)
    y, _ = quad(lambda s: np.cos(limb.tilt + phi * s / limb.working), 0, limb.working)
    return limb.root_x + x, limb.root_y + y


def test_the_working_part_ends_where_its_direction_leads(limb):
    x, y, *_ = end_of_working_part(limb, BENDS)
    for i, phi in enumerate(BENDS):
        assert (x[i], y[i]) == pytest.approx(walked(limb, phi), abs=1e-10)


def test_its_derivatives_are_its_differences(limb):
    phi = np.array([-0.5, -0.2, 0.0, 5e-5, 2e-4, 0.3, 0.9, 1.4])
    told = end_of_working_part(limb, phi)
    for i, p in enumerate(phi):
        around = [np.array(walked(limb, p + d)) for d in (-0.01, -1e-4, 0, 1e-4, 0.01)]
        first = (around[3] - around[1]) / 2e-4
        second = (around[4] - 2 * around[2] + around[0]) / 1e-4
        assert (told[2][i], told[3][i]) == pytest.approx(tuple(first), abs=2e-6)
        assert (told[4][i], told[5][i]) == pytest.approx(tuple(second), abs=3e-5)


def test_the_arc_is_walked_back_by_its_turn(limb):
    if not limb.arc:
        return
    phi = np.array([0.6])
    for t in (0.0, 0.3, 1.0):
        x, y = tip_point(limb, phi, np.array([t]))
        wanted = [
            quad(lambda s, f=f: f(limb.tilt + 0.6 - limb.turn * s / limb.arc), 0, t * limb.arc)[0]
            for f in (np.sin, np.cos)
        ]
        assert (float(x[0]), float(y[0])) == pytest.approx(wanted, abs=1e-10)


def test_the_string_leaves_the_arc_as_its_tangent(limb):
    phi, nock = np.linspace(0.0, 1.3, 14), np.linspace(0.18, 0.6, 14)
    c = contact(limb, phi, nock)
    inside = (c.t > 0) & (c.t < 1)
    chi = limb.tilt + phi - limb.turn * c.t
    ux, uy = c.direction
    # The belly's direction at P and the string's are one line.
    assert (np.cos(chi) * ux - np.sin(chi) * uy)[inside] == pytest.approx(0, abs=1e-9)
    assert np.hypot(ux, uy) == pytest.approx(1)
    assert inside.any() == (limb.turn > 0.5)  # a small arc has lifted off by then


def test_the_path_is_free_string_and_what_lies_on_the_belly(limb):
    for t in (0.25, 1.0) if limb.arc else (1.0,):
        phi, nock = np.array([0.7]), np.array([0.45])
        c = contact_at(limb, phi, nock, np.array([t]))
        ex, ey, *_ = end_of_working_part(limb, phi)
        dx, dy = tip_point(limb, phi, np.array([t]))
        chi = limb.tilt + 0.7 - limb.turn * t
        lever = limb.lever if t == 1 else 0.0
        px = float((ex + dx)[0]) + lever * np.sin(chi)
        py = float((ey + dy)[0]) + lever * np.cos(chi)
        lying = 0.0 if t == 1 else 0.75 * limb.arc + limb.lever
        assert float(c.length[0]) == pytest.approx(np.hypot(px - 0.45, py) + lying)
        assert float(c.direction[0][0]) == pytest.approx((px - 0.45) / np.hypot(px - 0.45, py))


@pytest.mark.parametrize("t", [None, 0.4, 1.0])
def test_the_paths_derivatives_are_its_differences(limb, t):
    """With the contact free (a tangent slides without changing the length) or held at t."""
    h = 1e-5
    phi, nock = np.array([0.5, 0.8, 1.1]), np.array([0.3, 0.42, 0.55])

    def path(p, x):
        return contact(limb, p, x) if t is None else contact_at(limb, p, x, np.full_like(p, t))

    here = path(phi, nock)
    before, after = path(phi - h, nock), path(phi + h, nock)
    assert here.length_phi == pytest.approx((after.length - before.length) / (2 * h), abs=1e-7)
    by_x = (path(phi, nock + h).length - path(phi, nock - h).length) / (2 * h)
    assert here.length_x == pytest.approx(by_x, abs=1e-7)
    if t is not None:
        second = (after.length_phi - before.length_phi) / (2 * h)
        assert here.length_phi2 == pytest.approx(second, abs=1e-6)


def test_a_braced_string_stands_upright_where_it_leaves(limb):
    if not limb.arc:
        assert t_at_brace(limb, np.array([0.7])) == pytest.approx(1.0)
        return
    phi = limb.turn * 0.5 - limb.tilt
    assert t_at_brace(limb, np.array([phi])) == pytest.approx(0.5)
    assert t_at_brace(limb, np.array([-5.0])) == pytest.approx(0.0)
    assert t_at_brace(limb, np.array([5.0])) == pytest.approx(1.0)


class TestDrawing:
    """The drawn line is the limb's own: its length, its ends, and the string on it."""

    def test_the_line_is_as_long_as_the_limb_and_ends_at_the_limb_nock(self, limb):
        for phi in (0.0, 0.4, 1.2):
            line, angle = limb_line(limb, phi)
            step = np.hypot(*np.diff(line, axis=0).T)
            whole = limb.working + limb.arc + limb.lever
            assert step.sum() == pytest.approx(whole, rel=3e-3)
            assert step.sum() < whole + 1e-9  # chords
            assert (line[0, 0], line[0, 1]) == pytest.approx((limb.root_x, limb.root_y))
            ways = np.arctan2(np.diff(line[:, 0]), np.diff(line[:, 1]))
            assert ways == pytest.approx((angle[1:] + angle[:-1]) / 2, abs=0.06)
            end = contact_at(limb, np.array([phi]), np.array([0.0]), np.array([1.0]))
            tip = [float(d[0] * end.length[0]) for d in end.direction]
            assert line[-1] == pytest.approx(tip, abs=1e-6)

    @pytest.mark.parametrize("form", FORMS)
    def test_the_string_drawn_is_the_string_computed(self, form):
        bow = Bow(form=form, length_in=FORMS[form].reference_length_in)
        solved = solve(bow)
        for draw in (None, 24.0, 28.0):
            drawn = pose(solved, draw)
            path = np.array(drawn.string)
            length = np.hypot(*np.diff(path, axis=0).T).sum() * 0.0254
            tension = solved.braced.tension
            if draw is not None:
                x = np.array([(draw - 1.75) * 0.0254])
                tension = float(solved.draw(x).tension[0])
            wanted = 2 * solved.braced.half_slack * (1 + tension / solved.bundle)
            assert length == pytest.approx(wanted, rel=2e-3)
            where = solved.brace_x / 0.0254 if draw is None else draw - 1.75
            assert drawn.arrow_nock == pytest.approx((where, 0), abs=6e-4)
            assert path[0] == pytest.approx([path[-1][0], -path[-1][1]])
            assert drawn.upper_nock == pytest.approx(tuple(path[0]))
            assert [(x, -y) for x, y in drawn.upper_limb] == drawn.lower_limb

    def test_the_limb_grows_thinner_from_root_to_tip(self):
        drawn = pose(solve(Bow(form="recurve")), 28.0)
        outline = np.array(drawn.upper_limb)
        n = len(outline) // 2
        thick = np.hypot(*(outline[:n] - outline[::-1][:n]).T)
        assert thick[0] == pytest.approx(0.62, abs=0.002)
        assert thick[-1] == pytest.approx(0.30, abs=0.002)
        assert (np.diff(thick) < 0.002).all()
        # The back lies in front of the belly, away from the archer.
        assert (outline[::-1][:n, 0] < outline[:n, 0] + 0.01)[: n // 2].all()
