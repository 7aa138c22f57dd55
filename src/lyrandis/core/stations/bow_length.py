"""Bow length: string angle, reserve before stack, and where the schools disagree."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say, stop
from lyrandis.core.fit.bow_length import SCHOOL_TITLES
from lyrandis.core.fit.length_map import OVERDRAWN_PAST_IN
from lyrandis.core.stations.base import Answer, your_draw
from lyrandis.core.stations.inspecting import inspection_findings
from lyrandis.core.words import word

_OTHER_IN = 1.0  # a length nearer than this is the same bow


def note(b: Bench) -> Said:
    """The length."""
    return say("{length}", length=("bow_length", b.rig.bow.length_in))


def tell(b: Bench) -> Answer:
    """The bow's length against the draw."""
    bow, onset = b.rig.bow, b.bow.onset_in
    length = ("bow_length", bow.length_in)
    yours, values = your_draw(b)
    angle = ("angle", b.bow.angle_deg)
    if onset is None:
        answer = say(
            f"A {{length}} bow draws your {yours} at a {{angle}} string angle and does not stack.",
            length=length, angle=angle, **values,
        )  # fmt: skip
    else:
        left = onset - b.archer.true_draw.value
        answer = say(
            f"A {{length}} bow draws your {yours} at a {{angle}} string angle and starts to stack "
            f"{{reserve}} {'beyond' if left >= 0 else 'before'} your draw.",
            length=length, angle=angle, **values, reserve=("draw", abs(left)),
        )  # fmt: skip
    findings = [
        *reserve(b),
        *_angle(b),
        *inspection_findings(b),
        *_schools(b),
        *_best(b),
        *_inch_more(b),
    ]
    return Answer(answer, findings)


def reserve(b: Bench) -> list[Finding]:
    """How far the draw stays from the stack."""
    if b.bow.onset_in is None:
        return []
    left, wanted = b.bow.onset_in - b.archer.true_draw.value, b.fit.reserve_wanted_in
    why = say(
        "Stack begins where weight climbs a third faster than in mid draw, at {onset} on this bow "
        "at its usual brace height. Overdrawing opens fine cracks across the limb and lifts "
        "layers, sometimes years later.",
        onset=("draw", b.bow.onset_in),
    )
    if left < -OVERDRAWN_PAST_IN:
        return [
            stop(
                said=say(
                    "You would draw this bow {past} past where it stacks. That overdraws it: take "
                    "a longer bow.",
                    past=("draw", -left),
                ),
                why=why,
                told="model",
            )
        ]
    if left < wanted:
        return [
            mind(
                said=say(
                    f"Only {{left}} before it stacks; {_use(b)} want {{wanted}} or more."
                    if left >= 0
                    else f"It stacks {{left}} before your draw; {_use(b)} want {{wanted}} or more beyond.",
                    left=("draw", abs(left)),
                    wanted=("draw", wanted),
                ),
                why=why,
                told="model",
            )
        ]
    return [
        fine(
            said=say("{left} of reserve before it stacks.", left=("draw", left))
            if left >= 0
            else say(
                "It stacks {left} before your draw, which close cover accepts.",
                left=("draw", -left),
            ),
            why=why,
            told="model",
        )
    ]


def _use(b: Bench) -> str:
    return {
        "close_cover": "hunters in close cover",
        "woodland": "woodland archers",
        "range": "range archers",
        "backyard": "back-yard archers",
    }[b.rig.use]


def _angle(b: Bench) -> list[Finding]:
    limit = b.fit.angle_limit_deg
    if limit is None:
        return []
    release = word("archer.release", b.rig.archer.release)
    angle = ("angle", b.bow.angle_deg)
    why = say(
        f"The archer's limit for {release} is {{limit}} in this model's own angle. A sharper "
        "string pinches the fingers and shows a plucked release more.",
        limit=("angle", limit),
    )
    if b.bow.angle_deg < limit:
        return [
            mind(
                said=say(f"{{angle}} will pinch the fingers, {release}.", angle=angle),
                why=why,
                told="model",
            )
        ]
    return [
        fine(
            said=say(f"{{angle}} suits {release}.", angle=angle),
            why=why,
            told="model",
        )
    ]


def _schools(b: Bench) -> list[Finding]:
    by = {"too_short": [], "too_long": []}  # type: dict[str, list[str]]
    for school in b.fit.schools:
        if school.verdict in by:
            by[school.verdict].append(SCHOOL_TITLES[school.school].lower())
    told = []
    for verdict, other in (("too_short", "longer"), ("too_long", "shorter")):
        if by[verdict]:
            names = " and ".join([", ".join(by[verdict][:-1]), by[verdict][-1]]).removeprefix(
                " and "
            )
            told.append(
                mind(
                    said=say(
                        f"By the {names} school{'s' if len(by[verdict]) > 1 else ''} you want a {other} bow."
                    ),
                    why=say(
                        "The schools weigh different things: the first three are rules of thumb, "
                        "reserve and angle come from this bow's model. Where they disagree, shoot both."
                    ),
                    told="rule",
                )
            )
    return told


def _best(b: Bench) -> list[Finding]:
    best = b.fit.candidates[0] if b.fit.candidates else None
    if best is None or abs(best.length_in - b.rig.bow.length_in) < _OTHER_IN:
        return []
    changes: dict[str, object] = {"bow.length_in": best.length_in, "bow.riser_in": best.riser_in}
    return [
        fine(
            said=say(
                "For your draw and use, and the length you lean to, the first choice would be {length}: {why_angle} at the string.",
                length=("bow_length", best.length_in),
                why_angle=("angle", best.string_angle_deg),
            ),
            why=say(
                f"It scores {best.score:.1f} of 10 ({', '.join(best.reasons)}): points are lost for "
                "a pinching string, stack near your draw, and a length off the one you lean to."
            ),
            told="rule",
            action=Action(
                label=say("Try {length}", length=("bow_length", best.length_in)), changes=changes
            ),
        )
    ]


def _inch_more(b: Bench) -> list[Finding]:
    """What an inch more draw would do on this very bow."""
    more = b.fit.reach[2]
    if more.region == "past_end" or more.more_lbf is None or more.angle_deg is None:
        return [
            mind(
                said=say("An inch more draw is past what this bow allows."),
                why=say("Past the maker's limit, or where the model's geometry ends."),
                told="model",
            )
        ]
    where = {
        "stacks": ", into the stack",
        "overdrawn": ", and overdraws it",
        "near_stack": ", close before the stack",
    }.get(more.region, "")
    return [
        Finding(
            level="mind" if more.region in ("stacks", "overdrawn") else "fine",
            said=say(
                f"An inch more draw adds {{more}} at {{angle}}{where}.",
                more=("weight", more.more_lbf),
                angle=("angle", more.angle_deg),
            ),
            why=say(
                "A growing archer or a freer form draws longer; a longer arrow lets it happen."
            ),
            told="model",
        )
    ]
