"""Weights on the riser: where they hang matters as much as how heavy they are."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer

_HEAVY_G = 700.0  # own threshold: a hand that holds a bow notices
_SHORT = {
    "middle_g": "by the grip",
    "front_g": "in front",
    "upper_pocket_g": "in the upper pocket",
    "lower_pocket_g": "in the lower pocket",
    "bar_g": "on a bar from pocket to grip",
}


def hung_said(b: Bench) -> Said:
    """What hangs where, as a piece of a sentence."""
    hung = b.rig.weights.hung
    if not hung:
        return say("nothing")
    parts = [f"{{{name}}} {_SHORT[name]}" for name in hung]
    listed = parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
    return say(listed, **{name: ("hung", grams) for name, grams in hung.items()})


def note(b: Bench) -> Said:
    """How much hangs there."""
    hung = b.rig.weights.hung
    return say("{sum}", sum=("hung", sum(hung.values()))) if hung else say("nothing hung")


def tell(b: Bench) -> Answer:
    """What hangs on the riser."""
    hung = b.rig.weights.hung
    if not hung:
        return Answer(
            say("Nothing hangs on the riser: {none}.", none=("hung", 0.0)),
            [
                fine(
                    said=say("It need not carry any. What is hung belongs near the grip."),
                    why=_WHY,
                    told="practice",
                ),
                _rules(),
            ],
        )
    return Answer(
        hung_said(b).around("On the riser hang ", "."),
        [*_pockets(b), *_bar(b), *_middle(b), *_heavy(b), _rules()],
    )


_WHY = say(
    "Near the grip and joined to the stiff middle, weight steadies the hold and leaves the limbs "
    "alone. At one end it makes that end slow and stiff."
)


def _to_the_grip(b: Bench, *names: str) -> Action:
    held = b.rig.weights
    grams = sum(float(getattr(held, name)) for name in names)
    return Action(
        label=say("Hang it by the grip"),
        changes={
            **{f"weights.{name}": 0.0 for name in names},
            "weights.middle_g": held.middle_g + grams,
        },
    )


def _pockets(b: Bench) -> list[Finding]:
    held = b.rig.weights
    if held.upper_pocket_g and held.lower_pocket_g:
        return [
            mind(
                said=say(
                    "Weight in both pockets slows the whole bow's ends: it holds stiller, and "
                    "forgives less."
                ),
                why=_WHY,
                told="practice",
                action=_to_the_grip(b, "upper_pocket_g", "lower_pocket_g"),
            )
        ]
    found = []
    for name, which, nock in (
        ("upper_pocket_g", "upper", "a lower"), ("lower_pocket_g", "lower", "a higher"),
    ):  # fmt: skip
        if not getattr(held, name):
            continue
        found.append(
            mind(
                said=say(
                    f"Weight in the {which} pocket alone slows that limb, wants {nock} nock point "
                    "and costs forgiveness."
                ),
                why=_WHY
                + say(
                    "Practice's word; the model of two limbs does not show it. Let the nock reads "
                    "say how much."
                ),
                told="practice",
                action=_to_the_grip(b, name),
            )
        )
    return found


def _bar(b: Bench) -> list[Finding]:
    if not b.rig.weights.bar_g:
        return []
    return [
        mind(
            said=say(
                "A bar that joins a pocket and the grip stiffens that side: the nock travels less "
                "straight, although the bow holds stiller."
            ),
            why=_WHY,
            told="practice",
            action=_to_the_grip(b, "bar_g"),
        )
    ]


def _middle(b: Bench) -> list[Finding]:
    held = b.rig.weights
    found = []
    if held.middle_g:
        found.append(
            fine(said=say("By the grip it steadies and costs nothing."), why=_WHY, told="practice")
        )
    if held.front_g:
        found.append(
            fine(
                said=say("In front, on the stiff middle, it steadies and tips the bow forward."),
                why=say("Screw it tight: what is loose rattles and is heard as noise of the bow."),
                told="practice",
            )
        )
    return found


def _heavy(b: Bench) -> list[Finding]:
    total = sum(b.rig.weights.hung.values())
    if total <= _HEAVY_G:
        return []
    return [
        mind(
            said=say(
                "{total} at arm's length tires a shoulder. Hang less until it is held as long as "
                "the bow is.",
                total=("hung", total),
            ),
            why=say("Stop at pain. A coach sees earlier than you do when the arm sinks."),
            told="practice",
        )
    ]


def _rules() -> Finding:
    return fine(
        said=say("Classes without a sight limit what may hang on a bow: ask your class's rules."),
        why=say("Some measure the unstrung bow through a ring with everything on it."),
        told="practice",
    )
