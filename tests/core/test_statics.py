"""Bow statics against its reference results and its closed answers (docs/mechanics A2, A6)."""

import numpy as np
import pytest
from energy import stored_energy_model_ftlb
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.bench import Bench
from lyrandis.core.bow.curve import (
    CurveTooShortError,
    force_draw,
    stack_onset,
    stack_onset_in,
)
from lyrandis.core.bow.form import FORMS, brace_to_pivot_in, default_brace_in
from lyrandis.core.bow.geometry import contact
from lyrandis.core.bow.statics import _LOOK_STEP_IN, rebraced, solve
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Archer, Bow, Rig
from lyrandis.core.stations import TELLERS
from lyrandis.core.string.twists import brace_per_string_slack
from lyrandis.core.units import M_PER_IN, N_PER_LBF


def bow(form, length, riser=None, weight=50, **more):
    return Bow(form=form, length_in=length, riser_in=riser, marked_weight_lbf=weight, **more)


def at(draw_in):
    return (np.atleast_1d(np.asarray(draw_in, dtype=float)) - 1.75) * M_PER_IN


@pytest.mark.parametrize(("length", "slope"), [(66, 2.62), (68, 2.47), (70, 2.34)])
def test_slope_at_28_of_recurves_on_a_25_in_riser(length, slope):
    force = solve(bow("recurve", length, 25), "low_stretch").draw(at([27.9, 28.1])).force
    assert (force[1] - force[0]) / N_PER_LBF / 0.2 == pytest.approx(slope, rel=0.01)


@pytest.mark.parametrize(
    ("form", "length", "angle"),
    [
        ("recurve", 58, 122),
        ("recurve", 62, 126),
        ("recurve", 66, 131),
        ("recurve", 68, 132),
        ("recurve", 70, 134),
        ("longbow", 60, 120),
        ("longbow", 66, 127),
        ("hybrid", 58, 120),
        ("hybrid", 62, 125),
        ("static_tip", 48, 103),
        ("static_tip", 54, 115),
        ("static_tip", 64, 128),
    ],
)
def test_string_angle_at_28(form, length, angle):
    drawn = solve(bow(form, length), "low_stretch").draw(at(28))
    assert float(np.degrees(drawn.angle[0])) == pytest.approx(angle, abs=1)


@pytest.mark.parametrize(
    ("form", "length", "onset"),
    [
        ("recurve", 58, 26.8),
        ("recurve", 62, 27.9),
        ("recurve", 66, 29.1),
        ("recurve", 68, 29.8),
        ("recurve", 70, 30.5),
        ("recurve", 72, 31.3),
        ("longbow", 60, 26.6),
        ("longbow", 66, 28.2),
        ("hybrid", 58, 27.1),
        ("hybrid", 62, 28.3),
        ("hybrid", 64, 29.0),
        ("static_tip", 48, 25.2),
        ("static_tip", 54, 27.0),
        ("static_tip", 64, 30.3),
    ],
)
def test_stack_onset(form, length, onset):
    assert stack_onset_in(bow(form, length), "low_stretch") == pytest.approx(onset, abs=0.1)


@pytest.mark.parametrize(
    ("form", "per_pound", "differential", "brace_per_string"),
    [
        ("longbow", 0.85, 0.53, -1.18),
        ("hybrid", 0.88, 0.23, -1.26),
        ("recurve", 0.87, 0.15, -1.13),
        ("static_tip", 0.91, 0.03, None),
    ],
)
def test_energy_and_stiffness_at_the_reference_lengths(
    form, per_pound, differential, brace_per_string
):
    b = bow(form, FORMS[form].reference_length_in)
    solved = solve(b, "low_stretch")
    assert force_draw(b, "low_stretch").energy_ftlb(28) / 50 == pytest.approx(per_pound, rel=0.01)
    assert solved.differential_stiffness() == pytest.approx(differential, abs=0.01)
    if brace_per_string is not None:
        assert solved.brace_per_string() == pytest.approx(brace_per_string, rel=0.01)


@pytest.mark.parametrize(
    ("form", "length", "end"),
    [
        ("recurve", 48, 29.1),
        ("recurve", 56, 32.8),
        ("recurve", 60, 34.7),
        ("longbow", 56, 32.4),
        ("hybrid", 50, 30.6),
    ],
)
def test_where_the_model_ends(form, length, end):
    assert force_draw(bow(form, length), "low_stretch").end_in == pytest.approx(end, abs=0.101)


def test_an_inch_less_brace_stores_seven_percent_more():
    low = bow("recurve", 68, brace_height_in=7.5)
    gain = force_draw(low).energy_ftlb(28) / force_draw(bow("recurve", 68)).energy_ftlb(28)
    assert gain == pytest.approx(1.07, abs=0.008)
    assert force_draw(low).force(28) == pytest.approx(50, abs=1e-3)


forms = st.sampled_from(list(FORMS))


@settings(max_examples=40, deadline=None)
@given(forms, st.floats(-4, 6), st.floats(15, 70), st.sampled_from(["low_stretch", "polyester"]))
def test_area_under_the_curve_is_the_stored_energy(form, longer, weight, material):
    b = bow(form, FORMS[form].reference_length_in + longer, weight=weight)
    curve = force_draw(b, material)
    draw = min(28.0, curve.end_in - 0.3)
    stored = stored_energy_model_ftlb(curve.statics, draw)
    assert curve.energy_ftlb(draw) == pytest.approx(stored, rel=2e-4)


@settings(max_examples=40, deadline=None)
@given(forms, st.floats(-4, 6), st.floats(10, 120))
def test_marked_weight_at_the_marked_draw_and_rising_to_the_end(form, longer, weight):
    b = bow(form, FORMS[form].reference_length_in + longer, weight=weight)
    curve = force_draw(b)
    assert float(solve(b).draw(at(28)).force[0]) / N_PER_LBF == pytest.approx(weight, rel=1e-8)
    assert (np.diff(curve.force_lbf) > 0).all()
    assert solve(b).differential_stiffness() > 0


@pytest.mark.parametrize("form", FORMS)
def test_weights_and_string_doubled_give_the_same_shape(form):
    """Similarity: forces double, bends stay (the string's E·A doubled with them)."""
    b = bow(form, FORMS[form].reference_length_in)
    one = solve(b)
    from lyrandis.core.bow.statics import _solve

    two = _solve(one.limb, 100, 28, 2 * one.bundle, brace_to_pivot_in(b))
    x = at(np.linspace(12, 29, 20))
    assert two is not None
    np.testing.assert_allclose(two.draw(x).phi, one.draw(x).phi, rtol=1e-8)
    np.testing.assert_allclose(two.draw(x).force, 2 * one.draw(x).force, rtol=1e-7)


@pytest.mark.parametrize("form", ["longbow", "hybrid", "recurve"])
def test_brace_per_string_against_solving_again(form):
    b = bow(form, FORMS[form].reference_length_in)
    brace = default_brace_in(b)
    low, high = solve(b, "polyester", brace - 0.02), solve(b, "polyester", brace + 0.02)
    change = 0.04 * M_PER_IN / (2 * (high.braced.half_string - low.braced.half_string))
    assert solve(b).brace_per_string() == pytest.approx(change, rel=1e-3)


@pytest.mark.parametrize("form", ["longbow", "hybrid", "recurve"])
def test_differential_stiffness_is_the_hessian_of_two_limbs_and_a_string(form):
    """Two limbs bent +d and −d with the string straight between their contact points."""
    b = bow(form, FORMS[form].reference_length_in)
    s = solve(b)
    k, phi = s.stiffness, s.braced.phi

    def half(bend, nock_x, nock_y):
        # A limb sees the arrow nock nock_y nearer to it: shift its root instead.
        import dataclasses

        limb = dataclasses.replace(s.limb, root_y=s.limb.root_y - nock_y)
        return float(contact(limb, np.array([bend]), np.array([nock_x])).length[0])

    def string(d):
        """Shortest path between the two bent limbs: the nock point finds its own place."""
        from scipy.optimize import minimize

        def total(nock):
            return half(phi + d, nock[0], nock[1]) + half(phi - d, nock[0], -nock[1])

        return float(minimize(total, [s.brace_x, 0.0], method="Nelder-Mead",
                              options={"xatol": 1e-10, "fatol": 1e-15, "maxiter": 4000}).fun)  # fmt: skip

    def energy(d):
        limbs = k / 2 * ((phi + d - s.limb.rest) ** 2 + (phi - d - s.limb.rest) ** 2)
        return limbs + s.braced.tension * string(d)

    d = 2e-3
    numeric = (energy(d) - 2 * energy(0) + energy(-d)) / d**2 / (2 * k)
    assert s.differential_stiffness() == pytest.approx(numeric, abs=0.01)


@settings(max_examples=15, deadline=None)
@given(forms, st.floats(-3, 4))
def test_a_longer_bow_never_stacks_sooner_nor_has_a_sharper_angle(form, longer):
    short = bow(form, FORMS[form].reference_length_in + longer)
    long = short.model_copy(update={"length_in": short.length_in + 2})
    a, b = stack_onset_in(short), stack_onset_in(long)
    assert a is not None
    assert b is None or b >= a
    assert force_draw(long).angle(26) >= force_draw(short).angle(26)


def test_stack_needs_18_to_24_in():
    draws = np.linspace(19, 30, 40)
    with pytest.raises(CurveTooShortError):
        stack_onset(draws, draws)
    straight = np.linspace(10, 32, 90)
    assert stack_onset(straight, 2 * straight - 10) is None


class TestMeasured:
    readings = ((14.0, 15.0), (20.0, 27.0), (24.0, 35.5), (28.0, 46.0))

    def test_passes_through_the_readings_and_rises(self):
        curve = force_draw(bow("recurve", 68, measured=self.readings))
        for draw, force in self.readings:
            assert curve.force(draw) == pytest.approx(force)
        assert (np.diff(curve.force_lbf) > 0).all()
        assert curve.unread_in(27.6) == 0
        assert curve.unread_in(26) != 0
        assert curve.unread_in(31) != 0

    def test_the_models_own_points_give_the_models_own_curve(self):
        plain = force_draw(bow("recurve", 68))
        two = tuple((d, plain.force(d)) for d in (20.0, 28.0))
        curve = force_draw(bow("recurve", 68, measured=two))
        for draw in (14.0, 22.0, 24.0, 26.0, 30.0):
            assert curve.force(draw) == pytest.approx(plain.force(draw), abs=0.02)

    @pytest.mark.parametrize(
        ("past", "lifts"),
        [
            ([33.0], False),
            ([32.5, 33.0], False),
            ([30.0, 31.0, 32.0, 33.0], True),
            ([30.0, 30.5, 31.0, 33.0], False),  # too far apart
        ],
    )
    def test_only_a_close_pull_lifts_the_geometrys_end(self, past, lifts):
        short = {"takedown": False, "marked_draw_in": 26.0}
        plain = force_draw(bow("recurve", 52, **short))
        assert plain.end_in < 33
        pull = tuple(
            (d, plain.force(min(d, 28.0)) + 3 * max(0, d - 28)) for d in [24.0, 28.0, *past]
        )
        read = force_draw(bow("recurve", 52, measured=pull, **short))
        assert (read.end_in == 33.0) == lifts
        if not lifts:
            assert read.end_in == pytest.approx(plain.end_in)
            assert read.end_reason == plain.end_reason
        alone = force_draw(bow("recurve", 52, measured=pull[-1:], **short))
        assert (alone.end_in, alone.measured_points) == (pytest.approx(plain.end_in), 0)

    def test_one_reading_scales_the_whole_curve(self):
        plain = force_draw(bow("recurve", 68))
        scaled = force_draw(bow("recurve", 68, measured=((28.0, 55.0),)))
        assert scaled.force(20) == pytest.approx(plain.force(20) * 1.1, rel=1e-3)
        assert scaled.force(30) == pytest.approx(plain.force(30) * 1.1, rel=1e-3)

    @pytest.mark.parametrize(
        "readings",
        [
            ((20.0, 30.0), (24.0, 30.0)),
            ((20.0, 30.0), (24.0, 25.0)),
            ((20.0, 30.0), (20.0, 31.0)),
            ((5.0, 3.0),),
            ((20.0, 0.0),),
        ],
    )
    def test_readings_that_do_not_rise_are_refused(self, readings):
        with pytest.raises(RefusedError) as caught:
            force_draw(bow("recurve", 68, measured=readings))
        assert caught.value.field == "bow.measured"


class TestRefusals:
    def test_a_marked_draw_past_the_end(self):
        with pytest.raises(RefusedError) as caught:
            force_draw(bow("recurve", 48, marked_draw_in=30))
        assert caught.value.field == "bow.marked_draw_in"
        assert caught.value.limit == pytest.approx(29.1, abs=0.2)

    def test_brace_above_the_draw(self):
        with pytest.raises(RefusedError) as caught:
            solve(
                bow("recurve", 68, brace_height_in=13, marked_draw_in=20, weight=30),
                "polyester",
                19,
            )
        assert caught.value.field == "bow.brace_height_in"

    def test_a_riser_without_a_braced_shape(self):
        with pytest.raises(RefusedError) as caught:
            force_draw(bow("recurve", 46, 30))
        assert "riser" in caught.value.field

    def test_a_plunger_reference_needs_its_offset(self):
        with pytest.raises(RefusedError) as caught:
            brace_to_pivot_in(bow("recurve", 68, brace_height_in=8.5, brace_reference="plunger"))
        assert caught.value.field == "bow.brace_offset_in"

    @pytest.mark.parametrize(("reference", "offset", "pivot"), [("back", None, 7.25), ("plunger", 0.5, 8.5), ("grip", 3, 9.0)])  # fmt: skip
    def test_brace_references_convert(self, reference, offset, pivot):
        b = bow("recurve", 68, brace_height_in=9, brace_reference=reference, brace_offset_in=offset)
        assert brace_to_pivot_in(b) == pytest.approx(pivot)


class TestLevers:
    """Static levers: what would not stay braced is refused, and up and down differ at the corner."""

    def lever(self, brace, riser=None):
        return Bow(form="static_tip", takedown=False, length_in=54, riser_in=riser,
                   marked_weight_lbf=40, brace_height_in=brace)  # fmt: skip

    def test_a_brace_at_which_one_limb_gives_way_is_refused_with_those_that_hold(self):
        with pytest.raises(RefusedError, match="would not stay braced evenly") as caught:
            solve(self.lever(7.0, 14))
        for name, side in (("below", -1), ("above", 1)):
            held = caught.value.said.values[name].value
            assert solve(self.lever(held, 14)).differential_stiffness() > 0
            assert (held - 7.0) * side > 0
            with pytest.raises(RefusedError):  # none nearer holds
                solve(self.lever(round(held - side * _LOOK_STEP_IN, 2), 14))
        for brace in np.arange(5.5, 9.0, 0.1):
            try:
                told = solve(self.lever(float(brace), 13))
            except RefusedError:
                continue
            assert told.differential_stiffness() > 0

    def test_where_only_one_side_holds_that_one_is_named_and_no_neighbour_silences_a_brace(self):
        """Every brace of short bows on long risers is refused in words, or told by its station."""
        refused = 0
        for length, riser in ((44, 14), (46, 12), (50, 14)):
            for brace in np.arange(5.0, 8.6, 0.2):
                shape = {"length_in": length, "riser_in": riser, "marked_draw_in": 26.0}
                bow = self.lever(round(float(brace), 2)).model_copy(update=shape)
                try:
                    solve(bow)
                except RefusedError as error:
                    refused += "evenly" in error.reason
                    continue
                rig = Rig(bow=bow, archer=Archer(release="thumb", draw_length_in=24.0))
                assert TELLERS["brace"].tell(Bench(rig)).findings
        assert refused > 10

    def test_up_and_down_need_strings_of_their_own_at_the_corner(self):
        """Against the same limbs braced anew by strings so changed."""
        bow = solve(self.lever(7.0))
        up, down = (brace_per_string_slack(bow, d * 0.0254) for d in (0.25, -0.25))
        assert up > 1.2 * down
        for gain, change in ((up, 0.25), (down, -0.25)):
            moved = rebraced(bow, bow.braced.half_slack - change * 0.0254 / gain / 2)
            assert (moved.brace_x - bow.brace_x) / 0.0254 == pytest.approx(change, abs=0.002)
        rig = Rig(bow=self.lever(7.0), archer=Archer(release="thumb"))
        effect = Bench(rig).brace.effect
        assert effect.two_valued
        said = [f.said.plain() for f in TELLERS["brace"].tell(Bench(rig)).findings]
        assert any("as much less lets it be" in text for text in said)
        assert not Bench(Rig()).brace.effect.two_valued
