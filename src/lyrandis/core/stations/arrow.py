"""Arrow: grains per pound against the floor, speed, balance, and the spine window."""

from __future__ import annotations

import math

import numpy as np

from lyrandis.core.arrow.shot import size_counts
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Grounds, Said, fine, joined, mind, say, stop
from lyrandis.core.flex.window import FIT_DIAMETER_MM, stiff_enough_spine
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.draw import short_of_the_draw
from lyrandis.core.stations.recalling import recall
from lyrandis.core.stations.shaft import carries, flyers, over_stiff, tuned, ways
from lyrandis.core.stations.speed import chronographed

_MOST_POINT_GR = 590.0  # heavier points are not made
_MOST_SHAFT_GPI = 20.0  # nor heavier shafts
_STEP_GR = 5.0
_MOST_POINT_STEP_GR = 150.0  # so much heavier a point is another arrow
_SPINE_STEP = 10.0  # finer than shafts are sorted
_OFF_THE_HAND_MM = 5.0  # with its plate so far short of centre a bow is shot off the hand


def note(b: Bench) -> Said:
    """Grains per pound."""
    return say("{gpp}", gpp=("gpp", b.arrow.shot.grains_per_pound))


def tell(b: Bench) -> Answer:
    """The arrow on this bow."""
    shot, mass = b.arrow.shot, b.arrow.build
    weighed = "weighed" if mass.measured else "after an earlier weighing"
    if not mass.measured and "arrow.weighed_gr" not in b.recalled:
        weighed = "from its parts"
    answer = say(
        f"{{mass}} {weighed} is {{gpp}} and leaves at about {{speed}}",
        mass=("mass", mass.mass_gr),
        gpp=("gpp", shot.grains_per_pound),
        speed=("speed", shot.speed_fps),
    )
    suits = b.arrow.window.spine_28in
    by_reads = b.rig.spine_school == "window" and b.shaft.is_read
    if b.rig.spine_school == "over_stiff":
        answer = answer.around("", ".")
    elif by_reads:
        flew = "it flies straight" if b.shaft.is_straight else "what flew decides its spine"
        answer = answer.around("", f"; {flew}.")
    elif suits is None:
        answer = answer.around("", "; no spine can be computed for it.")
    else:
        near = say("; a static spine near {spine} should leave cleanly.", spine=("spine", suits))
        answer = joined(answer, near)
    return Answer(
        answer,
        [
            floor(b),
            *short_of_the_draw(b),
            *recall(b, "arrow.weighed_gr"),
            *chronographed(b),
            *([] if by_reads else [spine(b)]),
            *tuned(b),
            *ways(b),
            *flyers(b),
            *both(b),
            _balance(b),
            carries(b),
            _kept(b),
            _care(),
            *_off_the_hand(b),
            *_law(b),
        ],
    )


def floor(b: Bench) -> Finding:
    """Whether the arrow is heavy enough, on the heavy side of what the bow may pull."""
    f, gpp = b.arrow.floor, ("gpp", b.arrow.gpp)
    maker = f.maker_gpp is not None
    why = say(
        "What the arrow does not take stays in the bow: {residue} of {stored} each shot. By energy "
        "the floor is {energy} (at most two sevenths left behind), by form "
        + ("and size " if size_counts(b.rig.bow, b.rig.size_term) else "(size left out) ")
        + "{form}"
        + (
            ". The maker's stated minimum wins: below it the warranty is gone."
            if maker
            else "; the maker's word would win."
        ),
        residue=("energy", b.arrow.shot.residual_energy_ftlb),
        stored=("energy", b.arrow.shot.stored_energy_ftlb),
        energy=("gpp", f.energy_gpp),
        form=("gpp", f.form_gpp),
    )
    told: Grounds = "maker" if maker else "model"
    if f.verdict == "below":
        need = _needed_gr(b)
        cures = _heavier(b, need)
        under = b.arrow.gpp.value < f.floor_gpp
        return stop(
            said=say(
                "Too light: {gpp} is under the floor of {floor}. It needs {need} more; do not "
                "shoot it."
                if under
                else "It may be too light: {gpp} is not surely over the floor of {floor}. Weigh "
                "bow and arrow, or add {need}.",
                gpp=gpp,
                floor=("gpp", f.floor_gpp),
                need=("mass", need),
            ),
            why=why,
            told=told,
            action=cures[0],
            instead=cures[1:],
        )
    if f.verdict == "tolerated":
        under = b.arrow.gpp.value < f.floor_gpp
        return mind(
            said=say(
                ("{gpp} is a little under" if under else "{gpp} may be a little under")
                + " the floor of {floor}: tolerable only because the shaft is stiff enough.",
                gpp=gpp,
                floor=("gpp", f.floor_gpp),
            ),
            why=why,
            told=told,
        )
    if f.verdict == "mind":
        followed = "the maker's floor of {floor}" if maker else "the floor by energy of {floor}"
        other, wanted = "form and size", f.form_gpp
        if f.energy_gpp > f.form_gpp:
            other, wanted = "energy", f.energy_gpp
        return mind(
            said=say(
                f"{{gpp}} is over {followed}; by {other} it would be {{wanted}}.",
                gpp=gpp,
                floor=("gpp", f.floor_gpp),
                wanted=("gpp", wanted),
            ),
            why=why,
            told=told,
        )
    return fine(
        said=say(
            "{gpp} is over every floor; the highest is {floor}.",
            gpp=gpp,
            floor=("gpp", max(f.form_gpp, f.energy_gpp, f.floor_gpp)),
        ),
        why=why,
        told=told,
    )


def _needed_gr(b: Bench) -> float:
    """How much must be added for the arrow to be surely heavy enough [gr], to the next five."""
    made = b.arrow.build
    wanted = b.arrow.floor.floor_gpp * b.bow.heaviest_lbf
    short = wanted * made.mass_gr / made.lightest_gr - made.mass_gr
    return max(math.ceil(short / _STEP_GR) * _STEP_GR, _STEP_GR)


def _heavier(b: Bench, need: float) -> tuple[Action, ...]:
    """Ways to a heavier arrow: the point makes it act weaker too, the shaft does not."""
    arrow = b.rig.arrow
    other = Action(label=say("Weigh the arrow, or build a heavier one"), station="arrow")
    if arrow.weighed_gr is not None and b.arrow.stiff_enough:
        return (other,)
    point = arrow.point_gr + need
    shaft = round(arrow.grains_per_inch + need / arrow.shaft_length_in + 0.05, 1)
    ways = []
    if not b.arrow.stiff_enough:
        return (*stiffer_and_heavier(b, need), other)
    if point < _MOST_POINT_GR:
        ways.append(
            Action(
                label=say("Put {need} into the point", need=("mass", need)),
                changes={"arrow.point_gr": point},
            )
        )
    if shaft < _MOST_SHAFT_GPI:
        ways.append(
            Action(
                label=say("Take a shaft of {gpi} as stiff", gpi=("gpi", shaft)),
                changes={"arrow.grains_per_inch": shaft},
            )
        )
    return (*ways, other)


def stiffer_and_heavier(b: Bench, need: float) -> tuple[Action, ...]:
    """A build that cures too light and too weak at once: a stiffer, heavier shaft first of all.

    Its spine is the window's own for the new arrow, and never weaker than the practitioners' rule
    for the weight. Where the window of that arrow wants it weaker, a heavier point moves the
    window to meet it; the point alone would only make the shaft act weaker still.

    Parameters
    ----------
    need : weight to be added [gr]
    """
    arrow = b.rig.arrow
    rule = stiff_enough_spine(b.bow.heaviest_lbf)
    for more in np.arange(0.0, _MOST_POINT_STEP_GR + 1, 2 * _STEP_GR):
        left = max(need - more, 0.0) / arrow.shaft_length_in
        build: dict[str, float] = {}
        if left > 0:
            build["arrow.grains_per_inch"] = round(arrow.grains_per_inch + left + 0.05, 1)
        if more > 0:
            build["arrow.point_gr"] = arrow.point_gr + float(more)
        heavier = b.with_changes(build)
        told = heavier.arrow.window
        wanted = rule if told.spine_28in is None else min(rule, told.spine_28in.value)
        spine = float(math.floor(wanted / _SPINE_STEP) * _SPINE_STEP)
        fits = told.low is None or told.high is None or told.low <= spine <= told.high
        if not fits or build.get("arrow.grains_per_inch", 0.0) > _MOST_SHAFT_GPI:
            continue
        label = "Take a stiffer, heavier shaft: spine {spine}, {gpi}"
        values = {
            "spine": ("spine", spine),
            "gpi": ("gpi", heavier.rig.arrow.grains_per_inch),
        }
        if more > 0:
            label += ", with a {point} point"
            values["point"] = ("mass", heavier.rig.arrow.point_gr)
        return (Action(label=say(label, **values), changes=build | {"arrow.static_spine": spine}),)
    return ()


def spine(b: Bench) -> Finding:
    """Where the shaft's spine lies in the window, or what practice begins with."""
    w, acts = b.arrow.window, b.arrow.build.acts_spine
    if b.rig.spine_school == "over_stiff":
        return over_stiff(b)
    if w.spine_28in is None or w.low is None or w.high is None:
        return _no_window(b)
    why = say(
        "A fit for carbon of about {thick}, corrected by a model of the shaft passing this bow; "
        "two of three bows want a shaft within the ±",
        thick=("small", FIT_DIAMETER_MM),
    )
    for reason in w.widened:
        why = joined(why, reason, "; wider here because ")
    why = why.around("", ". To narrow it: ")
    for i, narrower in enumerate(w.shrinks):
        why = joined(why, narrower, "; " if i else "")
    why = why.around("", ".")
    band = {"low": ("spine", w.low), "high": ("spine", w.high)}
    if w.low <= acts <= w.high:
        return fine(
            said=say(
                "Spine {spine} lies in the window of {low} to {high}.",
                spine=("spine", acts),
                **band,
            ),
            why=why,
            told="model",
        )
    stiff = acts < w.low
    return mind(
        said=say(
            f"Spine {{spine}} looks {'stiff' if stiff else 'weak'} for this bow: the window is "
            "{low} to {high}.",
            spine=("spine", acts),
            **band,
        ),
        why=why,
        told="model",
        action=Action(
            label=say("Try {spine}", spine=("spine", w.spine_28in.value)),
            changes={
                "arrow.static_spine": round(w.spine_28in.value * b.rig.arrow.static_spine / acts)
            },
        ),
    )


def _no_window(b: Bench) -> Finding:
    """Outside the fit: what lies outside, and what practice begins with; no verdict, no action."""
    w = b.arrow.window
    why = w.why_outside("The spine model was fitted to finger archers and bows cut near centre: ")
    if b.rig.archer.release != "thumb":
        return mind(said=w.start.said, why=why, told="practice")
    rule = b.arrow.about_stiff_enough
    if not b.arrow.too_weak:
        enough = "is stiff enough" if b.arrow.stiff_enough else "is about stiff enough"
        return fine(
            said=say(
                f"Spine {{spine}} {enough} for {{weight}} by the thumb archers' rule of {{rule}}.",
                spine=("spine", b.arrow.build.acts_spine),
                weight=("weight", b.bow.weight.value),
                rule=("spine", rule),
            ),
            why=why,
            told="rule",
        )
    return mind(said=w.start.said, why=why, told="rule")


def both(b: Bench) -> list[Finding]:
    """Too light and too weak at once."""
    if b.arrow.floor.verdict in ("fine", "mind") or not b.arrow.too_weak:
        return []
    return [
        stop(
            said=say("Too light and too weak together is the classic way to break a bow."),
            why=say("A weak shaft takes still less of the energy, and flexes where it should fly."),
            told="practice",
        )
    ]


def _balance(b: Bench) -> Finding:
    return fine(
        said=say(
            "It balances {at} from the throat of the arrow nock, {foc} forward of centre.",
            at=("draw", b.arrow.build.balance_in),
            foc=("percent", b.arrow.build.front_of_centre_pct),
        ),
        why=say(
            "More weight in front forgives; less carries farther. Trade standard: from the throat to "
            "the back of the point. About its balance it has {inertia}: the more, the slower it turns.",
            inertia=("inertia", 1000 * b.arrow.build.inertia_kg_m2),
        ),
        told="model",
    )


def _kept(b: Bench) -> Finding:
    return fine(
        said=say(
            "The arrow takes {share} of what the bow stores; the bow could never pass {ceiling}.",
            share=("percent", 100 * b.arrow.shot.efficiency),
            ceiling=("speed", b.arrow.shot.ceiling_speed_fps),
        ),
        why=say(
            "The ceiling is the dry-fire speed: what is left when nothing is shot all stays in the bow and breaks it. Never dry-fire."
        ),
        told="model",
    )


def _care() -> Finding:
    return mind(
        said=say("Look over arrow and arrow nock after each hit; flex carbon by the ear."),
        why=say(
            "Throw away cracked shafts and nocks. A shaft that breaks on the string can go through the hand."
        ),
        told="practice",
    )


def _off_the_hand(b: Bench) -> list[Finding]:
    """What feathers do to a hand that is the shelf."""
    bow = b.rig.bow
    if b.rig.archer.release != "thumb" and not (
        bow.side_plate != "plunger" and bow.plate_offset_mm >= _OFF_THE_HAND_MM
    ):
        return []
    return [
        fine(
            said=say(
                "Where the hand is the shelf, smooth the feathers' leading edge, or wear a glove."
            ),
            why=say("A quill's end drives into the hand that it slides over."),
            told="practice",
        )
    ]


def _law(b: Bench) -> list[Finding]:
    """What is asked where hunting is the use."""
    if b.rig.use != "close_cover":
        return []
    return [
        fine(
            said=say(
                "If you hunt: only where the law allows, with the weight, arrow and head that it "
                "asks for."
            ),
            why=say("Local law sets draw weight, arrow weight and heads; nothing here stands in."),
            told="practice",
        )
    ]
