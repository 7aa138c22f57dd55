"""Rigs made by hand, each so that one station has something of its own to say.

What is told of each stands on docs/sentences.md, beside its name.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from lyrandis.core.assembly import steps_for
from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KINDS, KeptTrial

DAY = "2026-01-{:02d}T10:00:00+00:00"
LONGBOW = {"bow.form": "longbow", "bow.length_in": 66, "bow.takedown": False, "route": "shelf",
           "bow.side_plate": "leather"}  # fmt: skip
THUMB = {"archer.release": "thumb", "bow.form": "static_tip", "bow.length_in": 54,
         "bow.takedown": False, "bow.tips": "long", "arrow.shaft_length_in": 31}  # fmt: skip
# The arrow may lie on either side: a bow without a shelf.
SHELF_FREE = LONGBOW | {"bow.centre_cut_mm": -12.0, "bow.side_plate": "hard"}
CRAWLS = {"archer.release": "three_under", "aim.allowed": "crawls"}


@dataclass(frozen=True)
class Situation:
    """A rig as `changes` make it of the first one, with trials a day apart, the first on 1 January.

    `then` changes what the trials were made with, or the first `before` of them; `now` is the day
    it is looked at.
    """

    station: str
    name: str
    changes: dict = field(default_factory=dict)
    trials: tuple = ()
    then: dict = field(default_factory=dict)
    before: int = 99
    now: str = DAY.format(28)

    def bench(self):
        rig = changed(Rig(), self.changes)
        was = changed(rig, self.then)
        made = tuple(
            KeptTrial(i, DAY.format(i), KINDS[kind](**fields), was if i <= self.before else rig)
            for i, (kind, fields) in enumerate(self.trials, 1)
        )
        return Bench(rig, made, self.now)


def look(**fields):
    return ("in_line", fields)


def tiller(upper, lower):
    return ("tiller", {"upper_mm": upper, "lower_mm": lower})


def read(test, outcome=None, **fields):
    return ("flight_read", {"test": test, **({"outcome": outcome} if outcome else {}), **fields})


def tail(height, tail, arrows=3, **fields):
    return ("nock_read", {"height_mm": height, "tail": tail, "arrows": arrows, **fields})


def brace(height, *levels, **fields):
    heard = {"levels_db": levels, "heard_by": "meter"} if levels else {}
    return ("brace", {"brace_height_in": height, "arrows": 6, **heard, **fields})


def drawn(*lengths):
    """Draws by a marked arrow, two months apart."""
    return tuple(
        ("draw", {"method": "marked_arrow", "readings_in": (length,) * 5, "draw_length_in": length,
                  "plus_minus_in": 0.1, "day": f"2026-{2 * i - 1:02d}-01"})
        for i, length in enumerate(lengths, 1)
    )  # fmt: skip


def way(side, bow, arrow, size, arrows=6):
    return ("way", {"side": side, "bow": bow, "arrow": arrow, "size_cm": size, "arrows": arrows,
                    "distance_m": 15})  # fmt: skip


def shaft(length, read, arrows=3, tuned="length"):
    return ("shaft_read", {"tuned": tuned, "length_in": length, "read": read, "arrows": arrows,
                           "distance_m": 12})  # fmt: skip


def settled(hours, height):
    return ("settling", {"hours": hours, "brace_height_in": height})


def hold(weight, seconds, ended="shaking"):
    return ("hold", {"weight_lbf": weight, "seconds": seconds, "ended": ended})


def visit(distance, *heights, crawl=0.0, **fields):
    return ("crawl_visit", {"distance_m": distance, "crawl_mm": crawl, "heights_cm": heights,
                            **fields})  # fmt: skip


def walk(distance, *offsets):
    return ("walk_back", {"distance_m": distance, "offsets_cm": offsets})


def quiet(check, before, after, **fields):
    return ("quiet", {"check": check, "before_db": before, "after_db": after, **fields})


def ends(*shafts, ends=4):
    """Ends of numbered shafts, each at (right, up)."""
    landings = [
        {"number": n, "right_cm": x + 0.3 * (n % 3), "up_cm": y - 0.2 * (n % 2)}
        for n, (x, y) in enumerate(shafts, 1)
    ]
    return tuple(("numbered", {"distance_m": 30, "landings": landings}) for _ in range(ends))


LIMBS = {"limbs.upper_lbf": 36.0}
SITUATIONS = (
    # Draw
    Situation("draw", "nothing measured yet"),
    Situation("draw", "measured by tape", {"archer.draw_method": "tape"}),
    Situation("draw", "measured by arm span", {"archer.draw_method": "arm_span"}),
    Situation("draw", "a marked arrow that repeats",
              {"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": 0.2}),
    Situation("draw", "a marked arrow that spreads",
              {"archer.draw_method": "marked_arrow", "archer.draw_plus_minus_in": 1.2}),
    Situation("draw", "a thumb archer, offset estimated", THUMB),
    Situation("draw", "a thumb archer, offset measured", THUMB | {"archer.thumb_offset_mm": 12.0}),
    Situation("draw", "an arrow shorter than the draw", {"arrow.shaft_length_in": 27.0}),
    Situation("draw", "an arrow hardly longer than the draw", {"arrow.shaft_length_in": 29.3}),
    Situation("draw", "a draw that grew", {"archer.draw_method": "marked_arrow"},
              drawn(26.0, 27.0, 28.0),
              now="2026-05-02T10:00:00+00:00"),
    Situation("draw", "a draw that shrank", {"archer.draw_method": "marked_arrow"},
              drawn(28.0, 27.0, 26.0),
              now="2026-05-02T10:00:00+00:00"),
    Situation("draw", "a child", {"archer.grown": "child"}),
    Situation("draw", "a child who grows", {"archer.grown": "child", "archer.draw_method": "marked_arrow"},
              drawn(26.0, 27.0, 28.0),
              now="2026-05-02T10:00:00+00:00"),
    # Bow length
    Situation("bow-length", "a 68 in recurve, 28 in of draw"),
    Situation("bow-length", "a bow that stacks before the draw", {"bow.length_in": 58.0, "bow.riser_in": 21.0}),
    Situation("bow-length", "a bow overdrawn",
              {"bow.length_in": 54.0, "bow.riser_in": 19.0, "archer.draw_length_in": 29.5}),
    Situation("bow-length", "a bow far too long", {"bow.length_in": 72.0, "archer.draw_length_in": 24.0}),
    Situation("bow-length", "the first choice", {"bow.length_in": 66.0}),
    Situation("bow-length", "a bow that does not stack", {"bow.length_in": 76.0}),
    Situation("bow-length", "an inch from its maker's limit", {"bow.maker_max_draw_in": 28.5}),
    Situation("bow-length", "in woodland", {"use": "woodland", "bow.length_in": 62.0}),
    Situation("bow-length", "in close cover, short", {"use": "close_cover", "bow.length_in": 60.0}),
    Situation("bow-length", "in the back yard", {"use": "backyard", "bow.length_in": 62.0}),
    Situation("bow-length", "split finger on a short bow",
              {"archer.release": "split", "bow.length_in": 58.0, "bow.riser_in": 21.0}),
    Situation("bow-length", "a longbow", LONGBOW),
    Situation("bow-length", "a thumb bow whose maker has not been asked", THUMB),
    Situation("bow-length", "a thumb bow drawn within its maker's word",
              THUMB | {"bow.maker_max_draw_in": 32.0}),
    Situation("bow-length", "a very long draw", {"archer.draw_length_in": 33.0,
                                                 "arrow.shaft_length_in": 35.0}),
    Situation("bow-length", "looked over, nothing found", {}, (("inspection", {"looked": ("cracks",)}),)),
    Situation("bow-length", "looked over months ago", {}, (("inspection", {"looked": ("cracks",)}),),
              now="2026-08-01T10:00:00+00:00"),
    Situation("bow-length", "a crack found", {},
              (("inspection", {"looked": ("cracks",), "found": ("cracks",)}),)),
    Situation("bow-length", "a worn string found", {},
              (("inspection", {"looked": ("string",), "found": ("string",)}),)),
    # Weight
    Situation("weight", "only a marking"),
    Situation("weight", "one reading of the scale", {"bow.measured": ((28.0, 36.0),)}),
    Situation("weight", "readings of the scale", {"bow.measured": ((24.0, 28.5), (28.0, 36.0))}),
    Situation("weight", "a reading in kilograms", {"bow.measured": ((28.0, 16.5),)}),
    Situation("weight", "a reading far too heavy", {"bow.measured": ((28.0, 79.0),)}),
    Situation("weight", "a draw measured to the grip", {"bow.measured": ((26.25, 36.0),)}),
    Situation("weight", "into the stack", {"bow.length_in": 58.0, "bow.riser_in": 21.0,
                                           "archer.draw_length_in": 29.0}),
    Situation("weight", "near where the geometry ends", {"bow.length_in": 54.0, "bow.riser_in": 19.0,
                                                         "archer.draw_length_in": 31.0,
                                                         "arrow.shaft_length_in": 34.0}),
    Situation("weight", "well within the maker's draw", {"bow.maker_max_draw_in": 32.0}),
    Situation("weight", "past the maker's draw on a bad day", {"bow.maker_max_draw_in": 28.1}),
    Situation("weight", "past the maker's draw", {"bow.maker_max_draw_in": 27.0}),
    Situation("weight", "held three times", {}, (hold(36, 14), hold(36, 13), hold(36, 15))),
    Situation("weight", "hardly held", {}, (hold(36, 4), hold(36, 3), hold(36, 4))),
    Situation("weight", "held for a while", {}, (hold(36, 9), hold(36, 8), hold(36, 9))),
    Situation("weight", "held once", {}, (hold(36, 14),)),
    Situation("weight", "a lighter bow held", {}, (hold(30, 14), hold(30, 13), hold(30, 15))),
    Situation("weight", "a slightly lighter bow held", {}, (hold(34, 14), hold(34, 13), hold(34, 15))),
    Situation("weight", "pain at a heavier bow", {}, (hold(50, 5, "pain"),)),
    Situation("weight", "pain", {}, (hold(36, 5, "pain"),)),
    Situation("weight", "pain, and a coach's word since", {},
              (hold(36, 5, "pain"), ("coach", {"weight_lbf": 36, "word": "Dr Ash"}))),
    Situation("weight", "a very heavy bow", {"bow.marked_weight_lbf": 70.0}),
    Situation("weight", "a child with a light bow", {"archer.grown": "child", "bow.marked_weight_lbf": 16.0}),
    Situation("weight", "a child with a heavy bow", {"archer.grown": "child", "bow.marked_weight_lbf": 36.0}),
    Situation("weight", "limbs alike", LIMBS | {"limbs.lower_lbf": 36.0}),
    Situation("weight", "a lower limb a little heavier", LIMBS | {"limbs.lower_lbf": 36.8}),
    Situation("weight", "a lower limb a little lighter", {"limbs.upper_lbf": 36.8, "limbs.lower_lbf": 36.0}),
    Situation("weight", "limbs far apart", LIMBS | {"limbs.lower_lbf": 42.0}),
    Situation("weight", "two upper limbs", {"limbs.pair": "two_upper"}),
    Situation("weight", "limbs of two makers", {"limbs.pair": "two_makers"}),
    Situation("weight", "limbs of two lengths", {"limbs.upper_class": "long", "limbs.lower_class": "short"}),
    Situation("weight", "both bolts out", {"limbs.upper_turns": 3.0, "limbs.lower_turns": 3.0}),
    Situation("weight", "both bolts in", {"limbs.upper_turns": -3.0, "limbs.lower_turns": -3.0}),
    Situation("weight", "the upper bolt out", {"limbs.upper_turns": 2.0}),
    Situation("weight", "the lower bolt out", {"limbs.lower_turns": 2.0}),
    Situation("weight", "a plan to go up, not held yet",
              {"step_up.goal_lbf": 44.0, "step_up.step_lbf": 2.0, "step_up.weeks": 6.0,
               "step_up.starts": "2026-01-01"}),
    Situation("weight", "a plan to go up, held",
              {"step_up.goal_lbf": 44.0, "step_up.step_lbf": 2.0, "step_up.weeks": 6.0,
               "step_up.starts": "2026-01-01"}, (hold(36, 14), hold(36, 13), hold(36, 15))),
    Situation("weight", "a hasty plan", {"step_up.goal_lbf": 44.0, "step_up.step_lbf": 5.0,
                                         "step_up.weeks": 3.0, "step_up.starts": "2026-01-01"}),
    Situation("weight", "a plan from what is not drawn",
              {"step_up.goal_lbf": 48.0, "step_up.from_lbf": 44.0, "step_up.step_lbf": 2.0,
               "step_up.weeks": 6.0, "step_up.starts": "2026-01-01"}),
    Situation("weight", "a plan that is reached", {"step_up.goal_lbf": 30.0, "step_up.step_lbf": 2.0,
                                                   "step_up.weeks": 6.0, "step_up.starts": "2026-01-01"}),
    # Assembly
    Situation("assembly", "nothing done"),
    Situation("assembly", "all done", {"assembly.done": [s.id for s in steps_for(Rig().bow)]}),
    # String
    Situation("string", "no string of its own yet"),
    Situation("string", "one that worked", {"string.worked_in": 65.0}),
    Situation("string", "low-stretch, not asked", {"string.material": "low_stretch"}),
    Situation("string", "low-stretch, built for it",
              {"string.material": "low_stretch", "bow.low_stretch_rated": "yes"}),
    Situation("string", "low-stretch, not built for it",
              {"string.material": "low_stretch", "bow.low_stretch_rated": "no"}),
    Situation("string", "much too long", {"string.length_in": 67.5}),
    Situation("string", "much too short", {"string.length_in": 62.0}),
    Situation("string", "longer than the brace asks", {"string.length_in": 66.0}),
    Situation("string", "as the brace asks", {"string.length_in": 64.9}),
    Situation("string", "few strands", {"string.strands": 6}),
    Situation("string", "many strands", {"string.strands": 24}),
    Situation("string", "with silencers", {"string.silencers_gr": 40.0, "string.silencer_position": 0.3}),
    Situation("string", "still settling", {"string.material": "polyester", "string.length_in": 65.0},
              (settled(0, 8.5), settled(1, 8.3), settled(3, 8.2))),
    Situation("string", "sinking for weeks", {"string.material": "polyester", "string.length_in": 65.0},
              (settled(0, 8.5), settled(24, 8.3), settled(100, 8.1), settled(300, 7.9))),
    Situation("string", "sinking past a fortnight", {"string.material": "polyester", "string.length_in": 65.0},
              (settled(0, 9.0), settled(150, 8.4), settled(330, 8.0))),
    Situation("string", "settled", {"string.material": "polyester", "string.length_in": 65.0},
              (settled(0, 8.5), settled(1, 8.4), settled(24, 8.3), settled(100, 8.3), settled(300, 8.3))),
    Situation("string", "settled a tenth lower", {"string.material": "polyester", "string.length_in": 65.0,
                                                  "bow.brace_height_in": 8.4},
              (settled(0, 8.5), settled(1, 8.4), settled(24, 8.3), settled(100, 8.3), settled(300, 8.3))),
    Situation("string", "a string that gets shorter", {"string.material": "polyester", "string.length_in": 65.0},
              (settled(0, 8.0), settled(10, 8.6), settled(24, 9.4))),
    Situation("string", "weighed, then other strands", {"string.strands": 18},
              (("string_weighing", {"mass_gr": 100}),), {"string.strands": 14, "string.mass_gr": 100.0}),
    # Tiller
    Situation("tiller", "not measured"),
    Situation("tiller", "not measured, with a tiller of one's own", {"limbs.tiller_wanted_mm": 3.0}),
    Situation("tiller", "even, three under", CRAWLS, (tiller(180, 180),)),
    Situation("tiller", "large and positive, three under", CRAWLS, (tiller(186, 180),)),
    Situation("tiller", "large and negative, three under", CRAWLS, (tiller(174, 180),)),
    Situation("tiller", "turned as told", CRAWLS, (tiller(186, 180), tiller(182, 180)),
              {}),
    Situation("tiller", "on a bow without bolts", LONGBOW, (tiller(192, 180),)),
    Situation("tiller", "a bolt was turned since", CRAWLS | {"limbs.upper_turns": 1.0},
              (tiller(186, 180),), {"limbs.upper_turns": 0.0}),
    Situation("tiller", "bolts at their end", CRAWLS | {"limbs.upper_turns": -6.0, "limbs.lower_turns": 6.0},
              (tiller(195, 180),)),
    Situation("tiller", "a turn that did the wrong thing", CRAWLS | {"limbs.upper_turns": 1.0},
              (tiller(190, 180), tiller(170, 180)), {"limbs.upper_turns": 0.0}),
    Situation("final-tiller", "weights hung since", {"weights.middle_g": 300.0},
              (tiller(180, 180),), {"weights.middle_g": 0.0}),
    # In line
    Situation("in-line", "not looked at"),
    Situation("in-line", "over both marks", {}, (look(upper_mm=0, lower_mm=0, drawn="tracks"),)),
    Situation("in-line", "not drawn yet", {}, (look(upper_mm=0, lower_mm=0),)),
    Situation("in-line", "right above, left below", {}, (look(upper_mm=3, lower_mm=-3),)),
    Situation("in-line", "left above", {}, (look(upper_mm=-3, lower_mm=0),)),
    Situation("in-line", "a turn that did the wrong thing", {},
              (look(upper_mm=3, lower_mm=0), look(upper_mm=12, lower_mm=0, upper_turns=-0.5, lower_turns=0))),
    Situation("in-line", "a twisted upper limb", {}, (look(upper_mm=0, lower_mm=0, twist="upper"),)),
    Situation("in-line", "a twisted lower limb", {}, (look(upper_mm=0, lower_mm=0, twist="lower"),)),
    Situation("in-line", "leaves its line when drawn", {}, (look(upper_mm=0, lower_mm=0, drawn="leaves"),)),
    Situation("in-line", "a bow in one piece", LONGBOW),
    Situation("in-line", "favours the left, where the arrow lies",
              LONGBOW | {"arrow_side": "left"}, (look(riser_mm=-3),)),
    Situation("in-line", "favours the right, the arrow lies left",
              THUMB | {"arrow_side": "left"}, (look(riser_mm=3),)),
    Situation("in-line", "favours the left, the arrow lies right",
              THUMB | {"arrow_side": "right"}, (look(riser_mm=-3),)),
    Situation("in-line", "off the hand: favours the right, the arrow lies left",
              SHELF_FREE | {"arrow_side": "left"}, (look(riser_mm=3),)),
    Situation("in-line", "off the hand: favours the left, where the arrow lies",
              SHELF_FREE | {"arrow_side": "left"}, (look(riser_mm=-3),)),
    Situation("in-line", "only the riser looked at", {}, (look(riser_mm=3),)),
    Situation("in-line", "favours neither", THUMB, (look(riser_mm=0),)),
    # Centre shot
    Situation("centre-shot", "as it is"),
    Situation("centre-shot", "a plunger far out",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": -6.0, "bow.side_plate_mm": 6.0}),
    Situation("centre-shot", "a plunger behind the string",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 4.0, "bow.side_plate_mm": 0.0}),
    Situation("centre-shot", "an ordinary plunger",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 2.0}),
    Situation("centre-shot", "a weak shaft at the plunger",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 2.0,
               "arrow.static_spine": 900.0}),
    Situation("centre-shot", "a stiff shaft at the plunger",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 2.0,
               "arrow.static_spine": 350.0}),
    Situation("centre-shot", "a shelf short of centre", LONGBOW | {"bow.centre_cut_mm": -5.0}),
    Situation("centre-shot", "a shelf past centre",
              LONGBOW | {"bow.centre_cut_mm": 5.0, "bow.side_plate_mm": 1.0}),
    Situation("centre-shot", "a plunger and a shaft that suit",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 2.0,
               "arrow.static_spine": 640.0}),
    Situation("centre-shot", "a shaft hardly weak at the plunger",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 1.0,
               "arrow.static_spine": 720.0}),
    Situation("centre-shot", "a shaft hardly stiff at the plunger",
              {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0, "bow.side_plate_mm": 4.0,
               "arrow.static_spine": 560.0}),
    Situation("centre-shot", "looks that agree", {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0,
                                                  "bow.side_plate_mm": 2.0},
              (("centre_shot", {"gap_mm": 2}),)),
    Situation("centre-shot", "looks farther out", {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0,
                                                   "bow.side_plate_mm": 2.0},
              (("centre_shot", {"gap_mm": 25}), ("centre_shot", {"gap_mm": 25}))),
    Situation("centre-shot", "looks farther in", {"bow.side_plate": "plunger", "bow.centre_cut_mm": 3.0,
                                                  "bow.side_plate_mm": 2.0},
              (("centre_shot", {"gap_mm": -25}), ("centre_shot", {"gap_mm": -25}))),
    # Weights
    Situation("weights", "nothing hung"),
    Situation("weights", "by the grip and in front", {"weights.middle_g": 200.0, "weights.front_g": 100.0}),
    Situation("weights", "in the upper pocket", {"weights.upper_pocket_g": 60.0}),
    Situation("weights", "in the lower pocket", {"weights.lower_pocket_g": 60.0}),
    Situation("weights", "in both pockets", {"weights.upper_pocket_g": 60.0, "weights.lower_pocket_g": 60.0}),
    Situation("weights", "on a bar", {"weights.bar_g": 120.0}),
    Situation("weights", "very heavy", {"weights.middle_g": 900.0}),
    # Brace
    Situation("brace", "assumed"),
    Situation("brace", "measured from the back", {"bow.brace_height_in": 10.3, "bow.brace_reference": "back"}),
    Situation("brace", "below usual", {"bow.brace_height_in": 6.5}),
    Situation("brace", "above usual", {"bow.brace_height_in": 10.5}),
    Situation("brace", "within the maker's range", {"bow.brace_height_in": 8.5, "bow.maker_brace_low_in": 8.25,
                                                    "bow.maker_brace_high_in": 9.0}),
    Situation("brace", "below the maker's range", {"bow.brace_height_in": 7.5, "bow.maker_brace_low_in": 8.25,
                                                   "bow.maker_brace_high_in": 9.0}),
    Situation("brace", "heard on two days", {"bow.brace_height_in": 8.5},
              (*(brace(h, 66 + 40 * (h - 8.6) ** 2, day="2026-01-02") for h in (8.2, 8.6, 9.0)),
               brace(8.5, 60.0, heard_by="recording", day="2026-01-24"))),
    Situation("brace", "a string whose turns are known",
              {"bow.brace_height_in": 8.5, "string.length_in": 65.0, "string.twists": 20}),
    Situation("brace", "a string that cannot give it",
              {"bow.brace_height_in": 8.5, "string.length_in": 68.0}),
    Situation("brace", "first listened to", {"bow.brace_height_in": 8.5}, (brace(8.5, 80.0, 80.5, 79.8),)),
    Situation("brace", "quietest in the middle", {"bow.brace_height_in": 8.5},
              tuple(brace(h, *(66 + 40 * (h - 8.6) ** 2 + e for e in (0.3, -0.3, 0.1)), day="2026-01-20")
                    for h in (8.1, 8.3, 8.5, 8.6, 8.7, 8.8, 9.0))),
    Situation("brace", "two sources apart", {"bow.brace_height_in": 8.5},
              (brace(8.2, 80.0, 80.3, day="2026-01-20"),
               brace(8.8, 40.0, 40.3, heard_by="recording", day="2026-01-20"))),
    Situation("brace", "a wide group", {"bow.brace_height_in": 8.5},
              tuple(brace(h, 75.0, group_cm=g, day="2026-01-20")
                    for h, g in ((8.2, 5.0), (8.4, 6.0), (8.6, 5.0), (8.8, 60.0)))),
    Situation("brace", "the simulated recorder", {"bow.brace_height_in": 8.5},
              (brace(8.5, 80.0, 80.5, heard_by="simulated", day="2026-01-20"),)),
    Situation("brace", "heard half a year ago", {"bow.brace_height_in": 8.5},
              tuple(brace(h, 80.0 + 20 * (h - 8.6) ** 2) for h in (8.2, 8.6, 9.0)),
              now="2026-08-01T10:00:00+00:00"),
    # Nock point: three under starts between 8 and 16 mm
    Situation("nock-point", "nothing set"),
    Situation("nock-point", "by eye", {"nocking.school": "by_eye"}),
    Situation("nock-point", "ordinary", {"nock_height_mm": 16.0}),
    Situation("nock-point", "reads that never agree", {"nock_height_mm": 12.0},
              tuple(tail(h, t) for h, t in ((5.0, "high"), (20.0, "low"), (5.0, "low"), (20.0, "high"),
                                            (12.0, "low"), (12.0, "high"), (8.0, "high"), (16.0, "low")))),
    Situation("nock-point", "low", {"nock_height_mm": 1.0}),
    Situation("nock-point", "high", {"nock_height_mm": 30.0}),
    Situation("nock-point", "a tail that stood low", {"nock_height_mm": 9.0}, (tail(9.0, "low"),)),
    Situation("nock-point", "a tail that stood high", {"nock_height_mm": 12.0}, (tail(12.0, "high"),)),
    Situation("nock-point", "level, and read twice", {"nock_height_mm": 10.0},
              (tail(7.0, "low"), tail(14.0, "high"), tail(10.0, "level"), tail(10.0, "level"),
               tail(8.5, "low"), tail(12.0, "high"), tail(10.0, "level"))),
    Situation("nock-point", "found elsewhere", {"nock_height_mm": 16.0},
              (tail(7.0, "low"), tail(14.0, "high"), tail(10.0, "level"), tail(10.0, "level"),
               tail(8.5, "low"), tail(12.0, "high"), tail(10.0, "level"))),
    Situation("nock-point", "crawls read", CRAWLS | {"nock_height_mm": 10.0},
              (tail(10.0, "level", crawl_mm=30.0), tail(10.0, "level", crawl_mm=90.0))),
    Situation("nock-point", "only small crawls read", CRAWLS | {"nock_height_mm": 10.0},
              (tail(10.0, "level", crawl_mm=5.0),)),
    Situation("nock-point", "weight in the lower pocket", {"weights.lower_pocket_g": 60.0}),
    Situation("nock-point", "weight in the upper pocket", {"weights.upper_pocket_g": 60.0}),
    Situation("nock-point", "a tight arrow nock", {"nocking.fit": "tight"}),
    Situation("nock-point", "a loose arrow nock", {"nocking.fit": "loose"}),
    Situation("nock-point", "a snug arrow nock, grip marked", {"nocking.fit": "snug", "nocking.grip_line": "line"}),
    Situation("nock-point", "a loose arrow nock on a thumb", THUMB | {"nocking.fit": "loose"}),
    Situation("nock-point", "a tiller far off", CRAWLS, (tiller(192, 180),)),
    Situation("nock-point", "a tiller far off the other way", CRAWLS, (tiller(170, 180),)),
    # Arrow
    Situation("arrow", "as it is"),
    Situation("arrow", "too light", {"arrow.grains_per_inch": 4.0, "arrow.point_gr": 60.0}),
    Situation("arrow", "too light by its maker's word", {"bow.maker_min_gpp": 14.0}),
    Situation("arrow", "too light with a heavy point", {"bow.maker_min_gpp": 20.0, "arrow.grains_per_inch": 5.0, "arrow.point_gr": 560.0, "bow.marked_weight_lbf": 42.0,
                                                        "arrow.static_spine": 300.0}),
    Situation("arrow", "perhaps too light", {"arrow.weighed_gr": 275.0, "arrow.static_spine": 500.0}),
    Situation("arrow", "a little under the floor", {"arrow.weighed_gr": 278.5, "arrow.static_spine": 500.0}),
    Situation("arrow", "perhaps a little under the floor", {"arrow.weighed_gr": 290.0, "arrow.static_spine": 500.0}),
    Situation("arrow", "stiff", {"arrow.static_spine": 300.0}),
    Situation("arrow", "weak", {"arrow.static_spine": 1200.0}),
    Situation("arrow", "too light and too weak", {"arrow.grains_per_inch": 4.0, "arrow.point_gr": 60.0,
                                                  "arrow.static_spine": 1400.0}),
    Situation("arrow", "an arrow too short", {"arrow.shaft_length_in": 27.5}),
    Situation("arrow", "an arrow hardly long enough", {"arrow.shaft_length_in": 28.1}),
    Situation("arrow", "weighed on an earlier build", {"arrow.point_gr": 150.0},
              (("arrow_weighing", {"mass_gr": 400}),), {"arrow.point_gr": 100.0, "arrow.weighed_gr": 400.0}),
    Situation("arrow", "outside the fit, thumb", THUMB),
    Situation("arrow", "outside the fit, thumb and weak", THUMB | {"arrow.static_spine": 1500.0}),
    Situation("arrow", "outside the fit, far short of centre", LONGBOW | {"bow.centre_cut_mm": -10.0}),
    Situation("arrow", "the over-stiff school, weak", LONGBOW | {"spine_school": "over_stiff",
                                                                 "arrow.static_spine": 900.0}),
    Situation("arrow", "the over-stiff school, stiff", LONGBOW | {"spine_school": "over_stiff",
                                                                  "arrow.static_spine": 300.0}),
    Situation("arrow", "one way shot", LONGBOW | {"spine_school": "over_stiff"},
              (way("left", "as_made", "as_made", 12.0),)),
    Situation("arrow", "ways that differ", LONGBOW | {"spine_school": "over_stiff"},
              (way("left", "as_made", "as_made", 8.0), way("left", "flipped", "as_made", 40.0),
               way("left", "as_made", "half_turned", 35.0), way("left", "flipped", "half_turned", 42.0))),
    Situation("arrow", "ways alike", LONGBOW | {"spine_school": "over_stiff"},
              (way("left", "as_made", "as_made", 20.0), way("left", "flipped", "as_made", 21.0),
               way("left", "as_made", "half_turned", 22.0), way("left", "flipped", "half_turned", 21.0))),
    Situation("arrow", "a cut begun", {"arrow.shaft_length_in": 31.0}, (shaft(31.0, "weak"),)),
    Situation("arrow", "a cut that flew straight", {"arrow.shaft_length_in": 30.5},
              (shaft(31.0, "weak"), shaft(30.5, "straight"))),
    Situation("arrow", "a cut to be copied", {"arrow.shaft_length_in": 30.5},
              (shaft(31.0, "weak"), shaft(30.5, "straight", 6), shaft(30.5, "straight", 6))),
    Situation("arrow", "a cut gone too far", {"arrow.shaft_length_in": 30.0},
              (shaft(31.0, "weak"), shaft(30.0, "stiff"))),
    Situation("arrow", "a cut at its end", {"arrow.shaft_length_in": 29.1, "arrow.static_spine": 900.0},
              (shaft(29.1, "weak"),)),
    Situation("arrow", "a stiff shaft that flew weak", {"arrow.shaft_length_in": 31.0,
                                                        "arrow.static_spine": 250.0}, (shaft(31.0, "weak"),)),
    Situation("arrow", "a taper lengthened", {"arrow.rear_taper_in": 4.0, "arrow.material": "wood"},
              (shaft(4.0, "stiff", tuned="rear_taper"),)),
    Situation("arrow", "a shaft that flies out", {},
              ends((0, 0), (1, 0), (30, 25), (0, 1), (1, 1), (0, 2))),
    Situation("arrow", "shafts alike", {}, ends((0, 0), (6, 5), (-5, 4), (4, -6), (-6, -3), (5, 2), ends=3)),
    Situation("arrow", "a chronograph, one weight", {"arrow.weighed_gr": 400.0},
              (("chronograph", {"mass_gr": 400, "speeds_fps": (165, 166, 165, 120)}),)),
    Situation("arrow", "a chronograph, two weights", {"arrow.weighed_gr": 400.0},
              (("chronograph", {"mass_gr": 400, "speeds_fps": (165, 166, 165)}),
               ("chronograph", {"mass_gr": 600, "speeds_fps": (139, 140, 139)}))),
    Situation("arrow", "a chronograph that no bow shot", {"arrow.weighed_gr": 400.0},
              (("chronograph", {"mass_gr": 400, "speeds_fps": (140, 140, 140)}),
               ("chronograph", {"mass_gr": 600, "speeds_fps": (165, 165, 165)}))),
    Situation("arrow", "a hunter", {"use": "close_cover"}),
    # Flight
    Situation("flight", "not read"),
    Situation("flight", "not read, stiff", {"arrow.static_spine": 300.0}),
    Situation("flight", "not read, weak", {"arrow.static_spine": 1100.0}),
    Situation("flight", "not read, no model", THUMB),
    Situation("flight", "not read, wood", {"arrow.material": "wood"}),
    Situation("flight", "one read, left nocks", {}, (read("kick_7_paces", nocks=(4, 4, 4)),)),
    Situation("flight", "one read, right nocks", {}, (read("kick_7_paces", nocks=(6, 6, 6)),)),
    Situation("flight", "one read, left-handed", {"archer.hand": "left"},
              (read("kick_7_paces", nocks=(4, 4, 4)),)),
    *(Situation("flight", f"{len(kicks)} reads of nocks {side}, spine {spine:.0f}", {"arrow.static_spine": spine},
                (*(read(test, nocks=(cell,) * 3) for test in kicks), read("felt_plate", "holds")))
      for spine in (450.0, 600.0, 850.0)
      for side, cell in (("left", 4), ("straight", 5), ("right", 6))
      for kicks in (("kick_7_paces", "kick_3_paces") * 2,)),
    Situation("flight", "a read that shows what a change should", {"arrow.static_spine": 600.0},
              (read("kick_7_paces", nocks=(4, 4, 4)), read("kick_3_paces", nocks=(4, 4, 4)),
               read("kick_7_paces", nocks=(5, 5, 5))), {"arrow.static_spine": 760.0}, 2),
    Situation("flight", "a read that shows what a change should not", {"arrow.static_spine": 600.0},
              (read("kick_7_paces", nocks=(4, 4, 4)), read("kick_3_paces", nocks=(4, 4, 4)),
               read("kick_7_paces", nocks=(6, 6, 6))), {"arrow.static_spine": 620.0}, 2),
    Situation("flight", "a bounce", {"arrow.static_spine": 300.0},
              (read("kick_7_paces", nocks=(6, 6, 6)), read("wear_marks", "yes"), read("slow_motion", "bounce"),
               read("clatter", "heard"))),
    Situation("flight", "a bounce, pushed", {"arrow.static_spine": 300.0},
              (read("kick_7_paces", nocks=(6, 6, 6)), read("wear_marks", "yes"),
               read("kick_3_paces", nocks=(4, 4, 4)), read("felt_plate", "swings"))),
    Situation("flight", "contact alone", {"arrow.static_spine": 400.0},
              (read("wear_marks", "yes"), read("slow_motion", "bounce"))),
    Situation("flight", "a weak look and contact", {"arrow.static_spine": 400.0},
              (read("kick_7_paces", nocks=(4, 4, 4)), read("wear_marks", "yes"),
               read("slow_motion", "bounce"))),
    Situation("flight", "something else touches", {"arrow.static_spine": 680.0},
              (read("kick_7_paces", nocks=(5, 5, 5)), read("wear_marks", "yes"))),
    Situation("flight", "right within a group", {"arrow.static_spine": 660.0},
              (*(read("kick_7_paces", nocks=(5, 5, 5)),) * 3, *(read("kick_3_paces", nocks=(5, 5, 5)),) * 3,
               read("bare_shaft_15m", "straight/level"), read("wear_marks", "no"),
               read("group_25m", "straight"), read("felt_plate", "holds"))),
    Situation("flight", "changed since it was read", {"arrow.static_spine": 400.0},
              (read("kick_7_paces", nocks=(6, 6, 6)), read("wear_marks", "no"),
               read("kick_7_paces", nocks=(6, 6, 6))), {"arrow.static_spine": 800.0}),
    Situation("flight", "a read against the others", {},
              (read("kick_7_paces", nocks=(5, 5, 5)), read("kick_3_paces", nocks=(5, 5, 5)),
               read("kick_7_paces", nocks=(6, 6, 6)))),
    Situation("flight", "one walk-back", {}, (walk(10, 0.0, 0.5),)),
    Situation("flight", "a walk-back, straight", {},
              (walk(5, 0.0, 0.2, -0.2), walk(15, 0.1, -0.1, 0.0), walk(25, 0.3, -0.2, 0.1))),
    Situation("flight", "a walk-back, slanting right", {},
              (walk(5, 1.0, 1.1, 0.9), walk(15, 9.0, 9.2, 8.8), walk(25, 18.0, 18.3, 17.7))),
    Situation("flight", "a walk-back, slanting left", {},
              (walk(5, -1.0, -1.1, -0.9), walk(15, -9.0, -9.2, -8.8), walk(25, -18.0, -18.3, -17.7))),
    Situation("flight", "a walk-back, bowed", {},
              (walk(5, 0.0, 0.1, -0.1), walk(15, 12.0, 12.2, 11.8), walk(25, 0.0, 0.3, -0.3))),
    # Quiet
    Situation("quiet", "nothing checked"),
    Situation("quiet", "quieter", {}, (quiet("loose", (80.0, 80.2, 79.8), (70.0, 70.2, 69.8)),)),
    Situation("quiet", "louder", {}, (quiet("loose", (70.0, 70.2, 69.8), (80.0, 80.2, 79.8)),)),
    Situation("quiet", "chance", {}, (quiet("loose", (70.0, 70.2, 69.8), (70.1, 70.2, 70.0)),)),
    Situation("quiet", "a tone that grew", {},
              (quiet("loose", (70.0, 70.2, 69.8), (70.1, 70.2, 70.0), tone_before_hz=400.0,
                     tone_before_db=20.0, tone_after_hz=400.0, tone_after_db=20.0),
               quiet("dampers", (70.0, 70.2, 69.8), (70.1, 70.2, 70.0), tone_before_hz=400.0,
                     tone_before_db=40.0, tone_after_hz=400.0, tone_after_db=40.0))),
    Situation("quiet", "looked and found nothing", {}, (("quiet", {"check": "loose"}),)),
    # Aim
    Situation("crawls", "crawls, not shot", CRAWLS),
    Situation("crawls", "crawls counted by marks", CRAWLS | {"aim.counted_by": "marks"}),
    Situation("crawls", "crawls counted by fingers", CRAWLS | {"aim.counted_by": "fingers"}),
    Situation("crawls", "a chart learnt from shots", CRAWLS,
              (visit(10, 1.0, -1.0, 0.5, crawl=90.0), visit(30, 2.0, -2.0, 1.0, crawl=55.0),
               visit(45, 3.0, -4.0, 1.0, crawl=25.0))),
    Situation("crawls", "shots that ask for another eye", CRAWLS,
              (visit(10, -30.0, -31.0, -29.0, crawl=90.0), visit(30, -90.0, -92.0, -88.0, crawl=55.0))),
    Situation("crawls", "known before", CRAWLS,
              (("aim_known", {"known": "point_on", "distance_m": 45, "doubt_m": 2}),)),
    Situation("crawls", "a gap known before", {"archer.release": "split"},
              (("aim_known", {"known": "gap", "distance_m": 20, "gap_cm": 40, "doubt_cm": 10}),)),
    Situation("crawls", "no crawl allowed", {"archer.release": "three_under", "aim.allowed": "none"}),
    Situation("crawls", "one crawl", {"archer.release": "three_under", "aim.allowed": "one",
                                      "aim.one_crawl_mm": 30.0}),
    Situation("crawls", "one crawl far off", {"archer.release": "three_under", "aim.allowed": "one",
                                              "aim.one_crawl_mm": 120.0}),
    Situation("crawls", "guesses that are true", CRAWLS,
              (("judging", {"guessed_m": (19, 26, 37, 21, 33, 14), "walked_m": (18, 27, 36, 22, 32, 14)}),)),
    Situation("crawls", "gaps shot", {"archer.release": "split"},
              (visit(10, 5.0, 4.0, 6.0), visit(20, 1.0, -2.0, 1.0))),
    Situation("crawls", "a slow arrow and a high eye", CRAWLS | {"archer.eye_above_nock_mm": 180.0}),
    Situation("crawls", "gaps, a fast arrow and a high eye", {"archer.release": "split",
              "archer.eye_above_nock_mm": 190.0, "bow.marked_weight_lbf": 60.0}),
    Situation("crawls", "only far distances", CRAWLS | {"aim.distances_m": (55.0, 60.0)}),
    Situation("crawls", "split finger", {"archer.release": "split"}),
    Situation("crawls", "thumb", THUMB),
    Situation("crawls", "uphill", CRAWLS | {"aim.slope_deg": 20.0}),
    Situation("crawls", "guesses too far", CRAWLS,
              (("judging", {"guessed_m": (22, 33, 44, 27, 39, 17), "walked_m": (18, 27, 36, 22, 32, 14)}),)),
    Situation("crawls", "guesses too near", CRAWLS,
              (("judging", {"guessed_m": (18, 27, 36, 22, 32, 14), "walked_m": (22, 33, 44, 27, 39, 17)}),)),
)  # fmt: skip
