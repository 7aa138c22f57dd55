"""Who draws: the archer, and a plan to go up in weight."""

from __future__ import annotations

from typing import Literal

from lyrandis.core.dates import Day
from lyrandis.core.parts.base import Frozen, Short, choice, measure

Hand = Literal["right", "left"]
Release = Literal["split", "three_under", "thumb"]
Anchor = Literal["under_chin", "cheek"]
DrawMethod = Literal["tape", "arm_span", "marked_arrow"]
Grown = Literal["adult", "child"]


def usually_left(hand: Hand, release: Release) -> bool:
    """Whether an arrow lies to the left of the bow by hand and release, as the archer sees it.

    >>> usually_left("right", "split"), usually_left("right", "thumb")
    (True, False)
    """
    return (hand == "right") != (release == "thumb")


class Drawing(Frozen):
    """How somebody draws: length of draw, hand, release, and how the eye stands over the arrow."""

    draw_length_in: float = measure(
        28.0,
        "draw",
        18,
        34,
        "Draw length",
        "Trade standard: from the arrow nock's groove to the pivot of the grip, and a set "
        "stretch beyond it.",
        "Nobody's draw lies outside this.",
    )
    draw_method: DrawMethod | None = choice(None, "Way of measuring")
    draw_plus_minus_in: float | None = measure(
        None, "draw", 0, 4, "Draw uncertainty", "One standard deviation of the draw length."
    )
    grown: Grown = choice(
        "adult", "Archer", "A child's bow is chosen with a coach; no plan is made here."
    )
    hand: Hand = choice("right", "Hand", "The hand that draws the string.")
    release: Release = choice("three_under", "Release")
    anchor: Anchor = choice("under_chin", "Anchor")
    eye_above_nock_mm: float = measure(
        112,
        "crawl",
        30,
        200,
        "Eye above arrow nock",
        "Eye to arrow nock at full draw, square to the shaft; the anchor's usual height stands "
        "here until it is measured.",
    )
    thumb_offset_mm: float | None = measure(
        None,
        "small",
        0,
        40,
        "Thumb offset",
        "Thumb draw: how far the string sits behind the mark on the arrow. "
        "Estimated from the string's angle if left empty.",
    )
    finger_width_mm: float = measure(
        18, "small", 10, 30, "Finger width", "Width of one string finger over the tab."
    )
    stitch_pitch_mm: float = measure(
        3, "small", 1, 15, "Tab mark pitch", "Distance between two marks on the tab."
    )


class Archer(Drawing):
    """Who draws, by name."""

    name: Short = ""


class StepUp(Frozen):
    """A plan to go up in weight: where to, in which steps, how far apart, from which day."""

    from_lbf: float | None = measure(None, "weight", 8, 120, "Now, at your draw")
    goal_lbf: float | None = measure(None, "weight", 8, 120, "Goal, at your draw")
    step_lbf: float = measure(2, "weight", 0.5, 6, "Step", "", "Small steps keep the form.")
    weeks: float = measure(
        6, "weeks", 2, 52, "Weeks between steps", "", "The body needs weeks for a step."
    )
    starts: Day = choice("", "Starts")
