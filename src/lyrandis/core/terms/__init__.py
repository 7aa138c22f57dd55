"""The terms of the craft: one place for words, how each is measured, and who measures otherwise."""

from __future__ import annotations

from lyrandis.core.terms.arrow import ARROW
from lyrandis.core.terms.bow import BOW
from lyrandis.core.terms.drawing import Drawing, Shape
from lyrandis.core.terms.drawings import drawings
from lyrandis.core.terms.hand import HAND
from lyrandis.core.terms.string import STRING
from lyrandis.core.terms.term import Confusion, Term, TermSchool

TERMS: tuple[Term, ...] = (*BOW, *STRING, *ARROW, *HAND)
CONFUSIONS: tuple[Confusion, ...] = (
    Confusion(
        title="Four things are called nock",
        says="“Nock” alone says nothing here: it is a piece of the arrow, a place on the string, a "
        "groove in the bow, and something one does.",
        terms=("arrow-nock", "nock-point", "limb-nock", "to-nock"),
    ),
    Confusion(
        title="Brace and brace height",
        says="One is what is done to the bow, the other is what is then measured.",
        terms=("to-brace", "brace-height"),
    ),
    Confusion(
        title="Marked weight and weight at your draw",
        says="The first stands on the bow and holds at one draw; the second is in your fingers. "
        "They differ by some pounds for every inch that you draw more or less.",
        terms=("marked-weight", "weight-at-draw"),
    ),
    Confusion(
        title="Static and dynamic spine",
        says="The first is measured on a stand, the second is seen in flight. Two arrows of one "
        "static spine can act quite differently.",
        terms=("static-spine", "dynamic-spine"),
    ),
    Confusion(
        title="Centre cut and centre shot",
        says="The first is how the bow is built, the second how the arrow is set on it.",
        terms=("centre-cut", "centre-shot"),
    ),
)

__all__ = ["CONFUSIONS", "TERMS", "Confusion", "Drawing", "Shape", "Term", "TermSchool", "drawings"]
