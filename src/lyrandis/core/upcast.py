"""Documents of earlier versions, brought to the present form before they are read.

A rig, an entry, a trial, a part and a line of its story are kept as the documents they were
written as, each with the number of its form. What a form did not know yet is filled in with what
it meant then: values written out here, not the models' defaults, which may change.

    form 1   rigs and their history
    form 2   trials; own school numbers, assembly, limbs, the plan to go up, the string's build
    form 3   every time with its zone; every name written out
    form 4   quiet checks say what heard them
    form 5   rigs say which parts are on them; entries name those that came on, and whether their
             changes say what was measured; parts and their stories

A new form adds its number and one step for each kind of document it changes. Nothing here
judges: a document that is no such thing is handed on as it is, and refused where it is read.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from lyrandis.core.dates import with_zone

FORM = 5

Document = Any  # plain JSON
Step = Callable[[Document], Document]

_RIG_BEFORE_3: dict[str, dict[str, Any]] = {
    "archer": {"grown": "adult"},
    "string": {"build": "unknown", "worked_in": None},
    "schools": {
        "short_limb_to_in": 26.5,
        "medium_limb_to_in": 29.75,
        "ladder_start_in": 64.0,
        "ladder_start_draw_in": 25.0,
        "ladder_rung_draw_in": 2.0,
        "ratio_low": 2.05,
        "ratio_high": 2.3,
        "reserve_in": 1.5,
        "reserve_close_cover_in": -0.5,
        "angle_three_under_deg": 127.0,
        "angle_split_deg": 121.0,
    },
    "assembly": {"done": []},
    "limbs": {
        "pair": "unknown",
        "upper_lbf": None,
        "lower_lbf": None,
        "upper_class": None,
        "lower_class": None,
        "upper_turns": 0.0,
        "lower_turns": 0.0,
        "degrees_per_turn": 0.8,
    },
    "step_up": {
        "from_lbf": None,
        "goal_lbf": None,
        "step_lbf": 2.0,
        "weeks": 6.0,
        "starts": "",
    },
}
_TRIAL_BEFORE_3: dict[str, dict[str, Any]] = {
    "draw": {"convention": "trade", "back_offset_in": None},
    "weighing": {"scale": "typed"},
    "hold": {"ended": "steady"},
    "inspection": {"found": []},
    "brace": {
        "reference": "grip",
        "twists": None,
        "arrows": 3,
        "levels_db": [],
        "heard_by": "ear",
        "feel": None,
        "group_cm": None,
    },
    "settling": {"reference": "grip"},
    "quiet": {
        "tone_before_hz": None,
        "tone_before_db": None,
        "tone_after_hz": None,
        "tone_after_db": None,
    },
}


def _filled(document: Document, usual: Mapping[str, Any]) -> Document:
    """A document with names it does not have taken from `usual`, at every depth."""
    if not isinstance(document, dict):
        return document
    filled = dict(document)
    for name, value in usual.items():
        if name not in filled:
            filled[name] = _filled({}, value) if isinstance(value, dict) else value
        elif isinstance(value, dict):
            filled[name] = _filled(filled[name], value)
    return filled


def _rig_before_3(document: Document) -> Document:
    # Forms 1 and 2 grew name by name while they were written; what each lacks, it meant so.
    return _filled(document, _RIG_BEFORE_3)


_ENTRY_BEFORE_3: dict[str, Any] = {
    "station": None,
    "standing": None,
    "why": "",
    "changes": [],
    "trial": None,
    "about": None,
}


def _entry_before_3(document: Document) -> Document:
    entry = _filled(document, _ENTRY_BEFORE_3)
    if isinstance(entry, dict) and isinstance(entry.get("at"), str):
        entry["at"] = with_zone(entry["at"]) or entry["at"]
    return entry


def _trial_before_3(document: Document) -> Document:
    if not isinstance(document, dict) or not isinstance(document.get("kind"), str):
        return document
    return _filled(document, {"day": "", "notes": ""} | _TRIAL_BEFORE_3.get(document["kind"], {}))


def _trial_before_4(document: Document) -> Document:
    if isinstance(document, dict) and document.get("kind") == "quiet":
        return _filled(document, {"heard_by": "unknown"})
    return document


_MEASURED = ("bow.measured", "arrow.weighed_gr", "string.mass_gr")


def _entry_before_5(document: Document) -> Document:
    if not isinstance(document, dict):
        return document
    changes = document.get("changes")
    paths = {c.get("path") for c in changes or () if isinstance(c, dict)}
    # A pull of the scale brought its readings along; every other measured setting came alone.
    alone = paths & (set(_MEASURED) if document.get("trial") is None else set(_MEASURED[1:]))
    return document | {"parts": document.get("parts") or [], "implied": bool(alone)}


PARTS_SINCE = 5  # no part is of an earlier form

# By the form a document is in: the step to the next one. Where a form changed nothing, no step.
_RIG: dict[int, Step] = {2: _rig_before_3}
_ENTRY: dict[int, Step] = {2: _entry_before_3, 4: _entry_before_5}
_TRIAL: dict[int, Step] = {2: _trial_before_3, 3: _trial_before_4}
_PART: dict[int, Step] = {}
_STORY: dict[int, Step] = {}


def _stepped(document: Document, form: int, steps: Mapping[int, Step]) -> Document:
    for number in range(form, FORM):
        step = steps.get(number)
        document = document if step is None else step(document)
    return document


def rig_document(document: Document, form: int) -> Document:
    """A rig's document in the present form; `document` itself is left as it is."""
    return _stepped(document, form, _RIG)


def trial_document(document: Document, form: int) -> Document:
    """A trial's document in the present form."""
    return _stepped(document, form, _TRIAL)


def entry_document(document: Document, form: int) -> Document:
    """An entry's document in the present form, with the trial it may hold."""
    entry = _stepped(document, form, _ENTRY)
    if form < FORM and isinstance(entry, dict) and entry.get("trial") is not None:
        entry = entry | {"trial": trial_document(entry["trial"], form)}
    return entry


def part_document(document: Document, form: int) -> Document:
    """A part's document in the present form."""
    return _stepped(document, form, _PART)


def story_document(document: Document, form: int) -> Document:
    """The document of a line of a part's story in the present form."""
    return _stepped(document, form, _STORY)
