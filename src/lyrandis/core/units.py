"""Units: what one of each is worth, reading what people type, and writing it back.

Factors are exact by definition where marked (international yard and pound agreement, 1959).
Every quantity of the job has one stored unit; what an archer sees is a choice of display.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from typing import Literal

from lyrandis.core.errors import RefusedError

M_PER_IN = 0.0254  # exact
M_PER_FT = 0.3048  # exact
M_PER_YD = 0.9144  # exact
KG_PER_LB = 0.45359237  # exact
GRAINS_PER_LB = 7000.0  # exact
G_STANDARD = 9.80665  # m/s2, exact (standard gravity, CGPM 1901)
N_PER_LBF = KG_PER_LB * G_STANDARD
KG_PER_GRAIN = KG_PER_LB / GRAINS_PER_LB
J_PER_FTLB = N_PER_LBF * M_PER_FT
MM_PER_IN = 25.4  # exact

Dimension = Literal[
    "length",
    "force",
    "mass",
    "speed",
    "energy",
    "momentum",
    "inertia",
    "angle",
    "ratio",
    "percent",
    "time",
    "level",
    "frequency",
]


@dataclass(frozen=True)
class Unit:
    """One way to show a dimension: `per_base` base units (SI) make one of it."""

    id: str
    dimension: Dimension
    per_base: float
    label: str
    decimals: int = 1
    denominator: int = 0  # > 0: shown as a fraction with at most this denominator
    one: str = ""  # the label of exactly one, where it differs


def _units(*units: Unit) -> dict[str, Unit]:
    return {unit.id: unit for unit in units}


UNITS = _units(
    Unit("in_8", "length", M_PER_IN, "in", denominator=8),
    Unit("in_16", "length", M_PER_IN, "in", denominator=16),
    Unit("in", "length", M_PER_IN, "in", decimals=2),
    Unit("mm", "length", 0.001, "mm", decimals=0),
    Unit("mm_1", "length", 0.001, "mm", decimals=1),
    Unit("cm", "length", 0.01, "cm", decimals=1),
    Unit("m", "length", 1.0, "m", decimals=1),
    Unit("yd", "length", M_PER_YD, "yd", decimals=1),
    Unit("lb", "force", N_PER_LBF, "lb"),
    Unit("kg", "force", G_STANDARD, "kg"),
    Unit("gr", "mass", KG_PER_GRAIN, "gr", decimals=0),
    Unit("g", "mass", 0.001, "g"),
    Unit("g_0", "mass", 0.001, "g", decimals=0),
    Unit("oz", "mass", KG_PER_LB / 16, "oz"),
    Unit("fps", "speed", M_PER_FT, "ft/s", decimals=0),
    Unit("mps", "speed", 1.0, "m/s"),
    Unit("ftlb", "energy", J_PER_FTLB, "ft·lb"),
    Unit("J", "energy", 1.0, "J"),
    Unit("lb_s", "momentum", N_PER_LBF, "lb·s", decimals=2),
    Unit("kg_m_s", "momentum", 1.0, "kg·m/s", decimals=2),
    Unit("g_m2", "inertia", 0.001, "g·m²", decimals=2),
    Unit("deg", "angle", 1.0, "°", decimals=0),
    Unit("deg_1", "angle", 1.0, "°", decimals=1),
    Unit("gpp", "ratio", 1.0, "gr/lb"),
    Unit("gpi", "ratio", 1.0, "gr/in"),
    Unit("lb_in", "ratio", 1.0, "lb/in", decimals=2),
    Unit("spine", "ratio", 1.0, "", decimals=0),
    Unit("count", "ratio", 1.0, "", decimals=0),
    Unit("share", "ratio", 1.0, "", decimals=2),
    Unit("fingers", "ratio", 1.0, "fingers", one="finger"),
    Unit("fingers_4", "ratio", 1.0, "fingers", denominator=4, one="finger"),
    Unit("marks", "ratio", 1.0, "marks", denominator=4, one="mark"),
    Unit("shafts", "ratio", 1.0, "shafts", decimals=1, one="shaft"),
    Unit("weeks", "ratio", 1.0, "weeks", decimals=0, one="week"),
    Unit("turns", "ratio", 1.0, "turns", denominator=4, one="turn"),
    Unit("groups", "ratio", 1.0, "groups", decimals=1, one="group"),
    Unit("turns_8", "ratio", 1.0, "turns", denominator=8, one="turn"),
    Unit("pct", "percent", 1.0, "%", decimals=0),
    Unit("pct_1", "percent", 1.0, "%", decimals=1),
    Unit("dB", "level", 1.0, "dB", decimals=1),
    Unit("s", "time", 1.0, "s", decimals=1),
    Unit("h", "time", 3600.0, "h"),
    Unit("ms", "time", 0.001, "ms"),
    Unit("hz", "frequency", 1.0, "Hz", decimals=1),
    Unit("frames_s", "frequency", 1.0, "frames/s", decimals=0),
)


@dataclass(frozen=True)
class Quantity:
    """A kind of value of the job: how it is stored and how it may be shown.

    `stored` is the unit in which fields hold it; the first of `choices` is the default display;
    `example` is one of it in the stored unit, as an archer would say it.
    """

    id: str
    title: str
    stored: str
    choices: tuple[str, ...]
    example: float = 12.0


def _quantities(*quantities: Quantity) -> dict[str, Quantity]:
    return {quantity.id: quantity for quantity in quantities}


QUANTITIES = _quantities(
    Quantity("draw", "Draw and arrow length", "in", ("in_8", "in_16", "in", "mm", "cm"), 28.75),
    Quantity("bow_length", "Bow and string length", "in", ("in_8", "in_16", "in", "mm", "cm"), 68),
    Quantity("brace", "Brace height", "in", ("in_8", "in_16", "in", "mm"), 8.25),
    Quantity("nock_height", "Nock point height", "mm_1", ("in_16", "in_8", "in", "mm_1"), 12.7),
    Quantity("tiller", "Tiller distances", "mm_1", ("mm_1", "in_16", "in"), 190),
    Quantity("small", "Small lengths", "mm_1", ("mm_1",), 6),
    Quantity("crawl", "Crawls and eye height", "mm_1", ("mm", "mm_1", "in_16"), 24),
    Quantity("weight", "Draw weight", "lb", ("lb", "kg"), 38),
    Quantity("mass", "Arrow and string weight", "gr", ("gr", "g"), 412),
    Quantity("hung", "Weights on the riser", "g_0", ("g_0", "oz"), 120),
    Quantity("distance", "Distance", "m", ("m", "yd"), 30),
    Quantity("spot", "Heights on the butt", "cm", ("cm", "in"), 5),
    Quantity("speed", "Speed", "fps", ("fps", "mps"), 180),
    Quantity("energy", "Energy", "ftlb", ("ftlb", "J"), 40),
    Quantity("momentum", "Momentum", "lb_s", ("lb_s", "kg_m_s"), 0.5),
    Quantity("inertia", "Moment of inertia", "g_m2", ("g_m2",), 1.5),
    Quantity("angle", "Angle", "deg", ("deg",), 10),
    Quantity("gpp", "Grains per pound", "gpp", ("gpp",), 9),
    Quantity("gpi", "Grains per inch", "gpi", ("gpi",), 8),
    Quantity("slope", "Weight per inch", "lb_in", ("lb_in",), 2.5),
    Quantity("spine", "Static spine", "spine", ("spine",), 600),
    Quantity("count", "Count", "count", ("count",), 3),
    Quantity("share", "Share of one", "share", ("share",), 0.5),
    Quantity("fingers", "Finger widths", "fingers", ("fingers",), 2),
    Quantity("finger_parts", "Counted finger widths", "fingers_4", ("fingers_4",), 4.25),
    Quantity("marks", "Tab marks", "marks", ("marks",), 12.5),
    Quantity("shafts", "Widths of the shaft", "shafts", ("shafts",), 11.5),
    Quantity("percent", "Share", "pct", ("pct",), 10),
    Quantity("percent_1", "Fine share", "pct_1", ("pct_1",), 2.5),
    Quantity("level", "Sound level", "dB", ("dB",), 61.5),
    Quantity("seconds", "Time", "s", ("s",), 8),
    Quantity("hours", "Hours", "h", ("h",), 6),
    Quantity("ms", "Short times", "ms", ("ms",), 2),
    Quantity("frequency", "Frequency", "hz", ("hz",), 78.5),
    Quantity("frame_rate", "Frames a second", "frames_s", ("frames_s",), 240),
    Quantity("turns", "Turns", "turns", ("turns",), 7.5),
    Quantity("groups", "Groups of spine", "groups", ("groups",), 1.2),
    Quantity("bolt", "Turns of a bolt", "turns_8", ("turns_8",), 0.375),
    Quantity("weeks", "Weeks", "weeks", ("weeks",), 6),
    Quantity("angle_1", "Fine angle", "deg_1", ("deg_1",), 0.8),
)

# What people write after a number, by dimension, lower case. Distances read "m" as metres.
_WRITTEN: dict[str, dict[str, float]] = {
    "length": {
        "in": M_PER_IN,
        "inch": M_PER_IN,
        "inches": M_PER_IN,
        '"': M_PER_IN,
        "″": M_PER_IN,
        "ft": M_PER_FT,
        "feet": M_PER_FT,
        "foot": M_PER_FT,
        "'": M_PER_FT,
        "′": M_PER_FT,
        "mm": 0.001,
        "cm": 0.01,
        "m": 1.0,
        "metres": 1.0,
        "meters": 1.0,
        "yd": M_PER_YD,
        "yds": M_PER_YD,
        "yard": M_PER_YD,
        "yards": M_PER_YD,
    },
    "force": {
        "lb": N_PER_LBF,
        "lbs": N_PER_LBF,
        "lbf": N_PER_LBF,
        "#": N_PER_LBF,
        "pounds": N_PER_LBF,
        "kg": G_STANDARD,
        "kgf": G_STANDARD,
        "n": 1.0,
    },
    "mass": {
        "gr": KG_PER_GRAIN,
        "grain": KG_PER_GRAIN,
        "grains": KG_PER_GRAIN,
        "g": 0.001,
        "gram": 0.001,
        "grams": 0.001,
        "oz": KG_PER_LB / 16,
        "kg": 1.0,
    },
    "speed": {
        "fps": M_PER_FT,
        "ft/s": M_PER_FT,
        "m/s": 1.0,
        "mps": 1.0,
        "km/h": 1 / 3.6,
    },
    "energy": {"ft·lb": J_PER_FTLB, "ftlb": J_PER_FTLB, "ft-lb": J_PER_FTLB, "j": 1.0},
    "momentum": {"lb·s": N_PER_LBF, "lb-s": N_PER_LBF, "kg·m/s": 1.0, "n·s": 1.0},
    "inertia": {"g·m²": 0.001, "kg·m²": 1.0},
    "angle": {"°": 1.0, "deg": 1.0, "degrees": 1.0},
    "ratio": {
        "gpp": 1.0,
        "gr/lb": 1.0,
        "gr/in": 1.0,
        "gpi": 1.0,
        "spine": 1.0,
        "lb/in": 1.0,
        "finger": 1.0,
        "fingers": 1.0,
        "shaft": 1.0,
        "shafts": 1.0,
        "mark": 1.0,
        "marks": 1.0,
        "turn": 1.0,
        "turns": 1.0,
        "group": 1.0,
        "groups": 1.0,
        "week": 1.0,
        "weeks": 1.0,
    },
    "percent": {"%": 1.0, "percent": 1.0},
    "level": {"db": 1.0},
    "time": {
        "s": 1.0,
        "sec": 1.0,
        "seconds": 1.0,
        "min": 60.0,
        "h": 3600.0,
        "hours": 3600.0,
        "ms": 0.001,
    },
    "frequency": {"hz": 1.0, "/s": 1.0, "frames/s": 1.0},
}

_VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
}  # fmt: skip
_NUMBER = r"(?:\d+\s+\d+/\d+|\d+-\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[.,]\d+)"
_TERM = re.compile(rf"\s*(?P<number>{_NUMBER})\s*(?P<unit>[^\d\s.,+-][^\d\s]*)?\s*")
_MAX_TYPED = 60


def quantity(id: str) -> Quantity:
    """The quantity of that name; raises RefusedError for a name that is not known."""
    try:
        return QUANTITIES[id]
    except KeyError:
        known = ", ".join(QUANTITIES)
        raise RefusedError("quantity", f"“{id}” is not a quantity; known are {known}.") from None


def convert(value: float, source: str, target: str) -> float:
    """`value` in unit `source` [id of UNITS] expressed in unit `target` of the same dimension.

    >>> round(convert(28.0, "in", "mm"), 1)
    711.2
    """
    a, b = UNITS[source], UNITS[target]
    if a.dimension != b.dimension:
        raise RefusedError("unit", f"{a.label} cannot be turned into {b.label}.")
    return value if a.per_base == b.per_base else value * (a.per_base / b.per_base)


def _number(text: str) -> float:
    text = text.replace(",", ".")
    if "/" not in text:
        return float(text)
    whole, _, part = text.replace("-", " ").rpartition(" ")
    top, bottom = part.split("/")
    if int(bottom) == 0:
        raise RefusedError("text", f"“{part}” divides by nothing.")
    return float((int(whole) if whole.strip() else 0) + Fraction(int(top), int(bottom)))


def parse(text: str, quantity_id: str, unit: str | None = None) -> float:
    """Read a measurement as people say it.

    Understands fractions ("28 3/4", "28-3/4", "28¾"), feet and inches ("2' 4 3/4\""), decimals
    with point or comma, and any usual unit sign; a bare number is in `unit`.

    Parameters
    ----------
    text : what was typed
    quantity_id : key of QUANTITIES
    unit : id of the display unit for bare numbers; the quantity's default if None

    Returns
    -------
    Value in the quantity's stored unit.

    Raises
    ------
    RefusedError : nothing or something unreadable was typed, or another dimension's unit.

    >>> parse("28 3/4", "draw"), parse("28,75", "draw"), round(parse("73 cm", "draw"), 3)
    (28.75, 28.75, 28.74)
    >>> round(parse("17.2 kg", "weight"), 1)
    37.9
    """
    kind = quantity(quantity_id)
    display = UNITS[unit or kind.choices[0]]
    dimension = UNITS[kind.stored].dimension
    cleaned = text.strip().lower().replace("''", '"').replace("−", "-")
    for glyph, written in _VULGAR.items():
        cleaned = cleaned.replace(glyph, f" {written}")
    cleaned = cleaned.strip()
    example = write(kind.example, quantity_id, display.id)
    if not cleaned:
        raise RefusedError("text", f"Nothing was typed; write for example “{example}”.")
    if len(cleaned) > _MAX_TYPED:
        raise RefusedError("text", "That is too long for one measurement.", _MAX_TYPED, "signs")
    turn = -1.0 if cleaned[0] == "-" else 1.0
    body = cleaned[1:] if cleaned[0] in "+-" else cleaned
    total, at, last = 0.0, 0, math.inf
    known = _WRITTEN[dimension]
    stored = UNITS[kind.stored].per_base
    while at < len(body):
        term = _TERM.match(body, at)
        if term is None or term.end() == at:
            raise RefusedError("text", f"“{text}” is not a measurement; write “{example}”.")
        per_base = display.per_base
        if term["unit"]:
            if term["unit"] not in known:
                wanted = ", ".join(dict.fromkeys(known))
                raise RefusedError("text", f"“{term['unit']}” is no unit here; use {wanted}.")
            per_base = known[term["unit"]]
        elif last == M_PER_FT:
            per_base = M_PER_IN
        if per_base >= last:
            raise RefusedError("text", f"“{text}” is not one measurement; write “{example}”.")
        number = _number(term["number"])
        # What is typed in the stored unit is kept to the last digit.
        total += number if per_base == stored else number * (per_base / stored)
        last, at = per_base, term.end()
    return turn * total


_COMMA = re.compile(r",(?=\s)|(?<=\d),(?=\d*,)|(?<=,\d),|,(?=\d{2})|,$")
_MOST_LISTED = 200


def parse_list(text: str, quantity_id: str, unit: str | None = None) -> list[float]:
    """Read several measurements typed one after another, between spaces, commas or semicolons.

    A comma with one digit after it is a decimal comma; every other comma stands between two.

    Returns
    -------
    Values in the quantity's stored unit, in the order they were typed.

    Raises
    ------
    RefusedError : more than 200 of them, or one that cannot be read.

    >>> parse_list("10,20, 30 40", "distance"), parse_list("61,2 60,8", "level")
    ([10.0, 20.0, 30.0, 40.0], [61.2, 60.8])
    >>> parse_list("18 yd, 25yd; -5", "distance", "yd")
    [16.4592, 22.86, -4.572]
    """
    words: list[str] = []
    for word in _COMMA.sub(" ", text.replace(";", " ")).split():
        if words and word[0].isalpha():  # the unit of the number before it
            words[-1] += f" {word}"
        else:
            words.append(word)
    if len(words) > _MOST_LISTED:
        raise RefusedError("text", "That is too long a list.", _MOST_LISTED, "entries")
    return [parse(word, quantity_id, unit) for word in words]


_ROUNDED_BELOW = 1e15  # a larger number stands as it is: nobody's measurement


def fraction(value: float, denominator: int) -> str:
    """`value` as whole number and fraction to the nearest 1/denominator, ties away from nothing.

    >>> fraction(28.75, 8), fraction(28.0625, 8), fraction(-0.5, 16)
    ('28 3/4', '28 1/8', '−1/2')
    """
    rounded = Fraction(math.floor(abs(value) * denominator + 0.5), denominator)
    sign = "−" if value < 0 and rounded else ""
    whole, part = divmod(rounded, 1)
    if part == 0:
        return f"{sign}{whole}"
    return f"{sign}{f'{whole} ' if whole else ''}{part}"


def write(
    value: float,
    quantity_id: str,
    unit: str | None = None,
    plus_minus: float | None = None,
    with_unit: bool = True,
    exact: bool = False,
) -> str:
    """A stored value as text in a display unit, with its ± and its unit.

    Parameters
    ----------
    value, plus_minus : in the quantity's stored unit
    quantity_id : key of QUANTITIES
    unit : id of UNITS; the quantity's default if None
    with_unit : end with the unit's label
    exact : leave noughts after the point away

    >>> write(28.75, "draw"), write(28.75, "draw", "mm", plus_minus=0.25)
    ('28 3/4 in', '730 ± 6 mm')
    """
    kind = quantity(quantity_id)
    shown = UNITS[unit or kind.choices[0]]
    number = convert(value, kind.stored, shown.id)
    if not abs(number) < _ROUNDED_BELOW:
        text = f"{number:g}"
    else:
        text = fraction(number, shown.denominator) if shown.denominator else _decimal(number, shown)
    if exact and "." in text:
        text = text.rstrip("0").rstrip(".")
    if plus_minus is not None:
        spread = convert(plus_minus, kind.stored, shown.id)
        if not abs(spread) < _ROUNDED_BELOW:
            told = f"{spread:g}"
        elif shown.denominator:
            told = fraction(max(spread, 1 / shown.denominator), shown.denominator)
        else:
            told = _decimal(spread, shown)
        text += f" ± {told}"
    if not with_unit or not shown.label:
        return text
    label = shown.one if shown.one and text == "1" else shown.label
    return text + ("" if label in "°%" else " ") + label


def _decimal(number: float, unit: Unit) -> str:
    """To the unit's decimals, ties away from nothing, by the number's exact binary value."""
    text = str(Decimal(abs(number)).quantize(Decimal(1).scaleb(-unit.decimals), ROUND_HALF_UP))
    return ("−" if number < 0 and float(text) != 0 else "") + text
