"""The bow at hand, at the Bow length station: when it was looked over, and what was found."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between
from lyrandis.core.findings import Finding, fine, mind, say
from lyrandis.core.inspection import INSPECT_EVERY_DAYS
from lyrandis.core.route import moved_since
from lyrandis.core.trials import standing

_WHY = say(
    "Cracks and lifting layers come from overdrawing, dry-firing or age, and show before they let "
    "go. Look every few weeks of shooting, and after any knock or heat."
)


def inspection_findings(b: Bench) -> list[Finding]:
    """What the latest look over the bow means."""
    looks = [
        k for k in standing(b.known, "inspection") if not moved_since(k.trial.grounds, k.rig, b.rig)
    ]
    if not looks:
        return [
            mind(
                said=say("This bow was not looked over here yet: look before you shoot it."),
                why=_WHY,
                told="practice",
            )
        ]
    last = looks[-1]
    if b.stopped:
        return []  # said at the head of every station
    ago = days_between(last.day, day_of(b.now))
    if ago > INSPECT_EVERY_DAYS:
        return [
            mind(
                said=say(f"It was last looked over on {last.day}. Look again."),
                why=_WHY,
                told="practice",
            )
        ]
    return [
        fine(
            said=say(f"Looked over on {last.day}, nothing found."),
            why=_WHY,
            told="practice",
        )
    ]
