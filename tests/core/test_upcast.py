"""Documents of earlier forms read as what they meant when they were written."""

import copy

import pytest
from hypothesis import given
from hypothesis import strategies as st

from any_rig import SOME
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.history import Entry
from lyrandis.core.parts import Rig
from lyrandis.core.trials import KINDS
from lyrandis.core.upcast import FORM, entry_document, rig_document, trial_document

# What each earlier form did not know, and what a rig of then was: written from the forms'
# own time, not from the code under test.
NEW_IN_2 = {
    "archer.grown": "adult", "string.build": "unknown", "string.worked_in": None,
    "assembly.done": [], "limbs.pair": "unknown", "limbs.degrees_per_turn": 0.8,
    "limbs.upper_turns": 0.0, "step_up.step_lbf": 2.0, "step_up.weeks": 6.0, "step_up.starts": "",
    "schools.ratio_low": 2.05, "schools.ratio_high": 2.3, "schools.reserve_in": 1.5,
    "schools.ladder_start_in": 64.0, "schools.angle_split_deg": 121.0,
}  # fmt: skip
SECTIONS = ("schools", "assembly", "limbs", "step_up")
LEAST = {
    "draw": {"method": "tape", "readings_in": [28.0], "draw_length_in": 28, "plus_minus_in": 0.5},
    "weighing": {"readings": [[28.0, 40.0]]},
    "hold": {"weight_lbf": 36, "seconds": 9},
    "inspection": {"looked": ["tips"]},
    "brace": {"brace_height_in": 8},
    "settling": {"hours": 0, "brace_height_in": 8},
    "quiet": {"check": "loose", "before_db": [60.0], "after_db": [59.0]},
}
# Of which no earlier form knew.
LATER = {"aim_known", "arrows_shot", "judging", "arrow_weighing", "string_weighing", "release", "coach", "in_line", "tiller",
         "centre_shot", "nock_read", "chronograph", "marks", "numbered", "shaft_read",
         "way", "flight_read", "walk_back", "group", "clip", "crawl_visit"}  # fmt: skip


def value_at(document, path):
    for name in path.split("."):
        document = document[name]
    return document


def without(document, paths):
    kept = copy.deepcopy(document)
    for path in paths:
        *parents, leaf = path.split(".")
        place = kept
        for name in parents:
            place = place.get(name, {})
        place.pop(leaf, None)
    return kept


@given(SOME, st.sets(st.sampled_from([*NEW_IN_2, *SECTIONS])), st.sampled_from([1, 2]))
def test_a_rig_of_an_earlier_form_is_what_it_was_then(asked, missing, form):
    try:
        now = changed(Rig(), asked)
    except RefusedError:
        return
    document = now.model_dump(mode="json")
    old = without(document, missing)
    was = copy.deepcopy(old)
    read = Rig.model_validate(rig_document(old, form)).model_dump(mode="json")
    assert old == was  # what was kept is not changed by reading it
    for path, then in NEW_IN_2.items():
        gone = path in missing or path.split(".")[0] in missing
        assert value_at(read, path) == (then if gone else value_at(document, path))
    assert Rig.model_validate(rig_document(document, FORM)) == now
    assert rig_document(rig_document(old, form), FORM) == rig_document(old, form)


@given(
    st.sampled_from(sorted(LEAST)),
    st.sampled_from([1, 2]),
    st.sampled_from(["2026-04-11", "2026-04-11T10:00:00", "2026-04-11T10:00:00.25Z"]),
    st.booleans(),
)
def test_an_entry_of_an_earlier_form_is_what_it_was_then(kind, form, at, bare):
    trial = {"kind": kind} | LEAST[kind]
    old = {"seq": 1, "kind": "trial", "at": at, "trial": trial}
    if not bare:
        old |= {"changes": [{"path": "taste", "after": 0.5}], "why": "so", "station": "draw"}
    was = copy.deepcopy(old)
    document = entry_document(old, form)
    assert old == was
    entry = Entry.model_validate(document)
    then = {"heard_by": "unknown"} if kind == "quiet" else {}  # nobody had said what heard it
    assert entry.trial == KINDS[kind].model_validate(trial | then)
    assert entry.at == (at if at.endswith("Z") else "2026-04-11T" + (
        "00" if len(at) == 10 else "10") + ":00:00+00:00")  # fmt: skip
    assert entry.why == ("" if bare else "so")
    # Nothing is left to a default that may change.
    full = KINDS[kind].model_validate(trial).model_dump(mode="json")
    assert set(document["trial"]) == set(full)
    assert set(document) == set(Entry.model_fields)


def test_every_kind_of_trial_has_its_earlier_form():
    assert set(LEAST) | LATER == set(KINDS)


JUNK = st.recursive(
    st.none() | st.booleans() | st.integers() | st.text(max_size=5),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=5), inner),
    max_leaves=8,
)


@given(JUNK, st.sampled_from([1, 2, FORM]))
def test_what_is_no_document_is_handed_on(junk, form):
    rig_document(junk, form)
    trial_document(junk, form)
    entry_document(junk, form)
    for bad in ({"bow": junk}, {"archer": junk}, {"kind": junk}, {"at": junk, "trial": junk}):
        rig_document(bad, form)
        trial_document(bad, form)
        entry_document(bad, form)


@pytest.mark.parametrize("form", [1, 2])
def test_only_what_is_missing_is_filled(form):
    old = {"schools": {"ratio_low": 2.2}, "bow": {"length_in": 66}}
    read = rig_document(old, form)
    assert read["schools"]["ratio_low"] == 2.2
    assert read["schools"]["ratio_high"] == 2.3
    assert read["bow"] == {"length_in": 66}
