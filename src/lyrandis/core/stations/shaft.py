"""The shaft's own findings: cut or tapered by reads, the over-stiff school, and who flies out."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding, Said, fine, joined, mind, say
from lyrandis.core.flex.window import GROUP_WEAKER, stiff_enough_spine
from lyrandis.core.trials.shaft_read import TUNED
from lyrandis.core.trials.way import way_words
from lyrandis.core.tune.over_stiff import ratio_needed
from lyrandis.core.tune.shaft import CLOSE_ARROWS, ShaftPlan

_LEAST_PCT = 1.0  # finer odds than that are not told
_WORD = {"cut": "a cut", "taper": "a taper"}


def told_plan(plan: ShaftPlan, what: str) -> Said:
    """A plan as one sentence.

    Parameters
    ----------
    what : what is tuned, as it is called
    """
    now = ("draw", plan.now_in)
    if plan.step == "start":
        return say(f"{what} {{now}} is not read yet: shoot three and say how they flew.", now=now)
    if plan.step == "again":
        return say(
            f"{what} {{now}} flew straight, by too few to copy: shoot more, {CLOSE_ARROWS} in all.",
            now=now,
        )
    if plan.step == "copy":
        return say(f"{what} {{now}} flies straight: copy it onto the set.", now=now)
    if plan.step == "doubt":
        return say(
            f"{what} {{now}} flew weak, but the model calls it stiff: a shaft that bounces off the "
            "side plate looks weak. Look for scuffs and listen for a clatter before anything is "
            "cut.",
            now=now,
        )
    if plan.step == "end":
        return say(
            f"{what} {{now}} is as far as it safely goes, and it still reads the other way: take "
            "another shaft.",
            now=now,
        )
    if plan.step == "past":
        told = say(
            f"{what} {{now}} went past: {_WORD[plan.tool]} cannot be taken back on this shaft.",
            now=now,
        )
        if plan.next_in is None:
            return told
        return told + say("Make the next one {to}, and read it.", to=("draw", plan.next_in))
    assert plan.next_in is not None
    assert plan.change_in is not None
    step = ("draw", abs(plan.change_in))
    verb = "Cut {step} off" if plan.tool == "cut" else "Lengthen the taper by {step}"
    told = say(
        f"{verb}, to {{to}}, and read it again; it may go to {{limit}} at most.",
        step=step,
        to=("draw", plan.next_in),
        limit=("draw", plan.limit_in),
    )
    if plan.model_in is None:
        return told
    return told + say("The model would end near {model}.", model=("draw", plan.model_in))


def tuned(b: Bench) -> list[Finding]:
    """What the reads ask for, of whatever is being tuned."""
    found = []
    for name, plan in (
        ("length", b.shaft.cut),
        ("rear_taper", b.shaft.rear),
        ("front_taper", b.shaft.front),
    ):
        if not b.shaft.reads(name):
            continue
        level = fine if plan.step == "copy" else mind
        found.append(
            level(
                said=told_plan(plan, TUNED[name].capitalize()),  # type: ignore[index]
                why=_tuned_why(b),
                told="practice",
            )
        )
    return found


def _tuned_why(b: Bench) -> Said:
    why = say(
        "Cutting comes from the weak side, tapering from the stiff one, and neither can be undone: "
        "small steps, half the way that the model sees at most, a read after each."
    )
    w = b.arrow.window
    if w.low is None or w.high is None:
        return why
    return why + say(
        "What flew decides over the model's window of {low} to {high}.",
        low=("spine", w.low),
        high=("spine", w.high),
    )


def over_stiff(b: Bench) -> Finding:
    """Whether the shaft is over-stiff enough for its school."""
    rule, acts = stiff_enough_spine(b.bow.weight.value), b.arrow.build.acts_spine
    wanted = rule / GROUP_WEAKER
    values = {"spine": ("spine", acts), "wanted": ("spine", wanted)}
    why = say(
        "The school of natural bows: shafts clearly over-stiff and heavy, on the side that the "
        "string favours, so that they barely have to bend; then flip the bow, turn the arrow half "
        "round, keep the better way and pick the best flyers. About a group stiffer than the thumb "
        "archers' rule for the weight is taken as clearly over-stiff: own choice."
    )
    if acts <= wanted:
        return fine(
            said=say("Spine {spine} is over-stiff, as this school wants it ({wanted}).", **values),
            why=why,
            told="practice",
        )
    return mind(
        said=say("For the over-stiff school {spine} is too weak: {wanted} or stiffer.", **values),
        why=why,
        told="practice",
    )


def ways(b: Bench) -> list[Finding]:
    """What the groups say of the ways to shoot, and the next one to try."""
    if b.rig.spine_school != "over_stiff":
        return []
    told = b.shaft.ways
    why = say(
        "Groups of a few arrows say little: of three each, the worse must be two and a half times "
        "as wide before it is more than chance; of six, 1.7 times."
    )
    if told.best is not None:
        said = say(f"The better way: {way_words(told.best)}.")
        if told.next is not None:
            said = said + say(f"Still to try: {way_words(told.next)}.")
        return [fine(said=said, why=why, told="measured")]
    if told.next is not None:
        return [
            mind(said=say(f"Shoot six arrows {way_words(told.next)}."), why=why, told="practice")
        ]
    needed = ratio_needed(min(told.told[0].arrows, told.told[1].arrows))
    said = say("No way is clearly better: keep the handier one, or shoot more of the best two.")
    if needed is None:
        said = say("Too few arrows were shot to tell the ways apart: three of each at least.")
    return [fine(said=said, why=why, told="measured")]


def flyers(b: Bench) -> list[Finding]:
    """The shaft that flies out, with the odds that it is chance."""
    told = b.dozen.flyers
    if told.worst is None or told.chance is None:
        return []
    worst = next(s for s in told.shafts if s.number == told.worst)
    side = "right" if worst.right_cm >= 0 else "left"
    high = "high" if worst.up_cm >= 0 else "low"
    where = joined(
        say(f"{{across}} {side}", across=("spot", abs(worst.right_cm))),
        say(f"{{up}} {high}", up=("spot", abs(worst.up_cm))),
        " and ",
    )
    why = say(
        "Each end about its own middle, in proportion at {at}. The numbers were drawn anew within "
        "the ends some thousand times: so often some shaft lies as far out by chance alone.",
        at=("distance", 30.0),
    )
    odds = ("percent", max(100 * told.chance, _LEAST_PCT))
    less = "less than " if 100 * told.chance < _LEAST_PCT else ""
    if told.flies_out:
        said = joined(
            say(f"Shaft {worst.number} flies out,"),
            where,
            " ",
        ) + say("of the others; chance alone does so in " + less + "{odds} of cases.", odds=odds)
        return [mind(said=said, why=why, told="measured")]
    return [
        fine(
            said=say(
                f"No shaft clearly flies out; shaft {worst.number} lies farthest, and chance alone "
                "does as much in {odds} of cases.",
                odds=odds,
            ),
            why=why,
            told="measured",
        )
    ]


def carries(b: Bench) -> Finding:
    """Energy and momentum, for what the archer is asked for."""
    shot = b.arrow.shot
    return fine(
        said=say(
            "It carries {energy} and {momentum} of momentum.",
            energy=("energy", shot.arrow_energy_ftlb),
            momentum=("momentum", shot.momentum_lb_s),
        ),
        why=say(
            "Energy decides how far it still flies, momentum how it goes in. What either must be "
            "for a use is for local law, the range and practice to say; nothing here judges it."
        ),
        told="model",
    )
