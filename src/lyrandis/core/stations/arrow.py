"""Arrow: grains per pound against the floor, speed, balance, and the spine window."""

from __future__ import annotations

from lyrandis.core.arrow.window import FIT_DIAMETER_MM
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Grounds, Said, fine, joined, mind, say, stop
from lyrandis.core.stations.base import Answer

_MOST_POINT_GR = 590.0  # heavier points are not made


def note(b: Bench) -> Said:
    """Grains per pound."""
    return say("{gpp}", gpp=("gpp", b.arrow.shot.grains_per_pound))


def tell(b: Bench) -> Answer:
    """The arrow on this bow."""
    shot, mass = b.arrow.shot, b.arrow.build
    weighed = "weighed" if mass.measured else "from its parts"
    answer = say(
        f"{{mass}} {weighed} is {{gpp}} and leaves at about {{speed}}; a static spine near {{spine}} should leave cleanly.",
        mass=("mass", mass.mass_gr),
        gpp=("gpp", shot.grains_per_pound),
        speed=("speed", shot.speed_fps),
        spine=("spine", b.arrow.window.spine_28in),
    )
    return Answer(answer, [_floor(b), _spine(b), *_both(b), _balance(b), _kept(b), _care()])


def _floor(b: Bench) -> Finding:
    f, gpp = b.arrow.floor, ("gpp", b.arrow.shot.grains_per_pound)
    maker = f.maker_gpp is not None
    why = say(
        "What the arrow does not take stays in the bow: {residue} of {stored} each shot. By energy "
        "the floor is {energy} (at most two sevenths left behind), by form and size {form}"
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
    heavier = Action(label=say("Weigh the arrow or add to the point"), station="arrow")
    told: Grounds = "maker" if maker else "model"
    if f.verdict == "below":
        need = f.floor_gpp * b.arrow.shot.weight_at_draw_lbf.value - b.arrow.build.mass_gr
        return stop(said=say(
                "Too light: {gpp} is under the floor of {floor}. It needs {need} more; do not shoot it.",
                gpp=gpp, floor=("gpp", f.floor_gpp), need=("mass", need),
            ),
            why=why,
            told=told,
            action=Action(
                label=say("Put {need} into the point", need=("mass", need)),
                changes={"arrow.point_gr": round(b.rig.arrow.point_gr + need + 0.5)},
            ) if b.rig.arrow.weighed_gr is None and b.rig.arrow.point_gr + need < _MOST_POINT_GR else heavier,
        )  # fmt: skip
    if f.verdict == "tolerated":
        return mind(said=say(
                "{gpp} is a little under the floor of {floor}: tolerable only because the shaft is stiff enough.",
                gpp=gpp, floor=("gpp", f.floor_gpp),
            ),
            why=why,
            told=told,
        )  # fmt: skip
    if f.verdict == "mind":
        return mind(said=say(
                "{gpp} is over the floor of {floor}, but one school would want {form}.",
                gpp=gpp, floor=("gpp", f.floor_gpp), form=("gpp", max(f.form_gpp, f.energy_gpp)),
            ),
            why=why,
            told=told,
        )  # fmt: skip
    return fine(
        said=say(
            "{gpp} is over every floor; the highest is {floor}.",
            gpp=gpp,
            floor=("gpp", max(f.form_gpp, f.energy_gpp, f.floor_gpp)),
        ),
        why=why,
        told=told,
    )


def _spine(b: Bench) -> Finding:
    w, spine = b.arrow.window, b.rig.arrow.static_spine
    why = say(
        "A fit to a model of the shaft passing the bow, for carbon of about {thick} on recurves, "
        "good to about one spine group",
        thick=("small", FIT_DIAMETER_MM),
    )
    for reason in w.widened:
        why = joined(why, reason, "; wider here because ")
    why = why.around("", ". What the arrow does at three and seven paces decides.")
    if w.low <= spine <= w.high:
        return fine(
            said=say(
                "Spine {spine} lies in the window of {low} to {high}.",
                spine=("spine", spine),
                low=("spine", w.low),
                high=("spine", w.high),
            ),
            why=why,
            told="model",
        )
    stiff = spine < w.low
    return mind(said=say(
            f"Spine {{spine}} looks {'stiff' if stiff else 'weak'} for this bow: the window is {{low}} to {{high}}.",
            spine=("spine", spine), low=("spine", w.low), high=("spine", w.high),
        ),
        why=why,
        told="model",
        action=Action(
            label=say("Try {spine}", spine=("spine", w.spine_28in.value)),
            changes={"arrow.static_spine": round(w.spine_28in.value)},
        ),
    )  # fmt: skip


def _both(b: Bench) -> list[Finding]:
    if b.arrow.floor.verdict in ("fine", "mind") or b.rig.arrow.static_spine <= b.arrow.window.high:
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
            "More weight in front forgives; less carries farther. Trade standard: from the throat to the back of the point."
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
