"""String: length, strands and material for this bow."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say, stop
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.recalling import recall
from lyrandis.core.string.measures import MASS_SD_SHARE
from lyrandis.core.string.settling import SETTLED_IN
from lyrandis.core.tune.brace import ODD_STRING_IN
from lyrandis.core.units import MM_PER_IN
from lyrandis.core.words import word

_AGREES_IN = 0.75  # of string: what model and tape may differ by
NEEDED_SD_IN = 0.5
_STRANDS_OFF = 2


def _length_in(b: Bench) -> float:
    """The string's length [in]: the one set, else what the bow needs."""
    return b.rig.string.length_in or b.string.fit.needed_length_in


def note(b: Bench) -> Said:
    """Its length."""
    return say("{length}", length=("bow_length", _length_in(b)))


def tell(b: Bench) -> Answer:
    """Which string, and how it fits at the present brace height."""
    s, fit = b.rig.string, b.string.fit
    weighed = b.recalled.get("string.mass_gr")
    mass, mass_sd = fit.mass_gr, MASS_SD_SHARE * fit.mass_gr
    if weighed is not None:
        mass, mass_sd = weighed.now.value, weighed.now.plus_minus
    length = _length_in(b)
    answer = say(
        f"A {{length}} string of {s.strands} {word('string.material', s.material)} strands, {{mass}}; braced, it "
        "carries {tension}.",
        length=("bow_length", length),
        mass=("mass", mass) if s.mass_gr is not None else ("mass", mass, mass_sd),
        tension=("weight", fit.tension_lbf),
    )
    findings = [
        *material(b),
        *put_on(b),
        *_length(b),
        *strands(b),
        *recall(b, "string.mass_gr"),
        *_settle(b),
    ]
    return Answer(answer, findings)


def material(b: Bench) -> list[Finding]:
    """Whether the bow bears the string's fibre."""
    if b.rig.string.material != "low_stretch":
        return []
    rated = b.rig.bow.low_stretch_rated
    why = say(
        "Low-stretch fibre stops the limbs hard; tips not built for it split. Only the maker knows."
    )
    if rated == "yes":
        return [
            fine(
                said=say("The bow is built for low-stretch fibre."),
                why=why,
                told="maker",
            )
        ]
    return [
        Finding(
            level="stop" if rated == "no" else "mind",
            said=say(
                "This bow is not built for low-stretch fibre. Do not shoot it so."
                if rated == "no"
                else "Nobody has said that this bow is built for low-stretch fibre. Ask the maker first."
            ),
            why=why,
            told="maker" if rated == "no" else "practice",
            action=Action(label=say("Take polyester"), changes={"string.material": "polyester"}),
        )
    ]


def _length(b: Bench) -> list[Finding]:
    bow, fit, length = b.rig.bow, b.string.fit, b.rig.string.length_in
    found = []
    why = say(
        "By the bow model: for a brace height of {brace} the string measures {needed} under tension.",
        brace=("brace", b.brace.height.to_pivot_in),
        needed=("bow_length", fit.needed_length_in),
    )
    if length is None:
        worked = b.rig.string.worked_in is not None
        found.append(
            fine(
                said=say(
                    (
                        "The one that worked was"
                        if worked
                        else "Ordered by the bow's length it would be"
                    )
                    + " {usual}; the model asks {needed} for your "
                    "brace height." + ("" if worked else " Measure a string that worked."),
                    usual=("bow_length", fit.usual_length_in),
                    needed=("bow_length", fit.needed_length_in, NEEDED_SD_IN),
                ),
                why=why,
                told="model",
                action=Action(
                    label=say("Take {usual}", usual=("bow_length", fit.usual_length_in)),
                    changes={"string.length_in": fit.usual_length_in},
                ),
            )
        )
        return found
    off = length - fit.needed_length_in
    odd = abs(length - fit.usual_length_in) > ODD_STRING_IN
    if odd:
        found.append(
            mind(
                said=say(
                    "This string is {off} "
                    + ("longer" if length > fit.usual_length_in else "shorter")
                    + " than is usual for a {bow} bow.",
                    off=("bow_length", abs(length - fit.usual_length_in)),
                    bow=("bow_length", bow.length_in),
                ),
                why=why,
                told="rule",
            )
        )
    if abs(off) > _AGREES_IN:
        found.append(
            mind(
                said=say(
                    "The model wants {off} "
                    + ("less" if off > 0 else "more")
                    + " string for the brace height you set. Measure both again.",
                    off=("bow_length", abs(off)),
                ),
                why=why,
                told="model",
            )
        )
    if not found:
        found.append(
            fine(
                said=say(
                    "The length agrees with your brace height to {off}.",
                    off=("bow_length", abs(off)),
                ),
                why=why,
                told="model",
            )
        )
    return found


def strands(b: Bench) -> list[Finding]:
    """Whether the strands are as many as the weight wants."""
    have, usual = b.rig.string.strands, b.string.fit.usual_strands
    why = say(
        "Too many strands are slow and dull; too few are thin, loud and unsafe. Trade habit by weight; the fibre's maker knows better."
    )
    if have < usual - _STRANDS_OFF:
        return [
            stop(
                said=say(f"{have} strands are too few for this weight; {usual} are usual."),
                why=why,
                told="practice",
                action=Action(
                    label=say(f"Take {usual} strands"), changes={"string.strands": usual}
                ),
            )
        ]
    if abs(have - usual) > _STRANDS_OFF:
        return [
            mind(
                said=say(
                    f"{usual} strands are usual for this weight; {have} are slower and duller."
                ),
                why=why,
                told="practice",
                action=Action(
                    label=say(f"Take {usual} strands"), changes={"string.strands": usual}
                ),
            )
        ]
    return [fine(said=say(f"{have} strands suit this weight."), why=why, told="practice")]


def _set_brace(b: Bench, brace_in: float) -> Action | None:
    """Set the brace where a settled string stands, to what a bow square reads."""
    read = round(brace_in * _SQUARE) / _SQUARE
    if abs(read - b.brace.height.brace_in) < 1 / _SQUARE:
        return None
    return Action(
        label=say("Set {brace}", brace=("brace", read)), changes={"bow.brace_height_in": read}
    )


_SQUARE = 16  # parts of an inch that a bow square is read to


def put_on(b: Bench) -> list[Finding]:
    """The brace that a string just put on should give, until it was measured."""
    told = b.string.another
    if told is None:
        return []
    brace = ("brace", told.brace_in, told.sd_in)
    if told.learnt is None:
        said = say(
            "Not measured on this bow yet: by its length it should brace at about {brace}. Measure "
            "it now, and again after a night braced.",
            brace=brace,
        )
    else:
        said = say(
            "Put on again: by what it gave on {day} it should brace at about {brace} with its turns "
            "as they are. Measure it before you shoot.",
            brace=brace,
            day=told.learnt.day,
        )
    return [
        mind(
            said=said,
            why=say(
                "A string brings its turns and its settling along. Another brace height moves nock "
                "point, arrow and crawls: these are due until they were looked at."
            ),
            told="model",
        )
    ]


def _settle(b: Bench) -> list[Finding]:
    why = say(
        "A new stretchy string creeps by up to half an inch of length in a day. Use a stringer: step-through stringing twists limbs and hurts people."
    )
    settling = b.string.settling if b.rig.string.material != "natural" else None
    if settling is not None:
        end, (low, high) = ("brace", settling.final_brace_in), settling.band_in
        how = say(
            "Many kinds of creep, fast and slow, weighed by your readings: after a fortnight it "
            "stands between {low} and {high} in nine of ten. Settled is what the next day moves by "
            "less than {step}.",
            low=("brace", low),
            high=("brace", high),
            step=("small", SETTLED_IN * MM_PER_IN),
        )
        if not settling.explained:
            return [
                mind(
                    said=say(
                        "No creep explains these readings. Measure again, to the same place on the "
                        "bow, and take back a reading that was misread."
                    ),
                    why=say("A string under tension only gets longer, ever more slowly."),
                    told="model",
                )
            ]
        if settling.settled:
            return [
                fine(
                    said=say(
                        "The string has settled: the next day moves it by less than {step}. After a "
                        "fortnight braced it stands at {end}.",
                        step=("small", SETTLED_IN * MM_PER_IN),
                        end=end,
                    ),
                    why=how,
                    told="measured",
                    action=_set_brace(b, settling.final_brace_in.value),
                )
            ]
        after = settling.settled_after_h
        when = (
            say("It may take more than a fortnight.")
            if after is None
            else say("It should have settled after {hours} braced.", hours=("hours", after))
        )
        return [
            mind(
                said=say(
                    "The string still settles: after a fortnight braced it stands at {end}.",
                    end=end,
                )
                + when
                + say("Measure next at {look}.", look=("hours", settling.next_look_h)),
                why=how,
                told="model" if len(b.string.settling_run) < 2 else "measured",
            )
        ]
    if b.rig.string.material == "low_stretch":
        return []
    return [
        mind(
            said=say("When it is new, leave it braced overnight before you set the brace height."),
            why=why,
            told="practice",
        )
    ]
