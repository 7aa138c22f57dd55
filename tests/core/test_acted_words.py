"""Words by which an archer acts, each against a case made by hand: left, up, more, out …"""

import re

import pytest
from situations import LONGBOW, THUMB
from test_shaft import kept
from test_stations import LEFT_HYBRID

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig
from lyrandis.core.stations import views
from lyrandis.core.trials import KINDS, NumberedTrial
from lyrandis.core.trials.numbered import Landing


def said(station, changes):
    """All that a station says of the first rig with some changes."""
    view = next(v for v in views(Bench(changed(Rig(), changes))) if v.station == station)
    told = [view.answer, *(f.said for f in view.findings)]
    told += [f.action.label for f in view.findings if f.action]
    return " ".join(t.plain() for t in told)


CASES = [
    # A 68 in recurve stands at 8 1/2 in; usual is 8 to 9.
    ("brace", {"bow.brace_height_in": 6.5}, "below what is usual", "above what is usual"),
    ("brace", {"bow.brace_height_in": 10.5}, "above what is usual", "below what is usual"),
    ("brace", {"bow.brace_height_in": 8.5}, "more brace stores", "longer"),
    # The plate on a longbow's window: cut 5 mm short of centre, or past it.
    ("centre-shot", LONGBOW | {"bow.centre_cut_mm": -5.0}, "short of centre", "past centre"),
    ("centre-shot", LONGBOW | {"bow.centre_cut_mm": 5.0, "bow.side_plate_mm": 1.0},
     "past centre", "short of centre"),
    # A plunger far out is brought in, and one behind the string out.
    ("centre-shot", {"bow.side_plate": "plunger", "bow.centre_cut_mm": 4.0, "bow.side_plate_mm": 0.0},
     "farther in than an ordinary start", "farther out than an ordinary start"),
    ("centre-shot", {"bow.side_plate": "plunger", "bow.centre_cut_mm": 4.0, "bow.side_plate_mm": 0.0},
     "Bring the plunger 2.3 mm out.", "mm in."),
    ("centre-shot", {"bow.side_plate": "plunger", "bow.centre_cut_mm": -6.0,
                     "bow.side_plate_mm": 6.0}, "farther out than an ordinary start", "farther in than"),
    # What a heavier limb below does to the nock point: down; above: up.
    ("weight", {"limbs.upper_lbf": 36.0, "limbs.lower_lbf": 36.8},
     "The lower limb is", "higher."),
    ("weight", {"limbs.upper_lbf": 36.8, "limbs.lower_lbf": 36.0},
     "The upper limb is", "lower."),
    # Bolts turned out make a bow lighter; the one that is further out gives its limb less work.
    ("weight", {"limbs.upper_turns": 3.0, "limbs.lower_turns": 3.0}, "lighter", "heavier"),
    ("weight", {"limbs.upper_turns": 2.0, "limbs.lower_turns": 0.0},
     "upper bolt is 2 turns further out: tiller goes up, the lower limb works harder", "goes down"),
    ("weight", {"limbs.upper_turns": 0.0, "limbs.lower_turns": 2.0},
     "lower bolt is 2 turns further out: tiller goes down, the upper limb works harder", "goes up"),
    # A 68 in bow takes a string of about 65.
    ("string", {"string.length_in": 67.5}, "longer than is usual", "shorter than is usual"),
    ("string", {"string.length_in": 62.0}, "shorter than is usual", "longer than is usual"),
    ("string", {"string.length_in": 67.5}, "less string for the brace", "more string for the brace"),
    ("string", {"string.length_in": 62.0}, "more string for the brace", "less string for the brace"),
    ("weights", {"weights.upper_pocket_g": 60.0}, "upper pocket alone slows that limb, wants a lower",
     "a higher"),
    ("weights", {"weights.lower_pocket_g": 60.0}, "lower pocket alone slows that limb, wants a higher",
     "a lower"),
    ("nock-point", {"nock_height_mm": 1.0}, "lower than ordinary", "higher than ordinary"),
    ("nock-point", {"nock_height_mm": 30.0}, "higher than ordinary", "lower than ordinary"),
    # Beside a 36 lb recurve a shaft of 300 hardly bends, one of 1200 like a reed.
    ("arrow", {"arrow.static_spine": 300.0}, "looks stiff", "looks weak"),
    ("arrow", {"arrow.static_spine": 1200.0}, "looks weak", "looks stiff"),
    # A bow drawn to where it is long since stacking, and one far from it.
    ("bow-length", {"bow.length_in": 58.0, "bow.riser_in": 21.0}, "before your draw",
     "beyond your draw"),
    ("bow-length", {"bow.length_in": 70.0}, "beyond your draw", "before your draw"),
    ("draw", {"arrow.shaft_length_in": 27.0}, "shorter than your longest draw",
     "longer than your longest draw"),
]  # fmt: skip


@pytest.mark.parametrize(("station", "changes", "says", "never"), CASES)
def test_it_says_the_right_one(station, changes, says, never):
    text = said(station, changes)
    assert says in text, text
    assert never not in text, text


def shorter_mm(changes):
    """How much shorter the brace page says the string must be for a quarter inch more."""
    return float(re.search(r"needs the string ([\d.]+) mm shorter", said("brace", changes))[1])


@pytest.mark.parametrize(
    ("changes", "brace_per_string"),
    # 50 lb bows with a low-stretch string, each by its own form's reference length
    [({"bow.length_in": 68}, 1.20), (LONGBOW, 1.20), (LEFT_HYBRID, 1.34)],
)
def test_a_quarter_inch_more_brace_needs_so_much_less_string(changes, brace_per_string):
    told = shorter_mm(changes | {"bow.marked_weight_lbf": 50.0, "string.material": "low_stretch"})
    assert told == pytest.approx(0.25 * 25.4 / brace_per_string, rel=0.04)


def test_where_up_and_down_differ_the_brace_page_says_which_is_which():
    """On a static-tip bow whose string just lifts off the levers' corner."""
    for brace in range(50, 80):
        changes = THUMB | {"bow.brace_height_in": brace / 10}
        effect = Bench(changed(Rig(), changes)).brace.effect
        if effect.two_valued:
            text = said("brace", changes)
            longer = float(re.search(r"lets it be ([\d.]+) mm longer", text)[1])
            assert shorter_mm(changes) == pytest.approx(-effect.string_up_in * 25.4, abs=0.06)
            assert longer == pytest.approx(effect.string_down_in * 25.4, abs=0.06)
            return
    raise AssertionError("no such brace")


SAID_OF_TRIALS = [
    ("nock_read", {"height_mm": 12.7, "tail": "low", "arrows": 2}, "1/2 in: tail low, 2 arrows"),
    ("nock_read", {"height_mm": 12.7, "tail": "level", "arrows": 1}, "1/2 in: level, 1 arrow"),
    ("nock_read",
     {"height_mm": 12.7, "tail": "high", "arrows": 1, "shaft": "bare", "distance_m": 10.0,
      "crawl_mm": 20.0},
     "1/2 in: tail high, 1 bare shaft at 10.0 m with 20 mm of crawl"),
    ("walk_back", {"distance_m": 20.0, "offsets_cm": (3.0, 5.0)},
     "2 arrows at 20.0 m: on average 4.0 cm right of the line"),
    ("walk_back", {"distance_m": 20.0, "offsets_cm": (-4.0,)},
     "1 arrow at 20.0 m: on average 4.0 cm left of the line"),
    ("in_line", {"upper_mm": 3.0, "lower_mm": -1.0, "riser_mm": 0.0},
     "string 3.0 mm right of the upper mark, 1.0 mm left of the lower mark, over the riser's "
     "middle"),
]  # fmt: skip


@pytest.mark.parametrize(("kind", "fields", "says"), SAID_OF_TRIALS)
def test_a_trial_says_what_was_seen(kind, fields, says):
    assert KINDS[kind](**fields).said().plain() == says


@pytest.mark.parametrize(
    ("right_cm", "up_cm", "where"),
    [(20, 15, ("right", "high")), (-20, -15, ("left", "low")), (-20, 15, ("left", "high"))],
)
def test_where_the_shaft_that_flies_out_lands(right_cm, up_cm, where):
    """Six shafts, four ends; the third lies far off on one side each time."""
    ends = [
        NumberedTrial(
            distance_m=30,
            landings=tuple(
                Landing(number=n, right_cm=(n * e) % 3 - 1 + right_cm * (n == 3),
                        up_cm=(n + e) % 3 - 1 + up_cm * (n == 3))
                for n in range(1, 7)
            ),
        )
        for e in range(1, 5)
    ]  # fmt: skip
    (view,) = views(Bench(Rig(), kept(Rig(), *ends)), ["arrow"])
    text = " ".join(f.said.plain() for f in view.findings)
    said_of_it = re.search(r"Shaft 3 flies out, [\d.]+ cm (\w+) and [\d.]+ cm (\w+)", text)
    assert said_of_it, text
    assert said_of_it.groups() == where
