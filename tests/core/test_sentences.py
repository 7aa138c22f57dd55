"""What each station says stands on docs/sentences.md, beside a rig made by hand that makes it say so.

The page is what counts: a word that differs from it fails. `python tests/core/test_sentences.py`
writes it anew; what changed there is read line by line, beside the name of its rig.
"""

import re
from functools import cache
from pathlib import Path

import pytest
from situations import SITUATIONS

from lyrandis.core.stations import notes, views

PAGE = Path(__file__).parents[2] / "docs/sentences.md"
HEAD = """# What the stations say

Each station on rigs made by hand: first its note on the rail and its answer, then its findings, with
their level, what they rest on and what they offer to press. Values stand in braces. The first rig of
a station is told whole; of the others stands what they say beside it (+) and do not say (−). A reason
stands where it is first given.

"""


WHY = "why: "


def words(said):
    """A sentence with its values' quantities in place of their numbers, which models may move."""

    def slot(found):
        value = said.values.get(found[1])
        if value is None:
            return said.words[found[1]]
        return f"{{{value.quantity}{'' if value.plus_minus is None else ' ±'}}}"

    return re.sub(r"\d+\.\d+", "#", re.sub(r"\{(\w+)\}", slot, said.text))


def told(situation):
    """Every line that its station says."""
    bench = situation.bench()
    view = next(v for v in views(bench, [situation.station]) if v.station == situation.station)
    note = next(n.note for n in notes(bench) if n.station == situation.station)
    lines = [f"note: {words(note)}", f"answer: {words(view.answer)}"]
    for finding in view.findings:
        lines.append(f"{finding.level}, {finding.told}: {words(finding.said)}")
        lines.append(f"{WHY}{words(finding.why)}")
        lines += [f"to press: {words(a.label)}" for a in (finding.action,) if a is not None]
    return list(dict.fromkeys(lines))


@cache
def whys(at):
    """The reasons that were told at its station by then."""
    before = whys(at - 1) if at > FIRST[SITUATIONS[at].station] else frozenset()
    return before | {line for line in told(SITUATIONS[at]) if line.startswith(WHY)}


@cache
def lines(at):
    """What its chapter lists: of a station's first rig everything, of another what differs."""
    now, first = told(SITUATIONS[at]), FIRST[SITUATIONS[at].station]
    if at == first:
        return [f"- {line}" for line in now]
    before = [line.removeprefix("- ") for line in lines(first)]
    more = [f"- + {line}" for line in now if line not in before and line not in whys(at - 1)]
    gone = [line for line in before if line not in now and not line.startswith(WHY)]
    return more + [f"- − {line}" for line in gone]


FIRST = {s.station: at for at, s in reversed(list(enumerate(SITUATIONS)))}
NAMES = [f"{s.station}: {s.name}" for s in SITUATIONS]


def page():
    """The page as the code has it."""
    made = []
    for at, situation in enumerate(SITUATIONS):
        if FIRST[situation.station] == at:
            made += [f"## {situation.station}", ""]
        made += [f"### {situation.name}", "", *lines(at), ""]
    return HEAD + "\n".join(made)


@cache
def chapters():
    """The page's rigs, each with its lines, by station and name."""
    found = {}
    for chapter in PAGE.read_text().split("\n## ")[1:]:
        station, _, rest = chapter.partition("\n")
        for part in rest.split("### ")[1:]:
            name, _, listed = part.partition("\n")
            found[f"{station}: {name}"] = listed.strip().splitlines()
    return found


def test_the_page_has_each_rig_once_and_no_other():
    assert len(set(NAMES)) == len(NAMES)
    assert list(chapters()) == NAMES


@pytest.mark.parametrize(
    "at", range(len(SITUATIONS)), ids=[name.replace(" ", "-") for name in NAMES]
)
def test_a_station_says_what_the_page_says(at):
    assert lines(at) == chapters()[NAMES[at]]


if __name__ == "__main__":
    PAGE.write_text(page())
