"""The chapters of the terms, once: words and drawings both stand in one of them."""

THE_BOW = "The bow"
BOW_AND_ARCHER = "Bow and archer"
THE_STRING = "The string"
THE_ARROW = "The arrow"
TAB_AND_HAND = "Tab and hand"
AIMING = "Aiming"
