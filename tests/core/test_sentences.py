"""What each station says stands on docs/sentences.md, beside a rig made by hand that makes it say so.

The page is what counts: a word that differs from it fails. `python tests/core/test_sentences.py`
writes it anew; what changed there is read line by line, beside the name of its rig. The numbers that
stand rounded on it are kept in full beside this file.
"""

import gzip
import json
from functools import cache
from pathlib import Path

import pytest
from situations import SITUATIONS
from test_numbers import same

from lyrandis.core.stations import notes, views

PAGE = Path(__file__).parents[2] / "docs/sentences.md"
IN_FULL = Path(__file__).with_name("said.json.gz")
HEAD = """# What the stations say

Each station on rigs made by hand: first its note on the rail and its answer, then its findings, with
their level, what they rest on and what they offer to press, with what that sets. The first rig of a
station is told whole; of the others stands what they say beside it (+) and do not say (−). A reason
stands where it is first given.

"""


WHY = "why: "


def sets(action):
    """What an action changes, by its stored names."""
    told = (
        f"{k} {v:.4g}" if isinstance(v, float) else f"{k} {v}" for k, v in action.changes.items()
    )
    return f" ({', '.join(told)})" if action.changes else ""


@cache
def seen(at):
    """A station's note and view of a rig."""
    situation = SITUATIONS[at]
    bench = situation.bench()
    view = next(v for v in views(bench, [situation.station]) if v.station == situation.station)
    return next(n.note for n in notes(bench) if n.station == situation.station), view


def in_full(at):
    """The numbers of all that is said there, as they are."""
    note, view = seen(at)
    all_said = [note, view.answer, *(s for f in view.findings for s in (f.said, f.why))]
    return [[[n, v.value, v.plus_minus] for n, v in s.values.items()] for s in all_said if s.values]


@cache
def told(at):
    """Every line that its station says; a reason's is known by its words without their numbers."""
    note, view = seen(at)
    lines = {}
    for said in (f"note: {note.plain()}", f"answer: {view.answer.plain()}"):
        lines[said] = said
    for finding in view.findings:
        said = f"{finding.level}, {finding.told}: {finding.said.plain()}"
        lines[said] = said
        lines[f"{WHY}{finding.why.text}"] = f"{WHY}{finding.why.plain()}"
        if finding.action is not None:
            press = f"to press: {finding.action.label.plain()}{sets(finding.action)}"
            lines[press] = press
    return lines


@cache
def whys(at):
    """The reasons that were told at its station by then."""
    before = whys(at - 1) if at > FIRST[SITUATIONS[at].station] else frozenset()
    return before | {key for key in told(at) if key.startswith(WHY)}


@cache
def lines(at):
    """What its chapter lists: of a station's first rig everything, of another what differs."""
    now, first = told(at), FIRST[SITUATIONS[at].station]
    if at == first:
        return [f"- {line}" for line in now.values()]
    before, known = told(first), whys(at - 1)
    more = [f"- + {line}" for key, line in now.items() if key not in before and key not in known]
    gone = [f"- − {line}" for key, line in before.items() if key not in now]
    return more + [line for line in gone if not line.startswith(f"- − {WHY}")]


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


@cache
def kept_in_full():
    return json.loads(gzip.decompress(IN_FULL.read_bytes()))


def test_the_page_has_each_rig_once_and_no_other():
    assert len(set(NAMES)) == len(NAMES)
    assert list(chapters()) == NAMES


@pytest.mark.parametrize(
    "at", range(len(SITUATIONS)), ids=[name.replace(" ", "-") for name in NAMES]
)
def test_a_station_says_what_the_page_says(at):
    assert lines(at) == chapters()[NAMES[at]]
    assert same(in_full(at), kept_in_full()[NAMES[at]]) == []


if __name__ == "__main__":
    PAGE.write_text(page())
    text = json.dumps({name: in_full(at) for at, name in enumerate(NAMES)})
    IN_FULL.write_bytes(gzip.compress(text.encode(), mtime=0))
