"""The constants of the first spine suggestion (docs/mechanics B4), by the model's averaged match.

Random rigs over the fit's domain; each one's match is sought about the present constants, so run it
twice after the model has changed. Prints the constants and how far the fit lies from the matches,
on the rigs that it was made on and on as many others.

    python bench/spine_fit.py [--rigs 400] [--seed 1]
"""

from __future__ import annotations

import argparse
import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from lyrandis.core.arrays import Array
from lyrandis.core.arrow.shot import weight_at_28in
from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import brace_to_pivot_in, default_brace_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.flex.of_rig import averaged_past, layout_of, setting_of
from lyrandis.core.flex.setting import DAMPING
from lyrandis.core.flex.window import (
    FIT_DRAW_IN,
    FIT_FRONT_GR,
    FIT_OFFSET_MM,
    FIT_PLUNGER_MM,
    FIT_SHAFT_IN,
    FIT_STRING_G,
    FIT_WEIGHT_LBF,
    REFERENCE_BRACE_IN,
    REFERENCE_DRAW_IN,
    REFERENCE_FRONT_GR,
    REFERENCE_LENGTH_IN,
    REFERENCE_STRING_G,
    REFERENCE_WEIGHT_LBF,
)
from lyrandis.core.parts import Rig
from lyrandis.core.string.measures import string_mass_g
from lyrandis.core.units import KG_PER_GRAIN

BOWS = {"plunger": {"recurve": (62, 72)},
        "leather": {"recurve": (58, 70), "hybrid": (58, 64), "longbow": (62, 70)}}  # fmt: skip
OFFSET0_MM = {"plunger": -1.0, "leather": 0.0}
NAMES = ("spine", "weight", "length", "front", "draw", "offset", "brace", "string")
OUTLIER = 2.5  # of the scatter: farther off counts less


@dataclass(frozen=True)
class Point:
    """A rig's form, what the fit goes by, and ln of its match."""

    form: str
    terms: list[float]
    match_ln: float


def rig_of(plate: str, rng: np.random.Generator) -> Rig:
    """Any rig of the domain with a plate."""
    form = str(rng.choice(list(BOWS[plate])))
    length, draw = rng.uniform(*BOWS[plate][form]), rng.uniform(*FIT_DRAW_IN)
    shaft = np.clip(draw + rng.uniform(0.5, 2.5), *FIT_SHAFT_IN)
    offset = rng.uniform(*(FIT_PLUNGER_MM if plate == "plunger" else FIT_OFFSET_MM))
    rig = changed(Rig(), {
        "bow.form": form, "bow.length_in": length, "bow.takedown": plate == "plunger",
        "bow.marked_weight_lbf": rng.uniform(*FIT_WEIGHT_LBF), "bow.side_plate": plate,
        "bow.centre_cut_mm": 5 - offset, "bow.side_plate_mm": 5.0,
        "archer.draw_length_in": draw, "archer.release": "split",
        "string.mass_gr": rng.uniform(*FIT_STRING_G) / 1000 / KG_PER_GRAIN,
        "arrow.shaft_length_in": float(shaft), "arrow.grains_per_inch": rng.uniform(6, 10),
        "arrow.point_gr": rng.uniform(*FIT_FRONT_GR) - 10, "arrow.insert_gr": 10.0,
        "arrow.nock_gr": rng.uniform(6, 13), "arrow.diameter_mm": rng.uniform(5, 7.5),
    })  # fmt: skip
    return changed(
        rig, {"bow.brace_height_in": default_brace_in(rig.bow) + rng.uniform(-0.75, 0.75)}
    )


def points(plate: str, rng: np.random.Generator) -> Iterator[Point]:
    """Rigs with a match, without end."""
    while True:
        rig = rig_of(plate, rng)
        try:
            bench = Bench(rig)
            first = bench.arrow.window.first
            if first is None:
                continue
            found = averaged_past(
                setting_of(rig, bench.bow.drawn, bench.arrow.string), layout_of(rig.arrow),
                rig.arrow.diameter_mm / 2000, DAMPING[rig.arrow.material], first,
            ).match  # fmt: skip
        except RefusedError:
            continue
        if found.match is None:
            continue
        a, string = rig.arrow, string_mass_g(rig.bow, bench.arrow.string)
        yield Point(rig.bow.form, [
            1.0,
            math.log(weight_at_28in(bench.bow.curve).value / REFERENCE_WEIGHT_LBF),
            math.log(a.shaft_length_in / REFERENCE_LENGTH_IN),
            math.log((a.point_gr + a.insert_gr) / REFERENCE_FRONT_GR),
            math.log(rig.archer.draw_length_in / REFERENCE_DRAW_IN),
            rig.bow.plate_offset_mm - OFFSET0_MM[plate],
            brace_to_pivot_in(rig.bow) - REFERENCE_BRACE_IN,
            string - REFERENCE_STRING_G,
        ], math.log(found.match))  # fmt: skip


def fitted(told: list[Point]) -> Array:
    """Least squares that heed outliers less."""
    a, y = np.array([p.terms for p in told]), np.array([p.match_ln for p in told])
    weight, by = np.ones(len(y)), np.zeros(a.shape[1])
    for _ in range(30):
        root = np.sqrt(weight)
        by = np.linalg.lstsq(a * root[:, None], y * root, rcond=None)[0]
        off = y - a @ by
        weight = 1 / (1 + (off / (OUTLIER * 1.4826 * np.median(np.abs(off)))) ** 2)
    return np.asarray(by)


def off_by(told: list[Point], by: Array) -> Array:
    """How far each match lies from the fit, in ln."""
    return np.array([p.match_ln - float(np.dot(p.terms, by)) for p in told])


def main() -> None:
    """Fit, and try the fit on other rigs."""
    asked = argparse.ArgumentParser()
    asked.add_argument("--rigs", type=int, default=400)
    asked.add_argument("--seed", type=int, default=1)
    n, seed = (vars(asked.parse_args())[name] for name in ("rigs", "seed"))
    for plate in BOWS:
        source = points(plate, np.random.default_rng([seed, len(plate)]))
        own, others = ([next(source) for _ in range(n)] for _ in range(2))
        by = fitted(own)
        rest = {name: round(float(v), 3) for name, v in zip(NAMES[1:], by[1:], strict=True)}
        print(plate, {"spine": round(math.exp(by[0]))} | rest)
        for what, told in (("its own", own), ("others", others)):
            off = off_by(told, by)
            print(f"  {what}: {_scatter(off)}")
            for form in BOWS[plate]:
                print(f"    {form}: {_scatter(off[[p.form == form for p in told]])}")


def _scatter(off: Array) -> str:
    return f"{len(off)} rigs, lies {off.mean():+.3f}, rms {np.sqrt(np.mean(off**2)):.3f}"


if __name__ == "__main__":
    main()
