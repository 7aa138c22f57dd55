"""The arrow's words."""

from __future__ import annotations

from lyrandis.core.terms.chapters import THE_ARROW as _ARROW
from lyrandis.core.terms.term import Term, say, school, term

ARROW: tuple[Term, ...] = (
    term(
        "shaft", "shaft", _ARROW,
        "The arrow's body.",
        "From the throat of the arrow nock to the back of the point.",
        "draw", ("arrow.shaft_length_in", "arrow.material"),
        (
            school("nock to point's back", "The shaft alone: used here.", "shaft-length"),
            school("nock to tip", "The whole arrow with its point.", "arrow-length"),
        ),
    ),
    term(
        "arrow-nock", "arrow nock", _ARROW,
        "The slotted piece at the arrow's end that clips on the string.",
        None, "mass", ("arrow.nock_gr",),
    ),
    term(
        "point", "point", _ARROW, "The arrow's head. A heavier one makes the arrow act weaker.",
        "On a grain scale.", "mass", ("arrow.point_gr",),
    ),
    term(
        "insert", "insert", _ARROW,
        "The piece in a hollow shaft that takes the point.",
        "On a grain scale.", "mass", ("arrow.insert_gr",),
    ),
    term(
        "fletching", "fletching", _ARROW,
        "The feathers or vanes that steer the arrow.",
        "All of them together on a grain scale.", "mass",
        ("arrow.fletching_gr", "arrow.fletching_count"),
    ),
    term(
        "arrow-weight", "arrow weight", _ARROW,
        "What the finished arrow weighs.",
        "The whole arrow on a grain scale; the sum of its parts only guesses it.",
        "mass", ("arrow.weighed_gr", "arrow.grains_per_inch"),
    ),
    term(
        "grains-per-pound", "grains per pound", _ARROW,
        "The finished arrow's weight divided by the weight at your draw. Too few, and what the "
        "arrow does not take shakes the bow.",
        None, "gpp", ("bow.maker_min_gpp",),
    ),
    term(
        "static-spine", "static spine", _ARROW,
        say(
            "How far a shaft sags in a test at rest. A larger number is a weaker shaft: {more} "
            "sags more than {less}.", more=("spine", 600), less=("spine", 500),
        ),
        say(
            "In thousandths of an inch at the middle, over {span}, under {load}.",
            span=("draw", 28), load=("weight", 1.94),
        ),
        "spine", ("arrow.static_spine",),
        (
            school(
                "wide stand",
                say("Over {span} under {load}, told as the sag: used here.",
                    span=("draw", 28), load=("weight", 1.94)),
            ),
            school(
                "narrow stand",
                say("Over {span} under {load}, told as pounds: the bow weight a wooden shaft is "
                    "sold for.", span=("draw", 26), load=("weight", 2)),
            ),
        ),
    ),
    term(
        "dynamic-spine", "dynamic spine", _ARROW,
        "How weak or stiff an arrow acts from this bow: its static spine together with length, "
        "point, string, brace height, side plate and release. It is seen in flight, and has no "
        "number of its own.",
        "By bare shafts, nock kick and a far shot, proved by pushing it both ways.",
    ),
    term(
        "balance-point", "balance point", _ARROW,
        "Where the finished arrow balances.",
        "On an edge, from the arrow nock's throat.",
        "draw",
    ),
    term(
        "front-of-centre", "front of centre", _ARROW,
        "How far the balance point lies before the shaft's middle, as a share of its length.",
        None, "percent",
    ),
    term(
        "shaft-diameter", "shaft diameter", _ARROW,
        "How thick the shaft is.",
        "With callipers, at the middle.", "small", ("arrow.diameter_mm",),
    ),
    term(
        "porpoising", "porpoising", _ARROW,
        "The arrow's tail goes up and down in flight. It is the nock point's fault, not spine's.",
    ),
)  # fmt: skip
