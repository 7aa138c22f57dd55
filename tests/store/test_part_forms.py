"""Parts and their stories as an earlier form wrote them: a form is tried in which notes had another name."""

import json

import pytest
from sqlalchemy import text

from lyrandis.core import upcast
from lyrandis.core.parts import Part, Rig
from lyrandis.core.parts.part import StringPart
from lyrandis.files.part_json import part_text, read_part
from lyrandis.files.rig_json import read_rig
from lyrandis.store import rack
from lyrandis.store.pages import documents

THEN = 5


def part_then_to_now(document):
    return {("notes" if k == "remarks" else k): v for k, v in document.items()}


def line_then_to_now(document):
    changes = [c | {"path": "notes"} if c["path"] == "remarks" else c for c in document["changes"]]
    return document | {"changes": changes}


@pytest.fixture
def kept_then(store, monkeypatch):
    """A string with a story, in a database as the earlier form would have left it."""
    made = store.rack.make(Part(name="Spare", notes="new", of=StringPart(strands=14)))
    for seq, (path, value) in enumerate([("notes", "waxed"), ("of.twists", 22), ("notes", "worn")]):
        store.rack.change(made.mark, seq, {path: value}, at=f"2026-05-0{seq + 1}T10:00:00+00:00")
    store.rack.undo(made.mark, 3)
    with store.engine.begin() as connection:
        for table, columns in (("parts", ("base", "present")), ("part_entries", ("changes",))):
            for column in columns:
                connection.execute(
                    text(
                        f"UPDATE {table} SET {column} = replace({column}, '\"notes\"', '\"remarks\"')"
                    )
                )
    monkeypatch.setattr(upcast, "FORM", THEN + 1)
    monkeypatch.setitem(upcast._PART, THEN, part_then_to_now)
    monkeypatch.setitem(upcast._STORY, THEN, line_then_to_now)
    return made.mark


def forms(store, mark):
    with store.engine.connect() as connection:
        part = connection.execute(
            text("SELECT form, present_form FROM parts WHERE mark = :m"), {"m": mark}
        ).one()
        lines = connection.execute(
            text("SELECT form FROM part_entries WHERE mark = :m ORDER BY seq"), {"m": mark}
        ).scalars()
        return tuple(part), list(lines)


def test_a_part_is_read_written_on_and_taken_back_across_forms(store, kept_then):
    parts = store.rack
    assert parts.get(kept_then).part.notes == "waxed"
    assert [c.path for e in parts.story(kept_then) for c in e.changes] == [
        "notes", "of.twists", "notes", "notes",
    ]  # fmt: skip
    assert forms(store, kept_then) == ((THEN, THEN), [THEN] * 4)
    assert parts.redo(kept_then, 4).part.notes == "worn"
    after = parts.change(kept_then, 5, {"of.strands": 16})
    assert (after.part.notes, after.part.of.strands) == ("worn", 16)
    assert forms(store, kept_then) == ((THEN, THEN + 1), [THEN] * 4 + [THEN + 1] * 2)
    assert parts.undo(kept_then, 6).part.of.strands == 14
    with store.engine.connect() as connection:
        assert list(rack.faults(connection)) == []


def test_its_file_goes_out_in_the_present_form_and_an_earlier_one_comes_in(store, kept_then):
    kept, base, story = store.rack.whole(kept_then)
    lines = [{k: v for k, v in vars(e).items() if k != "rig_id"} for e in story]
    out = json.loads(part_text(kept_then, kept.created_at, base, lines))
    assert out["version"] == THEN + 1
    then = json.loads(json.dumps(out).replace('"notes"', '"remarks"')) | {"version": THEN}
    read = read_part(json.dumps(then).encode())
    again = json.loads(part_text(read.mark, read.created_at, read.base, read.story))
    assert again == out
    for unknown in (THEN - 1, THEN + 2, "5", None):
        with pytest.raises(Exception, match="not known here"):
            read_part(json.dumps(then | {"version": unknown}).encode())


def test_the_parts_in_a_rigs_file_come_up_too(store, kept_then):
    rig = store.create(Rig(name="With it"))
    rig = store.put_on(rig.id, rig.seq, "string", kept_then)
    told = documents(store.engine, rig.id)
    parts = json.loads(json.dumps(told.parts).replace('"notes"', '"remarks"'))
    document = {
        "format": "lyrandis-rig", "version": THEN, "created_at": told.created_at,
        "base": told.base, "parts": parts, "entries": list(told.entries),
    }  # fmt: skip
    assert read_rig(json.dumps(document).encode()).parts[kept_then].notes == "waxed"
