"""How many arrows a rig's parts have shot, by what sessions logged."""

from __future__ import annotations

from dataclasses import dataclass

from lyrandis.core.dates import days_between
from lyrandis.core.parts import Rig, Slot
from lyrandis.core.parts.on import KIND_OF
from lyrandis.core.trials import KeptTrial

WEEK_DAYS, MONTH_DAYS = 7, 30


@dataclass(frozen=True)
class ArrowTally:
    """A part's arrows: all that were logged, and those of the last 7 and 30 days."""

    slot: Slot
    arrows: int
    week: int
    month: int


def arrow_tally(rig: Rig, known: tuple[KeptTrial, ...], now: str) -> list[ArrowTally]:
    """The tally of each part that is on; of an archer without parts, of the rig as `archer`.

    Parameters
    ----------
    known : trials of this rig and of others with its parts
    now : an ISO time
    """
    told = [k for k in known if k.trial.kind == "arrows_shot" and not k.struck]
    if not told:
        return []
    parts = rig.on.slots() or {"archer": ""}
    tally = []
    for slot in KIND_OF:
        if slot not in parts:
            continue
        mine = [k for k in told if getattr(k.rig.on, slot) == parts[slot]]
        ago = [(days_between(k.day, now[:10]), k.trial.arrows) for k in mine]
        tally.append(
            ArrowTally(
                slot,
                sum(n for _, n in ago),
                sum(n for d, n in ago if 0 <= d < WEEK_DAYS),
                sum(n for d, n in ago if 0 <= d < MONTH_DAYS),
            )
        )
    return tally
