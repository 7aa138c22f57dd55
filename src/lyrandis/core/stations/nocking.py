"""How the arrow nock holds on the string, and the hand on the grip: the nock point's neighbours."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding, fine, mind, say

_HAND_MM = 1.0


def nock_fit(b: Bench) -> list[Finding]:
    """How the arrow nock holds on the string."""
    fit, thumb = b.rig.nocking.fit, b.rig.archer.release == "thumb"
    why = say(
        "Hang the arrow on the string and tap the string: it should hold its own weight and leave "
        "with a tap. Some thumb archers shoot it loose on purpose and hold it with the hand."
    )
    if fit == "not_tried":
        return [
            mind(
                said=say("Try how the arrow nock holds: its own weight, and off with a tap."),
                why=why,
                told="practice",
            )
        ]
    if fit == "snug" or (fit == "loose" and thumb):
        return [
            fine(
                said=say(
                    "The arrow nock holds as it should."
                    if fit == "snug"
                    else "A loose arrow nock is a thumb archer's choice: hold it with the hand."
                ),
                why=why,
                told="practice",
            )
        ]
    return [
        mind(
            said=say(
                "A tight arrow nock is dragged off the string and reads as a nock point that is "
                "wrong. Thin the serving or take another arrow nock."
                if fit == "tight"
                else "A loose arrow nock slips off the string: a shot without an arrow. Build up "
                "the serving before you shoot."
            ),
            why=why,
            told="practice",
        )
    ]


def grip(b: Bench) -> Finding:
    thumb = b.rig.archer.release == "thumb"
    cost = say(
        "A hand {hand} higher is a nock point {hand} lower"
        + (
            ", and with the arrow just above the hand that is the whole clearance."
            if thumb
            else "."
        ),
        hand=("small", _HAND_MM),
    )
    why = say(
        "Set the web of the hand to the line, press with the heart of the palm, pull with the lower "
        "two or three fingers, and let thumb and index be free."
        if thumb
        else "The web of the hand on the same line each time; heel low or high changes which limb "
        "works harder."
    )
    if b.rig.nocking.grip_line == "line":
        return fine(said=cost + say("Set the hand to its line."), why=why, told="practice")
    told = mind if thumb else fine
    return told(
        said=cost + say("Mark a line on the grip and set the hand to it."), why=why, told="practice"
    )
