"""Tiller, rough and final: both distances, which bolt to turn, what a turn costs in weight."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.fit.limbs import bolt_turn
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.learning import ODD_WHY, UNEXPECTED
from lyrandis.core.tune.one_change import GAIN_SHARE
from lyrandis.core.tune.tiller import Tiller, ordinary_mm, per_turn_mm
from lyrandis.core.words import word

_MOST_TURNS = 6.0  # that the rig's bolts may stand out or in
_LARGE_MM = 3.0  # beyond the usual band, one limb is plainly the stiffer


def note(b: Bench) -> Said:
    """The tiller."""
    told = b.tiller.told
    if told is None:
        return say("not measured")
    if told.odd or b.tiller.turned:
        return say("measure again")
    return say("{tiller}", tiller=("small", told.tiller_mm))


def note_final(b: Bench) -> Said:
    """The tiller, once it was measured with the weights on."""
    told = b.tiller.told is None or b.tiller.with_weights
    return note(b) if told else say("measure again")


def tell(b: Bench) -> Answer:
    """The tiller as the bow was put together."""
    return Answer(_answer(b), [*_state(b), *_taught(b), *_both(b), *uneven(b)])


def tell_final(b: Bench) -> Answer:
    """The tiller with everything hung on the riser."""
    if b.tiller.told is None or b.tiller.with_weights:
        return tell(b)
    measure = mind(
        said=say("The weights hang otherwise since: measure both distances once more."),
        why=say("The rough tiller serves to line up the limbs; the final one is what is shot."),
        told="practice",
    )
    return Answer(_answer(b), [measure])


def _answer(b: Bench) -> Said:
    told = b.tiller.told
    low, high = ordinary_mm(b.rig.archer.release, b.rig.limbs)
    band = {"low": ("small", low), "high": ("small", high)}
    whose = "yours" if b.rig.limbs.tiller_wanted_mm is not None else _release(b)
    if told is None:
        return say(
            f"Nobody has measured the tiller; {whose} lies between {{low}} and {{high}}.", **band
        )
    since = ", before the last turn of a bolt" if b.tiller.turned else ""
    return say(
        f"The upper limb stands {{tiller}} {'farther' if told.tiller_mm >= 0 else 'nearer'} than "
        f"the lower one{since}; {whose} lies between {{low}} and {{high}}.",
        tiller=("small", abs(told.tiller_mm), told.sd_mm),
        **band,
    )


def _release(b: Bench) -> str:
    return f"the usual for {word('archer.release', b.rig.archer.release)}"


def _why(b: Bench) -> Said:
    return say(
        "Split fingers want a positive tiller of some millimetres, three under, crawls and the "
        "thumb about even. A turn of a bolt should move it by about {turn}, and that is known only "
        "to {share}: half of the way is turned at first, and the look after teaches the rest.",
        turn=("small", per_turn_mm(b.rig.limbs.degrees_per_turn)),
        share=("percent", GAIN_SHARE * 100),
    )


def _state(b: Bench) -> list[Finding]:
    told, why = b.tiller.told, _why(b)
    if told is None:
        return [
            mind(
                said=say(
                    "Brace it, measure square from the string to each limb where it leaves the "
                    "riser, and log both."
                ),
                why=why,
                told="practice",
            )
        ]
    if b.tiller.turned:
        return [
            mind(
                said=say("A bolt was turned since: brace it and measure both distances."),
                why=why,
                told="practice",
            )
        ]
    if told.odd:
        return [
            mind(
                said=say(
                    "The last reading is not what the turns should have done. A slipped bolt, or a "
                    "misread? Measure again before you turn anything."
                ),
                why=ODD_WHY,
                told="model",
            )
        ]
    if told.good:
        return [
            fine(said=say("The limbs bend as they should: leave it."), why=why, told="practice")
        ]
    if not b.rig.bow.is_takedown_recurve:
        return [
            mind(
                said=say(
                    "It lies outside what is usual, and this bow has no bolts to turn: its bowyer "
                    "decides. Take up a small difference at the nock point."
                ),
                why=why,
                told="practice",
            )
        ]
    return [_step(b, told, why)]


def _step(b: Bench, told: Tiller, why: Said) -> Finding:
    limbs = b.rig.limbs
    stand = {
        "upper": (limbs.upper_turns, told.step_turns[0]),
        "lower": (limbs.lower_turns, told.step_turns[1]),
    }
    parts, values, changes = [], {}, {}
    for name, (now, step) in stand.items():
        if not step:
            continue
        parts.append(f"the {name} bolt {{{name}}} {'out' if step > 0 else 'in'}")
        values[name] = ("bolt", abs(step))
        changes[f"limbs.{name}_turns"] = now + step
    if not parts:
        return mind(
            said=say("No step that a hand can turn brings it nearer. Measure once more."),
            why=why,
            told="model",
        )
    if any(abs(turns) > _MOST_TURNS for turns in changes.values()):
        return mind(
            said=say(
                "The bolts would have to go farther than {most}: that is a matter for the maker.",
                most=("bolt", _MOST_TURNS),
            ),
            why=why,
            told="model",
        )
    then = say(
        f"Turn {' and '.join(parts)}, brace it and measure: the tiller should then be {{then}}."
        + (UNEXPECTED if told.surprise else ""),
        then=("small", told.expected_mm, told.expected_sd_mm),
        **values,
    )
    return mind(
        said=then + _cost(b, told.step_turns),
        why=why,
        told="model" if told.looks < 2 else "measured",
        action=Action(
            label=say("I turned " + ("them" if len(parts) > 1 else "it")), changes=changes
        ),
    )


def _cost(b: Bench, step: tuple[float, float]) -> Said:
    """What a step costs in weight."""
    mean = (step[0] + step[1]) / 2
    if not mean:
        return say("One out and one in by the same keeps the weight.")
    pct = _weight_pct(b, mean)
    if pct is None:
        return say("What it costs in weight cannot be told here: weigh it after.")
    return say(
        f"It makes the bow about {{pct}} {'lighter' if pct < 0 else 'heavier'}.",
        pct=("percent_1", abs(pct)),
    )


def _weight_pct(b: Bench, turns: float) -> float | None:
    r = b.rig
    try:
        return bolt_turn(r.bow, r.string.material, turns, r.limbs.degrees_per_turn, b.bow.draw_in)[
            0
        ]
    except RefusedError:
        return None


def _taught(b: Bench) -> list[Finding]:
    """How far a turn goes on this bow, once one was turned."""
    told = b.tiller.told
    if told is None or not told.taught or told.odd:
        return []
    upper, lower = (abs(mm) for mm in told.per_turn_mm)
    return [
        fine(
            said=say(
                "On this bow a turn of the upper bolt moves it by {upper}, of the lower by {lower}.",
                upper=("small", upper, told.per_turn_sd_mm[0]),
                lower=("small", lower, told.per_turn_sd_mm[1]),
            ),
            why=_why(b),
            told="measured",
        )
    ]


def _both(b: Bench) -> list[Finding]:
    """Both bolts by the same."""
    if not b.rig.bow.is_takedown_recurve:
        return []
    pct = _weight_pct(b, 1.0)
    if pct is None:
        return []
    return [
        fine(
            said=say(
                "Both bolts out by the same keeps the tiller and costs about {pct} of the weight a "
                "turn.",
                pct=("percent_1", abs(pct)),
            ),
            why=say(
                "The bow model with both limb roots tilted. Turned out too far a bolt lets go: the "
                "maker's limit wins. Unstring the bow to turn them."
            ),
            told="model",
        )
    ]


def uneven(b: Bench) -> list[Finding]:
    """What a tiller far off asks of the nock point."""
    told = b.tiller.told
    if told is None or told.low_mm - _LARGE_MM <= told.tiller_mm <= told.high_mm + _LARGE_MM:
        return []
    stiff, way = ("lower", "higher") if told.tiller_mm > told.high_mm else ("upper", "lower")
    return [
        fine(
            said=say(f"So far off, the {stiff} limb is plainly the stiffer: the nock point is read "
                     f"{way} than usual."),
            why=say(
                "Practice says so; two limbs in the model say the opposite of a stiffer lower limb. "
                "Your reads decide."
            ),
            told="practice",
        )
    ]  # fmt: skip
