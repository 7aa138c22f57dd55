"""Random rigs near centre, as settings: every form that finger archers shoot with a window."""

from __future__ import annotations

import numpy as np

PLATES = ("plunger", "leather")
# Lengths, usual brace at the middle of them, and how far a plate stands out, from and to.
FORMS = {
    "plunger": {"recurve": (60.0, 72.0, 8.4)},
    "leather": {"recurve": (58.0, 68.0, 8.2), "hybrid": (57.0, 64.0, 7.2),
                "longbow": (61.0, 70.0, 6.9)},
}  # fmt: skip
OUT_MM = {"plunger": (-1.5, 2.5), "leather": (-1.5, 3.5)}


def near_centre(rng: np.random.Generator, plate: str) -> dict[str, object]:
    """Settings of one rig with a plate; some lie outside what can be shot or is fitted."""
    form = str(rng.choice(list(FORMS[plate])))
    low, high, brace = FORMS[plate][form]
    length, draw = rng.uniform(low, high), rng.uniform(26.3, 30.2)
    return {
        "bow.form": form,
        "bow.length_in": round(length, 1),
        "bow.takedown": plate == "plunger",
        "bow.marked_weight_lbf": round(rng.uniform(29, 55), 1),
        "bow.brace_height_in": round(brace + rng.normal(0, 0.3), 3),
        "bow.side_plate": plate,
        "bow.side_plate_mm": 4.0,
        "bow.centre_cut_mm": round(4.0 - rng.uniform(*OUT_MM[plate]), 2),
        "archer.draw_length_in": round(draw, 2),
        "archer.release": str(rng.choice(["split", "three_under"])),
        "string.mass_gr": round(rng.uniform(85, 130), 1),
        "arrow.shaft_length_in": round(draw + rng.uniform(0.8, 1.7), 2),
        "arrow.grains_per_inch": round(rng.uniform(6.2, 9.5), 2),
        "arrow.point_gr": round(rng.uniform(70, 175)),
        "arrow.insert_gr": round(rng.uniform(5, 20)),
        "arrow.nock_gr": round(rng.uniform(7, 12), 1),
        "arrow.diameter_mm": round(rng.uniform(5.2, 7.0), 2),
    }
