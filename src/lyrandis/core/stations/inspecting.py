"""The bow at hand, at the Bow length station: when it was looked over, and what was found."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.dates import day_of, days_between
from lyrandis.core.findings import Finding, fine, mind, say, stop
from lyrandis.core.inspection import INSPECT_EVERY_DAYS, PLACES
from lyrandis.core.trials import standing

_WHY = say(
    "Cracks and lifting layers come from overdrawing, dry-firing or age, and show before they let "
    "go. Look every few weeks of shooting, and after any knock or heat."
)


def inspection_findings(b: Bench) -> list[Finding]:
    """What the latest look over the bow means."""
    looks = standing(b.trials, "inspection")
    if not looks:
        return [
            mind(
                said=say("This bow was not looked over here yet: look before you shoot it."),
                why=_WHY,
                told="practice",
            )
        ]
    last = looks[-1]
    stops = [PLACES[id].title.lower() for id in last.trial.found if PLACES[id].stop]
    if stops:
        return [
            stop(
                said=say(
                    f"On {last.day} you found: {', '.join(stops)}. Do not shoot this bow until a "
                    "bowyer has seen it."
                ),
                why=_WHY,
                told="practice",
            )
        ]
    if last.trial.found:
        return [
            stop(
                said=say("The string was found worn. Change it before you shoot."),
                why=_WHY,
                told="practice",
            )
        ]
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
