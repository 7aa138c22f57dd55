"""The words of tab, hand and aim."""

from __future__ import annotations

from lyrandis.core.terms.chapters import AIMING as _AIM
from lyrandis.core.terms.chapters import TAB_AND_HAND as _HAND
from lyrandis.core.terms.term import Term, term

HAND: tuple[Term, ...] = (
    term(
        "split", "split finger", _HAND,
        "One finger over the arrow, two under it.",
        fields=("archer.release",),
    ),
    term("three-under", "three under", _HAND, "All three fingers under the arrow."),
    term(
        "thumb-draw", "thumb draw", _HAND,
        "The thumb hooks the string under the arrow, often with a ring; the arrow lies on the "
        "other side of the bow.",
    ),
    term(
        "thumb-offset", "thumb offset", _HAND,
        "Thumb draw: how far the string stands behind the mark on the arrow.",
        "At full draw, from the mark to the string where the thumb holds it.",
        "small", ("archer.thumb_offset_mm",),
    ),
    term(
        "ring", "thumb ring", _HAND,
        "A ring or a sling of leather that guards the thumb; the string lies on its edge.",
    ),
    term("tab", "tab", _HAND, "A piece of leather between fingers and string."),
    term(
        "tab-mark", "tab mark", _HAND,
        "One of the evenly spaced marks on a tab by which the thumb nail finds the crawl.",
        "From one mark to the tenth next one, divided by ten.",
        "small", ("archer.stitch_pitch_mm",),
    ),
    term(
        "finger-width", "finger width", _HAND,
        "How wide one string finger is, the tab over it. Crawls are remembered in it.",
        "Three fingers together on the tab, divided by three.",
        "small", ("archer.finger_width_mm",),
    ),
    term(
        "anchor", "anchor", _HAND,
        "Where the string hand rests at full draw, the same place each time.",
        fields=("archer.anchor",),
    ),
    term(
        "to-nock", "to nock", _HAND,
        "To clip the arrow's nock on the string at the nock point.",
        "It should hold its own weight there and leave with a tap.",
    ),
    term(
        "crawl", "crawl", _AIM,
        "How far the fingers go down the string from the arrow nock. More crawl: the arrow "
        "leaves lower, for nearer distances.",
        "From the arrow nock to the top of the upper finger.",
        "crawl",
    ),
    term(
        "point-on", "point-on", _AIM,
        "The distance at which no crawl is needed: tip on the mark, arrow in the mark.",
        "By shooting: where high turns to low.",
        "distance",
    ),
    term(
        "eye-height", "eye above arrow nock", _AIM,
        "How far the eye stands over the arrow at full draw. It sets point-on.",
        "From the eye to the arrow nock, square to the shaft.",
        "crawl", ("archer.eye_above_nock_mm",),
    ),
    term(
        "danger-space", "danger space", _AIM,
        "The stretch of distances over which a crawl still lands in the spot.",
        "The arrow's height against half the spot's, by the flight model.",
        "distance", ("aim.distances_m", "aim.spot_half_height_cm"),
    ),
    term(
        "gap", "gap", _AIM,
        "Without a crawl: how far under the spot the tip is held, on the butt or beside the tip in "
        "widths of the shaft. Beyond point-on it is held over.",
        "By shooting with the tip on the spot: as far as the arrow lands high.",
        "spot",
    ),
    term(
        "hold-over", "hold over", _AIM,
        "Beyond point-on: how far over the spot the tip is held.",
        "Seen at the spot.",
        "spot",
    ),
    term(
        "slope", "slope", _AIM,
        "How steeply one shoots up (positive) or down. A sloped shot drops less.",
        "With a protractor and a plumb line, or from a map.",
        "angle", ("aim.slope_deg",),
    ),
)  # fmt: skip
