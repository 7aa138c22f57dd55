"""The words beside the stations' stand on docs/words.md: options, tools, steps, reads, trials, schools.

The page is what counts: a word that differs from it fails. `python tests/core/test_words_page.py`
writes it anew; what changed there is read line by line.
"""

from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest
from situations import LONGBOW, SITUATIONS, THUMB
from test_from_rack import ARROWS, ASKING, BOW, STRING, held, lie, mark

from lyrandis.core.assembly import steps_for
from lyrandis.core.bench import Bench
from lyrandis.core.bench.movers import what_moves
from lyrandis.core.bench.what_if import usual_others
from lyrandis.core.fields import changed
from lyrandis.core.flight.read_tests import TESTS
from lyrandis.core.flight.read_words import HOW, TITLES, outcome_words
from lyrandis.core.from_rack import rack_fit, rig_of
from lyrandis.core.inspection import PLACES
from lyrandis.core.part_story import described, size_in
from lyrandis.core.parts import (
    ArcherPart,
    ArrowSet,
    BowPart,
    LimbPart,
    Part,
    Rig,
    RiserPart,
    StringPart,
)
from lyrandis.core.route import ROUTES
from lyrandis.core.route.tools import TOOLS
from lyrandis.core.schedule import schedule
from lyrandis.core.tally import tally
from lyrandis.core.trials import KINDS
from lyrandis.core.tune.quiet import CHECKS
from lyrandis.core.units import QUANTITIES, UNITS
from lyrandis.core.words import WORDS

PAGE = Path(__file__).parents[2] / "docs/words.md"
HEAD = """# Words beside the stations'

What the options of a setting are called, which tools a station asks for, how a bow is put together
and looked over, what each read is called from behind the bow, and what trials, schools and the
schedule say of rigs made by hand (those of [the stations' sentences](sentences.md)).

"""
BOWS = {"recurve": {}, "longbow": LONGBOW, "thumb bow": THUMB}


def _options():
    for path, options in WORDS.items():
        yield f"{path}: " + ", ".join(f"{option} “{word}”" for option, word in options.items())


def _tools():
    for station, tools in TOOLS.items():
        for tool in tools:
            yield f"{station}: {tool.name}; without it: {tool.without}"


def _steps():
    for name, changes in BOWS.items():
        for step in steps_for(changed(Rig(), changes).bow):
            yield f"{name}, {step.place}: {step.text} ({step.tool or 'by hand'}) {step.why}"


def _places():
    for place in PLACES.values():
        stop = ", a stop" if place.stop else ""
        yield f"{place.title}{stop}: {place.look} {place.means}"


def _reads():
    for test, read in TESTS.items():
        yield f"{TITLES[test]}: {HOW[test]} {read.arrows} arrows, {read.minutes} minutes"
        for outcome in read.outcomes:
            left, right = (outcome_words(test, outcome, side) for side in (True, False))
            told = left if left == right else f"{left}; arrow on the right: {right}"
            yield f"{TITLES[test]}, {outcome}: {told}"


OTHER_TRIALS = (
    ("arrows_shot", {"arrows": 1}),
    ("arrows_shot", {"arrows": 36}),
    ("clip", {"frames_a_second": 240, "tail": "bounce"}),
    ("clip", {"frames_a_second": 240, "tail": "clear", "by": "simulated"}),
    ("coach", {"weight_lbf": 30, "word": "Dr Ash"}),
    ("draw", {"method": "tape", "draw_length_in": 28, "plus_minus_in": 1, "readings_in": (28,)}),
    ("flight_read", {"test": "bare_shaft_15m", "outcome": "weak/low", "arrows": 1}),
    ("group", {"distance_m": 20, "by": "photo", "impacts": (
        {"right_cm": 3, "up_cm": -2}, {"right_cm": 9, "up_cm": 4, "shaft": "bare"})}),
    ("hold", {"weight_lbf": 30, "seconds": 10, "ended": "steady"}),
    ("inspection", {"looked": ("cracks", "layers")}),
    ("nock_read", {"height_mm": 9, "tail": "low", "arrows": 1, "shaft": "bare", "distance_m": 8}),
    ("release", {"places": ("cracks",), "word": "Bowyer Elm"}),
    ("shaft_read", {"tuned": "front_taper", "length_in": 4, "read": "weak", "arrows": 1}),
    ("weighing", {"readings": ((28, 36),), "scale": "typed"}),
    ("weighing", {"readings": ((20, 20), (28, 36)),
                  "scale": "file"}),
    ("aim_known", {"known": "crawl", "distance_m": 20, "crawl_mm": 60, "doubt_cm": 10}),
    ("aim_known", {"known": "two_numbers", "at_20m_fingers": 3, "per_10m_fingers": 1, "finger_mm": 18,
                   "doubt_cm": 10}),
    ("crawl_visit", {"distance_m": 20, "crawl_mm": 60, "heights_cm": (3,), "arrows": "sighters",
                     "counted_by": "marks", "counted": 12, "each_mm": 5}),
    ("marks", {"landed": ({"distance_m": 10, "crawl_mm": 90, "height_cm": 3},
                          {"distance_m": 30, "crawl_mm": 50, "height_cm": -4})}),
)  # fmt: skip


def _trials():
    asked = (trial for s in SITUATIONS for trial in s.trials)
    made = (KINDS[kind](**fields) for kind, fields in (*OTHER_TRIALS, *asked))
    yield from dict.fromkeys(
        f"{trial.kind}: {trial.said().plain()}. As a row: {trial.columns()}" for trial in made
    )


def _schools():
    for name, changes in BOWS.items():
        for draw in (26.0, 29.0):
            b = Bench(changed(Rig(), changes | {"archer.draw_length_in": draw}))
            for s in b.fit.schools:
                yield f"{name}, {draw:g} in, {s.school}, {s.verdict}: {s.why.plain()}"


def _moves():
    for name, changes in {
        "plunger": {"bow.side_plate": "plunger"},
        "leather": {"bow.side_plate": "leather"},
    }.items():
        b = Bench(changed(Rig(), changes))
        for moved in what_moves(b):
            yield f"{name}: {moved.said.plain()}"


def _others():
    rig = changed(Rig(), {"arrow.grains_per_inch": 10.0, "arrow.shaft_length_in": 30.0,
                          "arrow.point_gr": 100.0})  # fmt: skip
    for name, changes in usual_others(Bench(rig)).items():
        yield f"{name}: {changes}"


ASKED = ("a plan to go up, held", "a child", "pain", "still settling", "a crack found",
         "looked over months ago", "quietest in the middle", "a plan to go up, not held yet")  # fmt: skip


def _schedule():
    for situation in SITUATIONS:
        if situation.name in ASKED:
            for due in schedule(situation.bench(), []):
                last = f" Last {due.last.plain()}" if due.last else ""
                told = f"{due.title.plain()}: {due.why.plain()}{last}"
                yield f"{situation.name}, {due.station}, {due.when}: {told}"


def _tally():
    for name in ("as it is", "weighed on an earlier build", "held three times"):
        b = next(s for s in SITUATIONS if s.name == name).bench()
        for entry in tally(b):
            yield f"{name}: {entry.title}, {entry.value.value:.4g} {entry.value.quantity}, {entry.source}, {entry.station}"


def _units():
    for quantity in QUANTITIES.values():
        yield (
            f"{quantity.title}: kept in {UNITS[quantity.stored].label}, as {quantity.example:g}; "
            + (
                ", ".join(
                    f"{u.label} = {u.per_base:g}, {u.decimals} places, 1/{u.denominator}"
                    + (f", one is {u.one}" if u.one else "")
                    for u in (UNITS[id] for id in quantity.choices)
                )
            )
        )


PARTS = (
    Part(name="A bow", of=BowPart(form="hybrid", length_in=64, marked_weight_lbf=32)),
    Part(name="A riser", of=RiserPart(riser_in=25)),
    Part(name="A limb", of=LimbPart(which="upper", limb_class="medium", marked_weight_lbf=34)),
    Part(name="A limb of which little is known", of=LimbPart(which="unknown")),
    Part(name="A string", of=StringPart(length_in=61.25, strands=12, twists=20)),
    Part(name="A set", of=ArrowSet(shaft_length_in=29, static_spine=820)),
    Part(name="Ada", of=ArcherPart(draw_length_in=27)),
)


def _parts():
    for part in PARTS:
        yield f"{part.name}: {described(part).plain()}; {size_in(part)} in long"


def _rack():
    """Two bows for one who draws 27 in, with a string and a set of arrows."""
    short = BOW.model_copy(update={"length_in": 54, "marked_weight_lbf": 40})
    lying = [
        lie(1, BOW, "a long one"),
        lie(2, short, "a short one"),
        lie(3, STRING),
        lie(4, ARROWS),
    ]
    rig = rig_of(ASKING, {"bow": (mark(1), Part(name="b", of=BOW))})
    for name, known in (
        ("nothing held", ()),
        ("30 lb held", held(rig, *[(30, 14, "shaking")] * 3)),
    ):
        for build in rack_fit(replace(ASKING, trials=known), lying).builds:
            told = f"{name}, {build.parts[0].name}, {build.level}"
            yield f"{told}: {build.said.plain()}"
            for finding in build.findings:
                yield f"{told}, {finding.level}: {finding.said.plain()}"


CHAPTERS = {
    "Options": _options,
    "Tools": _tools,
    "Putting it together": _steps,
    "Looking it over": _places,
    "Reads": _reads,
    "Checks of quiet": lambda: (f"{c.title}: {c.do} {c.why} At {c.station}." for c in CHECKS),
    "Routes": lambda: (f"{name}: {', '.join(r.stops)}" for name, r in ROUTES.items()),
    "Trials": _trials,
    "Schools of length": _schools,
    "What moves the spine": _moves,
    "Other arrows": _others,
    "Parts": _parts,
    "From the rack": _rack,
    "Schedule": _schedule,
    "At the foot": _tally,
    "Units": _units,
}


def page():
    return HEAD + "\n".join(
        line
        for name, made in CHAPTERS.items()
        for line in (f"## {name}", "", *(f"- {told}" for told in made()), "")
    )


@cache
def kept():
    chapters = PAGE.read_text().split("\n## ")[1:]
    return {
        name: [line.removeprefix("- ") for line in rest.strip().splitlines()]
        for name, _, rest in (chapter.partition("\n") for chapter in chapters)
    }


@pytest.mark.parametrize("name", CHAPTERS, ids=[name.replace(" ", "-") for name in CHAPTERS])
def test_the_code_has_the_pages_words(name):
    assert list(CHAPTERS[name]()) == kept()[name]


if __name__ == "__main__":
    PAGE.write_text(page())
