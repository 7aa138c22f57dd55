"""Quiet: the next check in order, and what each change did."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.tune.quiet import CHECKS, VISIT_SD_DB, CheckDone
from lyrandis.core.tune.shots import SHOT_SD_DB

_TITLES = {check.id: check.title for check in CHECKS}
_WHY = say(
    "Mean of the shots after less that before. Shots scatter by {shot} and visits by {visit}; a "
    "change is told from twice its ± on.",
    shot=("level", SHOT_SD_DB),
    visit=("level", VISIT_SD_DB),
)


def _counts(b: Bench) -> tuple[tuple[str, float], tuple[str, float]]:
    """How many checks were made, of how many."""
    return ("count", float(len(b.quiet.made))), ("count", float(len(CHECKS)))


def note(b: Bench) -> Said:
    """How many checks were made."""
    made, all_ = _counts(b)
    return say("{made} of {all_} checks", made=made, all_=all_)


def tell(b: Bench) -> Answer:
    """How far the checks are, and what they made of the sound."""
    q = b.quiet
    made, all_ = _counts(b)
    if q.together_db is None:
        answer = say(
            "{made} of {all_} checks made: listen before and after, one change at a time.",
            made=made,
            all_=all_,
        )
    else:
        answer = say(
            "{made} of {all_} checks made; together they changed the sound by {together}.",
            made=made,
            all_=all_,
            together=("level", q.together_db),
        )
    found = [*(f for d in q.done for f in _done(d)), *_next(b)]
    found.append(
        fine(
            said=say("Pluck and listen, then shoot and listen; one change at a time."),
            why=say("Two changes at once tell nothing of either. Levels compare within a day."),
            told="practice",
        )
    )
    return Answer(answer, found)


def _done(d: CheckDone) -> list[Finding]:
    title = _TITLES[d.check].lower()
    if d.difference_db is None:
        return [
            fine(
                said=say(f"Looked at {title}: nothing found."),
                why=say(
                    "What was looked at and found sound need not be looked at next time first."
                ),
                told="measured",
            )
        ]
    change = ("level", abs(d.difference_db.value), d.difference_db.plus_minus)
    words = {
        "quieter": (f"Quieter by {{change}} after the check of {title}: leave it so.", "fine"),
        "louder": (f"Louder by {{change}} after the check of {title}: take it back.", "mind"),
        "same": (f"After the check of {title} the {{change}} of difference is chance.", "fine"),
    }
    text, level = words[d.verdict]
    found = [
        Finding(
            level="mind" if level == "mind" else "fine",
            said=say(text, change=change),
            why=_WHY,
            told="measured",
        )
    ]
    if d.tone_hz is not None and d.tone_grown_db is not None:
        found.append(
            mind(
                said=say(
                    f"A tone at {d.tone_hz:.0f} Hz has grown by {{grown}} since the visit before. "
                    f"Look first at: {d.tone_places}.",
                    grown=("level", d.tone_grown_db),
                ),
                why=say(
                    "Only a change is told: every bow rings. The places are a hint by frequency, "
                    "never a verdict."
                ),
                told="rule",
            )
        )
    return found


def _next(b: Bench) -> list[Finding]:
    following = b.quiet.next
    if following is None:
        return []
    check = next(c for c in CHECKS if c.id == following)
    return [
        mind(
            said=say(f"Next, {check.title.lower()}: {check.do}"),
            why=say(check.why),
            told="practice",
            action=Action(label=say("Go there"), station=check.station),
        )
    ]
