"""In line: the string over the marks of both limbs and the riser's middle, or its favoured side."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.learning import ODD_WHY, UNEXPECTED
from lyrandis.core.tune.in_line import FAVOURED_MM, shelf_decides, side_gains_mm
from lyrandis.core.tune.one_change import GAIN_SHARE

_WHERE = ("upper", "lower")


def note(b: Bench) -> Said:
    """How far it is off."""
    told, latest = b.in_line.told, b.in_line.latest
    if latest is None:
        return say("not looked at")
    if not b.rig.bow.is_takedown_recurve:
        return say(
            {"middle": "over the middle"}.get(str(told.favoured), f"favours {told.favoured}")
        )
    if told.learnt is None:
        return say("marks not looked at")
    if any(one.odd for one in told.learnt.told):
        return say("look again")
    off = max(abs(one.offset_mm) for one in told.learnt.told)
    return say("in line") if told.learnt.good else say("{off} off", off=("small", off))


def tell(b: Bench) -> Answer:
    """Where the string runs, and what to turn."""
    if b.rig.bow.is_takedown_recurve:
        return Answer(_answer(b), [*_pockets(b), *_makers(b), *_drawn(b)])
    return Answer(_side_answer(b), [*_favoured(b), *_makers(b)])


def _way(offset_mm: float) -> str:
    return "right" if offset_mm > 0 else "left"


def _answer(b: Bench) -> Said:
    learnt = b.in_line.told.learnt
    if learnt is None:
        gain = side_gains_mm(b.rig.bow, b.rig.limbs.degrees_per_turn)[0][0]
        return say(
            "Nobody has looked from behind yet whether the string runs over the marks; a turn of a "
            "pocket should move it by about {gain} there.",
            gain=("small", gain, GAIN_SHARE * gain),
        )
    upper, lower = learnt.told
    odd = ", by all looks but the latest." if upper.odd or lower.odd else "."
    return say(
        f"The string runs {{upper}} {_way(upper.offset_mm)} of the upper mark and {{lower}} "
        f"{_way(lower.offset_mm)} of the lower{odd}",
        upper=("small", abs(upper.offset_mm), upper.offset_sd_mm),
        lower=("small", abs(lower.offset_mm), lower.offset_sd_mm),
    )


def _pockets(b: Bench) -> list[Finding]:
    learnt = b.in_line.told.learnt
    why = say(
        "Each pocket swings its own limb. What a turn does follows from the tilt of {tilt} a turn and "
        "the limb's length only to {share}: half of it is turned at first, and the look after teaches "
        "the rest.",
        tilt=("angle_1", b.rig.limbs.degrees_per_turn),
        share=("percent", GAIN_SHARE * 100),
    )
    if learnt is None:
        return [
            mind(
                said=say(
                    "Put a block with a centre mark on each limb by its pocket, look from behind, and "
                    "log how far the string lies beside each mark."
                ),
                why=say("Without blocks, a ruler across the limb and a pencil mark do as well."),
                told="practice",
            )
        ]
    odd = [_odd(name) for name, one in zip(_WHERE, learnt.told, strict=True) if one.odd]
    if odd:
        return odd
    if learnt.good:
        return [
            fine(
                said=say("It runs over both marks: leave the pockets alone."),
                why=why,
                told="measured",
            )
        ]
    if not any(learnt.step_turns):
        return [
            mind(
                said=say(
                    "No step that a hand can turn brings it nearer. Look again, and measure twice."
                ),
                why=why,
                told="model",
            ),
        ]
    parts, then = [], []
    values: dict[str, tuple[str, float] | tuple[str, float, float]] = {}
    for name, step, one in zip(_WHERE, learnt.step_turns, learnt.told, strict=True):
        if step:
            parts.append(f"the {name} pocket by {{{name}}} to the {_way(step)}")
            values[name] = ("bolt", abs(step))
        then.append(f"{{{name}_mm}} {_way(one.expected_mm)} of the {name} mark")
        values[f"{name}_mm"] = ("small", abs(one.expected_mm), one.expected_sd_mm)
    return [
        mind(
            said=say(
                f"Turn {' and '.join(parts)}, brace it and look again: it should then lie "
                f"{' and '.join(then)}."
                + (UNEXPECTED if any(one.surprise for one in learnt.told) else ""),
                **values,
            ),
            why=why,
            told="model" if b.in_line.told.looks < 2 else "measured",
        ),
    ]


def _odd(name: str) -> Finding:
    return mind(
        said=say(
            f"At the {name} mark the last look is not what the turns should have done. A slipped "
            "screw, or a misread? Look again before you turn anything."
        ),
        why=ODD_WHY,
        told="model",
    )


def _makers(b: Bench) -> list[Finding]:
    """A twisted limb, or a string that leaves its line when it is drawn."""
    latest = b.in_line.latest
    if latest is None:
        return []
    trial, found = latest.trial, []
    why = say("Pockets swing a limb; they cannot untwist it. Do not correct it by force.")
    if trial.twist in ("upper", "lower"):
        found.append(
            mind(
                said=say(
                    f"The {trial.twist} limb is twisted: that is the maker's business. Log it under the "
                    "look-overs, and do not shoot it."
                ),
                why=why,
                told="practice",
                action=Action(label=say("To the look-overs"), station="bow-length"),
            )
        )
    if trial.drawn == "leaves":
        found.append(
            mind(
                said=say(
                    "It keeps its line at rest and leaves it when drawn: that is the maker's business."
                ),
                why=why,
                told="practice",
            )
        )
    return found


def _drawn(b: Bench) -> list[Finding]:
    latest, learnt = b.in_line.latest, b.in_line.told.learnt
    if latest is None or learnt is None or not learnt.good or latest.trial.drawn != "not_tried":
        return []
    return [
        mind(
            said=say("Draw it a hand's breadth and let it down: does the string keep its line?"),
            why=say("A limb that twists only under load shows there."),
            told="practice",
        )
    ]


def _side_answer(b: Bench) -> Said:
    told = b.in_line.told
    if told.riser_mm is None:
        return say(
            "Nobody has looked from behind yet which side of the grip the string favours; nearer than "
            "{near} to the middle it favours none.",
            near=("small", FAVOURED_MM),
        )
    if told.favoured == "middle":
        return say("The string runs over the middle of the grip.")
    return say(
        f"The string runs {{off}} {told.favoured} of the grip's middle.",
        off=("small", abs(told.riser_mm)),
    )


def _favoured(b: Bench) -> list[Finding]:
    told = b.in_line.told
    why = say(
        "On the favoured side the arrow stands nearer to the string's plane and has to bend less. "
        "One-piece bows have no pockets: the side, or the bow turned end for end, is what there is."
    )
    if told.riser_mm is None:
        return [
            mind(
                said=say(
                    "Brace it, look from behind, and log which side of the grip the string favours."
                ),
                why=why,
                told="practice",
            )
        ]
    if told.favoured == "middle":
        return [fine(said=say("Either side serves the arrow alike."), why=why, told="practice")]
    lies = "left" if b.rig.arrow_left else "right"
    if shelf_decides(b.rig.bow):
        said = say(
            f"The shelf decides the side; where there is a choice, the arrow goes {told.favoured}."
        )
        return [fine(said=said, why=why, told="practice")]
    if lies == told.favoured:
        return [fine(said=say(f"The arrow lies on it: {lies}."), why=why, told="practice")]
    return [
        mind(
            said=say(
                f"Put the arrow on the {told.favoured} side, or turn the bow end for end; here it "
                f"lies {lies}. Say so when you have: every read goes by the side."
            ),
            why=why,
            told="practice",
            action=Action(
                label=say(f"It lies {told.favoured} now"), changes={"arrow_side": told.favoured}
            ),
        )
    ]
