"""What may be read off a rig for comparison: a setting or what follows from some, by a name."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import NamedTuple

from lyrandis.core.arrow.build import build
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.form import brace_to_pivot_in, riser_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.parts import Rig, Weights
from lyrandis.core.parts.base import at
from lyrandis.core.words import word

Value = float | str | None


class Read(NamedTuple):
    """Something a station or a measurement may rest on.

    name : in a sentence
    quantity : of a number; "part" for which part is on; None for a word
    of : its value on a rig
    paths : the settings it follows from
    """

    name: str
    quantity: str | None
    of: Callable[[Rig], Value]
    paths: tuple[str, ...]

    @property
    def short(self) -> str:
        """Its name within a sentence."""
        return self.name.removeprefix("The ").lower()

    def off(self, rig: Rig) -> Value:
        """Its value on a rig; None where it is not set or cannot be told."""
        try:
            return self.of(rig)
        except RefusedError:
            return None


def _setting(name: str, path: str, quantity: str) -> Read:
    return Read(name, quantity, lambda rig: at(rig, path), (path,))


def _word(name: str, path: str) -> Read:
    return Read(name, None, lambda rig: word(path, at(rig, path)), (path,))


def _part(name: str, *slots: str) -> Read:
    on = tuple(f"on.{slot}" for slot in slots)
    return Read(name, "part", lambda rig: "+".join(getattr(rig.on, s) for s in slots), on)


def _weight(rig: Rig) -> float | None:
    curve = force_draw(rig.bow, rig.string.material)
    draw = true_draw_in(rig.archer, rig.bow, rig.string.material).value
    return curve.force(draw) if draw <= curve.draw_in[-1] else None


_WEIGHT_PATHS = (
    "archer.thumb_offset_mm", "bow.marked_weight_lbf", "bow.marked_draw_in", "bow.measured",
)  # fmt: skip
_BRACE_PATHS = ("bow.brace_height_in", "bow.brace_reference", "bow.brace_offset_in")
_MASS_PATHS = (
    "arrow.grains_per_inch", "arrow.insert_gr", "arrow.nock_gr", "arrow.fletching_gr",
    "arrow.weighed_gr",
)  # fmt: skip

_HUNG_PATHS = tuple(f"weights.{name}" for name in Weights.model_fields)


def _hung(rig: Rig) -> str:
    fields = Weights.model_fields
    parts = [f"{grams:.0f} g {fields[name].title}" for name, grams in rig.weights.hung.items()]
    return ", ".join(parts).lower() or "nothing"


READS: dict[str, Read] = {
    # Which part is on.
    "archer": _part("The archer", "archer"),
    "bow": _part("The bow", "bow"),
    "riser": _part("The riser", "riser"),
    "limbs": _part("The limbs", "upper_limb", "lower_limb"),
    "string": _part("The string", "string"),
    "set": _part("The set of arrows", "arrows"),
    # The archer.
    "draw": _setting("The draw", "archer.draw_length_in", "draw"),
    "release": _word("The release", "archer.release"),
    "hand": _word("The hand", "archer.hand"),
    "side": Read(
        "The side of the arrow",
        None,
        lambda r: "the usual one" if r.arrow_as_usual else "the other",
        ("arrow_side",),
    ),
    "grown": _word("Child or grown up", "archer.grown"),
    "anchor": _word("The anchor", "archer.anchor"),
    "eye": _setting("The eye's height", "archer.eye_above_nock_mm", "crawl"),
    "allowed": _word("What the class allows", "aim.allowed"),
    "one_crawl": _setting("The one crawl", "aim.one_crawl_mm", "crawl"),
    "nearest": Read(
        "The nearest distance",
        "distance",
        lambda r: None if r.aims_by == "gaps" else min(r.aim.distances_m),
        ("aim.distances_m",),
    ),
    # The bow.
    "use": _word("The use", "use"),
    "form": _word("The form of bow", "bow.form"),
    "build": _word("The construction", "bow.takedown"),
    "length": _setting("The bow's length", "bow.length_in", "bow_length"),
    "riser_length": Read(
        "The riser's length", "bow_length", lambda r: riser_in(r.bow), ("bow.riser_in",)
    ),
    "weight": Read("The weight at your draw", "weight", _weight, _WEIGHT_PATHS),
    "marking": _setting("The marked weight", "bow.marked_weight_lbf", "weight"),
    "upper_turns": _setting("The upper bolt", "limbs.upper_turns", "bolt"),
    "lower_turns": _setting("The lower bolt", "limbs.lower_turns", "bolt"),
    "brace": Read("The brace height", "brace", lambda r: brace_to_pivot_in(r.bow), _BRACE_PATHS),
    "plate": _word("The side plate", "bow.side_plate"),
    "cut": Read(
        "The side plate's place",
        "small",
        lambda r: r.bow.plate_offset_mm,
        ("bow.centre_cut_mm", "bow.side_plate_mm"),
    ),
    "spring": _word("The plunger's spring", "bow.plunger_spring"),
    "hung": Read("What hangs on the riser", None, _hung, _HUNG_PATHS),
    "nock_fit": _word("The fit of the arrow nock", "nocking.fit"),
    "grip_line": _word("The line on the grip", "nocking.grip_line"),
    # The string.
    "fibre": _word("The string's material", "string.material"),
    "strands": _setting("The number of strands", "string.strands", "count"),
    "string_length": _setting("The string's length", "string.length_in", "bow_length"),
    "readings": Read(
        "The scale readings", "count", lambda r: len(r.bow.measured) or None, ("bow.measured",)
    ),
    "weighed": _setting("The weighed arrow", "arrow.weighed_gr", "mass"),
    "string_mass": _setting("The string's weight", "string.mass_gr", "mass"),
    "twists": _setting("The turns in the string", "string.twists", "turns"),
    "silencers": _setting("The silencers' weight", "string.silencers_gr", "mass"),
    "silencer_place": _setting("The silencers' place", "string.silencer_position", "share"),
    "nock": _setting("The nock point", "nock_height_mm", "nock_height"),
    # The arrow.
    "arrow_mass": Read("The arrow's weight", "mass", lambda r: build(r.arrow).mass_gr, _MASS_PATHS),
    "shaft": _setting("The shaft's length", "arrow.shaft_length_in", "draw"),
    "gpi": _setting("The shaft's grains per inch", "arrow.grains_per_inch", "gpi"),
    "shaft_material": _word("The shaft's material", "arrow.material"),
    "spine": _setting("The static spine", "arrow.static_spine", "spine"),
    "diameter": _setting("The shaft's diameter", "arrow.diameter_mm", "small"),
    "point": _setting("The point", "arrow.point_gr", "mass"),
    "insert": _setting("The insert", "arrow.insert_gr", "mass"),
    "arrow_nock": _setting("The arrow nock", "arrow.nock_gr", "mass"),
    "fletching": _setting("The fletching", "arrow.fletching_gr", "mass"),
    "rear_taper": _setting("The rear taper", "arrow.rear_taper_in", "draw"),
    "rear_end": _setting("The rear end", "arrow.rear_end_mm", "small"),
    "front_taper": _setting("The front taper", "arrow.front_taper_in", "draw"),
    "front_end": _setting("The front end", "arrow.front_end_mm", "small"),
    "vanes": _setting("The number of feathers", "arrow.fletching_count", "count"),
}


class Seen(dict[str, Value]):
    """The readings of one rig, each taken when it is first asked for."""

    def __init__(self, rig: Rig) -> None:
        super().__init__()
        self.rig = rig

    def __missing__(self, name: str) -> Value:
        value = self[name] = READS[name].off(self.rig)
        return value


def beyond(was: Value, now: Value, threshold: float) -> bool:
    """Whether a reading moved by more than a threshold; of a word, whether it is another."""
    if isinstance(was, float | int) and isinstance(now, float | int):
        return abs(now - was) > threshold + 1e-9
    return was != now


def moved_since(grounds: Mapping[str, float], before: Rig, now: Rig) -> list[str]:
    """Names of the readings that moved between two rigs by more than their thresholds.

    Parameters
    ----------
    grounds : threshold by key of READS, in the reading's stored unit
    """
    was, is_now = Seen(before), Seen(now)
    return [READS[name].short for name, t in grounds.items() if beyond(was[name], is_now[name], t)]
