"""Bow length: string angle, reserve before stack, and where the schools disagree."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say, stop
from lyrandis.core.fit.bow_length import SCHOOL_TITLES, SHOWN_IN, idle_ratio
from lyrandis.core.fit.candidates import Candidate
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
    stands = ("angle", b.bow.angle_deg)
    if onset is None:
        answer = say(
            f"A {{length}} bow draws your {yours} at a {{angle}} string angle and does not stack.",
            length=length, angle=stands, **values,
        )  # fmt: skip
    else:
        left = onset - b.archer.true_draw.value
        answer = say(
            f"A {{length}} bow draws your {yours} at a {{angle}} string angle and starts to stack "
            f"{{reserve}} {'beyond' if left >= 0 else 'before'} your draw.",
            length=length, angle=stands, **values, reserve=("draw", abs(left)),
        )  # fmt: skip
    findings = [
        *_verdict(b),
        *reserve(b),
        *angle(b),
        *inspection_findings(b),
        *_too_long(b),
        *_inch_more(b),
    ]
    return Answer(answer, findings)


def reserve(b: Bench) -> list[Finding]:
    """How far the draw stays from the stack."""
    if b.fit.by_maker:
        return _by_maker(b)
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
    if left < wanted - SHOWN_IN:
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


def _by_maker(b: Bench) -> list[Finding]:
    """A thumb-drawn bow with static tips: drawn past its stack by design, to its maker's word.

    A draw past that word is a stop of the weight's station.
    """
    most = b.rig.bow.maker_max_draw_in
    onset = b.bow.onset_in
    why = say(
        "Short bows with static tips are made to be drawn past where others stack; a thumb bears "
        "the sharp string. How far theirs may go only the maker knows."
    )
    if onset is not None:
        why += say("By the model the weight climbs faster from {onset}.", onset=("draw", onset))
    if most is None:
        return [
            mind(
                said=say("Nobody has said how far this bow may be drawn. Ask its maker."),
                why=why,
                told="practice",
            )
        ]
    left = most - b.archer.true_draw.value
    if left < 0:
        return []
    return [
        fine(
            said=say("{left} are left to the maker's greatest draw.", left=("draw", left)),
            why=why,
            told="maker",
        )
    ]


def _use(b: Bench) -> str:
    return {
        "close_cover": "hunters in close cover",
        "woodland": "woodland archers",
        "range": "range archers",
        "backyard": "back-yard archers",
    }[b.rig.use]


def angle(b: Bench) -> list[Finding]:
    """Whether the string stands open enough at the arrow nock for the release."""
    limit = b.fit.angle_limit_deg
    if limit is None:
        return []
    release = word("archer.release", b.rig.archer.release)
    stands = ("angle", b.bow.angle_deg)
    why = say(
        f"The archer's limit for {release} is {{limit}} in this model's own angle. A sharper "
        "string pinches the fingers and shows a plucked release more; a long bow presses face and "
        "chest harder. Posture, string and arrow cure that before another length does.",
        limit=("angle", limit),
    )
    if b.bow.angle_deg < limit:
        return [
            mind(
                said=say(f"{{angle}} will pinch the fingers, {release}.", angle=stands),
                why=why,
                told="model",
            )
        ]
    return [
        fine(
            said=say(f"{{angle}} suits {release}.", angle=stands),
            why=why,
            told="model",
        )
    ]


_COUNT = ("none", "one", "two", "three", "four", "five")


def _votes(c: Candidate) -> str:
    """How many schools are for it, in words."""
    if not c.schools_of:
        return "no school speaks of such bows"
    return f"{_COUNT[c.schools_for]} of {_COUNT[c.schools_of]} schools"


def _stays(b: Bench, angle_deg: float, reserve_in: float | None) -> Said:
    """How a bow keeps from its stack."""
    if reserve_in is None or b.fit.by_maker:
        return say("the string stands at {angle} at your draw", angle=("angle", angle_deg))
    left = ("draw", abs(reserve_in))
    if reserve_in < 0:
        return say("it stacks {left} before your draw", left=left)
    return say("it stays {left} from stacking", left=left)


def _own_reserve_in(b: Bench) -> float | None:
    """From the draw to the onset of stack [in]: one number, wherever it is said."""
    return None if b.bow.onset_in is None else b.bow.onset_in - b.archer.true_draw.value


def _verdict(b: Bench) -> list[Finding]:
    """One weighed verdict of all schools: keep this length, or take another."""
    if not b.fit.candidates:
        return []
    best, own, bow = b.fit.candidates[0], b.fit.own, b.rig.bow
    same = abs(best.length_in - bow.length_in) < _OTHER_IN
    taken = own if own is not None and same else best
    against = [SCHOOL_TITLES[s].lower() for s in taken.schools_against]
    why = say(
        f"It scores {taken.score:.1f} of 10 ({', '.join(taken.reasons)}): each school that says no "
        "costs half a point, as do a pinching string, stack near your draw, and a length off the "
        "one you lean to. "
        + (f"Against it: {', '.join(against)}. " if against else "")
        + "The first three schools are rules of thumb; reserve and angle come from this bow's "
        "model. Draw decides, not height or age."
    )
    if best.objects:
        return [
            mind(
                said=say(
                    "No length of this form suits your draw whole: {best} comes nearest.",
                    best=("bow_length", best.length_in),
                ),
                why=why,
                told="rule",
            )
        ]
    if same:
        return [
            fine(
                said=(
                    say(f"Keep this length: {_votes(taken)}, and")
                    + _stays(b, b.bow.angle_deg, _own_reserve_in(b))
                ).ended(),
                why=why,
                told="rule",
            )
        ]
    worse = own is None or own.objects or own.schools_for < best.schools_for
    changes: dict[str, object] = {"bow.length_in": best.length_in, "bow.riser_in": best.riser_in}
    length = ("bow_length", best.length_in)
    head = say(f"Take a {{length}} bow: {_votes(best)}, and", length=length)
    if not worse:
        head = say(
            "This length will do; the first choice would be {length}: " + f"{_votes(best)}, and",
            length=length,
        )
    return [
        Finding(
            level="mind" if worse else "fine",
            said=(head + _stays(b, best.string_angle_deg, best.stack_reserve_in)).ended(),
            why=why,
            told="rule",
            action=Action(label=say("Try {length}", length=length), changes=changes),
        )
    ]


def _too_long(b: Bench) -> list[Finding]:
    """What a bow too long costs this archer beside the reserve it gives."""
    own = b.fit.own
    ratio = b.rig.bow.length_in / b.archer.true_draw.value
    if ratio <= idle_ratio(b.rig.bow.form) or not b.fit.candidates:
        return []
    best = b.fit.candidates[0]
    reserve_in = _own_reserve_in(b)
    gives = say("smoothness")
    if reserve_in is not None and reserve_in > 0:
        gives = say("{reserve} of reserve", reserve=("draw", reserve_in))
    slower = 0.0 if own is None else best.speed_fps - own.speed_fps
    why = say(
        "Limbs hardly worked leave the string slack at brace, and more of what they store stays in "
        "the bow. Some want it for its smoothness."
    )
    if slower >= 1:
        why += say(
            "By the model the arrow leaves {slower} slower than from the first choice.",
            slower=("speed", slower),
        )
    return [
        mind(
            said=(say("A long bow for your draw: it gives") + gives).ended(
                ", for hand shock, string slap and a slower arrow."
            ),
            why=why,
            told="practice",
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
