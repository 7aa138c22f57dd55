"""What one of each unit is worth, and every way to write it: exact by definition."""

import pytest

from lyrandis.core.units import _WRITTEN, QUANTITIES, UNITS, convert, parse, write

INCH, FOOT, YARD, POUND, GRAVITY = 0.0254, 0.3048, 0.9144, 0.45359237, 9.80665
GRAIN, POUND_FORCE = POUND / 7000, POUND * GRAVITY
# id: what one is in SI, decimals shown, or the finest fraction shown (negative)
SIZES = {
    "in_8": (INCH, -8), "in_16": (INCH, -16), "in": (INCH, 2), "mm": (1e-3, 0), "mm_1": (1e-3, 1),
    "cm": (1e-2, 1), "m": (1, 1), "yd": (YARD, 1), "lb": (POUND_FORCE, 1), "kg": (GRAVITY, 1),
    "gr": (GRAIN, 0), "g": (1e-3, 1), "g_0": (1e-3, 0), "oz": (POUND / 16, 1), "fps": (FOOT, 0), "mps": (1, 1),
    "ftlb": (POUND_FORCE * FOOT, 1), "J": (1, 1), "lb_s": (POUND_FORCE, 2), "kg_m_s": (1, 2), "g_m2": (1e-3, 2), "deg": (1, 0), "deg_1": (1, 1), "gpp": (1, 1),
    "gpi": (1, 1), "lb_in": (1, 2), "spine": (1, 0), "count": (1, 0), "share": (1, 2),
    "fingers": (1, 1), "weeks": (1, 0), "turns": (1, -4), "groups": (1, 1), "turns_8": (1, -8), "pct": (1, 0), "pct_1": (1, 1),
    "marks": (1, -4), "fingers_4": (1, -4), "shafts": (1, 1),
    "dB": (1, 1), "s": (1, 1), "h": (3600, 1), "ms": (1e-3, 1),
    "hz": (1, 1), "frames_s": (1, 0),
}  # fmt: skip
# quantity to parse with: sign -> what one is, in SI
SIGNS = {
    "draw": {
        "in": INCH, "inch": INCH, "inches": INCH, '"': INCH, "″": INCH, "ft": FOOT, "feet": FOOT,
        "foot": FOOT, "'": FOOT, "′": FOOT, "mm": 1e-3, "cm": 1e-2, "m": 1, "metres": 1,
        "meters": 1, "yd": YARD, "yds": YARD, "yard": YARD, "yards": YARD,
    },
    "weight": {
        "lb": POUND_FORCE, "lbs": POUND_FORCE, "lbf": POUND_FORCE, "#": POUND_FORCE,
        "pounds": POUND_FORCE, "kg": GRAVITY, "kgf": GRAVITY, "n": 1,
    },
    "mass": {
        "gr": GRAIN, "grain": GRAIN, "grains": GRAIN, "g": 1e-3, "gram": 1e-3, "grams": 1e-3,
        "oz": POUND / 16, "kg": 1,
    },
    "speed": {"fps": FOOT, "ft/s": FOOT, "m/s": 1, "mps": 1, "km/h": 1 / 3.6},
    "energy": {"ft·lb": POUND_FORCE * FOOT, "ftlb": POUND_FORCE * FOOT,
               "ft-lb": POUND_FORCE * FOOT, "j": 1},
    "inertia": {"g·m²": 1e-3, "kg·m²": 1},
    "momentum": {"lb·s": POUND_FORCE, "lb-s": POUND_FORCE, "kg·m/s": 1, "n·s": 1},
    "angle": {"°": 1, "deg": 1, "degrees": 1},
    "gpp": dict.fromkeys(("gpp", "gr/lb", "gr/in", "gpi", "spine", "lb/in", "finger", "fingers", "mark", "marks", "turn", "turns", "group", "groups", "week", "weeks", "shaft", "shafts"), 1),
    "percent": {"%": 1, "percent": 1},
    "level": {"db": 1},
    "seconds": {"s": 1, "sec": 1, "seconds": 1, "min": 60, "h": 3600, "hours": 3600, "ms": 1e-3},
    "frequency": {"hz": 1, "/s": 1, "frames/s": 1},
}  # fmt: skip


def test_every_unit_is_in_the_table():
    assert SIZES.keys() == UNITS.keys()
    assert {w: set(signs) for w, signs in _WRITTEN.items()} == {
        UNITS[QUANTITIES[q].stored].dimension: set(signs) for q, signs in SIGNS.items()
    }


@pytest.mark.parametrize("unit", SIZES)
def test_what_one_is_and_how_fine_it_is_shown(unit):
    size, digits = SIZES[unit]
    assert UNITS[unit].per_base == pytest.approx(size, rel=1e-12)
    shown = -UNITS[unit].denominator or UNITS[unit].decimals
    assert shown == digits


@pytest.mark.parametrize(
    ("quantity", "sign"), [(q, s) for q, signs in SIGNS.items() for s in signs]
)
def test_what_is_typed_with_each_sign(quantity, sign):
    stored = UNITS[QUANTITIES[quantity].stored].per_base
    assert parse(f"3 {sign}", quantity) == pytest.approx(
        3 * SIGNS[quantity][sign] / stored, rel=1e-9
    )


def test_feet_then_inches_without_their_sign():
    assert parse("2' 4", "draw") == pytest.approx(28)
    assert parse("2 ft 4 3/4", "draw") == pytest.approx(28.75)
    assert parse("-2' 4\"", "draw") == pytest.approx(-28)
    assert parse("+3", "draw") == pytest.approx(3)


def test_a_value_is_turned_from_unit_to_unit_and_back():
    assert convert(1, "yd", "in") == pytest.approx(36)
    assert convert(36, "in", "yd") == pytest.approx(1)
    assert convert(7000, "gr", "g") == pytest.approx(453.59237)


def test_a_plus_minus_under_the_finest_fraction_is_written_as_one():
    assert write(28.75, "draw", plus_minus=0.01) == "28 3/4 ± 1/8 in"
    assert write(28.75, "draw", plus_minus=0.3) == "28 3/4 ± 1/4 in"
    assert write(-0.04, "level") == "0.0 dB"
    assert write(-0.06, "level") == "−0.1 dB"
