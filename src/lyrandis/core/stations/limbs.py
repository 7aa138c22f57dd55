"""A takedown's limbs at the Weight station: do they belong together, what do the bolts do."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, fine, mind, say
from lyrandis.core.fit.limbs import NOCK_IN, NOCK_SHARE
from lyrandis.core.units import MM_PER_IN

_EVEN_TURNS, _FELT_PCT = 0.05, 0.05  # smaller is nothing
_UNLIKE = {
    "two_upper": "Two upper limbs",
    "two_lower": "Two lower limbs",
    "two_makers": "Limbs of two makers",
}
_WHY_PAIR = say(
    "Top and bottom are made different because the hand sits below the arrow. Unlike limbs shoot, "
    "but do not come home together: noise, a jump in the hand, a nock point that never settles."
)


def limb_findings(b: Bench) -> list[Finding]:
    """What a takedown's limbs and bolts mean; nothing for a one-piece bow."""
    if not b.rig.bow.is_takedown_recurve:
        return []
    return [*pair(b), *_bolts(b)]


def pair(b: Bench) -> list[Finding]:
    """Whether the two limbs belong together."""
    limbs = b.rig.limbs
    try:
        both = b.arrow.limb_pair
    except RefusedError:  # an arrow or draw that its own station refuses
        return []
    if both.verdict == "unknown":
        return []
    if both.verdict == "pair":
        return [fine(said=say("The two limbs are a pair."), why=_WHY_PAIR, told="practice")]
    if both.verdict == "small" and both.share is not None and both.nock_mm is not None:
        low, high = sorted(abs(n) for n in both.nock_mm)
        way = "lower" if both.share > 0 else "higher"
        return [
            mind(
                said=say(
                    f"The {'lower' if both.share > 0 else 'upper'} limb is {{share}} heavier: take "
                    f"it up at the nock point, {{low}} to {{high}} {way}.",
                    share=("percent_1", abs(both.share) * 100),
                    low=("nock_height", low),
                    high=("nock_height", high),
                ),
                why=say(
                    "By the two-limb model, as a direction: {stiffer} stiffer below wants the nock point "
                    "{least} to {most} lower. Left to themselves the limbs would come home {late} apart; "
                    "the string couples them, so it is less. Read the flight.",
                    late=("ms", both.late_ms or 0.0),
                    stiffer=("percent", NOCK_SHARE * 100),
                    least=("nock_height", NOCK_IN[0] * MM_PER_IN),
                    most=("nock_height", NOCK_IN[1] * MM_PER_IN),
                ),
                told="model",
                action=Action(label=say("Go to the nock point"), station="nock-point"),
            )
        ]
    return [
        Finding(
            level="stop" if limbs.upper_class != limbs.lower_class else "mind",
            said=say(f"{_reason(b)}: a stopgap at most. Get a pair before you tune anything."),
            why=_WHY_PAIR,
            told="practice",
        )
    ]


def _reason(b: Bench) -> str:
    limbs = b.rig.limbs
    if limbs.upper_class and limbs.lower_class and limbs.upper_class != limbs.lower_class:
        return f"A {limbs.upper_class} limb above and a {limbs.lower_class} one below"
    if limbs.pair in _UNLIKE:
        return _UNLIKE[limbs.pair]
    share = abs(b.arrow.limb_pair.share or 0.0) * 100
    return f"Limbs marked {share:.0f} % apart are more than the nock point takes up"


def _bolts(b: Bench) -> list[Finding]:
    limbs = b.rig.limbs
    if not (limbs.upper_turns or limbs.lower_turns):
        return []
    turned = b.bow.bolts
    found = []
    why = say(
        "The bow model with both limb roots tilted {tilt} a turn, the same limbs and string. How "
        "far a turn tilts depends on the pocket; measure once and set it. The maker's limit for "
        "the bolts wins: turned out too far they let go.",
        tilt=("angle_1", limbs.degrees_per_turn),
    )
    if abs(turned.weight_pct) > _FELT_PCT and not b.rig.bow.measured:
        marked = b.rig.bow.marked_weight_lbf * (1 + turned.weight_pct / 100)
        found.append(
            mind(
                said=say(
                    f"The bolts as they stand make it about {{pct}} "
                    f"{'lighter' if turned.weight_pct < 0 else 'heavier'} and the brace height "
                    f"{{brace}} {'higher' if turned.brace_mm > 0 else 'lower'}.",
                    pct=("percent_1", abs(turned.weight_pct)),
                    brace=("small", abs(turned.brace_mm)),
                ),
                why=why,
                told="model",
                action=Action(
                    label=say("Take {marked} as its marking", marked=("weight", marked)),
                    changes={
                        "bow.marked_weight_lbf": round(marked, 2),
                        "limbs.upper_turns": 0.0,
                        "limbs.lower_turns": 0.0,
                    },
                ),
            )
        )
    if abs(turned.uneven_turns) > _EVEN_TURNS:
        upper = turned.uneven_turns > 0
        found.append(
            mind(
                said=say(
                    f"The {'upper' if upper else 'lower'} bolt is {{turns}} further out: tiller "
                    f"goes {'up' if upper else 'down'}, the {'lower' if upper else 'upper'} limb "
                    "works harder.",
                    turns=("bolt", abs(turned.uneven_turns)),
                ),
                why=say(
                    "Split fingers want a positive tiller of some millimetres, three under and "
                    "crawls about even. Measure limb to string at both pockets."
                ),
                told="practice",
            )
        )
    return found
