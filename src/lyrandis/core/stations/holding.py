"""What the archer can hold, and what hurt: said alike wherever a weight is judged."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, mind, say, stop
from lyrandis.core.fit.hold import HELD_S, LIGHTER, REST_DAYS, SHORT_S, WANTED
from lyrandis.core.stations.going_up import plan_findings

_HEAVY_LBF = 55.0
CHILD_LBF = 20.0  # over this a coach decides
_WORD_ROOM_LBF = 1.5  # a coach's word is of a marking, good to a pound or two
WHY_HELD = say(
    "Draw, anchor and hold until it shakes, then let down; rest two minutes between. "
    "{held} three times is held, under {short} is too heavy: an own rule. Too heavy a bow ruins "
    "form and hurts shoulders; too light a one punishes a poor release.",
    held=("seconds", HELD_S),
    short=("seconds", SHORT_S),
)
_WHY_PAIN = say(
    "A hold that ended in pain is no hold, and stops until it is over: by a coach's or doctor's "
    f"word for that weight, or by {WANTED} holds of {{held}} at it without pain, {REST_DAYS} days "
    "later at the least. A lighter bow ends nothing, but may be shot if nothing hurts: lighter by "
    f"{LIGHTER * 100:.0f} %, an own rule.",
    held=("seconds", HELD_S),
)


def holding_findings(b: Bench, weight: float) -> list[Finding]:
    """What the holds, the weight and the plan mean."""
    found = [*pain(b, weight), *heavy_for_a_child(b), *_hold(b, weight)]
    if any(f.level == "stop" for f in found):
        found = [f for f in found if f.level != "fine"]  # held, but not to be drawn
    if b.rig.archer.grown == "child":
        found.append(
            mind(
                said=say("A child's weight is chosen with a coach; no plan is made here."),
                why=say("Growing shoulders: light bows, under supervision, stop at pain."),
                told="practice",
            )
        )
    return [*found, *plan_findings(b)]


def heavy_for_a_child(b: Bench) -> list[Finding]:
    """A bow that is heavy for a child: a stop, and a coach's word the only way past."""
    if b.rig.archer.grown != "child":
        return []
    heavy, word = b.bow.heaviest_lbf, b.archer.allowed_lbf
    allowed = CHILD_LBF if word is None else max(word + _WORD_ROOM_LBF, CHILD_LBF)
    if heavy <= allowed:
        return []
    return [
        stop(
            said=say(
                "{heavy} is heavy for a child. Only a coach's word goes past this: log it with the "
                "coach's name, or take a lighter bow.",
                heavy=("weight", heavy),
            ),
            why=say(
                "Growing shoulders are hurt by what a grown archer holds easily. Judged at the "
                "longest draw and on the heavy side; over {limit} a coach decides: an own rule.",
                limit=("weight", CHILD_LBF),
            ),
            told="practice",
        )
    ]


def pain(b: Bench, weight: float) -> list[Finding]:
    """What a hold that ended in pain means for a weight [lb]: a stop, or for a lighter one a word."""
    strength = b.archer.strength
    hurt = strength.pain
    if hurt is None:
        return []
    on = f" on {hurt.day}" if hurt.day else ""
    at = ("weight", hurt.weight_lbf)
    if not strength.hurts(weight):
        return [
            mind(
                said=say(
                    f"A hold at {{hurt}} ended in pain{on}. This bow is lighter: few arrows, and "
                    "stop at the first pain; nothing goes up meanwhile.",
                    hurt=at,
                ),
                why=_WHY_PAIN,
                told="practice",
            )
        ]
    lighter = hurt.weight_lbf * (1 - LIGHTER)
    return [
        stop(
            said=say(
                f"A hold at {{hurt}} ended in pain{on}. Stop with this bow and ask a coach or "
                "doctor; go down to {lighter} or less.",
                hurt=at,
                lighter=("weight", lighter),
            ),
            why=_WHY_PAIN,
            told="practice",
            action=_down_to(lighter),
        )
    ]


def _down_to(most_lbf: float) -> Action:
    """Another bow that pulls no more than a weight [lb] at the draw."""
    return Action(label=say("Find a lighter bow on the rack"), rack_lbf=most_lbf)


def _hold(b: Bench, weight: float) -> list[Finding]:
    h = b.bow.hold
    if h.verdict == "pain":
        return []
    lasting, median = h.lasting_lbf, ("seconds", h.median_s or 0.0)
    against, much, most = b.bow.against, b.archer.strength.too_much_lbf, b.archer.strength.most_lbf
    if h.verdict == "too_heavy":
        text = "You hold {weight} for only {median}: overbowed."
        return [_too_much(lasting, text, weight=("weight", weight), median=median)]
    if against == "failed" and much is not None:
        text = "{much} could not be held, and this is {weight}."
        return [_too_much(lasting, text, weight=("weight", weight), much=("weight", much))]
    if against == "beyond" and lasting is not None and most is not None:
        return [
            stop(
                said=say(
                    "{weight} is more than a step over the {lasting} that you held: go no higher "
                    "than {most} before that is held too.",
                    weight=("weight", weight),
                    lasting=("weight", lasting),
                    most=("weight", most),
                ),
                why=WHY_HELD,
                told="measured",
                action=_down_to(most),
            )
        ]
    if h.verdict == "untried":
        return _untried(b, weight)
    if h.verdict == "few":
        return [
            Finding(
                level="fine" if lasting is None else "mind",
                said=say(
                    f"{h.count} of {WANTED} holds timed, {{median}} so far. Time another.",
                    median=median,
                ),
                why=WHY_HELD,
                told="measured",
            )
        ]
    if h.verdict == "held":
        level, text = "fine", "You hold it steady for {median}."
    elif median[1] < HELD_S:
        level, text = "mind", "You hold it for {median}: enough for a shot, short for a long day."
    else:
        level, text = "mind", "You hold it for {median}, but not each time: short for a long day."
    return [Finding(level=level, said=say(text, median=median), why=WHY_HELD, told="measured")]


def _too_much(lasting: float | None, text: str, **values: tuple[str, float]) -> Finding:
    """A weight that is not held, and where to go from it: to what is held [lb], where something is.

    `text` says what was not held, with its values.
    """
    if lasting is None:
        text, action = text + " Take a lighter bow, and time your holds with that.", None
    else:
        text, action = text + " You held {lasting} well.", _down_to(lasting)
        values = {**values, "lasting": ("weight", lasting)}
    return stop(said=say(text, **values), why=WHY_HELD, told="measured", action=action)


def _untried(b: Bench, weight: float) -> list[Finding]:
    """What is said of a weight of which no hold tells."""
    lasting = b.bow.hold.lasting_lbf
    if lasting is not None:
        return [
            mind(
                said=say(
                    f"It is a step over the {{lasting}} that you held: time {WANTED} holds of "
                    "{held} with it.",
                    lasting=("weight", lasting),
                    held=("seconds", HELD_S),
                ),
                why=WHY_HELD,
                told="measured",
            )
        ]
    if weight < _HEAVY_LBF:
        return []
    return [
        mind(
            said=say(
                "{weight} is a heavy bow, and no hold was timed yet. Choose what you can hold "
                "steady.",
                weight=("weight", weight),
            ),
            why=WHY_HELD,
            told="practice",
        )
    ]
