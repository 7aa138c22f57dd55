"""What each station rests on, how far that may move, and the settings on which nothing rests.

A watch compares with the rig as it was when its station was last kept or checked. Every setting
of a rig is read by some watch, or stands in `NO_CONSEQUENCE` with the reason.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from lyrandis.core.parts import SchoolNumbers, Slot, StepUp
from lyrandis.core.route.reads import READS
from lyrandis.core.route.stations import STATIONS
from lyrandis.core.stops import StationId


class Watch(NamedTuple):
    """`station` rests on `read`: a move beyond `threshold` (quantity's stored unit) makes it due.

    For words the threshold is 0: any change counts. `then` says the quickest recheck.
    """

    station: StationId
    read: str
    threshold: float
    then: str


def _others(parts: tuple[str, ...], thens: dict[StationId, str]) -> list[Watch]:
    """Watches of stations on whether another part came on."""
    return [Watch(station, part, 0, then) for part in parts for station, then in thens.items()]


def due_after(slot: Slot) -> tuple[StationId, ...]:
    """The stations that are due once another part stands in a slot."""
    asked = {watch.station for watch in WATCHES if f"on.{slot}" in READS[watch.read].paths}
    return tuple(s.id for s in STATIONS.values() if s.id in asked)


_EVER = math.inf  # further than any value moves: only whether there is one counts


WATCHES: tuple[Watch, ...] = (
    # Another part came on: what rested on the former one is looked at again.
    *_others(
        ("string",),
        {
            "assembly": "look at loops and serving, then pluck and listen",
            "tiller": "measure both distances again",
            "final-tiller": "measure both distances again",
            "brace": "measure the brace height, and again after a night braced",
            "nock-point": "put the bow square on again",
            "quiet": "listen again",
            "crawls": "shoot the nearest and farthest crawl again",
        },
    ),
    *_others(
        ("bow", "riser", "limbs"),
        {
            "weight": "weigh it again",
            "assembly": "go through the steps again",
            "tiller": "measure both distances again",
            "in-line": "look from behind again",
            "centre-shot": "look where the point stands",
            "final-tiller": "measure both distances again",
            "brace": "measure the brace height",
            "nock-point": "put the bow square on again",
            "arrow": "check grains per pound, spine and the side plate",
            "flight": "read the flight again",
            "quiet": "listen again",
            "crawls": "shoot the nearest and farthest crawl again",
        },
    ),
    *_others(
        ("set",),
        {
            "arrow": "look at length, weight and spine of this set",
            "flight": "read this set's flight",
            "quiet": "listen again with these arrows",
            "crawls": "shoot this set's nearest and farthest crawl",
        },
    ),
    *_others(
        ("archer",),
        {
            "draw": "measure this archer's draw",
            "bow-length": "see whether the bow fits this archer",
            "weight": "see whether this archer holds it",
            "nock-point": "start from this release's usual height",
            "arrow": "check the arrow's length first, then its spine",
            "crawls": "start the chart again",
        },
    ),
    # One thing moved upstream.
    Watch("bow-length", "draw", 0.5, "see whether the bow still fits"),
    Watch("bow-length", "release", 0, "look at the string's angle again"),
    Watch("weight", "draw", 0.25, "take the weight at the new draw"),
    Watch("weight", "length", 0.5, "weigh it again"),
    Watch("weight", "form", 0, "weigh it again"),
    Watch("assembly", "form", 0, "go through the steps for this kind of bow"),
    Watch("assembly", "length", 0.25, "look at limbs, loops and bolts again"),
    Watch("assembly", "marking", 0.5, "look at limbs, loops and bolts again"),
    Watch("assembly", "fibre", 0, "look at loops and serving, then pluck and listen"),
    Watch("assembly", "strands", 0.5, "look at loops and serving, then pluck and listen"),
    Watch("assembly", "string_length", 0.125, "look at loops and serving, then pluck and listen"),
    Watch("string", "length", 0.5, "check the string's length"),
    Watch("string", "weight", 5, "check the number of strands"),
    Watch("string", "form", 0, "check the string's length and material"),
    Watch("brace", "length", 0.5, "measure the brace height"),
    Watch("brace", "form", 0, "start from the form's usual brace height"),
    Watch("brace", "fibre", 0, "let the string settle braced overnight, then measure"),
    Watch("brace", "strands", 1, "measure the brace height again"),
    Watch("brace", "string_length", 0.125, "measure the brace height again"),
    Watch("nock-point", "brace", 0.125, "put the bow square on again"),
    Watch("nock-point", "release", 0, "start from the new release's usual height"),
    Watch("nock-point", "fibre", 0, "put the bow square on again"),
    Watch("arrow", "draw", 0.25, "check the arrow's length first, then its spine"),
    Watch("arrow", "weight", 2, "check grains per pound and spine"),
    Watch("arrow", "brace", 0.25, "read the flight again; reports differ on which way it goes"),
    Watch("arrow", "silencers", 10, "read the flight again"),
    Watch("arrow", "plate", 0, "look at the spine window again"),
    Watch("quiet", "brace", 0.125, "listen again: brace moves the sound most"),
    Watch("quiet", "strands", 0.5, "listen again"),
    Watch("quiet", "arrow_mass", 20, "listen again: a lighter arrow leaves more in the bow"),
    Watch("quiet", "silencers", 10, "listen again"),
    Watch("flight", "draw", 0.25, "read the flight again"),
    Watch("flight", "weight", 2, "read the flight again"),
    Watch("flight", "brace", 0.25, "read the flight again; reports differ on which way it goes"),
    Watch("flight", "silencers", 10, "read the flight again"),
    Watch("flight", "plate", 0, "read the flight again"),
    Watch("flight", "cut", 1, "read the flight again: the plate stands elsewhere"),
    Watch("flight", "spring", 0, "read the flight again: a firmer spring reads stiffer"),
    Watch("flight", "spine", 20, "read the flight again"),
    Watch("flight", "shaft", 0.25, "read the flight again"),
    Watch("flight", "point", 10, "read the flight again: a heavier point bends the shaft more"),
    Watch("flight", "rear_taper", 0.5, "read the flight again: a longer taper acts weaker"),
    Watch("flight", "front_taper", 0.5, "read the flight again: a longer taper acts weaker"),
    Watch("flight", "nock", 2, "read how high the nocks stand again"),
    Watch("flight", "release", 0, "begin the reads again: another release"),
    Watch("flight", "side", 0, "begin the reads again: the arrow lies on the other side"),
    Watch("arrow", "side", 0, "read the flight: the arrow lies on the other side"),
    Watch("centre-shot", "side", 0, "look where the point stands on this side"),
    Watch("crawls", "side", 0, "shoot one middle distance again"),
    Watch("nock-point", "side", 0, "read the height again"),
    Watch("flight", "hand", 0, "begin the reads again: another hand"),
    Watch("crawls", "draw", 0.25, "shoot the nearest and farthest crawl again"),
    Watch("crawls", "weight", 1, "shoot the nearest and farthest crawl again"),
    Watch(
        "crawls", "brace", 0.125, "read the nock height and the flight before trusting the crawls"
    ),
    Watch("crawls", "nock", 1.5, "shoot one middle distance again"),
    Watch("crawls", "arrow_mass", 8, "shoot the farthest crawl again"),
    Watch("crawls", "shaft", 0.25, "find point-on again"),
    Watch("crawls", "silencers", 20, "shoot the farthest crawl again"),
    Watch("crawls", "release", 0, "start the chart again"),
    # What was measured is so no longer, or is now.
    Watch("weight", "readings", _EVER, "weigh the bow at your draw"),
    Watch("arrow", "weighed", _EVER, "weigh a finished arrow, then look at grains per pound"),
    Watch("string", "string_mass", _EVER, "weigh the string"),
    Watch("weight", "riser_length", 0.25, "weigh it again"),
    Watch("bow-length", "use", 0, "see whether the length suits the new use"),
    Watch("weight", "grown", 0, "see whether the weight suits"),
    Watch("weight", "build", 0, "weigh it again"),
    Watch("assembly", "build", 0, "go through the steps for this kind of bow"),
    Watch("weight", "upper_turns", 0.25, "weigh it again: a bolt moves the weight"),
    Watch("weight", "lower_turns", 0.25, "weigh it again: a bolt moves the weight"),
    Watch("brace", "upper_turns", 0.25, "measure the brace height: a bolt moves it"),
    Watch("brace", "lower_turns", 0.25, "measure the brace height: a bolt moves it"),
    Watch("nock-point", "upper_turns", 0.25, "put the bow square on again: a bolt moves tiller"),
    Watch("nock-point", "lower_turns", 0.25, "put the bow square on again: a bolt moves tiller"),
    Watch("tiller", "release", 0, "the usual tiller is another"),
    Watch("tiller", "upper_turns", 0.1, "measure both distances again"),
    Watch("tiller", "lower_turns", 0.1, "measure both distances again"),
    Watch("tiller", "form", 0, "measure both distances"),
    Watch("final-tiller", "release", 0, "the usual tiller is another"),
    Watch("final-tiller", "upper_turns", 0.1, "measure both distances again"),
    Watch("final-tiller", "lower_turns", 0.1, "measure both distances again"),
    Watch("final-tiller", "hung", 0, "measure both distances with the weights on"),
    Watch("nock-point", "hung", 0, "read the height again: weight in a pocket moves it"),
    Watch("nock-point", "nock_fit", 0, "read the height again"),
    Watch("nock-point", "grip_line", 0, "read the height again: the hand sits elsewhere"),
    Watch("quiet", "hung", 0, "listen again: what hangs may ring"),
    Watch("crawls", "hung", 0, "shoot one middle distance again"),
    Watch("centre-shot", "release", 0, "a thumb archer's arrow stands on the other side"),
    Watch("centre-shot", "hand", 0, "look which side the arrow stands on"),
    Watch("centre-shot", "plate", 0, "look where the point stands"),
    Watch("centre-shot", "cut", 0.3, "look where the point stands"),
    Watch("centre-shot", "diameter", 0.5, "look where the point stands: the shaft's axis moved"),
    Watch("arrow", "spring", 0, "read the flight again: a firmer spring reads stiffer"),
    Watch("brace", "twists", 0.5, "measure the brace height: turns move it"),
    Watch("brace", "riser_length", 0.25, "measure the brace height"),
    Watch("arrow", "hand", 0, "look which side the arrow stands on"),
    Watch("crawls", "hand", 0, "start the chart again"),
    Watch("crawls", "anchor", 0, "start the chart again"),
    Watch("crawls", "eye", 5, "shoot the nearest and farthest crawl again"),
    Watch("crawls", "allowed", 0, "start the chart again"),
    Watch("crawls", "one_crawl", 3, "shoot the nearest and farthest distance again"),
    Watch("nock-point", "nearest", 5, "read the tails with the new largest crawl"),
    Watch("nock-point", "diameter", 1, "put the bow square on again: it measures to the shaft"),
    Watch("arrow", "diameter", 0.5, "read the flight again: the shaft stands elsewhere"),
    Watch("arrow", "cut", 1, "look at the spine window again"),
    Watch("arrow", "spine", 40, "read the flight again"),
    Watch("arrow", "point", 10, "read the flight again: a heavier point bends the shaft more"),
    Watch("arrow", "rear_taper", 0.5, "read the flight again: a longer taper acts weaker"),
    Watch("arrow", "front_taper", 0.5, "read the flight again: a longer taper acts weaker"),
    Watch("arrow", "rear_end", 0.3, "read the flight again: a thinner end acts weaker"),
    Watch("arrow", "front_end", 0.3, "read the flight again: a thinner end acts weaker"),
    Watch("arrow", "string_mass", 15, "read the flight again: a heavier string reads stiffer"),
    Watch("quiet", "spine", 80, "listen again: a shaft that is too weak is loud"),
    Watch("quiet", "silencer_place", 0.1, "listen again"),
    Watch("crawls", "spine", 80, "shoot the farthest crawl again"),
    Watch("crawls", "point", 10, "shoot the farthest crawl again: the balance moved"),
    Watch("crawls", "vanes", 0.5, "shoot the farthest crawl again: feathers brake"),
)

_LIMIT = "a limit: judged anew each time, nothing measured rests on it"
_OWN_RULE = "a rule of the archer's: judged anew each time"
_WRITTEN = "only how a result is written down"
# Settings on which nothing rests that would have to be looked at again, and why.
NO_CONSEQUENCE: dict[str, str] = {
    "name": "a name",
    "notes": "only a note",
    "route": "which stations are walked: nothing measured rests on it",
    "size_term": _OWN_RULE,
    "spine_school": _OWN_RULE,
    "nocking.school": "how the nock point is found: its height is watched",
    "limbs.tiller_wanted_mm": "a wish: judged anew each time",
    "taste": "a taste: only ranks what could be had",
    "archer.name": "a name",
    "archer.draw_method": "how a draw was measured: only its ±",
    "archer.draw_plus_minus_in": "only a ±, which every number takes up at once",
    "archer.finger_width_mm": _WRITTEN,
    "archer.stitch_pitch_mm": _WRITTEN,
    "bow.maker_brace_low_in": _LIMIT,
    "bow.maker_brace_high_in": _LIMIT,
    "bow.maker_min_gpp": _LIMIT,
    "bow.maker_max_draw_in": _LIMIT,
    "bow.low_stretch_rated": _LIMIT,
    "bow.limb_material": "only moves the floor of arrow weight, judged anew each time",
    "bow.tips": "only moves the floor of arrow weight, judged anew each time",
    "arrow.material": "told by its weight, spine and diameter",
    "string.build": "only how far it can be turned",
    "string.worked_in": "a note of another string",
    "string.strand_diameter_mm": "only what the next turn is told to do",
    "aim.counted_by": _WRITTEN,
    "aim.mark_parts": _WRITTEN,
    "aim.mark_words": _WRITTEN,
    "routine.steps": "the archer's own words: nothing measured rests on them",
    "courses": "asked of the chart, nothing rests on it",
    "aim.slope_deg": "asked of the chart, nothing rests on it",
    "aim.spot_half_height_cm": "asked of the chart, nothing rests on it",
    "assembly.done": "a list ticked off",
    "reading.left_out": "which tests are made: what was read stands",
    "limbs.pair": "judged anew each time",
    "limbs.upper_lbf": "a marking: judged anew each time",
    "limbs.lower_lbf": "a marking: judged anew each time",
    "limbs.upper_class": "a marking: judged anew each time",
    "limbs.lower_class": "a marking: judged anew each time",
    "limbs.degrees_per_turn": "only what the next turn is told to do",
    **{f"schools.{name}": _OWN_RULE for name in SchoolNumbers.model_fields},
    **{f"step_up.{name}": "a plan" for name in StepUp.model_fields},
}
