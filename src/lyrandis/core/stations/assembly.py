"""Assembly: which step is next, and what to have at hand."""

from __future__ import annotations

from lyrandis.core.assembly import AssemblyStep, steps_for
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Said, fine, mind, say
from lyrandis.core.stations.base import Answer


def _steps(b: Bench) -> tuple[tuple[AssemblyStep, ...], list[AssemblyStep]]:
    """All steps for this bow, and those still to do."""
    steps = steps_for(b.rig.bow)
    return steps, [s for s in steps if s.id not in b.rig.assembly.done]


def _counts(b: Bench) -> tuple[tuple[str, float], tuple[str, float]]:
    steps, open_ = _steps(b)
    return ("count", float(len(steps) - len(open_))), ("count", float(len(steps)))


def note(b: Bench) -> Said:
    """How many steps are done."""
    done, all_ = _counts(b)
    return say("{done} of {all_}", done=done, all_=all_)


def tell(b: Bench) -> Answer:
    """How far the bow is put together."""
    steps, open_ = _steps(b)
    done, all_ = _counts(b)
    tools = sorted({s.tool for s in steps if s.tool})
    findings = [
        fine(
            said=say(f"Have at hand: {', '.join(tools)}."),
            why=say("For nock point and brace height later also a bow square and a tape."),
            told="practice",
        ),
        mind(
            said=say("Never dry-fire, and never draw past the bow's stated limit."),
            why=say(
                "Without an arrow all that is stored stays in the bow. The maker's instructions "
                "for putting it together win over this list."
            ),
            told="maker",
        ),
    ]
    if not open_:
        answer = say(
            "All {all_} steps are done: string it, draw it a little, and listen.", all_=all_
        )
        return Answer(answer, findings)
    first = open_[0]
    findings.insert(
        0,
        mind(said=say(f"Next: {first.text}"), why=say(first.why), told="practice"),
    )
    answer = say("{done} of {all_} steps are done.", done=done, all_=all_)
    return Answer(answer, findings)
