"""A spine window that holds still, and whose ± covers (docs/mechanics B4a), on rigs of every form."""

import numpy as np
import pytest

from claims import claimed, share
from lyrandis.core.arrow.spine import stiffness_n_m2
from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import brace_to_pivot_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.flex.clean import leaving
from lyrandis.core.flex.many import clean_of_many
from lyrandis.core.flex.match import searched
from lyrandis.core.flex.of_rig import averaged_of, layout_of, setting_of
from lyrandis.core.flex.passing import pass_bow
from lyrandis.core.flex.unknowns import DRAWS, may_be
from lyrandis.core.parts import Rig
from worlds import shafts
from worlds.rigs import PLATES, near_centre


def benches(rng, plate):
    """Rigs of the domain with a plate, without end."""
    while True:
        try:
            b = Bench(changed(Rig(), near_centre(rng, plate)))
            if b.arrow.window.spine_28in is not None:
                yield b
        except RefusedError:
            continue


def centre(b, changes):
    """ln of the window's centre with some settings changed; None outside."""
    try:
        suits = b.with_changes(changes).arrow.window.spine_28in
    except RefusedError:
        return None
    return None if suits is None else np.log(suits.value)


def more(path, by):
    return lambda rig: {path: getattr(getattr(rig, path.split(".")[0]), path.split(".")[1]) + by}


# A small step of each, and which way the spine that suits must go: − stiffer, + weaker.
STEPS = {
    "brace": (more("bow.brace_height_in", 0.125), 0),
    "point": (more("arrow.point_gr", 5.0), -1),
    "silencers": (more("string.silencers_gr", 5.0), 1),
    "string": (more("string.mass_gr", 5.0), 1),
    "shaft": (more("arrow.shaft_length_in", 0.25), -1),
}
LARGER = {
    "weight": (more("bow.marked_weight_lbf", 2.0), -1),
    "draw": (more("archer.draw_length_in", 0.5), -1),
}


@pytest.mark.parametrize("plate", PLATES)
def test_no_small_step_moves_it_far_and_each_goes_its_way(plate):
    source = benches(np.random.default_rng([33, len(plate)]), plate)
    far, wrong, steps, n = 0, 0, 0, share(60, 10)
    for _ in range(n):
        b = next(source)
        was = centre(b, {})
        for name, (step, way) in (STEPS | LARGER).items():
            now = centre(b, step(b.rig))
            if now is None:
                continue
            steps += 1
            far += name in STEPS and abs(now - was) > 0.025
            wrong += way != 0 and (now - was) * way <= 0
    claimed(f"spine window, {plate}: a small step moves it over 2.5 %", far / steps, most=0.0, of=n)
    claimed(f"spine window, {plate}: a step goes the wrong way", wrong / steps, most=0.0, of=n)


def handbook(b, rng):
    """A rig as a handbook tells of it, for a world that knows no product; its weight truly lies
    about what is known of it."""
    bow, arrow, inch = b.rig.bow, b.rig.arrow, shafts.INCH_M
    weight = rng.normal(b.bow.weight.value, b.bow.weight.plus_minus)
    return shafts.Rig(
        weight_n=weight * shafts.POUND_N,
        filled=b.arrow.shot.stored_energy_ftlb * 12 / b.bow.weight.value / b.bow.stroke_in,
        stroke_m=b.bow.stroke_in * inch,
        brace_m=brace_to_pivot_in(bow) * inch,
        bow_m=bow.length_in * inch,
        string_kg=b.arrow.string.mass_gr * shafts.GRAIN_KG,
        plunger=bow.side_plate == "plunger",
        plate_out_m=bow.plate_offset_mm / 1000,
        shaft_m=arrow.shaft_length_in * inch,
        density_kg_m=arrow.grains_per_inch * shafts.GRAIN_KG / inch,
        front_kg=(arrow.point_gr + arrow.insert_gr) * shafts.GRAIN_KG,
        nock_kg=arrow.nock_gr * shafts.GRAIN_KG,
        radius_m=arrow.diameter_mm / 2000,
    )


@pytest.mark.parametrize("plate", PLATES)
def test_its_band_covers_in_worlds_of_another_make(plate):
    """Chains of lumps with limb tips, a grip that gives and a nock that turns with the serving."""
    rng = np.random.default_rng([5, len(plate)])
    source, off, n = benches(rng, plate), [], share(100, 20)
    while len(off) < n:
        b = next(source)
        w = b.arrow.window
        true = shafts.clean_spine(
            handbook(b, rng), shafts.drawn(rng, plate == "plunger"), w.spine_28in.value
        )
        if true is not None:
            off.append(abs(np.log(true / w.spine_28in.value)) / w.share)
    one, wide = (np.mean([o <= z for o in off]) for z in (1.0, 1.645))
    claimed(f"spine window, {plate}: within one ± of the true spine", one, least=0.68, of=n)
    claimed(f"spine window, {plate}: within 1.645 ± of it", wide, least=0.88, of=n)


@pytest.mark.parametrize("plate", PLATES)
def test_many_bows_at_once_are_each_as_one_by_one(plate):
    b = next(benches(np.random.default_rng(8), plate))
    a, setting = b.rig.arrow, setting_of(b.rig, b.bow.drawn, b.arrow.string)
    bows, lay = may_be(setting)[:3], layout_of(a)
    spines = searched(b.arrow.window.first)
    stiff = np.array([stiffness_n_m2(float(s)) for s in spines])
    many = clean_of_many(bows, lay, stiff, a.diameter_mm / 2000, 0.010)
    finer = clean_of_many(bows, lay, stiff, a.diameter_mm / 2000, 0.010, finer=8)
    for bow, coarse, fine in zip(bows, many, finer, strict=True):
        told = pass_bow(bow, lay, stiff, a.diameter_mm / 2000, 0.010, 5e-6)
        single = leaving(told, lay, bow.plate).clean_deg
        # But for a few far too stiff, which go as the bounce falls.
        assert np.sort(np.abs(fine - single))[-4] < 0.15
        assert np.abs(coarse - single)[2:].mean() < 0.4


def test_the_draws_lie_about_the_bow_as_it_is_known():
    b = next(benches(np.random.default_rng(8), "plunger"))
    s = setting_of(b.rig, b.bow.drawn, b.arrow.string)
    bows = may_be(s)
    assert len(bows) == DRAWS
    for of, sd in (
        (lambda x: np.log(x.plate.k_n_m / s.plate.k_n_m), 0.25),
        (lambda x: np.log(x.plate.preload_n / s.plate.preload_n), 0.25),
        (lambda x: np.log(x.go.kick_m / s.go.kick_m), 0.25),
        (lambda x: np.log(x.go.over_m / s.go.over_m), 0.20),
        (lambda x: x.go.held_share - s.go.held_share, 0.10),
        (lambda x: (x.offset_m - s.offset_m) * 1000, 0.5),
        (lambda x: np.log(x.string_kg / s.string_kg), 0.10),
        (lambda x: np.log(x.half_string_m / s.half_string_m), 0.12),
    ):
        told = np.array([of(bow) for bow in bows])
        assert abs(told.mean()) < 0.15 * sd
        assert told.std() == pytest.approx(sd, rel=0.2)
        assert np.abs(told).max() < 2.4 * sd
    for bow in bows:  # what the string weighs more moves along it too
        assert bow.moving_kg - s.moving_kg == pytest.approx(bow.string_kg - s.string_kg)


def test_the_match_of_one_bow_is_no_better_known_than_its_draws():
    b = next(benches(np.random.default_rng(8), "leather"))
    told = averaged_of(b.rig, b.bow.drawn, b.rig.arrow, b.arrow.window.first)
    assert 0.03 < told.spread_ln < 0.3
    assert b.arrow.window.share > 0.1
