"""The word for each option of a setting, once: for pages, sentences and papers alike."""

from __future__ import annotations

from typing import Any

NOT_SET = "not set"
CUT_FOR = {
    "right": "the right hand",
    "left": "the left hand",
    "both": "either hand",
    "unknown": "not said",
}
# By the setting's dotted path; yes and no are their own words.
WORDS: dict[str, dict[str, str]] = {
    "use": {
        "close_cover": "close cover",
        "woodland": "woodland",
        "range": "range",
        "backyard": "back yard",
    },
    "route": {
        "by_bow": "by the bow",
        "shelf": "shelf bow",
        "takedown": "takedown",
        "thumb": "thumb draw",
    },
    "spine_school": {"window": "the window", "over_stiff": "over-stiff"},
    "size_term": {"usual": "as usual", "always": "counts", "never": "left out"},
    "arrow_side": {
        "by_hand": "by hand and release",
        "left": "left of the bow",
        "right": "right of the bow",
    },
    "nocking.school": {"square": "bow square", "by_eye": "by eye"},
    "nocking.fit": {
        "not_tried": "not tried",
        "snug": "snug",
        "loose": "loose",
        "tight": "tight",
    },
    "reading.left_out": {
        "kick_3_paces": "nocks at three paces",
        "kick_7_paces": "nocks at seven paces",
        "bare_shaft_15m": "bare shafts among fletched ones",
        "brace_reread": "brace height up and down, read again",
        "felt_plate": "soft felt on the side plate",
        "silencers": "silencers on and off",
        "short_draw": "drawn an inch short",
        "wear_marks": "powder on the side plate",
        "clatter": "a recording of the shot",
        "slow_motion": "a look in slow motion",
        "group_25m": "a group from far",
        "nock_height": "how high the nocks stand",
        "long_draw": "drawn an inch long",
    },
    "nocking.grip_line": {"none": "none", "line": "marked"},
    "archer.draw_method": {
        "tape": "tape",
        "arm_span": "arm span",
        "marked_arrow": "marked arrow",
    },
    "archer.grown": {"adult": "adult", "child": "child"},
    "archer.hand": {"right": "right", "left": "left"},
    "archer.release": {"split": "split finger", "three_under": "three under", "thumb": "thumb"},
    "aim.allowed": {"crawls": "any crawl", "one": "one crawl", "none": "no crawl"},
    "aim.counted_by": {"mm": "a ruler", "marks": "tab marks", "fingers": "finger widths"},
    "aim.mark_parts": {"whole": "whole marks", "half": "halves", "quarter": "quarters"},
    "archer.anchor": {"under_chin": "under the chin", "cheek": "at the cheek"},
    "bow.form": {
        "recurve": "recurve",
        "hybrid": "reflex–deflex",
        "longbow": "longbow",
        "static_tip": "static-tip",
    },
    "bow.takedown": {"true": "takedown", "false": "one piece"},
    "bow.brace_reference": {"grip": "grip", "back": "back", "plunger": "plunger"},
    "bow.limb_material": {
        "laminated": "laminated",
        "solid_glass": "solid glass",
        "natural": "natural",
    },
    "bow.tips": {
        "working": "working",
        "short": "short static",
        "long": "long static",
        "heavy": "heavy static",
    },
    "bow.low_stretch_rated": {"yes": "yes", "no": "no", "unknown": "not known"},
    "bow.side_plate": {
        "plunger": "plunger",
        "leather": "leather",
        "felt": "felt",
        "hard": "hard",
    },
    "bow.plunger_spring": {
        "unknown": "not said",
        "soft": "soft",
        "medium": "medium",
        "firm": "firm",
    },
    "string.material": {
        "polyester": "polyester",
        "low_stretch": "low-stretch",
        "natural": "natural fibre",
    },
    "string.build": {
        "unknown": "not said",
        "two_bundle": "two-bundle, twisted",
        "endless": "endless",
    },
    "arrow.material": {
        "carbon": "carbon",
        "aluminium": "aluminium",
        "wood": "wood",
        "cane": "cane",
    },
    "limbs.pair": {
        "unknown": "not looked at",
        "pair": "one pair",
        "two_upper": "two upper limbs",
        "two_lower": "two lower limbs",
        "two_makers": "of two makers",
    },
    "limb.which": {"upper": "top limb", "lower": "bottom limb", "unknown": "not said"},
    "bow.cut_for": CUT_FOR,
    "riser.cut_for": CUT_FOR,
    "keeping.state": {
        "in_use": "in use",
        "lent": "lent",
        "put_away": "put away",
        "condemned": "condemned",
    },
    "limbs.upper_class": {"short": "short", "medium": "medium", "long": "long"},
    "limbs.lower_class": {"short": "short", "medium": "medium", "long": "long"},
}


def word(path: str, value: Any) -> str:
    """The word for a setting's option.

    >>> word("archer.release", "three_under"), word("bow.takedown", False)
    ('three under', 'one piece')
    """
    if value is None or value == "":
        return NOT_SET
    key = str(value).lower() if isinstance(value, bool) else str(value)
    return WORDS.get(path, {}).get(key, key)
