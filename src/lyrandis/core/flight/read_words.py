"""The tests and their outcomes in an archer's words, as they look from behind the bow."""

from __future__ import annotations

from collections.abc import Sequence

from lyrandis.core.parts import TestId
from lyrandis.core.words import WORDS

TITLES = WORDS["reading.left_out"]
HOW: dict[TestId, str] = {
    "kick_3_paces": "Three arrows from three or four paces at chest height; log where each arrow "
    "nock leans.",
    "kick_7_paces": "Three arrows from about seven paces at chest height; log where each arrow "
    "nock leans.",
    "bare_shaft_15m": "Three fletched and three bare shafts from about 15 m; log where the bare "
    "ones land beside the others, or put the whole group down under Groups. Only with a wide "
    "backstop.",
    "brace_reread": "Turns in or out of the string for 6 mm of brace, three arrows; as far the "
    "other way, three arrows. Only whether the read swings counts.",
    "felt_plate": "Stick soft thick felt on the side plate and read the nocks again: a read that "
    "swings to stiff was a bounce.",
    "silencers": "Read the nocks with silencers on and with none.",
    "short_draw": "Draw an inch short on purpose and read the nocks; never longer than the arrow "
    "allows.",
    "long_draw": "Draw an inch long on purpose, with somebody who watches the point, and read the "
    "nocks; only where arrow, bow and maker leave more than that inch.",
    "wear_marks": "Dust the side plate with powder or chalk, shoot two, look for a scuff.",
    "clatter": "Record some shots as for Brace: a knock between the string and the butt is the "
    "shaft on the bow.",
    "slow_motion": "A telephone on a stand, in slow motion: does the tail touch the side plate? "
    "From above the bend can be read too.",
    "group_25m": "Six fletched arrows from about 25 m at one mark: left or right of it? "
    "Or put the whole group down under Groups.",
    "nock_height": "Three arrows from a few paces, seen from the side.",
}
_LOOKS = {"weak": "looks weak", "straight": "straight", "stiff": "looks stiff"}
_PLAIN: dict[TestId, dict[str, str]] = {
    "brace_reread": {"holds": "the read holds", "swings": "the read swings"},
    "felt_plate": {"holds": "the read holds", "swings": "the read swings to stiff"},
    "wear_marks": {"no": "no scuff", "yes": "a scuff"},
    "clatter": {"none": "no clatter", "heard": "a clatter"},
    "slow_motion": {"clear": "the tail passes clear", "bounce": "the tail strikes the side plate"},
    "nock_height": {"low": "low", "level": "level", "high": "high"},
}
_SHIFTING: tuple[TestId, ...] = ("silencers", "short_draw", "long_draw")
_SHIFTS = {"weaker": "it goes towards weak", "same": "nothing moves",
           "stiffer": "it goes towards stiff"}  # fmt: skip


_COLUMNS, _ROWS = ("left", "", "right"), ("low", "", "high")


def nock_words(nocks: Sequence[int]) -> str:
    """Where each of some nocks stood on the block, in words.

    >>> nock_words((4, 5, 9))
    'left, straight, high right'
    """

    def one(cell: int) -> str:
        row, column = _ROWS[(cell - 1) // 3], _COLUMNS[(cell - 1) % 3]
        return f"{row} {column}".strip() or "straight"

    return ", ".join(one(cell) for cell in nocks)


def plain_words(test: TestId, outcome: str) -> str:
    """An outcome in words that no hand changes.

    >>> plain_words("bare_shaft_15m", "stiff2/low")
    'looks clearly stiff; low'
    """
    if test in _PLAIN:
        return _PLAIN[test][outcome]
    if test in _SHIFTING:
        return _SHIFTS[outcome]
    side, _, height = outcome.partition("/")
    look = _LOOKS[side.rstrip("2")]
    if side.endswith("2"):
        look = look.replace("looks", "looks clearly")
    return f"{look}; {height}" if height else look


def _beside(look: str, weak: str, stiff: str) -> str:
    """A look with the side that it shows on."""
    side = {"weak": weak, "stiff": stiff}.get(look.rstrip("2"))
    far = "far " if look.endswith("2") else ""
    return _LOOKS[look.rstrip("2")] if side is None else f"{far}{side}, {_LOOKS[look.rstrip('2')]}"


def outcome_words(test: TestId, outcome: str, plate_left: bool) -> str:
    """An outcome in words, with the sides as this archer sees them.

    Parameters
    ----------
    plate_left : whether the arrow stands to the left of the bow

    >>> outcome_words("kick_7_paces", "weak", plate_left=True)
    'nocks left, looks weak'
    >>> outcome_words("bare_shaft_15m", "stiff2/low", plate_left=True)
    'far left, looks stiff; low'
    """
    left, right = ("left", "right") if plate_left else ("right", "left")
    if test in ("kick_3_paces", "kick_7_paces"):
        return _beside(outcome, f"nocks {left}", f"nocks {right}")
    if test == "group_25m":
        return _beside(outcome, right, left)
    if test == "bare_shaft_15m":
        side, height = outcome.split("/")
        return f"{_beside(side, right, left)}; {height}"
    if test in _SHIFTING:
        return _SHIFTS[outcome]
    return _PLAIN[test][outcome]
