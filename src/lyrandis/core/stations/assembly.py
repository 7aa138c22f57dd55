"""Assembly: which step is next, and what to have at hand."""

from __future__ import annotations

from lyrandis.core.assembly import steps_for
from lyrandis.core.findings import Finding, say
from lyrandis.core.stations.base import Told
from lyrandis.core.workbench import Workbench


def tell(b: Workbench) -> Told:
    """How far the bow is put together."""
    steps = steps_for(b.rig.bow)
    open_ = [s for s in steps if s.id not in b.rig.assembly.done]
    done, all_ = ("count", float(len(steps) - len(open_))), ("count", float(len(steps)))
    note = say("{done} of {all_} steps", done=done, all_=all_)
    tools = sorted({s.tool for s in steps if s.tool})
    findings = [
        Finding(
            level="fine",
            said=say(f"Have at hand: {', '.join(tools)}."),
            why=say("For nock point and brace height later also a bow square and a tape."),
            told="practice",
        ),
        Finding(
            level="mind",
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
        return Told(answer, note, findings)
    first = open_[0]
    findings.insert(
        0,
        Finding(level="mind", said=say(f"Next: {first.text}"), why=say(first.why), told="practice"),
    )
    answer = say("{done} of {all_} steps are done.", done=done, all_=all_)
    return Told(answer, note, findings)
