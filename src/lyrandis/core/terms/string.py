"""The string's words."""

from __future__ import annotations

from lyrandis.core.terms.chapters import THE_STRING as _STRING
from lyrandis.core.terms.term import Term, school, term

STRING: tuple[Term, ...] = (
    term(
        "string", "string", _STRING,
        "What drives the arrow: a bundle of strands with a loop at each end.",
    ),
    term(
        "strand", "strand", _STRING,
        "One thread of the bundle. More strands: stronger, heavier, slower.",
        None, "count", ("string.strands",),
    ),
    term(
        "string-length", "string length", _STRING,
        "How long the string is, twisted as it is shot.",
        "Loop to loop under tension.",
        "bow_length", ("string.length_in", "string.worked_in"),
    ),
    term(
        "loop", "loop", _STRING,
        "The eye at each end that sits in the limb nock; the bigger one goes on the upper limb.",
        fields=("string.build",),
    ),
    term(
        "serving", "serving", _STRING,
        "Thread wound round the string where arrow, fingers and tips wear it.",
    ),
    term(
        "nock-point", "nock point", _STRING,
        "The place on the string where the arrow goes, marked by a thread or a ring above it, or "
        "above and below.",
        "With a bow square: from square at the rest to the underside of the arrow nock.",
        "nock_height", ("nock_height_mm",),
        (
            school("by the square", "Measured from square at the rest: used here.",
                   "nock-by-square"),
            school("by the eye", "Begun with the arrow level, then moved by what the flight shows, "
                   "and tied when it leaves clean. Nothing is measured.", "nock-level"),
        ),
    ),
    term(
        "twist", "twist", _STRING,
        "A full turn put into the string. It shortens the string and so raises the brace height; "
        "each further turn does more than the one before.",
        "Counted while the string is off one limb.",
        "turns", ("string.twists",),
    ),
    term(
        "settling", "settling", _STRING,
        "What a new string does: it grows longer under its load for hours or days, and the brace "
        "height falls.",
        "Brace height at once, after some hours, and the next morning.",
        "brace",
    ),
    term(
        "silencer", "silencer", _STRING,
        "Something soft on the string that takes its hum. Its weight costs speed.",
        "All of them together on a grain scale; place: 0 at the arrow nock, 1 at the limb nock.",
        "mass", ("string.silencers_gr", "string.silencer_position"),
    ),
    term(
        "string-weight", "string weight", _STRING,
        "What the whole string weighs. About a third of it moves with the arrow.",
        "On a grain scale, without silencers.",
        "mass", ("string.mass_gr",),
    ),
    term(
        "low-stretch", "low-stretch fibre", _STRING,
        "A fibre that hardly gives: fast, and hard on a bow that was not built for it.",
        "Ask the maker of the bow; never guess.",
        None, ("string.material", "bow.low_stretch_rated"),
    ),
)  # fmt: skip
