"""What a rig becomes when another part is put on it.

The part brings its own settings. What belongs to the combination follows: a takedown's length is
its riser's and what the limbs add; its marked weight is the limbs' own, brought from the riser
they are marked on by the practitioners' 2 1/2 % an inch. What the combination cannot know any
more (the brace of another bow) is open.
"""

from __future__ import annotations

from typing import Any

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.fit.bow_length import LIMB_CLASS_ADDS_IN
from lyrandis.core.parts import KIND_OF, OWNED, LimbPart, Part, Rig, Slot
from lyrandis.core.parts.base import at

RISER_SHARE_PER_IN = 0.025  # of the weight; practice, the model says 0.011 (docs/mechanics A2)
_ALONG: dict[Slot, str] = {"string": "strings", "arrows": "sets"}


def fitted(rig: Rig, slot: Slot, part: Part, mark: str) -> dict[str, Any]:
    """The changes by which a part comes on.

    Parameters
    ----------
    mark : the part's

    Raises
    ------
    RefusedError : the part is of another kind than the slot, or the rig has no such slot.
    """
    if part.kind != KIND_OF[slot]:
        raise RefusedError("slot", f"A {part.kind} cannot be put where the {slot} goes.")
    elsewhere = next((s for s, m in rig.on.slots().items() if m == mark and s != slot), None)
    if elsewhere is not None:
        raise RefusedError("slot", f"It is on already, as the {elsewhere.replace('_', ' ')}.")
    if slot in ("riser", "upper_limb", "lower_limb") and not rig.bow.takedown:
        raise RefusedError("slot", "A bow in one piece takes no riser or limbs.")
    changes = {path: at(part, place) for path, place in OWNED[slot].items()}
    changes[f"on.{slot}"] = mark
    if slot in _ALONG:
        along = getattr(rig.on, _ALONG[slot])
        changes[f"on.{_ALONG[slot]}"] = tuple(dict.fromkeys((*along, mark)))
    if slot == "bow":
        changes |= {
            "bow.takedown": False, "on.riser": "", "on.upper_limb": "", "on.lower_limb": "",
            "bow.brace_height_in": None,
        }  # fmt: skip
    after = changed(rig, changes)
    if slot in ("riser", "upper_limb", "lower_limb"):
        changes |= _takedown(rig, after, part)
    return changes


def _takedown(before: Rig, after: Rig, part: Part) -> dict[str, Any]:
    """A takedown's length and marked weight with other limbs or another riser."""
    made: dict[str, Any] = {}
    limbs, riser = after.limbs, after.bow.riser_in
    known = [name for name in (limbs.upper_class, limbs.lower_class) if name is not None]
    if riser is not None and known and after.bow.form == "recurve":
        made["bow.length_in"] = riser + max(LIMB_CLASS_ADDS_IN[name] for name in known)
    marked = [w for w in (limbs.upper_lbf, limbs.lower_lbf) if w is not None]
    if isinstance(part.of, LimbPart):
        if marked and riser is not None:
            mean = sum(marked) / len(marked)
            shorter = part.of.marked_riser_in - riser
            made["bow.marked_weight_lbf"] = mean * (1 + RISER_SHARE_PER_IN * shorter)
    elif riser is not None and before.bow.riser_in is not None:
        shorter = before.bow.riser_in - riser
        made["bow.marked_weight_lbf"] = before.bow.marked_weight_lbf * (
            1 + RISER_SHARE_PER_IN * shorter
        )
    return made
