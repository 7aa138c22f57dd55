"""The stations: the question each asks, and the settings that are kept there."""

from __future__ import annotations

from typing import NamedTuple

from lyrandis.core.parts import Limbs, Nocking, SchoolNumbers, Slot, StepUp, Weights
from lyrandis.core.stops import StationId


class Station(NamedTuple):
    """One step of the work: the question it asks, and the settings that are kept there."""

    id: StationId
    title: str
    question: str
    settings: tuple[str, ...]


_ALL: tuple[Station, ...] = (
    Station(
        "draw",
        "Draw",
        "How far do you draw?",
        (
            "archer.draw_length_in",
            "archer.draw_method",
            "archer.draw_plus_minus_in",
            "archer.hand",
            "archer.release",
            "archer.thumb_offset_mm",
            "archer.grown",
        ),
    ),
    Station(
        "bow-length",
        "Bow length",
        "How long a bow?",
        (
            "bow.form",
            "bow.takedown",
            "bow.length_in",
            "bow.riser_in",
            "bow.tips",
            "use",
            "taste",
            "route",
            *(f"schools.{name}" for name in SchoolNumbers.model_fields),
        ),
    ),
    Station(
        "weight",
        "Weight",
        "What does it pull at your draw?",
        (
            "bow.marked_weight_lbf",
            "bow.marked_draw_in",
            "bow.measured",
            "bow.maker_max_draw_in",
            "bow.limb_material",
            *(f"limbs.{name}" for name in Limbs.model_fields if name != "tiller_wanted_mm"),
            *(f"step_up.{name}" for name in StepUp.model_fields),
        ),
    ),
    Station("assembly", "Assembly", "Is it put together right?", ("assembly.done",)),
    Station(
        "string",
        "String",
        "Which string?",
        (
            "string.material",
            "string.build",
            "string.worked_in",
            "string.strands",
            "string.length_in",
            "string.mass_gr",
            "string.silencers_gr",
            "string.silencer_position",
            "string.twists",
            "bow.low_stretch_rated",
        ),
    ),
    Station("tiller", "Tiller", "Do the two limbs bend alike?", ("limbs.tiller_wanted_mm",)),
    Station("in-line", "In line", "Does the string run over the middle?", ("arrow_side",)),
    Station(
        "centre-shot",
        "Centre shot",
        "Where does the point stand?",
        ("bow.side_plate", "bow.centre_cut_mm", "bow.side_plate_mm", "bow.plunger_spring"),
    ),
    Station(
        "weights",
        "Weights",
        "What hangs on the riser, and where?",
        tuple(f"weights.{name}" for name in Weights.model_fields),
    ),
    Station("final-tiller", "Final tiller", "Do the limbs still bend alike?", ()),
    Station(
        "brace",
        "Brace",
        "Where does the string sit?",
        (
            "bow.brace_height_in",
            "bow.brace_reference",
            "bow.brace_offset_in",
            "bow.maker_brace_low_in",
            "bow.maker_brace_high_in",
        ),
    ),
    Station(
        "nock-point",
        "Nock point",
        "Where does the arrow sit on the string?",
        ("nock_height_mm", *(f"nocking.{name}" for name in Nocking.model_fields)),
    ),
    Station(
        "arrow",
        "Arrow",
        "Which arrow?",
        (
            "arrow.shaft_length_in",
            "arrow.grains_per_inch",
            "arrow.static_spine",
            "arrow.diameter_mm",
            "arrow.material",
            "arrow.point_gr",
            "arrow.insert_gr",
            "arrow.nock_gr",
            "arrow.fletching_gr",
            "arrow.fletching_count",
            "arrow.weighed_gr",
            "arrow.rear_taper_in",
            "arrow.rear_end_mm",
            "arrow.front_taper_in",
            "arrow.front_end_mm",
            "spine_school",
            "bow.maker_min_gpp",
            "size_term",
        ),
    ),
    Station("flight", "Flight", "Does the arrow leave straight?", ("reading.left_out",)),
    Station("quiet", "Quiet", "What still makes noise?", ()),
    Station(
        "crawls",
        "Aim",
        "Where do you aim?",
        (
            "archer.anchor",
            "archer.eye_above_nock_mm",
            "archer.finger_width_mm",
            "archer.stitch_pitch_mm",
            "aim.allowed",
            "aim.one_crawl_mm",
            "aim.counted_by",
            "aim.mark_parts",
            "aim.mark_words",
            "aim.distances_m",
            "aim.slope_deg",
            "aim.spot_half_height_cm",
            "courses",
            "routine.steps",
        ),
    ),
)
STATIONS: dict[str, Station] = {station.id: station for station in _ALL}


def station_of(path: str) -> StationId | None:
    """The station at which a setting is kept; None for those of no station."""
    return next((s.id for s in _ALL if path in s.settings), None)


# Where a swap of a part is logged.
STATION_OF_SLOT: dict[Slot, StationId] = {
    "archer": "draw",
    "bow": "assembly",
    "riser": "assembly",
    "upper_limb": "assembly",
    "lower_limb": "assembly",
    "string": "string",
    "arrows": "arrow",
}
