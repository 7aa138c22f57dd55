"""What was measured once and is an estimate again, and readings that look like a slip."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import TRADE_OFFSET_IN
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding, Said, mind, say
from lyrandis.core.measured import model_lbf
from lyrandis.core.string.twists import brace_per_string_slack
from lyrandis.core.units import KG_PER_LB

_OF = {
    "bow.measured": ("weight", "by the scale", "Weigh the bow again"),
    "arrow.weighed_gr": ("mass", "on the grain scale", "Weigh an arrow again"),
    "string.mass_gr": ("mass", "on the grain scale", "Weigh the string again"),
}
FAR_SHARE = 0.10  # of what the model says: more than markings and forms differ by
SLIP_SHARE = 0.07  # so near a slip's own figure, the slip is likely


def recall(b: Bench, path: str) -> list[Finding]:
    """What an earlier measurement says of the rig as it is; nothing where it still holds."""
    told = b.recalled.get(path)
    if told is None:
        return []
    quantity, by, again = _OF[path]
    moved = " and ".join(told.moved[:2]) + (" and more" if len(told.moved) > 2 else "")
    verb = "changed" if len(told.moved) == 1 else "have changed"
    elsewhere = f" with {told.trial.rig.name}" if told.trial.rig_id is not None else ""
    return [
        mind(
            said=say(
                f"Was {{was}} {by} on {{day}}{elsewhere}; the {moved} {verb} since: about {{now}}. "
                f"{again}.",
                was=(quantity, told.was),
                now=(quantity, told.now),
                day=told.trial.day,
            ),
            why=say(
                "A measurement holds for what it was taken with. The old reading is brought along "
                "by the model's ratio of new to old; the ± is the reading's and the step's."
            ),
            told="model",
        )
    ]


def _slips(ratio: float, b: Bench, draw: float) -> str:
    """The likeliest slip behind a reading that is `ratio` times what the model says."""
    kilograms = KG_PER_LB
    named = [
        (kilograms, "read in kilograms and entered as pounds"),
        (1 / kilograms, "read in pounds and entered as kilograms"),
    ]
    expected = model_lbf(b.rig, draw)
    for inches, words in (
        (TRADE_OFFSET_IN, "the draw was measured to the grip and entered as the trade standard"),
        (-TRADE_OFFSET_IN, "the trade standard's stretch was added to the draw twice"),
    ):
        try:
            figure = model_lbf(b.rig, draw + inches) / expected
        except RefusedError:
            continue
        if figure > 0:  # at brace there is no force to compare with
            named.append((figure, words))
    near = [(abs(ratio / figure - 1), words) for figure, words in named]
    apart, words = min(near)
    return words if apart < SLIP_SHARE else "other limbs are on than the marking says"


def question_readings(b: Bench) -> list[Finding]:
    """Scale readings far from what marking and model say, with the likely slip."""
    readings = b.rig.bow.measured
    if not readings:
        return []
    draw, force = max(readings)
    try:
        ratio = force / model_lbf(b.rig, draw)
    except RefusedError:
        return []
    if abs(ratio - 1) <= FAR_SHARE:
        return []
    far = "far over" if ratio > 1 else "far under"
    return [
        mind(
            said=say(
                f"{{force}} at {{draw}} is {far} the {{expected}} that the marking comes to there. "
                f"Perhaps {_slips(ratio, b, draw)}: read it again.",
                force=("weight", force),
                draw=("draw", draw),
                expected=("weight", force / ratio),
            ),
            why=_slip_why(),
            told="model",
        )
    ]


def question_brace(b: Bench) -> list[Finding]:
    """A brace height that a string of this length cannot give, with the likely slips."""
    length, brace = b.rig.string.length_in, b.rig.bow.brace_height_in
    if length is None or brace is None:
        return []
    try:
        off = length - b.string.fit.needed_length_in
        gives = brace - brace_per_string_slack(b.bow.curve.statics) * off
    except RefusedError:
        return []
    if abs(gives - brace) <= BRACE_OFF_IN:
        return []
    return [
        mind(
            said=say(
                "A string of {length} would brace this bow at about {gives}, not {brace}. Perhaps "
                "the brace was read to another place, the length is another string's, or one of "
                "them is mistyped: measure both again.",
                length=("bow_length", length),
                gives=("brace", gives),
                brace=("brace", brace),
            ),
            why=_slip_why(),
            told="model",
        )
    ]


BRACE_OFF_IN = 1.5  # makers' lengths differ by less than moves the brace so far


def _slip_why() -> Said:
    return say(
        "What a reading should be follows from the rest of the rig. A reading far from it is more "
        "often a slip than a wonder; if it holds when read again, keep it."
    )
