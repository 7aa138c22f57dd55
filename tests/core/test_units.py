"""Reading and writing measurements: what people type, and round trips."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lyrandis.core.errors import RefusedError
from lyrandis.core.units import QUANTITIES, UNITS, convert, fraction, parse, parse_list, write

CASES = json.loads((Path(__file__).parents[1] / "format_cases.json").read_text())


@pytest.mark.parametrize(
    ("text", "quantity", "unit", "value"),
    [
        ("28 3/4", "draw", None, 28.75),
        ("28-3/4", "draw", None, 28.75),
        ("28¾", "draw", None, 28.75),
        ("28.75", "draw", None, 28.75),
        ("28,75", "draw", None, 28.75),
        ("3/8", "brace", None, 0.375),
        ("2' 4 3/4\"", "draw", None, 28.75),
        ("2' 4 3/4", "draw", None, 28.75),
        ("2 ft 4 in", "draw", None, 28.0),
        ("730 mm", "draw", None, 730 / 25.4),
        ("73 cm", "draw", None, 730 / 25.4),
        ("730", "draw", "mm", 730 / 25.4),
        ("1/2 in", "nock_height", None, 12.7),
        ("-3 mm", "nock_height", None, -3.0),
        ("38#", "weight", None, 38.0),
        ("38 lb", "weight", None, 38.0),
        ("17.2 kg", "weight", None, 17.2 / 0.45359237),
        ("412", "mass", None, 412.0),
        ("26.7 g", "mass", None, 26.7 / 0.06479891),
        ("45 m", "distance", None, 45.0),
        ("50 yd", "distance", None, 45.72),
        ("52 m/s", "speed", None, 52 / 0.3048),
        ("180 fps", "speed", "mps", 180.0),
        ("8.5 gpp", "gpp", None, 8.5),
    ],
)
def test_understands_what_people_type(text, quantity, unit, value):
    assert parse(text, quantity, unit) == pytest.approx(value, rel=1e-12)


@pytest.mark.parametrize(
    "text", ["", "  ", "abc", "28 3/0", "28 lb", "28 3/4 5", "4 in 2 ft", "1e5x", "--3", "9" * 80]
)
def test_refuses_what_is_no_length_and_says_so(text):
    with pytest.raises(RefusedError) as caught:
        parse(text, "draw")
    assert caught.value.field == "text"
    assert len(caught.value.reason) > 15


def test_an_unknown_quantity_is_named():
    with pytest.raises(RefusedError, match="mood"):
        parse("3", "mood")


@pytest.mark.parametrize("case", CASES, ids=lambda c: f"{c['value']} {c['unit']}")
def test_writes_as_the_browser_does(case):
    assert write(case["value"], case["quantity"], case["unit"], case["spread"]) == case["text"]


@pytest.mark.parametrize("quantity", QUANTITIES)
@given(number=st.floats(0.01, 900, allow_nan=False))
def test_typing_what_is_shown_comes_back(quantity, number):
    """Reading what was written gives the value to half a step of the display."""
    kind = QUANTITIES[quantity]
    for unit_id in kind.choices:
        unit = UNITS[unit_id]
        stored = convert(number, unit_id, kind.stored)
        step = 1 / unit.denominator if unit.denominator else 10.0**-unit.decimals
        back = parse(
            write(stored, quantity, unit_id, with_unit=False).replace("−", "-"), quantity, unit_id
        )
        assert convert(back, kind.stored, unit_id) == pytest.approx(number, abs=step / 2 + 1e-9)


@given(st.floats(-500, 500), st.sampled_from([2, 4, 8, 16, 32]))
def test_fractions_are_nearest(value, denominator):
    text = fraction(value, denominator).replace("−", "-")
    negative = text.startswith("-")
    total = sum(
        float(p.split("/")[0]) / float(p.split("/")[1]) if "/" in p else float(p)
        for p in text.lstrip("-").split()
    )
    assert (-total if negative else total) == pytest.approx(value, abs=0.5 / denominator + 1e-9)


def test_conversions_are_exact_where_defined():
    assert convert(1, "in", "mm") == pytest.approx(25.4, rel=1e-15)
    assert convert(1, "yd", "m") == pytest.approx(0.9144, rel=1e-15)
    assert convert(7000, "gr", "g") == pytest.approx(453.59237, rel=1e-12)
    assert convert(1, "kg", "lb") == pytest.approx(2.2046226218, rel=1e-9)
    with pytest.raises(RefusedError):
        convert(1, "in", "lb")


@given(st.sampled_from(sorted(QUANTITIES)), st.integers(1, 99_999).map(lambda n: n / 100))
def test_what_is_typed_in_the_stored_unit_is_kept_to_the_last_digit(quantity, number):
    stored = QUANTITIES[quantity].stored
    if stored in QUANTITIES[quantity].choices:
        assert parse(repr(number), quantity, stored) == number


@pytest.mark.parametrize(
    ("text", "quantity", "values"),
    [
        ("10 20 30", "distance", [10, 20, 30]),
        ("10,20,30", "distance", [10, 20, 30]),
        ("10, 20;30", "distance", [10, 20, 30]),
        ("1,2,3", "distance", [1, 2, 3]),
        ("61,2 60,8", "level", [61.2, 60.8]),
        ("18 yd, 25yd", "distance", [16.4592, 22.86]),
        ("-5 m", "distance", [-5]),
        ("", "distance", []),
    ],
)
def test_lists_are_read_as_they_are_typed(text, quantity, values):
    assert parse_list(text, quantity) == pytest.approx(values)


@pytest.mark.parametrize("text", ["10 x", "10 20 loud", "10//2", "1 " * 201])
def test_a_list_with_something_else_in_it_is_refused(text):
    with pytest.raises(RefusedError):
        parse_list(text, "distance")


@pytest.mark.parametrize("quantity", QUANTITIES)
def test_the_example_of_a_quantity_can_be_typed(quantity):
    kind = QUANTITIES[quantity]
    for unit in kind.choices:
        with pytest.raises(RefusedError) as told:
            parse("", quantity, unit)
        example = told.value.reason.partition("“")[2].partition("”")[0]
        step = convert(1, unit, kind.stored) / (
            UNITS[unit].denominator or 10 ** UNITS[unit].decimals
        )
        assert parse(example, quantity, unit) == pytest.approx(kind.example, abs=step)


def test_one_of_a_thing_is_said_otherwise():
    assert [write(n, "turns") for n in (1, 0.75, 24)] == ["1 turn", "3/4 turns", "24 turns"]
    assert write(1, "weeks") == "1 week"


@pytest.mark.parametrize(
    ("number", "said"), [(1e16, "1e+16 lb"), (-1e300, "-1e+300 lb"), (float("inf"), "inf lb")]
)
def test_a_number_that_nobody_measures_is_written_all_the_same(number, said):
    assert write(number, "weight") == said
