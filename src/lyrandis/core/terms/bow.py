"""The bow's words."""

from __future__ import annotations

from lyrandis.core.bow.form import TRADE_OFFSET_IN
from lyrandis.core.terms.chapters import BOW_AND_ARCHER as _FIT
from lyrandis.core.terms.chapters import THE_BOW as _BOW
from lyrandis.core.terms.term import Term, say, school, term

BOW: tuple[Term, ...] = (
    term(
        "longbow", "longbow", _BOW,
        "A bow whose limbs are straight, or nearly so, from riser to tip.",
    ),
    term(
        "hybrid", "reflex–deflex bow", _BOW,
        "A slim bow whose limbs lean back towards the archer at the riser and forward again at "
        "the tips; the string does not touch them.",
    ),
    term(
        "recurve", "recurve", _BOW,
        "A bow whose tips curve away from the archer; at brace the string lies on the curves and "
        "lifts off them as it is drawn.",
    ),
    term(
        "static-tip", "static-tip bow", _BOW,
        "A bow whose limbs end in stiff levers that do not bend; often short, and drawn with the "
        "thumb.",
        fields=("bow.tips",),
    ),
    term(
        "bow-length", "bow length", _BOW,
        "How long the bow is as it is named, unstrung.",
        "Along the back from limb nock to limb nock.",
        "bow_length", ("bow.length_in",),
        (
            school("along the back", "Nock to nock along the curve of the back: used here.",
                   "bow-length"),
            school("by the string", "The length of string it takes plus the form's usual "
                   "allowance: what many takedowns are sold by."),
        ),
    ),
    term(
        "riser", "riser", _BOW,
        "The stiff middle part, with the grip and the shelf.",
        "From where one limb begins to bend to where the other does.",
        "bow_length", ("bow.riser_in", "bow.takedown"),
    ),
    term(
        "limb", "limb", _BOW, "The part that bends; there is an upper and a lower one.",
        fields=("bow.limb_material",),
    ),
    term("tip", "limb tip", _BOW, "The end of a limb, where the string leaves it."),
    term(
        "limb-nock", "limb nock", _BOW,
        "The groove at a limb's end that holds the string's loop.",
    ),
    term("back", "back", _BOW, "The side of the bow that faces the target."),
    term("belly", "belly", _BOW, "The side of the bow that faces the archer."),
    term("grip", "grip", _BOW, "Where the bow hand presses."),
    term(
        "pivot", "pivot", _BOW,
        "The deepest part of the grip. Draw and brace height start from here.",
    ),
    term(
        "shelf", "shelf", _BOW,
        "The ledge over the hand on which the arrow lies; a bow without one is shot off the hand.",
    ),
    term(
        "side-plate", "side plate", _BOW,
        "What the arrow leans against: leather, felt, a hard plate, or a plunger with a spring.",
        fields=("bow.side_plate",),
    ),
    term(
        "centre-cut", "centre cut", _BOW,
        "How the bow is built: how far the side plate stands past the plane of the string, or "
        "short of it.",
        "From behind, string over the middle of both limbs: from the string to the plate.",
        "small", ("bow.centre_cut_mm",),
    ),
    term(
        "centre-shot", "centre shot", _BOW,
        "How it is set: where the arrow's point stands beside the string. Plate or plunger move "
        "it; the cut of the bow limits it.",
        "From behind, arrow on the string: from the string to the middle of the point.",
        "small",
    ),
    term(
        "tiller", "tiller", _BOW,
        "How much farther the upper limb stands from the string than the lower one.",
        "Square from the string to each limb where it leaves the riser; upper less lower.",
        "small",
    ),
    term(
        "limb-bolt", "limb bolt", _BOW,
        "The screw that tilts a takedown's limb. Both out alike: lighter; one alone: another "
        "tiller as well.",
        "In whole turns out from where the marked weight holds.",
        "turns",
        ("limbs.upper_turns", "limbs.lower_turns", "limbs.degrees_per_turn"),
    ),
    term(
        "draw-length", "draw length", _FIT,
        say(
            "How far the archer draws, the same way each time. By the trade standard: from the "
            "arrow nock's groove to the pivot of the grip, plus {more}.",
            more=("draw", TRADE_OFFSET_IN),
        ),
        "With a marked arrow at full draw, several times over; tape and arm span only guess it.",
        "draw",
        ("archer.draw_length_in", "archer.draw_method", "archer.draw_plus_minus_in"),
        (
            school(
                "trade standard",
                say("To the pivot plus {more}: what weights are marked by, and used here.",
                    more=("draw", TRADE_OFFSET_IN)),
                "draw-trade",
            ),
            school("to the pivot", "To the deepest part of the grip and no more.", "draw-pivot"),
            school("to the back", "To the far side of the bow over the shelf: where a mark on the "
                   "arrow is easiest to see.", "draw-back"),
        ),
    ),
    term(
        "brace-height", "brace height", _FIT,
        "How far the string stands from the bow when it is strung and nobody draws.",
        "With a bow square, its arm on the string; at the start of each session.",
        "brace",
        ("bow.brace_height_in", "bow.brace_reference", "bow.brace_offset_in",
         "bow.maker_brace_low_in", "bow.maker_brace_high_in"),
        (
            school("to the grip", "To the pivot: most archers, and used here.", "brace-grip"),
            school("to the back", "To the back of the bow by the shelf: some bowyers.",
                   "brace-back"),
            school("to the plunger", "To the plunger's centre line: target bows.",
                   "brace-plunger"),
        ),
    ),
    term(
        "to-brace", "to brace", _FIT,
        "To string the bow. A braced bow is a strung one; it has a brace height only then.",
        "Use a stringer: stepping through the bow twists limbs and hurts people.",
    ),
    term(
        "marked-weight", "marked weight", _FIT,
        "The number on the bow: what it should pull at the draw it is marked for. It is good to a "
        "pound or two.",
        None, "weight",
        ("bow.marked_weight_lbf", "bow.marked_draw_in", "limbs.upper_lbf", "limbs.lower_lbf"),
    ),
    term(
        "weight-at-draw", "weight at your draw", _FIT,
        "What this archer's fingers hold at full draw. It is the one that counts.",
        "With a bow scale pulled to the mark; else the bow model estimates it.",
        "weight", ("bow.measured", "step_up.from_lbf", "step_up.goal_lbf"),
    ),
    term(
        "stack", "stack", _FIT,
        "The draw from which each further inch costs much more than the one before.",
        "Where the curve of weight over draw turns up.",
        "draw", ("schools.reserve_in", "schools.reserve_close_cover_in"),
    ),
    term(
        "reserve", "reserve", _FIT,
        "How much farther the bow could be drawn before it stacks.",
        "The stack's draw less yours.",
        "draw",
    ),
    term(
        "string-angle", "string angle", _FIT,
        "The angle that the string makes at the fingers at full draw. A short bow pinches them.",
        "Between the two halves of the string, by the bow model.",
        "angle", ("schools.angle_three_under_deg", "schools.angle_split_deg"),
    ),
)  # fmt: skip
